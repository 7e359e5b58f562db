"""Composed pieces that hang: necklace, pendant on a chain, drop earring, forehead chain."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import SerializeAsAny

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.joining import heavy_earring
from jamreel.core.body.outline import Outline, usual_outline
from jamreel.core.closures import AnyClosure
from jamreel.core.closures.open_ends import OpenEnds
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job
from jamreel.core.families.composed import COMPOSE, Composed, Target, Worked
from jamreel.core.fit.fall import Fall, hang
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.makeup.compose import Composition, Lying
from jamreel.core.makeup.sequence import Entries, Entry, Unit, laid_out
from jamreel.core.parts import AnyPart
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.dangle import Dangle
from jamreel.core.parts.ear_wire import EarWire
from jamreel.core.parts.finding import Finding
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.path.moves import developed_length
from jamreel.core.values import Length, Sheet, Stroke
from jamreel.core.wire.metals import wire_mass
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Row
from jamreel.core.workpiece.chest import fall_sheet, landing
from jamreel.core.workpiece.drawing import points_of
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.sequence_drawing import hanging_sheet


def _entry(part: object, times: int = 1, *, fill: bool = False) -> Entry:
    return Entry.model_validate({"part": part, "times": times, "fill": fill})


def part_mass(part: Lying, density: float) -> float:
    """Return the mass of one part as made: its wires and what is bought for it.

    Args:
        part: at its place.
        density: of the wire's metal [g/cm3].

    Returns:
        Mass [g].

    Source: plain geometry.
    """
    wire = sum(
        wire_mass(use.wire.d, developed_length(moves, use.wire.d), density) * use.quantity
        for use in part.made.wires
        for name, moves in use.stretches
        if not name.startswith("tail")
    )
    return wire + part.made.bought_mass


class Scale:
    """Weighs parts, each kind once."""

    def __init__(self, density: float) -> None:
        self._density = density
        self._known: dict[int, float] = {}

    def __call__(self, part: Lying) -> float:
        """Return the mass of a part [g]."""
        known = self._known.get(id(part.made))
        if known is None:
            known = self._known[id(part.made)] = part_mass(part, self._density)
        return known


def hanging_of(laid: Composition) -> float:
    """Return how far a piece that hangs straight down reaches.

    Args:
        laid: the piece, hung by its left end.

    Returns:
        Length [mm] from where it hangs to its lowest point.

    Source: plain geometry.
    """
    drops = [p.at + p.made.hang for p in laid.parts if p.drop]
    ends = [p.at + p.length for p in laid.parts if not p.drop]
    return max([*drops, *ends], default=0.0)


class HangingNecklace(Composed):
    """Base of necklaces of parts: chosen by length, judged by where they fall."""

    family: ClassVar[str] = "necklace"
    part: ClassVar[str] = "neck"
    sites: ClassVar[tuple[str, ...]] = ("neck_base_girth",)
    asks: ClassVar[tuple[str, ...]] = ("fall", "comfortable")
    eases: ClassVar[bool] = False
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        **Composed.ranges,
        "length": (250, 2000),
    }

    length: Length = 450.0
    mirrored: bool = True
    worn_asleep: bool = False

    @property
    def must_release(self) -> bool:
        """When it is worn asleep."""
        return self.worn_asleep

    def target(self, job: Job) -> Target:
        """Return the finished length that was chosen; half a counted part is near enough."""
        return Target(self.length, 0.5)

    def against(self, worked: Worked, book: Book) -> None:
        """Write the make-up, then what goes round the back, then what hangs in front."""
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE, "front")
        back = self._outline(worked).girth / 2
        girth = worked.job.girths["neck_base_girth"].value_mm
        book.term("less_back", -back, "fit.fall.hang", "geometry", "front", girth=girth)
        book.total("front", "fit.fall.hang")

    def _outline(self, worked: Worked) -> Outline:
        return usual_outline("neck", worked.job.girths["neck_base_girth"].value_mm)

    def _falls(self, worked: Worked, more: float = 0.0) -> Fall:
        """Return how its front hangs.

        Raises:
            Refusal: a piece that does not go round the neck's base.
        """
        outline = self._outline(worked)
        span, back = 2 * outline.across, outline.girth / 2
        front = worked.laid.finished - back + more
        if front <= span * 1.02:
            raise Refusal(
                "chain_short",
                got=f"{worked.laid.finished:.1f} mm",
                field="piece.entries",
                least=back + span * 1.02,
            )
        weigh = Scale(worked.wire.metal.density)
        mass = sum(weigh(p) for p in worked.laid.parts if not p.drop)
        pendant = sum(weigh(p) for p in self._middle(worked.laid))
        per_mm = max(mass - pendant, 0.001) / max(worked.laid.finished, 1.0)
        return hang(span, front, pendant, per_mm)

    def _fall(self, worked: Worked) -> Fall:
        known: Fall | None = worked.memo.get("fall")
        if known is None:
            known = worked.memo["fall"] = self._falls(worked)
        return known

    def _middle(self, laid: Composition) -> list[Lying]:
        """Return what pulls at the middle: the focal, and drops close by."""
        middle = laid.finished / 2
        return [
            p
            for p in laid.parts
            if p.unit.path in ("focal", "hung")
            or (p.drop and abs(p.at - middle) < 0.05 * laid.finished)
        ]

    def _drop(self, laid: Composition) -> float:
        return max((p.made.hang for p in self._middle(laid) if p.drop), default=0.0)

    def rows(self, worked: Worked) -> list[Row]:
        """Return where it falls."""
        fall = self._fall(worked)
        doubt = self._falls(worked, worked.job.girths["neck_base_girth"].plus_minus_mm / 2)
        pm = abs(doubt.sag - fall.sag)
        drop = self._drop(worked.laid)
        return [
            ("fall", fall.sag, pm),
            ("fall_pendant", fall.sag + drop if drop else None, pm),
            ("front", fall.length, None),
        ]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "fall",
            "make_up": "finished",
            "cut": "wire_in_all",
            "form": "finished",
            "fit": "fall",
        }

    def own_advice(self, worked: Worked) -> Iterator[Advice | None]:
        """Yield where it lands, in body words."""
        fall = self._fall(worked)
        low = fall.sag + self._drop(worked.laid)
        where = landing(low, worked.job.shop.landmarks)
        yield advise("lands", "note", "piece.length", fall=fall.sag, low=low, where=where)

    def sheets(self, worked: Worked) -> tuple[Sheet, ...]:
        """Return the chest with the necklace as it hangs."""
        fall = self._fall(worked)
        thick = max((p.made.width for p in worked.laid.parts if not p.drop), default=1.0)
        drop = self._drop(worked.laid)
        landmarks = worked.job.shop.landmarks
        sheet = fall_sheet(fall, fall.span, min(thick, 6.0), drop, landmarks)
        return (sheet.model_copy(update={"stations": ("measure", "fit")}),)

    def put_right(self, worked: Worked) -> PuttingRight | None:
        """Return the answer to a try-on: how many to take off or add for the fall wanted."""
        tryon = worked.job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.fall is None:
            right = bool(tryon.comfortable)
            return verdict("fits" if right else "where_fell", settled=right)
        fall = self._fall(worked)
        unit, name = self.counted_unit(worked)
        pair = 2 if self.mirrored else 1
        off = tryon.fall - fall.sag
        moves = self._falls(worked, pair * unit).sag - fall.sag
        if abs(off) < max(moves / 2, 3.0):
            return verdict("fell_as_planned", settled=True, fall=tryon.fall)
        count = pair * max(1, round(abs(off) / moves))
        key = "fell_low" if off > 0 else "fell_high"
        return verdict(key, amount=count * unit, count=count, name=name, off=abs(off))


class LinkedNecklace(HangingNecklace):
    """A necklace of parts, its middle in front and the closure behind."""

    kind: Literal["linked_necklace"] = "linked_necklace"
    entries: Entries = (_entry(LinkedBead(), 12, fill=True),)


class PendantChain(HangingNecklace):
    """A pendant at the middle of a chain."""

    kind: Literal["pendant_chain"] = "pendant_chain"
    entries: Entries = (_entry(BoughtChain(links=60), fill=True),)
    focal: SerializeAsAny[AnyPart] | None = JumpRing(pin=4.0)
    hung: SerializeAsAny[AnyPart] | None = Finding(length=30.0, width=18.0, hangs=True, mass=6.0)

    def own_advice(self, worked: Worked) -> Iterator[Advice | None]:
        """Yield where it lands, and whether anything hangs there."""
        yield from super().own_advice(worked)
        if not any(p.drop for p in worked.laid.parts):
            yield advise("no_pendant", "check", "piece.hung")


class DropEarring(Composed):
    """A drop hung from an ear wire; made as a pair unless one is wanted."""

    family: ClassVar[str] = "earring"
    part: ClassVar[str] = "ear"
    sites: ClassVar[tuple[str, ...]] = ()
    asks: ClassVar[tuple[str, ...]] = ("comfortable",)
    eases: ClassVar[bool] = False
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        **Composed.ranges,
        "drop": (8, 200),
    }

    kind: Literal["drop_earring"] = "drop_earring"
    drop: Length = 50.0
    pair: bool = True
    entries: Entries = (
        _entry(EarWire()),
        _entry(LinkedBead(bead=4.0, pin=2.0), 1, fill=True),
        _entry(Dangle(bead=8.0)),
    )
    closure: SerializeAsAny[AnyClosure] = OpenEnds()

    @property
    def sets(self) -> int:
        """Two for a pair."""
        return 2 if self.pair else 1

    def target(self, job: Job) -> Target:
        """Return the length that it is to hang."""
        return Target(self.drop, 0.5, hanging_of)

    def against(self, worked: Worked, book: Book) -> None:
        """Write the parts, and the last drop below them."""
        self.write_parts(worked, book, "hangs")
        below = worked.got - worked.laid.finished
        book.term("last_drop", below, COMPOSE, "geometry", "hangs")
        book.total("hangs", COMPOSE)

    def rows(self, worked: Worked) -> list[Row]:
        """Return how far it hangs."""
        return [("hangs", worked.got, None)]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "hangs",
            "make_up": "hangs",
            "cut": "wire_in_all",
            "form": "hangs",
            "fit": "hangs",
        }

    def own_advice(self, worked: Worked) -> Iterator[Advice | None]:
        """Yield whether it is heavy."""
        density = worked.wire.metal.density
        yield heavy_earring(sum(part_mass(p, density) for p in worked.laid.parts))

    def sheets(self, worked: Worked) -> tuple[Sheet, ...]:
        """Return the earring as it hangs."""
        return (hanging_sheet(worked.laid, worked.got, ("measure", "form", "fit")),)

    def put_right(self, worked: Worked) -> PuttingRight | None:
        """Return the answer to a try-on."""
        tryon = worked.job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.comfortable is False:
            return verdict("lighter")
        return verdict("fits", settled=True)


class ForeheadDrops(Composed):
    """A forehead chain of parts: two sides that meet at the focal, and one down the parting."""

    family: ClassVar[str] = "headpiece"
    part: ClassVar[str] = "head"
    sites: ClassVar[tuple[str, ...]] = ("brow_arc", "parting_arc")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    eases: ClassVar[bool] = False
    ranges: ClassVar[dict[str, tuple[float, float]]] = {**Composed.ranges, "drape": (0, 80)}

    kind: Literal["forehead_drops"] = "forehead_drops"
    drape: Length = 10.0
    entries: Entries = (
        _entry(JumpRing(pin=3.5)),
        _entry(BoughtChain(links=14), fill=True),
        _entry(JumpRing(pin=3.0)),
        _entry(Dangle(bead=4.0, pin=2.0)),
        _entry(BoughtChain(links=8)),
    )
    focal: SerializeAsAny[AnyPart] | None = JumpRing(pin=4.5)
    mirrored: bool = True
    closure: SerializeAsAny[AnyClosure] = OpenEnds()
    parting: Entries = (
        _entry(JumpRing(pin=3.0)),
        _entry(BoughtChain(links=24), fill=True),
        _entry(JumpRing(pin=3.0)),
    )

    def target(self, job: Job) -> Target:
        """Return the line across the brow: its arc, and what it is to drape."""
        brow = job.girths["brow_arc"]
        return Target(brow.value_mm + self.drape, brow.plus_minus_mm)

    def beside(self) -> tuple[Unit, ...]:
        """Return the parting chain, which does not lie in the brow line."""
        return laid_out(self.parting, root="parting")

    def against(self, worked: Worked, book: Book) -> None:
        """Write the brow line, then the parting."""
        book.girth(worked.job.girths["brow_arc"], "wanted_brow")
        book.term("drape", self.drape, COMPOSE, "chosen", "wanted_brow")
        book.total("wanted_brow", COMPOSE)
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE)
        book.girth(worked.job.girths["parting_arc"], "parting_over")
        down = worked.laid.beside_length
        book.term("less_parting", -down, COMPOSE, "geometry", "parting_over")
        book.total("parting_over", COMPOSE)

    def rows(self, worked: Worked) -> list[Row]:
        """Return brow line and parting."""
        pm = worked.target.doubt
        return [
            ("brow_line", worked.laid.finished, pm),
            ("wanted_brow", worked.target.wanted, pm),
            ("parting_chain", worked.laid.beside_length, None),
        ]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "wanted_brow",
            "make_up": "brow_line",
            "cut": "wire_in_all",
            "form": "brow_line",
            "fit": "brow_line",
        }

    def own_advice(self, worked: Worked) -> Iterator[Advice | None]:
        """Yield whether the parting chain reaches from its anchor to the focal."""
        parting = worked.job.girths["parting_arc"]
        off = worked.laid.beside_length - parting.value_mm
        if abs(off) > max(parting.plus_minus_mm, 3.0):
            key = "parting_long" if off > 0 else "parting_short"
            yield advise(key, "fix", "piece.parting", off=abs(off))

    def sheets(self, worked: Worked) -> tuple[Sheet, ...]:
        """Return the brow from the front: both sides and the parting, what hangs from them."""
        laid = worked.laid
        half = worked.job.girths["brow_arc"].value_mm * 0.46
        fall = hang(2 * half, max(2 * half + 10.0, 2 * half * 1.01))
        line = fall.points()
        strokes = [Stroke(part="skin", points=_brow(half))]
        strokes.append(Stroke(part="entry_0", points=points_of(line), width_mm=1.6))
        down = worked.laid.beside_length
        low = -fall.sag
        strokes.append(
            Stroke(part="parting_over", points=((0.0, low), (0.0, low + down)), width_mm=1.6)
        )
        for i, part in enumerate(p for p in laid.parts if p.drop):
            x = (part.at / laid.finished - 0.5) * 2 * half
            y = float(line[:, 1][int(abs(line[:, 0] - x).argmin())])
            for k, s in enumerate(part.made.strokes):
                points = tuple((round(px + x, 2), round(py + y, 2)) for px, py in s.points)
                name = f"{s.part} {i} {k}"
                strokes.append(s.model_copy(update={"part": name, "points": points}))
        return (
            Sheet(
                id="brow",
                title=say("drawing.brow"),
                stations=("measure", "fit"),
                strokes=tuple(strokes),
            ),
        )

    def put_right(self, worked: Worked) -> PuttingRight | None:
        """Return the answer to a try-on."""
        tryon = worked.job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        unit, name = self.counted_unit(worked)
        if tryon.comfortable is False:
            return verdict("units_on", amount=2 * unit, count=2, name=name, off=2 * unit)
        if tryon.stays_on is False:
            return verdict("units_off", amount=2 * unit, count=2, name=name, off=2 * unit)
        return verdict("fits", settled=True)


def _brow(half: float) -> tuple[tuple[float, float], ...]:
    return tuple(
        (
            round(half * 1.12 * math.cos(t), 2),
            round(24 + half * 1.25 * math.sin(t) - half * 0.25, 2),
        )
        for t in (math.radians(a) for a in range(-30, 211, 6))
    )

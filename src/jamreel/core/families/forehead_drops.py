"""Forehead chains of parts: two sides across the brow, one down the parting."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import SerializeAsAny, field_validator

from jamreel.core.advice import Advice, advise
from jamreel.core.choices import choice
from jamreel.core.closures import AnyClosure
from jamreel.core.closures.open_ends import OpenEnds
from jamreel.core.families.base import Job, Preset
from jamreel.core.families.composed import COMPOSE, Composed, OnPiece, Target, length_beside
from jamreel.core.fit.fall import hang
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.makeup.sequence import Entries, Entry, named
from jamreel.core.parts import AnyPart
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.dangle import Dangle
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.path.lines import points_of
from jamreel.core.values import Length, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Row
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import verdict

# Two plain chains across the brow and one down the parting; the three meet at one ring.
FOREHEAD_CHAIN = Preset(
    name="forehead_chain",
    piece={
        "counted": True,
        "entries": [
            {
                "id": "brow",
                "fill": True,
                "part": {"kind": "chain", "pitch": 3, "thickness": 1.6, "mass_per_m": 7},
            }
        ],
        "focal": {"kind": "jump_ring", "pin": 5},
        "hung": {"kind": "finding", "hangs": True, "length": 20, "width": 8, "mass": 0},
        "parting": [
            {
                "id": "parting",
                "fill": True,
                "part": {"kind": "chain", "pitch": 3, "thickness": 1.6, "mass_per_m": 7},
            }
        ],
    },
    wire={"size": "1 mm", "metal": "sterling", "temper": "half_hard"},
)


def _entry(name: str, part: object, times: int = 1, *, fill: bool = False) -> Entry:
    return Entry.model_validate({"id": name, "part": part, "times": times, "fill": fill})


class ForeheadDrops(Composed):
    """A forehead chain of parts: two sides that meet at the focal, and one down the parting."""

    first: ClassVar[tuple[str, ...]] = (*Composed.first, "drape")

    family: ClassVar[str] = "headpiece"
    worn_on: ClassVar[str] = "head"
    sites: ClassVar[tuple[str, ...]] = ("brow_arc", "parting_arc")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    eases: ClassVar[bool] = False

    lines: ClassVar[tuple[str, ...]] = ("entries", "parting")
    presets: ClassVar[tuple[Preset, ...]] = (FOREHEAD_CHAIN,)

    kind: Literal["forehead_drops"] = "forehead_drops"
    drape: Length = choice(10.0, 0, 80)
    entries: Entries = (
        _entry("browring", JumpRing(pin=3.5)),
        _entry("browchain", BoughtChain(links=14), fill=True),
        _entry("dropring", JumpRing(pin=3.0)),
        _entry("browdrop", Dangle(bead=4.0, pin=2.0)),
        _entry("browend", BoughtChain(links=8)),
    )
    focal: SerializeAsAny[AnyPart] | None = JumpRing(pin=4.5)
    mirrored: bool = True
    closure: SerializeAsAny[AnyClosure] = OpenEnds()
    parting: Entries = (
        _entry("partring", JumpRing(pin=3.0)),
        _entry("partchain", BoughtChain(links=24), fill=True),
        _entry("partend", JumpRing(pin=3.0)),
    )

    def target(self, job: Job) -> Target:
        """Return the line across the brow: its arc, and what it is to drape."""
        brow = job.girths["brow_arc"]
        return Target(brow.value_mm + self.drape, brow.plus_minus_mm)

    @field_validator("parting")
    @classmethod
    def _parting_named(cls, parting: Entries) -> Entries:
        return named(parting, "p")

    def target_beside(self, job: Job) -> Target:
        """Return the way down the parting, to the middle of what the three chains meet at."""
        parting = job.girths["parting_arc"]
        return length_beside(parting.value_mm - self._half_focal(job), parting.plus_minus_mm)

    def _half_focal(self, job: Job) -> float:
        return self.focal.make(job.wires).length / 2 if self.focal else 0.0

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write the brow line, then the parting."""
        book.girth(worked.job.girths["brow_arc"], "wanted_brow")
        book.term("drape", self.drape, COMPOSE, "chosen", "wanted_brow")
        book.total("wanted_brow", COMPOSE)
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE)
        book.girth(worked.job.girths["parting_arc"], "parting_over")
        half = self._half_focal(worked.job)
        if half:
            book.term("less_half_focal", -half, COMPOSE, "geometry", "parting_over")
        down = worked.laid.beside_length
        book.term("less_parting", -down, COMPOSE, "geometry", "parting_over")
        book.total("parting_over", COMPOSE)

    def rows(self, worked: OnPiece) -> list[Row]:
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

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield whether the parting chain reaches from its anchor to the focal."""
        parting = worked.job.girths["parting_arc"]
        wanted = parting.value_mm - self._half_focal(worked.job)
        off = worked.laid.beside_length - wanted
        if abs(off) > max(parting.plus_minus_mm, 3.0):
            key = "parting_long" if off > 0 else "parting_short"
            yield advise(key, "fix", "piece.parting", off=abs(off))

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the brow from the front: both sides and the parting, what hangs from them."""
        laid = worked.laid
        half = worked.job.girths["brow_arc"].value_mm * 0.46
        fall = hang(2 * half, max(2 * half + 10.0, 2 * half * 1.01))
        line = fall.points()
        strokes = [Stroke(part="skin", points=_brow(half))]
        # The line points at the ledger line of what lies in it.
        name = self.entries[0].id if self.entries else "in_all"
        strokes.append(Stroke(part=name, points=points_of(line), width_mm=1.6))
        down = worked.laid.beside_length
        low = -fall.sag
        strokes.append(
            Stroke(part="parting_over", points=((0.0, low), (0.0, low + down)), width_mm=1.6)
        )
        for i, part in enumerate(p for p in laid.parts if p.made.hang):
            x = (part.at / laid.finished - 0.5) * 2 * half
            y = float(line[:, 1][int(abs(line[:, 0] - x).argmin())])
            for k, s in enumerate(c for stroke in part.made.strokes for c in stroke.copies):
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

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on."""
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

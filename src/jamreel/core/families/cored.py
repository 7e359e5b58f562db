"""Threaded cores: coils and beads on a stiff wire that ends in loops of its own.

A ring of one turn is formed with all that it carries; several turns are tempered wire as it comes.
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any, ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.opening import opened_to_go_on, over_thin_side
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice, like
from jamreel.core.cutting.cuts import Cut
from jamreel.core.errors import Refusal
from jamreel.core.families.banded import Bent
from jamreel.core.families.base import Job, usually
from jamreel.core.families.composed import COMPOSE, Composed, OnPiece, Target
from jamreel.core.families.linked import LinkedRound
from jamreel.core.fit.ease import Ease, word_for
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.tools import Former
from jamreel.core.makeup.compose import Composition
from jamreel.core.makeup.sequence import Entries, Entry
from jamreel.core.units import Mm
from jamreel.core.values import Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, Row
from jamreel.core.workpiece.drawing import coil_round, former_sheet, section_sheet
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import felt

StringEnds = Literal["wrapped", "plain", "through"]


def spread(large: Mapping[str, Any], count: int, filler: Mapping[str, Any]) -> Entry:
    """Return so many large parts laid out evenly, two fillers in every gap and one at both ends.

    Args:
        large: the part that is laid first, as typed.
        count: how many of it.
        filler: what fills each gap, as typed.
    """
    group = [{"id": "threaded", "part": large}, {"id": "filled", "part": filler}]
    return Entry.model_validate(
        {
            "id": "spread",
            "group": group,
            "times": count,
            "evenly": True,
            "fillers": 2 * count,
            "fill": True,
        }
    )


THREADED = spread(
    {"kind": "bead", "bead": 8, "hole": 2.6}, 5, {"kind": "filling_coil", "wire": "0.8 mm"}
)


class Threaded(Composed):
    """Base of pieces of which all parts are threaded on one core."""

    string_ends: StringEnds = "plain"
    string_pin: Length = like(Composed, "string_pin", 6.0)

    def worked(self, job: Job) -> OnPiece:
        """Return the make-up laid out. Raises Refusal for parts that are not threaded."""
        for unit in self.units():
            if unit.part.role == "link":
                path = f"piece.{unit.path}"
                raise Refusal("not_threaded", got=unit.part.says, field=path)
        return super().worked(job)


def inside_of_core(laid: Composition) -> float:
    """Return the inside girth of a rigid ring [mm]: what is thickest on it reaches furthest in.

        finished length - pi t: the core is a circle of R_c, beads reach in to R_c - t / 2

    Args:
        laid: the piece laid out.

    Raises:
        ValueError: parts so thick that nothing is left inside.

    Source: plain geometry.
    """
    thick = max((part.made.thickness for part in laid.parts if not part.drop), default=0.0)
    inside = laid.finished - math.pi * max(thick, laid.string.d)
    if inside <= 0:
        raise ValueError("the parts are too thick to leave an opening")
    return inside


class Cored(Threaded, LinkedRound):
    """Base of rigid rings with parts threaded on them, closed or open at the back."""

    def target(self, job: Job) -> Target:
        """Return the inside girth wanted, inside of what is thickest: a rigid core does not give
        way between beads as a string does."""
        return replace(super().target(job), measure=inside_of_core)

    def _rigid(self, worked: OnPiece) -> float:
        """Return 0: all of it is rigid, and counted so."""
        return 0.0

    def _inner(self, worked: OnPiece) -> float:
        """Return the inside diameter of the core itself [mm]: parts on it reach further in."""
        return worked.laid.finished / math.pi - worked.laid.string.d

    def bent(self, worked: OnPiece) -> Bent | None:
        """Return nothing: its core is bent when it is threaded."""
        return None

    def formers(self, worked: OnPiece) -> tuple[Former, ...]:
        """Return what the core is bent round, so that it springs open to its own inside.

        Raises:
            Refusal: a core that no former bends so far.
        """
        core, inner = worked.laid.string, self._inner(worked)
        if "former" not in worked.memo:
            key = worked.laid.runs[0].key if worked.laid.runs else ""
            band, harder = worked.as_worn(key, (Lengthwise(core, 1),))
            try:
                worked.memo["former"] = worked.job.former_of_band(band, core.d, inner, harder)
            except ValueError:
                raise Refusal("no_former", got=Mm(inner), field="piece.string") from None
        return (worked.memo["former"],)

    def forms(self, worked: OnPiece) -> tuple[Step, ...]:
        """Return the step in which the core is bent, threaded as it is."""
        (former,) = self.formers(worked)
        on, opens = former.tool_mm or former.former_mm, former.result_mm or former.target_mm
        return (step("composed.core_form", "form", check=True, former=on, inner=opens),)

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return what it comes to, and how wide its core is."""
        return [*super().rows(worked), ("core_inside", self._inner(worked), None)]

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the section of the body with the piece round it, and its core on its former."""
        return (
            *super().sheets(worked),
            *(former_sheet(one, worked.laid.string.d) for one in self.formers(worked)),
        )

    def _opening(self, worked: OnPiece) -> tuple[float, float]:
        """Return what the body wants of the opening, and what the closure leaves [mm]."""
        job = worked.job
        outline = job.outline(self.worn_on, job.girths[self.girth_name()].value_mm)
        wants = over_thin_side(2 * outline.through, job.shop.flesh)
        return wants, worked.laid.fastened.length

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield whether it opens far enough to go on, or passes the hand where nothing opens."""
        yield from super().own_advice(worked)
        wants, gap = self._opening(worked)
        job, core = worked.job, worked.laid.string
        if self.closure.fastens:
            yield opened_to_go_on(
                ("core_narrow", "core_springs"),
                wire=core,
                inside=math.pi * self._inner(worked),
                needed=wants,
                gap=gap,
                field="piece.closure",
            )
            return
        hand = job.girths.get("hand_pass_girth")
        if hand is not None and worked.worn < hand.value_mm:
            short = hand.value_mm - worked.worn
            yield advise("core_hand", "fix", "piece.closure", short=short, hand=hand.value_mm)


class CoreBangle(Cored):
    """A rigid bangle: beads spread evenly on a core, coils in the gaps."""

    family: ClassVar[str] = "bangle"
    worn_on: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth", "hand_pass_girth")
    usual_wire: ClassVar[Mapping[str, str]] = usually("1.6 mm", "brass")

    kind: Literal["core_bangle"] = "core_bangle"
    entries: Entries = (THREADED,)


class CoreNeckRing(Cored):
    """A rigid neck ring with parts threaded on it."""

    family: ClassVar[str] = "necklace"
    worn_on: ClassVar[str] = "neck"
    sites: ClassVar[tuple[str, ...]] = ("neck_base_girth",)
    usual_wire: ClassVar[Mapping[str, str]] = usually("1.5 mm", "brass")

    kind: Literal["core_neck_ring"] = "core_neck_ring"
    entries: Entries = (THREADED,)


class CoreCoil(Threaded):
    """Several turns of tempered wire with coils and beads threaded on all along.

    ``coil_turns`` of wire as it comes, ``coil_diameter`` inside, end in loops of its own.
    """

    first: ClassVar[tuple[str, ...]] = (*Threaded.first, "coil_turns", "coil_diameter")

    family: ClassVar[str] = "bracelet"
    worn_on: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    eases: ClassVar[bool] = False
    usual_wire: ClassVar[Mapping[str, str]] = usually("0.6 mm", "memory_steel", "spring")

    kind: Literal["core_coil"] = "core_coil"
    coil_turns: int = choice(5, 1, 20)
    coil_diameter: Length = choice(56.0, 30, 120)
    string_pin: Length = like(Threaded, "string_pin", 2.5)
    entries: Entries = (
        spread(
            {"kind": "bead", "bead": 6, "hole": 1.0},
            24,
            {"kind": "filling_coil", "core": 0.9, "wire": "0.5 mm"},
        ),
        Entry.model_validate(
            {"id": "last", "part": {"kind": "filling_coil", "core": 0.9, "wire": "0.5 mm"}}
        ),
    )

    def counted_off(self, core: Cut, wire: Wire) -> Step | None:
        """Return counting its turns off the coil; other wire is sold in no coil, and cut."""
        if not wire.metal.hard:
            return None
        one_turn = math.pi * (self.coil_diameter + wire.d)
        return step(
            "core_coil.count",
            "cut",
            cautions=("eyes", "whip", "hard"),
            check=True,
            turns=core.length_mm / one_turn,
            worn=self.coil_turns,
            length=core.length_mm,
        )

    def counts_beside(self) -> tuple[str, ...]:
        """Return the turns of a last coil, which takes what is left."""
        return ("last_turns",)

    def _turn(self, worked: OnPiece) -> float:
        return math.pi * (self.coil_diameter + worked.laid.string.d)

    def target(self, job: Job) -> Target:
        """Return the wire of its turns; half a millimetre is near enough."""
        core = job.wires.of("string", self.string)
        return Target(self.coil_turns * math.pi * (self.coil_diameter + core.d), 0.5)

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write the turns wanted, then what the make-up comes to."""
        rule = "families.cored.CoreCoil"
        wanted = worked.target.wanted
        book.term(
            "turns",
            wanted,
            rule,
            "geometry",
            "wanted",
            turns=self.coil_turns,
            coil=self.coil_diameter,
        )
        book.total("wanted", rule)
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE)

    def _worn(self, worked: OnPiece) -> float:
        """Return the inside girth of what is threaded [mm]: it stands in over the wire."""
        thick = max((p.made.thickness for p in worked.laid.parts if not p.drop), default=0.0)
        core = worked.laid.string.d
        return math.pi * (self.coil_diameter + core - max(thick, core))

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return the inside girth of its turns, and one of them."""
        wrist = worked.job.girths["wrist_girth"]
        inside = self._worn(worked)
        return [
            ("coil_inside", inside, None),
            ("coil_ease", inside - wrist.value_mm, wrist.plus_minus_mm),
            ("one_turn", self._turn(worked), None),
            ("wanted", worked.target.wanted, None),
        ]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "coil_ease",
            "make_up": "finished",
            "cut": "wire_in_all",
            "form": "finished",
            "fit": "coil_ease",
        }

    def fit(self, worked: OnPiece) -> Fit:
        """Return how its turns sit on the wrist."""
        wrist = worked.job.girths["wrist_girth"]
        off = self._worn(worked) - wrist.value_mm
        hug = Ease(school="fixed", word=None, value_mm=off, backing="geometry")
        return Fit(wrist, hug, "wrist", word_for(off, worked.job.table("wrist")))

    def inside(self, worked: OnPiece) -> PlusMinus:
        """Return the inside girth of one of its turns."""
        wrist = worked.job.girths["wrist_girth"]
        return PlusMinus(value=self._worn(worked), plus_minus=wrist.plus_minus_mm)

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield whether the wire is tempered, and whether its turns fit."""
        off = self._worn(worked) - worked.job.girths["wrist_girth"].value_mm
        if not worked.laid.string.metal.hard:
            yield advise("coil_metal", "check", "wire.metal")
        if word_for(off, worked.job.table("wrist")) in ("too_tight", "too_loose"):
            yield advise("coil_fit", "check", "piece", off=off)

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the wrist with one of its turns round it."""
        girth = worked.job.girths["wrist_girth"].value_mm
        outline = worked.job.outline("wrist", girth)
        _, strokes, dims = coil_round(outline, girth, self.coil_diameter, worked.laid.string.d)
        label = say("drawing.wrist", girth=girth)
        return (section_sheet(say("drawing.on_the_wrist"), strokes, dims, label),)

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: another coil, or the same one opened or closed."""
        return felt(tryon, comfortable="coil_tight", stays_on="coil_loose")

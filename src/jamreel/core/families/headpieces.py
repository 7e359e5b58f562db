"""Headpieces of one wire: the circlet, the tiara base, the band over the crown."""

from collections.abc import Iterator, Mapping
from typing import ClassVar, Literal

from jamreel.core.bench.steps import Step, step
from jamreel.core.body.outline import Outline, half_ellipse, width_above
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import OnBench
from jamreel.core.families.open_arc import Arc, OpenArc
from jamreel.core.fit.thickness import arc_centre_length
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.parts.base import Bought, size_in_words, size_of
from jamreel.core.parts.weights import COMB_G, RIBBON_G_PER_MM
from jamreel.core.result import Feel
from jamreel.core.units import Mm
from jamreel.core.values import Dimension, Length, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.drawing import across, point_on, ring_round, section_sheet
from jamreel.core.workpiece.feel import presses
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import by_inside_girth, felt

# A head is so much of its crown arc broad where nobody measured it; from memory.
USUAL_BREADTH = 0.45


class Circlet(OpenArc):
    """Round the head, closed at the back by ribbon or elastic between two end loops."""

    family: ClassVar[str] = "headpiece"
    worn_on: ClassVar[str] = "head"
    sites: ClassVar[tuple[str, ...]] = ("head_girth",)
    helps: ClassVar[tuple[str, ...]] = ("head_breadth", "head_length")
    asks: ClassVar[tuple[str, ...]] = ("inside_girth", "comfortable", "stays_on")

    kind: Literal["circlet"] = "circlet"
    loop_pin: Length = choice(3.0, 1.5, 12)
    bridged: Length = choice(40.0, 0, 200)

    def arc(self, job: Job, book: Book) -> Arc:
        """Return the arc: head and ease, less what the ribbon bridges."""
        head = job.girths["head_girth"]
        ease = job.ease_on("head", head.value_mm)
        book.girth(head, "worn")
        book.ease(ease, "worn")
        worn = book.total("worn", "fit.ease.ease_of", "inner_arc")
        book.term(
            "less_bridged", -self.bridged, "families.headpieces.Circlet", "chosen", "inner_arc"
        )
        inner = book.total("inner_arc", "families.headpieces.Circlet", "body")
        return Arc(head, ease, worn, inner, self.bridged)

    def try_on_steps(self, bench: OnBench) -> Iterator[Step]:
        """Yield tying the ribbon and trying on."""
        yield step("arc.try_on_circlet", "fit", cautions=("head",), check=True)

    def bought(self) -> tuple[Bought, ...]:
        """Return what holds it."""
        return (Bought("ribbon", size_of(self.bridged), 1, RIBBON_G_PER_MM * self.bridged),)

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield what it gives, and what it presses on the head."""
        yield from super().feels(bench, mass)
        arc: Arc = bench.own
        tight = -arc.ease.value_mm if arc.ease else 0.0
        yield presses(bench.worn, self._radius(bench), tight, mass)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: the ribbon takes up or gives."""
        arc = bench.own
        if tryon.inside_girth is not None:
            return by_inside_girth(
                tryon.inside_girth,
                arc.inside_girth,
                too_big="ribbon_shorter",
                too_small="ribbon_longer",
            )
        return felt(tryon, comfortable="ribbon_ease", stays_on="ribbon_tighten")


class TiaraBase(OpenArc):
    """Over the front of the head; about six tenths of its girth, held by combs or pins."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("12 awg", "brass")
    family: ClassVar[str] = "headpiece"
    worn_on: ClassVar[str] = "head"
    sites: ClassVar[tuple[str, ...]] = ("head_girth",)
    helps: ClassVar[tuple[str, ...]] = ("head_breadth", "head_length")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    eases: ClassVar[bool] = False

    kind: Literal["tiara_base"] = "tiara_base"
    loop_pin: Length = choice(3.0, 1.5, 12)
    share: float = choice(0.6, 0.3, 0.9)

    def arc(self, job: Job, book: Book) -> Arc:
        """Return the arc: a share of the head girth."""
        head = job.girths["head_girth"]
        book.girth(head, "inner_arc")
        rest = head.value_mm * (1 - self.share)
        book.term(
            "less_rest",
            -rest,
            "families.headpieces.TiaraBase",
            "common practice",
            "inner_arc",
            share=100 * self.share,
        )
        inner = book.total("inner_arc", "families.headpieces.TiaraBase", "body")
        return Arc(head, None, head.value_mm, inner, rest)

    def try_on_steps(self, bench: OnBench) -> Iterator[Step]:
        """Yield fixing combs and trying on."""
        yield step("arc.try_on_tiara", "fit", cautions=("head",), check=True)

    def bought(self) -> tuple[Bought, ...]:
        """Return what holds it."""
        return (Bought("comb", size_in_words(say("need_size.pair")), 2, COMB_G),)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: spread or close the ends."""
        return felt(tryon, comfortable="spread_ends", stays_on="close_ends")


class CrownBand(OpenArc):
    """Over the crown from ear to ear, ending a little above them."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("12 awg")
    family: ClassVar[str] = "headpiece"
    worn_on: ClassVar[str] = "head"
    sites: ClassVar[tuple[str, ...]] = ("crown_arc",)
    helps: ClassVar[tuple[str, ...]] = ("head_breadth",)
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    eases: ClassVar[bool] = False

    kind: Literal["crown_band"] = "crown_band"
    loop_pin: Length = choice(3.0, 1.5, 12)
    above_ear: Length = choice(15.0, 0, 60)

    def arc(self, job: Job, book: Book) -> Arc:
        """Return the arc: over the crown, less what each end stops short of the ear."""
        crown = job.girths["crown_arc"]
        book.girth(crown, "inner_arc")
        rule = "families.headpieces.CrownBand"
        book.term("less_above_ears", -2 * self.above_ear, rule, "common practice", "inner_arc")
        inner = book.total("inner_arc", rule, "body")
        # Ear to ear over the crown is half a turn, so the whole would be twice that.
        return Arc(crown, None, 2 * crown.value_mm, inner, None)

    def outline(self, job: Job, arc: Arc) -> Outline:
        """Return the half ellipse that it follows, as a whole one, seen from the front.

        Raises:
            Refusal: a head so broad that the arc would have to lie flat.
        """
        wide = job.girths.get("head_breadth")
        breadth = wide.value_mm if wide else USUAL_BREADTH * arc.girth.value_mm
        found = half_ellipse(breadth, arc.girth.value_mm)
        if found is None:
            field, got = "measures.head_breadth", Mm(breadth)
            raise Refusal("crown_flat", got=got, field=field, arc=arc.girth.value_mm)
        return found

    def bent_to(self, job: Job, arc: Arc) -> float:
        """Return the inside diameter at the top, where it is bent most: 2 a^2 / b."""
        head = self.outline(job, arc)
        return 2 * head.across**2 / head.through

    def ends_apart(self, job: Job, arc: Arc) -> float:
        """Return how far the ends stand apart inside [mm], each so far above the ear."""
        return width_above(self.outline(job, arc), self.above_ear)

    def section(self, arc: Arc, outline: Outline, d: float) -> Sheet:
        """Return the upper half of the head from the front, the band over it."""
        ring, (skin,), _ = ring_round(outline, None, 0.0, d)
        upper = tuple(point for point in skin.points if point[1] >= 0)
        centre = arc_centre_length(arc.inner_arc, arc.inside_girth, d)
        apart = Dimension(
            a=point_on(ring, -centre / 2, -d / 2),
            b=point_on(ring, centre / 2, -d / 2),
            value_mm=width_above(outline, self.above_ear),
            label=say("drawing.ends_apart"),
        )
        return section_sheet(
            say("drawing.over_the_crown"),
            [skin.model_copy(update={"points": upper}), *self.wire_round(ring, centre, d)],
            [across(outline, 0.0, d, say("drawing.head_across")), apart],
            say("drawing.crown", girth=arc.girth.value_mm),
            at=(0.0, outline.through / 2),
        )

    def try_on_steps(self, bench: OnBench) -> Iterator[Step]:
        """Yield trying on over the crown."""
        yield step("arc.try_on_band", "fit", cautions=("head",), check=True)

    def bought(self) -> tuple[Bought, ...]:
        """Return what holds it."""
        return (Bought("comb", size_in_words(say("need_size.pair")), 2, COMB_G),)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: spread or close the ends."""
        return felt(tryon, comfortable="spread_ends", stays_on="close_ends")

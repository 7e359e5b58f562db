"""Bangles without loops or hooks: closed, and open with ends that overlap."""

import math
from abc import ABC, abstractmethod
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.opening import hangs_loose, opened_to_go_on, over_thin_side
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import Along, OnBench, OneWire, Sized
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.parts.base import Bought, Hold, opens_at, ovals_at, size_in_words
from jamreel.core.parts.weights import SOLDER_G
from jamreel.core.path.moves import Bend
from jamreel.core.result import Feel
from jamreel.core.units import Mm
from jamreel.core.values import Dimension, Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit
from jamreel.core.workpiece.drawing import across, point_on, ring_round, section_sheet, wire_along
from jamreel.core.workpiece.feel import opened, pressed
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.steps import feel_step, shape_step
from jamreel.core.workpiece.straight import Stretch
from jamreel.core.workpiece.verdicts import by_inside_girth, felt, verdict


@dataclass(frozen=True)
class Round:
    """A ring: the wrist, its ease there, the inside girth, which measure that rests on, how far the
    ends lie over each other, and by how much they are parted to go on over what [mm]."""

    wrist: BodyMeasure
    ease: Ease
    inside: float
    rests_on: BodyMeasure
    overlap: float = 0.0
    parted: float = 0.0
    over: Literal["hand", "side"] = "side"


class PlainRing(OneWire, ABC):
    """One bend of wire, ends meeting or passing each other."""

    cut_role: ClassVar[str] = "ring"
    family: ClassVar[str] = "bangle"
    worn_on: ClassVar[str] = "wrist"
    closed: ClassVar[bool] = False

    @abstractmethod
    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring, writing its terms up to the total ``inside`` in the book."""

    @abstractmethod
    def finishing(self, made: Round) -> Iterator[Step]:
        """Yield the steps between shaping and the last look."""

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes. Raises Refusal for a hand smaller than the wrist."""
        made = self.ring(job, book)
        rule = "fit.thickness.inside_girth_of"
        book.term("half_wire", math.pi * wire.bend_adds, rule, "published", "body")
        if made.overlap:
            own = f"{type(self).__module__.removeprefix('jamreel.core.')}.{type(self).__name__}"
            book.term("ends_over", made.overlap, own, "chosen", "body")
        body = book.total("body", rule, "cut")
        target, read = made.inside / math.pi, made.rests_on.plus_minus_mm
        pm = made.ease.doubt(read) if made.rests_on is made.wrist else read
        bow = Bend(angle=body / ((target + wire.bend_adds) / 2), pin=target, label="body")
        return Sized(
            stretches=self.stretches_of(bow, body, job, book),
            shapes_to=(bow,),
            target=target,
            finished=PlusMinus(value=body, plus_minus=pm),
            inside=PlusMinus(value=made.inside, plus_minus=pm),
            fit=Fit(made.wrist, made.ease, self.worn_on, None if self.eases else "hangs"),
            offers_ease=self.eases,
            rows=[
                ("centre_line", body, pm),
                ("inside", made.inside, pm),
                ("closed_diameter", target, None),
                ("hang", made.inside - made.wrist.value_mm, None),
                ("ends_over", made.overlap or None, None),
            ],
            answers={
                "measure": "inside",
                "make_up": "closed_diameter",
                "cut": "cut",
                "form": "former",
                "fit": "inside",
            },
            doubt=pm,
            own=made,
        )

    def stretches_of(self, bow: Bend, body: float, job: Job, book: Book) -> tuple[Stretch, ...]:
        """Return what lies on the wire: one bend. Writes what else goes into the cut.

        Args:
            bow: the bend.
            body: its centre-line [mm].
            job: what the maker decided.
            book: that the terms are written into.
        """
        return (Stretch("body", (bow,), "body", ("body", "inside")),)

    def last_steps(self) -> Sequence[Step]:
        """Return the last look: nothing of it is left open to be pressed in."""
        return (feel_step(),)

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield shaping, then what the construction does with the ends."""
        assert bench.former is not None  # it has a target
        yield shape_step(bench.former)
        yield from self.finishing(bench.own)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield how it goes on, and whether it keeps its shape."""
        yield self.going_on(bench)
        yield keeps_shape(bench.job.wire)

    def along(self, bench: OnBench) -> Along:
        """Return the wrist: an oval bangle lies along it all round."""
        made = bench.own
        outline = bench.job.outline("wrist", made.wrist.value_mm)
        gap = (made.inside - made.wrist.value_mm) / (2 * math.pi)
        return Along(outline, gap, bench.sized.finished.value)

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield what it gives under finger and thumb, and what opens it to go on."""
        made, wire = bench.own, bench.worn
        radius = wire.radius_on(made.inside / math.pi)
        yield pressed(wire, radius, closed=self.closed)
        opens = None if self.closed else opened(wire, radius, made.parted)
        if opens:
            yield opens

    @abstractmethod
    def going_on(self, bench: OnBench) -> Advice | None:
        """Return the judgement on how it goes over the hand, or hangs."""

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the wrist with the ring round it, ends at the top."""
        made, d = bench.own, bench.formed.d
        outline = bench.job.outline("wrist", made.wrist.value_mm)
        gap = (made.inside - made.wrist.value_mm) / (2 * math.pi)
        ring, strokes, low = ring_round(outline, made.ease, gap, d)
        half = made.overlap / 2
        strokes.append(wire_along(ring, -half, ring.length / 2, d, "body", d * 1.1 * bool(half)))
        strokes.append(wire_along(ring, ring.length / 2, ring.length + half, d, "body_end"))
        dims = [across(outline, low, d + 2 * gap, say("drawing.wrist_across"))]
        if half:
            ends = Dimension(
                a=point_on(ring, -half),
                b=point_on(ring, half),
                value_mm=made.overlap,
                label=say("drawing.overlap"),
                offset_mm=4 * d + 2,
            )
            dims.append(ends)
        label = say("drawing.wrist", girth=made.wrist.value_mm)
        yield section_sheet(say("drawing.on_the_wrist"), strokes, dims, label)


class ClosedBangle(PlainRing):
    """Soldered or joined into a ring: it must pass the hand, and hangs on the wrist."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("12 awg")
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth", "hand_pass_girth")
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = ("passes_hand", "inside_girth", "stays_on")
    eases: ClassVar[bool] = False
    closed: ClassVar[bool] = True

    any_section: ClassVar[bool] = True

    kind: Literal["closed_bangle"] = "closed_bangle"
    over_hand: Length = choice(0.0, 0, 40)

    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring that just passes the hand, and whatever more was chosen.

        Raises:
            Refusal: a hand smaller than the wrist, or a metal that can't be soldered.
        """
        solderable(job.wires.body, field="wire.metal")
        wrist, hand = job.girths["wrist_girth"], job.girths["hand_pass_girth"]
        if hand.value_mm < wrist.value_mm:
            raise Refusal(
                "hand_under_wrist",
                got=Mm(hand.value_mm),
                field="measures.hand_pass_girth",
                wrist=wrist.value_mm,
            )
        book.girth(hand, "inside")
        if self.over_hand:
            book.term(
                "over_hand", self.over_hand, "families.plain_ring.ClosedBangle", "chosen", "inside"
            )
        inside = book.total("inside", "families.plain_ring.ClosedBangle", "body")
        hang = Ease(school="fixed", word=None, value_mm=inside - wrist.value_mm, backing="geometry")
        return Round(wrist, hang, inside, hand)

    def finishing(self, made: Round) -> Iterator[Step]:
        """Yield trying on before the joint is closed for good, soldering, rounding."""
        yield step("closed.try_first", "form", check=True, inside=made.inside)
        yield step("closed.solder", "form", cautions=("torch", "pickle"), check=True)
        across = made.inside / math.pi
        yield step("closed.round", "form", cautions=("hammer",), check=True, inside=across)
        yield step("closed.try_on", "fit", check=True)

    def bought(self) -> tuple[Bought, ...]:
        """Return the solder of its joint."""
        return (Bought("solder", size_in_words(say("need_size.joint")), 1, SOLDER_G),)

    def hold(self, bench: OnBench) -> Hold:
        """Return what pulls the soldered ring oval."""
        return ovals_at("soldered_ring", bench.worn, bench.own.inside / math.pi)

    def going_on(self, bench: OnBench) -> Advice | None:
        """Return the note on how far it hangs from the wrist."""
        return hangs_loose(bench.own.inside, bench.own.wrist.value_mm)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: take off before soldering, stretch after."""
        made = bench.own
        if tryon.inside_girth is not None:
            if tryon.passes_hand is False and tryon.inside_girth >= made.inside - 2:
                return verdict("hand_again", hand=made.rests_on.value_mm)
            return by_inside_girth(
                tryon.inside_girth, made.inside, too_big="closed_big", too_small="closed_small"
            )
        keys = {"passes_hand": "closed_measure", "stays_on": "closed_slides"}
        return felt(tryon, inside=made.inside, **keys)


class OpenRing(PlainRing):
    """Open, its ends passing each other. Source of 5 to 15 overlap: common practice."""

    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth", "hand_pass_girth")
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth", "stays_on")

    overlap: Length = choice(10.0, 1, 60)

    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring: wrist and ease, and the ends over each other."""
        wrist = job.girths["wrist_girth"]
        ease = job.ease_on("wrist", wrist.value_mm)
        book.girth(wrist, "inside")
        book.ease(ease, "inside")
        inside = book.total("inside", "fit.ease.ease_of", "body")
        parted, over = self._parted(job, wrist.value_mm, inside)
        return Round(wrist, ease, inside, wrist, self.overlap, parted, over)

    def _parted(
        self, job: Job, wrist: float, inside: float
    ) -> tuple[float, Literal["hand", "side"]]:
        """Return how far the ends are parted to go on, and over what.

        They pass each other, so there is no gap to roll it on by. Sideways over the wrist's thin
        side they part by the overlap and that side; over the hand by what the hand is more round
        than the inside. The way that opens it less is taken. (Wrist depth less inside depth, as a
        rule of thumb has it, comes to nothing for any bangle with ease: it is no opening at all.)
        """
        depth = 2 * job.outline("wrist", wrist).through
        sideways = over_thin_side(depth, job.shop.flesh) + self.overlap
        hand = job.girths.get("hand_pass_girth")
        over = max(0.0, hand.value_mm - inside) if hand else math.inf
        return (over, "hand") if over < sideways else (sideways, "side")

    def hold(self, bench: OnBench) -> Hold:
        """Return what pulls the ring open."""
        return opens_at("open_ring", bench.worn, bench.own.inside / math.pi)

    def going_on(self, bench: OnBench) -> Advice | None:
        """Return how far it is sprung open to go on, and whether it springs back."""
        made = bench.own
        return opened_to_go_on(
            (f"spring_{made.over}_bends", f"spring_{made.over}"),
            wire=bench.formed,
            inside=made.inside,
            needed=made.parted,
        )

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: more or less overlap."""
        made = bench.own
        if tryon.inside_girth is not None:
            return by_inside_girth(
                tryon.inside_girth, made.inside, too_big="overlap_more", too_small="overlap_less"
            )
        keys = {"goes_on": "overlap_stuck", "stays_on": "cuff_loose"}
        return felt(tryon, parted=made.parted, **keys)


class OverlapBangle(OpenRing):
    """Of one wire, its ends rounded."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("12 awg")
    any_section: ClassVar[bool] = True

    kind: Literal["overlap_bangle"] = "overlap_bangle"

    def finishing(self, made: Round) -> Iterator[Step]:
        """Yield rounding the ends and trying on."""
        yield step("arc.rounded", "form", cautions=("ends",), check=True)
        on = f"overlap.try_on_{made.over}"
        yield step(on, "fit", name="try_on", check=True, overlap=self.overlap, parted=made.parted)

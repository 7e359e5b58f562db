"""The sliding-loop bangle: one wire, each end a loop that runs on the opposite side."""

import math
from collections.abc import Iterator, Sequence
from typing import ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.sliding import (
    charm_slides,
    charm_wanders,
    charms_fit,
    cut_changes_fit,
    loop_loose,
    overlap_long,
    overlap_short,
    pin_missing,
)
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.families.base import Job
from jamreel.core.families.one_wire import OnBench, OneWire, Sized, step_on
from jamreel.core.families.sliding_bangle.drawing import loop_sheet, section
from jamreel.core.families.sliding_bangle.sizes import Sizes, sizes
from jamreel.core.families.sliding_bangle.verdicts import put_right
from jamreel.core.fit.sliding import inside_girth
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Bought, Hold, opens_at, size_of
from jamreel.core.values import Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, Row
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.straight import Stretch

_SLIDING = "fit.sliding"
# The lines of the ledger that say how the body comes to its length.
_BODY = ("hand_pass", "beyond_hand", "half_wire", "loops_meet", "centre")


class SlidingBangle(OneWire):
    """Its own choices: the pin that both loops are bent on, and charms that slide between them."""

    cut_role: ClassVar[str] = "bangle"
    family: ClassVar[str] = "bangle"
    worn_on: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth", "hand_pass_girth")
    suggested: ClassVar[bool] = True
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = (
        "passes_hand",
        "open_inside_girth",
        "finger_under",
        "overlap",
    )

    kind: Literal["sliding_bangle"] = "sliding_bangle"
    loop_pin: Length = 2.6
    charms: int = choice(0, 0, 40)
    charm_width: Length = choice(8.0, 1, 60, when=("charms",))
    charm_ring: Length = choice(5.0, 1, 30, when=("charms",))

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes.

        Raises:
            Refusal: hand pass smaller than the wrist, or a pin that the wire can't pass.
        """
        z = sizes(self.loop_pin, job)
        _write(z, book)
        up, body, down = z.moves
        lines = tuple(line for line in _BODY if line != "beyond_hand" or z.beyond_hand)
        return Sized(
            stretches=(
                Stretch("loop_up", up),
                Stretch("centre", body, "body", lines),
                Stretch("loop_down", down),
            ),
            target=z.closed_diameter,
            finished=PlusMinus(value=z.centre, plus_minus=z.hand.plus_minus_mm),
            inside=PlusMinus(value=z.worn, plus_minus=z.wrist.plus_minus_mm),
            fit=Fit(z.wrist, z.ease, self.worn_on),
            rows=_rows(z),
            answers={
                "measure": "worn",
                "make_up": "centre",
                "cut": "cut",
                "form": "former",
                "fit": "overlap",
            },
            doubt=z.hand.plus_minus_mm,
            own=z,
        )

    def first_steps(self, bench: OnBench) -> Sequence[Step]:
        """Return cutting, the three marks, and squaring."""
        up, middle, down = _places(bench)
        trim = bench.job.cutting.trim
        length = bench.cut.length_mm
        return (
            step("sliding.cut", "cut", cautions=("eyes", "whip"), check=True, length=length),
            step("sliding.mark", "cut", up=up, middle=middle, down=down),
            step("sliding.ends", "cut", cautions=("ends",), trim=trim),
        )

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the order of work: tried on bare, then set with the mallet; charms last."""
        z: Sizes = bench.own
        up, _, down = _places(bench)
        former = step_on(bench.former)
        yield step("sliding.loop_up", "form", pin=z.pin, at=up, check=True)
        yield step("sliding.shape", "form", former=former, check=True)
        yield step("sliding.thread", "form", check=True)
        yield step("sliding.loop_down", "form", pin=z.pin, at=down, check=True)
        yield step("sliding.try_on", "fit", check=True, open=z.open, overlap=z.overlap)
        yield step("sliding.mallet", "fit", cautions=("hammer",), former=former, check=True)
        if self.charms:
            count = self.charms
            yield step("sliding.charms_counted", "fit", name="charms", check=True, charms=count)

    def last_steps(self) -> Sequence[Step]:
        """Return pressing in the ends of both loops."""
        return (step("sliding.press_in", "fit", cautions=("ends", "skin"), check=True),)

    def hold(self, bench: OnBench) -> Hold:
        """Return what opens a loop."""
        return opens_at("plain_loop", bench.worn, self.loop_pin)

    def as_cut(self, bench: OnBench) -> Advice | None:
        """Return what a wire cut otherwise does to the fit: loops are made as planned, and the
        whole difference goes into what lies between them."""
        z: Sizes = bench.own
        actual, planned = bench.job.cut.get(bench.cut.id), bench.cut.length_mm
        if actual is None:
            return None
        opens = inside_girth(z.centre + actual - planned, z.d, z.loop_width)
        return cut_changes_fit(actual, planned, opens, z.hand.value_mm)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield whether the overlap suits, and whether the loops run."""
        z, job = bench.own, bench.job
        yield overlap_long(z.overlap, z.wrist.value_mm)
        yield overlap_short(z.overlap)
        yield keeps_shape(job.wire)
        yield loop_loose(z.pin, z.d)
        yield pin_missing(z.pin, job.nearest_pin(z.pin))
        if self.charms:
            yield charm_slides(self.charm_ring, z.d)
            yield charm_wanders(self.charm_ring, z.loop_width)
            yield charms_fit(self.charms, self.charm_width, z.overlap)

    def bought(self) -> tuple[Bought, ...]:
        """Return its charms, each with the ring that slides on the wire."""
        if not self.charms:
            return ()
        words = say("shelf.finding.sliding_charm", sizes="{}")
        size = size_of(self.charm_width, self.charm_ring, words=words)
        return (Bought("charm", size, self.charms),)

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the wrist with the bangle round it, and one loop square on."""
        yield section(bench.own, bench.job)
        yield loop_sheet(bench.own)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for."""
        return put_right(bench.own, bench.cut.length_mm, tryon)


def _places(bench: OnBench) -> tuple[float, float, float]:
    """Return where the first loop ends, the centre, and where the second loop begins [mm]."""
    up, middle, down = (mark.at_mm for mark in bench.cut.marks[1:4])
    return up, middle, down


def _write(z: Sizes, book: Book) -> None:
    """Write what lies between the loops, how it sits, and the overlap."""
    half_wire = math.pi * z.d
    book.girth(z.hand, "centre", "hand_pass")
    if z.beyond_hand:
        book.term("beyond_hand", z.beyond_hand, _SLIDING, "geometry", "centre")
    book.term("half_wire", half_wire, f"{_SLIDING}.centre_length", "published", "centre")
    rule = f"{_SLIDING}.loop_outer_width"
    book.term("loops_meet", z.loop_width, rule, "geometry", "centre", pin=z.pin)
    book.total("centre", f"{_SLIDING}.centre_length", "cut")
    for key in ("loop_up", "loop_down"):
        book.term(key, z.loop, "path.moves.bend_length", "published", "cut", pin=z.pin)
    book.girth(z.wrist, "worn", "wrist")
    book.ease(z.ease, "worn")
    book.total("worn", "fit.ease.ease_of")
    rule = f"{_SLIDING}.overlap_at"
    book.term("from_centre", z.centre, rule, "geometry", "overlap")
    book.term("less_half_wire", -half_wire, rule, "published", "overlap")
    book.term("less_worn", -z.worn, rule, "geometry", "overlap")
    book.total("overlap", rule)


def _rows(z: Sizes) -> list[Row]:
    hand, wrist = z.hand.plus_minus_mm, z.wrist.plus_minus_mm
    return [
        ("centre", z.centre, hand),
        ("worn", z.worn, wrist),
        ("open", z.open, hand),
        # Overlap is a difference of two independent girths: their uncertainties add in quadrature.
        ("overlap", z.overlap, math.hypot(hand, wrist)),
        ("closed_diameter", z.closed_diameter, None),
        ("loop", z.loop, None),
    ]

"""The open cuff: an arc round the wrist that is rolled on edgewise through its gap."""

from collections.abc import Iterator, Mapping
from typing import ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.opening import opened_to_go_on, over_thin_side
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import OnBench
from jamreel.core.families.open_arc import Arc, OpenArc
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.result import Feel
from jamreel.core.values import Length
from jamreel.core.workpiece.feel import opened
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import by_inside_girth, felt


class OpenCuff(OpenArc):
    """Its own choice: the gap that is left open. Source of 25 to 38: common practice."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("2 mm")
    family: ClassVar[str] = "bangle"
    worn_on: ClassVar[str] = "wrist"
    looped: ClassVar[bool] = False
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth", "stays_on")

    any_section: ClassVar[bool] = True

    kind: Literal["open_cuff"] = "open_cuff"
    gap: Length = choice(30.0, 10, 60)

    def arc(self, job: Job, book: Book) -> Arc:
        """Return the arc: wrist and ease, less the gap."""
        wrist = job.girths["wrist_girth"]
        ease = job.ease_on("wrist", wrist.value_mm)
        book.girth(wrist, "worn")
        book.ease(ease, "worn")
        worn = book.total("worn", "fit.ease.ease_of", "inner_arc")
        book.term(
            "less_gap", -self.gap, "families.open_cuff.OpenCuff", "common practice", "inner_arc"
        )
        inner = book.total("inner_arc", "families.open_cuff.OpenCuff", "body")
        return Arc(wrist, ease, worn, inner, self.gap)

    def try_on_steps(self, bench: OnBench) -> Iterator[Step]:
        """Yield trying on: from the thin side of the wrist, edgewise."""
        depth, wants = self._wants(bench)
        if self.gap >= wants:
            yield step("arc.try_on_cuff", "fit", check=True, gap=self.gap, depth=depth)
        else:
            opened = wants - self.gap
            yield step(
                "arc.spring_on_cuff",
                "fit",
                name="try_on_cuff",
                check=True,
                gap=self.gap,
                opened=opened,
            )

    def _wants(self, bench: OnBench) -> tuple[float, float]:
        """Return the wrist's depth, and the opening that its thin side wants [mm]."""
        depth = 2 * self.outline(bench.job, bench.own).through
        return depth, over_thin_side(depth, bench.job.shop.flesh)

    def going_on(self, bench: OnBench) -> Advice | None:
        """Return how far it is opened to go on, and which gap would spare it a set."""
        depth, wants = self._wants(bench)
        return opened_to_go_on(
            ("gap_narrow", "springs_on"),
            wire=bench.wire,
            inside=bench.own.inside_girth,
            needed=wants,
            gap=self.gap,
            field="piece.gap",
            depth=depth,
        )

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield what it gives, and what springs it open over the thin side of the wrist."""
        yield from super().feels(bench, mass)
        radius = self._radius(bench)
        half = bench.sized.finished.value / (2 * radius)
        opens = opened(bench.worn, radius, self._wants(bench)[1] - self.gap, half)
        if opens:
            yield opens

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: close it, open it, or take off at both ends."""
        arc = bench.own
        if tryon.inside_girth is not None:
            return by_inside_girth(
                tryon.inside_girth, arc.inside_girth, too_big="cuff_big", too_small="cuff_small"
            )
        return felt(tryon, gap=self.gap, goes_on="cuff_stuck", stays_on="cuff_loose")

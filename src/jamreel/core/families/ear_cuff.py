"""The ear cuff: an open ring on the ear's rim, one or two turns."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.base import Construction, Job, usually
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.tools import Former
from jamreel.core.path.moves import Bend, Move, Straight, bend_length
from jamreel.core.result import Plan
from jamreel.core.values import Dimension, Drawings, PlusMinus, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import as_cut, assemble
from jamreel.core.workpiece.drawing import circle, former_sheet, section_sheet
from jamreel.core.workpiece.job import Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.steps import cutting_steps, press_in_step, shape_step
from jamreel.core.workpiece.straight import Stretch, lay_straight

TURN = 2 * math.pi


def ball_length(wire: float, ball: float) -> float:
    """Return the wire that melts into a ball, 2 b^3 / (3 d^2): volumes are equal.

    Args:
        wire: d [mm].
        ball: its diameter b [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(ball_length(1.0, 2.0), 2)
        5.33

    Source: plain geometry.
    """
    return 2 * ball**3 / (3 * wire**2)


class EarCuff(Construction):
    """Where it sits, how many rings, how the ends are finished, and how it grips.

    ``roomier`` is what the inside is wider than the rim is deep (1 to 2: common practice),
    ``grip`` the gap as a share of the rim's thickness (0.6 to 0.8: common practice).
    """

    usual_wire: ClassVar[Mapping[str, str]] = usually("16 awg")
    family: ClassVar[str] = "ear cuff"
    part: ClassVar[str] = "ear"
    sites: ClassVar[tuple[str, ...]] = ("ear_rim_depth", "ear_rim_middle")
    helps: ClassVar[tuple[str, ...]] = ("ear_rim_upper", "ear_rim_middle", "ear_rim_lower")
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "stays_on", "comfortable")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "roomier": (0, 6),
        "grip": (0.3, 1.0),
    }
    eases: ClassVar[bool] = False

    kind: Literal["ear_cuff"] = "ear_cuff"
    rings: Literal["1", "2"] = "1"
    place: Literal["upper", "middle", "lower"] = "middle"
    ends: Literal["filed", "curled", "balled"] = "filed"
    roomier: float = 1.5
    grip: float = 0.7

    def wants(self) -> tuple[str, ...]:
        """Return the rim's depth, and its thickness where the cuff sits."""
        return ("ear_rim_depth", f"ear_rim_{self.place}")

    def solve(self, job: Job) -> Plan:
        """Return the plan."""
        wire = job.wire_facts()
        d, turns = wire.d, int(self.rings)
        depth, rim = job.girths["ear_rim_depth"], job.girths[f"ear_rim_{self.place}"]
        inner, gap = depth.value_mm + self.roomier, self.grip * rim.value_mm
        # A second ring lies beside the first, so each turn also climbs by one wire.
        turn = math.hypot(math.pi * (inner + d), d if turns > 1 else 0.0)
        book, rule = Book(d), "families.ear_cuff"
        book.term("rings", turns * turn, rule, "geometry", "body", turns=turns, inner=inner)
        book.term(
            "less_ear_gap",
            -gap,
            rule,
            "common practice",
            "body",
            share=100 * self.grip,
            rim=rim.value_mm,
        )
        body = book.total("body", rule, "cut")
        ends = self._ends(d)
        for key, (value, backing_rule) in ends.items():
            book.term(key, value, backing_rule, "geometry", "cut")
        bow = Bend(angle=body / ((inner + d) / 2), pin=inner, label=say("bend.body"))
        stretches = [Stretch("body", (bow,), "body", ("body", "rings", "less_ear_gap"))]
        if ends:
            left, right = (Stretch(key, self._end_moves(d)) for key in ends)
            stretches = [left, *stretches, right]
        laid = lay_straight("cuff", stretches, wire, job.cutting)
        book.trims(laid.cut)
        cut = book.total("cut", "path.moves.developed_length")
        former = job.former(wire, inner)
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=body, plus_minus=math.pi * depth.plus_minus_mm),
            inside=None,
            fit=None,
            ledger=book.lines,
            rows=[
                ("cut", cut, None),
                ("ear_inner", inner, depth.plus_minus_mm),
                ("ear_gap", gap, self.grip * rim.plus_minus_mm),
                ("centre_line", body, None),
                ("former", former.former_mm, None),
                ("step", former.tool_mm, None),
                ("step_result", former.result_mm, None),
            ],
            answers={
                "measure": "ear_inner",
                "make_up": "centre_line",
                "cut": "cut",
                "form": "former" if former.tool_mm is None else "step",
                "fit": "ear_gap",
            },
            cuts=(laid.cut,),
            bends=tuple(job.on_pin(wire, bend) for bend in laid.bends),
            formers=(former,),
            steps=self._steps(job, wire, laid.cut, former, gap),
            advice=(as_cut(job, laid.cut), self._gripping(rim.value_mm), keeps_shape(job.wire)),
            drawings=Drawings(
                rule=laid.rule(0.0),
                sheets=(
                    self._section(depth.value_mm, rim.value_mm, inner, gap, d),
                    former_sheet(former, d),
                ),
            ),
            righting=self._put_right(job, gap),
        )

    def _steps(
        self, job: Job, wire: Wire, cut: Cut, former: Former, gap: float
    ) -> tuple[Step, ...]:
        """Return the order of work; it is slid on where the rim is thinnest."""
        thin = min(
            (g for site, g in job.girths.items() if site != "ear_rim_depth"),
            key=lambda g: g.value_mm,
        )
        return (
            *cutting_steps(cut, job.cutting, hard=wire.metal.hard),
            step(
                f"ear.{self.ends}",
                "form",
                cautions=("torch",) if self.ends == "balled" else ("ends",),
                check=True,
            ),
            shape_step(former),
            step("ear.gap", "form", gap=gap, check=True),
            step(
                "ear.try_on",
                "fit",
                cautions=("ear",),
                check=True,
                where=say(f"site.{thin.site}"),
                place=say(f"place.{self.place}"),
            ),
            press_in_step(),
        )

    def _end_moves(self, d: float) -> tuple[Move, ...]:
        if self.ends == "curled":
            label = say("bend.curl")
            return (Bend(angle=0.75 * TURN, pin=1.5 * d, side="right", label=label),)
        return (Straight(length=ball_length(d, 2 * d)),)

    def _ends(self, d: float) -> dict[str, tuple[float, str]]:
        """Return what each end takes, by ledger line; filed ends take nothing."""
        if self.ends == "filed":
            return {}
        if self.ends == "curled":
            each = (bend_length(0.75 * TURN, 1.5 * d, d), "path.moves.bend_length")
        else:
            each = (ball_length(d, 2 * d), "families.ear_cuff.ball_length")
        return {f"{self.ends}_left": each, f"{self.ends}_right": each}

    def _gripping(self, rim: float) -> Advice | None:
        if 0.6 <= self.grip <= 0.8:
            return None
        key = "ear_loose" if self.grip > 0.8 else "ear_pinches"
        return advise(key, "check", "piece.grip", share=100 * self.grip, rim=rim)

    def _section(self, depth: float, rim: float, inner: float, gap: float, d: float) -> Sheet:
        """Return the rim in section, edge to the right, with the cuff round it."""
        r, half = (inner + d) / 2, rim / 2
        # A rounded tongue as thick as the rim, from the groove (left) to the edge.
        edge = circle((inner / 2 - self.roomier / 2 - half, 0.0), half, 48)
        right = [p for p in edge if p[0] >= inner / 2 - self.roomier / 2 - half]
        right.sort(key=lambda p: -p[1])
        left = -inner / 2 - 4
        body = ((left, half), *right, (left, -half))
        open_half = math.asin(min(1.0, gap / 2 / r))
        turn = [math.pi - open_half - k * (TURN - 2 * open_half) / 90 for k in range(91)]
        ring = tuple((round(r * math.cos(t), 2), round(r * math.sin(t), 2)) for t in turn)
        return section_sheet(
            say("drawing.on_the_ear"),
            [
                Stroke(part="skin", points=body, closed=True),
                Stroke(part="body_wire", points=ring, width_mm=d),
            ],
            [
                Dimension(
                    a=(-inner / 2, 0.0),
                    b=(inner / 2, 0.0),
                    value_mm=inner,
                    label=say("drawing.inner"),
                    offset_mm=r + 1.5,
                ),
            ],
            say("drawing.rim", rim=rim),
        )

    def _put_right(self, job: Job, gap: float) -> PuttingRight | None:
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.goes_on is False:
            return verdict("ear_stuck", gap=gap)
        if tryon.comfortable is False:
            return verdict("ear_open", gap=gap)
        if tryon.stays_on is False:
            return verdict("ear_close", gap=gap)
        return verdict("fits", settled=True)

"""The ear cuff: an open ring on the ear's rim, one or two turns."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import OnBench, OneWire, Sized
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import ballable
from jamreel.core.parts.base import Hold, opens_at
from jamreel.core.path.coils import turn
from jamreel.core.path.lines import circle
from jamreel.core.path.moves import Bend, Move, Straight, bend_length
from jamreel.core.result import Feel
from jamreel.core.units import Mm
from jamreel.core.values import Dimension, Length, PlusMinus, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.drawing import section_sheet
from jamreel.core.workpiece.feel import grips
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.steps import feel_step, shape_step
from jamreel.core.workpiece.straight import Stretch
from jamreel.core.workpiece.verdicts import felt

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


@dataclass(frozen=True)
class EndShape:
    """How an end stands in the gap, in wires: how wide it is across, how far out of the wire's
    middle its own middle lies, and how far beyond the body's end."""

    wide: float = 0.0
    out: float = 0.0
    beyond: float = 0.0


# A ball is twice as thick as its wire and sits at its end; a curl on a pin of 1.5 wires is 3.5
# across and rolls outwards from where the body ends. Plain geometry.
ENDS: dict[str, EndShape] = {
    "filed": EndShape(),
    "balled": EndShape(wide=2.0, beyond=1.0),
    "curled": EndShape(wide=3.5, out=1.25),
}


def open_angle(gap: float, inner: float, wire: float, end: EndShape) -> float | None:
    """Return the angle that the body leaves open so that its ends stand a gap apart.

    Filed ends stand the gap apart along the inside, 2 gap / D. Round ends are discs on a circle of
    radius (D + d) / 2 + out: their middles stand gap + width apart across it.

    Args:
        gap: clear between the ends as they are [mm].
        inner: D, inside diameter [mm].
        wire: d [mm].
        end: how each end stands in the gap.

    Returns:
        Angle [rad], or None where no ring of more than half a turn is left.

    Example:
        >>> round(open_angle(2.1, 7.5, 1.3, ENDS["filed"]), 3)
        0.56
        >>> round(open_angle(2.1, 7.5, 1.3, ENDS["balled"]), 3)
        1.718

    Source: plain geometry; 0.6 to 0.8 of the rim measured clear between the ends: common practice.
    """
    middle = (inner + wire) / 2
    if not end.wide:
        angle = 2 * gap / inner
    else:
        across = (gap + end.wide * wire) / 2 / (middle + end.out * wire)
        if across >= 1:
            return None
        angle = 2 * math.asin(across) + 2 * end.beyond * wire / middle
    return angle if angle < math.pi else None


@dataclass(frozen=True)
class OnRim:
    """A cuff on the rim: the rim's depth and thickness, its own inside and gap [mm], and the angle
    that its body leaves open [rad]."""

    depth: float
    rim: float
    inner: float
    gap: float
    open: float


class EarCuff(OneWire):
    """Where it sits, how many rings, how the ends are finished, and how it grips.

    ``roomier`` is what the inside is wider than the rim is deep (1 to 2: common practice),
    ``grip`` the gap as a share of the rim's thickness (0.6 to 0.8: common practice).
    """

    usual_wire: ClassVar[Mapping[str, str]] = usually("16 awg")
    cut_role: ClassVar[str] = "cuff"
    family: ClassVar[str] = "ear cuff"
    worn_on: ClassVar[str] = "ear"
    sites: ClassVar[tuple[str, ...]] = ("ear_rim_depth", "ear_rim_middle")
    helps: ClassVar[tuple[str, ...]] = ("ear_rim_upper", "ear_rim_middle", "ear_rim_lower")
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "stays_on", "comfortable")
    eases: ClassVar[bool] = False

    kind: Literal["ear_cuff"] = "ear_cuff"
    rings: Literal["1", "2"] = "1"
    place: Literal["upper", "middle", "lower"] = "middle"
    ends: Literal["filed", "curled", "balled"] = "filed"
    roomier: Length = choice(1.5, 0, 6)
    grip: float = choice(0.7, 0.3, 1.0)

    def wants(self) -> tuple[str, ...]:
        """Return the rim's depth, and its thickness where the cuff sits."""
        return ("ear_rim_depth", f"ear_rim_{self.place}")

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes.

        Raises:
            Refusal: a rim so thick that no ring is left, ends that would meet on it, or balls on a
                metal that can't be balled.
        """
        d, turns = wire.d, int(self.rings)
        depth, rim = job.girths["ear_rim_depth"], job.girths[f"ear_rim_{self.place}"]
        inner, gap = depth.value_mm + self.roomier, self.grip * rim.value_mm
        ballable(wire, self.ends == "balled", "piece.ends")
        left_open = open_angle(gap, inner, d, ENDS[self.ends])
        if left_open is None:
            key = "ear_rim_thick" if self.ends == "filed" else "ear_ends_meet"
            raise Refusal(
                key, got=Mm(rim.value_mm), field=f"measures.{rim.site}", gap=gap, inner=inner
            )
        # A second ring lies beside the first, so each turn also climbs by one wire.
        once = turn(inner, d, d if turns > 1 else 0.0)
        rule = "families.ear_cuff.EarCuff"
        book.term("rings", turns * once, rule, "geometry", "body", turns=turns, inner=inner)
        share, thick = 100 * self.grip, rim.value_mm
        less = left_open * (inner + d) / 2
        book.term("less_ear_gap", -gap, rule, "common practice", "body", share=share, rim=thick)
        room = f"less_ear_{self.ends}"
        book.term(room, gap - less, "families.ear_cuff.open_angle", "geometry", "body", gap=gap)
        body = book.total("body", rule, "cut")
        return Sized(
            stretches=self._stretches(body, inner, d, book),
            target=inner,
            finished=PlusMinus(value=body, plus_minus=turns * math.pi * depth.plus_minus_mm),
            rows=[
                ("ear_inner", inner, depth.plus_minus_mm),
                ("ear_gap", gap, self.grip * rim.plus_minus_mm),
                ("centre_line", body, None),
            ],
            answers={
                "measure": "ear_inner",
                "make_up": "centre_line",
                "cut": "cut",
                "form": "former",
                "fit": "ear_gap",
            },
            doubt=0.0,
            own=OnRim(depth.value_mm, rim.value_mm, inner, gap, left_open),
        )

    def _stretches(self, body: float, inner: float, d: float, book: Book) -> tuple[Stretch, ...]:
        """Return the body with its ends, and write what those take."""
        ends = self._ends(d)
        for key, (value, rule) in ends.items():
            book.term(key, value, rule, "geometry", "cut")
        bow = Bend(angle=body / ((inner + d) / 2), pin=inner, label="body")
        lines = ("body", "rings", "less_ear_gap", f"less_ear_{self.ends}")
        middle = Stretch("body", (bow,), "body", lines)
        if not ends:
            return (middle,)
        left, right = (Stretch(key, self._end_moves(d)) for key in ends)
        return (left, middle, right)

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the order of work; it is slid on where the rim is thinnest."""
        assert bench.former is not None  # it has a target
        girths = bench.job.girths
        rims = (girth for site, girth in girths.items() if site != "ear_rim_depth")
        thin = min(rims, key=lambda girth: girth.value_mm)
        cautions = ("torch",) if self.ends == "balled" else ("ends",)
        yield step(f"ear.{self.ends}", "form", cautions=cautions, check=True)
        yield shape_step(bench.former)
        yield step("ear.gap", "form", gap=bench.own.gap, check=True)
        where, place = say(f"site.{thin.site}"), say(f"place.{self.place}")
        yield step("ear.try_on", "fit", cautions=("ear",), check=True, where=where, place=place)

    def last_steps(self) -> Sequence[Step]:
        """Return the last look: its ends are round, and its gap stays as it was set."""
        return (feel_step(),)

    def hold(self, bench: OnBench) -> Hold:
        """Return what pulls the ring open."""
        return opens_at("open_ring", bench.worn, bench.own.inner)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield whether it grips, and whether it keeps its shape."""
        yield self._gripping(bench.own.rim)
        yield keeps_shape(bench.job.wire)

    def _end_moves(self, d: float) -> tuple[Move, ...]:
        if self.ends == "curled":
            return (Bend(angle=0.75 * TURN, pin=1.5 * d, side="right", label="curl"),)
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

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the rim in section, edge to the right, with the cuff round it."""
        rim, inner, d = bench.own.rim, bench.own.inner, bench.wire.d
        r, half = (inner + d) / 2, rim / 2
        # A rounded tongue as thick as the rim, from the groove (left) to the edge.
        edge = circle((inner / 2 - self.roomier / 2 - half, 0.0), half)
        right = [p for p in edge if p[0] >= inner / 2 - self.roomier / 2 - half]
        right.sort(key=lambda p: -p[1])
        left = -inner / 2 - 4
        body = ((left, half), *right, (left, -half))
        open_half = bench.own.open / 2
        turn = [math.pi - open_half - k * (TURN - 2 * open_half) / 90 for k in range(91)]
        ring = tuple((round(r * math.cos(t), 2), round(r * math.sin(t), 2)) for t in turn)
        yield section_sheet(
            say("drawing.on_the_ear"),
            [
                Stroke(part="skin", points=body, closed=True),
                Stroke(part="body_wire", points=ring, width_mm=d),
                *self._drawn_ends(r, d, open_half),
            ],
            [
                Dimension(
                    a=(-inner / 2, 0.0),
                    b=(inner / 2, 0.0),
                    value_mm=inner,
                    label=say("drawing.inner"),
                    offset_mm=r + 1.5,
                ),
                self._drawn_gap(bench.own, d),
            ],
            say("drawing.rim", rim=rim),
        )

    def _drawn_ends(self, r: float, d: float, open_half: float) -> Iterator[Stroke]:
        """Yield the balls or curls of both ends."""
        end = ENDS[self.ends]
        if not end.wide:
            return
        out, at = r + end.out * d, math.pi - open_half + end.beyond * d / r
        for side, sign in (("left", 1), ("right", -1)):
            middle = (out * math.cos(at), sign * out * math.sin(at))
            if self.ends == "balled":
                yield Stroke(part=f"ball {side}", points=circle(middle, d), closed=True)
            else:
                curl = circle(middle, 1.25 * d)
                yield Stroke(part=f"curl {side}", points=curl, closed=True, width_mm=d)

    def _drawn_gap(self, own: OnRim, d: float) -> Dimension:
        """Return the gap as it is measured: clear between the ends."""
        x = -own.inner / 2 if self.ends == "filed" else -(own.inner + d) / 2
        return Dimension(
            a=(x, -own.gap / 2),
            b=(x, own.gap / 2),
            value_mm=own.gap,
            label=say("drawing.clear_gap"),
            # Left of the rim and of what its ends are.
            offset_mm=5.5 + ENDS[self.ends].wide * d / 2,
        )

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield how hard it grips."""
        own, wire = bench.own, bench.worn
        half = math.pi - own.open / 2
        yield grips(wire, wire.radius_on(own.inner), own.rim, own.gap, half)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: open or close the gap."""
        keys = {"goes_on": "ear_stuck", "comfortable": "ear_open", "stays_on": "ear_close"}
        return felt(tryon, gap=bench.own.gap, **keys)

"""Crossed wraps: a wire in figures of eight over two bars or more."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import ClassVar, Literal

from jamreel.core.advice.weaving import bar_shows, thin_bar, tight_gap
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import OnBars, at_height
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Cell, Strand, bars_of, stretched
from jamreel.core.interlace.endings import Ending, eye_hold
from jamreel.core.interlace.frames import Frame
from jamreel.core.interlace.space import Array, inner_tangent, joined, moved, round_bar
from jamreel.core.parts.base import End, Hold, WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length


@dataclass(frozen=True)
class Repeat:
    """A repeat of crossed wraps, lengths in mm: how many bars so far ``apart`` from middle to
    middle, their thickness, the working wire, the strands outside each outer bar in a repeat, and
    those round an inner bar at each pass."""

    bars: int
    apart: float
    bar: float
    wire: float
    outside: int = 1
    inside: int = 1

    @property
    def radius(self) -> float:
        """r, of the working wire's middle round a bar [mm]."""
        return (self.bar + self.wire) / 2

    @property
    def angle(self) -> float:
        """The angle a at which a crossing leaves a bar [rad]. Raises ValueError for bars between
        which the wire does not pass."""
        return inner_tangent(self.apart, self.radius)

    @property
    def outer_turn(self) -> float:
        """How far it goes round an outer bar, 2 pi (n - 1) + pi + 2 a [rad]."""
        return 2 * math.pi * (self.outside - 1) + math.pi + 2 * self.angle

    @property
    def inner_turn(self) -> float:
        """How far it goes round an inner bar at a pass, 2 pi (n - 1) + 2 a [rad]."""
        return 2 * math.pi * (self.inside - 1) + 2 * self.angle

    @property
    def pitch(self) -> float:
        """Return how far a repeat goes on, d max(2, n outside, 2 n inside - 1) [mm].

        Two crossings pass the same point between the bars, so once round each bar leaves gaps of a
        wire; two strands outside are the first that cover it.

        Example:
            >>> Repeat(2, 4.2, 1.2, 0.3).pitch, Repeat(3, 3.0, 1.0, 0.4, 2, 1).pitch
            (0.6, 0.8)

        Source: plain counting.
        """
        inner = 2 * self.inside - 1 if self.bars > 2 else 0
        return self.wire * max(2, self.outside, inner)

    def _on(self, turn: float) -> float:
        """How far close turns go on along a bar [mm]."""
        return turn * self.wire / (2 * math.pi)

    @property
    def step(self) -> float:
        """How far a crossing goes on along the bars, or back where it is negative [mm]."""
        turned = 2 * self._on(self.outer_turn) + 2 * (self.bars - 2) * self._on(self.inner_turn)
        return (self.pitch - turned) / (2 * (self.bars - 1))

    def takes(self) -> float:
        """Return the wire of a repeat.

            2 sqrt((T_o r)^2 + A_o^2) + 2 (N - 2) sqrt((T_m r)^2 + A_m^2)
              + 2 (N - 1) sqrt((S cos a)^2 + c^2)

        Returns:
            Length [mm]; without advance on two bars that of a crossed belt.

        Raises:
            ValueError: bars too near for the wire to pass between.

        Example:
            >>> round(Repeat(2, 4.2, 1.2, 0.3).takes(), 2)
            13.67
            >>> round(Repeat(3, 3.0, 1.0, 0.4, 2, 1).takes(), 2)
            26.61

        Source: crossed belt and helix; published. Packed without a gap, real wire steps aside and
        takes up to 2 % more (own numerical tightening).
        """
        r, outer, inner = self.radius, self.outer_turn, self.inner_turn
        crossing = math.hypot(self.apart * math.cos(self.angle), self.step)
        return (
            2 * math.hypot(outer * r, self._on(outer))
            + 2 * (self.bars - 2) * math.hypot(inner * r, self._on(inner))
            + 2 * (self.bars - 1) * crossing
        )

    @property
    def places(self) -> tuple[float, ...]:
        """y of every bar, their middle at 0 [mm]."""
        half = self.apart * (self.bars - 1) / 2
        return tuple(n * self.apart - half for n in range(self.bars))

    def _line(self) -> Array:
        """Return the middle line of a repeat, from the back of the first bar on."""
        a, lines, x = self.angle, list[Array](), 0.0

        def wound(n: int, begins: float, ends: float) -> None:
            nonlocal x
            to = x + self._on(abs(ends - begins))
            lines.append(round_bar((self.places[n], 0.0), self.radius, (begins, ends), (x, to)))
            x = to + self.step

        last = self.bars - 1
        # By turns a bar is gone round one way and the other; what passes over one goes under the
        # next, and on the way back the other way.
        wound(0, math.pi - a, math.pi - a + self.outer_turn)
        for n in range(1, last):
            self._pass(wound, n, there=True)
        sense = 1 if last % 2 == 0 else -1
        begins = -a if sense > 0 else math.pi + a
        wound(last, begins, begins + sense * self.outer_turn)
        for n in range(last - 1, 0, -1):
            self._pass(wound, n, there=False)
        lines.append(moved(lines[0][:1], self.pitch))
        return joined(*lines)

    def _pass(self, wound: Callable[[int, float, float], None], n: int, *, there: bool) -> None:
        a, sense = self.angle, 1 if n % 2 == 0 else -1
        # Bars of odd number are gone under on the way there, over on the way back.
        begins = {(1, True): -a, (1, False): math.pi - a, (-1, True): math.pi + a, (-1, False): a}
        start = begins[sense, there]
        wound(n, start, start + sense * self.inner_turn)

    def cell(self) -> Cell:
        """Return a repeat."""
        bars = bars_of([(y, 0.0) for y in self.places], self.bar, self.pitch)
        strands = (*bars, Strand("working", self.wire, self._line()))
        return Cell(self.pitch, 1, strands, packed=self.bars > 2 or self.outside > 1)


@dataclass(frozen=True)
class Held:
    """What wraps are wound on: its wires, what bears before and behind the wraps [mm], its ends,
    and the steps in which it is made and finished."""

    uses: tuple[WireUse, ...]
    before: float
    behind: float
    ends: tuple[End, End] | None
    holds: tuple[Hold, ...]
    first: Step
    last: tuple[Step, ...]


class CrossedWrap(OnBars):
    """Bars side by side, or the legs of a bowed frame, wrapped in figures of eight.

    ``bar_gap`` is clear between the bars; ``outside`` counts the strands on each outer bar in a
    repeat, ``inside`` those round an inner bar at each pass.
    """

    only_if: ClassVar[Mapping[str, tuple[str, ...]]] = {"ends": ("wound_on", "bars")}

    kind: Literal["crossed_wrap"] = "crossed_wrap"
    first: ClassVar[tuple[str, ...]] = ("rows", "wound_on", "bar_gap", "outside", "wire")
    wound_on: Literal["bars", "frame"] = "bars"
    bars: int = choice(2, 2, 8, when=("wound_on", "bars"))
    bar_gap: Length = choice(3.0, 0.2, 60)
    outside: int = choice(1, 1, 12)
    inside: int = choice(1, 1, 8, when=("wound_on", "bars"))

    def body(self, wires: Palette) -> Body:
        """Return the wraps. Raises Refusal for bars between which no wire passes."""
        bar, working = wires.of("body"), self.working(wires)
        count = 2 if self.wound_on == "frame" else self.bars
        repeat = Repeat(count, self.bar_gap + bar.d, bar.d, working.d, self.outside, self.inside)
        try:
            taken = repeat.takes()
        except ValueError:
            raise Refusal(
                "no_way_between", got=Mm(self.bar_gap), field="bar_gap", least=working.d
            ) from None
        pitch = self.pitched(repeat.pitch, wires)
        held = (self._framed if self.wound_on == "frame" else self._barred)(
            bar, self.rows * pitch, repeat, wires
        )
        spread = pitch / repeat.pitch
        return Body(
            size=BodySize(
                pitch=pitch,
                width=repeat.places[-1] - repeat.places[0] + bar.d + 2 * working.d,
                thickness=bar.d + 2 * working.d,
                before=held.before,
                behind=held.behind,
                pegs=repeat.places,
                ends=held.ends,
            ),
            wires=BodyWires(
                working=working,
                worked=(
                    Takes("crossed_working", (math.sqrt(taken**2 + pitch**2 - repeat.pitch**2),)),
                ),
                core=bar.d,
                frame=held.uses[:1],
                lengthwise=(Lengthwise(bar, count),),
            ),
            look=Look(
                cell=lambda: stretched(repeat.cell(), spread),
                frame_strokes=tuple(stroke for one in held.uses for stroke in drawn(one)),
            ),
            work=self._work(count, held),
            holds=held.holds,
            advice=(
                bar_shows(working.d if self.outside == 1 and count == 2 else 0.0),
                tight_gap(self.bar_gap, working.d) if self.outside > 1 else None,
                thin_bar(bar.d, working.d),
            ),
        )

    def _work(self, count: int, held: Held) -> Work:
        """Return its steps."""
        return Work(
            begin=(held.first,),
            row_steps=(
                part_step(
                    "crossed_wrap" if count == 2 else "crossed_wrap_inner",
                    name="crossed_wrap",
                    check=True,
                    rows=self.rows,
                    outside=self.outside,
                    inside=self.inside,
                ),
            ),
            finish=(part_step("crossed_end", cautions=("eyes", "ends")), *held.last),
            row_minutes=0.25 * count * self.outside,
        )

    def _barred(self, bar: Wire, long: float, repeat: Repeat, wires: Palette) -> Held:
        """Return bars side by side, the first one for all of them."""
        ending = self.ending(bar, wires)
        body = ("body", (Straight(length=long),))
        stretches = (*ending.stretches("left"), body, *ending.stretches("right"))
        use = laid(
            WireUse("crossed_bar", bar, stretches, quantity=self.bars),
            middle=ending.reach + long / 2,
        )
        first = part_step("crossed_bars", check=True, bars=self.bars, gap=self.bar_gap)
        return Held(
            tuple(at_height(use, y) for y in repeat.places),
            ending.reach,
            ending.reach,
            ending.in_row(self.bars, repeat.apart),
            ending.holds,
            first,
            ending.steps("crossed_eyes"),
        )

    def _framed(self, bar: Wire, long: float, _: Repeat, __: Palette) -> Held:
        """Return a frame with a round bow."""
        frame = Frame(bar, self.pin, self.bar_gap)
        return Held(
            (frame.use("crossed_frame", long),),
            frame.loop.reach,
            frame.behind,
            frame.ends,
            (eye_hold(bar, self.pin),),
            frame.step,
            Ending(bar, self.pin, bare=False).steps("crossed_eyes"),
        )

"""The two ways to end a wire in a loop: what it takes, how far it reaches, how it is done."""

import math
from dataclasses import dataclass
from typing import Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.parts import few_wraps, thin_for_links
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import (
    End,
    Hold,
    Part,
    Stretches,
    Varies,
    opens_at,
    ovals_at,
    part_step,
)
from jamreel.core.path.loops import centred, wrapped_loop_reach
from jamreel.core.path.moves import Bend, PlaneTurn, Spiral, Straight, Wrap, developed_length
from jamreel.core.values import Length

LoopKind = Literal["wrapped", "plain"]
# How the two loops of a link stand to each other.
Stand = Literal["alike", "square"]
# Where a wrapped loop's end goes: pressed in on one of three faces, or laid into a swirl.
EndsIn = Literal["away", "inside", "outside", "swirl"]
Side = Literal["left", "right"]
PIN_RANGE, WRAPS_RANGE, TAIL_RANGE = (0.5, 60.0), (1.0, 12.0), (0.0, 100.0)
SWIRL_RANGE = (1.0, 6.0)
# The three sides on which a tail is pressed in all need the same cut.
TAIL_CAUTIONS = ("eyes", "ends")


@dataclass(frozen=True)
class Loop:
    """A loop at the end of a wire: ``kind``, the pin D [mm] that it is bent on, n ``wraps_`` of a
    wrapped one, the ``tail`` [mm] held while wrapping, where its end goes, and how many ``turns``
    a swirl has."""

    kind: LoopKind
    wire: Wire
    pin: float
    wraps_: int = 0
    tail: float = 0.0
    ends_in: EndsIn = "away"
    turns: float = 2.0

    @property
    def wrapped(self) -> bool:
        """Whether it is wound shut on its stem."""
        return self.kind == "wrapped"

    @property
    def _swirls(self) -> bool:
        return self.wrapped and self.ends_in == "swirl"

    @property
    def reach(self) -> float:
        """How far its bearing point lies beyond its bead [mm]."""
        return wrapped_loop_reach(self.wraps_ if self.wrapped else 0, self.pin, self.wire.d)

    @property
    def thickness(self) -> float:
        """How far it stands out from the skin: its wire, its wraps, a swirl on them [mm]."""
        return self.wire.d * (1 if not self.wrapped else 4 if self._swirls else 3)

    def stretches(self, side: Side, turned: float = 0.0) -> Stretches:
        """Return what it takes, in the order in which it lies on the wire.

        Args:
            side: ``left`` lies end first, ``right`` end last.
            turned: how far its plane is turned from that of the other loop [rad].
        """
        turn = (PlaneTurn(angle=turned),) if turned else ()
        bend = Bend(angle=2 * math.pi, pin=self.pin, label="loop")
        loop = (*turn, *centred(bend, first=side == "left"))
        if not self.wrapped:
            return ((f"loop_{side}", loop),)
        # From the loop it goes on round its own stem.
        wraps = (
            PlaneTurn(angle=math.pi / 2),
            Wrap(turns=self.wraps_, core=self.wire.d, label="wraps", on_own=True),
        )
        rows: Stretches = (
            (f"stem_{side}", (Straight(length=self.wraps_ * self.wire.d),)),
            (f"loop_{side}", loop),
            (f"wraps_{side}", wraps if side == "right" else wraps[::-1]),
        )
        if self._swirls:
            # It lies in the plane of the loop, on the wraps.
            swirl = (
                PlaneTurn(angle=math.pi / 2),
                Spiral(turns=self.turns, pin=self.wire.d, outward=True, label="swirl"),
            )
            rows = (*rows, (f"swirl_{side}", swirl if side == "right" else swirl[::-1]))
        elif self.tail > 0:
            rows = (*rows, (f"tail_{side}", (Straight(length=self.tail),)))
        return rows if side == "right" else rows[::-1]

    def end(self) -> End:
        """Return what joins see of it."""
        return End(self.pin, self.wire.d)

    @property
    def hold(self) -> Hold:
        """What it holds."""
        if not self.wrapped:
            return opens_at("plain_loop", self.wire, self.pin)
        return ovals_at("wrapped_loop", self.wire, self.pin)

    def made_steps(
        self, *threaded: Step, stem: float = 0.0, off_reel: bool = False
    ) -> tuple[Step, ...]:
        """Return the steps of a wire with such a loop at each end.

        What hangs in a loop goes in before it is wound shut. Off the reel beads come before the
        first loop, and the wire is cut behind them.

        Args:
            threaded: how its beads go on.
            stem: bare wire between the loops [mm].
            off_reel: whether it is bent before it is cut.
        """
        between = (self._snipped(stem, "reel" if threaded else "stem"),) if off_reel else threaded
        return (*(threaded if off_reel else ()), *self._both_loops(between))

    def _snipped(self, stem: float, key: str) -> Step:
        """Return the cut off the reel, with enough left for the stem and the second loop."""
        moves = tuple(move for _, row in self.stretches("right") for move in row)
        left = stem + developed_length(moves, self.wire.bend_adds)
        cautions = ("eyes", "whip")
        return part_step(f"snip_{key}", name="snip_reel", cautions=cautions, check=True, left=left)

    def _both_loops(self, between: tuple[Step, ...]) -> tuple[Step, ...]:
        if not self.wrapped:
            return (
                part_step("plain_first", pin=self.pin),
                *between,
                part_step("plain_second", pin=self.pin, check=True),
            )
        return (
            part_step("first_open", pin=self.pin),
            part_step("first_in", check=True),
            part_step("wrapped_first", wraps=self.wraps_, check=True),
            *between,
            part_step("wrapped_open", pin=self.pin),
            part_step("next_link_first", check=True),
            part_step("wrapped_second", wraps=self.wraps_, check=True),
            self.finish_step,
        )

    def hung_steps(self) -> tuple[Step, ...]:
        """Return the steps of hanging something by it: it is hung before it is closed."""
        if not self.wrapped:
            return (part_step("hang_plain", pin=self.pin, check=True),)
        return (
            part_step("hang_open", pin=self.pin),
            part_step("hang_in", check=True),
            part_step("hang_wrapped", wraps=self.wraps_, check=True),
            self.finish_step,
        )

    @property
    def finish_step(self) -> Step:
        """The step that its end goes away in."""
        if self.ends_in == "swirl":
            return part_step(
                "swirl", name="tails", cautions=("ends",), check=True, turns=self.turns
            )
        key = {"away": "tails", "inside": "tails_inside", "outside": "tails_outside"}[self.ends_in]
        return part_step(key, name="tails", cautions=TAIL_CAUTIONS, check=True)

    @property
    def advice(self) -> tuple[Advice | None, ...]:
        """What is to be said of it."""
        if self.wrapped:
            return (few_wraps(self.wraps_),)
        return (thin_for_links(self.wire.d, self.pin),)


class Looped(Part):
    """Base of parts that end in loops: the choices that a loop has."""

    loops: LoopKind = "wrapped"
    pin: Length = choice(3.0, *PIN_RANGE)
    wraps: int = choice(2, *WRAPS_RANGE, when=("loops", "wrapped"))
    tail: Length = choice(12.0, *TAIL_RANGE, when=("loops", "wrapped"))
    ends_in: EndsIn = choice("away", when=("loops", "wrapped"))
    swirl_turns: float = choice(2.0, *SWIRL_RANGE, when=("ends_in", "swirl"))

    def loop_of(self, wire: Wire) -> Loop:
        """Return its loop, of some wire."""
        return Loop(
            self.loops, wire, self.pin, self.wraps, self.tail, self.ends_in, self.swirl_turns
        )

    def varies(self) -> tuple[Varies, ...]:
        """Return its wraps, where it has any."""
        wrapped = self.loops == "wrapped"
        return (Varies("wraps", "wraps", self.wraps, (2, 3, 4)),) if wrapped else ()


def quarter(stand: Stand) -> float:
    """Return how far the second loop of a link is turned from the first [rad]."""
    return math.pi / 2 if stand == "square" else 0.0


def face_step(stand: Stand) -> Step:
    """Return the last step of a link: its loops are turned to stand as they are meant to."""
    return part_step(f"face_{stand}", name="face", check=True)

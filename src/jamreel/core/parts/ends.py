"""The two ways to end a wire in a loop, as stretches of a wire and as a picture."""

import math
from typing import Literal

from jamreel.core.bench.steps import Step
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import (
    End,
    Hold,
    Stretches,
    Varies,
    opens_at,
    ovals_at,
    part_step,
)
from jamreel.core.parts.pictures import edge, ring, slender, wraps
from jamreel.core.path.loops import wrapped_loop_reach
from jamreel.core.path.moves import Bend, Straight, Wrap
from jamreel.core.values import Stroke

LoopKind = Literal["wrapped", "plain"]
PIN_RANGE, WRAPS_RANGE, TAIL_RANGE = (0.5, 60.0), (1.0, 12.0), (0.0, 100.0)


def loop_end(
    kind: LoopKind, wire: Wire, pin: float, wraps_: int, tail: float, side: str
) -> Stretches:
    """Return the stretches of a loop at one end, in the order in which they lie on the wire.

    Args:
        kind: wrapped shut on its stem, or plain.
        wire: that it is made of.
        pin: D [mm].
        wraps_: n, of a wrapped loop.
        tail: held while wrapping and trimmed off [mm].
        side: ``left`` lies tail first, ``right`` tail last.
    """
    loop = (Bend(angle=2 * math.pi, pin=pin, label="loop"),)
    if kind == "plain":
        return ((f"loop_{side}", loop),)
    rows: Stretches = (
        (f"stem_{side}", (Straight(length=wraps_ * wire.d),)),
        (f"loop_{side}", loop),
        (f"wraps_{side}", (Wrap(turns=wraps_, core=wire.d, label="wraps"),)),
        (f"tail_{side}", (Straight(length=tail),)),
    )
    rows = rows if tail > 0 else rows[:-1]
    return rows if side == "right" else rows[::-1]


def reach(kind: LoopKind, wire: Wire, pin: float, wraps_: int) -> float:
    """Return how far the loop's bearing point lies beyond its bead [mm]; arguments as above."""
    return wrapped_loop_reach(wraps_ if kind == "wrapped" else 0, pin, wire.d)


def end_of(kind: LoopKind, wire: Wire, pin: float, square: bool = False) -> End:
    """Return what joins see of a loop; arguments as above."""
    return End(pin, wire.d, True, "square" if square else "flat")


def hold_of(kind: LoopKind, wire: Wire, pin: float) -> Hold:
    """Return what a loop holds; arguments as above."""
    if kind == "plain":
        return opens_at("plain_loop", wire, pin)
    return ovals_at("wrapped_loop", wire, pin)


def wraps_vary(kind: LoopKind, wraps_: int) -> tuple[Varies, ...]:
    """Return the wraps that a fit may set anew: two to four, none of a plain loop."""
    return (Varies("wraps", "wraps", wraps_, (2, 3, 4)),) if kind == "wrapped" else ()


def loop_picture(
    kind: LoopKind, wire: Wire, pin: float, wraps_: int, *, square: bool = False
) -> list[Stroke]:
    """Return a loop at the left: bearing point at x = 0, its bead at x = ``reach``.

    Args:
        kind: wrapped or plain.
        wire: that it is made of.
        pin: D [mm].
        wraps_: n, of a wrapped loop.
        square: turned edge on.
    """
    d, bead_at = wire.d, reach(kind, wire, pin, wraps_)
    loop = slender(-d, pin + d, d) if square else ring(pin / 2, pin, d)
    if kind == "plain":
        return [loop]
    return [
        edge(pin + d / 2, bead_at, d),
        loop,
        *wraps(pin + d, wraps_, d, 3 * d),
    ]


def loop_steps(kind: LoopKind, pin: float, wraps_: int, *between: Step) -> tuple[Step, ...]:
    """Return the steps of a wire with a loop at each end.

    The next link goes in before the second loop is closed.

    Args:
        kind: wrapped or plain.
        pin: D [mm].
        wraps_: n, of a wrapped loop.
        between: what is done when one end has its loop.
    """
    if kind == "plain":
        return (
            part_step("plain_first", pin=pin),
            *between,
            part_step("plain_second", pin=pin, check=True),
        )
    return (
        part_step("wrapped_first", pin=pin, wraps=wraps_),
        *between,
        part_step("next_link_first", check=True),
        part_step("wrapped_second", pin=pin, wraps=wraps_, check=True),
        part_step("tails", cautions=("eyes", "ends"), check=True),
    )

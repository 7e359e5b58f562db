"""What a hook or a bar goes into, and how it hangs on the body: hooks and bars share both.

The receiving half may be an own eye, what is there (the body's last loop, fold or ring), or a ring.
"""

import math
from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any, ClassVar, Literal, get_args

from jamreel.core.advice.closing import FIELD as CLOSURE_FIELD
from jamreel.core.bench.steps import Opening, Step
from jamreel.core.choices import choice
from jamreel.core.closures.base import (
    NOTHING,
    Closure,
    Fastened,
    Lies,
    Passes,
    closure_step,
    lying,
    registered_closures,
)
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Varies, WireUse, ends_meet, opens_at, ovals_at
from jamreel.core.parts.bought_ring import BoughtRing
from jamreel.core.parts.drawn import drawn, laid, moved
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.parts.pictures import shifted
from jamreel.core.parts.rings import ring_made, soldered_steps
from jamreel.core.parts.split_ring import SplitRing
from jamreel.core.path.moves import Bend
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.words import say

Ring = Literal["jump_ring", "soldered_ring", "split_ring", "bought_ring"]
Into = Literal["own", "last_loop", "jump_ring", "soldered_ring", "split_ring", "bought_ring"]
# Of what has no half of its own.
IntoOther = Literal["last_loop", "jump_ring", "soldered_ring", "split_ring", "bought_ring"]
Fixed = Literal["directly", "on_ring"]


def ring_half(kind: Ring, wire: Wire, wires: Palette, pin: float) -> Made:
    """Return a ring as the receiving half; one of wire is bent by itself, not cut from a coil.

    Args:
        kind: which sort.
        wire: that one of wire is made of.
        wires: of the piece.
        pin: inner diameter [mm].

    Raises:
        Refusal: one to be soldered of a metal that can't be.
    """
    if kind == "split_ring":
        return SplitRing(inner=pin).make(wires)
    if kind == "bought_ring":
        return BoughtRing(inner=pin).make(wires)
    soldered = kind == "soldered_ring"
    solderable(wire, soldered, "into")
    hold = ovals_at if soldered else opens_at
    turn = Bend(angle=2 * math.pi, pin=pin, label="ring")
    use = laid(WireUse("hook_ring", wire, (("body", (turn,)),)), middle=pin / 2, low=True)
    return ring_made(
        pin,
        wire.d,
        opens=not soldered,
        wires=(use,),
        holds=(hold(kind, wire, pin),),
        strokes=drawn(use),
        steps=(
            closure_step("ring", cautions=("eyes",), pin=pin),
            *(soldered_steps(wire.metal) if soldered else ()),
        ),
        minutes=3.0,
    )


# Of a step whose openings are no longer the half's own.
NO_OPENINGS: dict[str, tuple[Opening, ...]] = {"makes": (), "takes_in": (), "shuts": ()}


class Received(Closure):
    """Base of closures of which one half goes into the other, or into what is there."""

    only_if: ClassVar[Mapping[str, tuple[str, ...]]] = {
        "eye_pin": ("into", "own"),
        "eye_wraps": ("into", "own"),
        "eye_join_pin": ("into", "own"),
    }

    into: Into = "own"
    into_pin: Length = choice(6.0, 1.5, 30.0, when=("into", *get_args(Ring)))
    fixed: Fixed = "directly"
    fixed_pin: Length = choice(4.0, 2.0, 12.0, when=("fixed", "on_ring"))
    lies: Lies = "flat"
    wire: OptionalSize = None

    def into_what(self, wire: Wire, wires: Palette, own: Callable[[], Made]) -> Made:
        """Return the receiving half: its own, a ring, or nothing where the body has one.

        Args:
            wire: that the closure is made of.
            wires: of the piece.
            own: makes its own half.

        Raises:
            Refusal: a half that can't be made.
        """
        if self.into == "last_loop":
            return NOTHING
        if self.into == "own":
            return lying(own(), self.lies)
        return ring_half(self.into, wire, wires, self.into_pin)

    def on_body(self, holding: Made, wires: Palette) -> Made:
        """Return the holding half as it hangs on the body: directly, or on a ring of its own."""
        half = lying(holding, self.lies)
        if self.fixed == "directly":
            return half
        link = JumpRing(pin=self.fixed_pin).make(wires)
        # Both have loops.
        assert link.ends is not None
        assert half.ends is not None
        ring, own = (say("shelf.jump_ring.name"), link.ends[1]), (self.says, half.ends[0])
        return replace(
            half,
            length=link.length + half.length,
            width=max(half.width, link.width),
            ends=(link.ends[0], half.ends[1]),
            wires=(*(moved(use, link.length) for use in half.wires), *link.wires),
            holds=(*half.holds, *link.holds),
            strokes=(*link.strokes, *shifted(half.strokes, link.length)),
            steps=_hung_on(half.steps, link.steps),
            minutes=half.minutes + link.minutes,
            advice=(*half.advice, ends_meet(*ring, *own, CLOSURE_FIELD)),
        )

    def fastens_by(self, receiving: Made, holding: Made, passes: Passes, *mates: Any) -> Fastened:
        """Return the closure as made.

        Args:
            receiving: what it goes into.
            holding: hook or bar, on the body.
            passes: what has to go through.
            mates: advice on the halves.

        On a ring it swings, so that one hand fastens it; fixed directly it holds more.
        """
        return Fastened(receiving, holding, mates, self.fixed == "on_ring", passes=passes)


class Hook(Received):
    """Base of hooks. A fit may turn one over, or take another that has one loop for the body."""

    one_loop: ClassVar[bool] = True
    # Whether it can be taken as it is offered: a hook of the maker's own is drawn first.
    stands_in: ClassVar[bool] = True

    def varies(self) -> tuple[Varies, ...]:
        """Return the way that it lies: on edge it stands further out from the skin."""
        return (Varies("lies", "lies", self.lies, ("flat", "standing")),)

    def others(self) -> tuple[Closure, ...]:
        """Return the other hooks that could stand in for it, of the same wire."""
        if not self.one_loop:
            return ()
        shared = {"lies": self.lies, "fixed": self.fixed, "wire": self.wire}
        found = []
        for kind, cls in registered_closures().items():
            if kind != self.kind and issubclass(cls, Hook) and cls.stands_in and cls.one_loop:
                # A ring or a loop that is there stays what it is.
                kept = {} if self.into == "own" else {"into": self.into, "into_pin": self.into_pin}
                found.append(cls(**shared, **kept))
        return tuple(found)


def _hung_on(half: tuple[Step, ...], link: tuple[Step, ...]) -> tuple[Step, ...]:
    """Return the steps of a half on a ring of its own: the open ring takes half and body."""
    alone = (one.model_copy(update=NO_OPENINGS) for one in half if not one.takes_in)
    ring = (
        closure_step("hang_on_ring") if one.takes_in else one.model_copy(update=NO_OPENINGS)
        for one in link
    )
    return (*alone, *ring)


def body_in() -> Step:
    """Return the step in which the body is hung in a loop that is still open."""
    return closure_step("body_in")

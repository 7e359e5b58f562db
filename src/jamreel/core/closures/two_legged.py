"""Hooks and catches of one wire bent to two legs, each ending in a loop on the body."""

import math
from abc import abstractmethod
from typing import Any, ClassVar

from jamreel.core.bench.steps import Step
from jamreel.core.closures.base import Fastened, Passes, closure_step
from jamreel.core.closures.receiving import Hook
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Hold, Made, Stretches, WireUse, opens_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.moves import Bend, Move, PlaneTurn
from jamreel.core.values import Length, OptionalLength

Row = tuple[str, tuple[Move, ...]]


class TwoLegged(Hook):
    """Base of hooks that hang on the body by two loops, and of their catches."""

    one_loop: ClassVar[bool] = False

    hook_pin: Length
    catch_pin: Length
    loop_pin: Length
    catch_loop_pin: OptionalLength

    def fastened(self, w: Wire, wires: Palette, holding: Made, width: float) -> Fastened:
        """Return both halves.

        Args:
            w: the wire of the closure.
            wires: of the piece.
            holding: the hook.
            width: of what goes through the catch [mm].
        """
        return self.fastens_by(
            self.into_what(w, wires, lambda: self.catch(w)),
            self.on_body(holding, wires),
            Passes(width),
        )

    @abstractmethod
    def catch(self, w: Wire) -> Made:
        """Return its own catch."""

    @property
    def catch_loop(self) -> float:
        """The pin that the catch's loops are bent on [mm]: the hook's, where nothing is said."""
        return self.loop_pin if self.catch_loop_pin is None else self.catch_loop_pin

    def loop(self, pin: float) -> Bend:
        """Return one of its loops.

        Args:
            pin: that it is bent on [mm].
        """
        return Bend(angle=2 * math.pi, pin=pin, label="loop")

    def hook_half(
        self,
        w: Wire,
        stretches: Stretches,
        shank: float,
        *,
        apart: float,
        steps: tuple[Step, ...],
        **more: Any,
    ) -> Made:
        """Return the hook, hung by its loops at the left.

        Args:
            w: the wire.
            stretches: of it, both legs.
            shank: from the loops to the crook [mm].
            apart: from the middle of one loop to that of the other [mm].
            steps: in which it is made; in the last one it is curved to the wearer.
            more: how thick and wide it is, and its minutes.
        """
        loops = End(self.loop_pin, w.d).in_row(2, apart)
        use = laid(WireUse(self.kind, w, stretches, held="leg_left"), left=0.0, low=True)
        return Made(
            length=self.loop_pin + w.d + shank + hook_bearing(self.hook_pin),
            ends=(loops, End(self.hook_pin, w.d, False)),
            wires=(use,),
            holds=(opens_at("hook", w, self.hook_pin, 2), self._by_loops(w, self.loop_pin)),
            strokes=drawn(use),
            steps=(*steps, closure_step("curve", name="curve_hook")),
            **more,
        )

    def catch_half(
        self, key: str, w: Wire, rows: tuple[Row, ...], *, leg: float, apart: float, wide: float
    ) -> Made:
        """Return the catch: a U hung by its loops at the right.

        Args:
            key: what its wire is called.
            w: the wire.
            rows: of its left side, from the loop to the bow.
            leg: from the bow to the loops [mm].
            apart: from the middle of one loop to that of the other [mm].
            wide: across [mm].
        """
        loops = End(self.catch_loop, w.d).in_row(2, apart)
        length = self.catch_loop + w.d + leg + hook_bearing(self.catch_pin)
        bow = Bend(angle=math.pi, pin=self.catch_pin, label="catch")
        catch = WireUse(key, w, both_sides(rows, bow), held="leg_left", turn=math.pi)
        use = laid(catch, middle=length / 2, low=True)
        return Made(
            length=length,
            thickness=w.d,
            width=wide,
            ends=(End(self.catch_pin, w.d, False), loops),
            wires=(use,),
            holds=(self._by_loops(w, self.catch_loop),),
            strokes=drawn(use),
            steps=(
                closure_step("catch", pin=self.catch_pin, apart=apart),
                closure_step("curve", name="curve_catch"),
            ),
            minutes=4.0,
        )

    def _by_loops(self, w: Wire, pin: float) -> Hold:
        return opens_at("plain_loop", w, pin, 2)


def both_sides(rows: tuple[Row, ...], middle: Move) -> Stretches:
    """Return a wire whose right side is its left one the other way round.

    Args:
        rows: of its left side, from the end to the middle.
        middle: between both.

    Source: plain symmetry.
    """
    left = [(f"{name}_left", moves) for name, moves in rows]
    right = [(f"{name}_right", tuple(map(_back, moves[::-1]))) for name, moves in rows[::-1]]
    return (*left, ("body", (middle,)), *right)


def _back(move: Move) -> Move:
    """Return a move as it is made on the way back: the plane turns the other way."""
    return PlaneTurn(angle=-move.angle) if isinstance(move, PlaneTurn) else move

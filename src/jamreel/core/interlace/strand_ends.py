"""How strands end: bound, and turned to an eye or a hook of their own, or bare for a cap."""

import math
from dataclasses import dataclass
from typing import Literal

from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.hex_stack import hull_of
from jamreel.core.parts.base import End, Hold, WireUse, opens_at
from jamreel.core.parts.pictures import edge, ring
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.moves import Straight, Wrap
from jamreel.core.values import Stroke

Kind = Literal["fold", "hooked", "eye", "hook", "bare"]
# Ends are bound with so many turns; strands are held by so much at each end [mm]; what is bare
# stands so far over where no cap is chosen [mm], and is bound with it. Common practice.
BOUND_TURNS, HELD_MM, OVER_MM = 3, 30.0, 15.0


@dataclass(frozen=True)
class StrandEnd:
    """An end of some strands, lengths in mm: of what kind, a wire of them, how many wires, how
    thick they are together, the wire that binds them, the pin of eye or hook, and the shank of a
    hook, what each wire is held by, and how far a bare end goes into its cap."""

    kind: Kind
    wire: Wire
    wires: int
    thick: float
    binding: Wire
    pin: float
    shank: float = 0.0
    held: float = HELD_MM
    over: float = OVER_MM

    @property
    def band(self) -> float:
        """How much of the piece the binding covers; a hooked-on end has none [mm]."""
        return 0.0 if self.kind == "hooked" else BOUND_TURNS * self.binding.d

    @property
    def reach(self) -> float:
        """How far its bearing point lies beyond the rows; what is in a cap is no length of its own
        [mm]."""
        if self.kind == "bare":
            return 0.0
        if self.kind == "hook":
            return self.band + self.shank + hook_bearing(self.pin)
        return self.band + self.pin

    @property
    def takes(self) -> tuple[tuple[str, float], ...]:
        """What it takes of every wire, by name, from the rows outwards."""
        round_ = math.pi * (self.pin + self.thick)
        if self.kind == "bare":
            return (("in_cap", self.over), ("tail_end", self.held))
        if self.kind == "fold":
            return (("bound", self.band), ("fold", round_), ("bound", self.band))
        if self.kind == "hook":
            back = self.pin + self.shank / 2
            return (("bound", self.band), ("hook", self.shank + round_ / 2 + back))
        return (("bound", self.band), ("eye", round_ + self.band), ("tail_end", self.held))

    @property
    def ends(self) -> End | None:
        """What joins see of it."""
        if self.kind == "bare":
            return None
        hooked = self.kind == "hooked"
        return End(self.pin, self.wire.d, hooked, strands=self.wires, hooked_on=hooked)

    @property
    def holds(self) -> tuple[Hold, ...]:
        """What it holds before it opens; a fold does not open."""
        if self.kind in ("bare", "fold"):
            return ()
        key = "hook" if self.kind == "hook" else "plain_loop"
        return (opens_at(key, self.wire, self.pin, self.wires),)

    def strokes(self, at: float, *, left: bool) -> tuple[Stroke, ...]:
        """Return it drawn where the rows end.

        Args:
            at: x of the first or last row's outer edge [mm].
            left: whether it lies to the left of them.
        """
        side = -1.0 if left else 1.0
        seen = min(self.wires, 3)
        d = self.wire.d
        lanes = [(n - (seen - 1) / 2) * (self.thick - d) / max(seen - 1, 1) for n in range(seen)]
        far = at + side * self.band
        found = [edge(at, far, d, round(y, 2)) for y in lanes]
        if self.kind == "bare":
            found = [edge(at, at + side * self.over, d, round(y, 2)) for y in lanes]
        elif self.kind == "hook":
            # Its crook is seen on its edge.
            out = far + side * (self.shank + self.pin / 2 + d)
            found += [edge(far, out, d, round(y, 2)) for y in lanes]
        else:
            # Its wires lie side by side round the pin.
            found.append(ring(far + side * self.pin / 2, self.pin, d))
        return tuple(found)

    def bound_strokes(self, at: float, *, left: bool) -> tuple[Stroke, ...]:
        """Return its binding drawn where the rows end; see ``strokes``."""
        b, side, half = self.binding.d, -1.0 if left else 1.0, self.thick / 2
        turned = [
            Stroke(
                part="wire",
                points=((x, -half - b / 2), (x, half + b / 2)),
                width_mm=b,
                tone=self.binding.metal.colour,
            )
            for x in (round(at + side * (n + 0.5) * b, 2) for n in range(BOUND_TURNS))
            if self.band
        ]
        return tuple(turned)


def bindings(ends: tuple[StrandEnd, StrandEnd], at: tuple[float, float]) -> tuple[WireUse, ...]:
    """Return the wires that bind ends, all alike, with how they are drawn.

    Args:
        ends: the left one and the right one.
        at: x where the rows end at each [mm].
    """
    bound = [one for one in ends if one.band]
    if not bound:
        return ()
    one = bound[0]
    turns = Wrap(turns=BOUND_TURNS, core=hull_of(one.wires, one.wire.d) / math.pi)
    tail = (Straight(length=HELD_MM),)
    (left, x0), (right, x1) = zip(ends, at, strict=True)
    strokes = (*left.bound_strokes(x0, left=True), *right.bound_strokes(x1, left=False))
    return (
        WireUse(
            "end_binding",
            one.binding,
            (("tail_start", tail), ("wraps", (turns,)), ("tail_finish", tail)),
            quantity=len(bound),
            shown=strokes,
            woven=True,
        ),
    )

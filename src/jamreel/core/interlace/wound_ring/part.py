"""The wound ring: turns piled on a former and bound, as a link or a pendant."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

import numpy as np

from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.bound import Bound, WithBindings
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.hex_stack import ROW, Pile
from jamreel.core.parts.base import End, Made, Role, WireUse, part_step, pulls_at
from jamreel.core.parts.pictures import hung, ring
from jamreel.core.path.moves import Bend, Move, Straight
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize

# A circle is drawn by so many chords; an end of a binding is held by at least so much [mm].
CHORDS, LEAST_TAIL_MM = 72, 10.0


class WoundRing(WithBindings):
    """Turns of one wire on a former, piled as close as they lie, bound opposite each other.

    ``wound`` are the turns of the ring, ``looseness`` how many times the sum a pile laid by hand
    takes. Sized for a finger the former is as wide as that is round.
    """

    joins: ClassVar[Role] = "link"

    kind: Literal["wound_ring"] = "wound_ring"
    first: ClassVar[tuple[str, ...]] = ("sized_by", "wound", "bindings", "turns", "hangs")
    hangs: bool = False
    sized_by: Literal["former", "finger"] = "former"
    former: Length = choice(17.0, 3, 120, when=("sized_by", "former"))
    finger: Length = choice(54.0, 35, 90, when=("sized_by", "finger"))
    wound: int = choice(5, 1, 60)
    looseness: float = choice(1.03, 1.0, 1.2)
    tail: Length = choice(30.0, 5, 100)
    binding_section: Literal["half_round", "round", "square"] = "round"
    wire: OptionalSize = None

    def _pile(self, w: Wire) -> Pile:
        inner = self.finger / math.pi if self.sized_by == "finger" else self.former
        return Pile(self.wound, w.d, inner)

    def make(self, wires: Palette) -> Made:
        """Return the ring, from inside to inside, or hung from the inside of its top.

        Raises:
            Refusal: bindings that cover more than half of it.
        """
        w, binding = wires.of("body", self.wire), self.binding(wires)
        pile, b = self._pile(w), binding.shape.width
        most = math.floor(pile.girth / 2 / b / self.bindings)
        if self.turns > max(most, 1):
            raise Refusal("ring_bound", got=self.turns, field="turns", most=max(most, 1))
        thick = max(pile.high, pile.wide)
        end = End(pile.former, pile.high, False, around=thick, bound=2 * binding.d)
        turned = self._ring(w, pile)
        bound = self._bound(pile, binding)
        strokes = (*turned.shown, *bound.shown)
        return Made(
            length=0.0 if self.hangs else pile.former,
            thickness=pile.wide,
            width=pile.outside,
            hang=pile.former + pile.high if self.hangs else 0.0,
            ends=(end, end),
            one_loop=True,
            wires=(turned, bound),
            holds=(pulls_at("string", w),),
            strokes=hung(strokes) if self.hangs else strokes,
            steps=(
                part_step(
                    "wound_turns",
                    check=True,
                    former=pile.former,
                    wound=self.wound,
                    rows=", ".join(map(str, pile.rows)),
                ),
                part_step(
                    "wound_bind",
                    cautions=("ends",),
                    check=True,
                    places=self.bindings,
                    turns=self.turns,
                ),
                part_step("wound_tails", cautions=("eyes", "ends"), check=True),
            ),
            minutes=4.0 + 0.3 * self.wound + 3.0 * self.bindings,
            weaving=Bound(
                lambda: _whole(pile, self.bindings, self.turns, binding),
                {"strand": w, "binding": binding},
                pile.outside,
                pile.outside,
                pile.wide,
            ),
        )

    def _ring(self, w: Wire, pile: Pile) -> WireUse:
        """Return its wire: a tail, the turns row by row, what a loose pile takes more, a tail."""
        moves: tuple[Move, ...] = tuple(
            Bend(
                angle=2 * math.pi * m, pin=pile.former + j * math.sqrt(3) * pile.wire, label="ring"
            )
            for j, m in enumerate(pile.rows)
        )
        loose = (self.looseness - 1) * pile.takes
        rings = tuple(
            ring(pile.former / 2, pile.former + 2 * j * ROW * w.d, w.d)
            for j in range(len(pile.rows))
        )
        tail = (Straight(length=self.tail),)
        return WireUse(
            "wound_wire",
            w,
            (
                ("tail_start", tail),
                ("turns", moves),
                *((("looser", (Straight(length=loose),)),) if loose > 1e-9 else ()),
                ("tail_finish", tail),
            ),
            shown=rings,
            woven=True,
        )

    def _bound(self, pile: Pile, binding: Wire) -> WireUse:
        """Return the wires of its bindings; each end is held by two turns' worth."""
        d = binding.shape.width
        round_ = pile.hull + math.pi * d
        tail = (Straight(length=max(2 * round_, LEAST_TAIL_MM)),)
        wraps = pile.bound(self.bindings, self.turns, d) / self.bindings
        return WireUse(
            "wound_binding",
            binding,
            (("tail_start", tail), ("wraps", (Straight(length=wraps),)), ("tail_finish", tail)),
            quantity=self.bindings,
            shown=tuple(_bound_strokes(pile, self.bindings, self.turns, binding)),
            woven=True,
        )


def _places(count: int) -> list[float]:
    """Return the angles of bindings, evenly round from the side that its neighbour hangs in on
    [rad]; none lies where a neighbour hangs."""
    return [math.pi / count + 2 * math.pi * n / count for n in range(count)]


def _bound_strokes(pile: Pile, count: int, turns: int, binding: Wire) -> Iterator[Stroke]:
    b = binding.shape.width
    inner, outer = pile.former / 2 - b / 2, pile.former / 2 + pile.high + b / 2
    middle, girth = pile.former / 2, pile.girth / (2 * math.pi)
    for place in _places(count):
        for n in range(turns):
            angle = place + (n - (turns - 1) / 2) * b / girth
            cos, sin = -math.cos(angle), math.sin(angle)
            yield Stroke(
                part="wire",
                points=(
                    (round(middle + inner * cos, 2), round(inner * sin, 2)),
                    (round(middle + outer * cos, 2), round(outer * sin, 2)),
                ),
                width_mm=b,
                tone=binding.metal.colour,
            )


def _whole(pile: Pile, count: int, turns: int, binding: Wire) -> Cell:
    """Return the ring in space, its middle line in the plane of its face."""
    strands, d, far = [], pile.wire, pile.outside / 2
    round_ = np.linspace(0.0, 2 * math.pi, CHORDS + 1)
    for j, m in enumerate(pile.rows):
        radius = (pile.former + d) / 2 + j * ROW * d
        for n in range(m):
            z = (n - (m - 1) / 2) * d
            line = np.column_stack(
                [far - radius * np.cos(round_), radius * np.sin(round_), np.full(len(round_), z)]
            )
            strands.append(Strand("strand", d, line, runs_on=False))
    b, middle = binding.shape.width, (pile.former + pile.high) / 2
    for place in _places(count):
        small = np.linspace(0.0, 2 * math.pi * turns, 24 * turns + 1)
        angle = place + (small / (2 * math.pi) - turns / 2) * b / middle
        out = middle + (pile.high + b) / 2 * np.cos(small)
        high = (pile.wide + b) / 2 * np.sin(small)
        line = np.column_stack([far - out * np.cos(angle), out * np.sin(angle), high])
        strands.append(Strand("binding", b, line, runs_on=False))
    return Cell(2 * far, 1, tuple(strands))

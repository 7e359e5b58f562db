"""Cord: doubled from a ring to a cord end, or single from end to end with its middle on a ring."""

from collections.abc import Iterator
from typing import ClassVar, Literal, Self

import numpy as np

from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire, chosen
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import passes
from jamreel.core.interlace.bound import Bound
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.cord.geometry import (
    HEAD_WIDE,
    KNOT_BY_HAND,
    KNOT_TIGHT,
    larks_head,
    least_insert,
)
from jamreel.core.interlace.space import Array
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step, pulls_at
from jamreel.core.parts.beads import Colour, OneBead, Stuff, bought_bead
from jamreel.core.parts.pictures import bead, edge
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.words import say

MOST_ALONG = 1000
# What a cord hangs on where nothing is there yet; what is typed within this is the same [mm].
USUAL_RING_MM, SAME_MM = 1.0, 0.05
CordStuff = Literal["leather", "cotton", "waxed_cotton", "elastic", "ribbon"]
# Between two points of a rounded line so many steps; the head is shown with so many cords of its
# legs.
STEPS, LEGS = 8, 8.0


def cord_of(stuff: CordStuff, thick: float) -> Wire:
    """Return cord as it stands on the rack.

    Args:
        stuff: what it is.
        thick: c [mm].

    Source: data/cords.toml.
    """
    size = WireSize(diameter_mm=thick)
    return chosen(WireChoice(size=size, metal=stuff, temper="dead_soft"))


class Cord(Part):
    """Cord with a lark's head, ``along`` in whole mm from the mouth of its cord end.

    One side of a piece is a doubled cord that hangs on a ring and ends there; ``both`` sides are
    one cord with its middle on what hangs there. That is as thick as the piece knows; ``hangs_on``
    says it where nothing is there. Beads are held by knots.
    """

    counted_in: ClassVar[str | None] = "along"
    joins: ClassVar[Role] = "link"

    kind: Literal["cord"] = "cord"
    first: ClassVar[tuple[str, ...]] = ("along", "goes", "cord", "thick", "hangs_on")
    along: int = choice(200, 10, MOST_ALONG)
    goes: Literal["side", "both"] = "side"
    cord: CordStuff = "waxed_cotton"
    thick: Length = choice(1.5, 0.3, 10)
    hangs_on: OptionalLength = choice(None, 0.3, 30)
    insert: OptionalLength = choice(None, 1, 40)
    knots: int = choice(0, 0, 40)
    knot_took: OptionalLength = choice(None, 1, 200)
    cord_beads: int = choice(0, 0, 40)
    bead: Length = choice(6.0, 0.5, 40)
    hole: Length = choice(3.2, 0.2, 12)
    stuff: Stuff = "wood"
    colour: Colour = "amber"

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return frozenset((self.stuff,)) if self.cord_beads else frozenset()

    @property
    def turned_round(self) -> Literal["", "next", "middle"]:
        """The ring next to it, or what hangs from the middle."""
        return "next" if self._doubled else "middle"

    def unit(self, length: float) -> tuple[float, str]:
        """Return a millimetre: cord is cut to it."""
        return 1.0, say("woven.row_of.bundle")

    @property
    def _doubled(self) -> bool:
        return self.goes == "side"

    def _knot(self) -> float:
        """Return what a knot takes of a strand [mm]. Raises Refusal for less than any knot does."""
        least = KNOT_TIGHT * self.thick
        if self.knot_took is not None and self.knot_took < least:
            raise Refusal("knot_less", got=Mm(self.knot_took), field="knot_took", least=least)
        return self.knot_took or KNOT_BY_HAND * self.thick

    def _inserted(self, wires: Palette) -> float:
        """Return how far it goes into its end [mm]. Raises Refusal for less than holds, and for
        another length than the cap is deep."""
        least, deep = least_insert(self.thick), wires.in_cap
        if self.insert is not None and self.insert < least - 1e-9:
            raise Refusal("insert_short", got=Mm(self.insert), field="insert", least=least)
        if self.insert is not None and deep is not None and abs(deep - self.insert) > SAME_MM:
            raise Refusal("insert_unlike", got=Mm(self.insert), field="insert", deep=deep)
        return self.insert or max(least, deep or 0.0)

    def on(self, thick: float) -> Self:
        """Return it hung on something so thick [mm]. Raises Refusal where another was typed."""
        if self.hangs_on is not None and abs(self.hangs_on - thick) > SAME_MM:
            raise Refusal("hangs_known", got=Mm(self.hangs_on), field="hangs_on", thick=thick)
        return self.model_copy(update={"hangs_on": thick})

    @property
    def _ring(self) -> float:
        """How thick it is what it hangs on [mm]: nothing is there yet where nothing is said."""
        return USUAL_RING_MM if self.hangs_on is None else self.hangs_on

    def make(self, wires: Palette) -> Made:
        """Return the cord from the mouth of its end to the inside of the ring, or to its other end.

        Raises:
            Refusal: a ring so thin that the cord would bend sharper than it is thick, ends that
                don't hold, beads that don't go on.
        """
        w, c = cord_of(self.cord, self.thick), self.thick
        if self._ring < c / 2 - 1e-9:
            raise Refusal("ring_thin", got=Mm(self._ring), field="hangs_on", least=c / 2)
        one = OneBead.model_construct(
            bead=self.bead, hole=self.hole, stuff=self.stuff, colour=self.colour, bead_length=None
        )
        strands = 2 if self._doubled else 1
        if self.cord_beads:
            passes((one,), c, strands)
        use = self._use(w, strands, wires)
        strokes = tuple(self._seen(w))
        return Made(
            length=float(self.along),
            lies="bends",
            thickness=c,
            width=max(HEAD_WIDE * c, self.bead if self.cord_beads else 0.0),
            bare=(strands * c, c),
            ends=None,
            goes_last=True,
            wires=(use,),
            bought=(bought_bead(one, self.cord_beads),) if self.cord_beads else (),
            holds=(pulls_at("string", w),),
            strokes=strokes,
            steps=tuple(self._steps(use, wires)),
            minutes=5.0 + 1.0 * self.knots + 0.5 * self.cord_beads,
            weaving=Bound(
                self._whole,
                {"strand": w, "bar": wires.of("body")},
                LEGS * c,
                HEAD_WIDE * c,
                self._ring + 2 * c,
            ),
        )

    def _use(self, w: Wire, strands: int, wires: Palette) -> WireUse:
        """Return its cord: into its end, along, its knots, the head, and the same back."""
        inserted, head = self._inserted(wires), larks_head(self._ring, w.d)
        to_axis = self.along - self._ring / 2 if self._doubled else self.along / 2
        knots = self.knots * self._knot() * strands / 2
        in_, side = (Straight(length=inserted),), (Straight(length=to_axis),)
        knotted = (("knots", (Straight(length=knots),)),) if knots else ()
        return WireUse(
            "cord",
            w,
            (
                ("in_end", in_),
                ("side_left", side),
                *knotted,
                ("head", (Straight(length=head),)),
                *knotted,
                ("side_right", side),
                ("in_end", in_),
            ),
            shown=tuple(self._seen(w)),
            woven=True,
        )

    def _seen(self, w: Wire) -> Iterator[Stroke]:
        """Yield it from the face: two strands and the head, or one with the head in its middle."""
        c, tone, long = w.d, w.metal.colour, float(self.along)
        lanes = (-c / 2, c / 2) if self._doubled else (0.0,)
        for y in lanes:
            yield edge(0.1, long - 0.1, c, y, tone)
        at, wide = (long if self._doubled else long / 2), HEAD_WIDE * c / 2
        yield Stroke(
            part="wire",
            points=((round(at - 1.2 * c, 2), -wide), (round(at - 1.2 * c, 2), wide)),
            width_mm=c,
            tone=tone,
        )
        for n in range(self.knots):
            x = long * (n + 1) / (self.knots + 1)
            yield bead(x, 2 * c, (1.6 + len(lanes)) * c, tone)
        for n in range(self.cord_beads):
            yield bead(long * (n + 1.5) / (self.cord_beads + 2), self.bead, self.bead, self.colour)

    def _steps(self, use: WireUse, wires: Palette) -> Iterator[Step]:
        half = (
            sum(
                move.length
                for _, row in use.stretches
                for move in row
                if isinstance(move, Straight)
            )
            / 2
        )
        key = "cord_head" if self._doubled else "cord_head_middle"
        yield part_step(key, name="cord_head", check=True, middle=half)
        if self.knots or self.cord_beads:
            yield part_step("cord_knots", check=True, knots=self.knots, beads=self.cord_beads)
        yield part_step("cord_ends", check=True, long=self.along, insert=self._inserted(wires))

    def _whole(self) -> Cell:
        """Return its head on the ring, and a little of both strands."""
        c, ring = self.thick, self._ring
        out, legs = (ring + c) / 2, LEGS * c
        # From the middle of the loop: before the ring, over it, behind it, and out under the loop.
        half = np.array(
            [
                [-out - 0.6 * c, 0.0, 1.1 * c],
                [-out - 0.3 * c, 1.2 * c, 0.9 * c],
                [-0.6 * out, 1.6 * c, out],
                [0.2 * out, 1.6 * c, out],
                [out, 1.4 * c, 0.0],
                [0.2 * out, 1.0 * c, -out],
                [-0.8 * out, 0.7 * c, -0.7 * out],
                [-out - c, 0.55 * c, -0.1 * c],
                [-out - 3 * c, 0.5 * c, 0.0],
                [-legs, 0.5 * c, 0.0],
            ]
        )
        other = half[:0:-1] * np.array([1.0, -1.0, 1.0])
        line = rounded(np.vstack([other, half])) + np.array([legs, 0.0, 0.0])
        bar = np.array([[legs, -3 * c, 0.0], [legs, 0.0, 0.0], [legs, 3 * c, 0.0]])
        strands = (
            Strand("bar", ring, bar, runs_on=False),
            Strand("strand", c, line, runs_on=False),
        )
        return Cell(legs + out, 1, strands)


def rounded(points: Array) -> Array:
    """Return a smooth line through points.

    Args:
        points: n by 3 [mm].

    Source: Catmull and Rom 1974; published.
    """
    ends = np.vstack([2 * points[0] - points[1], points, 2 * points[-1] - points[-2]])
    t = np.linspace(0.0, 1.0, STEPS, endpoint=False)[:, np.newaxis]
    rows = []
    for a, b, c, d in zip(ends, ends[1:], ends[2:], ends[3:], strict=False):
        rows.append(
            0.5
            * (
                2 * b
                + (c - a) * t
                + (2 * a - 5 * b + 4 * c - d) * t**2
                + (3 * b - a - 3 * c + d) * t**3
            )
        )
    line: Array = np.vstack([*rows, points[-1:]])
    return line

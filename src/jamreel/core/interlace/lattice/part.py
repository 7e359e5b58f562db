"""The lattice: fine wires that pass over beads on a base wire and turn round it between them."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar, Literal

import numpy as np

from jamreel.core.advice.weaving import ribbon_hides, thin_bar, turns_pile
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import OfRoundBeads, passes
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Ball, Cell, Strand, bars_of
from jamreel.core.interlace.space import STEP_RAD, Array
from jamreel.core.interlace.working import FAST_TURNS
from jamreel.core.parts.base import WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import TAIL_RANGE, Loop
from jamreel.core.path.moves import Straight
from jamreel.core.roots import root
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength

# Two ribbons side by side in a gap want so many times the width of one. Laid in space, the wires of
# a ribbon begin so much further apart than they are thick: leaving a bead they come nearer.
SIDE_BY_SIDE, APART = 2.0, 1.05


@dataclass(frozen=True)
class Over:
    """A wire over half a bead and half the gap behind it, lengths in mm.

    The wire lies on a great circle of the bead, leaves it straight and goes round the base wire:
    ``psi`` is how far it lies on the bead from its middle on, ``tilt`` the angle of its great
    circle to the base wire [rad], ``free`` its straight part, ``on_base`` what lies on the base
    wire, ``goes_on`` the share of that which goes along it.
    """

    psi: float
    tilt: float
    free: float
    on_base: float
    goes_on: float


@dataclass(frozen=True)
class Beads:
    """Beads on a base wire, lengths in mm: ``bead`` across and along, the base wire, the fine wire,
    the gap between beads."""

    bead: float
    base: float
    fine: float
    gap: float

    @property
    def pitch(self) -> float:
        """p = b + g, of the beads [mm]."""
        return self.bead + self.gap

    @property
    def radius(self) -> float:
        """r, of a fine wire's middle on the base wire [mm]."""
        return (self.base + self.fine) / 2

    @property
    def over_bead(self) -> float:
        """R, of a fine wire's middle on a bead [mm]."""
        return (self.bead + self.fine) / 2

    def _leaves(self, psi: float, turns: float) -> Over:
        """Return how a wire lies that leaves the bead at an angle and turns so far from the middle
        of the bead to the middle of the gap."""
        r, far = self.radius, self.over_bead
        sin_e = r * math.sin(psi) / math.sqrt(far**2 - (r * math.cos(psi)) ** 2)
        cos_e = math.sqrt(1 - sin_e**2)
        free = r**2 * math.sin(psi) * math.cos(psi) * cos_e**2 / (far * sin_e**2)
        out = far * math.sin(psi) + free * math.cos(psi)
        up = far * math.cos(psi) - free * math.sin(psi)
        k = math.cos(psi) * cos_e
        left = turns * math.pi - math.atan2(out * sin_e, up)
        return Over(psi, math.asin(sin_e), free, left * r / math.sqrt(1 - k**2), k)

    def taut(self, turns: float) -> Over:
        """Return how a fine wire lies when it is pulled taut.

            sin e = r sin psi / sqrt(R^2 - r^2 cos^2 psi)
            s = r^2 sin psi cos psi cos^2 e / (R sin^2 e);  u = R sin psi + s cos psi
            z = R cos psi - s sin psi;  k = cos psi cos e
            l = (Psi / 2 - atan2(u sin e, z)) r / sqrt(1 - k^2);  psi solves u cos e + l k = p / 2

        Args:
            turns: Psi, all azimuth from bead to bead, in turns.

        Raises:
            ValueError: so few turns, or beads so near, that the wire does not reach the base wire.

        Source: great circle, common tangent and helix; plain geometry, confirmed by own numerical
        tightening within 0.04 %.
        """

        def short(psi: float) -> float:
            over = self._leaves(psi, turns)
            u = self.over_bead * math.sin(psi) + over.free * math.cos(psi)
            return u * math.cos(over.tilt) + over.on_base * over.goes_on - self.pitch / 2

        try:
            psi = root(short, 1e-3, math.pi / 2 - 1e-6)
        except ValueError:
            raise ValueError("the wire does not reach the base wire") from None
        over = self._leaves(psi, turns)
        if over.on_base < 0:
            raise ValueError("the wire does not reach the base wire")
        return over

    def room(self, turns: float) -> float:
        """Return how broad a ribbon may be so that both lie side by side on the base wire, pi r k.

        Two of them wind round it at the angle at which a single wire does.

        Args:
            turns: from bead to bead.

        Returns:
            Width [mm]; broader ones lie over each other.

        Raises:
            ValueError: like ``taut``.

        Example:
            >>> round(Beads(6.0, 0.8, 0.3, 1.2).room(1), 2)
            0.57

        Source: distance of two helices; plain geometry.
        """
        return math.pi * self.radius * self.taut(turns).goes_on

    def takes(self, turns: float) -> float:
        """Return the fine wire from bead to bead, 2 (R psi + s + l).

        Args:
            turns: from bead to bead.

        Returns:
            Length [mm]; more than the pitch, less than ``bound``.

        Raises:
            ValueError: like ``taut``.

        Example:
            >>> beads = Beads(6.0, 0.8, 0.3, 1.2)
            >>> round(beads.takes(1), 2), round(beads.takes(1.5), 2), round(beads.takes(0.5), 2)
            (11.81, 13.47, 10.24)

        Source: see ``taut``.
        """
        over = self.taut(turns)
        return 2 * (self.over_bead * over.psi + over.free + over.on_base)

    def bound(self, turns: float) -> float:
        """Return the wire from bead to bead when it goes straight over and then round.

            2 [sqrt(D^2 - R^2) + R (pi/2 - atan2(r, p/2) - acos(R/D))] + 2 pi turns r
            D^2 = p^2 / 4 + r^2

        Args:
            turns: from bead to bead.

        Returns:
            Length [mm], 8 to 10 % more than taut wire.

        Example:
            >>> round(Beads(8.0, 1.0, 0.4, 2.4).bound(1.25), 2)
            18.46

        Source: plain geometry.
        """
        r, far, half = self.radius, self.over_bead, self.pitch / 2
        d = math.hypot(half, r)
        arc = math.pi / 2 - math.atan2(r, half) - math.acos(far / d)
        return 2 * (math.sqrt(d**2 - far**2) + far * arc) + 2 * math.pi * turns * r

    def half(self, turns: float) -> Array:
        """Return a wire from the middle of a bead, in front, to the middle of the gap behind it, as
        x, its distance from the base wire's middle, its azimuth from the front, and how far it
        lies on the bead, 1 to 0; n by 4.

        Args:
            turns: from bead to bead.
        """
        over, far, r = self.taut(turns), self.over_bead, self.radius
        cos_e, sin_e = math.cos(over.tilt), math.sin(over.tilt)
        psi = np.linspace(0.0, over.psi, max(3, math.ceil(over.psi / STEP_RAD)) + 1)
        free = np.linspace(0.0, over.free, 4)[1:]
        out = np.concatenate(
            [far * np.sin(psi), far * math.sin(over.psi) + free * math.cos(over.psi)]
        )
        up = np.concatenate(
            [far * np.cos(psi), far * math.cos(over.psi) - free * math.sin(over.psi)]
        )
        on = np.concatenate([np.ones(len(psi)), np.linspace(1.0, 0.0, len(free) + 2)[1:-1]])
        lying = np.column_stack(
            [out * cos_e, np.hypot(up, out * sin_e), np.arctan2(out * sin_e, up), on]
        )
        x, _, azimuth, _ = lying[-1]
        turned = turns * math.pi - azimuth
        share = np.linspace(0.0, 1.0, max(2, math.ceil(turned / STEP_RAD)) + 1)[1:]
        on_base = np.column_stack(
            [
                x + share * (self.pitch / 2 - x),
                np.full(len(share), r),
                azimuth + share * turned,
                np.zeros(len(share)),
            ]
        )
        return np.vstack([lying, on_base])


@dataclass(frozen=True)
class Ribbon:
    """A ribbon of fine wires over beads, and its fellow on the other side: how many ``wires`` it
    has side by side, and the turns in each gap, by turns."""

    beads: Beads
    wires: int
    turns: tuple[float, ...]

    @cached_property
    def _halves(self) -> tuple[Array, ...]:
        return tuple(self.beads.half(turns) for turns in self.turns)

    def takes(self) -> float:
        """Return what one of its wires takes from bead to bead, the middle of all gaps [mm]."""
        return sum(self.beads.takes(turns) for turns in self.turns) / len(self.turns)

    def _line(self, n: int, side: float) -> Array:
        """Return a wire of it through one cell, from the middle of a gap on, as far beside the
        ribbon's middle line as it lies from there."""
        b = self.beads
        rows, middles, x, azimuth = [], list[Array](), b.pitch / 2, side
        for gap, half in enumerate(self._halves):
            before = self._halves[gap - 1]
            here = np.array([x, 0.0, azimuth, 0.0])
            bead = np.vstack([before[:0:-1] * [-1.0, 1.0, -1.0, 1.0], half]) + here
            rows.append(bead if gap == 0 else bead[1:])
            middles.append(np.full(len(rows[-1]), x))
            x, azimuth = x + b.pitch, azimuth + 2 * math.pi * self.turns[gap]
        x, out, around, on_bead = np.vstack(rows).T
        line = np.column_stack([x, out * np.sin(around), out * np.cos(around)])
        off = (n - (self.wires - 1) / 2) * b.fine * APART
        return self._beside(line, np.concatenate(middles), on_bead, off) if off else line

    def _beside(self, line: Array, middles: Array, on_bead: Array, off: float) -> Array:
        """Return the line that lies so far beside another one on the same beads and base wire."""
        b = self.beads
        bead = np.column_stack([middles, np.zeros((len(line), 2))])
        base = line * [1.0, 0.0, 0.0]
        on = on_bead[:, np.newaxis]
        outward = on * _unit(line - bead) + (1 - on) * _unit(line - base)
        beside = line + off * _unit(np.cross(np.gradient(line, axis=0), outward))
        lies, base = on_bead >= 1, beside * [1.0, 0.0, 0.0]
        beside[lies] = (bead + b.over_bead * _unit(beside - bead))[lies]
        # What would run into the base wire lies on it, too.
        lies = (on_bead <= 0) | (np.hypot(beside[:, 1], beside[:, 2]) < b.radius)
        beside[lies] = (base + b.radius * _unit(beside - base))[lies]
        return beside

    def cell(self, colour: str = "") -> Cell:
        """Return as many beads as gaps differ by turns, from the middle of a gap on. Wires that
        lie beside each other are laid roughly.

        Args:
            colour: of the beads.
        """
        long = len(self.turns) * self.beads.pitch
        strands = [
            Strand("working", self.beads.fine, self._line(n, side))
            for side in (0.0, math.pi)
            for n in range(self.wires)
        ]
        base = bars_of([(0.0, 0.0)], self.beads.base, long)
        b = self.beads
        balls = tuple(
            Ball(((n + 0.5) * b.pitch, 0.0, 0.0), b.bead, b.bead, (1.0, 0.0, 0.0), colour, n)
            for n in range(len(self.turns))
        )
        several = self.wires > 1
        return Cell(long, len(self.turns), (*base, *strands), balls, several, under=True)


def round_again(turns: tuple[float, ...]) -> int:
    """Return after how many times some turns, a quarter or more of them, a wire lies as it began.

    Example:
        >>> round_again((1.0,)), round_again((1.5, 0.5)), round_again((1.25,))
        (1, 1, 4)

    Source: plain counting.
    """
    quarters = round(4 * sum(turns))
    return 4 // math.gcd(quarters, 4)


def _unit(ways: Array) -> Array:
    """Return directions, each 1 long."""
    unit: Array = ways / np.linalg.norm(ways, axis=1)[:, np.newaxis]
    return unit


class Lattice(OfRoundBeads):
    """Beads on a base wire that ends in loops; two ribbons of fine wires pass over them on both
    sides, cross in the gaps and turn there round the base wire.

    ``quarters`` are the quarter turns in a gap, ``then_quarters`` those in every other one, 0 for
    all alike. A gap that is left blank is as long as the ribbons need.
    """

    kind: Literal["lattice"] = "lattice"
    first: ClassVar[tuple[str, ...]] = ("rows", "ribbon", "bead", "gap", "wraps")
    hole: Length = like(OfRoundBeads, "hole", 1.5)
    ribbon: int = choice(1, 1, 8)
    gap: OptionalLength = choice(None, 0.2, 30)
    quarters: int = choice(4, 1, 16)
    then_quarters: int = choice(0, 0, 16)
    wraps: int = choice(2, 1, 6)
    tail: Length = choice(12.0, *TAIL_RANGE)
    folded: bool = True

    def _gap(self, wire: float) -> float:
        """Return the gap between beads [mm]. Raises Refusal for one narrower than a ribbon."""
        least = self.ribbon * wire
        if self.gap is None:
            return SIDE_BY_SIDE * least
        if self.gap < least - 1e-9:
            raise Refusal("gap_woven", got=Mm(self.gap), field="gap", least=least)
        return self.gap

    def body(self, wires: Palette) -> Body:
        """Return the lattice. Raises Refusal for gaps that don't take the ribbons, for turns that
        don't reach the base wire, and for beads that don't go on it."""
        base, fine = wires.of("body"), self.working(wires)
        passes((self.one,), base.d, 1)
        turns = tuple(q / 4 for q in (self.quarters, self.then_quarters) if q)
        beads = Beads(self.bead, base.d, fine.d, self._gap(fine.d))
        ribbon = Ribbon(beads, self.ribbon, turns * round_again(turns))
        each = self._each(beads)
        loop = Loop("wrapped", base, self.pin, self.wraps, self.tail)
        long = self.rows * beads.pitch
        use = WireUse(
            "lattice_base",
            base,
            (*loop.stretches("left"), ("body", (Straight(length=long),)), *loop.stretches("right")),
            runs=1,
        )
        placed = laid(use, middle=loop.reach + long / 2)
        a_row = tuple(2 * one for one in each) if self.folded else each
        return Body(
            size=BodySize(
                pitch=beads.pitch,
                width=self.bead + 2 * fine.d,
                thickness=self.bead + 2 * fine.d,
                before=loop.reach,
                behind=loop.reach,
                pegs=(0.0,),
                ends=(loop.end(), loop.end()),
                lies="bead",
            ),
            wires=BodyWires(
                working=fine,
                worked=(
                    Takes(
                        "lattice_working",
                        a_row,
                        self.ribbon if self.folded else 2 * self.ribbon,
                        folded=self.folded,
                    ),
                ),
                core=base.d,
                frame=(placed,),
                lengthwise=(Lengthwise(base, 1),),
                beads=((self.one,),),
            ),
            look=Look(cell=lambda: ribbon.cell(self.colour), frame_strokes=drawn(placed)),
            work=self._work(loop, turns, beads.gap),
            holds=(loop.hold,),
            advice=(
                ribbon_hides(2 * self.ribbon * fine.d / (math.pi * self.bead)),
                turns_pile(min(beads.room(t) for t in turns), self.ribbon * fine.d),
                thin_bar(base.d, fine.d),
            ),
        )

    def _work(self, loop: Loop, turns: tuple[float, ...], gap: float) -> Work:
        """Return its steps."""
        return Work(
            begin=(
                part_step("lattice_hook", name="lattice_base", check=True, pin=self.pin),
                part_step("first_in", check=True),
                part_step("wrapped_first", name="lattice_wrapped", wraps=self.wraps, check=True),
                part_step(
                    "lattice_folded" if self.folded else "lattice_laid",
                    name="lattice_start",
                    wires=self.ribbon if self.folded else 2 * self.ribbon,
                ),
            ),
            row_steps=(
                part_step(
                    "lattice_row" if len(turns) == 1 else "lattice_by_turns",
                    name="lattice_row",
                    check=True,
                    rows=self.rows,
                    turns=turns[0],
                    then=turns[-1],
                    gap=gap,
                ),
            ),
            finish=(
                part_step("lattice_ends", cautions=("eyes", "ends"), turns=FAST_TURNS),
                part_step("lattice_last", check=True, pin=self.pin),
                part_step("next_link_first", check=True),
                part_step("lattice_close", cautions=("ends",), check=True, wraps=self.wraps),
                loop.finish_step,
            ),
            row_minutes=1.0 + 0.5 * self.ribbon,
        )

    def _each(self, beads: Beads) -> tuple[float, ...]:
        """Return what a wire takes from bead to bead, by turns [mm]. Raises Refusal for turns that
        don't reach the base wire."""
        found = []
        for field in ("quarters", "then_quarters"):
            quarters = getattr(self, field)
            if quarters:
                try:
                    found.append(beads.takes(quarters / 4))
                except ValueError:
                    least = self._least(beads)
                    raise Refusal("turns_woven", got=quarters, field=field, least=least) from None
        return tuple(found)

    def _least(self, beads: Beads) -> int:
        """Return the fewest quarter turns with which a wire reaches the base wire."""
        for quarters in range(1, 17):
            try:
                beads.takes(quarters / 4)
            except ValueError:
                continue
            return quarters
        return 16

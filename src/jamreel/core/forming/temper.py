"""Temper: what every step of work takes out of a wire before it cracks, and how hard it leaves it.

Strain adds up: rolling, twisting and hammering through and through, a bend at its own place. How
tight a wire may be bent goes by how hard it is by then. What an annealing gives back is all of it.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.law import Law
from jamreel.core.forming.tight import pin_of
from jamreel.core.path.moves import Flatten, Move
from jamreel.core.wire.metals import BEARS, WORKED, Metal, Temper

# Before the first step of a piece.
FIRST = "first"
# Everywhere on the wire, not at one place of it.
THROUGH = ""
# True strain of work that has no measure of its own; from memory, no source: drawn straight by hand
# it gives a hundredth, under a mallet or in a tumbler as much again, under steel a tenth of its
# thickness goes.
STRAIGHTENED, MALLETED, TUMBLED, STEELED = 0.01, 0.02, 0.02, 0.1
# Metal that is squeezed bears more than metal that is stretched: of thickness hammered away so much
# counts as stretching of its edges; from memory, no source.
SQUEEZED = 0.5
TEMPERS: tuple[Temper, ...] = ("dead_soft", "quarter_hard", "half_hard", "full_hard", "spring")


@dataclass(frozen=True)
class Work:
    """What one step does to a wire: the strain, and where: a bend by its key (and behind a ~ the
    step), or ``THROUGH``; or it ``softens`` it, as soldering does. What is done ``early`` is done
    before anything is formed. What ``bends`` it is held against its limit for bends."""

    step: str
    strain: float
    place: str = THROUGH
    softens: bool = False
    early: bool = False
    bends: bool = False


@dataclass(frozen=True)
class Stage:
    """A wire after some work: strain used there since it was last soft, what it bears in all, the
    yield it has there [MPa], whether it is annealed before, and the yield that it has through and
    through when the work begins [MPa]."""

    work: Work
    used: float
    bears: float
    yield_mpa: float
    annealed: bool = False
    before_mpa: float = 0.0

    @property
    def left(self) -> float:
        """Share of what it bears that is left, 0 where it cracks."""
        return max(0.0, 1 - self.used / self.bears)

    @property
    def cracks(self) -> bool:
        """Whether it is asked for more than it bears."""
        return self.used > self.bears + 1e-9


@dataclass(frozen=True)
class Track:
    """A wire through all of its work: yield and name of the temper it began with, its stages."""

    wire: Wire
    stages: tuple[Stage, ...]
    ends: dict[str, float] = field(default_factory=dict)

    @property
    def cracks(self) -> Stage | None:
        """The first stage that cracks it, None where none does."""
        return next((stage for stage in self.stages if stage.cracks), None)

    def softened_to(self, step: str) -> float | None:
        """Return the yield [MPa] that a step finds where the wire was made soft before it, None
        where it is as it was bought."""
        soft = False
        for stage in self.stages:
            soft = soft or stage.annealed or stage.work.softens
            if stage.work.step == step:
                return stage.before_mpa if soft else None
        return None

    @property
    def softened(self) -> bool:
        """Whether it was made soft on the way: no hardness that it was bought with is left."""
        return any(stage.annealed or stage.work.softens for stage in self.stages)

    @property
    def ends_at(self) -> tuple[float, float]:
        """The yield that it has in the end [MPa]: at least, and where mallet, hammer and tumbler
        hardened it through and through after it was bought or made soft."""
        least = self.wire.metal.yields["dead_soft"] if self.softened else self.wire.yield_mpa
        return least, max(least, self.ends.get(THROUGH, least))

    @property
    def anneals(self) -> tuple[Stage, ...]:
        """The stages that it is annealed before."""
        return tuple(stage for stage in self.stages if stage.annealed)


def bend_strain(wire: Wire, move: Move) -> float:
    """Return the strain that a move asks of the wire's outer fibre at its place, 0 of none.

    Args:
        wire: that is bent.
        move: of its path.

    Returns:
        t / (2 R + t) of a bend on a pin, R its inside radius.

    Source: plane sections of a bent bar; statics textbooks.
    """
    if isinstance(move, Flatten):
        return flattened_strain(wire.shape.thickness, move.thickness)
    pin = pin_of(move)
    return 0.0 if pin is None else wire.strain_on(pin)


def flattened_strain(before: float, after: float) -> float:
    """Return the strain that hammering wire thinner asks of its edges, half of ln(t0 / t1).

    Args:
        before: t0 [mm].
        after: t1 [mm].

    Example:
        >>> round(flattened_strain(1.0, 0.5), 3)
        0.347

    Source: true strain; published. That edges bear half of it: from memory, no source.
    """
    return SQUEEZED * max(0.0, math.log(before / after))


def twisted_strain(radius: float, pitch: float) -> float:
    """Return the strain of twisting a wire about itself, 2 pi r / (p sqrt 3).

    Args:
        radius: r of the wire [mm].
        pitch: p, length of a full turn [mm].

    Returns:
        Equivalent true strain at its surface.

    Example:
        >>> round(twisted_strain(0.5, 10.0), 3)
        0.181

    Source: shear of a twisted bar by von Mises's criterion; published.
    """
    return 2 * math.pi * radius / (pitch * math.sqrt(3))


def yield_after(metal: Metal, yield_mpa: float, strain: float) -> float:
    """Return the yield of a metal after it was worked by a strain.

    Args:
        metal: which.
        yield_mpa: that it had before [MPa].
        strain: true strain of the work.

    Returns:
        Yield [MPa]: K (eps_0 + eps)^n where those are published; otherwise a step further along the
        tempers, which lie as far apart as the cold work that gives them.

    Source: ``Law.after``; ``wire.metals.WORKED``, published.
    """
    if metal.strain_k is not None:
        law = Law(metal.youngs, yield_mpa, metal.strain_k, metal.strain_n)
        return law.after(strain)
    worked = [WORKED[temper] for temper in TEMPERS]
    yields = [metal.yields[temper] for temper in TEMPERS]
    before = float(np.interp(yield_mpa, yields, worked))
    return max(yield_mpa, float(np.interp(before + strain, worked, yields)))


def temper_of(metal: Metal, yield_mpa: float) -> Temper:
    """Return the temper that a yield is nearest to.

    Args:
        metal: whose table of tempers counts.
        yield_mpa: [MPa].

    Source: data/metals.toml, a metal at a time.
    """
    return min(TEMPERS, key=lambda temper: abs(metal.yields[temper] - yield_mpa))


def stretches_before_it_necks(metal: Metal, temper: Temper, yield_mpa: float) -> float:
    """Return by how much wire or tube may be drawn out before it is to be annealed.

    Args:
        metal: which.
        temper: that it is in.
        yield_mpa: that it has [MPa].

    Returns:
        True strain: what the temper bears, and no more than leaves it even (n less what it was
        worked before), where n is published.

    Source: Considere's criterion; published. What tempers bear: from memory.
    """
    even = Law(metal.youngs, yield_mpa, metal.strain_k, metal.strain_n).even_stretch
    return min(BEARS[temper], even)


def track(wire: Wire, works: Iterable[Work], *, torch: bool) -> Track:
    """Return a wire through all of its work.

    Where the next step would ask for more than is left it is annealed, if its metal can be and the
    bench has a torch; otherwise it cracks there, and says so. Wire that is not soft to begin with
    is annealed before its first step, with all that need it: one fire for a piece.

    Args:
        wire: as it begins.
        works: in order.
        torch: whether the bench has one.

    Source: strains add up until the metal cracks, common practice; ``yield_after``.
    """
    return _track(wire, tuple(work for work in works if work.strain > 0 or work.softens), torch)


# Most wires of a piece go through the same steps.
@lru_cache(maxsize=1024)
def _track(wire: Wire, every: tuple[Work, ...], torch: bool) -> Track:
    can = torch and "anneal" in wire.metal.takes
    found = _tracked(wire, every, can=can)
    if found.anneals and wire.yield_mpa > wire.metal.yields["dead_soft"]:
        early = [work for work in every if work.early]
        later = [work for work in every if not work.early]
        return _tracked(wire, [*early, Work(FIRST, 0.0, softens=True), *later], can=can)
    return found


def _tracked(wire: Wire, works: Sequence[Work], *, can: bool) -> Track:
    soft = wire.metal.yields["dead_soft"]
    now = _Now(wire, wire.yield_mpa, wire.temper)
    stages: list[Stage] = []
    for work in works:
        asked, bears = now.asked(work), now.bears(work)
        worked = now.begins > soft or any(now.used.values())
        annealed = can and worked and asked > bears + 1e-9
        if annealed or work.softens:
            now = _Now(wire, soft, "dead_soft")
            asked, bears = now.asked(work), now.bears(work)
        if work.softens:
            stages.append(Stage(work, 0.0, bears, soft, work.step == FIRST, soft))
            continue
        before = now.yield_at(THROUGH)
        now.used[work.place] = now.used.get(work.place, 0.0) + work.strain
        stages.append(Stage(work, asked, bears, now.yield_at(work.place), annealed, before))
    return Track(wire, tuple(stages), {place: now.yield_at(place) for place in now.used})


@dataclass
class _Now:
    """A wire since it was bought or last made soft: the yield [MPa] and temper that it began with,
    and the strain it was given since, by place."""

    wire: Wire
    begins: float
    temper: Temper
    used: dict[str, float] = field(default_factory=lambda: {THROUGH: 0.0})

    def asked(self, work: Work) -> float:
        """Return the strain that some work comes to at its place."""
        there = self.used.get(work.place, 0.0) + work.strain
        return there if work.bends or work.place == THROUGH else there + self.used[THROUGH]

    def bears(self, work: Work) -> float:
        """Return the strain at which that work cracks it."""
        if work.bends:
            return self.wire.bend_limit(WORKED[self.temper] + self.used[THROUGH])
        return BEARS[self.temper]

    def yield_at(self, place: str) -> float:
        """Return the yield that it has at a place by now [MPa]."""
        return yield_after(self.wire.metal, self.begins, _at(self.used, place))


def _at(used: dict[str, float], place: str) -> float:
    through = used[THROUGH]
    return through if place == THROUGH else through + used.get(place, 0.0)


def works_of(wire: Wire, step: str, moves: Sequence[Move]) -> list[Work]:
    """Return what a step does to a wire by bending and flattening it.

    Args:
        wire: that is bent.
        step: its id.
        moves: that the step makes.

    Returns:
        One work for each kind of bend that has a key: alike bends lie beside each other and strain
        no place twice.

    Source: ``bend_strain``.
    """
    found: dict[str, Work] = {}
    for move in moves:
        strain = bend_strain(wire, move)
        # Every bend is made once: what another step bends lies elsewhere.
        place = f"{getattr(move, 'label', '') or move.kind}~{step}"
        if strain > 0 and strain > found.get(place, Work(step, 0.0)).strain:
            found[place] = Work(step, strain, place, bends=not isinstance(move, Flatten))
    return list(found.values())

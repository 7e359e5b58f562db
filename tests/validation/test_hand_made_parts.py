"""Parts as hands make them against figures from outside.

- The catenary: statics textbooks; here its length by summing chords, and SciPy's minimiser.
- Circles in a circle: published packings (Graham 1968 and others; the 19 of 4.863 from memory).
- Common practice, no source: what 3 m of 20 AWG give as a coil; a folded ring link of 1.0 wire.
"""

import math
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from scipy.optimize import brentq, minimize

from jamreel.core.fit.fall import hang, length_that_falls
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.ring_link import RingLink
from jamreel.core.parts.swag import Swag
from jamreel.core.path.coils import coil_from, effective_core
from jamreel.core.path.loops import ring_of_legs
from jamreel.core.path.moves import developed_length, spiral_length
from jamreel.core.wire.holes import circles_factor, room_for
from jamreel.core.wire.metals import metals

ONE = Palette(Wire(1.0, "1 mm", metals()["copper"], "half_hard", 210.0))


def test_three_metres_wound_on_a_millimetre() -> None:
    d = 0.127 * 92 ** ((36 - 20) / 39)
    # Common practice, no source: 424 by sums, some 305 from hands.
    assert coil_from(3000, 1.0, d) == pytest.approx(424, abs=0.5)
    core = effective_core(3000, 305, d)
    assert coil_from(3000, core, d) == pytest.approx(305)
    # The same core by looking for it.
    found = brentq(lambda c: coil_from(3000, c, d) - 305, 0.5, 10)
    assert core == pytest.approx(found, rel=1e-9)
    assert 1.5 < core < 2.0


@pytest.mark.parametrize(("wire", "core", "coil"), [(0.4, 1, 50), (0.812, 3, 200), (1.3, 6, 90)])
def test_a_sample_that_is_wound_as_the_sum_says_tells_of_its_own_core(
    wire: float, core: float, coil: float
) -> None:
    turns = coil / wire
    # A helix by straight steps, three hundred to a turn.
    t = np.linspace(0, 2 * math.pi * turns, int(300 * turns))
    r = (core + wire) / 2
    line = np.column_stack([r * np.cos(t), r * np.sin(t), t * wire / (2 * math.pi)])
    long = float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())
    assert effective_core(long, coil, wire) == pytest.approx(core, abs=0.002 * core)


def test_a_folded_ring_link_by_hand_and_by_its_drawn_line() -> None:
    # Common practice: pin 9, wire 1.0, roll on 3, beads 4, hooks on 2, corner 1.57, play 1.
    made = RingLink(pin=9, roll_pin=3, bead=4, hook_pin=2, play=1).make(ONE)
    wire = sum(developed_length(moves, 1.0) for _, moves in made.wires[0].stretches)
    assert wire == pytest.approx(71.8, abs=0.05)
    assert made.length == 13
    # The ring alone as a polygon: from where one leg leaves it to where the other does.
    half = math.asin(0.5 / 5)
    angles = np.linspace(half, 2 * math.pi - half, 4001)
    line = np.column_stack([5 * np.cos(angles), 5 * np.sin(angles)])
    polygon = float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())
    assert 5 * ring_of_legs(9, 1.0) == pytest.approx(polygon, rel=1e-6)
    # There the two legs lie one wire apart.
    assert 2 * 5 * math.sin(half) == pytest.approx(1.0)


@pytest.mark.parametrize(("span", "sag"), [(180, 55.843), (80, 10), (80, 35), (46, 11), (30, 90)])
def test_a_strand_is_as_long_as_its_catenary(span: float, sag: float) -> None:
    long = length_that_falls(span, sag)
    assert hang(span, long).sag == pytest.approx(sag, rel=1e-6)
    a = brentq(lambda x: x * (math.cosh(span / 2 / x) - 1) - sag, span / 200, 1e5)
    xs = np.linspace(-span / 2, span / 2, 20001)
    ys = a * np.cosh(xs / a)
    chords = float(np.hypot(np.diff(xs), np.diff(ys)).sum())
    assert long == pytest.approx(chords, rel=1e-6)


def test_the_published_catenaries() -> None:
    assert length_that_falls(180, 55.843) == pytest.approx(220, abs=0.002)
    assert length_that_falls(100, 13.930) == pytest.approx(105, abs=0.002)
    assert length_that_falls(50, 0) == 50
    for bad in ((0, 10), (50, -1)):
        with pytest.raises(ValueError, match="no chain falls"):
            length_that_falls(*bad)


def test_a_strand_of_links_hangs_as_least_energy_has_it() -> None:
    """Twenty-four stiff links between two points: SciPy finds the lowest shape."""
    span, count, link = 60.0, 24, 3.5

    def lowest(angles: np.ndarray) -> float:
        ys = np.concatenate([[0.0], np.cumsum(link * np.sin(angles))])
        return float(((ys[:-1] + ys[1:]) / 2).sum())

    ends: Any = [
        {"type": "eq", "fun": lambda a: link * np.cos(a).sum() - span},
        {"type": "eq", "fun": lambda a: link * np.sin(a).sum()},
    ]
    start = np.linspace(-0.8, 0.8, count)
    found = minimize(lowest, start, constraints=ends, options={"maxiter": 500})
    depth = -np.cumsum(link * np.sin(found.x)).min()
    assert hang(span, count * link).sag == pytest.approx(depth, rel=0.01)


def test_strands_of_a_swag_fall_so_far_apart_as_whole_links_let_them() -> None:
    chain = BoughtChain(links=1, pitch=2.0)
    swag = Swag(span=90, strands=4, first_fall=10, fall_apart=25, link=chain)
    falls = [one.sag for one in swag._strands(chain.make(ONE))]
    for upper, lower in pairwise(falls):
        assert lower - upper == pytest.approx(25, abs=2.5)
    # A link more or less would be further off.
    for i, one in enumerate(swag._strands(chain.make(ONE))):
        wanted = 10 + 25 * i
        off = abs(one.sag - wanted)
        for other in (one.length - 2.0, one.length + 2.0):
            if other <= 90:
                continue  # could not hang
            assert off <= abs(hang(90, other).sag - wanted) + 0.6


def test_published_packings_fit_in_what_a_loop_is_asked_to_be() -> None:
    """Known best packings of k circles of 1, as diameters of the circle round them."""
    # From memory, of the published tables.
    known = {8: 3.304, 10: 3.813, 12: 4.029, 14: 4.328, 16: 4.615, 19: 4.863}
    for count, diameter in known.items():
        assert diameter <= circles_factor(count) <= 1.11 * diameter
        assert room_for([0.5] * count) == pytest.approx(0.5 * circles_factor(count))


def test_a_swirl_by_turns_of_rings() -> None:
    """Turns of a close spiral are about as long as rings of their mean diameters."""
    d, turns = 0.8, 4
    rings = sum(math.pi * d * (2 * n + 1) for n in range(1, turns + 1))
    assert spiral_length(d, d, turns) == pytest.approx(rings, rel=0.02)

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.path.moves import (
    Bend,
    Corner,
    Flatten,
    Fold,
    Mark,
    Move,
    PlaneTurn,
    Spiral,
    Straight,
    Wrap,
    bends_of,
    developed_length,
    marks_of,
    mirrored,
)
from jamreel.core.path.projection import LEAN, held_at, pieces, traced
from jamreel.core.path.trace import furthest, inside_length, trace

sides = st.sampled_from(["left", "right"])
moves = st.lists(
    st.one_of(
        st.builds(Straight, length=st.floats(0, 60)),
        st.builds(Bend, angle=st.floats(0.05, 7), pin=st.floats(2, 60), side=sides),
        st.builds(Corner, angle=st.floats(0.05, 3), radius=st.floats(0.3, 4), side=sides),
        st.builds(Fold, side=sides),
        st.builds(
            Spiral,
            turns=st.floats(0.2, 4),
            pin=st.floats(1, 8),
            gap=st.floats(0, 2),
            outward=st.booleans(),
            side=sides,
        ),
        st.builds(
            Wrap, turns=st.floats(0.2, 6), core=st.floats(1, 8), pitch=st.floats(0, 9), side=sides
        ),
        st.builds(Flatten, length=st.floats(0.5, 20), thickness=st.just(0.5)),
        st.builds(PlaneTurn, angle=st.floats(-3, 3)),
        st.builds(Mark, label=st.just("here")),
    ),
    max_size=7,
)


def run(line: np.ndarray) -> float:
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


def integral(path: list[Move], wire: float) -> float:
    """Length of the drawn line: chord sums at two fineness, extrapolated to none (Richardson).

    Move by move, because the number of chords of each doubles only when its own step halves.
    """
    total = 0.0
    for move in path:
        whole = developed_length([move], wire)
        if whole > 0:
            coarse, fine = (run(trace([move], wire, step=whole / n)) for n in (400, 800))
            total += (4 * fine - coarse) / 3
    return total


@given(moves, st.floats(0.3, 3))
def test_developed_length_is_the_integral_along_the_drawn_line(
    path: list[Move], wire: float
) -> None:
    assert integral(path, wire) == pytest.approx(developed_length(path, wire), rel=1e-6, abs=1e-9)


@given(moves, st.floats(0.3, 3))
def test_moves_join_without_a_kink_in_place(path: list[Move], wire: float) -> None:
    # No two neighbouring points of the whole line are further apart than wire lies between them.
    line = trace(path, wire, step=1.0)
    straights = [m.length for m in path if isinstance(m, (Straight, Flatten))]
    steps = np.linalg.norm(np.diff(line, axis=0), axis=1)
    assert (steps <= max([5.0, *straights]) + 1e-9).all()


@given(moves, st.floats(0.3, 3))
def test_a_mirrored_path_takes_the_same_wire_and_mirrors_its_line(
    path: list[Move], wire: float
) -> None:
    other = mirrored(path)
    assert developed_length(other, wire) == developed_length(path, wire)
    flip = np.array([1, -1, 1])
    assert np.allclose(trace(path, wire, 1), trace(other, wire, 1) * flip, atol=1e-6)


def test_closed_shapes_close() -> None:
    bow = Bend(angle=math.pi, pin=6)
    ring: list[Move] = [Straight(length=20), bow, Straight(length=20), bow]
    assert np.allclose(trace(ring, 1.2)[-1], 0, atol=1e-9)
    eight: list[Move] = [
        Bend(angle=2 * math.pi, pin=4),
        Bend(angle=2 * math.pi, pin=4, side="right"),
    ]
    assert np.allclose(trace(eight, 1.2)[-1], 0, atol=1e-9)
    ends = furthest(trace(eight, 1.2, 0.05)[:, [1, 0]])
    assert inside_length(*ends, 1.2) == pytest.approx(9.2, abs=1e-3)


def test_helix_rises_by_its_pitch_and_a_spiral_grows_by_its_turns() -> None:
    coil = trace([Wrap(turns=3, core=4, pitch=5)], 1.0)
    assert np.linalg.norm(coil[-1] - coil[0]) == pytest.approx(15, abs=1e-9)
    # Measured from the middle of a spiral, three turns of 1 mm wire with 0.5 mm of air add 4.5.
    spiral = trace([Spiral(turns=3, pin=2, gap=0.5, outward=True)], 1.0)
    middle = spiral[0] - 1.5 * _inward(spiral)
    assert np.linalg.norm(spiral[-1] - middle) == pytest.approx(1.5 + 4.5, abs=1e-2)


def _inward(line: np.ndarray) -> np.ndarray:
    """Direction from a spiral's middle to its start, from three points of it."""
    growth = 1.5 / (2 * math.pi)
    lean = math.atan2(growth, 1.5)
    # The tangent leans outwards from square to the radius by that much.
    return np.array([math.sin(lean), -math.cos(lean), 0.0])


def test_a_fold_lays_the_wire_beside_itself() -> None:
    line = trace([Straight(length=10), Fold(), Straight(length=10)], 0.8)
    assert line[-1] == pytest.approx([0, 0.8, 0], abs=1e-9)


def test_a_full_turn_closes_and_a_turned_plane_leaves_it() -> None:
    ring = trace([Bend(angle=2 * math.pi, pin=6)], 1.0)
    assert np.allclose(ring[-1], ring[0], atol=1e-9)
    assert np.allclose(ring[:, 2], 0)
    assert ring[:, 1].max() == pytest.approx(7.0, abs=1e-3)  # mean diameter, to the left
    square = trace([PlaneTurn(angle=math.pi / 2), Bend(angle=math.pi, pin=6)], 1.0)
    assert square[-1] == pytest.approx([0, 0, 7], abs=1e-9)
    right = trace([Bend(angle=math.pi / 2, pin=3, side="right")], 1.0)
    assert right[-1] == pytest.approx([2, -2, 0], abs=1e-9)


def test_places_of_bends_and_marks_on_the_straight_wire() -> None:
    path: list[Move] = [
        Straight(length=10),
        Mark(label="a"),
        Bend(angle=math.pi, pin=3, label="hook"),
        Mark(label="b"),
    ]
    half_turn = math.pi * 2
    assert [(m.label, m.at_mm) for m in marks_of(path, 1.0, start=2)] == [
        ("a", 12),
        ("b", pytest.approx(12 + half_turn)),
    ]
    (bend,) = bends_of(path, 1.0, start=2)
    assert (bend.label, bend.position_mm) == ("hook", 12)
    assert bend.takes_mm == pytest.approx(half_turn)


@pytest.mark.parametrize("turns", [1.0, 1.5, 2.25, 3.0])
def test_wraps_are_seen_round_their_stem_the_part_of_a_turn_too(turns: float) -> None:
    d = 1.0
    found = traced([Straight(length=10), Wrap(turns=turns, core=d, on_own=True)], d)
    wraps = [
        piece.points + n * np.array(piece.step)
        for piece in pieces(found[1:], held_at(found, 1, wound=True))
        for n in range(piece.times)
    ]
    heights = np.concatenate(wraps)[:, 1]
    # Wire beside wire: middles lie a wire apart, seen a little from the side.
    reach = d * math.hypot(1.0, LEAN)
    assert np.abs(heights).max() <= reach + 1e-6
    # Round the stem it comes to both sides of it, and so does any half of a turn.
    assert heights.max() > 0.7 * d
    assert heights.min() < -0.7 * d

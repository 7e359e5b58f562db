import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.path.moves import (
    Bend,
    Mark,
    Move,
    Straight,
    Turn,
    bends_of,
    developed_length,
    marks_of,
    trace,
)

moves = st.lists(
    st.one_of(
        st.builds(Straight, length=st.floats(0, 60)),
        st.builds(
            Bend,
            angle=st.floats(0.05, 7),
            pin=st.floats(2, 60),
            side=st.sampled_from(["left", "right"]),
        ),
        st.builds(Turn, angle=st.floats(-3, 3)),
        st.builds(Mark, label=st.just("here")),
    ),
    max_size=8,
)


def run(line: np.ndarray) -> float:
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


@given(moves, st.floats(0.3, 3))
def test_the_drawn_line_is_as_long_as_the_wire(path: list[Move], wire: float) -> None:
    # Chords of arcs fall short by (step / radius)^2 / 24 of their length.
    wanted = developed_length(path, wire)
    assert run(trace(path, wire, step=0.02)) == pytest.approx(wanted, rel=2e-5, abs=1e-9)


@given(moves, st.floats(0.3, 3))
def test_a_mirrored_path_takes_the_same_wire_and_mirrors_its_line(
    path: list[Move], wire: float
) -> None:
    other = {"left": "right", "right": "left"}
    mirrored: list[Move] = [
        m.model_copy(update={"side": other[m.side]})
        if isinstance(m, Bend)
        else m.model_copy(update={"angle": -m.angle})
        if isinstance(m, Turn)
        else m
        for m in path
    ]
    assert developed_length(mirrored, wire) == developed_length(path, wire)
    flip = np.array([1, -1, 1])
    assert np.allclose(trace(path, wire, 1), trace(mirrored, wire, 1) * flip, atol=1e-6)


def test_a_full_turn_closes_and_a_turned_plane_leaves_it() -> None:
    ring = trace([Bend(angle=2 * math.pi, pin=6)], 1.0)
    assert np.allclose(ring[-1], ring[0], atol=1e-9)
    assert np.allclose(ring[:, 2], 0)
    assert ring[:, 1].max() == pytest.approx(7.0, abs=1e-3)  # mean diameter, to the left
    square = trace([Turn(angle=math.pi / 2), Bend(angle=math.pi, pin=6)], 1.0)
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

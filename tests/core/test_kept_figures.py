"""Every figure of every example, part and closure beside those kept: none moves unseen.

A figure that is meant to move is kept anew by ``python tools/keep_figures.py``; the change of the
kept file is read line by line. Whether the figures are right is for the validation tests to say.
"""

import json
from typing import Any

import pytest

from tests.core.summary import KEPT, differences, everything


@pytest.fixture(scope="module")
def now() -> dict[str, Any]:
    found: dict[str, Any] = json.loads(json.dumps(everything()))
    return found


@pytest.fixture(scope="module")
def kept() -> dict[str, Any]:
    found: dict[str, Any] = json.loads(KEPT.read_text())
    return found


@pytest.mark.parametrize("sort", ["plan", "part", "closure"])
def test_no_figure_moves_unseen(sort: str, now: dict[str, Any], kept: dict[str, Any]) -> None:
    mine = {name: value for name, value in now.items() if name.startswith(sort)}
    theirs = {name: value for name, value in kept.items() if name.startswith(sort)}
    moved = list(differences(theirs, mine))
    assert not moved, "\n".join(moved[:30])


def test_what_is_kept_says_something(kept: dict[str, Any]) -> None:
    assert len([name for name in kept if name.startswith("plan")]) > 40
    assert len([name for name in kept if name.startswith("part")]) > 60
    refused = [name for name, value in kept.items() if "refused" in value]
    assert len(refused) < 0.1 * len(kept)


def test_a_difference_is_found_and_rounding_is_none() -> None:
    old = {"a": [1.0, 2.0], "b": {"c": 3}, "d": "x", "gone": 1}
    new = {"a": [1.0000001, 2.1], "b": {"c": 3}, "d": "y", "new": 1}
    found = list(differences(old, new))
    assert [line.split(":")[0] for line in found] == [" / a [1]", " / d", " / gone", " / new"]
    assert list(differences([1, 2], [1, 2, 3]))
    assert not list(differences({"n": None}, {"n": None}))

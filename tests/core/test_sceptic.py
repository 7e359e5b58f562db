"""Every field of every brief turned into nonsense: a sentence that names it, or an honest plan."""

import json
import math
import random
from collections.abc import Iterator
from copy import deepcopy
from typing import Any

import pytest

from jamreel.core.closures import registered_closures
from jamreel.core.families import registered
from jamreel.core.parts import registered_parts
from jamreel.core.plan import BriefRefused, plan_raw, propose_raw
from jamreel.core.shop import Shop
from tests.conftest import samples
from tests.core.families import example

Place = tuple[str | int, ...]
# Text, the wrong sort, too small, too large, too long, nothing.
NONSENSE: tuple[Any, ...] = ("12 parsecs", {"a": 1}, -1, 1e9, "9" * 400, None, [])


def places(value: Any, under: Place = ()) -> Iterator[Place]:
    if under:
        yield under
    inside = dict(enumerate(value)) if isinstance(value, list) else value
    for key, inner in inside.items() if isinstance(inside, dict) else ():
        yield from places(inner, (*under, key))


def put(brief: Any, place: Place, value: Any) -> Any:
    changed = deepcopy(brief)
    holder = changed
    for step in place[:-1]:
        holder = holder[step]
    holder[place[-1]] = value
    return changed


def assert_honest(value: Any) -> None:
    if isinstance(value, float):
        assert math.isfinite(value)
    elif isinstance(value, dict):
        for inner in value.values():
            assert_honest(inner)
    elif isinstance(value, (list, tuple)):
        for inner in value:
            assert_honest(inner)


def doubted(brief: dict[str, Any], under: Place = ()) -> int:
    """Turn what lies under a place into every nonsense; return how often that was refused."""
    refusals = 0
    for place in places(brief):
        if place[: len(under)] != under:
            continue
        path = ".".join(map(str, place))
        for value in random.Random(path).sample(NONSENSE, samples(3, len(NONSENSE))):
            try:
                plan = plan_raw(put(brief, place, value), Shop())
            except BriefRefused as refused:
                refusals += 1
                for problem in refused.problems:
                    assert problem.says.strip(), (path, value)
                    assert len(problem.says) < 500, (path, value)
                    # Named is the field itself, what it is part of, or what it would have held.
                    common = [
                        a == b
                        for a, b in zip(path.split("."), problem.field.split("."), strict=False)
                    ]
                    joins = "Neither " in problem.says and problem.field.startswith("piece.")
                    # What is joined without it is named where it stands.
                    assert joins or all(common[: min(2, len(place))]), (path, value, problem.field)
            else:
                assert_honest(plan.model_dump())
                assert all(cut.length_mm > 0 for cut in plan.cuts)
    return refusals


@pytest.mark.parametrize("kind", sorted(registered()))
def test_every_field_of_every_construction(kind: str) -> None:
    assert doubted(example(kind)) > 30


@pytest.mark.parametrize("kind", sorted(registered_parts()))
def test_every_field_of_every_part(kind: str) -> None:
    made = registered_parts()[kind].model_validate({})
    part = json.loads(made.model_dump_json())
    base = example("linked_bracelet")
    piece = dict(base["piece"])
    if made.role == "drop":
        assert doubted({**base, "piece": {**piece, "hung": part}}, ("piece", "hung")) > 5
    else:
        entries = [{"part": part}, *piece["entries"]]
        brief = {**base, "piece": {**piece, "entries": entries}}
        assert doubted(brief, ("piece", "entries", 0)) > 5


@pytest.mark.parametrize("kind", sorted(registered_closures()))
def test_every_field_of_every_closure(kind: str) -> None:
    closure = json.loads(registered_closures()[kind].model_validate({}).model_dump_json())
    base = example("linked_bracelet")
    brief = {**base, "piece": {**base["piece"], "closure": closure}}
    assert doubted(brief, ("piece", "closure")) >= 3


@pytest.mark.parametrize("kind", ["linked_bracelet", "linked_necklace", "drop_earring"])
@pytest.mark.parametrize("entries", [[], [{"part": {"kind": "bead"}, "times": 0}]])
def test_nothing_to_count_gives_no_proposal_that_breaks(kind: str, entries: list[Any]) -> None:
    brief = example(kind)
    bare = {**brief, "piece": {**brief["piece"], "entries": entries}}
    for proposal in propose_raw(bare, Shop()):
        assert math.isfinite(proposal.off_mm)

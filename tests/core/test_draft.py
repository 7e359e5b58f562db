"""Briefs that are kept: sound ones as they are, others refused with the field, and mended."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.draft import DEEPEST, MOST_CHARS, mended, unsound
from jamreel.core.plan import BriefRefused, plan_raw
from jamreel.core.shop import Shop

SHOP = Shop()
scalars = st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=9)
anything = st.recursive(
    scalars | st.sampled_from(["\ud800", "², 1e999", "bead", "linked_bracelet", 10**400]),
    lambda inner: (
        st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=6), inner, max_size=4)
    ),
    max_leaves=12,
)
FIELDS = ["measures", "ease", "piece", "wire", "palette", "cutting", "making", "tryon", "unit"]


def nested(deep: int) -> Any:
    found: Any = 1
    for _ in range(deep):
        found = [found]
    return found


def test_what_a_maker_types_is_kept_whatever_it_is(brief: dict[str, Any]) -> None:
    assert unsound(brief, SHOP) == ()
    brief["wire"]["size"] = "fourteen or so"
    brief["piece"]["loop_pin"] = -3
    brief["note"] = "no field of a brief"
    assert unsound(brief, SHOP) == ()
    assert mended(brief) == brief


@pytest.mark.parametrize(
    ("field", "value", "at"),
    [
        ("piece", [1], "piece"),
        ("piece", {"kind": "linked_bracelet", "entries": "beads"}, "piece.entries"),
        ("piece", {"kind": "linked_bracelet", "entries": [7]}, "piece.entries.0"),
        ("measures", None, "measures"),
        ("measures", {"wrist_girth": [158]}, "measures.wrist_girth"),
        ("measures", {"wrist_girth": {"readings": [{"value": {"mm": 1}}]}},
         "measures.wrist_girth.readings.0.value"),
        ("wire", "copper", "wire"),
        ("wire", {"size": {"awg": [14]}, "metal": ["copper"]}, "wire.metal"),
        ("unit", ["mm"], "unit"),
        ("tryon", "too wide", "tryon"),
    ],
)  # fmt: skip
def test_a_list_where_there_should_be_none_is_named_and_left_out(
    brief: dict[str, Any], field: str, value: Any, at: str
) -> None:
    brief[field] = value
    assert at in [problem.field for problem in unsound(brief, SHOP)]
    found = mended(brief)
    assert unsound(found, SHOP) == ()
    kept = {key: one for key, one in brief.items() if key != field}
    assert {key: found[key] for key in kept} == kept


def test_half_a_character_no_number_and_too_deep_are_named(brief: dict[str, Any]) -> None:
    brief["cutting"] = {"note": "\ud800"}
    brief["wire"]["size"] = float("inf")
    brief["piece"]["deep"] = nested(DEEPEST)
    found = {problem.key: problem.field for problem in unsound(brief, SHOP)}
    assert found.pop("nested").startswith("piece.deep.0")
    assert found == {"half_text": "cutting.note", "number": "wire.size"}
    assert unsound(mended(brief), SHOP) == ()


def test_nested_to_the_limit_is_kept_and_one_deeper_is_not(brief: dict[str, Any]) -> None:
    # A brief's own two levels count.
    assert unsound({**brief, "x": nested(DEEPEST - 1)}, SHOP) == ()
    assert [p.key for p in unsound({**brief, "x": nested(DEEPEST)}, SHOP)] == ["nested"]


def test_as_long_as_the_limit_is_kept_and_one_longer_is_not(brief: dict[str, Any]) -> None:
    free = MOST_CHARS - len(json.dumps({**brief, "x": ""}, ensure_ascii=False))
    assert unsound({**brief, "x": "é" * free}, SHOP) == ()
    [problem] = unsound({**brief, "x": "é" * (free + 1)}, SHOP)
    assert problem.key == "brief_long"
    assert "100000" in problem.expected


@given(raw=anything, at=st.sampled_from(FIELDS))
def test_whatever_is_held_can_be_mended_answered_and_planned_or_refused(raw: Any, at: str) -> None:
    for held in (
        raw,
        {at: raw},
        {"schema": "0.2", "piece": {"kind": "linked_bracelet", "entries": raw}},
    ):
        found = mended(held)
        assert unsound(found, SHOP) == ()
        json.dumps(found, ensure_ascii=False, allow_nan=False).encode()
        with pytest.raises(BriefRefused):
            plan_raw(found, SHOP)

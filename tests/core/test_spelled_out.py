"""What is kept leaves nothing open, and is the same piece; formats of before are told by name."""

import json
from copy import deepcopy
from typing import Any

import pytest

from jamreel.core.closures import registered_closures
from jamreel.core.families import registered
from jamreel.core.parts import registered_parts
from jamreel.core.plan import BriefRefused, plan_raw, read_brief
from jamreel.core.shop import Shop
from jamreel.core.spelled_out import spelled_out, with_names
from tests.conftest import EXAMPLES

BRIEFS = {path.stem: json.loads(path.read_text()) for path in EXAMPLES.glob("*.json")}
INCHES = Shop(unit="in")


def whole(brief: dict[str, Any], shop: Shop | None = None) -> dict[str, Any]:
    found = spelled_out(brief, read_brief(brief, shop or Shop()))
    kept: dict[str, Any] = json.loads(json.dumps(found))
    return kept


def figures(brief: dict[str, Any], shop: Shop | None = None) -> dict[str, float]:
    plan = plan_raw(brief, shop or Shop())
    return {figure.id: figure.value_mm for figure in plan.figures}


@pytest.mark.parametrize("name", sorted(BRIEFS))
def test_no_figure_moves_when_every_choice_is_spelled_out(name: str) -> None:
    brief = BRIEFS[name]
    before = deepcopy(brief)
    kept = whole(brief)
    assert brief == before
    assert figures(kept) == pytest.approx(figures(brief))
    # Nothing more is left open.
    assert whole(kept) == kept


@pytest.mark.parametrize("kind", ["sliding_bangle", "linked_bracelet", "hook_bracelet"])
def test_on_an_inch_bench_what_was_left_open_stays_as_it_was_too(kind: str) -> None:
    """What stands in a brief as a number is mm, whatever bench reads it."""
    brief: dict[str, Any] = {
        "unit": "in",
        "measures": {
            "wrist_girth": {"readings": [{"value": "6 1/4"}]},
            "hand_pass_girth": {"readings": [{"value": "7 3/4"}]},
        },
        "piece": {"kind": kind},
        "wire": {"size": "18 awg"},
    }
    kept = whole(brief, INCHES)
    assert figures(kept, INCHES) == pytest.approx(figures(brief, INCHES))


def test_every_choice_of_every_kind_is_spelled_out() -> None:
    brief = BRIEFS["sliding-bangle"]
    for kind, piece in registered().items():
        read = read_brief({**brief, "piece": {"kind": kind}}, Shop())
        found = spelled_out({**brief, "piece": {"kind": kind}}, read)["piece"]
        assert set(found) == {field.alias or n for n, field in piece.model_fields.items()}
    for kind, part in registered_parts().items():
        row = [{"part": {"kind": kind}}]
        linked = {**brief, "piece": {"kind": "linked_bracelet", "entries": row}}
        (entry,) = spelled_out(linked, read_brief(linked, Shop()))["piece"]["entries"]
        assert set(entry["part"]) == {f.alias or n for n, f in part.model_fields.items()}
    for kind, closure in registered_closures().items():
        linked = {**brief, "piece": {"kind": "linked_bracelet", "closure": {"kind": kind}}}
        try:
            read = read_brief(linked, Shop())
        except BriefRefused:
            continue  # a closure of one construction alone
        found = spelled_out(linked, read)["piece"]["closure"]
        assert set(found) == {f.alias or n for n, f in closure.model_fields.items()}


def test_what_was_typed_stays_as_it_was_typed() -> None:
    brief = deepcopy(BRIEFS["linked-bracelet"])
    brief["piece"]["entries"] = [{"part": {"kind": "linked_bead", "bead": "1/4 in"}, "times": "3"}]
    kept = whole(brief)
    part = kept["piece"]["entries"][0]["part"]
    assert (part["bead"], kept["piece"]["entries"][0]["times"]) == ("1/4 in", "3")
    assert kept["measures"] == brief["measures"]
    assert part["pin"] == registered_parts()["linked_bead"].model_fields["pin"].default


@pytest.mark.parametrize("before", [1, 2, 3])
def test_a_brief_from_before_the_first_release_is_refused_in_a_sentence(before: int) -> None:
    with pytest.raises(BriefRefused) as refused:
        plan_raw({**BRIEFS["sliding-bangle"], "schema": before}, Shop())
    (problem,) = refused.value.problems
    assert "before the first release" in problem.says
    assert problem.field == "schema"


@pytest.mark.parametrize("said", ["1.0", 99, True, None, {"a": 1}])
def test_a_format_that_is_not_known_is_told_by_name(said: Any) -> None:
    with pytest.raises(BriefRefused) as refused:
        plan_raw({**BRIEFS["sliding-bangle"], "schema": said}, Shop())
    assert "0.2" in refused.value.problems[0].says


def test_entries_get_the_names_that_reading_them_gives() -> None:
    brief = deepcopy(BRIEFS["linked-necklace"])
    for entry in brief["piece"]["entries"]:
        entry.pop("id", None)
    piece = with_names(brief["piece"])
    plan = plan_raw({**brief, "piece": piece}, Shop())
    names = [entry["id"] for entry in piece["entries"]]
    assert names == [f"e{n + 1}" for n in range(len(names))]
    of_wires = {cut.id.split("/")[0] for cut in plan.cuts if not cut.id.startswith("coil/")}
    assert of_wires & set(names)


def test_names_are_given_to_those_without_and_taken_from_none() -> None:
    row: list[dict[str, Any]] = [
        {"part": {"kind": "bead"}},
        {"id": "e1", "group": [{"id": "", "part": {"kind": "coil"}}, {"part": {"kind": "bead"}}]},
        {"id": "mine", "part": {"kind": "bead"}},
    ]
    named = with_names({"entries": row, "parting": [{"part": {"kind": "chain"}}]})
    first, group, mine = named["entries"]
    inner = [one["id"] for one in group["group"]]
    assert (group["id"], mine["id"]) == ("e1", "mine")
    assert len({first["id"], *inner, "e1", "mine"}) == 5
    assert named["parting"][0]["id"] == "p1"
    assert "id" not in row[0]


def test_nonsense_where_entries_should_be_is_left_for_reading_to_refuse() -> None:
    for nonsense in ("beads", 3, None, [3, "x", None]):
        assert with_names({"entries": nonsense})["entries"] == nonsense

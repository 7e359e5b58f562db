"""Choices that contradict each other are refused; what is bought weighs; words that count."""

import json
import math
from pathlib import Path
from typing import Any

import pytest

from jamreel.__main__ import main
from jamreel.core.json_text import MOST_BYTES, read_json
from jamreel.core.plan import BriefRefused, Plan, plan_raw, propose_raw
from jamreel.core.shop import Shop
from tests.conftest import EXAMPLES
from tests.core.families import advice, example, figure, girths, planned
from tests.counting import calls

BRACELET = {**example("linked_bracelet"), "measures": girths(wrist_girth=160)}


def refused(**own: Any) -> tuple[str, str]:
    with pytest.raises(BriefRefused) as found:
        planned(BRACELET, **own)
    (problem,) = found.value.problems
    return problem.field, problem.key


def links(times: int = 8, **part: Any) -> list[dict[str, Any]]:
    return [{"part": {"kind": "linked_bead", **part}, "times": times}]


def test_a_fold_shorter_than_its_own_hook_is_refused() -> None:
    folded = {"kind": "folded_hook", "fold": "12", "hook_pin": "16"}
    assert refused(entries=links(), closure=folded) == ("piece.closure.fold", "fold_short")
    # Half a turn on 5, a tip of 2.5 wires and three wraps in 0.81: 9.13 + 2.03 + 2.44.
    d = 0.127 * 92 ** (16 / 39)
    least = math.pi * (5 + d) / 2 + 2.5 * d + 3 * d
    for fold, fits in ((least + 0.01, True), (least - 0.01, False)):
        closure = {"kind": "folded_hook", "fold": f"{fold:.3f}"}
        if fits:
            assert planned(BRACELET, entries=links(), closure=closure).cuts
        else:
            assert refused(entries=links(), closure=closure)[1] == "fold_short"


def test_a_links_arc_of_more_than_a_turn_is_refused() -> None:
    part = {"kind": "curved_link", "form": "10", "arc": "40", "beads": 0}
    entries = [{"part": part, "times": 4}]
    assert refused(entries=entries) == ("piece.entries.0.part.arc", "arc_over_turn")


@pytest.mark.parametrize(
    ("own", "field"),
    [
        ({"entries": [{"part": {"kind": "jump_ring", "soldered": True}, "times": 9}]},
         "piece.entries.0.part.soldered"),
        ({"closure": {"kind": "s_hook", "into": "soldered_ring"}}, "piece.closure.into"),
        ({"closure": {"kind": "toggle", "soldered": True}}, "piece.closure.soldered"),
    ],
)  # fmt: skip
def test_a_metal_that_takes_no_solder_is_refused_where_it_is_asked_to(
    own: dict[str, Any], field: str
) -> None:
    titanium = {"size": "20 awg", "metal": "titanium", "temper": "dead_soft"}
    with pytest.raises(BriefRefused) as found:
        planned({**BRACELET, "wire": titanium}, **{"entries": links(), **own})
    (problem,) = found.value.problems
    assert (problem.field, problem.key) == (field, "cant_solder")
    assert "itanium" in problem.says


def test_a_bangle_that_must_be_soldered_is_not_made_of_aluminium() -> None:
    wire = {"size": "12 awg", "metal": "aluminium", "temper": "half_hard"}
    with pytest.raises(BriefRefused) as found:
        planned({**example("closed_bangle"), "wire": wire})
    assert found.value.problems[0].field == "wire.metal"


def test_a_ring_that_does_not_stay_wound_is_refused() -> None:
    # 0.3 bronze in spring temper off a pin of 30 springs straight.
    wire = {"size": "0.3 mm", "metal": "bronze", "temper": "spring"}
    entries = [{"part": {"kind": "jump_ring", "pin": "30"}, "times": 5}]
    with pytest.raises(BriefRefused) as found:
        planned({**BRACELET, "wire": wire}, entries=entries, closure={"kind": "open_ends"})
    assert found.value.problems[0].key == "ring_springs"


def test_the_notch_for_what_breaks_is_no_looseness() -> None:
    narrow = {**BRACELET, "measures": girths(wrist_girth=146)}
    clasp = {"kind": "spring_clasp"}
    glass, wood = (
        planned(narrow, entries=links(10, stuff=stuff), closure=clasp)
        for stuff in ("glass", "wood")
    )
    assert figure(glass, "wanted") == pytest.approx(figure(wood, "wanted") + 3)
    assert figure(glass, "worn") == figure(wood, "worn")
    # 18.5 over the wrist is nearer to loose (22) than to comfortable (13), but not less the notch.
    assert 18 < figure(wood, "worn") - 146 < 19
    assert (wood.fit_word, glass.fit_word) == ("loose", "comfortable")


def extended(links_: int) -> Plan:
    clasp = {"kind": "spring_clasp", "extender": links_, "extender_pitch": "4"}
    return planned(BRACELET, entries=links(9), closure=clasp)


def test_an_extender_says_at_which_link_it_is_right() -> None:
    without, plan = extended(0), extended(12)
    short = figure(without, "wanted") - figure(without, "worn")
    assert short > 8
    link = round(short / 4)
    assert f"Right at link {link} of its extender of 12" in advice(plan)["extends"]
    assert figure(plan, "worn") == pytest.approx(figure(without, "worn") + 4 * link)
    assert figure(plan, "worn_shortest") == pytest.approx(figure(without, "worn"))
    assert (without.fit_word, plan.fit_word) == ("too_tight", "comfortable")
    lines = {line.id: line.value_mm for line in plan.ledger}
    assert lines["at_link"] == pytest.approx(figure(plan, "worn"))
    assert lines["extended"] == 4 * link
    assert lines["fastened"] == pytest.approx(figure(without, "worn"))
    assert "at_link" not in {line.id for line in without.ledger}
    reach = figure(without, "worn") + 12 * 4
    assert f"to {reach:.1f} mm" in advice(plan)["extends"]
    # One too short for it stays short, and says by how much.
    few = extended(1)
    assert figure(few, "off_length") == pytest.approx(short - 4)
    assert "make_up_short" in advice(few)


def test_ways_to_fit_name_groups_and_the_link_of_an_extender() -> None:
    group = [{"part": {"kind": "bead", "bead": "4"}, "times": 5}, {"part": {"kind": "spacer_coil"}}]
    piece = {"kind": "linked_bracelet", "entries": [{"group": group, "times": 3}]}
    says = [one.says for one in propose_raw({**BRACELET, "piece": piece}, Shop())]
    assert any(s.startswith("7 × group (5 × bead on the string, ") for s in says), says
    assert not any("×  " in s or "× ," in s for s in says)
    right = [s for s in says if "right at link" in s]
    assert all("extender of" in s for s in right)


@pytest.mark.parametrize(
    ("kind", "own", "least"),
    [
        ("linked_bracelet", {"closure": {"kind": "end_caps"}}, 2.0),
        ("linked_bracelet", {"closure": {"kind": "bought_clasp", "length": "20"}}, 1.0),
        ("linked_bracelet", {"closure": {"kind": "spring_clasp", "extender": 10}}, 0.9),
        ("linked_bracelet", {"entries": [{"part": {"kind": "split_ring"}, "times": 9}]}, 0.7),
        ("tiara_base", {}, 6.0),
        ("circlet", {}, 0.1),
    ],
)
def test_what_is_bought_weighs_something(kind: str, own: dict[str, Any], least: float) -> None:
    plan = planned(example(kind), **own)
    bought = sum(need.mass_g for need in plan.needs if need.kind != "bead")
    assert least <= bought <= 3 * least
    assert all(need.mass_g > 0 for need in plan.needs), plan.needs


def test_a_slipped_point_is_thought_of_before_a_lost_digit() -> None:
    brief = {**example("sliding_bangle"), "measures": girths(wrist_girth=15.8, hand_pass_girth=200)}
    with pytest.raises(BriefRefused) as found:
        plan_raw(brief, Shop())
    (problem,) = found.value.problems
    assert "Was 158.0 mm meant?" in problem.says
    inches = {**brief, "measures": girths(wrist_girth=6.25, hand_pass_girth=200)}
    with pytest.raises(BriefRefused) as found:
        plan_raw(inches, Shop())
    assert "Was 158.8 mm meant?" in found.value.problems[0].says


@pytest.mark.parametrize("raw", [None, [], 3, "brief"])
def test_no_sentence_says_the_twice(raw: Any) -> None:
    with pytest.raises(BriefRefused) as found:
        plan_raw(raw, Shop())
    for problem in found.value.problems:
        assert "the the" not in problem.says.lower()
        assert "brief" in problem.says


def test_a_key_given_twice_is_found_at_once_among_very_many() -> None:
    many = ",".join(f'"{n:x}":0' for n in range(100_000))
    raw = f'{{{many},"z":0,"z":0}}'.encode()

    def reads() -> None:
        with pytest.raises(ValueError, match="'z' is given twice"):
            read_json(raw)

    # Not for each of its keys as many as there are.
    assert calls(reads) < 300_000


DEEP = b"[" * 100_000 + b"]" * 100_000


@pytest.mark.parametrize(
    ("raw", "why"),
    [
        (DEEP, "nested too deep"),
        (rb'{"note": "\ud800"}', "surrogates"),
        (b'{"schema": "0.2", "schema": 1}', "'schema' is given twice"),
        (b"x" * (MOST_BYTES + 1), "over 1,000,000 bytes"),
        (b'{"a": NaN}', "NaN is not a number"),
        (b"\xff\xfe", "utf-8"),
        (b"{", "Expecting"),
    ],
)
def test_bad_json_answers_like_other_bad_input(
    raw: bytes, why: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    with pytest.raises(ValueError, match=why):
        read_json(raw)
    file = tmp_path / "brief.json"
    file.write_bytes(raw)
    assert main(["plan", str(file)]) == 2
    out = json.loads(capsys.readouterr().out)
    assert out["problems"][0]["key"] == "json"
    assert why in out["problems"][0]["says"]


def test_good_json_comes_back_as_it_is() -> None:
    text = (EXAMPLES / "linked-bracelet.json").read_bytes()
    assert read_json(text) == json.loads(text)

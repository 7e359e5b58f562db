"""Presets: ways to start a construction, each a brief that could have been typed."""

from copy import deepcopy
from typing import Any

import pytest

from jamreel.core.families import registered
from jamreel.core.families.base import Preset
from jamreel.core.plan import Plan, plan_raw, read_brief
from jamreel.core.shop import Shop
from jamreel.core.words import catalogue

PRESETS: list[tuple[str, Preset]] = [
    (kind, preset) for kind, cls in registered().items() for preset in cls.presets
]
MEASURES: dict[str, Any] = {
    "wrist_girth": {"readings": [{"value": "160"}]},
    "neck_base_girth": {"readings": [{"value": "380"}]},
    "brow_arc": {"readings": [{"value": "180"}]},
    "parting_arc": {"readings": [{"value": "95"}]},
}


def planned(kind: str, preset: Preset, /, **piece: Any) -> Plan:
    brief = {
        "schema": "0.2",
        "measures": deepcopy(MEASURES),
        "ease": {"school": "fixed", "word": "comfortable"},
        "piece": {"kind": kind, **deepcopy(preset.piece), **piece},
        "wire": dict(preset.wire),
    }
    return plan_raw(brief, Shop())


def figure(plan: Plan, name: str) -> float:
    return next(one.value_mm for one in plan.figures if one.id == name)


def test_there_are_the_three_that_were_constructions() -> None:
    names = {preset.name for _, preset in PRESETS}
    assert {"strung bracelet", "chain necklace", "forehead chain"} <= {
        name.replace("_", " ") for name in names
    }


@pytest.mark.parametrize(("kind", "preset"), PRESETS, ids=[p.name for _, p in PRESETS])
def test_a_preset_starts_its_own_construction_in_words(kind: str, preset: Preset) -> None:
    assert set(preset.piece) <= set(registered()[kind].model_fields)
    assert any(preset.name in key for key in catalogue("en"))


@pytest.mark.parametrize(("kind", "preset"), PRESETS, ids=[p.name for _, p in PRESETS])
def test_a_preset_is_planned_as_it_stands(kind: str, preset: Preset) -> None:
    plan = planned(kind, preset)
    assert figure(plan, "finished") > 0
    assert plan.needs
    assert plan.counted_out
    assert not [note for note in plan.advice if note.severity == "fix"]


@pytest.mark.parametrize(("kind", "preset"), PRESETS, ids=[p.name for _, p in PRESETS])
def test_what_reading_a_preset_fills_in_changes_nothing(kind: str, preset: Preset) -> None:
    """Written out with every default, it is the same piece."""
    brief = {"schema": "0.2", "measures": MEASURES, "wire": preset.wire}
    brief["piece"] = {"kind": kind, **preset.piece}
    whole = read_brief(brief, Shop()).piece.model_dump(mode="json")
    one, two = planned(kind, preset), planned(kind, preset, **whole)
    assert [cut.length_mm for cut in one.cuts] == pytest.approx([c.length_mm for c in two.cuts])
    assert figure(one, "finished") == pytest.approx(figure(two, "finished"))


def test_a_strung_bracelet_follows_its_wrist_bead_by_bead() -> None:
    kind, preset = next(row for row in PRESETS if "strung" in row[1].name)

    def beads(wrist: str) -> int:
        brief = {
            "measures": {"wrist_girth": {"readings": [{"value": wrist}]}},
            "piece": {"kind": kind, **deepcopy(preset.piece)},
            "wire": preset.wire,
        }
        plan = plan_raw(brief, Shop())
        return next(need.quantity for need in plan.needs if need.kind == "bead")

    small, large = beads("150"), beads("190")
    # 40 mm more of wrist are five beads of 8, give or take the last.
    assert large - small in (4, 5, 6)


def test_a_string_through_a_bought_clasp_has_no_loops_of_its_own() -> None:
    kind, preset = next(row for row in PRESETS if "strung" in row[1].name)
    through, wrapped = planned(kind, preset), planned(kind, preset, string_ends="wrapped")
    (run,), (looped,) = (
        [cut for cut in plan.cuts if "string" in cut.id] for plan in (through, wrapped)
    )
    # Through the clasp it is as long as its beads and two tails.
    assert run.length_mm == pytest.approx(figure(through, "body") + 2 * 50 + 2 * 1.5 + 20)
    assert looped.length_mm != pytest.approx(run.length_mm, abs=1)


def test_only_one_construction_is_suggested() -> None:
    suggested = [kind for kind, cls in registered().items() if cls.suggested]
    assert suggested == [next(iter(registered()))]

"""What nobody has touched says nothing against itself."""

from typing import Any

import pytest

from jamreel.core.families import registered
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from tests.conftest import EXAMPLES
from tests.core.families import example

SITES: dict[str, Any] = {
    "neck_girth": 360, "neck_base_girth": 380, "head_girth": 560, "crown_arc": 340,
    "ankle_girth": 220, "upper_arm_girth": 270, "finger_girth": 54, "brow_arc": 180,
    "parting_arc": 95, "wrist_girth": 160, "hand_pass_girth": 205,
}  # fmt: skip
# What belongs to the wearer, the bench or the metal, not to a choice that a new piece begins with.
OF_OTHERS = {
    # The bench lacks a nearer former, or a mill.
    "former_wide", "former_tight", "lacks", "no_torch",
    # The readings; how the coil as bought fits this wrist.
    "measure_limits", "coil_fit",
    # Hard steel, always: a caution.
    "own_shears",
    # A ring that goes over the hand is sprung open each time, whatever it is made of.
    "spring_hand_bends",
}  # fmt: skip
Start = tuple[str, dict[str, Any], dict[str, str]]
STARTS: list[Start] = [
    *((kind, {}, dict(cls.usual_wire)) for kind, cls in registered().items()),
    *(
        (kind, dict(preset.piece), dict(preset.wire))
        for kind, cls in registered().items()
        for preset in cls.presets
    ),
]


def measures() -> dict[str, Any]:
    found = {site: {"readings": [{"value": str(value)}] * 2} for site, value in SITES.items()}
    for path in sorted(EXAMPLES.glob("*.json")):
        found = {**example(path.stem).get("measures", {}), **found}
    return found


@pytest.mark.parametrize(("kind", "piece", "wire"), STARTS, ids=[row[0] for row in STARTS])
def test_a_new_piece_is_not_warned_of_what_it_was_started_with(
    kind: str, piece: dict[str, Any], wire: dict[str, str]
) -> None:
    shop = Shop.model_validate({"outfit": {"torch": True, "pickle": True}})
    plan = plan_raw({"measures": measures(), "piece": {"kind": kind, **piece}, "wire": wire}, shop)
    said = {one.id: one.says for one in plan.advice if one.severity != "note"}
    assert {key: says for key, says in said.items() if key not in OF_OTHERS} == {}


@pytest.mark.parametrize("temper", ["dead_soft", "half_hard"])
@pytest.mark.parametrize("metal", ["copper", "sterling", "gold_filled", "brass"])
def test_half_hard_ear_wires_and_wrapped_loops_on_3_mm_are_daily_work(
    metal: str, temper: str
) -> None:
    brief = example("linked_bracelet")
    entry = {"id": "e1", "part": {"kind": "linked_bead", "pin": "3"}, "fill": True}
    piece = {"kind": "linked_bracelet", "counted": True, "entries": [entry]}
    wire = {"size": "0.8 mm", "metal": metal, "temper": temper}
    plan = plan_raw({**brief, "wire": wire, "piece": piece}, Shop())
    assert not [one.id for one in plan.advice if one.id.startswith(("bend_", "work_cracks"))]

"""Counts that come to the length: the nearest, both sides of a middle alike, a lone body once."""

from typing import Any

import pytest

from jamreel.core.makeup.fill import MOST_COUNTED
from jamreel.core.plan import Plan, plan_raw, propose_raw
from jamreel.core.shop import Shop
from tests.core.families import figure, ledger

SOFT = {"size": "0.8 mm", "metal": "copper", "temper": "dead_soft"}


def brief(wrist: float, *entries: dict[str, Any], **piece: Any) -> dict[str, Any]:
    readings = [{"value": str(wrist)}] * 2
    own = {"kind": "linked_bracelet", "counted": True, "entries": list(entries), **piece}
    return {"measures": {"wrist_girth": {"readings": readings}}, "wire": SOFT, "piece": own}


def counts(plan: Plan) -> dict[str, Any]:
    return {".".join(map(str, one.path)): one.value for one in plan.counted_out}


@pytest.mark.parametrize("wrist", [168.0, 170.0, 172.3, 175.0])
@pytest.mark.parametrize("closure", ["toggle", "bought_clasp", "own_hook"])
def test_a_counted_lattice_comes_as_near_as_rows_and_rings_can(wrist: float, closure: str) -> None:
    raw = brief(
        wrist, {"id": "e1", "part": {"kind": "lattice"}, "fill": True}, closure={"kind": closure}
    )
    got = propose_raw(raw, Shop())
    now = next(one for one in got if one.now)
    # Rows and rings are all that may be set without asking.
    plainly = [one for one in got if not any("closure" in edit.path for edit in one.edits)]
    nearest = min(abs(one.off_mm) for one in plainly)
    # Within what the wrist is known to, makers only count. Past it what fits is taken, and where
    # nothing does, the nearest; half a millimetre is not worth a ring.
    assert now.exact or not any(one.exact for one in plainly)
    assert now.exact or abs(now.off_mm) < nearest + 0.4


def test_two_entries_counted_to_fit_are_counted_alike_on_both_sides_of_a_middle() -> None:
    bead = {"kind": "linked_bead", "bead": 6, "pin": 3}
    middle = {"id": "m", "part": {"kind": "eye_link", "pin": 4}, "times": 3}
    sides = [{"id": name, "part": bead, "fill": True, "times": 1} for name in ("left", "right")]
    plan = plan_raw(brief(190, sides[0], middle, sides[1], rings=0), Shop())
    found = counts(plan)
    assert found["entries.0.times"] == found["entries.2.times"]
    # Typed out so, it comes to the same; a bead more on both sides or less is further off.
    wanted = ledger(plan, "wanted")
    off = {}
    for n in (found["entries.0.times"] + k for k in (-1, 0, 1)):
        rows = [{**sides[0], "times": n}, middle, {**sides[1], "times": n}]
        typed = plan_raw(brief(190, *rows, counted=False, rings=0), Shop())
        off[n] = abs(ledger(typed, "fastened") - wanted)
    assert min(off, key=lambda n: off[n]) == found["entries.0.times"]


@pytest.mark.parametrize("kind", ["braid", "flat_plait", "ladder", "chain"])
def test_a_lone_body_is_its_own_mirror(kind: str) -> None:
    entry = {"id": "e1", "part": {"kind": kind}, "fill": True}
    closure = {"kind": "bought_clasp"}
    plain = plan_raw(brief(170, entry, closure=closure), Shop())
    mirrored = plan_raw(brief(170, entry, closure=closure, mirrored=True), Shop())
    assert [cut.length_mm for cut in mirrored.cuts] == [cut.length_mm for cut in plain.cuts]
    assert {one.id for one in mirrored.advice} == {one.id for one in plain.advice}
    assert figure(mirrored, "finished") == pytest.approx(figure(plain, "finished"))


def test_a_lone_bead_is_still_mirrored() -> None:
    entry = {"id": "e1", "part": {"kind": "linked_bead"}, "times": 1}
    plan = plan_raw(brief(170, entry, counted=False, mirrored=True), Shop())
    assert sum(need.quantity for need in plan.needs if need.kind == "bead") == 2


@pytest.mark.parametrize("kind", ["knot_row", "ladder", "braid", "coil_mesh", "lattice"])
@pytest.mark.parametrize("rows", [12, 200])
def test_advice_says_the_count_that_is_proposed(kind: str, rows: int) -> None:
    entry = {"id": "e1", "part": {"kind": kind, "rows": rows}, "fill": True}
    raw = brief(170, entry, counted=False, closure={"kind": "bought_clasp"})
    said = next(a for a in plan_raw(raw, Shop()).advice if a.id.startswith("make_up_"))
    plain = [one for one in propose_raw(raw, Shop()) if len(one.edits) == 1]
    proposed = {one.edits[0].value for one in plain if one.edits[0].path[-1] == "rows"}
    told = int(said.try_.removeprefix("Take ").partition(" instead")[0])
    # Of two that are nearly as near either may be said.
    assert told in proposed


def test_more_than_a_piece_can_have_is_never_advised() -> None:
    """An arm of 450 in beads of 0.6 would take some 750; no line of parts has so many."""
    entry = {"id": "e1", "part": {"kind": "bead", "bead": "0.6", "hole": "0.3"}, "times": 90}
    plan = plan_raw(
        {
            **brief(170, entry, counted=False, closure={"kind": "bought_clasp"}),
            "measures": {"upper_arm_girth": {"readings": [{"value": "450"}]}},
            "wire": {"size": "0.2 mm", "metal": "copper", "temper": "dead_soft"},
            "piece": {
                "kind": "linked_armlet", "counted": False, "entries": [entry],
                "closure": {"kind": "bought_clasp"},
            },
        },
        Shop(),
    )  # fmt: skip
    said = next(one for one in plan.advice if one.id == "make_up_short")
    right = int(said.try_.removeprefix("Take ").partition(" instead")[0])
    assert 90 < right <= MOST_COUNTED < 450 / 0.6

"""A maker tells how far a piece is; the rest of it is planned from there."""

from typing import Any

import pytest
from django.test import Client

from jamreel.core.plan import BriefRefused, Plan
from jamreel.workshop.making import tick
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.on_the_way import plan_on, what_follows
from jamreel.workshop.pieces import StaleSave, start_piece
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.shops import change_settings
from jamreel.workshop.turns import PutAway, whole_piece
from tests.core.families import example

LADDER = {"id": "e1", "part": {"kind": "ladder", "bead": "6"}}
LINKS = {"id": "e1", "part": {"kind": "linked_bead"}, "times": 10, "fill": True}


def piece_of(bench: Workshop, entry: dict[str, Any]) -> Piece:
    brief = example("linked_bracelet")
    brief["piece"] = {**brief["piece"], "entries": [entry], "counted": True}
    return start_piece(bench, "Rows", brief)


def plan(bench: Workshop, piece: Piece) -> Plan:
    found = plan_of(whole_piece(bench, piece.pk), shop_of(bench)).plan
    assert found is not None
    return found


def test_nothing_is_kept_until_it_is_planned_on(bench: Workshop) -> None:
    piece = piece_of(bench, LADDER)
    before = plan(bench, piece)
    told = {"entry": "e1", "count": "10", "over": "68"}
    found = what_follows(bench, piece.pk, told)
    assert found.gone.in_all != before.woven[0].rows
    assert plan(bench, piece).woven[0].rows == before.woven[0].rows
    plan_on(bench, piece.pk, piece.version, told)
    after = plan(bench, piece)
    assert after.woven[0].rows == found.gone.in_all
    # The rows are counted now; the plan counts them no more by itself.
    kept = whole_piece(bench, piece.pk).head
    assert kept is not None
    assert kept.brief["piece"]["counted"] is False
    assert kept.brief["piece"]["entries"][0]["so_far"]["count"] == "10"


def test_a_piece_in_inches_keeps_what_is_made_in_its_own_unit(bench: Workshop) -> None:
    change_settings(bench, lambda typed: {"unit": "in"})
    bench.refresh_from_db()
    brief = example("linked_bracelet")
    brief["piece"] = {**brief["piece"], "entries": [{"id": "e1", "part": {"kind": "ladder"}}]}
    brief |= {"unit": "in", "measures": {"wrist_girth": {"readings": [{"value": "6 1/4"}]}}}
    brief["cutting"] = {"trim": "0.06"}
    piece = start_piece(bench, "Inches", brief)
    before = plan(bench, piece).woven[0].pitch_mm
    # Ten rows over 1 3/4 in are 4.445 mm each.
    told = {"entry": "e1", "count": "10", "over": "1 3/4", "left": ""}
    plan_on(bench, piece.pk, piece.version, told)
    after = plan(bench, piece).woven[0].pitch_mm
    assert after == pytest.approx(1.75 * 25.4 / 10, abs=0.001)
    assert after != pytest.approx(before, abs=0.05)


def test_wires_that_serve_are_named_and_what_is_still_to_be_cut_and_bought(bench: Workshop) -> None:
    piece = piece_of(bench, LINKS)
    links = next(one for one in plan(bench, piece).cuts if one.id == "e1/linked_bead")
    for n in range(1, 6):
        tick(bench, piece.pk, "cut", f"{links.id}#{n}")
    found = what_follows(bench, piece.pk, {"entry": "e1", "count": "4", "over": "60"})
    assert found.gone.in_all > links.quantity
    # Five are cut and serve; the others, and one more bead for each more link, are wanted.
    assert [(one.label, one.count) for one in found.serves] == [(links.label, 5)]
    still = {one.label: one.count for one in found.to_cut}
    assert still[links.label] == found.gone.in_all - 5
    ((need, more),) = found.to_buy
    assert need.kind == "bead"
    assert more == found.gone.in_all - links.quantity


def test_ticks_stay_on_their_steps(bench: Workshop) -> None:
    piece = piece_of(bench, LADDER)
    first = next(one.id for one in plan(bench, piece).steps if one.id.startswith("e1/"))
    tick(bench, piece.pk, "step", first)
    told = {"entry": "e1", "count": "10", "over": "68"}
    plan_on(bench, piece.pk, whole_piece(bench, piece.pk).version, told)
    planned = plan_of(whole_piece(bench, piece.pk), shop_of(bench))
    assert [one.key for one in planned.standing.steps] == [first]


def test_what_can_not_be_so_and_what_moved_meanwhile_is_refused(bench: Workshop) -> None:
    piece = piece_of(bench, LINKS)
    with pytest.raises(BriefRefused) as refused:
        what_follows(bench, piece.pk, {"entry": "e1", "count": "4", "over": "9"})
    assert [one.field for one in refused.value.problems] == ["so_far.over"]
    told = {"entry": "e1", "count": "4", "over": "64"}
    with pytest.raises(StaleSave):
        plan_on(bench, piece.pk, piece.version + 1, told)
    Piece.objects.filter(pk=piece.pk).update(put_away_at="2026-11-01T10:00:00Z")
    with pytest.raises(PutAway):
        plan_on(bench, piece.pk, piece.version, told)


def test_bench_mode_asks_how_far_and_goes_on(bench: Workshop, client: Client) -> None:
    piece = piece_of(bench, LADDER)
    path = f"/api/pieces/{piece.pk}/bench"
    view = client.get(path).json()
    (way,) = view["ways"]
    assert way["entry"] == "e1"
    assert way["wire"] == "working wire"
    asked = {one["step"]["id"] for one in view["steps"] if one["step"].get("way") == "e1"}
    assert asked == {"e1/ladder_return", "e1/woven_join"}
    told = {"entry": "e1", "count": "10", "over": "68", "left": "", "happened": "ran_out"}
    found = client.post(f"{path}/so-far", told, content_type="application/json")
    assert found.status_code == 200
    assert found.json()["gone"]["joins_after"][0] == 10
    kept = client.put(
        f"{path}/so-far", {**told, "version": view["version"]}, content_type="application/json"
    )
    assert kept.status_code == 200
    (now,) = kept.json()["ways"]
    assert now["done"] == 10
    wrong = client.post(f"{path}/so-far", {**told, "over": "far"}, content_type="application/json")
    assert wrong.status_code == 422
    assert wrong.json()["problems"][0]["field"] == "so_far.over"

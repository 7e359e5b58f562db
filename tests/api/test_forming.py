"""Form over the API: wires after every step, formers as files, trials that are counted with."""

from typing import Any

import pytest
from django.test import Client

from jamreel.workshop.models import Stock, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock
from tests.core.families import example


@pytest.fixture
def reel(bench: Workshop) -> int:
    wire = {"size": "2 mm", "metal": "copper", "temper": "half_hard"}
    return add_stock(bench, {"kind": "reel", "name": "big", "wire": wire, "amount": "3 m"}).pk


@pytest.fixture
def cuff(bench: Workshop) -> int:
    wire = {"size": "2 mm", "metal": "copper", "temper": "half_hard"}
    return start_piece(bench, "Cuff", {**example("open_cuff"), "wire": wire}).pk


def send(client: Client, path: str, body: Any) -> Any:
    return client.post(path, body, content_type="application/json")


def former(client: Client, piece: int) -> dict[str, Any]:
    (found,) = client.get(f"/api/pieces/{piece}").json()["plan"]["formers"]
    return dict(found)


def test_what_it_came_off_at_is_kept_with_the_reel_and_counted_with(
    client: Client, reel: int, cuff: int
) -> None:
    before = former(client, cuff)
    answer = send(client, f"/api/stock/{reel}/trial", {"former": "56", "came_off": "60.5"})
    assert answer.status_code == 200
    (stock,) = answer.json()["stock"]
    # Softer than the table's 210: it opened to 60.5 instead of 61.61.
    assert 160 < stock["trial"]["yield_mpa"] < 180
    after = former(client, cuff)
    assert after["target_mm"] == before["target_mm"]
    assert after["former_mm"] > before["former_mm"]
    plan = client.get(f"/api/pieces/{cuff}").json()["plan"]
    told = next(one for one in plan["advice"] if one["id"] == "yield_measured")
    assert "big" in told["says"]
    assert "210" in told["says"]
    # Taken back, everything is as it was.
    send(client, f"/api/stock/{reel}/trial", {})
    assert former(client, cuff) == before
    assert Stock.objects.get(pk=reel).trial == {}


def test_wire_of_another_temper_is_not_meant(client: Client, reel: int, bench: Workshop) -> None:
    soft = {"size": "2 mm", "metal": "copper", "temper": "dead_soft"}
    piece = start_piece(bench, "Soft", {**example("open_cuff"), "wire": soft}).pk
    before = former(client, piece)
    send(client, f"/api/stock/{reel}/trial", {"former": "56", "came_off": "60.5"})
    assert former(client, piece) == before


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({"former": "56", "came_off": "56"}, "came_off"),
        ({"former": "56", "came_off": "40"}, "came_off"),
        ({"former": "56", "came_off": "5600"}, "came_off"),
        ({"former": "1", "came_off": "3"}, "former"),
        ({"former": "56"}, "came_off"),
        ({"came_off": "60"}, "former"),
        ({"former": "a jar", "came_off": "60"}, "former"),
    ],
)
def test_a_trial_that_can_not_be_is_refused_by_its_field(
    client: Client, reel: int, typed: dict[str, str], field: str
) -> None:
    answer = send(client, f"/api/stock/{reel}/trial", typed)
    assert answer.status_code == 422
    assert answer.json()["field"] == field
    assert Stock.objects.get(pk=reel).trial == {}


def test_beads_are_not_wound(client: Client, bench: Workshop) -> None:
    bead = add_stock(bench, {"kind": "bead", "name": "glass", "size": "4 mm", "amount": "3"}).pk
    answer = send(client, f"/api/stock/{bead}/trial", {"former": "56", "came_off": "60"})
    assert (answer.status_code, answer.json()["field"]) == (422, "stock")


def test_a_strangers_reel_and_piece_are_not_there(stranger: Client, reel: int, cuff: int) -> None:
    assert send(stranger, f"/api/stock/{reel}/trial", {"former": "5"}).status_code == 404
    for path in ("wires", "former.pdf", "former.svg", "former.dxf"):
        assert stranger.get(f"/api/pieces/{cuff}/{path}").status_code == 404


def test_the_former_comes_in_three_forms(client: Client, cuff: int) -> None:
    starts = {"pdf": b"%PDF", "svg": b"<?xml", "dxf": b"  0\n"}
    for form, start in starts.items():
        answer = client.get(f"/api/pieces/{cuff}/former.{form}")
        assert answer.status_code == 200
        assert answer.content.startswith(start)
    assert client.get(f"/api/pieces/{cuff}/former.stl").status_code in (404, 422)


def test_what_has_no_oval_has_no_former_to_cut(client: Client, bench: Workshop) -> None:
    piece = start_piece(bench, "Slides", example("sliding_bangle")).pk
    assert client.get(f"/api/pieces/{piece}/former.svg").status_code == 404


def test_wires_come_by_entry_with_a_stage_for_every_step_that_shapes_them(
    client: Client, bench: Workshop, cuff: int
) -> None:
    (ring,) = client.get(f"/api/pieces/{cuff}/wires").json()["wires"]
    assert [stage["step"] for stage in ring["stages"]] == ["", "shape"]
    lines = [stage["line"] for stage in ring["stages"]]
    # As cut it is straight, then it is a ring with a gap.
    assert {y for _, y in lines[0]} == {0.0}
    assert len({y for _, y in lines[1]}) > 20
    piece = start_piece(bench, "Links", example("linked_bracelet")).pk
    found = client.get(f"/api/pieces/{piece}/wires", {"entry": "closure"}).json()["wires"]
    assert {one["id"] for one in found} == {"closure/eye", "closure/folded_hook"}
    assert client.get(f"/api/pieces/{piece}/wires", {"entry": "nobody"}).json() == {"wires": []}

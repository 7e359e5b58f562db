"""The board over the API: whom a wire is for, what is wanted, what can't be asked."""

import csv
import io
import json
from copy import deepcopy
from typing import Any

import pytest
from django.test import Client

from jamreel.workshop import making
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock
from tests.conftest import put_away
from tests.core.families import example

Row = dict[str, Any]


def post(client: Client, path: str, body: Row) -> Any:
    return client.post(path, json.dumps(body), content_type="application/json")


@pytest.fixture
def links(bench: Workshop) -> Piece:
    return start_piece(bench, "Links", example("linked_bracelet"))


@pytest.fixture
def twin(bench: Workshop) -> Piece:
    return start_piece(bench, "Twin", example("linked_bracelet"))


@pytest.fixture
def reel(bench: Workshop) -> int:
    wire = {"size": "20 awg", "metal": "copper"}
    return add_stock(bench, {"kind": "reel", "wire": wire, "amount": "3 m", "tare": "31 g"}).pk


def board(client: Client, *pieces: Piece) -> Row:
    found: Row = client.get("/api/board", {"pieces": ",".join(str(p.pk) for p in pieces)}).json()
    return found


def cuts(found: Row) -> list[Row]:
    return [c for group in found["groups"] for lane in group["lanes"] for c in lane["cuts"]] + [
        c for group in found["groups"] for c in group["unplaced"]
    ]


def test_wires_alike_lie_together_and_say_whom_they_are_for(
    client: Client, links: Piece, twin: Piece, reel: int
) -> None:
    found = board(client, links, twin)
    assert found["pieces"] == ["Links", "Twin"]
    mine = [cut for cut in cuts(found) if cut["key"].startswith("e1/")]
    assert len(mine) == 20
    assert {cut["piece"] for cut in mine} == {"Links", "Twin"}
    assert len({(cut["piece_id"], cut["key"]) for cut in mine}) == 20
    assert len({cut["length_mm"] for cut in mine}) == 1
    (lane,) = next(g for g in found["groups"] if any(n["stock_id"] == reel for n in g["lanes"]))[
        "lanes"
    ]
    assert lane["left_mm"] == pytest.approx(3000 - 20 * mine[0]["length_mm"], abs=2.1)


def test_a_ticked_wire_leaves_the_board_for_its_own_piece_only(
    client: Client, links: Piece, twin: Piece
) -> None:
    tick = {"kind": "cut", "key": "e1/linked_bead#3"}
    assert post(client, f"/api/pieces/{twin.pk}/ticks", tick).status_code == 200
    left = [(cut["piece"], cut["key"]) for cut in cuts(board(client, links, twin))]
    assert ("Links", "e1/linked_bead#3") in left
    assert ("Twin", "e1/linked_bead#3") not in left
    assert len([one for one in left if one[0] == "Twin" and "linked_bead" in one[1]]) == 9


def test_the_board_is_the_same_whenever_it_is_asked(
    client: Client, links: Piece, reel: int
) -> None:
    first = board(client, links)
    assert board(client, links) == first


@pytest.mark.parametrize("pieces", ["999", "1,999", "999999999"])
def test_a_piece_that_is_not_there_is_not_found(client: Client, links: Piece, pieces: str) -> None:
    for path in ("/api/board", "/api/board/buy.csv", "/api/board/strip.pdf"):
        assert client.get(path, {"pieces": pieces}).status_code == 404


@pytest.mark.parametrize("nonsense", ["all of them", "²", "1,x", "-1", "9" * 30, "1.5"])
def test_nonsense_for_pieces_is_refused_by_name(client: Client, nonsense: str) -> None:
    answer = client.get("/api/board", {"pieces": nonsense})
    assert answer.status_code == 422
    assert answer.json()["field"] == "pieces"
    assert answer.json()["got"] in nonsense


def test_a_piece_counts_once_on_a_board(client: Client, bench: Workshop, brief: Row) -> None:
    piece = start_piece(bench, "Ready", brief)
    once = client.get("/api/board", {"pieces": f"{piece.pk}"}).json()
    assert client.get("/api/board", {"pieces": f"{piece.pk}, {piece.pk},"}).json() == once
    assert once["pieces"] == ["Ready"]


def test_a_stranger_sees_no_board_of_anothers(stranger: Client, links: Piece) -> None:
    assert stranger.get("/api/board").json()["pieces"] == []
    assert stranger.get("/api/board", {"pieces": links.pk}).status_code == 404


def test_a_piece_that_can_not_be_planned_keeps_off_the_board(client: Client, links: Piece) -> None:
    brief = deepcopy(example("linked_bracelet"))
    brief["wire"]["size"] = "nonsense"
    body = {"version": links.version, "brief": brief}
    client.put(f"/api/pieces/{links.pk}/brief", json.dumps(body), content_type="application/json")
    found = board(client, links)
    assert found["groups"] == []


def test_cuts_of_another_metal_are_a_group_of_their_own(client: Client, bench: Workshop) -> None:
    brief = example("linked_bracelet")
    brief["palette"] = {"closure": {"size": "18 awg", "metal": "brass", "temper": "half_hard"}}
    piece = start_piece(bench, "Two metals", brief)
    labels = {group["label"] for group in board(client, piece)["groups"]}
    assert len(labels) == 2
    assert any("brass" in label for label in labels)
    assert any("copper" in label for label in labels)
    colours = {group["colour"] for group in board(client, piece)["groups"]}
    assert len(colours) == 2


def test_stock_of_another_metal_is_never_cut_from(
    client: Client, links: Piece, bench: Workshop
) -> None:
    brass = {"kind": "reel", "wire": {"size": "20 awg", "metal": "brass"}, "amount": "9 m"}
    add_stock(bench, brass)
    assert all(
        lane["stock_id"] is None for g in board(client, links)["groups"] for lane in g["lanes"]
    )


def test_what_is_to_buy_is_listed_for_the_shop(client: Client, links: Piece) -> None:
    answer = client.get("/api/board/buy.csv", {"pieces": links.pk})
    assert answer["Content-Type"].startswith("text/csv")
    rows = list(csv.reader(io.StringIO(answer.content.decode("utf-8-sig"))))
    assert len(rows) > 2
    assert len({len(row) for row in rows}) == 1
    text = answer.content.decode()
    assert "copper" in text
    assert "bead" in text


def test_mass_and_scrap_add_up(client: Client, links: Piece, reel: int) -> None:
    found = board(client, links)
    for group in found["groups"]:
        placed = sum(c["length_mm"] for lane in group["lanes"] for c in lane["cuts"])
        per_mm = 3.14159265 / 4 * group["wire_mm"] ** 2 * 8.94e-3
        assert group["mass_g"] == pytest.approx(placed * per_mm, rel=1e-3)
        assert group["scrap_mm"] == pytest.approx(sum(n["scrap_mm"] for n in group["lanes"]))
        assert group["scrap_g"] == pytest.approx(group["scrap_mm"] * per_mm, rel=1e-3, abs=1e-6)
        for lane in group["lanes"]:
            used = sum(c["length_mm"] for c in lane["cuts"])
            assert used <= lane["length_mm"] + 0.1
            assert lane["left_mm"] == pytest.approx(lane["length_mm"] - used, abs=0.1 * 20)


def test_beads_to_fetch_name_their_piece_and_their_tray(
    client: Client, links: Piece, bench: Workshop
) -> None:
    add_stock(bench, {"kind": "bead", "name": "reed jar", "size": "6", "hole": "1", "amount": "40"})
    found = board(client, links)
    row = next(one for one in found["fetch"] if one["label"] == "beads")
    assert (row["piece_id"], row["quantity"]) == (links.pk, 10)
    tray = next(one for one in row["trays"] if one["name"] == "reed jar")
    assert (tray["amount"], tray["fits"]) == (40, True)
    assert not [one for one in found["short"] if one["label"] == "beads"]


def test_beads_that_are_lacking_are_counted_together(
    client: Client, links: Piece, twin: Piece
) -> None:
    found = board(client, links, twin)
    assert next(one for one in found["short"] if one["label"] == "beads")["count"] == 20


def test_a_board_of_nothing_is_empty_and_well(client: Client, bench: Workshop) -> None:
    found = client.get("/api/board").json()
    assert (found["groups"], found["fetch"], found["short"]) == ([], [], [])
    assert found["fetch_cost"] == 0


def movements(client: Client, stock: int) -> list[Row]:
    rack = client.get("/api/stock").json()["stock"]
    found: list[Row] = next(one for one in rack if one["id"] == stock)["movements"]
    return found


@pytest.mark.parametrize(
    ("body", "status"),
    [
        ({"amount": "2 m", "reason": "used"}, 200),
        ({"amount": "40 m", "reason": "used"}, 422),
        ({"amount": "nonsense", "reason": "used"}, 422),
        ({"amount": "1 m", "reason": "stolen"}, 422),
        ({"amount": "-1 m", "reason": "bought"}, 422),
        ({}, 422),
    ],
)
def test_a_movement_is_made_or_refused_whole(
    client: Client, reel: int, body: Row, status: int
) -> None:
    before = len(movements(client, reel))
    answer = post(client, f"/api/stock/{reel}/movements", body)
    assert answer.status_code == status
    assert len(movements(client, reel)) == before + (status == 200)


def test_what_is_spoiled_leaves_the_rack_with_its_reason(client: Client, reel: int) -> None:
    answer = post(client, f"/api/stock/{reel}/spoil", {"amount": "85", "note": "slipped"})
    assert answer.status_code == 200
    last = movements(client, reel)
    assert any(m["amount"] == pytest.approx(-85) and m["reason"] == "spoiled" for m in last)


def test_what_was_put_away_is_gone_from_rack_and_board(
    client: Client, links: Piece, reel: int
) -> None:
    assert any(n["stock_id"] == reel for g in board(client, links)["groups"] for n in g["lanes"])
    put_away(client, "stock", reel)
    assert client.get("/api/stock").json()["stock"] == []
    lanes = [lane for g in board(client, links)["groups"] for lane in g["lanes"]]
    assert all(lane["stock_id"] is None for lane in lanes)
    # Put away a second time, from another tab: nothing more happens.
    put_away(client, "stock", reel)


def test_what_is_bought_is_paid_whole_and_what_has_no_price_is_named(
    client: Client, bench: Workshop, links: Piece
) -> None:
    wire = {"size": "20 awg", "metal": "copper"}
    stub = {"kind": "offcut", "wire": wire, "amount": "10 mm", "price": "2"}
    add_stock(bench, stub)
    shop = {"pricing": {"currency": "€"}}
    client.put("/api/shop", {"version": 1, "shop": shop}, content_type="application/json")
    found = board(client, links)
    group = next(one for one in found["groups"] if one["buy_count"])
    # Every length that is bought, at 2 a metre, whatever is cut from it.
    whole = group["buy_count"] * group["buy_each_mm"] / 1000 * 2
    assert group["cost"] == pytest.approx(whole)
    taken = sum(cut["length_mm"] for lane in group["lanes"] for cut in lane["cuts"])
    assert whole > taken / 1000 * 2
    assert found["currency"] == "€"
    # Beads lie on no tray, so they have no price; the wire has.
    assert found["unpriced"]
    assert group["label"] not in found["unpriced"]


def test_a_finished_piece_has_no_price_until_nothing_is_missing(
    client: Client, bench: Workshop, brief: Row
) -> None:
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "3 m"})
    piece = start_piece(bench, "Bangle", brief)

    def priced(hour: float) -> Row:
        version = client.get("/api/shop").json()["version"]
        body = {"version": version, "shop": {"pricing": {"hour": hour}}}
        client.put("/api/shop", body, content_type="application/json")
        entry = client.get("/api/log").json()["entries"][0]["id"]
        found: Row = client.get(f"/api/log/{entry}").json()
        return found

    def finished(done: bool) -> None:
        post(client, f"/api/pieces/{piece.pk}/finish", {"finished": done})

    making.tick(bench, piece.pk, "cut", "bangle", "245", reel.pk)
    finished(True)
    bare = priced(0)
    assert (bare["price"], bare["missing"]) == (None, ["hour", "material"])
    assert bare["unpriced"] == reel.name
    assert priced(30)["missing"] == ["material"]
    assert priced(30)["price"] is None
    finished(False)
    reel.price = 4.0
    reel.save()
    finished(True)
    whole = priced(30)
    assert (whole["missing"], whole["unpriced"]) == ([], "")
    assert whole["material"] == pytest.approx(0.245 * 4)
    assert whole["price"] == pytest.approx(0.98 + whole["minutes_planned"] / 60 * 30)

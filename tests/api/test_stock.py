"""The rack and the board over the API: two tabs, devices, papers, labels."""

import io
from pathlib import Path
from typing import Any

import pdfplumber
import pytest
from django.conf import settings
from django.test import Client
from PIL import Image

from jamreel.workshop.models import Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock
from tests.core.families import example

MM = 72 / 25.4


@pytest.fixture
def piece(bench: Workshop) -> int:
    return start_piece(bench, "Links", example("linked_bracelet")).pk


@pytest.fixture
def reel(bench: Workshop) -> int:
    wire = {"size": "20 awg", "metal": "copper"}
    typed = {"kind": "reel", "name": "big", "wire": wire, "amount": "3 m", "tare": "31 g"}
    return add_stock(bench, {**typed, "price": "0.5", "low": "2.5 m"}).pk


def send(client: Client, method: str, path: str, body: Any = None) -> Any:
    return getattr(client, method)(path, body or {}, content_type="application/json")


def test_two_tabs_tick_the_same_wire_and_one_is_told(client: Client, piece: int, reel: int) -> None:
    tick = {"kind": "cut", "key": "e1/linked_bead#1", "stock_id": reel}
    first, second = (send(client, "post", f"/api/pieces/{piece}/ticks", tick) for _ in range(2))
    assert (first.status_code, second.status_code) == (200, 409)
    assert "another tab" in second.json()["detail"]
    (stock,) = client.get("/api/stock").json()["stock"]
    assert stock["amount"] == pytest.approx(3000 - 80.9, abs=0.05)
    send(client, "post", f"/api/pieces/{piece}/ticks", {**tick, "ticked": False})
    (stock,) = client.get("/api/stock").json()["stock"]
    assert stock["amount"] == pytest.approx(3000)
    assert [m["undone"] for m in stock["movements"]] == [False, True, False]


def test_the_board_has_lanes_to_cut_from_and_a_list_to_buy(
    client: Client, piece: int, reel: int
) -> None:
    board = client.get("/api/board", {"pieces": piece}).json()
    on_reel, to_buy = board["groups"]
    (lane,) = on_reel["lanes"]
    assert (lane["stock_id"], len(lane["cuts"])) == (reel, 10)
    assert on_reel["optimal"]
    assert on_reel["cost"] == pytest.approx(10 * 80.9 / 1000 * 0.5, abs=0.001)
    assert to_buy["buy_count"] == 1
    csv = client.get("/api/board/buy.csv", {"pieces": piece}).content.decode()
    assert '"18 AWG (1.02 mm) copper, half-hard",1,1000' in csv


def test_all_strips_of_a_board_are_true_to_scale(client: Client, piece: int, reel: int) -> None:
    pdf = client.get("/api/board/strip.pdf", {"pieces": piece})
    with pdfplumber.open(io.BytesIO(pdf.content)) as found:
        text = "".join(page.extract_text() for page in found.pages)
        for page in found.pages:
            lengths = [(line["x1"] - line["x0"]) / MM for line in page.lines]
            assert any(length == pytest.approx(100, abs=0.1) for length in lengths)
            assert any(length == pytest.approx(101.6, abs=0.1) for length in lengths)
    assert "Links: 10 × linked bead wire" in text


def test_scale_and_calliper_send_plain_text_that_their_fields_read(
    client: Client, reel: int
) -> None:
    line = client.get("/api/devices/scale", {"stock_id": reel}).json()["text"]
    assert line.endswith(" g\r\n")
    weighed = send(client, "post", f"/api/stock/{reel}/weigh", {"reading": line}).json()
    # A tenth of a gram is 22 mm of this wire; half of that to round, half to stray.
    assert weighed["length_mm"] == pytest.approx(3000, abs=25)
    assert 10 < weighed["plus_minus_mm"] < 12
    ounces = client.get(f"/api/devices/scale?stock_id={reel}&unit=oz").json()["text"]
    again = send(client, "post", f"/api/stock/{reel}/weigh", {"reading": ounces}).json()
    # What lies on the scale is what was weighed before, to a thousandth of an ounce.
    assert again["length_mm"] == pytest.approx(weighed["length_mm"], abs=26)
    inches = client.get(f"/api/devices/calliper?stock_id={reel}&unit=in").json()["text"]
    sensed = send(client, "post", "/api/gauges/sense", {"size": inches.strip(), "hole": "1.7"})
    assert sensed.json()["awg"]["number"] == 20
    assert sensed.json()["through"]["wires"] == 2


def test_the_rack_says_what_is_low_and_which_word_means_two_wires(
    client: Client, reel: int
) -> None:
    rack = client.get("/api/stock").json()
    assert not rack["stock"][0]["is_low"]
    assert rack["two_diameters"] == []
    move = {"amount": "60 cm", "reason": "used"}
    send(client, "post", f"/api/stock/{reel}/movements", move)
    other = {"kind": "reel", "name": "old", "wire": {"size": "20 swg"}, "amount": "1 m"}
    rack = send(client, "post", "/api/stock", {"stock": other}).json()
    assert [s["is_low"] for s in rack["stock"]] == [True, False]
    assert rack["two_diameters"] == [
        "“20” means two wires on this rack: 0.81 mm (big), 0.91 mm (old)."
    ]


def test_labels_are_pictures_in_the_outbox(
    client: Client, piece: int, reel: int, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "DATA", tmp_path)
    printed = send(client, "post", f"/api/board/labels?pieces={piece}").json()["labels"]
    assert len(printed) == 3
    found = sorted(p.name for p in tmp_path.rglob("*.png"))
    assert found == sorted(printed)
    with Image.open(next(tmp_path.rglob("*.png"))) as label:
        assert label.size == (600, 300)
        assert label.convert("L").getextrema() == (0, 255)


def test_refusals_name_their_field(client: Client, reel: int) -> None:
    bad = send(client, "post", f"/api/stock/{reel}/weigh", {"reading": "3 g"})
    assert bad.status_code == 422
    assert bad.json()["field"] == "mass"
    short = {"amount": "4 m", "reason": "used"}
    refused = send(client, "post", f"/api/stock/{reel}/movements", short)
    assert "only 3000 left of big" in refused.json()["detail"]
    assert send(client, "post", "/api/gauges/sense", {"size": "0.08"}).status_code == 422

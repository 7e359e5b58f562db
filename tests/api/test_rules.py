"""Rules that were passed by: what is taken is what is wanted, whose it is, and once."""

import csv
import io
import json
import threading
from typing import Any

import pytest
from django.db import connection
from django.test import Client

from jamreel.workshop import making
from jamreel.workshop.csv_text import armless, harmless, read_rows, write_rows
from jamreel.workshop.measures_csv import import_rows, read_csv
from jamreel.workshop.models import Piece, Reading, Stock, Tick, TryOnRecord, Wearer, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock, amount_of
from jamreel.workshop.wearers import keep_readings
from tests.conftest import put_away
from tests.core.families import example

Row = dict[str, Any]
RUNS = ["=1+1", "+1", "-1", "@SUM(A1)", "\t=1", "|calc", " =1+1"]


def send(client: Client, path: str, body: Row) -> Any:
    return client.post(path, json.dumps(body), content_type="application/json")


@pytest.fixture
def piece(bench: Workshop, brief: Row) -> Piece:
    return start_piece(bench, "Bangle", brief)


def reel_of(bench: Workshop, **more: Any) -> Stock:
    wire = {"size": "14 AWG", "metal": "copper", "temper": "half_hard"}
    return add_stock(bench, {"kind": "reel", "wire": wire, "amount": "10 m", **more})


def test_a_cut_comes_off_the_wire_that_it_is_planned_in(
    client: Client, bench: Workshop, piece: Piece
) -> None:
    soft = reel_of(bench, wire={"size": "14 AWG", "metal": "copper", "temper": "dead_soft"})
    thin = reel_of(bench, wire={"size": "18 AWG", "metal": "copper", "temper": "half_hard"})
    beads = add_stock(bench, {"kind": "bead", "name": "reed beads", "amount": "40", "size": "8"})
    path = f"/api/pieces/{piece.pk}/ticks"
    for stock in (soft, thin, beads):
        before = amount_of(stock)
        answer = send(client, path, {"kind": "cut", "key": "bangle", "stock_id": stock.pk})
        assert answer.status_code == 422
        assert answer.json()["field"] == "stock"
        assert stock.name in answer.json()["detail"]
        assert amount_of(stock) == before
    assert not Tick.objects.exists()
    right = reel_of(bench)
    assert (
        send(client, path, {"kind": "cut", "key": "bangle", "stock_id": right.pk}).status_code
        == 200
    )
    assert amount_of(right) == pytest.approx(10_000 - 245.53, abs=0.01)


def test_beads_are_fetched_from_a_tray_of_their_kind(client: Client, bench: Workshop) -> None:
    piece = start_piece(bench, "Bracelet", example("linked-bracelet"))
    found = client.get(f"/api/pieces/{piece.pk}").json()
    need = next(n for n in found["plan"]["needs"] if n["kind"] == "bead")
    findings = add_stock(bench, {"kind": "finding", "name": "clasps", "amount": "400"})
    tray = add_stock(bench, {"kind": "bead", "name": "beads", "amount": "400", "size": "8"})
    path = f"/api/pieces/{piece.pk}/ticks"
    asked = {"kind": "need", "key": need["id"]}
    assert send(client, path, {**asked, "stock_id": findings.pk}).status_code == 422
    assert send(client, path, {**asked, "stock_id": tray.pk}).status_code == 200
    assert amount_of(findings) == 400
    assert amount_of(tray) < 400


def test_nothing_is_recorded_on_what_was_put_away(
    client: Client, bench: Workshop, piece: Piece, brief: Row
) -> None:
    reel = reel_of(bench)
    put_away(client, "stock", reel.pk)
    path = f"/api/pieces/{piece.pk}"
    tick = {"kind": "cut", "key": "bangle"}
    gone = send(client, path + "/ticks", {**tick, "stock_id": reel.pk})
    assert gone.status_code == 422
    assert "taken off the rack" in gone.json()["detail"]
    put_away(client, "piece", piece.pk)
    for asked, body in (
        ("/ticks", tick),
        ("/finish", {"finished": True}),
        ("/undo", {"version": 1}),
        ("/tryons", {"noted": {"passes_hand": True}}),
    ):
        answer = send(client, path + asked, body)
        assert answer.status_code == 409
        assert answer.json()["title"] == "Put away"
    saved = client.put(path + "/brief", json.dumps({"version": 1, "brief": {}}), "application/json")
    assert saved.status_code == 409
    put_away(client, "piece", piece.pk)
    assert not Tick.objects.exists()


def test_a_try_on_is_put_right_at_its_own_piece(
    client: Client, bench: Workshop, piece: Piece, brief: Row
) -> None:
    making.tick(bench, piece.pk, "cut", "bangle")
    noted = {"passes_hand": True, "open_inside_girth": "206.5"}
    making.record_tryon(bench, piece.pk, noted)
    record = TryOnRecord.objects.get()
    other = start_piece(bench, "Another", brief)
    asked = f"tryons/{record.pk}/done"
    assert send(client, f"/api/pieces/{other.pk}/{asked}", {}).status_code == 404
    assert not TryOnRecord.objects.get().done
    assert send(client, f"/api/pieces/{piece.pk}/{asked}", {}).status_code == 200
    assert TryOnRecord.objects.get().done


@pytest.mark.django_db(transaction=True)
def test_two_imports_at_once_make_one_wearer(bench: Workshop) -> None:
    text = "name,site,value [mm]\nWren,wrist_girth,158\nSedge,wrist_girth,160\n"
    found, refused = read_csv(text)
    start = threading.Barrier(6)
    faults: list[BaseException] = []

    def brings() -> None:
        try:
            start.wait()
            import_rows(bench, found, refused, commit=True)
        except BaseException as error:
            faults.append(error)
        finally:
            connection.close()

    threads = [threading.Thread(target=brings) for _ in range(6)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert faults == []
    assert sorted(Wearer.objects.values_list("name", flat=True)) == ["Sedge", "Wren"]
    standing = Reading.objects.filter(replaced=False)
    assert sorted(standing.values_list("wearer__name", "value")) == [
        ("Sedge", "160 mm"),
        ("Wren", "158 mm"),
    ]


def test_an_import_finds_a_wearer_however_the_name_is_written(bench: Workshop) -> None:
    Wearer.objects.create(workshop=bench, name="Zoé Reed")
    text = "name,site,value [mm]\n Zoe\u0301   Reed ,wrist_girth,158\n"
    done = import_rows(bench, *read_csv(text), commit=True)
    assert (done.names, done.new_names, done.imported) == (["Zoé Reed"], [], True)
    assert Wearer.objects.count() == 1


def test_a_second_of_a_name_is_refused_and_says_what_to_do(client: Client) -> None:
    first = send(client, "/api/wearers", {"name": "Wren"}).json()
    again = send(client, "/api/wearers", {"name": " Wren "})
    assert again.status_code == 422
    assert again.json()["field"] == "name"
    assert "second name" in again.json()["detail"]
    other = send(client, "/api/wearers", {"name": "Sedge"}).json()
    path = f"/api/wearers/{other['id']}"
    taken = client.put(path, json.dumps({"name": "Wren"}), "application/json")
    assert taken.status_code == 422
    same = client.put(
        f"/api/wearers/{first['id']}", json.dumps({"name": "Wren"}), "application/json"
    )
    assert same.status_code == 200


def test_who_turns_out_to_be_a_child_has_pieces_worked_out_anew(
    client: Client, bench: Workshop
) -> None:
    wearer = send(client, "/api/wearers", {"name": "Wren"}).json()
    given = {"name": "Choker", "brief": example("choker"), "wearer_id": wearer["id"]}
    piece = send(client, "/api/pieces", given).json()
    body = json.dumps({"name": "Wren", "is_child": True})
    client.put(f"/api/wearers/{wearer['id']}", body, "application/json")
    found = client.get(f"/api/pieces/{piece['id']}").json()
    assert "child_neck" in {note["id"] for note in found["plan"]["advice"]}


@pytest.mark.parametrize("text", RUNS)
def test_no_export_has_a_cell_that_a_spreadsheet_runs(
    client: Client, bench: Workshop, text: str
) -> None:
    Stock.objects.create(workshop=bench, kind="bead", name=text, wire={"metal": text})
    wearer = Wearer.objects.create(workshop=bench, name=text, part=text)
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": text[:40]}])
    for path in ("/api/stock.csv", "/api/measures.csv", "/api/board/buy.csv"):
        sheet = client.get(path).content.decode()
        for row in csv.reader(io.StringIO(sheet)):
            for cell in row:
                assert cell.lstrip()[:1] not in ("=", "+", "-", "@", "|"), (path, cell)


@pytest.mark.parametrize("text", [*RUNS, "Reed", "'quoted'", "", "a,b", 'say "so"'])
def test_what_was_made_harmless_comes_back_as_it_was(text: str) -> None:
    assert armless(harmless(text)) == text
    header, rows = read_rows(write_rows(["name", "n"], [[text, 3]]))
    assert header == ["name", "n"]
    assert rows == [{"name": text.strip(), "n": "3"}]


def test_labels_of_a_name_with_lines_are_printed(
    client: Client, bench: Workshop, piece: Piece
) -> None:
    Piece.objects.filter(pk=piece.pk).update(name="Two\rlines\nand \x07 a bell")
    answer = send(client, f"/api/board/labels?pieces={piece.pk}", {})
    assert answer.status_code == 200
    assert len(answer.json()["labels"]) == 1


def test_of_more_pieces_than_a_board_has_room_for_the_others_are_counted(
    client: Client, bench: Workshop, brief: Row, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("jamreel.api.board.MOST_ON_BOARD", 2)
    pieces = [start_piece(bench, f"Bangle {i}", brief) for i in range(5)]
    monkeypatch.setattr("jamreel.api.bench.MOST_ON_BOARD", 2)
    assert client.get("/api/bench").json()["most_on_board"] == 2
    found = client.get("/api/board").json()
    assert (found["pieces"], found["left_out"]) == (["Bangle 0", "Bangle 1"], 3)
    many = ",".join(str(piece.pk) for piece in pieces[:3])
    assert client.get("/api/board", {"pieces": many}).json()["field"] == "pieces"

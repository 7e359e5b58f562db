"""What was cut and what the plan wants now, over the API, as a maker meets it."""

import json
from copy import deepcopy
from typing import Any

import pytest
from django.test import Client

Row = dict[str, Any]

SMALL: Row = {"kind": "linked_bead", "bead": "6", "pin": "3"}
LARGE: Row = {"kind": "linked_bead", "bead": "8", "pin": "4"}
BRIEF: Row = {
    "schema": "0.2",
    "measures": {"wrist_girth": {"readings": [{"value": "160"}, {"value": "160"}]}},
    "ease": {"school": "fixed", "word": "comfortable"},
    "wire": {"size": "20 awg", "metal": "copper", "temper": "half_hard"},
    "cutting": {"trim": "1.5"},
    "piece": {
        "kind": "linked_bracelet",
        "counted": False,
        "entries": [
            {"id": "small", "part": SMALL, "times": 4},
            {"id": "large", "part": LARGE, "times": 2},
        ],
        "closure": {"kind": "folded_hook", "wire": "18 awg"},
    },
}


class Bench:
    """One piece on the bench, over the API."""

    def __init__(self, client: Client, brief: Row = BRIEF) -> None:
        self.client = client
        self.now: Row = self._send("post", "/api/pieces", {"name": "Links", "brief": brief}, 201)
        self.base = f"/api/pieces/{self.now['id']}"

    def _send(self, how: str, path: str, body: Row, status: int = 200) -> Row:
        call = getattr(self.client, how)
        answer = call(path, json.dumps(body), content_type="application/json")
        assert answer.status_code == status, answer.content
        found: Row = answer.json()
        return found

    def tick(self, key: str, kind: str = "cut", status: int = 200, **more: Any) -> None:
        found = self._send("post", f"{self.base}/ticks", {"kind": kind, "key": key, **more}, status)
        self.now = found if status == 200 else self.now

    def settle(self, key: str, way: str, status: int = 200, **more: Any) -> None:
        body = {"key": key, "way": way, **more}
        found = self._send("post", f"{self.base}/settle", body, status)
        self.now = found if status == 200 else self.now

    def change(self, edit: Any) -> None:
        brief = deepcopy(self.now["brief"])
        edit(brief)
        body = {"version": self.now["version"], "brief": brief}
        self.now = self._send("put", f"{self.base}/brief", body)

    def move(self, way: str) -> None:
        self.now = self._send("post", f"{self.base}/{way}", {"version": self.now["version"]})

    def wires(self) -> dict[str, Row]:
        return {wire["key"]: wire for wire in self.now["standing"].get("wires", [])}

    def open(self, start: str) -> list[str]:
        return [key for key in self.now["standing"]["open_wires"] if key.startswith(start)]

    def length(self, cut: str) -> float:
        lengths: dict[str, float] = {c["id"]: c["length_mm"] for c in self.now["plan"]["cuts"]}
        return lengths[cut]

    def rack(self) -> list[Row]:
        found: list[Row] = self.client.get("/api/stock").json()["stock"]
        return found

    def cut_state(self) -> str:
        return str(self.now["stations"]["cut"]["state"])


@pytest.fixture
def bench_(client: Client) -> Bench:
    return Bench(client)


def longer_wrist(brief: Row) -> None:
    for reading in brief["measures"]["wrist_girth"]["readings"]:
        reading["value"] = "170"


def wider_loops(brief: Row) -> None:
    brief["piece"]["entries"][0]["part"]["pin"] = "4"


def narrower_loops(brief: Row) -> None:
    brief["piece"]["entries"][0]["part"]["pin"] = "2"


def swap(brief: Row) -> None:
    brief["piece"]["entries"].reverse()


def test_rows_that_change_places_keep_what_was_cut(bench_: Bench) -> None:
    """The second kind was cut and ticked; the rows swapped; the board asked for it again."""
    bench_.tick("large/linked_bead")
    assert (len(bench_.open("large/")), len(bench_.open("small/"))) == (0, 4)
    bench_.change(swap)
    assert (len(bench_.open("large/")), len(bench_.open("small/"))) == (0, 4)
    assert {wire["verdict"] for wire in bench_.wires().values()} == {"right"}
    board = bench_.client.get(f"/api/board?pieces={bench_.now['id']}").json()
    asked = [
        cut["key"] for group in board["groups"] for lane in group["lanes"] for cut in lane["cuts"]
    ]
    assert not [one for one in asked if "large/" in one]
    assert len([one for one in asked if "small/" in one]) == 4


def test_a_step_for_several_entries_counts_them_all(client: Client) -> None:
    brief = deepcopy(BRIEF)
    brief["piece"]["entries"] = [
        {"id": "left", "part": SMALL, "times": 2},
        {"id": "mid", "part": LARGE, "times": 1},
        {"id": "right", "part": SMALL, "times": 2},
    ]
    steps = Bench(client, brief).now["plan"]["steps"]
    titles = {step["title"] for step in steps if step["id"].startswith("left/")}
    assert titles
    assert all("× 4" in title for title in titles)
    assert not any("× 2" in title for title in titles)


def test_a_cut_wire_is_too_short_when_the_plan_moves_though_another_is_cut(bench_: Bench) -> None:
    """Cut, plan grew by five millimetres, a second wire ticked: all was called settled."""
    was = bench_.length("small/linked_bead")
    bench_.tick("small/linked_bead#1")
    bench_.change(wider_loops)
    grown = bench_.length("small/linked_bead")
    assert grown > was + 1
    bench_.tick("small/linked_bead#2")
    one, two = (bench_.wires()[f"small/linked_bead#{n}"] for n in (1, 2))
    assert (one["verdict"], two["verdict"]) == ("short", "right")
    assert one["by_mm"] == pytest.approx(grown - was, abs=0.01)
    assert bench_.cut_state() != "settled"
    # What is too short does not serve: four are wanted, one is there.
    assert len(bench_.open("small/")) == 3


def test_a_wire_that_is_too_long_is_trimmed(bench_: Bench) -> None:
    was = bench_.length("small/linked_bead")
    bench_.tick("small/linked_bead#1")
    bench_.change(narrower_loops)
    wanted = bench_.length("small/linked_bead")
    wire = bench_.wires()["small/linked_bead#1"]
    assert (wire["verdict"], wire["known"]) == ("long", False)
    assert wire["by_mm"] == pytest.approx(was - wanted, abs=0.01)
    bench_.settle("small/linked_bead#1", "trim")
    wire = bench_.wires()["small/linked_bead#1"]
    assert wire["verdict"] == "right"
    assert wire["actual_mm"] == pytest.approx(wanted, abs=0.001)


def test_a_wire_may_be_kept_as_it_is_until_the_plan_moves_again(bench_: Bench) -> None:
    bench_.tick("small/linked_bead#1")
    bench_.change(wider_loops)
    bench_.settle("small/linked_bead#1", "keep")
    wire = bench_.wires()["small/linked_bead#1"]
    assert (wire["verdict"], wire["known"]) == ("short", True)
    assert len(bench_.open("small/")) == 3
    bench_.change(lambda brief: brief["piece"]["entries"][0]["part"].update(pin="5"))
    assert bench_.wires()["small/linked_bead#1"]["known"] is False
    assert len(bench_.open("small/")) == 4


def test_a_short_wire_goes_back_to_the_rack_as_an_offcut(bench_: Bench) -> None:
    length = bench_.length("small/linked_bead")
    bench_.tick("small/linked_bead#1")
    bench_.change(wider_loops)
    assert bench_.rack() == []
    bench_.settle("small/linked_bead#1", "offcut")
    (offcut,) = bench_.rack()
    assert offcut["kind"] == "offcut"
    assert offcut["amount"] == pytest.approx(length, abs=0.01)
    assert bench_.wires() == {}
    assert len(bench_.open("small/")) == 4


def test_a_wire_that_is_no_longer_needed_may_serve_another(bench_: Bench) -> None:
    length = bench_.length("large/linked_bead")
    bench_.tick("large/linked_bead#1")
    bench_.change(lambda brief: brief["piece"]["entries"].pop())
    wire = bench_.wires()["large/linked_bead#1"]
    assert wire["verdict"] == "not_needed"
    offer = next(fits for fits in wire["serves"] if fits["key"].startswith("small/"))
    assert offer["spare_mm"] == pytest.approx(length - bench_.length("small/linked_bead"), abs=0.01)
    bench_.settle(wire["key"], "serve", to=offer["key"])
    (served,) = bench_.wires().values()
    assert (served["key"], served["verdict"]) == (offer["key"], "long")
    assert len(bench_.open("small/")) == 3


def test_undo_brings_a_wire_back_to_its_entry(bench_: Bench) -> None:
    bench_.tick("large/linked_bead#2")
    bench_.change(lambda brief: brief["piece"]["entries"].pop())
    assert bench_.wires()["large/linked_bead#2"]["verdict"] == "not_needed"
    bench_.move("undo")
    assert bench_.wires()["large/linked_bead#2"]["verdict"] == "right"
    assert len(bench_.open("large/")) == 1


def test_another_wire_chosen_after_cutting_is_said(bench_: Bench) -> None:
    bench_.tick("small/linked_bead#1")
    bench_.change(lambda brief: brief["wire"].update(metal="brass"))
    assert bench_.wires()["small/linked_bead#1"]["verdict"] == "other_wire"
    assert len(bench_.open("small/")) == 4


def test_as_cut_lengths_come_from_the_records(bench_: Bench) -> None:
    wanted = bench_.length("small/linked_bead")
    bench_.tick("small/linked_bead#1", actual=f"{wanted + 3:.2f}")
    wire = bench_.wires()["small/linked_bead#1"]
    # Cut so on purpose, the plan not having moved: it is said, and it is settled.
    assert (wire["verdict"], wire["known"]) == ("long", True)
    assert wire["actual_mm"] == pytest.approx(wanted + 3, abs=0.01)
    assert "made" not in bench_.now["brief"]


@pytest.mark.parametrize("way", ["trim", "keep", "serve", "put_back"])
def test_a_wire_that_is_right_has_nothing_to_settle(bench_: Bench, way: str) -> None:
    bench_.tick("small/linked_bead#1")
    bench_.settle("small/linked_bead#1", way, status=409)
    assert bench_.wires()["small/linked_bead#1"]["verdict"] == "right"


def test_what_can_not_be_settled_is_refused(bench_: Bench) -> None:
    bench_.settle("small/linked_bead#1", "trim", status=409)
    bench_.settle("nothing/at_all#1", "offcut", status=409)
    bench_.settle("small/linked_bead#1", "melt", status=422)


def test_a_formed_step_says_which_pin_and_place_have_changed(bench_: Bench) -> None:
    bench_.tick("small/first_open", kind="step")
    bench_.change(wider_loops)
    (step,) = [s for s in bench_.now["standing"]["steps"] if s["key"] == "small/first_open"]
    assert step["verdict"] == "changed"
    said = " ".join(step["changes"])
    assert "3" in said
    assert "4" in said
    bench_.change(lambda brief: brief["piece"]["entries"].pop(0))
    (gone,) = [s for s in bench_.now["standing"]["steps"] if s["key"] == "small/first_open"]
    assert gone["verdict"] == "not_needed"


def test_what_is_wanted_in_addition_is_open(bench_: Bench) -> None:
    bench_.tick("small/linked_bead")
    bench_.change(lambda brief: brief["piece"]["entries"][0].update(times=7))
    assert [wire["verdict"] for wire in bench_.wires().values()] == ["right"] * 4
    assert len(bench_.open("small/")) == 3
    bench_.change(lambda brief: brief["piece"]["entries"][0].update(times=3))
    verdicts = sorted(wire["verdict"] for wire in bench_.wires().values())
    assert verdicts == ["not_needed", "right", "right", "right"]


def test_a_doubled_entry_without_a_name_gets_one_and_keeps_it(bench_: Bench) -> None:
    bench_.tick("small/linked_bead")
    bench_.change(lambda brief: brief["piece"]["entries"].append({"part": SMALL, "times": 2}))
    names = [entry["id"] for entry in bench_.now["brief"]["piece"]["entries"]]
    assert len(set(names)) == 3
    assert len(bench_.open(f"{names[2]}/")) == 2
    bench_.change(
        lambda brief: brief["piece"]["entries"].insert(0, brief["piece"]["entries"].pop())
    )
    assert len(bench_.open(f"{names[2]}/")) == 2
    assert bench_.open("small/") == []


def test_strangers_settle_nothing(bench_: Bench, stranger: Client) -> None:
    body = json.dumps({"key": "small/linked_bead#1", "way": "offcut"})
    answer = stranger.post(f"{bench_.base}/settle", body, content_type="application/json")
    assert answer.status_code == 404

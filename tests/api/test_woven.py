"""Woven bodies over the API: in space, how far a wire goes, samples that are kept, the board."""

import io
import json
import threading
from itertools import pairwise
from typing import Any

import numpy as np
import pdfplumber
import pytest
from django.core.cache import caches
from django.test import Client

from jamreel.workshop import close_views
from jamreel.workshop.apart import Broken, Spent
from jamreel.workshop.close_views import THREAD
from jamreel.workshop.models import Workshop
from tests.conftest import EXAMPLES

BRACELET = json.loads((EXAMPLES / "linked-bracelet.json").read_text())
MM = 72 / 25.4


def brief(part: dict[str, Any]) -> dict[str, Any]:
    entry = {"id": "e1", "part": part, "times": 1}
    piece = {**BRACELET["piece"], "entries": [entry], "closure": {"kind": "folded_hook"}}
    wire = {"size": "1.2 mm", "metal": "copper", "temper": "half_hard"}
    fine = {"winding": {"size": "0.4 mm", "metal": "copper", "temper": "dead_soft"}}
    return {**BRACELET, "piece": piece, "wire": wire, "palette": fine}


def start(client: Client, part: dict[str, Any]) -> dict[str, Any]:
    sent = {"name": "Weir", "brief": brief(part)}
    answer = client.post("/api/pieces", sent, content_type="application/json")
    assert answer.status_code == 201, answer.content
    piece: dict[str, Any] = answer.json()
    return piece


def asked(client: Client, piece: dict[str, Any], path: str, **query: str) -> Any:
    return client.get(f"/api/pieces/{piece['id']}/{path}", query)


LADDER = {"kind": "ladder", "rows": 12}


def test_a_body_is_answered_in_space_strand_by_strand(client: Client) -> None:
    piece = start(client, LADDER)
    (plan_body,) = piece["plan"]["woven"]
    (body,) = asked(client, piece, "woven", entry="e1").json()["bodies"]
    assert (body["rows"], body["cell_rows"], body["row_name"]) == (12, 2, "row")
    assert body["advance_mm"] == pytest.approx(2 * plan_body["pitch_mm"])
    working = [one for one in body["strands"] if one["role"] == "working"]
    assert [one["row"] for one in working] == [0, 1]
    # In points half a wire apart it is as long as a row takes.
    for one in working:
        points = one["points"]
        long = sum(
            sum((a - b) ** 2 for a, b in zip(p, q, strict=True)) ** 0.5 for p, q in pairwise(points)
        )
        assert long == pytest.approx(plan_body["wires"][0]["takes_mm"][0], rel=0.02)
    assert len(body["beads"]) == 6
    assert asked(client, piece, "woven", entry="e9").json() == {"bodies": []}


def test_knots_and_ribbons_are_pulled_tight_before_they_are_looked_at(client: Client) -> None:
    piece = start(client, {"kind": "knot_row", "rows": 20})
    (body,) = asked(client, piece, "woven").json()["bodies"]
    assert {one["role"] for one in body["strands"]} == {"bar", "working"}
    piece = start(client, {"kind": "lattice", "rows": 5, "ribbon": 2})
    (body,) = asked(client, piece, "woven").json()["bodies"]
    assert body["over"] is True
    assert len([one for one in body["strands"] if one["role"] == "working"]) == 4


def test_so_much_wire_goes_so_far(client: Client) -> None:
    piece = start(client, {**LADDER, "rows": 40})
    (plan_body,) = piece["plan"]["woven"]
    (wire,) = plan_body["wires"]
    each = wire["spare"] * wire["takes_mm"][0]
    goes = asked(client, piece, "woven/goes", wire="1200", entry="e1").json()
    rows = int((1200 - wire["tails_mm"]) // each)
    assert goes["rows"] == rows
    assert goes["long_mm"] == pytest.approx(rows * plan_body["pitch_mm"])
    assert goes["left_mm"] == pytest.approx(1200 - wire["tails_mm"] - rows * each, abs=0.01)
    assert goes["starts_after"] == list(range(0, 40, rows))
    plenty = asked(client, piece, "woven/goes", wire="30 m").json()
    assert (plenty["rows"], plenty["wires"]) == (40, 1)


@pytest.mark.parametrize("wire", ["30", "long", "-5", "", "9" * 60])
def test_what_is_no_length_or_too_short_is_refused_at_the_wire(client: Client, wire: str) -> None:
    piece = start(client, LADDER)
    answer = asked(client, piece, "woven/goes", wire=wire)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["field"] == "wire"


def test_nothing_woven_has_no_board_and_goes_nowhere(client: Client) -> None:
    piece = start(client, {"kind": "chain"})
    assert asked(client, piece, "board.pdf").status_code == 404
    assert asked(client, piece, "woven/goes", wire="500").status_code == 404
    assert asked(client, piece, "woven").json() == {"bodies": []}


def test_the_board_is_true_to_scale(client: Client) -> None:
    piece = start(client, LADDER)
    (body,) = piece["plan"]["woven"]
    answer = asked(client, piece, "board.pdf")
    with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
        (page,) = pdf.pages
        bars = sorted({round(line["top"], 1) for line in page.lines if line["width"] > 50 * MM})
        long = [line["width"] for line in page.lines]
    apart = [b - a for a, b in pairwise(bars)]
    wanted = [b - a for a, b in pairwise(body["pegs_mm"])]
    for one in wanted:
        assert any(abs(gap - one * MM) < 0.2 for gap in apart)
    whole = body["rows"] * body["pitch_mm"] + body["before_mm"] + body["behind_mm"] + 12
    assert any(abs(one - whole * MM) < 0.5 for one in long)


def test_the_making_card_has_a_box_for_every_row(client: Client) -> None:
    piece = start(client, {**LADDER, "rows": 23})
    card = asked(client, piece, "card.pdf")
    with pdfplumber.open(io.BytesIO(card.content)) as pdf:
        assert len(pdf.pages) == 2
        plan = pdf.pages[1]
        assert len([r for r in plan.rects if abs(r["width"] - 9 * MM) < 0.5]) == 23
        assert "23" in plan.extract_text()


def keep(client: Client, piece: dict[str, Any], *, kept: bool = True) -> Any:
    return client.post(
        f"/api/pieces/{piece['id']}/woven/sample",
        {"entry": "e1", "kept": kept},
        content_type="application/json",
    )


def test_a_sample_is_kept_for_such_wire_and_forgotten_again(client: Client) -> None:
    plain = start(client, LADDER)
    (usual,) = plain["plan"]["woven"]
    takes = usual["wires"][0]["takes_mm"][0]
    # A looser hand: rows a quarter further apart, a tenth more wire.
    sample = {"sample_rows": 4, "sample_over": "20"}
    (counted,) = start(client, {**LADDER, **sample})["plan"]["woven"]
    took = 1.1 * 4 * counted["wires"][0]["takes_mm"][0]
    tried = start(client, {**LADDER, **sample, "sample_took": took})
    (own,) = tried["plan"]["woven"]
    assert own["sampled"] == "piece"
    assert own["pitch_mm"] == pytest.approx(5.0)
    assert keep(client, plain).status_code == 422
    assert keep(client, tried).status_code == 204
    (again,) = client.get(f"/api/pieces/{plain['id']}").json()["plan"]["woven"]
    assert again["sampled"] == "bench"
    assert again["pitch_mm"] == pytest.approx(5.0)
    assert again["wires"][0]["spare"] == 1
    tight = own["wires"][0]["takes_mm"][0]
    assert again["wires"][0]["takes_mm"][0] == pytest.approx(tight, rel=1e-3)
    assert tight != pytest.approx(takes, rel=0.02)
    # Another technique in that wire is not touched by it.
    (channel,) = start(client, {"kind": "channel"})["plan"]["woven"]
    assert channel["sampled"] == ""
    assert keep(client, plain, kept=False).status_code == 204
    (back,) = client.get(f"/api/pieces/{plain['id']}").json()["plan"]["woven"]
    assert (back["sampled"], back["pitch_mm"]) == ("", usual["pitch_mm"])


def test_a_width_that_does_not_suit_the_beads_is_refused_with_one_that_does(client: Client) -> None:
    piece = start(client, {"kind": "channel", "across": 4, "between_legs": "14"})
    assert piece["plan"] is None
    (problem,) = piece["problems"]
    assert problem["field"] == "piece.entries.0.part.between_legs"
    assert "16.4" in problem["says"]
    assert "3 of these beads" in problem["says"]
    wider = start(client, {"kind": "channel", "across": 4, "between_legs": "16.4"})
    assert wider["plan"] is not None


def test_a_bound_body_is_looked_at_whole_and_has_no_rows(client: Client) -> None:
    piece = start(client, {"kind": "bundle", "along": 90})
    (plan_body,) = piece["plan"]["woven"]
    assert (plan_body["wires"], plan_body["row_name"]) == ([], "")
    (body,) = asked(client, piece, "woven", entry="e1").json()["bodies"]
    assert {one["role"] for one in body["strands"]} == {"strand", "binding"}
    # Cut up, so that bindings lie over and under.
    assert min(len(one["points"]) for one in body["strands"]) > 20
    answer = asked(client, piece, "woven/goes", wire="1200", entry="e1")
    assert answer.status_code == 422
    assert "bound, not woven" in json.dumps(answer.json())


def test_a_strand_that_is_too_short_is_never_joined(client: Client) -> None:
    piece = start(client, {"kind": "braid", "each": 1, "begins": "hooked", "rows": 60})
    (plan_body,) = piece["plan"]["woven"]
    (wire,) = plan_body["wires"]
    assert (wire["whole"], wire["starts_after"]) == (True, [0])
    goes = asked(client, piece, "woven/goes", wire="120", entry="e1").json()
    assert 0 < goes["rows"] < 60
    assert goes["starts_after"] == [0]


def test_strands_alike_are_bundled_on_one_label(client: Client) -> None:
    piece = start(client, {"kind": "flat_plait", "strands": "16", "rows": 40, "wire": "0.6 mm"})
    (strands,) = (one for one in piece["plan"]["cuts"] if one["id"].endswith("plait_strand"))
    assert strands["quantity"] == 16
    printed = client.post(f"/api/board/labels?pieces={piece['id']}").json()["labels"]
    # One for the strands, and one for each half of the closure's wires.
    assert len(printed) == len(piece["plan"]["cuts"])


def test_the_board_of_a_bundle_has_a_line_at_every_mark(client: Client) -> None:
    piece = start(client, {"kind": "bundle", "along": 90, "bindings": 5, "turns": 2})
    (plan_body,) = piece["plan"]["woven"]
    assert len(plan_body["marks_mm"]) == 5
    answer = asked(client, piece, "board.pdf")
    with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
        words = [word["text"] for page in pdf.pages for word in page.extract_words()]
    # The middle, and two on either side of it, told from the middle.
    far = 90 / 2 - plan_body["marks_mm"][0]
    assert words.count(f"{far:.1f}") == 2
    assert "0.0" in words
    # Nothing of it is counted in rows: the card has no row plan.
    card = asked(client, piece, "card.pdf")
    with pdfplumber.open(io.BytesIO(card.content)) as pdf:
        assert not any("Cross a box" in (page.extract_text() or "") for page in pdf.pages)
    ring = start(client, {"kind": "wound_ring"})
    assert asked(client, ring, "board.pdf").status_code == 404


def test_a_body_is_shown_as_laid_until_it_is_pulled_tight_elsewhere(
    client: Client, bench: Workshop
) -> None:
    caches["close_views"].clear()
    piece = start(client, {"kind": "knot_row", "rows": 5})
    path = f"/api/pieces/{piece['id']}/woven"

    def look() -> Any:
        (body,) = client.get(path).json()["bodies"]
        return body

    laid = look()
    assert not laid["settled"]
    for thread in threading.enumerate():
        if thread.name == THREAD:
            thread.join()
    tight = look()
    assert tight["settled"]

    def long(body: Any) -> float:
        lines = [np.array(one["points"]) for one in body["strands"] if one["role"] == "working"]
        return sum(float(np.linalg.norm(np.diff(p, axis=0), axis=1).sum()) for p in lines)

    # Wires that lie closer are not as long, and nothing else about the body has changed.
    assert long(tight) != pytest.approx(long(laid), rel=1e-3)
    assert {k: v for k, v in tight.items() if k not in ("settled", "strands", "beads")} == {
        k: v for k, v in laid.items() if k not in ("settled", "strands", "beads")
    }


@pytest.mark.parametrize("why", [Spent, Broken])
def test_what_could_not_be_pulled_tight_stays_as_it_is_laid(
    client: Client, bench: Workshop, monkeypatch: pytest.MonkeyPatch, why: type[Exception]
) -> None:
    caches["close_views"].clear()

    def spent(*given: Any, **bounds: Any) -> None:
        raise why

    monkeypatch.setattr(close_views, "apart", spent)
    piece = start(client, {"kind": "knot_row", "rows": 5})
    path = f"/api/pieces/{piece['id']}/woven"
    (laid,) = client.get(path).json()["bodies"]
    for thread in threading.enumerate():
        if thread.name == THREAD:
            thread.join()
    (kept,) = client.get(path).json()["bodies"]
    assert kept == {**laid, "settled": True}

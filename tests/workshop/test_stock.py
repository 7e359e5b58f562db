"""The rack: movements add up in any order, nothing goes below nought, cut and stock move as one."""

import os
import signal
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jamreel.core.plan import BriefRefused
from jamreel.workshop import making
from jamreel.workshop.archive import put_away
from jamreel.workshop.board import Fetch, cost_of, fits_need, lay_out, short_of, to_fetch
from jamreel.workshop.making import AlreadyTicked
from jamreel.workshop.models import Movement, Piece, Stock, Tick, Workshop
from jamreel.workshop.pieces import save_brief, start_piece
from jamreel.workshop.stock import add_stock, amount_of, move, spoil, weigh
from jamreel.workshop.stock_csv import import_stock, stock_csv
from tests.conftest import ROOT
from tests.core.families import example

COPPER = {"size": "20 awg", "metal": "copper"}
REEL = {"kind": "reel", "wire": COPPER, "amount": "1.2 m", "tare": "31 g"}


@pytest.fixture
def bracelet(bench: Workshop) -> Piece:
    return start_piece(bench, "Links", example("linked_bracelet"))


def test_stock_is_read_as_a_maker_writes_it(bench: Workshop) -> None:
    reel = add_stock(bench, REEL)
    assert amount_of(reel) == pytest.approx(1200)
    assert reel.name == "20 AWG (0.81 mm) copper"
    beads = add_stock(bench, {"kind": "bead", "name": "slate", "amount": "84", "hole": "1 mm"})
    assert (amount_of(beads), beads.hole_mm) == (84, 1.0)


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({**REEL, "wire": {"size": "0.08 mm"}}, "wire.size"),
        ({**REEL, "wire": {"size": "20 awg", "metal": "tin"}}, "wire.metal"),
        ({**REEL, "amount": "long"}, "amount"),
        ({**REEL, "tare": "heavy"}, "tare"),
        ({**REEL, "price": "-2"}, "price"),
        ({**REEL, "kind": "hank"}, "kind"),
        ({"kind": "bead", "amount": "3"}, "name"),
    ],
)
def test_nonsense_is_refused_by_name(bench: Workshop, typed: dict[str, Any], field: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        add_stock(bench, typed)
    assert refused.value.problems[0].field == field
    assert not Stock.objects.exists()


def test_a_reel_on_the_scale(bench: Workshop) -> None:
    reel = add_stock(bench, REEL)
    # 20 AWG copper is 4.63 g a metre; a tenth of a gram is half of 21.6 mm either way.
    found = weigh(bench, reel.pk, "38.0 g")
    assert found.length_mm == pytest.approx(7.0 / 4.6275 * 1000, rel=1e-3)
    assert found.plus_minus_mm == pytest.approx(0.05 / 4.6275 * 1000, rel=1e-3)
    assert amount_of(reel) == pytest.approx(found.length_mm)
    for wrong in ("30 g", "light", "-4 g"):
        with pytest.raises(BriefRefused) as refused:
            weigh(bench, reel.pk, wrong)
        assert refused.value.problems[0].field == "mass"


def test_stock_never_goes_below_nothing(bench: Workshop) -> None:
    reel = add_stock(bench, REEL)
    with pytest.raises(BriefRefused, match="only 1200 left"):
        move(bench, reel.pk, "1.3 m", "used")
    move(bench, reel.pk, "1.2 m", "scrapped")
    assert amount_of(reel) == 0
    move(bench, reel.pk, "15 cm", "counted")
    assert amount_of(reel) == pytest.approx(150)
    assert [m.reason for m in reel.movements.all()] == ["counted", "scrapped", "counted"]


def test_a_tick_takes_its_wire_and_gives_it_back(bench: Workshop, bracelet: Piece) -> None:
    reel = add_stock(bench, REEL)
    making.tick(bench, bracelet.pk, "cut", "e1/linked_bead#3", "82", reel.pk)
    assert amount_of(reel) == pytest.approx(1118)
    with pytest.raises(AlreadyTicked):
        making.tick(bench, bracelet.pk, "cut", "e1/linked_bead#3", "", reel.pk)
    assert amount_of(reel) == pytest.approx(1118)
    making.untick(bench, bracelet.pk, "cut", "e1/linked_bead#3")
    assert amount_of(reel) == pytest.approx(1200)
    # Ticked anew and undone anew: nothing is given back twice.
    making.tick(bench, bracelet.pk, "cut", "e1/linked_bead#3", "82", reel.pk)
    making.untick(bench, bracelet.pk, "cut", "e1/linked_bead#3")
    assert amount_of(reel) == pytest.approx(1200)


def test_too_short_a_wire_is_refused_and_not_ticked(bench: Workshop, bracelet: Piece) -> None:
    short = add_stock(bench, {**REEL, "kind": "offcut", "amount": "60"})
    with pytest.raises(BriefRefused, match="only 60 left"):
        making.tick(bench, bracelet.pk, "cut", "e1/linked_bead#1", "", short.pk)
    assert not Tick.objects.exists()
    assert amount_of(short) == 60


def test_scrap_goes_with_the_last_cut_and_comes_back_with_it(
    bench: Workshop, bracelet: Piece
) -> None:
    offcut = add_stock(bench, {**REEL, "kind": "offcut", "amount": "100"})
    making.tick(bench, bracelet.pk, "cut", "e1/linked_bead#1", "80", offcut.pk, scrap_rest=True)
    assert amount_of(offcut) == 0
    assert sorted(m.reason for m in offcut.movements.all()) == ["counted", "scrapped", "used"]
    making.untick(bench, bracelet.pk, "cut", "e1/linked_bead#1")
    assert amount_of(offcut) == pytest.approx(100)


def test_a_whole_cut_is_ticked_and_taken_back_at_once(bench: Workshop, bracelet: Piece) -> None:
    making.tick(bench, bracelet.pk, "cut", "e1/linked_bead#4")
    making.tick(bench, bracelet.pk, "cut", "e1/linked_bead")
    standing = Tick.objects.filter(piece=bracelet, undone_at__isnull=True)
    assert standing.count() == 10
    making.untick(bench, bracelet.pk, "cut", "e1/linked_bead")
    assert standing.count() == 0


def test_the_board_lays_out_what_is_left_and_says_what_to_buy(
    bench: Workshop, bracelet: Piece
) -> None:
    jar = add_stock(bench, {**REEL, "kind": "offcut", "amount": "170"})
    groups = {g.label: g for g in lay_out(bench, [bracelet])}
    links = groups["20 AWG (0.81 mm) copper, half-hard"]
    assert links.lanes[0].stock == jar
    assert len(links.lanes[0].cuts) == 2
    assert sum(len(lane.cuts) for lane in links.lanes) == 10
    assert (links.buy_count, links.buy_each_mm) == (1, 1000)
    hook = groups["18 AWG (1.02 mm) copper, half-hard"]
    assert hook.buy_count == 1
    # A spoiled length is gone, and the rest is laid out anew.
    spoil(bench, jar.pk, "85", "slipped")
    again = {g.label: g for g in lay_out(bench, [bracelet])}[links.label]
    assert len(again.lanes[0].cuts) == 1
    put_away(bench, "stock", jar.pk)
    assert all(lane.stock is None for g in lay_out(bench, [bracelet]) for lane in g.lanes)


ACTS = st.lists(
    st.tuples(
        st.sampled_from(["tick", "untick", "spoil", "buy"]), st.integers(1, 10), st.integers(0, 1)
    ),
    max_size=14,
)


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(ACTS)
def test_movements_add_up_after_any_order_of_tick_spoil_and_undo(
    bench: Workshop, bracelet: Piece, acts: list[tuple[str, int, int]]
) -> None:
    stocks = [
        add_stock(bench, {**REEL, "amount": "400"}),
        add_stock(bench, {**REEL, "kind": "offcut", "amount": "190"}),
    ]
    expected = {stocks[0].pk: 400.0, stocks[1].pk: 190.0}
    cut_from: dict[int, tuple[int, float]] = {}
    for act, n, which in acts:
        stock = stocks[which]
        if act == "tick" and n not in cut_from:
            try:
                making.tick(bench, bracelet.pk, "cut", f"e1/linked_bead#{n}", "80", stock.pk)
            except BriefRefused:
                assert expected[stock.pk] < 80
            else:
                expected[stock.pk] -= 80
                cut_from[n] = (stock.pk, 80.0)
        elif act == "untick" and n in cut_from:
            making.untick(bench, bracelet.pk, "cut", f"e1/linked_bead#{n}")
            pk, length = cut_from.pop(n)
            expected[pk] += length
        elif act == "spoil":
            try:
                spoil(bench, stock.pk, "33", "")
            except BriefRefused:
                assert expected[stock.pk] < 33
            else:
                expected[stock.pk] -= 33
        elif act == "buy":
            move(bench, stock.pk, "50", "bought")
            expected[stock.pk] += 50
        for one in stocks:
            assert amount_of(one) == pytest.approx(expected[one.pk], abs=0.06)
            assert amount_of(one) >= 0
    for n in list(cut_from):
        making.untick(bench, bracelet.pk, "cut", f"e1/linked_bead#{n}")
    for one in stocks:
        Movement.objects.filter(stock=one).exclude(undoes=None).delete()
        Movement.objects.filter(stock=one).delete()
        one.delete()


KILLED = """
import os, signal, sys
import django
django.setup()
from jamreel.workshop import making, stock
from jamreel.workshop.models import Movement, Piece, Stock, Workshop

create = Movement.objects.create
def dies(**values):
    made = create(**values)
    if sys.argv[1] == "middle":
        os.kill(os.getpid(), signal.SIGKILL)
    return made
Movement.objects.create = dies
bench = Workshop.objects.get()
making.tick(bench, Piece.objects.get().pk, "cut", "e1/linked_bead#1", "", Stock.objects.get().pk)
os.kill(os.getpid(), signal.SIGKILL)
"""

PREPARED = """
import json, sys
import django
django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
from jamreel.workshop.models import Workshop
from jamreel.workshop.pieces import save_brief, start_piece
from jamreel.workshop.stock import add_stock
bench = Workshop.objects.create(name="Osier Bench")
start_piece(bench, "Links", json.load(open(sys.argv[1])))
add_stock(bench, {"kind": "reel", "wire": {"size": "20 awg"}, "amount": "1.2 m"})
"""

COUNTED = """
import django
django.setup()
from jamreel.workshop.models import Stock, Tick
from jamreel.workshop.stock import amount_of
print(Tick.objects.count(), round(amount_of(Stock.objects.get())))
"""


def run(code: str, data: Path, *arguments: str) -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "JAMREEL_DATA": str(data)}
    command = [sys.executable, "-c", code, *arguments]
    return subprocess.run(
        command, env=environment, cwd=ROOT, check=False, capture_output=True, text=True
    )


def test_killed_in_the_middle_of_a_tick_there_is_both_or_neither(tmp_path: Path) -> None:
    brief = ROOT / "docs" / "examples" / "linked-bracelet.json"
    assert run(PREPARED, tmp_path, str(brief)).returncode == 0
    assert run(KILLED, tmp_path, "middle").returncode == -signal.SIGKILL
    assert run(COUNTED, tmp_path).stdout.split() == ["0", "1200"]
    assert run(KILLED, tmp_path, "after").returncode == -signal.SIGKILL
    assert run(COUNTED, tmp_path).stdout.split() == ["1", "1119"]


def test_the_rack_goes_out_and_comes_back_as_csv(bench: Workshop) -> None:
    add_stock(bench, {**REEL, "price": "0.45", "low": "300"})
    add_stock(bench, {"kind": "bead", "name": "=slate", "amount": "84", "size": "6", "hole": "1"})
    text = stock_csv(bench)
    assert "'=slate" in text
    other = Workshop.objects.create(name="Other")
    looked = import_stock(other, text, commit=False)
    assert (looked.count, looked.refused, looked.imported) == (2, [], False)
    assert not Stock.objects.filter(workshop=other).exists()
    assert import_stock(other, text, commit=True).imported
    assert stock_csv(other) == text


def test_one_bad_line_keeps_a_whole_file_out(bench: Workshop) -> None:
    text = "kind,name,wire,metal,temper,amount [mm or pieces]\nreel,a,20 awg,copper,half_hard,900\n"
    bad = text + "reel,b,20 awg,tin,half_hard,900\n"
    done = import_stock(bench, bad, commit=True)
    assert [(r.line, "tin" in r.says) for r in done.refused] == [(3, True)]
    assert not Stock.objects.exists()
    assert import_stock(bench, "name\nx\n", commit=True).refused[0].line == 1


def test_sections_go_out_and_come_back_as_csv(bench: Workshop) -> None:
    sections: list[dict[str, Any]] = [
        {"shape": "half_round", "flat": "4 mm"},
        {"shape": "flat", "width": "3.5 mm", "thickness": "1.9 mm", "edges": "sharp"},
        {"shape": "twisted", "strands": 3, "strand": "0.5 mm", "pitch": "5 mm"},
        {"shape": "patterned", "width": "5 mm", "thickness": "1 mm", "fills": 0.7},
    ]
    for section in sections:
        wire = {"size": "1 mm", "section": section}
        add_stock(bench, {"kind": "length", "wire": wire, "amount": "123456.789 mm"})
    text = stock_csv(bench)
    assert "flat; width=3.5 mm; thickness=1.9 mm; edges=sharp" in text
    assert text.count("123456.789") == 4
    other = Workshop.objects.create(name="Other")
    assert import_stock(other, text, commit=True).imported
    keys = [list(Stock.objects.filter(workshop=w).values_list("key")) for w in (bench, other)]
    assert keys[0] == keys[1]
    wrong = import_stock(other, "kind,section,amount\nreel,oval; width=3 mm,1\n", commit=True)
    assert not wrong.imported
    assert "oval" in wrong.refused[0].says


BEADS = {"kind": "bead", "name": "reed 6", "size": "6 mm", "hole": "1 mm", "amount": "30"}
CLASPS = {"kind": "finding", "name": "clasps", "size": "11 mm", "amount": "2"}


@pytest.fixture
def untouched(bench: Workshop) -> Piece:
    brief = {**example("linked_bracelet"), "piece": {"kind": "linked_bracelet"}}
    return start_piece(bench, "Links", brief)


def need_of(bench: Workshop, piece: Piece, kind: str) -> Fetch:
    return next(one for one in to_fetch(bench, [piece]) if one.need.kind == kind)


def test_beads_leave_their_tray_when_they_are_taken_and_come_back(
    bench: Workshop, untouched: Piece
) -> None:
    small = add_stock(bench, {**BEADS, "name": "reed 4", "size": "4 mm"})
    tray = add_stock(bench, BEADS)
    fetch = need_of(bench, untouched, "bead")
    assert [s.name for s in fetch.may_be] == ["reed 6", "reed 4"]
    assert fits_need(fetch.need, tray)
    assert not fits_need(fetch.need, small)
    # Green glass is wanted; a name that says neither may be anything.
    for name, fits in (("reed stone", False), ("slate glass", False), ("jar by the door", True)):
        other = add_stock(bench, {**BEADS, "name": name})
        assert fits_need(fetch.need, other) is fits
        put_away(bench, "stock", other.pk)
    count = fetch.need.quantity
    making.tick(bench, untouched.pk, "need", fetch.need.id, stock_id=tray.pk)
    assert amount_of(tray) == 30 - count
    assert [one.need.kind for one in to_fetch(bench, [untouched])] == ["finding"]
    with pytest.raises(AlreadyTicked):
        making.tick(bench, untouched.pk, "need", fetch.need.id, stock_id=tray.pk)
    making.untick(bench, untouched.pk, "need", fetch.need.id)
    assert amount_of(tray) == 30
    # One rolled off the bench: so many were taken as were said to be.
    making.tick(bench, untouched.pk, "need", fetch.need.id, str(count + 1), tray.pk)
    assert amount_of(tray) == 30 - count - 1
    assert not untouched.ticks.filter(kind="cut").exists()
    # Another bead that comes in before them leaves those taken as they are.
    first = [
        {"part": {"kind": "bead", "bead": "9"}},
        {"id": "links", "part": {"kind": "linked_bead"}, "times": count},
    ]
    brief = {**example("linked_bracelet"), "piece": {"kind": "linked_bracelet", "entries": first}}
    changed, _ = save_brief(bench, untouched.pk, untouched.version, brief)
    left = [one.need.size for one in to_fetch(bench, [changed]) if one.need.kind == "bead"]
    assert left == ["9.0 mm reed green glass"]


@pytest.mark.parametrize(
    ("typed", "actual", "field"),
    [
        ({**BEADS, "amount": "3"}, "", "stock"),
        (BEADS, "2.5", "made.links/bead"),
        (BEADS, "a few", "made.links/bead"),
        (REEL, "", "stock"),
    ],
)
def test_what_can_not_be_taken_is_refused_and_nothing_moves(
    bench: Workshop, untouched: Piece, typed: dict[str, Any], actual: str, field: str
) -> None:
    tray = add_stock(bench, typed)
    before = amount_of(tray)
    key = need_of(bench, untouched, "bead").need.id
    with pytest.raises(BriefRefused) as refused:
        making.tick(bench, untouched.pk, "need", key, actual, tray.pk)
    assert refused.value.problems[0].field.split("-")[0] == field.split("-")[0]
    assert amount_of(tray) == before
    assert not Tick.objects.filter(undone_at__isnull=True).exists()


def test_wire_can_not_be_cut_off_a_tray_of_beads(bench: Workshop, untouched: Piece) -> None:
    tray = add_stock(bench, {**BEADS, "amount": "4000"})
    cut = lay_out(bench, [untouched])[0].lanes[0].cuts[0]
    with pytest.raises(BriefRefused) as refused:
        making.tick(bench, untouched.pk, "cut", cut.key, stock_id=tray.pk)
    assert refused.value.problems[0].key == "not_wire"
    assert amount_of(tray) == 4000


def test_what_the_trays_lack_for_several_pieces_is_counted_together(
    bench: Workshop, untouched: Piece
) -> None:
    add_stock(bench, CLASPS)
    brief = {**example("linked_bracelet"), "piece": {"kind": "linked_bracelet"}}
    pieces = [untouched, *(start_piece(bench, f"Links {n}", brief) for n in (2, 3))]
    beads = need_of(bench, untouched, "bead").need.quantity
    short = {(s.label, s.size): s.count for s in short_of(bench, to_fetch(bench, pieces))}
    assert short == {("beads", "6.0 mm reed green glass"): 3 * beads, ("clasp", "11.0 mm"): 1}
    add_stock(bench, {**BEADS, "amount": str(3 * beads - 5), "price": "0.2"})
    fetch = to_fetch(bench, pieces)
    assert {s.label: s.count for s in short_of(bench, fetch)} == {"beads": 5, "clasp": 1}
    assert cost_of(fetch) == pytest.approx(3 * beads * 0.2)


def test_a_board_weighs_wire_by_its_section_even_when_none_is_on_the_rack(bench: Workshop) -> None:
    half = {"size": "2 mm", "section": {"shape": "half_round", "flat": "4 mm"}}
    cuff = start_piece(bench, "Cuff", {**example("open_cuff"), "wire": half})
    (group,) = lay_out(bench, [cuff])
    (cut,) = group.lanes[0].cuts
    # Half of a 4 mm round, copper at 8.94 g/cm3.
    grams = 8.94e-3 * 3.14159265 * 4 / 2 * cut.cut.length_mm
    assert group.mass_g == pytest.approx(grams, rel=1e-4)
    assert group.buy_count == 1
    add_stock(bench, {"kind": "length", "wire": half, "amount": "40 cm"})
    (on_it,) = lay_out(bench, [cuff])
    assert (on_it.buy_count, on_it.lanes[0].kind) == (0, "length")


def test_a_board_looks_the_same_until_something_changes(bench: Workshop, bracelet: Piece) -> None:
    add_stock(bench, REEL)
    add_stock(bench, {**REEL, "kind": "offcut", "amount": "183 mm"})

    def board() -> list[tuple[str, list[str]]]:
        return [
            (lane.kind, [one.id for one in lane.cuts])
            for group in lay_out(bench, [bracelet])
            for lane in group.lanes
        ]

    first = board()
    assert board() == first
    cut = lay_out(bench, [bracelet])[0].lanes[0].cuts[0]
    making.tick(bench, bracelet.pk, "cut", cut.key)
    left = [one for _, ids in board() for one in ids]
    assert cut.id not in left
    assert len(left) == sum(len(ids) for _, ids in first) - 1

"""Samples and records of a maker's hand: summed up, set aside with a reason, never deleted."""

import math
from typing import Any

import pytest
from django.http import Http404

from jamreel.core.hand.belief import believe, seen
from jamreel.core.plan import BriefRefused
from jamreel.workshop.hands import Sample, note_sample, put_on_record, set_aside
from jamreel.workshop.models import HandRecord, Stock, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.stock import add_stock
from jamreel.workshop.trials import note_trial

Brief = dict[str, Any]


@pytest.fixture
def reel(bench: Workshop, brief: Brief) -> Stock:
    return add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m", "name": "R"})


def loop(bench: Workshop, reel: Stock, took: str, pin: str = "2.6") -> HandRecord:
    return note_sample(bench, Sample("loop", reel.pk, {"pin": pin, "took": took}))


def test_two_samples_change_the_next_cut_and_setting_one_aside_changes_it_back(
    bench: Workshop, brief: Brief, reel: Stock
) -> None:
    piece = start_piece(bench, "Bangle", {**brief, "cutting": {"school": "record"}})

    def cut() -> tuple[float, float, str]:
        bench.refresh_from_db()
        plan = plan_of(piece, shop_of(bench)).plan
        assert plan is not None
        line = next(one for one in plan.ledger if one.id == "record")
        return plan.cuts[0].length_mm, line.value_mm, line.reason

    bare = cut()
    one = loop(bench, reel, "14.1")
    with_one = cut()
    two = loop(bench, reel, "14.4")
    with_two = cut()
    assert "2 records" in with_two[2]
    assert with_two[0] - bare[0] == pytest.approx(with_two[1] - bare[1], abs=1e-9)
    set_aside(bench, two.pk, "the pin had slipped", aside=True)
    assert cut() == with_one
    set_aside(bench, one.pk, "another wire", aside=True)
    assert cut() == bare
    set_aside(bench, two.pk, "", aside=False)
    set_aside(bench, one.pk, "", aside=False)
    assert cut() == with_two
    assert HandRecord.objects.count() == 2


def test_what_is_summed_up_is_what_the_records_say(
    bench: Workshop, brief: Brief, reel: Stock
) -> None:
    ratios = [1.02, 1.09, 1.05, 0.98, 1.11]
    records = [
        HandRecord(
            workshop=bench,
            kind="wire",
            technique="coil",
            stock=reel.key,
            planned=100,
            took=100 * r,
            source="sample",
        )
        for r in ratios
    ]
    put_on_record(bench, records)
    bench.refresh_from_db()
    known = shop_of(bench).hand.of("coil", reel.key)
    wanted = believe(seen(ratios))
    assert known.belief.mean == pytest.approx(wanted.mean)
    assert known.belief.scale == pytest.approx(wanted.scale)


def test_a_sample_is_read_against_its_rule(bench: Workshop, reel: Stock) -> None:
    d = 1.6277
    record = loop(bench, reel, "13.6")
    assert record.planned == pytest.approx(3.14159265 * (2.6 + d), abs=1e-3)
    ten = note_sample(bench, Sample("coil", reel.pk, {"pin": "3", "took": "150"}))
    # Ten turns of a helix that goes on by its own wire.
    assert ten.planned == pytest.approx(10 * math.hypot(math.pi * (3 + d), d), abs=1e-2)
    wrapped = note_sample(
        bench, Sample("wrapped_loop", reel.pk, {"pin": "2.6", "turns": "2", "took": "35"})
    )
    assert wrapped.planned > record.planned + 2 * 3.14 * 2 * d


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({"pin": "", "took": "13"}, "pin"),
        ({"pin": "2.6", "took": ""}, "took"),
        ({"pin": "2.6", "took": "133"}, "took"),
        ({"pin": "two", "took": "13"}, "pin"),
        ({"pin": "0", "took": "13"}, "pin"),
        ({"pin": "2.6", "took": "13", "turns": "2.5"}, "turns"),
        ({"pin": "2.6", "took": "13", "turns": "0"}, "turns"),
    ],
)
def test_a_sample_that_can_not_be_is_refused_at_its_field(
    bench: Workshop, reel: Stock, typed: dict[str, str], field: str
) -> None:
    with pytest.raises(BriefRefused) as refused:
        note_sample(bench, Sample("loop", reel.pk, typed))
    assert refused.value.problems[0].field == field
    assert HandRecord.objects.count() == 0


def test_a_record_is_set_aside_with_a_reason_only(bench: Workshop, reel: Stock) -> None:
    record = loop(bench, reel, "13.6")
    with pytest.raises(BriefRefused):
        set_aside(bench, record.pk, "  ", aside=True)
    other = Workshop.objects.create(name="Sedge")
    with pytest.raises(Http404):
        set_aside(other, record.pk, "not mine", aside=True)


def test_trials_of_a_reel_count_once_and_those_of_pieces_beside(
    bench: Workshop, reel: Stock
) -> None:
    note_trial(bench, reel.pk, {"former": "56", "came_off": "60.5"})
    note_trial(bench, reel.pk, {"former": "56", "came_off": "60.1"})
    bench.refresh_from_db()
    first = HandRecord.objects.get(set_aside_at=None)
    assert shop_of(bench).measured[0].yield_mpa == pytest.approx(first.ratio, abs=0.01)
    piece_record = HandRecord(
        workshop=bench,
        kind="former",
        technique="former",
        stock=reel.key,
        planned=56,
        took=61,
        ratio=first.ratio + 40,
        source="piece",
        reel=reel,
    )
    put_on_record(bench, [piece_record])
    bench.refresh_from_db()
    assert shop_of(bench).measured[0].yield_mpa == pytest.approx(first.ratio + 20, abs=0.01)
    assert shop_of(bench).measured[0].records == 2
    note_trial(bench, reel.pk, {"former": "", "came_off": ""})
    bench.refresh_from_db()
    assert shop_of(bench).measured[0].records == 1
    assert HandRecord.objects.count() == 3

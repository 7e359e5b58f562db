"""A day planned on a bench: what is done counts, waits that run, what makes a plan stale."""

from collections.abc import Callable
from datetime import UTC, date, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from icalendar import Calendar

from jamreel.core.plan import BriefRefused
from jamreel.workshop import at_bench, clock, day, making
from jamreel.workshop.day import Chosen, plan_day, why_stale
from jamreel.workshop.models import Piece, Wait, Workshop
from jamreel.workshop.pieces import change_card, start_piece
from jamreel.workshop.slots import alone
from jamreel.workshop.turns import Busy

Brief = dict[str, Any]
TODAY = date(2026, 11, 2)
NINE = datetime(2026, 11, 2, 8, 0, tzinfo=UTC)
HOURS = (("9:00", "12:30"), ("13:15", "17:00"))


@pytest.fixture
def set_clock(monkeypatch: pytest.MonkeyPatch) -> Callable[[float], None]:
    """Set the server's clock to so many minutes after nine in the maker's zone."""
    at = {"now": NINE}
    monkeypatch.setattr(clock, "now", lambda: at["now"])

    def set_to(minutes: float) -> None:
        at["now"] = NINE + timedelta(minutes=minutes)

    return set_to


def chosen(*pieces: Piece, **more: Any) -> Chosen:
    what: dict[str, Any] = {
        "pieces": tuple(piece.pk for piece in pieces),
        "first": None,
        "hours": HOURS,
        "there_is": {"hands": 1, "torch": 1, "pickle": 1, "tumbler": 1},
        "zone": "Europe/Amsterdam",
    }
    return Chosen(**{**what, **more})


def test_a_day_is_planned_from_now_in_the_makers_own_zone(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    plan = at_bench.at_bench(bench, piece.pk).planned.plan
    assert plan is not None
    minutes = plan.minutes or 0.0
    set_clock(30)
    kept = plan_day(bench, TODAY, chosen(piece))
    begins, ends = day.moments(kept)[0]["start"], day.moments(kept)[-1]["end"]
    assert begins == NINE + timedelta(minutes=30)
    # Quarters of a minute: each step may be rounded up by one.
    assert 0 <= (ends - begins).total_seconds() / 60 - minutes <= 0.25 * len(plan.steps)
    making.tick(bench, piece.pk, "step", plan.steps[0].id)
    again = plan_day(bench, TODAY, chosen(piece))
    assert [one["task"] for one in again.found["placed"]] == [s.id for s in plan.steps[1:]]
    # Past the hours of today it goes on tomorrow.
    set_clock(11 * 60)
    late = plan_day(bench, TODAY, chosen(piece))
    assert day.moments(late)[0]["start"] == NINE + timedelta(days=1)


def test_what_was_cut_on_the_board_is_not_planned_again(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    before = at_bench.at_bench(bench, piece.pk).steps
    upto = next(n for n, one in enumerate(before) if "cut" in one.step.asks)
    for key, _ in before[upto].cuts:
        making.tick(bench, piece.pk, "cut", key)
    placed = plan_day(bench, TODAY, chosen(piece)).found["placed"]
    assert [one["task"] for one in placed] == [one.step.id for one in before[upto + 1 :]]


def test_a_wait_that_runs_holds_its_piece_and_not_the_others(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    waiting, free = (start_piece(bench, name, brief) for name in ("Waiting", "Free"))
    ends = NINE + timedelta(minutes=40)
    Wait.objects.create(
        workshop=bench, piece=waiting, key="x", title="cools", began_at=NINE, ends_at=ends
    )
    moments = day.moments(plan_day(bench, TODAY, chosen(waiting, free)))
    assert min(m["start"] for m in moments if m["job"] == waiting.pk) >= ends
    assert moments[0]["job"] == free.pk
    assert moments[0]["start"] == NINE


def test_a_plan_goes_stale_when_something_is_done_or_a_step_takes_longer(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    kept = plan_day(bench, TODAY, chosen(piece))
    assert why_stale(bench, kept) == ""
    first = kept.found["placed"][0]
    at_bench.go_to(bench, piece.pk, first["task"])
    set_clock(first["end"] - first["start"] + 9)
    assert why_stale(bench, kept) == ""
    set_clock(first["end"] - first["start"] + 11)
    assert "longer than planned" in why_stale(bench, kept)
    making.tick(bench, piece.pk, "step", first["task"])
    assert "since" in why_stale(bench, kept)
    fresh = plan_day(bench, TODAY, chosen(piece))
    assert why_stale(bench, fresh) == ""


def test_a_date_that_can_not_be_met_is_told(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    pieces = [start_piece(bench, f"Bangle {n}", brief) for n in range(3)]
    for piece in pieces:
        change_card(bench, piece.pk, piece.name, None, TODAY)
    short = (("9:00", "9:45"),)
    kept = plan_day(bench, TODAY, chosen(*pieces, hours=short))
    assert len(kept.found["late"]) == 1
    assert len(kept.found["leave_out"]) == 1
    assert kept.found["late"][0]["by"] > 24 * 60 - 45


def test_the_calendar_reads_back_with_the_same_moments(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    piece = start_piece(bench, "Bangle, with; signs", brief)
    kept = plan_day(bench, TODAY, chosen(piece))
    events = Calendar.from_ical(day.as_ics(bench, kept)).walk("VEVENT")
    moments = day.moments(kept)
    assert [str(one["summary"]) for one in events] == ["Bangle, with; signs"]
    assert events[0].decoded("dtstart") == moments[0]["start"]
    assert events[-1].decoded("dtend") == moments[-1]["end"]
    assert len({str(one["uid"]) for one in events}) == len(events)
    assert str(events[0]["description"]).splitlines()[0] == moments[0]["title"]


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"hours": ()}, "hours"),
        ({"hours": (("9:00", "8:00"),)}, "hours.0"),
        ({"hours": (("9:00", "12:00"), ("11:00", "13:00"))}, "hours.1"),
        ({"hours": (("nine", "12:00"),)}, "hours.0"),
        ({"hours": (("24:00", "25:00"),)}, "hours.0"),
        ({"there_is": {"hands": -1}}, "there_is.hands"),
        ({"there_is": {"forge": 1}}, "there_is.forge"),
        ({"zone": "Mars/North"}, "zone"),
        ({"zone": "../../etc/passwd"}, "zone"),
    ],
)
def test_a_day_that_can_not_be_is_refused_at_its_field(
    bench: Workshop, brief: Brief, more: dict[str, Any], field: str
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    with pytest.raises(BriefRefused) as refused:
        plan_day(bench, TODAY, chosen(piece, **more))
    assert refused.value.problems[0].field == field


def test_a_piece_without_a_plan_is_named(bench: Workshop, brief: Brief) -> None:
    piece = start_piece(bench, "Bare", {**brief, "measures": {}})
    with pytest.raises(BriefRefused) as refused:
        plan_day(bench, TODAY, chosen(piece))
    assert "Bare" in refused.value.problems[0].says


@pytest.mark.parametrize(
    ("on", "before"),
    # The night before: summer time ends, and begins.
    [(date(2026, 10, 25), 10.0), (date(2026, 3, 29), 8.0)],
)
def test_a_day_on_which_the_clocks_change_begins_when_its_clock_says_so(
    bench: Workshop, brief: Brief, monkeypatch: pytest.MonkeyPatch, on: date, before: float
) -> None:
    zone = ZoneInfo("Europe/Amsterdam")
    midnight = datetime(on.year, on.month, on.day, tzinfo=zone)
    monkeypatch.setattr(clock, "now", lambda: midnight.astimezone(UTC) - timedelta(hours=2))
    piece = change_card(bench, start_piece(bench, "Bangle", brief).pk, "Bangle", None, on)[0]
    kept = plan_day(bench, on, chosen(piece))
    first = day.moments(kept)[0]["start"]
    assert (first.hour, first.minute, first.date()) == (9, 0, on)
    # That is nine by the clock, and an hour more or less from midnight.
    assert kept.found["placed"][0]["start"] == 60 * before
    assert first.astimezone(UTC) - midnight.astimezone(UTC) == timedelta(hours=before)
    # The next day is one of 24 hours again, on the same line of time.
    monkeypatch.setattr(clock, "now", lambda: midnight.astimezone(UTC) + timedelta(hours=21))
    later = day.moments(plan_day(bench, on, chosen(piece)))[0]["start"]
    assert (later.hour, later.date()) == (9, on + timedelta(days=1))


def test_a_day_that_is_over_is_worked_out_anew_from_now(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    set_clock(3 * 24 * 60 + 45)
    kept = plan_day(bench, TODAY, chosen(piece))
    assert day.moments(kept)[0]["start"] == NINE + timedelta(days=3, minutes=45)


def test_zones_go_by_their_common_names_and_entries_by_the_bench_s_own(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    for zone in ("Etc/GMT+3", "EST", "right/Europe/Paris", "../../etc/passwd", "Europe/Nowhere"):
        with pytest.raises(BriefRefused) as refused:
            plan_day(bench, TODAY, chosen(piece, zone=zone))
        assert refused.value.problems[0].field == "zone"
    calendar = Calendar.from_ical(day.as_ics(bench, plan_day(bench, TODAY, chosen(piece))))
    (told,) = calendar.walk("VTIMEZONE")
    assert told["TZID"] == "Europe/Amsterdam"
    event = calendar.walk("VEVENT")[0]
    assert event["DTSTART"].params["TZID"] == "Europe/Amsterdam"
    assert event.decoded("dtstart") == NINE
    other = Workshop.objects.create(name="Sedge Bench")
    theirs = start_piece(other, "Bangle", brief)
    second = Calendar.from_ical(day.as_ics(other, plan_day(other, TODAY, chosen(theirs))))
    assert str(event["UID"]) != str(second.walk("VEVENT")[0]["UID"])
    assert len(str(event["UID"])) == 32


def test_one_day_at_a_time_is_worked_out_for_a_bench(bench: Workshop, brief: Brief) -> None:
    piece = start_piece(bench, "Bangle", brief)
    with alone("day", bench.pk) as mine:
        assert mine
        with pytest.raises(Busy):
            plan_day(bench, TODAY, chosen(piece))
    assert plan_day(bench, TODAY, chosen(piece)).found["placed"]

"""The day plan of a bench: what is chosen for a day, worked out with what is done by now, kept."""

import json
import re
from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import UTC, date, datetime, time, timedelta
from functools import cache
from itertools import groupby
from typing import Any
from zoneinfo import ZoneInfo, available_timezones

from django.db import transaction
from django.utils.crypto import salted_hmac
from icalendar import Calendar, Event

from jamreel.core.bench.day.case import MOST_DAYS as MOST_DAYS_AHEAD
from jamreel.core.bench.day.case import MOST_JOBS, Hours, Job, Task
from jamreel.core.bench.day.schedule import schedule
from jamreel.core.bench.steps import Step
from jamreel.core.errors import Refusal
from jamreel.core.plan import in_words
from jamreel.core.words import say
from jamreel.workshop import clock
from jamreel.workshop.apart import Spent, apart
from jamreel.workshop.at_bench import at_bench
from jamreel.workshop.making import NothingToTick
from jamreel.workshop.models import DayPlan, Piece, StepClock, Wait, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import refuse, shop_of
from jamreel.workshop.quotas import count_bytes, room_for_bytes
from jamreel.workshop.slots import alone
from jamreel.workshop.turns import Busy, whole_piece, worked_by

# Hours and resources of a bench that has not said otherwise; common practice.
USUAL_HOURS = (("09:00", "12:30"), ("13:15", "17:00"))
USUAL_RESOURCES = {"hands": 1, "torch": 1, "pickle": 1, "tumbler": 1}
MOST_STRETCHES, MOST_OF = 6, 9
# Of a step that takes longer than planned so much is still left to do [min].
STILL = 1.0
# A plan goes stale when what should have begun has not by so much [min].
LATE_MIN = 10.0
# What working a day out may take in a process of its own [s of processor, MB]; the solver ends
# sooner by itself. So many days are kept.
SECONDS, MEGABYTES, MOST_DAYS = 12.0, 1500, 400
_TIME = re.compile(r"([01]?\d|2[0-3]):([0-5]\d)")


@dataclass(frozen=True)
class Chosen:
    """What is chosen for a day: pieces, which of them goes first, the hours, what there is, and the
    zone that the hours are meant in."""

    pieces: tuple[int, ...]
    first: int | None
    hours: tuple[tuple[str, str], ...]
    there_is: dict[str, int]
    zone: str = "UTC"


# Where zones are named by a place, as people know them.
_AREAS = (
    "Africa", "America", "Antarctica", "Arctic", "Asia", "Atlantic", "Australia", "Europe",
    "Indian", "Pacific",
)  # fmt: skip


@cache
def zones() -> frozenset[str]:
    """Return the zones that a day may be in, by their common names."""
    named = (zone for zone in available_timezones() if zone.partition("/")[0] in _AREAS)
    return frozenset(("UTC", *named))


def chosen_for(workshop: Workshop, day: date) -> Chosen:
    """Return what is chosen for a day: hours and resources as last time where nothing is yet."""
    kept = rows(DayPlan, workshop).filter(day=day).first()
    last = kept or rows(DayPlan, workshop).order_by("-day").first()
    found = last.chosen if last else {}
    return Chosen(
        pieces=tuple(kept.chosen.get("pieces", ())) if kept else (),
        first=kept.chosen.get("first") if kept else None,
        hours=tuple((a, b) for a, b in found.get("hours", USUAL_HOURS)),
        there_is={**USUAL_RESOURCES, **found.get("there_is", {})},
        zone=found.get("zone", "UTC"),
    )


def plan_day(workshop: Workshop, day: date, chosen: Chosen) -> DayPlan:
    """Return a day's plan, worked out with what is done by now, and keep it.

    Args:
        workshop: whose day.
        day: in the zone of the hours.
        chosen: what is to be done, and when there are hands.

    Raises:
        BriefRefused: hours that are none, too much at once, a piece without a plan, a resource that
            a step needs and the bench has not.
    """
    _sane(workshop, chosen)
    shop = shop_of(workshop)
    pieces = _pieces(workshop, chosen)
    midnight = datetime.combine(day, time(), ZoneInfo(chosen.zone))
    jobs = [_job(workshop, piece, midnight, chosen) for piece in pieces]
    hours = _hours(chosen, midnight)
    has: Any = {k: v for k, v in chosen.there_is.items() if k in USUAL_RESOURCES}
    with alone("day", workshop.pk) as mine:
        if not mine:
            raise Busy
        try:
            found = in_words(
                lambda: apart(
                    schedule, jobs, hours, has, chosen.first, seconds=SECONDS, megabytes=MEGABYTES
                ),
                shop,
            )
        except Spent:
            refuse(workshop, Refusal("day_spent", got=len(chosen.pieces), field="pieces"))
    with transaction.atomic():
        return _keep(
            workshop,
            day,
            {
                "chosen": asdict(chosen),
                "found": asdict(found),
                "worked_for": _worked_for(workshop, chosen.pieces),
            },
        )


def _keep(workshop: Workshop, day: date, plan: dict[str, Any]) -> DayPlan:
    """Keep a day's plan in place of an earlier one, counted in bytes; of very old ones none."""
    mine = rows(DayPlan, workshop)
    before = mine.filter(day=day).first()
    size = _size(plan)
    room_for_bytes(workshop, size)
    count_bytes(workshop, size - (_size(vars(before)) if before else 0))
    kept, _ = mine.update_or_create(
        workshop=workshop, day=day, defaults={**plan, "worked_at": clock.now()}
    )
    for old in mine.order_by("-day")[MOST_DAYS:]:
        count_bytes(workshop, -_size(vars(old)))
        old.delete()
    return kept


def _size(plan: Any) -> int:
    return sum(len(json.dumps(plan[name])) for name in ("chosen", "found", "worked_for"))


def _sane(workshop: Workshop, chosen: Chosen) -> None:
    if len(chosen.pieces) > MOST_JOBS:
        many = Refusal("day_much", got=len(chosen.pieces), field="pieces", most=MOST_JOBS)
        refuse(workshop, many)
    if chosen.first is not None:
        # Another bench's piece is none of ours, first or not.
        row(Piece, workshop, chosen.first)
    if not 1 <= len(chosen.hours) <= MOST_STRETCHES:
        refuse(workshop, Refusal("day_hours", got=len(chosen.hours), field="hours"))
    before = -1.0
    for n, (start, end) in enumerate(chosen.hours):
        a, b = (_of_day(workshop, text, f"hours.{n}") for text in (start, end))
        if not before <= a < b:
            got = f"{start}–{end}"
            refuse(workshop, Refusal("day_stretch", got=got, field=f"hours.{n}"))
        before = b
    for name, count in chosen.there_is.items():
        if name not in USUAL_RESOURCES or not 0 <= count <= MOST_OF:
            field = f"there_is.{name}"[:60]
            refuse(workshop, Refusal("day_count", got=count, field=field, most=MOST_OF))
    if chosen.zone not in zones():
        refuse(workshop, Refusal("day_zone", got=chosen.zone, field="zone"))


def _of_day(workshop: Workshop, text: str, field: str) -> float:
    """Return a time of day in minutes from midnight. Raises BriefRefused."""
    found = _TIME.fullmatch(text.strip())
    if found is None:
        refuse(workshop, Refusal("day_time", got=text, field=field))
    return int(found[1]) * 60 + int(found[2])


def _hours(chosen: Chosen, midnight: datetime) -> Hours:
    """Return when there are hands from now on: what is left of the day, or of today where that is
    over, and all of every day behind it, on one line of time.

    A day on which the clocks change has 23 or 25 hours.
    """
    now = _minutes(clock.now(), midnight)
    zone = ZoneInfo(chosen.zone)
    first = max(midnight.date(), clock.now().astimezone(zone).date())
    later = tuple((_clock_minutes(a), _clock_minutes(b)) for a, b in chosen.hours)

    def on(day: date) -> tuple[tuple[float, float], ...]:
        stretches = (
            tuple(_minutes(_at(day, text, zone), midnight) for text in stretch)
            for stretch in chosen.hours
        )
        return tuple((max(a, now), b) for a, b in stretches if b > max(a, now))

    days = tuple(on(first + timedelta(days=n)) for n in range(1, MOST_DAYS_AHEAD))
    return Hours(on(first), later, days)


def _at(day: date, text: str, zone: ZoneInfo) -> datetime:
    """Return the moment at which a clock of a zone shows a time of day."""
    minutes = _clock_minutes(text)
    return datetime.combine(day, time(int(minutes) // 60, int(minutes) % 60), zone)


def _clock_minutes(text: str) -> float:
    hour, _, minute = text.strip().partition(":")
    return int(hour) * 60 + int(minute)


def _minutes(moment: datetime, midnight: datetime) -> float:
    # Two moments of one zone are told apart by what its clocks show: these are counted.
    return (moment.astimezone(UTC) - midnight.astimezone(UTC)).total_seconds() / 60


def _pieces(workshop: Workshop, chosen: Chosen) -> list[Piece]:
    found = []
    for pk in dict.fromkeys(chosen.pieces):
        piece = whole_piece(workshop, pk)
        if piece.finished_at is None and piece.put_away_at is None:
            found.append(piece)
    return found


def _job(workshop: Workshop, piece: Piece, midnight: datetime, chosen: Chosen) -> Job:
    """Return a piece with what is still to be done of it."""
    try:
        steps = at_bench(workshop, piece.pk).steps
    except NothingToTick:
        refuse(workshop, Refusal("day_no_plan", got=piece.name, field="pieces"))
    ends = (
        rows(Wait, workshop)
        .filter(piece=piece, over_at=None)
        .order_by("-ends_at")
        .values_list("ends_at", flat=True)
        .first()
    )
    return Job(
        id=piece.pk,
        name=piece.name,
        tasks=tuple(_task(one.step, one.seconds) for one in steps if not one.done),
        due=_due(piece.due, midnight, chosen) if piece.due else None,
        ready=max(0.0, _minutes(ends, midnight)) if ends else 0.0,
    )


def _task(step: Step, seconds: float) -> Task:
    left = max(step.minutes - seconds / 60, STILL if step.minutes else 0.0)
    return Task(step.id, step.title, left, step.takes, step.waits, step.waits_in)


def _due(due: date, midnight: datetime, chosen: Chosen) -> float:
    """Return when a piece is due: at the end of the hours of its day."""
    return _minutes(_at(due, chosen.hours[-1][1], ZoneInfo(chosen.zone)), midnight)


def _worked_for(workshop: Workshop, pieces: Sequence[int]) -> dict[str, Any]:
    """Return what a plan hangs on: the turns of its pieces, and the settings."""
    found = list(rows(Piece, workshop).filter(pk__in=pieces).values_list("pk", "turn", "head"))
    return {
        "turns": {str(pk): turn for pk, turn, _ in found},
        "revisions": {str(pk): head for pk, _, head in found},
        "by": worked_by(workshop),
    }


def why_stale(workshop: Workshop, kept: DayPlan) -> str:
    """Return why a plan is to be worked out anew, '' where it still holds: something was done, a
    piece or the settings changed, or a step takes longer than was planned."""
    pieces = kept.chosen.get("pieces", [])
    if kept.worked_for != _worked_for(workshop, pieces):
        return say("day.changed")
    midnight = datetime.combine(kept.day, time(), ZoneInfo(kept.chosen["zone"]))
    now = _minutes(clock.now(), midnight)
    begun = rows(StepClock, workshop).filter(piece__in=pieces, since__isnull=False).first()
    for one in kept.found["placed"]:
        running = begun is not None and (one["job"], one["task"]) == (begun.piece_id, begun.key)
        if now > (one["end"] if running else one["start"]) + LATE_MIN:
            return say("day.longer", title=one["title"])
    return ""


def moments(kept: DayPlan) -> list[dict[str, Any]]:
    """Return the steps of a plan with their moments in its zone."""
    zone = ZoneInfo(kept.chosen["zone"])
    # Counted where no clock is ever changed.
    midnight = datetime.combine(kept.day, time(), zone).astimezone(UTC)

    def at(minutes: float) -> datetime:
        return (midnight + timedelta(minutes=minutes)).astimezone(zone)

    return [
        {**one, **{k: at(one[k]) for k in ("start", "end", "free")}} for one in kept.found["placed"]
    ]


def as_ics(workshop: Workshop, kept: DayPlan) -> bytes:
    """Return a day's plan as a calendar: steps of one piece that follow each other as one entry."""
    names = dict(
        rows(Piece, workshop).filter(pk__in=kept.chosen["pieces"]).values_list("pk", "name")
    )
    calendar = Calendar()
    calendar.add("prodid", "-//Jam Reel//day plan//EN")
    calendar.add("version", "2.0")
    together = groupby(enumerate(moments(kept)), key=lambda row: row[1]["job"])
    for job, several in together:
        listed = [one for _, one in several]
        event = Event()
        event.add("summary", names.get(job, ""))
        event.add("dtstart", listed[0]["start"])
        event.add("dtend", listed[-1]["end"])
        event.add("dtstamp", kept.worked_at)
        event.add("uid", _uid(workshop, kept.day, job, listed[0]))
        event.add("description", "\n".join(one["title"] for one in listed))
        calendar.add_component(event)
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _uid(workshop: Workshop, day: date, job: int, first: dict[str, Any]) -> str:
    """Return a name for an entry that no other bench's calendar has."""
    about = f"{workshop.pk}/{day}/{job}/{first['task']}/{first['part']}"
    return salted_hmac("jamreel.day", about).hexdigest()[:32]

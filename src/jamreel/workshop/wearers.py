"""Wearers and their readings: latest first for a piece, everything kept as history."""

from collections.abc import Sequence
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import F
from django.utils import timezone

from jamreel.core.body.facts import sites
from jamreel.core.draft import unsound
from jamreel.core.errors import Refusal
from jamreel.core.plan import BriefRefused
from jamreel.core.shop import Shop
from jamreel.core.units import Unit
from jamreel.workshop.models import Piece, Reading, Wearer, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import refuse
from jamreel.workshop.quotas import room_for
from jamreel.workshop.readings import as_typed, is_blank, row_of, taken_at, too_long

# So many characters each text of a wearer may have.
LONGEST = {"name": 80, "part": 80}
# Rows named in one query.
_AT_ONCE = 400


def standing_readings(wearer: Wearer) -> dict[str, list[Reading]]:
    """Return a wearer's readings that have not been replaced, by site, oldest first."""
    found: dict[str, list[Reading]] = {site: [] for site in sites()}
    for reading in wearer.readings.all():
        if not reading.replaced and reading.site in found:
            found[reading.site].append(reading)
    return {site: kept[-3:] for site, kept in found.items()}


def measures_of(wearer: Wearer, unit: Unit) -> dict[str, Any]:
    """Return a wearer's standing readings as the measures of a brief in some unit."""
    return {
        site: {"readings": [as_typed(r, unit) for r in kept]}
        for site, kept in standing_readings(wearer).items()
        if kept
    }


def add_wearer(workshop: Workshop, name: str, **known: Any) -> Wearer:
    """Return a new wearer. Raises BriefRefused at a name that somebody has here already."""
    room_for(workshop, Wearer)
    try:
        with transaction.atomic():
            return Wearer.objects.create(workshop=workshop, name=name, **known)
    except IntegrityError:
        away = rows(Wearer, workshop).filter(name=name, put_away_at__isnull=False).exists()
        refuse(workshop, Refusal("name_away" if away else "name_taken", got=name, field="name"))


def change_wearer(workshop: Workshop, wearer_id: int, **known: Any) -> Wearer:
    """Change what is known of a wearer, and have pieces worked out anew where that bears on them.

    Raises:
        BriefRefused: a name that somebody else has here.
    """
    wearer = row(Wearer, workshop, wearer_id)
    grown = known["is_child"] != wearer.is_child
    for key, value in known.items():
        setattr(wearer, key, value)
    try:
        with transaction.atomic():
            wearer.save(update_fields=list(known))
            if grown:
                rows(Piece, workshop).filter(wearer=wearer).update(worked_by="", turn=F("turn") + 1)
    except IntegrityError:
        refuse(workshop, Refusal("name_taken", got=wearer.name, field="name"))
    return wearer


def check_readings(workshop: Workshop, readings: Sequence[dict[str, Any]]) -> None:
    """Refuse what can't be kept of readings as typed, whatever it says. Raises BriefRefused."""
    faults = unsound({"measures": {"wrist_girth": {"readings": list(readings)}}}, _anyone)
    for i, typed in enumerate(readings):
        long = None if faults else too_long(typed)
        if long:
            field, got, most = long
            at = f"readings.{i}.{field}"
            refuse(workshop, Refusal("text_long", got=got, field=at, most=most))
        if not faults and typed.get("taken") and taken_at(typed["taken"]) is None:
            at = f"readings.{i}.taken"
            refuse(workshop, Refusal("no_date", got=typed["taken"], field=at))
    if faults:
        raise BriefRefused(faults)


_anyone = Shop()


def keep_readings(
    workshop: Workshop,
    wearer_id: int,
    site: str,
    readings: Sequence[dict[str, Any]],
    unit: Unit = "mm",
) -> Wearer:
    """Make these the wearer's readings of a site; the ones they replace stay as history.

    ``unit`` is what bare numbers in them are meant in.
    """
    wearer = row(Wearer, workshop, wearer_id)
    room_for(workshop, Reading, len(readings))
    with transaction.atomic():
        keep_all(workshop, [(wearer.name, site, readings)], unit)
    return wearer


def keep_all(
    workshop: Workshop, found: Sequence[tuple[str, str, Sequence[dict[str, Any]]]], unit: Unit
) -> None:
    """Make these the standing readings, inside a transaction, in a handful of queries.

    Args:
        workshop: whose wearers.
        found: name of a wearer who is there, site, and the readings as typed.
        unit: what bare numbers in them are meant in.
    """
    wearers = {wearer.name: wearer for wearer in rows(Wearer, workshop)}
    now = timezone.now()
    sites_now = {(wearers[name].pk, site) for name, site, _ in found}
    standing = rows(Reading, workshop).filter(replaced=False)
    gone = [
        pk
        for pk, wearer, site in standing.values_list("pk", "wearer_id", "site")
        if (wearer, site) in sites_now
    ]
    for start in range(0, len(gone), _AT_ONCE):
        rows(Reading, workshop).filter(pk__in=gone[start : start + _AT_ONCE]).update(replaced=True)
    fresh = []
    for name, site, readings in found:
        for typed in readings:
            if is_blank(typed):
                continue
            one = row_of(typed, unit, now)
            one.workshop, one.wearer, one.site = workshop, wearers[name], site
            fresh.append(one)
    Reading.objects.bulk_create(fresh)
    # Who is measured anew is wanted again.
    known = {one.wearer_id for one in fresh}
    rows(Wearer, workshop).filter(pk__in=known, put_away_at__isnull=False).update(put_away_at=None)

"""Wearers and their readings: latest first for a piece, everything kept as history."""

from collections.abc import Iterable
from datetime import datetime
from typing import Any, cast

from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from jamreel.core.body.facts import sites
from jamreel.core.units import Unit, with_unit
from jamreel.workshop.models import Reading, Wearer, Workshop
from jamreel.workshop.ownership import row, rows


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


def as_typed(reading: Reading, unit: Unit) -> dict[str, Any]:
    """Return a kept reading in the shape a brief has it; the unit is said where it differs."""

    def said(text: str) -> str:
        return text if reading.unit == unit else with_unit(text, cast(Unit, reading.unit))

    typed: dict[str, Any] = {
        "value": said(reading.value),
        "method": reading.method,
        "taken": reading.taken_at.isoformat(timespec="minutes"),
    }
    if reading.thickness:
        typed["thickness"] = said(reading.thickness)
    if reading.ease:
        typed["ease"] = said(reading.ease)
    return typed


@transaction.atomic
def keep_readings(
    workshop: Workshop,
    wearer_id: int,
    site: str,
    readings: Iterable[dict[str, Any]],
    unit: Unit = "mm",
) -> Wearer:
    """Make these the wearer's readings of a site; the ones they replace stay as history.

    ``unit`` is what bare numbers in them are meant in.
    """
    wearer = row(Wearer, workshop, wearer_id)
    standing = rows(Reading, workshop).filter(wearer=wearer, site=site, replaced=False)
    standing.update(replaced=True)
    now = timezone.now()
    Reading.objects.bulk_create(
        Reading(
            workshop=workshop,
            wearer=wearer,
            site=site,
            value=str(typed["value"]).strip(),
            unit=unit,
            method=typed.get("method") or "tape",
            thickness=str(typed.get("thickness") or ""),
            ease=str(typed.get("ease") or ""),
            taken_at=_moment(typed.get("taken")) or now,
        )
        for typed in readings
        if str(typed.get("value") or "").strip()
    )
    return wearer


def _moment(text: str | None) -> datetime | None:
    try:
        moment = parse_datetime(text) if text else None
    except ValueError:
        return None
    if moment is not None and timezone.is_naive(moment):
        moment = timezone.make_aware(moment)
    return moment

"""A reading on its way in and out: one value, kept whole.

What a reading has is said once, by ``core.body.readings.Reading``. Here it is text as typed; the
row keeps its value, the unit that bare numbers are meant in, and all else beside it.
"""

from collections.abc import Mapping
from datetime import datetime
from typing import Any, cast

from django.utils import timezone
from django.utils.dateparse import parse_datetime

from jamreel.core.body.readings import MOST_POSTURE, Reading
from jamreel.core.units import Unit, with_unit
from jamreel.workshop import models

# A reading as typed: text by field.
Typed = dict[str, Any]
LENGTHS = Reading.lengths()
# All that is kept beside the value.
BESIDE = tuple(field for field in Reading.model_fields if field != "value")
# So many characters each text of a reading may have.
LONGEST = {**dict.fromkeys(Reading.model_fields, 40), "method": 20, "posture": MOST_POSTURE}


def row_of(typed: Mapping[str, Any], unit: Unit, now: datetime) -> models.Reading:
    """Return a reading as it is kept, without its wearer and site.

    Args:
        typed: as it came.
        unit: what bare numbers in it are meant in.
        now: the hour of a reading that does not say when it was taken.
    """
    beside = {name: str(typed.get(name) or "").strip() for name in BESIDE}
    beside["method"] = beside["method"] or "tape"
    beside["taken"] = (taken_at(typed.get("taken")) or now).isoformat(timespec="minutes")
    kept = {name: text for name, text in beside.items() if text}
    return models.Reading(value=str(typed.get("value") or "").strip(), unit=unit, beside=kept)


def as_typed(kept: models.Reading, unit: Unit) -> Typed:
    """Return a kept reading as a brief has it; the unit is said where it differs."""
    typed = {"value": kept.value, **kept.beside}
    if kept.unit == unit:
        return typed
    said = cast(Unit, kept.unit)
    return {k: with_unit(v, said) if k in LENGTHS else v for k, v in typed.items()}


def is_blank(typed: Mapping[str, Any]) -> bool:
    """Return whether a reading is a slot not yet used."""
    return not str(typed.get("value") or "").strip()


def columns() -> dict[str, str]:
    """Return the columns that a reading has in a CSV file, by field; lengths say their unit."""
    return {name: f"{name} [mm]" if name in LENGTHS else name for name in Reading.model_fields}


def from_cells(cells: Mapping[str, str]) -> Typed:
    """Return a reading as typed from a row of a CSV file, whose bare numbers are millimetres."""
    found: Typed = {}
    for name, column in columns().items():
        text = cells.get(column, "")
        if text:
            found[name] = with_unit(text, "mm") if name in LENGTHS else text
    return {"value": "", "method": "tape", **found}


def to_cells(typed: Mapping[str, Any]) -> list[str]:
    """Return what a row of a CSV file has of a reading, in the order of ``columns``."""
    return [str(typed.get(name) or "") for name in Reading.model_fields]


def too_long(typed: Mapping[str, Any]) -> tuple[str, int, int] | None:
    """Return the field of a reading whose text is too long, how long it is and may be."""
    for name, most in LONGEST.items():
        got = len(str(typed.get(name) or ""))
        if got > most:
            return name, got, most
    return None


def taken_at(text: object) -> datetime | None:
    """Return when a reading was taken, None where that is no moment of our time."""
    try:
        moment = parse_datetime(text) if isinstance(text, str) else None
    except ValueError:
        return None
    # Close to either end of time no zone can be reckoned with.
    if moment is None or not 1900 <= moment.year < 2200:
        return None
    return moment if timezone.is_aware(moment) else timezone.make_aware(moment)

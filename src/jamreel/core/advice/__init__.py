"""Judgement calls. Each rule is a small function that returns ``Advice`` or None.

Severity: ``note`` is worth knowing, ``check`` asks the maker to look before going on, ``fix``
says that the piece as planned will disappoint.
"""

from collections.abc import Iterable
from typing import Any, Literal

from pydantic import Field

from jamreel.core.values import Written
from jamreel.core.words import say

Severity = Literal["note", "check", "fix"]


class Advice(Written):
    """One judgement call: what, why, and what to try. ``field`` is where it belongs."""

    id: str
    severity: Severity
    says: str
    because: str
    try_: str = Field(alias="try")
    field: str


def advise(key: str, severity: Severity, field: str, **values: Any) -> Advice:
    """Return the advice that the catalogue words under ``advice.<key>``."""
    return Advice(
        id=key,
        severity=severity,
        says=say(f"advice.{key}.says", **values),
        because=say(f"advice.{key}.because", **values),
        try_=say(f"advice.{key}.try", **values),
        field=field,
    )


def given(*advice: Advice | None) -> tuple[Advice, ...]:
    """Return the advice that applies, the gravest first, otherwise in the order given."""
    rank: dict[Severity, int] = {"fix": 0, "check": 1, "note": 2}
    return tuple(sorted((a for a in advice if a is not None), key=lambda a: rank[a.severity]))


def first(advice: Iterable[Advice | None]) -> Advice | None:
    """Return the first advice that applies, or None."""
    return next((a for a in advice if a is not None), None)

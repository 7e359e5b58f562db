"""Steps and cautions, worded from the catalogue."""

from collections.abc import Iterable
from typing import Any, Literal

from jamreel.core.values import Frozen
from jamreel.core.words import say

Station = Literal["cut", "form", "fit"]


class Caution(Frozen):
    """How work at the bench can hurt, why, and the steps at which it stands."""

    id: str
    says: str
    because: str
    steps: tuple[str, ...]


class Step(Frozen):
    """One thing to do, at a station; ``check`` is what to look at before going on."""

    id: str
    station: Station
    title: str
    says: str
    check: str | None = None
    cautions: tuple[str, ...] = ()


def step(
    key: str, station: Station, *, cautions: Iterable[str] = (), check: bool = False, **values: Any
) -> Step:
    """Return the step that the catalogue words under ``step.<key>``."""
    return Step(
        id=key.rpartition(".")[2],
        station=station,
        title=say(f"step.{key}.title", **values),
        says=say(f"step.{key}.says", **values),
        check=say(f"step.{key}.check", **values) if check else None,
        cautions=tuple(cautions),
    )


def cautions_of(steps: Iterable[Step]) -> tuple[Caution, ...]:
    """Return the cautions that a run of steps names, in the order of first need."""
    at: dict[str, list[str]] = {}
    for one in steps:
        for caution in one.cautions:
            at.setdefault(caution, []).append(one.id)
    return tuple(
        Caution(
            id=key,
            says=say(f"caution.{key}.says"),
            because=say(f"caution.{key}.because"),
            steps=tuple(where),
        )
        for key, where in at.items()
    )

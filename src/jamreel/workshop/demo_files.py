"""The demo's people, pieces and rack, from files: a made-up barge theatre, all invented."""

import json
from collections.abc import Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

DATA = Path(__file__).parent / "demo_data"


@dataclass(frozen=True)
class Role:
    """A member of the cast, the readings taken, and the bangle made for the part."""

    name: str
    part: str
    piece: str
    wire: dict[str, str]
    pin: str
    wrist: Sequence[str] = ()
    hand: Sequence[str] = ()
    ease: dict[str, Any] = field(default_factory=lambda: {"school": "fixed", "word": "comfortable"})
    more: dict[str, Sequence[str]] = field(default_factory=dict)
    child: bool = False
    note: str = ""
    measured_days_ago: int = 12
    due_in: int = 10


@dataclass(frozen=True)
class Extra:
    """A piece of another kind for a member of the cast, and how far it has come."""

    part: str
    name: str
    piece: dict[str, Any]
    wire: dict[str, str]
    due_in: int
    cut: bool = False
    steps: Sequence[str] = ()
    tryon: dict[str, Any] | None = None
    finished: bool = False
    fitted: bool = False
    palette: dict[str, Any] = field(default_factory=dict)


def read(name: str) -> Any:
    """Return what one of the demo's files says."""
    return json.loads((DATA / f"{name}.json").read_text(encoding="utf-8"))


def cast() -> tuple[Role, ...]:
    """Return the members of the cast."""
    return tuple(Role(**one) for one in read("cast"))


def extras() -> tuple[Extra, ...]:
    """Return the other pieces, in the order of their files."""
    names = sorted(path.stem for path in (DATA / "pieces").glob("*.json"))
    return tuple(Extra(**read(f"pieces/{name}")) for name in names)

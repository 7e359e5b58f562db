"""Every sentence that a user can see, by key, from a folder for each language.

Words of a kind of part, closure or piece stand in a file of its name, the others by what they are.

Rules name a key and hand over values; ``{girth:len}`` in a sentence is written in the maker's
unit, ``{turns:turn|turns}`` as "1 turn" or "3 turns", ``{wraps:=once|times}`` as "once" or "3
times". The language and unit in force are set once, by the door, for the length of one plan.
"""

import string
import tomllib
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

from jamreel.core.errors import Refusal
from jamreel.core.units import Mm, Unit, format_length, plain_length, ruled_length

Language = Literal["en"]
_voice: ContextVar[tuple[Language, Unit]] = ContextVar("voice", default=("en", "mm"))


class Problem(BaseModel):
    """A refusal in words, with its parts as data."""

    model_config = ConfigDict(frozen=True)

    field: str
    key: str
    expected: str
    got: str
    says: str


def _written(value: Any, spec: str, unit: Unit) -> str:
    if spec == "len":
        return format_length(value, unit)
    if spec == "rule":
        return ruled_length(value, unit)
    if spec == "len2":
        return format_length(value, unit, places=2)
    # As short as can be; of what may be a length or a plain number, by what it is.
    if spec == "len0" or (spec == "any" and isinstance(value, Mm)):
        return plain_length(value, unit)
    if spec == "any":
        return f"{value:g}"
    if "|" in spec:
        return _counted(value, *spec.split("|", 1))
    return format(value, spec)


def _counted(value: Any, one: str, many: str) -> str:
    """Return a number with what it counts; a word for one that begins with = stands alone."""
    number = f"{value:g}" if isinstance(value, float) else str(value)
    if number != "1":
        return f"{number} {many}"
    return one[1:] if one.startswith("=") else f"1 {one}"


@cache
def _parsed(sentence: str) -> tuple[tuple[str, str | None, str], ...]:
    """Return a sentence in pieces: words, and the name and manner of the value behind them."""
    pieces = string.Formatter().parse(sentence)
    return tuple((words, name, spec or "") for words, name, spec, _ in pieces)


@cache
def catalogue(language: Language) -> dict[str, str]:
    """Return every sentence of one language by its dotted key.

    Raises:
        ValueError: one key stands in two files.
    """
    found: dict[str, str] = {}
    for file in sorted(files(__package__).joinpath(language).iterdir(), key=lambda one: one.name):
        if not file.name.endswith(".toml"):
            continue
        for key, sentence in _flatten(tomllib.loads(file.read_text(encoding="utf-8")), ""):
            if key in found:
                raise ValueError(f"{key} stands in {file.name} and in another file of {language}")
            found[key] = sentence
    return found


def _flatten(table: dict[str, Any], prefix: str) -> Iterator[tuple[str, str]]:
    for key, value in table.items():
        if isinstance(value, dict):
            yield from _flatten(value, f"{prefix}{key}.")
        else:
            yield f"{prefix}{key}", value


@contextmanager
def speaking(language: Language, unit: Unit) -> Iterator[None]:
    """Put a language and a unit in force for sentences made inside the block."""
    token = _voice.set((language, unit))
    try:
        yield
    finally:
        _voice.reset(token)


def voice() -> tuple[Language, Unit]:
    """Return the language and the unit in force: what is remembered in words goes by them."""
    return _voice.get()


def say(key: str, **values: Any) -> str:
    """Return the sentence ``key`` with its values, in the language and unit in force."""
    language, unit = _voice.get()
    sentence = catalogue(language)[key]
    # Most sentences are plain words; a plan has hundreds of them.
    if "{" not in sentence:
        return sentence
    return "".join(
        words if name is None else words + _written(values[name], spec, unit)
        for words, name, spec in _parsed(sentence)
    )


def choice_says(kind: str, name: str, what: str = "label") -> str:
    """Return what a choice is called, or its help: the kind's own words before those that the
    choice has everywhere; '' where there are none.

    Args:
        kind: of the part, closure or piece; '' where it is not known.
        name: of the choice.
        what: ``label`` or ``help``.
    """
    known = catalogue(_voice.get()[0])
    for key in (f"choice.{kind}.{name}.{what}", f"choice.{name}.{what}"):
        if key in known:
            return say(key)
    # Its kind isn't known everywhere: words that only one kind has are meant then.
    only = [] if kind else _by_choice(_voice.get()[0]).get(f"{name}.{what}", [])
    return say(only[0]) if len(only) == 1 else ""


@cache
def _by_choice(language: Language) -> dict[str, list[str]]:
    """Return the keys of kinds' own words by the choice that they are of."""
    found: dict[str, list[str]] = {}
    for key in catalogue(language):
        parts = key.split(".")
        if parts[0] == "choice" and len(parts) == 4:
            found.setdefault(".".join(parts[2:]), []).append(key)
    return found


# Of what was entered an error shows so much.
MOST_SHOWN = 60


def _short(value: object) -> str:
    """Return what was entered, lengths in the maker's unit."""
    unit = _voice.get()[1]
    if isinstance(value, tuple) and all(isinstance(one, Mm) for one in value):
        return " / ".join(plain_length(one, unit) for one in value)
    text = plain_length(value, unit) if isinstance(value, Mm) else _readable(str(value))
    return text if len(text) <= MOST_SHOWN else f"{text[: MOST_SHOWN - 1]}…"


def _readable(text: str) -> str:
    """Return text with a mark for every half of a pair of surrogates: they can't be answered."""
    return text.encode("utf-8", "replace").decode("utf-8")


def problem(refusal: Refusal) -> Problem:
    """Return a refusal in words: the field, what was expected, what came, and the sentence."""
    words = catalogue(_voice.get()[0])
    # A field that has no name of its own (a list slot, say) goes by its parent's.
    parts = refusal.field.split(".")
    named = (
        words.get("field." + ".".join(p for p in parts[:n] if not p.isdigit()))
        for n in range(len(parts), 0, -1)
    )
    # A choice of a part or closure goes by its own name.
    own = choice_says(str(refusal.values.get("of_kind", "")), parts[-1]) if len(parts) > 2 else ""
    field = own or next((name for name in named if name), refusal.field or words["field.brief"])
    got = words["refused.nothing"] if refusal.got in (None, "") else _short(refusal.got)
    values = {**refusal.values, "field": field, "got": got}
    return Problem(
        field=refusal.field,
        key=refusal.key,
        expected=say(f"refused.{refusal.key}.expected", **values),
        got=got,
        says=say(f"refused.{refusal.key}.says", **values),
    )

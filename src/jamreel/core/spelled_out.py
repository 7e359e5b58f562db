"""A brief with nothing left unsaid: what it leaves open is written down when it is kept.

A default may change from one release to the next; a piece that was kept before must not.
"""

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import BaseModel

from jamreel.core.brief import Brief

# Deeper than this no list of entries can be read anyhow.
_DEEPEST = 8
# What is no choice: what was measured, and what was noted while it was worn.
_AS_TYPED = frozenset({"measures", "tryon"})


def spelled_out(raw: Mapping[str, Any], brief: Brief) -> dict[str, Any]:
    """Return a brief as typed, with every choice that it leaves open as it was read.

    Args:
        raw: JSON object; what stands in it stays as it was typed.
        brief: read from it.

    Source: docs/format.
    """
    left = {name: raw[name] for name in _AS_TYPED if name in raw}
    whole = _whole(raw, brief)
    return {**{name: value for name, value in whole.items() if name not in _AS_TYPED}, **left}


def _whole(typed: Mapping[str, Any], read: BaseModel) -> dict[str, Any]:
    found = dict(typed)
    for name, field in type(read).model_fields.items():
        key = field.alias or name
        value = getattr(read, name)
        found[key] = _inside(typed[key], value) if key in typed else _said(value)
    return found


def _inside(typed: Any, value: Any) -> Any:
    """Return what was typed in a field, whole where it is an object or a list of them."""
    if isinstance(typed, Mapping) and isinstance(value, BaseModel):
        return _whole(typed, value)
    alike = isinstance(typed, list) and isinstance(value, tuple) and len(typed) == len(value)
    return [_inside(one, two) for one, two in zip(typed, value, strict=True)] if alike else typed


def _said(value: Any) -> Any:
    """Return a choice that was left open; lengths as numbers, which are mm on every bench."""
    if isinstance(value, BaseModel):
        return _whole({}, value)
    if isinstance(value, tuple):
        return [_said(one) for one in value]
    return {key: _said(one) for key, one in value.items()} if isinstance(value, Mapping) else value


def with_names(piece: Mapping[str, Any]) -> dict[str, Any]:
    """Return a piece as typed with a name for each entry that has none.

    The names are those that the reading of it gives, so that the same entries always get the same.
    """
    named = dict(piece)
    for line, prefix in (("entries", "e"), ("parting", "p")):
        if isinstance(named.get(line), list):
            named[line] = _named(named[line], prefix)
    return named


def _named(entries: list[Any], prefix: str) -> list[Any]:
    taken = set(_names(entries, 0))
    fresh = (name for n in range(1, 100_000) if (name := f"{prefix}{n}") not in taken)

    def walk(rows: list[Any], depth: int) -> list[Any]:
        return [one(row, depth) if isinstance(row, dict) else row for row in rows]

    def one(row: dict[str, Any], depth: int) -> dict[str, Any]:
        name = row.get("id")
        row = (
            {"id": next(fresh), **{k: v for k, v in row.items() if k != "id"}}
            if (name is None or name == "")
            else dict(row)
        )
        if isinstance(row.get("group"), list) and depth < _DEEPEST:
            row["group"] = walk(row["group"], depth + 1)
        return row

    return walk(entries, 0)


def _names(entries: list[Any], depth: int) -> Iterator[str]:
    for row in entries:
        if isinstance(row, dict):
            if isinstance(row.get("id"), str):
                yield row["id"]
            if isinstance(row.get("group"), list) and depth < _DEEPEST:
                yield from _names(row["group"], depth + 1)

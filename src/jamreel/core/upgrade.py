"""Briefs of earlier formats, read as the present one. What is written down is never changed by it.

Format 1 had three constructions that are presets of composed pieces now, entries without names, and
lengths as cut in the brief itself.
"""

import math
from collections.abc import Callable, Iterator, Mapping
from typing import Any

from jamreel.core.errors import Refusal
from jamreel.core.units import Unit, parse_length
from jamreel.core.workpiece.records import Record

PRESENT = 2
# Deeper than this no list of entries can be read anyhow.
_DEEPEST = 8


def upgraded(raw: Any) -> Any:
    """Return a brief as typed in the present format.

    Args:
        raw: JSON data of any format; what is no brief, or of a format not known, comes back as it
            is, for the reading of it to refuse.

    Source: docs/format.
    """
    if (
        not isinstance(raw, dict)
        or raw.get("schema", 1) != 1
        or isinstance(raw.get("schema"), bool)
    ):
        return raw
    brief = {key: value for key, value in raw.items() if key != "made"}
    piece = brief.get("piece")
    if isinstance(piece, dict):
        kind = piece.get("kind")
        change = _CONSTRUCTIONS.get(kind) if isinstance(kind, str) else None
        brief["piece"] = with_names(change(piece) if change else piece)
    return {**brief, "schema": PRESENT}


def records_within(raw: Any, unit: Unit) -> tuple[Record, ...]:
    """Return the lengths as cut that a brief of format 1 says itself, as records.

    Args:
        raw: JSON data of any format.
        unit: of its bare numbers.

    Raises:
        Refusal: at a length that can't be read.
    """
    made = raw.get("made") if isinstance(raw, dict) and raw.get("schema", 1) == 1 else None
    found = []
    for key, typed in made.items() if isinstance(made, dict) else ():
        if typed is None or (isinstance(typed, str) and not typed.strip()):
            continue
        try:
            found.append(Record(kind="cut", key=str(key), actual=parse_length(typed, unit)))
        except Refusal as refusal:
            raise refusal.at(f"made.{key}") from None
    return tuple(found)


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


def _pick(piece: Mapping[str, Any], names: Mapping[str, str]) -> dict[str, Any]:
    """Return some choices under other names, as far as they were made."""
    return {new: piece[old] for old, new in names.items() if old in piece}


def _strung(piece: Mapping[str, Any]) -> dict[str, Any]:
    bead = {
        "kind": "bead",
        "bead": 8,
        "stuff": "glass" if piece.get("brittle") else "metal",
        **_pick(piece, {"bead": "bead"}),
    }
    closure = {"kind": "bought_clasp", "length": 20, "thickness": 3}
    closure |= _pick(piece, {"closure_length": "length", "closure_thickness": "thickness"})
    return {
        "kind": "linked_bracelet",
        "counted": True,
        "entries": [{"id": "strung", "fill": True, "part": bead}],
        "closure": closure,
        "string_ends": "through",
        "string_tail": 50,
        **_pick(piece, {"tail": "string_tail"}),
        **_rest(piece, {"bead", "closure_length", "closure_thickness", "tail", "brittle"}),
    }


_CHAIN = {"pitch": "pitch", "thickness": "thickness", "mass_per_m": "mass_per_m"}


def _chain_necklace(piece: Mapping[str, Any]) -> dict[str, Any]:
    chain = {"kind": "chain", "mass_per_m": 9, **_pick(piece, _CHAIN)}
    hung = {"kind": "finding", "hangs": True, "mass": 0, "inner": 0.5}
    hung |= _pick(piece, {"pendant_drop": "length", "pendant_mass": "mass"})
    hangs = _some(hung.get("length")) or _some(hung.get("mass"))
    if not _some(hung.get("length")):
        hung["length"] = 1
    return {
        "kind": "pendant_chain",
        "counted": True,
        "mirrored": False,
        "entries": [{"id": "chain", "fill": True, "part": chain}],
        "focal": None,
        "hung": hung if hangs else None,
        "closure": {"kind": "bought_clasp", "length": 15, **_pick(piece, {"clasp": "length"})},
        **_pick(piece, {"length": "length"}),
        **_rest(piece, {*_CHAIN, "pendant_drop", "pendant_mass", "clasp", "length"}),
    }


def _forehead_chain(piece: Mapping[str, Any]) -> dict[str, Any]:
    chain = {"kind": "chain", "pitch": 3, "thickness": 1.6, "mass_per_m": 7, **_pick(piece, _CHAIN)}
    hung = {"kind": "finding", "hangs": True, "mass": 0, "length": 20, "inner": 0.5}
    hung |= _pick(piece, {"pendant_drop": "length"})
    return {
        "kind": "forehead_drops",
        "counted": True,
        "entries": [{"id": "brow", "fill": True, "part": chain}],
        "focal": {"kind": "jump_ring", "pin": 5, **_pick(piece, {"ring": "pin"})},
        "hung": hung if _some(hung.get("length")) else None,
        "parting": [{"id": "parting", "fill": True, "part": dict(chain)}],
        **_pick(piece, {"drape": "drape"}),
        **_rest(piece, {*_CHAIN, "ring", "drape", "pendant_drop"}),
    }


def _rest(piece: Mapping[str, Any], known: set[str]) -> dict[str, Any]:
    """Return what the construction never had, for the reading of it to refuse by name."""
    return {key: value for key, value in piece.items() if key not in {*known, "kind"}}


def _some(typed: object) -> bool:
    """Return whether a figure as typed is anything but nought."""
    if typed is None or typed == "":
        return False
    try:
        value = float(str(typed))
    except ValueError:
        return True
    return not math.isclose(value, 0.0, abs_tol=1e-9)


_CONSTRUCTIONS: dict[str, Callable[[Mapping[str, Any]], dict[str, Any]]] = {
    "strung_bracelet": _strung,
    "chain_necklace": _chain_necklace,
    "forehead_chain": _forehead_chain,
}

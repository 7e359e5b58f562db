"""Briefs of earlier formats, read as the present one. What is written down is never changed by it.

Format 1 had three constructions that are presets of composed pieces now, entries without names, and
lengths as cut in the brief itself. Format 2 had other words for some choices of parts, and left
unsaid what is otherwise now.
"""

import math
from collections.abc import Callable, Iterator, Mapping
from typing import Any

from jamreel.core.errors import Refusal
from jamreel.core.units import Unit, parse_length
from jamreel.core.workpiece.records import Record

PRESENT = 3
# Deeper than this no list of entries can be read anyhow.
_DEEPEST = 8
# What a part, a closure or a piece left unsaid in format 2 and says otherwise in format 3, and what
# its choices are called now.
_Change = Callable[[Mapping[str, Any]], dict[str, Any]]


def upgraded(raw: Any) -> Any:
    """Return a brief as typed in the present format.

    Args:
        raw: JSON data of any format; what is no brief, or of a format not known, comes back as it
            is, for the reading of it to refuse.

    Source: docs/format.
    """
    for number, to_next in ((1, _from_1), (2, _from_2)):
        if _is_format(raw, number):
            raw = to_next(raw)
    return raw


def _is_format(raw: Any, number: int) -> bool:
    if not isinstance(raw, dict):
        return False
    said = raw.get("schema", 1)
    return said == number and not isinstance(said, bool)


def _from_1(raw: Mapping[str, Any]) -> dict[str, Any]:
    brief = {key: value for key, value in raw.items() if key != "made"}
    piece = brief.get("piece")
    if isinstance(piece, dict):
        kind = piece.get("kind")
        change = _CONSTRUCTIONS.get(kind) if isinstance(kind, str) else None
        brief["piece"] = with_names(change(piece) if change else piece)
    return {**brief, "schema": 2}


def _from_2(raw: Mapping[str, Any]) -> dict[str, Any]:
    brief, piece = dict(raw), raw.get("piece")
    if isinstance(piece, dict):
        brief["piece"] = _piece_of_2(piece)
    return {**brief, "schema": 3}


def _piece_of_2(piece: Mapping[str, Any]) -> dict[str, Any]:
    found = dict(piece)
    for line in ("entries", "parting"):
        if isinstance(found.get(line), list):
            found[line] = [_entry_of_2(row, 0) for row in found[line]]
    for place in ("focal", "hung"):
        found |= {place: _changed(found[place], _PARTS_OF_2)} if place in found else {}
    if "closure" in found:
        found["closure"] = _changed(found["closure"], _CLOSURES_OF_2)
    if found.get("kind") == "coil_bracelet":
        # It was cut to its turns and both loops, not by counting.
        found.setdefault("whole_turns", False)
    return found


def _entry_of_2(row: Any, depth: int) -> Any:
    if not isinstance(row, dict):
        return row
    found = dict(row)
    if "part" in found:
        found["part"] = _changed(found["part"], _PARTS_OF_2)
    if isinstance(found.get("group"), list) and depth < _DEEPEST:
        found["group"] = [_entry_of_2(one, depth + 1) for one in found["group"]]
    return found


def _changed(typed: Any, changes: Mapping[str, _Change]) -> Any:
    """Return a part or closure as typed, put into the words of now where its kind has others."""
    kind = typed.get("kind") if isinstance(typed, dict) else None
    change = changes.get(kind) if isinstance(kind, str) else None
    return change(typed) if change else typed


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


def _curved_link(part: Mapping[str, Any]) -> dict[str, Any]:
    """One count of wraps became two; nothing was hammered."""
    turns = part.get("wraps", 6)
    said = {"end_turns": turns, "turns_between": turns, "hammered": False}
    return said | _stands(part, "loops_alike", "alike", {"wraps"})


def _eye_link(part: Mapping[str, Any]) -> dict[str, Any]:
    return _stands(part, "square", "square", set())


def _stands(part: Mapping[str, Any], flag: str, when: str, gone: set[str]) -> dict[str, Any]:
    """Return a link whose loops stand as a flag said."""
    rest = {key: value for key, value in part.items() if key not in {flag, *gone}}
    if flag not in part:
        return rest
    other = {"alike": "square", "square": "alike"}[when]
    return {**rest, "stand": when if part[flag] else other}


def _tassel(part: Mapping[str, Any]) -> dict[str, Any]:
    """Strands of one bead many times, on a ring and without a head."""
    bead = {"bead": 4, "colour": "slate"}
    bead |= _pick(part, {key: key for key in ("bead", "hole", "stuff", "colour")})
    return {
        "kind": "tassel",
        "head": [],
        "strands": part.get("strands", 5),
        "sections": [{"row": [bead], "times": part.get("beads", 4)}],
        "strand_loop": part.get("ring", 6),
        **_pick(part, {"pin": "pin", "wire": "strand_wire"}),
        **_rest(
            part,
            {"strands", "beads", "bead", "hole", "stuff", "colour", "ring", "pin", "wire"},
        ),
    }


def _ring_link(part: Mapping[str, Any]) -> dict[str, Any]:
    return {"pin": 6, **part}


def _coil_bead(part: Mapping[str, Any]) -> dict[str, Any]:
    return {"bare_turns": 0, **part}


def _s_hook(closure: Mapping[str, Any]) -> dict[str, Any]:
    """It always went into a ring."""
    ring = "soldered_ring" if closure.get("soldered", True) else "jump_ring"
    return {
        "kind": "s_hook",
        "into": ring,
        **_pick(closure, {"ring_pin": "into_pin"}),
        **_rest(closure, {"ring_pin", "soldered"}),
    }


_PARTS_OF_2: dict[str, _Change] = {
    "curved_link": _curved_link,
    "eye_link": _eye_link,
    "tassel": _tassel,
    "ring_link": _ring_link,
    "coil_bead": _coil_bead,
}
_CLOSURES_OF_2: dict[str, _Change] = {"s_hook": _s_hook}
_CONSTRUCTIONS: dict[str, _Change] = {
    "strung_bracelet": _strung,
    "chain_necklace": _chain_necklace,
    "forehead_chain": _forehead_chain,
}

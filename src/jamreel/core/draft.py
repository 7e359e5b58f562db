"""A brief as it is kept: perhaps not planned yet, but always one that can be read and shown again.

What is sound: an object, not too long, not nested too deep, of whole characters and finite numbers,
and with lists and objects where a brief has them. What a maker types into a field may be anything.
"""

import json
import math
from collections.abc import Iterator, Sequence
from typing import Any

from pydantic import ValidationError

from jamreel.core.brief import Brief
from jamreel.core.errors import Refusal, Refusals
from jamreel.core.plan import BriefRefused, in_words
from jamreel.core.shop import Shop
from jamreel.core.tagged_union import every_error
from jamreel.core.words import Problem, say

# A necklace of 200 parts of 40 kinds takes some 25,000 characters and is nested ten deep.
MOST_CHARS, DEEPEST = 100_000, 32

Path = tuple[str | int, ...]

# What is said of a value that should be an object or a list, and of one that should be neither.
_NO_CONTAINER = frozenset(
    {"model_type", "model_attributes_type", "dict_type", "list_type", "tuple_type", "no_object"}
)
_NO_SCALAR = frozenset(
    {
        "string_type", "int_type", "int_parsing", "float_type", "float_parsing", "bool_type",
        "bool_parsing", "literal_error", "refused",
    }
)  # fmt: skip


def unsound(raw: Any, shop: Shop) -> tuple[Problem, ...]:
    """Return why a brief can't be kept as it is, nothing where it can.

    Args:
        raw: JSON data.
        shop: gives the words.

    Source: docs/format.
    """
    faults = tuple(refusal for found in _rounds(raw) for _, refusal in found[0])

    def raises() -> None:
        raise Refusals(faults)

    try:
        if faults:
            in_words(raises, shop)
    except BriefRefused as refused:
        return refused.problems
    return ()


def mended(raw: Any) -> dict[str, Any]:
    """Return a brief without what is unsound in it; a sound one as it is.

    Args:
        raw: JSON data.

    Source: docs/format.
    """
    found = raw if isinstance(raw, dict) else {}
    for _, rest in _rounds(raw):
        found = rest
    return dict(found)


def _rounds(raw: Any) -> Iterator[tuple[list[tuple[Path, Refusal]], dict[str, Any]]]:
    """Yield faults, and the brief without them, until there are none: what is left out may uncover
    more."""
    found = raw
    for n in range(DEEPEST):
        faults = list(_faults(found))
        if not faults:
            return
        paths = [path for path, _ in faults]
        last = () in paths or n == DEEPEST - 1
        # Of a list from its end, so that the places of the others stay what they are.
        for path in sorted(paths, key=_order, reverse=True):
            found = {} if last else _without(found, path)
        yield faults, found


def _faults(raw: Any) -> Iterator[tuple[Path, Refusal]]:
    if not isinstance(raw, dict):
        yield (), Refusal("shape", got=type(raw).__name__, detail=say("refused.shape.object"))
        return
    bare = list(_bare_faults(raw))
    yield from bare
    if bare:
        return
    length = len(json.dumps(raw, ensure_ascii=False))
    if length > MOST_CHARS:
        yield (), Refusal("brief_long", got=length, most=MOST_CHARS)
        return
    yield from _misshapen(raw)


def _bare_faults(raw: dict[str, Any]) -> Iterator[tuple[Path, Refusal]]:
    """Yield what is no JSON that can be answered: half characters, no numbers, too deep."""
    waiting: list[tuple[Path, Any]] = [((), raw)]
    while waiting:
        path, value = waiting.pop()
        if isinstance(value, (dict, list)) and len(path) >= DEEPEST:
            yield path, Refusal("nested", got=len(path), field=_dotted(path[:6]), most=DEEPEST)
        elif isinstance(value, dict):
            for key, one in value.items():
                if not _whole(key):
                    yield (*path, key), Refusal("half_text", got=None, field=_dotted(path))
                else:
                    waiting.append(((*path, key), one))
        elif isinstance(value, list):
            waiting += [((*path, i), one) for i, one in enumerate(value)]
        elif isinstance(value, str) and not _whole(value):
            yield path, Refusal("half_text", got=None, field=_dotted(path))
        elif isinstance(value, float) and not math.isfinite(value):
            yield path, Refusal("number", got=value, field=_dotted(path))


def _whole(text: str) -> bool:
    """Return whether text has no half of a pair of surrogates in it."""
    try:
        text.encode("utf-8")
    except UnicodeEncodeError:
        return False
    return True


def _misshapen(raw: dict[str, Any]) -> Iterator[tuple[Path, Refusal]]:
    """Yield the places with a list or an object where there should be none, or none where there
    should be one."""
    try:
        Brief.model_validate(raw)
    except ValidationError as error:
        for one in every_error(error.errors(include_url=False)):
            if _wrong_shape(one):
                path = _path_in(raw, one["loc"])
                came = type(_at(raw, path)).__name__
                lists = one["type"] in ("list_type", "tuple_type")
                wants = ("list" if lists else "object") if one["type"] in _NO_CONTAINER else "plain"
                detail = say(f"refused.shape.{wants}")
                shape = {"dict": "{…}", "list": "[…]"}.get(came, str(_at(raw, path)))
                yield path, Refusal("shape", got=shape, field=_dotted(path), detail=detail)


def _wrong_shape(error: Any) -> bool:
    if error["type"] in _NO_CONTAINER:
        return True
    refused = error["type"] == "refused"
    came = error["ctx"]["got"] if refused else error.get("input")
    return error["type"] in _NO_SCALAR and isinstance(came, (dict, list))


def _path_in(raw: Any, loc: Sequence[str | int]) -> Path:
    """Return the path of an error's place; names of kinds on the way are no part of it."""
    path: list[str | int] = []
    for part in loc:
        inside = isinstance(raw, dict) and part in raw
        inside = inside or (isinstance(raw, list) and isinstance(part, int) and part < len(raw))
        if inside:
            path.append(part)
            raw = raw[part]
    return tuple(path)


def _order(path: Path) -> tuple[tuple[int, str], ...]:
    return tuple((part, "") if isinstance(part, int) else (-1, part) for part in path)


def _at(raw: Any, path: Path) -> Any:
    for part in path:
        raw = raw[part]
    return raw


def _without(raw: Any, path: Path) -> Any:
    """Return JSON data without what stands at a path; where nothing stands there, as it is."""
    first, *rest = path
    if isinstance(raw, dict):
        if first not in raw:
            return raw
        if not rest:
            return {key: value for key, value in raw.items() if key != first}
        return {**raw, first: _without(raw[first], tuple(rest))}
    if isinstance(raw, list) and isinstance(first, int) and first < len(raw):
        kept = [_without(raw[first], tuple(rest))] if rest else []
        return [*raw[:first], *kept, *raw[first + 1 :]]
    return raw


def _dotted(path: Sequence[str | int]) -> str:
    return ".".join(str(part)[:40] for part in path)

"""JSON text from outside, read once and checked for what a plan can't be made or printed from."""

import json
import math
from typing import Any, NoReturn

from jamreel.core.words import say

# No brief or shop comes near this; more is refused before it is looked at [bytes].
MOST_BYTES = 1_000_000


def read_json(raw: bytes, most: int = MOST_BYTES, *, whole: bool = True) -> Any:
    """Return what JSON text says.

    Args:
        raw: the text, UTF-8.
        most: bytes that it may have.
        whole: whether text with half of a pair of surrogates is refused here; else whoever reads
            the fields has to, and can say which it is.

    Returns:
        Dictionaries, lists, texts, numbers, truths and None.

    Raises:
        ValueError: too long, not UTF-8, not JSON, nested too deep, a key given twice, a number
            that is none, or text that is none (half of a pair of surrogates).

    Source: RFC 8259, which leaves the last four to the reader; published.
    """
    if len(raw) > most:
        raise ValueError(say("json.long", most=most))
    try:
        read = json.loads(
            raw.decode("utf-8"),
            parse_constant=_no_constant,
            parse_float=_finite,
            object_pairs_hook=_each_once,
        )
        if whole:
            json.dumps(read, ensure_ascii=False).encode("utf-8")
    except RecursionError:
        raise ValueError(say("json.deep")) from None
    except UnicodeEncodeError:
        raise ValueError(say("json.half")) from None
    return read


def _no_constant(name: str) -> NoReturn:
    raise ValueError(say("json.constant", name=name))


def _finite(text: str) -> float:
    number = float(text)
    if not math.isfinite(number):
        raise ValueError(say("json.large", text=text[:20]))
    return number


def _each_once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    read: dict[str, Any] = {}
    for key, value in pairs:
        if key in read:
            raise ValueError(say("json.twice", name=repr(key[:60])))
        read[key] = value
    return read

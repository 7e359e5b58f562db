"""Lengths in and out: what a maker writes becomes millimetres, and back for the eye.

Works in exact fractions so that 6 3/4 in is 171.45 mm and not 171.4499999.
"""

import math
import re
from collections.abc import Iterable, Sequence
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from typing import Literal

from jamreel.core.errors import Refusal

Unit = Literal["mm", "in"]
InchStyle = Literal["fractions", "decimals"]

MM_PER: dict[str, Fraction] = {
    "mm": Fraction(1),
    "cm": Fraction(10),
    "m": Fraction(1000),
    "in": Fraction(254, 10),
    "ft": Fraction(3048, 10),
}
_SPELLINGS = {
    "inch": "in",
    "inches": "in",
    '"': "in",
    "″": "in",
    "”": "in",
    "''": "in",
    "foot": "ft",
    "feet": "ft",
    "'": "ft",
    "′": "ft",
    "’": "ft",
    "millimetres": "mm",
    "millimeters": "mm",
    "centimetres": "cm",
    "centimeters": "cm",
    "metres": "m",
    "meters": "m",
}
_VULGAR = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
}
_UNIT_WORD = "|".join(
    re.escape(word) for word in sorted([*MM_PER, *_SPELLINGS], key=len, reverse=True)
)
_TERM = re.compile(
    rf"""\s*(?:(?P<whole>[0-9]+)(?:\s+|-)(?P<top>[0-9]+)/(?P<bottom>[0-9]+)   # 6 3/4, 6-3/4
        |(?P<ftop>[0-9]+)/(?P<fbottom>[0-9]+)                             # 3/4
        |(?P<number>[0-9]+(?:[.,][0-9]+)?|[.,][0-9]+))                # 158, 158.5, 158,5, .8
        \s*(?P<unit>{_UNIT_WORD})?\s*""",
    re.VERBOSE | re.IGNORECASE,
)


# No maker writes a length longer than this, in characters or in mm (a thousand kilometres).
MOST_CHARS, FURTHEST_MM = 40, 1e9


def parse_length(entered: object, unit: Unit = "mm") -> float:
    """Return the length a maker entered, in millimetres.

    Args:
        entered: a number (always mm), or text as a maker writes it: ``158``, ``15.8 cm``,
            ``6 3/4"``, ``6-3/4 in``, ``6¾ in``, ``1 ft 2 in``. Decimal comma is understood.
        unit: the maker's own unit [mm or in], which a bare number in text takes.

    Returns:
        Length [mm], finite and not negative.

    Raises:
        Refusal: not a length, negative, not finite, a fraction without a unit in a metric
            workshop, or a comma that could part thousands.

    Example:
        >>> parse_length("6 3/4 in")
        171.45
        >>> parse_length("158,5")
        158.5

    Source: international inch of 25.4 mm, exact (BIPM/ISO 80000-3).
    """
    if isinstance(entered, bool) or not isinstance(entered, (int, float, str)):
        raise Refusal("length", got=entered)
    if isinstance(entered, str):
        if len(entered) > MOST_CHARS:
            raise Refusal("length", got=entered)
        read = _read_terms(entered, unit)
        if read > FURTHEST_MM:
            raise Refusal("length", got=entered)
        return float(read)
    if not 0 <= entered <= FURTHEST_MM:
        raise Refusal("length", got=entered)
    return float(entered)


_NUMBER = re.compile(r"[0-9]{1,15}(?:[.,][0-9]{1,15})?")


def plain_number(text: str) -> float:
    """Return a number as a maker types one, not negative, with a decimal point or comma.

    Raises:
        ValueError: anything else.

    Example:
        >>> plain_number(" 12,5 ")
        12.5

    Source: common practice.
    """
    found = _NUMBER.fullmatch(text.strip())
    if found is None:
        raise ValueError(text)
    return float(found[0].replace(",", "."))


def _read_terms(text: str, unit: Unit) -> Fraction:
    spelled = text.strip()
    for sign, fraction in _VULGAR.items():
        spelled = spelled.replace(sign, f" {fraction}")
    at, total, terms = 0, Fraction(0), 0
    while at < len(spelled):
        found = _TERM.match(spelled, at)
        if found is None or found.end() == at:
            raise Refusal("length", got=text)
        named = found["unit"]
        if terms and not named:
            raise Refusal("length", got=text)
        total += _term_value(found, text, unit) * MM_PER[_unit_name(named, unit)]
        at, terms = found.end(), terms + 1
    # Two terms only make sense as feet and inches; "3 mm 4 mm" is a slip of the hand.
    if terms == 0 or terms > 2 or (terms == 2 and not re.search(r"ft|foot|feet|['′’]", spelled)):
        raise Refusal("length", got=text)
    return total


def _unit_name(named: str | None, unit: Unit) -> str:
    if not named:
        return unit
    lower = named.lower()
    return _SPELLINGS.get(lower, lower)


def _term_value(found: re.Match[str], text: str, unit: Unit) -> Fraction:
    if found["number"]:
        number = found["number"]
        if "," in number and len(number.split(",")[1]) == 3:
            raise Refusal("thousands", got=text)
        return Fraction(number.replace(",", "."))
    top, bottom = (
        (found["ftop"], found["fbottom"]) if found["ftop"] else (found["top"], found["bottom"])
    )
    if int(bottom) == 0:
        raise Refusal("length", got=text)
    if not found["unit"] and unit == "mm":
        raise Refusal("bare_fraction", got=text)
    return int(found["whole"] or 0) + Fraction(int(top), int(bottom))


def with_unit(entered: str, unit: Unit) -> str:
    """Return a length as typed with its unit said, so that it means the same everywhere.

    Args:
        entered: text as typed.
        unit: the unit that a bare number in it was meant in.

    Example:
        >>> with_unit("158.5", "mm"), with_unit("6 3/4 in", "mm")
        ('158.5 mm', '6 3/4 in')

    Source: plain arithmetic.
    """
    text = entered.strip()
    bare = text and not re.search(rf"({_UNIT_WORD})", text, re.IGNORECASE)
    return f"{text} {unit}" if bare else text


class Mm(float):
    """A length in mm that is written in the maker's unit wherever it is read."""


# Lengths shorter than this are written in decimals of an inch: a thirty-second is too coarse.
DECIMALS_UNDER_MM = 25.4 / 4


# A length is met half-way this near, in parts of what it is rounded to: the same on the screen.
_HALF = 0.5 + 1e-6


def _nearest(length_mm: float, denominator: int) -> int:
    """Return how many parts of an inch are nearest to a length, halves up, as the screen has it."""
    return math.floor(length_mm / 25.4 * denominator + _HALF)


def inch_parts(length_mm: float, denominator: int = 32) -> tuple[int, int, int]:
    """Return (whole inches, numerator, denominator) nearest to a length, in lowest terms.

    Args:
        length_mm: length [mm], not negative.
        denominator: finest division.

    Returns:
        Whole inches, numerator, denominator; the numerator is 0 for whole inches.

    Example:
        >>> inch_parts(171.45)
        (6, 3, 4)

    Source: plain arithmetic.
    """
    steps = Fraction(_nearest(length_mm, denominator), denominator)
    whole = steps.numerator // steps.denominator
    rest = steps - whole
    return whole, rest.numerator, rest.denominator


def format_length(
    length_mm: float, unit: Unit = "mm", places: int = 1, inches: InchStyle | None = None
) -> str:
    """Return a length for the eye, in the maker's unit, with the unit's sign.

    Args:
        length_mm: length [mm].
        unit: ``mm`` (decimal places as given) or ``in`` (nearest 1/32, under 1/4 in decimals).
        places: decimal places for mm.
        inches: how inches are written, where not by what the length is alone.

    Example:
        >>> format_length(245.53), format_length(171.45, "in"), format_length(1.63, "in")
        ('245.5 mm', '6 3/4 in', '0.064 in')
        >>> format_length(17.5, "in"), format_length(0, "in")
        ('11/16 in', '0 in')

    Source: common practice.
    """
    if unit == "mm":
        # Halves go up, as on the screen: 158.25 reads 158.3 in both.
        step = Decimal(1).scaleb(-places)
        return f"{Decimal(length_mm).quantize(step, ROUND_HALF_UP)} mm"
    if (inches or inch_style([length_mm])) == "decimals":
        sign = "-" if length_mm < 0 else ""
        return f"{sign}{_nearest(abs(length_mm), 1000) / 1000:.3f} in"
    whole, top, bottom = inch_parts(abs(length_mm))
    sign = "-" if length_mm < 0 else ""
    numbers = [str(whole)] if whole or not top else []
    numbers += [f"{top}/{bottom}"] if top else []
    return f"{sign}{' '.join(numbers)} in"


def ruled_length(length_mm: float, unit: Unit = "mm") -> str:
    """Return a length that is set off with a rule: on an inch bench in fractions, however short.

    Args:
        length_mm: length [mm].
        unit: as for ``format_length``.

    Example:
        >>> ruled_length(1.5), ruled_length(1.5, "in"), ruled_length(0.3, "in")
        ('1.5 mm', '1/16 in', '1/64 in')

    Source: common practice.
    """
    if unit == "mm" or length_mm >= MM_PER["in"] / 64 * 1.5 or length_mm <= 0:
        return format_length(length_mm, unit, inches="fractions")
    # What is to come off is never said to be nothing.
    return "1/64 in"


def inch_style(column: Iterable[float]) -> InchStyle:
    """Return how a column of lengths [mm] is written in inches: one way for all of them."""
    thin = any(0 < abs(length) < DECIMALS_UNDER_MM for length in column)
    return "decimals" if thin else "fractions"


def format_column(lengths_mm: Sequence[float], unit: Unit = "mm") -> tuple[str, ...]:
    """Return lengths that stand below each other, all written one way.

    Args:
        lengths_mm: lengths [mm].
        unit: as for ``format_length``.

    Example:
        >>> format_column([171.45, 1.6], "in"), format_column([171.45, 12.7], "in")
        (('6.750 in', '0.063 in'), ('6 3/4 in', '1/2 in'))

    Source: common practice.
    """
    style = inch_style(lengths_mm)
    return tuple(format_length(one, unit, inches=style) for one in lengths_mm)


def plain_length(length_mm: float, unit: Unit = "mm") -> str:
    """Return a length as short as it can be written: no nought after the point.

    Args:
        length_mm: length [mm].
        unit: as for ``format_length``.

    Example:
        >>> plain_length(120.0), plain_length(15.8), plain_length(120.65, "in")
        ('120 mm', '15.8 mm', '4 3/4 in')

    Source: common practice.
    """
    return f"{length_mm:g} mm" if unit == "mm" else format_length(length_mm, unit)

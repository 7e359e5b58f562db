"""What a scale or a calliper sends: a number and a unit in plain text, and Enter."""

import re
from typing import Literal

from jamreel.core.errors import Refusal

MassUnit = Literal["g", "kg", "oz", "dwt", "ct"]
GRAMS_PER: dict[str, float] = {
    "g": 1.0,
    "kg": 1000.0,
    "oz": 28.349523125,
    "ozt": 31.1034768,
    "dwt": 1.55517384,
    "ct": 0.2,
}
_READING = re.compile(
    r"\s*(?P<sign>[+-]?)\s*(?P<number>[0-9]+(?:[.,][0-9]+)?|[.,][0-9]+)\s*(?P<unit>[a-z]*)\s*",
    re.IGNORECASE,
)

# A tonne: no reel is heavier.
HEAVIEST_G = 1e6


def parse_mass(text: object) -> float:
    """Return a mass as a scale sends it or a maker types it.

    Args:
        text: such as ``123.4 g``, ``+ 12,5``, ``3.2 ozt``; a bare number is grams.

    Returns:
        Mass [g], not negative.

    Raises:
        Refusal: no reading, a negative one, or more than any bench bears.

    Example:
        >>> parse_mass("+ 12,50 g"), parse_mass("2 dwt")
        (12.5, 3.11034768)

    Source: international ounce and troy ounce, exact.
    """
    found = _READING.fullmatch(str(text))
    unit = (found["unit"].lower() or "g") if found else ""
    if found is None or unit not in GRAMS_PER or found["sign"] == "-":
        raise Refusal("mass", got=text, known=", ".join(GRAMS_PER))
    mass = float(found["number"].replace(",", ".")) * GRAMS_PER[unit]
    if mass > HEAVIEST_G:
        raise Refusal("mass", got=text, known=", ".join(GRAMS_PER))
    return mass

"""Wire diameters and the two gauge systems in which they are sold."""

import re
import tomllib
from functools import cache
from importlib.resources import files
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, ValidationInfo, WithJsonSchema, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.units import Mm, Unit, parse_length
from jamreel.core.values import Frozen, Length, OptionalLength, refused, setting

GaugeSystem = Literal["awg", "swg"]
FINEST_MM, THICKEST_MM = 0.1, 6.5
SIZE_AS_TYPED = WithJsonSchema(
    {
        "anyOf": [{"type": "string"}, {"type": "number"}],
        "description": "14 awg, 16 swg, 1.6 mm, 0.064 in; a number is mm.",
    },
    mode="validation",
)
_GAUGE = re.compile(r"(?P<number>\d{1,2})\s*(?P<system>awg|swg|gauge|ga\.?|g)?", re.IGNORECASE)
# A bare whole number up to this could be millimetres just as well: the maker is asked.
_DOUBTFUL = 6


def awg_diameter(number: int) -> float:
    """Return the diameter of an American wire gauge number.

        d = 0.127 * 92 ** ((36 - n) / 39)

    Args:
        number: gauge number, 3 to 40 (outside, wire is not for hands).

    Returns:
        Diameter [mm]; 0.127 at number 36 and 11.684 at 4/0 by definition.

    Raises:
        Refusal: a number that is not in 3 to 40.

    Example:
        >>> round(awg_diameter(20), 3)
        0.812

    Source: ASTM B258.
    """
    if not 3 <= number <= 40:
        raise Refusal("gauge_number", got=f"{number} AWG", system="AWG", low=3, high=40)
    return float(0.127 * 92 ** ((36 - number) / 39))


@cache
def swg_table() -> dict[int, float]:
    """Return British standard wire gauge diameters [mm] by number. Source: BS 3737."""
    text = files(__package__).joinpath("data/swg.toml").read_text(encoding="utf-8")
    return {int(n): parse_length(f"{d} in") for n, d in tomllib.loads(text)["inch"].items()}


def swg_diameter(number: int) -> float:
    """Return the diameter of a British standard wire gauge number.

    Args:
        number: gauge number of the table, 4 to 40.

    Returns:
        Diameter [mm].

    Raises:
        Refusal: a number that the table does not have.

    Example:
        >>> swg_diameter(20)
        0.9144

    Source: BS 3737 (data/swg.toml).
    """
    table = swg_table()
    if number not in table:
        raise Refusal(
            "gauge_number", got=f"{number} SWG", system="SWG", low=min(table), high=max(table)
        )
    return table[number]


class WireSize(Frozen):
    """A round wire's diameter as it was asked for.

    ``system`` says how the maker put it; ``assumed`` is true when a bare gauge number took the
    maker's default system, which the screen then says.
    """

    diameter_mm: float
    system: Literal["awg", "swg", "length"] = "length"
    number: int | None = None
    assumed: bool = False

    @property
    def label(self) -> str:
        """The size as it is said aloud, always with millimetres."""
        if self.number is None:
            return f"{self.diameter_mm:.2f} mm"
        return f"{self.number} {self.system.upper()} ({self.diameter_mm:.2f} mm)"

    @model_validator(mode="before")
    @classmethod
    def _as_typed(cls, entered: Any, info: ValidationInfo) -> Any:
        if isinstance(entered, (dict, WireSize)):
            return entered
        try:
            return read_wire_size(
                entered, setting(info, "gauge_system", "awg"), setting(info, "unit", "mm")
            )
        except Refusal as refusal:
            raise refused(refusal) from None

    @model_validator(mode="after")
    def _guard(self) -> "WireSize":
        if not FINEST_MM <= self.diameter_mm <= THICKEST_MM:
            raise refused(_out_of_range(self.diameter_mm))
        return self


def _blank_to_none(entered: object) -> object:
    return None if isinstance(entered, str) and not entered.strip() else entered


# A part's own wire; left blank it is the piece's.
OptionalSize = Annotated[
    WireSize | None,
    BeforeValidator(_blank_to_none),
    WithJsonSchema(
        {
            "anyOf": [{"type": "string"}, {"type": "number"}, {"type": "null"}],
            "description": "A wire size as above; blank for the wire of the piece.",
        },
        mode="validation",
    ),
    Field(json_schema_extra={"asks": "size"}),
]


def _gauge_in_mm(entered: object, info: ValidationInfo) -> object:
    """Return the diameter of a gauge that is named as one; anything else as it is."""
    if not isinstance(entered, str):
        return entered
    found = _GAUGE.fullmatch(entered.strip())
    if found is None or not found["system"]:
        return entered
    try:
        read = read_wire_size(entered, setting(info, "gauge_system", "awg"), "mm")
    except Refusal as refusal:
        raise refused(refusal) from None
    return read["diameter_mm"]


# What wire is wound on: a rod by its length, or wire by its gauge. A bare number is a length.
CoreSize = Annotated[Length, BeforeValidator(_gauge_in_mm)]
OptionalCore = Annotated[OptionalLength, BeforeValidator(_gauge_in_mm)]


def _out_of_range(diameter_mm: float) -> Refusal:
    slipped = diameter_mm * 10 if diameter_mm < FINEST_MM else diameter_mm / 10
    return Refusal(
        "wire_range", got=Mm(diameter_mm), low=FINEST_MM, high=THICKEST_MM, slipped=slipped
    )


def read_wire_size(entered: object, default: GaugeSystem, unit: Unit) -> dict[str, Any]:
    """Return a wire size as entered, as the fields of a ``WireSize``.

    Args:
        entered: a number (mm), or ``20 awg``, ``20 swg``, ``20 ga``, ``20``, ``0.8 mm``,
            ``0.032 in``.
        default: the system that a bare gauge takes.
        unit: the unit that a bare decimal takes.

    Raises:
        Refusal: unreadable, outside the table, or a bare 1 to 6, which could be gauge or mm.

    Example:
        >>> read_wire_size("14", "awg", "mm")["number"]
        14

    Source: common practice.
    """
    if entered is None or entered == "":
        raise Refusal("wire_missing", got=entered)
    if not isinstance(entered, str):
        return {"diameter_mm": parse_length(entered)}
    found = _GAUGE.fullmatch(entered.strip())
    if found is None:
        try:
            return {"diameter_mm": parse_length(entered, unit)}
        except Refusal:
            raise Refusal("wire_unreadable", got=entered) from None
    number, word = int(found["number"]), (found["system"] or "").lower()
    if not word and number <= _DOUBTFUL:
        raise Refusal("gauge_or_mm", got=entered)
    named = word in ("awg", "swg")
    system = word if named else default
    diameter = awg_diameter(number) if system == "awg" else swg_diameter(number)
    return {"diameter_mm": diameter, "system": system, "number": number, "assumed": not named}

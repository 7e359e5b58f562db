"""What the workshop knows: units, the maker's own ease words, tools."""

from typing import Any

from pydantic import Field, model_validator

from jamreel.core.bench.price import Pricing
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import EaseBook
from jamreel.core.forming.tools import Outfit, Tool
from jamreel.core.hand.hand import NEW_HAND, Hand
from jamreel.core.parts.own_link import OwnLink
from jamreel.core.units import Unit
from jamreel.core.values import FORMAT, Format, Frozen, Length, refused
from jamreel.core.wire.gauges import GaugeSystem
from jamreel.core.wire.metals import OwnMetal
from jamreel.core.words import Language

# What a bench without a list of its own is taken to have: common practice.
_PLIERS = Tool(
    name="stepped pliers", kind="stepped pliers", diameters=(2.0, 2.6, 3.0, 4.0, 5.0, 6.0)
)
_MANDREL = Tool(
    name="bracelet mandrel",
    kind="stepped mandrel",
    diameters=(40, 43, 46, 49, 52, 55, 58, 61, 64, 67),
)


_DOWELS = Tool(name="dowels", kind="dowels", diameters=(7, 8, 9, 10, 12, 16, 20))
_JARS = Tool(
    name="jars and pans", kind="household", diameters=(72, 80, 90, 100, 110, 120, 135, 150, 165)
)


_FLAT = Tool(name="flat pliers", kind="flat pliers")


def _inches(*sizes: float) -> tuple[float, ...]:
    return tuple(round(size * 25.4, 6) for size in sizes)


# The same in inches, as an inch bench buys them: common practice.
INCH_USUAL: dict[str, Any] = {
    "formers": (
        Tool(
            name="bracelet mandrel",
            kind="stepped mandrel",
            diameters=_inches(1.625, 1.75, 1.875, 2, 2.125, 2.25, 2.375, 2.5, 2.625),
        ),
        Tool(
            name="dowels",
            kind="dowels",
            diameters=_inches(0.25, 0.3125, 0.375, 0.4375, 0.5, 0.625, 0.75),
        ),
        Tool(
            name="jars and pans",
            kind="household",
            diameters=_inches(2.75, 3.125, 3.5, 4, 4.25, 4.75, 5.25, 6, 6.5),
        ),
    ),
    "keep_length": 2.5 * 25.4,
    "sold_length": 36 * 25.4,
}


class MeasuredYield(Frozen):
    """The yield [MPa] that a trial on a former showed of all wire that goes by a ``stock`` key, and
    the reel that it was cut from; of several ``records`` it is the mean."""

    stock: str = Field(min_length=1, max_length=120)
    reel: str = Field(max_length=80)
    yield_mpa: float = Field(gt=1, lt=3000)
    records: int = Field(default=1, ge=1, le=1_000_000)


class WovenSample(Frozen):
    """How this maker weaves a technique in all wire that goes by a ``stock`` key.

    The pitch over the usual one, and wire used over wire computed, None where that was not read;
    ``rows`` of it were counted.
    """

    technique: str = Field(min_length=1, max_length=40)
    stock: str = Field(min_length=1, max_length=120)
    pitch: float = Field(ge=0.5, le=4)
    tight: float | None = Field(default=None, ge=0.5, le=2)
    rows: int = Field(ge=1, le=100_000)


# More of a wrist than this no flesh gives; common practice, no source.
MOST_FLESH = 0.4


class Landmark(Frozen):
    """A place of the front of the body, so far below the shoulder points [mm]."""

    name: str = Field(min_length=1, max_length=60)
    below: Length


# Common practice, from memory; bodies differ, so makers put their own.
LANDMARKS = (
    Landmark(name="hollow of the throat", below=45),
    Landmark(name="collarbone", below=70),
    Landmark(name="upper chest", below=110),
    Landmark(name="middle of the chest", below=170),
    Landmark(name="lower edge of the breast", below=250),
    Landmark(name="waist", below=360),
)


class Shop(Frozen):
    """A workshop's settings. The unit and gauge system decide how bare numbers are read.

    ``shelf`` holds links of the maker's own, ``metals`` the maker's own or overridden. A remnant
    under ``keep_length`` is scrap; wire is bought in steps of ``sold_length``. ``flesh`` is the
    share of a wrist's depth that gives way when a cuff goes on (a tenth: from memory).
    ``malleting`` is the share of a body's springback that malleting on its former takes away;
    ``measured`` are yields that reels of this bench were found to have, ``woven`` what samples of
    weaving showed, ``hand`` what samples and finished pieces did of wire and minutes; ``pricing``
    is what time and overheads are worth.
    """

    schema_version: Format = Field(default=FORMAT, alias="schema")
    unit: Unit = "mm"
    gauge_system: GaugeSystem = "awg"
    language: Language = "en"
    ease: EaseBook = EaseBook()
    formers: tuple[Tool, ...] = (_MANDREL, _DOWELS, _JARS)
    pins: tuple[Tool, ...] = (_PLIERS, _FLAT)
    outfit: Outfit = Outfit()
    malleting: float = 0.0
    measured: tuple[MeasuredYield, ...] = Field(default=(), max_length=1000)
    woven: tuple[WovenSample, ...] = Field(default=(), max_length=1000)
    hand: Hand = NEW_HAND
    pricing: Pricing = Pricing()
    landmarks: tuple[Landmark, ...] = LANDMARKS
    metals: tuple[OwnMetal, ...] = Field(default=(), max_length=40)
    keep_length: Length = 60.0
    flesh: float = 0.1
    sold_length: Length = 1000.0
    shelf: tuple[OwnLink, ...] = Field(default=(), max_length=60)

    @model_validator(mode="before")
    @classmethod
    def _usual_in_inches(cls, typed: Any) -> Any:
        """Give an inch bench what it did not put itself in sizes of an inch."""
        if isinstance(typed, dict) and typed.get("unit") == "in":
            return {**INCH_USUAL, **typed}
        return typed

    @model_validator(mode="after")
    def _flesh_gives_little(self) -> "Shop":
        if not 0 <= self.flesh <= MOST_FLESH:
            got, high = f"{100 * self.flesh:g} %", 100 * MOST_FLESH
            raise refused(Refusal("flesh", got=got, under="flesh", low=0.0, high=high))
        if not 0 <= self.malleting < 1:
            got = f"{100 * self.malleting:g} %"
            raise refused(Refusal("malleting", got=got, under="malleting"))
        return self

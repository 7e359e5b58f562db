"""What the workshop knows: units, the maker's own ease words, tools."""

from typing import Literal

from pydantic import Field

from jamreel.core.fit.ease import EaseTable
from jamreel.core.forming.tools import Tool
from jamreel.core.units import Unit
from jamreel.core.values import Frozen
from jamreel.core.wire.gauges import GaugeSystem
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


class Shop(Frozen):
    """A workshop's settings. The unit and gauge system decide how bare numbers are read."""

    schema_version: Literal[1] = Field(default=1, alias="schema")
    unit: Unit = "mm"
    gauge_system: GaugeSystem = "awg"
    language: Language = "en"
    ease: EaseTable = EaseTable()
    formers: tuple[Tool, ...] = (_MANDREL,)
    pins: tuple[Tool, ...] = (_PLIERS,)

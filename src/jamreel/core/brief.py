"""The brief: all that the maker decides, and what was noted at the bench."""

from typing import Literal

from pydantic import Field, SerializeAsAny

from jamreel.core.body.readings import Measure, SiteId
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.families import Piece
from jamreel.core.fit.ease import EaseChoice, FixedEase
from jamreel.core.fit.tryon import TryOn
from jamreel.core.units import Unit
from jamreel.core.values import FORMAT, Format, Frozen
from jamreel.core.wire.gauges import GaugeSystem
from jamreel.core.wire.metals import WireChoice
from jamreel.core.wire.palette import PaletteChoice
from jamreel.core.workpiece.making import Making


class Brief(Frozen):
    """A piece as decided. Lengths may be given as text, the way a maker writes them.

    ``unit`` and ``gauge_system`` say how bare numbers in it were meant, whatever the shop works in
    now; without them the shop decides. ``wire`` is what the body is made of, ``palette`` the wires
    of other roles, ``making`` how it is worked. ``tryon`` is the try-on being judged; ``child``
    adds the cautions that concern children.
    """

    schema_version: Format = Field(default=FORMAT, alias="schema")
    unit: Unit | None = None
    gauge_system: GaugeSystem | None = None
    measures: dict[SiteId, Measure] = Field(default_factory=dict)
    child: bool = False
    side: Literal["left", "right", "either"] = "either"
    ease: EaseChoice = FixedEase()
    piece: SerializeAsAny[Piece]
    wire: WireChoice
    palette: PaletteChoice = PaletteChoice()
    cutting: Cutting = Cutting()
    making: Making = Making()
    tryon: TryOn | None = None

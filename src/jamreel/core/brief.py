"""The brief: all that the maker decides, and what was noted at the bench."""

from typing import Annotated, Literal

from pydantic import Field, SerializeAsAny

from jamreel.core.body.readings import Measure, SiteId
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.families import Piece
from jamreel.core.fit.ease import EaseChoice, FixedEase
from jamreel.core.fit.tryon import TryOn
from jamreel.core.units import Unit
from jamreel.core.values import Frozen, OptionalLength
from jamreel.core.wire.gauges import GaugeSystem
from jamreel.core.wire.metals import WireChoice


class Brief(Frozen):
    """A piece as decided. Lengths may be given as text, the way a maker writes them.

    ``unit`` and ``gauge_system`` say how bare numbers in it were meant, whatever the shop works in
    now; without them the shop decides. ``made`` holds actual cut lengths by cut id; ``tryon`` is
    the try-on being judged. ``child`` adds the cautions that concern children.
    """

    schema_version: Literal[1] = Field(default=1, alias="schema")
    unit: Unit | None = None
    gauge_system: GaugeSystem | None = None
    measures: dict[SiteId, Measure] = Field(default_factory=dict)
    child: bool = False
    side: Literal["left", "right", "either"] = "either"
    ease: EaseChoice = FixedEase()
    piece: SerializeAsAny[Piece]
    wire: WireChoice
    cutting: Cutting = Cutting()
    made: dict[Annotated[str, Field(max_length=40)], OptionalLength] = Field(default_factory=dict)
    tryon: TryOn | None = None

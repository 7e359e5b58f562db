"""The brief: all that the maker decides, and what was noted at the bench."""

from typing import Annotated, Literal

from pydantic import Field, SerializeAsAny

from jamreel.core.body.readings import Measure, SiteId
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.families import Piece
from jamreel.core.fit.ease import EaseChoice, FixedEase
from jamreel.core.fit.tryon import TryOn
from jamreel.core.values import Frozen, OptionalLength
from jamreel.core.wire.metals import WireChoice


class Brief(Frozen):
    """A piece as decided. Lengths may be given as text, the way a maker writes them.

    ``made`` holds actual cut lengths by cut id; ``tryon`` the try-on being judged.
    """

    schema_version: Literal[1] = Field(default=1, alias="schema")
    measures: dict[SiteId, Measure] = Field(default_factory=dict)
    side: Literal["left", "right", "either"] = "either"
    ease: EaseChoice = FixedEase()
    piece: SerializeAsAny[Piece]
    wire: WireChoice
    cutting: Cutting = Cutting()
    made: dict[Annotated[str, Field(max_length=40)], OptionalLength] = Field(default_factory=dict)
    tryon: TryOn | None = None

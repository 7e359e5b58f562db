"""The neck ring and the choker: stiff wire round the neck's base, or its middle."""

from collections.abc import Mapping
from typing import ClassVar, Literal

from jamreel.core.choices import like
from jamreel.core.families.base import usually
from jamreel.core.families.hooked import HookedRing
from jamreel.core.values import Length


class NeckRing(HookedRing):
    """A ring that rests where a necklace would lie."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("3 mm", "brass")
    family: ClassVar[str] = "necklace"
    worn_on: ClassVar[str] = "neck"
    girth_site: ClassVar[str] = "neck_base_girth"
    sites: ClassVar[tuple[str, ...]] = ("neck_base_girth",)
    kind: Literal["neck_ring"] = "neck_ring"
    hook_pin: Length = like(HookedRing, "hook_pin", 6.0)
    eye_pin: Length = like(HookedRing, "eye_pin", 9.0)
    leg: Length = like(HookedRing, "leg", 8.0)


class Choker(HookedRing):
    """A ring that sits round the middle of the neck."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("2 mm")
    family: ClassVar[str] = "necklace"
    worn_on: ClassVar[str] = "neck"
    girth_site: ClassVar[str] = "neck_girth"
    sites: ClassVar[tuple[str, ...]] = ("neck_girth",)
    kind: Literal["choker"] = "choker"
    hook_pin: Length = like(HookedRing, "hook_pin", 6.0)
    eye_pin: Length = like(HookedRing, "eye_pin", 7.0)
    leg: Length = like(HookedRing, "leg", 8.0)

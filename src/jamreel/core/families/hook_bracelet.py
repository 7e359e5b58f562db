"""The wire bracelet: one stiff wire round the wrist, hook and eye."""

from typing import ClassVar, Literal

from jamreel.core.families.hooked import WristRing


class HookBracelet(WristRing):
    """A rigid bracelet that fastens with a hook and an eye."""

    family: ClassVar[str] = "bracelet"
    kind: Literal["hook_bracelet"] = "hook_bracelet"

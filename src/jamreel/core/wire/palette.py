"""Which wire each role of a piece is made of, as a maker chooses it."""

from typing import Annotated

from pydantic import Field, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.values import Frozen, refused
from jamreel.core.wire.metals import WireChoice

OwnRole = Annotated[str, Field(pattern=r"^[a-z][a-z0-9 _-]{0,29}$")]
# Longer than this a wire kinks and tangles in most hands; the maker's own limit comes first.
LONGEST_HANDLED_MM = 1500.0
# Roles that parts and closures take wire for, beside the body.
ROLES = ("string", "winding", "rings", "closure")


class PaletteChoice(Frozen):
    """Wires beside that of the body; a role without one takes the body's.

    ``string`` runs through what has holes, ``winding`` is wound round something, ``rings`` are cut
    from a coil. ``own`` holds wires of the maker's own, by name, for single entries.
    """

    string: WireChoice | None = None
    winding: WireChoice | None = None
    rings: WireChoice | None = None
    closure: WireChoice | None = None
    own: dict[OwnRole, WireChoice] = Field(default_factory=dict, max_length=8)

    @model_validator(mode="after")
    def _names_no_role(self) -> "PaletteChoice":
        taken = next((name for name in self.own if name in (*ROLES, "body")), None)
        if taken is not None:
            raise refused(Refusal("wire_named_as_role", got=taken, under="own"))
        return self

    def by_role(self) -> dict[str, WireChoice]:
        """Return the chosen wires by role, the maker's own under ``own.<name>``."""
        rows = ((role, getattr(self, role)) for role in ROLES)
        named = {role: wire for role, wire in rows if wire is not None}
        return {**named, **{f"own.{name}": wire for name, wire in self.own.items()}}

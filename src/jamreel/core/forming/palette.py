"""The wires of a piece by what they are for: its palette, with the facts that its rules need."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import UNKNOWN, Known, Wire, chosen
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.wire.palette import LONGEST_HANDLED_MM, ROLES, PaletteChoice
from jamreel.core.wire.sections import Twisted

# What coils and rings are wound from may be twisted; it is round from outside.
TWISTED_ROLES = frozenset({"winding", "rings"})


@dataclass(frozen=True)
class WovenHand:
    """How a maker's hand weaves a ``technique`` in wire of a ``stock`` key: its pitch over the
    usual one, and wire used over wire computed, None where that was not read."""

    technique: str
    stock: str
    pitch: float
    tight: float | None


@dataclass(frozen=True)
class Palette:
    """The wire of the body, and beside it those of other roles, by role.

    A role that has no wire of its own takes the body's. Wire longer than ``handled`` [mm] kinks and
    tangles in the maker's hands: what is worked in long lengths is split there. ``hands`` is how
    they weave, by samples. Links are bent ``off_reel`` before they are cut. Bare ends go ``in_cap``
    so far [mm], None where no cap is put over them.
    """

    body: Wire
    beside: Mapping[str, Wire] = field(default_factory=dict)
    handled: float = LONGEST_HANDLED_MM
    hands: tuple[WovenHand, ...] = ()
    off_reel: bool = False
    in_cap: float | None = None

    def __hash__(self) -> int:
        # Parts made of a palette are remembered by it; equal ones have the same roles.
        beside = tuple(sorted(self.beside))
        return hash((self.body, self.handled, self.hands, self.off_reel, self.in_cap, beside))

    def hand(self, technique: str, wire: Wire) -> WovenHand | None:
        """Return how the maker weaves a technique in some wire, None where nobody counted."""
        kept = (one for one in self.hands if one.technique == technique)
        return next((one for one in kept if one.stock == wire.key), None)

    def of(self, role: str, size: WireSize | None = None, usual: float | None = None) -> Wire:
        """Return the wire of a role.

        Args:
            role: what it is for.
            size: when a part has a size of its own; metal and temper stay those of the role.
            usual: diameter that the role has where neither part nor palette says one [mm].
        """
        if size is None and usual is not None and role not in self.beside:
            return self.body.of_size(WireSize(diameter_mm=usual))
        return self.beside.get(role, self.body).of_size(size)

    def in_cap_or(self, usual: float) -> float:
        """Return how far bare ends go into their caps [mm].

        Args:
            usual: that is left of them where no cap is chosen yet [mm].
        """
        return usual if self.in_cap is None else self.in_cap

    def made_of(self, own: str) -> "Palette":
        """Return the palette as a part sees it that is made of a wire of the maker's own.

        Args:
            own: the maker's name of that wire, '' for the palette as it is.

        Raises:
            Refusal: a name that the palette does not have.
        """
        if not own:
            return self
        if own not in self.beside or own in ROLES:
            known = ", ".join(sorted(self.beside.keys() - set(ROLES))) or "–"
            raise Refusal("no_such_wire", got=own, field="made_of", known=known)
        kept = {role: wire for role, wire in self.beside.items() if role == "winding"}
        return replace(self, body=self.beside[own], beside=kept)


def palette_of(
    body: WireChoice,
    beside: PaletteChoice | None = None,
    known: Known = UNKNOWN,
    handled: float = LONGEST_HANDLED_MM,
    hands: tuple[WovenHand, ...] = (),
) -> Palette:
    """Return a palette with the facts of its wires.

    Args:
        body: the wire of the body, as chosen.
        beside: the wires of other roles.
        known: what the bench knows of metals.
        handled: longest wire that the maker handles [mm].
        hands: how the maker weaves, by samples.

    Raises:
        Refusal: a metal that is not known, at the wire that names it; wire that is not round where
            loops and coils are made of it.

    Source: ``forming.chosen.chosen``, a wire at a time.
    """
    found: dict[str, Wire] = {}
    for role, choice in (beside or PaletteChoice()).by_role().items():
        place = f"palette.{role}"
        twists = role in TWISTED_ROLES and isinstance(choice.section, Twisted)
        if choice.section is not None and choice.section.shape != "round" and not twists:
            raise Refusal("round_role", got=choice.section.label, field=f"{place}.section")
        try:
            found[role.removeprefix("own.")] = _to_bend(chosen(choice, known))
        except Refusal as refusal:
            raise refusal.at(f"{place}.metal") from None
    return Palette(_to_bend(chosen(body, known)), found, handled, hands)


def _to_bend(wire: Wire) -> Wire:
    """Return a wire that a piece may be bent from. Raises Refusal for cord."""
    if wire.metal.cord:
        raise Refusal("cord_no_wire", got=wire.metal.name, field="wire.metal")
    return wire

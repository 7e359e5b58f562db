"""What the parts of a piece weigh, and how far it hangs."""

from jamreel.core.makeup.compose import Composition, Kind, Lying
from jamreel.core.parts.base import Made
from jamreel.core.path.moves import developed_length


def made_mass(made: Made) -> float:
    """Return the mass of a part as made: its wires without tails, and what is bought for it.

    Args:
        made: the part.

    Returns:
        Mass [g].

    Source: plain geometry.
    """
    wire = sum(
        use.wire.mass(developed_length(moves, use.wire.d)) * use.quantity
        for use in made.wires
        for name, moves in use.stretches
        if not name.startswith("tail")
    )
    return wire + made.bought_mass


class Scale:
    """Weighs the parts of a piece, each kind once."""

    def __init__(self, kinds: tuple[Kind, ...]) -> None:
        self._mass = {kind.key: made_mass(kind.made) for kind in kinds}

    def __call__(self, part: Lying) -> float:
        """Return the mass of a part [g]."""
        return self._mass[part.unit.key]


def hanging_of(laid: Composition) -> float:
    """Return how far a piece that hangs straight down reaches.

    Args:
        laid: the piece, hung by its left end.

    Returns:
        Length [mm] from where it hangs to its lowest point.

    Source: plain geometry.
    """
    drops = [p.at + p.made.hang for p in laid.parts if p.drop]
    ends = [p.at + p.length for p in laid.parts if not p.drop]
    return max([*drops, *ends], default=0.0)

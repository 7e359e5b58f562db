"""What the parts of a piece weigh, and how far it hangs."""

from jamreel.core.makeup.compose import Composition, Kind, Lying


class Scale:
    """Weighs the parts of a piece, each kind once."""

    def __init__(self, kinds: tuple[Kind, ...]) -> None:
        self._mass = {kind.key: kind.made.mass for kind in kinds}

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

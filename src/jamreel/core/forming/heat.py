"""What a metal lets a torch at the bench do: solder it, draw a ball, make it soft again."""

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire


def solderable(wire: Wire, asked: bool = True, field: str = "soldered") -> None:
    """Refuse to solder a metal that can't be soldered at a bench.

    Args:
        wire: that is to be soldered.
        asked: whether it is to be.
        field: the choice that asks for it.

    Raises:
        Refusal: it is, and can't be.

    Source: data/metals.toml, from memory: oxides that no bench flux takes, coatings that burn.
    """
    _able(wire, "solder", asked, field)


def ballable(wire: Wire, asked: bool = True, field: str = "ends") -> None:
    """Refuse to draw a ball on a metal that burns or tears before it balls; see ``solderable``."""
    _able(wire, "ball", asked, field)


def _able(wire: Wire, what: str, asked: bool, field: str) -> None:
    if asked and what not in wire.metal.takes:
        raise Refusal(f"cant_{what}", got=wire.metal.name, field=field)

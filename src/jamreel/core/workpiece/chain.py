"""Bought chain, cut at whole links."""

from jamreel.core.cutting.cuts import Cut, CutLine
from jamreel.core.words import say

PITCH_RANGE, MASS_RANGE = (0.8, 40.0), (0.2, 200.0)


def whole_links(length: float, pitch: float) -> int:
    """Return the whole number of links nearest to a length; at least one.

    Args:
        length: wanted [mm].
        pitch: of the chain, per link [mm].

    Returns:
        Number of links; a fraction of a link can't be cut.

    Example:
        >>> whole_links(427.0, 3.5)
        122

    Source: plain arithmetic.
    """
    return max(1, round(length / pitch))


def chain_cut(key: str, links: int, pitch: float, thick: float, metal: str, number: int = 1) -> Cut:
    """Return a stretch of chain as a cut of whole links."""
    return Cut(
        id=key,
        label=say(f"cut.{key}"),
        wire=say("chain.label", links=links, pitch=pitch),
        wire_mm=thick,
        metal=metal,
        temper=say("chain.bought"),
        quantity=number,
        length_mm=links * pitch,
        lines=(CutLine(id=key, label=say(f"cut.{key}"), value_mm=links * pitch),),
        marks=(),
    )

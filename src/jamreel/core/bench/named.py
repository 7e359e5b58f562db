"""What techniques, classes of wire and kinds of work are called."""

import re

from jamreel.core.hand.technique import TECHNIQUES
from jamreel.core.wire.metals import OwnMetal, all_metals
from jamreel.core.words import catalogue, say, voice

_FIGURE = re.compile(r"\s*\{[^}]*\}")


def technique_named(technique: str) -> str:
    """Return what a technique is called; weaves have the names of their parts.

    Example:
        >>> technique_named("wrapped_loop")
        'wrapped loop'
    """
    if technique in (*TECHNIQUES, "former", "finished", "inside"):
        return say(f"technique.{technique}")
    key = f"shelf.{technique}.name"
    return say(key) if key in catalogue(voice()[0]) else technique.replace("_", " ")


def work_named(work: str) -> str:
    """Return what a kind of work is called: its step without the figures.

    Example:
        >>> work_named("wire.cut")
        'Cut'
    """
    title = catalogue(voice()[0]).get(f"step.{work}.title", work)
    return _FIGURE.sub("", title).strip(" ,:") or work


def wire_named(stock: str, own: tuple[OwnMetal, ...] = ()) -> str:
    """Return what a class of wire is called.

    Args:
        stock: its key (``forming.chosen.stock_key``).
        own: metals of the maker's own.

    Example:
        >>> wire_named("copper/dead_soft/round/1.00x1.00")
        '1.00 mm round copper, dead soft'
    """
    try:
        metal, temper, shape, size = stock.split("/")
        width, thickness = (float(one) for one in size.split("x"))
        section = say(f"section.{shape}", width=width, thickness=thickness)
        name = all_metals(own)[metal].name
        return say("wire_class", section=section, metal=name, temper=say(f"temper.{temper}"))
    except (ValueError, KeyError):
        # A metal that the bench no longer has goes by its key.
        return stock

"""Is this the right wire, and was it read right?"""

from jamreel.core.advice import Advice, advise
from jamreel.core.wire.metals import Metal, WireChoice
from jamreel.core.wire.sections import Twisted


def assumed_system(wire: WireChoice, field: str = "wire") -> Advice | None:
    """Return a note when a bare gauge number took the maker's default system."""
    size = wire.size
    if not size.assumed:
        return None
    return advise(
        "assumed_system",
        "note",
        f"{field}.size",
        number=size.number,
        system=size.system.upper(),
        diameter=size.diameter_mm,
    )


def needs_own_shears(metal: Metal) -> Advice | None:
    """Return a warning about hard wire that ruins cutters. Source: common practice."""
    return advise("own_shears", "check", "wire.metal", metal=metal.name) if metal.hard else None


def section_springback(wire: WireChoice) -> Advice | None:
    """Return a note that a section's springback is an estimate. Source: no field data at hand."""
    section = wire.section
    if section is None or section.shape not in ("patterned", "twisted"):
        return None
    return advise("section_springback", "note", "wire.section", section=section.label)


# Held in the vice and the hook while it is twisted, at each end [mm]; common practice, no source.
HELD_MM = 20.0


def twist_first(wire: WireChoice, length: float) -> Advice | None:
    """Return what to twist a wire of strands from.

    Args:
        wire: as chosen.
        length: of the twist that is wanted [mm].

    Source: take-up of a helix; published. What is held at the ends: common practice.
    """
    section = wire.section
    if not isinstance(section, Twisted):
        return None
    each = (length + 2 * HELD_MM) * section.take_up
    return advise(
        "twist_first",
        "note",
        "wire.section",
        strands=section.strands,
        strand=section.strand,
        each=each,
        turns=(length + 2 * HELD_MM) / section.pitch,
        held=HELD_MM,
        take_up=section.take_up,
    )


def keeps_shape(wire: WireChoice) -> Advice | None:
    """Return a note when a rigid piece is made of dead soft wire. Source: common practice."""
    return advise("soft", "note", "wire.temper") if wire.temper == "dead_soft" else None

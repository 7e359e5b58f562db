"""Is this the right wire, and was it read right?"""

from jamreel.core.advice import Advice, advise
from jamreel.core.wire.metals import Metal, WireChoice


def assumed_system(wire: WireChoice) -> Advice | None:
    """Return a note when a bare gauge number took the maker's default system."""
    size = wire.size
    if not size.assumed:
        return None
    return advise(
        "assumed_system",
        "note",
        "wire.size",
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


def keeps_shape(wire: WireChoice) -> Advice | None:
    """Return a note when a rigid piece is made of dead soft wire. Source: common practice."""
    return advise("soft", "note", "wire.temper") if wire.temper == "dead_soft" else None

"""A trial on a former: what a wire came off at tells its yield."""

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.springback import effective_yield
from jamreel.core.units import Mm

# Yields [MPa] that a wire of this trade can have.
SOFTEST_MPA, HARDEST_MPA = 5.0, 3000.0


def trial_yield(wire: Wire, former: float, came_off: float) -> float:
    """Return the yield [MPa] that explains what a wire came off a former at, not malleted.

    Args:
        wire: that was wound.
        former: diameter that it was wound on [mm].
        came_off: inside diameter that it opened to [mm].

    Raises:
        Refusal: a former thinner than the wire, a wire that came off no wider than its former, or
            so much wider that no wire does.

    Source: ``effective_yield``.
    """
    if former < wire.shape.thickness:
        least = wire.shape.thickness
        raise Refusal("trial_former", got=Mm(former), field="former", least=least)
    if came_off <= former:
        raise Refusal("trial_not_wider", got=Mm(came_off), field="came_off", former=former)
    found = effective_yield(former, came_off, wire.shape, wire.metal.youngs)
    if not SOFTEST_MPA <= found <= HARDEST_MPA:
        raise Refusal("trial_no_wire", got=Mm(came_off), field="came_off", former=former)
    return found

"""How a piece feels: what it gives when pressed, what opens it, how it grips, in words."""

import math

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.opened import stays_between, stays_open
from jamreel.core.forming.stiffness import (
    PRESS_N,
    closed_gives,
    elastic_opening,
    open_gives,
    opening_pull,
    opening_strain,
)
from jamreel.core.forming.strength import STANDARD_GRAVITY
from jamreel.core.result import Feel
from jamreel.core.words import say

# Things that everybody has held, by their mass [g]; from memory.
HELD_G = {
    "coin": 5.0,
    "letter": 20.0,
    "egg": 60.0,
    "apple": 150.0,
    "cup": 350.0,
    "milk": 1030.0,
    "two_milk": 2060.0,
    "cat": 4500.0,
    "bucket": 11000.0,
}
# Less than this nobody sees it stay open [mm].
LEAST_SET_MM = 0.05
# A bangle that gives less than this under 5 N hardly gives, and so on [mm]; common practice, no
# source.
GIVES_MM = (("stiff", 0.4), ("firm", 1.5), ("springy", 5.0))


def felt(newtons: float) -> str:
    """Return a pull in a maker's words: what hangs as heavy.

    Args:
        newtons: [N].

    Source: masses of things of every day, from memory; the nearest by its ratio.
    """
    grams = max(newtons, 1e-6) / STANDARD_GRAVITY * 1000
    if grams < HELD_G["coin"] / 2:
        return say("felt.nothing")
    if grams > 2 * HELD_G["bucket"]:
        return say("felt.more")
    key = min(HELD_G, key=lambda one: abs(math.log(HELD_G[one] / grams)))
    return say(f"felt.{key}")


def rigidity(wire: Wire) -> float:
    """Return E I of a wire [N mm2]."""
    return wire.metal.youngs * wire.shape.second_moment


def pressed(wire: Wire, radius: float, *, closed: bool) -> Feel:
    """Return by how much a ring gives between finger and thumb.

    Args:
        wire: as hard as it is worn.
        radius: of its centre-line [mm].
        closed: whether it is closed all round.

    Source: ``closed_gives``, ``open_gives``; where 5 N would bend it for good it says so.
    """
    gives = (closed_gives if closed else open_gives)(PRESS_N, radius, rigidity(wire))
    # The moment where it is greatest: F R / pi of a closed ring, F R at the back of an open one.
    bends = wire.moment < PRESS_N * radius / (math.pi if closed else 1.0)
    word = next((key for key, most in GIVES_MM if gives < most), "soft")
    limp = gives > radius / 2
    key = "bends" if bends else "limp" if limp else word
    return Feel(
        id="gives",
        label=say("feel.gives.label", force=PRESS_N),
        value_mm=None if bends or limp else gives,
        newtons=PRESS_N,
        says=say(f"feel.gives.{key}"),
    )


def opened(wire: Wire, radius: float, pulled: float, half: float = math.pi) -> Feel | None:
    """Return what it takes to open a ring to go on, and what that leaves.

    Args:
        wire: as hard as it is worn.
        radius: of its centre-line [mm].
        pulled: by which its ends part [mm].
        half: angle from its back to an end [rad].

    Source: ``opening_pull`` up to the yield, the plastic hinge of its back beyond; what stays by
        moment and curvature all along it (``forming.opened``).
    """
    if pulled <= 0:
        return None
    newtons = min(opening_pull(pulled, radius, rigidity(wire), half), _hinge(wire, radius, half))
    springs = elastic_opening(wire.fibre, radius, wire.law.gives_at, half)
    stays = stays_open(wire, radius, pulled, half)
    least, most = stays_between(wire, radius, pulled, half)
    strain = opening_strain(wire.fibre, radius, pulled, half)
    key = "sets" if most >= LEAST_SET_MM else "springs"
    return Feel(
        id="opens",
        label=say("feel.opens.label", pulled=pulled),
        value_mm=stays,
        newtons=newtons,
        says=say(
            f"feel.opens.{key}",
            felt=felt(newtons),
            least=least,
            most=most,
            strain=100 * strain,
            springs=springs,
        ),
    )


def grips(wire: Wire, radius: float, rim: float, gap: float, half: float) -> Feel:
    """Return how hard a cuff grips a rim that would not give at all.

    Args:
        wire: of the cuff.
        radius: of its centre-line [mm].
        rim: thickness of the rim [mm].
        gap: of the cuff [mm].
        half: angle from its back to an end [rad].

    Source: ``opening_pull`` up to the yield; a rim is soft, so this is the most.
    """
    pull = opening_pull(max(0.0, rim - gap), radius, rigidity(wire), half)
    newtons = min(pull, _hinge(wire, radius, half))
    return Feel(
        id="grips",
        label=say("feel.grips.label"),
        newtons=newtons,
        says=say("feel.grips.says", felt=felt(newtons)),
    )


def presses(wire: Wire, radius: float, tight: float, mass_g: float) -> Feel:
    """Return what a circlet presses: by its spring where it is tight, or by its weight alone.

    Args:
        wire: of the circlet.
        radius: of its centre-line [mm].
        tight: by which the head is more round than its inside [mm].
        mass_g: of all of it.

    Source: ``opening_pull``; standard gravity.
    """
    if tight > 0:
        newtons = min(opening_pull(tight, radius, rigidity(wire)), _hinge(wire, radius, math.pi))
        key = "spring"
    else:
        newtons, key = mass_g / 1000 * STANDARD_GRAVITY, "weight"
    return Feel(
        id="presses",
        label=say("feel.presses.label"),
        newtons=newtons,
        says=say(f"feel.presses.{key}", felt=felt(newtons), mass=mass_g),
    )


def _hinge(wire: Wire, radius: float, half: float) -> float:
    """Return the pull at which the back of an arc gives, M_p / (R (1 - cos alpha)) [N]."""
    return wire.moment / (radius * (1 - math.cos(half)))

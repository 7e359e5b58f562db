"""Opening a ring: how far it may be pulled apart and still spring back."""

import math


def opening_strain(thickness: float, radius: float, opened: float) -> float:
    """Return the strain in the back of a split ring that is pulled open.

        t delta / (3 pi R^2)

    Args:
        thickness: t through the bend [mm].
        radius: R of the centre-line [mm].
        opened: delta, by which the gap grows [mm].

    Returns:
        Strain, as a ratio.

    Example:
        >>> round(100 * opening_strain(2.0, 29.0, 20.0), 2)
        0.5

    Source: deflection of a split ring by Castigliano's theorem; published in statics textbooks.
    """
    return thickness * opened / (3 * math.pi * radius**2)


def elastic_opening(thickness: float, radius: float, yield_mpa: float, youngs: float) -> float:
    """Return how far a split ring can be pulled open before it takes a set.

    Args:
        thickness: t through the bend [mm].
        radius: R of the centre-line [mm].
        yield_mpa: sigma [MPa].
        youngs: E [MPa].

    Returns:
        Opening [mm]: where ``opening_strain`` reaches sigma / E.

    Example:
        >>> round(elastic_opening(2.0, 29.0, 210.0, 117000.0), 1)
        7.1

    Source: ``opening_strain`` solved the other way.
    """
    return yield_mpa / youngs * 3 * math.pi * radius**2 / thickness

"""Rolled, forged and flattened wire: metal is moved, none is lost."""

import math

from jamreel.core.wire.sections import Flat, Section


def worked_length(length: float, before: float, after: float) -> float:
    """Return how long wire gets when its section is rolled or forged, L0 A0 / A1.

    Args:
        length: L0 before [mm].
        before: area A0 of the section [mm2].
        after: area A1 that it is worked to [mm2].

    Returns:
        Length [mm].

    Example:
        A bar of 3.0 round, 175 long, rolled to 1.9 by 3.5 with round edges.

        >>> strip = Flat(width=3.5, thickness=1.9)
        >>> round(worked_length(175, math.pi * 3.0**2 / 4, strip.area), 1)
        210.5

    Source: metal keeps its volume; published, any text on metal forming.
    """
    return length * before / after


def length_to_work(length: float, before: float, after: float) -> float:
    """Return the length to start from so that it comes to a length; ``worked_length`` the other
    way round.

    Args:
        length: L1 that is wanted [mm].
        before: area A0 of what is there [mm2].
        after: area A1 that it is worked to [mm2].

    Returns:
        Length [mm].

    Example:
        >>> round(length_to_work(210.5, math.pi * 3.0**2 / 4, 5.8753), 1)
        175.0

    Source: metal keeps its volume; published.
    """
    return length * after / before


def widest(area: float, thickness: float) -> float:
    """Return the widest that a bar is forged to at a thickness: nothing goes into its length.

        (A0 - pi t^2 / 4) / t + t, edges round

    Args:
        area: A0 of the bar [mm2].
        thickness: t that it is forged to [mm], thinner than the bar.

    Returns:
        Width [mm].

    Example:
        >>> round(widest(math.pi * 2.0**2 / 4, 0.9), 2), round(widest(math.pi, 0.7), 2)
        (3.68, 4.64)

    Source: metal keeps its volume; published.
    """
    return (area - math.pi * thickness**2 / 4) / thickness + thickness


def paddle_stock(
    bar: float,
    width: float,
    thickness: float,
    length: float,
    taper: float = 0.0,
    strip: Flat | None = None,
) -> float:
    """Return how much of a round bar a paddle at its end takes.

        (l A1 + taper mean) / A0, of widths times thicknesses less their round edges:
        mean = w0 t0 + (w0 dt + t0 dw) / 2 + dw dt / 3 + (pi / 4 - 1) (t0^2 + t0 dt + dt^2 / 3)

    Args:
        bar: d0 of the bar [mm].
        width: w of the paddle [mm], as measured on a sample: no sum says it.
        thickness: t of the paddle [mm], its edges round.
        length: l of the paddle [mm].
        taper: how far it goes over into the bar, or the strip [mm].
        strip: that the bar is rolled to first, None where the bar itself is hammered.

    Returns:
        Length of bar [mm].

    Example:
        >>> round(paddle_stock(2.0, 4.0, 0.7, 8.0, 5.0), 2), round(paddle_stock(2, 4, 0.7, 8), 2)
        (12.29, 6.86)

    Source: metal keeps its volume, the taper taken straight; plain geometry.
    """
    w, t = (strip.width, strip.thickness) if strip else (bar, bar)
    dw, dt = width - w, thickness - t
    edges = (math.pi / 4 - 1) * (t * t + t * dt + dt * dt / 3)
    mean = w * t + (w * dt + t * dw) / 2 + dw * dt / 3 + edges
    paddle = Flat(width=width, thickness=thickness).area
    return (length * paddle + taper * mean) / (math.pi * bar**2 / 4)


def worked_strain(before: float, after: float) -> float:
    """Return the true strain of rolling or drawing, ln(A0 / A1).

    Args:
        before: area A0 [mm2].
        after: area A1 [mm2].

    Returns:
        Strain, 0 where nothing is worked.

    Example:
        >>> round(worked_strain(7.0686, 5.8753), 3)
        0.185

    Source: true strain at constant volume; published, any text on metal forming.
    """
    return abs(math.log(before / after))


def passes_of(strain: float, each: float) -> int:
    """Return how many times wire goes through the mill.

    Args:
        strain: true strain in all.
        each: that one pass gives.

    Returns:
        Passes, one at least where anything is worked.

    Example:
        >>> passes_of(0.456, 0.1)
        5

    Source: plain counting.
    """
    return 0 if strain <= 0 else max(1, math.ceil(strain / each - 1e-9))


def cup_blank(ball: float, deep: float) -> float:
    """Return the round blank that is domed to a cup, 2 sqrt(D h).

    Args:
        ball: D of the ball that it is domed round [mm].
        deep: h, depth of the cup [mm].

    Returns:
        Diameter of the flat blank [mm]: as much face as the cup has.

    Example:
        >>> round(cup_blank(6.0, 1.2), 2)
        5.37

    Source: area of a spherical cap, pi D h; published. The sheet is taken to keep its thickness.
    """
    return 2 * math.sqrt(ball * deep)


def hull_perimeter(section: Section) -> float:
    """Return the perimeter of what goes into a tube, 2 (w - t) + pi t with rounded edges.

    Args:
        section: of what goes in; one with sharp edges counts with its corners.

    Returns:
        Perimeter [mm].

    Example:
        >>> round(hull_perimeter(Flat(width=12, thickness=2)), 2)
        26.28

    Source: plain geometry.
    """
    w, t = section.width, section.thickness
    if isinstance(section, Flat) and section.edges == "sharp":
        return 2 * (w + t)
    return 2 * (w - t) + math.pi * t


def bore_for(section: Section, clear: float) -> float:
    """Return the least bore of a round tube that is pressed over something, (P + 2 pi c) / pi.

    Args:
        section: of what goes in.
        clear: c, between the two on each side [mm].

    Returns:
        Inner diameter [mm]: a tube keeps its inner perimeter.

    Example:
        >>> round(bore_for(Flat(width=10, thickness=2.4), 0.1), 2)
        7.44

    Source: plain geometry.
    """
    return hull_perimeter(section) / math.pi + 2 * clear


def tube_stretch(inner: float, perimeter: float) -> float:
    """Return by how much a round tube has to be stretched to go over something, P / (pi D) - 1.

    A tube that is flattened keeps its inner perimeter.

    Args:
        inner: D of the round tube [mm].
        perimeter: P of what goes in [mm].

    Returns:
        Stretch as a ratio, 0 where it goes in as it is.

    Example:
        >>> round(100 * tube_stretch(9.5, hull_perimeter(Flat(width=14, thickness=2))), 1)
        1.5

    Source: plain geometry.
    """
    return max(0.0, perimeter / (math.pi * inner) - 1)

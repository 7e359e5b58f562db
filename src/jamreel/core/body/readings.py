"""From readings to a girth with its uncertainty."""

import math
from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from jamreel.core.body.facts import Percentile, methods, populations, sites
from jamreel.core.errors import Refusal, Refusals
from jamreel.core.units import Mm
from jamreel.core.values import Frozen, Millimetres, OptionalLength, Written, refused

MethodId = Literal["tape", "paper", "string", "wire", "strap", "piece", "calliper", "rule"]


def _known_site(site: str) -> str:
    if site not in sites():
        raise refused(Refusal("site", got=site, known=", ".join(sites())))
    return site


SiteId = Annotated[str, AfterValidator(_known_site)]


# So many characters say how somebody held still.
MOST_POSTURE = 40


class Reading(Frozen):
    """One reading as taken. A blank value is a slot not yet used.

    ``thickness`` is the strap's, string's or wire's own; ``ease`` is what the wearer calls right
    in a piece that already fits (method ``piece``, whose inside girth is the value).
    ``taken`` is date and hour as ISO text, ``posture`` how it was held ("fist", "arm hanging").

    All that is kept, sent, shown or exported of a reading follows from these fields.
    """

    value: OptionalLength = None
    method: MethodId = "tape"
    thickness: OptionalLength = None
    ease: OptionalLength = None
    taken: str | None = None
    posture: Annotated[str, Field(max_length=MOST_POSTURE)] | None = None

    @classmethod
    def lengths(cls) -> tuple[str, ...]:
        """Return the names of the fields that are lengths, in order."""
        fields = cls.model_fields.items()
        return tuple(name for name, field in fields if field.annotation == LENGTH)


# What a field of a length is annotated as, once its reader is off.
LENGTH = float | None


class Guess(Frozen):
    """No reading at hand: a population's range and the percentile taken from it."""

    population: str
    percentile: Percentile = 50


class Measure(Frozen):
    """What is known of one site: up to three readings, or a guess until there is one."""

    readings: tuple[Reading, ...] = Field(default=(), max_length=3)
    guess: Guess | None = None


class BodyMeasure(Written):
    """A measure of the body (mostly a girth) found from readings, or guessed.

    ``plus_minus_mm`` is at coverage factor 2.
    """

    site: SiteId
    value_mm: Millimetres
    plus_minus_mm: Millimetres
    spread_mm: Millimetres
    standard_error_mm: Millimetres | None
    count: int
    corrections_mm: tuple[Millimetres, ...]
    guessed: bool
    ask_another: bool
    source: str | None = None


def strap_correction(thickness: float, along: Literal["none", "middle", "outside"]) -> float:
    """Return what a strap of some thickness over-reads a girth by.

        pi t along its middle, 2 pi t along its outside

    Args:
        thickness: of strap, string, wire or paper [mm], not negative.
        along: where the reading was taken; ``none`` for a tape read at the skin.

    Returns:
        Over-reading [mm], to be taken off.

    Example:
        >>> round(strap_correction(2.0, "outside"), 2)
        12.57

    Source: Steiner's formula for parallel curves; published.
    """
    return {"none": 0.0, "middle": math.pi, "outside": 2 * math.pi}[along] * thickness


def spread_limit(mean: float, floor: float = 0.0) -> float:
    """Return the spread above which another reading is asked for: the lesser of 3 mm and 2 %.

    Args:
        mean: of the readings [mm].
        floor: the least spread worth asking for at this site [mm]; 2 % of an ear is nothing.

    Returns:
        Limit on max - min [mm].

    Example:
        >>> spread_limit(120.0), spread_limit(205.0)
        (2.4, 3.0)

    Source: common practice.
    """
    return max(floor, min(3.0, 0.02 * mean))


# Beyond this many limits apart, readings contradict each other and no mean of them is honest.
CONTRADICTION = 3.0


def expanded_uncertainty(values: Sequence[float], method_sd: float) -> float:
    """Return the expanded uncertainty of the mean of a few readings.

        2 * max(s / sqrt(n), sd / sqrt(n))

    Two or three readings that happen to agree say little about the method, so its own standard
    deviation is the floor.

    Args:
        values: readings [mm], at least one.
        method_sd: how far one careful reading strays [mm].

    Returns:
        Half-width [mm] at coverage factor 2.

    Example:
        >>> expanded_uncertainty([158.0], 1.0)
        2.0

    Source: JCGM 100 (GUM) 4.2.3 and 6.2.1, published; the floor is common practice.
    """
    return 2 * max(standard_error(values) or 0.0, method_sd / math.sqrt(len(values)))


def standard_error(values: Sequence[float]) -> float | None:
    """Return the standard error of the mean [mm], or None for a single reading.

        s / sqrt(n), s with n - 1

    Args:
        values: readings [mm], at least one.

    Example:
        >>> round(standard_error([205.0, 204.0, 206.0]), 4)
        0.5774

    Source: JCGM 100 (GUM) 4.2.3; published.
    """
    n = len(values)
    if n < 2:
        return None
    mean = sum(values) / n
    return math.sqrt(sum((v - mean) ** 2 for v in values) / (n - 1) / n)


def girth_at(site: SiteId, measure: Measure | None) -> BodyMeasure:
    """Return the girth at a site, from its readings or, when there are none, its guess.

    Raises:
        Refusals: nothing to go by, readings outside the site's range, or readings that
            contradict each other.
    """
    field = f"measures.{site}"
    if site not in sites():
        raise Refusals([Refusal("site", got=site, field=field, known=", ".join(sites()))])
    taken = [
        (i, r) for i, r in enumerate(measure.readings if measure else ()) if r.value is not None
    ]
    if not taken:
        if measure and measure.guess:
            return _guessed(site, measure.guess, field)
        raise Refusals([Refusal("no_reading", got=None, field=field)])
    corrected: list[float] = []
    wrong: list[Refusal] = []
    for index, reading in taken:
        try:
            corrected.append(_corrected(site, reading))
        except Refusal as refusal:
            wrong.append(refusal.at(f"{field}.readings.{index}.value"))
    if wrong:
        raise Refusals(wrong)
    return _averaged(site, [r for _, r in taken], corrected, field)


def _corrected(site: SiteId, reading: Reading) -> float:
    assert reading.value is not None  # blank slots were dropped by the caller
    method = methods()[reading.method]
    thickness = method.thickness if reading.thickness is None else reading.thickness
    # Over a part of the body a strap over-reads next to nothing; round it, by its thickness.
    round_it = sites()[site].kind == "girth"
    girth = reading.value - (strap_correction(thickness, method.along) if round_it else 0.0)
    if method.needs_ease:
        if reading.ease is None:
            raise Refusal("piece_without_ease", got=None)
        girth -= reading.ease
    limits = sites()[site]
    if not limits.low <= girth <= limits.high:
        # The commonest slips, the likeliest first: a slipped point, centimetres written as mm,
        # inches, a digit too many, the first digit lost.
        slips = (girth * 10, girth * 25.4, girth / 10, girth + 100)
        likely = next((s for s in slips if limits.low * 1.4 <= s <= limits.high * 0.95), None)
        raise Refusal(
            "girth_range_guess" if likely else "girth_range",
            got=Mm(girth),
            low=limits.low,
            high=limits.high,
            likely=likely,
        )
    return girth


def _averaged(
    site: SiteId, readings: list[Reading], values: list[float], field: str
) -> BodyMeasure:
    mean = sum(values) / len(values)
    spread = max(values) - min(values)
    place = sites()[site]
    limit = spread_limit(mean, place.floor)
    if spread > CONTRADICTION * limit:
        raise Refusals(
            [
                Refusal(
                    "readings_apart" if len(values) < 3 else "readings_outlier",
                    got=" / ".join(f"{v:g}" for v in values),
                    field=field,
                    spread=spread,
                    limit=limit,
                    odd=max(values, key=lambda v: abs(v - sorted(values)[len(values) // 2])),
                )
            ]
        )
    sd = max(methods()[r.method].sd for r in readings)
    sd = min(sd, place.sd or sd)
    return BodyMeasure(
        site=site,
        value_mm=mean,
        plus_minus_mm=expanded_uncertainty(values, sd),
        spread_mm=spread,
        standard_error_mm=standard_error(values),
        count=len(values),
        corrections_mm=tuple(v - (r.value or 0.0) for v, r in zip(values, readings, strict=True)),
        guessed=False,
        ask_another=spread > limit,
    )


def _guessed(site: SiteId, guess: Guess, field: str) -> BodyMeasure:
    row = populations().get(guess.population)
    if row is None or row.site != site:
        known = ", ".join(key for key, r in populations().items() if r.site == site)
        raise Refusals(
            [Refusal("population", got=guess.population, field=f"{field}.guess", known=known)]
        )
    return BodyMeasure(
        site=site,
        value_mm=row.at(guess.percentile),
        plus_minus_mm=row.plus_minus,
        spread_mm=0.0,
        standard_error_mm=None,
        count=0,
        corrections_mm=(),
        guessed=True,
        ask_another=True,
        source=row.source,
    )

"""Is the measure good enough to cut by?"""

from jamreel.core.advice import Advice, advise
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.words import say


def about_girth(girth: BodyMeasure) -> Advice | None:
    """Return what there is to say of one girth: guessed, readings apart, or only one."""
    field, site = f"measures.{girth.site}", say(f"site.{girth.site}")
    if girth.guessed:
        return advise(
            "guessed", "check", field, site=site, value=girth.value_mm, pm=girth.plus_minus_mm
        )
    if girth.ask_another:
        return advise(
            "another_reading", "check", field, site=site, spread=girth.spread_mm, most=3.0
        )
    if girth.count == 1:
        return advise("one_reading", "note", field, site=site, pm=girth.plus_minus_mm)
    return None


def measure_limits(girth: BodyMeasure, word_step: float) -> Advice | None:
    """Return a warning when the measure is vaguer than half the step between two ease words.

    Args:
        girth: the girth that the ease is added to.
        word_step: from one ease word to the next [mm].

    Source: common practice.
    """
    if girth.guessed or girth.plus_minus_mm <= word_step / 2:
        return None
    return advise(
        "measure_limits",
        "check",
        f"measures.{girth.site}",
        site=say(f"site.{girth.site}"),
        pm=girth.plus_minus_mm,
        step=word_step,
    )

"""What was made differently from the plan."""

from jamreel.core.advice import Advice, advise

# A cut within this of the plan is as good as the plan: what a flush cut varies by [mm].
AS_CUT_TOLERANCE_MM = 0.5


def cut_differs(actual: float | None, planned: float) -> Advice | None:
    """Return a warning when a wire was cut shorter or longer than planned.

    Args:
        actual: as measured [mm], or None before the cut.
        planned: [mm].

    Source: common practice.
    """
    if actual is None or abs(actual - planned) <= AS_CUT_TOLERANCE_MM:
        return None
    return advise(
        "cut_shorter" if actual < planned else "cut_longer",
        "check",
        "cut",
        actual=actual,
        planned=planned,
        off=abs(actual - planned),
    )

"""What a maker notes at a try-on, and what a plan answers to it."""

from pydantic import Field

from jamreel.core.errors import Refusal
from jamreel.core.units import Mm
from jamreel.core.values import Frozen, OptionalLength


class TryOn(Frozen):
    """A try-on as noted. Everything may be left out; what is left out is not judged.

    Each construction asks for what it can answer to. ``fall`` is where the front fell, below the
    shoulder points.
    """

    passes_hand: bool | None = None
    goes_on: bool | None = None
    finger_under: bool | None = None
    stays_on: bool | None = None
    comfortable: bool | None = None
    open_inside_girth: OptionalLength = None
    inside_girth: OptionalLength = None
    overlap: OptionalLength = None
    gap: OptionalLength = None
    fall: OptionalLength = None
    note: str = Field(default="", max_length=500)

    @property
    def says_nothing(self) -> bool:
        """True when there is nothing to judge by."""
        return not self.model_dump(exclude_none=True, exclude={"note"})


def possible(tryon: TryOn | None, inside: float, finished: float) -> None:
    """Refuse a reading that can't have been taken on the piece: a slip of the hand.

    Args:
        tryon: as noted.
        inside: inside girth as planned, or the finished length where there is none [mm].
        finished: length as planned [mm].

    Raises:
        Refusal: an inside girth under half or over twice the plan's, ends further apart or over
            each other than the whole is round, a front that fell further than half its length.

    Source: half and twice: common practice, no source; the rest is plain geometry.
    """
    if tryon is None:
        return
    limits = {
        "inside_girth": (inside / 2, 2 * inside, inside),
        "open_inside_girth": (inside / 2, 2 * inside, inside),
        "overlap": (0.0, inside, inside),
        "gap": (0.0, inside, inside),
        "fall": (0.0, finished / 2, finished),
    }
    for name, (low, high, planned) in limits.items():
        read = getattr(tryon, name)
        if read is not None and not low <= read <= high:
            raise Refusal(
                "tryon_far",
                got=Mm(read),
                field=f"tryon.{name}",
                low=low,
                high=high,
                planned=planned,
            )


class Change(Frozen):
    """A figure before and after the correction [mm]."""

    label: str
    before_mm: float
    after_mm: float


class PuttingRight(Frozen):
    """What to do about a fit: verdict, one amount to act on, the doing, and what changes.

    ``amount_mm`` is the one figure to act on, ``amount_label`` what to do with it; ``snip_mm`` is
    what comes off the end, loop included.
    """

    verdict: str
    settled: bool
    says: str
    because: str
    amount_mm: float | None = None
    amount_label: str | None = None
    snip_mm: float | None = None
    changes: tuple[Change, ...] = ()

"""What a maker notes at a try-on, and what a plan answers to it."""

from pydantic import Field

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

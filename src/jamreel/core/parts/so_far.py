"""What of an entry is made already, so that the rest is planned from there."""

from typing import Literal

from pydantic import Field

from jamreel.core.values import Frozen, Length, OptionalCount, OptionalLength

MOST_DONE = 1000
Happened = Literal["going_on", "ran_out", "broke", "lost_count"]


class SoFar(Frozen):
    """So many rows, parts or repeats of an entry are made, over so long [mm].

    Of the working wire in hand so much is ``left`` [mm], and so much of it went into the rows that
    were ``begun`` behind so many others; None where nobody read it.
    """

    count: int = Field(ge=1, le=MOST_DONE)
    over: Length
    left: OptionalLength = None
    took: OptionalLength = None
    begun: int = Field(default=0, ge=0, le=MOST_DONE)

    @property
    def each(self) -> float:
        """How long one of them is as it was made [mm]."""
        return self.over / self.count


class ToldSoFar(Frozen):
    """What a maker tells on the way: of which entry so many are made, over so long [mm], what is
    left of the wire in hand [mm], and what happened. A count that was lost is left out, and so is
    what is left of a wire that ran out. So many are to be made ``in_all``, blank for as many as the
    length wants."""

    entry: str = Field(max_length=16)
    count: OptionalCount = None
    over: Length
    left: OptionalLength = None
    happened: Happened = "going_on"
    in_all: OptionalCount = None

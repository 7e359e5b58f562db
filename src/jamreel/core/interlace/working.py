"""Long working wires: how many rows one of them goes, where the next one joins, what a sample
tells."""

import math
from dataclasses import dataclass, replace
from itertools import accumulate

from jamreel.core.errors import Refusal
from jamreel.core.parts.so_far import SoFar
from jamreel.core.units import Mm

# Held in the hand at the start and left to grip at the end [mm]; turns with which both are made
# fast. Common practice.
START_MM, FINISH_MM, FAST_TURNS = 25.0, 5.0, 3
# A sample further from the sum than this is a slip of the count or of the reading.
LEAST_TIGHT, MOST_TIGHT = 0.7, 1.8
# Rows counted closer than this share of what fits side by side can't be.
LEAST_PITCH = 0.75


@dataclass(frozen=True)
class Share:
    """What one working wire goes: from which row on (0 is the first), how many rows, and its
    length over them without tails [mm]."""

    first: int
    rows: int
    takes: float


def shared_out(takes: tuple[float, ...], tails: float, longest: float) -> tuple[Share, ...]:
    """Return how the rows of a body are shared out to working wires, whole rows each.

    As few wires as can be, as alike as can be: a join falls where a row ends.

    Args:
        takes: wire of every row [mm].
        tails: of each wire, both together [mm].
        longest: that the maker handles [mm]; a row that is longer gets a wire of its own.

    Example:
        >>> [share.rows for share in shared_out((82.85,) * 37, 60.0, 1500.0)]
        [13, 12, 12]

    Source: plain counting.
    """
    room = max(longest - tails, 1e-9)
    wires = max(1, math.ceil(sum(takes) / room - 1e-9))
    while True:
        shares = _cut_up(takes, min(wires, len(takes)))
        if wires >= len(takes) or max(share.takes for share in shares) <= room + 1e-9:
            return shares
        wires += 1


def _cut_up(takes: tuple[float, ...], wires: int) -> tuple[Share, ...]:
    each, more = divmod(len(takes), wires)
    counts = [each + (n < more) for n in range(wires)]
    starts = [0, *accumulate(counts)]
    return tuple(
        Share(start, rows, sum(takes[start : start + rows]))
        for start, rows in zip(starts, counts, strict=False)
    )


def going_on(
    takes: tuple[float, ...], tails: tuple[float, float], longest: float, done: SoFar
) -> tuple[Share, ...]:
    """Return how rows are shared out where some are woven: the wires used up, the one in hand as
    far as it goes, and new ones for the rest.

    Args:
        takes: wire of every row [mm].
        tails: of each wire, at its start and at its end [mm].
        longest: that the maker handles [mm].
        done: so many rows, and what is left of the wire in hand.

    Raises:
        Refusal: more or less wire in the rows than any hand takes.

    Source: plain counting; new wires are cut by what this hand took.
    """
    begun, upto = min(done.begun, len(takes)), min(done.count, len(takes))
    before = shared_out(takes[:begun], sum(tails), longest) if begun else ()
    woven = sum(takes[begun:upto])
    ratio = done.took / woven if done.took is not None and woven > 0 else 1.0
    left = done.left or 0.0
    if not LEAST_TIGHT <= ratio <= MOST_TIGHT:
        likely = max(0.0, left + (done.took or 0.0) - woven)
        raise Refusal("so_far_left", got=Mm(left), field="so_far.left", likely=likely)
    rest = tuple(ratio * one for one in takes[upto:])
    rows = min(rows_of(left, rest, tails[1])[0], len(rest)) if rest else 0
    known = done.took is not None
    cut = (done.took or 0.0) + left - tails[1] if known else woven + sum(rest[:rows])
    share = Share(begun, upto - begun + rows, cut)
    new = shared_out(rest[rows:], sum(tails), longest) if rest[rows:] else ()
    return (*before, share, *(replace(one, first=one.first + upto + rows) for one in new))


def rows_of(wire: float, takes: tuple[float, ...], tails: float) -> tuple[int, float]:
    """Return how far a working wire goes: whole rows, and what is left of it [mm].

    Args:
        wire: its length [mm].
        takes: wire of a row, by turns [mm].
        tails: both together [mm].

    Example:
        >>> rows_of(1500.0, (82.85,), 60.0)[0], round(rows_of(1500.0, (82.85,), 60.0)[1], 2)
        (17, 31.55)

    Source: plain counting.
    """
    left, rows = wire - tails, 0
    while takes and left >= takes[rows % len(takes)]:
        left -= takes[rows % len(takes)]
        rows += 1
    return rows, max(left, 0.0)


@dataclass(frozen=True)
class Sample:
    """A piece that the maker wove: so many rows over a length, and the wire that went into them
    [mm], None where that was not read."""

    rows: int
    over: float
    wire: float | None

    @property
    def pitch(self) -> float:
        """How far a row goes on [mm]."""
        return self.over / self.rows

    def pitch_beside(self, usual: float) -> float:
        """Return the pitch that it tells of.

        Args:
            usual: at which rows lie side by side [mm].

        Raises:
            Refusal: more rows than fit.
        """
        if self.pitch < LEAST_PITCH * usual:
            most = math.floor(self.over / (LEAST_PITCH * usual))
            raise Refusal("sample_rows", got=self.rows, field="sample_rows", most=most)
        return self.pitch

    def tightness(self, takes: float, firm: float = 0.0) -> float:
        """Return wire used over wire computed.

        Args:
            takes: wire of one row by the sum [mm].
            firm: as much of that as is the same in every hand [mm].

        Raises:
            Refusal: a ratio that no hand has.
        """
        if self.wire is None:
            return 1.0
        ratio = self.wire / (self.rows * takes)
        # A braid can't take less wire than it is long, however firmly it is pulled.
        if not LEAST_TIGHT <= ratio <= MOST_TIGHT or ratio * takes <= firm:
            likely = self.rows * takes
            raise Refusal("sample_woven", got=Mm(self.wire), field="sample_took", likely=likely)
        return (ratio * takes - firm) / (takes - firm)

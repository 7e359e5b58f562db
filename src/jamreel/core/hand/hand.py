"""A maker's hand: what was seen of it by technique and class of wire, and the pace of its work."""

from functools import cached_property

from pydantic import Field

from jamreel.core.hand.belief import Belief, Seen, believe
from jamreel.core.values import Frozen

# What the same technique in other wire of the same metal counts; from memory.
NEAR_COUNTS = 0.5
MOST_LINES = 2000


class HandLine(Frozen):
    """What was seen of a technique in all wire that goes by a ``stock`` key: how many ratios, their
    mean, and the sum of squares about it."""

    technique: str = Field(min_length=1, max_length=60)
    stock: str = Field(default="", max_length=120)
    n: int = Field(ge=1, le=10_000_000)
    mean: float = Field(gt=0, lt=100)
    squares: float = Field(default=0.0, ge=0, lt=1e12)

    @property
    def seen(self) -> Seen:
        """It in short."""
        return Seen(float(self.n), self.mean, self.squares)


class OnRecord(Frozen):
    """What is known of a technique in some wire: how many records of that wire, and how many of the
    same metal in other sizes, which count half."""

    own: int
    near: int
    mean: float
    squares: float

    @property
    def seen(self) -> Seen:
        """It in short, each record with its weight."""
        return Seen(self.own + NEAR_COUNTS * self.near, self.mean, self.squares)

    @property
    def belief(self) -> Belief:
        """What is believed of the next one."""
        return believe(self.seen)


class Hand(Frozen):
    """All that is known of a maker's hand: ``lines`` of wire taken, ``pace`` of minutes, by kind of
    work; both as ratios to what is usual."""

    lines: tuple[HandLine, ...] = Field(default=(), max_length=MOST_LINES)
    pace: tuple[HandLine, ...] = Field(default=(), max_length=MOST_LINES)

    @cached_property
    def _by_technique(self) -> dict[str, tuple[HandLine, ...]]:
        found: dict[str, tuple[HandLine, ...]] = {}
        for line in self.lines:
            found[line.technique] = (*found.get(line.technique, ()), line)
        return found

    def of(self, technique: str, stock: str) -> OnRecord:
        """Return what is known of a technique in a wire.

        Args:
            technique: how wire is worked.
            stock: the wire's key.

        Source: records of another size of the same metal count half; from memory.
        """
        own, near, every = 0, 0, Seen()
        for line in self._by_technique.get(technique, ()):
            if line.stock == stock:
                own, every = own + line.n, every + line.seen
            elif near_class(line.stock, stock):
                near, every = near + line.n, every + line.seen.weighing(NEAR_COUNTS)
        return OnRecord(own=own, near=near, mean=every.mean, squares=every.squares)

    @cached_property
    def _paces(self) -> dict[str, tuple[float, int]]:
        return {line.technique: (believe(line.seen).mean, line.n) for line in self.pace}

    def of_work(self, work: str) -> OnRecord:
        """Return what is known of the minutes of a kind of work, the key of its step."""
        line = next((one for one in self.pace if one.technique == work), None)
        if line is None:
            return OnRecord(own=0, near=0, mean=1.0, squares=0.0)
        return OnRecord(own=line.n, near=0, mean=line.mean, squares=line.squares)

    def pace_of(self, work: str) -> tuple[float, int]:
        """Return how many times as long as most hands this one takes for a kind of work, and how
        many records say so.

        Args:
            work: kind of work, the key of its step.

        Source: the mean of ``believe``; common practice, no source.
        """
        return self._paces.get(work, (1.0, 0))


# A hand of which nothing is known.
NEW_HAND = Hand()


def near_class(one: str, other: str) -> bool:
    """Return whether two wires are of near classes: the same metal and section, in another size or
    temper.

    Args:
        one: a wire's key (``forming.chosen.stock_key``).
        other: another's.

    Example:
        >>> near_class("copper/soft/round/1.00x1.00", "copper/soft/round/0.80x0.80")
        True
        >>> near_class("copper/soft/round/1.00x1.00", "brass/soft/round/1.00x1.00")
        False

    Source: common practice, no source.
    """
    a, b = one.split("/"), other.split("/")
    return one != other and len(a) == len(b) == 4 and (a[0], a[2]) == (b[0], b[2])

"""Filling one piece of wire as well as the cuts at hand allow."""

from collections.abc import Callable, Sequence

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.float64]
# Sums that are kept at once: 25 MB of them.
MOST_BITS = 200_000_000
# Takes every possible use of a piece [tenths], gives what each is worth.
Worth = Callable[[Floats], Floats]


def fullest(
    takes: Sequence[int], counts: Sequence[int], room: int, worth: Worth
) -> tuple[int, ...] | None:
    """Return how many of each length to take off one piece of wire.

    Args:
        takes: length of each kind of cut, the longest first [tenths].
        counts: how many of each are wanted.
        room: length of the piece [tenths].
        worth: of using so many tenths of it; the greatest is taken.

    Returns:
        Counts, long cuts before short ones where both would do; None where nothing is worth it.

    Example:
        >>> fullest([70, 60, 40, 30], [1, 1, 1, 1], 100, lambda used: used)
        (1, 0, 0, 1)

    Source: subset sums, every sum that can be reached as a bit of one number; where those would be
        too many, longest first.
    """
    items = [
        (kind, many)
        for kind in reversed(range(len(takes)))
        for many in powers(min(counts[kind], room // takes[kind]))
    ]
    if not items:
        return None
    if len(items) * room > MOST_BITS:
        return _longest_first(takes, counts, room, worth)
    within = (1 << (room + 1)) - 1
    stages, reached = [], 1
    for kind, many in items:
        stages.append(reached)
        reached |= (reached << (many * takes[kind])) & within
    packed = np.frombuffer(reached.to_bytes(room // 8 + 1, "little"), dtype=np.uint8)
    sums = np.flatnonzero(np.unpackbits(packed, bitorder="little"))
    worths = worth(sums.astype(float))
    best = int(np.argmax(worths))
    at = int(sums[best])
    if at == 0 or worths[best] <= 0:
        return None
    found = [0] * len(takes)
    for (kind, many), before in zip(reversed(items), reversed(stages), strict=True):
        length = many * takes[kind]
        if length <= at and before >> (at - length) & 1:
            found[kind] += many
            at -= length
    return tuple(found)


def _longest_first(
    takes: Sequence[int], counts: Sequence[int], room: int, worth: Worth
) -> tuple[int, ...] | None:
    found, left = [], room
    for take, count in zip(takes, counts, strict=True):
        found.append(min(count, left // take))
        left -= found[-1] * take
    used = room - left
    return tuple(found) if used and worth(np.array([float(used)]))[0] > 0 else None


def powers(count: int) -> list[int]:
    """Return numbers whose sums give every number up to a count.

    Example:
        >>> powers(10)
        [1, 2, 4, 3]
    """
    parts, power = [], 1
    while count > 0:
        parts.append(min(power, count))
        count -= parts[-1]
        power *= 2
    return parts

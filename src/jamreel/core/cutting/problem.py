"""What is to be cut from what, in whole tenths, and what a plan of it weighs."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from jamreel.core.cutting.columns import Class
from jamreel.core.errors import Refusal
from jamreel.core.units import Mm
from jamreel.core.values import Frozen

StockKind = Literal["offcut", "length", "reel", "buy"]
# What a millimetre weighs by where it comes from, in hundredths; common practice, no source.
WEIGHT: dict[StockKind, int] = {"offcut": 40, "length": 90, "reel": 100, "buy": 100}
# What is bought is paid whole, whatever is cut from it: a millimetre of its length weighs this
# besides, so that nothing on the rack is spared by buying more.
BOUGHT = 250
# What opening a piece weighs: half a millimetre of reel wire.
OPEN = 500
# Lengths are solved in tenths of a millimetre: finer than any hand cuts.
TENTHS = 10
ORDER: tuple[StockKind, ...] = ("offcut", "length", "reel", "buy")
# A tenth that is not cut weighs more than any wire that could be opened for it.
MISSING = 20_000
# A cut that is left out weighs so many times what buying for it would.
WORTH_BUYING = 2
# Pieces of one wire that a plan is sought on: nobody hunts through more.
MOST_RACKS = 200

# How many of each length come off each piece of wire.
Plan = list[list[int]]


class Wanted(Frozen):
    """A length to cut [mm], so many of it."""

    id: str
    length: float
    quantity: int = 1


class Rack(Frozen):
    """A piece of wire to cut from [mm]."""

    id: str
    kind: StockKind
    length: float


def is_reel(rack: Rack) -> bool:
    """Return whether a piece is a reel, of which nothing is scrap."""
    return rack.kind == "reel"


@dataclass(frozen=True)
class Problem:
    """Kinds of cut by length, pieces of wire, the keep-length and the kerf, all in tenths.

    A room is never more than all cuts together could need: how much longer a reel is tells nothing
    about how to cut it.
    """

    lengths: list[int]
    counts: list[int]
    ids: list[list[str]]
    racks: list[Rack]
    rooms: list[int]
    keep: int
    kerf: int

    @property
    def takes(self) -> list[int]:
        """Return what each kind of cut takes, kerf included."""
        return [length + self.kerf for length in self.lengths]

    def used(self, row: Sequence[int]) -> int:
        """Return what some cuts take of one piece."""
        return sum(n * take for n, take in zip(row, self.takes, strict=True))

    def scrap(self, b: int, left: int) -> int:
        """Return how much of a remnant is scrap."""
        return 0 if is_reel(self.racks[b]) or left >= self.keep else left

    def opening(self, b: int) -> int:
        """Return what it weighs to open a piece: all of its length where it has to be bought."""
        rack = self.racks[b]
        return OPEN + (BOUGHT * _tenths(rack) if rack.kind == "buy" else 0)

    @property
    def leaving_out(self) -> int:
        """Return what a tenth weighs that is not cut: more than buying for it would."""
        dearest = max((self.opening(b) for b in range(len(self.racks))), default=0)
        shortest = min(self.takes, default=1)
        return max(MISSING, WORTH_BUYING * math.ceil(dearest / shortest))

    def weighs(self, b: int, row: Sequence[int]) -> int:
        """Return what it weighs to take some cuts off one piece."""
        used = self.used(row)
        if used == 0:
            return 0
        scrap = self.scrap(b, self.rooms[b] - used)
        return self.opening(b) + WEIGHT[self.racks[b].kind] * (used + scrap)

    def missing(self, plan: Plan) -> list[int]:
        """Return how many of each length a plan leaves out."""
        return [count - sum(row[k] for row in plan) for k, count in enumerate(self.counts)]

    def weight(self, plan: Plan) -> int:
        """Return what a plan weighs: used and scrapped wire by where it lies, what is missing."""
        total = sum(self.weighs(b, row) for b, row in enumerate(plan))
        return total + self.leaving_out * self.used(self.missing(plan))

    def least(self) -> int:
        """Return what the wire alone weighs, were nothing scrapped and the lightest taken first.

        Opening a piece counts by the share of it that is used, or once in all, with as many that
        are bought as the wanted wire takes beyond the rack: no plan opens for less.
        """
        pieces = [b for b, room in enumerate(self.rooms) if room]
        rates = [(float(WEIGHT[self.racks[b].kind]), self.rooms[b]) for b in pieces]
        shares = [
            (rate + self.opening(b) / room, room)
            for b, (rate, room) in zip(pieces, rates, strict=True)
        ]
        once = self._bought() + (OPEN if rates and self.counts else 0)
        return math.ceil(max(self._lightest(shares), once + self._lightest(rates)) - 1e-6)

    def _bought(self) -> int:
        """Return what has to be bought weighs at least, where the rack is too short for it all."""
        pieces = list(zip(self.racks, self.rooms, strict=True))
        there = sum(room for rack, room in pieces if rack.kind != "buy")
        to_buy = [(_tenths(rack), room) for rack, room in pieces if rack.kind == "buy"]
        lacks = min(self.used(self.counts) - there, sum(room for _, room in to_buy))
        if lacks <= 0:
            return 0
        if len(set(to_buy)) > 1:
            return BOUGHT * lacks
        length, room = to_buy[0]
        return BOUGHT * length * math.ceil(lacks / room)

    def _lightest(self, rates: Sequence[tuple[float, int]]) -> float:
        """Return what the wanted wire weighs at the lightest rates, and what is missing then."""
        wanted = self.used(self.counts)
        total = 0.0
        for rate, room in sorted(rates):
            taken = min(room, wanted)
            total += rate * taken
            wanted -= taken
        return total + self.leaving_out * wanted

    def grain(self) -> int:
        """Return what the weights of all plans are multiples of, 0 where of nothing coarse."""
        pieces = list(zip(self.racks, self.rooms, strict=True))
        if any(is_reel(rack) or room > self.keep for rack, room in pieces):
            return 0
        return math.gcd(
            *(self.opening(b) + WEIGHT[k.kind] * room for b, (k, room) in enumerate(pieces))
        )

    def classes(self) -> tuple[list[Class], list[list[int]]]:
        """Return pieces of wire that are alike as classes, and which pieces each stands for."""
        members: dict[tuple[StockKind, int, int], list[int]] = {}
        for b, (rack, room) in enumerate(zip(self.racks, self.rooms, strict=True)):
            members.setdefault((rack.kind, room, self.opening(b)), []).append(b)
        classes = [
            Class(room, len(found), WEIGHT[kind], self.keep, opening, endless=kind == "reel")
            for (kind, room, opening), found in members.items()
        ]
        return classes, list(members.values())

    def part(self, pieces: Sequence[int], counts: Sequence[int]) -> "Problem":
        """Return the problem of some cuts on some of the pieces; kinds that are not wanted go."""
        kinds = [k for k, count in enumerate(counts) if count]
        return Problem(
            [self.lengths[k] for k in kinds],
            [counts[k] for k in kinds],
            [self.ids[k] for k in kinds],
            [self.racks[b] for b in pieces],
            [self.rooms[b] for b in pieces],
            self.keep,
            self.kerf,
        )


def in_tenths(
    cuts: Sequence[Wanted], racks: Sequence[Rack], keep: float, kerf: float = 0.0
) -> Problem:
    """Return the problem of cutting some lengths from some pieces of wire.

    Raises:
        Refusal: a length or a piece of wire that is none.
    """
    kinds: dict[int, list[str]] = {}
    for cut in cuts:
        if not cut.length > 0 or not math.isfinite(cut.length):
            raise Refusal("cut_length", got=Mm(cut.length), field=f"cuts.{cut.id}")
        # Up to the next tenth, so that nothing is cut short.
        tenths = math.ceil(round(cut.length * TENTHS, 6))
        kinds.setdefault(tenths, []).extend([cut.id] * cut.quantity)
    order = sorted(kinds, reverse=True)
    for rack in racks:
        if rack.length < 0 or not math.isfinite(rack.length):
            raise Refusal("rack_length", got=Mm(rack.length), field=f"racks.{rack.id}")
    lost, kept = math.ceil(round(kerf * TENTHS, 6)), round(keep * TENTHS)
    counts = [len(kinds[length]) for length in order]
    ranked = _looked_at(racks, order[-1] if order else 0)
    # Beyond all that is wanted and the keep-length, a remnant is a remnant however long.
    enough = sum(n * (length + lost) for n, length in zip(counts, order, strict=True)) + kept
    return Problem(
        order,
        counts,
        [kinds[length] for length in order],
        ranked,
        [min(_tenths(rack), enough) for rack in ranked],
        kept,
        lost,
    )


def _tenths(rack: Rack) -> int:
    return math.floor(round(rack.length * TENTHS, 6))


def nearly_used_up_first(racks: Sequence[Rack]) -> list[Rack]:
    """Return pieces of wire in the order in which they are gone through: offcuts before lengths
    before reels, of each the shortest first."""
    return sorted(racks, key=lambda r: (ORDER.index(r.kind), r.length, r.id))


def _looked_at(racks: Sequence[Rack], shortest: int) -> list[Rack]:
    """Return the pieces of wire that a plan is sought on, of very many only the first and the
    longest."""
    ranked = nearly_used_up_first(racks)
    if len(ranked) <= MOST_RACKS:
        return ranked
    of_use = [rack for rack in ranked if _tenths(rack) >= shortest]
    half = MOST_RACKS // 2
    longest = sorted(of_use[half:], key=lambda r: r.length)[-half:]
    found = {id(rack) for rack in (*of_use[:half], *longest)}
    return [rack for rack in ranked if id(rack) in found]

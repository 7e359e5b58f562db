"""Every wire of a piece with the step at which each of its bends is made."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from jamreel.core.bench.steps import Step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.temper import Track, Work
from jamreel.core.parts.base import WireUse
from jamreel.core.path.moves import Bend, Corner, Flatten, Fold, Kink, Move, Spiral, Wrap
from jamreel.core.workpiece.straight import StraightWire

# Tempered wire is sold in a coil: its body is bent before anyone bends it.
AS_IT_COMES = "body"
Shaping = Bend | Corner | Fold | Spiral | Wrap | Flatten


@dataclass(frozen=True)
class WorkedWire:
    """A wire with its path: the ``moves`` that it makes and the ``steps`` at which they are made,
    by id; None for what shapes nothing, and for what is bent as it comes off the reel.

    ``order`` are the steps that shape it, each once, as they come; ``of_steps`` all steps that may
    work it, ``works`` what they do to it that is no bend; ``track`` is its temper through them.
    ``wire`` is what is bent, which a bar is rolled to; ``pictured`` is how it lies in its part's
    picture when it is done.
    """

    cut: Cut
    wire: Wire
    moves: tuple[Move, ...]
    steps: tuple[str | None, ...]
    order: tuple[str, ...] = ()
    of_steps: frozenset[str] = frozenset()
    works: tuple[Work, ...] = ()
    pictured: WireUse | None = None
    track: Track | None = None
    bought_mpa: float | None = None

    @property
    def begins(self) -> Wire:
        """The wire as it comes off the reel, as hard as it was bought."""
        return replace(self.wire, yield_mpa=self.bought_mpa or self.wire.yield_mpa)

    def softened_to(self, step: str) -> float | None:
        """Return the yield [MPa] that a step finds where the wire was made soft before; see
        ``Track.softened_to``."""
        return self.track.softened_to(step) if self.track else None

    @property
    def worn(self) -> tuple[float, float]:
        """How many times as much it bears in the end as when it was bought: at least, at most."""
        least, most = self.track.ends_at if self.track else (self.wire.yield_mpa,) * 2
        bought = self.track.wire.yield_mpa if self.track else self.wire.yield_mpa
        return least / bought, most / bought

    @property
    def entry(self) -> str:
        """The entry that it is for, '' in a piece of one wire."""
        return entry_of(self.cut)

    def is_for(self, entry: str) -> bool:
        """Return whether it is of an entry, or, for '', shaped by a step of the whole piece."""
        return self.entry == entry or (not entry and any("/" not in step for step in self.order))

    def at(self, step: str) -> tuple[Move, ...]:
        """Return the moves that a step makes."""
        return tuple(m for m, s in zip(self.moves, self.steps, strict=True) if s == step)


def worked_wires(
    laid: Sequence[StraightWire], cuts: Sequence[Cut], steps: Sequence[Step]
) -> tuple[WorkedWire, ...]:
    """Return every kind of wire once with the steps that shape it.

    Args:
        laid: all wires.
        cuts: theirs, as told alike.
        steps: of the piece, in order.

    Source: plain counting.
    """
    by_entry = _by_entry([one for one in steps if one.station != "fit"])
    whole = by_entry.get("", [])
    # Many entries are worked by the same steps.
    known: dict[tuple[int, ...], _WorkedBy] = {}
    made: dict[str, Counter[str]] = {}
    found = []
    for one, cut in zip(laid, cuts, strict=True):
        entry = entry_of(cut)
        # Alike bends of an entry are counted through all of its wires.
        counted = made.setdefault(entry, Counter())
        if cut.alike == cut.id and one.path:
            own = [*by_entry.get(entry, []), *whole] if entry else whole
            key = tuple(map(id, own))
            if key not in known:
                known[key] = _worked_by(own)
            found.append(_worked(one, cut, known[key], counted))
    return tuple(found)


@dataclass(frozen=True)
class _WorkedBy:
    """Steps that may work a wire: all of them by id, those that form it in their order, and by the
    key of a bend those that make such."""

    every: frozenset[str]
    forming: tuple[str, ...]
    makes: Mapping[str, Sequence[str]]


def _worked_by(steps: Sequence[Step]) -> _WorkedBy:
    forming = [one for one in steps if one.station == "form"]
    makes: dict[str, list[str]] = {}
    for one in forming:
        for key in one.shapes:
            makes.setdefault(key, []).append(one.id)
    return _WorkedBy(frozenset(one.id for one in steps), tuple(one.id for one in forming), makes)


def _by_entry(steps: Sequence[Step]) -> dict[str, list[Step]]:
    """Return steps by the entries that they are for, those of the whole piece under ''."""
    found: dict[str, list[Step]] = {}
    for one in steps:
        names = (name.rpartition("/")[0].partition("/")[0] for name in one.stands_for)
        for entry in dict.fromkeys(names):
            found.setdefault(entry, []).append(one)
    return found


def _worked(laid: StraightWire, cut: Cut, own: _WorkedBy, made: Counter[str]) -> WorkedWire:
    steps = _steps_of(laid.path, own, made)
    return WorkedWire(
        cut=cut,
        wire=laid.shapes_as or laid.wire,
        moves=laid.path,
        steps=steps,
        order=tuple(one for one in own.forming if one in steps),
        of_steps=own.every,
        works=laid.works,
        pictured=laid.pictured,
        bought_mpa=laid.wire.yield_mpa,
    )


def entry_of(cut: Cut) -> str:
    """Return the entry that a wire is for, '' in a piece of one wire."""
    if "/" not in cut.id:
        return ""
    return cut.shares[0].entry if cut.shares else cut.id.partition("/")[0]


def _steps_of(moves: Sequence[Move], own: _WorkedBy, made: Counter[str]) -> tuple[str | None, ...]:
    """Return the step of every move.

    Of alike bends the first is made at the first step that makes such, and so on; the last of those
    steps makes all that are left.
    """
    found: list[str | None] = []
    for move in moves:
        if not isinstance(move, Shaping):
            found.append(None)
            continue
        key = key_of(move)
        steps = own.makes.get(key) or (() if key == AS_IT_COMES else own.forming[:1])
        n = made[key]
        made[key] += 1
        found.append(steps[min(n, len(steps) - 1)] if steps else None)
    # A kink is made with the bend that is nearest to it.
    shaped = [n for n, step in enumerate(found) if step is not None]
    for n, move in enumerate(moves):
        if isinstance(move, Kink) and shaped:
            found[n] = found[min(shaped, key=lambda at: (abs(at - n), -at))]
    return tuple(found)


def key_of(move: Shaping) -> str:
    """Return the key that a move goes by among the bends that steps make."""
    return "flat" if isinstance(move, Flatten) else move.label or move.kind


def unsaid(wires: Sequence[WorkedWire], steps: Mapping[str, Step]) -> set[tuple[str, str]]:
    """Return bends that are made at a step which does not say so, as (wire, bend)."""
    return {
        (one.cut.id, key_of(move))
        for one in wires
        for move, step in zip(one.moves, one.steps, strict=True)
        if step is not None and isinstance(move, Shaping) and key_of(move) not in steps[step].shapes
    }

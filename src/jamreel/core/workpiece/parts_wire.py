"""The wires of a composition: what is cut, how often, for whom, and the bends on each."""

import hashlib
import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from jamreel.core.cutting.cuts import CutLine, Share, TechniqueIn
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.tight import tightest
from jamreel.core.makeup.compose import STRING_RUN, Composition, string_use
from jamreel.core.makeup.sequence import RINGS, MakeUp
from jamreel.core.parts.base import Bought, Made, Size, Stretches, WireUse
from jamreel.core.path.moves import Straight, developed_length
from jamreel.core.result import Need
from jamreel.core.words import say, voice
from jamreel.core.workpiece.straight import CutsBy, StraightWire, Stretch, lay_straight


@dataclass(frozen=True)
class Used:
    """A wire of a piece: its name for good, what it is, and how many of it for whom."""

    id: str
    use: WireUse
    shares: tuple[Share, ...]

    @property
    def times(self) -> int:
        """How many in all."""
        return sum(share.count for share in self.shares)


def uses_of(makeup: MakeUp, composition: Composition, sets: int = 1) -> tuple[Used, ...]:
    """Return the wires of a piece, each under the name of the entry that it is for.

    What is cut from a long coil is cut from one, whatever entries it is for: that wire goes by what
    it is, and its shares say for whom.

    Args:
        makeup: gives the string's loops.
        composition: the piece laid out.
        sets: how often the whole is made, 2 for a pair.

    Source: plain counting.
    """
    found: dict[str, Used] = {}
    for entry, use, times in _every_use(makeup, composition):
        name = f"coil/{use.key}~{_alike(use)}" if use.off_coil else f"{entry}/{use.key}"
        share = Share(entry=entry, count=use.quantity * times * sets)
        known = found.get(name)
        shares = _more(known.shares if known else (), share)
        found[name] = Used(name, use, shares)
    return tuple(found.values())


def _every_use(makeup: MakeUp, composition: Composition) -> Iterator[tuple[str, WireUse, int]]:
    for kind in composition.kinds:
        for use in kind.made.wires:
            yield kind.key, use, kind.times
    for run in composition.runs:
        yield run.key, string_use(makeup, run, composition), 1


def _more(shares: tuple[Share, ...], share: Share) -> tuple[Share, ...]:
    counts = {one.entry: one.count for one in shares}
    counts[share.entry] = counts.get(share.entry, 0) + share.count
    return tuple(Share(entry=entry, count=count) for entry, count in counts.items())


def _alike(use: WireUse) -> str:
    """Return a short name for one piece of a coil, the same for all that are alike."""
    what = repr((use.stretches, use.wire.key))
    return hashlib.sha1(what.encode(), usedforsecurity=False).hexdigest()[:6]


def wires_of(
    makeup: MakeUp, composition: Composition, by: CutsBy, sets: int = 1, whole: float | None = None
) -> tuple[StraightWire, ...]:
    """Return the wires of a piece laid straight, each with how many of it are cut.

    Args:
        makeup: gives the string's loops.
        composition: the piece laid out.
        by: allowances of every cut, and the hand that they go by.
        sets: how often the whole is made, 2 for a pair.
        whole: what a margin by ratio multiplies [mm]: of a string, and of strands and cores of a
            body that is all of the piece. Those of another run along their own body.

    Source: plain counting.
    """
    lying = {part.unit.key: part.length for part in composition.parts if not part.drop}
    lone = sum(not part.drop and part.unit.entry != RINGS for part in composition.parts) == 1

    def runs(used: Used) -> float | None:
        if whole is None or used.use.key == STRING_RUN:
            return whole
        own = whole if lone else lying.get(used.shares[0].entry, 0.0)
        return used.use.runs * own or None

    return tuple(_laid(used, by, runs(used)) for used in uses_of(makeup, composition, sets))


def wires_beside(entry: str, made: Made, times: int, by: CutsBy) -> tuple[StraightWire, ...]:
    """Return the wires of a part that hangs from a piece of one wire, laid straight.

    Args:
        entry: the name that it goes by.
        made: the part.
        times: how often it is made.
        by: allowances of every cut, and the hand that they go by.

    Source: plain counting.
    """
    return tuple(
        _laid(
            Used(f"{entry}/{use.key}", use, (Share(entry=entry, count=use.quantity * times),)), by
        )
        for use in made.wires
    )


def needs_beside(entry: str, made: Made, times: int) -> tuple[Need, ...]:
    """Return what is bought for a part that hangs from a piece of one wire; see
    ``wires_beside``."""
    return tuple(
        need_of(one, (Share(entry=entry, count=one.quantity * times),)) for one in made.bought
    )


def _laid(used: Used, by: CutsBy, whole: float | None = None) -> StraightWire:
    use, named = used.use, {"id": used.id, "shares": used.shares}
    if use.off_reel:
        return _pulled(used, by)
    if use.off_coil:
        # A coil that rings or spacers are cut from: one wire, and only its own ends are trimmed.
        return _coil(use, used.times, by, named)
    laid = _once(use.key, use.stretches, use.wire, by, whole, _techniques(use), voice())
    cut = laid.cut.model_copy(update={**named, "quantity": used.times})
    # What is woven is bent by no step of its own.
    return replace(laid, cut=cut, pictured=use, bends=() if use.woven else laid.bends)


def _pulled(used: Used, by: CutsBy) -> StraightWire:
    """Return what is pulled off the reel for so many: each as long as it lies, with both its trims.
    It is cut when it is bent, so that nothing is added for safety."""
    use = used.use
    plain = by.cutting.model_copy(update={"school": "exact", "shortest": 0.0})
    one = _once(use.key, use.stretches, use.wire, CutsBy(plain), None, None, voice())
    pull = used.times * one.cut.length_mm
    says = say("ledger.pull.says", count=used.times, each=one.cut.length_mm)
    cut = one.cut.model_copy(
        update={
            "id": used.id,
            "shares": used.shares,
            "length_mm": pull,
            "mass_g": used.times * one.cut.mass_g,
            "lines": (CutLine(id="pull", value_mm=pull, says=says),),
            # Marked from the free end, each time anew.
            "techniques": (),
            "off_reel": True,
        }
    )
    return replace(one, cut=cut, pictured=use)


# A keystroke changes one part; the wires of the others lie as they lay.
@lru_cache(maxsize=2048)
def _once(
    key: str,
    stretches: Stretches,
    wire: Wire,
    by: CutsBy,
    whole: float | None,
    techniques: tuple[TechniqueIn, ...] | None,
    voice: tuple[str, str],
) -> StraightWire:
    """Return one wire of a part laid straight; ``voice`` is what its labels are said in."""
    rows = tuple(
        Stretch(name, moves, "body" if name == "body" and _straight(moves) else "part")
        for name, moves in stretches
    )
    return lay_straight(key, rows, wire, by, whole, techniques)


def _coil(use: WireUse, times: int, by: CutsBy, named: dict[str, Any]) -> StraightWire:
    """Return the wire of a coil that things are cut from: off the reel, or in lengths to handle."""
    cutting = by.cutting
    once = sum(developed_length(moves, use.wire.d) for _, moves in use.stretches)
    coils = 1 if cutting.off_reel else max(1, math.ceil(once * times / cutting.longest))
    each = math.ceil(times / coils)
    trimmed = cutting.model_copy(update={"trim": 0.0}) if cutting.off_reel else cutting
    length = once * each
    stretches = [Stretch("coil_of", (Straight(length=length),), "body")]
    laid = lay_straight(
        use.key,
        stretches,
        use.wire,
        replace(by, cutting=trimmed),
        techniques=(TechniqueIn(technique="ring", by_sum=length, cut_for=length),),
        **named,
        quantity=math.ceil(times / each),
        off_reel=cutting.off_reel,
    )
    ends = laid.cut.marks[:1] + laid.cut.marks[-1:]
    path = tuple(move for _, moves in use.stretches for move in moves)
    cut = laid.cut.model_copy(update={"marks": ends})
    return StraightWire(use.wire, cut, tight=tightest(use.wire, path), shapes_to=path, pictured=use)


def _techniques(use: WireUse) -> tuple[TechniqueIn, ...] | None:
    """Return what a weave takes of its wire, None where techniques are read off the moves."""
    if not use.woven:
        return None
    if not use.technique:
        return ()
    return (TechniqueIn(technique=use.technique, by_sum=use.by_sum, cut_for=use.cut_for),)


def _straight(moves: tuple[object, ...]) -> bool:
    return all(isinstance(move, Straight) for move in moves)


def needs_of(composition: Composition, sets: int = 1) -> tuple[Need, ...]:
    """Return what is bought for a piece, alike things together, with whom each is for.

    Args:
        composition: the piece laid out.
        sets: how often the whole is made.

    Source: plain counting.
    """
    found: dict[tuple[str, Size], tuple[Bought, tuple[Share, ...]]] = {}
    for kind in composition.kinds:
        for bought in kind.made.bought:
            alike = (bought.key, bought.size)
            share = Share(entry=kind.key, count=bought.quantity * kind.times * sets)
            known = found.get(alike, (bought, ()))[1]
            found[alike] = (bought, _more(known, share))
    return tuple(need_of(bought, shares) for bought, shares in found.values())


def need_of(bought: Bought, shares: tuple[Share, ...]) -> Need:
    """Return something bought as a need; it goes by the first that it is for, its kind and size."""
    count = sum(share.count for share in shares)
    slug = re.sub(r"[^a-z0-9.]+", "-", f"{bought.key} {bought.size.name}".lower()).strip("-")[:60]
    return Need(
        id=f"{shares[0].entry}/{slug}",
        kind="bead" if bought.key == "bead" else "finding",
        label=say(f"need.{bought.key}"),
        size=bought.size.says,
        size_mm=bought.size_mm,
        quantity=count,
        mass_g=bought.mass_g * count,
        shares=shares,
    )

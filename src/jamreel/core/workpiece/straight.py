"""The straight wire: stretches in order become a cut, its marks and bends, and the Rule."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

from jamreel.core.cutting.cuts import Cut, CutLine, Cutting, TechniqueIn, cut_length, extras
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.temper import Work
from jamreel.core.forming.tight import Tight, tightest
from jamreel.core.hand.belief import Taken, whole_wire
from jamreel.core.hand.hand import NEW_HAND, Hand
from jamreel.core.hand.technique import techniques_of
from jamreel.core.parts.base import WireUse
from jamreel.core.path.moves import BendAt, MarkAt, Move, bends_of, developed_length, marks_of
from jamreel.core.values import PlusMinus, RuleDrawing, Span
from jamreel.core.words import say

# Wires this near in diameter [mm] are one.
SAME_MM = 0.006


@dataclass(frozen=True)
class CutsBy:
    """What a maker cuts by: the allowances, the hand that a margin from the record goes by, and how
    thick the wire of a trial loop was [mm]: no other wire goes by it."""

    cutting: Cutting
    hand: Hand = NEW_HAND
    sampled_mm: float = 0.0

    def goes_by_sample(self, wire: Wire) -> bool:
        """Return whether a trial loop tells anything of a wire."""
        return abs(wire.d - self.sampled_mm) < SAME_MM


@dataclass(frozen=True)
class Stretch:
    """A part of the wire by name, the moves it makes, and the ledger lines that explain it."""

    key: str
    moves: Sequence[Move]
    kind: Literal["part", "body"] = "part"
    ledger: tuple[str, ...] = ()

    @property
    def label(self) -> str:
        """What the part is called."""
        return say(f"part.{self.key}")


@dataclass(frozen=True)
class StraightWire:
    """A wire laid straight: its cut, the bends on it, the stretches that lie on it, and the bend
    that is too tight for it.

    ``shapes_to`` are the moves that it makes in the end where they are not those of its stretches:
    of one thing where many are cut from a coil, of a strip (``shapes_as``) that it is rolled to.
    ``works`` is what steps do to it that is no bend; ``pictured`` is how it lies in the picture of
    the part that it is for; ``whole`` is what a margin by ratio multiplies [mm].
    """

    wire: Wire
    cut: Cut
    bends: tuple[BendAt, ...] = ()
    stretches: tuple[Stretch, ...] = ()
    tight: Tight | None = None
    shapes_to: tuple[Move, ...] = ()
    shapes_as: Wire | None = None
    works: tuple[Work, ...] = ()
    pictured: WireUse | None = None
    whole: float | None = None

    @cached_property
    def path(self) -> tuple[Move, ...]:
        """All moves that it shapes to, from left to right; none for what is woven row by row."""
        if self.pictured is not None and self.pictured.woven:
            return ()
        return self.shapes_to or tuple(move for one in self.stretches for move in one.moves)

    @property
    def bent_first(self) -> bool:
        """Whether it is bent at the end of the reel before it is cut."""
        return self.pictured is not None and self.pictured.off_reel

    @cached_property
    def spans(self) -> tuple[Span, ...]:
        """What lies where on the wire, trims at its ends."""
        by_key = {stretch.key: stretch for stretch in self.stretches}
        spans, at = [], 0.0
        for line in self.cut.lines:
            end, stretch = at + line.value_mm, by_key.get(line.id)
            if stretch is not None:
                spans.append(_span(stretch, at, end))
            elif line.value_mm > 0 or line.id == "trim_left":
                spans.append(_trim(line.id, at, end))
            at = end
        return tuple(spans)

    def rule(self, plus_minus: float) -> RuleDrawing:
        """Return the Rule; the band of doubt lies at the end of the body."""
        body = next(s for s in self.spans if s.kind == "body")
        return RuleDrawing(
            length_mm=self.cut.length_mm,
            spans=self.spans,
            ticks_mm=tuple(mark.at_mm for mark in self.cut.marks),
            band=PlusMinus(value=body.to_mm, plus_minus=plus_minus),
            width_mm=self.cut.wire_mm,
        )


def lay_straight(
    role: str,
    stretches: Sequence[Stretch],
    wire: Wire,
    by: CutsBy,
    whole: float | None = None,
    techniques: tuple[TechniqueIn, ...] | None = None,
    **named: Any,
) -> StraightWire:
    """Return a wire of stretches laid straight, trims at both ends and the margin at the right.

    Marks stand at both flush cuts, where one stretch meets the next, and at the body's middle.

    Args:
        role: what the wire is called.
        stretches: from left to right.
        wire: that it is made of.
        by: the maker's allowances and hand.
        whole: what a margin by ratio multiplies [mm], None for a wire of a part.
        techniques: that it goes through, read off its moves where none are given.
        named: fields of the cut that say whom it is for.
    """
    cutting, at = by.cutting, by.cutting.trim
    lines = [CutLine(id="trim_left", value_mm=cutting.trim)]
    marks = [MarkAt(label=say("mark.flush_cut"), at_mm=at)]
    bends: list[BendAt] = []
    for n, stretch in enumerate(stretches):
        length = developed_length(stretch.moves, wire.bend_adds)
        lines.append(CutLine(id=stretch.key, value_mm=length))
        bends += bends_of(stretch.moves, wire.bend_adds, start=at) if stretch.kind == "part" else ()
        marks += marks_of(stretch.moves, wire.bend_adds, start=at)
        if stretch.kind == "body":
            marks.append(MarkAt(label=say("mark.centre"), at_mm=at + length / 2))
        at += length
        last = n == len(stretches) - 1
        label = say("mark.flush_cut") if last else say("mark.after", part=stretch.label)
        marks.append(MarkAt(label=label, at_mm=at))
    net = at - cutting.trim
    found = _techniques(stretches, wire) if techniques is None else techniques
    # A trial loop tells of loops in its own wire, and of nothing else.
    sampled = (one.by_sum for one in found if one.technique == "loop" and by.goes_by_sample(wire))
    looped = sum(sampled)
    by_records = cutting.school == "record"
    record, records = by_record(found, wire.key, by.hand) if by_records else (0.0, 0)
    more = extras(cutting, looped, net, wire.bend_adds, whole, record)
    for key, value in (("trim_right", cutting.trim), *more):
        says = _record_says(records) if key == "record" else ""
        lines.append(CutLine(id=key, value_mm=value, says=says))
        at += value
    if marks[-1].at_mm > at:
        # A sample that takes less wire than the rule says may end short of the last mark.
        marks = [m.model_copy(update={"at_mm": min(m.at_mm, at)}) for m in marks]
    cut = _cut(role, wire, lines, marks, {**named, "techniques": found})
    every = (move for stretch in stretches for move in stretch.moves)
    tight = tightest(wire, every)
    return StraightWire(wire, cut, tuple(bends), tuple(stretches), tight, whole=whole)


def by_record(techniques: Sequence[TechniqueIn], stock: str, hand: Hand) -> tuple[float, int]:
    """Return what a maker's record adds to a wire [mm], and how many records that rests on.

    Args:
        techniques: that the wire goes through.
        stock: the wire's key.
        hand: what is known of the maker.

    Returns:
        So much that it is long enough 19 times in 20, less what it is cut for already.

    Source: ``hand.belief.whole_wire``.
    """
    known = [hand.of(one.technique, stock) for one in techniques]
    taken = [Taken(one.by_sum, k.belief) for one, k in zip(techniques, known, strict=True)]
    already = sum(one.cut_for - one.by_sum for one in techniques)
    return whole_wire(taken) - already, records_of(techniques, stock, hand)


def records_of(techniques: Sequence[TechniqueIn], stock: str, hand: Hand) -> int:
    """Return how many records tell of what a wire goes through.

    Args:
        techniques: that the wire goes through.
        stock: the wire's key.
        hand: what is known of the maker.

    Source: plain counting.
    """
    known = (hand.of(one.technique, stock) for one in techniques)
    return sum(one.own + one.near for one in known)


def _record_says(records: int) -> str:
    return say("ledger.record.by_records" if records else "ledger.record.usual", n=records)


def _techniques(stretches: Sequence[Stretch], wire: Wire) -> tuple[TechniqueIn, ...]:
    """Return what techniques take of the parts of a wire; its body is bent on a former."""
    moves = (move for one in stretches if one.kind == "part" for move in one.moves)
    found = techniques_of(moves, wire.bend_adds)
    return tuple(
        TechniqueIn(technique=key, by_sum=length, cut_for=length) for key, length in found.items()
    )


def _cut(
    role: str, wire: Wire, lines: list[CutLine], marks: list[MarkAt], named: dict[str, Any]
) -> Cut:
    length = cut_length(lines)
    return Cut(
        **{
            "id": role,
            # Several alike of one part are told apart behind a "~".
            "label": say(f"cut.{role.partition('~')[0]}"),
            "wire": wire.label,
            "wire_mm": wire.d,
            "metal": wire.metal.name,
            "temper": say(f"temper.{wire.temper}"),
            "quantity": 1,
            "length_mm": length,
            "lines": tuple(lines),
            "marks": tuple(marks),
            "stock": wire.key,
            "colour": wire.metal.colour,
            "mass_g": wire.mass(length),
            **named,
        }
    )


def _span(stretch: Stretch, start: float, end: float) -> Span:
    return Span(
        id=stretch.key,
        label=stretch.label,
        from_mm=start,
        to_mm=end,
        kind=stretch.kind,
        ledger=stretch.ledger or (stretch.key,),
    )


def _trim(key: str, start: float, end: float) -> Span:
    return Span(
        id=key,
        label=say(f"ledger.{key}.label"),
        from_mm=start,
        to_mm=end,
        kind="trim",
        ledger=(key,),
    )

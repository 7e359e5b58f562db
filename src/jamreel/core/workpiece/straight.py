"""The straight wire: stretches in order become a cut, its marks and bends, and the Rule."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from jamreel.core.cutting.cuts import Cut, CutLine, Cutting, cut_length, extras
from jamreel.core.path.moves import BendAt, MarkAt, Move, bends_of, developed_length, marks_of
from jamreel.core.values import PlusMinus, RuleDrawing, Span
from jamreel.core.words import say
from jamreel.core.workpiece.job import Wire


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
class Laid:
    """A wire laid straight: its cut, the bends on it, and the spans of the Rule."""

    cut: Cut
    bends: tuple[BendAt, ...]
    spans: tuple[Span, ...]
    starts: dict[str, float] = field(default_factory=dict)

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


def lay_straight(cut_id: str, stretches: Sequence[Stretch], wire: Wire, cutting: Cutting) -> Laid:
    """Return a wire of stretches laid straight, trims at both ends and the margin at the right.

    Marks stand at both flush cuts, where one stretch meets the next, and at the body's middle.
    """
    at = cutting.trim
    lines = [CutLine(id="trim_left", label=say("ledger.trim_left.label"), value_mm=cutting.trim)]
    marks = [MarkAt(label=say("mark.flush_cut"), at_mm=at)]
    spans = [_trim("trim_left", 0.0, at)]
    bends: list[BendAt] = []
    starts: dict[str, float] = {}
    for n, stretch in enumerate(stretches):
        length = developed_length(stretch.moves, wire.neutral)
        lines.append(CutLine(id=stretch.key, label=stretch.label, value_mm=length))
        spans.append(
            Span(
                id=stretch.key,
                label=stretch.label,
                from_mm=at,
                to_mm=at + length,
                kind=stretch.kind,
                ledger=stretch.ledger or (stretch.key,),
            )
        )
        bends += bends_of(stretch.moves, wire.neutral, start=at) if stretch.kind == "part" else ()
        marks += marks_of(stretch.moves, wire.neutral, start=at)
        starts[stretch.key] = at
        if stretch.kind == "body":
            marks.append(MarkAt(label=say("mark.centre"), at_mm=at + length / 2))
        at += length
        last = n == len(stretches) - 1
        label = say("mark.flush_cut") if last else say("mark.after", part=stretch.label)
        marks.append(MarkAt(label=label, at_mm=at))
    bent = sum(bend.takes_mm for bend in bends)
    net = at - cutting.trim
    for key, value in (("trim_right", cutting.trim), *extras(cutting, bent, net, wire.neutral)):
        lines.append(CutLine(id=key, label=say(f"ledger.{key}.label"), value_mm=value))
        if value > 0:
            spans.append(_trim(key, at, at + value))
        at += value
    cut = Cut(
        id=cut_id,
        label=say(f"cut.{cut_id}"),
        wire=wire.label,
        wire_mm=wire.d,
        metal=wire.metal.name,
        temper=say(f"temper.{wire.temper}"),
        quantity=1,
        length_mm=cut_length(lines),
        lines=tuple(lines),
        # A sample that takes less wire than the rule says may end short of the last mark.
        marks=tuple(m.model_copy(update={"at_mm": min(m.at_mm, at)}) for m in marks),
        stock=wire.key,
        mass_g=wire.mass(cut_length(lines)),
    )
    return Laid(cut, tuple(bends), tuple(spans), starts)


def _trim(key: str, start: float, end: float) -> Span:
    return Span(
        id=key,
        label=say(f"ledger.{key}.label"),
        from_mm=start,
        to_mm=end,
        kind="trim",
        ledger=(key,),
    )

"""The brooch: chains, swags or links hung between the two ends of a bar with a pin."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import SerializeAsAny

from jamreel.core.advice import Advice
from jamreel.core.advice.parts import swag_spans
from jamreel.core.choices import choice
from jamreel.core.closures import AnyClosure
from jamreel.core.closures.bar_pin import BarPin
from jamreel.core.families.base import Job
from jamreel.core.families.composed import COMPOSE, Composed, OnPiece, Target
from jamreel.core.fit.fall import Fall, hang, length_that_falls
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.makeup.compose import Lying
from jamreel.core.makeup.sequence import Entries, Entry
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.parts.pictures import box, narrowed, turned
from jamreel.core.parts.swag import Swag
from jamreel.core.values import Dimension, Length, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Row
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import verdict

# A line is this much longer than the way between its ends, or it could not hang.
LEAST_SLACK = 1.001
BAR_HIGH_MM = 3.0
FINE_CHAIN = BoughtChain(links=1, pitch=2.0, thickness=1.2, mass_per_m=5.0)


def _entry(name: str, part: object, times: int = 1) -> Entry:
    return Entry.model_validate({"id": name, "part": part, "times": times})


class Brooch(Composed):
    """A line between two loops so far ``apart``, that falls so far in its middle."""

    first: ClassVar[tuple[str, ...]] = (*Composed.first, "points_apart", "line_falls")

    family: ClassVar[str] = "brooch"
    worn_on: ClassVar[str] = "chest"
    sites: ClassVar[tuple[str, ...]] = ()
    asks: ClassVar[tuple[str, ...]] = ("comfortable",)
    eases: ClassVar[bool] = False

    tries: ClassVar[bool] = False
    kind: Literal["brooch"] = "brooch"
    points_apart: Length = choice(46.0, 10, 190)
    line_falls: Length = choice(11.0, 0, 150)
    entries: Entries = (
        _entry("leftring", JumpRing(pin=3.0)),
        _entry("swag", Swag(span=38.0, first_fall=12.0, fall_apart=14.0, link=FINE_CHAIN)),
        _entry("rightring", JumpRing(pin=3.0)),
    )
    closure: SerializeAsAny[AnyClosure] = BarPin()

    def target(self, job: Job) -> Target:
        """Return the length of the line that falls as chosen."""
        return Target(length_that_falls(self.points_apart, self.line_falls), 1.0)

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write the parts of the line."""
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE)

    def _fall(self, worked: OnPiece) -> Fall:
        """Return how the line hangs; one that is too short is pulled all but straight."""
        length = max(worked.laid.finished, LEAST_SLACK * self.points_apart)
        return hang(self.points_apart, length)

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return how far the line falls, and how deep the lowest strand hangs."""
        fall = self._fall(worked)
        lows = [p.made.hang - fall.place(p.at)[1] for p in worked.laid.parts if p.made.hang]
        return [("fall_line", fall.sag, None), ("fall_pendant", max(lows, default=None), None)]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "fall_line",
            "make_up": "finished",
            "cut": "wire_in_all",
            "form": "finished",
            "fit": "fall_line",
        }

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield whether its swags hang between points as far apart as they were planned for."""
        fall = self._fall(worked)
        for part in worked.laid.parts:
            if isinstance(part.unit.part, Swag):
                apart = fall.chord(part.at, part.at + part.length)
                yield swag_spans(apart, part.unit.part.span)

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the bar with its line as it hangs."""
        half = self.points_apart / 2
        bar = box(-half - 2, half + 2, BAR_HIGH_MM, "bought", BAR_HIGH_MM)
        fall = self._fall(worked)
        strokes = [bar.model_copy(update={"part": "bar"})]
        for i, part in enumerate(worked.laid.parts):
            strokes += [
                s.model_copy(update={"part": f"{part.unit.entry} {i} {k}"})
                for k, s in enumerate(_hung(part, fall))
            ]
        apart = Dimension(
            a=(-half, 0.0),
            b=(half, 0.0),
            value_mm=self.points_apart,
            label=say("drawing.apart"),
            offset_mm=12,
        )
        return (
            Sheet(
                id="brooch",
                title=say("drawing.hanging"),
                stations=("measure", "fit"),
                strokes=tuple(strokes),
                dimensions=(apart,),
            ),
        )

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on."""
        return verdict("lighter_brooch" if tryon.comfortable is False else "fits", settled=True)


def _hung(part: Lying, fall: Fall) -> tuple[Stroke, ...]:
    """Return a part where it hangs on a line, from the place of its one end to that of the
    other."""
    (x0, y0), (x1, y1) = (fall.place(at) for at in (part.at, part.at + part.length))
    copies = (copy for stroke in part.made.strokes for copy in stroke.copies)
    if part.drop or not part.length:
        return turned(copies, (x0, y0), 0.0)
    if part.made.hang:
        # Drawn between its ends, however near those come to each other.
        apart = fall.chord(part.at, part.at + part.length)
        return turned(narrowed(copies, apart / part.length), (x0, y0), 0.0)
    return turned(copies, (x0, y0), math.atan2(y1 - y0, x1 - x0))

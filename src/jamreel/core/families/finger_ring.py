"""The finger ring: wire wound round a finger's girth, turn on turn, and bound."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import SerializeAsAny

from jamreel.core.advice import Advice, advise
from jamreel.core.choices import choice
from jamreel.core.closures import AnyClosure
from jamreel.core.closures.open_ends import OpenEnds
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job
from jamreel.core.families.composed import COMPOSE, Composed, OnPiece, Target
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.interlace.wound_ring.part import WoundRing
from jamreel.core.makeup.sequence import Entries, Entry
from jamreel.core.result import Plan, Proposal
from jamreel.core.values import Dimension, Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Row
from jamreel.core.workpiece.drawing import section_sheet
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import felt

# Bands wider than this want more room over the knuckle [mm]; common practice.
WIDE_MM = 5.0


class FingerRing(Composed):
    """A wound ring whose former is as wide as the finger is round, ``room`` added to its girth."""

    first: ClassVar[tuple[str, ...]] = (*Composed.first, "counted", "room")

    family: ClassVar[str] = "ring"
    worn_on: ClassVar[str] = "finger"
    sites: ClassVar[tuple[str, ...]] = ("finger_girth",)
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "comfortable", "stays_on")
    eases: ClassVar[bool] = False

    kind: Literal["finger_ring"] = "finger_ring"
    room: Length = choice(1.0, 0, 6)
    counted: bool | None = False
    entries: Entries = (
        Entry.model_validate(
            {"id": "ring", "part": {"kind": "wound_ring", "wound": 5, "bindings": 2}}
        ),
    )
    closure: SerializeAsAny[AnyClosure] = OpenEnds()

    def _inside(self, job: Job) -> float:
        """Return the inside girth [mm]."""
        return job.girths["finger_girth"].value_mm + self.room

    def _sized(self, job: Job) -> "FingerRing":
        """Return it with its ring sized for the finger. Raises Refusal for anything but a ring."""
        found = [one for one in self.entries if isinstance(one.part, WoundRing)]
        if len(found) != 1 or len(self.entries) != 1 or found[0].times != 1:
            raise Refusal("one_ring", got=len(self.entries), field="piece.entries")
        ring = found[0]
        sized = {"sized_by": "finger", "finger": self._inside(job), "hangs": False}
        assert ring.part is not None
        part = ring.part.model_copy(update=sized)
        return self.model_copy(update={"entries": (ring.model_copy(update={"part": part}),)})

    def solve(self, job: Job) -> Plan:
        """Return the plan of the ring, sized for the finger."""
        return Composed.solve(self._sized(job), job)

    def propose(self, job: Job) -> tuple[Proposal, ...]:
        """Return nothing: it is wound to size."""
        return ()

    def target(self, job: Job) -> Target:
        """Return the inside diameter."""
        doubt = job.girths["finger_girth"].plus_minus_mm / math.pi
        return Target(self._inside(job) / math.pi, doubt)

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write the finger and the room, then the ring."""
        book.girth(worked.job.girths["finger_girth"], "wanted")
        rule = "families.finger_ring.FingerRing"
        book.term("room", self.room, rule, "common practice", "wanted")
        book.total("wanted", rule)
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE)

    def inside(self, worked: OnPiece) -> PlusMinus:
        """Return the inside girth."""
        doubt = worked.job.girths["finger_girth"].plus_minus_mm
        return PlusMinus(value=math.pi * worked.got, plus_minus=doubt)

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return its inside girth, and what it is wound on."""
        doubt = worked.job.girths["finger_girth"].plus_minus_mm
        return [
            ("wanted", self._inside(worked.job), doubt),
            ("former", worked.got, doubt / math.pi),
        ]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "wanted",
            "make_up": "former",
            "cut": "wire_in_all",
            "form": "former",
            "fit": "wanted",
        }

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield whether it is so wide that it wants more room."""
        wide = worked.laid.parts[0].made.thickness
        if wide > WIDE_MM:
            yield advise("ring_wide", "check", "piece.room", wide=wide)

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the ring as it lies round the finger."""
        part = worked.laid.parts[0]
        strokes = [
            copy.model_copy(update={"part": "body"})
            for stroke in part.made.strokes
            for copy in stroke.copies
        ]
        across = Dimension(
            a=(0.0, 0.0),
            b=(part.length, 0.0),
            value_mm=part.length,
            label=say("drawing.ring_inside"),
            offset_mm=part.made.width / 2 + 4,
        )
        girth = worked.job.girths["finger_girth"].value_mm
        label = say("drawing.finger", girth=girth)
        return (
            section_sheet(
                say("drawing.on_the_finger"), strokes, [across], label, at=(part.length / 2, 0.0)
            ),
        )

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on: wound again on another former."""
        return felt(tryon, goes_on="ring_tight", comfortable="ring_tight", stays_on="ring_loose")

"""Drop earrings: parts hung from an ear wire."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import SerializeAsAny

from jamreel.core.advice import Advice
from jamreel.core.advice.joining import heavy_earring
from jamreel.core.choices import choice
from jamreel.core.closures import AnyClosure
from jamreel.core.closures.open_ends import OpenEnds
from jamreel.core.families.base import Job
from jamreel.core.families.composed import COMPOSE, Composed, OnPiece, Target
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.makeup.sequence import Entries, Entry
from jamreel.core.parts.dangle import Dangle
from jamreel.core.parts.ear_wire import EarWire
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.values import Length, Sheet
from jamreel.core.workpiece.assemble import Row
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.sequence_drawing import hanging_sheet
from jamreel.core.workpiece.verdicts import felt
from jamreel.core.workpiece.weights import Scale, hanging_of


def _entry(name: str, part: object, times: int = 1, *, fill: bool = False) -> Entry:
    return Entry.model_validate({"id": name, "part": part, "times": times, "fill": fill})


class DropEarring(Composed):
    """A drop hung from an ear wire; made as a pair unless one is wanted."""

    first: ClassVar[tuple[str, ...]] = (*Composed.first, "drop", "pair")

    family: ClassVar[str] = "earring"
    worn_on: ClassVar[str] = "ear"
    sites: ClassVar[tuple[str, ...]] = ()
    asks: ClassVar[tuple[str, ...]] = ("comfortable",)
    eases: ClassVar[bool] = False

    tries: ClassVar[bool] = False
    kind: Literal["drop_earring"] = "drop_earring"
    drop: Length = choice(50.0, 8, 200)
    pair: bool = True
    entries: Entries = (
        _entry("earwire", EarWire()),
        _entry("earlink", LinkedBead(bead=4.0, pin=2.0), 1, fill=True),
        _entry("eardrop", Dangle(bead=8.0)),
    )
    closure: SerializeAsAny[AnyClosure] = OpenEnds()

    @property
    def sets(self) -> int:
        """Two for a pair."""
        return 2 if self.pair else 1

    def target(self, job: Job) -> Target:
        """Return the length that it is to hang."""
        return Target(self.drop, 0.5, hanging_of)

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write the parts, and the last drop below them."""
        self.write_parts(worked, book, "hangs")
        below = worked.got - worked.laid.finished
        book.term("last_drop", below, COMPOSE, "geometry", "hangs")
        book.total("hangs", COMPOSE)

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return how far it hangs."""
        return [("hangs", worked.got, None)]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "hangs",
            "make_up": "hangs",
            "cut": "wire_in_all",
            "form": "hangs",
            "fit": "hangs",
        }

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield whether it is heavy."""
        weigh = Scale(worked.laid.kinds)
        yield heavy_earring(sum(weigh(part) for part in worked.laid.parts))

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the earring as it hangs."""
        return (hanging_sheet(worked.laid, worked.got, ("measure", "form", "fit")),)

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on."""
        return felt(tryon, comfortable="lighter")

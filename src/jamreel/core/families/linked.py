"""Composed pieces round a girth: bracelet, anklet, armlet, choker."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.closing import two_hands
from jamreel.core.advice.opening import falls_off
from jamreel.core.bench.steps import Step
from jamreel.core.families.banded import Bent, bent_of
from jamreel.core.families.base import Job, Preset
from jamreel.core.families.composed import Composed, OnPiece, Target
from jamreel.core.fit.ease import word_for
from jamreel.core.fit.thickness import inside_girth_of
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.tools import Former
from jamreel.core.makeup.fill import inside_of
from jamreel.core.makeup.sequence import Entries, Entry
from jamreel.core.parts.bead import StrungBead
from jamreel.core.parts.beads import BRITTLE
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.values import PlusMinus, Sheet, StationName
from jamreel.core.workpiece.assemble import Fit, Row
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.sequence_drawing import round_body
from jamreel.core.workpiece.verdicts import change, verdict

# More than this taken away by thickness is worth saying [mm].
MUCH_LOST_MM = 15.0
# Less than this that rigid parts take or give is not worth a line [mm].
LEAST_RIGID_MM = 0.05


class LinkedRound(Composed):
    """A composed piece that is fastened round a girth."""

    def girth_name(self) -> str:
        """Return the site that it goes round."""
        return self.sites[0]

    def target(self, job: Job) -> Target:
        """Return the inside girth wanted: girth and ease, and a notch more for what breaks."""
        girth = job.girths[self.girth_name()]
        ease = job.ease_on(self.worn_on, girth.value_mm)
        notch = self._notch(job)
        doubt = ease.doubt(girth.plus_minus_mm)
        return Target(girth.value_mm + ease.value_mm + notch, doubt, inside_of)

    def counts_beside(self) -> tuple[str, ...]:
        """Return rings at the back, where the maker set none and they hang in loops."""
        free = self.rings is None and self.string_ends == "wrapped"
        return ("rings",) if free else ()

    def _notch(self, job: Job) -> float:
        """Return what brittle parts get on top [mm]."""
        brittle = any(unit.part.stuffs & BRITTLE for unit in self.units())
        return job.table(self.worn_on).brittle_mm if brittle else 0.0

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write girth and ease, then what the make-up comes to, less its thickness."""
        job, girth = worked.job, worked.job.girths[self.girth_name()]
        book.girth(girth, "wanted")
        book.ease(job.ease_on(self.worn_on, girth.value_mm), "wanted")
        notch = self._notch(job)
        if notch:
            book.term("brittle", notch, "fit.ease.EaseTable", "common practice", "wanted")
        book.total("wanted", "fit.ease.ease_of")
        self.write_parts(worked, book, "in_all")
        finished = book.total("in_all", "makeup.compose.compose", "fastened")
        rule = "fit.thickness.inside_girth_of"
        rigid = self._rigid(worked)
        book.term("thickness_off", worked.got - rigid - finished, rule, "published", "fastened")
        if rigid:
            key = "rigid_off" if rigid < 0 else "rigid_on"
            book.term(key, rigid, rule, "geometry", "fastened")
        book.total("fastened", rule, "at_link" if worked.link else None)
        if worked.link:
            pitch, rule = worked.laid.fastened.range_step, "makeup.fill.right_link"
            more = worked.worn - worked.got
            book.term("extended", more, rule, "geometry", "at_link", links=worked.link, pitch=pitch)
            book.total("at_link", rule)

    def _rigid(self, worked: OnPiece) -> float:
        """Return what it takes or gives that parts don't bend [mm], 0 where that is not worth a
        line."""
        try:
            smooth = inside_girth_of([one.bending for one in worked.laid.segments])
        except ValueError:
            return 0.0  # so few and thick that nothing would be left if they bent
        return worked.got - smooth if abs(worked.got - smooth) >= LEAST_RIGID_MM else 0.0

    def bent(self, worked: OnPiece) -> Bent | None:
        """Return the body of several wires that is bent to the wearer, where it has one."""
        if "bent" not in worked.memo:
            worked.memo["bent"] = bent_of(worked, worked.worn / math.pi)
        found: Bent | None = worked.memo["bent"]
        return found

    def bends(self, worked: OnPiece) -> tuple[Step, ...]:
        """Return the steps in which its body is bent, the last ones of all."""
        bent = self.bent(worked)
        return tuple(bent.steps()) if bent else ()

    def formers(self, worked: OnPiece) -> tuple[Former, ...]:
        """Return what its body is bent on, where it is not bent over the thumb."""
        bent = self.bent(worked)
        return (bent.former,) if bent and bent.former else ()

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return inside girth, what thickness takes, and how its body is bent."""
        bent = self.bent(worked)
        return [
            ("bent_inside", bent.inside if bent else None, None),
            ("least_radius", bent.least if bent else None, None),
            ("worn", worked.worn, worked.target.doubt),
            ("worn_shortest", worked.got if worked.link else None, None),
            ("wanted", worked.target.wanted, worked.target.doubt),
            ("lost", worked.laid.finished - worked.got, None),
        ]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "wanted",
            "make_up": "worn",
            "cut": "wire_in_all",
            "form": "finished",
            "fit": "worn",
        }

    def fit(self, worked: OnPiece) -> Fit:
        """Return how it fits, with the ease that the make-up really has.

        What brittle parts get on top is no ease that the wearer feels as looseness.
        """
        girth = worked.job.girths[self.girth_name()]
        ease = worked.job.ease_on(self.worn_on, girth.value_mm)
        got = ease.model_copy(update={"value_mm": worked.worn - girth.value_mm})
        hand = worked.job.girths.get("hand_pass_girth")
        slides = hand is not None and worked.worn >= hand.value_mm
        word = "falls_off" if slides else self.word_of(worked.job, worked.worn)
        return Fit(girth, got, self.worn_on, word)

    def word_of(self, job: Job, got: float) -> str:
        """Return the word for the ease that an inside girth gives."""
        girth = job.girths[self.girth_name()].value_mm
        return word_for(got - girth - self._notch(job), job.table(self.worn_on))

    def inside(self, worked: OnPiece) -> PlusMinus:
        """Return the inside girth."""
        return PlusMinus(value=worked.worn, plus_minus=worked.target.doubt)

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield what thickness takes, and whether it slides off."""
        lost = worked.laid.finished - worked.got
        if lost > MUCH_LOST_MM:
            yield advise("thickness_takes", "note", "piece.entries", lost=lost)
        if self.worn_on in ("wrist", "arm") and worked.laid.fastened.length:
            yield two_hands(worked.laid.fastened.one_hand)
        hand = worked.job.girths.get("hand_pass_girth")
        yield falls_off(worked.worn, hand.value_mm if hand else None)
        bent = self.bent(worked)
        if bent is not None:
            yield from bent.advice()

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the section of the body with the piece round it."""
        girth = worked.job.girths[self.girth_name()].value_mm
        outline = worked.job.outline(self.worn_on, girth)
        fit = self.fit(worked)
        bent = self.bent(worked)
        worn = round_body(worked.laid, outline, fit.ease, self.worn_on, girth)
        if bent is None and not self.formers(worked):
            return (worn,)
        # It is looked at while it is bent, too.
        seen: tuple[StationName, ...] = (*worn.stations, "form")
        return (worn.model_copy(update={"stations": seen}), *(bent.sheets() if bent else ()))

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on, in what the piece is counted by."""
        unit, name = self.counted_unit(worked)
        if tryon.inside_girth is not None:
            off = tryon.inside_girth - worked.worn
            if abs(off) <= max(2.0, unit / 2):
                return verdict("as_planned", settled=True, open=tryon.inside_girth)
            count = max(1, round(abs(off) / unit))
            key = "units_off" if off > 0 else "units_on"
            changes = (change("worn", tryon.inside_girth, worked.worn),)
            return verdict(
                key, amount=count * unit, changes=changes, count=count, name=name, off=abs(off)
            )
        if tryon.comfortable is False:
            return verdict("units_on", amount=unit, count=1, name=name, off=unit)
        if tryon.stays_on is False:
            return verdict("units_off", amount=unit, count=1, name=name, off=unit)
        return verdict("fits", settled=True)


def _counted(name: str, times: int, part: object) -> Entry:
    return Entry.model_validate({"id": name, "part": part, "times": times, "fill": True})


# Round beads of one size on one wire that goes through the closure and back into the beads.
STRUNG_BRACELET = Preset(
    name="strung_bracelet",
    piece={
        "counted": True,
        "entries": [{"id": "strung", "fill": True, "part": {"kind": "bead", "bead": 8}}],
        "closure": {"kind": "bought_clasp", "length": 20, "thickness": 3},
        "string_ends": "through",
        "string_tail": 50,
    },
    wire={"size": "0.5 mm", "metal": "copper", "temper": "dead_soft"},
)


class LinkedBracelet(LinkedRound):
    """A bracelet of parts."""

    presets: ClassVar[tuple[Preset, ...]] = (STRUNG_BRACELET,)

    family: ClassVar[str] = "bracelet"
    worn_on: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth", "hand_pass_girth")

    kind: Literal["linked_bracelet"] = "linked_bracelet"
    entries: Entries = (_counted("links", 10, LinkedBead()),)


class LinkedAnklet(LinkedRound):
    """An anklet of parts."""

    family: ClassVar[str] = "anklet"
    worn_on: ClassVar[str] = "ankle"
    sites: ClassVar[tuple[str, ...]] = ("ankle_girth",)

    kind: Literal["linked_anklet"] = "linked_anklet"
    entries: Entries = (_counted("beads", 52, StrungBead(bead=4.0)),)


class LinkedArmlet(LinkedRound):
    """An armlet of parts."""

    family: ClassVar[str] = "armlet"
    worn_on: ClassVar[str] = "arm"
    sites: ClassVar[tuple[str, ...]] = ("upper_arm_girth",)

    kind: Literal["linked_armlet"] = "linked_armlet"
    entries: Entries = (_counted("armlinks", 16, LinkedBead()),)


class LinkedChoker(LinkedRound):
    """A choker of parts, its middle in front."""

    first: ClassVar[tuple[str, ...]] = (*LinkedRound.first, "worn_asleep")

    family: ClassVar[str] = "necklace"
    worn_on: ClassVar[str] = "neck"
    sites: ClassVar[tuple[str, ...]] = ("neck_girth",)

    kind: Literal["linked_choker"] = "linked_choker"
    entries: Entries = (_counted("chokerlinks", 9, LinkedBead()),)
    mirrored: bool = True
    worn_asleep: bool = False

    @property
    def must_release(self) -> bool:
        """When it is worn asleep."""
        return self.worn_asleep

"""Necklaces of parts: chosen by length, judged by where they fall."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import SerializeAsAny

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.parts import swag_spans
from jamreel.core.body.outline import Outline, usual_outline
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job, Preset
from jamreel.core.families.composed import COMPOSE, Composed, OnPiece, Target
from jamreel.core.fit.fall import Fall, hang
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.makeup.compose import Composition, Lying, compose
from jamreel.core.makeup.sequence import FOCAL, HUNG, Entries, Entry
from jamreel.core.parts import AnyPart
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.finding import Finding
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.parts.swag import Swag
from jamreel.core.roots import root
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Row
from jamreel.core.workpiece.fall_drawing import fall_sheet, landing
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.verdicts import verdict
from jamreel.core.workpiece.weights import Scale

# Names of lengths [mm]; common practice.
STYLES: dict[str, tuple[float, float]] = {
    "collar": (305, 330),
    "choker": (350, 410),
    "princess": (430, 480),
    "matinee": (510, 610),
    "opera": (710, 860),
    "rope": (1140, 1500),
}

# A front shorter than so many spans lies on the shoulders, it does not hang.
LEAST_HANGING = 1.02


def style_of(length: float) -> Advice | None:
    """Return a note on what a necklace of some length [mm] is called, where it has a name."""
    for key, (low, high) in STYLES.items():
        if low <= length <= high:
            style = say(f"style.{key}")
            return advise("style", "note", "piece.length", style=style, low=low, high=high)
    return None


def _entry(name: str, part: object, times: int = 1, *, fill: bool = False) -> Entry:
    return Entry.model_validate({"id": name, "part": part, "times": times, "fill": fill})


# A plain chain with a clasp.
CHAIN_NECKLACE = Preset(
    name="chain_necklace",
    piece={
        "counted": True,
        "mirrored": False,
        "entries": [{"id": "chain", "fill": True, "part": {"kind": "chain", "mass_per_m": 9}}],
        "focal": None,
        "hung": None,
        "closure": {"kind": "bought_clasp", "length": 15},
    },
    wire={"size": "1 mm", "metal": "brass", "temper": "half_hard"},
)


class HangingNecklace(Composed):
    """Base of necklaces of parts: chosen by length, judged by where they fall."""

    first: ClassVar[tuple[str, ...]] = ("length", "falls", "mirrored", "rings", "worn_asleep")

    family: ClassVar[str] = "necklace"
    worn_on: ClassVar[str] = "neck"
    sites: ClassVar[tuple[str, ...]] = ("neck_base_girth",)
    asks: ClassVar[tuple[str, ...]] = ("fall", "comfortable")
    eases: ClassVar[bool] = False

    length: Length = choice(450.0, 250, 2000)
    falls: OptionalLength = choice(None, 5, 900)
    mirrored: bool = True
    worn_asleep: bool = False

    @property
    def must_release(self) -> bool:
        """When it is worn asleep."""
        return self.worn_asleep

    def target(self, job: Job) -> Target:
        """Return the finished length that was chosen, or with which it falls as far as wanted; half
        a counted part is near enough.

        Raises:
            Refusal: a fall so small that nothing hangs.
        """
        return Target(self.length if self.falls is None else self._length_for(job, self.falls), 0.5)

    def _length_for(self, job: Job, falls: float) -> float:
        """Return the finished length with which its line falls so far [mm]."""
        girth = job.girths["neck_base_girth"].value_mm
        outline = usual_outline("neck", girth)
        span, back = 2 * outline.across, outline.girth / 2
        laid = compose(self, job.wires)
        pendant, per_mm = self._pulls(laid, Scale(laid.kinds))

        def short(front: float) -> float:
            return hang(span, front, pendant, per_mm).sag - falls

        least = span * LEAST_HANGING
        if short(least) > 0:
            raise Refusal(
                "falls_little", got=Mm(falls), field="piece.falls", least=falls + short(least)
            )
        return back + root(short, least, span + 4 * falls)

    def against(self, worked: OnPiece, book: Book) -> None:
        """Write the make-up, then what goes round the back, then what hangs in front."""
        self.write_parts(worked, book, "in_all")
        book.total("in_all", COMPOSE, "front")
        back = self._outline(worked).girth / 2
        girth = worked.job.girths["neck_base_girth"].value_mm
        book.term("less_back", -back, "fit.fall.hang", "geometry", "front", girth=girth)
        book.total("front", "fit.fall.hang")

    def _outline(self, worked: OnPiece, wider: float = 0.0) -> Outline:
        return usual_outline("neck", worked.job.girths["neck_base_girth"].value_mm + wider)

    def _falls(self, worked: OnPiece, wider: float = 0.0) -> Fall:
        """Return how its front hangs, from a neck that is so much more round than was read [mm]: a
        wider neck takes more of it behind, and holds its ends further apart.

        Raises:
            Refusal: a piece that does not go round the neck's base.
        """
        outline = self._outline(worked, wider)
        span, back = 2 * outline.across, outline.girth / 2
        front = worked.laid.finished - back
        if front <= span * LEAST_HANGING:
            raise Refusal(
                "chain_short",
                got=Mm(worked.laid.finished),
                field="piece.entries",
                least=back + span * LEAST_HANGING,
            )
        weigh = worked.memo.get("scale") or Scale(worked.laid.kinds)
        worked.memo["scale"] = weigh
        return hang(span, front, *self._pulls(worked.laid, weigh))

    def _pulls(self, laid: Composition, weigh: Scale) -> tuple[float, float]:
        """Return what pulls at its middle [g], and what its line weighs [g/mm]."""
        mass = sum(weigh(p) for p in laid.parts if not p.drop)
        # A swag pulls along its length, as chain does.
        points = [p for p in self._middle(laid) if p.drop or not p.made.hang]
        chain = mass - sum(weigh(p) for p in points if not p.drop)
        # The closure lies at the back: what hangs in front weighs as the body does.
        return sum(weigh(p) for p in points), max(chain, 0.001) / max(laid.body, 1.0)

    def _fall(self, worked: OnPiece) -> Fall:
        known: Fall | None = worked.memo.get("fall")
        if known is None:
            known = worked.memo["fall"] = self._falls(worked)
        return known

    def _middle(self, laid: Composition) -> list[Lying]:
        """Return what pulls at the middle: the focal, and drops close by."""
        middle = laid.finished / 2
        return [
            p
            for p in laid.parts
            if p.unit.top in (FOCAL, HUNG) or (p.drop and abs(p.at - middle) < 0.05 * laid.finished)
        ]

    def _drop(self, worked: OnPiece) -> float:
        """Return how much lower than the line what hangs in its middle reaches [mm]."""
        fall = self._fall(worked)
        lows = [
            # A swag hangs from where its ends are on the line, a drop from the middle.
            (p.made.hang if p.drop else _below(fall, p) + p.made.hang - fall.sag)
            for p in self._middle(worked.laid)
            if p.made.hang
        ]
        return max([0.0, *lows])

    def rows(self, worked: OnPiece) -> list[Row]:
        """Return where it falls."""
        fall = self._fall(worked)
        # Towards the narrower neck, round which it goes in any case.
        doubt = self._falls(worked, -worked.job.girths["neck_base_girth"].plus_minus_mm)
        pm = abs(doubt.sag - fall.sag)
        drop = self._drop(worked)
        return [
            ("fall", fall.sag, pm),
            ("fall_pendant", fall.sag + drop if drop else None, pm),
            ("front", fall.length, None),
        ]

    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""
        return {
            "measure": "fall",
            "make_up": "finished",
            "cut": "wire_in_all",
            "form": "finished",
            "fit": "fall",
        }

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield where it lands, in body words."""
        fall = self._fall(worked)
        low = fall.sag + self._drop(worked)
        where = landing(low, worked.job.shop.landmarks)
        yield advise("lands", "note", "piece.length", fall=fall.sag, low=low, where=where)
        yield style_of(worked.target.wanted)
        for part in self._middle(worked.laid):
            if isinstance(part.unit.part, Swag):
                at = (fall.length - part.length) / 2
                yield swag_spans(fall.chord(at, at + part.length), part.unit.part.span)

    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the chest with the necklace as it hangs."""
        fall = self._fall(worked)
        thick = max(
            (p.made.width for p in worked.laid.parts if not p.made.hang and not p.drop), default=1.0
        )
        drop = self._drop(worked)
        landmarks = worked.job.shop.landmarks
        swags = [p.made for p in self._middle(worked.laid) if p.made.hang and not p.drop]
        sheet = fall_sheet(fall, fall.span, min(thick, 6.0), drop, landmarks, swags)
        return (sheet.model_copy(update={"stations": ("measure", "fit")}),)

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on: how many to take off or add for the fall wanted."""
        if tryon.fall is None:
            right = bool(tryon.comfortable)
            return verdict("fits" if right else "where_fell", settled=right)
        fall = self._fall(worked)
        unit, name = self.counted_unit(worked)
        pair = 2 if self.mirrored else 1
        off = tryon.fall - fall.sag
        moves = self._falls(worked, pair * unit).sag - fall.sag
        if abs(off) < max(moves / 2, 3.0):
            return verdict("fell_as_planned", settled=True, fall=tryon.fall)
        count = pair * max(1, round(abs(off) / moves))
        key = "fell_low" if off > 0 else "fell_high"
        return verdict(key, amount=count * unit, count=count, name=name, off=abs(off))


def _below(fall: Fall, part: Lying) -> float:
    """Return how far the ends of a part in the middle of a line lie below its own ends [mm]."""
    return -fall.place((fall.length - part.length) / 2)[1]


class LinkedNecklace(HangingNecklace):
    """A necklace of parts, its middle in front and the closure behind."""

    kind: Literal["linked_necklace"] = "linked_necklace"
    entries: Entries = (_entry("necklinks", LinkedBead(), 12, fill=True),)


class PendantChain(HangingNecklace):
    """A pendant at the middle of a chain."""

    presets: ClassVar[tuple[Preset, ...]] = (CHAIN_NECKLACE,)

    kind: Literal["pendant_chain"] = "pendant_chain"
    entries: Entries = (_entry("pendantchain", BoughtChain(links=60), fill=True),)
    focal: SerializeAsAny[AnyPart] | None = JumpRing(pin=4.0)
    hung: SerializeAsAny[AnyPart] | None = Finding(length=30.0, width=18.0, hangs=True, mass=6.0)

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield where it lands, and whether anything hangs there."""
        yield from super().own_advice(worked)
        # A plain chain is meant to have none.
        if self.focal is not None and not any(p.drop for p in worked.laid.parts):
            yield advise("no_pendant", "check", "piece.hung")

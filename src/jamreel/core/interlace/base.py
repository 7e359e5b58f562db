"""What every interlaced body declares, and what it answers as a part of a make-up.

A technique says what one row takes and how its strands lie; the base multiplies, shares the rows
out to wires that can be handled, counts, adds tails, and draws.
"""

from abc import abstractmethod
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Any, ClassVar, Literal, Self

from pydantic import PrivateAttr

from jamreel.core.advice import Advice
from jamreel.core.advice.weaving import woven_by_sum
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette, WovenHand
from jamreel.core.interlace.body import Body, Takes
from jamreel.core.interlace.endings import BARE_MM, Ending
from jamreel.core.interlace.face import Face, face
from jamreel.core.interlace.working import (
    FAST_TURNS,
    FINISH_MM,
    START_MM,
    Sample,
    Share,
    going_on,
    shared_out,
)
from jamreel.core.parts.base import Bought, Interlacing, Made, Part, Role, WireUse, part_step
from jamreel.core.parts.beads import BRITTLE, Colour, OneBead, Stuff, bought_bead
from jamreel.core.parts.ends import PIN_RANGE
from jamreel.core.parts.so_far import SoFar
from jamreel.core.path.coils import turn
from jamreel.core.path.moves import Straight, Wrap
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.words import say

MOST_ROWS = 1000
# Two wires in one hole want so much more than both [mm]; common practice.
ROOM_MM = 0.1
# To begin a working wire and make its ends fast takes so long [min]; from memory, no source.
WIRE_MINUTES = 10.0
# The working wire where neither part nor piece says one [mm]; common practice.
USUAL_FINE_MM = 0.4


class Interlaced(Part):
    """Base of woven, knotted and bound bodies: rows of a working wire over bars, frames or beads.

    ``spare`` is how many times the sum is cut until the maker has counted a sample: ``sample_rows``
    over ``sample_over``, and the wire that went into them.
    """

    counted_in: ClassVar[str | None] = "rows"

    rows: int = choice(8, 1, MOST_ROWS)
    pin: Length = choice(3.0, *PIN_RANGE)
    wire: OptionalSize = None
    spare: float = choice(1.05, 1.0, 1.6)
    sample_rows: int = choice(0, 0, MOST_ROWS)
    sample_over: Length = choice(20.0, 5, 300)
    sample_took: OptionalLength = choice(None, 10, 30000)

    joins: ClassVar[Role] = "link"

    # Rows that are woven already, where the piece goes on from there.
    _done: SoFar | None = PrivateAttr(default=None)

    def going_on(self, so_far: SoFar) -> Self:
        """Return it with rows that are woven already: they tell how it comes out."""
        found = self.model_copy()
        found._done = so_far
        return found

    @property
    def done(self) -> SoFar | None:
        """The rows that are woven already."""
        return self._done

    @abstractmethod
    def body(self, wires: Palette) -> Body:
        """Return what it comes to in the wires of a palette.

        Raises:
            Refusal: choices from which it can't be made.
        """

    def working(self, wires: Palette) -> Wire:
        """Return the wire that it is worked with: its own, else the winding wire of the piece."""
        return wires.of("winding", self.wire, usual=USUAL_FINE_MM)

    @property
    def sample(self) -> Sample | None:
        """What the maker wove, None where nothing was counted. Raises Refusal for wire that went
        into no rows."""
        if not self.sample_rows:
            if self.sample_took is not None:
                got = Mm(self.sample_took)
                raise Refusal("sample_uncounted", got=got, field="sample_rows")
            return None
        return Sample(self.sample_rows, self.sample_over, self.sample_took)

    def hand(self, wires: Palette) -> WovenHand | None:
        """Return how the maker weaves it by an earlier sample in such wire; its own sample counts
        before that."""
        return None if self.sample else wires.hand(self.kind, self.working(wires))

    @property
    def counted(self) -> Sample | None:
        """Rows that tell how far one goes on: those woven already, else its sample."""
        if self._done is not None:
            return Sample(self._done.count, self._done.over, None)
        return self.sample

    def pitched(self, usual: float, wires: Palette) -> float:
        """Return the pitch of rows: the maker's own where a sample was counted.

        Args:
            usual: at which they lie side by side [mm].
            wires: of the piece.

        Raises:
            Refusal: a sample with more rows than fit.
        """
        counted = self.counted
        if counted:
            try:
                return counted.pitch_beside(usual)
            except Refusal as refusal:
                raise refusal.at("so_far.count" if self.done else refusal.field) from None
        hand = self.hand(wires)
        return usual * hand.pitch if hand else usual

    @property
    def row_key(self) -> str:
        """The key that its rows are named by."""
        return self.kind

    def unit(self, length: float) -> tuple[float, str]:
        """Return the length of a row [mm], and what it is called."""
        return max(length / max(self.rows, 1), 0.1), say(f"woven.row_of.{self.row_key}")

    @property
    def rows_name(self) -> str:
        """What several of its rows are called."""
        return say(f"woven.rows_of.{self.row_key}")

    def make(self, wires: Palette) -> Made:
        """Return the body as a part. Raises Refusal like ``body``."""
        return Weaving(self, self.body(wires), wires, _face_of(self.one_row, wires)).made

    @property
    def one_row(self) -> Self:
        """It with one row: what repeats in it."""
        return self.model_copy(update={"rows": 1})


# A keystroke changes how many rows there are more often than what one is.
@lru_cache(maxsize=256)
def _face_of(part: Interlaced, wires: Palette) -> Face:
    body = part.body(wires)
    tone = body.wires.working.metal.colour
    seen = face(body.look.cell(), tone)
    return replace(seen, ended=face(body.look.ended[0](), tone)) if body.look.ended else seen


class OnBars(Interlaced):
    """Base of bodies whose bars or cores end in eyes, or bare for a cap."""

    ends: Literal["eyes", "bare"] = "eyes"

    def ending(self, bar: Wire, wires: Palette) -> Ending:
        """Return how its bars end."""
        return Ending(bar, self.pin, self.ends == "bare", wires.in_cap_or(BARE_MM))


class OfRoundBeads(Interlaced):
    """Base of bodies with round beads of one size."""

    grades: ClassVar[str | None] = "bead"

    bead: Length = choice(6.0, 0.5, 40)
    hole: Length = choice(1.0, 0.2, 12)
    stuff: Stuff = "glass"
    colour: Colour = "reed"

    @property
    def one(self) -> OneBead:
        """Its bead."""
        # Read once already, and one that is graded may be of any size.
        return OneBead.model_construct(
            bead=self.bead, hole=self.hole, stuff=self.stuff, colour=self.colour, bead_length=None
        )

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return frozenset((self.stuff,))


@dataclass(frozen=True, eq=False)
class Weaving(Interlacing):
    """A body with so many rows, put together: the part, what it comes to in the wires of a palette,
    and what is seen of a cell."""

    part: Interlaced
    body: Body
    wires: Palette
    face: Face

    def wire_of(self, role: str) -> Wire:
        """Return the wire of a strand by its role: bars are of the body's wire."""
        if role == "lacing":
            return next(use.wire for use in self.body.wires.frame if use.key.endswith("lacing"))
        return self.body.wires.working if role == "working" else self.wires.of("body")

    @property
    def rows(self) -> int:
        """How many rows it has."""
        return self.part.rows

    @cached_property
    def tight(self) -> float:
        """Wire used over wire computed, by the maker's sample: all wires of a row together."""
        sample, hand = self.part.sample, self.part.hand(self.wires)
        if hand and hand.tight:
            return hand.tight
        a_row = sum(one.count * sum(one.takes) / len(one.takes) for one in self.body.wires.worked)
        firm = sum(one.count * one.firm for one in self.body.wires.worked)
        return sample.tightness(a_row, firm) if sample else 1.0

    @property
    def spare(self) -> float:
        """How many times the sum is cut."""
        return 1.0 if self.read else self.part.spare

    @property
    def read(self) -> bool:
        """Whether a sample told what wire goes into it."""
        sample, hand = self.part.sample, self.part.hand(self.wires)
        return bool(sample and sample.wire) or bool(hand and hand.tight)

    @property
    def sampled(self) -> Literal["", "piece", "bench"]:
        """Where its sample comes from: counted for this piece, or for an earlier one."""
        if self.part.sample:
            return "piece"
        return "bench" if self.part.hand(self.wires) else ""

    @cached_property
    def fast(self) -> float:
        """Wire of the turns that hold an end [mm]."""
        b = self.body
        return FAST_TURNS * turn(b.wires.core, b.wires.working.d, b.wires.working.d)

    def every_row(self, one: Takes) -> tuple[float, ...]:
        """Return what a wire takes in every row [mm]."""
        rows = self.rows - 2 * one.left_out
        return tuple(self.taken(one, one.takes[n % len(one.takes)]) for n in range(rows))

    def taken(self, one: Takes, takes: float) -> float:
        """Return what the maker's hand takes in a row of which the sum is known [mm]."""
        return self.tight * (takes - one.firm) + one.firm

    def tails(self, one: Takes) -> tuple[float, float]:
        """Return what a wire wants at its start and at its end [mm]."""
        if one.whole:
            before, behind = one.around
            fold = sum(length for _, length in one.fore) if one.folded else 0.0
            return sum(length for _, length in before) + fold, sum(length for _, length in behind)
        start = FINISH_MM if one.folded else START_MM
        return start + self.fast, FINISH_MM + self.fast

    def shares(self, one: Takes) -> tuple[Share, ...]:
        """Return how the rows are shared out to wires that can be handled."""
        takes = tuple(self.spare * row + one.uneven for row in self.every_row(one))
        if one.whole:
            return (Share(0, len(takes), sum(takes)),)
        done, most = self.part.done, max(self.body.wires.worked, key=lambda w: max(w.takes))
        tails = (self.tails(one)[0] + one.start, self.tails(one)[1] + one.end)
        if done is not None and done.left is not None and one is most:
            return going_on(takes, tails, self.wires.handled, done)
        return shared_out(takes, sum(tails), self.wires.handled)

    def _use(
        self, one: Takes, share: Share, quantity: int, strokes: tuple[Stroke, ...], name: str
    ) -> WireUse:
        """Return the wires that go over as many rows."""
        if one.whole:
            return self._whole(one, share, strokes)
        b = self.body
        bent = Wrap(turns=1, core=b.wires.core, label="woven")
        once = turn(b.wires.core, b.wires.working.d, b.wires.working.d)
        takes = sum(self.every_row(one)[share.first : share.first + share.rows])
        looser = share.takes - takes
        first = one.start and share.first == 0
        last = one.end and share.first + share.rows == self.rows - 2 * one.left_out
        started = (("start_wraps", (Straight(length=one.start),)),) if first else ()
        ended = (("end_wraps", (Straight(length=one.end),)),) if last else ()
        start, finish = self.tails(one)
        return WireUse(
            name,
            b.wires.working,
            (
                ("tail_start", (Straight(length=start),)),
                *started,
                ("rows", (bent, Straight(length=max(takes - once, 0.0)))),
                *((("looser", (Straight(length=looser),)),) if looser > 1e-9 else ()),
                *ended,
                ("tail_finish", (Straight(length=finish),)),
            ),
            quantity=quantity,
            shown=strokes,
            woven=True,
            **self._by_technique(one, takes, looser, share.rows),
        )

    def _whole(self, one: Takes, share: Share, strokes: tuple[Stroke, ...]) -> WireUse:
        """Return the wires that go all along the body."""
        takes = sum(self.every_row(one))
        looser = share.takes - takes
        before, behind = one.around
        half = (("rows", (Straight(length=takes / 2),)),)
        fold = tuple((key, (Straight(length=length),)) for key, length in one.fore)
        rows = (*half, *fold, *half) if one.folded else (("rows", (Straight(length=takes),)),)
        return WireUse(
            one.key,
            self.body.wires.working,
            (
                *((key, (Straight(length=length),)) for key, length in before),
                *rows,
                *((("looser", (Straight(length=looser),)),) if looser > 1e-9 else ()),
                *((key, (Straight(length=length),)) for key, length in behind),
            ),
            quantity=one.count,
            shown=strokes,
            woven=True,
            runs=one.runs,
            **self._by_technique(one, takes, looser, share.rows),
        )

    def _by_technique(self, one: Takes, takes: float, looser: float, rows: int) -> dict[str, Any]:
        """Return what of a wire is in the maker's hand: by the sum, and as it is cut for."""
        firm = one.firm * rows
        by_sum = max(0.0, takes - firm) / self.tight
        return {
            "technique": self.part.kind,
            "by_sum": by_sum,
            "cut_for": max(0.0, takes - firm) + looser,
        }

    def _working(self, strokes: tuple[Stroke, ...]) -> Iterator[WireUse]:
        """Yield the working wires, alike ones once."""
        for one in self.body.wires.worked:
            shares = self.shares(one)
            alike = Counter(_like(one, share, self.rows) for share in shares)
            first = {_like(one, share, self.rows): share for share in reversed(shares)}
            for n, (key, count) in enumerate(alike.items()):
                name = one.key if n == 0 else f"{one.key}~{n + 1}"
                yield self._use(one, first[key], count * one.count, strokes, name)

    def _bought(self) -> tuple[Bought, ...]:
        counts: Counter[OneBead] = Counter()
        by_turns = self.body.wires.beads
        b = self.body
        for n in range(self.rows):
            at_end = (
                b.look.ended is not None and not b.look.left_out <= n < self.rows - b.look.left_out
            )
            for one in b.look.ended[1] if b.look.ended and at_end else by_turns[n % len(by_turns)]:
                counts[one.model_copy(update={"times": 1})] += one.times
        return tuple(bought_bead(one, count) for one, count in counts.items())

    def _steps(self, wires: int) -> tuple[Step, ...]:
        """Return its steps with what they take: the rows theirs, all else by the wires it has."""
        b = self.body
        rows = self.rows * b.work.row_minutes / max(1, len(b.work.row_steps))
        every = self._every_step()
        others = WIRE_MINUTES * wires / max(1, len(every) - len(b.work.row_steps))
        woven = {one.id for one in b.work.row_steps}
        return tuple(
            one.model_copy(
                update={
                    **self._told(one),
                    "minutes": rows,
                    "cautions": (*one.cautions, "kinks"),
                    "does": ("beads",) if any(b.wires.beads) else (),
                }
            )
            if one.id in woven
            else one.model_copy(update={"minutes": others})
            for one in every
        )

    @property
    def going(self) -> frozenset[str]:
        """The steps at which its rows grow, by id."""
        return frozenset(("woven_join", *(one.id for one in self.body.work.row_steps)))

    def _told(self, one: Step) -> dict[str, Any]:
        """Return what a step of its rows says, with how many are left."""
        done = self.part.done
        if done is None:
            return {}
        more = max(0, self.rows - done.count)
        says = say("step.so_far", done=done.count, more=more, in_all=self.rows, says=one.says)
        return {"says": says, "figures": {**one.figures, "more": float(more)}}

    def _every_step(self) -> tuple[Step, ...]:
        b = self.body
        worked = max(b.wires.worked, key=lambda one: len(self.shares(one)))
        shares = self.shares(worked)
        joins = [share.first + worked.left_out for share in shares[1:]]
        join = part_step(
            "woven_join",
            cautions=("ends",),
            check=True,
            wires=len(shares),
            after=", ".join(map(str, joins)),
            start=START_MM,
            finish=FINISH_MM,
            turns=FAST_TURNS,
        )
        return (*b.work.begin, *b.work.row_steps, *((join,) if joins else ()), *b.work.finish)

    def _advice(self) -> tuple[Advice | None, ...]:
        b = self.body
        sum_ = sum(one.count * sum(self.every_row(one)) for one in b.wires.worked)
        return (*b.advice, woven_by_sum(sum_, self.part.spare) if self.spare != 1.0 else None)

    @property
    def _eyes_wide(self) -> float:
        """How wide its ends are over all their eyes [mm]."""
        ends = self.body.size.ends or ()
        eyes = self.part.pin + 2 * self.body.wires.core
        return max((one.span for one in ends), default=-eyes) + eyes

    @property
    def made(self) -> Made:
        """The body as a part."""
        b = self.body
        long = self.rows * b.size.pitch
        behind, before = self.face.along(self.rows, b.size.before + b.size.first, b.look.left_out)
        strokes = (*behind, *b.look.frame_strokes, *before, *b.look.over)
        working = tuple(s for s in (*behind, *before) if s.part == "wire")
        wires = tuple(self._working(working))
        stuffs = {one.stuff for row in b.wires.beads for one in row}
        return Made(
            length=b.size.before + long + b.size.behind,
            lies=b.size.lies,
            thickness=b.size.thickness,
            width=max(b.size.width, self._eyes_wide),
            ends=b.size.ends,
            wires=(*b.wires.frame, *wires),
            bought=self._bought(),
            holds=b.holds,
            strokes=strokes,
            steps=self._steps(sum(one.quantity for one in wires)),
            minutes=self.rows * b.work.row_minutes
            + WIRE_MINUTES * sum(one.quantity for one in wires),
            brittle=bool(stuffs & BRITTLE),
            # Beads lie straight, each by itself.
            pieces=self.rows if b.size.lies == "bead" else 1,
            advice=self._advice(),
            bare=None if b.size.ends else (b.size.width, b.size.thickness),
            hooked=b.size.hooked,
            weaving=self,
            lengthwise=b.wires.lengthwise,
        )


def _like(one: Takes, share: Share, rows: int) -> tuple[int, float, bool, bool]:
    """Return what wires have in common that are cut alike, in a body of so many rows."""
    last = share.first + share.rows == rows - 2 * one.left_out
    first = share.first == 0
    return share.rows, round(share.takes, 6), bool(one.start) and first, bool(one.end) and last


def passes(beads: Iterable[OneBead], wire: float, times: int, field: str = "hole") -> None:
    """Refuse beads whose hole does not pass the working wire as often as the work takes it through.

    Args:
        beads: of the body.
        wire: d [mm].
        times: that it goes through each.
        field: in which they stand.

    Raises:
        Refusal: a hole narrower than all passes and a tenth; common practice.
    """
    for one in beads:
        if one.hole < times * wire + ROOM_MM - 1e-9:
            least = times * wire + ROOM_MM
            raise Refusal("hole_woven", got=Mm(one.hole), field=field, least=least, times=times)


def at_height(use: WireUse, y: float) -> WireUse:
    """Return a wire that lies so high in the picture [mm]."""
    return replace(use, at=(use.at[0], y))

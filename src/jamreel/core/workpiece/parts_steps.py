"""The order of work of a piece of parts: cutting, every part and its joining, trying, closing."""

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from jamreel.core.bench.steps import Asked, Opening, Step, once_each, step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.base import Weaving
from jamreel.core.makeup.compose import STRING_RUN, Composition
from jamreel.core.makeup.loops import Loops, loops_of
from jamreel.core.makeup.sequence import CLOSURE, RINGS, STRING, Entry, MakeUp
from jamreel.core.making.known import Declared, known_order, known_walk
from jamreel.core.making.order import Order, Round, in_one
from jamreel.core.making.things import CLOSING, MIDDLE, Sort, Things, things_of
from jamreel.core.making.walk import LAST_IN
from jamreel.core.parts.base import Made
from jamreel.core.words import catalogue, say, voice
from jamreel.core.workpiece.steps import press_in_step
from jamreel.core.workpiece.straight import StraightWire
from jamreel.core.workpiece.stringing import LAST_END, STRINGING, strung_steps


@dataclass(frozen=True)
class Trial:
    """How the length is tried before the piece is closed: what is counted, by its name and length
    [mm], and whether it is counted on both sides at once."""

    name: str
    unit: float
    both: bool

    @property
    def change(self) -> str:
        """What may still be changed, and by how much."""
        if self.both:
            return say("step.composed.change.sides", name=self.name, both=2 * self.unit)
        return say("step.composed.change.one", name=self.name, unit=self.unit)


def order_of_work(
    makeup: MakeUp,
    laid: Composition,
    wires: Sequence[StraightWire],
    worn: tuple[str, ...],
    forms: tuple[Step, ...] = (),
    sets: int = 1,
    trial: Trial | None = None,
    loops: Loops | None = None,
    bends: tuple[Step, ...] = (),
) -> tuple[Step, ...]:
    """Return the steps of a composed piece.

    Args:
        makeup: as written down.
        laid: the piece laid out.
        wires: that it is cut from.
        worn: cautions that stand at the try-on.
        forms: how the whole is bent once it is threaded.
        sets: how often the whole is made, 2 for a pair.
        trial: how its length is tried, None for what has none to try.
        loops: what hangs in which loop of it, where that is known.
        bends: how the finished piece is bent to its wearer.

    Raises:
        Refusal: ends that no order can join.
    """
    strung = strung_steps(makeup, hard=laid.string.metal.hard) if laid.runs else ()
    things = things_of(laid, loops or loops_of(laid), strung)
    order = known_order(things, trial is not None, voice())
    ways = {one.id: one.done for one in makeup.entries if _shows_early(one)}
    work = work_of(laid, things, order, forms, sets, trial, ways)
    broken = known_walk(things, order, Declared(work), trial is not None)
    if broken is not None:
        where = broken.thing or laid.closure_name
        raise Refusal("law_broken", field="piece.entries", got=where, why=say(f"law.{broken.law}"))
    steps = (
        *_cutting(wires, makeup.counted_off),
        step("composed.lay_out", "form", check=True, finished=laid.finished),
        *once_each(work),
        *bends,
        step("composed.try_on", "fit", cautions=worn, check=True),
        press_in_step(),
    )
    silent = sum(kind.made.minutes * kind.times for kind in laid.kinds if not kind.made.steps)
    return _with_minutes(steps, sets * silent)


def _shows_early(entry: Entry) -> bool:
    """Return whether the first few of an entry tell how long all of it will be."""
    woven = entry.part is not None and entry.part.counted_in == "rows"
    return entry.countable and (woven or entry.times >= SHOWS_EARLY)


def _with_minutes(steps: tuple[Step, ...], more: float) -> tuple[Step, ...]:
    """Return steps with the minutes of what has none of its own: beads are strung, or laid out."""
    at = next(
        (n for n, one in enumerate(steps) if one.work in STRINGING),
        next(n for n, one in enumerate(steps) if one.work == "composed.lay_out"),
    )
    longer = steps[at].model_copy(update={"minutes": steps[at].minutes + more})
    return (*steps[:at], longer, *steps[at + 1 :])


def _cutting(
    wires: Sequence[StraightWire], counted_off: Callable[[Cut, Wire], Step | None]
) -> Iterator[Step]:
    """Yield cutting; what is counted off a coil by its turns has a step of its own."""
    strings = [one for one in wires if one.cut.id.endswith(f"/{STRING_RUN}")]
    off_coil = {one.cut.id: counted_off(one.cut, one.wire) for one in strings}
    yield from (counted for counted in off_coil.values() if counted is not None)
    wires = [one for one in wires if off_coil.get(one.cut.id) is None]
    if not wires:
        return
    hard = any(one.wire.metal.hard for one in wires)
    cautions = ("eyes", "whip", "hard") if hard else ("eyes", "whip")
    pulled = [one for one in wires if one.bent_first]
    if pulled:
        sorts = in_one(one.cut.label for one in pulled)
        pull = sum(one.cut.length_mm for one in pulled)
        yield step(
            "composed.off_reel", "cut", cautions=cautions, check=True, sorts=sorts, pull=pull
        )
    cut = [one for one in wires if not one.bent_first]
    if not cut:
        return
    count = sum(one.cut.quantity for one in cut)
    sizes = len({(one.cut.stock, round(one.cut.length_mm, 2), one.cut.label) for one in cut})
    key = (
        "composed.cut_one" if count == 1 else "composed.cut_alike" if sizes == 1 else "composed.cut"
    )
    yield step(key, "cut", name="cut", cautions=cautions, check=True, count=count, sizes=sizes)
    yield step("composed.ends", "cut", cautions=("ends",))


def work_of(
    laid: Composition,
    things: Things,
    order: Order,
    forms: tuple[Step, ...] = (),
    sets: int = 1,
    trial: Trial | None = None,
    ways: Mapping[str, int] | None = None,
) -> tuple[Step, ...]:
    """Return the steps between cutting and the last try-on.

    Args:
        laid: the piece laid out.
        things: of it.
        order: in which they are made.
        forms: how the whole is bent once it is threaded.
        sets: how often the whole is made.
        trial: how its length is tried, None for what has none to try.
        ways: entries that can be told how far they are, and how many of each are made already.
    """
    return tuple(_Work(laid, things, order, forms, sets, trial, ways or {}).steps())


class _Work:
    """What is done between cutting and the last try-on."""

    def __init__(
        self,
        laid: Composition,
        things: Things,
        order: Order,
        forms: tuple[Step, ...],
        sets: int,
        trial: Trial | None,
        ways: Mapping[str, int],
    ) -> None:
        self.laid, self.things, self.order = laid, things, order
        self.ways = ways
        self.tops = {kind.key: kind.top for kind in laid.kinds if kind.top in ways}
        self.forms, self.sets, self.trial = forms, sets, trial
        self.counts = [len(row) for row in things.members]

    def steps(self) -> Iterator[Step]:
        """Yield the steps: the body, trying its length, what closes it."""
        halves = self._halves()
        # Own caps are made before the body is cut, which is done with the cap held on; both are
        # made before either is glued: no flame near glue.
        yield from (one for made, _ in halves for one in made)
        body = [one for one in self.order.rounds if not self._closes(one)]
        at = self._tried_at(body)
        held: tuple[Step, ...] = ()
        for made in body[: at + 1]:
            rows = self._of_round(made)
            if made is body[at]:
                rows, held = self._parted(made, rows)
            yield from rows
        yield from self._slid_on()
        if any(part.drop for part in self.laid.parts):
            yield step("composed.drops", "form", check=True)
        yield from self._tried(held=bool(held))
        yield from held
        for made in body[at + 1 :]:
            yield from self._of_round(made)
        if self.order.left is not None:
            what = self.order.left_name
            side = (self.order.left[1],)
            last_in = step("composed.last_in", "form", name=LAST_IN, check=True, what=what)
            yield last_in.model_copy(update={"takes_in": side, "shuts": side})
        yield from (one for _, put_on in halves for one in put_on)

    def _halves(self) -> list[tuple[list[Step], list[Step]]]:
        """Return the steps of both halves of the closure: what is made before the body, which are
        caps, and what is put on in the end."""
        found = []
        for made in self.order.rounds:
            if self._closes(made):
                rows = self._of_round(made)
                at = next((n for n, one in enumerate(rows) if "settles" in one.does), 0)
                found.append((rows[:at], rows[at:]))
        return found

    def _tried_at(self, body: Sequence[Round]) -> int:
        """Return the round of the body in which its length is tried: that of the one thing that is
        woven, where only rings follow at its ends, else the last."""
        sorts = self.things.sorts
        woven = [
            n
            for n, made in enumerate(body)
            if any(isinstance(sorts[sort].made.weaving, Weaving) for sort in made.sorts)
        ]
        return woven[0] if self.trial and self._lone and woven else len(body) - 1

    @property
    def _lone(self) -> bool:
        """Whether one thing is all of the body, but for rings at its ends."""
        lying = (one for one in self.laid.parts if not one.drop and one.unit.top != RINGS)
        return sum(1 for _ in lying) == 1

    def _slid_on(self) -> Iterator[Step]:
        """Yield sliding on what has to be on before the ends are shut."""
        for pair in self.things.pairs:
            if pair.slides:
                drop, host = (
                    self.things.sorts[self.things.sort_of[end[0]]] for end in (pair.one, pair.other)
                )
                slid = step("join.thread", "form", check=True, what=host.name)
                yield slid.model_copy(update={"id": f"{drop.keys[0]}/slide_on"})

    def _tried(self, *, held: bool) -> Iterator[Step]:
        """Yield trying the length."""
        if self.trial is None:
            return
        closes = self.laid.fastened.length > 0
        key = ("half_held" if held else "half") if closes else ("half_on" if held else "half_laid")
        values: dict[str, Any] = {"body": self.laid.body, "finished": self.laid.finished}
        change = self.trial.change
        yield step(f"composed.{key}", "form", name="half", check=True, change=change, **values)

    def _closes(self, one: Round) -> bool:
        """Return whether a round belongs to closing the piece, once its length was tried."""
        sorts = [self.things.sorts[n] for n in one.sorts]
        later = self.order.rounds[self.order.rounds.index(one) + 1 :]
        return all(set(sort.keys) & CLOSING for sort in sorts) and not any(
            set(self.things.sorts[n].keys) - CLOSING for other in later for n in other.sorts
        )

    def _parted(self, one: Round, rows: list[Step]) -> tuple[list[Step], tuple[Step, ...]]:
        """Return the steps of the last of the body before its length is tried, and those after:
        the last end of a string, the ends of what is woven in one piece."""
        sort = self.things.sorts[one.sorts[-1]]
        if STRING in sort.keys:
            at = next(n for n, row in enumerate(rows) if row.id == LAST_END)
            return rows[:at], tuple(rows[at:])
        # Into a cap each end of a cord goes by itself, whatever hangs between.
        ends_last = self._lone or (sort.made.bare is not None and not rows[0].round)
        if self.trial is None or not ends_last or sort.made.weaving is None:
            return rows, ()
        ends = (n for n, row in enumerate(rows) if "finishes" in row.does)
        made = (n for n, row in enumerate(rows) if row.makes and set(row.makes) != {"left"})
        at = min(next(ends, len(rows)), next(made, len(rows)))
        return rows[:at], tuple(rows[at:])

    def _of_round(self, made: Round) -> list[Step]:
        """Return the steps of a round; where it goes thing by thing, that is said at its first."""
        rows = [row for n in made.sorts for row in self._of_sort(n)]
        count = max((row.times for row in rows), default=1)
        if count < 2 or not self.order.in_turn(made):
            return rows
        name = rows[0].id.partition("/")[0]
        rows = [row.model_copy(update={"round": name}) for row in rows]
        says = say("step.in_turn", count=count, says=rows[0].says)
        return [rows[0].model_copy(update={"says": says}), *rows[1:]]

    def _of_sort(self, number: int) -> Iterator[Step]:
        """Yield the steps of a sort, with what is hung in where; what is made alike for several
        entries is one step of them all."""
        sort = self.things.sorts[number]
        if STRING in sort.keys:
            yield from self._strung(number)
            return
        count = self.counts[number]
        closing = bool(set(sort.keys) & CLOSING)
        keys = (CLOSURE,) if closing else sort.keys
        part = say("part.times", name=sort.name, count=count) if count > 1 else sort.name
        rows = list(self._hung(number, sort))
        way = self._way(sort)
        done = 0 if sort.made.weaving else self.ways.get(way, 0)
        if done and rows:
            one, times = rows[0]
            more = max(0, count - done)
            says = say("step.so_far", done=done, more=more, in_all=count, says=one.says)
            rows[0] = one.model_copy(update={"says": says}), times
        asked = _asks(sort.made)
        weaving = sort.made.weaving
        woven = weaving.going if isinstance(weaving, Weaving) else None
        kinds = {kind.key: kind.times for kind in self.laid.kinds} if len(keys) > 1 else {}
        for n, (one, times) in enumerate(timed(rows, sort.made.minutes, count * self.sets, count)):
            own = one.model_copy(
                update={
                    "id": f"{keys[0]}/{one.id}",
                    "asks": (*one.asks, *(asked if n == len(rows) - 1 else ())),
                    "of": tuple(f"{key}/{one.id}" for key in keys) if len(keys) > 1 else (),
                    "counts": tuple(kinds[key] for key in keys) if len(keys) > 1 else (),
                    "title": say("step.of_part", part=part, title=one.title),
                    "sort": sort.sort,
                    "figures": {**one.figures, "count": times},
                    "thing": sort.keys[0],
                    "way": way if woven is None or one.id in woven else "",
                }
            )
            yield own

    def _way(self, sort: Sort) -> str:
        """Return the entry of which it may be told at a sort's steps how far it is, '' for none:
        what is strung shows on its string only."""
        shows = sort.made.ends is not None or isinstance(sort.made.weaving, Weaving)
        return self.tops.get(sort.keys[0], "") if shows and sort.made.length else ""

    def _hung(self, number: int, sort: Sort) -> Iterator[tuple[Step, int]]:
        """Yield the steps of one of a sort and of how many things each is: where nothing is hung
        in an opening, the step that would take it falls away."""
        count = self.counts[number]
        left = self.order.left
        lefts = left[1] if left and self.things.sort_of[left[0]] == number else None
        before: dict[int, list[Opening]] = {}
        for side, mouth in sort.mouths.items():
            if mouth.takes is not None:
                before.setdefault(mouth.takes, []).append(side)
        for at in range(len(sort.steps) + 1):
            one = sort.steps[at] if at < len(sort.steps) else None
            sides = before.get(at, [])
            taking = self.order.taking(number, sides)
            times = len(taking)
            told = [side for side in sides if sort.mouths[side].told]
            if times and not told:
                shut = any(sort.mouths[side].shut is not None for side in sides)
                key = "join.before" if shut else "join.middle" if MIDDLE in sides else "join.open"
                name = f"take_{sides[0]}"
                what = self._what(number, sides)
                one_in = step(key, "form", name=name, check=True, what=what)
                one_in = one_in.model_copy(update={"takes_in": tuple(sides)})
                yield self._not_for(one_in, number, taking), times
            if one is None:
                continue
            if told:
                if times:
                    said = saying(one, self._what(number, sides))
                    yield self._not_for(said, number, taking), times
                elif f"step.{one.work}_alone.says" in catalogue("en"):
                    # A string goes through what it makes.
                    yield _alone(one), count
                continue
            if lefts is None or left is None or lefts not in one.shuts:
                yield one, count
            elif count > 1:
                others = set(self.things.members[number]) - {left[0]}
                yield self._not_for(one, number, others), count - 1

    def _not_for(self, one: Step, number: int, things: Collection[int]) -> Step:
        """Return a step with the parts of its round that it is not for, where there is a round."""
        made = next(made for made in self.order.rounds if number in made.sorts)
        if not self.order.in_turn(made):
            return one
        row = [thing for thing in made.things if self.things.sort_of[thing] == number]
        every = enumerate(row * self.sets, 1)
        skips = tuple(n for n, thing in every if thing not in things)
        if not skips:
            return one
        key = "step.from_second" if skips == (1,) else "step.skips"
        parts = ", ".join(map(str, skips[:MOST_TOLD])) + (" …" if len(skips) > MOST_TOLD else "")
        return one.model_copy(update={"skips": skips, "says": say(key, parts=parts, says=one.says)})

    def _what(self, number: int, sides: Sequence[Opening]) -> str:
        """Return what is hung in openings of a sort, in words."""
        found = (self.order.taken.get((number, side)) for side in sides)
        return in_one(name for one in found if one for name in one.names)

    def _strung(self, number: int) -> Iterator[Step]:
        """Yield stringing, forming what was strung, and closing both ends."""
        sort = self.things.sorts[number]
        for each in sort.steps:
            one = each.model_copy(update={"thing": STRING})
            if one.id == LAST_END:
                yield from self.forms
            side: Opening = "right" if one.id == LAST_END else "left"
            mouth = sort.mouths.get(side)
            if mouth is not None and one.takes_in:
                what = self._what(number, (side,))
                yield saying(one, what) if what else _alone(one)
            else:
                yield one
        for side, mouth in sort.mouths.items():
            if self.order.taking(number, (side,)) and not mouth.told:
                what = self._what(number, (side,))
                one = step("join.open", "form", name=f"string_{side}", check=True, what=what)
                yield one.model_copy(update={"takes_in": (side,), "thing": STRING})


def saying(one: Step, what: str) -> Step:
    """Return a step that takes something in, saying what.

    Args:
        one: the step, said of any neighbour.
        what: hangs in it.
    """
    values = {**one.figures, "what": what}
    return one.model_copy(
        update={
            "title": say(f"step.{one.work}.title", **values),
            "says": say(f"step.{one.work}.says", **values),
        }
    )


def _alone(one: Step) -> Step:
    """Return a step of a loop in which nothing hangs."""
    words = f"step.{one.work}_alone"
    said = {
        "title": say(f"{words}.title", **one.figures),
        "says": say(f"{words}.says", **one.figures),
    }
    return one.model_copy(update=said)


def _asks(made: Made) -> tuple[Asked, ...]:
    """Return what is known when a part is done: what was snipped off, and how its rows came out."""
    wired = any(not use.off_coil for use in made.wires)
    rows: tuple[Asked, ...] = ("rows",) if isinstance(made.weaving, Weaving) else ()
    return (*rows, *(("left",) if wired else ()))


def timed(
    steps: Sequence[tuple[Step, int]], minutes: float, times: int, of: int = 1
) -> Iterator[tuple[Step, int]]:
    """Yield the steps of a part with what they take, and of how many things each is.

    Args:
        steps: of one, each with how many of the part it is done for.
        minutes: that one takes in all [min].
        times: how many are made.
        of: how many of them the second figure of each step counts from.

    Source: what no step says for itself is shared out alike; common practice, no source.
    """
    said = sum(one.minutes for one, _ in steps)
    silent = sum(one.minutes == 0 for one, _ in steps)
    rest = max(0.0, minutes - said) / silent if silent else 0.0
    for one, count in steps:
        done = times * count // of
        yield (
            one.model_copy(
                update={"times": done * one.times, "minutes": done * (one.minutes or rest)}
            ),
            count,
        )


# Of so many parts in the line the first few tell how long all will be; common practice.
SHOWS_EARLY = 4
# Of the parts that a step is not for, so many are told by number.
MOST_TOLD = 6

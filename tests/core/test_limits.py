"""Nothing that is sent costs more than is stated: limits of the input keep it so."""

import json
import random
import subprocess
import sys
from collections.abc import Iterator
from typing import Any

import pytest

from jamreel.core.cutting.nest import nest
from jamreel.core.cutting.problem import Rack, Wanted
from jamreel.core.errors import Refusal
from jamreel.core.makeup.sequence import MOST_KINDS, MOST_TIMES, MOST_UNITS, Entry, laid_out
from jamreel.core.parts import registered_parts
from jamreel.core.parts.bead import StrungBead
from jamreel.core.parts.beads import MOST_ALIKE, MOST_LISTED
from jamreel.core.parts.own_shape import MOST_TURNS, OwnMove, own_shape
from jamreel.core.parts.tassel import MOST_SORTS
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from jamreel.core.units import FURTHEST_MM, parse_length
from tests.conftest import ROOT, samples
from tests.core.families import example
from tests.core.limits import MOST_CALLS, MOST_MB
from tests.counting import calls

Brief = dict[str, Any]
Typed = dict[str, Any]


@pytest.fixture
def asked() -> Iterator[Any]:
    """A process of its own that plans what it is given."""
    child = subprocess.Popen(
        [sys.executable, "-m", "tests.core.limits"],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
        cwd=ROOT,
    )

    def ask(brief: Brief) -> Typed:
        assert child.stdin is not None
        assert child.stdout is not None
        child.stdin.write(json.dumps(brief) + "\n")
        child.stdin.flush()
        found: Typed = json.loads(child.stdout.readline())
        return found

    yield ask
    child.kill()


def bracelet(entries: list[Typed], **more: Any) -> Brief:
    brief = example("linked-bracelet")
    brief["piece"] = {"kind": "linked_bracelet", "counted": False, "entries": entries, **more}
    return brief


def varied(kind: str, n: int, **more: Any) -> Typed:
    """A part unlike the others of its kind."""
    cls = registered_parts()[kind]
    usual = cls.model_validate({})
    for name, (low, high) in cls.limits().items():
        value = getattr(usual, name)
        if isinstance(value, float):
            return {"kind": kind, name: round(min(max(value + n * 1e-4, low), high), 5), **more}
    return {"kind": kind, **more}


def grouped(parts: list[Typed], each: int = 20) -> list[Typed]:
    rows = [parts[i : i + each] for i in range(0, len(parts), each)]
    return [{"group": [{"part": part} for part in row]} for row in rows]


BEADS = [{"bead": 1 + i / 10, "times": 3} for i in range(MOST_LISTED)]
MOVES = [
    {"move": ("wrap", "spiral", "straight")[i % 3], "turns": 1.4, "pin": 60} for i in range(40)
]
SECTIONS = [{"row": BEADS[:1], "times": 40}] * 3


def at_the_limit(n: int) -> list[tuple[str, Brief, bool]]:
    """Briefs with so many kinds of the costliest parts, and the same once too many."""
    chain = {"part": {"kind": "chain", "links": 60}}
    found = []
    for name, part in (
        ("own links", {"kind": "own_link", "moves": MOVES}),
        ("tassels", {"kind": "tassel", "sections": SECTIONS, "strands": 24}),
        ("swags", {"kind": "swag", "strands": 6, "link": {"kind": "linked_bead"}}),
        ("linked beads", {"kind": "linked_bead", "row": BEADS}),
    ):
        parts = [{**varied(str(part["kind"]), i), **part} for i in range(n)]
        for i, one in enumerate(parts):
            one |= {"name": str(i)} if name == "own links" else {}
            one |= {"tail": 10 + i / 100} if name == "tassels" else {}
            one |= {"span": 60 + i / 10} if name == "swags" else {}
        found.append((name, bracelet([*grouped(parts), chain]), n + 1 > MOST_KINDS))
    return found


def test_the_costliest_kinds_at_the_limit_and_over_it(asked: Any) -> None:
    for n in (MOST_KINDS - 1, MOST_KINDS, 600)[: samples(2, 3)]:
        for name, brief, over in at_the_limit(n):
            found = asked(brief)
            assert max(found["calls"]) < MOST_CALLS, (name, n, found)
            assert found["mb"] < MOST_MB, (name, n, found)
            assert found["kb"] < 6_000, (name, n, found)
            if over:
                assert found["field"] in ("piece.entries", "brief"), (name, n, found)


def test_many_knobs_many_repeats_and_groups_of_nothing(asked: Any) -> None:
    nothing = [{"part": {"kind": "bead"}, "times": 0}] * 9
    for _ in range(4):
        nothing = [{"group": nothing, "times": MOST_TIMES}]
    even = {"group": [{"part": {"kind": "bead"}}] * 2, "evenly": True}
    tassels = [{"part": {"kind": "tassel", "tail": i / 40}} for i in range(1200)]
    cases: dict[str, list[Typed]] = {
        "60 chains of 20": [{"part": varied("chain", i), "times": 20} for i in range(60)],
        "60 linked beads": [{"part": varied("linked_bead", i), "times": 1} for i in range(60)],
        "59 groups of nothing": nothing * 59,
        "59 evenly": [{**even, "times": 400, "fillers": 400}] * 59,
        "all growing": [{"part": {"kind": "bead"}, "graduate_to": 9, "times": 400}] * 3,
        "1200 tassels": [{"group": tassels[i : i + 40]} for i in range(0, 1200, 40)],
    }
    for name, entries in cases.items():
        found = asked(bracelet(entries))
        assert max(found["calls"]) < MOST_CALLS, (name, found)
        assert found["mb"] < MOST_MB, (name, found)


def drawn(pick: random.Random) -> Brief:
    """A brief drawn at random, with numbers at and over their limits."""
    usual = {kind: cls.model_validate({}) for kind, cls in registered_parts().items()}
    # Enough to be over every limit but that of length, which costs nothing to see.
    left = [pick.choice([20, 150])]

    def part() -> Typed:
        kind = pick.choice(list(usual))
        cls = registered_parts()[kind]
        found: Typed = {"kind": kind}
        # Of a sample both figures are known, or none: half of one is refused before anything costs.
        sampled = pick.random() < 0.3
        for name, (low, high) in cls.limits().items():
            if sampled if name.startswith("sample") else pick.random() < 0.3:
                whole = isinstance(getattr(usual[kind], name), int)
                over = high * 1.01 if pick.random() < 0.01 else high
                value = pick.choice([low, over, pick.uniform(low, high)])
                found[name] = round(value) if whole else value
        if "row" in cls.model_fields and pick.random() < 0.3:
            found["row"] = [{"bead": 2 + i, "times": MOST_ALIKE} for i in range(MOST_LISTED)]
        return found

    def entry(deep: int) -> Typed:
        over = pick.random() < 0.03
        times = pick.choice([0, 1, 1, 2, 7, 40, MOST_TIMES + over])
        left[0] -= 1
        if deep < 5 and left[0] > 0 and pick.random() < 0.2:
            many = pick.choice([1, 2, 12])
            return {"group": [entry(deep + 1) for _ in range(many)], "times": times}
        return {"part": part(), "times": times}

    entries = [entry(0) for _ in range(pick.choice([1, 2, 3, 12, 40]))]
    return bracelet(entries, mirrored=pick.random() < 0.3, passes=pick.choice([1, 3]))


def test_random_briefs_at_and_over_every_limit(asked: Any) -> None:
    pick = random.Random(11)
    planned = 0
    count = samples(30, 150)
    for n in range(count):
        brief = drawn(pick)
        found = asked(brief)
        assert max(found["calls"]) < MOST_CALLS, (n, found)
        assert found["mb"] < MOST_MB, (n, found)
        planned += not found["field"]
    # Not all of them are turned away at the door.
    assert planned >= count / 8


def test_limits_are_where_they_are_said_to_be() -> None:
    bead = Entry(id="a", part=StrungBead(), times=MOST_TIMES)
    many = tuple(bead.model_copy(update={"id": str(i)}) for i in range(MOST_UNITS // MOST_TIMES))
    assert len(laid_out(many)) == MOST_UNITS
    with pytest.raises(Refusal) as refused:
        laid_out((*many, Entry(id="b", part=StrungBead())))
    assert refused.value.key == "too_many_parts"
    assert refused.value.values["most"] == MOST_UNITS
    assert refused.value.got == MOST_UNITS + 1
    unlike = tuple(Entry(id=f"k{i}", part=StrungBead()) for i in range(MOST_KINDS))
    assert len(laid_out(unlike)) == MOST_KINDS
    with pytest.raises(Refusal) as refused:
        laid_out((*unlike, Entry(id="one", part=StrungBead())))
    assert (refused.value.key, refused.value.field) == ("too_many_kinds", "piece.entries")


def test_a_group_of_nothing_is_not_laid_out_at_all() -> None:
    grows = Entry(id="a", part=StrungBead(), times=MOST_TIMES)
    none = Entry(id="g", group=(grows,) * 40, times=0)
    assert laid_out((none,) * 40) == ()


def test_an_own_shape_winds_so_often_and_no_more() -> None:
    one = OwnMove(move="wrap", turns=MOST_TURNS / 2, pin=3)
    straight = OwnMove(move="straight", length=10)
    assert own_shape([one, straight, one], 1.0).length > 0
    with pytest.raises(Refusal) as refused:
        own_shape([one, straight, one, OwnMove(move="bend", degrees=90)], 1.0)
    assert refused.value.key == "too_many_turns"


def test_a_tassel_has_so_many_sorts_of_beads_and_no_more(asked: Any) -> None:
    row = [{"bead": 2 + i / 10} for i in range(MOST_LISTED)]
    for count, field in (
        (MOST_SORTS // MOST_LISTED, ""),
        (MOST_SORTS // MOST_LISTED + 1, "sections"),
    ):
        tassel = {"kind": "tassel", "sections": [{"row": row}] * count}
        found = asked(bracelet([{"part": {"kind": "chain", "links": 60}}], hung=tassel))
        assert found["field"].endswith(field), found


@pytest.mark.parametrize("typed", ["9" * 30, "1000.001 km", "1e9", "9" * 39 + "m", FURTHEST_MM + 1])
def test_a_length_goes_so_far_as_typed_text_and_as_a_number(typed: object) -> None:
    with pytest.raises(Refusal):
        parse_length(typed)
    assert parse_length(FURTHEST_MM) == parse_length(f"{FURTHEST_MM:.0f}") == FURTHEST_MM


@pytest.mark.parametrize("kind", ["reel", "length", "offcut"])
def test_how_much_longer_a_wire_is_than_is_wanted_changes_no_plan(kind: Any) -> None:
    pick = random.Random(5)
    cuts = [Wanted(id=str(i), length=pick.uniform(40, 400)) for i in range(25)]

    def plan(length: float) -> Any:
        racks = [
            Rack(id="long", kind=kind, length=length),
            Rack(id="end", kind="offcut", length=500),
        ]
        return nest(cuts, racks, keep=60)

    near, far = plan(10_000.0), plan(100_000_000.0)
    assert [one.cuts for one in near.laid] == [one.cuts for one in far.laid]
    assert (near.weight, near.bound, near.scrap) == (far.weight, far.bound, far.scrap)
    long = next(one for one in far.laid if one.rack.id == "long")
    assert long.left == pytest.approx(100_000_000.0 - long.used)


def test_wires_of_any_length_are_laid_out_within_their_memory() -> None:
    far = [Rack(id=str(i), kind="length", length=FURTHEST_MM) for i in range(3)]
    plan = nest([Wanted(id=str(i), length=1e8 * i) for i in (1, 2, 3)], far, keep=60)
    assert plan.unplaced == ()
    cuts = samples(1200, 3000)
    many = [Rack(id=f"r{i}", kind="offcut", length=10 + i / 7) for i in range(5000)]
    plan = nest([Wanted(id=str(i), length=60 + i / 9) for i in range(cuts)], many, keep=60)
    assert len(plan.laid) <= 200
    placed = [cut for one in plan.laid for cut in one.cuts]
    assert len(placed) + len(plan.unplaced) == len({*placed, *plan.unplaced}) == cuts


def test_a_row_of_drops_is_looked_through_once() -> None:
    drop = {"kind": "bare_drop"}

    def cost(times: int) -> int:
        brief = example("linked-bracelet")
        entries = [{"part": {"kind": "chain", "links": 40}}, {"part": drop, "times": times}]
        brief["piece"] = {"kind": "linked_bracelet", "counted": False, "entries": entries}
        plan_raw(brief, Shop())
        return calls(lambda: plan_raw(brief, Shop()))

    assert cost(400) < 5 * cost(100)

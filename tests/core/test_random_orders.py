"""Make-ups drawn at random, as a maker would write them: all are planned, or no order joins them.

A maker puts a ring between two things that are bought shut; so does the draw.
"""

import random
from collections import Counter
from itertools import permutations
from typing import Any

import pytest

from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import palette_of
from jamreel.core.makeup.compose import compose
from jamreel.core.makeup.loops import loops_of
from jamreel.core.makeup.sequence import MakeUp
from jamreel.core.making.order import order_of
from jamreel.core.making.things import Things, things_of
from jamreel.core.making.walk import walk
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.workpiece.parts_steps import Trial, work_of
from jamreel.core.workpiece.stringing import strung_steps
from tests.conftest import samples

WIRES = palette_of(WireChoice(size=WireSize(diameter_mm=0.8)))
TRIED = Trial("link", 10.0, False)
RING = {"kind": "jump_ring"}
OPENS: list[dict[str, Any]] = [
    {"kind": "linked_bead"}, {"kind": "linked_bead", "loops": "plain"},
    {"kind": "linked_bead", "stuff": "pearl"}, {"kind": "eye_link"},
    {"kind": "eye_link", "loops": "wrapped"}, {"kind": "curved_link"}, {"kind": "figure_eight"},
    RING, {"kind": "chain", "links": 10, "soldered": False}, {"kind": "split_ring"},
    {"kind": "ladder", "rows": 6}, {"kind": "knot_row"}, {"kind": "bundle"},
]  # fmt: skip
STRUNG: list[dict[str, Any]] = [{"kind": "bead"}, {"kind": "coil_bead"}, {"kind": "spacer_coil"}]
SHUT: list[dict[str, Any]] = [
    {"kind": "chain", "links": 10}, {"kind": "swag"}, {"kind": "bought_ring"},
    {"kind": "finding"}, {"kind": "ring_link"}, {"kind": "jump_ring", "soldered": True},
]  # fmt: skip
DROPS: list[dict[str, Any]] = [
    {"kind": "dangle"}, {"kind": "bare_drop"}, {"kind": "tassel"},
    {"kind": "finding", "hangs": True, "inner": "4"},
]  # fmt: skip
CLOSURES = (
    "spring_clasp", "folded_hook", "crook_hook", "toggle", "s_hook", "bought_clasp",
    "doubled_hook", "bar_pin", "open_ends",
)  # fmt: skip


def entry(pick: random.Random, deep: int = 0) -> dict[str, Any]:
    """A part so many times, or a group; what is shut has a ring behind it each time."""
    times = pick.randint(1, 4)
    if not deep and pick.random() < 0.2:
        inner = [entry(pick, 1) for _ in range(pick.randint(2, 3))]
        return {"group": inner, "times": times}
    if pick.random() < 0.25:
        return {"group": [{"part": pick.choice(SHUT)}, {"part": RING}], "times": times}
    sorts = STRUNG if pick.random() < 0.2 else OPENS
    return {"part": pick.choice(sorts), "times": times}


def make_up(pick: random.Random) -> dict[str, Any]:
    """A make-up of one to five entries, some with drops between, a focal, a pendant, mirrored."""
    rows = []
    for _ in range(pick.randint(1, 5)):
        rows.append(entry(pick))
        if pick.random() < 0.2:
            rows.append({"part": pick.choice(DROPS)})
    kind = pick.choice(CLOSURES)
    if kind == "bar_pin":
        # Both its loops are bought shut.
        rows = [{"part": RING}, *rows, {"part": RING}]
    made: dict[str, Any] = {"entries": rows, "closure": {"kind": kind}}
    made["mirrored"] = pick.random() < 0.3
    if pick.random() < 0.3:
        made["focal"] = pick.choice([*OPENS, {"kind": "bead"}])
    if pick.random() < 0.3:
        made["hung"] = pick.choice(DROPS)
    return made


def things(typed: dict[str, Any]) -> tuple[MakeUp, Things]:
    makeup = MakeUp.model_validate(typed)
    laid = compose(makeup, WIRES)
    return makeup, things_of(laid, loops_of(laid), strung_steps(makeup) if laid.runs else ())


def any_order_joins(found: Things) -> bool:
    """Try every order in which the things can be made: what is made takes what is there.

    A flame is held to nothing that hangs in beads already.
    """
    brittle = [found.sorts[n].made.brittle for n in found.sort_of]
    hot = [found.sorts[n].heats for n in found.sort_of]
    for order in permutations(range(len(found.sort_of))):
        when = {thing: n for n, thing in enumerate(order)}
        for one, other, slides in found.pairs:
            later, there = (one, other) if when[one[0]] > when[other[0]] else (other, one)
            burns = hot[later[0]] and brittle[there[0]]
            if not slides and (burns or not found.takes(*later)):
                break
        else:
            return True
    return False


def test_what_a_maker_writes_down_is_planned() -> None:
    pick = random.Random(1212)
    count = samples(150, 2000)
    told: Counter[str] = Counter()
    for _ in range(count):
        typed = make_up(pick)
        makeup, found = things(typed)
        try:
            order = order_of(found, tried=True)
        except Refusal as refusal:
            told[refusal.key] += 1
            assert len(found.sort_of) > 6 or not any_order_joins(found), typed
            continue
        steps = work_of(compose(makeup, WIRES), found, order, trial=TRIED)
        broken = walk(found, order, steps, tried=True)
        assert broken is None, (broken, typed)
    assert set(told) <= {"neither_opens", "no_order"}
    assert sum(told.values()) <= 0.02 * count, told


def test_what_is_shut_on_both_sides_is_refused_in_every_order() -> None:
    chain = {"part": {"kind": "chain", "links": 10}}
    _, found = things({"entries": [chain, {"part": {"kind": "bought_ring"}}, chain]})
    assert not any_order_joins(found)
    with pytest.raises(Refusal):
        order_of(found, tried=True)

"""What holds for a plan as a whole: cutting, marks, heat, force, finish, try-on, ends, rounds."""

from collections.abc import Callable, Sequence
from typing import Any

import pytest

from jamreel.core.bench.steps import Step
from jamreel.core.making.walk import Broken
from jamreel.core.making.whole import walk_plan
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from tests.core.families import example

FULL = Shop.model_validate({"outfit": {"torch": True, "pickle": True, "mill": True}})
PEARL = frozenset({"pearl"})
NONE: frozenset[str] = frozenset()


def planned(name: str, **own: Any) -> Plan:
    brief = example(name)
    making, piece = own.pop("making", {}), {**brief["piece"], **own}
    return plan_raw({**brief, "piece": piece, "making": making}, FULL)


def walked(
    steps: Sequence[Step], stuffs: frozenset[str] = NONE, cut: dict[str, str] | None = None
) -> Broken | None:
    return walk_plan(steps, cut or {"": "wire"}, tried=True, stuffs=stuffs)


def at(steps: Sequence[Step], name: str) -> int:
    return next(n for n, one in enumerate(steps) if one.id.rpartition("/")[2] == name)


Change = Callable[[list[Step]], list[Step]]


def late(name: str, behind: str) -> Change:
    """Do a step only behind another."""

    def change(steps: list[Step]) -> list[Step]:
        moved = steps.pop(at(steps, name))
        steps.insert(at(steps, behind) + 1, moved)
        return steps

    return change


def early(name: str, before: str) -> Change:
    """Do a step before another already."""

    def change(steps: list[Step]) -> list[Step]:
        moved = steps.pop(at(steps, name))
        steps.insert(at(steps, before), moved)
        return steps

    return change


def without(name: str) -> Change:
    """Leave a step out."""

    def change(steps: list[Step]) -> list[Step]:
        steps.pop(at(steps, name))
        return steps

    return change


def telling(name: str, **wrong: Any) -> Change:
    """Let a step declare something that it isn't, or nothing of what it is."""

    def change(steps: list[Step]) -> list[Step]:
        n = at(steps, name)
        steps[n] = steps[n].model_copy(update=wrong)
        return steps

    return change


CAPS = {
    "entries": [{"part": {"kind": "coil_mesh", "coils": 4}}],
    "closure": {"kind": "end_caps", "cap_of": "tube", "plate": "flat"},
}
PEARLS = {"entries": [{"part": {"kind": "linked_bead", "stuff": "pearl"}, "times": 8}]}
HOOK = {"closure": {"kind": "s_hook"}}
# Piece, what is changed of it, the fault, and the law that it breaks.
FAULTS: list[tuple[str, dict[str, Any], Change, int]] = [
    ("hook-bracelet", {}, late("cut", "hook"), 5),
    ("open-cuff", {}, late("cut", "shape"), 5),
    ("open-cuff", {}, telling("cut", asks=()), 5),
    ("linked-bracelet", {}, late("cut", "first_open"), 5),
    ("hook-bracelet", {}, late("straighten", "mark"), 6),
    ("open-cuff", {}, telling("ends", does=("lengthens",)), 6),
    ("forged-bangle", {}, late("peg", "pearls"), 7),
    ("forged-bangle", {}, early("pearls", "soft"), 10),
    ("forged-bangle", {}, telling("file", cautions=("glue",)), 8),
    ("forged-bangle", {}, late("shape", "pearls"), 8),
    ("forged-bangle", {}, telling("dome", cautions=("glue",)), 8),
    ("forged-bangle", {"making": {"finish": ["polish"]}}, late("polish", "pearls"), 9),
    ("linked-bracelet", {**CAPS, "making": {"finish": ["tumble"]}}, late("tumble", "glued"), 9),
    ("closed-bangle", {}, late("try_first", "solder"), 10),
    ("closed-bangle", {}, without("try_first"), 10),
    ("coil-bracelet", {}, early("last", "try_on"), 10),
    ("hook-bracelet", {}, early("eye", "half"), 10),
    ("circlet", {}, late("half", "loops"), 10),
    ("circlet", {}, telling("half", does=()), 10),
    ("sliding-bangle", {}, early("mallet", "try_on"), 10),
    ("forged-bangle", {}, late("try_on", "pearls"), 10),
    ("linked-bracelet", CAPS, early("glued", "half"), 10),
    ("linked-bracelet", CAPS, late("plate_flat", "mesh_cut"), 11),
    ("linked-bracelet", CAPS, telling("mesh_pack", does=("finishes", "caps")), 0),
    ("linked-bracelet", HOOK, late("hammer_hook", "body_in"), 12),
    ("linked-bracelet", {}, early("tails", "wrapped_second"), 13),
    ("linked-bracelet", {}, without("press_in"), 13),
    ("open-cuff", {}, without("press_in"), 13),
    ("linked-bracelet", {}, telling("press_in", does=()), 13),
    ("linked-bracelet", {}, late("half", "first_in"), 15),
    ("linked-bracelet", {}, telling("wrapped_open", round=""), 15),
]


@pytest.mark.parametrize(("name", "own", "fault", "law"), FAULTS)
def test_a_planted_fault_is_named_by_its_law(
    name: str, own: dict[str, Any], fault: Change, law: int
) -> None:
    steps = list(planned(name, **own).steps)
    assert walked(steps) is None
    broken = walked(fault(steps))
    assert (broken.law if broken else 0) == law


def test_the_step_and_what_it_is_done_to_are_named() -> None:
    steps = list(planned("closed-bangle").steps)
    broken = walked(late("try_first", "solder")(steps))
    assert broken is not None
    assert broken.step == "solder"
    assert broken.thing == steps[at(steps, "solder")].title


def test_a_wire_that_no_step_works_is_found() -> None:
    plan = planned("linked-bracelet")
    cut = {"e1": "linked bead wire", "closure": "hook wire"}
    assert walked(plan.steps, cut=cut) is None
    for entry, name in cut.items():
        rest = [one for one in plan.steps if not one.id.startswith(f"{entry}/")]
        broken = walked(rest, cut=cut)
        assert broken is not None
        assert (broken.law, broken.thing) == (5, name)
    # Cutting it is no use of it.
    only = [one for one in plan.steps if one.station == "cut" or one.id == "press_in"]
    assert walked(only, cut=cut) is not None


def test_a_finish_that_would_spoil_pearls_comes_before_they_are_on() -> None:
    every = ["hallmark", "file", "patina", "tumble", "polish"]
    plan = planned("linked-bracelet", **PEARLS, making={"finish": every})
    order = [one.id for one in plan.steps]
    first = next(n for n, one in enumerate(plan.steps) if one.round)
    # Acid, shot and grit before the first pearl; stamps and files may come after it.
    assert max(order.index(one) for one in ("patina", "tumble", "polish")) < first
    assert min(order.index("hallmark"), order.index("file")) > order.index("e1/wrapped_second")
    late = sorted(plan.steps, key=lambda one: one.id == "patina")
    broken = walked(late, PEARL)
    assert broken is not None
    assert broken.law == 9
    # Where nothing is spoilt all of it comes last.
    metal = planned("linked-bracelet", making={"finish": ["polish"]})
    assert [one.id for one in metal.steps].index("polish") > at(metal.steps, "crook")


def test_beads_that_break_are_neither_heated_nor_hit() -> None:
    steps = list(planned("coil-bracelet").steps)
    for told, law in (({"cautions": ("torch",)}, 7), ({"works": "malleted"}, 8)):
        hot = telling("try_on", **told)(list(steps))
        broken = walked(hot, PEARL)
        assert broken is not None
        assert broken.law == law
        assert walked(hot) is None

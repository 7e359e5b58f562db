"""Every construction of parts, with every closure and every way that a body or string can end."""

from itertools import product
from typing import Any

import pytest

from jamreel.core.closures import registered_closures
from jamreel.core.families import registered
from jamreel.core.families.composed import Composed
from jamreel.core.parts import registered_parts
from jamreel.core.plan import BriefRefused, plan_raw
from jamreel.core.shop import Shop
from tests.conftest import PROVE
from tests.core.families import example

COMPOSED = sorted(kind for kind, cls in registered().items() if issubclass(cls, Composed))
CLOSURES = sorted(registered_closures())
STRINGS = ("wrapped", "plain", "through")
BEADS = {"part": {"kind": "bead"}, "times": 12}
# What a body of each kind can end in: each way that its choices have.
BODIES: list[dict[str, Any]] = [
    {"kind": kind, "ends": end}
    for kind, part in sorted(registered_parts().items())
    if part.model_fields.get("counted_in") is None and "ends" in part.model_fields
    for choice in part.choices()
    if choice.name == "ends"
    for end in choice.options
]
JOINTS: list[dict[str, Any]] = [
    *({"part": body} for body in BODIES),
    {"part": {"kind": "linked_bead"}, "times": 4},
    {"part": {"kind": "chain", "links": 12}},
    {"part": {"kind": "ring_link"}, "times": 4},
    {"part": {"kind": "jump_ring", "soldered": True}, "times": 3},
]


def planned(kind: str, **own: Any) -> str:
    """What a piece comes to: '' for a plan, else what stands in its way. A plan is walked."""
    brief = example(kind)
    piece = {**brief["piece"], "counted": False, "mirrored": False, **own}
    piece.pop("focal", None)
    piece.pop("hung", None)
    try:
        plan = plan_raw({**brief, "piece": piece}, Shop())
    except BriefRefused as refused:
        return " ".join(problem.says for problem in refused.problems)
    assert plan.steps[-1].id == "press_in"
    return ""


@pytest.mark.parametrize("kind", COMPOSED)
def test_every_closure_fastens_every_way_that_beads_are_strung(kind: str) -> None:
    for closure, ends in product(CLOSURES, STRINGS):
        says = planned(kind, entries=[BEADS], closure={"kind": closure}, string_ends=ends)
        # No order breaks a law; what can't be closed so is said.
        assert "can't be put together" not in says, (closure, ends, says)


@pytest.mark.parametrize("closure", CLOSURES)
def test_every_closure_is_put_on_every_end(closure: str) -> None:
    kinds = COMPOSED if PROVE else ["linked_bracelet", "linked_necklace"]
    for kind, joint in product(kinds, JOINTS):
        says = planned(kind, entries=[{"id": "e1", **joint}], closure={"kind": closure})
        if not says:
            continue
        # Refused is what is shut on both sides before it can meet, or has no end to hang in; the
        # sentence says what would do.
        assert "Put a jump ring" in says or "can't" not in says, (kind, joint, says)


def test_two_shut_ends_are_refused_by_name() -> None:
    says = planned(
        "linked_bracelet",
        entries=[{"part": {"kind": "chain", "links": 12}}, {"part": {"kind": "bought_ring"}}],
    )
    assert says.startswith("Neither bought chain nor closed ring opens")

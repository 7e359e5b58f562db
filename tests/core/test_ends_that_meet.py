"""Which ends meet and which don't: pairs by name, their answers written down by hand beforehand.

All are of 1.0 mm wire unless said, so loops on a pin of 3 bear at 3 and bars 4 clear stand 5 apart.
"""

import math
from itertools import product
from typing import Any

import pytest

from jamreel.core.closures import Closure, registered_closures
from jamreel.core.closures.broad_hook import BroadHook
from jamreel.core.closures.crook_hook import CrookHook
from jamreel.core.closures.doubled_hook import DoubledHook
from jamreel.core.closures.end_caps import EndCaps
from jamreel.core.closures.folded_hook import FoldedHook
from jamreel.core.closures.s_hook import SHook
from jamreel.core.plan import BriefRefused, plan_raw, propose_raw
from jamreel.core.shop import Shop
from tests.core.families import example
from tests.core.test_first_principles import PALETTE, length_of

# What is said of ends that don't meet.
ENDS = {
    "row_into_one",
    "rows_unlike",
    "bare_end",
    "eyes_in_cap",
    "hooked_on_nothing",
    "spare_hook",
    "no_own_hook",
    "nothing_to_hook",
    "loop_small",
    "loop_full",
    "hook_wide",
    "cap_narrow",
    "cap_low",
}
JOINED: set[str] = set()

Body = dict[str, Any]


def body(kind: str, **own: Any) -> Body:
    return {"part": {"kind": kind, **own}}


def hook(kind: str, **own: Any) -> Body:
    return {"kind": kind, "wire": "1.0 mm", **own}


def ladder(bead: str, **own: Any) -> Body:
    """Five bars: three eyes between the two that are wound in. A bar stands a bead, its own
    thickness and a turn of 0.4 on each side of the bead from the next: 2.7 for 4.5 and 9 over all.
    """
    return body("ladder", bars=5, bead=bead, rows=20, **own)


def strands(**own: Any) -> Body:
    """A braid of 3 x 2 wires of 0.5."""
    return body("braid", rows=60, wire="0.5 mm", **own)


def doubled(apart: str, **own: Any) -> Body:
    return hook("doubled_hook", apart=apart, **own)


def bars(**own: Any) -> Body:
    """Two bars 3 clear of each other: two eyes 4 apart."""
    return body("crossed_wrap", **{"bars": 2, "bar_gap": 3, "rows": 60, **own})


def channel(width: str, **own: Any) -> Body:
    """A frame: two eyes a leg's thickness further apart than it is wide, and a bow as wide."""
    return body("crossed_wrap", wound_on="frame", bar_gap=width, rows=60, **own)


# What lies before what, and which way it is worked.
FOLDED, CROOK, TOGGLE = hook("folded_hook"), hook("crook_hook"), hook("toggle")
CLASP, CAPS, OWN, OPEN = (
    {"kind": k} for k in ("spring_clasp", "end_caps", "own_ends", "open_ends")
)
WIDE_CAPS = {"kind": "end_caps", "cap_width": 14, "depth": 8}
BEAD = {**body("linked_bead", bead=8, hole=2), "times": 6}
RING = body("jump_ring", pin=4, wire="1.0 mm")

PAIRS: list[tuple[str, list[Body], Body, set[str]]] = [
    # Three eyes over 9 mm.
    ("ladder, folded hook", [ladder("2.7")], FOLDED, {"row_into_one"}),
    ("ladder, crook hook", [ladder("2.7")], CROOK, {"row_into_one"}),
    ("ladder, S of 6", [ladder("2.7")], hook("s_hook", hook_pin=6), {"row_into_one"}),
    ("ladder, S of 10", [ladder("2.7")], hook("s_hook", hook_pin=10), JOINED),
    ("ladder, doubled hook 9 apart", [ladder("2.7")], doubled("9"), JOINED),
    ("ladder, doubled hook 10 apart", [ladder("2.7")], doubled("10"), JOINED),
    ("ladder, doubled hook 12 apart", [ladder("2.7")], doubled("12"), {"rows_unlike"}),
    ("ladder, doubled hook 4 apart", [ladder("2.7")], doubled("4"), {"rows_unlike"}),
    ("ladder, toggle", [ladder("2.7")], TOGGLE, {"row_into_one"}),
    ("ladder, spring clasp", [ladder("2.7")], CLASP, {"row_into_one"}),
    ("ladder of eyes, caps", [ladder("2.7")], WIDE_CAPS, {"eyes_in_cap"}),
    ("ladder of bare bars, hook", [ladder("2.7", ends="bare")], FOLDED, {"bare_end"}),
    ("ladder, its own hook", [ladder("2.7")], OWN, {"no_own_hook"}),
    ("ladder, open", [ladder("2.7")], OPEN, JOINED),
    # Legs 7.5 and 10.5 apart on eyes 9 apart, each with 2 to spare in eyes of 3.
    ("ladder, broad hook", [ladder("2.7")], hook("broad_hook"), JOINED),
    ("ladder of small beads, broad hook", [ladder("0.9")], hook("broad_hook"), {"rows_unlike"}),
    ("ladder of three bars, one eye", [body("ladder", bars=3, bead=4, rows=20)], FOLDED, JOINED),
    # A row on a ring that spans it, and on one that doesn't.
    ("ladder between rings of 10", [body("jump_ring", pin=10), ladder("2.7"),
        body("jump_ring", pin=10)], FOLDED, JOINED),
    ("ladder between rings of 8", [body("jump_ring", pin=8), ladder("2.7"),
        body("jump_ring", pin=8)], FOLDED, {"row_into_one"}),
    # One loop at the end.
    ("linked bead, folded hook", [BEAD], FOLDED, JOINED),
    ("linked bead, crook hook", [BEAD], CROOK, JOINED),
    ("linked bead, S", [BEAD], hook("s_hook"), JOINED),
    ("linked bead, toggle", [BEAD], TOGGLE, JOINED),
    ("linked bead, clasp", [BEAD], CLASP, JOINED),
    ("linked bead, bought clasp", [BEAD], {"kind": "bought_clasp"}, JOINED),
    ("linked bead, bar with a pin", [BEAD], {"kind": "bar_pin"}, JOINED),
    ("linked bead, doubled hook 10", [BEAD], doubled("10"), {"row_into_one"}),
    ("linked bead, doubled hook 4", [BEAD], doubled("4"), {"row_into_one"}),
    ("linked bead, broad hook", [BEAD], hook("broad_hook"), {"row_into_one"}),
    ("linked bead, caps", [BEAD], CAPS, {"eyes_in_cap"}),
    ("linked bead, its own hook", [BEAD], OWN, {"no_own_hook"}),
    ("ring of 10, doubled hook 10", [body("jump_ring", pin=10), BEAD, body("jump_ring", pin=10)],
        doubled("10"), JOINED),
    ("ring of 8, doubled hook 10", [body("jump_ring", pin=8), BEAD, body("jump_ring", pin=8)],
        doubled("10"), {"row_into_one"}),
    ("doubled hook 4 on its own ring", [body("jump_ring", pin=6), BEAD],
        doubled("4", fixed="on_ring", fixed_pin=5), JOINED),
    ("doubled hook 10 on its own ring", [body("jump_ring", pin=12), BEAD],
        doubled("10", fixed="on_ring", fixed_pin=5), {"row_into_one"}),
    # Two bars, two eyes 4 apart.
    ("two bars, doubled hook 4", [bars()], doubled("4"), JOINED),
    ("two bars, doubled hook 10", [bars()], doubled("10"), {"rows_unlike"}),
    ("two bars, folded hook", [bars()], FOLDED, {"row_into_one"}),
    ("two bars, folded hook on 4.5", [bars()],
        hook("folded_hook", join_pin=4.5, eye_join_pin=4.5), JOINED),
    ("two bare bars, caps", [bars(ends="bare")], WIDE_CAPS, JOINED),
    ("two bare bars, toggle", [bars(ends="bare")], TOGGLE, {"bare_end"}),
    # A frame: two eyes at one end, a bow at the other.
    ("frame of 3, doubled hook 4", [channel("3")], doubled("4"), {"row_into_one"}),
    ("frame of 8, doubled hook 8", [channel("8")], doubled("8"), JOINED),
    ("frame of 8, folded hook", [channel("8")], FOLDED, {"row_into_one"}),
    ("frame of 8 turned to a bead", [BEAD, channel("8"), BEAD], FOLDED, {"row_into_one"}),
    # Strands: six wires of 0.5 in an eye of their own.
    ("braid, folded hook", [strands()], FOLDED, JOINED),
    ("braid of 1.0, folded hook", [body("braid", rows=40)], FOLDED, {"loop_full"}),
    ("braid of 1.0, folded hook on 4", [body("braid", rows=40)],
        hook("folded_hook", join_pin=4, eye_join_pin=4), JOINED),
    ("braid with a hook, own ends", [strands(finishes="hook")], OWN, JOINED),
    ("braid with a hook, folded hook", [strands(finishes="hook")], FOLDED, {"spare_hook"}),
    ("braid hooked on, own ends", [strands(begins="hooked", finishes="hook")], OWN,
        {"hooked_on_nothing"}),
    ("braid hooked on, folded hook", [strands(begins="hooked")], FOLDED, JOINED),
    ("braid hooked on, S into its last loop", [strands(begins="hooked")], hook("s_hook"),
        {"hooked_on_nothing"}),
    ("braid hooked on a ring, own ends", [RING, strands(begins="hooked", finishes="hook")], OWN,
        JOINED),
    ("bare braid, caps", [strands(ends="bare")], CAPS, JOINED),
    ("bare braid, clasp", [strands(ends="bare")], CLASP, {"bare_end"}),
    ("flat plait, caps", [body("flat_plait")], WIDE_CAPS, JOINED),
    ("flat plait, hook", [body("flat_plait")], FOLDED, {"bare_end"}),
    ("coil mesh, hook", [body("coil_mesh")], FOLDED, {"bare_end"}),
    ("lattice, folded hook", [body("lattice", rows=20)], FOLDED, JOINED),
    ("lattice, doubled hook", [body("lattice", rows=20)], doubled("10"), {"row_into_one"}),
    # Strands of a bundle are spread as the hook wants them.
    ("bundle, broad hook", [body("bundle", along=120)], hook("broad_hook"), JOINED),
    ("bare bundle, broad hook", [body("bundle", along=120, ends="bare")], hook("broad_hook"),
        {"bare_end"}),
    # Rings among themselves, and what is bought.
    ("wrapped into wrapped", [BEAD, BEAD], FOLDED, JOINED),
    ("soldered rings one into the next", [body("jump_ring", soldered=True)] * 3, FOLDED, JOINED),
    ("chain and link", [body("chain", links=40), BEAD], CLASP, JOINED),
]  # fmt: skip


def said(entries: list[Body], closure: Body) -> set[str]:
    brief = example("linked_bracelet")
    piece = {"kind": "linked_bracelet", "counted": False, "closure": closure}
    piece["entries"] = [{"id": f"e{n + 1}", **one} for n, one in enumerate(entries)]
    brief = {**brief, "piece": piece, "wire": {"size": "1.0 mm", "metal": "copper"}}
    plan = plan_raw(brief, Shop.model_validate({"outfit": {"torch": True}}))
    return {one.id for one in plan.advice} & ENDS


@pytest.mark.parametrize(("entries", "closure", "answer"), [
    pytest.param(entries, closure, answer, id=name) for name, entries, closure, answer in PAIRS
])  # fmt: skip
def test_two_ends_meet_or_are_told_not_to(
    entries: list[Body], closure: Body, answer: set[str]
) -> None:
    assert said(entries, closure) == answer


def test_bought_links_that_are_both_shut_never_meet() -> None:
    with pytest.raises(BriefRefused, match="Neither"):
        said([body("chain", links=40), body("bought_ring")], CLASP)


def test_an_end_that_does_not_meet_says_what_would_do() -> None:
    brief = example("linked_bracelet")
    piece = {**brief["piece"], "entries": [{"id": "e1", **bars()}], "closure": doubled("10")}
    brief = {**brief, "piece": piece, "wire": {"size": "1.0 mm", "metal": "copper"}}
    told = next(one for one in plan_raw(brief, Shop()).advice if one.id == "rows_unlike")
    # What the maker has to set is in the sentence: eyes 4 apart want loops 4 apart.
    assert "4.0 mm" in told.try_
    assert told.field == "piece.closure"


# Every sort of end, once; and how a maker sets each closure for loops, thick ends and rows.
SORTS: dict[str, list[Body]] = {
    "plain loop": [{**BEAD, "part": {**BEAD["part"], "loops": "plain"}}],
    "wrapped loop": [BEAD],
    "ring": [body("jump_ring", pin=5), BEAD, body("jump_ring", pin=5)],
    "closed ring": [body("bought_ring"), BEAD, body("bought_ring")],
    "bought link": [body("chain", links=40)],
    "folded ring link": [{**body("ring_link"), "times": 9}],
    "row of eyes": [bars()],
    "eyes and a bow": [channel("8")],
    "eye of strands": [strands()],
    "hook of strands": [strands(finishes="hook")],
    "loops of a bundle": [body("bundle", along=120)],
    "last loop of a lattice": [body("lattice", rows=20)],
    "bare strands": [strands(ends="bare")],
    "cord": [body("cord"), body("wound_ring"), body("cord")],
}
SET: dict[str, list[Body]] = {
    "folded_hook": [FOLDED, hook("folded_hook", join_pin=9, eye_join_pin=9)],
    "crook_hook": [CROOK, hook("crook_hook", join_pin=9, eye_join_pin=9)],
    "own_hook": [{"kind": "own_hook"}],
    "s_hook": [hook("s_hook", hook_pin=6, join_pin=9), hook("s_hook", hook_pin=10)],
    "doubled_hook": [doubled("4"), doubled("8"),
        doubled("4", fixed="on_ring", fixed_pin=5, into="jump_ring")],
    "broad_hook": [hook("broad_hook"),
        hook("broad_hook", fixed="on_ring", fixed_pin=9, into="jump_ring", into_pin=14)],
    "toggle": [TOGGLE, hook("toggle", loop_pin=5)],
    "end_caps": [CAPS, WIDE_CAPS],
}  # fmt: skip


def test_every_end_and_closure_half_is_joined_or_told() -> None:
    """Of all ends and closures at least 55 % join as a maker sets them; the others say why not."""
    found: dict[tuple[str, str], bool] = {}
    for (name, entries), kind in product(SORTS.items(), registered_closures()):
        told = []
        for closure in SET.get(kind, [{"kind": kind}]):
            try:
                told.append(said(entries, closure))
            except BriefRefused as refused:
                told.append({problem.says for problem in refused.problems})
        found[name, kind] = JOINED in told
        # Where nothing is fastened nothing has to meet.
        assert JOINED in told or all(one for one in told)
    assert sum(found.values()) / len(found) >= 0.55
    # What no setting joins is what can't be joined.
    assert not found["bare strands", "toggle"]
    assert not found["wrapped loop", "end_caps"]


def necklace(**cord: Any) -> dict[str, Any]:
    """A cord on a wound ring, both sides alike."""
    brief = example("linked_necklace")
    entry = {"id": "e1", "part": {"kind": "cord", "along": 200, **cord}}
    piece = {
        "kind": "linked_necklace",
        "mirrored": True,
        "counted": False,
        "entries": [entry],
        "focal": {"kind": "wound_ring", "wound": 5, "former": 17},
        "closure": {"kind": "end_caps", "cap_of": "coil", "depth": 7},
    }
    return {**brief, "piece": piece, "wire": {"size": "0.81 mm", "metal": "copper"}}


def cord_of(brief: dict[str, Any]) -> float:
    plan = plan_raw(brief, Shop())
    return next(one.length_mm for one in plan.cuts if one.id.endswith("cord"))


def test_a_cord_takes_its_turn_from_the_ring_that_it_hangs_on() -> None:
    # Five turns of 0.81: two rows, three under two, 0.81 + 0.81 x sqrt(3) / 2 high, 2.43 wide.
    thick = 3 * 0.81
    ways = {typed: cord_of(necklace(hangs_on=typed)) for typed in (None, f"{thick}")}
    assert ways[None] == pytest.approx(ways[f"{thick}"], abs=0.01)
    for typed in ("1.5", "3", "6"):
        with pytest.raises(BriefRefused, match=r"the piece has 2\.43 mm there"):
            cord_of(necklace(hangs_on=typed))


def test_a_cord_goes_as_far_into_its_end_as_that_is_deep() -> None:
    shallow, deep = (
        {**necklace(), "piece": {**necklace()["piece"], "closure": {"kind": "end_caps",
            "cap_of": "coil", "depth": depth}}} for depth in (7, 9)
    )  # fmt: skip
    # Doubled: 2 mm more at both its ends.
    assert cord_of(deep) - cord_of(shallow) == pytest.approx(4.0)
    assert cord_of(necklace(insert="7")) == pytest.approx(cord_of(necklace()))
    with pytest.raises(BriefRefused, match=r"the caps are 7\.00 mm deep"):
        cord_of(necklace(insert="9"))


def test_bare_bars_stand_over_as_far_as_their_cap_is_deep() -> None:
    brief = example("linked_bracelet")
    bare = {"id": "e1", **bars(ends="bare")}

    def bar(depth: float) -> float:
        closure = {"kind": "end_caps", "cap_width": 14, "depth": depth}
        piece = {**brief["piece"], "counted": False, "entries": [bare], "closure": closure}
        plan = plan_raw({**brief, "piece": piece}, Shop())
        return next(one.length_mm for one in plan.cuts if one.id.endswith("crossed_bar"))

    assert bar(9) - bar(6) == pytest.approx(6.0)


def test_what_goes_over_a_wound_ring_passes_its_bindings() -> None:
    def told(pin: str) -> set[str]:
        moves = [{"move": "bend", "degrees": 360, "pin": pin}]
        link = {"kind": "own_link", "hangs": True, "moves": moves}
        brief = necklace()
        brief["palette"] = {"winding": {"size": "0.81 mm", "metal": "copper"}}
        brief["piece"]["hung"] = link
        return {one.id for one in plan_raw(brief, Shop()).advice} & {"loop_small"}

    # 2.43 and twice 0.81 of the bindings, and 0.2 to swing: 4.25.
    assert told("4.2") == {"loop_small"}
    assert told("4.3") == set()


def test_a_charm_whose_ring_goes_over_the_loops_does_not_stay_between_them() -> None:
    brief = example("bangle_with_charms")
    said = [
        {one.id for one in plan_raw(
            {**brief, "piece": {**brief["piece"], "charm_ring": ring}}, Shop()).advice}
        for ring in ("5.5", "6.5")
    ]  # fmt: skip
    # Loops of 1.63 on a pin of 2.6: 5.86 wide.
    assert "charm_wanders" not in said[0]
    assert "charm_wanders" in said[1]


PINS: list[tuple[Closure, Closure, str, float]] = [
    (FoldedHook(), FoldedHook(join_pin=5), "holding", 2 * math.pi),
    (FoldedHook(), FoldedHook(eye_join_pin=5), "receiving", 2 * math.pi),
    (CrookHook(), CrookHook(join_pin=5), "holding", 2 * math.pi),
    (CrookHook(), CrookHook(eye_join_pin=5), "receiving", 2 * math.pi),
    # The bow that is bound shut goes 1.85 half turns round.
    (SHook(), SHook(join_pin=8), "holding", 1.85 * math.pi),
    # Two loops each.
    (DoubledHook(), DoubledHook(catch_loop_pin=4.5), "receiving", 4 * math.pi),
    (BroadHook(), BroadHook(catch_loop_pin=5.2), "receiving", 4 * math.pi),
]


@pytest.mark.parametrize(("small", "large", "half", "takes"), PINS)
def test_a_joining_loop_on_a_pin_2_larger_reaches_2_further(
    small: Closure, large: Closure, half: str, takes: float
) -> None:
    one, other = small.make(PALETTE), large.make(PALETTE)
    before, after = getattr(one, half), getattr(other, half)
    assert after.length - before.length == pytest.approx(2.0)
    more = sum(map(length_of, after.wires)) - sum(map(length_of, before.wires))
    assert more == pytest.approx(takes)
    # The other half stays as it was, and what hangs in the loop has 2 mm more room.
    same = "holding" if half == "receiving" else "receiving"
    assert getattr(one, same).length == getattr(other, same).length
    side = 0 if half == "holding" else 1
    assert after.ends[side].inner - before.ends[side].inner == pytest.approx(2.0)


def test_a_tube_goes_over_the_body_that_is_there() -> None:
    """Round a mesh of 14.5 by 7.7 lie 2 x 6.8 + 7.7 pi = 37.8; inside 9.5 there are 29.8."""
    tube = EndCaps(cap_of="tube", tube=9.5)
    usual, mesh = (one.make(PALETTE).receiving for one in (tube, tube.over(7.7, 14.5)))
    (fits,), (stretched,) = usual.advice, mesh.advice
    assert fits is not None
    assert stretched is not None
    assert fits.id == "tube_goes_in"
    assert stretched.id in ("tube_stretch", "tube_anneal", "tube_splits")
    assert f"{2 * (14.5 - 7.7) + 7.7 * math.pi:.0f}"[:2] in stretched.says + stretched.because
    # It is as wide as the body and its own wall twice, however that lies.
    assert mesh.width - usual.width == pytest.approx(14.5 - 12)


def test_caps_of_a_piece_take_the_size_of_its_body() -> None:
    brief = example("linked_bracelet")
    caps = {"kind": "end_caps", "cap_of": "tube", "tube": 9.5}
    told = {}
    for bead_gap in (3, 12):
        entry = {"id": "e1", **bars(ends="bare", bar_gap=bead_gap)}
        piece = {**brief["piece"], "counted": False, "entries": [entry], "closure": caps}
        wire = {"size": "1.0 mm", "metal": "copper"}
        plan = plan_raw({**brief, "piece": piece, "wire": wire}, Shop())
        told[bead_gap] = {one.id for one in plan.advice if one.id.startswith("tube_")}
    # Bars 4 and 13 apart: 5 and 14 over all, and the wraps; 9.5 has 29.8 inside.
    assert told[3] == {"tube_goes_in"}
    assert told[12] != {"tube_goes_in"}


@pytest.mark.parametrize(
    ("kind", "entry", "closure", "adds"),
    [
        ("linked_bracelet", {**BEAD, "fill": True}, FOLDED, True),
        ("linked_bracelet", {**ladder("2.7"), "fill": True}, doubled("9"), False),
        ("linked_bracelet", {**body("flat_plait"), "fill": True}, WIDE_CAPS, False),
        ("core_bangle", None, TOGGLE, False),
    ],
)
def test_rings_are_added_only_where_a_single_opening_takes_them(
    kind: str, entry: Body | None, closure: Body, adds: bool
) -> None:
    brief = example(kind)
    piece = {**brief["piece"], "counted": False, "closure": closure}
    if entry is not None:
        piece["entries"] = [{"id": "e1", **entry}]
    wire = {"size": "1.0 mm", "metal": "copper"} if entry else brief["wire"]
    ways = propose_raw({**brief, "piece": piece, "wire": wire}, Shop())
    assert any("rings" in edit.path for one in ways for edit in one.edits) == adds


@pytest.mark.parametrize("kind", ["flat_plait", "coil_mesh", "knot_row"])
@pytest.mark.parametrize("cap_of", ["bought", "ribbon_end"])
def test_caps_that_nobody_sized_are_as_wide_as_what_goes_in(kind: str, cap_of: str) -> None:
    part = {"kind": kind, **({} if kind in ("flat_plait", "coil_mesh") else {"ends": "bare"})}
    entry = {"id": "e1", "part": part, "fill": True}
    closure = {"kind": "end_caps", "cap_of": cap_of, "cap_opening": "20"}
    brief = {
        "measures": {"wrist_girth": {"readings": [{"value": "165"}]}},
        "wire": {"size": "0.6 mm", "temper": "dead_soft"},
        "piece": {
            "kind": "linked_bracelet", "counted": True, "entries": [entry], "closure": closure,
        },
    }  # fmt: skip
    plan = plan_raw(brief, Shop())
    assert "cap_narrow" not in {one.id for one in plan.advice}
    cap = next(need for need in plan.needs if need.label in ("end caps", "ribbon ends"))
    (body,) = plan.woven
    wide = body.width_mm if cap_of == "ribbon_end" else max(body.width_mm, body.thickness_mm)
    sold = math.ceil(2 * (wide + 0.2) - 1e-9) / 2
    assert cap.size.startswith(f"{sold:.1f} mm")

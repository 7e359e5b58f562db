"""The order in which a piece of parts is made: worked out, walked, and broken on purpose."""

import random
from collections.abc import Callable, Sequence
from itertools import pairwise, permutations, product
from typing import Any

import pytest

from jamreel.core.bench.steps import Step
from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import palette_of
from jamreel.core.makeup.compose import compose
from jamreel.core.makeup.loops import loops_of
from jamreel.core.makeup.sequence import MakeUp
from jamreel.core.making.order import Order, order_of
from jamreel.core.making.things import Things, things_of
from jamreel.core.making.walk import Broken, walk
from jamreel.core.plan import BriefRefused, plan_raw
from jamreel.core.result import Plan
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.words import say
from jamreel.core.workpiece.parts_steps import Trial, work_of
from jamreel.core.workpiece.stringing import strung_steps
from tests.conftest import EXAMPLES, samples
from tests.core.families import example

WIRES = palette_of(WireChoice(size=WireSize(diameter_mm=0.8)))
TRIED = Trial("link", 10.0, False)

LINK = {"kind": "linked_bead"}
PLAIN = {"kind": "linked_bead", "loops": "plain"}
RING = {"kind": "jump_ring"}
SOLDERED = {"kind": "jump_ring", "soldered": True}
CHAIN = {"kind": "chain", "links": 10}
OPENED = {"kind": "chain", "links": 10, "soldered": False}
CLOSED = {"kind": "bought_ring"}
FOUND = {"kind": "finding"}
FOLDED = {"kind": "ring_link"}
EIGHT = {"kind": "figure_eight"}
EYES = {"kind": "eye_link", "loops": "wrapped"}
# Whether the left and the right end of each can ever take its neighbour: by looking at one, a ring
# that is bought closed can't, a loop that is wound shut can before it is.
TAKES: list[tuple[dict[str, Any], tuple[bool, bool]]] = [
    (LINK, (True, True)), (PLAIN, (True, True)), (RING, (True, True)), (SOLDERED, (True, True)),
    (CHAIN, (False, False)), (OPENED, (True, True)), (CLOSED, (False, False)),
    (FOUND, (False, False)), (FOLDED, (True, False)), (EIGHT, (True, True)),
]  # fmt: skip
BEADED = (LINK, PLAIN, FOLDED)
OF_KIND = {str(part): ends for part, ends in TAKES}


def bracelet(entries: Sequence[Any], **own: Any) -> Plan:
    brief = example("linked_bracelet")
    rows = [one if "part" in one else {"part": one} for one in entries]
    piece = {**brief["piece"], "entries": rows, "counted": False, "mirrored": False, **own}
    return plan_raw({**brief, "piece": piece}, Shop())


class Walked:
    """A make-up with its things, order and steps, to be walked as told or with mistakes."""

    def __init__(self, *entries: Any, **own: Any) -> None:
        rows = [one if {"part", "group"} & set(one) else {"part": one} for one in entries]
        makeup = MakeUp.model_validate({"entries": rows, **own})
        laid = compose(makeup, WIRES)
        self.things: Things = things_of(
            laid, loops_of(laid), strung_steps(makeup) if laid.runs else ()
        )
        self.order: Order = order_of(self.things, tried=True)
        self.steps = work_of(laid, self.things, self.order, trial=TRIED)

    def walk(self, steps: Sequence[Step] | None = None) -> Broken | None:
        return walk(self.things, self.order, self.steps if steps is None else steps, tried=True)

    def at(self, name: str) -> int:
        """The place of the step of a name, the first where several have it."""
        return next(n for n, one in enumerate(self.steps) if one.id.rpartition("/")[2] == name)

    def names(self) -> list[str]:
        return [one.id.rpartition("/")[2] for one in self.steps]


HOOKED = {"closure": {"kind": "crook_hook"}}

# --- Orders as a maker would have them, written by hand before the code ---------------------------

Rows = tuple[str, ...]
BY_HAND: list[tuple[str, list[Any], dict[str, Any], Rows]] = [
    # A bead between two soldered chains takes both, each before its loop is wound shut.
    ("bead between chains", [CHAIN, LINK, CHAIN], {}, (
        "first_open", "first_in: bought chain", "wrapped_first", "thread", "wrapped_open",
        "next_link_first: bought chain", "wrapped_second", "half")),
    # Wrapped links: each into the last one, the hook's loops last, when the length was tried.
    ("wrapped links", [{"part": LINK, "times": 5}], HOOKED, (
        "first_open", "first_in: the last one", "wrapped_first", "wrapped_second", "half",
        "eye_body: linked bead", "eye_close", "body_in: linked bead", "join_loop")),
    # A closed ring at each end: the first link takes one at once, the last is left open.
    ("links between closed rings", [{"part": LINK, "times": 3}],
     {"closure": {"kind": "s_hook", "into": "soldered_ring"}}, (
        "ring", "ring_solder", "first_in: S-hook, the last one", "half", "s_bows",
        "body_in: linked bead", "bind_half")),
    # Rings join what is made; each is shut when both are in it.
    ("rings between beads", [LINK, RING, LINK], {}, (
        "wrapped_first", "wrapped_second", "rings", "ring_in: linked bead", "ring_close", "half")),
    # A soldered ring comes first, and the beads take it.
    ("soldered ring between beads", [LINK, SOLDERED, LINK], {}, (
        "ring_close", "ring_solder", "ring_quench", "first_in: jump ring",
        "next_link_first: jump ring", "wrapped_second", "half")),
    # Folded links: through the one before, and only then hooked on their own ring.
    ("folded ring links", [{"part": FOLDED, "times": 4}], {}, (
        "fold_ring", "roll", "roll_over: the last one", "roll_close", "legs", "hook_on_own",
        "half")),
    # A charm that does not open, between plain links: the links take it.
    ("charm on chain", [OPENED, {"kind": "finding", "hangs": True}, RING], {}, (
        "count_links", "rings", "ring_in: bought chain, bought finding", "ring_close", "half")),
    # A dangle hangs in the ring between two chains: all three before it is shut.
    ("dangle in a ring", [CHAIN, RING, {"kind": "dangle"}, CHAIN], {}, (
        "hang_open", "hang_wrapped", "rings", "ring_in: bought chain, dangle", "ring_close",
        "half")),
    # On a string: threaded, the first end closed, tried, then the second.
    ("beads on a string", [{"part": {"kind": "bead"}, "times": 20}], {}, (
        "string", "string_first", "half", "string_last", "clasp_rings: the loop of the string",
        "clasp_on: the loop of the string")),
    # Through the closure's own holes: the halves are there before the string.
    ("string through the clasp", [{"part": {"kind": "bead"}, "times": 20}],
     {"string_ends": "through", "closure": {"kind": "toggle"}}, (
        "toggle_ring", "toggle_bar", "string_through", "half", "string_last")),
    # A core: one loop, everything on, tried before the other loop is turned.
    ("a core", [{"part": {"kind": "spacer_coil"}, "times": 30}],
     {"string_ends": "plain", "closure": {"kind": "toggle"}}, (
        "coil_long", "core", "half", "string_last", "toggle_ring", "toggle_bar")),
    # One body: its closure is held on before its eyes are bent.
    ("one ladder", [{"kind": "ladder", "rows": 20}], {}, (
        "ladder_bars", "ladder_first", "half", "ladder_eyes", "clasp_rings: ladder")),
    # Caps: both made before the body is cut to them, then that is tried, then both are glued.
    ("caps with a plate", [{"kind": "coil_mesh", "coils": 4}],
     {"closure": {"kind": "end_caps", "cap_of": "tube", "tube": "30", "plate": "flat",
      "depth": "8"}}, (
        "tube", "plate_flat", "cap_ring", "mesh_coils", "mesh_pack", "half", "mesh_cut", "glued")),
    # Plain loops open again: made one by one, each opened round the last.
    ("plain links", [{"part": PLAIN, "times": 4}], HOOKED, (
        "plain_first", "thread", "plain_second", "take_left: the last one", "half",
        "eye_body: linked bead", "body_in: linked bead")),
    ("chain between rings", [RING, CHAIN, RING], {}, (
        "count_links", "rings", "ring_in: bought chain", "ring_close", "half",
        "clasp_rings: jump ring", "clasp_on: jump ring")),
    # A chain whose links open takes the finished bead.
    ("bead between chains that open", [OPENED, LINK, OPENED], {}, (
        "wrapped_first", "wrapped_second", "count_links", "take_left: linked bead", "half")),
    ("split ring between chains", [CHAIN, {"kind": "split_ring"}, CHAIN], {}, (
        "count_links", "split_ring: bought chain", "half", "clasp_rings: bought chain")),
    ("figure eights", [{"part": EIGHT, "times": 4}], {}, (
        "plain_first", "other_side", "take_left: the last one", "half")),
    # Nothing but the first bead meets the soldered ring; the bar comes when all was tried.
    ("soldered toggle", [{"part": LINK, "times": 4}],
     {"closure": {"kind": "toggle", "soldered": True}}, (
        "toggle_ring", "ring_solder", "ring_quench", "ring_pickle", "first_open",
        "first_in: bar and ring", "wrapped_first", "half", "toggle_bar", "take_left: linked bead")),
    ("hook on a ring of its own", [{"part": LINK, "times": 4}],
     {"closure": {"kind": "crook_hook", "fixed": "on_ring"}}, (
        "half", "join_open", "join_loop", "crook", "rings", "hang_on_ring: linked bead",
        "ring_close")),
    ("doubled hook", [{"part": LINK, "times": 4}], {"closure": {"kind": "doubled_hook"}}, (
        "half", "catch", "fold", "side_loops", "body_in: linked bead", "loops_close", "crook")),
    ("broad hook", [{"kind": "bundle"}], {"closure": {"kind": "broad_hook"}}, (
        "bundle_mark", "bundle_middle", "half", "bundle_loops", "broad_u", "broad_loops",
        "turn_over")),
    ("tassel in a ring", [CHAIN, RING, {"kind": "tassel"}, CHAIN], {}, (
        "section_1", "tassel_head", "tassel_top", "tassel_hang", "tassel_close", "rings",
        "ring_in: bought chain, tassel", "ring_close", "half")),
    # Strands of closed links go on while the rings are open.
    ("swag between rings", [RING, {"kind": "swag"}, RING], {}, (
        "swag_count", "swag_hang", "rings", "ring_in: swag", "ring_close", "half")),
    ("bought clasp", [{"part": LINK, "times": 4}], {"closure": {"kind": "bought_clasp"}}, (
        "first_in: the last one", "half", "clasp_on: linked bead", "clasp_other: linked bead")),
    # Neither loop of the bar opens: the last link is closed when the length was tried.
    ("bar with closed loops", [{"part": LINK, "times": 4}], {"closure": {"kind": "bar_pin"}}, (
        "first_in: bar with a pin, the last one", "half", "close: bar with a pin")),
    # A string between chains takes both, one end before the try-on and one after.
    ("string between chains", [CHAIN, {"part": {"kind": "bead"}, "times": 9}, CHAIN], {}, (
        "string", "string_first: bought chain", "half", "string_last: bought chain",
        "clasp_rings: bought chain")),
    ("dangle on a string",
     [{"part": {"kind": "bead"}, "times": 9}, {"kind": "dangle"},
      {"part": {"kind": "bead"}, "times": 9}], {}, (
        "hang_open", "hang_wrapped", "string", "string_first", "half", "string_last")),
    ("soldered rings in a row", [{"part": SOLDERED, "times": 3}], {}, (
        "rings", "ring_in: the last one", "ring_close", "ring_solder", "ring_quench", "half")),
    ("beads on bought eye pins", [{"part": {**LINK, "stock": "eye_pin"}, "times": 3}], {}, (
        "pin_snip", "thread", "wrapped_open", "wrapped_second", "take_left: the last one",
        "half")),
    # A closed ring hangs in the eye before that is wound shut.
    ("eye link to a closed ring", [EYES, CLOSED, EYES], {}, (
        "measure_ring", "first_in: closed ring", "next_link_first: closed ring", "half")),
    ("curved links", [{"part": {"kind": "curved_link"}, "times": 3}], {}, (
        "plain_first", "turn_plane", "wind_on", "hang_sideways: the last one", "half")),
    # Links of two sorts by turns: one sort is made whole, the other takes both neighbours.
    ("two sorts by turns", [LINK, EIGHT, LINK, EIGHT, LINK], {}, (
        "wrapped_first", "wrapped_second", "plain_first", "other_side", "take_left: linked bead",
        "half")),
    # Both pendants hang in the ring of the middle before it is shut.
    ("two charms in a ring",
     [CHAIN, RING, {"kind": "finding", "hangs": True}, {"kind": "bare_drop"}, CHAIN], {}, (
        "measure_bought", "paddle", "hang_wrapped", "ring_in: bought chain", "ring_close")),
    # What is woven is tried before its ends are finished, and before its bars are bent to eyes.
    ("one row of knots", [{"kind": "knot_row"}], {"closure": {"kind": "s_hook"}}, (
        "knot_board", "knot_row", "half", "knot_ends", "knot_eyes", "hammer_hook",
        "body_in: knot rows", "bind_half")),
    ("crossed wraps", [{"kind": "crossed_wrap"}], {"closure": {"kind": "folded_hook"}}, (
        "crossed_bars", "crossed_wrap", "half", "crossed_end", "crossed_eyes",
        "eye_body: crossed wraps", "eye_close", "body_in: crossed wraps", "bind", "crook")),
    ("a channel", [{"kind": "channel"}], {}, (
        "channel_bow", "channel_width", "channel_row", "half", "channel_end", "channel_eyes",
        "clasp_rings: channel", "clasp_on: channel")),
    # The base wire's first loop comes before all beads, its second when the length was tried.
    ("a lattice", [{"kind": "lattice"}], HOOKED, (
        "lattice_base", "lattice_wrapped", "lattice_start", "lattice_row", "half", "lattice_ends",
        "lattice_last", "lattice_close", "eye_body: lattice", "eye_close", "body_in: lattice",
        "join_loop", "crook")),
    # A closed ring at its end is in the first loop before that is wound shut.
    ("a lattice on closed rings", [CLOSED, {"kind": "lattice"}, CLOSED], {}, (
        "measure_ring", "lattice_base", "first_in: closed ring", "lattice_wrapped", "lattice_row",
        "lattice_last", "next_link_first: closed ring", "lattice_close")),
    # A hook on a ring: hook and body are whole, the ring joins both.
    ("a lattice, hook on a ring", [{"kind": "lattice"}],
     {"closure": {"kind": "crook_hook", "fixed": "on_ring"}}, (
        "half", "lattice_close", "join_open", "join_loop", "crook", "rings",
        "hang_on_ring: lattice", "ring_close")),
    # A braid is cut to its caps when it was tried, and only then glued.
    ("a braid in tubes", [{"kind": "braid", "ends": "bare"}],
     {"closure": {"kind": "end_caps", "cap_of": "tube"}}, (
        "tube", "tube", "braid_start", "braid", "half", "braid_end", "glued", "glued")),
    ("a plait in caps", [{"kind": "flat_plait"}], {"closure": {"kind": "end_caps"}}, (
        "plait_disc", "plait_move", "half", "plait_bind", "glued", "glued")),
    ("a cord in wound caps", [{"kind": "cord"}],
     {"closure": {"kind": "end_caps", "cap_of": "coil"}}, (
        "cord_coil", "cord_coil", "cord_head", "half", "cord_ends", "glued", "glued")),
    ("a bundle with loops", [{"kind": "bundle"}], {"closure": {"kind": "folded_hook"}}, (
        "bundle_mark", "bundle_tape", "bundle_middle", "bundle_outwards", "half", "bundle_loops",
        "eye_body: bundle", "eye_close", "body_in: bundle", "bind")),
    # Two bodies with a ring between are joined first; their eyes are bent by then.
    ("two ladders", [{"kind": "ladder", "rows": 8}, RING, {"kind": "ladder", "rows": 8}], {}, (
        "ladder_first", "ladder_ends", "ladder_eyes", "rings", "ring_in: ladder", "ring_close",
        "half")),
    # A bound bail does not open: the ring takes the stone while it is open itself.
    ("a caged stone", [CHAIN, RING, {"kind": "stone_cage"}, CHAIN], {}, (
        "cage_bind", "cage_form", "cage_bail", "cage_bail_close", "cage_pulls", "rings",
        "ring_in: bought chain, stone cage", "ring_close", "half")),
    # On a wrapped bead a bound bail is hung before it is wound round its neck.
    ("a caged stone on a closed ring", [RING, CLOSED, {"kind": "stone_cage"}, RING], {}, (
        "measure_ring", "cage_bail", "take_left: closed ring", "cage_bail_close", "half")),
    ("a focal of another sort", [{"part": LINK, "times": 3}],
     {"mirrored": True, "focal": {"kind": "eye_link"}, **HOOKED}, (
        "first_open", "first_in: the last one", "wrapped_second", "plain_first", "plain_second",
        "take_left: linked bead", "half", "eye_body", "eye_close", "body_in", "join_loop")),
    ("a pendant on the middle ring", [CHAIN, RING],
     {"mirrored": True, "focal": CLOSED, "hung": {"kind": "dangle"}}, (
        "count_links", "measure_ring", "hang_open", "hang_wrapped", "rings",
        "ring_in: bought chain, closed ring", "ring_close", "half")),
    ("the last loop as the eye", [{"part": LINK, "times": 4}],
     {"closure": {"kind": "crook_hook", "into": "last_loop"}}, (
        "first_in: the last one", "wrapped_second", "half", "join_open", "body_in: linked bead",
        "join_loop", "tip", "crook")),
    # A split ring is turned into the finished neighbour.
    ("a hook into a split ring", [{"part": LINK, "times": 4}],
     {"closure": {"kind": "s_hook", "into": "split_ring"}}, (
        "first_in: the last one", "half", "split_ring: linked bead", "s_bows", "hammer_hook",
        "body_in: linked bead", "bind_half")),
    # Repeated pairs: all beads first, then ring by ring.
    ("bead and ring, four times", [{"group": [{"part": LINK}, {"part": RING}], "times": 4}], {}, (
        "first_open", "wrapped_first", "wrapped_second", "rings", "ring_in: linked bead",
        "ring_close", "half")),
    ("coil beads on a core", [{"part": {"kind": "coil_bead"}, "times": 3}],
     {"string_ends": "plain"}, (
        "first_coil", "coil", "coil_ends", "core", "half", "string_last",
        "clasp_rings: the loop of the core")),
    # A swag of closed links goes into both loops of the beads beside it.
    ("a swag between beads", [LINK, {"kind": "swag"}, LINK], {}, (
        "swag_count", "first_open", "first_in: swag", "wrapped_first", "wrapped_open",
        "next_link_first: swag", "wrapped_second", "half")),
    ("plain eyes to a chain", [{"part": {"kind": "eye_link"}, "times": 3}, CHAIN], {}, (
        "count_links", "plain_first", "plain_second", "take_left: the last one, bought chain",
        "half")),
    # Fire first, then pearls: they take the soldered ring themselves.
    ("pearls on a soldered ring",
     [{"part": {**LINK, "stuff": "pearl"}, "times": 2}, SOLDERED,
      {"part": {**LINK, "stuff": "pearl"}, "times": 2}], {}, (
        "ring_close", "ring_solder", "ring_quench", "ring_pickle", "first_open",
        "first_in: the last one, jump ring", "wrapped_first", "thread", "half")),
    ("a hook of one's own", [{"part": LINK, "times": 3}], {"closure": {"kind": "own_hook"}}, (
        "first_in: the last one", "half", "eye", "eye_body: linked bead", "eye_close", "own_moves",
        "take_left: linked bead")),
    # A closed ring between chains that open: the chains take it, nobody else can.
    ("closed ring between chains that open", [OPENED, CLOSED, OPENED], {}, (
        "measure_ring", "count_links", "take_left: closed ring", "half")),
    ("charm between beads on a string",
     [{"part": {"kind": "bead"}, "times": 5}, {"kind": "bare_drop"},
      {"part": {"kind": "bead"}, "times": 5}], {"string_ends": "through"}, (
        "paddle", "clasp_rings", "clasp_on", "string_through", "half", "string_last")),
    # What is braided on hangs in the closure's half from the first move on: that is made first.
    ("a braid hooked on", [{"kind": "braid", "begins": "hooked"}],
     {"closure": {"kind": "folded_hook"}}, (
        "eye", "eye_close", "braid_start: folded hook", "braid", "half", "braid_end", "fold",
        "body_in: braid", "bind")),
    # Rings at the ends of a woven body come when it was tried and its ends are finished.
    ("a lattice with rings at its ends", [{"kind": "lattice"}], {"rings": 3, **HOOKED}, (
        "lattice_row", "half", "lattice_last", "lattice_close", "rings", "ring_in: the last one",
        "ring_close", "eye_body: jump ring", "body_in: jump ring")),
    # Cords are cut to their caps when they were tried, the ring between them hung in long before.
    ("cords to a ring", [{"kind": "cord"}],
     {"mirrored": True, "focal": {"kind": "wound_ring"},
      "closure": {"kind": "end_caps", "cap_of": "coil"}}, (
        "cord_coil", "wound_turns", "cord_head", "half", "cord_ends", "glued")),
    ("a charm slid on a chain", [{"kind": "chain", "links": 60}],
     {"hung": {"kind": "finding", "hangs": True, "inner": "4"}}, (
        "count_links", "slide_on: bought chain", "drops", "half", "clasp_rings: bought chain")),
    ("figure eight to wrapped beads", [LINK, EIGHT, LINK], HOOKED, (
        "wrapped_first", "wrapped_second", "other_side", "take_left: linked bead", "half",
        "eye_body: linked bead", "eye_close", "body_in: linked bead", "join_loop")),
]  # fmt: skip


@pytest.mark.parametrize(("entries", "own", "wanted"), [row[1:] for row in BY_HAND],
                         ids=[row[0] for row in BY_HAND])  # fmt: skip
def test_the_order_is_the_one_a_maker_would_use(
    entries: list[Any], own: dict[str, Any], wanted: Rows
) -> None:
    walked = Walked(*entries, **own)
    assert walked.walk() is None
    told = iter(walked.steps)
    for row in wanted:
        name, _, what = row.partition(": ")
        found = next((one for one in told if one.id.rpartition("/")[2] == name), None)
        assert found is not None, (row, walked.names())
        assert what in found.says or what in found.title, (row, found.says)


def test_nothing_is_said_to_hang_where_nothing_hangs() -> None:
    alone = Walked({"part": LINK, "times": 1}, closure={"kind": "open_ends"})
    assert not set(alone.names()) & {"first_in", "next_link_first"}
    # The first of three has nothing to take.
    three = Walked({"part": LINK, "times": 3}, closure={"kind": "open_ends"})
    assert [one.times for one in three.steps if one.id.endswith("first_in")] == [2]


def test_a_step_is_done_for_every_part_however_much_another_takes() -> None:
    """Each eight takes a closed ring on both sides: it is bent once all the same."""
    row = Walked(CLOSED, EIGHT, CLOSED, {"id": "x", "part": EIGHT}, CLOSED)
    times = {one.id.rpartition("/")[2]: one.times for one in row.steps}
    for own in ("plain_first", "other_side", "take_left"):
        assert times[own] in (1, 2)
    three = Walked({"group": [{"part": CLOSED}, {"part": EIGHT}], "times": 3, "id": "g"}, CLOSED)
    times = {one.id.rpartition("/")[2]: one.times for one in three.steps}
    assert (times["plain_first"], times["other_side"], times["take_left"]) == (3, 3, 3)


def test_a_round_says_which_of_its_parts_a_step_is_not_for() -> None:
    # Two pairs of links with a ring between them: the first of each pair takes nothing.
    pair = {"id": "p", "part": LINK, "times": 2}
    walked = Walked({"id": "g", "group": [pair, {"part": RING}], "times": 2},
                    closure={"kind": "open_ends"})  # fmt: skip
    taking = next(one for one in walked.steps if one.id.endswith("first_in"))
    assert (taking.times, taking.skips) == (2, (1, 3))
    assert "Not for number 1, 3" in taking.says
    # The last of four is closed only when the length was tried.
    bar = Walked({"part": LINK, "times": 4}, closure={"kind": "bar_pin"})
    shut = next(one for one in bar.steps if one.id.endswith("wrapped_second"))
    assert (shut.times, shut.skips) == (3, (4,))


def test_what_may_be_changed_at_the_try_on_is_said_in_millimetres() -> None:
    plan = bracelet([{"id": "l", "part": LINK, "times": 8}])
    half = next(one for one in plan.steps if one.id == "half")
    unit = next(line.value_mm for line in plan.ledger if line.id == "l") / 8
    assert f"One linked bead more or less is {unit:.1f} mm" in half.says
    assert plan.finished_length_mm is not None
    assert f"{plan.finished_length_mm.value:.1f} mm" in half.says
    ids = [one.id for one in plan.steps]
    assert ids.index("l/wrapped_first") < ids.index("half") < ids.index("closure/body_in")


def test_an_earring_and_a_brooch_have_no_length_to_try() -> None:
    for kind in ("drop_earring", "brooch"):
        assert "half" not in {one.id for one in plan_raw(example(kind), Shop()).steps}


# --- Against all orders that there are ------------------------------------------------------------


def some_order_joins(parts: Sequence[dict[str, Any]]) -> bool:
    """Try every order in which a row of parts can be made: what is made takes what is there."""
    takes = [OF_KIND[str(part)] for part in parts]
    beaded = [part in BEADED for part in parts]
    for order in permutations(range(len(parts))):
        made: set[int] = set()
        joined = set()
        for thing in order:
            for side, other in ((0, thing - 1), (1, thing + 1)):
                # Nothing with beads is in a ring when the flame is held to it.
                burns = parts[thing] == SOLDERED and other in made and beaded[other]
                if other in made and takes[thing][side] and not burns:
                    joined.add(min(thing, other))
            made.add(thing)
        if len(joined) == len(parts) - 1:
            return True
    return False


def is_planned(parts: Sequence[dict[str, Any]]) -> bool:
    try:
        walked = Walked(*parts, closure={"kind": "open_ends"})
    except Refusal as refusal:
        if refusal.key not in ("neither_opens", "no_order", "law_broken"):
            raise
        return False
    return walked.walk() is None


def test_every_part_between_every_two_neighbours() -> None:
    kinds = [part for part, _ in TAKES]
    for left, part, right in product(kinds, kinds, kinds):
        row = [left, part, right]
        assert is_planned(row) == some_order_joins(row), row


def test_what_is_refused_could_be_made_in_no_order() -> None:
    pick = random.Random(2811)
    kinds = [part for part, _ in TAKES]
    planned = 0
    for _ in range(samples(120, 2000)):
        row = pick.choices(kinds, weights=[6, 4, 6, 2, 1, 2, 1, 1, 3, 3], k=pick.randint(1, 6))
        fits = is_planned(row)
        assert fits == some_order_joins(row), row
        planned += fits
    assert planned > 60


def test_a_refusal_names_both_and_what_would_do() -> None:
    with pytest.raises(BriefRefused) as refused:
        bracelet([CHAIN, CLOSED])
    (problem,) = refused.value.problems
    assert problem.field.startswith("piece.entries.1")
    assert "bought chain" in problem.says
    assert "closed ring" in problem.says
    assert "jump ring" in problem.says
    assert bracelet([CHAIN, RING, CLOSED, RING]).steps


@pytest.mark.parametrize("stuff", ["pearl", "glass"])
def test_the_middle_of_a_soldered_chain_takes_what_can_be_closed_round_it(stuff: str) -> None:
    hung = {"kind": "dangle", "stuff": stuff}
    plan = bracelet([{"id": "c", "part": {"kind": "chain", "links": 60}}], hung=hung)
    said = {one.id: one.says for one in plan.steps}
    assert "bought chain" in said["hung/hang_in"]
    # One with a wide loop is slid on, one with a narrow loop needs a ring.
    wide = {"kind": "finding", "hangs": True, "inner": "4"}
    slid = bracelet([{"part": {"kind": "chain", "links": 60}}], hung=wide)
    ids = [one.id for one in slid.steps]
    assert ids.index("hung/slide_on") < ids.index("closure/body_in")
    with pytest.raises(BriefRefused, match="Neither bought finding nor bought chain"):
        bracelet([{"part": {"kind": "chain", "links": 60}}], hung={**wide, "inner": "1"})


# --- Broken on purpose ----------------------------------------------------------------------------

Change = Callable[[Walked], Sequence[Step]]


def swapped(one: str, other: str) -> Change:
    """Two steps the other way round."""

    def change(walked: Walked) -> Sequence[Step]:
        rows = list(walked.steps)
        a, b = walked.at(one), walked.at(other)
        rows[a], rows[b] = rows[b], rows[a]
        return rows

    return change


def dropped(name: str) -> Change:
    """A step left out."""
    return lambda walked: [s for n, s in enumerate(walked.steps) if n != walked.at(name)]


def moved(name: str, before: str) -> Change:
    """A step done earlier or later: just before another."""

    def change(walked: Walked) -> Sequence[Step]:
        rows = list(walked.steps)
        one, other = rows[walked.at(name)], rows[walked.at(before)]
        rows.remove(one)
        rows.insert(rows.index(other), one)
        return rows

    return change


def last(name: str) -> Change:
    """A step done at the very end."""

    def change(walked: Walked) -> Sequence[Step]:
        rows = list(walked.steps)
        one = rows.pop(walked.at(name))
        return [*rows, one]

    return change


def declared(name: str, **wrong: Any) -> Change:
    """A step that does what it did, and says something else of it."""

    def change(walked: Walked) -> Sequence[Step]:
        at = walked.at(name)
        rows = list(walked.steps)
        rows[at] = rows[at].model_copy(update=wrong)
        return rows

    return change


CHAINS = [CHAIN, LINK, CHAIN]
LINKS = [{"part": LINK, "times": 5}]
RINGS = [LINK, RING, LINK]
HOT = [LINK, SOLDERED, LINK]
STRING = [{"part": {"kind": "spacer_coil"}, "times": 9}]
FOLD = [{"part": FOLDED, "times": 4}]
DANGLE = [CHAIN, RING, {"kind": "dangle"}, CHAIN]
FLAT = [{"part": EIGHT, "times": 3}]
LEFT = {"closure": {"kind": "bar_pin"}}
FAULTS: list[tuple[int, list[Any], dict[str, Any], Change]] = [
    # Linking: shut before what it holds is in it.
    (1, CHAINS, {}, swapped("first_in", "wrapped_first")),
    (1, CHAINS, {}, swapped("next_link_first", "wrapped_second")),
    (1, CHAINS, {}, moved("wrapped_second", "next_link_first")),
    (1, CHAINS, {}, moved("wrapped_first", "first_in")),
    (1, LINKS, HOOKED, swapped("first_in", "wrapped_first")),
    (1, LINKS, HOOKED, swapped("eye_body", "eye_close")),
    (1, LINKS, HOOKED, swapped("body_in", "join_loop")),
    (1, LINKS, HOOKED, moved("eye_close", "eye_body")),
    (1, FOLD, {}, swapped("roll_over", "roll_close")),
    (1, FOLD, {}, moved("roll_close", "roll_over")),
    (1, LINKS, {"closure": {"kind": "s_hook"}}, swapped("body_in", "bind_half")),
    (1, LINKS, {"closure": {"kind": "folded_hook"}}, swapped("body_in", "bind")),
    (1, LINKS, {"closure": {"kind": "doubled_hook"}}, swapped("body_in", "loops_close")),
    (1, LINKS, LEFT, last("first_in")),
    # Rings: soldered before what they hold is in them.
    (4, [CHAIN, SOLDERED, CHAIN], {}, swapped("ring_in", "ring_solder")),
    (4, [CHAIN, SOLDERED, CHAIN], {}, moved("ring_solder", "ring_in")),
    (4, [{"part": SOLDERED, "times": 3}], {}, swapped("ring_in", "ring_solder")),
    # Used before it is made, or never joined.
    (5, CHAINS, {}, dropped("first_in")),
    # Left open for good.
    (5, CHAINS, {}, dropped("wrapped_second")),
    (5, LINKS, {"closure": {"kind": "open_ends"}}, dropped("wrapped_first")),
    (5, LINKS, HOOKED, dropped("join_loop")),
    (5, LINKS, HOOKED, dropped("eye_close")),
    (5, CHAINS, {}, dropped("next_link_first")),
    (5, CHAINS, {}, swapped("first_open", "first_in")),
    (5, CHAINS, {}, moved("next_link_first", "wrapped_open")),
    (5, LINKS, HOOKED, dropped("first_in")),
    (5, LINKS, HOOKED, dropped("eye_body")),
    (5, LINKS, HOOKED, dropped("body_in")),
    (5, LINKS, HOOKED, swapped("eye_join", "eye_body")),
    (5, LINKS, HOOKED, swapped("join_open", "body_in")),
    (5, RINGS, {}, dropped("ring_in")),
    (5, DANGLE, {}, dropped("ring_in")),
    (5, FOLD, {}, dropped("roll_over")),
    (5, FOLD, {}, swapped("roll", "roll_over")),
    (5, LINKS, {"closure": {"kind": "s_hook"}}, dropped("body_in")),
    (5, LINKS, LEFT, dropped("close")),
    (5, FLAT, {}, dropped("take_left")),
    (5, STRING, {}, dropped("clasp_rings")),
    (5, STRING, {}, dropped("clasp_on")),
    (5, HOT, {}, dropped("next_link_first")),
    (5, RINGS, HOOKED, dropped("eye_join")),
    # Threading: the end is closed before all is on.
    (3, STRING, {}, moved("string_first", "coil_long")),
    (3, STRING, {}, moved("string_last", "coil_long")),
    # Tried when nothing can be changed, or not at all.
    (10, LINKS, HOOKED, last("half")),
    (10, LINKS, LEFT, last("half")),
    (10, CHAINS, {}, last("half")),
    (10, STRING, {}, last("half")),
    (10, LINKS, HOOKED, dropped("half")),
    (10, STRING, {}, dropped("half")),
    (10, [{"kind": "ladder", "rows": 20}], {}, last("half")),
]  # fmt: skip
# What a step says of itself is wrong: an effect left out, or one too many.
WRONG: list[tuple[list[Any], dict[str, Any], Change]] = [
    (CHAINS, {}, declared("first_in", takes_in=())),
    (CHAINS, {}, declared("next_link_first", takes_in=())),
    (CHAINS, {}, declared("first_in", takes_in=("right",))),
    (CHAINS, {}, declared("first_open", makes=())),
    (CHAINS, {}, declared("wrapped_open", makes=())),
    (CHAINS, {}, declared("wrapped_open", makes=("left",))),
    (CHAINS, {}, declared("first_open", shuts=("left",))),
    (CHAINS, {}, declared("wrapped_open", shuts=("right",))),
    (LINKS, HOOKED, declared("first_in", takes_in=())),
    (LINKS, HOOKED, declared("eye_body", takes_in=())),
    (LINKS, HOOKED, declared("body_in", takes_in=("right",))),
    (LINKS, HOOKED, declared("eye_join", makes=())),
    (LINKS, HOOKED, declared("join_open", shuts=("body",))),
    (RINGS, {}, declared("ring_in", takes_in=())),
    (RINGS, {}, declared("ring_in", takes_in=("left",))),
    (DANGLE, {}, declared("ring_in", takes_in=("right",))),
    (FOLD, {}, declared("roll_over", takes_in=())),
    (FOLD, {}, declared("roll", makes=("right",))),
    (FOLD, {}, declared("roll", shuts=("left",))),
    (LINKS, LEFT, declared("close", takes_in=())),
    (STRING, {}, declared("clasp_rings", takes_in=())),
    (STRING, {}, declared("string_first", makes=())),
]  # fmt: skip


@pytest.mark.parametrize(("law", "entries", "own", "change"), FAULTS)
def test_the_walker_names_the_law_that_a_planted_fault_breaks(
    law: int, entries: list[Any], own: dict[str, Any], change: Change
) -> None:
    walked = Walked(*entries, **own)
    assert walked.walk() is None
    broken = walked.walk(change(walked))
    assert broken is not None
    assert broken.law == law


@pytest.mark.parametrize(("entries", "own", "change"), WRONG)
def test_the_walker_finds_a_wrong_declaration(
    entries: list[Any], own: dict[str, Any], change: Change
) -> None:
    walked = Walked(*entries, **own)
    assert walked.walk() is None
    assert walked.walk(change(walked)) is not None


def test_heat_beside_beads_glue_before_heat_and_force_on_beads_are_found() -> None:
    pearls = {"kind": "linked_bead", "stuff": "pearl"}
    hot = Walked(pearls, SOLDERED, pearls)
    assert hot.walk() is None
    # The ring's flame, moved to the beads that already hang in it.
    flame = hot.steps[hot.at("ring_solder")]
    burnt = [*hot.steps]
    at = hot.at("wrapped_second")
    burnt.insert(at + 1, flame.model_copy(update={"thing": hot.steps[at].thing, "shuts": ()}))
    broken = hot.walk(burnt)
    assert broken is not None
    assert broken.law == 7
    struck = [*hot.steps]
    struck[at] = struck[at].model_copy(update={"works": "hammered"})
    broken = hot.walk(struck)
    assert broken is not None
    assert broken.law == 8
    caps = Walked({"kind": "coil_mesh", "coils": 4}, closure={"kind": "end_caps"})
    early = [*caps.steps]
    early.insert(0, early.pop(caps.at("glued")))
    assert caps.walk(early) is not None


def test_what_hangs_beside_a_string_is_on_it_once() -> None:
    beads = {"part": {"kind": "bead"}, "times": 6}
    hung = {"kind": "dangle"}
    for more in ({"mirrored": True}, {"mirrored": True, "focal": {"kind": "bead"}}, {}):
        walked = Walked(beads, hung=hung, **more)
        assert walked.walk() is None
        names = [walked.things.sorts[n].name for n in walked.things.sort_of]
        assert names.count("dangle") == 1
        threaded = [walked.things.sort_of[one] for one, _ in walked.things.threaded]
        assert sum(walked.things.sorts[n].name == "dangle" for n in threaded) == 1


def test_a_row_that_runs_both_ways_from_its_middle_is_joined_outwards() -> None:
    # Folded links take with their roll only: mirrored, both halves begin at their closed rings.
    brief = {"part": {"kind": "ring_link"}, "times": 3}
    walked = Walked(brief, focal=RING, mirrored=True, closure={"kind": "open_ends"})
    assert walked.walk() is None
    order = walked.order.rounds
    things = [thing for one in order for thing in one.things]
    sides = {thing: n for n, thing in enumerate(things)}
    folded = next(row for row in walked.things.members if len(row) == 6)
    left, right = folded[:3], folded[3:]
    assert all(sides[a] < sides[b] for a, b in pairwise(left))
    assert all(sides[a] > sides[b] for a, b in pairwise(right))


# --- Heat, force and finish over every construction -----------------------------------------------

EVERY = {"finish": ["hallmark", "file", "patina", "tumble", "polish"], "hammer": "both"}
FULL = Shop.model_validate(
    {"outfit": {"torch": True, "pickle": True, "mill": True, "tumbler": True, "punches": ["6"]}}
)


@pytest.mark.parametrize("name", sorted(path.stem for path in EXAMPLES.glob("*.json")))
def test_nothing_is_heated_hit_or_finished_beside_glue_charms_and_pearls(name: str) -> None:
    plan = plan_raw({**example(name), "making": EVERY}, FULL)
    late = [n for n, one in enumerate(plan.steps) if "glue" in one.cautions or one.id == "charms"]
    rough = [
        n
        for n, one in enumerate(plan.steps)
        if "torch" in one.cautions or one.works in ("malleted", "hammered", "softened")
    ]
    finishes = [n for n, one in enumerate(plan.steps) if one.work.startswith("finish.")]
    assert len(finishes) == len(EVERY["finish"])
    if late:
        assert max([*rough, *finishes]) < min(late)
    # A mark is made when what changes length before it is done.
    ids = [one.id for one in plan.steps]
    if "mark" in ids:
        assert ids.index("cut") < ids.index("mark") < min(rough, default=len(ids))


@pytest.mark.parametrize("name", sorted(path.stem for path in EXAMPLES.glob("*.json")))
def test_no_step_names_what_the_piece_has_not(name: str) -> None:
    plan = plan_raw(example(name), Shop())
    said = " ".join(f"{one.title} {one.says}" for one in plan.steps)
    kinds = {need.kind for need in plan.needs}
    if "charm" not in kinds and "charms" not in example(name)["piece"]:
        assert "charm" not in said
    if all("torch" not in one.wants for one in plan.steps):
        assert "solder" not in said
    # What is put on a wire by a step is there to be put on.
    assert ("glue" not in said.lower()) or any("glue" in one.cautions for one in plan.steps)
    # No sentence speaks of a mandrel or mallet in a piece that is shaped by hand.
    by_hand = plan_raw({**example(name), "making": {"shaped_by": "hands"}}, Shop())
    shaped = " ".join(one.says for one in by_hand.steps if one.id in ("shape", "round"))
    assert "mandrel" not in shaped
    assert "allet" not in shaped


def test_every_plan_lists_its_tools_and_says_which_the_bench_lacks() -> None:
    bare = Shop.model_validate({"pins": [], "outfit": {"hammer": False}})
    for path in EXAMPLES.glob("*.json"):
        for shop in (Shop(), bare):
            plan = plan_raw(example(path.stem), shop)
            told = {one.says: one for one in plan.tools}
            wanted = {thing for one in plan.steps for thing in one.wants}
            assert {say(f"outfit.{thing}") for thing in wanted} <= set(told)
            for thing in wanted:
                assert told[say(f"outfit.{thing}")].lacks is not getattr(shop.outfit, thing)
            pins = {round(bend.tool_mm or bend.pin, 3) for bend in plan.bends if bend.pin > 0}
            sizes = {round(size, 3) for one in plan.tools for size in one.sizes_mm}
            assert pins <= sizes

"""Metal by role: what a role is made of, its cuts, masses, strength, stock and colours follow."""

from copy import deepcopy
from typing import Any

import pytest

from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import palette_of
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice, metals
from jamreel.core.wire.palette import PaletteChoice
from tests.core.families import example

Row = dict[str, Any]


def wire(metal: str, mm: float = 0.8, **more: Any) -> Row:
    return {"size": f"{mm} mm", "metal": metal, "temper": "dead_soft", **more}


def bracelet(palette: Row | None = None, **piece: Any) -> Plan:
    brief = example("linked_bracelet")
    brief["piece"] = {
        "kind": "linked_bracelet",
        "counted": False,
        "entries": [
            {"id": "links", "part": {"kind": "linked_bead", "bead": "6"}, "times": 8},
            {"id": "jumps", "part": {"kind": "jump_ring", "pin": "4"}, "times": 3},
        ],
        "closure": {"kind": "folded_hook"},
        **piece,
    }
    return plan_raw({**brief, "palette": palette or {}}, Shop())


def cut_of(plan: Plan, start: str) -> Any:
    return next(cut for cut in plan.cuts if cut.id.startswith(start))


def test_a_role_takes_its_own_metal_and_only_that_role() -> None:
    plain = bracelet()
    brass = bracelet({"rings": wire("brass", 0.812)})
    links, rings = cut_of(brass, "links/"), cut_of(brass, "coil/jump_ring")
    assert (links.metal, rings.metal) == ("copper", "brass (70/30)")
    assert links.stock != rings.stock
    was = cut_of(plain, "coil/jump_ring")
    # Nearly the same length of 0.812 mm wire: how far a coil springs open differs by the metal.
    assert rings.length_mm == pytest.approx(was.length_mm, rel=0.02)
    per_mm = rings.mass_g / rings.length_mm
    ratio = metals()["brass"].density / metals()["copper"].density
    assert per_mm / (was.mass_g / was.length_mm) == pytest.approx(ratio, rel=2e-3)
    assert plain.mass_g - brass.mass_g == pytest.approx(was.mass_g - rings.mass_g)


def test_mass_of_a_wire_is_its_volume_by_its_density() -> None:
    rings = cut_of(bracelet({"rings": wire("brass", 1.0)}), "coil/jump_ring")
    volume = 3.14159265 / 4 * 1.0**2 * rings.length_mm
    assert rings.mass_g == pytest.approx(volume * metals()["brass"].density / 1000, rel=1e-3)


def test_the_strings_wire_is_the_strings_alone() -> None:
    strung: Row = {
        "entries": [{"id": "row", "part": {"kind": "bead", "bead": "6"}, "times": 20}],
        "closure": {"kind": "bought_clasp"},
    }
    plan = bracelet({"string": wire("fine_silver", 0.4)}, **strung)
    (run,) = [cut for cut in plan.cuts if "string" in cut.id]
    assert run.metal == "fine silver"
    assert run.wire_mm == pytest.approx(0.4)
    # Loops of thinner wire take less, and let the beads lie as they are.
    thick = cut_of(bracelet(None, **strung), run.id)
    assert run.length_mm < thick.length_mm


def test_a_wire_of_the_makers_own_is_made_of_by_name() -> None:
    entries = [
        {"id": "plain", "part": {"kind": "linked_bead"}, "times": 4},
        {"id": "red", "part": {"kind": "linked_bead"}, "times": 4, "made_of": "accent"},
    ]
    plan = bracelet({"own": {"accent": wire("brass", 0.812)}}, entries=entries)
    plain, red = cut_of(plan, "plain/"), cut_of(plan, "red/")
    assert (plain.metal, red.metal) == ("copper", "brass (70/30)")
    # The same length, and still not cut together.
    assert plain.length_mm == pytest.approx(red.length_mm, abs=0.01)
    assert plain.alike != red.alike
    assert plain.colour != red.colour


def test_a_wire_that_the_palette_lacks_is_refused_at_its_entry() -> None:
    entries = [{"id": "red", "part": {"kind": "linked_bead"}, "times": 4, "made_of": "accent"}]
    with pytest.raises(BriefRefused) as refused:
        bracelet({"own": {"other": wire("brass")}}, entries=entries)
    (problem,) = refused.value.problems
    assert problem.field.endswith("made_of")
    assert problem.got == "accent"
    assert "other" in problem.says


def test_a_role_is_no_wire_to_make_a_single_entry_of() -> None:
    entries = [{"id": "one", "part": {"kind": "linked_bead"}, "times": 4, "made_of": "rings"}]
    with pytest.raises(BriefRefused) as refused:
        bracelet({"rings": wire("brass"), "own": {"accent": wire("brass")}}, entries=entries)
    (problem,) = refused.value.problems
    assert (problem.got, problem.expected) == ("rings", "one of the piece's own wires: accent")


@pytest.mark.parametrize("name", ["string", "winding", "rings", "closure", "body"])
def test_a_wire_of_the_makers_own_is_never_called_as_a_role(name: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        bracelet({"own": {name: wire("brass")}})
    assert refused.value.problems[0].got == name
    assert "palette" in refused.value.problems[0].field


@pytest.mark.parametrize(
    ("palette", "field"),
    [
        ({"rings": wire("unobtainium")}, "palette.rings.metal"),
        ({"string": wire("copper", 99)}, "palette.string.size"),
        ({"rings": {"size": "nonsense"}}, "palette.rings.size"),
        ({"own": {"Loud!": wire("brass")}}, "palette.own"),
        ({"glue": wire("brass")}, "palette.glue"),
    ],
)
def test_nonsense_in_the_palette_is_named_where_it_stands(palette: Row, field: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        bracelet(palette)
    assert refused.value.problems[0].field.startswith(field)


def test_loops_and_coils_are_made_of_round_wire() -> None:
    square = {"size": "1 mm", "metal": "copper", "section": {"shape": "square", "side": "1"}}
    with pytest.raises(BriefRefused) as refused:
        bracelet({"rings": square})
    assert refused.value.problems[0].field == "palette.rings.section"


def test_springback_follows_the_metal_of_the_role_and_of_no_other() -> None:
    def opens(temper: str) -> dict[str, float]:
        closure = {"size": "1 mm", "metal": "copper", "temper": temper}
        return {bend.id: bend.opens_to_mm for bend in bracelet({"closure": closure}).bends}

    soft, spring = opens("dead_soft"), opens("spring")
    assert spring["closure/eye/loop"] > soft["closure/eye/loop"] + 0.1
    assert spring["links/linked_bead/loop"] == soft["links/linked_bead/loop"]


def test_cautions_follow_every_metal_of_a_piece() -> None:
    plain, steel = bracelet(), bracelet({"rings": wire("memory_steel", 0.812)})
    assert {note.id for note in steel.advice} - {note.id for note in plain.advice} == {"own_shears"}
    cutting = [next(step for step in plan.steps if step.id == "cut") for plan in (plain, steel)]
    assert cutting[0].cautions != cutting[1].cautions


def test_a_bare_gauge_number_is_noted_at_the_role_that_it_was_typed_for() -> None:
    notes = bracelet({"rings": {"size": "20", "metal": "brass"}}).advice
    (assumed,) = [note for note in notes if note.id == "assumed_system"]
    assert assumed.field == "palette.rings.size"


def test_a_palette_gives_roles_their_sizes() -> None:
    body = WireChoice(size=WireSize(diameter_mm=1.0), metal="copper")
    thin = WireChoice(size=WireSize(diameter_mm=0.3), metal="brass")
    palette = palette_of(body, PaletteChoice(winding=thin, own={"accent": thin}))
    assert palette.of("winding").d == 0.3
    assert palette.of("winding", usual=0.5).d == 0.3
    assert palette.of("string", usual=0.5).d == 0.5
    assert palette.of("string").d == 1.0
    own_size = palette.of("winding", WireSize(diameter_mm=0.4))
    assert (own_size.d, own_size.metal.id) == (0.4, "brass")
    accent = palette.made_of("accent")
    assert (accent.body.metal.id, accent.of("winding").d) == ("brass", 0.3)
    assert accent.of("string").d == 0.3
    assert palette.made_of("") is palette
    with pytest.raises(Refusal):
        palette.made_of("nothing")


def test_single_wires_have_minutes_needs_mass_and_a_weakest_point_too() -> None:
    for kind in ("closed_bangle", "open_cuff", "ear_cuff"):
        plan = plan_raw(deepcopy(example(kind)), Shop())
        assert (plan.minutes or 0) > 0
        wires = sum(c.mass_g * c.quantity for c in plan.cuts)
        # Solder is bought, and weighs something.
        assert plan.mass_g - wires == pytest.approx(0.05 if kind == "closed_bangle" else 0.0)
        assert plan.weakest is not None
        assert plan.weakest.newtons > 0
    closed = plan_raw(deepcopy(example("closed_bangle")), Shop())
    assert any("solder" in need.label for need in closed.needs)

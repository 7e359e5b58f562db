import math
import pickle

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.law import Law
from jamreel.core.forming.springback import former_diameter, sprung_diameter
from jamreel.core.forming.tools import Place, Tool, choose_former, nearest_place, taper_place
from jamreel.core.plan import BriefRefused, read_shop
from jamreel.core.wire.metals import metals
from jamreel.core.wire.sections import Round


@given(st.floats(45, 70), st.floats(0.8, 3.2), st.floats(60, 350))
def test_wire_off_the_ideal_former_springs_to_the_target(
    target: float, wire: float, strength: float
) -> None:
    former = former_diameter(target, Round(diameter=wire), Law(117000, strength))
    assert former < target
    assert sprung_diameter(former, Round(diameter=wire), Law(117000, strength)) == pytest.approx(
        target, abs=1e-6
    )


@given(st.floats(20, 60), st.floats(1, 3))
def test_harder_wire_springs_further(former: float, wire: float) -> None:
    soft, hard = (sprung_diameter(former, Round(diameter=wire), Law(117000, s)) for s in (70, 300))
    assert former < soft < hard


def test_an_elastic_bend_springs_straight() -> None:
    assert math.isinf(sprung_diameter(400, Round(diameter=0.3), Law(117000, 300)))
    with pytest.raises(ValueError, match="no former"):
        former_diameter(1.0, Round(diameter=1.2), Law(117000, 210))


def test_the_nearest_step_over_all_tools_the_smaller_of_two_equal() -> None:
    tools = [
        Tool(name="mandrel", kind="stepped mandrel", diameters=(46, 50)),
        Tool(name="tin", kind="household", diameters=(47.5,)),
    ]
    assert nearest_place(47.2, tools) == Place(tools[1], 47.5)
    assert nearest_place(48.75, tools) == Place(tools[1], 47.5)
    assert nearest_place(48.8, tools) == Place(tools[0], 50)
    assert nearest_place(48, []) is None


def test_a_loop_is_marked_on_the_jaw_where_the_cone_has_its_diameter() -> None:
    cone = Tool(name="cone", kind="cone pliers", tip=1.5, base=6, length=36)
    assert nearest_place(3.0, [cone]) == Place(cone, 3.0, 12.0)
    # Wider than its base or finer than its tip it offers those.
    assert nearest_place(9.0, [cone]) == Place(cone, 6.0, 36.0)
    assert nearest_place(1.0, [cone]) == Place(cone, 1.5, 0.0)
    assert taper_place(6.0, 1.5, 6.0, 36.0) == 36.0
    # A taper comes nearer than the steps beside it.
    steps = Tool(name="steps", kind="stepped pliers", diameters=(2, 4))
    found = nearest_place(3.3, [steps, cone])
    assert found is not None
    assert found.tool is cone
    assert found.at == pytest.approx(14.4)


def test_an_oval_mandrel_goes_by_its_breadth_and_bends_by_its_girth() -> None:
    oval = Tool(name="oval", kind="tapered mandrel", tip=40, base=70, length=300, ratio=1.25)
    place = nearest_place(52.0, [oval], oval=True)
    assert place is not None
    # An ellipse 57.9 by 46.3: Ramanujan's perimeter, published, comes to that of a circle of 52.
    a, b = place.step / 2, place.step / 2.5
    h = ((a - b) / (a + b)) ** 2
    girth = math.pi * (a + b) * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h)))
    assert girth == pytest.approx(math.pi * 52.0, rel=1e-6)
    assert place.at == pytest.approx((place.step - 40) / 30 * 300)
    # No loop is bent on it.
    assert nearest_place(52.0, [oval]) is None


@pytest.mark.parametrize(
    ("tool", "key", "field"),
    [
        ({"kind": "dowels"}, "tool_no_steps", "diameters"),
        ({"kind": "cone pliers", "tip": 2, "length": 30}, "missing", "base"),
        ({"kind": "cone pliers", "tip": 6, "base": 2, "length": 30}, "tool_taper", "base"),
        ({"kind": "cone pliers", "tip": 2, "base": 6, "length": 0.1}, "tool_length", "length"),
        ({"kind": "stepped mandrel", "diameters": [40], "ratio": 3}, "tool_ratio", "ratio"),
        ({"kind": "dowels", "diameters": [4000]}, "tool_diameter", ""),
    ],
)
def test_a_tool_that_can_not_be_is_refused_by_its_field(
    tool: dict[str, object], key: str, field: str
) -> None:
    with pytest.raises(BriefRefused) as refused:
        read_shop({"pins": [{"name": "odd", **tool}]})
    (problem,) = refused.value.problems
    assert (problem.key, problem.field) == (key, f"pins.0.{field}".rstrip("."))


def test_what_the_nearest_step_does_to_the_result() -> None:
    tools = [Tool(name="mandrel", kind="stepped mandrel", diameters=(46, 52))]
    found = choose_former(
        54.43, 49.11, tools, lambda d: sprung_diameter(d, Round(diameter=1.628), Law(117000, 210))
    )
    assert (found.tool, found.tool_mm) == ("mandrel", 52)
    assert found.result_mm == pytest.approx(
        sprung_diameter(52, Round(diameter=1.628), Law(117000, 210))
    )
    assert (
        choose_former(
            54.43, 49.11, [], lambda d: sprung_diameter(d, Round(diameter=1.628), Law(117000, 210))
        ).tool
        is None
    )


def test_a_wire_is_written_down_as_it_was_chosen_whatever_was_asked_of_it() -> None:
    fresh, asked = (Wire(1.0, "1.0", metals()["copper"], "half_hard", 200.0) for _ in range(2))
    before = pickle.dumps(fresh)
    assert asked.sprung(20.0) == asked.sprung(20.0) > 20.0
    assert (asked.area, asked.fibre, hash(asked)) == (fresh.area, fresh.fibre, hash(fresh))
    assert pickle.dumps(asked) == before
    back = pickle.loads(before)
    assert (back, hash(back), back.sprung(20.0)) == (asked, hash(asked), asked.sprung(20.0))

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.forming.springback import former_diameter, sprung_diameter
from jamreel.core.forming.tools import Tool, choose_former, nearest_step
from jamreel.core.wire.sections import Round


@given(st.floats(45, 70), st.floats(0.8, 3.2), st.floats(60, 350))
def test_wire_off_the_ideal_former_springs_to_the_target(
    target: float, wire: float, strength: float
) -> None:
    former = former_diameter(target, Round(diameter=wire), strength, 117000)
    assert former < target
    assert sprung_diameter(former, Round(diameter=wire), strength, 117000) == pytest.approx(
        target, abs=1e-6
    )


@given(st.floats(20, 60), st.floats(1, 3))
def test_harder_wire_springs_further(former: float, wire: float) -> None:
    soft, hard = (sprung_diameter(former, Round(diameter=wire), s, 117000) for s in (70, 300))
    assert former < soft < hard


def test_an_elastic_bend_springs_straight() -> None:
    assert math.isinf(sprung_diameter(400, Round(diameter=0.3), 300, 117000))
    with pytest.raises(ValueError, match="no former"):
        former_diameter(1.0, Round(diameter=1.2), 210, 117000)


def test_the_nearest_step_over_all_tools_the_smaller_of_two_equal() -> None:
    tools = [
        Tool(name="mandrel", kind="stepped mandrel", diameters=(46, 50)),
        Tool(name="tin", kind="household", diameters=(47.5,)),
    ]
    assert nearest_step(47.2, tools) == (tools[1], 47.5)
    assert nearest_step(48.75, tools) == (tools[1], 47.5)
    assert nearest_step(48.8, tools) == (tools[0], 50)
    assert nearest_step(48, []) is None


def test_what_the_nearest_step_does_to_the_result() -> None:
    tools = [Tool(name="mandrel", kind="stepped mandrel", diameters=(46, 52))]
    found = choose_former(54.43, 49.11, tools, Round(diameter=1.628), 210, 117000)
    assert (found.tool, found.tool_mm) == ("mandrel", 52)
    assert found.result_mm == pytest.approx(sprung_diameter(52, Round(diameter=1.628), 210, 117000))
    assert choose_former(54.43, 49.11, [], Round(diameter=1.628), 210, 117000).tool is None

"""The maker's own formers and pins, and the nearest real step to a wanted one."""

import math
from collections.abc import Sequence
from typing import Literal

from pydantic import Field, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.forming.springback import sprung_diameter
from jamreel.core.units import Mm
from jamreel.core.values import Frozen, Length, refused
from jamreel.core.wire.sections import Section


class Tool(Frozen):
    """Something round to bend on, with the diameters [mm] that it offers."""

    name: str = Field(min_length=1, max_length=60)
    kind: Literal["stepped mandrel", "stepped pliers", "dowels", "household"]
    diameters: tuple[Length, ...] = Field(min_length=1, max_length=60)

    @model_validator(mode="after")
    def _real_diameters(self) -> "Tool":
        for d in self.diameters:
            if not 0.5 <= d <= 400:
                raise refused(Refusal("tool_diameter", got=Mm(d), low=0.5, high=400.0))
        return self


class Former(Frozen):
    """What to bend a piece's body on.

    ``target_mm`` is the inside diameter wanted, ``former_mm`` the ideal former for it, ``tool``
    and ``tool_mm`` the nearest step the maker has, and ``result_mm`` what wire off that step
    opens to. ``tool`` is None when there is no tool to bend on.
    """

    target_mm: float
    former_mm: float
    tool: str | None
    tool_mm: float | None
    result_mm: float | None
    turns: int = 1


def nearest_step(wanted: float, tools: Sequence[Tool]) -> tuple[Tool, float] | None:
    """Return the tool and diameter [mm] nearest to a wanted one, or None without tools.

    Of two steps equally near the smaller is taken: a curve is easier opened than closed.
    """
    steps = [(abs(d - wanted), d, tool) for tool in tools for d in tool.diameters]
    if not steps:
        return None
    _, diameter, tool = min(steps, key=lambda step: step[:2])
    return tool, diameter


def choose_former(
    target: float,
    former: float,
    tools: Sequence[Tool],
    section: Section,
    yield_mpa: float,
    youngs: float,
) -> Former:
    """Return the former for a target diameter, with what the nearest real step does to it.

    Args:
        target: inside diameter wanted [mm].
        former: the ideal former [mm].
        tools: what the maker has.
        section: of the wire.
        yield_mpa: [MPa].
        youngs: [MPa].

    Source: ``sprung_diameter``.
    """
    found = nearest_step(former, tools)
    # A step half or twice as wide is no former for this.
    if found is None or not 0.6 <= found[1] / former <= 1.7:
        return Former(target_mm=target, former_mm=former, tool=None, tool_mm=None, result_mm=None)
    tool, step = found
    result = sprung_diameter(step, section, yield_mpa, youngs)
    return Former(
        target_mm=target,
        former_mm=former,
        tool=tool.name,
        tool_mm=step,
        result_mm=None if math.isinf(result) else result,
    )

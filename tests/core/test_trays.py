"""Trays that may serve a need, by size and by what their names say."""

import math
from typing import Literal

import pytest

from jamreel.core.cutting.cuts import Share
from jamreel.core.result import Need
from jamreel.core.workpiece.trays import size_apart, tray_fits


def need(
    size: str = "6.0 mm slate blue glass",
    mm: float | None = 6.0,
    kind: Literal["bead", "finding"] = "bead",
) -> Need:
    return Need(
        id="e1/n",
        kind=kind,
        label="beads",
        size=size,
        size_mm=mm,
        quantity=1,
        mass_g=0.0,
        shares=(Share(entry="e1", count=1),),
    )


@pytest.mark.parametrize(
    ("size", "name", "fits"),
    [
        (6.0, "slate glass", True),
        (6.15, "Slate Glass, tin", True),
        (6.16, "slate glass", False),
        (5.84, "slate glass", False),
        (6.0, "jar by the door", True),
        (6.0, "amber glass", False),
        (6.0, "slate stone", False),
        (6.0, "stone or glass", True),
        (None, "slate glass", False),
    ],
)
def test_size_stuff_and_colour_have_to_agree(size: float | None, name: str, fits: bool) -> None:
    assert tray_fits(need(), size, name) is fits


def test_findings_go_by_their_size_alone() -> None:
    clasp = need("11.0 mm", 11.0, "finding")
    assert tray_fits(clasp, 11.1, "amber clasps")
    assert not tray_fits(clasp, 12.0, "clasps")
    assert not tray_fits(need("0.81 mm x 45.9 mm", None, "finding"), 11.0, "pins")


def test_what_has_no_size_is_infinitely_far() -> None:
    assert size_apart(need(), 4.5) == 1.5
    assert math.isinf(size_apart(need(), None))
    assert math.isinf(size_apart(need(mm=None), 4.5))

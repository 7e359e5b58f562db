"""Gauges against published tables.

ASTM B258-18, Standard Nominal Diameters and Cross-Sectional Areas of AWG Sizes of Solid Round
Wires: the table of nominal diameters in mils to four figures. The rows below were typed from
memory of the table; its own rounding is the tolerance.
fluids (MIT), fluids.piping.t_from_gauge: independent tables of AWG and BSWG (BS 3737). Its BSWG 28
is wrong (0.3759 mm, 0.0148 in, is right), so that row is checked against the standard's own inch.
"""

import pytest
from fluids.piping import t_from_gauge

from jamreel.core.wire.gauges import awg_diameter, swg_diameter

B258_MILS = {
    6: 162.0, 7: 144.3, 8: 128.5, 9: 114.4, 10: 101.9, 11: 90.7, 12: 80.8, 13: 72.0,
    14: 64.1, 15: 57.1, 16: 50.8, 17: 45.3, 18: 40.3, 19: 35.9, 20: 32.0, 21: 28.5,
    22: 25.3, 23: 22.6, 24: 20.1, 25: 17.9, 26: 15.9, 27: 14.2, 28: 12.6, 29: 11.3,
    30: 10.0, 31: 8.9, 32: 8.0,
}  # fmt: skip


@pytest.mark.parametrize(("number", "mils"), B258_MILS.items())
def test_awg_rows(number: int, mils: float) -> None:
    assert awg_diameter(number) / 0.0254 == pytest.approx(mils, abs=0.051)


@pytest.mark.parametrize("number", range(6, 33))
def test_awg_formula_is_a_geometric_series(number: int) -> None:
    # B258 defines 36 as 5 mils and 4/0 as 460 mils with 39 equal ratios between.
    assert awg_diameter(number) == pytest.approx(0.127 * (460 / 5) ** ((36 - number) / 39))
    assert awg_diameter(number) == pytest.approx(
        1000 * t_from_gauge(number, schedule="AWG"), rel=6e-3
    )


@pytest.mark.parametrize("number", [n for n in range(6, 33) if n != 28])
def test_bswg_rows(number: int) -> None:
    assert swg_diameter(number) == pytest.approx(
        1000 * t_from_gauge(number, schedule="BSWG"), abs=2e-3
    )


def test_bswg_28_is_the_standards_row() -> None:
    assert swg_diameter(28) == pytest.approx(0.0148 * 25.4)

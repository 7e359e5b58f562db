import pytest
from pydantic import ValidationError

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import chosen, section_mass
from jamreel.core.wire.gauges import WireSize, read_wire_size
from jamreel.core.wire.metals import WireChoice, metal_of, metals
from jamreel.core.wire.sections import round_area


def size(typed: object, default: str = "awg", unit: str = "mm") -> WireSize:
    return WireSize.model_validate(typed, context={"gauge_system": default, "unit": unit})


@pytest.mark.parametrize(
    ("typed", "mm"),
    [
        ("20 awg", 0.8118),
        ("20awg", 0.8118),
        ("20 ga", 0.8118),
        ("20", 0.8118),
        ("20 swg", 0.9144),
        ("0.8 mm", 0.8),
        ("0.8", 0.8),
        ("0.032 in", 0.8128),
        (1.6, 1.6),
    ],
)
def test_sizes_as_makers_say_them(typed: object, mm: float) -> None:
    assert size(typed).diameter_mm == pytest.approx(mm, abs=5e-5)


def test_a_bare_gauge_takes_the_makers_system_and_says_so() -> None:
    assert size("20", "swg").diameter_mm == pytest.approx(0.9144)
    assert size("20", "swg").assumed
    assert size("20 ga", "awg").assumed
    assert not size("20 awg", "swg").assumed
    assert size("20 swg").label == "20 SWG (0.91 mm)"


@pytest.mark.parametrize("typed", ["0.08 mm", 0.08, "7 mm", 65, "40 awg"])
def test_a_slipped_decimal_is_caught(typed: object) -> None:
    with pytest.raises(ValidationError) as refused:
        size(typed)
    assert refused.value.errors()[0]["ctx"]["key"] == "wire_range"


@pytest.mark.parametrize(
    ("typed", "key"),
    [
        ("3", "gauge_or_mm"),
        ("wire", "wire_unreadable"),
        ("", "wire_missing"),
        ("50", "gauge_number"),
    ],
)
def test_other_slips_have_their_own_sentence(typed: str, key: str) -> None:
    with pytest.raises(Refusal) as refused:
        read_wire_size(typed, "awg", "mm")
    assert refused.value.key == key


def test_every_metal_hardens_from_soft_to_spring() -> None:
    for metal in metals().values():
        order = ["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"]
        strengths = [metal.yields[temper] for temper in order]  # type: ignore[index]
        assert strengths == sorted(strengths), metal.id
        assert metal.source


def test_the_makers_own_yield_overrides_the_table() -> None:
    own = WireChoice(size=WireSize(diameter_mm=1.0), metal="brass", yield_mpa=333.0)
    assert chosen(own).yield_mpa == 333.0
    assert metal_of(own).youngs == 110000
    with pytest.raises(Refusal, match="metal"):
        metal_of(WireChoice(size=WireSize(diameter_mm=1.0), metal="unobtainium"))


def test_mass_of_a_metre_by_hand() -> None:
    # 1.2 mm sterling: 10.36 g/cm3 x pi/4 x 0.12^2 cm2 x 100 cm
    sterling = 10.36 * 0.0113097 * 100
    assert section_mass(round_area(1.2), 1000, 10.36) == pytest.approx(sterling, rel=1e-4)

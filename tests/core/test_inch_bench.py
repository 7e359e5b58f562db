"""A bench that works in inches: the same plan, everything read in inches, no fraction of nought."""

import json
import re
from collections.abc import Iterator
from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.families.base import registered
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import INCH_USUAL, Shop
from jamreel.core.units import DECIMALS_UNDER_MM, format_length, inch_parts, parse_length
from jamreel.core.wire.metals import metals
from tests.conftest import EXAMPLES, ROOT
from tests.core.families import girths

KINDS = sorted(registered())
BRIEFS = {path.stem: json.loads(path.read_text()) for path in EXAMPLES.glob("*.json")}
INCHES = Shop(unit="in", **{n: getattr(Shop(), n) for n in INCH_USUAL})
METALS = "|".join(re.escape(metal.name) for metal in metals().values())


def planned(name: str, shop: Shop) -> Plan:
    brief = {**deepcopy(BRIEFS[name]), "unit": "mm"}
    return plan_raw(brief, shop)


def texts(thing: Any) -> Iterator[str]:
    if isinstance(thing, str):
        yield thing
    elif isinstance(thing, dict):
        for value in thing.values():
            yield from texts(value)
    elif isinstance(thing, list):
        for value in thing:
            yield from texts(value)


def numbers(thing: Any, path: str = "") -> Iterator[tuple[str, float]]:
    if isinstance(thing, dict):
        for key, value in thing.items():
            yield from numbers(value, f"{path}.{key}")
    elif isinstance(thing, list):
        for n, value in enumerate(thing):
            yield from numbers(value, f"{path}.{n}")
    elif isinstance(thing, (int, float)) and not isinstance(thing, bool):
        yield path, float(thing)


@pytest.mark.parametrize("name", sorted(BRIEFS))
def test_an_inch_bench_gives_the_same_plan(name: str) -> None:
    metric, inches = (planned(name, shop).model_dump(mode="json") for shop in (Shop(), INCHES))
    assert dict(numbers(metric)) == dict(numbers(inches))
    # Names that ticks and records go by are the same on every bench.
    for key in ("cuts", "bends", "steps", "needs", "ledger", "figures"):
        assert [row["id"] for row in metric.get(key, [])] == [
            row["id"] for row in inches.get(key, [])
        ]


@pytest.mark.parametrize("name", sorted(BRIEFS))
def test_every_sentence_of_an_inch_bench_speaks_of_inches(name: str) -> None:
    said = planned(name, INCHES).model_dump(mode="json")
    for text in texts(said):
        # A wire's label always has its millimetres too; a source is quoted as it is.
        plain = re.sub(rf"\([\d.]+ mm\)|^[\d.]+ mm$|[\d.]+ mm (?={METALS})", "", text)
        assert not re.search(r"\d mm\b", plain), text
        assert not re.search(r"\bin in\b", text), text
        assert not re.search(r"\b0 \d+/\d+", text), text


@pytest.mark.parametrize(
    ("mm", "text"),
    [
        (0.0, "0 in"),
        (1.628, "0.064 in"),
        (6.34, "0.250 in"),
        (6.35, "1/4 in"),
        (17.46, "11/16 in"),
        (25.4, "1 in"),
        (171.45, "6 3/4 in"),
        (172.24, "6 25/32 in"),
        (-17.46, "-11/16 in"),
        (177.4, "6 31/32 in"),
        (177.5, "7 in"),
    ],
)
def test_inches_to_the_nearest_thirty_second(mm: float, text: str) -> None:
    assert format_length(mm, "in") == text


@given(st.floats(DECIMALS_UNDER_MM, 5000))
def test_what_is_written_in_inches_reads_back_within_half_a_thirty_second(mm: float) -> None:
    written = format_length(mm, "in")
    assert parse_length(written, "in") == pytest.approx(mm, abs=25.4 / 64 + 1e-9)
    whole, top, bottom = inch_parts(mm)
    assert 32 % bottom == 0
    assert top < bottom
    assert 25.4 * (whole + top / bottom) == pytest.approx(mm, abs=25.4 / 64 + 1e-9)


def test_refusals_name_limits_and_slips_in_inches() -> None:
    brief = {**BRIEFS["sliding-bangle"], "unit": "in", "cutting": {}}
    brief["measures"] = girths(wrist_girth="62", hand_pass_girth="8")  # type: ignore[arg-type]
    with pytest.raises(BriefRefused) as refused:
        plan_raw(brief, INCHES)
    (problem,) = refused.value.problems
    assert problem.got == "62 in"
    assert "Was 6 3/16 in meant?" in problem.says
    assert "mm" not in problem.says
    wide = {**deepcopy(BRIEFS["hook-bracelet"]), "unit": "in", "cutting": {}}
    wide["piece"] = {"kind": "hook_bracelet", "eye_pin": "3"}
    wide["measures"] = girths(wrist_girth="6.25")  # type: ignore[arg-type]
    with pytest.raises(BriefRefused) as refused:
        plan_raw(wide, INCHES)
    (problem,) = refused.value.problems
    assert problem.expected == "0.079 in to 31/32 in"


def test_what_is_bought_is_named_in_mm_and_read_in_inches() -> None:
    metric, inches = (planned("linked-anklet", shop).needs for shop in (Shop(), INCHES))
    assert [need.id for need in metric] == [need.id for need in inches]
    beads = [next(n.size for n in needs if n.kind == "bead") for needs in (metric, inches)]
    assert beads == ["4.0 mm slate blue glass", "0.157 in slate blue glass"]


VECTORS = json.loads((ROOT / "tests" / "data" / "inches.json").read_text())["rows"]


def test_paper_writes_every_sixty_fourth_as_the_screen_does() -> None:
    # The same file is read by shared/length.test.ts.
    assert len(VECTORS) == 583
    for sixty_fourths, text in VECTORS:
        assert format_length(sixty_fourths * 25.4 / 64, "in") == f"{text} in", sixty_fourths
        assert format_length(25.4 / 64 * sixty_fourths, "in") == f"{text} in", sixty_fourths


@pytest.mark.parametrize(
    ("mm", "text"), [(1.5875, "0.063 in"), (0.5, "0.020 in"), (-1.5875, "-0.063 in")]
)
def test_thin_things_go_up_at_half_a_thousandth(mm: float, text: str) -> None:
    assert format_length(mm, "in") == text


def test_an_inch_bench_has_tools_and_wire_in_inches() -> None:
    bench = Shop.model_validate({"unit": "in"})
    for tool in (one for one in bench.formers if "dowel" not in one.kind):
        for step in tool.diameters:
            assert round(step / 25.4 * 16, 6).is_integer(), (tool.name, step)
    assert bench.sold_length == 36 * 25.4
    assert (bench.keep_length / 25.4 * 8).is_integer()
    # What a maker has put stays as it is, and so does a metric bench.
    own = {
        "unit": "in",
        "sold_length": "1 m",
        "formers": [{"name": "tin", "kind": "household", "diameters": ["3"]}],
    }
    kept = Shop.model_validate(own, context={"unit": "in"})
    assert (kept.sold_length, kept.formers[0].name, len(kept.formers)) == (1000, "tin", 1)
    assert Shop().sold_length == 1000

"""What constructions are put together from."""

import math

import pytest

from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import Ease, FixedEase
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice, metals
from jamreel.core.wire.palette import PaletteChoice
from jamreel.core.workpiece.job import Job, Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.straight import CutsBy, Stretch, lay_straight
from jamreel.core.workpiece.verdicts import by_inside_girth

WIRE = Wire(1.5, "1.50 mm", metals()["brass"], "half_hard", 360.0)


def girth(site: str, value: float, pm: float = 2.0) -> BodyMeasure:
    return BodyMeasure(
        site=site,
        value_mm=value,
        plus_minus_mm=pm,
        spread_mm=0,
        standard_error_mm=None,
        count=2,
        corrections_mm=(),
        guessed=False,
        ask_another=False,
    )


def job(**measured: float) -> Job:
    return Job(
        girths={site: girth(site, value) for site, value in measured.items()},
        ease=FixedEase(word="snug"),
        wire=WireChoice(size=WireSize(diameter_mm=1.5), metal="brass"),
        palette=PaletteChoice(),
        cutting=Cutting(),
        cut={},
        tryon=None,
        shop=Shop(),
    )


def test_a_total_is_the_sum_of_the_terms_that_name_it_and_of_no_other() -> None:
    book = Book(1.5)
    book.girth(girth("wrist_girth", 158), "worn")
    ease = Ease(school="fixed", word="snug", value_mm=6, backing="common practice")
    book.ease(ease, "worn")
    book.term("trim_left", 99, "rule", "chosen", "cut")
    assert book.total("worn", "fit.ease", "body") == 164
    book.term("half_wire", 4.5, "rule", "published", "body")
    assert book.total("body", "rule") == 168.5
    lines = {line.id: line for line in book.lines}
    assert lines["worn"].total
    assert lines["worn"].adds_to == "body"
    assert lines["wrist_girth"].backing == "measured"
    assert lines["ease_fixed"].inputs["parameter"] == 0


def test_a_wire_laid_straight_is_its_stretches_in_order() -> None:
    stretches = [
        Stretch("hook", (Straight(length=7), Bend(angle=math.pi, pin=4.5, label="crook"))),
        Stretch("body", (Straight(length=50),), "body", ("body", "finished")),
        Stretch("eye", (Bend(angle=2 * math.pi, pin=3.5, label="eye"),)),
    ]
    laid = lay_straight("ring", stretches, WIRE, CutsBy(Cutting(trim=2, margin=6)))
    hook, eye = 7 + math.pi * 3, 2 * math.pi * 2.5
    assert laid.cut.length_mm == pytest.approx(2 + hook + 50 + eye + 2 + 6)
    assert [m.at_mm for m in laid.cut.marks] == pytest.approx(
        [2, 2 + hook, 2 + hook + 25, 2 + hook + 50, 2 + hook + 50 + eye]
    )
    assert [b.label for b in laid.bends] == ["crook", "eye"]
    assert [b.position_mm for b in laid.bends] == pytest.approx([9, 2 + hook + 50])
    assert [s.kind for s in laid.spans] == ["trim", "part", "body", "part", "trim", "trim"]
    for left, right in zip(laid.spans, laid.spans[1:], strict=False):
        assert left.to_mm == pytest.approx(right.from_mm)
    assert laid.rule(1.4).band.value == pytest.approx(2 + hook + 50)


def test_the_outline_is_measured_where_it_was_and_usual_where_not() -> None:
    usual = job(wrist_girth=160).outline("wrist", 160)
    assert 2 * usual.across == pytest.approx(56.6, abs=0.05)
    half = job(wrist_girth=160, wrist_breadth=58).outline("wrist", 160)
    assert half == usual
    measured = job(wrist_girth=160, wrist_breadth=58, wrist_depth=39).outline("wrist", 160)
    assert (2 * measured.across, 2 * measured.through) == (58, 39)
    assert measured.girth == pytest.approx(160, abs=1e-6)


@pytest.mark.parametrize(
    ("breadth", "depth", "site"),
    [(58, 60, "wrist_depth"), (80, 40, "wrist_breadth"), (70, 51, "wrist_girth")],
)
def test_contradicting_readings_name_the_one_to_take_again(
    breadth: float, depth: float, site: str
) -> None:
    wrong = job(wrist_girth=160, wrist_breadth=breadth, wrist_depth=depth)
    with pytest.raises(Refusal) as refused:
        wrong.outline("wrist", 160)
    assert refused.value.field == f"measures.{site}"
    assert refused.value.values["low"] > 160 or refused.value.values["high"] < 160


def test_formers_and_pins_come_from_the_shop() -> None:
    here = job(wrist_girth=160)
    former = here.former(WIRE, 54.4)
    assert former.tool == "bracelet mandrel"
    small = here.former(WIRE, 9.5)
    assert small.tool == "dowels"
    assert here.nearest_pin(2.7) == 2.6
    assert here.wires.body.yield_mpa == 360


@pytest.mark.parametrize(
    ("measured", "verdict", "amount", "snip"),
    [
        (171.0, "as_planned", None, None),
        (181.0, "hooked_big", 10, 24),
        (160.0, "hooked_small", 11, None),
    ],
)
def test_too_big_too_small_or_as_planned(
    measured: float, verdict: str, amount: float | None, snip: float | None
) -> None:
    answer = by_inside_girth(
        measured, 171, too_big="hooked_big", too_small="hooked_small", remade=14
    )
    assert (answer.verdict, answer.amount_mm, answer.snip_mm) == (verdict, amount, snip)
    assert answer.settled == (verdict == "as_planned")

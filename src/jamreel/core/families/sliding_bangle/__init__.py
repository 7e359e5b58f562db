"""The sliding-loop bangle: one wire, each end a loop that runs on the opposite side."""

from typing import ClassVar, Literal

from jamreel.core.bench.steps import cautions_of
from jamreel.core.body.readings import SiteId
from jamreel.core.families.base import Construction, Job
from jamreel.core.families.sliding_bangle.drawing import drawings
from jamreel.core.families.sliding_bangle.ledger import ledger
from jamreel.core.families.sliding_bangle.making import advice, bends, cut, steps
from jamreel.core.families.sliding_bangle.righting import put_right
from jamreel.core.families.sliding_bangle.sizes import Sizes, sizes
from jamreel.core.fit.ease import ease_options, word_for
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.result import Answers, EaseOption, Figure, Plan
from jamreel.core.values import Length, PlusMinus
from jamreel.core.wire.metals import wire_mass
from jamreel.core.words import say


class SlidingBangle(Construction):
    """Its own choice: the pin that both loops are bent on."""

    family: ClassVar[str] = "bangle"
    sites: ClassVar[tuple[SiteId, ...]] = ("wrist_girth", "hand_pass_girth")

    kind: Literal["sliding_bangle"] = "sliding_bangle"
    loop_pin: Length = 2.6

    def solve(self, job: Job) -> Plan:
        """Return the plan.

        Raises:
            Refusal: hand pass smaller than the wrist, a pin that the wire can't pass, or wire
                that will not hold the curve.
        """
        z = sizes(self.loop_pin, job)
        one_cut = cut(z)
        doing = steps(z)
        table = job.shop.ease
        righting = put_right(z, job.tryon)
        return Plan(
            family=self.family,
            says=say("family.sliding_bangle"),
            wire=z.wire_label,
            metal=z.metal.name,
            colour=z.metal.colour,
            finished_length_mm=PlusMinus(value=z.centre, plus_minus=z.hand.plus_minus_mm),
            inside_girth_mm=PlusMinus(value=z.worn, plus_minus=z.wrist.plus_minus_mm),
            fit_word=word_for(z.ease.value_mm, table),
            girths=(z.wrist, z.hand),
            ease_options=tuple(
                EaseOption(
                    ease=ease,
                    inside_girth_mm=z.wrist.value_mm + ease.value_mm,
                    word=word_for(ease.value_mm, table),
                )
                for ease in ease_options(job.ease, z.wrist.value_mm, table)
            ),
            figures=_figures(z, righting),
            answers=Answers(
                measure="worn",
                make_up="centre",
                cut="cut",
                form="former" if z.former.tool_mm is None else "step",
                fit="to_do" if righting and righting.amount_mm is not None else "overlap",
            ),
            ledger=ledger(z),
            cuts=(one_cut,),
            bends=bends(z, job.shop.pins),
            formers=(z.former,),
            steps=doing,
            cautions=cautions_of(doing),
            advice=advice(z, job),
            mass_g=wire_mass(z.d, z.cut, z.metal.density),
            drawings=drawings(z, one_cut, job),
            putting_right=righting,
        )


def _figures(z: Sizes, righting: PuttingRight | None) -> tuple[Figure, ...]:
    hand, wrist = z.hand.plus_minus_mm, z.wrist.plus_minus_mm
    rows: list[tuple[str, float | None, float | None]] = [
        ("cut", z.cut, None),
        ("centre", z.centre, hand),
        ("worn", z.worn, wrist),
        ("open", z.open, hand),
        # Overlap is a difference of two independent girths: their uncertainties add in quadrature.
        ("overlap", z.overlap, (hand**2 + wrist**2) ** 0.5),
        ("closed_diameter", z.closed_diameter, None),
        ("former", z.former.former_mm, None),
        ("step", z.former.tool_mm, None),
        ("step_result", z.former.result_mm, None),
        ("loop", z.loop, None),
    ]
    figures = [
        Figure(id=key, label=say(f"figure.{key}"), value_mm=value, plus_minus_mm=pm)
        for key, value, pm in rows
        if value is not None
    ]
    if righting and righting.amount_mm is not None and righting.amount_label:
        amount = righting.amount_mm
        figures.append(Figure(id="to_do", label=righting.amount_label, value_mm=amount))
    return tuple(figures)

"""Puts a plan together from what a construction worked out, adding what is the same for all."""

from dataclasses import dataclass

from jamreel.core.advice import Advice, advise, given
from jamreel.core.advice.cutting import longer_than_handled, margin_falls_back
from jamreel.core.advice.forming import former_near
from jamreel.core.advice.making import cut_differs
from jamreel.core.advice.measuring import about_girth, measure_limits
from jamreel.core.advice.wire import (
    assumed_system,
    needs_own_shears,
    section_springback,
    twist_first,
)
from jamreel.core.bench.steps import Step, cautions_of
from jamreel.core.body.readings import Girth
from jamreel.core.cutting.cuts import Cut
from jamreel.core.fit.ease import Ease, EaseTable, ease_options, word_for
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.tools import Former
from jamreel.core.result import (
    Answers,
    EaseOption,
    Figure,
    Need,
    Plan,
    PlannedBend,
    ProposedEdit,
    Strength,
)
from jamreel.core.values import Drawings, LedgerLine, PlusMinus
from jamreel.core.words import say
from jamreel.core.workpiece.job import Job, Wire

Row = tuple[str, float | None, float | None]


@dataclass(frozen=True)
class Fit:
    """How a piece fits: the girth it goes round, its ease, and the word for it."""

    girth: Girth
    ease: Ease
    part: str
    word: str | None = None


def assemble(
    job: Job,
    wire: Wire,
    *,
    kind: str,
    family: str,
    finished: PlusMinus | None,
    inside: PlusMinus | None,
    fit: Fit | None,
    ledger: tuple[LedgerLine, ...],
    rows: list[Row],
    answers: dict[str, str],
    cuts: tuple[Cut, ...],
    steps: tuple[Step, ...],
    drawings: Drawings,
    bends: tuple[PlannedBend, ...] = (),
    formers: tuple[Former, ...] = (),
    advice: tuple[Advice | None, ...] = (),
    righting: PuttingRight | None = None,
    mass_g: float | None = None,
    offers_ease: bool = True,
    needs: tuple[Need, ...] = (),
    weakest: Strength | None = None,
    minutes: float | None = None,
    counted_out: tuple[ProposedEdit, ...] = (),
) -> Plan:
    """Return the plan of one construction.

    ``rows`` are figures (id, value, ±), ``answers`` the figure of each station by id; a try-on
    that asks for an amount takes the fit station's answer over.
    """
    figures = _figures(rows, righting)
    steps = _for_children(steps) if job.child else steps
    if righting and righting.amount_mm is not None:
        answers = {**answers, "fit": "to_do"}
    word = _word(job, fit, family)
    pm = max((g.plus_minus_mm for g in job.girths.values()), default=0.0)
    return Plan(
        family=family,
        says=say(f"family.{kind}"),
        wire=wire.label,
        metal=wire.metal.name,
        colour=wire.metal.colour,
        finished_length_mm=finished,
        inside_girth_mm=inside,
        fit_word=word,
        fit_says=say(f"fit.{word}", pm=fit.girth.plus_minus_mm if fit else pm),
        girths=tuple(job.girths.values()),
        ease_options=_options(job, fit) if fit and offers_ease else (),
        figures=figures,
        answers=Answers(**answers),
        ledger=ledger,
        cuts=cuts,
        bends=bends,
        formers=formers,
        steps=steps,
        cautions=cautions_of(steps),
        advice=given(
            *advice,
            *(about_girth(girth) for girth in job.girths.values()),
            _limits(job, fit) if fit and offers_ease else None,
            *(former_near(former) for former in formers),
            assumed_system(job.wire),
            needs_own_shears(wire.metal),
            section_springback(job.wire),
            *(twist_first(job.wire, cut.length_mm) for cut in cuts),
            margin_falls_back(job.cutting),
            *(longer_than_handled(cut, job.cutting) for cut in cuts),
            advise("child_neck", "fix", "piece") if job.child and family == "necklace" else None,
        ),
        mass_g=mass_g if mass_g is not None else _mass(cuts, wire),
        needs=needs,
        weakest=weakest,
        minutes=minutes,
        counted_out=counted_out,
        drawings=drawings,
        putting_right=righting,
    )


def _figures(rows: list[Row], righting: PuttingRight | None) -> tuple[Figure, ...]:
    figures = [
        Figure(id=key, label=say(f"figure.{key}"), value_mm=value, plus_minus_mm=pm)
        for key, value, pm in rows
        if value is not None
    ]
    if righting and righting.amount_mm is not None and righting.amount_label:
        amount = righting.amount_mm
        figures.append(Figure(id="to_do", label=righting.amount_label, value_mm=amount))
    return tuple(figures)


def _for_children(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Return the steps with the caution that concerns children wherever the piece is worn."""
    return tuple(
        s.model_copy(update={"cautions": (*s.cautions, "child")}) if s.station == "fit" else s
        for s in steps
    )


def _word(job: Job, fit: Fit | None, family: str) -> str:
    if fit is None:
        return "hangs" if family == "necklace" else "sized"
    return fit.word or word_for(fit.ease.value_mm, job.table(fit.part))


def _options(job: Job, fit: Fit) -> tuple[EaseOption, ...]:
    table: EaseTable = job.table(fit.part)
    girth = fit.girth.value_mm
    return tuple(
        EaseOption(
            ease=ease, inside_girth_mm=girth + ease.value_mm, word=word_for(ease.value_mm, table)
        )
        for ease in ease_options(job.ease, girth, table)
    )


def _limits(job: Job, fit: Fit) -> Advice | None:
    words = job.table(fit.part).fixed_mm
    return measure_limits(fit.girth, words["comfortable"] - words["snug"])


def _mass(cuts: tuple[Cut, ...], wire: Wire) -> float:
    lengths = sum(cut.length_mm * cut.quantity for cut in cuts)
    return wire.mass(lengths)


def as_cut(job: Job, cut: Cut) -> Advice | None:
    """Return what is to be said of a wire cut to another length than planned."""
    return cut_differs(cut.id, job.made.get(cut.id), cut.length_mm)

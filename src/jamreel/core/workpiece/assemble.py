"""Puts a plan together from what a construction says of a piece, and what is the same for all."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from jamreel.core.advice import Advice, advise, given
from jamreel.core.advice.closing import frail
from jamreel.core.advice.cutting import by_ratio, longer_than_handled, no_record
from jamreel.core.advice.forming import (
    bend_tight,
    former_near,
    lacking,
    no_hardening,
    yield_measured,
)
from jamreel.core.advice.making import cut_differs
from jamreel.core.advice.measuring import about_girth, measure_limits
from jamreel.core.advice.wire import (
    assumed_system,
    needs_own_shears,
    section_springback,
    twist_first,
)
from jamreel.core.bench.steps import Step, cautions_of
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cut, told_alike
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import Ease, EaseTable, ease_options, word_for
from jamreel.core.fit.tryon import PuttingRight, possible
from jamreel.core.forming.oval import OvalFormer
from jamreel.core.forming.strength import Weakest
from jamreel.core.forming.tight import Tight
from jamreel.core.forming.tools import Former
from jamreel.core.makeup.compose import STRING_RUN
from jamreel.core.makeup.sequence import STRING
from jamreel.core.making.whole import walk_plan
from jamreel.core.result import (
    Answers,
    EaseOption,
    Feel,
    Figure,
    Need,
    Plan,
    PlannedBend,
    ProposedEdit,
    Strength,
    Way,
    WovenBody,
)
from jamreel.core.values import Drawings, LedgerLine, PlusMinus, RuleDrawing, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.feel import felt
from jamreel.core.workpiece.job import Job
from jamreel.core.workpiece.making import spoilt, worked
from jamreel.core.workpiece.own_and_usual import own_and_usual, paced
from jamreel.core.workpiece.straight import StraightWire, records_of
from jamreel.core.workpiece.temper_track import cracked, tracked, with_heat
from jamreel.core.workpiece.tools_needed import tools_needed
from jamreel.core.workpiece.worked import WorkedWire, worked_wires

Row = tuple[str, float | None, float | None]
# A strength that differs by less than this share is the same.
SAME_SHARE = 0.01


def former_rows(former: Former | None) -> list[Row]:
    """Return the figures of what a body is bent on: the ideal, the maker's step, what that opens
    to."""
    if former is None:
        return []
    return [
        ("former", former.former_mm, None),
        ("step", former.tool_mm, None),
        ("step_result", former.result_mm, former.doubt_mm),
    ]


@dataclass(frozen=True)
class Fit:
    """How a piece fits: the girth it goes round, its ease, and the word for it."""

    girth: BodyMeasure
    ease: Ease
    worn_on: str
    word: str | None = None


@dataclass(frozen=True, kw_only=True)
class Workings:
    """What a construction says of a piece; everything else follows from it and from its wires.

    ``rows`` are figures (id, value, ±), ``answers`` the figure of each station by id. ``weakest``
    is what gives first, ``feels`` gives how it feels from its mass [g], ``stuffs`` what its beads
    are made of; ``tried`` whether it has a size to try,
    ``ways`` what can be told of it on the way.
    """

    finished: PlusMinus
    ledger: tuple[LedgerLine, ...]
    rows: Sequence[Row]
    answers: Mapping[str, str]
    rule: RuleDrawing
    sheets: Sequence[Sheet]
    inside: PlusMinus | None = None
    fit: Fit | None = None
    offers_ease: bool = True
    formers: tuple[Former, ...] = ()
    oval: OvalFormer | None = None
    advice: Sequence[Advice | None] = ()
    righting: PuttingRight | None = None
    needs: tuple[Need, ...] = ()
    weakest: Weakest | None = None
    feels: Callable[[float], Iterable[Feel]] = lambda mass: ()
    counted_out: tuple[ProposedEdit, ...] = ()
    stuffs: frozenset[str] = frozenset()
    woven: tuple[WovenBody, ...] = ()
    tried: bool = True
    ways: tuple[Way, ...] = ()


@dataclass(frozen=True)
class WiresAndSteps:
    """A piece's wires as they lie straight, each with how many of it are cut; those cuts as they
    are told apart; its steps; and each kind of wire with its track through them."""

    laid: Sequence[StraightWire]
    cuts: tuple[Cut, ...]
    steps: tuple[Step, ...]
    wires: tuple[WorkedWire, ...]


def wires_and_steps(
    job: Job,
    laid: Sequence[StraightWire],
    steps: Sequence[Step],
    stuffs: frozenset[str] = frozenset(),
) -> WiresAndSteps:
    """Return wires through the steps of their piece.

    Args:
        job: what the maker decided.
        laid: the wires, straight.
        steps: as its parts tell them; what was chosen for the whole piece is added.
        stuffs: what its beads are made of.

    Source: ``worked_wires``, ``tracked``.
    """
    cuts = told_alike([one.cut for one in laid])
    every = worked(steps, job.wires.body, job.making, stuffs)
    return WiresAndSteps(
        laid, cuts, every, tracked(worked_wires(laid, cuts, every), every, job.shop.outfit)
    )


def worn_of(through: WiresAndSteps) -> dict[tuple[str, str], tuple[float, float]]:
    """Return by entry and stock key how many times as much a wire bears in the end as when it was
    bought: at least, and at most.

    Args:
        through: wires with their tracks.

    Source: ``forming.temper.track``.
    """
    found: dict[tuple[str, str], tuple[float, float]] = {}
    tracks = {one.cut.id: one.worn for one in through.wires}
    for cut in through.cuts:
        worn = tracks.get(cut.alike)
        if worn is None:
            continue
        for entry in [share.entry for share in cut.shares] or [cut.id.rpartition("/")[0]]:
            key = entry, cut.stock
            found[key] = min(found.get(key, worn), worn)
    return found


def assemble(job: Job, kind: str, family: str, own: Workings, through: WiresAndSteps) -> Plan:
    """Return the plan of a construction.

    A try-on that asks for an amount takes the fit station's answer over.

    Args:
        job: what the maker decided.
        kind: of the construction.
        family: that it belongs to.
        own: what the construction says.
        through: its wires and steps.
    """
    inside = own.inside or own.finished
    possible(job.tryon, inside.value, own.finished.value)
    wire, righting = job.wires.body, own.righting
    cuts, wires = through.cuts, through.wires
    bends = tuple(_bends(job, through.laid, cuts))
    steps = _steps(job, with_heat(through.steps, wires, job.shop.outfit), cuts, bends)
    _refuse_broken(kind, own, cuts, steps)
    usual, steps = steps, paced(steps, job.hand)
    answers = dict(own.answers)
    if righting and righting.amount_mm is not None:
        answers["fit"] = "to_do"
    word = _word(job, own.fit, family)
    return Plan(
        family=family,
        says=say(f"family.{kind}"),
        wire=wire.label,
        metal=wire.metal.name,
        colour=wire.metal.colour,
        finished_length_mm=own.finished,
        inside_girth_mm=own.inside,
        fit_word=word,
        fit_says=say(f"fit.{word}", pm=_doubt(job, own.fit)),
        girths=tuple(job.girths.values()),
        ease_options=_options(job, own.fit) if own.fit and own.offers_ease else (),
        figures=_figures(own.rows, righting),
        answers=Answers(**answers),
        ledger=own.ledger,
        cuts=cuts,
        bends=bends,
        formers=own.formers,
        tools=tools_needed(through.laid, bends, own.formers, steps, job.shop.outfit),
        oval=own.oval,
        steps=steps,
        cautions=cautions_of(steps),
        advice=_advice(job, family, own, through, steps),
        mass_g=_mass(cuts, own.needs),
        needs=own.needs,
        weakest=_strength(own.weakest),
        feels=tuple(own.feels(_mass(cuts, own.needs))),
        minutes=sum(one.minutes for one in steps),
        own_and_usual=tuple(own_and_usual(job, cuts, own.formers, usual)),
        counted_out=own.counted_out,
        woven=own.woven,
        worked=wires,
        ways=own.ways,
        drawings=Drawings(rule=own.rule, sheets=tuple(own.sheets)),
        putting_right=righting,
    )


def _refuse_broken(kind: str, own: Workings, cuts: Sequence[Cut], steps: Sequence[Step]) -> None:
    """Refuse steps that break a law of the order of hands."""
    broken = walk_plan(steps, dict(_cut_for(cuts)), tried=own.tried, stuffs=own.stuffs)
    if broken is not None:
        where = broken.thing or say(f"family.{kind}")
        raise Refusal("law_broken", field="piece", got=where, why=say(f"law.{broken.law}"))


def _cut_for(cuts: Iterable[Cut]) -> Iterator[tuple[str, str]]:
    """Yield what wires are cut for, with what the wire is called: what runs through beads is for
    the string, what is bent first is cut by a step of its own."""
    for cut in cuts:
        entry, _, role = cut.id.rpartition("/")
        shares = [share.entry for share in cut.shares] or [entry]
        for name in (STRING,) if role.partition("~")[0] == STRING_RUN else shares:
            yield name, cut.label


def _advice(
    job: Job, family: str, own: Workings, through: WiresAndSteps, steps: Sequence[Step]
) -> tuple[Advice, ...]:
    """Return what the construction advises, and what holds for every piece."""
    laid, cuts, wires = through.laid, through.cuts, through.wires
    titles = {one.id: one.title for one in steps}
    torch = job.shop.outfit.torch
    # Each metal that is cut, once; the body's where nothing is.
    metals = {one.wire.metal.id: one.wire.metal for one in laid}
    metals = metals or {job.wires.body.metal.id: job.wires.body.metal}
    beside = job.palette.by_role()
    return given(
        *own.advice,
        *(about_girth(girth) for girth in job.girths.values()),
        _limits(job, own.fit) if own.fit and own.offers_ease else None,
        *(former_near(former) for former in own.formers),
        frail(own.weakest),
        bend_tight(_tightest(laid, wires), torch=torch),
        cracked(wires, lambda key: titles.get(key, key), torch=torch),
        _measured(job),
        no_hardening(job.wires.body),
        *lacking(steps, job.shop.outfit),
        assumed_system(job.wire),
        *(assumed_system(wire, f"palette.{role}") for role, wire in beside.items()),
        *(needs_own_shears(metal) for metal in metals.values()),
        section_springback(job.wire),
        *(twist_first(job.wire, cut.length_mm) for cut in cuts),
        no_record(
            job.cutting,
            any(cut.techniques for cut in cuts),
            sum(records_of(cut.techniques, cut.stock, job.hand) for cut in cuts),
        ),
        *(by_ratio(one.cut, job.cutting, one.whole) for one in laid if one.whole is not None),
        *spoilt(
            job.making,
            own.stuffs,
            job.wires.body,
            glued=any("glue" in one.cautions for one in through.steps),
        ),
        *(longer_than_handled(cut, job.cutting) for cut in cuts),
        advise("child_neck", "fix", "piece") if job.child and family == "necklace" else None,
    )


def _measured(job: Job) -> Advice | None:
    """Return that the body's springback goes by a trial, where it does."""
    wire = job.wires.body
    reels = (one for one in job.shop.measured if one.stock == wire.key)
    found = next((one for one in reels if one.yield_mpa == wire.yield_mpa), None)
    if found is None:
        return None
    return yield_measured(found.reel, found.yield_mpa, wire.metal.yields[wire.temper])


def _tightest(wires: Sequence[StraightWire], worked: Sequence[WorkedWire]) -> Tight | None:
    """Return the bend of all wires that asks most of its metal, against what that bears; what is
    annealed for it is taken care of."""
    soft = {one.cut.id for one in worked if one.track and one.track.anneals}
    tights = [laid.tight for laid in wires if laid.cut.id not in soft]
    found = [tight for tight in tights if tight is not None]
    return max(found, key=lambda one: one.strain / one.bears, default=None)


def _bends(job: Job, wires: Sequence[StraightWire], cuts: tuple[Cut, ...]) -> Iterable[PlannedBend]:
    """Return the bends of every kind of wire once, named after it where there are several."""
    several = len(cuts) > 1 or any("/" in cut.id for cut in cuts)
    kinds = [row for row in zip(wires, cuts, strict=True) if row[1].alike == row[1].id]
    return job.on_pins(kinds, named=several)


def _steps(
    job: Job, steps: Sequence[Step], cuts: Sequence[Cut], bends: Sequence[PlannedBend]
) -> tuple[Step, ...]:
    """Return the steps with the places of what they bend, and what concerns children."""
    # By entry and key, the places on each of its wires.
    places: dict[tuple[str, str], dict[str, tuple[float, ...]]] = {}
    for bend in bends:
        # Unlike bends of one key are told apart behind a "~".
        key = bend.id.rpartition("/")[2].partition("~")[0]
        for on in bend.places:
            wires = places.setdefault((_entry_of(on.cut), key), {})
            wires[on.cut] = tuple(sorted((*wires.get(on.cut, ()), *on.at_mm)))
    # Bends alike are one, wherever they are: wires stand in the order of their cuts again.
    order = {cut.id: n for n, cut in enumerate(cuts)}
    places = {
        key: dict(sorted(wires.items(), key=lambda one: order[one[0]]))
        for key, wires in places.items()
    }
    found = []
    for one in steps:
        found_at = [places.get((_entry_of(one.id), key), {}) for key in one.bends]
        # A step that is called as a wire is bends that one; any other the last that has such bends.
        at = [
            place
            for wires in found_at
            for place in wires.get(one.id, next(reversed(wires.values()), ()))
        ]
        figures = {**one.figures, **{f"place_{n}": round(a, 4) for n, a in enumerate(at, 1)}}
        child = ("child",) if job.child and one.station == "fit" else ()
        changed = {"figures": figures, "cautions": (*one.cautions, *child)}
        found.append(one.model_copy(update=changed) if at or child else one)
    return tuple(found)


def _entry_of(name: str) -> str:
    """Return the entry that a wire or a step is for, '' in a piece of one wire."""
    return name.partition("/")[0] if "/" in name else ""


def _strength(weakest: Weakest | None) -> Strength | None:
    if weakest is None:
        return None
    more = weakest.up_to > weakest.newtons * (1 + SAME_SHARE)
    return Strength(
        says=weakest.says,
        newtons=weakest.newtons,
        grams=weakest.grams,
        felt=felt(weakest.newtons),
        up_to_newtons=weakest.up_to if more else None,
    )


def _doubt(job: Job, fit: Fit | None) -> float:
    if fit is not None:
        return fit.girth.plus_minus_mm
    return max((girth.plus_minus_mm for girth in job.girths.values()), default=0.0)


def _figures(rows: Sequence[Row], righting: PuttingRight | None) -> tuple[Figure, ...]:
    figures = [
        Figure(id=key, label=say(f"figure.{key}"), value_mm=value, plus_minus_mm=pm)
        for key, value, pm in rows
        if value is not None
    ]
    if righting and righting.amount_mm is not None and righting.amount_label:
        amount = righting.amount_mm
        figures.append(Figure(id="to_do", label=righting.amount_label, value_mm=amount))
    return tuple(figures)


def _word(job: Job, fit: Fit | None, family: str) -> str:
    if fit is None:
        if not job.girths:
            return "free"
        return "hangs" if family == "necklace" else "sized"
    return fit.word or word_for(fit.ease.value_mm, job.table(fit.worn_on))


def _options(job: Job, fit: Fit) -> tuple[EaseOption, ...]:
    table: EaseTable = job.table(fit.worn_on)
    girth = fit.girth.value_mm
    return tuple(
        EaseOption(
            ease=ease, inside_girth_mm=girth + ease.value_mm, word=word_for(ease.value_mm, table)
        )
        for ease in ease_options(job.ease, girth, table)
    )


def _limits(job: Job, fit: Fit) -> Advice | None:
    words = job.table(fit.worn_on).fixed_mm
    return measure_limits(fit.girth, words["comfortable"] - words["snug"])


def _mass(cuts: tuple[Cut, ...], needs: tuple[Need, ...]) -> float:
    wire = sum(cut.mass_g * cut.quantity for cut in cuts)
    return wire + sum(need.mass_g for need in needs)


def as_cut(job: Job, cut: Cut) -> Advice | None:
    """Return what is to be said of a wire cut to another length than planned."""
    return cut_differs(job.cut.get(cut.id), cut.length_mm)

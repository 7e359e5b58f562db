"""The one door into the core: ``plan(brief, shop) -> Plan``."""

from collections.abc import Callable, Container, Sequence
from typing import Any, NoReturn, TypeVar

from pydantic import ValidationError

from jamreel.core.body.readings import BodyMeasure, Measure, SiteId, girth_at
from jamreel.core.brief import Brief
from jamreel.core.cutting.cuts import of_cut
from jamreel.core.errors import Refusal, Refusals
from jamreel.core.families.base import Job
from jamreel.core.fit.ease import SCHOOLS
from jamreel.core.parts.so_far import ToldSoFar
from jamreel.core.result import GoneOn, Plan, Proposal
from jamreel.core.shop import Shop
from jamreel.core.tagged_union import every_error
from jamreel.core.wire.sections import SHAPES
from jamreel.core.words import Problem, problem, say, speaking
from jamreel.core.workpiece.records import Record

__all__ = [
    "BriefRefused",
    "Plan",
    "go_on_raw",
    "in_words",
    "plan",
    "plan_raw",
    "propose_raw",
    "read_brief",
    "read_girth",
    "read_shop",
    "refuse_in_words",
]

T = TypeVar("T")


class BriefRefused(ValueError):
    """A brief that gives no plan, with every problem in words."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        self.problems = problems
        super().__init__(" ".join(p.says for p in problems))


def plan(brief: Brief, shop: Shop, done: Sequence[Record] = ()) -> Plan:
    """Return everything that follows from a brief in a shop.

    Args:
        brief: what the maker decided, lengths in mm.
        shop: what the workshop knows.
        done: what was done already; of a wire that was cut its real length counts.

    Returns:
        The plan; the same brief, shop and records always give the same plan.

    Raises:
        BriefRefused: measures or choices from which no honest number can be had.

    Source: the rules named in the plan's ledger, each with its own.
    """

    return in_words(lambda: brief.piece.solve(_job(brief, shop, done)), shop)


def propose_raw(raw: Any, shop: Shop) -> tuple[Proposal, ...]:
    """Return the best few ways to bring a make-up to its length, none for a piece of one wire.

    Args:
        raw: a brief as typed.
        shop: what the workshop knows.

    Raises:
        BriefRefused: as for ``plan``.

    Source: ``makeup.fill.fill``.
    """
    brief = read_brief(raw, shop)
    return in_words(lambda: brief.piece.propose(_job(brief, shop)), shop)


def go_on_raw(raw: Any, shop: Shop, told: Any, done: Sequence[Record] = ()) -> GoneOn:
    """Return what follows from what is made so far of a piece of parts.

    Args:
        raw: a brief as typed.
        shop: what the workshop knows.
        told: what is made, as typed.
        done: what was done already; of a wire that was cut its real length counts.

    Raises:
        BriefRefused: as for ``plan``, and figures that can't be so, under ``so_far``.

    Source: ``families.going_on``.
    """
    brief = read_brief(raw, shop)

    def read() -> ToldSoFar:
        return ToldSoFar.model_validate(told, context={"unit": shop.unit})

    so_far = in_words(read, shop, ("so_far",))

    def work() -> GoneOn:
        try:
            return brief.piece.go_on(_job(brief, shop, done), so_far)
        except Refusal as refusal:
            name = refusal.field.rpartition("so_far.")[2]
            own = name in ToldSoFar.model_fields
            raise (refusal.at(f"so_far.{name}") if own else refusal) from None

    return in_words(work, shop)


def _job(brief: Brief, shop: Shop, done: Sequence[Record] = ()) -> Job:
    section = brief.wire.section
    if section is not None and section.shape != "round" and not brief.piece.any_section:
        kind = say(f"family.{brief.piece.kind}")
        raise Refusal("round_only", got=section.label, field="wire.section", kind=kind)
    return Job(
        girths=_girths(brief),
        ease=brief.ease,
        wire=brief.wire,
        palette=brief.palette,
        cutting=brief.cutting,
        making=brief.making,
        cut=_as_cut(done),
        tryon=brief.tryon,
        shop=shop,
        child=brief.child,
        in_cap=brief.piece.in_cap,
    )


def _as_cut(done: Sequence[Record]) -> dict[str, float]:
    """Return by cut the real length of its first wire [mm]."""
    cuts = sorted((of_cut(r.key), r.actual) for r in done if r.kind == "cut" and r.actual)
    return {cut: actual for (cut, _), actual in reversed(cuts)}


def _girths(brief: Brief) -> dict[str, BodyMeasure]:
    girths: dict[str, BodyMeasure] = {}
    wrong: list[Refusal] = []
    helps = [s for s in brief.piece.helps if _read(brief.measures.get(s))]
    for site in (*brief.piece.wants(), *helps):
        try:
            girths[site] = girth_at(site, brief.measures.get(site))
        except Refusals as several:
            wrong.extend(several.refusals)
    if wrong:
        raise Refusals(wrong)
    return girths


def _read(measure: Measure | None) -> bool:
    return measure is not None and any(r.value is not None for r in measure.readings)


def read_brief(raw: Any, shop: Shop) -> Brief:
    """Return a brief read from JSON data as a maker typed it.

    Args:
        raw: JSON object; lengths as numbers (mm) or text.
        shop: gives the unit and gauge system of bare numbers.

    Raises:
        BriefRefused: with every field that could not be read.
    """
    own = raw if isinstance(raw, dict) else {}
    context = {
        "unit": _either(own.get("unit"), ("mm", "in"), shop.unit),
        "gauge_system": _either(own.get("gauge_system"), ("awg", "swg"), shop.gauge_system),
    }
    return in_words(lambda: Brief.model_validate(raw, context=context), shop)


def _either(given: Any, allowed: tuple[str, str], default: str) -> str:
    return given if given in allowed else default


def read_shop(raw: Any) -> Shop:
    """Return a shop read from JSON data; raises ``BriefRefused`` naming the fields at fault."""
    unit = raw.get("unit") if isinstance(raw, dict) else None
    context = {"unit": "in" if unit == "in" else "mm"}
    return in_words(lambda: Shop.model_validate(raw, context=context), Shop())


def read_girth(site: SiteId, raw: Any, shop: Shop) -> BodyMeasure:
    """Return the girth at one site from its readings as typed.

    Raises:
        BriefRefused: with fields under ``measures.<site>``.
    """

    def read() -> BodyMeasure:
        return girth_at(site, Measure.model_validate(raw, context={"unit": shop.unit}))

    return in_words(read, shop, ("measures", site))


def plan_raw(raw: Any, shop: Shop, done: Sequence[Record] = ()) -> Plan:
    """Return the plan of a brief as typed. Raises ``BriefRefused``."""
    return plan(read_brief(raw, shop), shop, done)


def in_words(work: Callable[[], T], shop: Shop, under: tuple[str, ...] = ()) -> T:
    """Return what some work gives; refusals on the way are put in the shop's words.

    Raises:
        BriefRefused: with every problem, fields placed under ``under``.
    """
    with speaking(shop.language, shop.unit):
        try:
            return work()
        except Refusal as one:
            raise BriefRefused((problem(one),)) from None
        except Refusals as several:
            raise BriefRefused(tuple(problem(r) for r in several.refusals)) from None
        except ValidationError as error:
            raise BriefRefused(tuple(problem(r) for r in _refusals(error, under))) from None


def refuse_in_words(refusal: Refusal, shop: Shop) -> NoReturn:
    """Raise BriefRefused: one thing that can't be used, in the shop's words."""

    def raises() -> NoReturn:
        raise refusal

    in_words(raises, shop)


# Names of kinds that a location tells after a field that may be of several.
_TAGS: dict[str, Container[str]] = {"ease": set(SCHOOLS), "section": set(SHAPES)}


def _refusals(error: ValidationError, under: tuple[str, ...]) -> tuple[Refusal, ...]:
    try:
        return tuple(_refusal(one) for one in every_error(error.errors(), under))
    except UnicodeEncodeError:
        # Half a pair of surrogates can't even be quoted.
        return (Refusal("half_text", got=None, field=".".join(under) or "brief"),)


def _refusal(error: Any) -> Refusal:
    """Return a model's validation error as a refusal."""
    # Tags of unions appear in a location; they are no part of a field's name.
    loc = [str(part) for part in error["loc"]]
    kept = [part for i, part in enumerate(loc) if i == 0 or part not in _TAGS.get(loc[i - 1], ())]
    field = ".".join(kept)
    of_kind = error.get("of_kind", "")
    if error["type"] == "refused":
        context = error["ctx"]
        # A check of a whole model names the field within it.
        field = ".".join(p for p in (field, context["values"].get("under")) if p)
        values = {"of_kind": of_kind, **context["values"]}
        return Refusal(context["key"], got=context["got"], field=field, **values)
    if error["type"] == "union_tag_invalid":
        context = error["ctx"]
        known = context["expected_tags"].replace("'", "")
        return Refusal("kind_unknown", got=context["tag"], field=field, known=known)
    key = {"missing": "missing", "extra_forbidden": "unknown_field"}.get(error["type"], "shape")
    got = None if key == "missing" else error.get("input")
    return Refusal(key, got=got, field=field, detail=error["msg"], of_kind=of_kind)

"""What a plan, a part or a closure comes to, in few numbers: to be held against those kept."""

import json
import math
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any, get_args

from jamreel.core.closures import registered_closures
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts import registered_parts
from jamreel.core.parts.base import Hold, Made
from jamreel.core.path.moves import developed_length
from jamreel.core.plan import BriefRefused, plan_raw, propose_raw
from jamreel.core.shop import Shop
from jamreel.core.values import Sheet, Stroke
from jamreel.core.wire.metals import metals

KEPT = Path(__file__).parents[1] / "kept" / "figures.json"
EXAMPLES = Path(__file__).parents[2] / "docs" / "examples"
WIRE = Palette(Wire(0.9, "0.90 mm", metals()["copper"], "half_hard", 210.0))
MORE = 1.25


def everything() -> dict[str, Any]:
    """Return what all examples, parts and closures come to."""
    found: dict[str, Any] = {}
    for path in sorted(EXAMPLES.glob("*.json")):
        brief = json.loads(path.read_text())
        found[f"plan {path.stem}"] = of_plan(brief)
        for site in brief["measures"]:
            found[f"plan {path.stem}, {site} wider"] = of_plan(wider(brief, site))
    for kind, part in registered_parts().items():
        for name, choices in choices_of(part):
            found[f"part {kind}, {name}"] = of_made(part.model_validate(choices).make(WIRE))
    for kind, closure in registered_closures().items():
        for name, choices in choices_of(closure):
            found[f"closure {kind}, {name}"] = of_closure(closure.model_validate(choices))
    return found


def wider(brief: dict[str, Any], site: str) -> dict[str, Any]:
    """Return a brief with one measure read a twentieth larger."""
    readings = [
        {**one, "value": f"{float(str(one['value']).split()[0]) * 1.05:.2f}"}
        for one in brief["measures"][site]["readings"]
    ]
    return {**brief, "measures": {**brief["measures"], site: {"readings": readings}}}


def choices_of(cls: Any) -> Iterator[tuple[str, dict[str, Any]]]:
    """Yield choices to try: as offered, with each figure a quarter larger, and each other option,
    where they can be."""
    usual = cls.model_validate({})
    yield "as offered", {}
    for name in cls.limits():
        value = getattr(usual, name)
        if isinstance(value, bool) or not isinstance(value, int | float) or not value:
            continue
        more: Any = max(value + 1, round(value * MORE)) if isinstance(value, int) else value * MORE
        if can_be_made(cls, {name: more}):
            yield f"more {name}", {name: more}
    for name, field in cls.model_fields.items():
        options: tuple[Any, ...] = get_args(field.annotation)
        if field.annotation is bool:
            options = (True, False)
        if name in ("kind", "colour") or not all(isinstance(one, str | bool) for one in options):
            continue
        for option in options:
            if option != getattr(usual, name) and can_be_made(cls, {name: option}):
                yield f"{name} {option}", {name: option}


def can_be_made(cls: Any, choices: dict[str, Any]) -> bool:
    """Return whether the wire at hand can be made into something with these choices."""
    try:
        cls.model_validate(choices).make(WIRE)
    except (ValueError, Refusal):
        return False
    return True


def of_plan(brief: dict[str, Any]) -> dict[str, Any]:
    """Return what the plan of a brief comes to, or what refuses it."""
    try:
        plan = plan_raw(brief, Shop())
    except BriefRefused as refused:
        return {"refused": [problem.key for problem in refused.problems]}
    return {
        "figures": {one.id: one.value_mm for one in plan.figures},
        "give or take": {one.id: one.plus_minus_mm for one in plan.figures if one.plus_minus_mm},
        "ledger": {line.id: line.value_mm for line in plan.ledger},
        "cuts": {
            cut.id: [cut.quantity, cut.length_mm, cut.mass_g, *(mark.at_mm for mark in cut.marks)]
            for cut in plan.cuts
        },
        "bends": {
            f"{on.cut}/{b.id.rpartition('/')[2]}": [b.pin, on.at_mm[0], b.takes_mm, b.opens_to_mm]
            for b in plan.bends
            for on in b.places
        },
        "steps": {step.id: [step.minutes, dict(step.figures)] for step in plan.steps},
        "needs": {need.id: [need.quantity, need.mass_g] for need in plan.needs},
        "advice": sorted(note.id for note in plan.advice),
        "formers": [[f.target_mm, f.former_mm, f.tool_mm, f.result_mm] for f in plan.formers],
        "in all": [plan.mass_g, plan.minutes, plan.weakest.newtons if plan.weakest else None],
        "eases": [[o.ease.value_mm, o.inside_girth_mm] for o in plan.ease_options],
        "proposals": [[p.off_mm, p.got_mm, p.finished_mm] for p in propose_raw(brief, Shop())],
        "rule": [[s.from_mm, s.to_mm] for s in plan.drawings.rule.spans],
        "sheets": {sheet.id: of_sheet(sheet) for sheet in plan.drawings.sheets},
    }


def of_made(made: Made) -> dict[str, Any]:
    """Return what a part comes to."""
    return {
        "sizes": [made.length, made.thickness, made.width, made.hole, made.hang, made.minutes],
        "wires": {
            f"{use.key}, {name}": developed_length(moves, use.wire.d) * use.quantity
            for use in made.wires
            for name, moves in use.stretches
        },
        "bought": [[one.quantity, one.mass_g, one.size_mm] for one in made.bought],
        "ends": [[end.inner, end.wire] for end in made.ends or ()],
        "holds": [of_hold(hold) for hold in made.holds],
        "drawn": of_strokes(made.strokes),
        "steps": [dict(step.figures) for step in made.steps],
        "advice": sorted(note.id for note in made.advice if note is not None),
    }


def of_hold(hold: Hold) -> float:
    """Return the force at which a hold gives way [N]."""
    return hold.newtons


def of_closure(closure: Any) -> dict[str, Any]:
    """Return what both halves of a closure come to."""
    made = closure.make(WIRE)
    return {
        "length": made.length,
        "receiving": of_made(made.receiving),
        "holding": of_made(made.holding),
        "hold": of_hold(made.hold) if made.hold else None,
        "adds": made.adds_range,
        "advice": sorted(note.id for note in made.mates if note is not None),
    }


def of_sheet(sheet: Sheet) -> dict[str, Any]:
    """Return what a drawing comes to: its strokes, where shapes stand, its dimensions."""
    return {
        "strokes": of_strokes(sheet.strokes),
        "shapes": {f"{n}": of_strokes(s) for n, s in enumerate(sheet.shapes.values())},
        "placed": [[*one.at, one.times, one.pitch_mm] for one in sheet.placed],
        "dimensions": [[*d.a, *d.b, d.value_mm, d.offset_mm] for d in sheet.dimensions],
        "labels": [list(label.at) for label in sheet.labels],
    }


def of_strokes(strokes: Sequence[Stroke]) -> list[float]:
    """Return sums over all points, each weighed by its place, so that no two errors cancel."""
    strokes = [one for stroke in strokes for one in stroke.copies]
    points = [point for stroke in strokes for point in stroke.points]
    return [
        len(points),
        sum(stroke.width_mm or 0.0 for stroke in strokes),
        sum(x for x, _ in points),
        sum(y for _, y in points),
        sum(math.hypot(x, y) for x, y in points),
        sum((n % 7 + 1) * (x - 2 * y) for n, (x, y) in enumerate(points)) / max(len(points), 1),
    ]


def differences(kept: Any, now: Any, path: str = "") -> Iterator[str]:
    """Yield where two summaries differ by more than rounding."""
    if isinstance(kept, Mapping) and isinstance(now, Mapping):
        for key in sorted({*kept, *now}):
            if key in kept and key in now:
                yield from differences(kept[key], now[key], f"{path} / {key}")
            else:
                yield f"{path} / {key}: {'gone' if key in kept else 'new'}"
    elif isinstance(kept, list) and isinstance(now, list | tuple) and len(kept) == len(now):
        for n, (a, b) in enumerate(zip(kept, now, strict=True)):
            yield from differences(a, b, f"{path} [{n}]")
    elif isinstance(kept, int | float) and isinstance(now, int | float):
        if not math.isclose(kept, now, rel_tol=1e-5, abs_tol=2e-3):
            yield f"{path}: {kept} is now {now}"
    elif kept != now:
        yield f"{path}: {kept} is now {now}"

"""Cut, order of work, and judgement calls of the sliding-loop bangle."""

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.making import AS_CUT_TOLERANCE_MM
from jamreel.core.advice.sliding import loop_loose, overlap_long, overlap_short, pin_missing
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.cutting.cuts import Cut, CutLine, cut_length
from jamreel.core.families.sliding_bangle.sizes import Sizes
from jamreel.core.fit.sliding import inside_girth
from jamreel.core.path.moves import MarkAt, marks_of
from jamreel.core.words import say
from jamreel.core.workpiece.job import Job

CUT_ID = "bangle"


def cut(z: Sizes) -> Cut:
    """Return the one wire to cut. The margin, if any, lies beyond the right-hand flush cut."""
    parts = [
        ("trim_left", z.cutting.trim),
        ("loop_up", z.loop),
        ("centre", z.centre),
        ("loop_down", z.loop),
        ("trim_right", z.cutting.trim),
        *z.extras,
    ]
    lines = tuple(
        CutLine(id=key, label=say(f"ledger.{key}.label"), value_mm=value) for key, value in parts
    )
    length = cut_length(lines)
    added = sum(value for _, value in z.extras)
    trim, right = z.cutting.trim, length - z.cutting.trim - added
    marks = (
        MarkAt(label=say("mark.flush_cut"), at_mm=trim),
        *marks_of(z.moves, z.d, start=trim),
        MarkAt(label=say("mark.flush_cut"), at_mm=right),
    )
    return Cut(
        id=CUT_ID,
        label=say("cut.bangle"),
        wire=z.wire.label,
        wire_mm=z.d,
        metal=z.wire.metal.name,
        temper=say(f"temper.{z.wire.temper}"),
        quantity=1,
        length_mm=length,
        lines=lines,
        marks=marks,
        stock=z.wire.key,
        mass_g=z.wire.mass(length),
    )


def steps(z: Sizes) -> tuple[Step, ...]:
    """Return the order of work: the bare wire is tried on before charms and the last squeeze."""
    length, former = z.cut, z.former.tool_mm or z.former.former_mm
    marks = cut(z).marks
    up, middle, down = (mark.at_mm for mark in marks[1:4])
    return (
        step("sliding.cut", "cut", cautions=("eyes", "whip"), check=True, length=length),
        step("sliding.mark", "cut", up=up, middle=middle, down=down),
        step("sliding.ends", "cut", cautions=("ends",), trim=z.cutting.trim),
        step("sliding.loop_up", "form", pin=z.pin, at=up, check=True),
        step("sliding.shape", "form", cautions=("hammer",), former=former, check=True),
        step("sliding.thread", "form", check=True),
        step("sliding.loop_down", "form", pin=z.pin, at=down, check=True),
        step("sliding.try_on", "fit", check=True, open=z.open, overlap=z.overlap),
        step("sliding.charms", "fit", check=True),
        step("sliding.press_in", "fit", cautions=("ends", "skin"), check=True),
    )


def advice(z: Sizes, job: Job) -> tuple[Advice | None, ...]:
    """Return the judgement calls that belong to this construction."""
    return (
        as_cut(z, job.made.get(CUT_ID)),
        overlap_long(z.overlap, z.wrist.value_mm),
        overlap_short(z.overlap),
        keeps_shape(job.wire),
        loop_loose(z.pin, z.d),
        pin_missing(z.pin, job.nearest_pin(z.pin)),
    )


def as_cut(z: Sizes, actual: float | None) -> Advice | None:
    """Return what a wire cut longer or shorter than planned does to the fit.

    Args:
        z: the bangle as planned.
        actual: cut length as measured [mm], or None before the cut.

    Notes:
        The loops are made as planned; the whole difference goes into S.

    Source: plain geometry.
    """
    if actual is None or abs(actual - z.cut) <= AS_CUT_TOLERANCE_MM:
        return None
    centre = z.centre + actual - z.cut
    open_to = inside_girth(centre, z.d, z.loop_width)
    numbers = {"actual": actual, "planned": z.cut, "off": abs(actual - z.cut), "open": open_to}
    if open_to < z.hand.value_mm - AS_CUT_TOLERANCE_MM:
        return advise("cut_short", "fix", "made.bangle", hand=z.hand.value_mm, **numbers)
    return advise("cut_long", "check", "made.bangle", **numbers)

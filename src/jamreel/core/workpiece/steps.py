"""Steps that every piece made of wire goes through."""

from jamreel.core.bench.steps import Step, step
from jamreel.core.cutting.cuts import Cut, Cutting
from jamreel.core.forming.tools import Former
from jamreel.core.words import say


def cutting_steps(cut: Cut, cutting: Cutting, *, hard: bool = False) -> list[Step]:
    """Return cutting, marking and squaring of one wire; hard wire wants its own shears."""
    inner = [mark.at_mm for mark in cut.marks[1:-1]]
    marks = ", ".join(say("step.one_mark", at=at) for at in inner)
    cautions = ("eyes", "whip", "hard") if hard else ("eyes", "whip")
    done = [step("wire.cut", "cut", cautions=cautions, check=True, length=cut.length_mm)]
    if inner:
        done.append(step("wire.mark", "cut", marks=marks))
    return [*done, step("wire.ends", "cut", cautions=("ends",), trim=cutting.trim)]


def shape_step(former: Former) -> Step:
    """Return shaping the body on its former."""
    return step(
        "wire.shape",
        "form",
        cautions=("hammer",),
        check=True,
        former=former.tool_mm or former.former_mm,
    )


def feel_step() -> Step:
    """Return the last look at what has no end to press in, always a step of its own."""
    return step("wire.feel", "fit", name="press_in", cautions=("ends", "skin"), check=True)


def press_in_step() -> Step:
    """Return the last look at ends, always a step of its own."""
    return step("wire.press_in", "fit", cautions=("ends", "skin"), check=True)

"""The sliding-loop bangle: one wire, each end a loop that runs on the opposite side."""

from typing import ClassVar, Literal

from jamreel.core.families.base import Construction, Job
from jamreel.core.families.sliding_bangle.drawing import drawings
from jamreel.core.families.sliding_bangle.ledger import ledger
from jamreel.core.families.sliding_bangle.making import advice, cut, steps
from jamreel.core.families.sliding_bangle.righting import put_right
from jamreel.core.families.sliding_bangle.sizes import Sizes, sizes
from jamreel.core.path.moves import bends_of
from jamreel.core.result import Plan
from jamreel.core.values import Length, PlusMinus
from jamreel.core.workpiece.assemble import Fit, Row, assemble


class SlidingBangle(Construction):
    """Its own choice: the pin that both loops are bent on."""

    family: ClassVar[str] = "bangle"
    part: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth", "hand_pass_girth")
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = (
        "passes_hand",
        "open_inside_girth",
        "finger_under",
        "overlap",
    )

    kind: Literal["sliding_bangle"] = "sliding_bangle"
    loop_pin: Length = 2.6

    def solve(self, job: Job) -> Plan:
        """Return the plan.

        Raises:
            Refusal: hand pass smaller than the wrist, or a pin that the wire can't pass.
        """
        z = sizes(self.loop_pin, job)
        one_cut = cut(z)
        loops = [b for b in bends_of(z.moves, z.d, z.cutting.trim) if b.pin_mm == z.pin]
        former = z.former
        return assemble(
            job,
            z.wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=z.centre, plus_minus=z.hand.plus_minus_mm),
            inside=PlusMinus(value=z.worn, plus_minus=z.wrist.plus_minus_mm),
            fit=Fit(z.wrist, z.ease, self.part),
            ledger=ledger(z),
            rows=_rows(z),
            answers={
                "measure": "worn",
                "make_up": "centre",
                "cut": "cut",
                "form": "former" if former.tool_mm is None else "step",
                "fit": "overlap",
            },
            cuts=(one_cut,),
            bends=tuple(job.on_pin(z.wire, bend) for bend in loops),
            formers=(former,),
            steps=steps(z),
            advice=advice(z, job),
            drawings=drawings(z, one_cut, job),
            righting=put_right(z, job.tryon),
        )


def _rows(z: Sizes) -> list[Row]:
    hand, wrist = z.hand.plus_minus_mm, z.wrist.plus_minus_mm
    return [
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

"""A bought clasp of any kind, known by its length: the string goes through it, or rings hold it."""

from typing import Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Closure, Fastened, closure_step
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, size_of
from jamreel.core.parts.pictures import box, ring
from jamreel.core.parts.weights import CLASP_G_PER_MM
from jamreel.core.values import Length


class BoughtClasp(Closure):
    """Both halves together are as long as the fastened clasp from eye to eye."""

    kind: Literal["bought_clasp"] = "bought_clasp"
    length: Length = choice(15.0, 0, 80)
    thickness: Length = choice(3.0, 0, 20)
    mass: float = choice(0.0, 0, 100)

    def make(self, wires: Palette) -> Fastened:
        """Return both halves, each with half the length; what it holds is not known."""
        half = self.length / 2
        eye = End(1.5, 0.8)
        # Not weighed: as heavy as such things are.
        mass = self.mass or CLASP_G_PER_MM * self.length
        size = size_of(self.length)
        bought = Bought("clasp", size, 1, mass, self.length)
        wide = max(self.thickness, 1.0)
        drawn = (ring(0.9, 1.2, 0.6, 0.0, "bought"), box(1.6, max(half, 1.8), wide, "bought"))
        eye_at = max(half - 0.9, 1.1)
        mirrored = (
            box(0.0, max(half - 1.6, 0.2), wide, "bought"),
            ring(eye_at, 1.2, 0.6, 0.0, "bought"),
        )
        receiving = Made(
            length=half,
            thickness=self.thickness,
            width=wide,
            ends=(eye, eye),
            bought=(bought,) if self.length else (),
            strokes=drawn if self.length else (),
            steps=(closure_step("clasp_half", name="clasp_on"),),
            minutes=1.0,
        )
        holding = Made(
            length=half,
            thickness=self.thickness,
            width=wide,
            ends=(eye, eye),
            strokes=mirrored if self.length else (),
            steps=(closure_step("clasp_half", name="clasp_other"),),
            minutes=1.0,
        )
        return Fastened(receiving, holding)

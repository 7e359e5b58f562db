"""Something bought: a connector with two loops, or a charm or pendant with one."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, Part, Role, part_step, size_of
from jamreel.core.parts.pictures import box, hung, ring
from jamreel.core.values import Length, Stroke
from jamreel.core.words import say

# A hole is drawn as a line so thick [mm].
HOLE_LINE_MM = 0.3


class Finding(Part):
    """A bought finding, measured from the inside of one loop to the inside of the other."""

    joins: ClassVar[Role] = "link"

    kind: Literal["finding"] = "finding"
    length: Length = choice(15.0, 1, 200)
    width: Length = choice(8.0, 0.5, 100)
    thickness: Length = choice(2.0, 0.3, 30)
    inner: Length = choice(1.8, 0.5, 30)
    mass: float = choice(2.0, 0, 200)
    hangs: bool = False
    drilled: bool = False
    edge: Length = choice(2.0, 0.3, 40, when=("drilled", "true"))

    def make(self, wires: Palette) -> Made:
        """Return the finding as measured; a ring through a drilled one goes round its edge."""
        d = self.edge if self.drilled else min(1.0, self.inner / 2)
        around = math.hypot(self.edge, self.thickness) if self.drilled else 0.0
        end = End(self.inner, d, False, around=around)
        drawn = self._drilled() if self.drilled else self._looped(d)
        key = "charm" if self.hangs else "connector"
        size = size_of(self.length, words=say(f"shelf.finding.{key}", length="{}"))
        return Made(
            length=0.0 if self.hangs else self.length,
            thickness=self.thickness,
            width=self.width,
            hang=self.length if self.hangs else 0.0,
            ends=(end, end),
            bought=(Bought(key, size, 1, self.mass, self.length),),
            strokes=hung(drawn) if self.hangs else tuple(drawn),
            steps=(part_step("measure_bought", check=True),),
            minutes=0.5,
        )

    def _looped(self, d: float) -> list[Stroke]:
        """Return it with a loop at the left, and one at the right where it links."""
        loops = self.inner + d
        right = self.length if self.hangs else self.length - loops
        drawn = [
            ring(self.inner / 2, self.inner, d, 0.0, "bought"),
            box(loops, max(right, loops + 0.5), self.width, "bought"),
        ]
        if not self.hangs:
            drawn.append(ring(self.length - self.inner / 2, self.inner, d, 0.0, "bought"))
        return drawn

    def _drilled(self) -> list[Stroke]:
        """Return it with a hole near its edge, and one at the other where it links."""
        far = self.length if self.hangs else self.length + self.edge
        left, right = self.inner / 2, self.length - self.inner / 2
        holes = (left,) if self.hangs else (left, right)
        return [
            box(-self.edge, far, self.width, "bought"),
            *(ring(at, self.inner, HOLE_LINE_MM) for at in holes),
        ]

"""Something bought: a connector with two loops, or a charm or pendant with one."""

from typing import ClassVar, Literal

from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, Part, Role, part_step, size_of
from jamreel.core.parts.pictures import box, hung, ring
from jamreel.core.values import Length
from jamreel.core.words import say


class Finding(Part):
    """A bought finding, measured from the inside of one loop to the inside of the other."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "length": (1, 200),
        "width": (0.5, 100),
        "thickness": (0.3, 30),
        "inner": (0.5, 30),
        "mass": (0, 200),
    }

    kind: Literal["finding"] = "finding"
    length: Length = 15.0
    width: Length = 8.0
    thickness: Length = 2.0
    inner: Length = 1.8
    mass: float = 2.0
    hangs: bool = False

    @property
    def role(self) -> Role:
        """Hangs, or links with its neighbours."""
        return "drop" if self.hangs else "link"

    def make(self, wires: Palette) -> Made:
        """Return the finding as measured."""
        d = min(1.0, self.inner / 2)
        end = End(self.inner, d, False, "any")
        loops = self.inner + d
        right = self.length if self.hangs else self.length - loops
        drawn = [
            ring(self.inner / 2, self.inner, d, 0.0, "bought"),
            box(loops, max(right, loops + 0.5), self.width, "bought"),
        ]
        if not self.hangs:
            drawn.append(ring(self.length - self.inner / 2, self.inner, d, 0.0, "bought"))
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

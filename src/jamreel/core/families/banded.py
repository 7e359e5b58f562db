"""A body of several wires round its wearer: bent to them last, round a former or over the thumb."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.errors import Refusal
from jamreel.core.families.composed import OnPiece
from jamreel.core.forming.band import Band, hand_moment, least_radius
from jamreel.core.forming.tools import Former
from jamreel.core.interlace.base import Weaving
from jamreel.core.makeup.compose import Composition, Lying
from jamreel.core.path.lines import circle, points_of
from jamreel.core.units import Mm
from jamreel.core.values import Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.drawing import former_dimensions

# What gives under so much is bent over the thumb: some 5 N at 30 mm; common practice, no source
# [N mm].
HAND_NMM = 150.0
# A body that is shorter lies straight between its neighbours [mm]; common practice.
LEAST_LONG_MM = 30.0
# So much of both ends is bent a little outwards [mm]; common practice.
OUTWARDS_MM = 10.0
# Two layers whose unlike lengths show [mm].
LEAST_SLIP_MM = 0.5


@dataclass(frozen=True)
class Bent:
    """A body that is bent to its wearer, lengths in mm: the part, its wires that run lengthwise, as
    hard as they are then, how wide its curve is ``inside`` when it is worn, the former (None of
    what is bent by hand), the least radius that its middle bears, and whether a closure holds its
    ends."""

    part: Lying
    wires: Band
    inside: float
    former: Former | None
    least: float
    fastens: bool

    @property
    def thick(self) -> float:
        """All through, what stands out on its inner face as well."""
        return self.part.made.thickness

    @property
    def radius(self) -> float:
        """Of its middle, worn."""
        return (self.inside + self.thick) / 2

    @property
    def beaded(self) -> bool:
        """Whether there are beads in it that stay as they are."""
        return any(one.key == "bead" for one in self.part.made.bought)

    @property
    def slips(self) -> float:
        """How much more its outer layer wants than the inner one, 2 pi e times its share of a
        turn."""
        deep = max(one.out for one in self.wires) - min(one.out for one in self.wires)
        return deep * self.part.length / self.radius

    def steps(self) -> Iterator[Step]:
        """Yield bending it, and how its ends meet."""
        face = say(f"band.face.{self.part.unit.part.kind}")
        between = say("band.between_beads") if self.beaded else ""
        told: dict[str, Any] = {"what": self.part.name, "face": face, "between": between}
        told["inside"] = self.inside
        if self.former is None:
            yield step("composed.band_by_hand", "form", name="band", check=True, **told)
        else:
            on = self.former.tool_mm or self.former.former_mm
            opens = self.former.target_mm if self.former.tool_mm is None else self.former.result_mm
            known = opens is not None and self.former.doubt_mm is not None
            yield step(
                "composed.band" if known else "composed.band_springy",
                "form",
                name="band",
                check=True,
                former=on,
                opens=opens,
                doubt=self.former.doubt_mm,
                **told,
            )
        key = "composed.band_ends" if self.fastens else "composed.band_trued"
        yield step(key, "form", name="band_ends", check=True, over=OUTWARDS_MM)

    def advice(self) -> Iterator[Advice | None]:
        """Yield whether it may be bent so tightly, and what its outer layer wants more."""
        if self.radius < self.least - 1e-9:
            yield advise(
                "band_tight", "check", "piece.entries", radius=self.radius, least=self.least
            )
        if self.slips >= LEAST_SLIP_MM:
            yield advise("band_slips", "note", "piece.entries", more=self.slips)

    def sheets(self) -> Iterator[Sheet]:
        """Yield it on its former, with what it opens to."""
        if self.former is not None:
            yield _on_former(self, self.former)


def bent_of(worked: OnPiece, inside: float) -> Bent | None:
    """Return the longest body of several wires that is bent to its wearer, None where none is.

    Args:
        worked: the piece laid out.
        inside: diameter of the round that the worn piece has the girth of [mm].

    Raises:
        Refusal: a body that no former bends so far.
    """
    part = max(_bodies(worked.laid), key=lambda one: one.length, default=None)
    if part is None:
        return None
    thick = part.made.thickness
    wires, harder = worked.as_worn(part.unit.key, part.made.lengthwise)
    former = None
    if hand_moment(wires) > HAND_NMM:
        try:
            former = worked.job.former_of_band(wires, thick, inside, harder)
        except ValueError:
            raise Refusal("no_former", got=Mm(inside), field="piece.entries") from None
    thickest = max(wires, key=lambda one: one.wire.fibre).wire
    soft = thickest.yield_mpa <= thickest.metal.yields["dead_soft"]
    bears = thickest.bend_limit(0.0 if soft else None)
    least = least_radius(wires, _pitch(part), bears)
    return Bent(part, wires, inside, former, least, worked.laid.fastened.length > 0)


def _bodies(laid: Composition) -> Iterator[Lying]:
    for part in laid.parts:
        if part.made.lengthwise and not part.drop and part.length >= LEAST_LONG_MM:
            yield part


def _pitch(part: Lying) -> float:
    """Return how far rows of beads lie apart [mm], 0 for a body without any."""
    weaving = part.made.weaving
    if not isinstance(weaving, Weaving) or not any(weaving.body.wires.beads):
        return 0.0
    return weaving.body.size.pitch


def _on_former(bent: Bent, former: Former) -> Sheet:
    """Return a body on its former and let go; both rest on one lowest point, ends upwards."""
    on = former.tool_mm or former.former_mm
    across, deep = on / 2, on / 2 / former.ratio
    held = _lying(bent, across, deep)
    rows = [("bent", held)]
    opens = former.target_mm if former.tool_mm is None else former.result_mm
    if opens is not None:
        rows.append(("result", _lying(bent, opens / 2, opens / 2)))
    block = tuple((round(across * x, 2), round(deep * (1 + y), 2)) for x, y in circle((0, 0), 1.0))
    strokes = (
        Stroke(part="former", points=block, closed=True),
        *(Stroke(part=part, points=line, width_mm=bent.thick) for part, line in rows),
    )
    return Sheet(
        id="former",
        title=say("drawing.band_former"),
        stations=("form",),
        strokes=strokes,
        dimensions=former_dimensions(on, deep, opens, bent.thick + 6),
    )


def _lying(bent: Bent, across: float, deep: float) -> Sequence[tuple[float, float]]:
    """Return the middle line of a body round an oval whose lowest point is the origin, as long as
    the body is, its middle at that point."""
    turn = np.linspace(-math.pi, math.pi, 721)
    half = bent.thick / 2
    line = np.column_stack([(across + half) * np.sin(turn), deep - (deep + half) * np.cos(turn)])
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    from_middle = np.abs(along - along[-1] / 2)
    return points_of(line[from_middle <= bent.part.length / 2 + 1e-9])

"""The chain necklace: bought links, a clasp, and where its front falls on a measured neck."""

from typing import ClassVar, Literal

import numpy as np

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.body.outline import Array, usual_outline
from jamreel.core.body.readings import Girth
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction, Job
from jamreel.core.fit.fall import Fall, hang
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.result import Plan
from jamreel.core.shop import Landmark
from jamreel.core.values import (
    Dimension,
    Drawings,
    Label,
    Length,
    PlusMinus,
    RuleDrawing,
    Sheet,
    Span,
    Stroke,
)
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import assemble
from jamreel.core.workpiece.chain import MASS_RANGE, PITCH_RANGE, chain_cut, whole_links
from jamreel.core.workpiece.drawing import circle, points_of
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.steps import press_in_step


class ChainNecklace(Construction):
    """A plain chain with a clasp: its length, its links, and the pendant at its middle.

    ``mass_per_m`` of the chain and ``pendant_mass`` are in grams.
    """

    family: ClassVar[str] = "necklace"
    part: ClassVar[str] = "neck"
    sites: ClassVar[tuple[str, ...]] = ("neck_base_girth",)
    asks: ClassVar[tuple[str, ...]] = ("fall", "comfortable")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "length": (250, 1500),
        "pitch": PITCH_RANGE,
        "thickness": (0.4, 15),
        "clasp": (0, 60),
        "mass_per_m": MASS_RANGE,
        "pendant_mass": (0, 300),
        "pendant_drop": (0, 200),
    }
    eases: ClassVar[bool] = False
    wired: ClassVar[bool] = False

    kind: Literal["chain_necklace"] = "chain_necklace"
    length: Length = 450.0
    pitch: Length = 3.5
    thickness: Length = 2.0
    clasp: Length = 15.0
    mass_per_m: float = 9.0
    pendant_mass: float = 0.0
    pendant_drop: Length = 0.0

    def solve(self, job: Job) -> Plan:
        """Return the plan. Raises Refusal for a chain that does not go round the neck's base."""
        neck, wire = job.girths["neck_base_girth"], job.wire_facts()
        links = whole_links(self.length - self.clasp, self.pitch)
        book = Book(self.thickness)
        rule = "workpiece.chain.whole_links"
        book.term(
            "links",
            links * self.pitch,
            rule,
            "geometry",
            "finished_chain",
            links=links,
            pitch=self.pitch,
        )
        book.term("clasp", self.clasp, "families.chain_necklace", "chosen", "finished_chain")
        finished = book.total("finished_chain", rule, "front")
        outline = usual_outline("neck", neck.value_mm)
        back = outline.girth / 2
        book.term("less_back", -back, "fit.fall.hang", "geometry", "front", girth=neck.value_mm)
        front = book.total("front", "fit.fall.hang")
        span = 2 * outline.across
        if front <= span * 1.02:
            raise Refusal(
                "chain_short",
                got=f"{finished:g} mm",
                field="piece.length",
                least=back + span * 1.02,
            )
        fall = hang(span, front, self.pendant_mass, self.mass_per_m / 1000)
        low = fall.sag + self.pendant_drop
        lands = landing(low, job.shop.landmarks)
        # Half a doubt of the neck's girth goes to the back, and so is missing in front.
        doubt = hang(
            span, front + neck.plus_minus_mm / 2, self.pendant_mass, self.mass_per_m / 1000
        )
        pm = doubt.sag - fall.sag
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=finished, plus_minus=0.0),
            inside=None,
            fit=None,
            ledger=book.lines,
            rows=[
                ("finished", finished, None),
                ("fall", fall.sag, pm),
                ("fall_pendant", low if self.pendant_drop else None, pm),
                ("front", front, pm),
                ("chain", links * self.pitch, None),
            ],
            answers={
                "measure": "fall",
                "make_up": "fall",
                "cut": "chain",
                "form": "finished",
                "fit": "fall",
            },
            cuts=(chain_cut("chain", links, self.pitch, self.thickness, wire.metal.name),),
            steps=self._steps(links),
            advice=(
                advise("lands", "note", "piece.length", fall=fall.sag, low=low, where=lands),
                self._style(),
            ),
            drawings=Drawings(
                rule=self._rule(links, neck),
                sheets=(fall_sheet(fall, span, self, job.shop.landmarks),),
            ),
            righting=self._put_right(job, fall, span, back, finished),
            mass_g=self.mass_per_m * links * self.pitch / 1000 + self.pendant_mass,
        )

    def _style(self) -> Advice | None:
        for key, (low, high) in STYLES.items():
            if low <= self.length <= high:
                return advise(
                    "style", "note", "piece.length", style=say(f"style.{key}"), low=low, high=high
                )
        return None

    def _steps(self, links: int) -> tuple[Step, ...]:
        return (
            step("chain.count", "cut", cautions=("eyes",), check=True, links=links),
            step("chain.clasp", "form", check=True),
            step("chain.try_on", "fit", cautions=("neck",), check=True),
            press_in_step(),
        )

    def _rule(self, links: int, neck: Girth) -> RuleDrawing:
        chain, clasp = links * self.pitch, self.clasp
        spans = (
            Span(
                id="links",
                label=say("part.chain", links=links),
                from_mm=0.0,
                to_mm=chain,
                kind="body",
                ledger=("links",),
            ),
            Span(
                id="clasp",
                label=say("part.clasp"),
                from_mm=chain,
                to_mm=chain + clasp,
                kind="part",
                ledger=("clasp",),
            ),
        )
        return RuleDrawing(
            length_mm=chain + clasp,
            spans=spans,
            ticks_mm=(0.0, chain / 2, chain, chain + clasp),
            band=PlusMinus(value=chain + clasp, plus_minus=self.pitch / 2),
            width_mm=self.thickness,
        )

    def _put_right(
        self, job: Job, fall: Fall, span: float, back: float, finished: float
    ) -> PuttingRight | None:
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.fall is None:
            return verdict(
                "fits" if tryon.comfortable else "where_fell", settled=bool(tryon.comfortable)
            )
        off = tryon.fall - fall.sag
        if abs(off) < self.pitch:
            return verdict("fell_as_planned", settled=True, fall=tryon.fall)
        # How much length moves the fall, near here; what was measured tells the rest.
        longer = hang(span, fall.length + self.pitch, self.pendant_mass, self.mass_per_m / 1000)
        links = max(1, round(abs(off) / (longer.sag - fall.sag)))
        key = "links_off" if off > 0 else "links_on"
        return verdict(key, amount=links * self.pitch, links=links, off=abs(off))


STYLES: dict[str, tuple[float, float]] = {
    "collar": (305, 330),
    "choker": (350, 410),
    "princess": (430, 480),
    "matinee": (510, 610),
    "opera": (710, 860),
    "rope": (1140, 1500),
}


def landing(below: float, landmarks: tuple[Landmark, ...]) -> str:
    """Return in body words where a fall lands.

    Args:
        below: below the shoulder points [mm].
        landmarks: places of the body, each so far below.

    Source: landmarks are common practice, from memory, and the maker's to edit.
    """
    order = sorted(landmarks, key=lambda mark: mark.below)
    above = [mark.name for mark in order if mark.below <= below]
    under = [mark.name for mark in order if mark.below > below]
    if above and under:
        return say("landing.between", above=above[-1], under=under[0])
    if under:
        return say("landing.above", under=under[0])
    return say("landing.below", above=above[-1]) if above else say("landing.nowhere")


def rounded(corners: Array, rounds: int = 3) -> Array:
    """Return an open line with its corners cut off, ends kept.

    Args:
        corners: shape (n, 2).
        rounds: how often every corner is cut.

    Source: Chaikin 1974, corner cutting; published.
    """
    line = corners
    for _ in range(rounds):
        near, far = 0.75 * line[:-1] + 0.25 * line[1:], 0.25 * line[:-1] + 0.75 * line[1:]
        cut = np.stack([near, far], axis=1).reshape(-1, 2)
        line = np.vstack([line[:1], cut, line[-1:]])
    return line


def fall_sheet(
    fall: Fall, span: float, piece: ChainNecklace, landmarks: tuple[Landmark, ...]
) -> Sheet:
    """Return the chest seen from the front with the chain as it hangs, landmarks at the side."""
    deep = max(fall.sag + piece.pendant_drop + 40, 190.0)
    wide = span * 1.5
    # Neck, shoulders and chest: only the neck's breadth is measured, the rest is an idea of a body.
    half = span / 2
    right = (
        (half * 0.8, 46.0), (half * 0.84, 18.0), (half * 1.02, 0.0), (wide * 0.74, -16.0),
        (wide * 0.9, -34.0), (wide * 0.95, -80.0), (wide * 0.86, -deep),
    )  # fmt: skip
    side = points_of(rounded(np.array(right)))
    body = (*((-x, y) for x, y in reversed(side)), *side)
    strokes = [Stroke(part="skin", points=body, closed=True)]
    labels = []
    for mark in landmarks:
        if mark.below < deep - 4:
            y = -mark.below
            line = ((wide * 0.72, y), (wide * 0.96, y))
            strokes.append(Stroke(part=f"landmark {mark.name}", points=line))
            labels.append(Label(at=(wide, y), text=mark.name, anchor="start"))
    strokes.append(Stroke(part="links", points=points_of(fall.points()), width_mm=piece.thickness))
    if piece.pendant_drop:
        drop = piece.pendant_drop
        hung = circle((0.0, -fall.sag - drop + drop / 3), drop / 3)
        cord = ((0.0, -fall.sag), (0.0, -fall.sag - drop / 3))
        strokes.append(Stroke(part="pendant_loop", points=cord, width_mm=1.0))
        strokes.append(Stroke(part="pendant", points=hung, closed=True))
    sag = Dimension(
        a=(-half, 0.0), b=(half, 0.0), value_mm=fall.span, label=say("drawing.apart"), offset_mm=56
    )
    labels.append(Label(at=(-wide * 0.48, -fall.sag - 6), text=say("drawing.falls", sag=fall.sag)))
    return Sheet(
        id="fall",
        title=say("drawing.fall"),
        stations=("measure", "make_up", "fit"),
        strokes=tuple(strokes),
        dimensions=(sag,),
        labels=tuple(labels),
    )

"""The chain necklace: bought links, a clasp, and where its front falls on a measured neck."""

from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.body.outline import usual_outline
from jamreel.core.body.readings import Girth
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction, Job
from jamreel.core.fit.fall import Fall, hang
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.result import Plan
from jamreel.core.values import (
    Drawings,
    Length,
    PlusMinus,
    RuleDrawing,
    Span,
)
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import assemble
from jamreel.core.workpiece.chain import MASS_RANGE, PITCH_RANGE, chain_cut, whole_links
from jamreel.core.workpiece.chest import fall_sheet, landing
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
                sheets=(
                    fall_sheet(fall, span, self.thickness, self.pendant_drop, job.shop.landmarks),
                ),
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

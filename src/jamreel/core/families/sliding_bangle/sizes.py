"""All sizes of one sliding-loop bangle, worked out once and read by everything else."""

import math
from dataclasses import dataclass
from functools import cached_property

from jamreel.core.body.readings import BodyMeasure
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.sliding import centre_length, loop_outer_width, overlap_at
from jamreel.core.forming.chosen import Wire
from jamreel.core.path.moves import Bend, Move, PlaneTurn, bend_length
from jamreel.core.units import Mm
from jamreel.core.workpiece.job import Job

# A loop must let the wire it goes round slide: common practice.
LOOP_CLEARANCE_MM = 0.3
# Loops on pins much larger than this are rings, not sliding loops.
WIDEST_PIN_MM = 15.0
FULL_TURN = 2 * math.pi


@dataclass(frozen=True)
class Sizes:
    """Inputs and what follows from them. Lengths in mm, stresses in MPa."""

    wrist: BodyMeasure
    hand: BodyMeasure
    ease: Ease
    wire: Wire
    pin: float

    @property
    def d(self) -> float:
        """Wire diameter [mm]."""
        return self.wire.d

    @cached_property
    def worn(self) -> float:
        """Inside girth when worn [mm]."""
        return self.wrist.value_mm + self.ease.value_mm

    @cached_property
    def beyond_hand(self) -> float:
        """What the worn fit needs beyond the hand pass; mostly nothing [mm]."""
        return max(0.0, self.worn - self.hand.value_mm)

    @cached_property
    def open(self) -> float:
        """Inside girth when opened as far as it goes [mm]."""
        return self.hand.value_mm + self.beyond_hand

    @cached_property
    def loop_width(self) -> float:
        """Outer width of one loop [mm]."""
        return loop_outer_width(self.pin, self.d)

    @cached_property
    def centre(self) -> float:
        """S: centre-line length, loop centre to loop centre [mm]."""
        return centre_length(self.open, self.d, self.loop_width)

    @cached_property
    def overlap(self) -> float:
        """Overlap of the ends when worn [mm]."""
        return overlap_at(self.centre, self.d, self.worn)

    @cached_property
    def loop(self) -> float:
        """Wire that one loop takes [mm]."""
        return bend_length(FULL_TURN, self.pin, self.d)

    @cached_property
    def closed_diameter(self) -> float:
        """Inside diameter of the piece when worn, as a circle [mm]."""
        return self.worn / math.pi

    @cached_property
    def moves(self) -> tuple[tuple[Move, ...], tuple[Move, ...], tuple[Move, ...]]:
        """The wire as paths, left flush cut to right flush cut: loop, body, loop.

        Each loop stands square to the plane of the bangle: a quarter turn before and after.
        """
        body = self.centre / ((self.closed_diameter + self.d) / 2)
        quarter = PlaneTurn(angle=math.pi / 2)
        loop_up, loop_down = (
            Bend(angle=FULL_TURN, pin=self.pin, side="left", label=key)
            for key in ("loop_up", "loop_down")
        )
        bow = Bend(angle=body, pin=self.closed_diameter, side="left", label="body")
        return ((loop_up,), (quarter, bow, quarter), (loop_down,))


def sizes(pin: float, job: Job) -> Sizes:
    """Return all sizes of the bangle that a job asks for.

    Args:
        pin: what the loops are bent on [mm].
        job: girths, ease, wire and shop.

    Raises:
        Refusal: hand pass smaller than the wrist; a pin that the wire can't pass or far too
            wide; too much ease; a metal that is not known.

    Source: handbook arithmetic of ``fit.sliding``, each rule with its own source.
    """
    wrist, hand = job.girths["wrist_girth"], job.girths["hand_pass_girth"]
    d = job.wire.size.diameter_mm
    if hand.value_mm < wrist.value_mm:
        raise Refusal(
            "hand_under_wrist",
            got=Mm(hand.value_mm),
            field="measures.hand_pass_girth",
            wrist=wrist.value_mm,
        )
    least = d + LOOP_CLEARANCE_MM
    # A hair of tolerance, so that just wire and clearance is not refused over floats.
    if pin < least - 1e-9:
        raise Refusal("pin_too_thin", got=Mm(pin), field="piece.loop_pin", wire=d, least=least)
    if pin > WIDEST_PIN_MM:
        raise Refusal("pin_too_wide", got=Mm(pin), field="piece.loop_pin", most=WIDEST_PIN_MM)
    ease = job.ease_on("wrist", wrist.value_mm)
    wire = job.wires.body
    return Sizes(wrist=wrist, hand=hand, ease=ease, wire=wire, pin=pin)

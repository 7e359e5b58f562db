"""The eye that hooks go into, and the loop that joins a half to the body."""

import math

from jamreel.core.closures.base import closure_step
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import End, Made, WireUse, opens_at, ovals_at
from jamreel.core.parts.ends import loop_end
from jamreel.core.parts.pictures import edge, ring, wraps
from jamreel.core.path.loops import wrapped_loop_reach
from jamreel.core.path.moves import Bend, Straight

JOIN_PIN_MM = 3.0


def wrapped_eye(w: Wire, eye_pin: float, wraps_: int, tail: float) -> Made:
    """Return an eye on a stem wrapped with its own tail, a loop for the body at its other end.

    Args:
        w: the wire.
        eye_pin: inner diameter of the eye [mm].
        wraps_: round the stem.
        tail: held while wrapping [mm].
    """
    length = wrapped_loop_reach(wraps_, eye_pin, w.d) + JOIN_PIN_MM + w.d
    stretches = (
        *loop_end("wrapped", w, eye_pin, wraps_, tail, "left"),
        ("loop_right", (Bend(angle=2 * math.pi, pin=JOIN_PIN_MM, label="loop"),)),
        ("body", (Straight(length=0.0),)),
    )
    at = eye_pin + w.d
    return Made(
        length=length,
        thickness=3 * w.d if wraps_ else w.d,
        width=eye_pin + 2 * w.d,
        ends=(End(eye_pin, w.d, False, "flat"), End(JOIN_PIN_MM, w.d, True, "flat")),
        wires=(WireUse("eye", w, stretches),),
        holds=(
            ovals_at("wrapped_loop", w, eye_pin),
            opens_at("plain_loop", w, JOIN_PIN_MM),
        ),
        strokes=(
            ring(eye_pin / 2, eye_pin, w.d),
            edge(at - 0.1, at + wraps_ * w.d, w.d),
            ring(length - JOIN_PIN_MM / 2, JOIN_PIN_MM, w.d),
            *wraps(at, wraps_, w.d, 3 * w.d),
        ),
        steps=(closure_step("eye", pin=eye_pin, wraps=wraps_),),
        minutes=4.0,
    )

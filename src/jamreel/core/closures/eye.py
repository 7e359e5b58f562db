"""The eye that hooks go into, and the loop that joins a half to the body."""

from jamreel.core.closures.base import closure_step
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Made, WireUse
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Loop, LoopKind
from jamreel.core.path.moves import Straight


def wrapped_eye(w: Wire, eye_pin: float, join_pin: float, wraps_: int, tail: float) -> Made:
    """Return an eye with a loop for the body: both wound shut on one stem, coils meeting; two
    plain loops for no wraps.

    Args:
        w: the wire.
        eye_pin: inner diameter of the eye [mm].
        join_pin: inner diameter of the loop for the body [mm].
        wraps_: of each loop round the stem.
        tail: held while wrapping each [mm].
    """
    kind: LoopKind = "wrapped" if wraps_ else "plain"
    eye, join = (Loop(kind, w, pin, wraps_, tail) for pin in (eye_pin, join_pin))
    length = eye.reach + join.reach
    stretches = (
        *eye.stretches("left"),
        ("body", (Straight(length=0.0),)),
        *join.stretches("right"),
    )
    steps = (
        (
            closure_step("eye", pin=eye_pin, wraps=wraps_),
            closure_step("join_open", name="eye_join", pin=join_pin),
            closure_step("body_in", name="eye_body"),
            closure_step("eye_close", cautions=("ends",), wraps=wraps_),
        )
        if wraps_
        else (
            closure_step("eye_plain", name="eye", pin=eye_pin),
            closure_step("join_plain", name="eye_join", pin=join_pin),
        )
    )
    use = laid(WireUse("eye", w, stretches), middle=length / 2)
    return Made(
        length=length,
        thickness=eye.thickness,
        width=eye_pin + 2 * w.d,
        ends=(eye.end(), join.end()),
        wires=(use,),
        holds=(eye.hold, join.hold),
        strokes=drawn(use),
        steps=steps,
        minutes=4.0,
    )

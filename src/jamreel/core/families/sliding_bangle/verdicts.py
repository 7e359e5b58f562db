"""What to change after a try-on, by how much, in this construction's own terms."""

from jamreel.core.families.sliding_bangle.sizes import LOOP_CLEARANCE_MM, Sizes
from jamreel.core.fit.sliding import gain_of_smaller_loops, inside_girth, overlap_at
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.workpiece.verdicts import TOLERANCE_MM, change, verdict


def put_right(z: Sizes, cut: float, tryon: TryOn) -> PuttingRight:
    """Return what a try-on asks for.

    Args:
        z: the bangle as planned.
        cut: length of its wire [mm].
        tryon: what was noted.

    Returns:
        The verdict; when the made inside girth was measured, amounts in mm.

    Source: plain geometry; one end is remade, since the loops are alike.
    """
    if tryon.open_inside_girth is not None:
        return _by_tape(z, cut, tryon, tryon.open_inside_girth)
    if tryon.passes_hand is False:
        return verdict("measure_inside", open=z.open)
    if tryon.finger_under is False:
        return verdict("open_a_little")
    if tryon.overlap is not None:
        inside = inside_girth(z.centre, z.d, tryon.overlap)
        ease = inside - z.wrist.value_mm
        return verdict("worn_at", settled=True, overlap=tryon.overlap, inside=inside, ease=ease)
    return verdict("fits", settled=True)


def _by_tape(z: Sizes, cut: float, tryon: TryOn, measured: float) -> PuttingRight:
    excess = measured - z.open
    if excess > TOLERANCE_MM:
        return _too_big(z, measured, excess)
    if excess < -TOLERANCE_MM:
        return _too_small(z, cut, measured, -excess, goes_on=tryon.passes_hand is True)
    if tryon.passes_hand is False:
        return verdict("hand_again", hand=z.hand.value_mm)
    return verdict("as_planned", settled=True, open=measured)


def _too_big(z: Sizes, measured: float, excess: float) -> PuttingRight:
    centre = z.centre + excess
    return verdict(
        "too_big",
        amount=excess,
        snip=excess + z.loop,
        loop=z.loop,
        changes=(
            change("open", measured, z.open),
            change("centre", centre, z.centre),
            change("overlap", overlap_at(centre, z.d, z.worn), z.overlap),
        ),
    )


def _too_small(
    z: Sizes, cut: float, measured: float, short: float, *, goes_on: bool
) -> PuttingRight:
    if goes_on:
        return verdict("small_but_passes", settled=True, amount=short, open=measured)
    smallest = z.d + LOOP_CLEARANCE_MM
    gain = gain_of_smaller_loops(z.pin, smallest)
    if gain >= short:
        pin = z.pin - short / (gain / (z.pin - smallest))
        return verdict(
            "smaller_loops",
            amount=short,
            pin=pin,
            changes=(change("open", measured, z.open), change("pin", z.pin, pin)),
        )
    return verdict("new_wire", amount=short, cut=cut, changes=(change("open", measured, z.open),))

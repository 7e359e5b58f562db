"""The arithmetic of the bangle as lines with signs and totals."""

import math
from collections.abc import Iterator

from jamreel.core.families.sliding_bangle.sizes import Sizes
from jamreel.core.values import Backing, LedgerLine
from jamreel.core.words import say


def ledger(z: Sizes) -> tuple[LedgerLine, ...]:
    """Return the ledger: the cut, what lies between the loops, how it sits, the overlap."""
    return (*_cut(z), *_worn(z), *_overlap(z))


def _cut(z: Sizes) -> Iterator[LedgerLine]:
    yield _girth_line(z, "hand_pass", z.hand.value_mm, "centre")
    if z.beyond_hand:
        yield _line("beyond_hand", z.beyond_hand, "open >= worn", "geometry", "centre", z)
    steiner = math.pi * z.d
    yield _line("half_wire", steiner, "fit.sliding.centre_length", "published", "centre", z)
    yield _line("loops_meet", z.loop_width, "fit.sliding.loop_outer_width", "geometry", "centre", z)
    yield _line("centre", z.centre, "fit.sliding.centre_length", "geometry", "cut", z, total=True)
    for key in ("loop_up", "loop_down"):
        yield _line(key, z.loop, "path.moves.bend_length", "published", "cut", z)
    for key in ("trim_left", "trim_right"):
        yield _line(key, z.cutting.trim, "cutting.cuts.Cutting", "chosen", "cut", z)
    for key, value in z.extras:
        yield _line(key, value, "cutting.cuts.extras", "chosen", "cut", z)
    yield _line("cut", z.cut, "path.moves.developed_length", "geometry", None, z, total=True)


def _worn(z: Sizes) -> Iterator[LedgerLine]:
    yield _girth_line(z, "wrist", z.wrist.value_mm, "worn")
    yield _line(
        f"ease_{z.ease.school}", z.ease.value_mm, "fit.ease.ease_of", z.ease.backing, "worn", z
    )
    yield _line("worn", z.worn, "fit.ease", "geometry", None, z, total=True)


def _overlap(z: Sizes) -> Iterator[LedgerLine]:
    rule = "fit.sliding.overlap_at"
    yield _line("from_centre", z.centre, rule, "geometry", "overlap", z)
    yield _line("less_half_wire", -math.pi * z.d, rule, "published", "overlap", z)
    yield _line("less_worn", -z.worn, rule, "geometry", "overlap", z)
    yield _line("overlap", z.overlap, rule, "geometry", None, z, total=True)


def _girth_line(z: Sizes, key: str, value: float, adds_to: str) -> LedgerLine:
    girth = z.wrist if key == "wrist" else z.hand
    how = "guessed" if girth.guessed else "measured" if girth.count > 1 else "measured_once"
    return LedgerLine(
        id=key,
        label=say(f"ledger.{key}.label"),
        value_mm=value,
        rule="body.readings.girth_at",
        reason=say(f"ledger.{how}", n=girth.count, pm=girth.plus_minus_mm),
        backing="from memory" if girth.guessed else "measured",
        inputs={"readings": float(girth.count), "spread_mm": girth.spread_mm},
        adds_to=adds_to,
    )


def _line(
    key: str,
    value: float,
    rule: str,
    backing: Backing,
    adds_to: str | None,
    z: Sizes,
    *,
    total: bool = False,
) -> LedgerLine:
    inputs: dict[str, float | str] = {"wire_mm": z.d, "pin_mm": z.pin}
    if key.startswith("ease_"):
        inputs = {"girth_mm": z.wrist.value_mm, "school": z.ease.school}
        if z.ease.parameter is not None:
            inputs["parameter"] = z.ease.parameter
    return LedgerLine(
        id=key,
        label=say(f"ledger.{key}.label"),
        value_mm=value,
        rule=rule,
        reason=say(f"ledger.{key}.reason", d=z.d, pin=z.pin, parameter=z.ease.parameter or 0.0),
        backing=backing,
        inputs=inputs,
        adds_to=adds_to,
        total=total,
    )

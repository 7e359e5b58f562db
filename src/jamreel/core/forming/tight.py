"""Bends too tight for their metal: what the outermost fibre is asked to bear, and what it bears."""

from collections.abc import Iterable
from dataclasses import dataclass

from jamreel.core.choices import Asking
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.path.moves import Bend, Corner, Fold, Move, Spiral, Wrap
from jamreel.core.units import Mm

HARD_TEMPERS = frozenset({"full_hard", "spring"})


@dataclass(frozen=True)
class Tight:
    """A bend on a ``pin`` [mm] that asks more of a wire than it bears, as strains."""

    wire: Wire
    label: str
    pin: float
    strain: float
    bears: float

    @property
    def least(self) -> float:
        """The tightest pin that it takes [mm]."""
        return least_pin(self.wire, self.bears)

    @property
    def breaks(self) -> bool:
        """Whether nothing at the bench helps: hard wire that can't be annealed."""
        hard = self.wire.temper in HARD_TEMPERS or self.wire.metal.hard
        return hard and "anneal" not in self.wire.metal.takes


def least_pin(wire: Wire, bears: float) -> float:
    """Return the tightest pin on which a wire's farther fibre strains no more than it bears.

        D = d / strain - d for round wire, from strain = d / (D + d)

    Args:
        wire: that is bent.
        bears: strain.

    Returns:
        Pin [mm], 0 where any will do.

    Source: plane sections of a bent bar; statics textbooks.
    """
    return max(0.0, wire.fibre / bears - wire.bend_adds)


def tightest(wire: Wire, moves: Iterable[Move]) -> Tight | None:
    """Return the bend that asks most, where it asks more than the wire bears.

    Args:
        wire: that is bent.
        moves: all of one wire's.

    Source: ``Wire.strain_on`` against ``Wire.bend_limit``.
    """
    bears = wire.bend_limit()
    pins = [(pin, move) for move in moves if (pin := pin_of(move)) is not None]
    if not pins:
        return None
    pin, move = min(pins, key=lambda one: one[0])
    strain = wire.strain_on(pin)
    label = getattr(move, "label", "") or move.kind
    return Tight(wire, label, pin, strain, bears) if strain > bears + 1e-9 else None


def pin_of(move: Move) -> float | None:
    """Return what a move bends a wire round: the inside diameter of its tightest place [mm], None
    of a move that bends nothing.

    Args:
        move: of a path.

    Source: plain geometry; a fold is closed till its legs touch.
    """
    match move:
        case Bend() | Spiral():
            return move.pin
        case Wrap():
            return move.core
        case Corner():
            return 2 * move.radius
        case Fold():
            return 0.0
        case _:
            return None


def refuse_breaking(asked: Asking, wire: Wire, moves: Iterable[Move]) -> None:
    """Refuse bends that snap a wire which nothing at the bench makes soft.

    Args:
        asked: whose choices the pins are, to name the field.
        wire: that is bent.
        moves: all of one wire's.

    Raises:
        Refusal: at the choice that is the pin.

    Source: ``tightest``.
    """
    tight = tightest(wire, moves)
    if tight is None or not tight.breaks:
        return
    # Counts are whole numbers; a pin is a length.
    floats = ((name, getattr(asked, name)) for name in asked.limits())
    pins = (name for name, value in floats if isinstance(value, float) and value == tight.pin)
    raise Refusal(
        "bend_breaks",
        got=Mm(tight.pin),
        field=next(pins, "wire"),
        wire=f"{wire.label} {wire.metal.name}",
        least=tight.least,
        strain=100 * tight.strain,
        bears=100 * tight.bears,
    )

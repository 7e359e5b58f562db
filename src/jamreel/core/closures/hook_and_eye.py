"""Hooks that go into an eye of their own, wound of the same wire."""

from typing import Any

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, Passes
from jamreel.core.closures.eye import wrapped_eye
from jamreel.core.closures.receiving import Hook
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made
from jamreel.core.values import Length

# Of the loop that a half hangs on the body by [mm]; common practice.
JOIN_PIN_MM, JOIN_RANGE = 3.0, (1.0, 20.0)


class HookAndEye(Hook):
    """Base of hooks with a wrapped eye, where they go into nothing else."""

    eye_pin: Length = choice(5.0, 2, 20)
    eye_wraps: int = choice(2, 0, 6)
    eye_join_pin: Length = choice(JOIN_PIN_MM, *JOIN_RANGE)
    tail: Length = choice(12.0, 0, 60)

    def with_eye(self, w: Wire, wires: Palette, hook: Made, width: float, *advice: Any) -> Fastened:
        """Return both halves.

        Args:
            w: the wire of the closure.
            wires: of the piece.
            hook: as made.
            width: of what has to pass the eye [mm].
            advice: on the halves.
        """
        return self.fastens_by(
            self.into_what(
                w,
                wires,
                lambda: wrapped_eye(w, self.eye_pin, self.eye_join_pin, self.eye_wraps, self.tail),
            ),
            self.on_body(hook, wires),
            Passes(width),
            *advice,
        )

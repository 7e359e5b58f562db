"""What a technique comes to: how large, of which wires, how it looks, how it is made."""

from collections.abc import Callable
from dataclasses import dataclass, field

from jamreel.core.advice import Advice
from jamreel.core.bench.steps import Step
from jamreel.core.fit.thickness import Lies
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.cells import Cell
from jamreel.core.parts.base import End, Hold, WireUse
from jamreel.core.parts.beads import OneBead
from jamreel.core.values import Stroke


@dataclass(frozen=True)
class Takes:
    """Working wires that go the same way side by side, lengths in mm.

    Each of ``count`` ``takes`` so much in a row, by turns; the first one takes ``start`` before the
    first row and the last one ``end`` behind the last, beside what is held and made fast. Which of
    two takes more is not known beforehand: each is cut ``uneven`` longer a row. Those that are
    ``folded`` begin at their middle, and their ends are both made fast. At each end of the body so
    many rows are ``left_out``.

    Of what a row takes, ``firm`` is the same in every hand. What is ``whole`` goes all along the
    body, never joined: what it takes ``fore`` the first row and ``aft`` of the last is told by
    name; folded, it has its middle ``fore`` and both its ends ``aft``. A strand ``runs`` once or,
    folded, twice along the body; what is coiled is no strand.
    """

    key: str
    takes: tuple[float, ...]
    count: int = 1
    start: float = 0.0
    end: float = 0.0
    uneven: float = 0.0
    folded: bool = False
    left_out: int = 0
    firm: float = 0.0
    whole: bool = False
    fore: tuple[tuple[str, float], ...] = ()
    aft: tuple[tuple[str, float], ...] = ()
    runs: int = 0

    @property
    def around(self) -> tuple[tuple[tuple[str, float], ...], tuple[tuple[str, float], ...]]:
        """What lies before its rows and behind them, of a whole one that is not folded."""
        return (self.aft[::-1], self.aft) if self.folded else (self.fore, self.aft)


@dataclass(frozen=True, eq=False)
class BodySize:
    """How large a body is, lengths in mm.

    ``before`` and ``behind`` are what lies from bearing point to first row and from last row to
    bearing point. The ``first`` row's middle lies so far beyond where rows begin, in cells that are
    drawn from a row's middle on. What is ``hooked`` ends in a hook so wide. ``pegs`` are the
    heights on the board of what holds it while it is worked.
    """

    pitch: float
    width: float
    thickness: float
    before: float
    behind: float
    ends: tuple[End, End] | None
    first: float = 0.0
    hooked: float = 0.0
    pegs: tuple[float, ...] = ()
    lies: Lies = "bends"


@dataclass(frozen=True, eq=False)
class BodyWires:
    """What a body is made of: working wires with what a row takes of each, the frame, and the beads
    of a row, by turns. ``core`` is the thinnest that working wires are bent round [mm]. Those that
    run ``lengthwise`` bend with the body; beads and turns round others stay as they are."""

    working: Wire
    worked: tuple[Takes, ...]
    core: float
    frame: tuple[WireUse, ...] = ()
    beads: tuple[tuple[OneBead, ...], ...] = ((),)
    lengthwise: tuple[Lengthwise, ...] = ()


@dataclass(frozen=True, eq=False)
class Look:
    """How a body looks: a cell that repeats, the frame, and what lies ``over`` all.

    ``close`` is the cell as it is looked at closely, of what pulls a cell tight, where more than
    that is to be done; ``ended`` is the cell at both ends of the body, for ``left_out`` rows each,
    where something is left out there, with the beads that it has.
    """

    cell: Callable[[], Cell]
    frame_strokes: tuple[Stroke, ...] = ()
    over: tuple[Stroke, ...] = ()
    left_out: int = 0
    ended: tuple[Callable[[], Cell], tuple[OneBead, ...]] | None = None
    close: Callable[[Callable[[Cell], Cell]], Cell] | None = None


@dataclass(frozen=True, eq=False)
class Work:
    """How a body is made: steps before the rows, of each row, and after them. Minutes of a row are
    from memory, no source."""

    begin: tuple[Step, ...] = ()
    row_steps: tuple[Step, ...] = ()
    finish: tuple[Step, ...] = ()
    row_minutes: float = 1.0


@dataclass(frozen=True, eq=False)
class Body:
    """What a technique comes to in some wire."""

    size: BodySize
    wires: BodyWires
    look: Look
    work: Work
    holds: tuple[Hold, ...] = ()
    advice: tuple[Advice | None, ...] = field(default=())

"""The plan: everything computed from one brief. Its keys are a published format (docs/format)."""

from typing import Any, Literal

from pydantic import Field

from jamreel.core.advice import Advice
from jamreel.core.bench.steps import Caution, Step
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cut, Share
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.oval import OvalFormer
from jamreel.core.forming.tools import Former
from jamreel.core.values import (
    FORMAT,
    Drawings,
    Format,
    LedgerLine,
    Millimetres,
    PlusMinus,
    Quantity,
    Written,
)


class BendPlaces(Written):
    """Where a bend is made on a wire of a cut: all places from its left end [mm]."""

    cut: str
    at_mm: tuple[Millimetres, ...]


class PlannedBend(Written):
    """A bend to make: pin [mm], angle [rad], side, and its places on each wire that has it.

    Its ``id`` is that of the first of those cuts and its own key there. ``opens_to_mm`` is the
    inside diameter after springback. ``tool`` is what the maker has for it: the nearest pin
    ``tool_mm``, ``at_mm`` from the tip of what tapers, what a bend on that opens to
    (``result_mm``) and how much more wire it takes (``more_mm``).
    """

    id: str
    label: str
    pin: Millimetres
    angle: Quantity
    side: Literal["left", "right"]
    places: tuple[BendPlaces, ...]
    takes_mm: Millimetres
    opens_to_mm: Millimetres
    tool: str | None
    tool_mm: Millimetres | None = None
    at_mm: Millimetres | None = None
    result_mm: Millimetres | None = None
    more_mm: Millimetres = 0.0


class ToolNeeded(Written):
    """A tool that a piece wants, at which sizes [mm], and whether the bench lacks it."""

    says: str
    sizes_mm: tuple[Millimetres, ...] = ()
    lacks: bool = False


class Figure(Written):
    """A named result [mm], with ± where it depends on a measure."""

    id: str
    label: str
    value_mm: Millimetres
    plus_minus_mm: Millimetres | None = None


class EaseOption(Written):
    """One school and word, with the ease and inside girth that it gives here."""

    ease: Ease
    inside_girth_mm: Millimetres
    word: str


class Need(Written):
    """Something bought that the piece takes: what, in which size, how many, what it weighs.

    ``size_mm`` is there where one figure says its size. ``shares`` say whom it is for: each is
    fetched under its own key, the entry's name and the need's slug.
    """

    id: str
    kind: Literal["bead", "finding"]
    label: str
    size: str
    size_mm: Millimetres | None
    quantity: int
    mass_g: Quantity
    shares: tuple[Share, ...]

    def key_of(self, share: Share) -> str:
        """Return the name under which one share is fetched."""
        return f"{share.entry}/{self.slug}"

    @property
    def slug(self) -> str:
        """What it is in a name: its kind and size."""
        return self.id.partition("/")[2]


class Strength(Written):
    """The place that gives first, by name, and the pull it bears: newtons, grams hung on it, and
    something everybody has held that weighs as much. What was made soft and hardened again bears
    up to so many newtons."""

    says: str
    newtons: Quantity
    grams: Quantity
    felt: str
    up_to_newtons: Quantity | None = None


class Feel(Written):
    """How the piece feels in one way, in words: with a force [N], and how far something gives or
    stays open [mm], where there is such."""

    id: str
    label: str
    newtons: Quantity | None = None
    value_mm: Millimetres | None = None
    says: str


class ProposedEdit(Written):
    """One value of the brief's piece to set, by its path: a count, an option, or another closure
    as typed."""

    path: tuple[str | int, ...]
    value: int | str | dict[str, str]


class Proposal(Written):
    """A way to bring a make-up to its length, and what the piece then comes to [mm].

    ``exact`` is within the doubt of the measure; ``now`` is how the make-up already stands.
    """

    says: str
    edits: tuple[ProposedEdit, ...]
    finished_mm: Millimetres
    got_mm: Millimetres
    off_mm: Millimetres
    exact: bool
    word: str
    now: bool


class Way(Written):
    """An entry that can be told on the way: what it is called, how many there are to be and are
    made already, how long each is [mm], and its working wire, '' where that is no matter."""

    entry: str
    label: str
    count: int
    done: int
    each_mm: Millimetres
    wire: str = ""


class GoneOn(Written):
    """What follows from what is made so far, and the edits to the brief's piece that plan it so.

    So many are ``done`` and are to be ``in_all``, each as long as it was made and as it was planned
    [mm]; the wire in hand goes to number ``reaches``, and new ones join ``joins_after`` so many, as
    long as they are cut [mm]. What else is to be said stands in ``says``.
    """

    entry: str
    label: str
    done: int
    in_all: int
    planned: int
    each_mm: Millimetres
    planned_each_mm: Millimetres
    reaches: int | None = None
    joins_after: tuple[int, ...] = ()
    finished_mm: Millimetres
    off_mm: Millimetres
    says: tuple[str, ...]
    edits: tuple[ProposedEdit, ...]


class Answers(Written):
    """The one figure that each station is about: ids of ``figures``."""

    measure: str
    make_up: str
    cut: str
    form: str
    fit: str


class WovenWire(Written):
    """Working wires that go the same way: what a row takes of each by turns [mm], how many times
    that is cut and how much more a row, what both ends want [mm], and after which rows each next
    one begins; one that is ``whole`` is never joined."""

    id: str
    label: str
    count: int
    takes_mm: tuple[Millimetres, ...]
    spare: Quantity
    more_mm: Millimetres
    tails_mm: Millimetres
    starts_after: tuple[int, ...]
    whole: bool = False


class WovenBody(Written):
    """A woven part of the piece, lengths in mm.

    It has so many ``rows``, and words for one of them and for several; it is so wide and thick.
    Something lies before its first row and behind its last one. ``beads`` are those of a row, by
    turns; ``pegs_mm`` is where what holds it stands across the board; ``rows_at`` is how many rows
    are done at each of its steps. It goes by a sample of this piece, or by one of the bench's. What
    is bound has one row as long as its strands lie straight, no wires that go along it, and
    ``marks_mm`` at which it is bound.
    """

    entry: str
    label: str
    times: int
    rows: int
    row_name: str
    rows_name: str
    pitch_mm: Millimetres
    width_mm: Millimetres
    thickness_mm: Millimetres
    before_mm: Millimetres
    behind_mm: Millimetres
    beads: tuple[int, ...]
    pegs_mm: tuple[Millimetres, ...]
    rows_at: dict[str, Quantity]
    sampled: Literal["", "piece", "bench"]
    wires: tuple[WovenWire, ...]
    marks_mm: tuple[Millimetres, ...] = ()
    weaving: Any = Field(default=None, exclude=True, repr=False)


class OwnAndUsual(Written):
    """What the maker's own hand changes: a figure as it is by that hand and as it is by the usual
    one, in mm or minutes, and how many records say so."""

    id: str
    label: str
    own: Quantity
    usual: Quantity
    unit: Literal["mm", "min"]
    records: int


class Plan(Written):
    """Everything computed. Lengths in mm, angles in rad, mass in g.

    ``counted_out`` are the counts that the plan took for a make-up whose entries were not set.
    """

    schema_version: Format = Field(default=FORMAT, alias="schema", exclude_if=lambda _: False)
    family: str
    says: str
    wire: str
    metal: str
    colour: str
    finished_length_mm: PlusMinus | None
    inside_girth_mm: PlusMinus | None
    fit_word: str
    fit_says: str
    girths: tuple[BodyMeasure, ...]
    ease_options: tuple[EaseOption, ...]
    figures: tuple[Figure, ...]
    answers: Answers
    ledger: tuple[LedgerLine, ...]
    cuts: tuple[Cut, ...]
    bends: tuple[PlannedBend, ...]
    formers: tuple[Former, ...]
    tools: tuple[ToolNeeded, ...] = ()
    oval: OvalFormer | None = None
    steps: tuple[Step, ...]
    cautions: tuple[Caution, ...]
    advice: tuple[Advice, ...]
    mass_g: Quantity
    needs: tuple[Need, ...] = ()
    weakest: Strength | None = None
    feels: tuple[Feel, ...] = ()
    minutes: Quantity | None = None
    own_and_usual: tuple[OwnAndUsual, ...] = ()
    counted_out: tuple[ProposedEdit, ...] = ()
    drawings: Drawings
    woven: tuple[WovenBody, ...] = ()
    worked: tuple[Any, ...] = Field(default=(), exclude=True, repr=False)
    ways: tuple[Way, ...] = Field(default=(), exclude=True, repr=False)
    putting_right: PuttingRight | None = None

"""The plan: everything computed from one brief. Its keys are a published format (docs/format)."""

from collections.abc import Callable
from typing import Any, Literal

from pydantic import Field

from jamreel.core.advice import Advice
from jamreel.core.bench.steps import Caution, Step
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cut, Share
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.oval import OvalFormer
from jamreel.core.forming.tools import Former, Place
from jamreel.core.path.moves import BendAt
from jamreel.core.values import FORMAT, Drawings, Format, Frozen, LedgerLine, PlusMinus


class PlannedBend(Frozen):
    """A bend to make: pin and place on the straight wire [mm], angle [rad], side.

    Its ``id`` is that of its cut and its own key there; ``places`` are all places on that wire at
    which it is made. ``opens_to_mm`` is the inside diameter after springback. ``tool`` is what the
    maker has for it: the nearest pin ``tool_mm``, ``at_mm`` from the tip of what tapers, what a
    bend on that opens to (``result_mm``) and how much more wire it takes (``more_mm``).
    ``matches`` are the ids of bends that are made at one place with it, to come out alike.
    """

    id: str
    label: str
    pin: float
    angle: float
    side: Literal["left", "right"]
    position: float
    places: tuple[float, ...]
    takes_mm: float
    opens_to_mm: float
    tool: str | None
    tool_mm: float | None = None
    at_mm: float | None = None
    result_mm: float | None = None
    more_mm: float = 0.0
    matches: tuple[str, ...] = ()

    @classmethod
    def of(
        cls,
        bend: BendAt,
        opens_to_mm: float,
        tool: str | None,
        name: str = "",
        places: tuple[float, ...] = (),
    ) -> "PlannedBend":
        """Return a bend of a path, with what it opens to and the tool that it is made with."""
        return cls(
            id=name,
            label=bend.label,
            pin=bend.pin_mm,
            angle=bend.angle,
            side=bend.side,
            position=bend.position_mm,
            places=places or (bend.position_mm,),
            takes_mm=bend.takes_mm,
            opens_to_mm=opens_to_mm,
            tool=tool,
        )

    def on(self, place: Place | None, opens: Callable[[float], float]) -> "PlannedBend":
        """Return it with the place on the maker's tool that is nearest to its pin.

        Args:
            place: nearest, or None without tools.
            opens: gives what a bend on a pin opens to [mm].
        """
        if place is None:
            return self
        changed = {
            "tool": place.tool.name,
            "tool_mm": place.step,
            "at_mm": place.at,
            "result_mm": opens(place.step),
            "more_mm": self.angle * (place.step - self.pin) / 2,
        }
        return self.model_copy(update=changed)


class Figure(Frozen):
    """A named result [mm], with ± where it depends on a measure."""

    id: str
    label: str
    value_mm: float
    plus_minus_mm: float | None = None


class EaseOption(Frozen):
    """One school and word, with the ease and inside girth that it gives here."""

    ease: Ease
    inside_girth_mm: float
    word: str


class Need(Frozen):
    """Something bought that the piece takes: what, in which size, how many, what it weighs.

    ``size_mm`` is there where one figure says its size. ``shares`` say whom it is for: each is
    fetched under its own key, the entry's name and the need's slug.
    """

    id: str
    kind: Literal["bead", "finding"]
    label: str
    size: str
    size_mm: float | None
    quantity: int
    mass_g: float
    shares: tuple[Share, ...]

    def key_of(self, share: Share) -> str:
        """Return the name under which one share is fetched."""
        return f"{share.entry}/{self.slug}"

    @property
    def slug(self) -> str:
        """What it is in a name: its kind and size."""
        return self.id.partition("/")[2]


class Strength(Frozen):
    """The place that gives first, by name, and the pull it bears: newtons, grams hung on it, and
    something everybody has held that weighs as much."""

    says: str
    newtons: float
    grams: float
    felt: str


class Feel(Frozen):
    """How the piece feels in one way, in words: with a force [N], and how far something gives or
    stays open [mm], where there is such."""

    id: str
    label: str
    newtons: float | None = None
    value_mm: float | None = None
    says: str


class ProposedEdit(Frozen):
    """One value of the brief's piece to set, by its path: a count, an option, or another closure
    as typed."""

    path: tuple[str | int, ...]
    value: int | str | dict[str, str]


class Proposal(Frozen):
    """A way to bring a make-up to its length, and what the piece then comes to [mm].

    ``exact`` is within the doubt of the measure; ``now`` is how the make-up already stands.
    """

    says: str
    edits: tuple[ProposedEdit, ...]
    finished_mm: float
    got_mm: float
    off_mm: float
    exact: bool
    word: str
    now: bool


class Answers(Frozen):
    """The one figure that each station is about: ids of ``figures``."""

    measure: str
    make_up: str
    cut: str
    form: str
    fit: str


class WovenWire(Frozen):
    """Working wires that go the same way: what a row takes of each by turns [mm], how many times
    that is cut and how much more a row, what both ends want [mm], and after which rows each next
    one begins; one that is ``whole`` is never joined."""

    id: str
    label: str
    count: int
    takes_mm: tuple[float, ...]
    spare: float
    more_mm: float
    tails_mm: float
    starts_after: tuple[int, ...]
    whole: bool = False


class WovenBody(Frozen):
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
    pitch_mm: float
    width_mm: float
    thickness_mm: float
    before_mm: float
    behind_mm: float
    beads: tuple[int, ...]
    pegs_mm: tuple[float, ...]
    rows_at: dict[str, float]
    sampled: Literal["", "piece", "bench"]
    wires: tuple[WovenWire, ...]
    marks_mm: tuple[float, ...] = ()
    weaving: Any = Field(default=None, exclude=True, repr=False)


class ByHand(Frozen):
    """What the maker's own hand changes: a figure as it is by that hand and as it is by the usual
    one, in mm or minutes, and how many records say so."""

    id: str
    label: str
    own: float
    usual: float
    unit: Literal["mm", "min"]
    records: int


class Plan(Frozen):
    """Everything computed. Lengths in mm, angles in rad, mass in g.

    ``counted_out`` are the counts that the plan took for a make-up whose entries were not set.
    """

    schema_version: Format = Field(default=FORMAT, alias="schema")
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
    oval: OvalFormer | None = None
    steps: tuple[Step, ...]
    cautions: tuple[Caution, ...]
    advice: tuple[Advice, ...]
    mass_g: float
    needs: tuple[Need, ...] = ()
    weakest: Strength | None = None
    feels: tuple[Feel, ...] = ()
    minutes: float | None = None
    by_hand: tuple[ByHand, ...] = ()
    counted_out: tuple[ProposedEdit, ...] = ()
    drawings: Drawings
    woven: tuple[WovenBody, ...] = ()
    worked: tuple[Any, ...] = Field(default=(), exclude=True, repr=False)
    putting_right: PuttingRight | None = None

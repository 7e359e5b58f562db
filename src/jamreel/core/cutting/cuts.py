"""Cuts: named lines that add up to a length, and marks on the straight wire."""

from collections import Counter
from collections.abc import Sequence
from typing import Literal

from pydantic import Field, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.path.loops import loop_takes
from jamreel.core.path.moves import MarkAt
from jamreel.core.units import Mm
from jamreel.core.values import (
    Frozen,
    Length,
    Millimetres,
    OptionalLength,
    Quantity,
    Written,
    refused,
)
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.wire.palette import LONGEST_HANDLED_MM

MOST_TRIM_MM, MOST_MARGIN_MM, MOST_HANDLING_MM = 20.0, 200.0, 200.0
# A trial loop that took less or more than so many times the rule was misread, or is of another
# wire; hands differ by some hundredths: common practice, no source.
SAMPLE_RATIO = (0.88, 1.3)
# Times the piece or the girth that a wire is cut at.
RATIOS = (1.0, 10.0)
School = Literal["exact", "fixed", "sample", "record", "ratio"]


class Cutting(Frozen):
    """What is added to the net length: for two flush cuts, for holding, and as a margin.

    Five schools of margin. ``exact`` adds nothing, ``fixed`` the maker's ``margin``; ``sample``
    goes by a trial loop that was made on ``sample_pin``, unrolled and read as ``sample_took``, and
    corrects loops in the wire that it was made of (``sample_wire``, else the piece's own);
    ``record`` takes the maker's own samples and finished pieces, long enough 19 times in 20, and
    as long as there are none the usual spread of hands; ``ratio`` cuts what runs through the whole
    piece (strings, strands, cores; folded ones twice) so many times as long as the piece or the
    girth that it goes round (``ratio_of``), other wires by the fixed margin, and never less than
    the sum. Short lengths are cut at ``shortest`` at
    least; longer than ``longest`` they are split. With ``off_reel`` links are bent at the end of
    the reel and then cut, and what is cut from a coil is wound straight off it.

    Source of the defaults: 1 to 2 for each flush cut, no margin, 1,500 at most; common practice.
    """

    trim: Length = 1.5
    school: School = "fixed"
    margin: Length = 0.0
    sample_pin: OptionalLength = None
    sample_took: OptionalLength = None
    sample_wire: OptionalSize = None
    ratio: float = 2.0
    ratio_of: Literal["piece", "girth"] = "piece"
    shortest: Length = 0.0
    longest: Length = LONGEST_HANDLED_MM
    off_reel: bool = False

    @property
    def handled(self) -> float:
        """Length of wire that is left of the longest that is handled, when a cut has its trims and
        its margin [mm]."""
        margin = self.margin if self.school in ("fixed", "ratio") else 0.0
        return max(self.longest / 2, self.longest - 2 * self.trim - margin)

    @model_validator(mode="after")
    def _sane(self) -> "Cutting":
        for name, value, high in (
            ("trim", self.trim, MOST_TRIM_MM),
            ("margin", self.margin, MOST_MARGIN_MM),
            ("shortest", self.shortest, MOST_HANDLING_MM),
        ):
            if value > high:
                raise refused(Refusal("allowance", got=Mm(value), under=name, high=high))
        if not RATIOS[0] <= self.ratio <= RATIOS[1]:
            low, high = RATIOS
            got = f"{self.ratio:g}"
            raise refused(Refusal("out_of_range", got=got, under="ratio", low=low, high=high))
        if not 100 <= self.longest <= 20_000:
            got = f"{self.longest:g}"
            raise refused(
                Refusal("out_of_range", got=got, under="longest", low=100.0, high=20_000.0)
            )
        if self.school == "sample":
            for name, wanted in (
                ("sample_pin", self.sample_pin),
                ("sample_took", self.sample_took),
            ):
                if not wanted:
                    raise refused(Refusal("missing", got=None, under=name))
        return self


class CutLine(Written):
    """One named part of a cut length [mm]; ``says`` why, where its name alone does not."""

    id: str
    value_mm: Millimetres
    says: str = ""


class TechniqueIn(Frozen):
    """What a technique takes of a wire: by the sum, and as it is cut for without a margin from the
    record [mm]."""

    technique: str
    by_sum: float
    cut_for: float


class Share(Written):
    """Whom something is for: the name of an entry, and how many of it."""

    entry: str
    count: int


class Cut(Written):
    """A wire to cut: its lines add up to ``length_mm``; marks count from its left end.

    Its ``id`` is the name of the entry that it is for and its role there, for good; ``shares`` say
    whom a wire is for that several entries are cut from. Of cuts that are ``alike`` in wire, length
    and marks all name the first.
    ``techniques`` are what the maker's hand has a say in. ``stock`` says what wire it may be cut
    from (``forming.chosen.stock_key``), '' for no wire;
    ``mass_g`` is that of one.
    What is worked ``off_reel`` is pulled from the reel as it goes, ``length_mm`` being the pull.
    """

    id: str
    label: str
    wire: str
    wire_mm: Millimetres
    metal: str
    temper: str
    quantity: int
    length_mm: Millimetres
    lines: tuple[CutLine, ...]
    marks: tuple[MarkAt, ...]
    stock: str = ""
    colour: str = ""
    mass_g: Quantity = 0.0
    off_reel: bool = False
    shares: tuple[Share, ...] = ()
    alike: str = ""
    techniques: tuple[TechniqueIn, ...] = Field(default=(), exclude=True, repr=False)


def wire_key(cut: Cut, number: int) -> str:
    """Return the key of one wire of a cut: the cut's id, numbered where there are several."""
    return cut.id if cut.quantity == 1 and number == 1 else f"{cut.id}#{number}"


def of_cut(key: str) -> tuple[str, int]:
    """Return the cut that a wire's key belongs to, and its number there.

    Example:
        >>> of_cut("e1/linked_bead#3"), of_cut("bangle")
        (('e1/linked_bead', 3), ('bangle', 1))
    """
    cut, _, number = key.partition("#")
    return cut, int(number) if number.isdigit() else 1


def told_alike(cuts: Sequence[Cut]) -> tuple[Cut, ...]:
    """Return cuts with those that are cut alike naming the first of them, and labels that tell
    unlike ones of a name apart.

    Args:
        cuts: of one piece.

    Source: plain comparison; lengths and marks to a hundredth of a millimetre.
    """
    firsts: dict[tuple[object, ...], tuple[str, str]] = {}
    names: Counter[str] = Counter()
    found = []
    for cut in cuts:
        places = tuple(round(mark.at_mm, 2) for mark in cut.marks)
        like = (cut.label, cut.stock, cut.wire, round(cut.length_mm, 2), places, cut.off_reel)
        if like not in firsts:
            names[cut.label] += 1
            number = names[cut.label]
            label = cut.label if number == 1 else f"{cut.label} {number}"
            firsts[like] = (cut.id, label)
        first, label = firsts[like]
        found.append(cut.model_copy(update={"alike": first, "label": label}))
    return tuple(found)


def cut_length(lines: Sequence[CutLine]) -> float:
    """Return the cut length [mm] that named lines add up to."""
    return sum(line.value_mm for line in lines)


def sample_ratio(pin: float, took: float, wire: float) -> float:
    """Return how much more wire a maker's loop takes than the rule says.

        took / (pi (D + d))

    Args:
        pin: D, that the trial loop was made on [mm].
        took: wire in it, unrolled and read [mm].
        wire: d [mm].

    Returns:
        Ratio, 1 for a hand that bends as the rule does.

    Example:
        >>> round(sample_ratio(6.0, 25.8, 2.05), 3)
        1.02

    Source: mean diameter of spring practice; published.
    """
    return took / loop_takes(pin, wire)


def extras(
    cutting: Cutting,
    looped: float,
    net: float,
    wire: float,
    whole: float | None = None,
    record: float = 0.0,
) -> list[tuple[str, float]]:
    """Return what is added to a net length beside both trims, as named lines.

    Args:
        cutting: the maker's allowances.
        looped: how much of the wire goes into loops that a trial loop tells of [mm].
        net: length without any allowance [mm].
        wire: d [mm].
        whole: the piece or the girth that a ratio multiplies [mm], None for a wire of a part.
        record: what the maker's own record adds [mm], less than nothing for a hand that takes less.

    Returns:
        Rows of id and length [mm], none of which is nought.

    Source: common practice.
    """
    rows: list[tuple[str, float]] = []
    by_ratio = cutting.school == "ratio" and whole is not None
    if cutting.school in ("fixed", "ratio") and not by_ratio and cutting.margin:
        rows.append(("margin", cutting.margin))
    if cutting.school == "record" and abs(record) > 1e-9:
        rows.append(("record", record))
    if by_ratio and whole is not None:
        more = cutting.ratio * whole - net - 2 * cutting.trim
        rows += [("ratio", more)] if more > 0 else []
    if looped and cutting.school == "sample" and cutting.sample_pin and cutting.sample_took:
        ratio = sample_ratio(cutting.sample_pin, cutting.sample_took, wire)
        # A sample far from the rule is a slip of the rule or of the reading, not a hand.
        if not SAMPLE_RATIO[0] <= ratio <= SAMPLE_RATIO[1]:
            got = Mm(cutting.sample_took)
            likely = loop_takes(cutting.sample_pin, wire)
            raise Refusal("sample_far", got=got, field="cutting.sample_took", likely=likely)
        if abs(looped * (ratio - 1)) > 1e-9:
            rows.append(("sample", looped * (ratio - 1)))
    whole = net + 2 * cutting.trim + sum(value for _, value in rows)
    if whole < cutting.shortest:
        rows.append(("handling", cutting.shortest - whole))
    return rows

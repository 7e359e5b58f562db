"""Ease: how much longer the inside of a piece is than the girth it goes round.

Makers disagree, so the main schools stand side by side: a fixed amount, a share of the girth,
or what lets a finger slide under.
"""

import math
from typing import Annotated, Literal

from pydantic import Field, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.units import Mm
from jamreel.core.values import (
    Backing,
    Frozen,
    Length,
    Millimetres,
    OptionalLength,
    Quantity,
    Written,
    refused,
)

EaseWord = Literal["snug", "comfortable", "loose"]
_FIXED: dict[EaseWord, float] = {"snug": 6.0, "comfortable": 13.0, "loose": 22.0}
_PERCENT: dict[EaseWord, float] = {"snug": 5.0, "comfortable": 8.0, "loose": 12.0}
MOST_EASE_MM = 80.0


class FixedEase(Frozen):
    """So many millimetres: by a word from the maker's table, or an amount of one's own."""

    school: Literal["fixed"] = "fixed"
    word: EaseWord | None = "comfortable"
    amount: OptionalLength = None


class ProportionalEase(Frozen):
    """A share of the girth: by a word from the maker's table, or a percentage of one's own."""

    school: Literal["proportional"] = "proportional"
    word: EaseWord | None = "comfortable"
    percent: float | None = Field(default=None, ge=0, le=40)


class FingerEase(Frozen):
    """One finger slides under: the ease follows from the finger's thickness."""

    school: Literal["finger"] = "finger"
    finger: Length = 15.0

    @model_validator(mode="after")
    def _finger_sized(self) -> "FingerEase":
        if not 8 <= self.finger <= 30:
            raise refused(Refusal("finger", got=Mm(self.finger), low=8.0, high=30.0, usual=14.0))
        return self


class CopyEase(Frozen):
    """The same inside girth as a piece that is known to fit."""

    school: Literal["copy"] = "copy"
    inside_girth: Length


EaseChoice = Annotated[
    FixedEase | ProportionalEase | FingerEase | CopyEase, Field(discriminator="school")
]
SCHOOLS = ("fixed", "proportional", "finger", "copy")


class EaseTable(Frozen):
    """What snug, comfortable and loose mean to a maker on one part of the body.

    Millimetres, percent of the girth, the finger that slides under, and what glass, pearls and
    other brittle parts get on top. Source of the defaults (a wrist): common practice; loose runs
    from 19 to 25, its middle is taken.
    """

    fixed_mm: dict[EaseWord, Length] = Field(default_factory=_FIXED.copy)
    percent: dict[EaseWord, float] = Field(default_factory=_PERCENT.copy)
    finger_mm: Length = 15.0
    brittle_mm: Length = Field(default=3.0, ge=0, le=20)

    @model_validator(mode="after")
    def _in_order(self) -> "EaseTable":
        for field, row in (("fixed_mm", self.fixed_mm), ("percent", self.percent)):
            given = [row.get("snug"), row.get("comfortable"), row.get("loose")]
            steps = [g for g in given if g is not None]
            if len(steps) < 3 or not 0 <= steps[0] < steps[1] < steps[2] <= MOST_EASE_MM:
                got = (
                    tuple(Mm(g) for g in steps)
                    if field == "fixed_mm"
                    else " / ".join(f"{g:g}" for g in steps)
                )
                high = Mm(MOST_EASE_MM) if field == "fixed_mm" else MOST_EASE_MM
                raise refused(Refusal("ease_table", got=got, under=field, high=high))
        return self


def _table(snug: float, comfortable: float, loose: float, *percent: float) -> EaseTable:
    words: tuple[EaseWord, ...] = ("snug", "comfortable", "loose")
    return EaseTable(
        fixed_mm=dict(zip(words, (snug, comfortable, loose), strict=True)),
        percent=dict(zip(words, percent, strict=True)),
    )


class EaseBook(Frozen):
    """A maker's ease words for every part of the body. Source of the defaults: common practice."""

    wrist: EaseTable = EaseTable()
    neck: EaseTable = _table(6.0, 10.0, 13.0, 2.0, 3.0, 4.0)
    head: EaseTable = _table(0.0, 3.0, 5.0, 0.0, 0.5, 1.0)
    ankle: EaseTable = _table(8.0, 14.0, 22.0, 4.0, 6.0, 9.0)
    arm: EaseTable = _table(2.0, 6.0, 12.0, 1.0, 2.0, 4.0)

    def on(self, part: str) -> EaseTable:
        """Return the words for a part of the body."""
        table: EaseTable = getattr(self, part)
        return table


class Ease(Written):
    """An ease worked out: how much, by which school, under which word, and its backing. Where the
    girth is a millimetre more, the inside girth is so much more (``spreads``)."""

    school: Literal["fixed", "proportional", "finger", "copy"]
    word: str | None
    value_mm: Millimetres
    backing: Backing
    parameter: Quantity | None = None
    chosen: bool = False
    spreads: Quantity = Field(default=1.0, exclude=True)

    def doubt(self, girth_pm: float) -> float:
        """Return the doubt of the inside girth [mm]: a share of the girth spreads the girth's own,
        what is copied from another piece has none of it.

        Args:
            girth_pm: doubt of the girth [mm].

        Source: error propagation to first order; published.
        """
        return self.spreads * girth_pm


def proportional_ease(girth: float, percent: float) -> float:
    """Return the ease that is a share of the girth.

    Args:
        girth: [mm].
        percent: of the girth.

    Returns:
        Ease [mm].

    Example:
        >>> proportional_ease(160.0, 8.0)
        12.8

    Source: common practice.
    """
    return girth * percent / 100


def finger_ease(girth: float, finger: float) -> float:
    """Return the ease that lets one finger slide under a band round a wrist.

        an open belt round two touching circles of radii R and r, less the girth 2 pi R:
        2 sqrt(c^2 - (R-r)^2) + (pi + 2 alpha) R + (pi - 2 alpha) r,
        c = R + r, sin alpha = (R - r) / c

    Args:
        girth: of the wrist [mm].
        finger: thickness of the finger [mm].

    Returns:
        Ease [mm]; it approaches 0 with the finger.

    Notes:
        Wrist and finger are taken as round.

    Example:
        >>> round(finger_ease(160.0, 15.0), 2), round(finger_ease(150.0, 14.0), 2)
        (19.55, 18.21)

    Source: length of an open belt, Machinery's Handbook; published.
    """
    wide, narrow = girth / (2 * math.pi), finger / 2
    apart = wide + narrow
    alpha = math.asin((wide - narrow) / apart)
    straight = 2 * math.sqrt(apart**2 - (wide - narrow) ** 2)
    belt = straight + (math.pi + 2 * alpha) * wide + (math.pi - 2 * alpha) * narrow
    return belt - girth


def ease_of(choice: EaseChoice, girth: float, table: EaseTable) -> Ease:
    """Return the ease of one choice at a girth.

    Raises:
        Refusal: neither a word nor an amount, or more ease than any school would call a fit.
    """
    if isinstance(choice, FingerEase):
        value = finger_ease(girth, choice.finger)
        return Ease(
            school="finger",
            word=None,
            value_mm=value,
            backing="published",
            parameter=choice.finger,
            spreads=1 + finger_ease(girth + 1, choice.finger) - value,
        )
    if isinstance(choice, CopyEase):
        return _copied(choice, girth)
    own = choice.amount if isinstance(choice, FixedEase) else choice.percent
    if own is None and choice.word is None:
        raise Refusal("no_ease", got=None, field="ease")
    row = table.fixed_mm if isinstance(choice, FixedEase) else table.percent
    parameter = own if own is not None else row[choice.word or "comfortable"]
    value = parameter if isinstance(choice, FixedEase) else proportional_ease(girth, parameter)
    if value > MOST_EASE_MM:
        raise Refusal("too_much_ease", got=Mm(value), field="ease", high=MOST_EASE_MM)
    return Ease(
        school=choice.school,
        word=None if own is not None else choice.word,
        value_mm=value,
        backing="chosen" if own is not None else "common practice",
        parameter=parameter,
        spreads=1.0 if isinstance(choice, FixedEase) else 1 + parameter / 100,
    )


def _copied(choice: CopyEase, girth: float) -> Ease:
    value = choice.inside_girth - girth
    if not -girth / 10 <= value <= MOST_EASE_MM:
        raise Refusal(
            "copied_piece",
            got=Mm(choice.inside_girth),
            field="ease.inside_girth",
            girth=girth,
            high=MOST_EASE_MM,
        )
    return Ease(
        school="copy",
        word=None,
        value_mm=value,
        backing="measured",
        parameter=choice.inside_girth,
        spreads=0.0,
    )


def ease_options(choice: EaseChoice, girth: float, table: EaseTable) -> tuple[Ease, ...]:
    """Return what every school and word gives at a girth, the chosen one marked.

    A choice of one's own amount is not among the words; it is appended.
    """
    finger = choice.finger if isinstance(choice, FingerEase) else table.finger_mm
    words: tuple[EaseWord, ...] = ("snug", "comfortable", "loose")
    offered: list[EaseChoice] = [
        *(FixedEase(word=word) for word in words),
        *(ProportionalEase(word=word) for word in words),
        FingerEase(finger=finger),
    ]
    mine = ease_of(choice, girth, table)
    eases = [ease_of(offer, girth, table) for offer in offered]
    marked = [
        e.model_copy(update={"chosen": (e.school, e.word) == (mine.school, mine.word)})
        for e in eases
    ]
    if not any(e.chosen for e in marked):
        marked.append(mine.model_copy(update={"chosen": True}))
    return tuple(marked)


def word_for(ease: float, table: EaseTable) -> str:
    """Return the word for an ease: the nearest row of the maker's table, or beyond its ends.

    Args:
        ease: inside girth less girth [mm]; may be negative.
        table: the maker's own words.

    Returns:
        ``too_tight``, ``snug``, ``comfortable``, ``loose`` or ``too_loose``.

    Example:
        >>> word_for(12.0, EaseTable()), word_for(-1.0, EaseTable())
        ('comfortable', 'too_tight')

    Source: common practice.
    """
    snug, loose = table.fixed_mm["snug"], table.fixed_mm["loose"]
    if ease < snug / 2:
        return "too_tight"
    if ease > 1.3 * loose:
        return "too_loose"
    return min(table.fixed_mm, key=lambda word: abs(table.fixed_mm[word] - ease))

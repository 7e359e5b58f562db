"""The demo bench: a made-up barge theatre and its cast. Invented from end to end."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from jamreel.workshop import making
from jamreel.workshop.models import Piece, Wearer, Workshop
from jamreel.workshop.pieces import save_brief, start_piece
from jamreel.workshop.wearers import keep_readings, measures_of

DEMO_USER = "heron-barge"
FORM_STEPS = ("loop_up", "shape", "thread", "loop_down")

SHOP: dict[str, Any] = {
    "schema": 1,
    "unit": "mm",
    "gauge_system": "awg",
    "formers": [
        {
            "name": "bracelet mandrel",
            "kind": "stepped mandrel",
            "diameters": ["40", "43", "46", "49", "52", "55", "58", "61", "64"],
        },
        {
            "name": "galley tins",
            "kind": "household",
            "diameters": ["47.5", "53.5", "56.5"],
        },
    ],
    "pins": [
        {
            "name": "stepped pliers",
            "kind": "stepped pliers",
            "diameters": ["2.0", "2.6", "3.0", "4.0", "5.0", "6.0"],
        },
        {"name": "drill shanks", "kind": "dowels", "diameters": ["2.2", "2.4", "3.2"]},
    ],
}


@dataclass(frozen=True)
class _Role:
    """A member of the cast, the readings taken, and the bangle made for the part."""

    name: str
    part: str
    piece: str
    wire: dict[str, str]
    pin: str
    wrist: Sequence[str] = ()
    hand: Sequence[str] = ()
    ease: dict[str, Any] = field(default_factory=lambda: {"school": "fixed", "word": "comfortable"})
    child: bool = False
    note: str = ""
    measured_days_ago: int = 12
    due_in: int = 10


_COPPER_14 = {"size": "14 awg", "metal": "copper", "temper": "half_hard"}

CAST = (
    _Role(
        "Tobin Arkwell",
        "the Ferryman",
        "Ferryman's bangle",
        _COPPER_14,
        "2.6",
        ("158.0", "158.5"),
        ("205.0", "204.0", "206.0"),
        note="Right wrist; rows the barge on stage, so nothing that swings.",
        due_in=3,
    ),
    _Role(
        "Maud Tressel",
        "the Lock-keeper",
        "Ring of keys",
        {"size": "14 awg", "metal": "brass", "temper": "half_hard"},
        "2.6",
        ("149.5", "150", "150.5"),
        ("196", "195", "195.5"),
        due_in=2,
    ),
    _Role(
        "Ines Corvane",
        "the Heron",
        "Heron's leg band",
        {"size": "1.5 mm", "metal": "sterling", "temper": "half_hard"},
        "2.4",
        ("141", "141.5"),
        ("186", "187"),
        due_in=1,
    ),
    _Role(
        "Osric Pell",
        "the Toll Clerk",
        "Toll bangle",
        {"size": "12 awg", "metal": "brass", "temper": "quarter_hard"},
        "3.0",
        ("176", "177"),
        ("228", "229"),
        {"school": "finger", "finger": "15"},
        due_in=4,
    ),
    _Role(
        "Bettany Rusk",
        "the Miller's Widow",
        "Mourning bangle",
        {"size": "16 awg", "metal": "bronze", "temper": "half_hard"},
        "2.2",
        ("163", "163.5"),
        ("208", "208.5"),
        {"school": "proportional", "word": "comfortable"},
        due_in=2,
    ),
    _Role(
        "Lio Farrow",
        "the Eel Boy",
        "Eel bangle",
        {"size": "14 awg", "metal": "aluminium", "temper": "half_hard"},
        "2.6",
        ("132", "135.5"),
        ("168", "168"),
        {"school": "fixed", "word": "snug"},
        child=True,
        note="Eleven, and growing: measure again in the week of the show.",
        due_in=6,
    ),
    _Role(
        "Saskia Dunmere",
        "the Moon on the Water",
        "Moon bangle",
        {"size": "14 awg", "metal": "sterling", "temper": "half_hard"},
        "2.6",
        note="Joins from the second town; not measured yet.",
        due_in=8,
    ),
    _Role(
        "Jonah Wick",
        "the Bargee",
        "Towrope bangle",
        {"size": "12 awg", "metal": "copper", "temper": "dead_soft"},
        "2.2",
        ("182", "183"),
        ("240", "241"),
        {"school": "fixed", "word": "loose"},
        due_in=7,
    ),
    _Role(
        "Perpetua Lyle",
        "the Weathercock",
        "Weather bangle",
        {"size": "16 swg", "metal": "copper", "temper": "half_hard"},
        "2.6",
        ("151", "151.5"),
        ("194", "193.5"),
        due_in=5,
    ),
)


@transaction.atomic
def build(today: date) -> Workshop:
    """Return the demo bench, made for a given day; one that is there is kept as it is."""
    user, new = User.objects.get_or_create(username=DEMO_USER)
    if not new:
        return Workshop.objects.get(members=user)
    user.set_unusable_password()
    user.save()
    workshop = Workshop.objects.create(name="Heron Barge", shop=SHOP)
    workshop.members.add(user)
    pieces = {role.part: _start(workshop, role, today) for role in CAST}
    _work_on(workshop, pieces)
    return workshop


def _start(workshop: Workshop, role: _Role, today: date) -> Piece:
    wearer = Wearer.objects.create(
        workshop=workshop, name=role.name, part=role.part, is_child=role.child, note=role.note
    )
    day = today - timedelta(days=role.measured_days_ago)
    for site, values in (("wrist_girth", role.wrist), ("hand_pass_girth", role.hand)):
        if values:
            keep_readings(workshop, wearer.pk, site, _readings(values, day))
    measures: dict[str, Any] = dict(measures_of(wearer, "mm"))
    if not measures:
        measures = {
            "wrist_girth": {"guess": {"population": "wrist_women", "percentile": 50}},
            "hand_pass_girth": {"guess": {"population": "hand_women", "percentile": 50}},
        }
    brief = {
        "schema": 1,
        "measures": measures,
        "side": "right",
        "ease": role.ease,
        "piece": {"kind": "sliding_bangle", "loop_pin": role.pin},
        "wire": role.wire,
        "cutting": {"trim": "1.5", "margin": "0"},
    }
    due = today + timedelta(days=role.due_in)
    return start_piece(workshop, role.piece, brief, wearer, due)


def _readings(values: Sequence[str], day: date) -> list[dict[str, Any]]:
    return [
        {"value": value, "method": "tape", "taken": _moment(day, i).isoformat()}
        for i, value in enumerate(values)
    ]


def _moment(day: date, index: int) -> datetime:
    return timezone.make_aware(datetime.combine(day, time(14, 10 + 2 * index)))


def _work_on(workshop: Workshop, pieces: dict[str, Piece]) -> None:
    """Bring the pieces to where they stand: every station has one, one came out too big."""
    for part in ("the Lock-keeper", "the Heron", "the Toll Clerk", "the Miller's Widow"):
        making.tick(workshop, pieces[part].pk, "cut", "bangle")
    for part in ("the Lock-keeper", "the Heron", "the Miller's Widow"):
        for step in FORM_STEPS:
            making.tick(workshop, pieces[part].pk, "step", step)
    for step in FORM_STEPS[:2]:
        making.tick(workshop, pieces["the Toll Clerk"].pk, "step", step)
    _try_on(
        workshop, pieces["the Lock-keeper"], {"passes_hand": True, "open_inside_girth": "206.5"}
    )
    _try_on(
        workshop,
        pieces["the Heron"],
        {"passes_hand": True, "finger_under": True, "open_inside_girth": "187"},
    )
    making.finish(workshop, pieces["the Heron"].pk, finished=True)
    # The Weathercock's was cut, then a looser fit was asked for: the cut has gone stale.
    piece = pieces["the Weathercock"]
    making.tick(workshop, piece.pk, "cut", "bangle", "238")
    _change(workshop, piece, {"piece": {"kind": "sliding_bangle", "loop_pin": "3.0"}})


def _try_on(workshop: Workshop, piece: Piece, noted: dict[str, Any]) -> None:
    piece = _change(workshop, piece, {"tryon": noted})
    making.record_tryon(workshop, piece.pk, piece.version)


def _change(workshop: Workshop, piece: Piece, part: dict[str, Any]) -> Piece:
    piece.refresh_from_db()
    brief = piece.head.brief if piece.head else {}
    changed, _ = save_brief(workshop, piece.pk, piece.version, {**brief, **part})
    return changed

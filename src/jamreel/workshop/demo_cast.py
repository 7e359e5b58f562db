"""The demo's people, pieces and rack: a made-up barge theatre. Invented from end to end."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

FORM_STEPS = ("loop_up", "shape", "thread", "loop_down")
# What makes wire soft before it is formed.
FIRE = ("anneal", "quench", "pickle")

SHOP: dict[str, Any] = {
    "schema": "0.2",
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
            "diameters": ["47.5", "53.5", "56.5", "82", "95", "118", "135", "152"],
        },
        {
            "name": "net needles",
            "kind": "dowels",
            "diameters": ["7", "8", "9", "10.5", "12"],
        },
    ],
    "pins": [
        {
            "name": "stepped pliers",
            "kind": "stepped pliers",
            "diameters": ["2.0", "2.6", "3.0", "4.0", "5.0", "6.0"],
        },
        {"name": "drill shanks", "kind": "drill shanks", "diameters": ["2.2", "2.4", "3.2"]},
        {"name": "cone pliers", "kind": "cone pliers", "tip": "1.2", "base": "5.5", "length": "28"},
        {"name": "flat pliers", "kind": "flat pliers"},
    ],
    "pricing": {"hour": 16, "overheads": 1.8, "share": 0.15, "currency": "€"},
    "outfit": {"torch": True, "pickle": True, "mill": True, "punches": ["4", "6", "8", "10"]},
}


@dataclass(frozen=True)
class Role:
    """A member of the cast, the readings taken, and the bangle made for the part."""

    name: str
    part: str
    piece: str
    wire: dict[str, str]
    pin: str
    wrist: Sequence[str] = ()
    hand: Sequence[str] = ()
    ease: dict[str, Any] = field(default_factory=lambda: {"school": "fixed", "word": "comfortable"})
    more: dict[str, Sequence[str]] = field(default_factory=dict)
    child: bool = False
    note: str = ""
    measured_days_ago: int = 12
    due_in: int = 10


_COPPER_14 = {"size": "14 awg", "metal": "copper", "temper": "half_hard"}

CAST = (
    Role(
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
    Role(
        "Maud Tressel",
        "the Lock-keeper",
        "Ring of keys",
        {"size": "14 awg", "metal": "brass", "temper": "half_hard"},
        "2.6",
        ("149.5", "150", "150.5"),
        ("196", "195", "195.5"),
        more={"neck_base_girth": ("362", "363")},
        due_in=2,
    ),
    Role(
        "Ines Corvane",
        "the Heron",
        "Heron's leg band",
        {"size": "1.5 mm", "metal": "sterling", "temper": "half_hard"},
        "2.4",
        ("141", "141.5"),
        ("186", "187"),
        more={
            "head_girth": ("551", "552", "551.5"),
            "ankle_girth": ("214", "215"),
            "finger_girth": ("53.5", "54"),
        },
        due_in=1,
    ),
    Role(
        "Osric Pell",
        "the Toll Clerk",
        "Toll bangle",
        {"size": "12 awg", "metal": "brass", "temper": "quarter_hard"},
        "3.0",
        ("176", "177"),
        ("228", "229"),
        {"school": "finger", "finger": "15"},
        more={
            "ear_rim_depth": ("8.2", "8.1"),
            "ear_rim_middle": ("4.1", "4.0"),
            "ear_rim_upper": ("3.2",),
        },
        due_in=4,
    ),
    Role(
        "Bettany Rusk",
        "the Miller's Widow",
        "Mourning bangle",
        {"size": "16 awg", "metal": "bronze", "temper": "half_hard"},
        "2.2",
        ("163", "163.5"),
        ("208", "208.5"),
        {"school": "proportional", "word": "comfortable"},
        more={"neck_girth": ("331", "332"), "upper_arm_girth": ("281", "282")},
        due_in=2,
    ),
    Role(
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
        more={"crown_arc": ("302", "303"), "neck_base_girth": ("296", "297")},
        due_in=6,
    ),
    Role(
        "Saskia Dunmere",
        "the Moon on the Water",
        "Moon bangle",
        {"size": "14 awg", "metal": "sterling", "temper": "half_hard"},
        "2.6",
        note="Joins from the second town; not measured yet.",
        more={
            "head_girth": ("562", "561.5"),
            "brow_arc": ("181", "180.5"),
            "parting_arc": ("88", "89"),
        },
        due_in=8,
    ),
    Role(
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
    Role(
        "Perpetua Lyle",
        "the Weathercock",
        "Weather bangle",
        {"size": "16 swg", "metal": "copper", "temper": "half_hard"},
        "2.6",
        ("151", "151.5"),
        ("194", "193.5"),
        more={
            "brow_arc": ("176", "177"),
            "parting_arc": ("92", "92.5"),
            "neck_base_girth": ("344", "345"),
        },
        due_in=5,
    ),
)


@dataclass(frozen=True)
class Extra:
    """A piece of another kind for a member of the cast, and how far it has come."""

    part: str
    name: str
    piece: dict[str, Any]
    wire: dict[str, str]
    due_in: int
    cut: bool = False
    steps: Sequence[str] = ()
    tryon: dict[str, Any] | None = None
    finished: bool = False
    fitted: bool = False
    palette: dict[str, Any] = field(default_factory=dict)


_BRASS = {"size": "12 awg", "metal": "brass", "temper": "half_hard"}
_STERLING = {"size": "16 awg", "metal": "sterling", "temper": "half_hard"}


def entry_of(kind: str, times: int = 1, *, fill: bool = False, **choices: Any) -> dict[str, Any]:
    """Return an entry of a make-up: a part, how often, and whether the plan counts it."""
    return {"part": {"kind": kind, **choices}, "times": times, "fill": fill}


def _group(times: int, *entries: dict[str, Any], fill: bool = False) -> dict[str, Any]:
    return {"group": list(entries), "times": times, "fill": fill}


EXTRAS = (
    Extra(
        "the Ferryman",
        "Rowlock cuff",
        {"kind": "open_cuff", "gap": "32"},
        {"size": "2.0 mm", "metal": "copper", "temper": "half_hard"},
        3,
    ),
    Extra(
        "the Lock-keeper",
        "Sluice chain",
        {
            "kind": "pendant_chain",
            "counted": True,
            "mirrored": False,
            "length": "520",
            "entries": [entry_of("chain", fill=True, pitch="4")],
            "focal": None,
            "hung": {"kind": "finding", "hangs": True, "length": "34", "mass": 9},
            "closure": {"kind": "bought_clasp", "length": "15", "mass": 0.8},
        },
        {"size": "1 mm", "metal": "brass"},
        2,
    ),
    Extra(
        "the Heron",
        "Reed circlet",
        {"kind": "circlet", "bridged": "40"},
        {"size": "14 awg", "metal": "brass", "temper": "half_hard"},
        1,
        cut=True,
        steps=("loops",),
    ),
    Extra(
        "the Toll Clerk",
        "Quill ear cuff",
        {"kind": "ear_cuff", "ends": "curled", "place": "middle"},
        _STERLING,
        4,
        cut=True,
        steps=("curled", "shape", "gap"),
    ),
    Extra(
        "the Miller's Widow",
        "Millrace choker",
        {"kind": "choker", "hook_pin": "6", "eye_pin": "7"},
        {"size": "2.0 mm", "metal": "sterling", "temper": "half_hard"},
        2,
    ),
    Extra(
        "the Eel Boy",
        "Eel band",
        {"kind": "crown_band", "above_ear": "12"},
        {"size": "14 awg", "metal": "aluminium", "temper": "half_hard"},
        6,
    ),
    Extra(
        "the Moon on the Water",
        "Moonrise tiara",
        {"kind": "tiara_base", "share": 0.6},
        _BRASS,
        8,
    ),
    Extra(
        "the Bargee",
        "Mooring bracelet",
        {"kind": "hook_bracelet", "hook_pin": "5", "eye_pin": "7"},
        {"size": "12 awg", "metal": "copper", "temper": "half_hard"},
        7,
        cut=True,
        steps=("tip", "hook", "eye", "shape"),
        tryon={"inside_girth": "203"},
    ),
    Extra(
        "the Weathercock",
        "Weathervane chain",
        {
            "kind": "forehead_drops",
            "counted": True,
            "entries": [entry_of("chain", fill=True, pitch="3", thickness="1.6", mass_per_m=7)],
            "focal": {"kind": "jump_ring", "pin": "5"},
            "hung": {"kind": "finding", "hangs": True, "length": "22", "mass": 1.5},
            "parting": [entry_of("chain", fill=True, pitch="3", thickness="1.6", mass_per_m=7)],
        },
        {"size": "1 mm", "metal": "sterling"},
        5,
        cut=True,
        finished=True,
    ),
)

_FINE_BRASS = {"size": "20 awg", "metal": "brass", "temper": "half_hard"}
_FINE_COPPER = {"size": "20 awg", "metal": "copper", "temper": "half_hard"}
_FINE_SILVER = {"size": "20 awg", "metal": "sterling", "temper": "half_hard"}


# Pieces of parts, over all families.
COMPOSED = (
    Extra(
        "the Ferryman",
        "Ferryman's beads",
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("linked_bead", 10, fill=True, bead="6", colour="slate")],
            "closure": {"kind": "folded_hook", "wire": "18 awg", "hook_pin": "4"},
            "rings": 1,
        },
        _FINE_COPPER,
        3,
        fitted=True,
    ),
    Extra(
        "the Lock-keeper",
        "Sluice bracelet",
        {
            "kind": "linked_bracelet",
            "string": "0.5 mm",
            "entries": [
                {
                    "group": [
                        entry_of("bead", bead="10", hole="1.5", colour="amber", stuff="stone"),
                        entry_of("bead", bead="4", colour="chalk"),
                    ],
                    "evenly": True,
                    "times": 6,
                    "fillers": 24,
                    "fill": True,
                }
            ],
            "closure": {"kind": "toggle", "wire": "16 awg"},
        },
        _FINE_BRASS,
        2,
        fitted=True,
    ),
    Extra(
        "the Lock-keeper",
        "Lock-gate necklace",
        {
            "kind": "linked_necklace",
            "length": "520",
            "mirrored": True,
            "entries": [
                entry_of("linked_bead", 4, fill=True, bead="5", colour="chalk"),
                _group(
                    4,
                    {**entry_of("eye_link", 1, stem="10", loops="wrapped"), "made_of": "silver"},
                    entry_of("linked_bead", 1, bead="7", colour="reed"),
                ),
            ],
            "focal": {"kind": "figure_eight", "pin": "6"},
            "hung": {"kind": "dangle", "bead": "10", "hole": "1.2", "colour": "brick"},
            "closure": {"kind": "crook_hook", "wire": "18 awg", "hook_pin": "4"},
        },
        _FINE_BRASS,
        2,
        fitted=True,
        # Two metals: what moves against its neighbours is silver.
        palette={
            "rings": _FINE_SILVER,
            "closure": {**_FINE_SILVER, "size": "18 awg"},
            "own": {"silver": _FINE_SILVER},
        },
    ),
    Extra(
        "the Heron",
        "Heron's anklet",
        {
            "kind": "linked_anklet",
            "string": "0.4 mm",
            "entries": [
                _group(
                    8,
                    entry_of("bead", 5, bead="4", colour="slate"),
                    entry_of("spacer_coil", 1, core="1.2", turns=3, wire="0.6 mm"),
                    fill=True,
                ),
                entry_of("bead", 5, bead="4", colour="slate"),
            ],
            "closure": {"kind": "spring_clasp", "extender": 8, "ring_pin": "3"},
        },
        _FINE_SILVER,
        1,
        fitted=True,
    ),
    Extra(
        "the Toll Clerk",
        "Quill drops",
        {
            "kind": "drop_earring",
            "drop": "52",
            "entries": [
                entry_of("ear_wire"),
                entry_of("linked_bead", 2, fill=True, bead="4", pin="2", colour="plum"),
                entry_of("dangle", bead="8", colour="ink", foot="curl"),
            ],
        },
        _FINE_SILVER,
        4,
        fitted=True,
    ),
    Extra(
        "the Miller's Widow",
        "Mourning strand",
        {
            "kind": "linked_choker",
            "mirrored": True,
            "string": "0.5 mm",
            "entries": [
                {
                    **entry_of("bead", 24, fill=True, bead="4", hole="1.2", colour="ink"),
                    "graduate_to": "8",
                }
            ],
            "focal": {"kind": "bead", "bead": "12", "hole": "1.5", "colour": "plum"},
            "closure": {"kind": "toggle", "wire": "16 awg"},
        },
        _FINE_SILVER,
        2,
        fitted=True,
    ),
    Extra(
        "the Miller's Widow",
        "Millwheel armlet",
        {
            "kind": "linked_armlet",
            "entries": [entry_of("curved_link", 7, fill=True, colour="brick")],
            "closure": {"kind": "s_hook", "hook_pin": "5"},
        },
        {"size": "16 awg", "metal": "bronze", "temper": "half_hard"},
        2,
        fitted=True,
    ),
    Extra(
        "the Eel Boy",
        "Eel chain",
        {
            "kind": "linked_necklace",
            "length": "400",
            "mirrored": False,
            "entries": [entry_of("figure_eight", 42, fill=True, pin="4")],
            "closure": {"kind": "s_hook", "hook_pin": "7"},
        },
        {"size": "18 awg", "metal": "aluminium", "temper": "half_hard"},
        6,
    ),
    Extra(
        "the Moon on the Water",
        "Moonlit brow",
        {
            "kind": "forehead_drops",
            "entries": [
                entry_of("jump_ring", pin="3.5"),
                entry_of("chain", fill=True, links=17, pitch="3.5"),
                entry_of("jump_ring", pin="3"),
                entry_of("dangle", bead="4", pin="2", colour="chalk", stuff="pearl", hole="0.9"),
                entry_of("chain", links=8, pitch="3.5"),
            ],
            "hung": {"kind": "dangle", "bead": "10", "hole": "1", "colour": "slate"},
        },
        _FINE_SILVER,
        8,
    ),
    Extra(
        "the Bargee",
        "Capstan bracelet",
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("ring_link", 14, fill=True, colour="brick")],
            "closure": {"kind": "s_hook", "into": "jump_ring", "into_pin": "7"},
        },
        {"size": "18 awg", "metal": "copper", "temper": "half_hard"},
        7,
        fitted=True,
    ),
    Extra(
        "the Weathercock",
        "Vane and tassel",
        {
            "kind": "pendant_chain",
            "length": "460",
            "entries": [entry_of("chain", fill=True, links=61, pitch="3.5")],
            "focal": {"kind": "jump_ring", "pin": "4"},
            "hung": {
                "kind": "tassel",
                "head": [{"bead": "10", "hole": "1.5", "colour": "amber", "stuff": "stone"}],
                "sections": [
                    {"row": [{"bead": "3", "colour": "chalk"}], "times": 2},
                    {
                        "row": [
                            {"bead": "2", "colour": "ink"},
                            {"bead": "5", "colour": "amber"},
                            {"bead": "2", "colour": "ink"},
                        ],
                    },
                ],
            },
        },
        _FINE_BRASS,
        5,
        fitted=True,
    ),
    Extra(
        "the Bargee",
        "Towpath pearls",
        {
            "kind": "linked_bracelet",
            "entries": [
                entry_of(
                    "linked_bead",
                    9,
                    fill=True,
                    pin="3.5",
                    row=[
                        {"bead": "3", "colour": "slate"},
                        {"bead": "6", "colour": "chalk", "stuff": "pearl"},
                        {"bead": "3", "colour": "slate"},
                    ],
                )
            ],
            # It hooks into its own last loop.
            "closure": {
                "kind": "folded_hook",
                "wire": "18 awg",
                "hook_pin": "4",
                "into": "last_loop",
            },
        },
        _FINE_SILVER,
        10,
        fitted=True,
    ),
    Extra(
        "the Toll Clerk",
        "Toll-bell coil",
        {
            "kind": "coil_bracelet",
            "coil_diameter": "60",
            "hung": {"kind": "dangle", "bead": "6", "colour": "plum", "loops": "plain"},
        },
        {"size": "0.6 mm", "metal": "memory_steel", "temper": "spring"},
        6,
        palette={"closure": {"size": "20 awg", "metal": "brass", "temper": "half_hard"}},
    ),
    Extra(
        "the Eel Boy",
        "Eel-pot charms",
        {"kind": "sliding_bangle", "loop_pin": "2.6", "charms": 4, "charm_width": "8"},
        {"size": "14 awg", "metal": "brass", "temper": "half_hard"},
        9,
    ),
    Extra(
        "the Weathercock",
        "Fair-wind swag",
        {
            "kind": "linked_necklace",
            "length": "420",
            "entries": [entry_of("chain", fill=True, links=40, pitch="3"), entry_of("jump_ring")],
            "focal": {
                "kind": "swag",
                "span": "56",
                "first_fall": "18",
                "fall_apart": "25",
                "link": {"kind": "chain", "links": 1, "pitch": "3"},
            },
            "closure": {"kind": "spring_clasp"},
        },
        _FINE_SILVER,
        3,
        fitted=True,
    ),
    Extra(
        "the Moon on the Water",
        "Half-moon brooch",
        {
            "kind": "brooch",
            "points_apart": "46",
            "line_falls": "11",
            "entries": [
                entry_of("jump_ring", pin="3"),
                entry_of(
                    "swag",
                    span="38",
                    strands=3,
                    first_fall="12",
                    fall_apart="12",
                    link={"kind": "chain", "links": 1, "pitch": "2", "thickness": "1.2"},
                ),
                entry_of("jump_ring", pin="3"),
            ],
        },
        _FINE_SILVER,
        8,
    ),
)


FORGED = (
    Extra(
        "the Ferryman",
        "Landing-stage bangle",
        {"kind": "forged_bangle", "ends": "cups", "pearl": "6", "overlap": "12"},
        {"size": "3 mm", "metal": "copper", "temper": "dead_soft"},
        9,
        cut=True,
        steps=("roll_1",),
    ),
)

OTHERS = (*EXTRAS, *COMPOSED, *FORGED)


def wire_of(
    kind: str, name: str, size: str, metal: str, amount: str, temper: str = "half_hard", **more: str
) -> dict[str, Any]:
    """Return wire on the rack: what it is, what it is called, and how much."""
    wire = {"size": size, "metal": metal, "temper": temper}
    return {"kind": kind, "name": name, "wire": wire, "amount": amount, **more}


# What was wound on a former to try it: the reel, what it was wound on and what it came off at.
TRIALS = (("copper 14 AWG, big reel", "49", "53.6"),)
# What hangs on the barge's rack: two reels under one number, one nearly empty, offcuts in a jar.
RACK = (
    wire_of("reel", "copper 14 AWG, big reel", "14 awg", "copper", "11.4 m",
          tare="86 g", price="1.10"),
    wire_of("reel", "copper 16 SWG", "16 swg", "copper", "4.2 m", tare="44 g", price="1.05"),
    wire_of("reel", "copper 16 AWG", "16 awg", "copper", "6.0 m", tare="44 g", price="0.80"),
    wire_of("reel", "copper 20 AWG", "20 awg", "copper", "7.5 m",
          tare="31 g", price="0.45", low="3 m"),
    wire_of("reel", "copper 18 AWG", "18 awg", "copper", "5.1 m", tare="31 g", price="0.60"),
    wire_of("reel", "brass 20 AWG", "20 awg", "brass", "3.4 m",
          tare="31 g", price="0.60", low="4 m"),
    wire_of("reel", "brass 12 AWG", "12 awg", "brass", "2.1 m",
          tare="86 g", price="2.1", low="2 m"),
    wire_of("reel", "sterling 20 AWG", "20 awg", "sterling", "1.9 m",
          tare="18 g", price="9.40", low="2 m"),
    wire_of("length", "sterling 14 AWG, straight", "14 awg", "sterling", "305 mm", price="38"),
    wire_of("length", "sterling 2 mm, straight", "2.0 mm", "sterling", "610 mm", price="56"),
    wire_of("length", "copper 2 mm, straight", "2.0 mm", "copper", "500 mm", price="1.60"),
    wire_of("reel", "aluminium 18 AWG", "18 awg", "aluminium", "9 m", tare="31 g", price="0.30"),
    wire_of("reel", "bronze 16 AWG", "16 awg", "bronze", "3.2 m", tare="44 g", price="1.30"),
    wire_of("offcut", "copper 20 AWG, jar", "20 awg", "copper", "262 mm", price="0.45"),
    wire_of("offcut", "copper 20 AWG, jar", "20 awg", "copper", "181 mm", price="0.45"),
    wire_of("offcut", "copper 14 AWG, jar", "14 awg", "copper", "251 mm", price="1.10"),
    wire_of("offcut", "bronze 16 AWG, jar", "16 awg", "bronze", "128 mm", price="1.30"),
    wire_of("offcut", "bronze 16 AWG, jar", "16 awg", "bronze", "96 mm", price="1.30"),
    {"kind": "length", "name": "half-round copper, straight", "amount": "640 mm", "price": "2.40",
     "wire": {"size": "1 mm", "metal": "copper", "temper": "half_hard",
              "section": {"shape": "half_round", "flat": "4 mm"}}},
    {"kind": "bead", "name": "chalk glass 4 mm", "size": "4 mm", "hole": "0.9 mm", "amount": "160",
     "price": "0.05", "low": "50"},
    {"kind": "bead", "name": "ink glass 5 mm", "size": "5 mm", "hole": "1 mm", "amount": "36",
     "price": "0.08", "low": "20"},
    {"kind": "bead", "name": "slate glass 6 mm", "size": "6 mm", "hole": "1 mm", "amount": "84",
     "price": "0.12", "low": "40"},
    {"kind": "bead", "name": "amber stone 10 mm", "size": "10 mm", "hole": "1.5 mm", "amount": "11",
     "price": "0.90", "low": "12"},
    {"kind": "finding", "name": "spring clasps 11 mm", "size": "11 mm", "amount": "6",
     "price": "0.35", "low": "4"},
)  # fmt: skip

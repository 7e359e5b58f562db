"""The woven pieces of the demo bench: one of each technique, at different stations."""

from typing import Any

from jamreel.workshop.demo_cast import Extra, entry_of, wire_of

_BARS = {"size": "1.2 mm", "metal": "copper", "temper": "half_hard"}
_FINE_COPPER = {"winding": {"size": "0.4 mm", "metal": "copper", "temper": "dead_soft"}}
_FINE_BRASS = {"winding": {"size": "0.4 mm", "metal": "brass", "temper": "dead_soft"}}
_HOOK: dict[str, Any] = {"kind": "folded_hook", "wire": "1.2 mm"}

WOVEN = (
    Extra(
        "the Ferryman",
        "Weir-gate ladder",
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("ladder", fill=True, bars=4, bead="4", colour="slate")],
            "closure": _HOOK,
        },
        _BARS,
        6,
        palette=_FINE_COPPER,
        fitted=True,
        cut=True,
        # The bars lie taped, the first row is woven.
        steps=("lay_out", "e1/ladder_bars", "e1/ladder_first"),
    ),
    Extra(
        "the Lock-keeper",
        "Lock-chamber channel",
        # Four beads across, and the legs bent for three: it says which width or row would do.
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("channel", across=4, between_legs="14", bead="4", colour="chalk")],
            "closure": _HOOK,
        },
        _BARS,
        8,
        palette=_FINE_BRASS,
    ),
    Extra(
        "the Toll Clerk",
        "Toll-gate channel",
        {
            "kind": "linked_bracelet",
            "entries": [
                entry_of(
                    "channel",
                    fill=True,
                    across=3,
                    by_turns=2,
                    bead="4",
                    colour="amber",
                    # Woven on the evening before, to see how it goes.
                    sample_rows=5,
                    sample_over="20.5",
                    sample_took="590",
                )
            ],
            "closure": _HOOK,
        },
        _BARS,
        9,
        palette=_FINE_COPPER,
        fitted=True,
    ),
    Extra(
        "the Weathercock",
        "Rigging bracelet",
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("crossed_wrap", fill=True, bars=3, outside=2, bar_gap="3")],
            "closure": _HOOK,
        },
        {"size": "1.6 mm", "metal": "copper", "temper": "half_hard"},
        7,
        palette=_FINE_BRASS,
        fitted=True,
        cut=True,
    ),
    Extra(
        "the Heron",
        "Heron's-neck knots",
        {
            "kind": "linked_bracelet",
            "entries": [
                entry_of("knot_row", fill=True, pattern="mirrored", bead="6", colour="plum")
            ],
            "closure": _HOOK,
        },
        {"size": "1 mm", "metal": "copper", "temper": "half_hard"},
        5,
        palette=_FINE_COPPER,
        fitted=True,
        cut=True,
        steps=("lay_out", "e1/knot_board"),
    ),
    Extra(
        "the Miller's Widow",
        "Grain lattice",
        {
            "kind": "linked_bracelet",
            "entries": [
                entry_of("lattice", fill=True, bead="6", hole="1.5", ribbon=2, colour="brick")
            ],
            "closure": {"kind": "folded_hook", "wire": "1.0 mm"},
        },
        {"size": "0.8 mm", "metal": "bronze", "temper": "half_hard"},
        4,
        palette={"winding": {"size": "0.3 mm", "metal": "bronze", "temper": "dead_soft"}},
        fitted=True,
    ),
)

# Straight bars, and fine wire by the reel.
WOVEN_RACK = (
    wire_of("reel", "copper 1.2 mm", "1.2 mm", "copper", "6.5 m", tare="44 g", price="0.95"),
    wire_of("reel", "copper 1.6 mm", "1.6 mm", "copper", "3.8 m", tare="44 g", price="1.25"),
    wire_of("reel", "copper 1 mm", "1 mm", "copper", "8.2 m", tare="44 g", price="0.70"),
    wire_of("reel", "fine copper 0.4 mm", "0.4 mm", "copper", "21 m", "dead_soft",
            tare="18 g", price="0.25"),
    wire_of("reel", "fine brass 0.4 mm", "0.4 mm", "brass", "14 m", "dead_soft",
            tare="18 g", price="0.30"),
    wire_of("reel", "bronze 0.8 mm", "0.8 mm", "bronze", "4.4 m", tare="31 g", price="0.90"),
    wire_of("reel", "fine bronze 0.3 mm", "0.3 mm", "bronze", "12 m", "dead_soft",
            tare="18 g", price="0.35"),
)  # fmt: skip

"""The demo bench's braided, plaited, meshed, bound and threaded pieces, at different stations."""

from typing import Any

from jamreel.workshop.demo_cast import Extra, entry_of, wire_of

_FINE_COPPER = {"winding": {"size": "0.4 mm", "metal": "copper", "temper": "dead_soft"}}
_FINE_BRASS = {"winding": {"size": "0.5 mm", "metal": "brass", "temper": "dead_soft"}}
_HOOK: dict[str, Any] = {"kind": "folded_hook", "wire": "1.2 mm"}


def _spread(large: dict[str, Any], count: int, filler: dict[str, Any]) -> list[dict[str, Any]]:
    group = [{"id": "threaded", "part": large}, {"id": "filled", "part": filler}]
    return [
        {
            "id": "spread",
            "group": group,
            "times": count,
            "evenly": True,
            "fillers": 2 * count,
            "fill": True,
        }
    ]


BOUND = (
    Extra(
        "the Bargee",
        "Towpath braid",
        {
            "kind": "linked_bracelet",
            "entries": [
                entry_of("braid", fill=True, braided="beads", each=1, begins="hooked",
                         bead="6", hole="1.2", colour="amber")
            ],
            "closure": _HOOK,
        },
        {"size": "0.8 mm", "metal": "copper", "temper": "half_hard"},
        6,
        palette=_FINE_COPPER,
        fitted=True,
        cut=True,
        steps=("lay_out", "e1/braid_start"),
    ),
    Extra(
        "the Miller's Widow",
        "Twelve-strand plait",
        {
            "kind": "linked_bracelet",
            "entries": [
                entry_of("flat_plait", fill=True, strands="12", lacing="front", skipped=2,
                         lacing_wire="0.4 mm", sample_rows=12, sample_over="20",
                         plait_width="7.4")
            ],
            "closure": {"kind": "end_caps", "cap_of": "ribbon_end", "cap": "8", "depth": "6",
                        "cap_width": "9", "cap_opening": "2"},
        },
        {"size": "0.6 mm", "metal": "bronze", "temper": "dead_soft"},
        9,
        palette={"winding": {"size": "0.4 mm", "metal": "brass", "temper": "dead_soft"}},
        fitted=True,
    ),
    Extra(
        "the Ferryman",
        "Reed-mat mesh",
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("coil_mesh", fill=True, coils=4, mandrel="4", rod_wire="0.8")],
            "closure": {"kind": "end_caps", "cap_of": "tube", "cap": "16", "depth": "13",
                        "tube": "17", "body_width": "23", "body_thickness": "2.6",
                        "plate": "domed", "fixed_by": "glued"},
        },
        {"size": "0.8 mm", "metal": "copper", "temper": "half_hard"},
        8,
        palette=_FINE_COPPER,
        fitted=True,
    ),
    Extra(
        "the Heron",
        "Five-strand bundle",
        {
            "kind": "linked_bracelet",
            "entries": [entry_of("bundle", fill=True, side_by_side=5, every_other="twisted")],
            "closure": {"kind": "broad_hook", "wire": "1.3 mm"},
        },
        {"size": "1 mm", "metal": "brass", "temper": "half_hard"},
        5,
        palette=_FINE_BRASS,
        fitted=True,
        cut=True,
        steps=("lay_out", "e1/bundle_mark", "e1/bundle_twist"),
    ),
    Extra(
        "the Lock-keeper",
        "River stone in a cage",
        {
            "kind": "pendant_chain",
            "entries": [entry_of("chain", fill=True)],
            "focal": {"kind": "jump_ring", "pin": "4.5"},
            "hung": {"kind": "stone_cage", "stone_length": "30", "stone_width": "22",
                     "stone_height": "5", "colour": "reed"},
        },
        {"size": "0.8 mm", "metal": "copper", "temper": "half_hard"},
        11,
        palette=_FINE_COPPER,
        fitted=True,
    ),
    Extra(
        "the Weathercock",
        "Cord and wound ring",
        {
            "kind": "linked_necklace",
            "falls": "120",
            "entries": [entry_of("cord", fill=True, cord="waxed_cotton", thick="1.5",
                                 hangs_on="2.9")],
            "focal": {"kind": "wound_ring", "wound": 7},
            "closure": {"kind": "end_caps", "cap_of": "coil", "body_width": "3",
                        "body_thickness": "1.5", "depth": "6"},
        },
        {"size": "1 mm", "metal": "copper", "temper": "half_hard"},
        7,
        palette={"winding": {"size": "0.5 mm", "metal": "brass", "temper": "dead_soft"}},
        fitted=True,
    ),
    Extra(
        "the Toll Clerk",
        "Threaded bangle",
        {
            "kind": "core_bangle",
            "entries": _spread({"kind": "bead", "bead": "10", "hole": "2.6", "colour": "slate"},
                               5, {"kind": "filling_coil", "core": "2.2"}),
            "closure": {"kind": "toggle"},
        },
        {"size": "2 mm", "metal": "brass", "temper": "half_hard"},
        6,
        palette={"winding": {"size": "0.8 mm", "metal": "copper", "temper": "dead_soft"},
                 "closure": {"size": "1.6 mm", "metal": "brass", "temper": "half_hard"}},
        fitted=True,
    ),
    Extra(
        "the Ferryman",
        "Five turns of reeds",
        {
            "kind": "core_coil",
            "coil_diameter": "60",
            "entries": [
                *_spread({"kind": "bead", "bead": "6", "hole": "1.0", "colour": "reed"}, 30,
                         {"kind": "filling_coil", "core": "0.9"}),
                {"id": "last", "part": {"kind": "filling_coil", "core": "0.9"}},
            ],
            "closure": {"kind": "open_ends"},
        },
        {"size": "0.6 mm", "metal": "memory_steel", "temper": "spring"},
        10,
        palette={"winding": {"size": "0.5 mm", "metal": "brass", "temper": "dead_soft"}},
        fitted=True,
    ),
    Extra(
        "the Heron",
        "Rush ring",
        {
            "kind": "finger_ring",
            "entries": [{"id": "ring", "part": {"kind": "wound_ring", "wound": 7, "bindings": 2,
                                                "turns": 5}}],
        },
        {"size": "0.8 mm", "metal": "copper", "temper": "dead_soft"},
        8,
        palette={"winding": {"size": "0.4 mm", "metal": "brass", "temper": "dead_soft"}},
    ),
)  # fmt: skip

# Square wire, cord by the metre, and what the others are made of.
BOUND_RACK = (
    wire_of("reel", "waxed cord 1.5 mm", "1.5 mm", "waxed_cotton", "4.6 m", "dead_soft",
            tare="12 g", price="0.40"),
    wire_of("reel", "bronze 0.6 mm", "0.6 mm", "bronze", "11 m", "dead_soft",
            tare="31 g", price="0.70"),
    wire_of("reel", "brass 2 mm", "2 mm", "brass", "2.1 m", tare="44 g", price="1.90"),
    wire_of("reel", "fine brass 0.5 mm", "0.5 mm", "brass", "16 m", "dead_soft",
            tare="18 g", price="0.35"),
    wire_of("reel", "copper 0.8 mm", "0.8 mm", "copper", "18 m", tare="44 g", price="0.55"),
)  # fmt: skip

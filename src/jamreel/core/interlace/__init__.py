"""Interlaced bodies: woven, knotted and bound wire; imports parts and what lies below.

A technique is one file: its sums, its strands in space, and the part that a maker chooses. It
registers itself as parts do; nothing else knows its name.
"""

import importlib
import pkgutil

_HELPERS = {
    "bound",
    "strand_ends",
    "cording",
    "cages",
    "piles",
    "bindings",
    "coils",
    "plaits",
    "braids",
    "base",
    "cells",
    "endings",
    "face",
    "frames",
    "knots",
    "settle",
    "space",
    "turns",
    "working",
}
for _module in sorted(m.name for m in pkgutil.iter_modules(__path__) if m.name not in _HELPERS):
    importlib.import_module(f"{__name__}.{_module}")

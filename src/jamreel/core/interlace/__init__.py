"""Interlaced bodies: woven, knotted and bound wire; imports parts and what lies below.

A technique is a folder: its sums and its strands in space (``geometry``), and the part that a maker
chooses (``part``), which registers itself as parts do. What several techniques share stands beside
the folders.
"""

import importlib
import pkgutil

for _module in sorted(m.name for m in pkgutil.iter_modules(__path__) if m.ispkg):
    importlib.import_module(f"{__name__}.{_module}.part")

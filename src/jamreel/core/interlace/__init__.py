"""Interlaced bodies: woven, knotted and bound wire; imports parts and what lies below.

A technique is a folder: its sums and its strands in space (``geometry``), and the part that a maker
chooses (``part``), which registers itself as parts do. What several techniques share stands beside
the folders.
"""

from jamreel.core.parts.base import PARTS

PARTS.stand_in(__name__, "part")

"""Coil mesh: its sums, its strands in space, and the part."""

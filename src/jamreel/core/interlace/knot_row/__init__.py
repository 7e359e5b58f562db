"""Knot row: its sums, its strands in space, and the part."""

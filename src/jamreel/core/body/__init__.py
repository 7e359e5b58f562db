"""Where a body is measured, what was read there, and the outline that follows from it."""

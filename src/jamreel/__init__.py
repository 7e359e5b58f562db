"""Jam Reel: from body measures to wire that fits.

Floors, imports running downwards only: ``site`` -> ``api`` -> ``workshop`` -> ``core``.
"""

__version__ = "0.1.0"

"""Jam Reel: from body measures to wire that fits.

Floors, imports running downwards only: ``site`` -> ``api`` -> ``workshop`` -> ``core``.
"""

import os

# Nothing here is large enough for several threads, and starting them takes a tenth of a second.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")


__version__ = "0.1.0"

"""Loads the large libraries of what is done apart, once, before its processes are forked."""

import scipy.spatial  # noqa: F401

from jamreel.core.late import load_all

load_all()

"""Kinds are loaded when they are met: one by the name of its module, or all at once."""

import subprocess
import sys

import pytest

from jamreel.core.closures.base import CLOSURES
from jamreel.core.families.base import CONSTRUCTIONS
from jamreel.core.parts.base import PARTS

LOADED = """
import sys
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from json import loads
from pathlib import Path
plan_raw(loads(Path(sys.argv[1]).read_text()), Shop())
print(*sorted(name for name in sys.modules if name.startswith("jamreel.core.")))
"""


def loaded(example: str) -> set[str]:
    """Return the modules of the core that a plan loads, in a process of its own."""
    command = [sys.executable, "-c", LOADED, f"docs/examples/{example}.json"]
    run = subprocess.run(command, capture_output=True, text=True, check=True)
    return {name.removeprefix("jamreel.core.") for name in run.stdout.split()}


def test_a_bangle_loads_no_part_closure_or_woven_body() -> None:
    names = loaded("sliding-bangle")
    assert "families.sliding_bangle" in names
    assert not names & {"families.linked", "closures.toggle", "parts.tassel", "parts.linked_bead"}
    assert not any(name.endswith(".part") for name in names)


@pytest.mark.parametrize(
    ("kinds", "kind"), [(CONSTRUCTIONS, "linked_anklet"), (PARTS, "braid"), (CLOSURES, "s_hook")]
)
def test_every_kind_is_found_by_its_name(kinds: object, kind: str) -> None:
    assert isinstance(kinds, type(PARTS))
    assert kinds.get(kind) is kinds.every()[kind]
    assert all(kinds.get(name) is cls for name, cls in kinds.every().items())


@pytest.mark.parametrize("name", ["", "base", "__init__", "os", "..", "a b", "no_such"])
def test_what_is_no_kind_is_none(name: str) -> None:
    assert PARTS.get(name) is None

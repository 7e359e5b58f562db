"""Libraries that are loaded when they are first used."""

import sys
from typing import Any

import pytest

from jamreel.core import late as loading
from jamreel.core.late import late, load_all


@pytest.fixture(autouse=True)
def none_yet(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(loading, "_LATE", [])
    monkeypatch.delitem(sys.modules, "colorsys", raising=False)


def test_a_library_is_loaded_when_it_is_used() -> None:
    module: Any = late("colorsys")
    assert "colorsys" not in sys.modules
    assert module.rgb_to_hls(1.0, 1.0, 1.0) == (0.0, 1.0, 0.0)
    assert module.rgb_to_hls is sys.modules["colorsys"].rgb_to_hls


def test_a_server_loads_them_all_at_once() -> None:
    late("colorsys")
    load_all()
    assert "colorsys" in sys.modules


def test_one_that_is_not_there_is_named_when_it_is_used() -> None:
    module: Any = late("no_such_library")
    with pytest.raises(ModuleNotFoundError, match="no_such_library"):
        _ = module.anything

"""Libraries that are loaded when they are first used."""

import sys

import pytest

from jamreel.core.late import late, load_all


def test_a_library_is_loaded_when_it_is_used(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delitem(sys.modules, "colorsys", raising=False)
    module = late("colorsys")
    assert "rgb_to_hls" not in object.__getattribute__(module, "__dict__")
    assert late("colorsys") is module
    assert module.rgb_to_hls(1.0, 1.0, 1.0) == (0.0, 1.0, 0.0)


def test_a_server_loads_them_all_at_once(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delitem(sys.modules, "colorsys", raising=False)
    module = late("colorsys")
    load_all()
    assert "rgb_to_hls" in object.__getattribute__(module, "__dict__")


def test_one_that_is_not_there_is_named() -> None:
    with pytest.raises(ModuleNotFoundError, match="no_such_library"):
        late("no_such_library")

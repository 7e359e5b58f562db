"""Documentation that can't lie: documented arguments are the real ones."""

import importlib
import inspect
import pkgutil
import re
from collections.abc import Callable, Iterator
from typing import Any

import jamreel.core

RULE_FLOORS = ("units", "wire", "body", "fit", "path", "forming", "cutting")


def rules() -> Iterator[tuple[str, Callable[..., Any]]]:
    for module in pkgutil.walk_packages(jamreel.core.__path__, "jamreel.core."):
        loaded = importlib.import_module(module.name)
        for name, thing in vars(loaded).items():
            own = inspect.isfunction(thing) and thing.__module__ == module.name
            if own and not name.startswith("_"):
                yield f"{module.name}.{name}", thing


def test_documented_arguments_are_those_of_the_signature() -> None:
    for name, rule in rules():
        text = inspect.getdoc(rule) or ""
        section = re.search(r"^Args:\n((?:    .*\n|\n)+)", text + "\n", re.MULTILINE)
        if section:
            documented = re.findall(r"^    (\w+): ", section[1], re.MULTILINE)
            assert documented == list(inspect.signature(rule).parameters), name


def test_figures_are_documented_with_their_unit() -> None:
    """A number alone is a length, a share, a strain or a count: the docstring says which."""
    plain = ("ratio", "share", "strain", "factor", "count", "over 1", "mm")
    for name, rule in rules():
        if name.split(".")[2] in RULE_FLOORS and rule.__annotations__.get("return") is float:
            text = inspect.getdoc(rule) or ""
            assert "[" in text or any(word in text for word in plain), name


def test_classes_name_only_fields_that_they_have() -> None:
    # Names of values, and of fields of another class that the sentence tells.
    others = {"core", "piece", "exact", "record", "bead", "family", "figures", "ranges"}
    for module in pkgutil.walk_packages(jamreel.core.__path__, "jamreel.core."):
        loaded = importlib.import_module(module.name)
        for name, thing in vars(loaded).items():
            if not inspect.isclass(thing) or thing.__module__ != module.name:
                continue
            source = inspect.getsource(thing).replace(thing.__doc__ or "", "")
            named = re.findall(r"``([a-z][a-z_0-9]*)``", thing.__doc__ or "")
            gone = {one for one in named if not re.search(rf"\b{one}\b", source)} - others
            assert not gone, (module.name, name)


def test_every_rule_that_documents_arguments_names_its_source() -> None:
    for name, rule in rules():
        text = inspect.getdoc(rule) or ""
        if "Args:" in text and name.split(".")[2] in RULE_FLOORS:
            assert "Source:" in text or "Raises:" in text, name

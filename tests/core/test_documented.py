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


def test_every_rule_that_documents_arguments_names_its_source() -> None:
    for name, rule in rules():
        text = inspect.getdoc(rule) or ""
        if "Args:" in text and name.split(".")[2] in RULE_FLOORS:
            assert "Source:" in text or "Raises:" in text, name

"""Every sentence that is asked for exists, and every one that exists is asked for."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

from jamreel.core.words import catalogue

CORE = Path(__file__).parents[2] / "src" / "jamreel"
SOURCES = [p.read_text() for p in CORE.rglob("*.py")]
SOURCE = "\n".join(SOURCES)


def asked_for() -> set[str]:
    """Keys named outright in a call."""
    keys = set(re.findall(r'say\(\s*"([a-z_.]+)"', SOURCE))
    for key in re.findall(r'Refusal\(\s*"([a-z_]+)"', SOURCE):
        keys |= {f"refused.{key}.expected", f"refused.{key}.says"}
    for key in re.findall(r'advise\(\s*"([a-z_]+)"', SOURCE):
        keys |= {f"advice.{key}.{part}" for part in ("says", "because", "try")}
    for key in re.findall(r'verdict\(\s*"([a-z_]+)"', SOURCE):
        keys |= {f"righting.{key}.says", f"righting.{key}.because"}
    for under, key in re.findall(r'\b(part_|closure_|)step\(\s*"([a-z_.]+)"', SOURCE):
        table = f"step.{under}".replace("_", ".") + key
        keys |= {f"{table}.title", f"{table}.says"}
    return keys


def patterns() -> Iterator[re.Pattern[str]]:
    """Every string of the source as a pattern; what is put in at run time matches anything."""
    for source in SOURCES:
        for node in ast.walk(ast.parse(source)):
            if isinstance(node, ast.JoinedStr):
                parts = [
                    re.escape(str(v.value)) if isinstance(v, ast.Constant) else r"\w+"
                    for v in node.values
                ]
                yield re.compile("".join(parts))
            elif isinstance(node, ast.Constant) and re.fullmatch(r"[a-z_.]+", str(node.value)):
                yield re.compile(re.escape(str(node.value)))


def test_every_key_asked_for_is_in_the_catalogue() -> None:
    assert asked_for() - set(catalogue("en")) == set()


def test_no_sentence_is_left_over() -> None:
    named = {p for p in patterns() if p.pattern not in (r"\w+", "")}
    left = set()
    for key in catalogue("en"):
        table, _, rest = key.partition(".")
        if table in ("field", "refused") or key == "step.one_mark":
            continue
        # A key is asked for whole, or by its name below the table.
        name = (
            rest.rsplit(".", 1)[0] if table in ("advice", "righting", "caution", "step") else rest
        )
        name = name.removesuffix(".label").removesuffix(".reason")
        if not any(p.fullmatch(name) or p.fullmatch(key) for p in named):
            left.add(key)
    assert left == set()

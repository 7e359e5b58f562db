"""Every sentence that is asked for exists, and every one that exists is asked for."""

import ast
import json
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from jamreel.core.choices import Asking
from jamreel.core.closures import registered_closures
from jamreel.core.families import registered
from jamreel.core.parts import registered_parts
from jamreel.core.plan import BriefRefused, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.words import catalogue, say
from tests.conftest import EXAMPLES, WORKED

CORE = Path(__file__).parents[2] / "src" / "jamreel"
SOURCES = [p.read_text() for p in CORE.rglob("*.py")]
SOURCE = "\n".join(SOURCES)
KINDS: dict[str, type[Asking]] = {**registered_parts(), **registered_closures(), **registered()}
LANGUAGES = sorted(one.name for one in (CORE / "core" / "words").iterdir() if one.is_dir())
# What these say stands in the JSON Schema.
SCHEMA_ONLY = ("values.py", "tagged_union.py", "gauges.py")
# What is no sentence though it looks like one: statements, headers, and what other programs say.
NO_SENTENCE = re.compile(r"(PRAGMA|SELECT|ORDER|CREATE|DROP|Connection:|Request Line|Densities)")


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
        if table == "choice":
            # By its kind before it, or everywhere.
            name = rest.removesuffix(".label").removesuffix(".help").rpartition(".")[2]
        name = name.removesuffix(".label").removesuffix(".reason")
        if not any(p.fullmatch(name) or p.fullmatch(key) for p in named):
            left.add(key)
    assert left == set()


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_choice_and_option_of_every_kind_has_words(kind: str) -> None:
    for choice in KINDS[kind].choices():
        assert choice.says, choice.name
        for option, label in zip(choice.options, choice.labels, strict=True):
            # A number says itself.
            assert label != option or option.isdigit() or " " not in label, (choice.name, option)
            keys = {f"choice_option.{of}{choice.name}.{option}" for of in ("", f"{kind}.")}
            assert keys & set(catalogue("en")) or option.isdigit(), (choice.name, option)


@pytest.mark.parametrize("language", [one for one in LANGUAGES if one != "__pycache__"])
def test_no_language_lacks_a_sentence(language: str) -> None:
    english = CORE / "core" / "words" / "en"
    lacking = set(catalogue("en")) - set(catalogue(language))
    assert not lacking
    assert {one.name for one in english.iterdir()} == {
        one.name for one in (english.parent / language).iterdir()
    }


def test_words_of_a_kind_stand_in_its_own_file() -> None:
    folder = CORE / "core" / "words" / "en"
    for kind in KINDS:
        words = (folder / f"{kind}.toml").read_text()
        assert re.search(rf"^\[(shelf|closure)\.{kind}\]|^\[family\]\n{kind} =", words, re.M), kind


def test_a_choice_goes_by_the_words_of_its_kind() -> None:
    named = {kind: {one.name: one.says for one in cls.choices()} for kind, cls in KINDS.items()}
    assert named["open_cuff"]["gap"] == "gap"
    assert named["lattice"]["gap"] == "gap between beads"
    assert (named["ear_cuff"]["rings"], named["brooch"]["rings"]) == ("rings", "rings at the back")
    with pytest.raises(BriefRefused) as refused:
        plan_raw(
            {
                **WORKED,
                "piece": {
                    "kind": "linked_bracelet",
                    "entries": [{"part": {"kind": "lattice", "gap": "4000"}}],
                },
            },
            Shop(),
        )
    assert "gap between beads" in refused.value.problems[0].says


def sentences(source: str) -> Iterator[str]:
    """Every text of a module that reads like a sentence and is no docstring."""
    tree = ast.parse(source)
    spoken = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str):
            text = node.value.strip()
            words = re.findall(r"[A-Za-z’']{2,}", text)
            if id(node) not in spoken and text[:1].isupper() and " " in text and len(words) >= 3:
                yield text


def test_no_sentence_stands_in_code() -> None:
    for path in CORE.rglob("*.py"):
        if path.parent.name == "migrations" or path.name.startswith("demo"):
            continue
        for text in sentences(path.read_text()):
            assert NO_SENTENCE.match(text) or path.name in SCHEMA_ONLY, text


def test_one_is_said_as_one() -> None:
    assert say("step.part.lattice_close.says", wraps=1).startswith("Wrap once,")
    assert say("step.part.lattice_close.says", wraps=2).startswith("Wrap 2 times,")
    assert say("step.part.count_links.says", links=1).startswith("Count 1 link and")
    # A count that isn't whole, as of turns.
    assert " 4.5 turns" in say("step.part.coil.says", turns=4.5, core=1.0)


@pytest.mark.parametrize("path", sorted(EXAMPLES.glob("*.json")), ids=lambda one: one.stem)
def test_no_example_says_1_of_many(path: Path) -> None:
    plan = plan_raw(json.loads(path.read_text()), Shop())
    said = [one.says for one in plan.steps] + [f"{a.says} {a.try_}" for a in plan.advice]
    said += [line.reason for line in plan.ledger]
    assert not [one for one in said if re.search(r"(?<![\d.,/½¼¾])\b1 [a-z]+s\b(?<!ss)", one)]


@pytest.mark.parametrize("path", sorted(EXAMPLES.glob("*.json")), ids=lambda one: one.stem)
def test_the_rule_names_lines_that_are_there(path: Path) -> None:
    plan = plan_raw(json.loads(path.read_text()), Shop())
    spans = plan.drawings.rule.spans if plan.drawings.rule else ()
    assert {name for span in spans for name in span.ledger} <= {line.id for line in plan.ledger}

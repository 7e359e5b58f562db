"""Examples, schemas and the command line agree with each other."""

import json
import subprocess
import sys
from functools import cache
from pathlib import Path
from typing import Any

import jsonschema_rs
import pytest

from jamreel.__main__ import main
from jamreel.core.families import registered
from jamreel.core.formats import schemas
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from tests.conftest import EXAMPLES

FILES = sorted(EXAMPLES.glob("*.json"))


@cache
def validator(name: str) -> Any:
    """A schema, worked out and checked once for all examples."""
    schema = schemas()[name]
    jsonschema_rs.meta.validate(schema)
    return jsonschema_rs.validator_for(schema)


@pytest.mark.parametrize("file", FILES, ids=lambda f: f.stem)
def test_examples_fit_the_schemas(file: Path) -> None:
    brief = json.loads(file.read_text())
    validator("brief").validate(brief)
    plan = plan_raw(brief, Shop())
    validator("plan").validate(json.loads(plan.model_dump_json()))


def test_there_is_an_example_of_every_construction() -> None:
    shown = {json.loads(f.read_text())["piece"]["kind"] for f in FILES}
    assert shown == set(registered())


def test_the_command_line_prints_the_plan(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["plan", str(EXAMPLES / "sliding-bangle.json")]) == 0
    plan: dict[str, Any] = json.loads(capsys.readouterr().out)
    assert plan["cuts"][0]["length_mm"] == pytest.approx(245.53, abs=0.01)
    assert {"schema", "ledger", "bends", "formers", "mass_g", "drawings"} <= plan.keys()
    assert {"pin", "angle", "side", "places"} <= plan["bends"][0].keys()


def test_the_command_line_refuses_with_problem_json(tmp_path: Path) -> None:
    run = [sys.executable, "-m", "jamreel", "plan", "-"]
    bad = '{"piece": {"kind": "sliding_bangle"}, "wire": {"size": "0.08"}}'
    done = subprocess.run(run, input=bad, capture_output=True, text=True, check=False)
    assert done.returncode == 2
    problem = json.loads(done.stdout)
    assert (problem["status"], problem["field"]) == (422, "wire.size")
    assert "0.8 mm" in done.stderr
    nan = subprocess.run(run, input='{"wire": NaN}', capture_output=True, text=True, check=False)
    assert nan.returncode == 2
    assert json.loads(nan.stdout)["problems"][0]["key"] == "json"
    assert main(["plan", str(tmp_path / "nowhere.json")]) == 2
    shop = tmp_path / "shop.json"
    shop.write_text(
        '{"unit": "in", "formers": [{"name": "x", "kind": "dowels", "diameters": [0]}]}'
    )
    assert main(["plan", str(EXAMPLES / "sliding-bangle.json"), "--shop", str(shop)]) == 2


HEAVY = ("scipy", "shapely", "ortools", "django", "reportlab")


def test_a_plan_from_the_shell_loads_no_large_library() -> None:
    briefs = [
        str(FILES[0].parent / f"{name}.json")
        for name in ("sliding-bangle", "core-bangle", "choker")
    ]
    code = (
        "import sys\nfrom jamreel.__main__ import main\n"
        f"codes = [main(['plan', brief]) for brief in {briefs!r}]\n"
        f"print(codes, sorted(set({HEAVY!r}) & set(sys.modules)), file=sys.stderr)"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True)
    assert done.stderr.strip() == "[0, 0, 0] []"

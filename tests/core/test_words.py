"""Every sentence that is asked for exists, and every one that exists is asked for."""

import re
from pathlib import Path

from jamreel.core.words import catalogue

CORE = Path(__file__).parents[2] / "src" / "jamreel"
SOURCE = "\n".join(p.read_text() for p in CORE.rglob("*.py"))


def asked_for() -> set[str]:
    keys = set(re.findall(r'say\(\s*"([a-z_.]+)"', SOURCE))
    for key in re.findall(r'Refusal\(\s*"([a-z_]+)"', SOURCE):
        keys |= {f"refused.{key}.expected", f"refused.{key}.says"}
    for key in re.findall(r'advise\(\s*"([a-z_]+)"', SOURCE):
        keys |= {f"advice.{key}.{part}" for part in ("says", "because", "try")}
    for key in re.findall(r'_verdict\(\s*"([a-z_]+)"', SOURCE):
        keys |= {f"righting.{key}.says", f"righting.{key}.because"}
    for key in re.findall(r'step\("([a-z_.]+)"', SOURCE):
        keys |= {f"step.{key}.title", f"step.{key}.says"}
    return keys


def test_every_key_asked_for_is_in_the_catalogue() -> None:
    assert asked_for() - set(catalogue("en")) == set()


def test_no_sentence_of_a_refusal_advice_or_verdict_is_left_over() -> None:
    spoken = {k for k in catalogue("en") if k.split(".")[0] in ("refused", "advice", "righting")}
    # Keys chosen at run time: either of two, or an optional part.
    chosen = {"readings_apart", "readings_outlier", "girth_range", "girth_range_guess"}
    chosen |= {"former_wide", "former_tight", "missing", "unknown_field", "shape", "nothing"}
    left = {
        k for k in spoken - asked_for() if k.split(".")[1] not in chosen and k[-7:] != ".amount"
    }
    assert left == set()

"""One file a construction: its sums done again on paper, its judgement calls, its try-ons."""

import json
import math
from copy import deepcopy
from typing import Any

from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from tests.conftest import EXAMPLES

SHOP = Shop()
D14 = 0.127 * 92 ** ((36 - 14) / 39)  # 14 AWG, ASTM B258


def example(kind: str) -> dict[str, Any]:
    """Return the example brief of a construction, to be changed at will."""
    text = (EXAMPLES / f"{kind.replace('_', '-')}.json").read_text()
    brief: dict[str, Any] = json.loads(text)
    return brief


def girths(**values: float) -> dict[str, Any]:
    return {site: {"readings": [{"value": value}]} for site, value in values.items()}


def planned(brief: dict[str, Any], **own: Any) -> Plan:
    """Return the plan of a brief with some of its construction's choices changed."""
    changed = {**deepcopy(brief), "piece": {**brief["piece"], **own}}
    return plan_raw(changed, SHOP)


def tried(brief: dict[str, Any], **noted: Any) -> PuttingRight:
    """Return the answer to a try-on."""
    righting = plan_raw({**deepcopy(brief), "tryon": noted}, SHOP).putting_right
    assert righting is not None
    return righting


def figure(plan: Plan, key: str) -> float:
    return next(f.value_mm for f in plan.figures if f.id == key)


def ledger(plan: Plan, key: str) -> float:
    return next(line.value_mm for line in plan.ledger if line.id == key)


def advice(plan: Plan) -> dict[str, str]:
    return {a.id: a.says for a in plan.advice}


def steps(plan: Plan) -> list[str]:
    return [s.id for s in plan.steps]


def loop(pin: float, wire: float, share: float = 1.0) -> float:
    """Wire in a loop, or a share of one, on paper."""
    return share * math.pi * (pin + wire)

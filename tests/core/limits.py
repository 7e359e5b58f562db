"""Briefs at and over every limit, planned in a process of its own: how much work, and how much
memory.

Run as a program: reads lines of JSON, each a brief, and answers each with the calls that planning
and filling it took, megabytes more than at the start, and the field that was refused.
"""

import json
import resource
import sys
from pathlib import Path
from typing import Any

from jamreel.core.draft import unsound
from jamreel.core.plan import BriefRefused, plan_raw, propose_raw
from jamreel.core.shop import Shop
from tests.counting import calls

# What a request may cost [calls, MB]: so many calls take 2 s on two cores of 2026.
MOST_CALLS, MOST_MB = 12_000_000, 200.0


def resident() -> float:
    """Return the memory that the process has had at most so far [MB]."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


def main() -> None:
    """Answer lines until there are none."""
    shop = Shop()
    # What is loaded once, whatever is asked, is no cost of a request.
    warm = json.loads(
        (Path(__file__).parents[2] / "docs" / "examples" / "linked-bracelet.json").read_text()
    )
    plan_raw(warm, shop).model_dump_json()
    propose_raw(warm, shop)
    before = resident()
    for line in sys.stdin:
        brief = json.loads(line)
        answer: dict[str, object] = {"field": "", "kb": 0.0}

        def plans(brief: Any = brief, answer: dict[str, object] = answer) -> None:
            try:
                refuse_unsound(brief, shop)
                answer["kb"] = len(plan_raw(brief, shop).model_dump_json()) / 1000
            except BriefRefused as refused:
                answer["field"] = refused.problems[0].field or "brief"

        def fills(brief: Any = brief, answer: dict[str, object] = answer) -> None:
            try:
                refuse_unsound(brief, shop)
                propose_raw(brief, shop)
            except BriefRefused as refused:
                answer["field"] = refused.problems[0].field or "brief"

        answer["calls"] = [calls(plans), calls(fills)]
        answer["mb"] = resident() - before
        print(json.dumps(answer), flush=True)


def refuse_unsound(brief: Any, shop: Shop) -> None:
    """Refuse what may not be kept, as saving does."""
    faults = unsound(brief, shop)
    if faults:
        raise BriefRefused(faults)


if __name__ == "__main__":
    main()

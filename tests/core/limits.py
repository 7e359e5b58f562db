"""Briefs at and over every limit, planned in a process of its own: how long, and how much memory.

Run as a program: reads lines of JSON, each a brief, and answers each with seconds, megabytes more
than at the start, and the field that was refused.
"""

import json
import resource
import sys
import time
from pathlib import Path

from jamreel.core.draft import unsound
from jamreel.core.plan import BriefRefused, plan_raw, propose_raw
from jamreel.core.shop import Shop

# What a request may cost [s, MB].
MOST_S, MOST_MB = 2.0, 200.0


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
        spent = []
        field = ""
        length = 0
        for work in (plan_raw, propose_raw):
            started = time.process_time()
            try:
                faults = unsound(brief, shop)
                if faults:
                    raise BriefRefused(faults)
                found = work(brief, shop)
                if work is plan_raw:
                    length = len(found.model_dump_json())  # type: ignore[union-attr]
            except BriefRefused as refused:
                field = refused.problems[0].field or "brief"
            spent.append(time.process_time() - started)
        answer = {"seconds": spent, "mb": resident() - before, "field": field, "kb": length / 1000}
        print(json.dumps(answer), flush=True)


if __name__ == "__main__":
    main()

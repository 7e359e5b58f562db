"""How long things take: a plan in the core, and the API beside an endpoint that does nothing.

Prints the best and the middle of many runs: the machine may be busy with others.
"""

import json
import os
import tempfile
import time
from collections.abc import Callable
from datetime import date
from pathlib import Path
from statistics import median
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
RUNS = 200


def timed(work: Callable[[], object], runs: int = RUNS) -> tuple[float, float]:
    """Return the best and the median time of a piece of work [ms]."""
    spent = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        spent.append((time.perf_counter() - start) * 1000)
    return min(spent), median(spent)


def report(name: str, times: tuple[float, float], limit: float | None = None) -> None:
    """Print one line."""
    wanted = f"   wanted under {limit:g}" if limit else ""
    print(f"{name:<52} best {times[0]:7.2f} ms   middle {times[1]:7.2f} ms{wanted}")


def core() -> None:
    """Time plans of the example briefs, from typed JSON to plan."""
    from jamreel.core.plan import plan_raw
    from jamreel.core.shop import Shop

    shop = Shop()
    for example in sorted((ROOT / "docs" / "examples").glob("*.json")):
        brief = json.loads(example.read_text())
        plan_raw(brief, shop)
        report(f"plan {example.stem}", timed(lambda b=brief: plan_raw(b, shop)), 10)


def make_up() -> None:
    """Time a necklace of 200 parts: planned, and solved to its length."""
    from jamreel.core.plan import plan_raw, propose_raw
    from jamreel.core.shop import Shop

    brief = json.loads((ROOT / "docs" / "examples" / "linked-necklace.json").read_text())
    brief["piece"] |= {"length": "2000", "mirrored": True}
    brief["piece"]["entries"][0]["times"] = 100
    shop = Shop()
    assert len(plan_raw(brief, shop).drawings.rule.spans) > 200
    report("plan, a necklace of 200 parts", timed(lambda: plan_raw(brief, shop), 50), 10)
    report("fill, a necklace of 200 parts", timed(lambda: propose_raw(brief, shop), 30), 100)


def nesting() -> None:
    """Time nesting of 10 to 400 cuts, and its waste beside the hand's and the wire's own bound."""
    import random

    from jamreel.core.cutting.nest import nest
    from jamreel.core.cutting.problem import Rack, StockKind, Wanted

    heads = ("time", "proven", "gap", "scrap", "by hand", "weight/bound")
    print("nesting".ljust(24) + "".join(head.rjust(9) for head in heads))
    kinds: list[StockKind] = ["offcut", "length"]
    for count, pieces in ((10, 6), (30, 8), (60, 12), (100, 20), (200, 30), (400, 60)):
        pick = random.Random(count)
        cuts = [Wanted(id=str(i), length=round(pick.uniform(30, 320), 1)) for i in range(count)]
        racks = [
            Rack(id=f"r{i}", kind=pick.choice(kinds), length=round(pick.uniform(200, 1000)))
            for i in range(pieces - 1)
        ]
        racks.append(Rack(id="reel", kind="reel", length=200_000))
        started = time.perf_counter()
        plan = nest(cuts, racks, keep=60)
        seconds = time.perf_counter() - started
        print(
            f"{count:>4} cuts, {pieces:>2} pieces      {seconds:6.2f} s {plan.optimal!s:>8} "
            f"{100 * plan.gap:5.3f} % {plan.scrap:6.0f}mm {plan.hand_scrap:6.0f}mm "
            f"{plan.weight:7.0f}/{plan.bound:.0f}"
        )


def api() -> None:
    """Time the API in process, through all middleware, against the demo bench."""
    import django
    from django.core.management import call_command

    django.setup()
    call_command("migrate", verbosity=0)
    from django.conf import settings
    from django.test import Client

    from jamreel.workshop.demo import build

    bench = build(date(2026, 11, 24))
    client = Client()
    client.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    piece: dict[str, Any] = client.get("/api/pieces/1").json()

    def type_a_digit() -> None:
        trim = f"{1 + piece['version'] % 90 / 100:.2f}"
        body = {"version": piece["version"], "brief": {**piece["brief"], "cutting": {"trim": trim}}}
        answer = client.put("/api/pieces/1/brief", body, content_type="application/json")
        piece["version"] = answer.json()["version"]

    report("API: an endpoint that does nothing", timed(lambda: client.get("/api/empty")))
    report("API: the bench, twenty-nine pieces", timed(lambda: client.get("/api/bench")))
    report("API: a piece in full", timed(lambda: client.get("/api/pieces/1")))
    report("API: a keystroke saved and planned", timed(type_a_digit), 100)


def main() -> None:
    """Run all of it against a database of its own."""
    with tempfile.TemporaryDirectory() as data:
        os.environ["JAMREEL_DATA"] = data
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
        core()
        make_up()
        nesting()
        api()


if __name__ == "__main__":
    main()

"""How long things take: a plan in the core, and the API beside an endpoint that does nothing.

    python tools/bench.py [--short] [--beside COMMIT]

Prints the best and the middle of many runs: the machine may be busy with others. ``--short`` leaves
out what is no plan and no keystroke; ``--beside`` prints the short ones of another commit first.
"""

import argparse
import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from datetime import date
from functools import partial
from pathlib import Path
from statistics import median
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
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

    shop, sizes = Shop(), list[float]()
    for example in sorted((ROOT / "docs" / "examples").glob("*.json")):
        brief = json.loads(example.read_text())
        plan_raw(brief, shop)
        report(f"plan {example.stem}", timed(lambda b=brief: plan_raw(b, shop), 30), 15)
        sizes.append(len(plan_raw(brief, shop).model_dump_json(by_alias=True)) / 1000)
    print(f"  the middle example as JSON {median(sizes):.1f} kB   wanted under 20")


def of_one_kind() -> dict[str, Any]:
    """Return a necklace of 200 parts, all alike."""
    brief: dict[str, Any] = json.loads((ROOT / "docs/examples/linked-necklace.json").read_text())
    brief["piece"] |= {"length": "2000", "mirrored": True}
    brief["piece"]["entries"][0]["times"] = 100
    return brief


def of_forty_kinds() -> dict[str, Any]:
    """Return a necklace of 200 parts of 40 kinds."""
    brief = of_one_kind()
    sizes = {
        "linked_bead": lambda n: {"bead": 4 + 0.25 * n},
        "bead": lambda n: {"bead": 3 + 0.1 * n},
        "eye_link": lambda n: {"stem": 3 + 0.1 * n},
        "jump_ring": lambda n: {"pin": 3 + 0.05 * n},
        "curved_link": lambda n: {"form": 30 + n},
        "coil": lambda n: {"turns": 5 + n},
        "figure_eight": lambda n: {"pin": 3 + 0.05 * n},
        "chain": lambda n: {"links": 3 + n},
    }
    rows = list(sizes.items())
    parts = [{"kind": rows[n % 8][0], **rows[n % 8][1](n)} for n in range(40)]
    entries = [{"id": f"e{n}", "part": part, "times": 5} for n, part in enumerate(parts)]
    brief["piece"] |= {"mirrored": False, "entries": entries}
    return brief


def of_forty_sizes() -> dict[str, Any]:
    """Return a necklace of 200 linked beads of 40 sizes, five each."""
    brief = of_one_kind()
    parts = [{"kind": "linked_bead", "bead": 4 + 0.25 * n} for n in range(40)]
    entries = [{"id": f"e{n}", "part": part, "times": 5} for n, part in enumerate(parts)]
    brief["piece"] |= {"mirrored": False, "entries": entries}
    return brief


def make_up() -> None:
    """Time necklaces of 200 parts: planned, solved to length, and how long their answers are."""
    import gzip

    from jamreel.core.plan import plan_raw, propose_raw
    from jamreel.core.shop import Shop

    shop = Shop()
    made = (("one kind", of_one_kind()), ("40 kinds", of_forty_kinds()))
    for name, brief in (*made, ("40 sizes of bead", of_forty_sizes())):
        plan = plan_raw(brief, shop)
        assert sum(one.times for one in plan.drawings.sheets[0].placed) >= 200
        times = timed(lambda b=brief: plan_raw(b, shop), 50)
        report(f"plan, a necklace of 200 parts, {name}", times, 20)
        answer = plan.model_dump_json(by_alias=True).encode()
        packed = len(gzip.compress(answer)) / 1000
        print(f"  its answer {len(answer) / 1000:.0f} kB, packed {packed:.0f} kB   wanted under 60")
    times = timed(lambda: propose_raw(of_one_kind(), shop), 30)
    report("fill, a necklace of 200 parts", times, 60)


def woven() -> None:
    """Time bodies of sixty rows as they are planned, and bodies pulled tight to be looked at."""
    from tests.core.test_interlace import CAST, bracelet

    from jamreel.core.interlace.braid.geometry import PlainBraid
    from jamreel.core.interlace.flat_plait.geometry import Plait, width_by_rule
    from jamreel.core.interlace.knot_row.geometry import Knotted
    from jamreel.core.interlace.relax import settled
    from jamreel.core.plan import plan_raw
    from jamreel.core.shop import Shop

    for kind, part in CAST.items():
        brief = bracelet({**part, "rows": 60})
        report(f"plan, sixty rows of {kind}", timed(lambda b=brief: plan_raw(b, Shop()), 20), 25)
    plait = Plait(16, 1.0, 3.0, width_by_rule(16, 1.0, 3.0))
    for name, body in (
        ("knots", Knotted(2, 2.0, 1.0, 4.0)),
        ("braid", PlainBraid(1.0, 7.0)),
        ("plait of 16", plait),
    ):
        report(f"pulled tight, {name}", timed(lambda b=body: settled(b.cell()), 3), 1000)


def limits() -> None:
    """Time the costliest briefs that may be kept, planned and filled."""
    import random

    from tests.core.test_limits import at_the_limit, drawn

    from jamreel.core.draft import unsound
    from jamreel.core.plan import BriefRefused, plan_raw, propose_raw
    from jamreel.core.shop import Shop

    shop, pick = Shop(), random.Random(11)
    briefs = [drawn(pick) for _ in range(150)] + [b for _, b, _ in at_the_limit(100)]
    spent = []
    for brief in briefs:
        for work in (plan_raw, propose_raw):
            started = time.perf_counter()
            try:
                if not unsound(brief, shop):
                    work(brief, shop)
            except BriefRefused:
                pass
            spent.append((time.perf_counter() - started) * 1000)
    report("the costliest of 150 briefs at the limits", (max(spent), median(spent)), 2000)


def day() -> None:
    """Time a day of eight pieces of twelve steps, and the most that one plan can hold."""
    import random

    from jamreel.core.bench.day.case import Hours, Job, Task
    from jamreel.core.bench.day.schedule import schedule

    hours = Hours(((0, 210), (255, 480)), ((0, 210), (255, 480)))
    for pieces, wanted in ((8, 5000), (20, 9000)):
        pick = random.Random(pieces)
        jobs = [
            Job(n, f"piece {n}", tuple(Task(f"s{k}", "", pick.randint(2, 16)) for k in range(12)))
            for n in range(pieces)
        ]
        times = timed(lambda j=jobs: schedule(j, hours, {}), 2)
        report(f"a day of {pieces} pieces of 12 steps", times, wanted)


def log_entries() -> None:
    """Time opening and searching a log of a hundred entries, and of a hundred thousand."""
    from datetime import UTC, datetime

    from jamreel.workshop import log
    from jamreel.workshop.models import LogEntry, Workshop

    at = datetime(2026, 11, 2, tzinfo=UTC)
    for count in (100, 100_000):
        bench = Workshop.objects.create(name=f"Log of {count}")
        kinds = ("cuff", "crown", "bangle", "ring")
        rows = (
            LogEntry(
                workshop=bench, name=f"{kinds[n % 4]} {n}", wearer=f"Wearer {n % 97}",
                metals="copper" if n % 3 else "brass", finished_on=at.date(), finished_at=at,
            )
            for n in range(count)
        )  # fmt: skip
        log.know_words(bench, LogEntry.objects.bulk_create(rows, batch_size=2000))
        for words in ("", "cuff", "brass crown"):
            times = timed(lambda b=bench, w=words: log.entries(b, w, most=8), 40)
            report(f"log of {count}: “{words}”", times)


def shell() -> None:
    """Time a plan from the shell, start to end."""
    command = [sys.executable, "-m", "jamreel", "plan", "docs/examples/sliding-bangle.json"]
    run = partial(subprocess.run, command, cwd=ROOT, check=True, stdout=subprocess.DEVNULL)
    report("jamreel plan, from the shell", timed(run, 7), 900)


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
            f"{100 * plan.gap:5.3f} % {plan.scrap:6.0f}mm {plan.first_fit_scrap:6.0f}mm "
            f"{plan.weight:7.0f}/{plan.bound:.0f}"
        )


def against_highs(limit: float = 30.0) -> None:
    """Lay mixed stock out beside HiGHS (SciPy), on the same model, in the same run."""
    from tools.highs import laid_out_by_highs, mixed_stock

    from jamreel.core.cutting.nest import nest

    print(
        "mixed stock".ljust(24) + "ours   time      HiGHS   time   ours heavier by (wanted < 0.5 %)"
    )
    for count, pieces in ((20, 9), (40, 16), (60, 21)):
        cuts, racks = mixed_stock(count, pieces)
        started = time.perf_counter()
        ours = nest(cuts, racks, keep=60).weight
        between = time.perf_counter()
        theirs = laid_out_by_highs(cuts, racks, 60, limit)
        ended = time.perf_counter()
        print(
            f"{count:>4} cuts, {pieces:>2} pieces {ours:8.1f} {between - started:5.1f} s "
            f"{theirs:8.1f} {ended - between:5.1f} s {100 * (ours / theirs - 1):8.2f} %"
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
    from jamreel.workshop.pieces import start_piece

    bench = build(date(2026, 11, 24))
    client = Client()
    client.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    piece: dict[str, Any] = client.get("/api/pieces/1").json()

    def type_a_digit() -> None:
        trim = f"{1 + piece['version'] % 90 / 100:.2f}"
        body = {"version": piece["version"], "brief": {**piece["brief"], "cutting": {"trim": trim}}}
        answer = client.put("/api/pieces/1/brief", body, content_type="application/json")
        piece["version"] = answer.json()["version"]

    nothing = timed(lambda: client.get("/api/empty"))
    report("API: an endpoint that does nothing", nothing)
    report("API: the bench, twenty-nine pieces", timed(lambda: client.get("/api/bench")))
    report("API: a piece in full", timed(lambda: client.get("/api/pieces/1")))
    keystroke = timed(type_a_digit)
    report("API: a keystroke saved and planned", keystroke, 100)
    for name, brief in (("one kind", of_one_kind()), ("40 kinds", of_forty_kinds())):
        large = start_piece(bench, name, brief)
        size = len(client.get(f"/api/pieces/{large.pk}").content) / 1000
        gz = client.get(f"/api/pieces/{large.pk}", headers={"Accept-Encoding": "gzip"})
        packed = len(gz.content) / 1000
        print(f"API: a piece of 200 parts, {name}: {size:.0f} kB, sent packed as {packed:.0f} kB")
    ratio = keystroke[1] / nothing[1]
    print(f"  {ratio:.1f} times the endpoint that does nothing   wanted under 4")


def beside(commit: str) -> None:
    """Print the short ones of another commit, measured by what stands here."""
    with tempfile.TemporaryDirectory() as folder:
        tree = Path(folder) / "tree"
        added = ["git", "worktree", "add", "--detach", "-f", str(tree), commit]
        subprocess.run(added, cwd=ROOT, check=True, capture_output=True)
        try:
            print(f"{commit}:", flush=True)
            env = {**os.environ, "PYTHONPATH": str(tree / "src")}
            command = [sys.executable, str(ROOT / "tools" / "bench.py"), "--short"]
            subprocess.run(command, cwd=tree, env=env, check=False)
        finally:
            remove = ["git", "worktree", "remove", "--force", str(tree)]
            subprocess.run(remove, cwd=ROOT, check=False, capture_output=True)
    print("now:", flush=True)


def main() -> None:
    """Run all of it against a database of its own."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--short", action="store_true")
    parser.add_argument("--beside", metavar="COMMIT")
    options = parser.parse_args()
    if options.beside:
        beside(options.beside)
    short = (shell, core, make_up, api)
    rest = (woven, limits, day, nesting, against_highs, log_entries)
    with tempfile.TemporaryDirectory() as data:
        os.environ["JAMREEL_DATA"] = data
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
        import django

        django.setup()
        for part in short if options.short else (*short, *rest):
            part()


if __name__ == "__main__":
    main()

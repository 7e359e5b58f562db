"""How long a keystroke waits for others, on a bench served for real; beside another commit too.

    python tools/hands.py [--beside COMMIT]

Prints for each case the middle, the 95 % point and the longest of a hand's keystrokes [ms], and how
much the server has grown [MB]. Server and hands share this machine.
"""

import argparse
import io
import json
import os
import random
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")

import django  # noqa: E402
from PIL import Image  # noqa: E402
from playwright.sync_api import expect, sync_playwright  # noqa: E402

django.setup()

from tests.load.served import BRIEF, Hand, Served  # noqa: E402

KEYSTROKES, BENCHES = 40, 20
# Three keys a second, as somebody types with wire in the other hand [s].
PAUSE_S = 0.3
# Whoever waits this long in all is not asked to go on.
MOST_MS = 60_000
WOVEN = ("knot_row", "flat_plait", "braid", "crossed_wrap")


def example(file: Path) -> dict[str, Any]:
    """Return an example as every release reads it: without the name of a format."""
    brief = json.loads(file.read_text())
    return {key: value for key, value in brief.items() if key != "schema"}


def keystrokes(hand: Hand, piece: int, count: int) -> list[float]:
    """Return how long keystrokes take, one after the other [ms]."""
    found: list[float] = []
    version = hand.ask("GET", f"/api/pieces/{piece}")[1]["version"]
    brief = example(BRIEF)
    for i in range(count):
        if sum(found) > MOST_MS:
            break
        typed = {**brief, "cutting": {"margin": f"{random.random():.6f}{i}"}}
        started = time.perf_counter()
        status, said = hand.ask(
            "PUT", f"/api/pieces/{piece}/brief", {"version": version, "brief": typed}
        )
        found.append(1000 * (time.perf_counter() - started))
        assert status == 200, said
        version = said["version"]
        time.sleep(PAUSE_S)
    return found


@contextmanager
def beside(*works: Callable[[], None]) -> Iterator[None]:
    """Have some hands do something again and again meanwhile."""
    over = threading.Event()

    def again(work: Callable[[], None]) -> None:
        while not over.is_set():
            work()

    hands = [threading.Thread(target=again, args=(work,)) for work in works]
    for one in hands:
        one.start()
    # All of them are at it before the first key is pressed.
    time.sleep(0.5)
    try:
        yield
    finally:
        over.set()
        for one in hands:
            one.join()


def resident(process: int) -> float:
    """Return what a process and those that it forked hold in memory [MB]."""
    listed = subprocess.run(
        ["ps", "-o", "rss=", "--pid", str(process), "--ppid", str(process)],
        capture_output=True, text=True, check=False,
    ).stdout.split()  # fmt: skip
    return sum(map(int, listed)) / 1024


def woven(kind: str, n: int) -> dict[str, Any]:
    """Return a bracelet of a woven body, unlike the others of its kind."""
    brief = example(BRIEF.parent / "linked-bracelet.json")
    entry = {"id": "e1", "part": {"kind": kind, "rows": 7}, "times": 1}
    wire = {"size": f"{1.2 + n / 1000:.3f} mm", "metal": "copper", "temper": "half_hard"}
    fine = {"winding": {"size": "0.4 mm", "metal": "copper", "temper": "dead_soft"}}
    piece = {**brief["piece"], "entries": [entry], "closure": {"kind": "folded_hook"}}
    return {**brief, "piece": piece, "wire": wire, "palette": fine}


def looks(hand: Hand, n: int) -> Callable[[], None]:
    """Return what looks closely at woven bodies that nobody has looked at yet."""
    pieces = []
    for k in range(8):
        brief = woven(WOVEN[k % len(WOVEN)], 40 * n + k)
        made = hand.ask("POST", "/api/pieces", {"name": "Woven", "brief": brief})[1]
        pieces.append(made["id"])
    turn = iter(range(10**9))

    def work() -> None:
        hand.ask("GET", f"/api/pieces/{pieces[next(turn) % 8]}/woven?entry=e1")
        time.sleep(0.3)

    return work


def sends(hand: Hand, entry: int, file: bytes) -> Callable[[], None]:
    """Return what sends a photograph and takes it out again."""

    def work() -> None:
        edge = "jamreelhands"
        head = 'Content-Disposition: form-data; name="photo"; filename="a.jpg"'
        body = (
            f"--{edge}\r\n{head}\r\nContent-Type: image/jpeg\r\n\r\n".encode()
            + file
            + f"\r\n--{edge}--\r\n".encode()
        )
        headers = {
            "Cookie": "; ".join(f"{k}={v}" for k, v in hand.cookies.items()),
            "Content-Type": f"multipart/form-data; boundary={edge}",
            "X-CSRFToken": hand.cookies.get("jamreel_csrf", ""),
        }
        hand.to.request("POST", f"/api/log/{entry}/photos", body, headers)
        answer = hand.to.getresponse()
        said = json.loads(answer.read())
        hand.last = time.monotonic()
        for photo in said.get("photos", []):
            hand.ask("DELETE", f"/api/log/photos/{photo}")
        time.sleep(0.3)

    return work


def strangers(port: int) -> Callable[[], None]:
    """Return what somebody without a session asks for."""
    hand = Hand(port)

    def work() -> None:
        hand.ask("GET", "/api/openapi.json")

    return work


def report(name: str, found: list[float], wanted: float | None = None) -> None:
    """Print one line."""
    found = sorted(found)
    p95 = found[min(len(found) - 1, int(0.95 * len(found)))]
    want = f"   wanted under {wanted:g}" if wanted else ""
    middle = statistics.median(found)
    print(
        f"  {name:<46} p50 {middle:6.0f}   p95 {p95:6.0f}   max {found[-1]:6.0f}{want}", flush=True
    )


WATCH = """() => {
  const figure = document.querySelector("[data-drawn=rule]").parentElement;
  window.spent = [];
  new MutationObserver(() => {
    if (window.typedAt) window.spent.push(performance.now() - window.typedAt);
    window.typedAt = 0;
  }).observe(figure, { subtree: true, childList: true, characterData: true, attributes: true });
  document.addEventListener("input", () => { window.typedAt = performance.now(); }, true);
}"""


def drawn(served: Served, hand: Hand) -> None:
    """Time a digit typed in the browser until the drawing has moved."""
    flags = ["--no-sandbox", "--disable-gpu"]
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=flags)
        base = f"http://127.0.0.1:{served.port}"
        context = chromium.new_context(base_url=base, viewport={"width": 1280, "height": 800})
        for name, value in hand.cookies.items():
            context.add_cookies([{"name": name, "value": value, "url": base}])
        page = context.new_page()
        page.goto("/pieces/2/measure")
        field = page.get_by_label("Hand pass girth, reading 3")
        field.wait_for()
        page.evaluate(WATCH)
        for n in range(20):
            field.fill(f"{200 + n}")
            expect(page.get_by_role("status").first).to_have_text("saved")
            page.wait_for_timeout(PAUSE_S * 1000)
        report("a digit in the browser, until it is drawn", page.evaluate("window.spent"))
        chromium.close()


def picture() -> bytes:
    """Return a JPEG of many dots in a small file."""
    out = io.BytesIO()
    Image.new("RGB", (7000, 7000), (13, 110, 99)).save(out, "JPEG")
    return out.getvalue()


def measured(source: Path) -> None:
    """Run every case against a server of one tree."""
    os.environ["PYTHONPATH"] = str(source / "src")
    with tempfile.TemporaryDirectory() as data, Served(Path(data), [2] * BENCHES) as served:
        hands = [Hand(served.port).sign_in(n) for n in range(BENCHES)]
        types, others = hands[0], hands[1:]
        report("one hand alone", keystrokes(types, 1, KEYSTROKES))
        drawn(served, types)
        with beside(*(strangers(served.port) for _ in range(8))):
            report("eight strangers at the document", keystrokes(types, 1, KEYSTROKES), 300)
        close = [looks(hand, n) for n, hand in enumerate(others[:8])]
        with beside(*close):
            report("eight looking closely at woven bodies", keystrokes(types, 1, KEYSTROKES), 300)
        time.sleep(6)
        photographs(served, types, hands[1])
        twenty(hands)


def photographs(served: Served, types: Hand, sender: Hand) -> None:
    """Time keystrokes while photographs are sent, and say how much the server grew."""
    sender.ask("POST", "/api/pieces/3/finish", {"finished": True})
    entry = sender.ask("GET", "/api/log")[1]["entries"][0]["id"]
    before = resident(served.process.pid)
    with beside(sends(sender, entry, picture())):
        report("photographs of 49 million dots", keystrokes(types, 1, KEYSTROKES), 300)
    grown = resident(served.process.pid) - before
    print(f"  the server has grown by {grown:.0f} MB   wanted under 30")


def twenty(hands: list[Hand]) -> None:
    """Time twenty hands typing at once, with boards, proposals and a day among them."""
    found: list[float] = []
    guard = threading.Lock()

    def types(n: int) -> None:
        mine = keystrokes(hands[n], 1 + 2 * n, KEYSTROKES)
        with guard:
            found.extend(mine)

    def boards() -> None:
        hands[1].ask("GET", "/api/pieces/4/proposals")
        hands[1].ask("GET", "/api/board?pieces=4")
        stretch = {"start": "0:05", "end": "23:50"}
        day = {"pieces": [4], "hours": [stretch], "there_is": {"hands": 1}, "zone": "UTC"}
        hands[1].ask("PUT", "/api/day", day)
        time.sleep(0.5)

    with beside(boards):
        typing = [threading.Thread(target=types, args=(n,)) for n in range(BENCHES) if n != 1]
        for one in typing:
            one.start()
        for one in typing:
            one.join()
    report("twenty hands, with boards and a day", found, 300)


def main() -> None:
    """Measure this tree, and another commit before it where one is named."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--beside", metavar="COMMIT")
    options = parser.parse_args()
    if options.beside:
        with tempfile.TemporaryDirectory() as folder:
            tree = Path(folder) / "tree"
            run = ["git", "worktree", "add", "--detach", "-f", str(tree), options.beside]
            subprocess.run(run, cwd=ROOT, check=True, capture_output=True)
            try:
                (tree / "frontend" / "dist").symlink_to(ROOT / "frontend" / "dist")
                print(f"{options.beside}:")
                measured(tree)
            finally:
                remove = ["git", "worktree", "remove", "--force", str(tree)]
                subprocess.run(remove, cwd=ROOT, check=False, capture_output=True)
    print("now:")
    measured(ROOT)


if __name__ == "__main__":
    main()

"""How much of the core's arithmetic its tests watch over: one operator is changed at a time.

    python tools/changed_sums.py [how many] [seed] [--only 3,7] [--in part/of/a/path.py]
                                 [--without-kept]

Each change is made in a copy of the sources; the core's own tests and the validation tests then run
against the copy, those first that speak of the changed module. A change that no test finds is
printed with its place. Doctests run too: they are tests of the core.

A change that leaves every result as it was is printed as ``same`` with its reason, and counts for
nothing: a slack of a hair, where a search begins, how long a solver may take.

With ``--without-kept`` no test counts that compares figures or pictures with how they were: what is
found then was found by a sum of its own. The changes are of arithmetic alone, five of each folder.
"""

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
CORE = Path("src/jamreel/core")
SWAPS: dict[type[ast.AST], str] = {
    ast.Add: "-",
    ast.Sub: "+",
    ast.Mult: "/",
    ast.Div: "*",
    ast.Pow: "*",
    ast.Lt: ">",
    ast.Gt: "<",
    ast.LtE: ">",
    ast.GtE: "<",
}
SIGNS = {ast.Add: "+", ast.Sub: "-", ast.Mult: "*", ast.Div: "/", ast.Pow: "**"}
SIGNS |= {ast.Lt: "<", ast.Gt: ">", ast.LtE: "<=", ast.GtE: ">="}
# No test takes longer over a change than all tests over none; a loop without end is found.
PATIENCE_S = 420
TESTS = ("tests/core", "tests/validation")
# Tests that compare with what is kept, and one that does among others.
KEPT = ("test_kept_figures.py",)
KEPT_AMONG_OTHERS = "the_pictures_in_the_docs"
ARITHMETIC = {"+", "-", "*", "/", "**"}
# What is added or taken off to be on the safe side of rounding.
SLACK = 1e-5
# Lines, as they stand, of which a change can't be told by any result, and why.
SAME = {
    "solver = budget.solve(built.model, budget.left * 0.5)": "how long a solver may take",
    "kept, budget.wall = (budget.wall or 0.0) / 2, (budget.wall or 0.0) / 2": "the same",
    "return root(miss, 1e-5 * elastic, elastic, within=1e-9)": "where a search begins",
}
OF_EACH_FOLDER = 5


@dataclass(frozen=True)
class Change:
    """One operator of one file: where it stands in the text, what it was, what it becomes, and why
    that can't be told, where it can't."""

    path: Path
    line: int
    start: int
    was: str
    becomes: str
    same: str = ""

    def __str__(self) -> str:
        return f"{self.path}:{self.line}  {self.was} -> {self.becomes}"


def places(path: Path) -> Iterator[Change]:
    """Yield every operator between numbers in a file, and every comparison of sizes."""
    text = (ROOT / path).read_text()
    lines = text.splitlines(keepends=True)
    starts = [sum(len(line) for line in lines[:n]) for n in range(len(lines))]

    def offset(line: int, column: int) -> int:
        return starts[line - 1] + len(lines[line - 1].encode()[:column].decode())

    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.BinOp) and type(node.op) in SIGNS:
            left, op, right = node.left, node.op, node.right
            if any(map(is_no_number, (left, right))):
                continue
        elif isinstance(node, ast.Compare) and type(node.ops[0]) in SIGNS:
            left, op, right = node.left, node.ops[0], node.comparators[0]
        else:
            continue
        assert left.end_lineno is not None
        assert left.end_col_offset is not None
        after = offset(left.end_lineno, left.end_col_offset)
        before = offset(right.lineno, right.col_offset)
        at = text.find(SIGNS[type(op)], after, before)
        if at >= 0:
            same = SAME.get(lines[node.lineno - 1].strip(), "")
            if any(map(is_slack, (left, right))) and type(op) in (ast.Add, ast.Sub):
                same = "a slack of a hair"
            yield Change(path, node.lineno, at, SIGNS[type(op)], SWAPS[type(op)], same)


def is_slack(node: ast.AST) -> bool:
    """Return whether an operand is so small that it only keeps clear of rounding."""
    value = node.value if isinstance(node, ast.Constant) else None
    return isinstance(value, float) and 0 < abs(value) <= SLACK


def is_no_number(node: ast.AST) -> bool:
    """Return whether an operand is text or a sequence, which operators only put together."""
    if isinstance(node, ast.Constant):
        return isinstance(node.value, str)
    return isinstance(node, ast.JoinedStr | ast.List | ast.Tuple | ast.ListComp)


def chosen(count: int, seed: int, within: str) -> list[Change]:
    """Return so many changes, drawn from a seed; every operator of the core is as likely."""
    files = sorted(path.relative_to(ROOT) for path in (ROOT / CORE).rglob("*.py"))
    every = [change for path in files if within in str(path) for change in places(path)]
    return random.Random(seed).sample(every, min(count, len(every)))


def of_each_folder(count: int, seed: int, within: str) -> list[Change]:
    """Return changes of arithmetic, five of each folder of the core, the folders drawn too."""
    pick = random.Random(seed)
    folders: dict[str, list[Change]] = {}
    for path in sorted(one.relative_to(ROOT) for one in (ROOT / CORE).rglob("*.py")):
        inside = path.relative_to(CORE).parts
        if within in str(path) and len(inside) > 1:
            sums = [change for change in places(path) if change.was in ARITHMETIC]
            folders.setdefault(inside[0], []).extend(sums)
    able = sorted(name for name, every in folders.items() if len(every) >= OF_EACH_FOLDER)
    pick.shuffle(able)
    found = [one for name in able for one in pick.sample(folders[name], OF_EACH_FOLDER)]
    return found[:count]


def files_for(change: Change, *, kept: bool) -> list[str]:
    """Return the test files: the kept figures first where they count, for they are quick and see
    everything, then those that import the changed module or its neighbours."""
    module = ".".join(change.path.with_suffix("").parts[1:])
    neighbours = module.rsplit(".", 1)[0]
    tests = sorted(path for where in TESTS for path in (ROOT / where).rglob("test_*.py"))

    def far(path: Path) -> int:
        text = path.read_text()
        if path.name == "test_kept_figures.py":
            return -1
        return 0 if module in text else 1 if neighbours in text else 2

    tests = [path for path in tests if kept or path.name not in KEPT]
    return [str(path.relative_to(ROOT)) for path in sorted(tests, key=far)]


def is_found(change: Change, *, kept: bool) -> bool:
    """Return whether the tests fail on a change, with or without those that compare with what is
    kept."""
    with tempfile.TemporaryDirectory() as copy:
        shutil.copytree(ROOT / "src", Path(copy) / "src", ignore=shutil.ignore_patterns("*.pyc"))
        changed = Path(copy) / change.path
        text = changed.read_text()
        end = change.start + len(change.was)
        changed.write_text(text[: change.start] + change.becomes + text[end:])
        env = os.environ | {"PYTHONPATH": str(Path(copy) / "src"), "CI": "1"}
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider"]
        if not kept:
            command += ["-k", f"not {KEPT_AMONG_OTHERS}"]
        runs = ([str(changed)], files_for(change, kept=kept))
        return any(fails([*command, *what], env) for what in runs)


def fails(command: list[str], env: dict[str, str]) -> bool:
    """Return whether a run of tests fails; one that does not end fails too."""
    try:
        run = subprocess.run(
            command, cwd=ROOT, env=env, capture_output=True, timeout=PATIENCE_S, check=False
        )
    except subprocess.TimeoutExpired:
        return True
    # 5: a file without doctests.
    return run.returncode not in (0, 5)


def main() -> None:
    """Make changes, say of each whether it was found, and end with the share."""
    ask = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    ask.add_argument("count", type=int, nargs="?", default=40)
    ask.add_argument("seed", type=int, nargs="?", default=1)
    ask.add_argument("--only", default="", help="numbers of changes, as a run printed them")
    ask.add_argument("--in", dest="within", default="", help="a part of the path")
    ask.add_argument("--without-kept", action="store_true", help="by sums of their own alone")
    options = ask.parse_args()
    kept = not options.without_kept
    draw = chosen if kept else of_each_folder
    only = {int(n) for n in options.only.split(",") if n}
    found = tried = 0
    for n, change in enumerate(draw(options.count, options.seed, options.within), 1):
        if only and n not in only:
            continue
        was_found = is_found(change, kept=kept)
        if change.same and not was_found:
            print(f"{n:>3} same    {change}: {change.same}", flush=True)
            continue
        tried += 1
        found += was_found
        print(f"{n:>3} {'found' if was_found else 'MISSED':<7} {change}", flush=True)
    print(f"{found} of {tried} changes were found (seed {options.seed})")


if __name__ == "__main__":
    main()

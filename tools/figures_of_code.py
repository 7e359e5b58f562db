"""Prints how much code there is: lines, the share of tests, the longest functions and files.

``python tools/figures_of_code.py`` reads what git keeps.
"""

import ast
import re
import subprocess
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[1]
BY_HAND = {".py", ".ts", ".tsx", ".css"}
GENERATED = ("openapi.json", "schemas.json", "schema.d.ts")
LONGEST_FUNCTION, LONGEST_FILE = 60, 450


def kept() -> list[Path]:
    """Return the files that git keeps."""
    names = subprocess.check_output(["git", "ls-files"], cwd=ROOT, text=True)
    return [ROOT / name for name in names.splitlines() if (ROOT / name).is_file()]


def lines(path: Path) -> int:
    """Return the lines of a file that are not blank."""
    return sum(bool(line.strip()) for line in path.read_text(encoding="utf-8").splitlines())


def is_test(path: Path) -> bool:
    """Return whether a file is one of the tests."""
    return "tests" in path.relative_to(ROOT).parts or ".test." in path.name


def code_lines(source: str) -> int:
    """Return the lines of Python that do something: no docstring, comment or blank."""
    tree = ast.parse(source)
    silent = {n for n, line in enumerate(source.splitlines(), 1) if re.match(r"\s*(#|$)", line)}
    for _, node in owners(tree):
        first = node.body[0] if node.body else None
        if isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant):
            silent |= set(range(first.lineno, (first.end_lineno or first.lineno) + 1))
    return len(source.splitlines()) - len(silent)


def owners(tree: ast.AST) -> Iterator[tuple[str, ast.Module | ast.ClassDef | ast.FunctionDef]]:
    """Yield what may have a docstring, by name."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef):
            yield getattr(node, "name", ""), node


def functions(path: Path) -> Iterator[tuple[int, str]]:
    """Yield the functions of a module with the lines of their bodies, without their docstrings."""
    for name, node in owners(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.FunctionDef):
            body = node.body
            first = body[0]
            if isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant):
                body = body[1:]
            if body:
                where = f"{path.parent.name}/{path.name}:{name}"
                yield (body[-1].end_lineno or 0) - body[0].lineno + 1, where


def main() -> None:
    """Print the figures."""
    files = [path for path in kept() if path.suffix in BY_HAND]
    python = [path for path in files if path.suffix == ".py"]
    source = [path for path in python if path.is_relative_to(ROOT / "src")]
    generated = sum(lines(path) for path in kept() if path.name in GENERATED)
    written = [path for path in files if path.name not in GENERATED]
    tests = sum(lines(path) for path in written if is_test(path))
    everything = sum(lines(path) for path in written)
    print(f"generated lines that are kept   {generated:>8,}")
    print(f"lines by hand, not blank        {everything:>8,}")
    print(f"of these tests                  {tests / everything:>8.1%}")
    code = sum(code_lines(path.read_text(encoding="utf-8")) for path in source)
    print(f"lines of code in src            {code:>8,}")
    found = sorted((one for path in source for one in functions(path)), reverse=True)
    long = [one for one in found if one[0] > LONGEST_FUNCTION]
    print(f"functions over {LONGEST_FUNCTION} lines: {len(long)}")
    for count, name in found[: max(len(long), 3)]:
        print(f"  {count:>4}  {name}")
    sizes = sorted(((lines(path), path) for path in written if not is_test(path)), reverse=True)
    large = [one for one in sizes if one[0] > LONGEST_FILE]
    print(f"files over {LONGEST_FILE} lines: {len(large)}")
    for count, path in large[:10] or sizes[:3]:
        print(f"  {count:>4}  {path.relative_to(ROOT)}")


if __name__ == "__main__":
    main()

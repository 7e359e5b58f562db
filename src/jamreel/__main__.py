"""The command-line door: ``jamreel plan FILE.json``, and all that runs and keeps a bench."""

import argparse
import json
import sys
from pathlib import Path
from typing import Any

from jamreel.core.json_text import MOST_BYTES, read_json
from jamreel.core.plan import BriefRefused, plan_raw, read_shop
from jamreel.core.problem import problem_details
from jamreel.core.shop import Shop
from jamreel.core.words import Problem, say

REFUSED = 2


def main(arguments: list[str] | None = None) -> int:
    """Run one command. Returns 0, or 2 with problem JSON on standard output for bad input."""
    parser = argparse.ArgumentParser(prog="jamreel", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    planning = commands.add_parser("plan", help=say("command.plan"))
    planning.add_argument("brief", help=say("command.plan_brief"))
    planning.add_argument("--shop", help=say("command.plan_shop"))
    commands.add_parser("schemas", help=say("command.schemas"))
    demo = commands.add_parser("demo", help=say("command.demo"))
    demo.add_argument("--port", type=int, default=8720)
    demo.add_argument("--prepare", action="store_true", help=say("command.prepare"))
    commands.add_parser("serve", help=say("command.serve"))
    backing = commands.add_parser("backup", help=say("command.backup"))
    backing.add_argument("--to", type=Path, help=say("command.backup_to"))
    backing.add_argument("--keep", type=int, default=14, help=say("command.backup_keep"))
    restoring = commands.add_parser("restore", help=say("command.restore"))
    restoring.add_argument("backup", type=Path)
    commands.add_parser("check", help=say("command.check"))
    chosen = parser.parse_args(arguments)
    if chosen.command == "plan":
        return _plan(chosen.brief, chosen.shop)
    if chosen.command == "schemas":
        from jamreel.core.formats import schemas

        print(json.dumps(schemas(), indent=2, ensure_ascii=False))
        return 0
    # Django is not needed, nor loaded, for a plan.
    if chosen.command == "demo":
        from jamreel.site.serving import serve_demo

        return serve_demo(chosen.port, only_prepare=chosen.prepare)
    if chosen.command == "serve":
        from jamreel.site.serving import serve

        return serve()
    from jamreel.site import keeping

    return keeping.run(chosen)


def _plan(brief: str, shop: str | None) -> int:
    try:
        settings = read_shop(_read(shop)) if shop else Shop()
        result = plan_raw(_read(brief), settings)
    except BriefRefused as refused:
        print(json.dumps(problem_details(refused.problems), indent=2, ensure_ascii=False))
        print(refused, file=sys.stderr)
        return REFUSED
    print(result.model_dump_json(indent=2))
    return 0


def _read(name: str) -> Any:
    try:
        # A byte more than is allowed tells that it is too long, however long it is.
        if name == "-":
            raw = sys.stdin.buffer.read(MOST_BYTES + 1)
        else:
            with Path(name).open("rb") as file:
                raw = file.read(MOST_BYTES + 1)
        return read_json(raw)
    except (OSError, ValueError) as error:
        raise BriefRefused((_unreadable(name, error),)) from None


def _unreadable(name: str, error: Exception) -> Problem:
    return Problem(
        field="",
        key="json",
        expected=say("json.expected"),
        got=name,
        says=say("json.unreadable", name=name, why=str(error)),
    )


if __name__ == "__main__":
    sys.exit(main())

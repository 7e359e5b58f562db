"""Plans are worked out once: by brief, shop, what was done, and the code."""

import os
from collections.abc import Iterator
from copy import deepcopy
from pathlib import Path
from typing import Any

import pytest
from django.db import connection

from jamreel.core import plan as core_plan
from jamreel.core.shop import Shop
from jamreel.core.workpiece.records import Record
from jamreel.workshop import finishing, making, planning
from jamreel.workshop.board import lay_out, outstanding, short_of, to_fetch
from jamreel.workshop.models import Piece, Wearer, Workshop
from jamreel.workshop.pieces import save_brief, start_piece
from jamreel.workshop.planning import (
    brief_for_planning,
    fingerprint,
    forget_plans,
    plan_of,
    shop_of,
    work_out,
)
from jamreel.workshop.shops import change_hand
from tests.conftest import WORKED
from tests.core.families import example


@pytest.fixture
def planned(monkeypatch: pytest.MonkeyPatch) -> Iterator[list[Any]]:
    """What was really planned, in order; nothing is remembered from before."""
    forget_plans()
    asked: list[Any] = []
    real = core_plan.plan_raw

    def counted(brief: Any, shop: Shop, records: Any = ()) -> Any:
        asked.append(brief)
        return real(brief, shop, records)

    monkeypatch.setattr(planning, "plan_raw", counted)
    yield asked
    forget_plans()


def test_a_brief_is_planned_once(planned: list[Any]) -> None:
    first = work_out(WORKED, Shop())
    again = work_out(deepcopy(WORKED), Shop())
    assert again is first
    assert len(planned) == 1


def test_another_brief_shop_or_record_is_another_plan(planned: list[Any]) -> None:
    work_out(WORKED, Shop())
    work_out({**WORKED, "cutting": {"trim": "2"}}, Shop())
    work_out(WORKED, Shop(keep_length=80))
    cut = Record(kind="cut", key="bangle", planned=245.5, actual=240.0)
    done = work_out(WORKED, Shop(), [cut])
    assert len(planned) == 4
    assert done.standing.wires[0].verdict == "short"
    assert done.records == (cut,)


def test_other_code_is_another_plan(planned: list[Any], monkeypatch: pytest.MonkeyPatch) -> None:
    work_out(WORKED, Shop())
    monkeypatch.setattr(planning, "code", lambda: "later")
    work_out(WORKED, Shop())
    assert len(planned) == 2


def test_problems_are_remembered_like_plans(planned: list[Any]) -> None:
    wrong = {**WORKED, "wire": {"size": "14 whatever"}}
    one, two = work_out(wrong, Shop()), work_out(wrong, Shop())
    assert one is two
    assert one.plan is None
    assert one.problems[0].field == "wire.size"
    assert len(planned) == 1


def test_so_many_are_remembered_and_no_more(
    planned: list[Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(planning, "MOST_REMEMBERED", 3)
    briefs = [{**WORKED, "cutting": {"trim": f"1.{n}"}} for n in range(5)]
    for brief in briefs:
        work_out(brief, Shop())
    work_out(briefs[-1], Shop())
    assert len(planned) == 5
    work_out(briefs[0], Shop())
    assert len(planned) == 6


def test_what_was_looked_at_last_stays(planned: list[Any], monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(planning, "MOST_REMEMBERED", 2)
    one, two, three = ({**WORKED, "cutting": {"trim": f"2.{n}"}} for n in range(3))
    for brief in (one, two, one, three, one):
        work_out(brief, Shop())
    assert len(planned) == 3


def pieces_of(bench: Workshop) -> list[Piece]:
    names = ("linked_bracelet", "linked_necklace", "closed_bangle", "ear_cuff")
    return [start_piece(bench, name, example(name)) for name in names]


def test_a_board_plans_each_piece_once(bench: Workshop, planned: list[Any]) -> None:
    pieces = pieces_of(bench)
    forget_plans()
    planned.clear()
    lay_out(bench, pieces)
    assert len(planned) == len(pieces)
    shop = shop_of(bench)
    outstanding(pieces, shop)
    short_of(bench, to_fetch(bench, pieces))
    assert len(planned) == len(pieces)


def test_a_tick_plans_before_the_database_is_locked(
    bench: Workshop, planned: list[Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    piece = start_piece(bench, "Links", example("linked_bracelet"))
    forget_plans()
    planned.clear()
    locked: list[bool] = []
    real = core_plan.plan_raw

    def watched(*args: Any) -> Any:
        # The test's own transaction is one block deep.
        locked.append(len(connection.savepoint_ids) > 0)
        return real(*args)

    monkeypatch.setattr(planning, "plan_raw", watched)
    making.tick(bench, piece.pk, "cut", "e1/linked_bead#1")
    assert locked[0] is False


def test_a_save_plans_its_brief_once(bench: Workshop, planned: list[Any]) -> None:
    piece = start_piece(bench, "Bangle", WORKED)
    planned.clear()
    save_brief(bench, piece.pk, piece.version, {**WORKED, "cutting": {"trim": "3"}})
    assert len(planned) == 1


def test_a_childs_piece_is_planned_as_one(bench: Workshop) -> None:
    piece = start_piece(bench, "Choker", example("choker"))
    assert brief_for_planning(piece)["child"] is False
    child = Wearer.objects.create(workshop=bench, name="Wren Halloway", is_child=True)
    piece.wearer = child
    assert brief_for_planning(piece)["child"] is True
    plan = plan_of(piece, shop_of(bench)).plan
    assert plan is not None
    assert "child_neck" in {note.id for note in plan.advice}


def test_the_code_s_name_goes_by_what_is_written_not_by_when(tmp_path: Path) -> None:
    folder, beside = tmp_path / "core", tmp_path / "stations.py"
    (folder / "data").mkdir(parents=True)
    (folder / "rule.py").write_text("a = 1")
    (folder / "data" / "metals.toml").write_text("copper = 1")
    beside.write_text("state = 1")
    first = fingerprint(folder, [beside])
    os.utime(folder / "rule.py", (1, 1))
    (folder / "__pycache__").mkdir()
    (folder / "__pycache__" / "rule.pyc").write_text("whatever")
    assert fingerprint(folder, [beside]) == first
    found = {first}
    for path, text in (
        (folder / "rule.py", "a = 2"),
        (folder / "data" / "metals.toml", "copper = 2"),
        (beside, "state = 2"),
        (folder / "more.py", ""),
    ):
        path.write_text(text)
        found.add(fingerprint(folder, [beside]))
    assert len(found) == 5


def test_what_derives_states_is_part_of_the_code_s_name() -> None:
    here = Path(planning.__file__).parent
    core = Path(core_plan.__file__).parent
    derives = [here / name for name in ("planning.py", "stations.py", "turns.py")]
    assert planning.code() == fingerprint(core, derives)
    assert planning.code() != fingerprint(core, derives[:2])


def test_what_the_hand_tells_makes_stale_only_what_goes_by_it(
    bench: Workshop, brief: dict[str, Any]
) -> None:
    plain = start_piece(bench, "Bangle", brief)
    by_record = start_piece(bench, "By the record", {**brief, "cutting": {"school": "record"}})
    made = start_piece(bench, "Made", brief)
    before = made.worked_by
    making.tick(bench, made.pk, "cut", "bangle")
    finishing.finish(bench, made.pk, finished=True)
    line = {"technique": "loop", "stock": "copper", "n": 2, "mean": 1.2, "squares": 0}
    change_hand(bench, lambda known: {"hand": {"lines": [line]}})
    bench.refresh_from_db()
    # The settings are as a tab has them, so that they can be saved there.
    assert bench.shop_version == 1
    assert "hand" not in bench.shop
    assert shop_of(bench).hand.lines[0].mean == 1.2
    plain.refresh_from_db()
    by_record.refresh_from_db()
    assert (plain.worked_by, by_record.worked_by) == (before, "")
    change_hand(bench, lambda known: {"measured": []})
    plain.refresh_from_db()
    assert plain.worked_by == ""

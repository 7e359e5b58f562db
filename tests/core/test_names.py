"""Names that stay: what was done stays with its thing through any edits, or is no longer needed.

A maker's edits are played at random on a make-up whose wires were partly cut, step by step; after
each one the plan is made anew and what was cut is held against it.
"""

import random
from collections.abc import Callable, Iterator
from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jamreel.core.cutting.cuts import of_cut
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.workpiece.records import Record, Standing, record_of_step, standing

Row = dict[str, Any]

BRIEF: Row = {
    "schema": "0.2",
    "measures": {"wrist_girth": {"readings": [{"value": "160"}]}},
    "ease": {"school": "fixed", "word": "comfortable"},
    "wire": {"size": "20 awg", "metal": "copper", "temper": "half_hard"},
    "cutting": {"trim": "1.5"},
}
# Parts that are made of wire of their own, told apart by what they take.
CHOICES: list[Row] = [
    {"kind": "linked_bead", "bead": "6", "pin": "3"},
    {"kind": "linked_bead", "bead": "8", "pin": "3"},
    {"kind": "linked_bead", "bead": "8", "pin": "4"},
    {"kind": "figure_eight", "pin": "4"},
    {"kind": "eye_link", "pin": "3"},
    {"kind": "ring_link", "pin": "9"},
    {"kind": "jump_ring", "pin": "4"},
]


def planned(entries: list[Row], mirrored: bool = False) -> Plan:
    piece = {
        "kind": "linked_bracelet",
        "counted": False,
        "entries": deepcopy(entries),
        "mirrored": mirrored,
        "closure": {"kind": "folded_hook", "wire": "18 awg"},
    }
    return plan_raw({**deepcopy(BRIEF), "piece": piece}, Shop())


def every(rows: list[Row]) -> Iterator[tuple[Row, list[Row], int]]:
    """Yield each entry with the list that holds it and its place there."""
    for at, row in enumerate(rows):
        yield row, rows, at
        yield from every(row.get("group", []))


class Maker:
    """Edits a row of entries as the screens do, and can take it all back."""

    def __init__(self, seed: int) -> None:
        self.pick = random.Random(seed)
        self.names = iter(f"n{n}" for n in range(10_000))
        self.rows = [self.fresh() for _ in range(self.pick.randint(1, 4))]
        self.past: list[list[Row]] = []
        self.undone: list[list[Row]] = []

    def fresh(self) -> Row:
        part = deepcopy(self.pick.choice(CHOICES))
        return {"id": next(self.names), "part": part, "times": self.pick.randint(1, 4)}

    def renamed(self, row: Row) -> Row:
        twin = {**deepcopy(row), "id": next(self.names)}
        if "group" in twin:
            twin["group"] = [self.renamed(one) for one in twin["group"]]
        return twin

    def edit(self) -> str:
        """Make one edit and return its name."""
        name = self.pick.choice(
            ["move", "insert", "delete", "double", "group", "ungroup", "change", "undo", "redo"]
        )
        if name == "undo":
            if self.past:
                self.undone.append(self.rows)
                self.rows = self.past.pop()
        elif name == "redo":
            if self.undone:
                self.past.append(self.rows)
                self.rows = self.undone.pop()
        else:
            before = deepcopy(self.rows)
            row, held_by, at = self.pick.choice(list(every(self.rows)))
            getattr(self, name)(row, held_by, at)
            if not self.rows or len(list(every(self.rows))) > 12:
                self.rows = before
            self.past.append(before)
            self.undone = []
        return name

    def move(self, row: Row, rows: list[Row], at: int) -> None:
        rows.insert(self.pick.randrange(len(rows)), rows.pop(at))

    def insert(self, row: Row, rows: list[Row], at: int) -> None:
        rows.insert(at, self.fresh())

    def delete(self, row: Row, rows: list[Row], at: int) -> None:
        if rows is self.rows or len(rows) > 1:
            rows.pop(at)

    def double(self, row: Row, rows: list[Row], at: int) -> None:
        rows.insert(at + 1, self.renamed(row))

    def group(self, row: Row, rows: list[Row], at: int) -> None:
        deep = rows is not self.rows
        if not deep and at + 1 < len(rows) and not any("group" in one for one in rows[at : at + 2]):
            rows[at : at + 2] = [{"id": next(self.names), "group": rows[at : at + 2], "times": 2}]

    def ungroup(self, row: Row, rows: list[Row], at: int) -> None:
        rows[at : at + 1] = row.get("group", [row])

    def change(self, row: Row, rows: list[Row], at: int) -> None:
        row["times"] = self.pick.randint(1, 5)
        if "part" in row and self.pick.random() < 0.5:
            row["part"] = deepcopy(self.pick.choice(CHOICES))


def cut_some(plan: Plan, pick: random.Random, records: list[Record]) -> list[Record]:
    """Return records with some more wires cut, as the plan of now wants them."""
    cuts = {cut.id: cut for cut in plan.cuts}
    wanted = list(standing(plan, records).open_wires)
    new = []
    for key in pick.sample(wanted, min(len(wanted), pick.randint(0, 3))):
        cut = cuts[of_cut(key)[0]]
        new.append(
            Record(
                kind="cut",
                key=key,
                planned=cut.length_mm,
                actual=cut.length_mm,
                says=cut.label,
                stock=cut.stock,
            )
        )
    done = {record.key for record in records}
    for step in pick.sample(plan.steps, min(2, len(plan.steps))):
        if step.id not in done and step.id in step.stands_for:
            new.append(record_of_step(plan.steps, step, step.id))
            done.add(step.id)
    return [*records, *new]


def assert_nothing_passed_to_another(plan: Plan, records: list[Record], rows: list[Row]) -> None:
    now = standing(plan, records)
    cuts = {cut.id: cut for cut in plan.cuts}
    names = {row["id"] for row, _, _ in every(rows)}
    wires = {record.key: record for record in records if record.kind == "cut"}
    # Each stands exactly once.
    assert sorted(wire.key for wire in now.wires) == sorted(wires)
    for wire in now.wires:
        record, name = wires[wire.key], of_cut(wire.key)[0]
        owner = name.split("/")[0]
        if owner not in ("coil", "closure", "string") and owner not in names:
            assert wire.verdict == "not_needed"
        if wire.verdict == "right":
            assert abs(cuts[name].length_mm - (record.actual or 0)) <= 0.5
            assert cuts[name].stock == record.stock
        if wire.verdict in ("long", "short"):
            assert wire.by_mm == pytest.approx(abs(cuts[name].length_mm - (record.actual or 0)))
    # What serves and what is still open make up what is wanted, cut by cut.
    for cut in plan.cuts:
        mine = [wire for wire in now.wires if of_cut(wire.key)[0] == cut.id]
        serving = [
            w for w in mine if w.verdict in ("right", "long") or (w.verdict == "short" and w.known)
        ]
        still = [key for key in now.open_wires if of_cut(key)[0] == cut.id]
        assert len(serving) + len(still) == cut.quantity
        assert not {wire.key for wire in mine} & set(still)
    done = {record.key for record in records if record.kind == "step"}
    assert {step.key for step in now.steps} == done
    for step in now.steps:
        owner = step.key.split("/")[0]
        if "/" in step.key and owner not in names | {"coil", "closure", "string", "hung"}:
            assert step.verdict == "not_needed"


@settings(max_examples=40)
@given(st.integers(0, 100_000))
def test_what_was_done_stays_with_its_thing_through_any_edits(seed: int) -> None:
    maker = Maker(seed)
    records: list[Record] = []
    for _ in range(8):
        plan = planned(maker.rows)
        assert_nothing_passed_to_another(plan, records, maker.rows)
        records = cut_some(plan, maker.pick, records)
        assert_nothing_passed_to_another(plan, records, maker.rows)
        maker.edit()


@settings(max_examples=30)
@given(st.integers(0, 100_000))
def test_an_edit_taken_back_leaves_everything_as_it_stood(seed: int) -> None:
    maker = Maker(seed)
    before = planned(maker.rows)
    records = cut_some(before, maker.pick, [])
    stood = standing(before, records)
    kept = deepcopy(maker.rows)
    name = maker.edit()
    if name not in ("undo", "redo"):
        maker.undone.append(maker.rows)
        maker.rows = maker.past.pop()
    assert maker.rows == kept
    assert standing(planned(maker.rows), records) == stood


def swapped(entries: list[Row]) -> list[Row]:
    return list(reversed(entries))


@pytest.fixture
def two_kinds() -> list[Row]:
    return [
        {"id": "small", "part": CHOICES[0], "times": 3},
        {"id": "large", "part": CHOICES[1], "times": 2},
    ]


def test_two_kinds_that_change_places_keep_their_ticks(two_kinds: list[Row]) -> None:
    plan = planned(two_kinds)
    lengths = {cut.id: cut.length_mm for cut in plan.cuts}
    mine = [key for key in standing(plan, []).open_wires if key.startswith("large/")]
    records = [
        Record(kind="cut", key=key, planned=lengths[of_cut(key)[0]], actual=lengths[of_cut(key)[0]])
        for key in mine
    ]
    assert len(records) == 2
    after = standing(planned(swapped(two_kinds)), records)
    assert [wire.verdict for wire in after.wires] == ["right", "right"]
    assert not [key for key in after.open_wires if key.startswith("large/")]
    assert len([key for key in after.open_wires if key.startswith("small/")]) == 3


def by_owner(plan: Plan) -> dict[str, float]:
    return {cut.id: cut.length_mm for cut in plan.cuts if "/" in cut.id}


@pytest.mark.parametrize(
    "edit",
    [
        swapped,
        lambda rows: [{"id": "both", "group": rows, "times": 1}],
        lambda rows: [{**rows[0], "times": 7}, rows[1]],
        lambda rows: [{"id": "new", "part": CHOICES[3]}, *rows],
    ],
)
def test_wires_are_called_by_their_entry_wherever_it_stands(
    two_kinds: list[Row], edit: Callable[[list[Row]], list[Row]]
) -> None:
    before, after = by_owner(planned(two_kinds)), by_owner(planned(edit(two_kinds)))
    for key, length in before.items():
        if key.split("/")[0] in ("small", "large"):
            assert after[key] == pytest.approx(length)


def test_what_is_alike_is_cut_together_and_keeps_whom_it_is_for() -> None:
    rows = [
        {"id": "left", "part": CHOICES[0], "times": 2},
        {"id": "mid", "part": CHOICES[1], "times": 1},
        {"id": "right", "part": CHOICES[0], "times": 2},
    ]
    plan = planned(rows)
    own = {cut.id: cut for cut in plan.cuts if cut.id.split("/")[0] in ("left", "mid", "right")}
    left = next(cut for key, cut in own.items() if key.startswith("left/"))
    right = next(cut for key, cut in own.items() if key.startswith("right/"))
    mid = next(cut for key, cut in own.items() if key.startswith("mid/"))
    assert left.alike == right.alike
    assert mid.alike != left.alike
    assert (left.quantity, right.quantity) == (2, 2)
    # The way is the same for all five beads: each step is said once, and counts them all.
    together = [step for step in plan.steps if step.id.split("/")[0] in ("left", "mid", "right")]
    assert together
    for step in together:
        assert {key.split("/")[0] for key in step.stands_for} == {"left", "mid", "right"}
        assert "× 5" in step.title


def test_a_doubled_entry_is_a_thing_of_its_own(two_kinds: list[Row]) -> None:
    one = planned(two_kinds)
    key = next(k for k in standing(one, []).open_wires if k.startswith("large/"))
    cut = next(cut for cut in one.cuts if cut.id == of_cut(key)[0])
    records = [Record(kind="cut", key=key, planned=cut.length_mm, actual=cut.length_mm)]
    twin = {**two_kinds[1], "id": "twin"}
    now = standing(planned([*two_kinds, twin]), records)
    assert now.wires[0].verdict == "right"
    assert len([k for k in now.open_wires if k.startswith("twin/")]) == 2
    assert len([k for k in now.open_wires if k.startswith("large/")]) == 1


@pytest.mark.parametrize(
    ("name", "field"),
    [
        ("Left", "entries.0.id"),
        ("no spaces", "entries.0.id"),
        ("x" * 17, "entries.0.id"),
        ("coil", "entries.0.id"),
        ("closure", "entries.0.id"),
    ],
)
def test_a_name_that_can_not_be_is_refused_at_its_place(name: str, field: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        planned([{"id": name, "part": CHOICES[0]}])
    assert refused.value.problems[0].field == f"piece.{field}"


def test_one_name_for_two_entries_is_refused() -> None:
    rows = [{"id": "same", "part": CHOICES[0]}, {"id": "same", "part": CHOICES[1]}]
    with pytest.raises(BriefRefused) as refused:
        planned(rows)
    (problem,) = refused.value.problems
    assert (problem.field, problem.got) == ("piece.entries", "same")


def test_entries_without_a_name_get_one_that_no_other_has() -> None:
    plan = planned([{"part": CHOICES[0]}, {"id": "e1", "part": CHOICES[1]}])
    owners = {cut.id.split("/")[0]: cut.length_mm for cut in plan.cuts if "linked" in cut.id}
    assert len(owners) == 2
    assert owners["e1"] == max(owners.values())


def test_a_bead_too_few_is_open_and_one_too_many_is_not_needed(two_kinds: list[Row]) -> None:
    plan = planned(two_kinds)
    length = {cut.id: cut.length_mm for cut in plan.cuts}
    small = [k for k in standing(plan, []).open_wires if k.startswith("small/")]
    records = [
        Record(kind="cut", key=k, planned=length[of_cut(k)[0]], actual=length[of_cut(k)[0]])
        for k in small
    ]
    fewer: Standing = standing(planned([{**two_kinds[0], "times": 2}, two_kinds[1]]), records)
    assert sorted(wire.verdict for wire in fewer.wires) == ["not_needed", "right", "right"]
    more = standing(planned([{**two_kinds[0], "times": 5}, two_kinds[1]]), records)
    assert [wire.verdict for wire in more.wires] == ["right"] * 3
    still = [key for key in more.open_wires if key.startswith("small/")]
    assert len(still) == 2
    assert not set(still) & set(small)

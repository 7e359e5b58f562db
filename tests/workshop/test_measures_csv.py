"""Measures in and out: looked at first, imported all or not at all."""

import csv
import io
from typing import Any

import pytest

from jamreel.core.plan import read_girth
from jamreel.core.shop import Shop
from jamreel.workshop.measures_csv import COLUMNS, Import, export_csv, import_rows, read_csv
from jamreel.workshop.models import Reading, Wearer, Workshop
from jamreel.workshop.wearers import keep_readings, measures_of

HEADER = ",".join(COLUMNS)


def bring_in(bench: Workshop, lines: list[str], *, commit: bool) -> Import:
    found, refused = read_csv("\n".join([HEADER, *lines]))
    return import_rows(bench, found, refused, commit=commit)


def test_what_goes_out_comes_in_again(bench: Workshop) -> None:
    wearer = Wearer.objects.create(
        workshop=bench, name='Alder "Finch", elder', part="the Reed", is_child=True
    )
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "158"}, {"value": "159"}])
    strap = [{"value": "6 3/4", "method": "strap", "thickness": "1/16"}]
    keep_readings(bench, wearer.pk, "ankle_girth", strap, "in")
    text = export_csv(bench)
    assert next(csv.reader(io.StringIO(text))) == list(COLUMNS)
    before = {s: read_girth(s, m, Shop()).value_mm for s, m in measures_of(wearer, "mm").items()}
    Wearer.objects.all().delete()
    found, refused = read_csv(text)
    assert refused == []
    assert import_rows(bench, found, refused, commit=True).imported
    back = Wearer.objects.get(workshop=bench)
    assert (back.name, back.part, back.is_child) == ('Alder "Finch", elder', "the Reed", True)
    after = {s: read_girth(s, m, Shop()).value_mm for s, m in measures_of(back, "mm").items()}
    assert after == before


def test_looking_changes_nothing(bench: Workshop) -> None:
    look = bring_in(bench, ["Wren,,,wrist_girth,158,tape,,,"], commit=False)
    assert (look.readings, look.new_names, look.imported) == (1, ["Wren"], False)
    assert not Wearer.objects.exists()


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("Wren,,,wrist_girth,58,tape,,,", "outside 80 mm to 280 mm"),
        ("Wren,,,wrist_girth,soft,tape,,,", "can't be read"),
        ("Wren,,,waist_girth,700,tape,,,", "no site"),
        ("Wren,,,wrist_girth,158,guess,,,", "can't be used"),
        (",,,wrist_girth,158,tape,,,", "No name"),
        ("Wren,,,wrist_girth,171,piece,,,", "needs the ease"),
    ],
)
def test_nothing_is_half_imported(bench: Workshop, line: str, says: str) -> None:
    good = "Finch,,,wrist_girth,150,tape,,,2026-11-01T14:10"
    done = bring_in(bench, [good, line], commit=True)
    assert not done.imported
    assert [(r.line, says in r.says) for r in done.refused] == [(3, True)]
    assert not Wearer.objects.exists()
    assert not Reading.objects.exists()


def test_readings_that_contradict_each_other_are_refused_together(bench: Workshop) -> None:
    lines = ["Wren,,,wrist_girth,158,tape,,,", "Wren,,,wrist_girth,178,tape,,,"]
    done = bring_in(bench, lines, commit=True)
    assert "Take another reading" in done.refused[0].says
    four = [f"Wren,,,wrist_girth,{v},tape,,," for v in (158, 158, 159, 159)]
    assert "three readings" in bring_in(bench, four, commit=True).refused[0].says


def test_a_file_without_the_columns_says_which(bench: Workshop) -> None:
    found, refused = read_csv("who,value\nWren,158")
    assert found == []
    assert "name, site, value [mm]" in refused[0].says


def test_an_import_replaces_what_stood_and_keeps_it_as_history(bench: Workshop) -> None:
    wearer = Wearer.objects.create(workshop=bench, name="Wren")
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "150"}])
    done = bring_in(bench, ["Wren,,,wrist_girth,158,tape,,,2026-11-01T14:10"], commit=True)
    assert done.new_names == []
    typed: dict[str, Any] = measures_of(wearer, "mm")
    assert [r["value"] for r in typed["wrist_girth"]["readings"]] == ["158 mm"]
    assert wearer.readings.filter(replaced=True).count() == 1

from datetime import date
from typing import Any

import pytest
from django.db import models

from jamreel.core.families import registered
from jamreel.core.plan import read_girth
from jamreel.core.shop import Shop
from jamreel.workshop import models as workshop_models
from jamreel.workshop.demo import build
from jamreel.workshop.demo_files import cast, extras
from jamreel.workshop.models import (
    DayPlan,
    LogEntry,
    Owned,
    Photo,
    Piece,
    Stock,
    Wait,
    Wearer,
    Workshop,
)
from jamreel.workshop.planning import brief_for_planning, shop_of, work_out
from jamreel.workshop.stock import amount_of
from jamreel.workshop.wearers import keep_readings, measures_of
from tests.conftest import shared_folder
from tests.demo_made import put_back

MADE = len(cast()) + len(extras())


@pytest.fixture
def wearer(bench: Workshop) -> Wearer:
    return Wearer.objects.create(workshop=bench, name="Alder Finch")


def test_new_readings_stand_and_old_ones_stay_as_history(wearer: Wearer) -> None:
    keep_readings(wearer.workshop, wearer.pk, "wrist_girth", [{"value": "158"}, {"value": ""}])
    again = [{"value": "159", "method": "string", "thickness": "1"}, {"value": "159.5"}]
    keep_readings(wearer.workshop, wearer.pk, "wrist_girth", again)
    typed = measures_of(wearer, "mm")["wrist_girth"]["readings"]
    assert [r["value"] for r in typed] == ["159", "159.5"]
    assert typed[0]["thickness"] == "1"
    assert wearer.readings.count() == 3
    assert wearer.readings.filter(replaced=True).count() == 1


def test_readings_taken_in_inches_mean_the_same_to_a_metric_brief(wearer: Wearer) -> None:
    keep_readings(wearer.workshop, wearer.pk, "wrist_girth", [{"value": "6 1/4"}], "in")
    for unit in ("mm", "in"):
        typed = measures_of(wearer, unit)["wrist_girth"]
        girth = read_girth("wrist_girth", typed, Shop(unit=unit))
        assert girth.value_mm == pytest.approx(158.75)


def test_every_row_belongs_to_a_workshop() -> None:
    rows = [
        m
        for m in vars(workshop_models).values()
        if isinstance(m, type) and issubclass(m, models.Model) and not m._meta.abstract
    ]
    assert len(rows) >= 6
    assert all(issubclass(m, Owned) or m is Workshop for m in rows)


def plan_of(piece: Piece) -> Any:
    return work_out(brief_for_planning(piece), shop_of(piece.workshop)).plan


@pytest.fixture
def demo(transactional_db: None, tmp_path_factory: pytest.TempPathFactory) -> Workshop:
    put_back(shared_folder(tmp_path_factory), whole=False)
    return Workshop.objects.get()


def test_the_demo_has_a_piece_at_every_station(demo: Workshop) -> None:
    found = list(Piece.objects.filter(workshop=demo))
    assert len(cast()) == 9
    assert len(found) == MADE
    wearers = {p.wearer_id for p in found}
    assert len(wearers) == 9
    plans = [plan_of(p) for p in found]
    families = {plan.family for plan in plans if plan}
    assert families == {cls.family for cls in registered().values()}
    assert {p.waits_for for p in found} == {
        "measure", "make_up", "cut", "form", "try_on", "put_right", "done",
    }  # fmt: skip
    assert any(p.state["guessed"] for p in found)
    assert any(p.state["stations"]["cut"]["state"] == "stale" for p in found)


def test_the_demo_is_built_once_and_then_kept(demo: Workshop) -> None:
    Piece.objects.filter(workshop=demo).first().delete()  # type: ignore[union-attr]
    assert build(date(2026, 11, 25)) == demo
    assert Piece.objects.filter(workshop=demo).count() == MADE - 1


def test_measures_of_the_cast_can_all_be_read(demo: Workshop) -> None:
    for wearer in Wearer.objects.filter(workshop=demo):
        for site, typed in measures_of(wearer, "mm").items():
            girth: Any = read_girth(site, typed, Shop())
            assert girth.count == len(typed["readings"])


def test_the_whole_demo_has_a_season_behind_it_and_a_piece_at_work(
    transactional_db: None, tmp_path_factory: pytest.TempPathFactory
) -> None:
    put_back(shared_folder(tmp_path_factory), whole=True)
    whole = Workshop.objects.get()
    entries = LogEntry.objects.filter(workshop=whole, opened_at=None)
    assert entries.count() >= 60
    made = [one for one in entries if one.made_mm or one.inside_made_mm]
    assert len(made) > 40
    assert all(one.minutes for one in entries.order_by("pk")[:60])
    assert Photo.objects.filter(workshop=whole).exists()
    wait = Wait.objects.get(workshop=whole, over_at=None)
    assert (wait.ends_at - wait.began_at).total_seconds() >= 45 * 60
    assert DayPlan.objects.get(workshop=whole).found["placed"]
    hand = shop_of(whole).hand
    loop = hand.of("loop", "copper/half_hard/round/1.63x1.63")
    # The season's maker takes 3.5 % more for a loop: that is what the records come to.
    assert loop.own > 30
    assert loop.belief.mean == pytest.approx(1.035, abs=0.01)
    # All that was bought for the season was used: the rack is as the demo hangs it.
    reel = Stock.objects.get(workshop=whole, name="copper 14 AWG, big reel")
    assert amount_of(reel) == pytest.approx(11_400)
    # Nothing of the season is left on the bench.
    assert Piece.objects.filter(workshop=whole, finished_at=None).count() == MADE - 2

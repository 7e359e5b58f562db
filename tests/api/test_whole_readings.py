"""A reading is one value: all that was noted of it comes back whole by every door."""

import json
import random
from typing import Any

import pytest
from django.test import Client

from jamreel.core.body.facts import methods, sites
from jamreel.core.body.readings import Reading
from jamreel.core.plan import read_girth
from jamreel.core.shop import Shop
from jamreel.workshop.models import Workshop

Typed = dict[str, Any]
STRAP = {"method": "strap", "thickness": "2", "posture": "arm hanging"}


def send(client: Client, method: str, path: str, body: Any) -> Any:
    answer = client.generic(method, path, json.dumps(body), content_type="application/json")
    assert answer.status_code in (200, 201), answer.content
    return answer.json()


def wearer(client: Client, name: str) -> Typed:
    listed: list[Typed] = client.get("/api/wearers").json()
    return next(one for one in listed if one["name"] == name)


def drawn(method: str, pick: random.Random) -> tuple[str, list[Typed]]:
    """Readings of a site that such a method serves, no two alike in anything."""
    kinds = methods()[method].kinds
    site = pick.choice([one for one, facts in sites().items() if facts.kind in kinds])
    middle = (sites()[site].low + sites()[site].high) / 2
    found = []
    for n in range(pick.randint(1, 3)):
        one: Typed = {
            "value": f"{middle + 0.1 * n:.2f}",
            "method": method,
            "taken": f"2026-11-{pick.randint(1, 28):02}T{pick.randint(0, 23):02}:1{n}+00:00",
        }
        if pick.random() < 0.5:
            one["thickness"] = f"{0.1 + 0.01 * n:.2f}"
        if methods()[method].needs_ease or pick.random() < 0.3:
            one["ease"] = f"{0.2 + 0.01 * n:.2f}"
        if pick.random() < 0.5:
            one["posture"] = pick.choice(["fist", "arm hanging", "=lying", "à plat"])
        found.append(one)
    return site, found


def bare(readings: list[Typed]) -> list[Typed]:
    """Readings with the unit off their lengths: a file says it of every one."""
    strip = Reading.lengths()
    return [
        {k: v.removesuffix(" mm") if k in strip else v for k, v in one.items()} for one in readings
    ]


@pytest.mark.parametrize("method", sorted(methods()))
def test_readings_come_back_whole_by_every_door(client: Client, brief: Typed, method: str) -> None:
    pick = random.Random(method)
    for n in range(4):
        site, readings = drawn(method, pick)
        name = f"Osier {n}"
        made = send(client, "POST", "/api/wearers", {"name": name})
        path = f"/api/wearers/{made['id']}/readings"
        page = send(client, "PUT", path, {"site": site, "readings": readings})
        assert page["measures"][site]["readings"] == readings
        assert [r["typed"] for r in reversed(page["readings"])] == readings
        # A piece takes them over, and gives them back to the wearer.
        bare_brief = {k: v for k, v in brief.items() if k != "measures"}
        body = {"name": "Bangle", "wearer_id": made["id"], "brief": bare_brief}
        piece = send(client, "POST", "/api/pieces", body)
        assert piece["brief"]["measures"][site]["readings"] == readings
        assert piece["wearer_measures"][site]["readings"] == readings
        # The whole cast sends them as it got them.
        cells = [{"name": f"Cast {n}", "site": site, "reading": one} for one in readings]
        assert send(client, "POST", "/api/cast", {"cells": cells, "commit": True})["imported"]
        assert wearer(client, f"Cast {n}")["measures"][site]["readings"] == readings
        # A file brings them to somebody else.
        text = (
            client.get("/api/measures.csv").content.decode("utf-8-sig").replace(name, f"File {n}")
        )
        done = send(client, "POST", "/api/measures", {"text": text, "commit": True})
        assert (done["refused"], done["imported"]) == ([], True)
        filed = wearer(client, f"File {n}")["measures"][site]["readings"]
        assert bare(filed) == readings
        girth = read_girth(site, {"readings": readings}, Shop()).value_mm
        assert read_girth(site, {"readings": filed}, Shop()).value_mm == pytest.approx(girth)


def test_one_changed_strap_reading_of_three_leaves_the_girth_a_strap_s(
    client: Client, bench: Workshop
) -> None:
    made = send(client, "POST", "/api/wearers", {"name": "Teasel"})
    readings = [{"value": value, **STRAP} for value in ("170", "171", "170.5")]
    path = f"/api/wearers/{made['id']}/readings"
    send(client, "PUT", path, {"site": "wrist_girth", "readings": readings})
    kept = wearer(client, "Teasel")["measures"]["wrist_girth"]["readings"]
    # As the screen of the whole cast sends it: the others as they came.
    kept[1]["value"] = "171.5"
    cells = [{"name": "Teasel", "site": "wrist_girth", "reading": one} for one in kept]
    send(client, "POST", "/api/cast", {"cells": cells, "commit": True})
    found = wearer(client, "Teasel")
    # 170.667 less twice pi times the strap's thickness: it was read along its outside.
    assert found["girths"][0]["value_mm"] == pytest.approx(512 / 3 - 4 * 3.14159265, abs=1e-4)
    # The wearer's page corrects it, too.
    kept[2]["value"] = "171"
    answer = send(client, "PUT", path, {"site": "wrist_girth", "readings": kept})
    assert answer["problems"] == []
    assert answer["measures"]["wrist_girth"]["readings"][2] | STRAP == kept[2]


@pytest.mark.parametrize(
    ("reading", "status"),
    [
        ({"value": "160", "posture": "x" * 41}, 422),
        ({"value": "160", "posture": {"held": "up"}}, 422),
        ({"value": "160", "held": "up"}, 422),
    ],
)
def test_what_is_no_reading_is_refused_and_nothing_of_it_kept(
    client: Client, reading: Typed, status: int
) -> None:
    made = send(client, "POST", "/api/wearers", {"name": "Teasel"})
    body = {"site": "wrist_girth", "readings": [reading]}
    path = f"/api/wearers/{made['id']}/readings"
    answer = client.put(path, json.dumps(body), content_type="application/json")
    assert answer.status_code == status
    cell = {"name": "Teasel", "site": "wrist_girth", "reading": reading}
    done = send(client, "POST", "/api/cast", {"cells": [cell], "commit": True})
    assert len(done["refused"]) == 1
    assert wearer(client, "Teasel")["measures"] == {}

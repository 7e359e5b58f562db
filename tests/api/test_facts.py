"""What a browser loads first: facts once, answers packed, scripts no heavier than stated."""

import gzip
import json
from functools import cache
from typing import Any

import brotli
import pytest
from django.test import Client

from jamreel.core.closures import registered_closures
from jamreel.core.formats import schemas
from jamreel.core.parts import registered_parts
from tests.conftest import ROOT

DIST = ROOT / "frontend" / "dist"
# A first load: script, packed as it is served [bytes].
MOST_SCRIPT = 110_000


def test_facts_are_sent_once_and_then_known_by_their_tag(client: Client) -> None:
    first = client.get("/api/facts")
    assert first.status_code == 200
    tag = first["ETag"]
    again = client.get("/api/facts", headers={"If-None-Match": tag})
    assert (again.status_code, again.content) == (304, b"")
    assert again["ETag"] == tag
    # A cache on the way may have packed it, and says so.
    weak = client.get("/api/facts", headers={"If-None-Match": f'"other", W/{tag}'})
    assert weak.status_code == 304
    other = client.get("/api/facts", headers={"If-None-Match": '"something-else"'})
    assert other.status_code == 200


def test_a_metal_of_the_makers_own_changes_the_facts(client: Client) -> None:
    tag = client.get("/api/facts")["ETag"]
    shop = client.get("/api/shop").json()
    metal = {"id": "shibuichi", "name": "shibuichi", "density": 9.6, "youngs": 105_000}
    typed = {**shop["typed"], "metals": [metal]}
    saved = client.put(
        "/api/shop",
        json.dumps({"version": shop["version"], "shop": typed}),
        content_type="application/json",
    )
    if saved.status_code != 200:
        pytest.fail(saved.content.decode())
    now = client.get("/api/facts", headers={"If-None-Match": tag})
    assert now.status_code == 200
    assert now["ETag"] != tag
    assert "shibuichi" in {metal["name"] for metal in now.json()["metals"]}


def test_the_suggested_construction_comes_first(client: Client) -> None:
    kinds = [kind["kind"] for kind in client.get("/api/facts").json()["kinds"]]
    assert kinds[0] == "sliding_bangle"
    assert kinds[1:] == sorted(kinds[1:])


def test_answers_are_packed_for_those_who_can_unpack_them(client: Client) -> None:
    plain = client.get("/api/facts", headers={"Accept-Encoding": "identity"})
    packed = client.get("/api/facts", headers={"Accept-Encoding": "gzip"})
    assert packed["Content-Encoding"] == "gzip"
    assert json.loads(gzip.decompress(packed.content)) == plain.json()
    assert len(packed.content) < 0.25 * len(plain.content)


def needed(manifest: dict[str, Any], name: str, seen: set[str]) -> set[str]:
    """Return the files that a chunk needs at once, itself among them."""
    if name in seen:
        return seen
    seen.add(name)
    for other in manifest[name].get("imports", []):
        needed(manifest, other, seen)
    return seen


@pytest.fixture(scope="module")
def manifest() -> dict[str, Any]:
    found: dict[str, Any] = json.loads((DIST / ".vite" / "manifest.json").read_text())
    return found


@cache
def packed(file: str) -> int:
    return len(brotli.compress((DIST / file).read_bytes()))


def packed_size(manifest: dict[str, Any], names: set[str]) -> int:
    return sum(packed(file) for file in {manifest[name]["file"] for name in names})


def test_a_first_load_is_light_whichever_screen_it_opens(manifest: dict[str, Any]) -> None:
    entry = next(name for name, chunk in manifest.items() if chunk.get("isEntry"))
    at_once = needed(manifest, entry, set())
    assert packed_size(manifest, at_once) < MOST_SCRIPT
    screens = manifest[entry].get("dynamicImports", [])
    assert len(screens) >= 5
    sizes = {
        screen: packed_size(manifest, needed(manifest, screen, set(at_once))) for screen in screens
    }
    bench = next(size for screen, size in sizes.items() if "Bench" in screen)
    assert bench < MOST_SCRIPT
    # No other screen is loaded with the first one.
    assert not set(screens) & at_once


def test_no_mathematics_font_and_no_shape_library_ship(manifest: dict[str, Any]) -> None:
    names = " ".join(path.name.lower() for path in DIST.rglob("*"))
    assert "math" not in names
    lock = (ROOT / "frontend" / "package-lock.json").read_text()
    assert "d3-shape" not in lock


@pytest.mark.parametrize("name", ["brief", "shop", "plan"])
def test_the_formats_are_served_as_the_models_have_them(name: str) -> None:
    """What the build put there is what ``jamreel schemas`` prints, every kind in it."""
    served = json.loads((DIST / "docs" / f"{name}.json").read_text())
    assert served == json.loads(json.dumps(schemas()[name]))
    if name == "brief":
        told = json.dumps(served)
        assert all(f'"{kind}"' in told for kind in (*registered_parts(), *registered_closures()))


def test_the_api_tells_pieces_as_typed_data_with_a_kind() -> None:
    document = json.loads((DIST / "docs" / "api.json").read_text())
    piece = document["components"]["schemas"]["Brief_as_typed"]["properties"]["piece"]
    assert (piece["required"], piece["additionalProperties"]) == (["kind"], True)
    assert "knot_row" not in json.dumps(document["components"]["schemas"])

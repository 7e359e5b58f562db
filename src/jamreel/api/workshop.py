"""The workshop's settings and tools, and the facts a front end lists."""

import hashlib
import json
from functools import cache, lru_cache
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import ShopTyped, WireTyped
from jamreel.core.body.facts import Method, PopulationRange, Site, methods, populations, sites
from jamreel.core.choices import Choice
from jamreel.core.closures import registered_closures
from jamreel.core.families import Construction, registered
from jamreel.core.families.composed import Composed
from jamreel.core.forming.palette import palette_of
from jamreel.core.parts import registered_parts
from jamreel.core.parts.beads import OneBead
from jamreel.core.parts.own_shape import OwnMove
from jamreel.core.parts.pictures import shifted
from jamreel.core.shop import Shop
from jamreel.core.values import Stroke
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import Metal, OwnMetal, WireChoice, all_metals, metals
from jamreel.core.words import say
from jamreel.workshop.archive import note_tools_gone
from jamreel.workshop.models import Workshop
from jamreel.workshop.planning import code, shop_of
from jamreel.workshop.shops import OF_HAND, change_shop

router = Router(tags=["workshop"])


class Line(Schema):
    """A list of entries that a piece of parts has, and what it is called."""

    name: str
    says: str


class PresetView(Schema):
    """A further way to start a construction: its choices and wire as typed."""

    name: str
    says: str
    piece: dict[str, Any]
    wire: WireTyped


class Kind(Schema):
    """A construction: its family, the measures it needs and uses, and what it asks."""

    kind: str
    says: str
    family: str
    worn_on: str
    sites: list[str]
    helps: list[str]
    choices: list[Choice]
    asks: list[str]
    eases: bool
    wired: bool
    composed: bool
    any_section: bool
    hangs: bool
    usual_wire: WireTyped
    defaults: dict[str, Any]
    lines: list[Line]
    presets: list[PresetView]


class OnShelf(Schema):
    """A part or closure to pick: what it asks, and what it looks like as it comes."""

    kind: str
    says: str
    help: str
    role: str
    choices: list[Choice]
    defaults: dict[str, Any]
    strokes: list[Stroke]
    grades: bool = False


class MetalNotes(Schema):
    """How a metal is annealed, what it does to skin, how it tarnishes; empty for one's own."""

    anneal: str
    skin: str
    tarnish: str


class Facts(Schema):
    """What can be chosen from."""

    sites: list[Site]
    methods: list[Method]
    populations: list[PopulationRange]
    metals: list[Metal]
    metal_notes: dict[str, MetalNotes]
    kinds: list[Kind]
    parts: list[OnShelf]
    closures: list[OnShelf]
    moves: list[Choice]
    beads: list[Choice]


class ShopView(Schema):
    """The workshop's settings as typed and as read, and their version."""

    version: int
    typed: ShopTyped
    shop: Shop


class ShopIn(Schema):
    """Settings as typed, and the version they were made from."""

    version: int = Field(strict=True, ge=1, le=2**31)
    shop: ShopTyped


def _view(workshop: Workshop) -> ShopView:
    return ShopView(version=workshop.shop_version, typed=workshop.shop, shop=shop_of(workshop))


@router.get("/facts", response={200: Facts, 304: None, **EVERY_ERROR})
def facts(request: HttpRequest) -> HttpResponse:
    """Return sites, methods, ranges, metals (the maker's own among them) and constructions.

    They change with the code and the maker's metals only: a browser that has them is told so.
    """
    own = json.dumps([metal.model_dump() for metal in shop_of(bench_of(request)).metals])
    tag = f'"{hashlib.sha1((code() + own).encode(), usedforsecurity=False).hexdigest()}"'
    known = request.headers.get("If-None-Match", "")
    if tag in (one.strip().removeprefix("W/") for one in known.split(",")):
        answer = HttpResponse(status=304)
    else:
        answer = HttpResponse(_facts(own), content_type="application/json")
    answer["ETag"], answer["Cache-Control"] = tag, "private, no-cache"
    return answer


@lru_cache(maxsize=32)
def _facts(metals_as_json: str) -> str:
    own = tuple(OwnMetal.model_validate(one) for one in json.loads(metals_as_json))
    return Facts(
        sites=list(sites().values()),
        methods=list(methods().values()),
        populations=list(populations().values()),
        metals=list(all_metals(own).values()),
        metal_notes={key: _notes(key) for key in all_metals(own)},
        kinds=[_kind(kind, cls) for kind, cls in registered().items()],
        parts=_parts(),
        closures=_closures(),
        moves=list(OwnMove.choices()),
        beads=list(OneBead.choices()),
    ).model_dump_json()


def _kind(kind: str, cls: type[Construction]) -> Kind:
    composed = issubclass(cls, Composed)
    return Kind(
        kind=kind,
        says=say(f"family.{kind}"),
        family=cls.family,
        worn_on=cls.worn_on,
        sites=list(cls.sites),
        helps=list(cls.helps),
        choices=list(cls.choices()),
        asks=list(cls.asks),
        eases=cls.eases,
        wired=cls.wired,
        composed=composed,
        any_section=cls.any_section,
        hangs="hung" in cls.model_fields,
        usual_wire=dict(cls.usual_wire),
        defaults=_make_up(cls) if issubclass(cls, Composed) else {},
        lines=[Line(name=n, says=say(f"line.{n}")) for n in getattr(cls, "lines", ())],
        presets=[
            PresetView(
                name=one.name,
                says=say(f"family.{one.name}"),
                piece={"kind": kind, **one.piece},
                wire=one.wire,
            )
            for one in cls.presets
        ],
    )


def _notes(metal: str) -> MetalNotes:
    if metal not in metals() or metals()[metal].cord:
        return MetalNotes(anneal="", skin="", tarnish="")
    return MetalNotes(
        anneal=say(f"metal_note.{metal}.anneal"),
        skin=say(f"metal_note.{metal}.skin"),
        tarnish=say(f"metal_note.{metal}.tarnish"),
    )


# What the shelf's pictures are drawn in.
_SAMPLE = palette_of(WireChoice(size=WireSize(diameter_mm=0.9)))


def _make_up(cls: type[Composed]) -> dict[str, Any]:
    """Return the make-up that a composed piece starts with, as a brief would say it."""
    names = set(Composed.model_fields) | set(cls.lines)
    return {
        name: value
        for name, value in cls.model_validate({}).model_dump(mode="json").items()
        if name in names and name not in ("kind", "counted")
    }


@cache
def _parts() -> list[OnShelf]:
    return [
        OnShelf(
            kind=kind,
            says=say(f"shelf.{kind}.name"),
            help=say(f"shelf.{kind}.help"),
            role=cls.model_validate({}).role,
            choices=list(cls.choices()),
            defaults=cls.model_validate({}).model_dump(mode="json"),
            strokes=list(cls.model_validate({}).make(_SAMPLE).strokes),
            grades=cls.grades is not None,
        )
        for kind, cls in registered_parts().items()
    ]


@cache
def _closures() -> list[OnShelf]:
    found = []
    for kind, cls in registered_closures().items():
        made = cls.model_validate({}).make(_SAMPLE)
        # Fastened: the holding half's bearing point where the receiving half's is.
        left = shifted(made.holding.strokes, -made.holding.length)
        found.append(
            OnShelf(
                kind=kind,
                says=say(f"closure.{kind}.name"),
                help=say(f"closure.{kind}.help"),
                role="closure",
                choices=list(cls.choices()),
                defaults=cls.model_validate({}).model_dump(mode="json"),
                strokes=[*made.receiving.strokes, *left],
            )
        )
    return found


@router.get("/shop", response={200: ShopView, **EVERY_ERROR}, by_alias=True)
def shop(request: HttpRequest) -> ShopView:
    """Return the workshop's settings."""
    return _view(bench_of(request))


@router.put("/shop", response={200: ShopView, **EVERY_ERROR}, by_alias=True)
def save_shop(request: HttpRequest, payload: ShopIn) -> ShopView:
    """Save the settings when they can be read; every piece is worked out anew.

    What is on record of the hand is no setting: it stays.
    """
    workshop = bench_of(request)
    before = workshop.shop if isinstance(workshop.shop, dict) else {}
    typed = {key: value for key, value in payload.shop.items() if key not in OF_HAND}
    changed = change_shop(workshop, payload.version, typed)
    note_tools_gone(changed, before, typed)
    return _view(changed)

"""The workshop's settings and tools, and the facts a front end lists."""

from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.core.body.facts import Method, PopulationRange, Site, methods, populations, sites
from jamreel.core.families import registered
from jamreel.core.families.base import Choice
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import Metal, metals
from jamreel.core.words import say
from jamreel.workshop.models import Workshop
from jamreel.workshop.pieces import shop_of
from jamreel.workshop.shops import change_shop

router = Router(tags=["workshop"])


class Kind(Schema):
    """A construction: its family, the measures it needs and uses, and what it asks."""

    kind: str
    says: str
    family: str
    part: str
    sites: list[str]
    helps: list[str]
    choices: list[Choice]
    asks: list[str]
    eases: bool
    wired: bool


class Facts(Schema):
    """What can be chosen from."""

    sites: list[Site]
    methods: list[Method]
    populations: list[PopulationRange]
    metals: list[Metal]
    kinds: list[Kind]


class ShopView(Schema):
    """The workshop's settings as typed and as read, and their version."""

    version: int
    typed: dict[str, Any]
    shop: Shop


class ShopIn(Schema):
    """Settings as typed, and the version they were made from."""

    version: int = Field(strict=True, ge=1)
    shop: dict[str, Any]


def _view(workshop: Workshop) -> ShopView:
    return ShopView(version=workshop.shop_version, typed=workshop.shop, shop=shop_of(workshop))


@router.get("/facts", response={200: Facts, **EVERY_ERROR})
def facts(request: HttpRequest) -> Facts:
    """Return sites, methods, ranges, metals and constructions."""
    return Facts(
        sites=list(sites().values()),
        methods=list(methods().values()),
        populations=list(populations().values()),
        metals=list(metals().values()),
        kinds=[
            Kind(
                kind=kind,
                says=say(f"family.{kind}"),
                family=cls.family,
                part=cls.part,
                sites=list(cls.sites),
                helps=list(cls.helps),
                choices=list(cls.choices()),
                asks=list(cls.asks),
                eases=cls.eases,
                wired=cls.wired,
            )
            for kind, cls in registered().items()
        ],
    )


@router.get("/shop", response={200: ShopView, **EVERY_ERROR}, by_alias=True)
def shop(request: HttpRequest) -> ShopView:
    """Return the workshop's settings."""
    return _view(bench_of(request))


@router.put("/shop", response={200: ShopView, **EVERY_ERROR}, by_alias=True)
def save_shop(request: HttpRequest, payload: ShopIn) -> ShopView:
    """Save the settings when they can be read; every piece is worked out anew."""
    return _view(change_shop(bench_of(request), payload.version, payload.shop))

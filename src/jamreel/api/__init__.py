"""The API: parse, call, answer. Thin by rule; what is decided is decided below."""

import json
from typing import Any, NoReturn

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.parser import Parser
from pydantic.json_schema import models_json_schema

from jamreel import __version__
from jamreel.api.auth import SignedIn
from jamreel.api.errors import handle_errors
from jamreel.core.brief import Brief
from jamreel.core.shop import Shop


class StrictParser(Parser):
    """JSON as the standard has it: NaN and Infinity are no numbers."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Return the parsed body. Raises ValueError, which answers 400."""
        return json.loads(request.body, parse_constant=_no_constant)


def _no_constant(name: str) -> NoReturn:
    raise ValueError(f"{name} is not a number")


class JamReelAPI(NinjaAPI):
    """Adds to the document what the front end needs types for: brief and shop as typed."""

    def get_openapi_schema(self, **kwargs: Any) -> Any:
        """Return the OpenAPI document."""
        document = super().get_openapi_schema(**kwargs)
        _, extra = models_json_schema(
            [(Brief, "validation"), (Shop, "validation")],
            ref_template="#/components/schemas/{model}_as_typed",
        )
        schemas = document["components"]["schemas"]
        for name, schema in extra["$defs"].items():
            schemas[f"{name}_as_typed"] = schema
        return document


api = JamReelAPI(
    title="Jam Reel",
    version=__version__,
    auth=SignedIn(),
    parser=StrictParser(),
    docs_url=None,
    openapi_url="openapi.json",
    urls_namespace="api",
)
handle_errors(api)

# Routers import the schemas above them, so they are added once the API exists.
from jamreel.api import (  # noqa: E402
    bench,
    board,
    devices,
    pieces,
    session,
    stock,
    wearers,
    workshop,
)

for _routes in (session, bench, pieces, wearers, workshop, stock, board, devices):
    api.add_router("", _routes.router)

__all__ = ["api"]

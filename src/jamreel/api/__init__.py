"""The API: parse, call, answer. Thin by rule; what is decided is decided below."""

from copy import deepcopy
from functools import cache, partial
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.errors import HttpError
from ninja.openapi.schema import OpenAPISchema
from ninja.operation import Operation
from ninja.parser import Parser
from pydantic.json_schema import models_json_schema

from jamreel import __version__
from jamreel.api.auth import SignedIn
from jamreel.api.errors import handle_errors
from jamreel.core.brief import Brief
from jamreel.core.json_text import read_json
from jamreel.core.shop import Shop
from jamreel.core.words import say


class StrictParser(Parser):
    """JSON as the standard has it, and nothing else: NaN and Infinity are no numbers."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Return the parsed body. Raises HttpError: 415, 413, or 400 with what is wrong."""
        if request.content_type != "application/json":
            raise HttpError(415, say("answer.media_type.says"))
        try:
            return read_json(request.body, settings.DATA_UPLOAD_MAX_MEMORY_SIZE, whole=False)
        except RequestDataTooBig:
            raise HttpError(413, "") from None
        except ValueError as error:
            raise HttpError(400, say("answer.json.says", why=str(error))) from None


# Ninja makes a model of its own for each answer of each operation, a thousand in all for a hundred
# kinds of answer: starting took two seconds longer.
_answer = cache(partial(Operation._create_response_model, None))  # type: ignore[arg-type]
Operation._create_response_model = lambda _, kind: _answer(kind)  # type: ignore[method-assign,assignment]


class Document(OpenAPISchema):
    """The OpenAPI document, each answer described once however many operations give it."""

    def __init__(self, api: NinjaAPI, path_prefix: str) -> None:
        self._described: dict[tuple[Any, ...], tuple[dict[str, Any], bool]] = {}
        super().__init__(api, path_prefix)

    def _create_schema_from_model(self, *which: Any, **how: Any) -> tuple[dict[str, Any], bool]:
        key = (*which, *how.items())
        if key not in self._described:
            self._described[key] = super()._create_schema_from_model(*which, **how)
        return deepcopy(self._described[key])


class JamReelAPI(NinjaAPI):
    """Adds to the document what the front end needs types for: brief and shop as typed."""

    def get_openapi_schema(
        self, *, path_prefix: str | None = "/api/", path_params: Any = None
    ) -> OpenAPISchema:
        """Return the OpenAPI document."""
        document = Document(self, path_prefix or "")
        _, extra = models_json_schema(
            [(Brief, "validation"), (Shop, "validation")],
            ref_template="#/components/schemas/{model}_as_typed",
        )
        schemas = document["components"]["schemas"]
        for name, schema in extra["$defs"].items():
            schemas[f"{name}_as_typed"] = schema
        for path, operations in document["paths"].items():
            for operation in operations.values():
                _with_media(operation["responses"], _FILES.get(path.rpartition(".")[2]))
        return document


# Answers that are files, by what their addresses end in.
_FILES = {"csv": "text/csv", "pdf": "application/pdf", "jpg": "image/jpeg", "ics": "text/calendar"}


def _with_media(responses: Any, file: str | None) -> None:
    """Say of answers what they are: problems, files, and JSON as ninja has it."""
    for status, response in responses.items():
        content = response.get("content", {})
        if int(status) >= 400 and "application/json" in content:
            response["content"] = {"application/problem+json": content["application/json"]}
        elif file is not None and content:
            response["content"] = {file: {"schema": {"type": "string", "format": "binary"}}}


api = JamReelAPI(
    title="Jam Reel",
    version=__version__,
    auth=SignedIn(),
    parser=StrictParser(),
    docs_url=None,
    # The document is made by `site.openapi`; putting it together takes seconds.
    openapi_url=None,
    urls_namespace="api",
)
handle_errors(api)

# Routers import the schemas above them, so they are added once the API exists.
from jamreel.api import (  # noqa: E402
    account,
    archive,
    bench,
    bench_mode,
    board,
    day,
    devices,
    hand,
    log,
    pieces,
    session,
    stock,
    wearers,
    workshop,
)

for _routes in (
    session,
    account,
    archive,
    bench,
    bench_mode,
    pieces,
    wearers,
    workshop,
    stock,
    board,
    day,
    devices,
    hand,
    log,
):
    api.add_router("", _routes.router)

__all__ = ["api"]

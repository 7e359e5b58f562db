"""The one file that turns errors of the core and the workshop into HTTP answers (RFC 9457)."""

import json
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from pydantic import ConfigDict

from jamreel.core.plan import BriefRefused
from jamreel.core.problem import problem_details
from jamreel.core.words import Problem as FieldProblem
from jamreel.workshop.making import AlreadyTicked, NothingToTick
from jamreel.workshop.pieces import StaleSave
from jamreel.workshop.shops import StaleShop


class ProblemDetails(Schema):
    """Problem details, RFC 9457, with the fields at fault."""

    model_config = ConfigDict(extra="allow")

    type: str
    title: str
    status: int
    detail: str
    field: str | None = None
    expected: str | None = None
    got: str | None = None
    problems: list[FieldProblem] = []


class Stale(ProblemDetails):
    """Somebody else saved first: the version and brief that stand now."""

    version: int
    brief: dict[str, Any]


# Declared on every operation, so that the document says what may come back.
EVERY_ERROR: dict[int, Any] = dict.fromkeys((400, 401, 403, 404, 409, 422), ProblemDetails)


def answer(status: int, body: dict[str, Any]) -> HttpResponse:
    """Return problem JSON with its media type."""
    return HttpResponse(
        json.dumps(body, ensure_ascii=False), status=status, content_type="application/problem+json"
    )


def _plain(status: int, name: str, title: str, detail: str, **more: Any) -> HttpResponse:
    body = {"type": f"urn:jamreel:problem:{name}", "title": title, "status": status}
    return answer(status, {**body, "detail": detail, **more})


def handle_errors(api: NinjaAPI) -> None:
    """Register every error that may leave the floors below."""

    @api.exception_handler(BriefRefused)
    def refused(request: HttpRequest, error: BriefRefused) -> HttpResponse:
        return answer(422, problem_details(error.problems))

    @api.exception_handler(StaleSave)
    def stale(request: HttpRequest, error: StaleSave) -> HttpResponse:
        head = error.piece.head
        return _plain(
            409,
            "stale",
            "Changed elsewhere",
            "This piece was changed in another tab since you opened it. Nothing is lost.",
            version=error.piece.version,
            brief=head.brief if head else {},
        )

    @api.exception_handler(StaleShop)
    def stale_shop(request: HttpRequest, error: StaleShop) -> HttpResponse:
        detail = "The settings were changed in another tab. Reload to see them."
        return _plain(409, "stale", "Changed elsewhere", detail)

    @api.exception_handler(AlreadyTicked)
    def ticked(request: HttpRequest, error: AlreadyTicked) -> HttpResponse:
        return _plain(409, "ticked", "Already ticked", "This was ticked off in another tab.")

    @api.exception_handler(NothingToTick)
    def nothing(request: HttpRequest, error: NothingToTick) -> HttpResponse:
        detail = "The plan has nothing to record here, or there is no plan yet."
        return _plain(409, "nothing-to-record", "Nothing to record", detail)

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return _plain(404, "not-found", "Not found", "There is nothing here by that number.")

    @api.exception_handler(AuthenticationError)
    def unknown(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return _plain(401, "sign-in", "Sign in first", "This needs a signed-in session.")

    @api.exception_handler(HttpError)
    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        return _plain(error.status_code, "request", "Can't be answered", str(error))

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        problems = tuple(_field_problem(e) for e in error.errors)
        return answer(422, {**problem_details(problems), "title": "The request can't be read"})


def _field_problem(error: Any) -> FieldProblem:
    # ninja puts where it came from (body, payload name) before the field's own path.
    field = ".".join(str(part) for part in error["loc"][2:]) or str(error["loc"][-1])
    got = str(error.get("input", ""))[:60]
    return FieldProblem(
        field=field,
        key="request",
        expected=error["msg"],
        got=got,
        says=f"{field}: {error['msg']}.",
    )

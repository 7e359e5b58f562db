"""The one file that turns errors of the core and the workshop into HTTP answers (RFC 9457)."""

import errno
import json
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from django.http.request import RawPostDataException
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError
from pydantic import ConfigDict

from jamreel.core.plan import BriefRefused
from jamreel.core.problem import problem_details
from jamreel.core.words import Problem as FieldProblem
from jamreel.workshop.accounts import NotAllowed
from jamreel.workshop.making import AlreadyTicked, NothingToTick
from jamreel.workshop.pieces import StaleSave, shown
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.shops import StaleShop
from jamreel.workshop.turns import Busy, PutAway

# How long a page waits before it asks a busy server again [s].
RETRY_S = 1


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
EVERY_ERROR: dict[int, Any] = dict.fromkeys(
    (400, 401, 403, 404, 405, 409, 413, 415, 422, 429, 500, 503, 507), ProblemDetails
)


def answer(status: int, body: dict[str, Any]) -> HttpResponse:
    """Return problem JSON with its media type."""
    return HttpResponse(
        json.dumps(body, ensure_ascii=False), status=status, content_type="application/problem+json"
    )


def _plain(status: int, name: str, title: str, detail: str, **more: Any) -> HttpResponse:
    body = {"type": f"urn:jamreel:problem:{name}", "title": title, "status": status}
    return answer(status, {**body, "detail": detail, **more})


def not_allowed(error: NotAllowed, status: int = 422) -> HttpResponse:
    """Return the problem body of what can't be done about an account."""
    problem = FieldProblem(
        field=error.field, key="account", expected=error.expected, got="", says=error.says
    )
    return answer(status, {**problem_details((problem,), status), "title": "Not possible"})


# What is said of an answer that comes from below the API, by its status.
_IN_WORDS: dict[int, tuple[str, str, str]] = {
    400: ("request", "Can't be read", "This request can't be read. Reload the page and try again."),
    401: ("sign-in", "Sign in first", "You are signed out. Sign in again; what you typed is kept."),
    403: ("token", "Not from this page", "This page is out of date. Reload it and try again."),
    404: ("not-found", "Not found", "There is nothing here by that name or number."),
    405: ("method", "Not done this way", "This address is not asked in that way."),
    413: ("too-large", "Too much at once", "This is more than can be sent at once. Split it."),
    414: ("too-long", "Too long an address", "No address here is as long. Ask for less at once."),
    415: ("media-type", "Not JSON", "Send this as application/json."),
    429: ("slow-down", "Too many tries", "Too many tries. Wait a little and try again."),
    500: (
        "fault",
        "A fault of ours",
        "Something went wrong here. It was noted; nothing was saved.",
    ),
    503: ("busy", "Busy", "The bench is busy just now. It is tried again by itself."),
}


def problem_of(status: int, detail: str = "", **more: Any) -> HttpResponse:
    """Return the problem body of a status, in the usual words where none are given."""
    name, title, says = _IN_WORDS.get(status, _IN_WORDS[400 if status < 500 else 500])
    response = _plain(status, name, title, detail or says, **more)
    if status in (429, 503):
        response["Retry-After"] = str(RETRY_S)
    return response


def problem_of_error(error: BaseException | None) -> HttpResponse:
    """Return the problem body of an error that nobody has handled: busy, disk full, a fault."""
    if isinstance(error, OperationalError):
        return _of_database(str(error))
    if isinstance(error, RequestDataTooBig):
        return problem_of(413)
    if isinstance(error, RawPostDataException):
        return problem_of(415)
    if isinstance(error, OSError) and error.errno in _DISK:
        return _plain(507, "disk", "Nothing can be saved", _DISK[error.errno])
    return problem_of(500)


def _of_database(says: str) -> HttpResponse:
    if "locked" in says or "busy" in says:
        return problem_of(503)
    if "full" in says:
        return _plain(507, "disk", "Nothing can be saved", _DISK[errno.ENOSPC])
    if "readonly" in says or "unable to open" in says or "disk I/O" in says:
        return _plain(507, "disk", "Nothing can be saved", _DISK[errno.EROFS])
    return problem_of(500)


_FULL = (
    "The disk of the bench is full: nothing can be saved until there is room. What you typed is "
    "kept on this page."
)
_READ_ONLY = (
    "The disk of the bench can only be read: nothing can be saved until that is put right. What "
    "you typed is kept on this page."
)
_DISK = {
    errno.ENOSPC: _FULL,
    errno.EDQUOT: _FULL,
    errno.EROFS: _READ_ONLY,
    errno.EACCES: _READ_ONLY,
}


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
            brief=shown(error.piece, plan_of(error.piece, shop_of(error.piece.workshop)))
            if head
            else {},
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

    @api.exception_handler(NotAllowed)
    def account(request: HttpRequest, error: NotAllowed) -> HttpResponse:
        return not_allowed(error)

    @api.exception_handler(PutAway)
    def away(request: HttpRequest, error: PutAway) -> HttpResponse:
        detail = "This piece was put away: nothing more is recorded on it."
        return _plain(409, "put-away", "Put away", detail)

    @api.exception_handler(Busy)
    def busy(request: HttpRequest, error: Busy) -> HttpResponse:
        return problem_of(503)

    @api.exception_handler(OperationalError)
    def database(request: HttpRequest, error: OperationalError) -> HttpResponse:
        return problem_of_error(error)

    @api.exception_handler(OSError)
    def disk(request: HttpRequest, error: OSError) -> HttpResponse:
        if isinstance(error, RawPostDataException) or error.errno not in _DISK:
            raise error
        return problem_of_error(error)

    @api.exception_handler(Throttled)
    def throttled(request: HttpRequest, error: Throttled) -> HttpResponse:
        response = problem_of(429)
        response["Retry-After"] = str(error.wait or RETRY_S)
        return response

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem_of(404)

    @api.exception_handler(AuthenticationError)
    def unknown(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem_of(401)

    @api.exception_handler(HttpError)
    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        # What the reader of bodies said stands behind what ninja makes of it.
        cause = error.__cause__
        if isinstance(cause, HttpError):
            return problem_of(cause.status_code, str(cause))
        return problem_of(error.status_code)

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        problems = tuple(_field_problem(e) for e in error.errors)
        return answer(422, {**problem_details(problems), "title": "The request can't be read"})


def _field_problem(error: Any) -> FieldProblem:
    # ninja puts where it came from (body, payload name) before the field's own path.
    field = ".".join(str(part) for part in error["loc"][2:]) or str(error["loc"][-1])
    got = str(error.get("input", ""))[:60].encode("utf-8", "replace").decode()
    field = field.encode("utf-8", "replace").decode()[:120]
    return FieldProblem(
        field=field,
        key="request",
        expected=error["msg"],
        got=got,
        says=f"{field}: {error['msg']}.",
    )

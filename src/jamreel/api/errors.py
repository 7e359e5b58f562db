"""The one file that turns errors of the core and the workshop into HTTP answers (RFC 9457)."""

import errno
import json
from collections.abc import Callable
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import OperationalError
from django.http import Http404, HttpResponse
from django.http.request import RawPostDataException
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError
from pydantic import ConfigDict

from jamreel.api.texts import BriefTyped
from jamreel.core.plan import BriefRefused
from jamreel.core.problem import problem_details
from jamreel.core.words import Problem as FieldProblem
from jamreel.core.words import say
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
    brief: BriefTyped


# Declared on every operation, so that the document says what may come back.
EVERY_ERROR: dict[int, Any] = dict.fromkeys(
    (400, 401, 403, 404, 405, 409, 413, 415, 422, 429, 500, 503, 507), ProblemDetails
)


def answer(status: int, body: dict[str, Any]) -> HttpResponse:
    """Return problem JSON with its media type."""
    return HttpResponse(
        json.dumps(body, ensure_ascii=False), status=status, content_type="application/problem+json"
    )


def _said(status: int, name: str, **more: Any) -> HttpResponse:
    """Return a problem body in the words of ``answer.<name>``; what more is given stands in it."""
    body = {
        "type": f"urn:jamreel:problem:{name.replace('_', '-')}",
        "title": say(f"answer.{name}.title"),
        "status": status,
        "detail": more.pop("detail", "") or say(f"answer.{name}.says", **more),
    }
    return answer(status, {**body, **more})


def not_allowed(error: NotAllowed, status: int = 422) -> HttpResponse:
    """Return the problem body of what can't be done about an account."""
    problem = FieldProblem(
        field=error.field, key="account", expected=error.expected, got="", says=error.says
    )
    body = problem_details((problem,), status)
    return answer(status, {**body, "title": say("answer.account.title")})


# What is said of an answer that comes from below the API, by its status.
_OF_STATUS = {
    400: "request", 401: "sign_in", 403: "token", 404: "not_found", 405: "method",
    413: "too_large", 414: "too_long", 415: "media_type", 429: "slow_down", 500: "fault",
    503: "busy",
}  # fmt: skip


def problem_of(status: int, detail: str = "") -> HttpResponse:
    """Return the problem body of a status, in the usual words where none are given."""
    name = _OF_STATUS.get(status, _OF_STATUS[400 if status < 500 else 500])
    response = _said(status, name, detail=detail)
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
        return _said(507, _DISK[error.errno])
    return problem_of(500)


def _of_database(says: str) -> HttpResponse:
    if "locked" in says or "busy" in says:
        return problem_of(503)
    if "full" in says:
        return _said(507, _DISK[errno.ENOSPC])
    if "readonly" in says or "unable to open" in says or "disk I/O" in says:
        return _said(507, _DISK[errno.EROFS])
    return problem_of(500)


_DISK = {
    errno.ENOSPC: "disk_full",
    errno.EDQUOT: "disk_full",
    errno.EROFS: "disk_read_only",
    errno.EACCES: "disk_read_only",
}


def _refused(error: BriefRefused) -> HttpResponse:
    return answer(422, problem_details(error.problems))


def _stale(error: StaleSave) -> HttpResponse:
    piece = error.piece
    brief = shown(piece, plan_of(piece, shop_of(piece.workshop))) if piece.head else {}
    return _said(409, "stale", version=piece.version, brief=brief)


def _disk(error: OSError) -> HttpResponse:
    if isinstance(error, RawPostDataException) or error.errno not in _DISK:
        raise error
    return problem_of_error(error)


def _throttled(error: Throttled) -> HttpResponse:
    response = problem_of(429)
    response["Retry-After"] = str(error.wait or RETRY_S)
    return response


def _http(error: HttpError) -> HttpResponse:
    # What the reader of bodies said stands behind what ninja makes of it.
    cause = error.__cause__
    if isinstance(cause, HttpError):
        return problem_of(cause.status_code, str(cause))
    return problem_of(error.status_code)


def _invalid(error: ValidationError) -> HttpResponse:
    problems = tuple(_field_problem(e) for e in error.errors)
    body = problem_details(problems)
    return answer(422, {**body, "title": say("answer.fields.title")})


# What may leave the floors below, and what is answered to it.
_ANSWERS: dict[type[Exception], Callable[[Any], HttpResponse]] = {
    BriefRefused: _refused,
    StaleSave: _stale,
    StaleShop: lambda _: _said(409, "stale_shop"),
    AlreadyTicked: lambda _: _said(409, "ticked"),
    NothingToTick: lambda _: _said(409, "nothing_to_record"),
    PutAway: lambda _: _said(409, "put_away"),
    NotAllowed: lambda error: not_allowed(error),
    Busy: lambda _: problem_of(503),
    OperationalError: lambda error: problem_of_error(error),
    OSError: _disk,
    Throttled: _throttled,
    Http404: lambda _: problem_of(404),
    AuthenticationError: lambda _: problem_of(401),
    HttpError: _http,
    ValidationError: _invalid,
}


def handle_errors(api: NinjaAPI) -> None:
    """Register every error that may leave the floors below."""

    def handler(answers: Callable[[Any], HttpResponse]) -> Callable[..., HttpResponse]:
        return lambda _, error: answers(error)

    for error, answers in _ANSWERS.items():
        api.add_exception_handler(error, handler(answers))


def _field_problem(error: Any) -> FieldProblem:
    # ninja puts where it came from (body, payload name) before the field's own path.
    field = ".".join(str(part) for part in error["loc"][2:]) or str(error["loc"][-1])
    got = str(error.get("input", ""))[:60].encode("utf-8", "replace").decode()
    field = field.encode("utf-8", "replace").decode()[:120]
    return FieldProblem(
        field=field, key="request", expected=error["msg"], got=got, says=f"{field}: {error['msg']}."
    )

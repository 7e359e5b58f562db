"""Signing in, up and out, and the demo's one button."""

from contextlib import suppress
from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.models import User
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router, Schema
from ninja.errors import Throttled
from pydantic import Field

from jamreel.api.auth import OwnPage, address_of
from jamreel.api.errors import EVERY_ERROR, not_allowed
from jamreel.api.texts import Line, Typed
from jamreel.api.throttles import SIGN_INS, SIGN_UPS
from jamreel.workshop import accounts
from jamreel.workshop.accounts import NotAllowed
from jamreel.workshop.ownership import workshop_of

router = Router(tags=["session"])
MODEL_BACKEND = "jamreel.workshop.members.MemberBackend"


class Session(Schema):
    """Who is here, if anybody."""

    signed_in: bool
    user: str | None
    workshop: str | None
    demo: bool
    demo_user: str
    sign_up: bool


class Credentials(Schema):
    """A user name and password."""

    user: Typed = Field(min_length=1, max_length=150)
    password: Typed = Field(min_length=1, max_length=200)


class NewBench(Credentials):
    """A new user with a bench of their own."""

    workshop: Line = Field(min_length=1, max_length=80)


def _session(request: HttpRequest) -> Session:
    user = request.user
    if not user.is_authenticated:
        return Session(signed_in=False, user=None, workshop=None, **_offered())
    name: str | None = None
    with suppress(Http404):
        name = workshop_of(user).name
    return Session(signed_in=True, user=user.get_username(), workshop=name, **_offered())


def _offered() -> dict[str, Any]:
    user = settings.DEMO_USER if settings.DEMO else ""
    return {"demo": settings.DEMO, "demo_user": user, "sign_up": settings.SIGN_UP_OPEN}


def _refused(key: str, field: str, status: int) -> HttpResponse:
    return not_allowed(NotAllowed(key, field), status)


def locked_out(request: HttpRequest, *rest: Any) -> HttpResponse:
    """Return the answer to one password guess too many."""
    response = _refused("locked_out", "password", 429)
    response["Retry-After"] = str(int(settings.AXES_COOLOFF_TIME * 3600))
    return response


@router.get("/session", response={200: Session, **EVERY_ERROR}, auth=None)
def who(request: HttpRequest) -> Session:
    """Return who is signed in."""
    return _session(request)


@router.post("/session/demo", response={200: Session, **EVERY_ERROR}, auth=OwnPage())
def open_demo(request: HttpRequest) -> Any:
    """Sign in at the demo bench; only where the demo is served."""
    user = User.objects.filter(username=settings.DEMO_USER).first() if settings.DEMO else None
    if user is None:
        return _refused("no_demo", "", 403)
    login(request, user, backend=MODEL_BACKEND)
    return _session(request)


@router.post(
    "/session/sign-in", response={200: Session, **EVERY_ERROR}, auth=OwnPage(), throttle=[SIGN_INS]
)
def sign_in(request: HttpRequest, payload: Credentials) -> Any:
    """Sign in with user name and password."""
    name, address = accounts.known_as(payload.user), address_of(request)
    if accounts.must_wait(name, address):
        raise Throttled(wait=accounts.WAIT_S)
    user = authenticate(request, username=name, password=payload.password)
    if user is None:
        accounts.guessed(name)
        return _refused("wrong_pair", "password", 403)
    accounts.got_in(name, address)
    login(request, user)
    return _session(request)


@router.post(
    "/session/sign-up", response={200: Session, **EVERY_ERROR}, auth=OwnPage(), throttle=[SIGN_UPS]
)
def sign_up(request: HttpRequest, payload: NewBench) -> Any:
    """Make a user with a bench of their own, and sign in."""
    if not settings.SIGN_UP_OPEN:
        return _refused("no_sign_up", "", 403)
    user = accounts.sign_up(payload.user, payload.password, payload.workshop)
    login(request, user, backend=MODEL_BACKEND)
    return _session(request)


@router.post("/session/sign-out", response={200: Session, **EVERY_ERROR})
def sign_out(request: HttpRequest) -> Session:
    """Sign out."""
    logout(request)
    return _session(request)

"""Signing in, up and out, and the demo's one button."""

from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from jamreel.api.auth import OwnPage
from jamreel.api.errors import EVERY_ERROR, ProblemDetails, answer
from jamreel.core.problem import problem_details
from jamreel.core.words import Problem
from jamreel.workshop.demo import DEMO_USER
from jamreel.workshop.models import Workshop

router = Router(tags=["session"])
MODEL_BACKEND = "django.contrib.auth.backends.ModelBackend"


class Session(Schema):
    """Who is here, if anybody."""

    signed_in: bool
    user: str | None
    workshop: str | None
    demo: bool


class Credentials(Schema):
    """A user name and password."""

    user: str = Field(min_length=1, max_length=150)
    password: str = Field(min_length=1, max_length=200)


class NewBench(Credentials):
    """A new user with a bench of their own."""

    workshop: str = Field(min_length=1, max_length=80)


def _session(request: HttpRequest) -> Session:
    user = request.user
    if not user.is_authenticated:
        return Session(signed_in=False, user=None, workshop=None, demo=settings.DEMO)
    workshop = Workshop.objects.filter(members=user.pk).order_by("pk").first()
    return Session(
        signed_in=True,
        user=user.get_username(),
        workshop=workshop.name if workshop else None,
        demo=settings.DEMO,
    )


def _refused(field: str, expected: str, says: str, status: int = 422) -> HttpResponse:
    problem = Problem(field=field, key="sign_in", expected=expected, got="", says=says)
    return answer(status, {**problem_details((problem,), status), "title": "Not signed in"})


def locked_out(request: HttpRequest, *rest: Any) -> HttpResponse:
    """Return the answer to one password guess too many."""
    return _refused("password", "fewer tries", "Too many tries. Wait a quarter of an hour.", 429)


@router.get("/session", response={200: Session, **EVERY_ERROR}, auth=None)
def who(request: HttpRequest) -> Session:
    """Return who is signed in."""
    return _session(request)


@router.post("/session/demo", response={200: Session, **EVERY_ERROR}, auth=OwnPage())
def open_demo(request: HttpRequest) -> Any:
    """Sign in at the demo bench; only where the demo is served."""
    user = User.objects.filter(username=DEMO_USER).first() if settings.DEMO else None
    if user is None:
        return _refused("", "demo mode", "There is no demo bench here: sign in.", 403)
    login(request, user, backend=MODEL_BACKEND)
    return _session(request)


@router.post(
    "/session/sign-in",
    response={200: Session, 429: ProblemDetails, **EVERY_ERROR},
    auth=OwnPage(),
)
def sign_in(request: HttpRequest, payload: Credentials) -> Any:
    """Sign in with user name and password."""
    user = authenticate(request, username=payload.user, password=payload.password)
    if user is None:
        says = "This name and password don't go together."
        return _refused("password", "the password of this user", says, 403)
    login(request, user)
    return _session(request)


@router.post("/session/sign-up", response={200: Session, **EVERY_ERROR}, auth=OwnPage())
def sign_up(request: HttpRequest, payload: NewBench) -> Any:
    """Make a user with a bench of their own, and sign in."""
    if payload.user == DEMO_USER:
        return _refused("user", "another name", "This name is taken. Choose another.")
    try:
        validate_password(payload.password, User(username=payload.user))
    except ValidationError as error:
        return _refused("password", "a harder password", " ".join(error.messages))
    try:
        with transaction.atomic():
            user = User.objects.create_user(payload.user, password=payload.password)
            Workshop.objects.create(name=payload.workshop).members.add(user)
    except (IntegrityError, ValueError):
        return _refused("user", "another name", "This name is taken. Choose another.")
    login(request, user, backend=MODEL_BACKEND)
    return _session(request)


@router.post("/session/sign-out", response={200: Session, **EVERY_ERROR})
def sign_out(request: HttpRequest) -> Session:
    """Sign out."""
    logout(request)
    return _session(request)

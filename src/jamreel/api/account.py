"""One's own account: the password, sessions elsewhere, leaving."""

from typing import Any

from django.contrib.auth import authenticate, logout, update_session_auth_hash
from django.http import HttpRequest
from ninja import Router, Schema, Status
from ninja.errors import Throttled
from pydantic import Field

from jamreel.api.auth import address_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import Typed
from jamreel.api.throttles import SIGN_INS
from jamreel.workshop import accounts

router = Router(tags=["account"])


class Passwords(Schema):
    """The password that is, and the one that is to be."""

    password: Typed = Field(min_length=1, max_length=200)
    new: Typed = Field(min_length=1, max_length=200)


class OwnPassword(Schema):
    """The password, so that nobody leaves for another."""

    password: Typed = Field(min_length=1, max_length=200)


class Ended(Schema):
    """How many sessions elsewhere were ended."""

    ended: int


def _tried(request: HttpRequest, password: str) -> None:
    """Have a password count as a try at the door does: wrong ones shut it, whoever is signed in.

    Raises:
        Throttled: strangers are guessing at this user.
    """
    user: Any = request.user
    name = user.get_username()
    if accounts.must_wait(name, address_of(request)):
        raise Throttled(wait=accounts.WAIT_S)
    # It is counted there; what is wrong with it is said by what asks for it.
    if authenticate(request, username=name, password=password) is None:
        accounts.guessed(name)


@router.post("/account/password", response={200: Ended, **EVERY_ERROR}, throttle=[SIGN_INS])
def change_password(request: HttpRequest, payload: Passwords) -> Ended:
    """Change the password; sessions elsewhere end."""
    user: Any = request.user
    _tried(request, payload.password)
    accounts.change_password(user, payload.password, payload.new)
    update_session_auth_hash(request, user)
    return Ended(ended=accounts.end_sessions(user, request.session.session_key))


@router.post("/account/sign-out-everywhere", response={200: Ended, **EVERY_ERROR})
def sign_out_everywhere(request: HttpRequest) -> Ended:
    """End all sessions, this one too."""
    user: Any = request.user
    ended = accounts.end_sessions(user, request.session.session_key)
    logout(request)
    return Ended(ended=ended)


@router.post("/account/delete", response={204: None, **EVERY_ERROR}, throttle=[SIGN_INS])
def delete(request: HttpRequest, payload: OwnPassword) -> Status[None]:
    """Delete the account, and the bench with all that is on it where it is nobody else's."""
    user: Any = request.user
    _tried(request, payload.password)
    accounts.delete_account(user, payload.password)
    logout(request)
    return Status(204, None)

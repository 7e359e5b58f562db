"""Who may call: a signed-in session, and on every write the page's own token."""

from typing import Any

from django.conf import settings
from django.http import HttpRequest
from ninja.security import APIKeyCookie

from jamreel.workshop.models import Workshop
from jamreel.workshop.ownership import workshop_of


class SignedIn(APIKeyCookie):
    """A session of a user who has a workshop; the write's CSRF token is checked first."""

    param_name = settings.SESSION_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Return the user, or None, which answers 401."""
        return request.user if request.user.is_authenticated else None


class OwnPage(APIKeyCookie):
    """Anybody, but only from this site's own page: sign-in and sign-up need the token too."""

    param_name = settings.CSRF_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Return True: the token was checked before this is called."""
        return True


def bench_of(request: HttpRequest) -> Workshop:
    """Return the workshop of the request's user, looked up once a request."""
    known = request.__dict__.get("_bench")
    bench: Workshop = known or workshop_of(request.user)
    request.__dict__["_bench"] = bench
    return bench


def address_of(request: HttpRequest) -> str:
    """Return the address that a request comes from; behind a proxy, the one that the proxy saw."""
    told = request.META.get("HTTP_X_REAL_IP", "") if settings.BEHIND_PROXY else ""
    address: str = told or request.META.get("REMOTE_ADDR") or "127.0.0.1"
    return address[:45]

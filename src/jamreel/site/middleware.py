"""What is done for every request: an id, a limit, a problem body, headers, a line in the log."""

import logging
import re
import time
import uuid
from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase

from jamreel.api.errors import problem_of
from jamreel.workshop.photos import MOST_BYTES

log = logging.getLogger("jamreel.requests")
_PHOTO = re.compile(r"/api/log/[0-9]{1,18}/photos")
# The picture, and what stands round it in its request.
MOST_PHOTO = MOST_BYTES + 100_000
_ID = re.compile(r"[A-Za-z0-9-]{8,64}")
# A bench needs no senses, no place and no money of the browser.
PERMISSIONS = "camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=(), hid=()"


class Requests:
    """The outermost layer: whatever leaves here is what the document says."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Return the answer to a request."""
        started = time.monotonic()
        told = request.META.get("HTTP_X_REQUEST_ID", "") if settings.BEHIND_PROXY else ""
        name = told if _ID.fullmatch(told) else uuid.uuid4().hex
        request.META["jamreel.request_id"] = name
        response = self._answer(request)
        response["X-Request-ID"] = name
        response["Permissions-Policy"] = PERMISSIONS
        if request.path.startswith("/api/") and "Cache-Control" not in response:
            response["Cache-Control"] = "no-store"
        log.info(
            "request",
            extra={
                "request_id": name,
                "method": request.method,
                "path": request.path,
                "status": response.status_code,
                "ms": round((time.monotonic() - started) * 1000),
            },
        )
        return response

    def _answer(self, request: HttpRequest) -> HttpResponseBase:
        api = request.path.startswith("/api/")
        length = request.META.get("CONTENT_LENGTH") or "0"
        # A photograph goes to a file as it comes, never into memory.
        photo = request.method == "POST" and _PHOTO.fullmatch(request.path) is not None
        most = MOST_PHOTO if photo else settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        # Turned away unread: what is longer is never held in memory.
        if not length.isdecimal() or int(length[:12]) > most:
            return problem_of(413)
        response = self.get_response(request)
        problem = response.headers.get("Content-Type", "").startswith("application/problem+json")
        if api and response.status_code >= 400 and not problem:
            return _as_problem(response)
        return response


def _as_problem(response: HttpResponseBase) -> HttpResponse:
    """Return an answer of the layers below as a problem body, with what its headers say."""
    problem = problem_of(response.status_code)
    for header in ("Allow", "Retry-After", "WWW-Authenticate"):
        if header in response.headers:
            problem[header] = response.headers[header]
    return problem

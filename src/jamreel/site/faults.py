"""What is answered where no view could: a fault of ours, and a write from elsewhere."""

import sys

from django.http import HttpRequest, HttpResponse

from jamreel.api.errors import problem_of, problem_of_error


def fault(request: HttpRequest) -> HttpResponse:
    """Return the answer to an error that nobody handled; its trace is in the log."""
    return problem_of_error(sys.exc_info()[1])


def not_from_here(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Return the answer to a write without the page's own token."""
    return problem_of(403)

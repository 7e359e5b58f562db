"""Problem details (RFC 9457) of a refused brief, the same from the command line and the API."""

from typing import Any

from jamreel.core.words import Problem, say


def problem_details(problems: tuple[Problem, ...], status: int = 422) -> dict[str, Any]:
    """Return problem JSON: the first problem's parts on top, all of them under ``problems``.

    Source: RFC 9457; ``field``, ``expected``, ``got`` and ``problems`` are extension members.
    """
    first = problems[0]
    return {
        "type": "urn:jamreel:problem:brief-refused",
        "title": say("problem.brief_refused"),
        "status": status,
        "detail": first.says,
        "field": first.field,
        "expected": first.expected,
        "got": first.got,
        "problems": [p.model_dump() for p in problems],
    }

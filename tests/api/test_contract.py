"""The API against its own document: no answer that it does not declare, whatever is sent."""

from typing import Any

import pytest
import schemathesis
from django.conf import settings
from django.test import Client
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings
from schemathesis.config import SchemathesisConfig
from schemathesis.specs.openapi import checks

from jamreel.site.wsgi import application
from jamreel.workshop.models import Workshop
from jamreel.workshop.pieces import start_piece

# The session comes from the fixture; generated cookies would only be turned away at the door.
CONFIG = SchemathesisConfig.from_dict(
    {"generation": {"with-security-parameters": False}, "phases": {"coverage": {"enabled": False}}}
)
schema = schemathesis.openapi.from_wsgi("/api/openapi.json", application, config=CONFIG)
pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def cookies(bench: Workshop, brief: dict[str, Any]) -> dict[str, str]:
    """A session and its token: without them every answer would be a hollow 401."""
    start_piece(bench, "Bangle", brief)
    client = Client()
    client.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    client.get("/")
    return {name: morsel.value for name, morsel in client.cookies.items()}


@schema.include(path_regex="/api/(plan|shop|bench|wearers|pieces|measures$|cast)").parametrize()
@hypothesis_settings(
    max_examples=12,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
def test_answers_are_as_declared(case: schemathesis.Case[Any], cookies: dict[str, str]) -> None:
    # Plain answers: in process nothing unpacks them.
    token = {"X-CSRFToken": cookies[settings.CSRF_COOKIE_NAME], "Accept-Encoding": "identity"}
    answer = case.call(headers=token, cookies=cookies)
    assert answer.status_code < 500, answer.content
    assert answer.status_code != 401
    case.validate_response(
        answer,
        checks=[
            schemathesis.checks.not_a_server_error,
            checks.status_code_conformance,
            checks.response_schema_conformance,
        ],
    )

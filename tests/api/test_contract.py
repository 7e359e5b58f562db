"""The API against its own document: no answer that it does not declare, whatever is sent."""

from typing import Any

import pytest
import schemathesis
from django.conf import settings
from django.core.cache import cache
from django.test import Client
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings
from schemathesis.config import SchemathesisConfig
from schemathesis.specs.openapi import checks

from jamreel.api import api
from jamreel.site.wsgi import application
from jamreel.workshop.models import Wearer, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock

# The session comes from the fixture; generated cookies would only be turned away at the door.
CONFIG = SchemathesisConfig.from_dict({"generation": {"with-security-parameters": False}})
# Strangers are not served the document: it is taken from where it is made.
schema = schemathesis.openapi.from_dict(api.get_openapi_schema(), config=CONFIG)
schema.app = application
pytestmark = pytest.mark.django_db(transaction=True)
PASSWORD = "willow-and-wire-7"


@pytest.fixture
def cookies(bench: Workshop, brief: dict[str, Any]) -> dict[str, str]:
    """A session and its token: without them every answer would be a hollow 401."""
    wearer = Wearer.objects.create(workshop=bench, name="Wren")
    start_piece(bench, "Bangle", brief, wearer)
    add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    client = Client()
    client.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    client.get("/")
    return {name: morsel.value for name, morsel in client.cookies.items()}


def answered(case: schemathesis.Case[Any], cookies: dict[str, str]) -> Any:
    # Plain answers: in process nothing unpacks them.
    token = {"X-CSRFToken": cookies[settings.CSRF_COOKIE_NAME], "Accept-Encoding": "identity"}
    # What is counted over requests is tested elsewhere; here it would hide all else.
    cache.clear()
    answer = case.call(headers=token, cookies=cookies)
    assert answer.status_code < 500, answer.content
    case.validate_response(
        answer,
        checks=[
            schemathesis.checks.not_a_server_error,
            checks.status_code_conformance,
            checks.content_type_conformance,
            checks.response_schema_conformance,
        ],
    )
    return answer


# Whoever signs out is answered 401 from then on: those come last, in a test of their own.
LEAVES = "/api/(session/sign-out|account)"


@schema.exclude(path_regex=LEAVES).parametrize()
@hypothesis_settings(
    max_examples=10,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
def test_answers_are_as_declared(case: schemathesis.Case[Any], cookies: dict[str, str]) -> None:
    answer = answered(case, cookies)
    assert answer.status_code != 401 or "/session/" in case.path


@schema.include(path_regex=LEAVES).parametrize()
@hypothesis_settings(
    max_examples=6,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
def test_leaving_is_answered_as_declared(
    case: schemathesis.Case[Any], cookies: dict[str, str]
) -> None:
    answered(case, cookies)

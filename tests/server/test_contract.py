"""The API against its own description: whatever fits it is answered, and never by a fault of ours.

schemathesis makes the requests; `./spissus fuzz` makes more of them (``SPISSUS_FUZZ_CASES`` an operation).
"""

from __future__ import annotations

import os
from collections import Counter
from collections.abc import Iterator
from typing import Any

import pytest
import schemathesis
from config.api import api
from devices.services import issue
from django.core.signals import request_finished, request_started
from django.core.wsgi import get_wsgi_application
from django.db import close_old_connections
from hypothesis import HealthCheck, Phase, settings
from schemathesis import Case

from .conftest import Caller

#: Generated requests an operation; schemathesis adds some hundred that stand at the edges of each field.
CASES = int(os.environ.get("SPISSUS_FUZZ_CASES", "10"))

#: These take the same as others do, whose edges are gone through: the first so many of them are enough, unless more
#: is asked for.
ALIKE = {
    "POST /api/v1/batches/{batch_id}/foreseen": "POST /api/v1/batches/{batch_id}/events",
    "POST /api/v1/previews/start": "POST /api/v1/batches",
}
ENOUGH_ALIKE = CASES * 10 if CASES <= 10 else 1_000_000

schema = schemathesis.openapi.from_dict(api.get_openapi_schema())
schema.app = get_wsgi_application()

answered: list[int] = []
asked: Counter[str] = Counter()


@pytest.fixture(autouse=True)
def _one_connection() -> Iterator[None]:
    """A request must not end the transaction that the test runs in; Django's own test client sees to that alike."""
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    yield
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


#: A token as Django's own forms send it, and the cookie it must agree with.
CSRF = "k" * 32


@pytest.fixture
def signed_in(cook: Caller) -> dict[str, Any]:
    """What the page sends with every request."""
    cookies = {"sessionid": cook.client.cookies["sessionid"].value, "csrftoken": CSRF}
    return {"cookies": cookies, "headers": {"X-CSRFToken": CSRF}}


@pytest.fixture
def by_token(cook: Caller) -> dict[str, Any]:
    """What a device sends."""
    return {"headers": {"Authorization": f"Bearer {issue(cook.member(), 'scale', 'scale')[1]}"}}


@pytest.mark.sets_aside
@schema.parametrize()
@settings(
    max_examples=CASES,
    derandomize=True,
    deadline=None,
    phases=[Phase.explicit, Phase.generate],
    suppress_health_check=list(HealthCheck),
)
def test_whatever_fits_the_description_is_answered(
    case: Case, signed_in: dict[str, Any], by_token: dict[str, Any]
) -> None:
    asked[case.operation.label] += 1
    if case.operation.label in ALIKE and asked[case.operation.label] > ENOUGH_ALIKE:
        return
    device = case.path in ("/api/v1/device", "/api/v1/device/readings")
    answer: Any = case.call(**(by_token if device else signed_in))
    answered.append(answer.status_code)
    assert answer.status_code < 500, answer.text
    declared = {str(status) for status in case.operation.definition.raw["responses"]}
    # Other methods are tried too: they are no operation, and say so.
    assert answer.status_code == 405 or str(answer.status_code) in declared, (case.path, answer.text)
    if answer.status_code >= 400:
        assert answer.headers["content-type"][0] == "application/problem+json"


def test_there_were_enough_of_them() -> None:
    assert len(answered) >= 1500

    assert answered.count(200) > 100
    assert all(asked[other] > ENOUGH_ALIKE for other in ALIKE.values())

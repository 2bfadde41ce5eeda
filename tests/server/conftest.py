"""A kitchen to call, as its pages do."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
from django.test import Client
from kitchens.models import Kitchen, Membership
from kitchens.services import Member, open_kitchen
from people.models import User

LIQUID = {
    "measured": {"method": "jug", "value": "1.6 l", "hot": True},
    "fat_ml": "80 ml",
    "salt": {"by": "meter", "percent": "0.6 %"},
    "character": "gelatin_rich",
}


class Caller:
    """One signed-in person and their calls."""

    def __init__(self, user: User) -> None:
        self.user = user
        self.client = Client()
        self.client.force_login(user)

    def member(self) -> Member:
        """The same person, as the services know them."""
        membership = self.user.memberships.select_related("kitchen").get()
        return Member(self.user, membership.kitchen, membership.role)

    def get(self, path: str) -> Any:
        return self.client.get(f"/api/v1{path}")

    def send(self, path: str, body: Any, method: str = "post") -> Any:
        call: Callable[..., Any] = getattr(self.client, method)
        return call(f"/api/v1{path}", json.dumps(body), content_type="application/json")

    def kitchen(self) -> dict[str, Any]:
        return self.get("/kitchen").json()

    def start_body(self, **liquid: Any) -> dict[str, Any]:
        kitchen = self.kitchen()
        return {
            "kind": "started",
            "pan_id": kitchen["pans"][2]["id"],
            "burner_id": kitchen["burners"][1]["id"],
            "liquid": LIQUID | liquid,
        }

    def start(self, name: str = "Shin in stout", **liquid: Any) -> dict[str, Any]:
        body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": _now(), "name": name}
        answer = self.send("/batches", body | {"start": self.start_body(**liquid)})
        assert answer.status_code == 200, answer.content
        return answer.json()

    def record(self, batch_id: str, payload: dict[str, Any], *, id: str | None = None) -> Any:
        return self.send(f"/batches/{batch_id}/events", {"id": id or str(uuid4()), "at": _now(), "payload": payload})


def _now() -> str:
    return (datetime.now(UTC) - timedelta(seconds=1)).isoformat()


def person(name: str, kitchen: Kitchen | None = None, role: str = "owner") -> Caller:
    """Someone with a kitchen: their own, or a role in another's."""
    user = User.objects.create_user(username=name, password="a long enough secret")
    if kitchen is None:
        open_kitchen(f"{name}'s kitchen", user)
    else:
        Membership.objects.create(user=user, kitchen=kitchen, role=role)
    return Caller(user)


@pytest.fixture(autouse=True)
def _quick_to_begin(settings: Any) -> None:
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    # Each client loads the middleware anew; the files of the page are looked up once they are asked for.
    settings.SERVESTATIC_AUTOREFRESH = True


@pytest.fixture(autouse=True)
def _nothing_is_set_aside_unasked(request: pytest.FixtureRequest, caplog: pytest.LogCaptureFixture) -> Iterator[None]:
    """An event that is set aside, or a part that is missing, is a fault unless the test asks for it."""
    yield
    if request.node.get_closest_marker("sets_aside"):
        return
    told = [r.getMessage() for r in caplog.get_records("call") if r.name == "batches.bench"]
    assert told == []


@pytest.fixture
def cook(db: None) -> Caller:
    return person("cook")


@pytest.fixture
def neighbour(db: None) -> Caller:
    return person("neighbour")

"""Beginning at once: a kitchen without a name, bounded, claimed or brought along, and let go with its session."""

from __future__ import annotations

import json
from io import StringIO
from typing import Any

import pytest
from batches.models import Batch
from batches.services import MOST_OF_VISITORS
from django.core.management import call_command
from django.test import Client
from kitchens.models import Kitchen
from people.models import Session, User

from .conftest import Caller

CLAIM = {"name": "ada-of-the-pass", "password": "a long enough secret", "kitchen": "The galley"}


def post(client: Client, path: str, body: Any = None) -> Any:
    return client.post(f"/api/v1{path}", json.dumps(body or {}), content_type="application/json")


class Visitor(Caller):
    """Somebody who begins at once."""

    def __init__(self) -> None:
        self.client = Client()
        answer = post(self.client, "/session/visit", {"time_zone": "Europe/Lisbon"})
        assert answer.status_code == 200, answer.content
        self.user = User.objects.get(pk=answer.json()["person"])


def test_a_sauce_is_begun_before_any_name_is_asked(db: None) -> None:
    visitor = Visitor()
    session = visitor.get("/session").json()
    assert (session["signed_in"], session["claimed"], session["role"]) == (True, False, "owner")
    assert session["time_zone"] == "Europe/Lisbon"
    batch = visitor.start()
    assert visitor.record(batch["id"], {"kind": "wanted", "volume_ml": 700}).json()["suggested"]
    # Asked again, whoever is here stays who they are.
    assert post(visitor.client, "/session/visit").json()["person"] == session["person"]


def test_it_is_claimed_and_nothing_is_another_by_it(db: None) -> None:
    visitor = Visitor()
    batch = visitor.start()["id"]
    before = visitor.get("/session").json()
    claimed = post(visitor.client, "/accounts", CLAIM).json()
    assert (claimed["claimed"], claimed["name"], claimed["kitchen"]) == (True, CLAIM["name"], CLAIM["kitchen"])
    # What waits in the browser goes by these two.
    assert (claimed["person"], claimed["kitchen_id"]) == (before["person"], before["kitchen_id"])
    assert visitor.get(f"/batches/{batch}").status_code == 200
    elsewhere = Client()
    assert post(elsewhere, "/session", {"name": CLAIM["name"], "password": CLAIM["password"]}).status_code == 200
    assert elsewhere.get(f"/api/v1/batches/{batch}").status_code == 200
    assert Kitchen.objects.count() == 1


def test_a_name_that_will_not_do_claims_nothing(cook: Caller) -> None:
    visitor = Visitor()
    assert post(visitor.client, "/accounts", CLAIM | {"name": "cook"}).status_code == 422
    assert post(visitor.client, "/accounts", CLAIM | {"password": "short"}).status_code == 422
    assert not visitor.get("/session").json()["claimed"]


def test_signing_in_brings_along_what_was_begun(cook: Caller) -> None:
    visitor = Visitor()
    batch = visitor.start("Neck in cider")["id"]
    visitor.send("/larder", {"name": "house stock", "like": "beef_stock_own"})
    theirs = {"name": "cook", "password": "a long enough secret"}
    assert post(visitor.client, "/session", theirs | {"bring": True}).json()["name"] == "cook"
    assert cook.get(f"/batches/{batch}").json()["name"] == "Neck in cider"
    assert [own["spec"]["name"] for own in cook.get("/larder").json()] == ["house stock"]
    assert cook.record(batch, {"kind": "noted", "text": "it goes on"}).status_code == 200
    assert (Kitchen.objects.count(), User.objects.count()) == (1, 1)


def test_a_wrong_password_brings_nothing_along_and_leaves_the_visitor_there(cook: Caller) -> None:
    visitor = Visitor()
    batch = visitor.start()["id"]
    wrong = {"name": "cook", "password": "not the secret", "bring": True}
    assert post(visitor.client, "/session", wrong).status_code == 422
    assert visitor.get(f"/batches/{batch}").status_code == 200


def test_nobody_brings_along_what_is_somebodys(cook: Caller, neighbour: Caller) -> None:
    batch = neighbour.start()["id"]
    post(neighbour.client, "/session", {"name": "cook", "password": "a long enough secret", "bring": True})
    assert cook.get(f"/batches/{batch}").status_code == 404
    assert Kitchen.objects.count() == 2


def test_a_kitchen_without_a_name_holds_so_many_batches(db: None) -> None:
    visitor = Visitor()
    for _ in range(MOST_OF_VISITORS):
        visitor.start()
    with pytest.raises(AssertionError, match="until you give it a name"):
        visitor.start()
    assert post(visitor.client, "/accounts", CLAIM).status_code == 200
    visitor.start()


def test_it_is_let_go_with_its_session_and_a_claimed_one_is_not(cook: Caller) -> None:
    gone, kept, claimed = Visitor(), Visitor(), Visitor()
    for one in (gone, kept, claimed):
        one.start()
    post(claimed.client, "/accounts", CLAIM)
    Session.objects.filter(person__in=[gone.user, claimed.user, cook.user]).delete()
    told = StringIO()
    call_command("tidy", stdout=told)
    assert "1 kitchens that nobody claimed" in told.getvalue()
    assert Batch.objects.count() == 2
    assert not User.objects.filter(pk=gone.user.pk).exists()
    assert kept.get("/kitchen").status_code == 200
    assert User.objects.filter(username=CLAIM["name"]).exists()


def test_a_flood_of_visitors_is_held_up_and_a_class_is_not(db: None, settings: Any) -> None:
    for _ in range(60):
        assert post(Client(), "/session/visit").status_code == 200
    settings.MOST_VISITORS = 60
    assert post(Client(), "/session/visit").status_code == 429


def test_stepping_into_the_demo_does_not_let_a_begun_kitchen_go(db: None, settings: Any) -> None:
    settings.DEMO = True
    visitor = Visitor()
    visitor.start()
    assert post(visitor.client, "/session/demo").status_code == 409


def test_a_class_behind_one_router_signs_up_at_once_and_a_flood_does_not(db: None) -> None:
    def signs_up(number: int) -> int:
        body = {"name": f"student-{number}", "password": "a long enough secret", "kitchen": "Bench"}
        return int(post(Client(), "/accounts", body).status_code)

    answers = [signs_up(number) for number in range(110)]
    assert answers[:60] == [200] * 60
    assert answers[-1] == 429

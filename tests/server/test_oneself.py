"""Oneself: another name, browsers signed out from afar, and the end of everything of one's own."""

from __future__ import annotations

from batches.models import Batch, Event
from django.test import Client
from kitchens.models import Kitchen
from people.models import User

from .conftest import Caller
from .test_brigade import brigade, invite, join
from .test_visitors import post

SECRET = "a long enough secret"


def signed_in(name: str, agent: str) -> Client:
    client = Client(headers={"user-agent": agent})
    assert post(client, "/session", {"name": name, "password": SECRET}).status_code == 200
    return client


def test_a_browser_that_was_left_signed_in_is_signed_out_from_another(cook: Caller) -> None:
    tablet, phone = signed_in("cook", "Tablet by the pass"), signed_in("cook", "Phone")
    told = {one["agent"]: one for one in phone.get("/api/v1/me/browsers").json()}
    assert told["Phone"]["here"]
    assert not told["Tablet by the pass"]["here"]
    # What is told of a session opens nothing.
    assert tablet.session.session_key not in str(told)
    assert phone.delete(f"/api/v1/me/browsers/{told['Tablet by the pass']['id']}").status_code == 204
    assert tablet.get("/api/v1/kitchen").status_code == 401
    assert phone.get("/api/v1/kitchen").status_code == 200


def test_nobody_signs_anybody_else_out(cook: Caller, neighbour: Caller) -> None:
    mark = cook.get("/me/browsers").json()[0]["id"]
    assert neighbour.send(f"/me/browsers/{mark}", None, "delete").status_code == 404
    assert cook.get("/kitchen").status_code == 200


def test_a_name_is_changed_by_whoever_knows_the_password(cook: Caller, neighbour: Caller) -> None:
    wrong = {"name": "gull", "password": "not it at all"}
    assert cook.send("/me/name", wrong, "put").status_code == 422
    assert cook.send("/me/name", {"name": "Neighbour", "password": SECRET}, "put").status_code == 422
    assert cook.send("/me/name", {"name": "a b", "password": SECRET}, "put").status_code == 422
    # Its own in other capitals is nobody else's.
    assert cook.send("/me/name", {"name": "Cook", "password": SECRET}, "put").json()["name"] == "Cook"
    assert cook.send("/me/name", {"name": "gull", "password": SECRET}, "put").json()["name"] == "gull"
    assert signed_in("gull", "x").get("/api/v1/kitchen").status_code == 200


def test_everything_of_ones_own_goes_for_good_and_what_is_others_stays(cook: Caller, neighbour: Caller) -> None:
    mine, theirs = cook.start()["id"], neighbour.start()["id"]
    join(cook, invite(neighbour))
    assert cook.record(theirs, {"kind": "noted", "text": "by me"}).status_code == 200
    assert cook.send("/me/end", {"password": "not it at all"}).status_code == 422
    assert cook.send("/me/end", {"password": SECRET}).json()["signed_in"] is False
    assert not User.objects.filter(username="cook").exists()
    assert not Batch.objects.filter(pk=mine).exists()
    assert Kitchen.objects.count() == 1
    assert Event.objects.get(batch=theirs, kind="noted").author is None
    assert brigade(neighbour) == {"neighbour": "owner"}


def test_a_kitchen_with_others_in_it_is_handed_over_first(cook: Caller, neighbour: Caller) -> None:
    join(neighbour, invite(cook))
    assert cook.send("/me/end", {"password": SECRET}).status_code == 409
    assert User.objects.filter(username="cook").exists()
    cook.send(f"/kitchen/people/{neighbour.user.pk}", {"role": "owner"}, "patch")
    assert cook.send("/me/end", {"password": SECRET}).status_code == 200
    assert Kitchen.objects.filter(name="cook's kitchen").exists()


def test_whoever_looks_around_in_the_demo_joins_nothing_and_invites_nobody(cook: Caller, neighbour: Caller) -> None:
    code = invite(neighbour)
    Kitchen.objects.filter(name="cook's kitchen").update(is_demo=True)
    assert join(cook, code).status_code == 409
    assert cook.send("/kitchen/invitations", {"role": "cook"}).status_code == 422
    assert cook.send("/me/end", {"password": SECRET}).status_code == 409

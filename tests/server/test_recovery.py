"""A forgotten password: by a code of one's own, or by one that an owner hands over."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import time_machine
from django.test import Client
from django.utils import timezone
from kitchens.models import Membership
from makers import text_of
from people.models import RecoveryCode

from .conftest import Caller, person
from .test_brigade import invite, join
from .test_visitors import Visitor, post

SECRET = "a long enough secret"
NEW = "another thing entirely"


def codes_of(cook: Caller) -> list[str]:
    answer = cook.send("/me/codes", {"password": SECRET})
    assert answer.status_code == 200, answer.content
    return list(answer.json()["codes"])


def recover(name: str, code: str, password: str = NEW, client: Client | None = None) -> Any:
    return post(client or Client(), "/session/recovery", {"name": name, "code": code, "password": password})


def test_a_code_sets_a_new_password_once_and_signs_out_everywhere_else(cook: Caller) -> None:
    codes = codes_of(cook)
    assert len(set(codes)) == 8
    client = Client()
    assert recover("COOK", codes[0].upper(), client=client).json()["signed_in"]
    assert client.get("/api/v1/kitchen").status_code == 200
    assert cook.get("/kitchen").status_code == 401
    assert post(Client(), "/session", {"name": "cook", "password": SECRET}).status_code == 422
    assert post(Client(), "/session", {"name": "cook", "password": NEW}).status_code == 200
    assert recover("cook", codes[0]).status_code == 422
    assert client.get("/api/v1/me/codes").json() == {"left": 7}


def test_codes_are_kept_as_digests_and_new_ones_end_the_old(cook: Caller) -> None:
    first = codes_of(cook)
    assert not set(first) & set(RecoveryCode.objects.values_list("digest", flat=True))
    codes_of(cook)
    assert recover("cook", first[3]).status_code == 422
    assert cook.get("/me/codes").json() == {"left": 8}


def test_codes_are_drawn_for_whoever_knows_the_password(cook: Caller) -> None:
    assert cook.send("/me/codes", {"password": "not it"}).status_code == 422
    assert not RecoveryCode.objects.exists()


def test_a_weak_new_password_costs_no_code(cook: Caller) -> None:
    code = codes_of(cook)[0]
    answer = recover("cook", code, "short")
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "password"
    assert recover("cook", code).status_code == 200


def test_a_code_of_somebody_else_opens_nothing(cook: Caller, neighbour: Caller) -> None:
    code = codes_of(cook)[0]
    answer = recover("neighbour", code)
    assert answer.json()["errors"][0]["field"] == "code"
    assert recover("nobody-at-all", code).json() == answer.json()
    assert recover("cook", code).status_code == 200


def test_codes_are_not_guessed_faster_than_passwords(cook: Caller) -> None:
    code = codes_of(cook)[0]
    said = [recover("cook", f"guess{n}").status_code for n in range(12)]
    assert said[:10] == [422] * 10
    assert said[10:] == [429] * 2
    # Neither is a right one looked at while a guesser is held up.
    assert recover("cook", code).status_code == 429
    with time_machine.travel(timezone.now() + timedelta(minutes=2)):
        assert recover("cook", code).status_code == 200


def test_an_owner_hands_a_code_to_somebody_of_their_kitchen(cook: Caller) -> None:
    hand = person("hand", cook.member().kitchen, "cook")
    told = {one["name"]: one["resettable"] for one in cook.get("/kitchen/people").json()["people"]}
    assert told == {"cook": False, "hand": True}
    first = cook.send(f"/kitchen/people/{hand.user.pk}/reset", None).json()
    second = cook.send(f"/kitchen/people/{hand.user.pk}/reset", None).json()
    assert recover("hand", first["code"]).status_code == 422
    assert recover("hand", second["code"]).status_code == 200
    assert text_of(cook.get("/kitchen/deeds").json()[0]["said"]) == "Handed hand a code for a new password"


def test_a_code_that_was_handed_over_opens_for_a_day(cook: Caller) -> None:
    hand = person("hand", cook.member().kitchen, "guest")
    code = cook.send(f"/kitchen/people/{hand.user.pk}/reset", None).json()["code"]
    with time_machine.travel(timezone.now() + timedelta(hours=25)):
        assert recover("hand", code).status_code == 422


def test_nobody_hands_codes_to_whoever_has_anything_elsewhere(cook: Caller, neighbour: Caller) -> None:
    join(neighbour, invite(cook))
    path = f"/kitchen/people/{neighbour.user.pk}/reset"
    # A kitchen with nothing in it is nothing to take over.
    assert cook.send(path, None).status_code == 200
    neighbour.send("/session/kitchen", {"kitchen_id": str(neighbour.user.memberships.first().kitchen_id)}, "put")
    neighbour.start()
    assert cook.send(path, None).status_code == 409
    told = {one["name"]: one["resettable"] for one in cook.get("/kitchen/people").json()["people"]}
    assert told == {"cook": False, "neighbour": False}


def test_cooks_hand_over_nothing_and_nobody_resets_strangers(cook: Caller, neighbour: Caller) -> None:
    hand = person("hand", cook.member().kitchen, "cook")
    assert hand.send(f"/kitchen/people/{cook.user.pk}/reset", None).status_code == 403
    assert cook.send(f"/kitchen/people/{neighbour.user.pk}/reset", None).status_code == 404
    assert cook.send(f"/kitchen/people/{cook.user.pk}/reset", None).status_code == 409


def test_whoever_has_no_password_has_no_codes(db: None) -> None:
    visitor = Visitor()
    visitor.start()
    assert post(visitor.client, "/me/codes", {"password": ""}).status_code == 422
    assert Membership.objects.count() == 1

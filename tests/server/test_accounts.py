"""Signing up, signing in, the demo, pans and preferences."""

from __future__ import annotations

import json
from typing import Any

import pytest
from demo.kitchen import STORIES, load
from django.contrib.auth.hashers import make_password
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from kitchens.models import Kitchen
from people import hashing
from people.models import Session, User

from .conftest import Caller

JSON = "application/json"


def post(client: Client, path: str, body: Any = None) -> Any:
    return client.post(f"/api/v1{path}", json.dumps(body), content_type=JSON)


def test_signing_up_opens_a_kitchen_with_pans(client: Client, db: None) -> None:
    body = {"name": "sous", "password": "a long enough secret", "kitchen": "Corner bistro"}
    session = post(client, "/accounts", body).json()
    assert session["signed_in"]
    assert session["kitchen"] == "Corner bistro"
    assert session["role"] == "owner"
    kitchen = client.get("/api/v1/kitchen").json()
    assert len(kitchen["pans"]) == 4
    assert len(kitchen["burners"]) == 4


@pytest.mark.parametrize(
    ("part", "field", "complaint"),
    [
        ({"name": "  "}, "name", "Choose a name"),
        ({"name": "two words"}, "name", "without spaces"),
        ({"name": "TAKEN"}, "name", "already"),
        ({"password": "short"}, "password", "too short"),
        ({"password": "password123"}, "password", "too common"),
        ({"kitchen": ""}, "kitchen", "Write something"),
    ],
)
def test_a_bad_sign_up_says_why(client: Client, db: None, part: dict[str, str], field: str, complaint: str) -> None:
    User.objects.create_user(username="taken", password="a long enough secret")
    answer = post(client, "/accounts", {"name": "sous", "password": "a long enough secret", "kitchen": "x"} | part)
    assert answer.status_code == 422
    errors = {e["field"]: e["message"] for e in answer.json()["errors"]}
    assert complaint in errors[field]
    assert Kitchen.objects.count() == 0


def test_signing_in_and_out(client: Client, cook: Caller) -> None:
    wrong = post(client, "/session", {"name": "cook", "password": "no"})
    assert wrong.status_code == 422
    assert wrong.json()["errors"][0]["field"] == "password"
    assert post(client, "/session", {"name": "cook", "password": "a long enough secret"}).json()["signed_in"]
    assert not client.delete("/api/v1/session").json()["signed_in"]
    assert client.get("/api/v1/kitchen").status_code == 401


def test_another_site_cannot_sign_anyone_in_or_change_anything(cook: Caller) -> None:
    strict = Client(enforce_csrf_checks=True)
    assert post(strict, "/session", {"name": "cook", "password": "a long enough secret"}).status_code == 403
    strict.force_login(cook.user)
    assert post(strict, "/pans", {}).status_code == 403


def test_units_are_kept_with_the_person(cook: Caller) -> None:
    assert cook.send("/preferences", {"units": "us"}, "patch").json()["units"] == "us"
    assert cook.get("/session").json()["units"] == "us"
    assert cook.send("/preferences", {"units": "stone"}, "patch").status_code == 422


@pytest.mark.parametrize(("units", "said", "unsaid"), [("metric", "mL", "cup"), ("us", "qt", "mL")])
def test_what_is_wrong_is_told_in_the_readers_units(cook: Caller, units: str, said: str, unsaid: str) -> None:
    batch = cook.start()
    cook.send("/preferences", {"units": units}, "patch")
    answer = cook.record(batch["id"], {"kind": "added", "ingredient": "water", "amount": "40 l"})
    assert answer.status_code == 422
    (error,) = answer.json()["errors"]
    assert said in error["message"]
    assert unsaid not in error["message"]
    assert error["message"] == answer.json()["detail"]


@pytest.mark.parametrize(
    ("language", "units"), [("en-US,en;q=0.9", "us"), ("en-GB,en-US;q=0.8", "metric"), ("de", "metric"), ("", "metric")]
)
def test_measures_are_guessed_from_the_language(client: Client, db: None, language: str, units: str) -> None:
    body = {"name": "sous", "password": "a long enough secret", "kitchen": "x"}
    client.defaults["HTTP_ACCEPT_LANGUAGE"] = language
    assert post(client, "/accounts", body).json()["units"] == units


def test_pans_come_and_go(cook: Caller) -> None:
    pan = {
        "name": "tall pot", "shape": "round", "base_length_mm": "26 cm", "base_width_mm": "26 cm",
        "rim_length_mm": "26 cm", "rim_width_mm": "26 cm", "height_mm": "7 in", "empty_g": "2.4 kg",
    }  # fmt: skip
    added = cook.send("/pans", pan).json()
    assert added["height_mm"] == pytest.approx(177.8)
    assert added["capacity"]["value"] == pytest.approx(9440, rel=1e-3)
    wrong = cook.send("/pans", pan | {"rim_length_mm": "20 cm", "rim_width_mm": "20 cm"})
    assert "at least as wide" in wrong.json()["errors"][0]["message"]
    assert cook.client.delete(f"/api/v1/pans/{added['id']}").status_code == 204
    assert added["id"] not in {p["id"] for p in cook.kitchen()["pans"]}
    assert cook.client.delete(f"/api/v1/pans/{added['id']}").status_code == 404


def test_a_burner_can_be_set(cook: Caller) -> None:
    burner = cook.kitchen()["burners"][0]
    changed = cook.send(f"/burners/{burner['id']}", {"name": "coal range", "net_kw": 0.9}, "put").json()
    assert changed["steam_g_min"] == pytest.approx(23.9, abs=0.1)
    assert cook.send(f"/burners/{burner['id']}", {"name": "sun", "net_kw": 900}, "put").status_code == 422


def test_the_demo_is_one_tap_away_where_it_is_offered(client: Client, db: None, settings: Any) -> None:
    assert post(client, "/session/demo").status_code == 404
    settings.DEMO = True
    load(timezone.now())
    session = post(client, "/session/demo").json()
    assert session["signed_in"]
    listed = client.get("/api/v1/batches").json()["items"]
    assert {b["name"] for b in listed} == {story.name for story in STORIES}
    for batch in listed:
        whole = client.get(f"/api/v1/batches/{batch['id']}").json()
        assert not [entry for entry in whole["log"] if entry["problem"]]


def test_the_demo_told_anew_leaves_alone_what_was_worked_on(client: Client, db: None, settings: Any) -> None:
    settings.DEMO = True
    load(timezone.now())
    post(client, "/session/demo")
    ids = {b["name"]: b["id"] for b in client.get("/api/v1/batches").json()["items"]}
    touched = ids["Duck leg in perry with prunes"]
    note = {"kind": "noted", "text": "mine"}
    event = {"id": "7d0f6a54-8f5c-4a44-a3a5-6d6b8e1f0a01", "at": timezone.now().isoformat(), "payload": note}
    assert post(client, f"/batches/{touched}/events", event).status_code == 200
    load(timezone.now())
    after = {b["name"]: b["id"] for b in client.get("/api/v1/batches").json()["items"]}
    assert after["Duck leg in perry with prunes"] == touched
    assert len(after) == len(STORIES)
    assert after["Pork cheek in dry cider"] != ids["Pork cheek in dry cider"]


def test_the_page_comes_with_its_token(client: Client, db: None) -> None:
    answer = client.get("/batches/anything")
    assert answer.status_code == 200
    assert "csrftoken" in answer.cookies
    assert client.get("/api/v1/health").json() == {"status": "alive"}


# -- one's own password ----------------------------------------------------------------------------


def test_a_changed_password_ends_every_other_session(cook: Caller) -> None:
    elsewhere = Client()
    elsewhere.force_login(cook.user)
    assert elsewhere.get("/api/v1/session").json()["signed_in"]
    before = cook.client.session.session_key
    secret = {"old": "a long enough secret", "new": "another long secret"}
    wrong = cook.send("/session/password", secret | {"old": "not this"}, "put")
    assert wrong.json()["errors"][0]["field"] == "old"
    for weak in ("short", "password123"):
        refused = cook.send("/session/password", secret | {"new": weak}, "put")
        assert refused.json()["errors"][0]["field"] == "new"
    assert elsewhere.get("/api/v1/session").json()["signed_in"]
    assert cook.send("/session/password", secret, "put").json()["signed_in"]
    assert cook.client.session.session_key != before
    assert not elsewhere.get("/api/v1/session").json()["signed_in"]
    assert post(Client(), "/session", {"name": "cook", "password": secret["new"]}).status_code == 200


def test_signing_in_makes_a_new_session(cook: Caller) -> None:
    visitor = Client()
    visitor.session.save()
    before = visitor.session.session_key
    assert post(visitor, "/session", {"name": "Cook", "password": "a long enough secret"}).status_code == 200
    assert visitor.session.session_key != before


def test_passwords_are_hashed_by_argon2_and_old_hashes_are_renewed(cook: Caller, settings: Any) -> None:
    settings.PASSWORD_HASHERS = ["people.hashing.Argon2", "django.contrib.auth.hashers.PBKDF2PasswordHasher"]
    cook.user.password = make_password("a long enough secret", hasher="pbkdf2_sha256")
    cook.user.save()
    assert post(Client(), "/session", {"name": "cook", "password": "a long enough secret"}).status_code == 200
    cook.user.refresh_from_db()
    assert cook.user.password.startswith("argon2$argon2id$")


def test_a_crowd_at_the_door_does_not_take_the_processor(cook: Caller, settings: Any, monkeypatch: Any) -> None:
    settings.PASSWORD_HASHERS = ["people.hashing.Argon2"]
    monkeypatch.setattr(hashing, "PATIENCE_S", 0.01)
    taken = [hashing._turns.acquire() for _ in range(hashing.AT_ONCE)]
    try:
        answer = post(Client(), "/session", {"name": "cook", "password": "a long enough secret"})
    finally:
        for _ in taken:
            hashing._turns.release()
    assert answer.status_code == 503
    assert "Too many people" in answer.json()["detail"]


def test_who_is_signed_in_takes_one_query(cook: Caller) -> None:
    with CaptureQueriesContext(connection) as asked:
        assert cook.get("/session").json()["name"] == "cook"
    assert len(asked) == 1, [query["sql"] for query in asked]


def test_a_session_of_before_a_change_of_password_is_over(cook: Caller) -> None:
    user = User.objects.get(pk=cook.user.pk)
    user.set_password("quite another secret")
    user.save()
    assert cook.get("/session").json()["signed_in"] is False


def test_an_open_session_that_knows_not_whose_it_is_stays_open(cook: Caller) -> None:
    Session.objects.update(person=None)
    assert cook.get("/session").json()["name"] == "cook"
    Session.objects.update(expire_date=timezone.now())
    assert cook.get("/session").json()["signed_in"] is False


def test_an_expired_session_is_over(cook: Caller) -> None:
    Session.objects.update(expire_date=timezone.now())
    assert cook.get("/session").json()["signed_in"] is False


def test_an_endpoint_that_asks_for_nobody_opens_no_session(cook: Caller) -> None:
    with CaptureQueriesContext(connection) as asked:
        assert cook.get("/health").status_code == 200
    assert len(asked) == 0

"""Signing up, signing in, the demo, pans and preferences."""

from __future__ import annotations

import json
from datetime import timedelta
from io import StringIO
from typing import Any

import pytest
import time_machine
from demo.kitchen import STORIES
from django.contrib.auth.hashers import make_password
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from kitchens.models import Kitchen
from people.api import ACCOUNTS, VISITS
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
        "name": "tall pot",
        "shape": "round",
        "base_length_mm": "26 cm",
        "base_width_mm": "26 cm",
        "rim_length_mm": "26 cm",
        "rim_width_mm": "26 cm",
        "height_mm": "7 in",
        "empty_g": "2.4 kg",
    }
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
    session = post(client, "/session/demo").json()
    assert session["signed_in"]
    listed = client.get("/api/v1/batches").json()["items"]
    assert {b["name"] for b in listed} == {story.name for story in STORIES}
    for batch in listed:
        whole = client.get(f"/api/v1/batches/{batch['id']}").json()
        assert not [entry for entry in whole["log"] if entry["problem"]]


def test_what_one_does_in_the_demo_another_does_not_see(db: None, settings: Any) -> None:
    settings.DEMO = True
    one, another = Client(), Client()
    names = [post(client, "/session/demo").json()["name"] for client in (one, another)]
    assert names[0] != names[1]
    duck = next(b for b in one.get("/api/v1/batches").json()["items"] if b["name"].startswith("Duck"))
    assert another.get(f"/api/v1/batches/{duck['id']}").status_code == 404
    assert one.delete(f"/api/v1/batches/{duck['id']}").status_code == 204
    assert len(one.get("/api/v1/batches").json()["items"]) == len(STORIES) - 1
    assert len(another.get("/api/v1/batches").json()["items"]) == len(STORIES)
    # Stepping in again is no other kitchen.
    assert post(one, "/session/demo").json()["name"] == names[0]


def test_a_made_up_kitchen_goes_after_a_week_and_is_not_brought_along(db: None, settings: Any) -> None:
    settings.DEMO = True
    one, another = Client(), Client()
    post(one, "/session/demo")
    body = {"name": "sous", "password": "a long enough secret", "kitchen": "Corner bistro"}
    assert post(one, "/accounts", body).json()["kitchen"] == "Corner bistro"
    assert one.get("/api/v1/batches").json()["items"] == []
    post(another, "/session/demo")
    # The first was left for a kitchen with a name: nobody is signed in to it any more.
    call_command("tidy", stdout=StringIO())
    assert Kitchen.objects.filter(is_demo=True).count() == 1
    with time_machine.travel(timezone.now() + timedelta(days=8)):
        call_command("tidy", stdout=StringIO())
    assert list(Kitchen.objects.values_list("name", flat=True)) == ["Corner bistro"]
    assert list(User.objects.values_list("username", flat=True)) == ["sous"]


def test_whoever_steps_in_again_and_again_is_held_up(db: None, settings: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    settings.DEMO = True
    monkeypatch.setattr(VISITS, "num_requests", 2)
    said = [post(Client(), "/session/demo").status_code for _ in range(4)]
    assert said == [200, 200, 429, 429]


def test_no_more_made_up_kitchens_are_opened_than_visitors_may_have(db: None, settings: Any) -> None:
    settings.DEMO, settings.MOST_VISITORS = True, 1
    assert post(Client(), "/session/demo").status_code == 200
    assert post(Client(), "/session/demo").status_code == 429


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


# -- guessing --------------------------------------------------------------------------------------

SECRET = "a long enough secret"


def tried(name: str, password: str, address: str) -> int:
    body = json.dumps({"name": name, "password": password})
    answer = Client().post("/api/v1/session", body, content_type=JSON, REMOTE_ADDR=address)
    return int(answer.status_code)


def test_a_hundred_guesses_at_one_name_from_one_address(cook: Caller) -> None:
    looked_at = [tried("COOK", f"guess {n}", "10.0.0.1") for n in range(100)]
    assert looked_at == [422] * 10 + [429] * 90
    assert tried("cook", SECRET, "10.0.0.1") == 429
    # Waiting longer than said is not needed, whatever was tried meanwhile.
    with time_machine.travel(timezone.now() + timedelta(seconds=61)):
        assert tried("cook", SECRET, "10.0.0.1") == 200
    assert tried("cook", SECRET, "10.0.0.9") == 200


def test_a_hundred_guesses_at_one_name_from_ten_addresses(cook: Caller) -> None:
    began = timezone.now()
    looked_at = 0
    for n in range(100):
        # Slowly enough for the minute.
        with time_machine.travel(began + timedelta(seconds=20 * n)):
            looked_at += tried("cook", f"guess {n}", f"10.0.1.{n % 10}") == 422
    assert looked_at == 50
    with time_machine.travel(began + timedelta(seconds=2000)):
        # Who has the right one, and was not wrong from there, is let in all the same.
        assert tried("cook", SECRET, "10.0.9.9") == 200
        assert tried("cook", SECRET, "10.0.1.3") == 429


def test_guesses_at_many_names_from_one_address(cook: Caller) -> None:
    began = timezone.now()
    # A hundred are a class that mistypes; three times as many are nobody's.
    for n in range(300):
        with time_machine.travel(began + timedelta(seconds=n)):
            assert tried(f"cook{n}", "summer in the city", "10.0.2.1") == 422
    with time_machine.travel(began + timedelta(seconds=400)):
        assert tried("cook", SECRET, "10.0.2.1") == 429
        assert tried("cook", SECRET, "10.0.2.2") == 200


def test_a_hundred_guesses_between_ones_own_right_passwords(cook: Caller, neighbour: Caller) -> None:
    looked_at = []
    for n in range(100):
        looked_at.append(tried("cook", f"guess {n}", "10.0.3.1"))
        if n % 10 == 0:
            assert tried("neighbour", SECRET, "10.0.3.1") == 200
    assert looked_at == [422] * 10 + [429] * 90


def test_guesses_at_the_password_of_an_open_session_are_counted(cook: Caller) -> None:
    new = "another long secret"
    guesses = [cook.send("/session/password", {"old": f"guess {n}", "new": new}, "put").status_code for n in range(12)]
    assert guesses == [422] * 10 + [429] * 2


def test_the_right_password_forgives_its_own_pair(cook: Caller) -> None:
    for _ in range(5):
        assert [tried("cook", "mistyped", "10.0.4.1") for _ in range(9)] == [422] * 9
        assert tried("cook", SECRET, "10.0.4.1") == 200


@pytest.mark.parametrize("path", ["/session/demo", "/session"])
def test_whoever_asks_without_end_is_told_when_to_come_back(client: Client, db: None, settings: Any, path: str) -> None:
    body = {} if path.endswith("demo") else {"name": "", "password": ""}
    answers = [post(client, path, body) for _ in range(125)]
    assert {one.status_code for one in answers[120:]} == {429}
    assert "Try again in" in answers[-1].json()["detail"]


def test_only_accounts_that_were_made_count(client: Client, db: None, monkeypatch: Any) -> None:
    monkeypatch.setattr(ACCOUNTS, "num_requests", 2)
    body = {"name": "pupil", "password": SECRET, "kitchen": "Class"}
    for n in range(40):
        assert post(client, "/accounts", body | {"password": "short", "name": f"p{n}"}).status_code == 422
    for n in range(2):
        assert post(Client(), "/accounts", body | {"name": f"pupil-{n}"}).status_code == 200
    refused = post(Client(), "/accounts", body | {"name": "pupil-9"})
    assert refused.status_code == 429
    assert "min." in refused.json()["detail"]


@pytest.mark.parametrize(
    "password", ["Spissus2026", "spissus-2026!", "2026.SPISSUS", "rosemary rosemary", "thymethyme", " " * 12, "a" * 40]
)
def test_what_anybody_would_try_first_is_refused(client: Client, db: None, password: str) -> None:
    answer = post(client, "/accounts", {"name": "sous", "password": password, "kitchen": "x"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "password"


@pytest.mark.parametrize("password", ["banana bread pan", "spissus is thick", "4 shanks, 2 onions"])
def test_a_password_of_several_words_is_taken(client: Client, db: None, password: str) -> None:
    assert post(client, "/accounts", {"name": "sous", "password": password, "kitchen": "x"}).status_code == 200


def test_tidying_ends_the_sessions_that_are_over_and_no_other(cook: Caller, neighbour: Caller) -> None:
    old = Session.objects.filter(person=neighbour.user)
    old.update(expire_date=timezone.now() - timedelta(days=1))
    call_command("tidy", stdout=StringIO())
    assert not old.exists()
    assert cook.get("/session").json()["signed_in"]


@pytest.mark.parametrize("kind", ["multipart/form-data; boundary=x", "text/plain", "application/xml", ""])
@pytest.mark.parametrize("path", ["/session", "/accounts", "/session/password", "/batches", "/previews/line"])
def test_what_is_no_json_is_said_to_be_none(cook: Caller, path: str, kind: str) -> None:
    method = cook.client.put if path.endswith("password") else cook.client.post
    answer = method(f"/api/v1{path}", b'--x\r\nContent-Disposition: form-data; name="a"\r\n\r\n1\r\n--x--', kind)
    assert answer.status_code == 415
    assert answer.headers["Content-Type"] == "application/problem+json"

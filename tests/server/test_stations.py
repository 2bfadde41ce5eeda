"""A tablet that stays in the kitchen and is nobody's: it records under its name, and arranges nothing."""

from __future__ import annotations

from typing import Any

import pytest
from batches.models import Event
from kitchens.models import Kitchen, Membership
from people.models import User

from .conftest import Caller, person
from .test_brigade import brigade, invite
from .test_visitors import Visitor, post


def station_code(owner: Caller, name: str = "tablet-by-the-pass") -> str:
    answer = owner.send("/kitchen/stations", {"name": name})
    assert answer.status_code == 200, answer.content
    return str(answer.json()["code"])


@pytest.fixture
def tablet(cook: Caller) -> Caller:
    visitor = Visitor()
    assert post(visitor.client, "/kitchen/joins", {"code": station_code(cook)}).status_code == 200
    made = Caller(User.objects.get(username="tablet-by-the-pass"))
    made.client = visitor.client
    return made


def test_a_tablet_joins_under_its_name_and_leaves_no_kitchen_behind(cook: Caller, tablet: Caller) -> None:
    assert brigade(cook) == {"cook": "owner", "tablet-by-the-pass": "station"}
    assert Kitchen.objects.count() == 1
    session = tablet.get("/session").json()
    assert (session["role"], session["claimed"], session["kitchen"]) == ("station", True, "cook's kitchen")


def test_it_records_and_its_name_stands_in_the_log(cook: Caller, tablet: Caller) -> None:
    batch = tablet.start()["id"]
    assert tablet.record(batch, {"kind": "noted", "text": "smells of bay"}).status_code == 200
    authors = cook.get(f"/batches/{batch}/authors").json()
    assert {author["name"] for author in authors} == {"tablet-by-the-pass"}


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("patch", "/kitchen", {"altitude_m": 300}),
        ("post", "/devices", {"name": "scale", "kind": "scale"}),
        ("post", "/larder", {"name": "house stock", "like": "beef_stock_own"}),
        ("delete", "/liking", None),
        ("post", "/kitchen/invitations", {"role": "cook"}),
        ("post", "/kitchen/stations", {"name": "another"}),
        ("post", "/kitchen/joins", {"code": "whatever"}),
    ],
)
def test_it_arranges_nothing(tablet: Caller, method: str, path: str, body: Any) -> None:
    assert tablet.send(path, body, method).status_code == 403


def test_it_deletes_no_batch_and_takes_no_kitchen_away(cook: Caller, tablet: Caller) -> None:
    batch = cook.start()["id"]
    assert tablet.send(f"/batches/{batch}", None, "delete").status_code == 403
    assert tablet.get("/kitchen/file").status_code == 403


def test_it_is_nobody_and_becomes_nobody(cook: Caller, tablet: Caller) -> None:
    for role in ("owner", "cook", "guest"):
        answer = cook.send(f"/kitchen/people/{tablet.user.pk}", {"role": role}, "patch")
        assert answer.status_code == 422
    assert cook.send(f"/kitchen/people/{tablet.user.pk}/reset", None).status_code == 409
    hand = person("hand", cook.member().kitchen, "cook")
    assert cook.send(f"/kitchen/people/{hand.user.pk}", {"role": "station"}, "patch").status_code == 422


def test_removed_it_is_out_at_once_and_what_it_recorded_stays(cook: Caller, tablet: Caller) -> None:
    batch = tablet.start()["id"]
    assert cook.send(f"/kitchen/people/{tablet.user.pk}", None, "delete").status_code == 204
    assert tablet.get("/kitchen").status_code in (401, 403)
    assert tablet.record(batch, {"kind": "noted", "text": "again"}).status_code in (401, 403)
    assert Event.objects.get(batch=batch).author.username == "tablet-by-the-pass"  # type: ignore[union-attr]


def test_whoever_is_signed_in_does_not_become_a_tablet(cook: Caller, neighbour: Caller) -> None:
    code = station_code(cook)
    assert neighbour.send("/kitchen/joins", {"code": code}).status_code == 409
    # Nor is a sauce that somebody began here let go for it.
    visitor = Visitor()
    visitor.start()
    assert post(visitor.client, "/kitchen/joins", {"code": code}).status_code == 409
    assert Membership.objects.filter(role="station").count() == 0
    # And the code is good still.
    assert post(Visitor().client, "/kitchen/joins", {"code": code}).status_code == 200


@pytest.mark.parametrize(
    ("name", "said"), [("", "Choose a name"), ("cook", "already"), ("two words", "without spaces")]
)
def test_its_name_is_one_that_nobody_has(cook: Caller, name: str, said: str) -> None:
    answer = cook.send("/kitchen/stations", {"name": name})
    assert answer.status_code == 422
    assert said in answer.json()["errors"][0]["message"]


def test_a_name_that_was_taken_meanwhile_is_said_where_it_joins(cook: Caller) -> None:
    code = station_code(cook)
    person("tablet-by-the-pass")
    answer = post(Visitor().client, "/kitchen/joins", {"code": code})
    assert answer.status_code == 422
    assert Membership.objects.filter(role="station").count() == 0


def test_an_invitation_of_a_person_makes_no_tablet(cook: Caller) -> None:
    assert cook.send("/kitchen/invitations", {"role": "station"}).status_code == 422
    visitor = Visitor()
    post(visitor.client, "/kitchen/joins", {"code": invite(cook)})
    assert "station" not in brigade(cook).values()

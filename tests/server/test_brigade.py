"""Who works in a kitchen: invited once, with rights that differ, removed at once; and who did what."""

from __future__ import annotations

import json
from datetime import timedelta
from typing import Any

import pytest
from django.test import Client
from kitchens.brigade import MOST_OPEN
from kitchens.models import Invitation, Kitchen
from makers import text_of
from shared.codes import SIGNS

from .conftest import Caller, person
from .test_visitors import Visitor, post


def invite(owner: Caller, role: str = "cook") -> str:
    answer = owner.send("/kitchen/invitations", {"role": role})
    assert answer.status_code == 200, answer.content
    return str(answer.json()["code"])


def join(somebody: Caller, code: str) -> Any:
    return somebody.send("/kitchen/joins", {"code": code})


def brigade(caller: Caller) -> dict[str, str]:
    return {one["name"]: one["role"] for one in caller.get("/kitchen/people").json()["people"]}


@pytest.mark.parametrize(
    ("role", "records", "arranges"), [("owner", 200, 200), ("cook", 200, 403), ("guest", 403, 403)]
)
def test_whoever_is_invited_may_what_their_role_may(
    cook: Caller, neighbour: Caller, role: str, records: int, arranges: int
) -> None:
    batch = cook.start()["id"]
    answer = join(neighbour, invite(cook, role))
    assert answer.json()["name"] == "cook's kitchen"
    assert neighbour.get(f"/batches/{batch}").status_code == 200
    assert neighbour.record(batch, {"kind": "noted", "text": "tasted"}).status_code == records
    assert neighbour.send("/kitchen/invitations", {"role": "cook"}).status_code == arranges
    assert neighbour.get("/kitchen/deeds").status_code == arranges
    assert brigade(cook) == {"cook": "owner", "neighbour": role}
    assert neighbour.get("/session").json()["role"] == role


def test_a_code_opens_once_within_its_time_and_not_once_it_was_taken_back(cook: Caller, neighbour: Caller) -> None:
    code = invite(cook)
    # As somebody reads it out.
    assert join(neighbour, f" {code[:5].upper()}-{code[5:]} ").status_code == 200
    third = person("third")
    assert join(third, code).status_code == 422
    late = invite(cook)
    Invitation.objects.filter(used_at=None).update(expires_at=Kitchen.objects.first().created_at - timedelta(days=1))  # type: ignore[union-attr]
    assert join(third, late).status_code == 422
    back = invite(cook)
    [open_one] = cook.get("/kitchen/people").json()["invitations"]
    assert cook.send(f"/kitchen/invitations/{open_one['id']}", None, "delete").status_code == 204
    assert join(third, back).status_code == 422
    assert join(third, "").status_code == 422
    assert brigade(cook) == {"cook": "owner", "neighbour": "cook"}


def test_codes_are_drawn_anew_bounded_and_kept_nowhere(cook: Caller) -> None:
    codes = {invite(cook) for _ in range(MOST_OPEN)}
    assert len(codes) == MOST_OPEN
    assert set("".join(codes)) <= set(SIGNS)
    assert cook.send("/kitchen/invitations", {"role": "cook"}).status_code == 422
    kept = json.dumps(list(Invitation.objects.values_list("digest", flat=True)))
    assert not any(code in kept for code in codes)
    assert not any("code" in one for one in cook.get("/kitchen/people").json()["invitations"])


def test_guessing_codes_is_held_up(cook: Caller, neighbour: Caller) -> None:
    answers = [join(neighbour, f"guess{n}").status_code for n in range(35)]
    assert answers[:30] == [422] * 30
    assert set(answers[30:]) == {429}


def test_somebody_removed_is_out_at_once_and_keeps_what_is_theirs(cook: Caller, neighbour: Caller) -> None:
    own = neighbour.start("Mine")["id"]
    batch = cook.start()["id"]
    join(neighbour, invite(cook))
    assert neighbour.record(batch, {"kind": "noted", "text": "I was here"}).status_code == 200
    assert cook.send(f"/kitchen/people/{neighbour.user.pk}", None, "delete").status_code == 204
    assert neighbour.record(batch, {"kind": "noted", "text": "still?"}).status_code == 404
    assert neighbour.get(f"/batches/{batch}").status_code == 404
    # They work in their own kitchen again.
    assert neighbour.get(f"/batches/{own}").status_code == 200
    assert [one["name"] for one in cook.get(f"/batches/{batch}/authors").json()] == ["cook", "neighbour"]


def test_there_is_an_owner_always(cook: Caller, neighbour: Caller) -> None:
    me = f"/kitchen/people/{cook.user.pk}"
    assert cook.send(me, {"role": "cook"}, "patch").status_code == 409
    assert cook.send(me, None, "delete").status_code == 409
    join(neighbour, invite(cook))
    assert neighbour.send(me, {"role": "guest"}, "patch").status_code == 403
    assert cook.send(f"/kitchen/people/{neighbour.user.pk}", {"role": "owner"}, "patch").status_code == 200
    assert cook.send(me, None, "delete").status_code == 204
    assert brigade(neighbour) == {"neighbour": "owner"}
    assert neighbour.send("/kitchen/people/999999", None, "delete").status_code == 404


def test_a_browser_works_in_one_kitchen_at_a_time_and_another_in_another(cook: Caller, neighbour: Caller) -> None:
    own = neighbour.get("/session").json()["kitchen_id"]
    join(neighbour, invite(cook))
    elsewhere = Client()
    elsewhere.force_login(neighbour.user)
    assert elsewhere.get("/api/v1/session").json()["kitchen_id"] == own
    assert neighbour.get("/session").json()["kitchen"] == "cook's kitchen"
    assert {one["name"]: one["here"] for one in neighbour.get("/kitchens").json()} == {
        "neighbour's kitchen": False,
        "cook's kitchen": True,
    }
    assert neighbour.send("/session/kitchen", {"kitchen_id": own}, "put").status_code == 200
    assert neighbour.get("/session").json()["kitchen_id"] == own
    stranger = person("stranger")
    assert stranger.send("/session/kitchen", {"kitchen_id": own}, "put").status_code == 404


def test_a_visitor_joins_and_takes_a_name_later(cook: Caller) -> None:
    visitor = Visitor()
    begun = visitor.start("My own")["id"]
    assert join(visitor, invite(cook, "guest")).status_code == 200
    session = visitor.get("/session").json()
    assert (session["kitchen"], session["role"], session["claimed"]) == ("cook's kitchen", "guest", False)
    named = post(visitor.client, "/accounts", {"name": "gull", "password": "a long enough secret", "kitchen": "Mine"})
    assert named.status_code == 200, named.content
    assert brigade(cook) == {"cook": "owner", "gull": "guest"}
    home = next(one["id"] for one in visitor.get("/kitchens").json() if one["name"] == "Mine")
    visitor.send("/session/kitchen", {"kitchen_id": home}, "put")
    assert visitor.get(f"/batches/{begun}").status_code == 200


def test_a_visitor_who_signs_in_brings_where_they_were_invited_to(cook: Caller, neighbour: Caller) -> None:
    visitor = Visitor()
    join(visitor, invite(cook))
    theirs = {"name": "neighbour", "password": "a long enough secret", "bring": True}
    assert post(visitor.client, "/session", theirs).status_code == 200
    assert brigade(cook) == {"cook": "owner", "neighbour": "cook"}


def test_a_kitchen_nobody_claimed_invites_nobody(db: None) -> None:
    assert Visitor().send("/kitchen/invitations", {"role": "cook"}).status_code == 422


def test_owners_read_who_did_what(cook: Caller, neighbour: Caller) -> None:
    join(neighbour, invite(cook))
    pan = {"name": "tall pot", "shape": "round", "base_length_mm": 260, "height_mm": 240, "base_width_mm": 260}
    assert neighbour.send("/pans", pan | {"rim_length_mm": 260, "rim_width_mm": 260}).status_code == 200
    neighbour.send("/devices", {"name": "bench scale", "kind": "scale"})
    cook.send("/kitchen", {"limits": {"place": "england"}}, "patch")
    cook.send(f"/kitchen/people/{neighbour.user.pk}", None, "delete")
    told = [(one["by"], text_of(one["said"])) for one in cook.get("/kitchen/deeds").json()]
    assert told[0] == ("cook", "Removed neighbour")
    assert ("neighbour", "Added the pan tall pot") in told
    assert ("neighbour", "Added the device bench scale") in told
    assert ("neighbour", "Joined as cook") in told
    assert told[-1] == ("cook", "Invited a new cook")

"""Who may do what: one row an operation of the API, and a new operation without a row fails."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal
from uuid import uuid4

import pytest
from config.api import api
from django.test import Client
from kitchens.models import Membership

from .conftest import Caller, person

#: Everyone; anyone signed in; cooks and owners, but not guests; a device by its token.
May = Literal["everyone", "member", "cook", "device"]

PAN = {
    "name": "tall pot",
    "base_length_mm": 260,
    "base_width_mm": 260,
    "rim_length_mm": 260,
    "rim_width_mm": 260,
    "height_mm": 180,
}
AT = "2026-03-14T18:00:00Z"
#: A file with a pan in it that nobody has.
FILE = {
    "format": "spissus-kitchen",
    "version": 1,
    "pans": [{"id": str(uuid4()), "spec": PAN, "position": 0, "retired": False}],
}


@dataclass(frozen=True)
class Row:
    """Who may, and a call that goes well; ``{pan}`` and the like stand for what belongs to the cook's kitchen."""

    may: May
    path: str = ""
    body: Any = None
    ids: tuple[str, ...] = field(default=())
    answers: tuple[int, ...] = (200, 204)


ROWS: dict[str, Row] = {
    "GET /shelf": Row("member"),
    "GET /batches/{batch_id}/chilling/{what}": Row("member", "/batches/{batch}/chilling/sauce", ids=("batch",)),
    "GET /session": Row("everyone"),
    "POST /session": Row("everyone"),
    "POST /session/demo": Row("everyone"),
    "POST /accounts": Row("everyone"),
    "POST /session/visit": Row("everyone"),
    "GET /me/browsers": Row("member"),
    "DELETE /me/browsers/{mark}": Row("member", "/me/browsers/none", answers=(404,)),
    "PUT /me/name": Row("member", body={"name": "gull", "password": "not it"}, answers=(422,)),
    "POST /me/end": Row("member", body={"password": "not it"}, answers=(422,)),
    "GET /kitchen/people": Row("member"),
    "POST /kitchen/invitations": Row("cook", body={"role": "cook"}),
    "DELETE /kitchen/invitations/{invitation_id}": Row(
        "cook", "/kitchen/invitations/{invitation}", ids=("invitation",)
    ),
    "POST /kitchen/joins": Row("member", body={"code": "none"}, answers=(422,)),
    "PATCH /kitchen/people/{person_id}": Row("cook", "/kitchen/people/{hand}", {"role": "guest"}, ("hand",)),
    "DELETE /kitchen/people/{person_id}": Row("cook", "/kitchen/people/{hand}", ids=("hand",)),
    "GET /kitchens": Row("member"),
    "PUT /session/kitchen": Row("member", body="kitchen"),
    "GET /kitchen/deeds": Row("cook"),
    "GET /health": Row("everyone"),
    "GET /ready": Row("everyone"),
    "DELETE /session": Row("member"),
    "PUT /session/password": Row("member", body={"old": "a long enough secret", "new": "another long secret"}),
    "PATCH /preferences": Row("member", body={"units": "us"}),
    "GET /kitchen": Row("member"),
    "PATCH /kitchen": Row("cook", body={"altitude_m": 300}),
    "DELETE /learned": Row("cook", "/learned?pan=x&burner=y"),
    "DELETE /learned/strength": Row("cook", "/learned/strength?dry=flour"),
    "DELETE /learned/batches/{batch_id}": Row("cook", "/learned/batches/{batch}"),
    "DELETE /liking": Row("cook"),
    "POST /pans": Row("cook", body=PAN),
    "PUT /pans/{pan_id}": Row("cook", "/pans/{pan}", PAN, ("pan",)),
    "DELETE /pans/{pan_id}": Row("cook", "/pans/{pan}", ids=("pan",)),
    "GET /pans/{pan_id}/skewer.{kind}": Row("member", "/pans/{pan}/skewer.svg?units=metric", ids=("pan",)),
    "POST /previews/calibration": Row(
        "member", body={"pan": PAN, "poured": [{"volume_ml": v, "depth_mm": v / 53} for v in (1000, 2000, 3000)]}
    ),
    "POST /burners": Row("cook", body={"name": "coal range", "net_kw": 1.0}),
    "PUT /burners/{burner_id}": Row("cook", "/burners/{burner}", {"name": "coal range", "net_kw": 1}, ("burner",)),
    "DELETE /burners/{burner_id}": Row("cook", "/burners/{burner}", ids=("burner",)),
    "GET /lists": Row("member"),
    "GET /ingredients": Row("member", "/ingredients?q=stock"),
    "GET /larder": Row("member"),
    "POST /larder": Row("cook", body={"name": "house stock", "like": "beef_stock_own"}),
    "PUT /larder/{own_id}": Row("cook", "/larder/{own}", {"name": "stock", "like": "beef_stock_own"}, ("own",)),
    "DELETE /larder/{own_id}": Row("cook", "/larder/{own}", ids=("own",)),
    "POST /previews/start": Row("member", body="start", ids=("pan",)),
    "POST /previews/list": Row("member", body={"text": "1 l stock"}),
    "POST /previews/recipe": Row("member", body={"@type": "Recipe", "name": "x", "recipeIngredient": ["1 l stock"]}),
    "POST /previews/line": Row("member", body={"text": "1 l stock"}),
    "POST /previews/sentence": Row("member", body={"text": "two litres"}),
    "POST /previews/concentrate": Row("member", body={"volume_ml": 900, "concentrate_parts": 1, "water_parts": 9}),
    "GET /batches": Row("member"),
    "PATCH /batches/{batch_id}": Row("cook", "/batches/{batch}", ids=("batch",), body={"name": "Shin again"}),
    "GET /batches/{batch_id}/authors": Row("member", "/batches/{batch}/authors", ids=("batch",)),
    "GET /batches/{batch_id}/last-time": Row("member", "/batches/{batch}/last-time", ids=("batch",)),
    "DELETE /batches/{batch_id}": Row("cook", "/batches/{batch}", ids=("batch",)),
    "POST /batches": Row("cook", body="batch", ids=("pan",)),
    "GET /batches/{batch_id}": Row("member", "/batches/{batch}", ids=("batch",)),
    "GET /batches/{batch_id}/alone": Row("member", "/batches/{batch}/alone", ids=("batch",)),
    "POST /batches/{batch_id}/events": Row("cook", "/batches/{batch}/events", "event", ("batch",)),
    "POST /batches/{batch_id}/foreseen": Row(
        "member",
        "/batches/{batch}/foreseen",
        {"payload": {"kind": "salted", "salt_g": "2 g", "salt": "table"}},
        ("batch",),
    ),
    "GET /batches/{batch_id}/finishes": Row("member", "/batches/{batch}/finishes", ids=("batch",)),
    "POST /batches/{batch_id}/routes": Row("member", "/batches/{batch}/routes", {"volume_ml": 900}, ("batch",)),
    "POST /batches/{batch_id}/routes/{kind}/reasons": Row(
        "member", "/batches/{batch}/routes/all-volume-white_roux/reasons", {"volume_ml": 900}, ("batch",)
    ),
    "POST /batches/{batch_id}/pans": Row("member", "/batches/{batch}/pans", {}, ("batch",)),
    "GET /batches/{batch_id}/files/{name}": Row(
        "member", "/batches/{batch}/files/skewer.svg?units=metric", ids=("batch",)
    ),
    "GET /kitchen/files/{name}": Row("member", "/kitchen/files/batches.csv?units=metric"),
    "GET /batches/{batch_id}/story": Row("member", "/batches/{batch}/story", ids=("batch",)),
    "GET /kitchen/file": Row("cook"),
    "GET /batches/{batch_id}/file": Row("member", "/batches/{batch}/file", ids=("batch",)),
    "POST /files/look": Row("cook", body=FILE),
    "POST /files": Row("cook", body=FILE),
    "DELETE /files/{taken_id}": Row("cook", "/files/{taken}", ids=("taken",)),
    "GET /house-dishes": Row("member"),
    "POST /house-dishes": Row("cook", body="dish", ids=("batch",)),
    "POST /house-dishes/prep": Row("member", body="prep", ids=("dish",)),
    "GET /house-dishes/{dish_id}": Row("member", "/house-dishes/{dish}", ids=("dish",)),
    "PATCH /house-dishes/{dish_id}": Row("cook", "/house-dishes/{dish}", {"name": "Shin again"}, ("dish",)),
    "GET /house-dishes/{dish_id}/foreseen": Row(
        "member", "/house-dishes/{dish}/foreseen?pan_id={pan}&burner_id={burner}", ids=("dish", "pan", "burner")
    ),
    "GET /house-dishes/{dish_id}/files/{name}": Row(
        "member", "/house-dishes/{dish}/files/recipe.jsonld?units=metric", ids=("dish",)
    ),
    "GET /devices": Row("member"),
    "POST /devices": Row("cook", body={"name": "scale", "kind": "scale"}),
    "PUT /devices/{device_id}/batch": Row("cook", "/devices/{device}/batch", {"batch_id": None}, ("device",)),
    "DELETE /devices/{device_id}": Row("cook", "/devices/{device}", ids=("device",)),
    "GET /device": Row("device"),
    "POST /device/readings": Row("device", body={"readings": [{"at": AT, "value": 2000}]}),
}


def operations() -> set[str]:
    """Every operation there is, from the API's own description."""
    paths = api.get_openapi_schema()["paths"]
    return {f"{method.upper()} {path.removeprefix('/api/v1')}" for path, of in paths.items() for method in of}


def test_every_operation_has_its_row() -> None:
    assert operations() == set(ROWS)


@pytest.fixture
def things(cook: Caller) -> dict[str, str]:
    """One of everything that belongs to the cook's kitchen, by id."""
    kitchen, batch, dish = cook.kitchen(), cook.start()["id"], str(uuid4())
    cook.send("/house-dishes", {"id": dish, "batch_id": batch, "name": "Shin", "people": 4})
    return {
        "dish": dish,
        "hand": str(person("hand", cook.member().kitchen, "cook").user.pk),
        "invitation": cook.send("/kitchen/invitations", {"role": "cook"}).json()["id"],
        "pan": kitchen["pans"][2]["id"],
        "burner": kitchen["burners"][1]["id"],
        "batch": batch,
        "own": cook.send("/larder", {"name": "house stock", "like": "beef_stock_own"}).json()["id"],
        "device": cook.send("/devices", {"name": "scale", "kind": "scale"}).json()["id"],
        "taken": cook.send("/files", FILE).json()["taken"],
    }


def call(client: Client, key: str, things: dict[str, str], start: dict[str, Any]) -> Any:
    """The row's call by ``client``."""
    method, path = key.split(" ")
    row = ROWS[key]
    body = (
        {
            "start": start,
            "batch": {"id": str(uuid4()), "event_id": str(uuid4()), "at": AT, "name": "Shin", "start": start},
            "dish": {"id": str(uuid4()), "batch_id": things["batch"], "name": "Shin", "people": 4},
            "kitchen": {"kitchen_id": str(Membership.objects.get(user__username="cook").kitchen_id)},
            "prep": {"dishes": [{"id": things["dish"], "people": 4}]},
            "event": {"id": str(uuid4()), "at": AT, "payload": {"kind": "noted", "text": "x"}},
        }.get(row.body, row.body)
        if isinstance(row.body, str)
        else row.body
    )
    where = "/api/v1" + (row.path or path).format(**things)
    more = {} if body is None else {"data": body, "content_type": "application/json"}
    return client.generic(method, where) if body is None else getattr(client, method.lower())(where, **more)


@pytest.mark.parametrize("key", sorted(ROWS))
def test_each_operation_is_for_those_it_is_for(
    cook: Caller, neighbour: Caller, things: dict[str, str], key: str
) -> None:
    row, start = ROWS[key], cook.start_body()
    guest = person("guest", cook.member().kitchen, "guest")
    nobody = Client()
    if row.may == "everyone":
        assert call(nobody, key, things, start).status_code not in (401, 403)
        return
    assert call(nobody, key, things, start).status_code == 401
    if row.may == "device":
        assert call(cook.client, key, things, start).status_code == 401
        assert call(Client(headers={"authorization": "Bearer nothing"}), key, things, start).status_code == 401
        token = cook.send("/devices", {"name": "scale", "kind": "scale"}).json()["token"]
        assert call(Client(headers={"authorization": f"Bearer {token}"}), key, things, start).status_code != 401
        return
    if row.ids:
        # What is another kitchen's is not there at all.
        assert call(neighbour.client, key, things, start).status_code == 404
    refused = call(guest.client, key, things, start)
    assert refused.status_code == 403 if row.may == "cook" else refused.status_code in row.answers, refused.content
    done = call(cook.client, key, things, start)
    assert done.status_code in row.answers, done.content

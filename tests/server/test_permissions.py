"""Who may do what: one row an operation of the API, and a new operation without a row fails."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal
from uuid import uuid4

import pytest
from config.api import api
from django.db import transaction
from django.test import Client
from kitchens.models import Membership

from .conftest import Caller, person

#: Everyone; a device by its token; and of those who work in a kitchen, whoever may at least what this one may.
May = Literal["everyone", "device", "guest", "person", "station", "cook", "owner"]

#: Who may what each of them may. A tablet that is nobody's records as a cook does, and joins nothing.
ROLES: dict[str, set[str]] = {
    "guest": {"guest", "person"},
    "station": {"guest", "station"},
    "cook": {"guest", "person", "station", "cook"},
    "owner": {"guest", "person", "station", "cook", "owner"},
}

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


MIXTURE = {"name": "house roux", "text": "500 g flour\n500 g butter", "goes_in": "roux"}

ROWS: dict[str, Row] = {
    "GET /shelf": Row("guest"),
    "GET /batches/{batch_id}/chilling/{what}": Row("guest", "/batches/{batch}/chilling/sauce", ids=("batch",)),
    "GET /session": Row("everyone"),
    "POST /session": Row("everyone"),
    "POST /session/demo": Row("everyone"),
    "POST /accounts": Row("everyone"),
    "POST /session/visit": Row("everyone"),
    "GET /me/browsers": Row("guest"),
    "DELETE /me/browsers/{mark}": Row("guest", "/me/browsers/none", answers=(404,)),
    "PUT /me/name": Row("guest", body={"name": "gull", "password": "not it"}, answers=(422,)),
    "POST /me/end": Row("guest", body={"password": "not it"}, answers=(422,)),
    "GET /kitchen/people": Row("guest"),
    "POST /kitchen/invitations": Row("owner", body={"role": "cook"}),
    "DELETE /kitchen/invitations/{invitation_id}": Row(
        "owner", "/kitchen/invitations/{invitation}", ids=("invitation",)
    ),
    "POST /kitchen/joins": Row("person", body={"code": "none"}, answers=(422,)),
    "PATCH /kitchen/people/{person_id}": Row("owner", "/kitchen/people/{hand}", {"role": "guest"}, ("hand",)),
    "DELETE /kitchen/people/{person_id}": Row("owner", "/kitchen/people/{hand}", ids=("hand",)),
    "GET /kitchens": Row("guest"),
    "PUT /session/kitchen": Row("guest", body="kitchen"),
    "POST /kitchen/stations": Row("owner", body={"name": "tablet"}),
    "POST /kitchen/people/{person_id}/reset": Row("owner", "/kitchen/people/{hand}/reset", ids=("hand",)),
    "GET /me/codes": Row("guest"),
    "POST /me/codes": Row("guest", body={"password": "not it"}, answers=(422,)),
    "POST /session/recovery": Row("everyone"),
    "GET /kitchen/deeds": Row("owner"),
    "GET /health": Row("everyone"),
    "GET /ready": Row("everyone"),
    "DELETE /session": Row("guest"),
    "PUT /session/password": Row("guest", body={"old": "a long enough secret", "new": "another long secret"}),
    "PATCH /preferences": Row("guest", body={"units": "us"}),
    "GET /kitchen": Row("guest"),
    "PATCH /kitchen": Row("cook", body={"altitude_m": 300}),
    "DELETE /learned": Row("cook", "/learned?pan=x&burner=y"),
    "DELETE /learned/strength": Row("cook", "/learned/strength?dry=flour"),
    "DELETE /learned/batches/{batch_id}": Row("cook", "/learned/batches/{batch}"),
    "DELETE /liking": Row("cook"),
    "POST /pans": Row("cook", body=PAN),
    "PUT /pans/{pan_id}": Row("cook", "/pans/{pan}", PAN, ("pan",)),
    "DELETE /pans/{pan_id}": Row("cook", "/pans/{pan}", ids=("pan",)),
    "GET /pans/{pan_id}/skewer.{kind}": Row("guest", "/pans/{pan}/skewer.svg?units=metric", ids=("pan",)),
    "POST /previews/calibration": Row(
        "guest", body={"pan": PAN, "poured": [{"volume_ml": v, "depth_mm": v / 53} for v in (1000, 2000, 3000)]}
    ),
    "POST /burners": Row("cook", body={"name": "coal range", "net_kw": 1.0}),
    "PUT /burners/{burner_id}": Row("cook", "/burners/{burner}", {"name": "coal range", "net_kw": 1}, ("burner",)),
    "DELETE /burners/{burner_id}": Row("cook", "/burners/{burner}", ids=("burner",)),
    "GET /lists": Row("guest"),
    "GET /explained": Row("everyone"),
    "GET /example": Row("everyone"),
    "GET /ingredients": Row("guest", "/ingredients?q=stock"),
    "GET /larder": Row("guest"),
    "POST /larder": Row("cook", body={"name": "house stock", "like": "beef_stock_own"}),
    "PUT /larder/{own_id}": Row("cook", "/larder/{own}", {"name": "stock", "like": "beef_stock_own"}, ("own",)),
    "DELETE /larder/{own_id}": Row("cook", "/larder/{own}", ids=("own",)),
    "GET /mixtures": Row("guest"),
    "POST /previews/mixture": Row("guest", body=MIXTURE),
    "POST /mixtures": Row("cook", body=MIXTURE),
    "PUT /mixtures/{mixture_id}": Row("cook", "/mixtures/{mixture}", MIXTURE, ("mixture",)),
    "DELETE /mixtures/{mixture_id}": Row("cook", "/mixtures/{mixture}", ids=("mixture",)),
    "POST /previews/start": Row("guest", body="start", ids=("pan",)),
    "POST /previews/list": Row("guest", body={"text": "1 l stock"}),
    "POST /previews/recipe": Row("guest", body={"@type": "Recipe", "name": "x", "recipeIngredient": ["1 l stock"]}),
    "POST /previews/line": Row("guest", body={"text": "1 l stock"}),
    "POST /previews/sentence": Row("guest", body={"text": "two litres"}),
    "POST /previews/concentrate": Row("guest", body={"volume_ml": 900, "concentrate_parts": 1, "water_parts": 9}),
    "GET /batches": Row("guest"),
    "PATCH /batches/{batch_id}": Row("station", "/batches/{batch}", ids=("batch",), body={"name": "Shin again"}),
    "GET /batches/{batch_id}/authors": Row("guest", "/batches/{batch}/authors", ids=("batch",)),
    "GET /batches/{batch_id}/last-time": Row("guest", "/batches/{batch}/last-time", ids=("batch",)),
    "DELETE /batches/{batch_id}": Row("owner", "/batches/{batch}", ids=("batch",)),
    "POST /batches": Row("station", body="batch", ids=("pan",)),
    "GET /batches/{batch_id}": Row("guest", "/batches/{batch}", ids=("batch",)),
    "GET /batches/{batch_id}/alone": Row("guest", "/batches/{batch}/alone", ids=("batch",)),
    "POST /batches/{batch_id}/events": Row("station", "/batches/{batch}/events", "event", ("batch",)),
    "POST /batches/{batch_id}/foreseen": Row(
        "guest",
        "/batches/{batch}/foreseen",
        {"payload": {"kind": "salted", "salt_g": "2 g", "salt": "table"}},
        ("batch",),
    ),
    "GET /batches/{batch_id}/finishes": Row("guest", "/batches/{batch}/finishes", ids=("batch",)),
    "POST /batches/{batch_id}/routes": Row("guest", "/batches/{batch}/routes", {"volume_ml": 900}, ("batch",)),
    "POST /batches/{batch_id}/routes/{kind}/reasons": Row(
        "guest", "/batches/{batch}/routes/all-volume-white_roux/reasons", {"volume_ml": 900}, ("batch",)
    ),
    "POST /batches/{batch_id}/schools": Row(
        "guest", "/batches/{batch}/schools?like=all-taste-white_roux", {"volume_ml": 900}, ("batch",)
    ),
    "POST /batches/{batch_id}/pans": Row("guest", "/batches/{batch}/pans", {}, ("batch",)),
    "GET /batches/{batch_id}/files/{name}": Row(
        "guest", "/batches/{batch}/files/skewer.svg?units=metric", ids=("batch",)
    ),
    "GET /kitchen/files/{name}": Row("guest", "/kitchen/files/batches.csv?units=metric"),
    "GET /batches/{batch_id}/story": Row("guest", "/batches/{batch}/story", ids=("batch",)),
    "GET /kitchen/file": Row("owner"),
    "GET /batches/{batch_id}/file": Row("guest", "/batches/{batch}/file", ids=("batch",)),
    "POST /files/look": Row("owner", body=FILE),
    "POST /files": Row("owner", body=FILE),
    "DELETE /files/{taken_id}": Row("owner", "/files/{taken}", ids=("taken",)),
    "GET /house-dishes": Row("guest"),
    "POST /house-dishes": Row("cook", body="dish", ids=("batch",)),
    "POST /house-dishes/prep": Row("guest", body="prep", ids=("dish",)),
    "GET /house-dishes/{dish_id}": Row("guest", "/house-dishes/{dish}", ids=("dish",)),
    "PATCH /house-dishes/{dish_id}": Row("cook", "/house-dishes/{dish}", {"name": "Shin again"}, ("dish",)),
    "GET /house-dishes/{dish_id}/foreseen": Row(
        "guest", "/house-dishes/{dish}/foreseen?pan_id={pan}&burner_id={burner}", ids=("dish", "pan", "burner")
    ),
    "GET /house-dishes/{dish_id}/files/{name}": Row(
        "guest", "/house-dishes/{dish}/files/recipe.jsonld?units=metric", ids=("dish",)
    ),
    "GET /devices": Row("guest"),
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
        "mixture": cook.send("/mixtures", MIXTURE).json()["id"],
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


def test_each_operation_is_for_those_it_is_for(cook: Caller, neighbour: Caller, things: dict[str, str]) -> None:
    """Every operation is called in the same kitchen, each as if it were the only one."""
    for key in sorted(ROWS):
        with transaction.atomic():
            _is_for_those_it_is_for(cook, neighbour, things, key)
            transaction.set_rollback(True)


def _is_for_those_it_is_for(cook: Caller, neighbour: Caller, things: dict[str, str], key: str) -> None:
    row, start = ROWS[key], cook.start_body()
    nobody = Client()
    if row.may == "everyone":
        assert call(nobody, key, things, start).status_code not in (401, 403), key
        return
    assert call(nobody, key, things, start).status_code == 401, key
    if row.may == "device":
        assert call(cook.client, key, things, start).status_code == 401, key
        assert call(Client(headers={"authorization": "Bearer nothing"}), key, things, start).status_code == 401, key
        token = cook.send("/devices", {"name": "scale", "kind": "scale"}).json()["token"]
        assert call(Client(headers={"authorization": f"Bearer {token}"}), key, things, start).status_code != 401, key
        return
    if row.ids:
        # What is another kitchen's is not there at all.
        assert call(neighbour.client, key, things, start).status_code == 404, key
    for role, may in ROLES.items():
        if row.may not in may:
            refused = call(person(f"a-{role}", cook.member().kitchen, role).client, key, things, start)
            assert refused.status_code == 403, (key, role, refused.content)
    # Each of the others, as if it were the only one to call.
    for role in (role for role, may in ROLES.items() if row.may in may):
        caller = person(f"a-{role}", cook.member().kitchen, role)
        with transaction.atomic():
            done = call(caller.client, key, things, start)
            assert done.status_code in row.answers, (key, role, done.content)
            transaction.set_rollback(True)

"""Devices: tokens, limits, thinning, and readings that come late, twice, or out of order."""

from __future__ import annotations

import json
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from batches.models import Event
from devices.models import Device, Reading
from django.test import Client

from .conftest import Caller, person
from .test_batches import WANTED

NOW = datetime.now(UTC)


def issued(cook: Caller, kind: str = "scale", batch: str | None = None) -> dict[str, Any]:
    answer = cook.send("/devices", {"name": f"the {kind}", "kind": kind, "batch_id": batch})
    assert answer.status_code == 200, answer.content
    return answer.json()


def sent(token: str, readings: list[tuple[datetime, float]]) -> Any:
    body = {"readings": [{"at": at.isoformat(), "value": value} for at, value in readings]}
    return Client().post(
        "/api/v1/device/readings", json.dumps(body), content_type="application/json",
        headers={"Authorization": f"Bearer {token}"},
    )  # fmt: skip


def boiling(cook: Caller, ago_min: float = 20.0) -> dict[str, Any]:
    """A batch that was planned some minutes ago and boils."""
    batch = cook.start(fat_ml=0)
    for payload in (WANTED, {"kind": "chosen", "route": "roux"}):
        assert cook.record(batch["id"], payload).status_code == 200
    batch_id = batch["id"]
    # As if it had been started earlier.
    Event.objects.filter(batch_id=batch_id).update(at=NOW - timedelta(minutes=ago_min))
    return cook.get(f"/batches/{batch_id}").json()


def falling(batch: dict[str, Any], seconds: range, g_min: float = 26.0) -> list[tuple[datetime, float]]:
    """A scale's readings, one a second, from twenty minutes ago on."""
    gross = batch["pot"]["gross"]["value"]
    start = NOW - timedelta(minutes=20)
    return [(start + timedelta(seconds=s), gross - g_min * s / 60) for s in seconds]


def test_a_scale_at_one_hertz_teaches_the_rate_and_does_not_flood_the_log(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    for first in range(0, 600, 100):
        assert sent(token, falling(batch, range(first, first + 100))).json() == {"new": 100}
    after = cook.get(f"/batches/{batch['id']}").json()
    assert len(after["log"]) == len(batch["log"])
    assert after["pot"]["liquid"]["value"] < batch["pot"]["liquid"]["value"] - 200
    assert after["curve"]["learned_from"] >= 30
    assert after["curve"]["steam_g_min"]["best"] == pytest.approx(26.0, rel=0.06)
    (device,) = after["devices"]
    assert (device["name"], device["problem"]) == ("the scale", None)
    assert 35 <= device["count"] <= 41
    assert len(after["curve"]["points"]) <= 120


def test_late_double_and_disordered_readings_fall_into_place(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    readings = falling(batch, range(0, 300, 3))
    assert sent(token, readings[60:]).json()["new"] == 40
    assert sent(token, readings[::-1]).json()["new"] == 60
    assert sent(token, readings).json()["new"] == 0
    once = cook.get(f"/batches/{batch['id']}").json()
    Reading.objects.all().delete()
    assert sent(token, readings).json()["new"] == 100
    assert cook.get(f"/batches/{batch['id']}").json()["pot"] == once["pot"]


def test_a_stirred_pot_and_a_lifted_pan_are_passed_over(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    readings = falling(batch, range(60))
    shaken = [(at, value + (300 if i % 2 else -250)) for i, (at, value) in enumerate(readings)]
    assert sent(token, shaken).status_code == 200
    after = cook.get(f"/batches/{batch['id']}").json()
    assert after["pot"]["liquid"] == batch["pot"]["liquid"]
    assert after["devices"] == []


def test_a_scale_that_shows_more_than_there_can_be_asks_what_went_in(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    assert sent(token, [(at, value + 400) for at, value in falling(batch, range(60))]).status_code == 200
    (device,) = cook.get(f"/batches/{batch['id']}").json()["devices"]
    assert "more than was there before" in device["problem"]
    answer = {"kind": "read", "measured": {"method": "scale", "value": device["reading"], "hot": True}, "gain": "added"}
    after = cook.record(batch["id"], answer).json()
    assert after["pot"]["gross"]["value"] == pytest.approx(device["reading"], abs=1)


def test_a_salt_meter_and_a_probe_read_too(cook: Caller) -> None:
    batch = boiling(cook)
    meter = issued(cook, "salt_meter", batch["id"])["token"]
    assert sent(meter, [(NOW - timedelta(minutes=5), 0.62)]).status_code == 200
    after = cook.get(f"/batches/{batch['id']}").json()
    assert 0.6 < after["pot"]["salt"]["best"] < 0.62
    probe = issued(cook, "thermometer", batch["id"])["token"]
    cook.record(batch["id"], {"kind": "cooling", "celsius": "60 °C"})
    assert sent(probe, [(datetime.now(UTC), 52.0)]).status_code == 200
    cooling = cook.get(f"/batches/{batch['id']}").json()["cooling"]
    assert [round(r["celsius"]) for r in cooling["readings"]] == [60, 52]


@pytest.mark.parametrize(
    ("at", "value", "complaint"),
    [
        (NOW, -5.0, "between 0 and 160000 g"),
        (NOW, 1e9, "between 0 and 160000 g"),
        (NOW + timedelta(hours=1), 2000.0, "last two days"),
        (NOW - timedelta(days=30), 2000.0, "last two days"),
    ],
)
def test_nonsense_is_refused(cook: Caller, at: datetime, value: float, complaint: str) -> None:
    token = issued(cook, batch=cook.start()["id"])["token"]
    answer = sent(token, [(at, value)])
    assert answer.status_code == 422
    assert complaint in answer.json()["detail"]
    assert Reading.objects.count() == 0


def test_limits(cook: Caller) -> None:
    batch = cook.start()
    token = issued(cook, batch=batch["id"])["token"]
    readings = [(NOW - timedelta(seconds=s), 2000.0) for s in range(700)]
    assert sent(token, readings[:121]).status_code == 422
    answers = [sent(token, readings[i : i + 120]).status_code for i in range(0, 700, 120)]
    assert answers == [200] * 5 + [429]
    assert Reading.objects.count() == 600


def test_tokens(cook: Caller, neighbour: Caller) -> None:
    batch = cook.start()
    device = issued(cook, batch=batch["id"])
    assert Device.objects.get().token_hash != device["token"]
    assert "token" not in cook.get("/devices").json()[0]
    who = Client().get("/api/v1/device", headers={"Authorization": f"Bearer {device['token']}"})
    assert who.json()["name"] == "the scale"
    assert sent("made up", [(NOW, 2000.0)]).status_code == 401
    path = f"/devices/{device['id']}"
    for answer in (
        neighbour.send(path, {}, "delete"),
        neighbour.send(f"{path}/batch", {"batch_id": None}, "put"),
        cook.send(f"{path}/batch", {"batch_id": neighbour.start()["id"]}, "put"),
    ):
        assert answer.status_code == 404
    assert neighbour.get("/devices").json() == []
    assert cook.send(f"{path}/batch", {"batch_id": None}, "put").json()["batch_id"] is None
    assert sent(device["token"], [(NOW, 2000.0)]).status_code == 409
    guest = person("guest", cook.member().kitchen, "guest")
    assert guest.send("/devices", {"name": "x", "kind": "scale"}).status_code == 403
    assert cook.send(path, {}, "delete").status_code == 204
    assert sent(device["token"], [(NOW, 2000.0)]).status_code == 401

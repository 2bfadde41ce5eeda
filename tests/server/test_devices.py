"""Devices: tokens, limits, thinning, and readings that come late, twice, or out of order."""

from __future__ import annotations

import json
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

import pytest
import time_machine
from batches.models import Batch
from batches.services import log_of
from devices.models import Device, Kept, Reading
from devices.services import RAW_FOR, let_raw_go, take
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from live.services import CHANNEL, unpacked
from makers import text_of
from spissus_core.estimation.thinning import MOST_KEPT

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
        "/api/v1/device/readings",
        json.dumps(body),
        content_type="application/json",
        headers={"Authorization": f"Bearer {token}"},
    )


def boiling(cook: Caller, ago_min: float = 20.0) -> dict[str, Any]:
    """A batch that was planned some minutes ago and boils."""
    with time_machine.travel(NOW - timedelta(minutes=ago_min)):
        batch = cook.start(fat_ml=0)
        assert cook.record(batch["id"], WANTED).status_code == 200
        return cook.record(batch["id"], {"kind": "chosen", "route": "all-volume-white_roux"}).json()


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
    with time_machine.travel(NOW, tick=False):
        once = cook.get(f"/batches/{batch['id']}").json()
    Reading.objects.all().delete()
    Kept.objects.all().delete()
    assert sent(token, readings).json()["new"] == 100
    with time_machine.travel(NOW, tick=False):
        assert cook.get(f"/batches/{batch['id']}").json()["pot"] == once["pot"]


def test_a_stirred_pot_and_a_lifted_pan_are_passed_over(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    readings = falling(batch, range(60))
    shaken = [(at, value + (300 if i % 2 else -250)) for i, (at, value) in enumerate(readings)]
    with time_machine.travel(NOW, tick=False):
        before = cook.get(f"/batches/{batch['id']}").json()
        assert sent(token, shaken).status_code == 200
        after = cook.get(f"/batches/{batch['id']}").json()
    assert after["pot"] == before["pot"]
    assert after["devices"] == []


def test_a_scale_that_shows_more_than_there_can_be_asks_what_went_in(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    assert sent(token, [(at, value + 400) for at, value in falling(batch, range(60))]).status_code == 200
    (device,) = cook.get(f"/batches/{batch['id']}").json()["devices"]
    assert "more than there should be" in text_of(device["problem"])
    assert [one["payload"]["gain"] for one in device["answers"]] == ["added", "right"]
    for answer in device["answers"]:
        after = cook.record(batch["id"], answer["payload"]).json()
        assert after["pot"]["gross"]["value"] == pytest.approx(device["reading"], abs=1)


def test_a_salt_meter_and_a_probe_read_too(cook: Caller) -> None:
    batch = boiling(cook)
    meter = issued(cook, "salt_meter", batch["id"])["token"]
    with time_machine.travel(NOW, tick=False):
        assert sent(meter, [(NOW - timedelta(minutes=5), 0.62)]).status_code == 200
        after = cook.get(f"/batches/{batch['id']}").json()
    # Five minutes of boiling later it is saltier than the meter showed.
    assert 0.62 < after["pot"]["salt"]["best"] < 0.75
    probe = issued(cook, "thermometer", batch["id"])["token"]
    cook.record(batch["id"], {"kind": "cooling", "celsius": "60 °C"})
    assert sent(probe, [(datetime.now(UTC), 52.0)]).status_code == 200
    cooling = cook.get(f"/batches/{batch['id']}").json()["cooling"]
    assert [round(r["celsius"]) for r in cooling["readings"]] == [60, 52]


@pytest.mark.parametrize(
    ("at", "value", "complaint"),
    [
        (NOW, -5.0, "between 0 and 160\u00a0000\u00a0g"),
        (NOW, 1e9, "between 0 and 160\u00a0000\u00a0g"),
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


def test_limits(cook: Caller, settings: Any) -> None:
    batch = cook.start()
    token = issued(cook, batch=batch["id"])["token"]
    readings = [(NOW - timedelta(seconds=s), 2000.0) for s in range(700)]
    assert sent(token, readings[:121]).status_code == 422
    most = int(settings.LIMITS["device"].split("/")[0])
    answers = [sent(token, readings[:1]) for _ in range(most + 1)]
    assert {answer.status_code for answer in answers[: most - 1]} == {200}
    assert answers[-1].status_code == 429
    assert int(answers[-1]["Retry-After"]) > 0
    # Another device is not held up by it.
    assert sent(issued(cook, batch=batch["id"])["token"], readings[:1]).status_code == 200


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


# -- a scale never slows a pot -------------------------------------------------------------------------


def read_for(cook: Caller, batch: dict[str, Any], hours: float) -> UUID:
    """A scale that read once a second for so long, up to now; the device."""
    device = UUID(issued(cook, batch=batch["id"])["id"])
    gross, count = batch["pot"]["gross"]["value"], int(hours * 3600)
    at = [datetime.now(UTC) - timedelta(seconds=count - s) for s in range(count)]
    readings = [(when, gross - 500.0 * s / count) for s, when in enumerate(at)]
    for first in range(0, count, 3600):
        take(device, readings[first : first + 3600])
    return device


def test_twenty_eight_hours_open_like_one(cook: Caller) -> None:
    short, long = boiling(cook, 60 * 29), boiling(cook, 60 * 29)
    read_for(cook, short, 1)
    device = read_for(cook, long, 28)
    assert Kept.objects.filter(device=device).count() <= MOST_KEPT
    for batch in (short, long):
        opened = cook.get(f"/batches/{batch['id']}").json()
        assert opened["pot"]["liquid"]["value"] < batch["pot"]["liquid"]["value"] - 400

    def queries_and_events(batch: dict[str, Any]) -> tuple[int, int]:
        with CaptureQueriesContext(connection) as asked:
            events = log_of(Batch.objects.get(pk=batch["id"]))
        return len(asked), len(events)

    (few, hour), (same, day) = queries_and_events(short), queries_and_events(long)
    assert same == few
    assert max(hour, day) <= MOST_KEPT + len(opened["log"])


def test_letting_raw_readings_go_never_changes_a_batch(cook: Caller) -> None:
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    assert sent(token, falling(batch, range(0, 300, 3))).json()["new"] == 100
    with time_machine.travel(NOW, tick=False):
        before = cook.get(f"/batches/{batch['id']}").json()
    assert let_raw_go(datetime.now(UTC)) == 0
    assert let_raw_go(datetime.now(UTC) + RAW_FOR) == 100
    assert Reading.objects.count() == 0
    with time_machine.travel(NOW, tick=False):
        after = cook.get(f"/batches/{batch['id']}").json()
    assert after == before


@pytest.mark.django_db(transaction=True)
def test_pages_are_told_of_a_kept_reading_at_once_with_what_they_need_and_of_others_not_at_all() -> None:
    cook = person("herald")
    batch = boiling(cook)
    token = issued(cook, batch=batch["id"])["token"]
    with connection.cursor() as cursor:
        cursor.execute(f"LISTEN {CHANNEL}")
    connection.connection.notifies(timeout=0)
    heard = []
    # From the beginning of a stretch on.
    began = datetime.fromtimestamp((NOW.timestamp() // 15 - 60) * 15, UTC)
    readings = falling(batch, range(15))
    for one in ((began + (at - readings[0][0]), value) for at, value in readings):
        assert sent(token, [one]).status_code == 200
        heard.append([json.loads(n.payload) for n in connection.connection.notifies(timeout=0.05)])
    # One alone can tell; then the pace shows that one of a stretch is not enough; three are.
    assert [bool(news) for news in heard] == [True] * 3 + [False] * 12
    assert [news["more"] for news in heard[2]] == list(range(len(heard[2])))[::-1]
    live = json.loads(unpacked("".join(news["live"] for news in heard[2])))
    after = cook.get(f"/batches/{batch['id']}").json()
    # The stretch fills on without a word: its median may still move a little.
    assert live["batch"]["devices"][0]["reading"] == pytest.approx(after["devices"][0]["reading"], abs=5)
    assert live["batch"]["pot"].keys() == after["pot"].keys()
    assert live["batch"]["last_seq"] == after["last_seq"]
    assert live["line"]["id"] == batch["id"]
    listed = next(b for b in cook.get("/batches").json()["items"] if b["id"] == batch["id"])
    assert listed["volume"]["value"] == pytest.approx(after["pot"]["liquid"]["value"], abs=5)

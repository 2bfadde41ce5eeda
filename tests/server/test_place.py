"""Where a kitchen is, over HTTP: the limits it goes by, its own where they are stricter, and its clock."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4
from zoneinfo import ZoneInfo

import pytest
from makers import text_of

from .conftest import Caller, _now
from .test_batches import field_errors


def go_by(cook: Caller, **limits: Any) -> Any:
    return cook.send("/kitchen", {"limits": limits}, "patch")


def lines(batch: dict[str, Any], of: str) -> str:
    return " ".join(text_of(said) for said in batch[of])


def test_a_batch_that_begins_goes_by_the_limits_of_its_kitchen_and_keeps_them(cook: Caller) -> None:
    before = cook.start()
    kitchen = go_by(cook, place="england").json()
    assert kitchen["limits"]["figures"]["hold"]["value"] == 63.0
    after = cook.start()
    assert "63 °C" in lines(after, "serve_cautions")
    assert "England" in lines(after, "serve_cautions")
    cooled = cook.record(after["id"], {"kind": "cooling", "celsius": 60, "surroundings_c": 1}).json()
    assert [limit["celsius"] for limit in cooled["cooling"]["limits"]] == [8.0]
    go_by(cook, place="us")
    for batch, hot in ((before, "57 °C"), (after, "63 °C")):
        assert hot in lines(cook.get(f"/batches/{batch['id']}").json(), "serve_cautions")


def test_stricter_is_taken_and_laxer_is_refused_beside_its_field(cook: Caller) -> None:
    kitchen = go_by(cook, place="england", hold_c="65 °C", cold_c=5, cold_min="80 min").json()
    assert "65 °C" in lines(kitchen["limits"], "said")
    for field, laxer in (("hold_c", "55 °C"), ("cold_min", "3 h"), ("cold_c", 12), ("reheat_c", 60)):
        refused = go_by(cook, place="england", **{field: laxer})
        assert refused.status_code == 422
        assert set(field_errors(refused)) == {field}
    assert go_by(cook, place="atlantis").status_code == 422
    assert "65 °C" in lines(cook.get("/kitchen").json()["limits"], "said")


def test_for_eight_is_eight_by_the_clock_of_the_kitchen(cook: Caller) -> None:
    batch = cook.start()
    asks = {"kind": "wanted", "amount": "600 ml", "minutes": "9 in the evening"}
    assert "time zone" in str(cook.record(batch["id"], asks).json())
    assert cook.send("/kitchen", {"time_zone": "Nowhere/At all"}, "patch").status_code == 422
    assert cook.send("/kitchen", {"time_zone": "Pacific/Auckland"}, "patch").json()["time_zone"] == "Pacific/Auckland"
    there = datetime.now(UTC).astimezone(ZoneInfo("Pacific/Auckland"))
    hour = there + timedelta(hours=3)
    asks["minutes"] = f"{hour:%H}:00"
    by = hour.replace(minute=0, second=0, microsecond=0)
    ways = cook.send(f"/batches/{batch['id']}/routes", asks)
    assert ways.status_code == 200
    wanted = cook.record(batch["id"], asks).json()["wanted"]
    assert wanted["clock"] == f"{hour:%H}:00"
    assert abs(wanted["minutes"] - (by - there).total_seconds() / 60.0) < 2.0
    # Said again with another salt it is still that hour.
    again = cook.record(batch["id"], asks | {"salt_percent": 0.8}).json()["wanted"]
    assert again["clock"] == wanted["clock"]


@pytest.mark.parametrize("clock", ["99:99", "24:00", "8:00", "20:00 20:00 20:00", ""])
def test_no_clock_shows_that(cook: Caller, clock: str) -> None:
    cook.send("/kitchen", {"time_zone": "UTC"}, "patch")
    batch = cook.start()["id"]
    for path in (f"/batches/{batch}/routes", f"/batches/{batch}/events"):
        wish = {"kind": "wanted", "volume_ml": 600, "clock": clock}
        body = wish if path.endswith("routes") else {"id": str(uuid4()), "at": _now(), "payload": wish}
        assert cook.send(path, body).status_code == 422


def test_who_opens_a_kitchen_brings_its_clock(cook: Caller) -> None:
    joins = {"name": "dagmar", "password": "a long and plain one", "kitchen": "Quay", "time_zone": "Europe/Lisbon"}
    session = cook.send("/accounts", joins).json()
    assert session["time_zone"] == "Europe/Lisbon"
    strange = cook.send("/accounts", joins | {"name": "ermin", "time_zone": "Nowhere/At all"}).json()
    assert strange["time_zone"] == ""

"""What a page of any version sends is taken: one payload of every kind and version goes through the door."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from batches.models import Event
from examples import ALL_VERSIONS
from spissus_core import events as ev
from spissus_core.pantry.schools import OWN_PREFIX

from .conftest import Caller, _now

#: What has to have happened before a kind makes sense.
SPLIT = {"kind": "split", "volume_ml": "300 ml"}
ASIDE = {"kind": "taken", "volume_ml": "600 ml", "how": "under"}
SHELVED = {"kind": "put_by", "jar": "00000000-0000-4000-8000-000000000007", "what": "rest", "place": "freezer"}
BEFORE: dict[str, list[dict[str, Any]]] = {
    "put_by": [{"kind": "taken", "volume_ml": "500 ml", "how": "under"}],
    "jar_taken": [ASIDE, SHELVED],
    "jar_moved": [ASIDE, SHELVED],
    "jar_warmed": [ASIDE, SHELVED],
    "chosen": [{"kind": "wanted", "volume_ml": 900}],
    "finished": [{"kind": "wanted", "volume_ml": 900}],
    "meat_probed": [{"kind": "meat_in", "mass_g": 300.0, "cut": "slices", "cold": True}],
    "rejoined": [SPLIT],
    "rest": [ASIDE],
    "returned": [{"kind": "drawn", "volume_ml": "600 ml"}],
}


def _as_sent(cook: Caller, kind: str, recorded: dict[str, Any], entry: str) -> dict[str, Any]:
    """What a page had sent for what was recorded: ids for pan and burner, nothing of what the server writes."""
    payload = {"kind": kind, **recorded}
    for name in ev.KINDS[kind].server_writes:
        payload.pop(name, None)
    if "event" in payload:
        payload["event"] = entry
    if kind == "dated":
        payload["at"] = _now()
    if payload.pop("pan", None) or kind in ("split", "drawn"):
        payload.pop("burner", None)
        kitchen = cook.kitchen()
        payload |= {"pan_id": kitchen["pans"][2]["id"], "burner_id": kitchen["burners"][1]["id"]}
    return payload


ROUX = {"name": "house roux", "text": "500 g flour\n500 g butter", "goes_in": "roux"}

#: The server writes something into these where this was said: how long it takes has no time zone.
ONLY_WITH = {"wanted": "clock", "meant": "amount", "chosen": "thickener"}


@pytest.mark.parametrize(("version", "kind"), [(int(v), kind) for v, kinds in ALL_VERSIONS.items() for kind in kinds])
def test_every_kind_of_every_version_is_taken(cook: Caller, version: int, kind: str) -> None:
    batch = cook.start()["id"]
    remark = str(uuid4())
    assert cook.record(batch, {"kind": "noted", "text": "first"}, id=remark).status_code == 200
    for earlier in BEFORE.get(kind, []):
        sent = _as_sent(cook, earlier["kind"], {k: v for k, v in earlier.items() if k != "kind"}, remark)
        assert cook.record(batch, sent).status_code == 200
    payload = _as_sent(cook, kind, ALL_VERSIONS[str(version)][kind], remark)
    if kind == "poured_in":
        # What is kept stands on the shelf of another batch.
        payload["batch"] = cook.start()["id"]
        for earlier in (ASIDE, SHELVED):
            assert cook.record(payload["batch"], earlier).status_code == 200
    if kind == "meant" and payload.get("amount"):
        # A remark has no amount.
        payload["event"] = str(uuid4())
        assert cook.record(batch, {"kind": "salted", "salt_g": 2.0}, id=payload["event"]).status_code == 200
    if payload.get("thickener", "").startswith(OWN_PREFIX):
        # Another kitchen mixed that; this one has its own.
        payload["thickener"] = cook.send("/mixtures", ROUX).json()["key"]
    if payload.get("clock"):
        # Whatever time it is, this lies ahead.
        cook.send("/kitchen", {"time_zone": "UTC"}, "patch")
        payload["clock"] = f"{datetime.now(UTC) + timedelta(hours=3):%H:%M}"
    body = {"id": str(uuid4()), "at": _now(), "version": version, "payload": payload}
    answer = cook.send(f"/batches/{batch}/events", body)
    assert answer.status_code == 200, answer.content
    kept = Event.objects.get(pk=body["id"])
    assert kept.version == ev.VERSION
    # Other ways of skimming dissolve nothing, and a new kitchen likes nothing yet.
    said = kind not in ONLY_WITH or ONLY_WITH[kind] in payload
    if payload.get("way", "boil_dry") == "boil_dry" and kind != "started" and said:
        assert all(kept.payload[name] is not None for name in ev.KINDS[kind].server_writes)


def test_what_an_older_page_says_is_put_in_todays_words_before_it_is_judged(
    cook: Caller, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(ev.Salted, "upcasts", {1: lambda said: {"kind": "salted", "salt_g": said["pinches"] * 0.3}})
    batch = cook.start()["id"]
    old = {"id": str(uuid4()), "at": _now(), "payload": {"kind": "salted", "pinches": 4}}
    assert cook.send(f"/batches/{batch}/events", old).status_code == 200
    assert Event.objects.get(pk=old["id"]).payload["salt_g"] == pytest.approx(1.2)
    # What no page of that version ever said is refused, not broken on.
    for nonsense in ({"kind": "salted"}, {"kind": "salted", "pinches": "many"}, {"kind": "salted", "pinches": None}):
        assert (
            cook.send(f"/batches/{batch}/events", {**old, "id": str(uuid4()), "payload": nonsense}).status_code == 422
        )
    # A page of today is taken at its word.
    new = {**old, "id": str(uuid4()), "version": ev.VERSION}
    assert cook.send(f"/batches/{batch}/events", new).status_code == 422


def test_our_page_speaks_the_words_of_today() -> None:
    client = (Path(__file__).parents[2] / "web/src/api/client.ts").read_text()
    assert f"EVENTS_VERSION = {ev.VERSION}\n" in client


@pytest.mark.parametrize("version", [0, ev.VERSION + 1, "newest", None])
def test_a_version_that_nobody_knows_is_refused(cook: Caller, version: Any) -> None:
    batch = cook.start()["id"]
    body = {"id": str(uuid4()), "at": _now(), "version": version, "payload": {"kind": "noted", "text": "x"}}
    answer = cook.send(f"/batches/{batch}/events", body)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"].endswith("version")


def test_an_ingredient_goes_in_whole_and_stays_what_it_was(cook: Caller, monkeypatch: pytest.MonkeyPatch) -> None:
    batch = cook.start(braise={"lines": [{"text": "1 l stock", "ingredient": "beef_stock_own", "volume_ml": 1000}]})
    cook.record(batch["id"], {"kind": "added", "ingredient": "soy_sauce", "amount": "20 ml"})
    before = cook.get(f"/batches/{batch['id']}").json()["pot"]["salt"]
    for where in ("spissus_core.pantry.ingredients", "batches.intake"):
        monkeypatch.setattr(f"{where}.catalogue", dict)
    after = cook.get(f"/batches/{batch['id']}").json()
    assert after["pot"]["salt"] == before
    # The page gets back what it said; the catalogue's rows stay with the event.
    monkeypatch.undo()
    start = cook.get(f"/batches/{batch['id']}").json()["start"]
    assert start["liquid"]["braise"]["lines"][0]["own"] is None
    assert start["lines"][0]["line"]["own"] is None

"""What is recorded can always be read, and an entry is taken only with its answer."""

from __future__ import annotations

import copy
import json
import logging
import random
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
from batches.models import Batch, Event
from django.db import connection
from examples import RECORDED, recorded
from makers import text_of
from spissus_core import events as ev

from .conftest import Caller


def put(batch_id: str, payload: Any, *, at: datetime | None = None, kind: str = "old") -> Event:
    """A row written past every check, as an older version may have left it."""
    batch = Batch.objects.get(pk=batch_id)
    batch.last_seq += 1
    batch.save(update_fields=["last_seq"])
    when = at or datetime.now(UTC)
    return Event.objects.create(
        id=uuid4(), batch=batch, seq=batch.last_seq, at=when, kind=kind, version=1, payload=payload
    )


def entry(cook: Caller, batch_id: str, event: Event) -> dict[str, Any]:
    """The entry in the log of the batch, which must be readable."""
    answer = cook.get(f"/batches/{batch_id}")
    assert answer.status_code == 200, answer.content
    return next(e for e in answer.json()["log"] if e["id"] == str(event.id))


def test_there_is_an_example_of_every_kind() -> None:
    assert set(RECORDED) == set(ev.KINDS)
    for kind in RECORDED:
        assert not isinstance(ev.recorded(recorded(kind), 1), ev.Unread), kind


# -- the ways in that made a batch unreadable --------------------------------------------------------


def test_an_oven_set_below_the_boil_and_then_turned_up(cook: Caller) -> None:
    batch = cook.start()["id"]
    cook.record(batch, {"kind": "wanted", "volume_ml": 900})
    cook.record(batch, {"kind": "chosen", "route": "all-volume-white_roux"})
    assert cook.record(batch, {"kind": "heated", "heat": "oven", "oven_c": 60}).status_code == 200
    turned_up = cook.record(batch, {"kind": "heated", "heat": "oven", "oven_c": 160})
    assert turned_up.status_code == 200
    assert turned_up.json()["missing"] == []
    assert turned_up.json()["curve"]["steam_g_min"]["best"] > 1.0


@pytest.mark.parametrize("told", ["0001-01-01T00:00:00Z", "0001-01-01T00:00:00+14:00", "1970-01-01T00:00:00Z"])
def test_a_dead_clock_is_kept_marked_and_asked_about(cook: Caller, told: str) -> None:
    batch = cook.start()["id"]
    body = {"id": str(uuid4()), "at": told, "payload": {"kind": "salted", "salt_g": 2}}
    whole = cook.send(f"/batches/{batch}/events", body).json()
    salted = next(e for e in whole["log"] if e["kind"] == "salted")
    assert salted["told"] is not None
    assert datetime.fromisoformat(salted["told"]).year < 1971
    arrived = datetime.fromisoformat(salted["at"])
    assert abs(arrived - datetime.now(UTC)) < timedelta(minutes=5)
    # Asked, and answered: it was ten minutes ago.
    then = (datetime.now(UTC) - timedelta(minutes=10)).isoformat()
    answered = cook.record(batch, {"kind": "dated", "event": body["id"], "at": then})
    assert answered.status_code == 200, answered.content
    salted = next(e for e in answered.json()["log"] if e["kind"] == "salted")
    assert salted["told"] is None
    assert salted["at"][:19] == then[:19]
    long_ago = cook.record(batch, {"kind": "dated", "event": body["id"], "at": "1999-01-01T00:00:00Z"})
    assert "more than a week" in long_ago.json()["detail"]
    for ahead in ((datetime.now(UTC) + timedelta(days=1)).isoformat(), "9999-12-31T23:59:59-14:00"):
        to_come = cook.record(batch, {"kind": "dated", "event": body["id"], "at": ahead})
        assert to_come.status_code == 422
        assert "still to come" in to_come.json()["detail"]


def test_a_start_with_a_dead_clock_begins_now(cook: Caller) -> None:
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": "0001-01-01T00:00:00Z", "name": "Shin"}
    whole = cook.send("/batches", body | {"start": cook.start_body()})
    assert whole.status_code == 200
    assert datetime.fromisoformat(whole.json()["created_at"]).year > 2020
    assert whole.json()["log"][0]["told"] is not None


@pytest.mark.parametrize("portion", [1e-320, 1e-9, 0, 10**400, "9" * 59 + " l"])
def test_portions_of_next_to_nothing_are_refused_beside_their_field(cook: Caller, portion: Any) -> None:
    batch = cook.start()["id"]
    answer = cook.record(batch, {"kind": "wanted", "portions": 4, "portion_ml": portion})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"].endswith("portion_ml")
    assert Event.objects.filter(batch=batch).count() == 1


@pytest.mark.parametrize("name", ["house {stock}", "{}", "{0}{1}", "%s %(x)s", "{stock!r:>{width}}", "<b>stock</b>"])
def test_a_name_is_never_a_template(cook: Caller, name: str) -> None:
    own = cook.send("/larder", {"name": name, "like": "beef_stock_own"}).json()["ingredient"]["key"]
    batch = cook.start()["id"]
    answer = cook.record(batch, {"kind": "added", "ingredient": own, "amount": "100 ml"})
    assert answer.status_code == 200, answer.content
    assert name in text_of(answer.json()["log"][-1]["text"])


def test_an_old_wish_that_todays_rules_refuse_is_still_read(cook: Caller) -> None:
    batch = cook.start()["id"]
    wish = put(batch, recorded("wanted") | {"ceiling_percent": 0.01, "salt_percent": 0.5})
    assert entry(cook, batch, wish)["problem"] is None
    assert cook.get(f"/batches/{batch}").json()["wanted"]["ceiling_percent"] == 0.01


def test_a_field_that_is_not_known_any_more_is_passed_over(cook: Caller) -> None:
    batch = cook.start()["id"]
    salted = put(batch, recorded("salted") | {"grinder": "coarse"})
    assert entry(cook, batch, salted)["problem"] is None
    assert "2.0" in text_of(entry(cook, batch, salted)["text"])


# -- what cannot be read, applied or shown is set aside by itself ------------------------------------


@pytest.mark.sets_aside
@pytest.mark.parametrize(
    "payload",
    [
        {"kind": "stirred", "turns": 3},
        {"kind": "salted"},
        {"kind": "salted", "salt_g": {"much": True}},
        {},
        [],
        "salted",
        7,
        {"kind": ["salted"]},
        {"kind": "salted", "salt_g": 1e308},
        {"kind": "thickened", "dry_g": 5},
        {"kind": "added", "ingredient": "no_such_thing", "mass_g": 5},
    ],
    ids=str,
)
def test_what_cannot_be_read_stands_in_the_log_and_can_be_taken_back(cook: Caller, payload: Any) -> None:
    batch = cook.start()["id"]
    before = cook.get(f"/batches/{batch}").json()["pot"]
    bad = put(batch, payload)
    shown = entry(cook, batch, bad)
    assert shown["problem"]
    assert shown["undoable"]
    assert cook.get(f"/batches/{batch}").json()["pot"] == before
    assert cook.record(batch, {"kind": "salted", "salt_g": 2}).status_code == 200
    assert cook.record(batch, {"kind": "struck", "event": str(bad.id)}).status_code == 200
    assert entry(cook, batch, bad)["struck"]
    assert cook.get("/batches").status_code == 200


@pytest.mark.sets_aside
def test_a_batch_whose_start_cannot_be_read_keeps_its_log_and_can_be_started_anew(cook: Caller) -> None:
    batch = cook.start()["id"]
    cook.record(batch, {"kind": "noted", "text": "mine"})
    Event.objects.filter(batch=batch, seq=1).update(payload={"kind": "started", "pan": "gone"})
    whole = cook.get(f"/batches/{batch}").json()
    assert whole["pot"] is None
    assert whole["act"]["kind"] == "start"
    assert [e["kind"] for e in whole["log"]] == ["started", "noted"]
    assert whole["log"][0]["problem"]
    for path, body in (("routes", {"volume_ml": 900}), ("pans", {})):
        assert cook.send(f"/batches/{batch}/{path}", body).status_code == 422
    assert cook.get(f"/batches/{batch}/files/skewer.svg?units=metric").status_code == 422
    assert cook.record(batch, {"kind": "noted", "text": "still here"}).status_code == 422
    assert cook.record(batch, cook.start_body()).json()["pot"]["liquid"]["value"] > 1000
    assert cook.record(batch, {"kind": "salted", "salt_g": 2}).status_code == 200


@pytest.mark.sets_aside
def test_a_part_that_fails_is_missing_and_pot_and_log_stay(cook: Caller, monkeypatch: pytest.MonkeyPatch) -> None:
    batch = cook.start()["id"]
    cook.record(batch, {"kind": "wanted", "volume_ml": 900})
    cook.record(batch, {"kind": "chosen", "route": "all-volume-white_roux"})

    def fail(*_: Any, **__: Any) -> Any:
        raise ZeroDivisionError("nothing there")

    for target, part in (
        ("spissus_core.board.progress", "forecast"),
        ("spissus_core.board.plan", "plan"),
        ("spissus_core.board.next_act", "next"),
        ("spissus_core.board.journey", "ribbon"),
        ("batches.acts.AnswerOut.of", "words"),
        ("batches.bench.skim_out", "skim"),
        ("batches.bench.pot_out", "pot"),
    ):
        with monkeypatch.context() as patched:
            patched.setattr(target, fail)
            answer = cook.get(f"/batches/{batch}")
            assert answer.status_code == 200, part
            whole = answer.json()
            assert part in {one["part"] for one in whole["missing"]}, part
            assert len(whole["log"]) == 3
            assert whole["pot"] or part == "pot"
            # What makes a part impossible to show is not taken, but what was missing before is no reason.
            assert cook.record(batch, {"kind": "noted", "text": part}).status_code in (200, 422)
            Event.objects.filter(batch=batch, kind="noted").delete()
            Batch.objects.filter(pk=batch).update(last_seq=3)
    assert cook.get(f"/batches/{batch}").json()["missing"] == []


@pytest.mark.sets_aside
def test_what_cannot_be_shown_is_refused_and_rolled_back(cook: Caller, monkeypatch: pytest.MonkeyPatch) -> None:
    batch = cook.start()["id"]
    calls = iter([True, False, False, False])

    def fail_with_it(*_: Any, **__: Any) -> Any:
        if next(calls):
            raise ZeroDivisionError("nothing there")
        return ()

    monkeypatch.setattr("spissus_core.board.journey", fail_with_it)
    answer = cook.record(batch, {"kind": "salted", "salt_g": 2})
    assert answer.status_code == 422
    assert "not taken" in answer.json()["detail"]
    assert Event.objects.filter(batch=batch).count() == 1
    assert Batch.objects.get(pk=batch).last_seq == 1


def test_an_unasked_set_aside_is_seen(cook: Caller, caplog: pytest.LogCaptureFixture) -> None:
    """The fixture that guards every other test hears of it by this line of the log."""
    batch = cook.start()["id"]
    put(batch, {"kind": "stirred"})
    cook.get(f"/batches/{batch}")
    assert [r for r in caplog.records if r.name == "batches.bench" and r.levelno == logging.WARNING]
    caplog.clear()


def test_what_fails_inside_keeps_its_traceback(
    cook: Caller, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> None:
    batch = cook.start()["id"]

    def fail(*_: Any, **__: Any) -> Any:
        raise ZeroDivisionError("nothing there")

    monkeypatch.setattr("spissus_core.board.journey", fail)
    assert cook.get(f"/batches/{batch}").json()["missing"][0]["part"] == "ribbon"
    told = [r for r in caplog.records if r.name == "batches.bench"]
    assert told
    assert told[0].exc_info is not None
    assert told[0].exc_info[0] is ZeroDivisionError
    assert told[0].exc_info[2] is not None
    caplog.clear()


# -- ten thousand rows of any shape ------------------------------------------------------------------

ODD = (
    None,
    True,
    False,
    0,
    -1,
    1e-320,
    1e308,
    -1e9,
    10**40,
    "",
    "0",
    "∞",
    "{}",
    "\u202e1 l",
    "x" * 5000,
    [],
    {},
    [[[]]],
    {"kind": "struck"},
    "0001-01-01T00:00:00Z",
    "9999-12-31T23:59:59+14:00",
    3.5,
    "NaN",
)


def mutated(payload: Any, chance: random.Random) -> Any:
    """The payload with something of it taken away, changed, added, or of another type."""
    payload = copy.deepcopy(payload)
    where = payload
    while True:
        nested = [value for value in where.values() if isinstance(value, dict) and value]
        if not nested or chance.random() < 0.6:
            break
        where = chance.choice(nested)
    key = chance.choice(list(where))
    match chance.randrange(5):
        case 0:
            del where[key]
        case 1:
            where[key] = chance.choice(ODD)
        case 2:
            where[f"old_{key}"] = where.pop(key)
        case 3:
            where[chance.choice(["version", "mood", "kind2"])] = chance.choice(ODD)
        case 4:
            old = where[key]
            factor = chance.choice([0, -1, 1e6, 1e-6, 1e300])
            where[key] = old * factor if isinstance(old, float) else chance.choice(ODD)
    return payload


@pytest.mark.sets_aside
def test_no_stored_row_of_any_shape_makes_a_batch_unreadable(cook: Caller) -> None:
    chance = random.Random(8)
    per_batch, batches = 100, 35
    ids = [cook.start(name=f"batch {i}")["id"] for i in range(batches)]
    times = [datetime.now(UTC) - timedelta(minutes=m) for m in (0, 1, 30)]
    times += [datetime(1, 1, 1, tzinfo=UTC), datetime(9999, 12, 31, tzinfo=UTC), datetime(1970, 1, 1, tzinfo=UTC)]
    for batch in ids:
        made: list[Event] = []
        for seq in range(2, per_batch + 2):
            payload: Any = mutated(recorded(chance.choice(list(RECORDED))), chance)
            if made and isinstance(payload.get("event"), str) and chance.random() < 0.7:
                payload["event"] = str(chance.choice(made).id)
            at = times[0] if chance.random() < 0.8 else chance.choice(times)
            made.append(Event(id=uuid4(), batch_id=batch, seq=seq, at=at, kind="old", version=1, payload=payload))
        Event.objects.bulk_create(made)
        Batch.objects.filter(pk=batch).update(last_seq=per_batch + 1)
        answer = cook.get(f"/batches/{batch}")
        assert answer.status_code == 200, answer.content
        assert len(answer.json()["log"]) == per_batch + 1
        assert cook.record(batch, {"kind": "noted", "text": "goes on"}).status_code < 500
        undone = cook.record(batch, {"kind": "struck", "event": str(chance.choice(made).id)})
        assert undone.status_code < 500, undone.content
        again = cook.record(batch, cook.start_body())
        assert again.status_code < 500, again.content
    assert cook.get("/batches").status_code == 200


@pytest.mark.sets_aside
def test_rows_that_no_json_reader_bears_are_set_aside_too(cook: Caller) -> None:
    batch = cook.start()["id"]
    deep = put(batch, {})
    with connection.cursor() as cursor:
        cursor.execute("UPDATE batches_event SET payload = %s::jsonb WHERE id = %s", ["[" * 3000 + "]" * 3000, deep.id])
    huge = put(batch, {})
    text = json.dumps({"kind": "salted", "salt_g": 7}).replace("7", "1e400")
    with connection.cursor() as cursor:
        cursor.execute("UPDATE batches_event SET payload = %s::jsonb WHERE id = %s", [text, huge.id])
    assert entry(cook, batch, deep)["problem"]
    assert entry(cook, batch, huge)["problem"]

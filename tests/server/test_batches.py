"""Batches over HTTP: the whole path, bad input, and other people's kitchens."""

from __future__ import annotations

import json
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
import time_machine
from batches.models import Batch, Event
from makers import text_of

from .conftest import Caller, person

WANTED = {"kind": "wanted", "portions": 10, "portion_ml": 90, "body": 3, "salt_percent": 0.95, "ceiling_percent": 1.3}


def field_errors(answer: Any) -> dict[str, str]:
    assert answer.headers["Content-Type"] == "application/problem+json"
    return {e["field"]: e["message"] for e in answer.json()["errors"]}


def test_from_a_measured_pot_to_a_finished_sauce(cook: Caller) -> None:
    batch = cook.start()
    assert batch["act"]["kind"] == "want"
    assert batch["pot"]["fat"]["metric"] == "75\u00a0mL"
    url = batch["id"]
    routes = cook.send(f"/batches/{url}/routes", WANTED).json()
    able = [r["feasible"] for r in routes["routes"]]
    # The one to propose comes first, and last what this pot does not allow.
    assert [r["recommended"] for r in routes["routes"]] == [True, *[False] * (len(able) - 1)]
    assert able == sorted(able, reverse=True)
    assert text_of(routes["routes"][0]["because"])
    assert all(r["reason"] for r in routes["routes"] if not r["feasible"])
    assert len(routes["trade"]) > 10

    act = cook.record(url, WANTED).json()["act"]
    assert act["kind"] == "choose"
    for payload, then in (
        ({"kind": "chosen", "route": "all-volume-white_roux"}, "skim"),
        ({"kind": "skimmed", "way": "separator"}, "boil"),
        ({"kind": "read", "measured": {"method": "scale", "value": "2565 g"}}, "look_fat"),
        ({"kind": "fat_seen", "look": "eyes"}, "thicken"),
    ):
        answer = cook.record(url, payload)
        assert answer.status_code == 200, answer.content
        assert answer.json()["act"]["kind"] == then
    act = answer.json()["act"]
    thickened = act["answers"][0]["payload"]
    for payload, then in (
        (thickened, "test_body"),
        ({"kind": "tested", "of": "body", "verdict": "low", "again": "low"}, "thicken"),
        ({"kind": "thickened", "thickener": "white_roux", "dry_g": "11 g"}, "test_body"),
        ({"kind": "tested", "of": "body", "verdict": "right", "again": "right"}, "test_body"),
        ({"kind": "tested", "of": "body", "verdict": "right", "again": "right"}, "measure"),
        ({"kind": "read", "measured": {"method": "scale", "value": "2605 g"}}, "test_salt"),
        ({"kind": "tested", "of": "salt", "verdict": "right", "twice": True}, "finish"),
        ({"kind": "noted", "text": "Good with the mash."}, "finish"),
        ({"kind": "finished", "yield_ml": "880 ml"}, "done"),
    ):
        answer = cook.record(url, payload)
        assert answer.status_code == 200, answer.content
        assert answer.json()["act"]["kind"] == then
    finished = cook.get(f"/batches/{url}").json()
    assert finished["served"]["volume"]["metric"] == "880\u00a0mL"
    assert len(finished["log"]) == 15
    line = cook.get("/batches").json()["items"][0]
    assert line["finished"]
    assert line["volume"]["value"] == 880


def test_the_list_draws_the_pot_and_says_what_comes_next(cook: Caller) -> None:
    url = cook.start()["id"]
    line = cook.get("/batches").json()["items"][0]
    assert (line["on_heat"], line["pot"]["stop"], line["next"]) == (False, None, ["say what you want"])
    assert line["pot"]["pan"]["height_mm"] > line["pot"]["depth_mm"] > 0
    for payload in ({"kind": "wanted", "volume_ml": 900}, {"kind": "chosen", "route": "all-volume-white_roux"}):
        cook.record(url, payload)
    assert cook.get("/batches").json()["items"][0]["next"] == ["take the fat off"]
    cook.record(url, {"kind": "skimmed", "way": "separator"})
    line = cook.get("/batches").json()["items"][0]
    assert line["on_heat"]
    assert line["burner"]
    assert line["pot"]["stop"]["value"] < line["pot"]["depth_mm"]
    assert line["next"][0] == "boil down to "


def test_a_spoon_that_looks_like_a_drawn_one_is_a_verdict(cook: Caller) -> None:
    url = cook.start()["id"]
    cook.record(url, {"kind": "wanted", "volume_ml": 900})
    answer = cook.record(url, {"kind": "tested", "of": "body", "step": 1})
    assert answer.status_code == 200, answer.content
    assert answer.json()["log"][-1]["text"] == ["Tested body: slippery on the spoon"]
    both = cook.record(url, {"kind": "tested", "of": "body", "step": 1, "verdict": "low"})
    assert both.status_code == 422
    assert "or which of the drawn spoons it is like" in both.content.decode()


def test_undo_and_redo(cook: Caller) -> None:
    url = cook.start()["id"]
    salted = cook.record(url, {"kind": "salted", "salt_g": 3}).json()
    entry = salted["log"][-1]
    undone = cook.record(url, {"kind": "struck", "event": entry["id"]}).json()
    assert undone["pot"]["salt"]["best"] < salted["pot"]["salt"]["best"]
    assert undone["log"][1]["struck"]
    back = cook.record(url, {"kind": "struck", "event": undone["log"][-1]["id"]}).json()
    assert back["pot"]["salt"] == salted["pot"]["salt"]


def test_the_start_can_be_corrected_but_not_taken_back(cook: Caller) -> None:
    batch = cook.start()
    answer = cook.record(batch["id"], {"kind": "struck", "event": batch["log"][0]["id"]})
    assert answer.status_code == 422
    assert "Correct it instead" in answer.json()["detail"]
    corrected = cook.record(batch["id"], cook.start_body(measured={"method": "jug", "value": "1.2 l", "hot": True}))
    assert corrected.json()["pot"]["liquid"]["value"] < batch["pot"]["liquid"]["value"]


def test_the_same_event_twice_is_recorded_once(cook: Caller) -> None:
    url, same = cook.start()["id"], str(uuid4())
    first = cook.record(url, {"kind": "salted", "salt_g": 2}, id=same).json()
    again = cook.record(url, {"kind": "salted", "salt_g": 2}, id=same).json()
    assert again["pot"] == first["pot"]
    assert Event.objects.filter(batch_id=url).count() == 2


def test_the_same_start_twice_is_one_batch(cook: Caller) -> None:
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "name": "Shin"}
    body["start"] = cook.start_body()
    assert cook.send("/batches", body).json()["id"] == cook.send("/batches", body).json()["id"]
    assert Batch.objects.count() == 1


def test_a_later_change_of_the_pan_leaves_the_batch_alone(cook: Caller) -> None:
    batch = cook.start()
    pan = cook.kitchen()["pans"][2]
    changed = {key: pan[key] for key in ("name", "shape", "base_width_mm", "rim_width_mm", "height_mm", "empty_g")}
    sizes = {"base_length_mm": 300, "base_width_mm": 300, "rim_length_mm": 300, "rim_width_mm": 300}
    assert cook.send(f"/pans/{pan['id']}", changed | sizes, "put").status_code == 200
    assert cook.get(f"/batches/{batch['id']}").json()["pot"]["depth"] == batch["pot"]["depth"]


# -- bad input -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("liquid", "field", "complaint"),
    [
        ({"measured": {"method": "jug", "value": "-1 l"}}, "start.liquid.measured.value", "below zero"),
        ({"measured": {"method": "jug", "value": "1/0 cup"}}, "start.liquid.measured.value", "divides by zero"),
        ({"measured": {"method": "jug", "value": "3 furlongs"}}, "start.liquid.measured.value", "not a unit"),
        ({"measured": {"method": "jug", "value": "90 l"}}, "value", "does not fit in it"),
        ({"measured": {"method": "dip", "value": "200 mm"}}, "value", "does not fit in it"),
        ({"measured": {"method": "scale", "value": "900 g"}}, "value", "The empty pan weighs"),
        ({"fat_mm": "60 mm", "fat_ml": None, "fat_in": "pan"}, "fat", "leaves no liquid"),
        ({"salt": {"by": "meter", "percent": "45 %"}}, "start.liquid.salt.meter.percent", "must lie between 0 and 30"),
    ],
)
def test_a_bad_start_gets_a_sentence_beside_its_field(
    cook: Caller, liquid: dict[str, Any], field: str, complaint: str
) -> None:
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "name": "Shin"}
    start = cook.start_body(**liquid)
    start["liquid"] = {key: value for key, value in start["liquid"].items() if value is not None}
    answer = cook.send("/batches", body | {"start": start})
    assert answer.status_code == 422
    errors = field_errors(answer)
    assert field in errors, errors
    assert complaint in errors[field]
    assert Batch.objects.count() == 0


def test_a_reading_that_gains_asks_and_keeps_the_pot(cook: Caller) -> None:
    batch = cook.start()
    reading = {"kind": "read", "measured": {"method": "jug", "value": "2 l"}}
    answer = cook.record(batch["id"], reading)
    assert answer.status_code == 422
    assert [one["says"]["gain"] for one in answer.json()["answers"]] == ["added", "right", "misread"]
    assert "misread" in field_errors(answer)["measured.value"]
    assert cook.get(f"/batches/{batch['id']}").json()["last_seq"] == 1
    assert cook.record(batch["id"], reading | {"gain": "added"}).status_code == 200


def test_a_target_above_the_pot(cook: Caller) -> None:
    url = cook.start()["id"]
    for path, body in ((f"/batches/{url}/routes", {"kind": "wanted", "volume_ml": "3 l"}),):
        answer = cook.send(path, body)
        assert answer.status_code == 422
        assert "cannot be made from it" in field_errors(answer)["volume_ml"]
    assert cook.record(url, {"kind": "wanted", "volume_ml": "3 l"}).status_code == 422


def test_an_agreed_amount_stands_when_the_pot_has_gone_past_it(cook: Caller) -> None:
    url = cook.start()["id"]
    cook.record(url, WANTED)
    cook.record(url, {"kind": "read", "measured": {"method": "scale", "value": "2400 g"}})
    routes = cook.send(f"/batches/{url}/routes", WANTED)
    assert routes.status_code == 200
    roux = next(r for r in routes.json()["routes"] if r["kind"] == "all-volume-white_roux")
    assert roux["let_down"] is not None
    assert cook.record(url, WANTED | {"body": 2}).status_code == 200
    assert cook.send(f"/batches/{url}/routes", WANTED | {"portions": 20}).status_code == 422


def test_a_way_that_leads_nowhere_is_refused_with_its_reason(cook: Caller) -> None:
    url = cook.start()["id"]
    cook.record(url, WANTED)
    answer = cook.record(url, {"kind": "chosen", "route": "all-body-alone"})
    assert answer.status_code == 422
    assert "your limit is 1.30\u00a0%" in answer.json()["detail"]
    assert cook.get(f"/batches/{url}").json()["chosen"] is None


def test_every_act_names_what_answers_it(cook: Caller) -> None:
    batch = cook.start(fat_ml=0)
    seen = set()
    for _ in range(12):
        act = batch["act"]
        seen.add(act["kind"])
        answers = act["answers"]
        assert 1 <= len(answers) <= 5
        assert all(a["label"] and (a["payload"] or a["opens"] or a["asks"]) for a in answers)
        payload = next((a["payload"] for a in answers if a["label"] in ("Right", "Both right")), answers[0]["payload"])
        if payload is None:
            gross = batch["plan"]["gross"]["value"] if act["kind"] == "boil" else batch["pot"]["gross"]["value"]
            payload = {"kind": "read", "measured": {"method": "scale", "value": gross}}
        answer = cook.record(batch["id"], payload)
        assert answer.status_code == 200, answer.content
        batch = answer.json()
        if batch["act"]["kind"] == "finish":
            break
    assert seen >= {"want", "choose", "boil", "thicken", "test_body", "test_salt"}
    assert batch["act"]["kind"] == "finish"


def test_a_failed_cooling_stays_until_it_is_answered(cook: Caller) -> None:
    began = datetime.now(UTC) - timedelta(hours=12)
    with time_machine.travel(began, tick=False):
        url = cook.start()["id"]
    told = [
        (0.1, {"kind": "cooling", "celsius": 80}),
        (0.5, {"kind": "probed", "celsius": 57}),
        (4.0, {"kind": "probed", "celsius": 35}),
        (11.0, {"kind": "skimmed", "way": "chill"}),
        (11.5, WANTED),
        (11.6, {"kind": "noted", "text": "Smells fine"}),
    ]
    for hours, payload in told:
        with time_machine.travel(began + timedelta(hours=hours), tick=False):
            act = cook.record(url, payload).json()["act"]
        if hours >= 4.0:
            assert act["kind"] == "warn"
            assert "not safe to keep" in text_of(act["sentence"])
    assert cook.get(f"/batches/{url}").json()["act"]["kind"] == "warn"
    away, wrong = act["answers"]
    assert (away["label"], wrong["label"]) == ("Thrown away", "A reading was wrong")
    batch = cook.record(url, wrong["payload"]).json()
    assert batch["act"]["kind"] == "choose"
    assert text_of(batch["log"][-1]["text"]) == "The cooling was in order: a reading was wrong"


def test_choosing_before_wanting(cook: Caller) -> None:
    answer = cook.record(cook.start()["id"], {"kind": "chosen", "route": "all-volume-white_roux"})
    assert answer.status_code == 422
    assert "what sauce you want" in answer.json()["detail"]


def test_ten_megabytes_are_refused_before_they_are_read(cook: Caller) -> None:
    batch = cook.start()
    answer = cook.record(batch["id"], {"kind": "noted", "text": "x" * 10_000_000})
    assert answer.status_code == 413
    assert answer.json()["status"] == 413
    assert cook.get(f"/batches/{batch['id']}").json()["last_seq"] == 1


@pytest.mark.parametrize("body", ["{", "[]", "null", '"soup"', '{"id": 3}', '{"payload": {"kind": "\\u0000"}}'])
def test_what_is_no_event_gets_a_problem(cook: Caller, body: str) -> None:
    url = cook.start()["id"]
    answer = cook.client.post(f"/api/v1/batches/{url}/events", body, content_type="application/json")
    assert answer.status_code in (400, 422)
    assert answer.headers["Content-Type"] == "application/problem+json"


def test_a_note_may_hold_anything_a_cook_writes(cook: Caller) -> None:
    url = cook.start("Ragù {0} %s الصلصة")["id"]
    text = "Smells of 🍊 {volume} — مالح قليلا <b>"
    answer = cook.record(url, {"kind": "noted", "text": text})
    assert text_of(answer.json()["log"][-1]["text"]) == text


def test_a_null_character_is_no_server_error(cook: Caller) -> None:
    answer = cook.record(cook.start()["id"], {"kind": "noted", "text": "a\x00b"})
    assert answer.status_code == 422


def test_a_clock_that_runs_ahead_is_set_back(cook: Caller) -> None:
    url = cook.start()["id"]
    ahead = (datetime.now(UTC) + timedelta(days=2)).isoformat()
    body = {"id": str(uuid4()), "at": ahead, "payload": {"kind": "noted", "text": "tomorrow"}}
    at = cook.send(f"/batches/{url}/events", body).json()["log"][-1]["at"]
    assert datetime.fromisoformat(at) <= datetime.now(UTC)
    body = {"id": str(uuid4()), "at": "2026-03-14T18:00:00", "payload": {"kind": "noted", "text": "no zone"}}
    assert "needs its zone" in cook.send(f"/batches/{url}/events", body).json()["detail"]


# -- whose kitchen --------------------------------------------------------------------------------


def test_another_kitchens_batch_is_not_there(cook: Caller, neighbour: Caller) -> None:
    url = cook.start()["id"]
    assert neighbour.get(f"/batches/{url}").status_code == 404
    assert neighbour.record(url, {"kind": "noted", "text": "hello"}).status_code == 404
    assert neighbour.send(f"/batches/{url}/routes", WANTED).status_code == 404
    assert neighbour.get("/batches").json()["items"] == []
    assert Event.objects.filter(batch_id=url).count() == 1


def test_another_kitchens_pan_is_not_there(cook: Caller, neighbour: Caller) -> None:
    theirs = neighbour.start_body()
    assert cook.send("/previews/start", theirs).status_code == 404
    assert cook.send(f"/pans/{theirs['pan_id']}", {}, "delete").status_code == 404


def test_another_kitchens_ids_cannot_be_taken(cook: Caller, neighbour: Caller) -> None:
    batch = cook.start()
    body = {"id": batch["id"], "event_id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "name": "Mine"}
    assert neighbour.send("/batches", body | {"start": neighbour.start_body()}).status_code == 409
    own = neighbour.start()
    taken = neighbour.record(own["id"], {"kind": "noted", "text": "x"}, id=batch["log"][0]["id"])
    assert taken.status_code == 409


def test_guests_look_but_change_nothing(cook: Caller) -> None:
    batch = cook.start()
    kitchen = cook.user.memberships.get().kitchen
    guest = person("guest", kitchen, "guest")
    assert guest.get(f"/batches/{batch['id']}").status_code == 200
    assert guest.record(batch["id"], {"kind": "noted", "text": "hello"}).status_code == 403
    assert guest.send("/pans", {"name": "mine"}).status_code in (403, 422)
    helper = person("helper", kitchen, "cook")
    assert helper.record(batch["id"], {"kind": "noted", "text": "hello"}).status_code == 200


def test_nobody_gets_in_without_signing_in(client: Any, db: None) -> None:
    for path in ("/kitchen", "/batches", f"/batches/{uuid4()}", "/ingredients"):
        answer = client.get(f"/api/v1{path}")
        assert answer.status_code == 401
        assert answer.headers["Content-Type"] == "application/problem+json"


# -- lists and previews ---------------------------------------------------------------------------


def test_the_list_goes_on_by_cursor(cook: Caller, settings: Any) -> None:
    started = [cook.start(f"Batch {i}")["id"] for i in range(33)]
    for batch in started[1:]:
        cook.record(batch, {"kind": "finished"})
    first = cook.get("/batches").json()
    second = cook.get(f"/batches?cursor={first['next']}").json()
    # What is still open is on the first page too, however much came after it.
    *newest, forgotten = [item["id"] for item in first["items"]]
    assert newest == started[:2:-1]
    assert forgotten == started[0]
    assert [item["id"] for item in second["items"]] == started[2::-1]
    assert second["next"] is None
    assert cook.get("/batches?cursor=nonsense").status_code == 422


def test_a_preview_saves_nothing(cook: Caller) -> None:
    preview = cook.send("/previews/start", cook.start_body()).json()
    assert preview["pot"]["liquid"]["value"] == pytest.approx(1464, abs=3)
    assert Batch.objects.count() == 0


def test_what_may_be_half_of_the_salt_is_asked_before_its_figures(cook: Caller) -> None:
    read = cook.send("/previews/list", {"text": "1 kg beef shin\n1 l stock"}).json()
    lines = [line["line"] for line in read["lines"]]
    start = cook.start_body(braise={"lines": lines, "hours": 3, "oven_c": 150}, salt={"by": "list"})
    asked = cook.send("/previews/start?unsure=1", start).json()["ask_first"]
    assert "1 l stock" in str(asked)
    assert cook.send("/previews/start", start).json()["ask_first"] is None


def test_an_amount_names_the_body_too(cook: Caller) -> None:
    url = f"/batches/{cook.start()['id']}/routes"
    said = cook.send(url, {"kind": "wanted", "amount": "600 ml, syrupy", "body": 4}).json()
    assert (said["body"], said["wanted"]["value"]) == (2, 600)
    assert cook.send(url, {"kind": "wanted", "amount": "600 ml", "body": 4}).json()["body"] == 4
    refused = cook.send(url, {"kind": "wanted", "amount": "syrupy"})
    assert refused.status_code == 422
    assert "Say how much as well" in refused.content.decode()


def test_the_payload_is_kept_as_numbers(cook: Caller) -> None:
    url = cook.start()["id"]
    stored = Event.objects.get(batch_id=url).payload
    assert stored["liquid"]["measured"]["value"] == 1600
    assert stored["liquid"]["salt"] == {"by": "meter", "percent": 0.6}
    assert json.loads(json.dumps(stored)) == stored

"""At the stove over HTTP: heat, pans, what is learned, and what comes back with the next batch."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
import time_machine
from kitchens.models import LearnedRate
from makers import text_of

from .conftest import Caller
from .test_batches import WANTED

LONG_AGO = datetime.now(UTC) - timedelta(minutes=90)


def record(cook: Caller, batch: dict[str, Any], minute: float, payload: dict[str, Any]) -> dict[str, Any]:
    at = LONG_AGO + timedelta(minutes=minute)
    with time_machine.travel(at, tick=False):
        body = {"id": str(uuid4()), "at": at.isoformat(), "payload": payload}
        answer = cook.send(f"/batches/{batch['id']}/events", body)
    assert answer.status_code == 200, answer.content
    return answer.json()


def planned(cook: Caller, name: str = "Shin") -> dict[str, Any]:
    start = cook.start_body(fat_ml=0)
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": LONG_AGO.isoformat(), "name": name, "start": start}
    with time_machine.travel(LONG_AGO, tick=False):
        batch = cook.send("/batches", body).json()
    record(cook, batch, 0, WANTED)
    return record(cook, batch, 0, {"kind": "chosen", "route": "all-volume-white_roux"})


def scale(value: float) -> dict[str, Any]:
    return {"kind": "read", "measured": {"method": "scale", "value": value, "hot": True}}


def test_the_forecast_narrows_with_each_reading(cook: Caller) -> None:
    batch = planned(cook)
    assert batch["act"]["kind"] == "boil"
    assert text_of(batch["curve"]["rate"]).endswith("a guess from the burner.")
    gross = batch["pot"]["gross"]["value"]
    widths = [_width(batch)]
    for minute in (5, 10, 15):
        batch = record(cook, batch, minute, scale(gross - 22 * minute))
        widths.append(_width(batch))
    assert widths == sorted(widths, reverse=True)
    assert "learned from 3 readings" in text_of(batch["curve"]["rate"])
    assert batch["curve"]["course"][0]["liquid"]["value"] == pytest.approx(batch["pot"]["liquid"]["value"], rel=0.01)
    assert cook.get("/batches").json()["items"][0]["look_at"] is not None


def _width(batch: dict[str, Any]) -> float:
    arrive = batch["curve"]["arrive"]
    low, high = (datetime.fromisoformat(arrive[end]) for end in ("low", "high"))
    return (high - low).total_seconds()


def test_a_page_is_told_the_hours_ahead_while_it_is_heated_and_no_longer(cook: Caller) -> None:
    batch = planned(cook)
    with time_machine.travel(LONG_AGO, tick=False):
        alone = cook.get(f"/batches/{batch['id']}/alone").json()
    assert alone["last_seq"] == batch["last_seq"]
    drawn = [datetime.fromisoformat(point["at"]) for point in (*batch["curve"]["course"], *alone["ahead"])]
    assert drawn == sorted(drawn)
    assert (drawn[-1] - LONG_AGO).total_seconds() >= 6 * 3600 - 1
    levels = [look["liquid_ml"] for look in alone["looks"]]
    assert levels == sorted(levels, reverse=True)
    assert all(look["minutes"] >= 0.9 for look in alone["looks"])
    record(cook, batch, 1, {"kind": "heated", "heat": "off"})
    off = cook.get(f"/batches/{batch['id']}/alone").json()
    assert off == {"last_seq": batch["last_seq"] + 1, "ahead": [], "looks": []}


def test_the_arithmetic_of_a_way_is_that_of_the_plan(cook: Caller) -> None:
    batch = planned(cook)
    url = f"/batches/{batch['id']}/routes/{batch['chosen']}/reasons"
    with time_machine.travel(LONG_AGO, tick=False):
        asked = cook.send(url, {k: v for k, v in WANTED.items() if k != "kind"})
    assert asked.status_code == 200, asked.content
    assert {one["key"] for one in asked.json()} == {one["key"] for one in batch["plan"]["reasons"]}
    assert cook.send(f"/batches/{batch['id']}/routes/stirred/reasons", {"volume_ml": 900}).status_code == 422


def test_the_heat_is_turned_off_and_on(cook: Caller) -> None:
    batch = planned(cook)
    off = record(cook, batch, 3, {"kind": "heated", "heat": "off"})
    assert off["act"]["kind"] == "heat"
    assert off["heat"] | {"oven": None, "hold": None} == {
        "key": "off",
        "heat": "off",
        "share": 1.0,
        "cover": "open",
        "oven": None,
        "hold": None,
        "told": True,
        "guard": None,
    }
    assert off["curve"]["course"] == []
    on = record(cook, batch, 9, {"kind": "heated", "heat": "boil", "share": 0.5, "cover": "ajar"})
    assert on["act"]["kind"] == "boil"
    assert text_of(on["log"][-1]["text"]) == "Boiling at 50 % of full, lid ajar"
    assert on["curve"]["steam_g_min"]["best"] < 0.3 * batch["curve"]["steam_g_min"]["best"]


def test_an_oven_is_told_its_temperature(cook: Caller) -> None:
    batch = planned(cook)
    told = {
        degrees: record(cook, batch, minute, {"kind": "heated", "heat": "oven", "oven_c": degrees})
        for minute, degrees in ((3, "130 °C"), (4, "392 °F"))
    }
    assert told["392 °F"]["heat"]["oven"]["metric"] == "200\u00a0°C"
    assert text_of(told["392 °F"]["log"][-1]["text"], "us") == "In the oven at 392 °F"
    cooler, hotter = (told[d]["curve"]["steam_g_min"]["best"] for d in ("130 °C", "392 °F"))
    assert hotter > 2 * cooler


def test_of_two_identical_pans_none_is_lost(cook: Caller) -> None:
    pan = cook.kitchen()["pans"][1]
    spec = {name: value for name, value in pan.items() if name.endswith(("_mm", "_g")) or name in ("name", "shape")}
    twin = cook.send("/pans", spec).json()["id"]
    batch = planned(cook)
    with time_machine.travel(LONG_AGO, tick=False):
        choices = cook.send(f"/batches/{batch['id']}/pans", {}).json()["choices"]
    of = {one: [c["burner_id"] for c in choices if c["pan_id"] == one] for one in (pan["id"], twin)}
    assert len(of[twin]) == len(of[pan["id"]]) == len(cook.kitchen()["burners"])


def test_pans_are_compared_and_changed(cook: Caller) -> None:
    batch, kitchen = planned(cook), cook.kitchen()
    with time_machine.travel(LONG_AGO, tick=False):
        found = cook.send(f"/batches/{batch['id']}/pans", {"burner_id": kitchen["burners"][1]["id"]}).json()
    names = {c["pan"]["name"]: c for c in found["choices"]}
    assert names["24 cm braising pan"]["here"]
    assert names["16 cm saucepan"]["minutes"] is not None
    wide, narrow = names["28 cm sauté pan"], names["16 cm saucepan"]
    assert wide["dip_error"]["value"] > 2 * narrow["dip_error"]["value"]
    with time_machine.travel(LONG_AGO, tick=False):
        simmer = cook.send(f"/batches/{batch['id']}/pans", {"heat": {"heat": "simmer"}}).json()["choices"]
    times = {(c["pan"]["name"], c["burner"]): c["minutes"]["best"] for c in simmer if c["minutes"]}
    burner = kitchen["burners"][3]["name"]
    assert times["28 cm sauté pan", burner] < times["20 cm saucepan", burner]
    moved = {"kind": "moved", "pan_id": wide["pan_id"], "burner_id": wide["burner_id"]}
    after = record(cook, batch, 5, moved)
    assert after["pan"]["name"] == "28 cm sauté pan"
    # In five minutes, warming up first, it has lost less than they would boil away.
    lost = batch["pot"]["liquid"]["value"] - after["pot"]["liquid"]["value"]
    assert 0.0 < lost < 5 * batch["curve"]["steam_g_min"]["best"]
    # The marks belong to the new pan.
    assert after["marks"][-1]["depth"]["value"] < batch["marks"][-1]["depth"]["value"]


def test_a_pot_is_split_and_poured_together(cook: Caller) -> None:
    batch, kitchen = planned(cook), cook.kitchen()
    split = {
        "kind": "split",
        "volume_ml": "600 ml",
        "pan_id": kitchen["pans"][1]["id"],
        "burner_id": kitchen["burners"][1]["id"],
    }
    two = record(cook, batch, 2, split)
    assert two["beside"] == "20 cm saucepan"
    assert two["curve"]["steam_g_min"]["best"] == pytest.approx(2 * batch["curve"]["steam_g_min"]["best"], rel=0.02)
    lost = batch["pot"]["liquid"]["value"] - two["pot"]["liquid"]["value"]
    assert 0.0 <= lost < 2 * batch["curve"]["steam_g_min"]["best"]
    assert two["pot"]["gross"]["value"] < batch["pot"]["gross"]["value"] - 550
    one = record(cook, batch, 8, {"kind": "rejoined"})
    assert one["beside"] is None


def test_the_split_that_is_offered_saves_what_it_says(cook: Caller) -> None:
    batch, kitchen = planned(cook), cook.kitchen()
    asked = {"burner_id": kitchen["burners"][1]["id"], "heat": {"heat": "boil"}}
    with time_machine.travel(LONG_AGO, tick=False):
        answer = cook.send(f"/batches/{batch['id']}/pans", asked).json()
        simmered = cook.send(f"/batches/{batch['id']}/pans", asked | {"heat": {"heat": "simmer"}}).json()
    here = next(c["minutes"]["best"] for c in answer["choices"] if c["here"])
    said = text_of(answer["split"].pop("said"))
    two = record(cook, batch, 0, {"kind": "split"} | answer["split"])
    saves = two["curve"]["steam_g_min"]["best"] / batch["curve"]["steam_g_min"]["best"]
    assert saves > 1.5
    assert f"{round(here / saves)} min instead of {round(here)} min" in said
    assert simmered["split"] is None


def test_what_a_batch_taught_is_the_next_ones_prior_and_can_be_forgotten(cook: Caller, neighbour: Caller) -> None:
    batch = planned(cook)
    gross = batch["pot"]["gross"]["value"]
    for minute in (5, 10, 15, 20):
        record(cook, batch, minute, scale(gross - 20 * minute))
    record(cook, batch, 30, {"kind": "finished", "yield_ml": "900 ml"})
    (learned,) = cook.kitchen()["learned"]
    assert (learned["pan"], learned["burner"], learned["batches"]) == ("24 cm braising pan", "middle burner, high", 1)
    assert learned["best_g_min"] == pytest.approx(20, rel=0.12)
    assert neighbour.kitchen()["learned"] == []
    second = planned(cook, "Shin again")
    assert "learned from" in text_of(second["curve"]["rate"])
    assert second["curve"]["steam_g_min"]["best"] == pytest.approx(learned["best_g_min"], rel=0.02)
    assert _width(second) < _width(batch)
    # Other pans know nothing of it, and it can be forgotten.
    path = f"/learned?pan={learned['pan']}&burner={learned['burner']}"
    assert neighbour.send(path, {}, "delete").status_code == 204
    assert LearnedRate.objects.count() == 1
    assert cook.send(path, {}, "delete").status_code == 204
    assert cook.kitchen()["learned"] == []


def test_a_finish_that_is_taken_back_teaches_nothing(cook: Caller) -> None:
    batch = planned(cook)
    gross = batch["pot"]["gross"]["value"]
    for minute in (5, 10):
        record(cook, batch, minute, scale(gross - 25 * minute))
    done = record(cook, batch, 30, {"kind": "finished"})
    assert LearnedRate.objects.count() == 1
    record(cook, batch, 31, {"kind": "struck", "event": done["log"][-1]["id"]})
    assert LearnedRate.objects.count() == 0


def test_signs_and_burners(cook: Caller) -> None:
    batch = planned(cook)
    seen = record(cook, batch, 3, {"kind": "seen", "sign": "raw_gone"})
    assert seen["signs"] == ["raw_gone"]
    assert text_of(seen["log"][-1]["text"]) == "Seen: the sharp smell is gone"
    added = cook.send("/burners", {"name": "camp stove", "net_kw": 0.5}).json()
    assert added["steam_g_min"] == pytest.approx(13.3, abs=0.1)
    assert cook.send("/burners", {"name": "sun", "net_kw": 500}).status_code == 422
    assert cook.send(f"/burners/{added['id']}", {}, "delete").status_code == 204
    assert all(b["name"] != "camp stove" for b in cook.kitchen()["burners"])


def test_higher_up_it_is_sooner_at_the_boil(cook: Caller) -> None:
    low = planned(cook, "At sea")
    up = cook.send("/kitchen", {"altitude_m": 3000}, "patch").json()
    assert up["boils_at"]["metric"] == "90\u00a0°C"
    assert cook.send("/kitchen", {"altitude_m": 99000}, "patch").status_code == 422
    cold = {"method": "jug", "value": "1.6 l", "hot": False}
    times = []
    for altitude in (0, 3000):
        cook.send("/kitchen", {"altitude_m": altitude}, "patch")
        start = cook.start_body(fat_ml=0, measured=cold)
        body = {
            "id": str(uuid4()),
            "event_id": str(uuid4()),
            "at": LONG_AGO.isoformat(),
            "name": "Shin",
            "start": start,
        }
        batch = cook.send("/batches", body).json()
        record(cook, batch, 0, WANTED)
        arrive = record(cook, batch, 0, {"kind": "chosen", "route": "all-volume-white_roux"})["curve"]["arrive"]["best"]
        times.append((datetime.fromisoformat(arrive) - LONG_AGO).total_seconds() / 60)
    # 1.6 kg less 10 K to warm at 1 kW: a good minute.
    assert times[0] - times[1] == pytest.approx(1.6 * 4.0 * 10 / 60, rel=0.2)
    assert low["act"]["kind"] == "boil"


def test_past_the_mark_says_what_brings_it_back(cook: Caller) -> None:
    batch = planned(cook)
    gross = batch["pot"]["gross"]["value"]
    past = record(cook, batch, 40, scale(gross - 800))
    assert past["act"]["kind"] == "let_down"
    text = text_of(past["act"]["sentence"])
    assert text.startswith("Past the mark. Stir in")
    salt = float(text.split(": ")[1].split("%")[0])
    back = record(cook, batch, 41, past["act"]["answers"][0]["payload"])
    assert back["pot"]["salt"]["best"] == pytest.approx(salt, abs=0.006)

"""Thickeners that a kitchen mixes itself, over HTTP: kept, compared, taken on a way, whisked in, and put away."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from makers import text_of

from .conftest import Caller

ROUX = {"name": "house roux", "text": "500 g flour\n500 g butter\n12 g salt", "goes_in": "roux"}
LIKE = "all-taste-corn_starch_own"
WISH = {"volume_ml": 700, "body": 3, "salt_percent": 1.0}
POT = {"measured": {"method": "jug", "value": "0.8 l", "hot": True}, "fat_ml": "0 ml", "character": "thin"}


def kept(cook: Caller, **other: Any) -> dict[str, Any]:
    answer = cook.send("/mixtures", ROUX | other)
    assert answer.status_code == 200, answer.content
    return dict(answer.json())


def taken(cook: Caller, batch: str, mixture: dict[str, Any], route: str = "all-here-own") -> dict[str, Any]:
    cook.record(batch, {"kind": "wanted", **WISH})
    answer = cook.record(batch, {"kind": "chosen", "route": route, "thickener": mixture["key"]})
    assert answer.status_code == 200, answer.content
    return dict(answer.json())


def obeyed(cook: Caller, batch: str, done: dict[str, Any], until: str) -> dict[str, Any]:
    for _ in range(8):
        if done["act"]["kind"] == until:
            return done
        payload = next((a["payload"] for a in done["act"]["answers"] if a["payload"]), None)
        assert payload is not None, done["act"]
        done = cook.record(batch, payload).json()
    raise AssertionError(done["act"])


def test_its_list_is_read_as_it_is_written_and_nothing_is_kept(cook: Caller) -> None:
    looked = cook.send("/previews/mixture", ROUX).json()
    assert text_of(looked["read"][0]) == "500 g of wheat flour, white"
    assert [text_of(line) for line in looked["said"]] == [
        "100 g of it does the work of 49 g of flour.",
        "It holds 1.2 g of salt and 40 g of fat.",
    ]
    assert looked["brings"] == ["gluten", "milk"]
    assert cook.get("/mixtures").json()["mixtures"] == []


@pytest.mark.parametrize(
    ("other", "field", "said"),
    [
        ({"text": "500 g butter"}, "text", "Nothing in it thickens"),
        ({"text": "500 g flower power"}, "text", "flower power"),
        ({"text": "flour\n200 g butter"}, "text", "flour"),
        ({"text": " "}, "text", ""),
        ({"name": ""}, "name", ""),
        ({"name": "corn starch"}, "name", "Give yours another name"),
        ({"goes_in": "poured"}, "key", "slurry"),
    ],
)
def test_what_cannot_be_kept_is_said_beside_its_field(cook: Caller, other: Any, field: str, said: str) -> None:
    answer = cook.send("/mixtures", ROUX | other)
    assert answer.status_code == 422
    errors = answer.json()["errors"]
    assert [one["field"].split(".")[-1] for one in errors] == [field]
    assert said in errors[0]["message"]


def test_it_is_compared_with_the_other_schools_of_this_kitchen_alone(cook: Caller, neighbour: Caller) -> None:
    mixture, batch = kept(cook, text="500 g flour\n500 g butter"), cook.start()["id"]
    found = cook.send(f"/batches/{batch}/schools?like={LIKE}", {"volume_ml": 900, "body": 3}).json()
    assert mixture["key"] in {one["key"] for one in found["fit"]}, found["unfit"]
    own = next(one for one in found["fit"] if one["key"] == mixture["key"])
    assert (own["label"], own["kind"]) == ("house roux", "all-taste-own")
    assert own["brings"] == ["gluten", "milk"]
    theirs = neighbour.send(f"/batches/{neighbour.start()['id']}/schools?like={LIKE}", {"volume_ml": 900}).json()
    assert all(one["label"] != "house roux" for one in theirs["fit"])


def test_the_ways_with_it_are_worked_out_and_explained(cook: Caller) -> None:
    mixture, batch = kept(cook), cook.start()["id"]
    ways = cook.send(f"/batches/{batch}/routes?asked={mixture['key']}", {"volume_ml": 900, "body": 3}).json()
    own = next(route for route in ways["routes"] if route["own"] == mixture["key"])
    assert own["label"].endswith(", with house roux")
    assert own["dry_name"] == "house roux"
    assert all(mixture["key"] in point["dry"] for point in ways["trade"])
    reasons = cook.send(f"/batches/{batch}/routes/{own['kind']}/reasons?asked={mixture['key']}", {"volume_ml": 900})
    assert reasons.status_code == 200
    assert "house roux" in str(reasons.json())


def test_it_is_taken_whisked_in_and_the_log_names_it_when_it_has_been_put_away(cook: Caller) -> None:
    mixture, batch = kept(cook), cook.start(**POT)["id"]
    done = taken(cook, batch, mixture)
    assert done["plan"]["own"] == mixture["key"]
    assert text_of(done["log"][-1]["text"]).endswith("with house roux")
    done = obeyed(cook, batch, done, "thicken")
    assert done["act"]["thickener"] == mixture["key"]
    assert "house roux" in str(done["act"])
    before = done["pot"]["salt"]["best"]
    done = cook.record(batch, done["act"]["answers"][0]["payload"]).json()
    assert done["log"][-1]["kind"] == "thickened"
    assert done["pot"]["salt"]["best"] > before
    assert "milk" in str(done["serve_cautions"])
    assert cook.send(f"/mixtures/{mixture['id']}", {}, "delete").status_code == 204
    after = cook.get(f"/batches/{batch}").json()
    assert text_of(after["log"][-1]["text"]) == text_of(done["log"][-1]["text"])
    assert after["act"] == done["act"]
    assert cook.get("/mixtures").json()["mixtures"] == []


def test_a_batch_keeps_what_it_was_made_with_when_the_mixture_changes(cook: Caller) -> None:
    mixture, batch = kept(cook), cook.start(**POT)["id"]
    before = taken(cook, batch, mixture)["plan"]["dry"]
    changed = ROUX | {"text": "500 g corn starch", "goes_in": "slurry"}
    assert cook.send(f"/mixtures/{mixture['id']}", changed, "put").status_code == 200
    assert cook.get(f"/batches/{batch}").json()["plan"]["dry"] == before
    assert cook.get("/mixtures").json()["mixtures"][0]["text"] == "500 g corn starch"


@pytest.mark.parametrize("key", ["own-", "own-nothing", "own-5d0f8f55-3b3e-4b0e-9d5e-2f3a7a0c1b11", "sawdust"])
def test_what_this_kitchen_does_not_mix_is_refused_beside_its_field(cook: Caller, key: str) -> None:
    batch = cook.start()["id"]
    cook.record(batch, {"kind": "wanted", **WISH})
    for said in (
        {"kind": "chosen", "route": "all-here-own", "thickener": key},
        {"kind": "thickened", "thickener": key, "dry_g": "12 g"},
        {"kind": "prepared", "thickener": key, "dry_g": "12 g"},
    ):
        answer = cook.record(batch, said)
        assert answer.status_code == 422, said
        assert answer.json()["errors"][0]["field"].split(".")[-1] in ("thickener", "key")
    assert cook.send(f"/batches/{batch}/routes?asked={key}", WISH).status_code == 422
    assert len(cook.get(f"/batches/{batch}").json()["log"]) == 2


def test_a_neighbours_mixture_is_none_of_mine(cook: Caller, neighbour: Caller) -> None:
    mixture, batch = kept(neighbour), cook.start()["id"]
    cook.record(batch, {"kind": "wanted", **WISH})
    answer = cook.record(batch, {"kind": "chosen", "route": "all-here-own", "thickener": mixture["key"]})
    assert answer.status_code == 422
    assert cook.send(f"/mixtures/{mixture['id']}", ROUX, "put").status_code == 404
    assert cook.send(f"/mixtures/{mixture['id']}", {}, "delete").status_code == 404


def test_a_way_of_ones_own_says_which(cook: Caller) -> None:
    batch = cook.start()["id"]
    cook.record(batch, {"kind": "wanted", **WISH})
    answer = cook.record(batch, {"kind": "chosen", "route": "all-here-own"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"].split(".")[-1] == "thickener"


def test_a_spoon_of_it_is_a_spoon_of_what_is_in_it_or_asked_by_weight(cook: Caller) -> None:
    mixture, batch = kept(cook), cook.start(**POT)["id"]
    taken(cook, batch, mixture)
    answer = cook.record(batch, {"kind": "thickened", "thickener": mixture["key"], "dry_g": "2 tbsp"})
    assert answer.status_code == 422
    assert "weight" in answer.json()["errors"][0]["message"]
    assert answer.json()["errors"][0]["field"].split(".")[-1] == "dry_g"


def test_one_mixture_is_looked_at_beside_another_that_was_taken(cook: Caller) -> None:
    one, other = kept(cook), kept(cook, name="house starch", text="80 g corn starch\n20 g rice flour", goes_in="slurry")
    batch = cook.start(**POT)["id"]
    taken(cook, batch, one)
    ways = cook.send(f"/batches/{batch}/routes?asked={other['key']}", WISH).json()["routes"]
    assert {route["own"] for route in ways if route["own"]} == {other["key"]}
    done = taken(cook, batch, other)
    assert done["plan"]["own"] == other["key"]


def test_it_goes_along_with_a_house_dish(cook: Caller) -> None:
    mixture, batch = kept(cook), cook.start(**POT)["id"]
    taken(cook, batch, mixture)
    dish = str(uuid4())
    answer = cook.send("/house-dishes", {"id": dish, "batch_id": batch, "name": "Shin", "people": 4})
    assert answer.status_code == 200, answer.content
    shown = cook.get(f"/house-dishes/{dish}").json()
    assert "house roux" in text_of(shown["way"])
    kitchen = cook.kitchen()
    place = f"pan_id={kitchen['pans'][2]['id']}&burner_id={kitchen['burners'][1]['id']}"
    told = cook.get(f"/house-dishes/{dish}/foreseen?{place}")
    assert told.status_code == 200, told.content
    assert "house roux" in str(told.json())


def test_what_stands_ready_of_it_is_poured_from(cook: Caller) -> None:
    mixture = kept(cook, name="house starch", text="80 g corn starch\n20 g rice flour", goes_in="slurry")
    batch = cook.start(**POT)["id"]
    done = taken(cook, batch, mixture)
    card = done["making"]
    assert card["label"] == "house starch"
    made = {"kind": "prepared", "thickener": mixture["key"], "dry_g": card["dry_g"], "stands": "ready"}
    done = cook.record(batch, made | {"stirred_into": "red_wine"}).json()
    assert done["making"]["ready"] is True
    done = obeyed(cook, batch, done, "thicken")
    done = cook.record(batch, done["act"]["answers"][0]["payload"]).json()
    assert "sulphites" in str(done["serve_cautions"])

"""House dishes: kept from a batch, cooked again for others in another pan, changed by versions, and in open formats."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

import pytest
from batches.models import Batch
from house_dishes.models import DishVersion
from interchange.recipe import recipe_in
from kitchens.models import Kitchen
from makers import text_of

from .conftest import Caller, person
from .test_batches import field_errors

#: What went into a braise for four, as a page says it: read from a pasted list.
LIST = "1.2 kg beef shin\n1.5 l unsalted beef stock\n2 dl red wine\n2 onions\n10 g salt"


def listed(cook: Caller, text: str = LIST) -> dict[str, Any]:
    lines = [one["line"] for one in cook.send("/previews/list", {"text": text}).json()["lines"]]
    return {"braise": {"lines": lines, "hours": 3}, "salt": {"by": "list"}, "measured": None, "fat_ml": None}


def shin(cook: Caller, text: str = LIST, **wish: Any) -> str:
    """A batch of a list, with a wish, a way and butter in it."""
    batch = cook.start(**listed(cook, text))["id"]
    said: tuple[dict[str, Any], ...] = (
        {"kind": "wanted", "volume_ml": 480, "body": 3, "salt_percent": 0.9} | wish,
        {"kind": "chosen", "route": "all-taste-corn_starch_own"},
        {"kind": "added", "ingredient": "butter", "amount": "20 g"},
    )
    for one in said:
        assert cook.record(batch, one).status_code == 200, one
    return str(batch)


def keep(cook: Caller, batch: str, *, id: str | None = None, name: str = "Shin", people: int = 4) -> Any:
    return cook.send("/house-dishes", {"id": id or str(uuid4()), "batch_id": batch, "name": name, "people": people})


def said(parts: Any) -> str:
    return text_of(parts).replace("\u00a0", " ")


def test_a_batch_is_kept_and_opened_for_others(cook: Caller) -> None:
    dish = keep(cook, shin(cook)).json()
    assert dish["people"] == 4
    assert said(dish["wanted"]) == "480 mL, coats the spoon, 0.90 % salt"
    assert said(dish["cooked"]) == "3 h in the oven at 150 °C"
    assert [one["name"] for one in dish["stirred_in"]] == ["butter, unsalted"]
    many = cook.get(f"/house-dishes/{dish['id']}?people=30").json()
    assert [line["line"]["mass_g"] for line in many["lines"] if "shin" in line["name"]] == [9000.0]
    assert said(many["wanted"]).startswith("3 600 mL")
    assert many["begins"]["braise"]["hours"] == 3.0
    [line] = cook.get("/house-dishes").json()
    assert (line["name"], line["people"], line["number"], line["readable"]) == ("Shin", 4, 1, True)


def test_it_is_begun_again_for_others_and_salt_follows_the_ledger(cook: Caller) -> None:
    dish = keep(cook, shin(cook)).json()
    begins = cook.get(f"/house-dishes/{dish['id']}?people=8").json()["begins"]
    body = cook.start_body(measured={"method": "jug", "value": "2.2 l"}, fat_ml=None, braise=begins["braise"])
    body["liquid"]["salt"] = {"by": "list"}
    start = {"id": str(uuid4()), "event_id": str(uuid4()), "at": "2026-03-14T18:00:00Z", "name": "Shin", "start": body}
    again = cook.send("/batches", start | {"house_dish": dish["id"]})
    assert again.status_code == 200, again.content
    wished = cook.record(again.json()["id"], {"kind": "wanted"} | begins["wanted"])
    assert wished.status_code == 200, wished.content
    assert wished.json()["wanted"]["amount"]["value"] == pytest.approx(960.0)
    # Both batches are of the dish: the one it was kept from, and the one that was begun from it.
    of_it = cook.get(f"/batches?house_dish={dish['id']}").json()["items"]
    assert {one["name"] for one in of_it} == {"Shin in stout", "Shin"}
    assert cook.get(f"/batches?house_dish={uuid4()}").json()["items"] == []


def test_what_it_comes_to_is_told_for_the_pan_that_is_taken(cook: Caller) -> None:
    dish, kitchen = keep(cook, shin(cook)).json(), cook.kitchen()
    burner, small = kitchen["burners"][3]["id"], kitchen["pans"][0]["id"]
    place = f"/house-dishes/{dish['id']}/foreseen?burner_id={burner}"
    told = cook.get(f"{place}&pan_id={kitchen['pans'][2]['id']}&people=8").json()
    assert told["problem"] is None
    assert told["there"]["people"] == 4
    assert told["here"]["people"] == 8
    assert told["here"]["liquid"]["value"] > 1.5 * told["there"]["liquid"]["value"]
    assert said(told["here"]["said"]).startswith("Boil")
    too_small = cook.get(f"{place}&pan_id={small}&people=60").json()
    assert too_small["here"] is None
    assert "16 cm saucepan" in said(too_small["problem"])


def test_a_later_version_says_what_is_otherwise_and_who_did_it(cook: Caller) -> None:
    first = keep(cook, shin(cook)).json()
    hand = person("hand", Kitchen.objects.get(), "cook")
    later = keep(hand, shin(hand, LIST.replace("10 g salt", "15 g salt"), salt_percent=0.8), id=first["id"]).json()
    assert [version["number"] for version in later["versions"]] == [2, 1]
    assert [version["by"] for version in later["versions"]] == ["hand", "cook"]
    changes = [said(one) for one in later["versions"][0]["changes"]]
    assert "10 g → 15 g salt" in changes
    assert "salt 0.90 % → 0.80 %" in changes
    back = cook.send(f"/house-dishes/{first['id']}", {"back_to": 1}, "patch").json()
    assert [version["number"] for version in back["versions"]] == [3, 2, 1]
    assert "15 g → 10 g salt" in [said(one) for one in back["versions"][0]["changes"]]
    assert back["wanted"] == first["wanted"]
    assert cook.send(f"/house-dishes/{first['id']}", {"back_to": 9}, "patch").status_code == 404


def test_kept_again_as_it_is_there_is_no_new_version(cook: Caller) -> None:
    batch = shin(cook)
    first = keep(cook, batch).json()
    assert keep(cook, batch, id=first["id"]).json()["number"] == 1


def test_salt_body_name_and_place_are_changed(cook: Caller) -> None:
    dish = keep(cook, shin(cook)).json()
    path = f"/house-dishes/{dish['id']}"
    changed = cook.send(path, {"salt_percent": "1.3 %", "body": 2, "name": "Winter shin"}, "patch").json()
    assert (changed["salt_percent"], changed["body"], changed["number"]) == (1.3, 2, 2)
    assert changed["name"] == "Winter shin"
    # A dish that is saltier than its ceiling takes the ceiling along.
    batch = cook.start()["id"]
    assert cook.record(batch, {"kind": "wanted"} | changed["begins"]["wanted"]).status_code == 200
    away = cook.send(path, {"retired": True}, "patch").json()
    assert away["retired"]
    assert away["number"] == 2
    assert field_errors(cook.send(path, {"salt_percent": "salty"}, "patch"))
    assert field_errors(cook.send(path, {"name": ""}, "patch"))


def test_notes_come_back_by_the_dish_whatever_the_batch_is_called(cook: Caller) -> None:
    batch = shin(cook)
    dish = keep(cook, batch).json()
    note = {"kind": "next_time", "note": str(uuid4()), "moment": "stop", "text": "stop a little later"}
    assert cook.record(batch, note).status_code == 200, note
    assert [one["text"] for one in cook.get(f"/house-dishes/{dish['id']}").json()["notes"]] == ["stop a little later"]
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": "2099-01-01T00:00:00Z", "name": "Sunday lunch"}
    again = cook.send("/batches", body | {"start": cook.start_body(), "house_dish": dish["id"]}).json()
    assert [one["text"] for one in cook.get(f"/batches/{again['id']}/last-time").json()] == ["stop a little later"]


def test_a_list_to_get_ready_adds_up(cook: Caller) -> None:
    one, two = (keep(cook, shin(cook), name=name).json()["id"] for name in ("Shin", "Large shin"))
    told = cook.send("/house-dishes/prep", {"dishes": [{"id": one, "people": 4}, {"id": two, "people": 30}]}).json()
    meat = next(row for row in told["needed"] if row["name"] == "beef shin")
    assert meat["amount"]["value"] == pytest.approx(1200 * 8.5)
    assert {each["dish"]: each["amount"]["value"] for each in meat["each"]} == {"Shin": 1200.0, "Large shin": 9000.0}
    assert field_errors(cook.send("/house-dishes/prep", {"dishes": []}))
    assert field_errors(cook.send("/house-dishes/prep", {"dishes": [{"id": one, "people": 0}]}))


def test_another_kitchens_dish_is_not_there(cook: Caller, neighbour: Caller) -> None:
    dish = keep(cook, shin(cook)).json()["id"]
    assert neighbour.get("/house-dishes").json() == []
    assert neighbour.send("/house-dishes/prep", {"dishes": [{"id": dish, "people": 4}]}).status_code == 404
    theirs = shin(neighbour)
    assert keep(neighbour, theirs, id=dish).status_code == 409
    assert keep(cook, theirs).status_code == 404
    assert Batch.objects.get(pk=theirs).house_dish is None
    assert DishVersion.objects.count() == 1


def test_one_that_cannot_be_read_any_more_stays_in_the_list(cook: Caller) -> None:
    dish = keep(cook, shin(cook)).json()["id"]
    DishVersion.objects.update(entries=[{"kind": "started", "liquid": 7}])
    [line] = cook.get("/house-dishes").json()
    assert not line["readable"]
    shown = cook.get(f"/house-dishes/{dish}").json()
    assert shown["begins"] is None
    assert cook.send(f"/house-dishes/{dish}", {"retired": True}, "patch").status_code == 200


def test_without_a_wish_or_a_list_it_is_kept_all_the_same(cook: Caller) -> None:
    dish = keep(cook, cook.start()["id"]).json()
    assert dish["wanted"] is None
    assert said(dish["said"]).endswith("strained")
    kitchen = cook.kitchen()
    place = f"pan_id={kitchen['pans'][2]['id']}&burner_id={kitchen['burners'][0]['id']}"
    told = cook.get(f"/house-dishes/{dish['id']}/foreseen?{place}").json()
    assert told["here"]["minutes"] is None
    refused = cook.send(f"/house-dishes/{dish['id']}", {"body": 2}, "patch")
    assert refused.status_code == 422


def test_it_is_a_recipe_of_the_open_web_and_its_lines_come_back(cook: Caller) -> None:
    dish = keep(cook, shin(cook)).json()["id"]
    file = cook.get(f"/house-dishes/{dish}/files/recipe.jsonld?people=8&units=metric")
    assert file["Content-Type"] == "application/ld+json"
    told = json.loads(file.content)
    assert (told["@type"], told["recipeYield"], told["cookTime"]) == ("Recipe", "8", "PT180M")
    read = cook.send("/previews/recipe", told).json()
    assert [line["line"]["mass_g"] for line in read["lines"] if line["name"] == "beef shin"] == [2400.0]
    assert recipe_in(file.content).name == "Shin"

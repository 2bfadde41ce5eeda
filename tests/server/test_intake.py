"""Intake over HTTP: sentences, lists, starts from a list, a larder of one's own, cooling and drawing off."""

from __future__ import annotations

import re
from typing import Any
from uuid import uuid4

import pytest
from batches.models import Batch, Event
from makers import text_of

from .conftest import Caller, person
from .test_batches import WANTED, field_errors

LIST = "1.2 kg pork cheek\n12 g salt on the meat\n1 l chicken stock\n3 cups blorple\n1 bottle red wine, reduced by half"


def read(cook: Caller, text: str) -> dict[str, Any]:
    answer = cook.send("/previews/list", {"text": text})
    assert answer.status_code == 200, answer.content
    return answer.json()


def braise(cook: Caller, text: str = LIST, **cooked: Any) -> dict[str, Any]:
    return {"lines": [line["line"] for line in read(cook, text)["lines"]]} | cooked


def test_a_sentence_comes_back_in_the_words_of_a_start(cook: Caller) -> None:
    text = "a bit over two litres, two centimetres of fat, nearly right for salt"
    said = cook.send("/previews/sentence", {"text": text}).json()
    assert (said["method"], said["value"], said["fat_mm"], said["verdict"]) == ("eye", "2100 ml", "20 mm", "nearly")
    assert said["unread"] == []
    assert cook.send("/previews/sentence", {"text": "x" * 501}).status_code == 422


def test_a_list_is_read_and_what_is_not_known_is_kept(cook: Caller) -> None:
    lines = read(cook, LIST)["lines"]
    assert [line["name"] for line in lines] == [
        "pork cheek",
        "table salt",
        "chicken stock, home made, lightly salted",
        "blorple",
        "red wine",
    ]
    assert text_of(lines[0]["brings"][0]["said"]) == "gives 18 to 72 g fat"
    assert text_of(lines[3]["problem"]).startswith("“blorple” is not in the catalogue")
    assert lines[3]["line"]["text"] == "3 cups blorple"
    assert text_of(lines[4]["note"]).startswith("375 mL left")


def test_a_list_of_five_thousand_lines_hands_the_rest_back(cook: Caller) -> None:
    found = read(cook, "\n".join(f"{i} g salt" for i in range(1, 5001)))
    assert len(found["lines"]) == 200
    assert found["rest"].count("\n") == 4799


def test_a_line_can_be_put_right(cook: Caller) -> None:
    (line,) = cook.send("/previews/line", {"text": "3 cups blorple", "ingredient": "beef_stock_own"}).json()["lines"]
    assert (line["name"], line["problem"]) == ("beef stock, home made, lightly salted", None)
    (line,) = cook.send("/previews/line", {"text": "1 bottle red wine", "use": "reduced", "left": 0.25}).json()["lines"]
    assert (line["line"]["use"], line["line"]["left"]) == ("reduced", 0.25)
    wrong = cook.send("/previews/line", {"text": "1 l wine", "ingredient": "ambrosia"})
    assert "not in the catalogue" in field_errors(wrong)["ingredient"]


def test_a_line_that_is_not_sure_offers_other_readings_and_to_leave_it_out(cook: Caller) -> None:
    (line,) = read(cook, "200 ml stock")["lines"]
    assert "several are called so" in text_of(line["doubt"])
    assert [text_of(choice["said"]) for choice in line["choices"]] == [
        "stock, unsalted",
        "stock, salted, ready to use",
        "Leave it out",
    ]
    for choice in line["choices"]:
        (other,) = cook.send("/previews/line", choice["line"]).json()["lines"]
        assert other["doubt"] is None
        assert other["choices"] == []
    (sure,) = cook.send("/previews/line", {"text": "200 ml stock", "ingredient": line["line"]["ingredient"]}).json()[
        "lines"
    ]
    assert sure["doubt"] is None
    (left,) = read(cook, "2 onions blorple")["lines"]
    assert "“blorple” says nothing" in text_of(left["doubt"])


def test_half_a_pot_is_of_the_pan_that_is_meant(cook: Caller) -> None:
    pan = cook.get("/kitchen").json()["pans"][0]
    said = cook.send("/previews/sentence", {"text": "half a pot, lots of fat", "pan_id": pan["id"]}).json()
    assert float(said["value"].split()[0]) == pytest.approx(pan["capacity"]["value"] / 2, abs=1)
    assert cook.send("/previews/sentence", {"text": "half a pot"}).json()["unread"] == ["half a pot"]


def test_the_pan_that_is_assumed_holds_twice_the_liquid(cook: Caller) -> None:
    pans = sorted(cook.get("/kitchen").json()["pans"], key=lambda pan: pan["capacity"]["value"])
    body = cook.start_body(measured={"method": "jug", "value": "900 ml", "hot": False}, fat_ml=0)
    assumed = cook.send("/previews/start?any_pan=true", body).json()["pan_id"]
    assert assumed == next(pan["id"] for pan in pans if pan["capacity"]["value"] >= 1800)
    assert cook.send("/previews/start", body).json()["pan_id"] == body["pan_id"]
    dipped = body | {"liquid": body["liquid"] | {"measured": {"method": "dip", "value": "40 mm", "hot": False}}}
    assert cook.send("/previews/start?any_pan=true", dipped).json()["pan_id"] == body["pan_id"]


def test_what_does_not_fit_names_the_pans_that_it_fits_in(cook: Caller) -> None:
    pans = sorted(cook.get("/kitchen").json()["pans"], key=lambda pan: pan["capacity"]["value"])
    small, large = pans[0], pans[-1]
    volume = 0.5 * (small["capacity"]["value"] + large["capacity"]["value"])
    body = cook.start_body(measured={"method": "jug", "value": volume, "hot": False}, fat_ml=0)
    refused = cook.send("/previews/start", body | {"pan_id": small["id"]})
    assert refused.status_code == 422
    assert large["name"] in " ".join(field_errors(refused).values())


def test_spoons_of_salt_and_starch_are_weighed_as_they_lie_in_a_spoon(cook: Caller) -> None:
    batch = cook.start()
    for payload, grams in (
        ({"kind": "salted", "salt_g": "1/2 tsp", "salt": "light_flake"}, 1.4),
        ({"kind": "salted", "salt_g": "2 g"}, 2.0),
        ({"kind": "salted", "salt_g": "a pinch"}, 0.5),
        ({"kind": "thickened", "thickener": "corn_starch", "dry_g": "1 tbsp"}, 8.0),
    ):
        assert cook.record(batch["id"], payload).status_code == 200
        stored = Event.objects.filter(batch_id=batch["id"]).latest("seq").payload
        assert stored.get("salt_g", stored.get("dry_g")) == pytest.approx(grams)
        # A spoon and a pinch are no scales, and the ledger knows it.
        spooned = payload["kind"] == "salted" and payload["salt_g"] != "2 g"
        assert bool(stored.get("spread")) == spooned


def test_a_start_from_the_list_alone(cook: Caller) -> None:
    batch = cook.start(measured=None, fat_ml=None, salt={"by": "list"}, braise=braise(cook))
    assert batch["estimated"]["liquid"]["low"]["value"] < batch["pot"]["liquid"]["value"]
    figures = {f["name"]: f for f in batch["estimated"]["figures"]}
    assert figures["gelatin"]["span"]["low"]["value"] >= 15
    assert any("rubbed" in line["line"]["use"] for line in batch["start"]["lines"])
    assert figures["salt"]["reasons"][-1]["what"] == "Shared out"
    assert batch["estimated"]["alcohol"]["rule"] == "vapour"
    assert batch["start"]["liquid"]["measured"] is None
    assert text_of(batch["log"][0]["text"]) == "By the list of what went in (4 lines), in: 24 cm braising pan"
    assert any("sulphites" in text_of(caution) for caution in batch["serve_cautions"])


def test_a_measured_start_with_a_list_says_where_they_contradict(cook: Caller) -> None:
    measured = {"method": "jug", "value": "3.5 l", "hot": False}
    preview = cook.send("/previews/start", cook.start_body(measured=measured, braise=braise(cook)))
    assert preview.status_code == 200, preview.content
    assert "missing from the list" in text_of(preview.json()["doubt"])
    assert [s["stage"] for s in preview.json()["ribbon"]] == ["strain"]
    assert Batch.objects.count() == 0


@pytest.mark.parametrize(
    ("liquid", "field", "complaint"),
    [
        ({"measured": None}, "", "Say how much there is"),
        ({"salt": {"by": "list"}}, "", "Say how salty"),
        ({"fat_mm": "3 mm"}, "", "not both"),
        ({"solids_g": "-3 g"}, "liquid.solids_g", "below zero"),
        ({"braise": {"hours": "3 weeks"}}, "liquid.braise.hours", "not a unit"),
        ({"braise": {"oven_c": "9000 °C"}}, "liquid.braise.oven_c", "between -40 and 300"),
        ({"braise": {"lines": [{"text": "x", "ingredient": "ambrosia", "mass_g": 5}]}}, "", "not in the catalogue"),
        ({"braise": {"lines": [{"text": "x"}] * 201}}, "liquid.braise.lines", "200"),
        ({"solids_g": "60 kg"}, "measured", "Choose a bigger pan|more than|less|leaves no liquid"),
    ],
)
def test_nonsense_gets_a_sentence(cook: Caller, liquid: dict[str, Any], field: str, complaint: str) -> None:
    if liquid == {"solids_g": "60 kg"}:
        liquid = liquid | {"measured": {"method": "dip", "value": "60 mm", "hot": True}}
    answer = cook.send("/previews/start", cook.start_body(**liquid))
    assert answer.status_code == 422
    assert re.search(complaint, answer.json()["detail"] + str(answer.json()["errors"]))
    if field.startswith("liquid"):
        assert any(name.endswith(field) for name in field_errors(answer))


def test_concentrates(cook: Caller) -> None:
    made = cook.send("/previews/concentrate", {"volume_ml": "1.8 l", "concentrate_parts": 2, "water_parts": 7}).json()
    assert (made["concentrate"]["metric"], made["water"]["metric"]) == ("400\u00a0mL", "1\u00a0400\u00a0mL")
    assert "that makes 2 315 mL" in text_of(made["mind"])
    undiluted = {"volume_ml": 100, "concentrate_parts": 1, "water_parts": 0}
    assert "No water at all" in text_of(cook.send("/previews/concentrate", undiluted).json()["mind"])
    wrong = cook.send("/previews/concentrate", {"volume_ml": 100, "concentrate_parts": 0, "water_parts": 1})
    assert wrong.status_code == 422


# -- the larder ---------------------------------------------------------------------------------

HOUSE = {"name": "house stock", "like": "beef_stock_own", "label": {"salt_g": "2 g", "serving": "100 ml"}}


def test_an_ingredient_of_ones_own_is_found_first_and_only_here(cook: Caller, neighbour: Caller) -> None:
    kept = cook.send("/larder", HOUSE)
    assert kept.status_code == 200, kept.content
    assert kept.json()["ingredient"]["salt"] == pytest.approx(2.0, abs=0.1)
    found = cook.get("/ingredients?q=house stock").json()
    assert (found[0]["name"], found[0]["own"]) == ("house stock", True)
    assert all(item["name"] != "house stock" for item in neighbour.get("/ingredients?q=house stock").json())
    (line,) = read(cook, "1 l house stock")["lines"]
    assert line["line"]["own"]["name"] == "house stock"


def test_a_batch_keeps_what_went_in_when_the_larder_changes(cook: Caller) -> None:
    own = cook.send("/larder", HOUSE).json()
    stock = braise(cook, "1.5 l house stock")
    batch = cook.start(measured=None, fat_ml=None, salt={"by": "list"}, braise=stock)
    added = {"kind": "added", "ingredient": own["ingredient"]["key"], "amount": "100 ml"}
    before = cook.record(batch["id"], added).json()
    assert text_of(before["log"][-1]["text"]) == "Added 100 mL of house stock"
    changed = HOUSE | {"label": {"salt_g": "0.1 g", "serving": "100 ml"}}
    assert cook.send(f"/larder/{own['id']}", changed, "put").status_code == 200
    assert cook.send(f"/larder/{own['id']}", {}, "delete").status_code == 204
    after = cook.get(f"/batches/{batch['id']}").json()
    assert after["pot"]["salt"] == before["pot"]["salt"]
    assert cook.get("/larder").json() == []


def test_the_larder_is_the_kitchens_and_guests_only_look(cook: Caller, neighbour: Caller) -> None:
    own = cook.send("/larder", HOUSE).json()
    assert neighbour.send(f"/larder/{own['id']}", HOUSE, "put").status_code == 404
    assert neighbour.send(f"/larder/{own['id']}", {}, "delete").status_code == 404
    guest = person("guest", cook.member().kitchen, "guest")
    assert len(guest.get("/larder").json()) == 1
    assert guest.send("/larder", HOUSE).status_code == 403


@pytest.mark.parametrize(
    ("given", "complaint"),
    [
        ({"abv": "300 %"}, "between 0 and 96\u00a0%"),
        ({"like": "ambrosia"}, "not in the catalogue"),
        ({"name": " "}, "Write something here"),
        ({"label": {"sodium_g": "1 g", "serving": "a bit"}}, "Write it as|Say which unit"),
    ],
)
def test_an_ingredient_that_cannot_be(cook: Caller, given: dict[str, Any], complaint: str) -> None:
    answer = cook.send("/larder", HOUSE | given)
    assert answer.status_code == 422
    assert re.search(complaint, answer.json()["detail"])


# -- pans ---------------------------------------------------------------------------------------


def test_calibrating_a_pan(cook: Caller) -> None:
    pan = cook.kitchen()["pans"][2]
    names = (
        "name",
        "shape",
        "base_length_mm",
        "base_width_mm",
        "rim_length_mm",
        "rim_width_mm",
        "height_mm",
        "empty_g",
    )
    spec = {name: pan[name] for name in names}
    poured = [{"volume_ml": "1 l", "depth_mm": "23 mm"}, {"volume_ml": "2 l", "depth_mm": "46 mm"}]
    fit = cook.send("/previews/calibration", {"pan": spec, "poured": poured}).json()
    assert fit["pan"]["base_length_mm"] < spec["base_length_mm"]
    assert len(fit["misses"]) == 2
    kept = cook.send(f"/pans/{pan['id']}", fit["pan"], "put")
    assert kept.status_code == 200
    wrong = cook.send("/previews/calibration", {"pan": spec, "poured": [{"volume_ml": "1 l", "depth_mm": "70 cm"}]})
    assert "does not fit" in field_errors(wrong)["poured"]


# -- the pot ------------------------------------------------------------------------------------


def test_drawing_off_and_pouring_back(cook: Caller) -> None:
    batch, kitchen = cook.start(), cook.kitchen()
    drawn = {
        "kind": "drawn",
        "volume_ml": "400 ml",
        "pan_id": kitchen["pans"][0]["id"],
        "burner_id": kitchen["burners"][0]["id"],
    }
    after = cook.record(batch["id"], drawn).json()
    assert after["pan"]["name"] == kitchen["pans"][0]["name"]
    assert after["pot"]["liquid"]["value"] == pytest.approx(400, rel=0.01)
    assert after["pot"]["kept"]["value"] == pytest.approx(batch["pot"]["liquid"]["value"] - 400, rel=0.01)
    back = cook.record(batch["id"], {"kind": "returned", "volume_ml": "100 ml"}).json()
    assert back["pot"]["liquid"]["value"] == pytest.approx(500, rel=0.01)
    foreign = cook.record(batch["id"], drawn | {"pan_id": str(uuid4())})
    assert foreign.status_code == 404


def test_meat_in_the_pan(cook: Caller) -> None:
    batch = cook.start()
    after = cook.record(batch["id"], {"kind": "solids", "mass_g": "800 g"}).json()
    assert after["pot"]["solids"]["metric"] == "800\u00a0g"
    assert after["pot"]["depth"]["value"] > batch["pot"]["depth"]["value"] + 10
    assert after["pot"]["liquid"] == batch["pot"]["liquid"]


def test_a_pot_set_to_cool_says_by_when(cook: Caller) -> None:
    url = cook.start()["id"]
    cook.record(url, WANTED)
    cooling = cook.record(url, {"kind": "cooling", "celsius": "50 °C", "surroundings_c": "4 °C"}).json()
    assert cooling["act"]["kind"] == "cool"
    assert cooling["act"]["stage"] == "skim"
    assert {"at": cooling["cooling"]["limits"][0]["by"]} in cooling["act"]["sentence"]
    probed = cook.record(url, {"kind": "probed", "celsius": "100 °F"}).json()
    assert [round(r["celsius"]) for r in probed["cooling"]["readings"]] == [50, 38]
    lifted = cook.record(url, {"kind": "skimmed", "way": "chill"}).json()
    assert lifted["cooling"] is None
    assert lifted["act"]["kind"] == "choose"
    assert Event.objects.filter(batch_id=url, kind="probed").count() == 1


def test_every_way_to_skim_says_what_it_leaves_and_costs(cook: Caller) -> None:
    url = cook.start()["id"]
    skim = cook.record(url, WANTED).json()["skim"]
    ways = {way["way"]: way for way in skim["ways"]}
    assert set(ways) == {"spoon", "separator", "paper", "chill", "ice", "boil_dry"}
    assert [way["way"] for way in skim["ways"] if way["advised"]] == ["separator"]
    assert ways["ice"]["ice"]["value"] > 100
    assert ways["boil_dry"]["barred"] is not None
    assert "on each portion now" in text_of(skim["per_portion"])
    after = cook.record(url, {"kind": "skimmed", "way": "ice", "ice_g": "200 g", "kept": True}).json()
    assert "200 g" in text_of(after["log"][-1]["text"])
    assert after["skim"]["kept"]["value"] > 10

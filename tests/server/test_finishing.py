"""What goes in last, over HTTP: foreseen before it is poured, and offered by what is missing; nothing is recorded."""

from __future__ import annotations

import pytest
from batches.models import Event
from makers import text_of
from spissus_core.planning.finishing import LACKS

from .conftest import Caller
from .test_batches import field_errors


def test_an_addition_is_foreseen_and_not_recorded(cook: Caller) -> None:
    batch = cook.start()
    wine = {"payload": {"kind": "added", "ingredient": "red_wine", "amount": "400 ml"}}
    told = cook.send(f"/batches/{batch['id']}/foreseen", wine).json()
    assert told["nothing"] is None
    assert [one["hurts"] for one in told["changes"]] == sorted((one["hurts"] for one in told["changes"]), reverse=True)
    assert any("boil it for" in text_of(one["said"]) for one in told["changes"])
    pinch = cook.send(
        f"/batches/{batch['id']}/foreseen", {"payload": {"kind": "salted", "salt_g": "0.1 g", "salt": "table"}}
    )
    assert "Nothing that anybody would notice" in text_of(pinch.json()["nothing"])
    assert cook.get(f"/batches/{batch['id']}").json()["last_seq"] == batch["last_seq"]


def test_what_cannot_go_in_is_refused_as_it_would_be(cook: Caller) -> None:
    batch = cook.start()
    path = f"/batches/{batch['id']}/foreseen"
    flood = cook.send(path, {"payload": {"kind": "added", "ingredient": "water", "amount": "30 l"}})
    assert flood.status_code == 422
    assert "holds" in flood.content.decode()
    vague = {"kind": "added", "ingredient": "lemon_juice", "amount": "a lot"}
    assert "is not a unit" in str(field_errors(cook.send(path, {"payload": vague})))
    assert cook.send(path, {"payload": {"kind": "flung"}}).status_code == 422


def test_what_may_finish_it_is_offered_and_goes_in(cook: Caller) -> None:
    batch = cook.start()
    offers = cook.get(f"/batches/{batch['id']}/finishes").json()
    assert {one["lacks"] for one in offers} == set(LACKS) - {"salt"}
    cream = next(one for one in offers if one["key"] == "cream")
    assert any("milk" in text_of(change["said"]) for change in cream["changes"])
    for offer in offers:
        assert cook.record(batch["id"], offer["payload"]).status_code == 200, offer["key"]


def test_what_a_guest_must_not_have_is_stopped_before_it_goes_in(cook: Caller) -> None:
    batch = cook.start()["id"]
    assert cook.record(batch, {"kind": "wanted", "volume_ml": 900, "avoid": ["fish"]}).status_code == 200
    offers = {one["key"]: one["barred"] for one in cook.get(f"/batches/{batch}/finishes").json()}
    assert text_of(offers["anchovy"] or []) == "Not for this table: somebody must not have fish."
    assert offers["mustard"] is None
    fish = {"payload": {"kind": "added", "ingredient": "fish_sauce", "amount": "1 tsp"}}
    assert "must not have fish" in text_of(cook.send(f"/batches/{batch}/foreseen", fish).json()["barred"])


def test_another_kitchen_foresees_nothing_of_it(cook: Caller, neighbour: Caller) -> None:
    batch = cook.start()
    salt = {"payload": {"kind": "salted", "salt_g": "2 g", "salt": "table"}}
    assert neighbour.send(f"/batches/{batch['id']}/foreseen", salt).status_code == 404
    assert neighbour.get(f"/batches/{batch['id']}/finishes").status_code == 404


def test_a_liking_of_five_batches_is_what_the_sixth_begins_with(cook: Caller) -> None:
    """Each is salted to 1.1 % and called right; the kitchen said 0.9 %, as everybody does."""
    for _ in range(5):
        batch = cook.start()["id"]
        liquid_g = 1.0 * (cook.get(f"/batches/{batch}").json()["pot"]["liquid"]["value"])
        for payload in (
            {"kind": "salted", "salt_g": round(0.005 * liquid_g, 1), "salt": "table"},
            {"kind": "tested", "of": "salt", "verdict": "right", "twice": True},
            {"kind": "finished"},
        ):
            assert cook.record(batch, payload).status_code == 200
    liking = cook.get("/kitchen").json()["liking"]
    assert liking["batches"] == 5
    assert 1.0 <= liking["proposed_percent"] <= 1.1
    sixth = cook.start()
    assert sixth["suggested"]["salt_percent"] == liking["proposed_percent"]
    wanted = next(one["payload"] for one in sixth["act"]["answers"] if one["payload"])
    assert wanted["salt_percent"] == liking["proposed_percent"]
    # A batch that goes on after all has taught nothing; and it can be forgotten.
    log = cook.get(f"/batches/{batch}").json()["log"]
    end = next(entry["id"] for entry in log if entry["kind"] == "finished")
    assert cook.record(batch, {"kind": "struck", "event": end}).status_code == 200
    assert cook.get("/kitchen").json()["liking"]["batches"] == 4
    assert cook.send("/liking", None, "delete").status_code == 204
    assert cook.get("/kitchen").json()["liking"] is None
    assert sixth["suggested"] == cook.get(f"/batches/{sixth['id']}").json()["suggested"]


def bound(cook: Caller, *verdicts: str) -> str:
    """A batch bound with corn starch at its dose, and looked at until it is right."""
    batch = cook.start()["id"]
    plan = [{"kind": "wanted", "volume_ml": 900}, {"kind": "chosen", "route": "all-here-corn_starch_own"}]
    assert all(cook.record(batch, one).status_code == 200 for one in plan)
    dose = cook.get(f"/batches/{batch}").json()["plan"]["dry"]["value"]
    for verdict in verdicts:
        for one in (
            {"kind": "thickened", "thickener": "corn_starch_own", "dry_g": dose},
            {"kind": "tested", "of": "body", "verdict": verdict},
        ):
            assert cook.record(batch, one).status_code == 200
    assert cook.record(batch, {"kind": "finished"}).status_code == 200
    return str(batch)


def test_a_starch_that_binds_weakly_is_dosed_by_what_three_batches_taught(cook: Caller) -> None:
    def dose() -> float:
        batch = cook.start()["id"]
        for one in ({"kind": "wanted", "volume_ml": 900}, {"kind": "chosen", "route": "all-here-corn_starch_own"}):
            assert cook.record(batch, one).status_code == 200
        return float(cook.get(f"/batches/{batch}").json()["plan"]["dry"]["value"])

    usual = dose()
    batches = [bound(cook, "low", "right") for _ in range(2)]
    [known] = cook.kitchen()["strengths"]
    assert not known["counts"]
    assert dose() == pytest.approx(usual)
    batches.append(bound(cook, "low", "right"))
    [known] = cook.kitchen()["strengths"]
    assert (known["dry"], known["counts"], known["batches"]) == ("corn starch", True, 3)
    assert known["times"]["best"] < 0.95
    assert {one["batch"] for one in known["evidence"]} == set(batches)
    assert dose() == pytest.approx(usual / known["times"]["best"], rel=0.05)
    # What goes in binds as it was learned when its batch began, and is kept so.
    last = Event.objects.filter(batch=bound(cook, "right"), kind="thickened").get()
    assert last.payload["school"]["strength"] == pytest.approx(2.0 * known["times"]["best"])
    assert cook.send(f"/learned/batches/{batches[0]}", None, "delete").status_code == 204
    assert cook.send(f"/learned/batches/{batches[1]}", None, "delete").status_code == 204
    assert not cook.kitchen()["strengths"][0]["counts"]
    assert dose() == pytest.approx(usual)
    assert cook.send("/learned/strength?dry=corn starch", None, "delete").status_code == 204
    assert cook.kitchen()["strengths"] == []


def test_a_batch_that_goes_on_teaches_nothing_any_more(cook: Caller) -> None:
    batch = bound(cook, "low", "right")
    finished = Event.objects.get(batch=batch, kind="finished").pk
    assert cook.record(batch, {"kind": "struck", "event": str(finished)}).status_code == 200
    assert cook.kitchen()["strengths"] == []

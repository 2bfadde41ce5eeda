"""What the kitchen keeps, over HTTP: put by, shown on the shelf, and poured into another batch in one entry."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from makers import text_of

from .conftest import Caller, _now
from .test_batches import field_errors


def aside(cook: Caller) -> Any:
    """A batch of which a litre stands aside."""
    batch = cook.start()
    taken = {"kind": "parted", "volume_ml": 600, "purpose": "aside", "how": "under"}
    assert cook.record(batch["id"], taken).status_code == 200
    return batch["id"]


def put_by(cook: Caller, batch: str, **more: Any) -> Any:
    said = {
        "kind": "put_by",
        "jar": str(uuid4()),
        "what": "rest",
        "place": "freezer",
        "name": "stock of Tuesday",
        **more,
    }
    return cook.record(batch, said)


def shelf(cook: Caller) -> list[dict[str, Any]]:
    return cook.get("/shelf").json()  # type: ignore[no-any-return]


def test_the_rest_goes_into_the_freezer_and_into_another_batch_and_is_gone_from_the_shelf(cook: Caller) -> None:
    batch = aside(cook)
    answer = put_by(cook, batch, containers=2).json()
    assert answer["pot"]["kept"] is None
    (jar,) = shelf(cook)
    assert jar == answer["shelf"][0]
    assert jar["name"] == "stock of Tuesday"
    assert not jar["past"]

    other = cook.start()
    before = other["pot"]["liquid"]["value"]
    half = jar["volume"]["value"] / 2.0
    poured = {"kind": "poured_in", "jar": jar["id"], "batch": batch, "volume_ml": half}
    after = cook.record(other["id"], poured).json()
    assert after["pot"]["liquid"]["value"] == pytest.approx(before + half, rel=0.01)
    # In one entry of one batch it is gone from the other's shelf, and both logs say so.
    assert shelf(cook)[0]["volume"]["value"] == pytest.approx(half, rel=0.02)
    assert "poured into another batch" in str(
        [text_of(entry["text"]) for entry in cook.get(f"/batches/{batch}").json()["log"]]
    )
    # Neither half is told, or taken back, by itself.
    half_of_it = next(one["id"] for one in cook.get(f"/batches/{batch}").json()["log"] if one["kind"] == "jar_taken")
    for said in ({"kind": "struck", "event": half_of_it}, {"kind": "jar_taken", "jar": jar["id"], "use": "poured"}):
        assert "went into another batch" in str(field_errors(cook.record(batch, said)))
    # Taken back, it stands there again.
    entry = after["log"][-1]["id"] if after["log"][-1]["kind"] == "poured_in" else after["log"][0]["id"]
    assert cook.record(other["id"], {"kind": "struck", "event": entry}).status_code == 200
    assert shelf(cook)[0]["volume"]["value"] == pytest.approx(2.0 * half, rel=0.02)


def test_what_is_not_there_is_not_poured_and_nothing_is_recorded(cook: Caller, neighbour: Caller) -> None:
    batch = aside(cook)
    jar = put_by(cook, batch).json()["shelf"][0]
    other = cook.start()["id"]
    much = {"kind": "poured_in", "jar": jar["id"], "batch": batch, "volume_ml": 30_000}
    assert "There are only" in str(field_errors(cook.record(other, much)))
    assert shelf(cook)[0]["volume"] == jar["volume"]
    own = {"kind": "poured_in", "jar": jar["id"], "batch": batch, "volume_ml": 100}
    assert "this very batch" in str(field_errors(cook.record(batch, own)))
    gone = {"kind": "poured_in", "jar": str(uuid4()), "batch": batch, "volume_ml": 100}
    assert "not on the shelf" in str(field_errors(cook.record(other, gone)))
    # Another kitchen has its own shelf, and pours nothing from this one.
    assert shelf(neighbour) == []
    theirs = neighbour.start()["id"]
    assert neighbour.record(theirs, own).status_code == 404


def test_a_thing_of_ones_own_making_is_not_taken(cook: Caller) -> None:
    """Figures of what is kept are written by the server alone."""
    batch = aside(cook)
    jar = put_by(cook, batch).json()["shelf"][0]
    forged = {"name": "x", "keeps": "stock", "masses": {"salt": 500.0}, "made": jar["made"], "use_by": jar["use_by"]}
    said = {"kind": "poured_in", "jar": jar["id"], "batch": batch, "volume_ml": 100, "thing": forged}
    assert cook.record(cook.start()["id"], said).status_code == 422


def test_how_each_way_would_cool_is_told_before_it_is_set_to_cool(cook: Caller) -> None:
    batch = aside(cook)
    ways = cook.get(f"/batches/{batch}/chilling/rest").json()
    assert ways[0]["makes"] == "in_time"
    assert {"room", "fridge", "split", "trays", "bath"} == {one["key"] for one in ways}
    assert "never gets cold enough" in text_of(next(one for one in ways if one["key"] == "room")["said"])
    assert cook.get(f"/batches/{cook.start()['id']}/chilling/rest").json() == []
    assert cook.get(f"/batches/{batch}/chilling/soup").status_code == 422


def test_a_summary_tells_the_shelf_as_its_batch_does(cook: Caller) -> None:
    batch = aside(cook)
    jar = put_by(cook, batch, place="fridge", volume_ml=200).json()["shelf"][0]
    for said in (
        {"kind": "jar_taken", "jar": jar["id"], "volume_ml": 50, "use": "eaten"},
        {"kind": "jar_moved", "jar": jar["id"], "place": "freezer"},
    ):
        told = cook.record(batch, said).json()["shelf"]
        assert told == shelf(cook)
    assert told[0]["place"] == "freezer"
    assert cook.record(batch, {"kind": "jar_taken", "jar": jar["id"], "use": "thrown_away"}).json()["shelf"] == []
    assert shelf(cook) == []


def begin_with(cook: Caller, jar: dict[str, Any], value: Any) -> Any:
    """A batch of its own, out of what is kept."""
    liquid = {
        "kept": {"batch": jar["batch"], "jar": jar["id"]},
        "measured": {"method": "jug", "value": value, "hot": False},
        "salt": {"by": "meter", "percent": jar["salt_percent"]},
    }
    start = cook.start_body() | {"liquid": liquid}
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": _now(), "name": jar["name"], "start": start}
    return cook.send("/batches", body)


def test_what_is_kept_begins_a_batch_of_its_own_and_is_gone_from_the_shelf(cook: Caller) -> None:
    assert put_by(cook, aside(cook)).status_code == 200
    jar = shelf(cook)[0]
    begun = begin_with(cook, jar, jar["volume"]["value"])
    assert begun.status_code == 200, begun.content
    batch = begun.json()
    assert batch["pot"]["salt"]["best"] == pytest.approx(jar["salt_percent"], rel=0.01)
    assert batch["pot"]["liquid"]["value"] == pytest.approx(jar["volume"]["value"], rel=0.02)
    assert "stock of Tuesday" in text_of(batch["log"][0]["text"])
    assert shelf(cook) == []
    # Told again with another salt it takes no more of it, and is the same thing.
    again = cook.start_body() | {"liquid": batch["start"]["liquid"] | {"salt": {"by": "meter", "percent": 0.7}}}
    told = cook.record(batch["id"], again)
    assert told.status_code == 200, told.content
    assert told.json()["pot"]["salt"]["best"] == pytest.approx(0.7, rel=0.01)
    assert told.json()["pot"]["liquid"]["value"] == pytest.approx(batch["pot"]["liquid"]["value"], rel=0.005)


def test_a_part_of_it_begins_a_batch_and_the_rest_stays_and_more_than_there_is_begins_none(cook: Caller) -> None:
    assert put_by(cook, aside(cook)).status_code == 200
    jar = shelf(cook)[0]
    refused = begin_with(cook, jar, 3.0 * jar["volume"]["value"])
    assert refused.status_code == 422
    assert set(field_errors(refused)) == {"value"}
    assert begin_with(cook, jar, 0.5 * jar["volume"]["value"]).status_code == 200
    assert shelf(cook)[0]["volume"]["value"] == pytest.approx(0.5 * jar["volume"]["value"], rel=0.03)
    assert begin_with(cook, jar | {"id": str(uuid4())}, 100).status_code == 422


def test_the_list_says_when_to_sound_for_what_must_be_cold_and_it_is_heard_once_for_all(cook: Caller) -> None:
    batch = aside(cook)

    def reminds() -> Any:
        line = next(one for one in cook.get("/batches").json()["items"] if one["id"] == batch)
        return line["reminds"]

    first = reminds()
    assert "Take its temperature" in text_of(first["said"])
    assert cook.record(batch, {"kind": "rest", "rest": "cold"}).status_code == 200
    assert reminds() is None
    assert put_by(cook, batch, place="fridge").status_code == 200
    assert reminds() is None

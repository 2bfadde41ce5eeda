"""What is remembered of a batch: how it was, what comes back next time, mended entries, and batches put away."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any
from urllib.parse import quote
from uuid import uuid4
from zoneinfo import ZoneInfo

import pytest
from batches.finding import found_by
from batches.models import Batch
from django.db import connection
from makers import text_of

from .conftest import Caller, person
from .test_batches import field_errors
from .test_shelf import aside, begin_with, put_by, shelf


def noted(cook: Caller, batch: str, text: str, moment: str) -> str:
    note = str(uuid4())
    said = {"kind": "next_time", "note": note, "text": text, "moment": moment}
    assert cook.record(batch, said).status_code == 200
    return note


def last_time(cook: Caller, batch: str) -> list[tuple[str, str]]:
    return [(one["text"], one["stage"]) for one in cook.get(f"/batches/{batch}/last-time").json()]


def test_a_note_comes_back_at_its_moment_when_a_dish_of_that_name_is_made_again(cook: Caller) -> None:
    first = cook.start("Goat with orange")["id"]
    note = noted(cook, first, "Ten minutes longer.", "stop")
    noted(cook, first, "Less orange.", "salt")
    assert last_time(cook, cook.start("Shin in stout")["id"]) == []
    second = cook.start("goat with Orange")["id"]
    assert sorted(last_time(cook, second)) == [("Less orange.", "season"), ("Ten minutes longer.", "reduce")]
    # Kept it is gone from this batch, and comes back in the next; minded it comes back in none.
    assert cook.record(second, {"kind": "minded", "note": note, "keep": True}).status_code == 200
    assert last_time(cook, second) == [("Less orange.", "season")]
    third = cook.start("Goat with orange")["id"]
    assert len(last_time(cook, third)) == 2
    assert cook.record(third, {"kind": "minded", "note": note}).status_code == 200
    assert last_time(cook, third) == [("Less orange.", "season")]
    assert last_time(cook, cook.start("Goat with orange")["id"]) == [("Less orange.", "season")]


def test_another_kitchens_notes_are_its_own(cook: Caller, neighbour: Caller) -> None:
    noted(cook, cook.start("Goat")["id"], "Ten minutes longer.", "stop")
    assert last_time(neighbour, neighbour.start("Goat")["id"]) == []


def test_how_it_was_stands_in_the_list(cook: Caller) -> None:
    batch = cook.start()["id"]
    for points in (2, 4):
        assert cook.record(batch, {"kind": "rated", "points": points, "ate": 6}).status_code == 200
    line = next(one for one in cook.get("/batches").json()["items"] if one["id"] == batch)
    assert (line["points"], line["how"]) == (4, "very good")
    assert cook.record(batch, {"kind": "rated", "points": 6}).status_code == 422


def test_an_entrys_amount_is_mended_and_both_stay_in_the_log(cook: Caller) -> None:
    batch, entry = cook.start()["id"], str(uuid4())
    salty = cook.record(batch, {"kind": "salted", "salt_g": 20}, id=entry).json()["pot"]["salt"]["best"]
    refused = cook.record(batch, {"kind": "meant", "event": entry, "amount": "a wish"})
    assert refused.status_code == 422
    assert set(field_errors(refused)) == {"amount"}
    mended = cook.record(batch, {"kind": "meant", "event": entry, "amount": "2 g"}).json()
    assert mended["pot"]["salt"]["best"] < salty - 1.0
    log = {one["kind"]: text_of(one["text"]) for one in mended["log"]}
    assert "2.0" in log["salted"]
    assert "2 g" in log["meant"]
    shown = next(one for one in mended["log"] if one["id"] == entry)
    assert shown["how_much"]["value"] == pytest.approx(2.0)


def test_a_mending_that_would_leave_its_entry_out_is_refused(cook: Caller) -> None:
    batch, entry = cook.start()["id"], str(uuid4())
    taken = {"kind": "parted", "volume_ml": 300, "purpose": "aside", "how": "under"}
    assert cook.record(batch, taken, id=entry).status_code == 200
    refused = cook.record(batch, {"kind": "meant", "event": entry, "amount": "40 l"})
    assert refused.status_code == 422
    assert set(field_errors(refused)) == {"amount"}


def listed(cook: Caller, *, away: bool = False) -> set[str]:
    return {one["id"] for one in cook.get(f"/batches?away={str(away).lower()}").json()["items"]}


def test_a_batch_is_renamed_put_away_brought_back_and_deleted_by_its_owner(cook: Caller) -> None:
    batch = cook.start()["id"]
    path = f"/batches/{batch}"
    assert cook.send(path, {"name": "  Shin, the second  "}, "patch").json()["name"] == "Shin, the second"
    assert cook.send(path, {"name": " "}, "patch").status_code == 422
    cook.send(path, {"away": True}, "patch")
    assert batch not in listed(cook)
    assert batch in listed(cook, away=True)
    cook.send(path, {"away": False}, "patch")
    assert batch in listed(cook)
    hand = person("second hand", cook.member().kitchen, "cook")
    assert hand.client.delete(f"/api/v1{path}").status_code == 403
    assert cook.client.delete(f"/api/v1{path}").status_code == 204
    assert cook.get(path).status_code == 404


def test_what_was_poured_out_of_a_deleted_batch_stays_where_it_is(cook: Caller) -> None:
    kept, other, entry = aside(cook), cook.start()["id"], str(uuid4())
    assert put_by(cook, kept).status_code == 200
    jar = shelf(cook)[0]
    said: dict[str, Any] = {"kind": "poured_in", "batch": jar["batch"], "jar": jar["id"], "volume_ml": 200}
    before = cook.record(other, said, id=entry).json()["pot"]["liquid"]["value"]
    assert cook.client.delete(f"/api/v1/batches/{kept}").status_code == 204
    assert cook.get(f"/batches/{other}").json()["pot"]["liquid"]["value"] == before
    # Taken back it goes nowhere: its shelf is no more.
    assert cook.record(other, {"kind": "struck", "event": entry}).status_code == 200


def test_what_is_on_the_heat_is_not_put_away(cook: Caller) -> None:
    """Its alarm would be heard by nobody."""
    batch = cook.start()["id"]
    cook.record(batch, {"kind": "heated", "heat": "boil"})
    assert set(field_errors(cook.send(f"/batches/{batch}", {"away": True}, "patch"))) == {"away"}
    cook.record(batch, {"kind": "heated", "heat": "off"})
    assert cook.send(f"/batches/{batch}", {"away": True}, "patch").status_code == 200


def test_a_batch_that_began_with_what_was_deleted_since_can_still_be_told_again(cook: Caller) -> None:
    kept = aside(cook)
    assert put_by(cook, kept).status_code == 200
    jar = shelf(cook)[0]
    batch = begin_with(cook, jar, jar["volume"]["value"]).json()
    assert cook.client.delete(f"/api/v1/batches/{kept}").status_code == 204
    again = cook.start_body() | {"liquid": batch["start"]["liquid"] | {"salt": {"by": "meter", "percent": 0.7}}}
    told = cook.record(batch["id"], again)
    assert told.status_code == 200, told.content
    assert told.json()["pot"]["salt"]["best"] == pytest.approx(0.7, rel=0.01)


def found(cook: Caller, text: str) -> list[str]:
    return [one["name"] for one in cook.get(f"/batches?q={quote(text)}").json()["items"]]


def test_a_batch_is_found_by_its_dish_what_went_in_what_was_noted_and_how_it_was(
    cook: Caller, neighbour: Caller
) -> None:
    goat, shin = cook.start("Goat shoulder with orange")["id"], cook.start("Shin in stout")["id"]
    neighbour.start("Goat of the neighbours")
    cook.record(shin, {"kind": "added", "ingredient": "cream_heavy", "amount": "50 ml"})
    cook.record(goat, {"kind": "noted", "text": "Crème fraîche would have been better; 100 % sure"})
    cook.record(goat, {"kind": "rated", "points": 5})
    for text in ("goat", "ORAN", "shoulder goat", "crème better", "the best yet", "100"):
        assert found(cook, text) == ["Goat shoulder with orange"], text
    assert found(cook, "cream") == ["Shin in stout"]
    # Every word has to stand in it; signs are no words, whatever they are to a database.
    assert found(cook, "goat stout") == []
    for odd in ("&", "goat & | ! <->", "'; drop table batches; --", ":*", "(((", "\\", "%"):
        assert cook.get(f"/batches?q={quote(odd)}").status_code == 200, odd
    cook.send(f"/batches/{shin}", {"name": "Oxtail"}, "patch")
    assert found(cook, "oxtail") == ["Oxtail"]
    cook.send(f"/batches/{shin}", {"away": True}, "patch")
    assert found(cook, "oxtail") == []
    assert cook.get(f"/batches?q={'x' * 300}").status_code == 422


def test_the_story_of_a_batch_is_told_once_it_is_finished(cook: Caller) -> None:
    batch = cook.start()["id"]
    for said in (
        {"kind": "wanted", "volume_ml": 700, "body": 2, "salt_percent": 0.9, "ceiling_percent": 1.3},
        {"kind": "chosen", "route": "all-volume-corn_starch_own"},
    ):
        assert cook.record(batch, said).status_code == 200
    assert cook.get(f"/batches/{batch}/story").json() is None
    for said in (
        {"kind": "read", "measured": {"method": "jug", "value": "800 ml", "hot": True}},
        {"kind": "salted", "salt_g": "3 g"},
        {"kind": "finished"},
    ):
        assert cook.record(batch, said).status_code == 200
    told = cook.get(f"/batches/{batch}/story").json()
    assert [one["what"] for one in told["figures"]] == ["volume", "body", "salt", "strength", "time"]
    assert told["happened"][0]["ml"] == pytest.approx(told["foreseen"][0]["ml"], rel=0.01)
    assert any("salt" in text_of(one["what"]) for one in told["because"])


#: When ten thousand batches began.
AT = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)


def test_a_batch_is_found_by_its_day_in_the_kitchens_own_clock(cook: Caller) -> None:
    cook.send("/kitchen", {"time_zone": "Pacific/Auckland"}, "patch")
    begun = datetime.fromisoformat(cook.start("Tail of today")["created_at"]).astimezone(ZoneInfo("Pacific/Auckland"))
    for q in (f"{begun:%Y-%m-%d}", f"{begun:%B}", f"tail {begun:%A}", f"{begun.day} {begun:%b}"):
        assert found(cook, q) == ["Tail of today"], q
    assert found(cook, f"{begun.year + 1}-{begun.month:02}") == []


def test_no_text_is_read_to_find_a_word_however_many_batches_there_are(cook: Caller) -> None:
    """Ten thousand batches: PostgreSQL's own plan tells what is read, and no clock decides."""
    kitchen = cook.member().kitchen
    Batch.objects.bulk_create(
        Batch(id=uuid4(), kitchen=kitchen, name=f"Shin {n}", created_at=AT, words=f"pan stock w{n}", last_seq=1)
        for n in range(10_000)
    )
    with connection.cursor() as cursor:
        cursor.execute("ANALYZE batches_batch")
    for q, many in (("w4711", 1), ("stock", 30)):
        sought = found_by(Batch.objects.filter(kitchen=kitchen), q)[:30]
        assert "to_tsvector" not in sought.explain()
        assert len(sought) == many

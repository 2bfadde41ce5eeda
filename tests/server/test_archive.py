"""A kitchen leaves and returns whole: its file is what it was, taken in once, and never another kitchen's."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any
from uuid import uuid4

import jsonschema_rs
import pytest
from archive.document import MOST_BYTES, VERSION, read, schema
from asgiref.sync import async_to_sync
from batches.models import Batch, Event
from batches.services import Board, log_of, present
from django.apps import apps
from django.db.models import Model
from kitchens.models import Kitchen, LearnedRate, TaughtLiking
from makers import refused
from running import ROOT
from shared.leaving import LEAVES, STAYS
from spissus_core import events as ev
from spissus_core.errors import SpissusError

from .conftest import Caller, person
from .test_batches import field_errors


def file_of(cook: Caller) -> dict[str, Any]:
    answer = cook.get("/kitchen/file")
    assert answer.status_code == 200, answer.content

    async def whole() -> bytes:
        return b"".join([piece async for piece in answer.streaming_content])

    return json.loads(async_to_sync(whole)())  # type: ignore[no-any-return]


def bring(cook: Caller, file: Any, path: str = "/files") -> Any:
    return cook.send(path, file)


ROUX = {"name": "house roux", "text": "500 g flour\n500 g butter", "goes_in": "roux"}


def full(cook: Caller) -> str:
    """A kitchen with something in every part of its file; a batch of it."""
    cook.send("/larder", {"name": "house stock", "like": "beef_stock_own"})
    mixture = cook.send("/mixtures", ROUX).json()["key"]
    cook.send("/kitchen", {"altitude_m": 600, "time_zone": "Europe/Lisbon"}, "patch")
    batch = cook.start()["id"]
    device = cook.send("/devices", {"name": "scale", "kind": "scale"}).json()
    cook.send(f"/devices/{device['id']}/batch", {"batch_id": batch}, "put")
    at = cook.get(f"/batches/{batch}").json()["created_at"]
    readings = {"readings": [{"at": at, "value": 3000 + n} for n in range(3)]}
    posted = cook.client.post(
        "/api/v1/device/readings",
        json.dumps(readings),
        content_type="application/json",
        HTTP_AUTHORIZATION=f"Bearer {device['token']}",
    )
    assert posted.status_code in (200, 204), posted.content
    for said in (
        {"kind": "wanted", "volume_ml": 900},
        {"kind": "chosen", "route": "all-here-own", "thickener": mixture},
        {"kind": "thickened", "thickener": mixture, "dry_g": "20 g"},
        {"kind": "salted", "salt_g": "2 g"},
        {"kind": "noted", "text": '=1+1 "and" <b>'},
        {"kind": "finished"},
    ):
        assert cook.record(batch, said).status_code == 200
    cook.send("/house-dishes", {"id": str(uuid4()), "batch_id": batch, "name": "Shin", "people": 4})
    return str(batch)


def away(cook: Caller) -> None:
    """The kitchen is gone from this place."""
    Kitchen.objects.all().delete()
    assert Batch.objects.count() == 0


def test_a_kitchen_that_left_comes_back_as_it_was(cook: Caller) -> None:
    batch = full(cook)
    shown = cook.get(f"/batches/{batch}").json()
    file = file_of(cook)
    away(cook)
    again = person("somebody")
    looked = bring(again, file, "/files/look").json()
    assert looked["batches"] == ["Shin in stout"]
    assert looked["refused"] == []
    assert Batch.objects.count() == 0
    assert bring(again, file).json()["taken"] is not None
    back = file_of(again)
    # Nobody of that name works here, and a new kitchen has pans of its own already.
    theirs = {pan["id"] for pan in file["pans"]}
    for event in [event for one in file["batches"] for event in one["events"]]:
        event["author"] = None
    for version in file["dish_versions"]:
        version["author"] = None
    assert [pan for pan in back["pans"] if pan["id"] in theirs] == file["pans"]
    for part in file.keys() - {"pans", "burners", "kitchen"}:
        assert back[part] == file[part], part
    assert back["kitchen"] | {"name": ""} == file["kitchen"] | {"name": ""}
    after = again.get(f"/batches/{batch}").json()
    assert after["pot"] == shown["pot"]
    assert [entry["text"] for entry in after["log"]] == [entry["text"] for entry in shown["log"]]


def test_a_second_time_changes_nothing_and_what_was_brought_in_goes_out_again(cook: Caller) -> None:
    batch = full(cook)
    file = file_of(cook)
    assert bring(cook, file).json() | {"parts": []} == {
        "parts": [],
        "batches": [],
        "refused": [],
        "anything": False,
        "taken": None,
    }
    away(cook)
    again = person("somebody")
    before = file_of(again)
    taken = bring(again, file).json()["taken"]
    assert again.send(f"/files/{taken}", None, "delete").json() == {"stays": []}
    assert file_of(again) | {"kitchen": {}} == before | {"kitchen": {}}
    taken = bring(again, file).json()["taken"]
    assert again.record(batch, {"kind": "noted", "text": "it goes on"}).status_code == 200
    stays = again.send(f"/files/{taken}", None, "delete").json()["stays"]
    assert "has gone on since" in str(stays)
    assert Batch.objects.count() == 1


def test_another_kitchens_rows_are_never_touched(cook: Caller, neighbour: Caller) -> None:
    full(cook)
    file = file_of(cook)
    before = json.dumps(file)
    file["batches"][0]["name"] = "Mine now"
    looked = bring(neighbour, file).json()
    assert looked["batches"] == []
    assert "another kitchen" in str(looked["refused"])
    assert json.dumps(file_of(cook)) == before
    # Nor through a new batch with entries of theirs.
    file["batches"][0]["id"] = str(uuid4())
    assert "another batch" in str(bring(neighbour, file | {"devices": []}).json()["refused"])


def test_a_batch_has_a_file_of_its_own(cook: Caller) -> None:
    batch = full(cook)
    answer = cook.get(f"/batches/{batch}/file")
    alone = json.loads(answer.content)
    assert alone["batch"] == file_of(cook)["batches"][0]
    jsonschema_rs.validate(schema("batch"), alone)
    away(cook)
    again = person("somebody")
    assert bring(again, alone).json()["batches"] == ["Shin in stout"]
    # Its devices stayed where they were, and so did what they read.
    assert json.loads(again.get(f"/batches/{batch}/file").content)["batch"]["readings"] == []


def test_the_schema_is_published_and_every_file_keeps_to_it(cook: Caller) -> None:
    full(cook)
    file = file_of(cook)
    jsonschema_rs.validate(schema("kitchen"), file)
    assert not jsonschema_rs.is_valid(schema("kitchen"), file | {"more": 1})
    for of in ("kitchen", "batch"):
        kept = json.loads((ROOT / f"docs/schema/{of}-{VERSION}.json").read_text())
        assert kept == json.loads(json.dumps(schema(of))), f"./spissus api writes docs/schema/{of}-{VERSION}.json"  # type: ignore[arg-type]


def belongs(model: type[Model]) -> bool:
    """Whether a table is of a kitchen, or of one of its batches."""
    return any(field.related_model in (Kitchen, Batch) for field in model._meta.concrete_fields)


def test_every_table_of_a_kitchen_leaves_or_has_a_reason_to_stay() -> None:
    told = {leaves.model for leaves in LEAVES.values()} | STAYS.keys()
    assert {model for model in apps.get_models() if belongs(model)} == told
    for leaves in LEAVES.values():
        columns = {field.attname for field in leaves.model._meta.concrete_fields}
        written = {leaves.elsewhere.get(name, name).split("__")[0] for name in leaves.shape.model_fields}
        written |= {f"{name}_id" for name in written} & columns
        behind = columns - written - {"id", "kitchen_id", "batch_id"} - leaves.filled().keys()
        assert behind <= BEHIND.get(leaves.model.__name__, set()), leaves.model


#: Columns that are worked out again, or belong to the place.
BEHIND = {"Batch": {"last_seq", "summary", "words", "index"}, "Device": {"last_at", "last_value"}}


@pytest.mark.parametrize("kind", sorted(ev.KINDS))
def test_every_kind_of_event_leaves_and_comes_back(kind: str, cook: Caller) -> None:
    """As it stands in the golden file of events; whatever sense it makes in its batch."""
    versions = json.loads((ROOT / "tests/golden/events.json").read_text())
    payload = next(kinds[kind] for _, kinds in sorted(versions.items(), reverse=True) if kind in kinds)
    batch = Batch.objects.get(pk=cook.start()["id"])
    row = {"kind": kind, "version": ev.VERSION, "payload": {"kind": kind, **payload}, "at": batch.created_at}
    event = Event.objects.create(id=uuid4(), batch=batch, seq=2, **row)
    file = file_of(cook)
    away(cook)
    again = person("somebody")
    assert bring(again, file).status_code == 200
    kept = Event.objects.get(pk=event.pk)
    assert (kept.payload, kept.recorded_at, kept.seq) == (event.payload, event.recorded_at, 2)
    assert len(Board(log_of(Batch.objects.get()), present()).timeline.moments) == 2


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (b"", "cannot be read as JSON"),
        (b"[" * 100_000, "cannot be read as JSON"),
        (b'{"format": "spissus-kitchen", "version": 1, "batch', "cannot be read as JSON"),
        (b"[1, 2]", "no file of a kitchen"),
        (b'{"format": "recipes", "version": 1}', "no file of a kitchen"),
        (b'{"format": "spissus-kitchen", "version": 99}', "of version 99"),
        (b'{"format": "spissus-kitchen", "version": ' + b"9" * 30 + b"}", "no file of a kitchen"),
        (b'{"format": "spissus-kitchen", "version": 1, "kitchen": {"name": "\\u0000"}}', "no file of a kitchen"),
    ],
)
def test_what_is_no_file_of_ours_is_said_and_nothing_is_written(cook: Caller, text: bytes, said: str) -> None:
    before = file_of(cook)
    for path in ("/files/look", "/files"):
        answer = cook.client.post(f"/api/v1{path}", text, content_type="application/json")
        assert answer.status_code == 422
        assert said in str(field_errors(answer))
    assert file_of(cook) == before


def test_what_cannot_be_read_is_named_and_the_rest_is_taken(cook: Caller) -> None:
    full(cook)
    file = file_of(cook)
    away(cook)
    file["pans"][0]["spec"]["height_mm"] = "tall"
    file["batches"].append({"name": "Torn", "id": "no id", "events": []})
    file["batches"].append(7)
    again = person("somebody")
    looked = bring(again, file).json()
    assert {one["name"] for one in looked["refused"]} >= {"Torn", "batches"}
    assert looked["batches"] == ["Shin in stout"]
    assert len(looked["refused"]) == 3


def test_a_newer_event_is_refused_with_everything(cook: Caller) -> None:
    full(cook)
    file = file_of(cook)
    away(cook)
    file["batches"][0]["events"][-1]["version"] = ev.VERSION + 1
    again = person("somebody")
    answer = bring(again, file)
    assert "Bring Spissus up to date" in str(field_errors(answer))
    assert Batch.objects.count() == 0


def test_a_file_larger_than_any_kitchen_is_refused() -> None:
    with refused(SpissusError, "32 MB"):
        read(b" " * (MOST_BYTES + 1))


def test_only_who_owns_a_kitchen_takes_it_away_or_brings_something_in(cook: Caller) -> None:
    hand = person("hand", Kitchen.objects.get(), "cook")
    assert hand.get("/kitchen/file").status_code == 403
    assert bring(hand, {}).status_code == 403


ARCHIVES = sorted((ROOT / "tests/golden/archives").glob("*.json"))


@pytest.mark.parametrize("path", ARCHIVES, ids=[path.stem for path in ARCHIVES])
def test_a_file_of_every_version_ever_written_is_read_back(path: Path, cook: Caller) -> None:
    """Written by that version, and never again."""
    file = json.loads(path.read_text(encoding="utf-8"))
    looked = bring(cook, file).json()
    assert looked["refused"] == []
    assert len(looked["batches"]) == len(file["batches"])
    for batch in file["batches"]:
        shown = cook.get(f"/batches/{batch['id']}").json()
        assert shown["missing"] == []
        assert len(shown["log"]) == len(batch["events"])
    dishes = cook.get("/house-dishes").json()
    assert [dish["readable"] for dish in dishes] == [True for _ in file.get("house_dishes", [])]


def test_there_is_a_golden_file_of_this_version() -> None:
    assert f"kitchen-{VERSION}" in {path.stem for path in ARCHIVES}


def spoil(part: str, **other: Any) -> Any:
    def spoiled(file: dict[str, Any]) -> None:
        row = file["kitchen"] if part == "kitchen" else file[part][0]
        row |= other

    return spoiled


def entry(**other: Any) -> Any:
    def spoiled(file: dict[str, Any]) -> None:
        file["batches"][0]["events"][0]["payload"] |= other

    return spoiled


@pytest.mark.parametrize(
    "spoiled",
    [
        spoil("rates", net_kw=-1.0),
        spoil("likings", error=0.0),
        spoil("kitchen", time_zone="Nowhere/At all"),
        spoil("kitchen", altitude_m=1e6),
        spoil("kitchen", limits={"place": "atlantis", "starts_c": 57, "cooled": [{"celsius": 5, "minutes": 9}]}),
        spoil("devices", kind="radar"),
        entry(salt_g=1e300),
        entry(salt_g=10**400),
        lambda file: file.update(larder={"a": 1}),
        spoil("dish_versions", people=10**6),
        spoil("dish_versions", entries=[{"kind": "started", "x": 1e300}]),
        entry(text="x" * 300_000),
    ],
)
def test_what_no_kitchen_holds_is_not_taken(spoiled: Any, cook: Caller) -> None:
    """Each would have been refused by the door through which it comes usually."""
    batch = full(cook)
    kitchen = cook.member().kitchen
    LearnedRate.objects.get_or_create(
        kitchen=kitchen, batch=batch, defaults={"pan": "x", "burner": "y", "heat": "boil", "net_kw": 1, "spread": 0.1}
    )
    TaughtLiking.objects.get_or_create(kitchen=kitchen, batch=batch, of="salt", defaults={"value": 0.9, "error": 0.1})
    file = file_of(cook)
    away(cook)
    spoiled(file)
    again = person("somebody")
    looked = bring(again, file)
    assert looked.status_code == 200
    assert len(looked.json()["refused"]) == 1
    assert again.get("/kitchen").status_code == 200


def test_limits_that_are_laxer_than_the_law_are_not_brought_in(cook: Caller) -> None:
    cook.send("/kitchen", {"limits": {"place": "us", "hold_c": 63}}, "patch")
    file = file_of(cook)
    away(cook)
    file["kitchen"]["limits"]["hold_c"] = 40.0
    looked = bring(person("somebody"), file).json()
    assert "kitchen" in str(looked["refused"])
    assert Kitchen.objects.get().limits is None

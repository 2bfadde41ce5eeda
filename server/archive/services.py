"""Bringing a kitchen's file in: what is new, what is there, what cannot be read; taken in whole, and out again."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Any
from uuid import UUID

from batches.leaving import settle
from django.db import DataError, IntegrityError, transaction
from django.http import Http404
from kitchens.services import Member, people_of, said_of, settle_kitchen
from live.services import announce
from shared.leaving import LEAVES, Leaves, Row
from spissus_core.errors import SpissusError
from spissus_core.messages import Message, say

from .document import Brought, KitchenRow, Whole, batch_file, parts, read, written
from .models import Taken


class Looked:
    """What of a file is new to a kitchen, what is there already, and what is not taken, with the reason."""

    def __init__(self, member: Member, brought: Brought) -> None:
        self.kitchen = brought.kitchen
        self.new: dict[str, list[Row]] = {}
        self.there: dict[str, int] = {}
        self.refused = list(brought.unreadable)
        self.batches: list[Whole] = []
        for name, rows in brought.rows.items():
            self.new[name] = self._sorted(member, name, LEAVES[name], rows)
        wholes = {whole.batch.id: whole for whole in brought.batches}  # type: ignore[attr-defined]
        heads = self._sorted(member, "batches", LEAVES["batches"], [whole.batch for whole in wholes.values()])
        devices = {row.id for row in brought.rows.get("devices", [])}  # type: ignore[attr-defined]
        for row in heads:
            self._batch(member, wholes[row.id], devices)  # type: ignore[attr-defined]

    def _sorted(self, member: Member, name: str, leaves: Leaves, rows: list[Row]) -> list[Row]:
        """Those that are new; what another kitchen here has is not taken."""
        known, new = leaves.there(rows), {}
        for row in rows:
            key = leaves.key_of(row)
            if key not in known:
                new[key] = row
            elif known[key] == member.kitchen.pk:
                self.there[name] = self.there.get(name, 0) + 1
            else:
                self.refused.append((str(getattr(row, "name", name)), say("archive.of_another")))
        return list(new.values())

    def _batch(self, member: Member, whole: Whole, devices: set[UUID]) -> None:
        events = whole.parts["events"]
        numbers = {event.seq for event in events}  # type: ignore[attr-defined]
        ids = {event.id for event in events}  # type: ignore[attr-defined]
        read_by = {reading.device_id for reading in whole.parts["readings"]}  # type: ignore[attr-defined]
        if LEAVES["events"].there(events) or not len(numbers) == len(ids) == len(events):
            self.refused.append((whole.batch.name, say("archive.entry_of_another")))  # type: ignore[attr-defined]
        elif read_by - devices - LEAVES["devices"].known(read_by, member.kitchen.pk):
            # Its file was made of a whole kitchen, and is not one any more: the devices are nobody's.
            kept = {**whole.parts, "readings": []}
            self.batches.append(Whole(whole.batch, kept))
        else:
            self.batches.append(whole)

    @property
    def anything(self) -> bool:
        """Whether anything of it is new."""
        return bool(self.batches) or any(self.new.values())


def file_of(member: Member) -> Iterator[str]:
    """The kitchen's file, piece by piece. Raises RefusedError for whoever does not own the kitchen."""
    member.require_owner()
    return written(KitchenRow.read(said_of(member.kitchen)), member.kitchen.pk)


def batch_file_of(member: Member, batch_id: UUID) -> str:
    """The file of one batch. Raises Http404 for anyone else's."""
    leaves = LEAVES["batches"]
    found = next((row for row in leaves.written(member.kitchen.pk, id=batch_id)), None)
    if found is None:
        raise Http404
    return batch_file(found)


def look(member: Member, text: bytes) -> Looked:
    """What would come of a file; nothing is taken. Raises SpissusError for what is no file of ours."""
    member.require_owner()
    return Looked(member, read(text))


@transaction.atomic
def take(member: Member, text: bytes) -> tuple[Taken | None, Looked]:
    """Take in what is new in a file: all of it, or nothing. None where nothing is new.

    Raises
    ------
    SpissusError : it is no file of ours, or a batch of it cannot be worked out.
    """
    looked = look(member, text)
    if not looked.anything:
        return None, looked
    people = people_of(member.kitchen)
    made: dict[str, list[Any]] = {}
    try:
        for name, rows in looked.new.items():
            made[name] = _put(name, rows, member.kitchen.pk, people)
        made["batches"] = [_put_batch(member, whole, people) for whole in looked.batches]
    except IntegrityError:
        raise SpissusError("file", say("archive.twice")) from None
    except DataError:
        raise SpissusError("file", say("archive.not_ours")) from None
    if looked.kitchen is not None:
        settle_kitchen(member.kitchen, looked.kitchen.model_dump(mode="json"))
    told = {name: [[str(key), *more] for key, *more in _keyed(name, keys)] for name, keys in made.items() if keys}
    taken = Taken.objects.create(kitchen=member.kitchen, by=member.user, rows=told)
    for batch_id in made["batches"]:
        announce(member.kitchen.pk, batch_id, 0)
    return taken, looked


def _put(name: str, rows: Iterable[Row], owner: UUID, people: Mapping[str, int]) -> list[Any]:
    """Create them, by whom they were written where somebody of that name works here. Returns their keys."""
    leaves = LEAVES[name]
    if not leaves.elsewhere:
        return leaves.put(rows, owner)
    by_author: dict[int | None, list[Row]] = {}
    for row in rows:
        by_author.setdefault(people.get(getattr(row, "author", None) or ""), []).append(row)
    return [key for author, some in by_author.items() for key in leaves.put(some, owner, {"author_id": author})]


def _put_batch(member: Member, whole: Whole, people: Mapping[str, int]) -> UUID:
    batch_id: UUID = LEAVES["batches"].put([whole.batch], member.kitchen.pk)[0]
    for name in parts("batch"):
        _put(name, whole.parts[name], batch_id, people)
    settle(batch_id)
    return batch_id


def _keyed(name: str, keys: list[Any]) -> list[tuple[Any, ...]]:
    """The keys, and of a batch how far it had come, so that it is known whether it went on."""
    if name != "batches":
        return [(key,) for key in keys]
    rows = LEAVES[name].model._default_manager.filter(pk__in=keys)
    return list(rows.values_list("pk", "last_seq"))


@transaction.atomic
def take_out(member: Member, taken_id: UUID) -> list[Message]:
    """Take out again what a file brought in. What went on since stays, and is told.

    Raises
    ------
    Http404 : nothing of that id was taken in here.
    """
    member.require_owner()
    taken = Taken.objects.select_for_update().filter(kitchen=member.kitchen, pk=taken_id).first()
    if taken is None:
        raise Http404
    stays: list[Message] = []
    # Batches before the devices that read them.
    for name, keys in sorted(taken.rows.items(), key=lambda one: one[0] != "batches"):
        model = LEAVES[name].model._default_manager
        for key, *more in keys:
            row: Any = model.filter(pk=key, kitchen=member.kitchen).first()
            if row is None:
                continue
            if more and row.last_seq != more[0]:
                stays.append(say("archive.gone_on", name=row.name))
            elif name != "devices" or not row.kept.exists():
                row.delete()
    taken.delete()
    announce(member.kitchen.pk, taken_id, 0)
    return stays

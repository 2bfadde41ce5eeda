"""Recording events, and reading a batch back from them."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from devices.services import events_of
from django.db import IntegrityError, transaction
from django.http import Http404
from kitchens.services import Member, learn, unlearn
from live.services import announce
from ninja.errors import HttpError
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.fold import Timeline, fold, struck_ids
from spissus_core.guidance import next_act
from spissus_core.journey import stage_of, tone
from spissus_core.learning import taught_rate
from spissus_core.routes import check_amount

from .models import Batch, Event

#: More than any pot needs, less than would slow its page.
MOST_EVENTS = 5000


def batch_of(member: Member, batch_id: UUID) -> Batch:
    """A batch of the member's kitchen. Raises Http404 for anyone else's."""
    batch = Batch.objects.filter(kitchen=member.kitchen, pk=batch_id).first()
    if batch is None:
        raise Http404
    return batch


def batches_named(member: Member, name: str) -> list[Batch]:
    """The member's batches of that name, the newest first."""
    return list(Batch.objects.filter(kitchen=member.kitchen, name=name))


def log_of(batch: Batch) -> list[ev.Event]:
    """What happened to a batch: its events by number, and what devices read of it."""
    return [*recorded(batch), *events_of(batch.pk)]


def recorded(batch: Batch) -> list[ev.Event]:
    """The events of a batch, by number."""
    rows = batch.events.order_by("seq").values_list("id", "seq", "at", "payload")
    return [
        ev.Event.model_construct(id=id_, seq=seq, at=at, payload=ev.payload_adapter.validate_python(payload))
        for id_, seq, at, payload in rows
    ]


@transaction.atomic
def start_batch(
    member: Member, batch_id: UUID, name: str, *, event_id: UUID, at: datetime, started: ev.Started
) -> Batch:
    """A new batch with its first event. The same ids again change nothing.

    Raises
    ------
    SpissusError : the measurement does not fit the pan.
    HttpError : 409 if the id belongs to another batch.
    """
    member.require_cook()
    existing = Batch.objects.filter(pk=batch_id).first()
    if existing is not None:
        if existing.kitchen_id != member.kitchen.pk:
            raise HttpError(409, "This batch exists already. Start again.")
        return existing
    batch = Batch.objects.create(id=batch_id, kitchen=member.kitchen, name=name, created_at=at)
    append(member, batch_id, event_id=event_id, at=at, payload=started)
    batch.refresh_from_db()
    return batch


@transaction.atomic
def append(member: Member, batch_id: UUID, *, event_id: UUID, at: datetime, payload: ev.Payload) -> Timeline:
    """Record one event and return the batch as it stands with it.

    The client makes the event's id, so that sending it twice records it once. Events that arrive at
    the same moment are put in order under a lock on the batch.

    Raises
    ------
    SpissusError : the event does not fit what is in the pot; nothing is recorded.
    Http404 : the batch is not the member's.
    HttpError : 409 if the id belongs to an event of another batch.
    """
    member.require_cook()
    batch = Batch.objects.select_for_update().filter(kitchen=member.kitchen, pk=batch_id).first()
    if batch is None:
        raise Http404
    log = log_of(batch)
    if any(event.id == event_id for event in log):
        return fold(log)
    if batch.last_seq >= MOST_EVENTS:
        raise HttpError(422, "This batch is full. Finish it and start another.")
    event = ev.Event(id=event_id, seq=batch.last_seq + 1, at=at, payload=payload)
    _check(log, event)
    timeline = fold([*log, event])
    moment = next(m for m in timeline.moments if m.event.id == event_id)
    if moment.problem is not None:
        raise moment.problem
    try:
        with transaction.atomic():
            Event.objects.create(
                id=event_id, batch=batch, seq=event.seq, at=at, kind=payload.kind,
                payload=payload.model_dump(mode="json"), author=member.user,
            )  # fmt: skip
    except IntegrityError:
        raise HttpError(409, "This entry belongs to another batch.") from None
    _learn(member, batch, timeline, payload)
    batch.last_seq = event.seq
    batch.summary = summarised(timeline)
    batch.save(update_fields=["last_seq", "summary"])
    announce(batch.kitchen_id, batch.id, event.seq)
    return timeline


def _learn(member: Member, batch: Batch, timeline: Timeline, payload: ev.Payload) -> None:
    """Keep the rate of a finished batch for the next one in the same pan; forget it if it goes on after all."""
    if not isinstance(payload, ev.Finished | ev.Struck):
        return
    taught = taught_rate(timeline) if timeline.finished is not None else None
    if taught is None or timeline.pot is None:
        unlearn(batch.id)
        return
    pot = timeline.pot
    learn(member.kitchen, batch.id, pot.pan.name, pot.burner.name, taught)


def forget_untouched(member: Member, name: str, *, events: int) -> bool:
    """Remove the batches of that name that hold no more than ``events`` events.

    For the demo only. Returns whether none of that name is left.
    """
    named = Batch.objects.filter(kitchen=member.kitchen, kitchen__is_demo=True, name=name)
    named.filter(last_seq__lte=events).delete()
    return not named.exists()


def _check(log: list[ev.Event], event: ev.Event) -> None:
    """Refuse an event that makes no sense after ``log``."""
    payload = event.payload
    before = fold(log)
    if isinstance(payload, ev.Struck):
        _check_strike(log, payload)
    elif isinstance(payload, ev.Started):
        return
    elif before.pot is None:
        raise SpissusError("kind", "Say first what is in the pot.")
    elif isinstance(payload, ev.Wanted):
        check_amount(before.pot, payload, before.wanted)
    elif isinstance(payload, ev.Chosen | ev.Finished) and before.wanted is None:
        raise SpissusError("kind", "Say first what sauce you want.")


def _check_strike(log: list[ev.Event], strike: ev.Struck) -> None:
    target = next((e for e in log if e.id == strike.event), None)
    if target is None:
        raise SpissusError("event", "There is no such entry in this batch.")
    struck = struck_ids(log)
    standing = [e for e in log if isinstance(e.payload, ev.Started) and e.id not in struck]
    if standing == [target]:
        raise SpissusError("event", "This is where the batch starts. Correct it instead of taking it back.")


def summarised(timeline: Timeline) -> dict[str, Any]:
    """What a list shows of a batch."""
    pot = timeline.pot
    if pot is None:
        return {}
    act = next_act(timeline)
    return {
        "stage": stage_of(act),
        "finished": timeline.finished is not None,
        "pan": pot.pan.name,
        "volume_ml": (timeline.finished and timeline.finished.yield_ml) or pot.contents.liquid_ml,
        "start_ml": (timeline.start or pot).contents.liquid_ml,
        "salt_percent": pot.salt_percent.best,
        "body": pot.body.step.word,
        "tone": tone(pot.contents),
        "look_at": act.look_at.isoformat() if act.look_at else None,
        "wanted_ml": timeline.wanted.amount_ml if timeline.wanted else None,
    }

"""Issuing devices, taking their readings, and handing them to the batch they were taken of."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid5

from django.db import transaction
from django.http import Http404
from kitchens.services import Member, did
from shared.prepared import prepared
from shared.refusals import RefusedError
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_plain
from spissus_core.errors import SpissusError
from spissus_core.estimation.thinning import stretch_of, thinned, too_many
from spissus_core.measuring.measurement import Measured
from spissus_core.messages import say

from .models import Device, Kept, Reading
from .signals import kept

#: More devices than any kitchen has; more readings than a device sends at once.
MOST_DEVICES, MOST_AT_ONCE = 40, 120
#: A reading older than this belongs to no pot that is still on the stove.
OLDEST = timedelta(hours=48)
#: Readings as they came are let go after this long: none of their time can come any more.
RAW_FOR = timedelta(hours=72)
#: A device's clock may run this far ahead.
AHEAD = timedelta(seconds=5)


def heard(tell: Callable[..., None]) -> Callable[..., None]:
    """Have ``tell(batch_id=…)`` called in the transaction that keeps a reading of a batch."""
    kept.connect(tell, weak=False)
    return tell


@dataclass(frozen=True, slots=True)
class Reads:
    """What a kind of device reads: its range, and how it is thinned."""

    unit: str
    low: float
    high: float
    every_s: float
    steady: float


READS = {
    Device.Kind.SCALE: Reads(unit="g", low=0.0, high=160_000.0, every_s=15.0, steady=12.0),
    Device.Kind.THERMOMETER: Reads(unit="°C", low=-40.0, high=300.0, every_s=60.0, steady=2.0),
    Device.Kind.SALT_METER: Reads(unit="%", low=0.0, high=30.0, every_s=60.0, steady=0.1),
}


def hashed(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


def issue(member: Member, name: str, kind: str, batch_id: UUID | None = None) -> tuple[Device, str]:
    """A new device and its token, which is shown once and never again."""
    member.require_cook()
    if Device.objects.filter(kitchen=member.kitchen, revoked=False).count() >= MOST_DEVICES:
        raise RefusedError(422, say("kitchen.devices_enough"))
    token = secrets.token_urlsafe(24)
    device = Device(kitchen=member.kitchen, name=name, kind=kind, token_hash=hashed(token))
    if batch_id is not None:
        device.batch_id = _own_batch(member, batch_id)
    device.save()
    did(member, say("deeds.device_added", name=name))
    return device, token


def device_of(member: Member, device_id: UUID) -> Device:
    """A device of the member's kitchen. Raises Http404 for anyone else's."""
    found = Device.objects.filter(kitchen=member.kitchen, pk=device_id, revoked=False).first()
    if found is None:
        raise Http404
    return found


def devices_of(member: Member) -> list[Device]:
    """The kitchen's devices, the oldest first."""
    return list(Device.objects.filter(kitchen=member.kitchen, revoked=False))


def assign(member: Member, device_id: UUID, batch_id: UUID | None) -> Device:
    """Let a device read for a batch, or for none."""
    member.require_cook()
    device = device_of(member, device_id)
    device.batch_id = None if batch_id is None else _own_batch(member, batch_id)
    device.save(update_fields=["batch"])
    return device


def revoke(member: Member, device_id: UUID) -> None:
    """Take a device away; its token is worth nothing from now on, what it read stays."""
    member.require_cook()
    device = device_of(member, device_id)
    device.revoked, device.batch = True, None
    device.save(update_fields=["revoked", "batch"])
    did(member, say("deeds.device_removed", name=device.name))


def _own_batch(member: Member, batch_id: UUID) -> UUID:
    batches = Device._meta.get_field("batch").related_model
    assert not isinstance(batches, str)
    if not batches._default_manager.filter(pk=batch_id, kitchen=member.kitchen).exists():
        raise Http404
    return batch_id


@transaction.atomic
def take(device_id: UUID, readings: Sequence[tuple[datetime, float]]) -> int:
    """Keep readings of a device; those it sent before are passed over. Returns how many were new.

    Where they change what the batch is worked out from, whoever shows it is told.

    Raises
    ------
    SpissusError : out of range, or of another time.
    HttpError : 409 if it reads for no batch.
    """
    device = Device.objects.select_for_update().get(pk=device_id)
    now = datetime.now(UTC)
    reads = READS[Device.Kind(device.kind)]
    for i, (at, value) in enumerate(readings):
        if not reads.low <= value <= reads.high:
            raise SpissusError(
                f"readings.{i}.value",
                say("kitchen.reading_between", low=show_plain(reads.low), high=show_plain(reads.high, reads.unit)),
            )
        if not now - OLDEST <= at <= now + AHEAD:
            raise SpissusError(f"readings.{i}.at", say("kitchen.two_days"))
    if device.batch_id is None:
        raise RefusedError(409, say("kitchen.reads_for_no_batch"))
    came = {min(at, now): value for at, value in readings}
    known = set(device.readings.filter(at__in=came).values_list("at", flat=True))
    new = {at: value for at, value in came.items() if at not in known}
    Reading.objects.bulk_create(
        [Reading(device=device, batch_id=device.batch_id, at=at, value=value) for at, value in new.items()],
        ignore_conflicts=True,
    )
    newest = max(readings, default=None)
    if newest is not None and (device.last_at is None or newest[0] > device.last_at):
        device.last_at, device.last_value = newest
        device.save(update_fields=["last_at", "last_value"])
    if new and _thin(device, device.batch_id, sorted(at.timestamp() for at in new), reads):
        kept.send(Device, batch_id=device.batch_id)
    return len(new)


def _thin(device: Device, batch_id: UUID, seconds: Sequence[float], reads: Reads) -> bool:
    """Work out anew the stretches that readings at ``seconds`` belong to; whether any came or went."""
    # The pace of a device is that of a stretch and its neighbours: they hear of it too.
    touched = sorted({stretch_of(second, reads.every_s) + beside for second in seconds for beside in (-1, 0, 1)})
    before = {k.stretch: k for k in Kept.objects.filter(device=device, batch_id=batch_id, stretch__in=touched)}
    changed, stale, made = False, [], []
    for run in _runs(touched):
        rows = _raw(device, batch_id, (run[0] - 1) * reads.every_s, (run[-1] + 2) * reads.every_s)
        by_stretch: dict[int, list[tuple[float, float]]] = {}
        for second, value in rows:
            by_stretch.setdefault(stretch_of(second, reads.every_s), []).append((second, value))
        for stretch in run:
            near = [one for beside in (-1, 0, 1) for one in by_stretch.get(stretch + beside, ())]
            found = thinned(stretch, [t for t, _ in near], [v for _, v in near], reads.every_s, reads.steady)
            old = before.get(stretch)
            changed = changed or (found is None) != (old is None)
            if found is not None:
                at = datetime.fromtimestamp(found.second, UTC)
                row = Kept(device=device, batch_id=batch_id, stretch=stretch, at=at)
                row.value, row.count = found.value, found.count
                made.append(row)
            elif old is not None:
                stale.append(old.pk)
    Kept.objects.filter(pk__in=stale).delete()
    unique, update = ["batch", "device", "stretch"], ["at", "value", "count"]
    Kept.objects.bulk_create(made, update_conflicts=True, unique_fields=unique, update_fields=update)
    if changed:
        of_both = Kept.objects.filter(device=device, batch_id=batch_id)
        Kept.objects.filter(pk__in=too_many(list(of_both.order_by("at").values_list("pk", flat=True)))).delete()
    return changed


def _runs(numbers: Sequence[int]) -> Iterator[list[int]]:
    """Numbers that follow one another, together."""
    run: list[int] = []
    for number in numbers:
        if run and number > run[-1] + 1:
            yield run
            run = []
        run.append(number)
    if run:
        yield run


def _raw(device: Device, batch_id: UUID, since: float, until: float) -> list[tuple[float, float]]:
    """Readings as they came, by second, of a stretch of time."""
    begin, end = (datetime.fromtimestamp(second, UTC) for second in (since, until))
    rows = device.readings.filter(batch_id=batch_id, at__gte=begin, at__lt=end).values_list("at", "value")
    return [(at.timestamp(), value) for at, value in rows]


def let_raw_go(now: datetime) -> int:
    """Delete the readings as they came that no late reading can need any more. Returns how many."""
    return Reading.objects.filter(at__lt=now - RAW_FOR).delete()[0]


_kept = prepared(
    lambda batch: (
        Kept.objects.filter(batch_id=batch)
        .order_by("device_id", "at")
        .values_list("device_id", "device__kind", "device__name", "stretch", "at", "value")
    )
)


def events_of(batch_id: UUID) -> list[ev.Event]:
    """What devices read of a batch, thinned, as events that fall into their place in time."""
    return [
        ev.Event.model_construct(
            id=uuid5(device, str(stretch)), seq=0, at=at, payload=_payload(Device.Kind(kind), value), device=name
        )
        for device, kind, name, stretch, at, value in _kept(batch_id)
    ]


def _payload(kind: Device.Kind, value: float) -> ev.Kind:
    """A reading as the cook would have entered it."""
    if kind == Device.Kind.SCALE:
        measured = Measured.model_construct(method="scale", value=value, hot=True)
        return ev.Read.model_construct(kind="read", measured=measured, gain=None)
    if kind == Device.Kind.THERMOMETER:
        return ev.Probed.model_construct(kind="probed", celsius=value)
    return ev.Metered.model_construct(kind="metered", percent=value)

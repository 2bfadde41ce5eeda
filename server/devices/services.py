"""Issuing devices, taking their readings, and handing them to the batch they were taken of."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid5

from django.db import transaction
from django.http import Http404
from kitchens.services import Member
from live.services import announce
from ninja.errors import HttpError
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.measurement import Measured
from spissus_core.thinning import Thinned, thinned

from .models import Device, Reading

#: More devices than any kitchen has; more readings than a device sends at once, and in a minute.
MOST_DEVICES, MOST_AT_ONCE, MOST_A_MINUTE = 40, 120, 600
#: A reading older than this belongs to no pot that is still on the stove.
OLDEST = timedelta(hours=48)
#: A device's clock may run this far ahead.
AHEAD = timedelta(seconds=5)


@dataclass(frozen=True, slots=True)
class Reads:
    """What a kind of device reads: its range, and how it is thinned."""

    unit: str
    low: float
    high: float
    every_s: float
    steady: float


READS = {
    Device.Kind.SCALE: Reads("g", 0.0, 160_000.0, 15.0, 12.0),
    Device.Kind.THERMOMETER: Reads("°C", -40.0, 300.0, 60.0, 2.0),
    Device.Kind.SALT_METER: Reads("%", 0.0, 30.0, 60.0, 0.1),
}


def hashed(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


def issue(member: Member, name: str, kind: str, batch_id: UUID | None = None) -> tuple[Device, str]:
    """A new device and its token, which is shown once and never again."""
    member.require_cook()
    if Device.objects.filter(kitchen=member.kitchen, revoked=False).count() >= MOST_DEVICES:
        raise HttpError(422, "That many devices are enough; take one away first.")
    token = secrets.token_urlsafe(24)
    device = Device(kitchen=member.kitchen, name=name, kind=kind, token_hash=hashed(token))
    if batch_id is not None:
        device.batch_id = _own_batch(member, batch_id)
    device.save()
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


def _own_batch(member: Member, batch_id: UUID) -> UUID:
    batches = Device._meta.get_field("batch").related_model
    assert not isinstance(batches, str)
    if not batches._default_manager.filter(pk=batch_id, kitchen=member.kitchen).exists():
        raise Http404
    return batch_id


@transaction.atomic
def take(device_id: UUID, readings: Sequence[tuple[datetime, float]]) -> int:
    """Keep readings of a device; those it sent before are passed over. Returns how many were new.

    Raises
    ------
    SpissusError : out of range, or of another time.
    HttpError : 429 if it reads too fast, 409 if it reads for no batch.
    """
    device = Device.objects.select_for_update().get(pk=device_id)
    now = datetime.now(UTC)
    reads = READS[Device.Kind(device.kind)]
    for i, (at, value) in enumerate(readings):
        if not reads.low <= value <= reads.high:
            raise SpissusError(
                f"readings.{i}.value", f"A reading must lie between {reads.low:g} and {reads.high:g} {reads.unit}."
            )
        if at.tzinfo is None or not now - OLDEST <= at <= now + AHEAD:
            raise SpissusError(f"readings.{i}.at", "A time needs its zone, and must be of the last two days.")
    if device.batch_id is None:
        raise HttpError(409, "This device reads for no batch. Choose one on its page.")
    _limit(device, now, len(readings))
    rows = [Reading(device=device, batch_id=device.batch_id, at=min(at, now), value=value) for at, value in readings]
    before = device.readings.count()
    Reading.objects.bulk_create(rows, ignore_conflicts=True)
    newest = max(readings, default=None)
    if newest is not None and (device.last_at is None or newest[0] > device.last_at):
        device.last_at, device.last_value = newest
    device.save(update_fields=["last_at", "last_value", "window_began", "window_count"])
    announce(device.kitchen_id, device.batch_id)
    return device.readings.count() - before


def _limit(device: Device, now: datetime, count: int) -> None:
    if device.window_began is None or now - device.window_began > timedelta(minutes=1):
        device.window_began, device.window_count = now, 0
    device.window_count += count
    if device.window_count > MOST_A_MINUTE:
        raise HttpError(429, f"At most {MOST_A_MINUTE} readings a minute. Wait a little.")


def events_of(batch_id: UUID) -> list[ev.Event]:
    """What devices read of a batch, thinned, as events that fall into their place in time."""
    rows = Reading.objects.filter(batch_id=batch_id).order_by("device_id", "at")
    by_device: dict[tuple[UUID, str, str], list[tuple[float, float]]] = {}
    for device, kind, name, at, value in rows.values_list("device_id", "device__kind", "device__name", "at", "value"):
        by_device.setdefault((device, kind, name), []).append((at.timestamp(), value))
    out: list[ev.Event] = []
    for (device, kind, name), read in by_device.items():
        reads = READS[Device.Kind(kind)]
        for one in thinned([t for t, _ in read], [v for _, v in read], reads.every_s, reads.steady):
            out.append(_event(device, name, Device.Kind(kind), one, reads.every_s))
    return out


def _event(device: UUID, name: str, kind: Device.Kind, one: Thinned, every_s: float) -> ev.Event:
    payload: ev.Payload
    if kind == Device.Kind.SCALE:
        payload = ev.Read.model_construct(
            kind="read", measured=Measured.model_construct(method="scale", value=one.value, hot=True), gain=None
        )
    elif kind == Device.Kind.THERMOMETER:
        payload = ev.Probed.model_construct(kind="probed", celsius=one.value)
    else:
        payload = ev.Metered.model_construct(kind="metered", percent=one.value)
    stretch = uuid5(device, str(int(one.second // every_s)))
    at = datetime.fromtimestamp(one.second, UTC)
    return ev.Event.model_construct(id=stretch, seq=0, at=at, payload=payload, device=name)

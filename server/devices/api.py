"""Devices over HTTP: arranged by the kitchen, and reading by themselves (docs/devices.md)."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from django.http import HttpRequest
from kitchens.services import member_of
from ninja import Router, Status
from ninja.security import HttpBearer, SessionAuth
from pydantic import AwareDatetime, ConfigDict, Field
from shared.limits import PerAddress
from shared.refusals import may_refuse
from shared.shapes import Shape
from spissus_core.amounts.fields import Name

from . import services
from .models import Device

router = Router(auth=SessionAuth(), tags=["devices"])

Kind = Literal["scale", "thermometer", "salt_meter"]


class ByToken(HttpBearer):
    """A device shows its token."""

    def authenticate(self, request: HttpRequest, token: str) -> Device | None:
        return Device.objects.filter(token_hash=services.hashed(token), revoked=False).first()


class DeviceOut(Shape):
    """A device of the kitchen, and what it read last, in its own unit."""

    id: UUID
    name: str
    kind: Kind
    unit: str
    batch_id: UUID | None
    created_at: datetime
    last_at: datetime | None
    last_value: float | None

    @classmethod
    def of(cls, row: Device) -> DeviceOut:
        return cls(
            id=row.id,
            name=row.name,
            kind=row.kind,
            unit=services.READS[Device.Kind(row.kind)].unit,
            batch_id=row.batch_id,
            created_at=row.created_at,
            last_at=row.last_at,
            last_value=row.last_value,
        )


class DeviceIn(Shape):
    """A device to be added."""

    model_config = ConfigDict(extra="forbid")

    name: Name
    kind: Kind
    batch_id: UUID | None = None


class IssuedOut(DeviceOut):
    """A new device with its token, which is shown this once."""

    token: str


class AssignIn(Shape):
    """The batch a device is to read for; null for none."""

    model_config = ConfigDict(extra="forbid")

    batch_id: UUID | None


class ReadingIn(Shape):
    """What a device read, in its own unit."""

    model_config = ConfigDict(extra="forbid")

    at: AwareDatetime
    value: Annotated[float, Field(ge=-1e9, le=1e9)]


class ReadingsIn(Shape):
    """Readings in any order, at most 120 at once."""

    model_config = ConfigDict(extra="forbid")

    readings: Annotated[list[ReadingIn], Field(min_length=1, max_length=services.MOST_AT_ONCE)]


class TakenOut(Shape):
    """How many were new; those sent before are passed over."""

    new: int


@router.get("/devices", response=list[DeviceOut])
def devices(request: HttpRequest) -> list[DeviceOut]:
    """The kitchen's devices."""
    return [DeviceOut.of(row) for row in services.devices_of(member_of(request))]


@router.post("/devices", response=IssuedOut, openapi_extra=may_refuse(404))
def issue(request: HttpRequest, data: DeviceIn) -> IssuedOut:
    """Add a device; its token is shown once."""
    row, token = services.issue(member_of(request), data.name, data.kind, data.batch_id)
    return IssuedOut(**DeviceOut.of(row).model_dump(), token=token)


@router.put("/devices/{device_id}/batch", response=DeviceOut)
def assign(request: HttpRequest, device_id: UUID, data: AssignIn) -> DeviceOut:
    """Let a device read for a batch, or for none."""
    return DeviceOut.of(services.assign(member_of(request), device_id, data.batch_id))


@router.delete("/devices/{device_id}", response={204: None})
def revoke(request: HttpRequest, device_id: UUID) -> Status[None]:
    """Take a device away; its token ends."""
    services.revoke(member_of(request), device_id)
    return Status(204, None)


@router.get("/device", auth=ByToken(), response=DeviceOut)
def whoami(request: HttpRequest) -> DeviceOut:
    """Which device a token belongs to."""
    return DeviceOut.of(request.auth)  # type: ignore[attr-defined]


class PerDevice(PerAddress):
    """So many posts of one device; a device is told from others by its token, not by its address."""

    def get_cache_key(self, request: HttpRequest) -> str | None:
        return f"device-{request.auth.pk}"  # type: ignore[attr-defined]


@router.post(
    "/device/readings",
    auth=ByToken(),
    response=TakenOut,
    throttle=PerDevice("device"),
    openapi_extra=may_refuse(409, 429),
)
def take(request: HttpRequest, data: ReadingsIn) -> TakenOut:
    """Readings of a device."""
    device: Device = request.auth  # type: ignore[attr-defined]
    return TakenOut(new=services.take(device.id, [(one.at, one.value) for one in data.readings]))

"""Devices leave without their tokens, and what they read as batches are worked out from it."""

from __future__ import annotations

from datetime import datetime
from secrets import token_hex
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field
from shared.leaving import LEAVES, STAYS, Leaves, Row
from spissus_core.amounts.fields import Name

from .models import Device, Kept, Reading


class DeviceRow(Row):
    """A device. It comes back as one whose token is gone: what it read is there, and it reads no more."""

    id: UUID
    name: Name
    kind: Literal["scale", "thermometer", "salt_meter"]
    created_at: datetime


class KeptRow(Row):
    """A stretch of readings as one: g gross, °C or % salt by the kind of the device."""

    device_id: UUID
    stretch: Annotated[int, Field(ge=-(2**53), le=2**53)]
    at: datetime
    value: Annotated[float, Field(ge=-1e6, le=1e6)]
    count: Annotated[int, Field(ge=1, le=1_000_000)]


LEAVES["devices"] = Leaves(
    model=Device, shape=DeviceRow, filled=lambda: {"token_hash": f"left behind {token_hex(16)}", "revoked": True}
)
LEAVES["readings"] = Leaves(model=Kept, shape=KeptRow, of="batch", key=("device_id", "stretch"))
STAYS[Reading] = "Raw readings are let go of within days; batches are worked out from what was kept of them."

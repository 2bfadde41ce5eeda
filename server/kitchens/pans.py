"""Pans: added, measured anew, calibrated, put away, and their skewers."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from interchange import file_answer, skewer
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict, Field
from shared.shapes import PanShape, Shape, ShownOut
from spissus_core.amounts.fields import DepthMm, VolumeMl
from spissus_core.amounts.quantities import UnitSystem, show_length, show_mass, show_volume
from spissus_core.measuring.measurement import error_ml
from spissus_core.measuring.vessels import Pan as PanSpec
from spissus_core.measuring.vessels import calibrated, volume_marks
from spissus_core.messages import say

from .models import Pan
from .rows import added, changed, put_away
from .services import member_of, pan_spec

router = Router(auth=SessionAuth(), tags=["kitchen"])


#: More pans than any kitchen has.
MOST_PANS = 60


class PanOut(PanShape):
    """A pan of the kitchen, and what follows from its measurements."""

    id: UUID
    width: ShownOut
    height: ShownOut
    capacity: ShownOut
    empty: ShownOut | None
    dip_error: ShownOut

    @classmethod
    def of(cls, row: Pan) -> PanOut:
        spec = PanSpec.model_validate(row.spec)
        return cls(
            id=row.id,
            **spec.model_dump(),
            width=ShownOut.of(show_length(spec.rim_length_mm)),
            height=ShownOut.of(show_length(spec.height_mm)),
            capacity=ShownOut.of(show_volume(spec.capacity_ml)),
            empty=None if spec.empty_g is None else ShownOut.of(show_mass(spec.empty_g)),
            dip_error=ShownOut.of(show_volume(error_ml(spec, "dip", spec.capacity_ml / 2))),
        )


@router.post("/pans", response=PanOut)
def add_pan(request: HttpRequest, data: PanSpec) -> PanOut:
    """Add a pan."""
    return PanOut.of(added(request, Pan, data.model_dump(mode="json"), MOST_PANS, say("kitchen.pans_enough")))


class Poured(Shape):
    """A known volume in the pan, all that was poured so far, and the depth at which it stood."""

    model_config = ConfigDict(extra="forbid")

    volume_ml: VolumeMl
    depth_mm: DepthMm


class CalibrationIn(Shape):
    """A pan as it was measured, and what was poured into it."""

    model_config = ConfigDict(extra="forbid")

    pan: PanSpec
    poured: Annotated[list[Poured], Field(max_length=30)]


class CalibrationOut(Shape):
    """The pan that fits the dips: its measurements, what it holds, and how far each dip is from it."""

    pan: PanShape
    base: ShownOut
    rim: ShownOut
    capacity: ShownOut
    measured_capacity: ShownOut
    misses: list[ShownOut]


@router.post("/previews/calibration", response=CalibrationOut)
def preview_calibration(request: HttpRequest, data: CalibrationIn) -> CalibrationOut:
    """Fit a pan to known volumes; nothing is saved."""
    member_of(request)
    fitted = calibrated(data.pan, [(one.volume_ml, one.depth_mm) for one in data.poured])
    return CalibrationOut(
        pan=PanShape(**fitted.pan.model_dump()),
        base=ShownOut.of(show_length(fitted.pan.base_length_mm)),
        rim=ShownOut.of(show_length(fitted.pan.rim_length_mm)),
        capacity=ShownOut.of(show_volume(fitted.pan.capacity_ml)),
        measured_capacity=ShownOut.of(show_volume(data.pan.capacity_ml)),
        misses=[ShownOut.of(show_length(abs(miss))) for miss in fitted.misses_mm],
    )


@router.get("/pans/{pan_id}/skewer.{kind}")
def pan_skewer(request: HttpRequest, pan_id: UUID, kind: Literal["svg", "pdf"], units: UnitSystem) -> HttpResponse:
    """A skewer for this pan, marked by volume, at true size."""
    spec = pan_spec(member_of(request).kitchen.pk, pan_id)
    marks = [skewer.Mark(mark_mm, getattr(volume, units)) for mark_mm, volume in volume_marks(spec, units)]
    body, media_type = skewer.drawn(kind, spec.name, marks, spec.height_mm)
    return file_answer(body, media_type, spec.name, f"skewer.{kind}")


@router.put("/pans/{pan_id}", response=PanOut)
def change_pan(request: HttpRequest, pan_id: UUID, data: PanSpec) -> PanOut:
    """Change a pan; batches keep the pan they were cooked in."""
    return PanOut.of(changed(request, Pan, pan_id, data.model_dump(mode="json")))


@router.delete("/pans/{pan_id}", response={204: None})
def remove_pan(request: HttpRequest, pan_id: UUID) -> Status[None]:
    """Put a pan away."""
    put_away(request, Pan, pan_id)
    return Status(204, None)

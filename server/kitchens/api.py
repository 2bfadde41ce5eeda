"""What stands in the kitchen."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from interchange import skewer
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict, Field
from shared.refusals import RefusedError
from shared.shapes import PanShape, Shape, ShownOut
from spissus_core.amounts.estimate import Estimate
from spissus_core.amounts.fields import AltitudeM, DepthMm, Name, NetKw, VolumeMl
from spissus_core.amounts.quantities import UnitSystem, show_length, show_mass, show_temperature, show_volume
from spissus_core.measuring.measurement import error_ml
from spissus_core.measuring.vessels import Pan as PanSpec
from spissus_core.measuring.vessels import calibrated, volume_marks
from spissus_core.messages import say
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.heating import Burner as BurnerSpec
from spissus_core.phenomena.heating import HeatKind, boiling_point_c

from .models import Burner, Kitchen, Pan
from .services import all_learned, member_of, pan_spec

router = Router(auth=SessionAuth(), tags=["kitchen"])


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


class BurnerOut(Shape):
    """A burner; net power into the liquid in kW, and the steam it makes in g/min."""

    id: UUID
    name: str
    net_kw: float
    steam_g_min: float

    @classmethod
    def of(cls, row: Burner) -> BurnerOut:
        spec = BurnerSpec.model_validate(row.spec)
        return cls(id=row.id, name=spec.name, net_kw=spec.net_kw, steam_g_min=boiling_rate_g_min(spec.net_kw).best)


class LearnedOut(Shape):
    """What this kitchen has learned of a pan on a burner; g of steam a minute with its 80 % interval."""

    pan: str
    burner: str
    heat: HeatKind
    batches: int
    net_kw: float
    low_g_min: float
    best_g_min: float
    high_g_min: float


class KitchenOut(Shape):
    """A kitchen; ``boils_at`` is the temperature at which water boils at its altitude."""

    name: str
    altitude_m: float
    boils_at: ShownOut
    learned: list[LearnedOut]
    pans: list[PanOut]
    burners: list[BurnerOut]


@router.get("/kitchen", response=KitchenOut, summary="The kitchen's pans and burners")
def kitchen(request: HttpRequest) -> KitchenOut:
    place = member_of(request).kitchen
    return KitchenOut(
        name=place.name,
        altitude_m=place.altitude_m,
        boils_at=ShownOut.of(show_temperature(boiling_point_c(place.altitude_m))),
        pans=[PanOut.of(pan) for pan in place.pans.filter(retired=False)],
        burners=[BurnerOut.of(burner) for burner in place.burners.filter(retired=False)],
        learned=_learned(place),
    )


def _learned(place: Kitchen) -> list[LearnedOut]:
    out = []
    for (pan, burner), rates in all_learned(place.pk).items():
        for rate in rates:
            steam = Estimate.log_normal(boiling_rate_g_min(rate.net_kw).best, rate.spread)
            out.append(
                LearnedOut(
                    pan=pan, burner=burner, heat=rate.heat, batches=rate.batches, net_kw=rate.net_kw,
                    low_g_min=steam.low, best_g_min=steam.best, high_g_min=steam.high,
                )
            )  # fmt: skip
    return out


class PlaceIn(Shape):
    """Where the kitchen is."""

    model_config = ConfigDict(extra="forbid")

    altitude_m: AltitudeM


@router.patch("/kitchen", response=KitchenOut, summary="Say how high the kitchen lies")
def place_kitchen(request: HttpRequest, data: PlaceIn) -> KitchenOut:
    member = member_of(request)
    member.require_cook()
    member.kitchen.altitude_m = data.altitude_m
    member.kitchen.save(update_fields=["altitude_m"])
    return kitchen(request)


@router.delete("/learned", response={204: None}, summary="Forget what was learned of a pan on a burner")
def forget_learned(request: HttpRequest, pan: Name, burner: Name) -> Status[None]:
    member = member_of(request)
    member.require_cook()
    member.kitchen.learned_rates.filter(pan=pan, burner=burner).delete()
    return Status(204, None)


@router.post("/pans", response=PanOut, summary="Add a pan")
def add_pan(request: HttpRequest, data: PanSpec) -> PanOut:
    member = member_of(request)
    member.require_cook()
    if member.kitchen.pans.filter(retired=False).count() >= 60:
        raise RefusedError(422, say("kitchen.pans_enough"))
    last = member.kitchen.pans.count()
    return PanOut.of(Pan.objects.create(kitchen=member.kitchen, spec=data.model_dump(mode="json"), position=last))


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


@router.post("/previews/calibration", response=CalibrationOut, summary="Fit a pan to known volumes; nothing is saved")
def preview_calibration(request: HttpRequest, data: CalibrationIn) -> CalibrationOut:
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


@router.get("/pans/{pan_id}/skewer.{kind}", summary="A skewer for this pan, marked by volume, at true size")
def pan_skewer(request: HttpRequest, pan_id: UUID, kind: Literal["svg", "pdf"], units: UnitSystem) -> HttpResponse:
    spec = pan_spec(member_of(request).kitchen.pk, pan_id)
    marks = [skewer.Mark(mark_mm, getattr(volume, units)) for mark_mm, volume in volume_marks(spec, units)]
    return skewer.response(kind, spec.name, marks, spec.height_mm)


@router.put("/pans/{pan_id}", response=PanOut, summary="Change a pan; batches keep the pan they were cooked in")
def change_pan(request: HttpRequest, pan_id: UUID, data: PanSpec) -> PanOut:
    row = _own(request, Pan, pan_id)
    row.spec = data.model_dump(mode="json")
    row.save(update_fields=["spec"])
    return PanOut.of(row)


@router.delete("/pans/{pan_id}", response={204: None}, summary="Put a pan away")
def remove_pan(request: HttpRequest, pan_id: UUID) -> Status[None]:
    row = _own(request, Pan, pan_id)
    row.retired = True
    row.save(update_fields=["retired"])
    return Status(204, None)


class BurnerIn(Shape):
    """A burner as the kitchen puts it; what was learned of it is kept apart."""

    model_config = ConfigDict(extra="forbid")

    name: Name
    net_kw: NetKw

    def spec(self) -> dict[str, Any]:
        """As it is kept."""
        return BurnerSpec(name=self.name, net_kw=self.net_kw).model_dump(mode="json")


@router.post("/burners", response=BurnerOut, summary="Add a burner")
def add_burner(request: HttpRequest, data: BurnerIn) -> BurnerOut:
    member = member_of(request)
    member.require_cook()
    if member.kitchen.burners.filter(retired=False).count() >= 20:
        raise RefusedError(422, say("kitchen.burners_enough"))
    last = member.kitchen.burners.count()
    return BurnerOut.of(Burner.objects.create(kitchen=member.kitchen, spec=data.spec(), position=last))


@router.put("/burners/{burner_id}", response=BurnerOut, summary="Change a burner")
def change_burner(request: HttpRequest, burner_id: UUID, data: BurnerIn) -> BurnerOut:
    row = _own(request, Burner, burner_id)
    row.spec = data.spec()
    row.save(update_fields=["spec"])
    return BurnerOut.of(row)


@router.delete("/burners/{burner_id}", response={204: None}, summary="Put a burner away")
def remove_burner(request: HttpRequest, burner_id: UUID) -> Status[None]:
    row = _own(request, Burner, burner_id)
    row.retired = True
    row.save(update_fields=["retired"])
    return Status(204, None)


def _own(request: HttpRequest, model: Any, pk: UUID) -> Any:
    member = member_of(request)
    member.require_cook()
    row = model.objects.filter(kitchen=member.kitchen, pk=pk, retired=False).first()
    if row is None:
        raise Http404
    return row

"""Signing in, and what stands in the kitchen."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import Http404, HttpRequest
from ninja import Router, Status
from ninja.errors import HttpError
from ninja.security import APIKeyCookie, SessionAuth
from pydantic import BaseModel, Field
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.evaporation import boiling_rate_g_min
from spissus_core.fields import Name
from spissus_core.measurement import error_ml
from spissus_core.quantities import Shown, UnitSystem, show_length, show_mass, show_volume
from spissus_core.vessels import Pan as PanSpec
from spissus_core.vessels import Shape

from .models import Burner, Pan, User
from .services import demo_member, member_of, open_kitchen

router = Router(auth=SessionAuth(), tags=["kitchen"])


class Anyone(APIKeyCookie):
    """Open to all, but only from our own page: the CSRF token is checked."""

    def authenticate(self, request: HttpRequest, key: str | None) -> bool:
        return True


class ShownOut(BaseModel):
    """An amount, exact and in the words of either system of units."""

    value: float
    metric: str
    us: str

    @classmethod
    def of(cls, shown: Shown) -> ShownOut:
        return cls(value=shown.value, metric=shown.metric, us=shown.us)


class SessionOut(BaseModel):
    """Who is signed in, if anyone."""

    signed_in: bool
    demo_offered: bool
    name: str = ""
    kitchen: str = ""
    role: str = ""
    units: UnitSystem = "metric"


class SignIn(BaseModel):
    name: str = Field(max_length=150)
    password: str = Field(max_length=200)


class SignUp(SignIn):
    kitchen: Name


class Preferences(BaseModel):
    units: UnitSystem


def _session(request: HttpRequest) -> SessionOut:
    offered = settings.DEMO
    if not request.user.is_authenticated:
        return SessionOut(signed_in=False, demo_offered=offered)
    member = member_of(request)
    return SessionOut(
        signed_in=True, demo_offered=offered, name=member.user.username, kitchen=member.kitchen.name, role=member.role,
        units="us" if member.user.units == User.Units.US else "metric",
    )  # fmt: skip


@router.get("/session", auth=None, response=SessionOut, summary="Who is signed in")
def session(request: HttpRequest) -> SessionOut:
    return _session(request)


@router.post("/session", auth=Anyone(), response=SessionOut, summary="Sign in")
def sign_in(request: HttpRequest, data: SignIn) -> SessionOut:
    user = authenticate(request, username=data.name.strip(), password=data.password)
    if user is None:
        raise SpissusError("password", "Name and password do not belong together.")
    login(request, user)
    return _session(request)


@router.delete("/session", response=SessionOut, summary="Sign out")
def sign_out(request: HttpRequest) -> SessionOut:
    logout(request)
    return _session(request)


@router.post("/session/demo", auth=Anyone(), response=SessionOut, summary="Step into the demo kitchen")
def enter_demo(request: HttpRequest) -> SessionOut:
    member = demo_member() if settings.DEMO else None
    if member is None:
        raise Http404
    login(request, member.user, backend="django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.post("/accounts", auth=Anyone(), response=SessionOut, summary="Sign up with a kitchen of one's own")
def sign_up(request: HttpRequest, data: SignUp) -> SessionOut:
    name = data.name.strip()
    if not name:
        raise SpissusError("name", "Choose a name to sign in with.")
    if User.objects.filter(username__iexact=name).exists():
        raise SpissusError("name", "Someone signs in under that name already. Choose another.")
    try:
        User.username_validator(name)
    except ValidationError:
        raise SpissusError("name", "Use letters, digits and @ . + - _ only, without spaces.") from None
    try:
        validate_password(data.password, User(username=name))
    except ValidationError as error:
        raise SpissusError("password", " ".join(error.messages)) from None
    with transaction.atomic():
        user = User.objects.create_user(username=name, password=data.password)
        open_kitchen(data.kitchen, user)
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return _session(request)


@router.patch("/preferences", response=SessionOut, summary="Change one's units")
def set_preferences(request: HttpRequest, data: Preferences) -> SessionOut:
    member = member_of(request)
    member.user.units = data.units
    member.user.save(update_fields=["units"])
    request.user = member.user
    return _session(request)


class PanShape(BaseModel):
    """A pan by its inner measurements, mm, and its empty weight, g: enough to draw it to scale."""

    name: str
    shape: Shape
    base_length_mm: float
    base_width_mm: float
    rim_length_mm: float
    rim_width_mm: float
    height_mm: float
    empty_g: float | None


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


class BurnerOut(BaseModel):
    """A burner; net power into the liquid in kW, and the steam it makes in g/min."""

    id: UUID
    name: str
    net_kw: float
    steam_g_min: float

    @classmethod
    def of(cls, row: Burner) -> BurnerOut:
        spec = ev.Burner.model_validate(row.spec)
        return cls(id=row.id, **spec.model_dump(), steam_g_min=boiling_rate_g_min(spec.net_kw).best)


class KitchenOut(BaseModel):
    name: str
    pans: list[PanOut]
    burners: list[BurnerOut]


@router.get("/kitchen", response=KitchenOut, summary="The kitchen's pans and burners")
def kitchen(request: HttpRequest) -> KitchenOut:
    place = member_of(request).kitchen
    return KitchenOut(
        name=place.name,
        pans=[PanOut.of(pan) for pan in place.pans.filter(retired=False)],
        burners=[BurnerOut.of(burner) for burner in place.burners.filter(retired=False)],
    )


@router.post("/pans", response=PanOut, summary="Add a pan")
def add_pan(request: HttpRequest, data: PanSpec) -> PanOut:
    member = member_of(request)
    member.require_cook()
    if member.kitchen.pans.filter(retired=False).count() >= 60:
        raise HttpError(422, "Sixty pans are enough; take one away first.")
    last = member.kitchen.pans.count()
    return PanOut.of(Pan.objects.create(kitchen=member.kitchen, spec=data.model_dump(mode="json"), position=last))


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


@router.put("/burners/{burner_id}", response=BurnerOut, summary="Change a burner")
def change_burner(request: HttpRequest, burner_id: UUID, data: ev.Burner) -> BurnerOut:
    row = _own(request, Burner, burner_id)
    row.spec = data.model_dump(mode="json")
    row.save(update_fields=["spec"])
    return BurnerOut.of(row)


def _own(request: HttpRequest, model: Any, pk: UUID) -> Any:
    member = member_of(request)
    member.require_cook()
    row = model.objects.filter(kitchen=member.kitchen, pk=pk, retired=False).first()
    if row is None:
        raise Http404
    return row

"""Who works in a kitchen: invited by a code that opens once, with a role that can be changed, removed, or leaving."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated, Literal
from uuid import UUID

from django.db import transaction
from django.db.models import Count, Q, QuerySet
from django.http import Http404, HttpRequest
from django.utils import timezone
from live.services import end_streams
from ninja import Router, Status
from ninja.security import SessionAuth
from people.services import User, new_name, recovery_code, works_in
from pydantic import ConfigDict, Field
from shared.codes import Code, digest, drawn
from shared.limits import PerAddress
from shared.refusals import RefusedError, may_refuse
from shared.shapes import SaidOut, Shape
from spissus_core.errors import SpissusError
from spissus_core.messages import Message, say
from words import plain

from .models import Deed, Invitation, Kitchen, Membership
from .services import Member, did, member_of, unclaimed_of

router = Router(auth=SessionAuth(), tags=["brigade"])

#: What somebody may do; and what a tablet may that is nobody's.
GivenRole = Literal["owner", "cook", "guest"]
Role = Literal["owner", "cook", "guest", "station"]

PersonId = Annotated[int, Field(ge=1, le=2**31 - 1)]

#: An invitation opens for so long, and no more of them are open at once. Modelling choices.
OPEN_FOR, MOST_OPEN = timedelta(days=7), 30

#: More people than any brigade. Modelling choice.
MOST_PEOPLE = 200

#: What the digests of invitations are of.
INVITES = "kitchens.invitation"

#: A code for a new password that an owner hands over opens for so long. Modelling choice.
RESET_FOR = timedelta(days=1)

#: No more deeds than this are shown at once.
MOST_SHOWN = 100

_ROLES: dict[str, Message] = {
    "owner": say("brigade.owner"),
    "cook": say("brigade.cook"),
    "guest": say("brigade.guest"),
    "station": say("brigade.station"),
}


class PersonOut(Shape):
    """Somebody who works in the kitchen, and what they may do; ``resettable`` by a code for a new password."""

    id: str
    name: str
    role: Role
    may: SaidOut
    you: bool
    resettable: bool


class InvitationOut(Shape):
    """An invitation that is still open; its code is nowhere any more."""

    id: UUID
    role: Role
    made_at: datetime
    expires_at: datetime
    by: str | None


class ResetOut(Shape):
    """A code by which somebody chooses a new password, shown this once."""

    name: str
    code: str
    expires_at: datetime


class IssuedInvitationOut(InvitationOut):
    """A new invitation with its code, shown this once."""

    code: str


class BrigadeOut(Shape):
    """Who works in a kitchen, and who is invited; only an owner arranges it."""

    people: list[PersonOut]
    invitations: list[InvitationOut]
    owns: bool


class RoleIn(Shape):
    """What somebody may do."""

    model_config = ConfigDict(extra="forbid")

    role: GivenRole


class StationIn(Shape):
    """What a tablet is called in the log."""

    model_config = ConfigDict(extra="forbid")

    name: Annotated[str, Field(max_length=150)]


class JoinIn(Shape):
    """The code of an invitation."""

    model_config = ConfigDict(extra="forbid")

    code: Code


class KitchenIn(Shape):
    """In which kitchen this browser works."""

    model_config = ConfigDict(extra="forbid")

    kitchen_id: UUID


class WorksInOut(Shape):
    """A kitchen somebody works in, and as what."""

    id: UUID
    name: str
    role: Role
    here: bool


class DeedOut(Shape):
    """What somebody did to the people, the pans, the devices or the limits of a kitchen."""

    at: datetime
    by: str
    said: SaidOut


@router.get("/kitchen/people", response=BrigadeOut)
def brigade(request: HttpRequest) -> BrigadeOut:
    """Who works here; and, for an owner, who is invited."""
    member = member_of(request)
    owns = member.role == Membership.Role.OWNER
    rows = list(member.kitchen.memberships.select_related("user").order_by("pk"))
    known_elsewhere = _known_elsewhere(member, [row.user_id for row in rows]) if owns else {row.user_id for row in rows}
    return BrigadeOut(
        people=[_person_out(row, member, resettable=row.user_id not in known_elsewhere) for row in rows],
        invitations=[InvitationOut(**_told(one)) for one in _open(member.kitchen)] if owns else [],
        owns=owns,
    )


@router.post("/kitchen/invitations", response=IssuedInvitationOut)
def invite(request: HttpRequest, data: RoleIn) -> IssuedInvitationOut:
    """Invite somebody by a code that opens once."""
    return _invited(_owner(request), data.role)


@router.post("/kitchen/stations", response=IssuedInvitationOut)
def add_station(request: HttpRequest, data: StationIn) -> IssuedInvitationOut:
    """A tablet that stays in the kitchen and is nobody's: by the code it joins under its name, and records."""
    member = _owner(request)
    return _invited(member, "station", station=new_name(data.name))


def _invited(member: Member, role: Role, station: str = "") -> IssuedInvitationOut:
    if member.kitchen.is_demo:
        raise RefusedError(422, say("brigade.made_up"))
    if not member.kitchen.claimed:
        raise RefusedError(422, say("brigade.claim_first"))
    if _open(member.kitchen).count() >= MOST_OPEN:
        raise RefusedError(422, say("brigade.invited_enough"))
    code = drawn()
    row = Invitation.objects.create(
        kitchen=member.kitchen,
        role=role,
        station=station,
        digest=digest(INVITES, code),
        made_by=member.user,
        expires_at=timezone.now() + OPEN_FOR,
    )
    did(member, say("deeds.invited", role=role))
    return IssuedInvitationOut(**_told(row), code=code)


@router.delete("/kitchen/invitations/{invitation_id}", response={204: None})
def revoke_invitation(request: HttpRequest, invitation_id: UUID) -> Status[None]:
    """Take an invitation back: its code opens nothing any more."""
    member = _owner(request)
    row = _open(member.kitchen).filter(pk=invitation_id).first()
    if row is None:
        raise Http404
    did(member, say("deeds.revoked", role=row.role))
    row.delete()
    return Status(204, None)


@router.post("/kitchen/joins", response=WorksInOut, throttle=PerAddress("join"), openapi_extra=may_refuse(409, 429))
def join(request: HttpRequest, data: JoinIn) -> WorksInOut:
    """Join a kitchen by the code of an invitation; this browser works in it from now on."""
    member = member_of(request)
    user = member.user
    if member.kitchen.is_demo:
        # Whoever looks around goes with their kitchen.
        raise RefusedError(409, say("brigade.leave_the_made_up"))
    # A tablet that is nobody's goes nowhere by itself.
    member.require_person()
    with transaction.atomic():
        row = (
            Invitation.objects.select_for_update(of=("self",))
            .select_related("kitchen")
            .filter(digest=digest(INVITES, data.code), used_at=None, expires_at__gt=timezone.now())
            .first()
        )
        if row is None:
            raise SpissusError("code", say("brigade.no_such_code"))
        if row.kitchen.memberships.filter(user=user).exists():
            raise SpissusError("code", say("brigade.in_it_already", kitchen=row.kitchen.name))
        if row.kitchen.memberships.count() >= MOST_PEOPLE:
            raise RefusedError(422, say("brigade.people_enough"))
        if row.role == Membership.Role.STATION:
            _becomes_station(member, row.station)
        membership = Membership.objects.create(user=user, kitchen=row.kitchen, role=row.role)
        row.used_at = timezone.now()
        row.save(update_fields=["used_at"])
        did(Member(user, row.kitchen, row.role), say("deeds.joined", role=row.role))
    works_in(request, row.kitchen.pk)
    return _works_in_out(membership, row.kitchen.pk)


@router.patch("/kitchen/people/{person_id}", response=BrigadeOut, openapi_extra=may_refuse(409))
def change_role(request: HttpRequest, person_id: PersonId, data: RoleIn) -> BrigadeOut:
    """Give somebody another role. There is an owner always."""
    member = _owner(request)
    with transaction.atomic():
        row = _membership(member, person_id)
        if row.role == Membership.Role.STATION:
            raise SpissusError("role", say("brigade.station_stays"))
        if row.role == Membership.Role.OWNER and data.role != "owner":
            _another_owner(member, person_id)
        row.role = data.role
        row.save(update_fields=["role"])
        did(member, say("deeds.role", name=row.user.get_username(), role=data.role))
    # What they see is another page from now on.
    end_streams(person=row.user_id)
    return brigade(request)


@router.delete("/kitchen/people/{person_id}", response={204: None}, openapi_extra=may_refuse(409))
def remove(request: HttpRequest, person_id: PersonId) -> Status[None]:
    """Remove somebody, or leave: their pages end at once. There is an owner always."""
    member = member_of(request)
    if person_id != member.user.pk:
        member.require_owner()
    with transaction.atomic():
        row = _membership(member, person_id)
        if row.role == Membership.Role.OWNER:
            _another_owner(member, person_id)
        name = row.user.get_username()
        did(member, say("deeds.left") if person_id == member.user.pk else say("deeds.removed", name=name))
        row.delete()
        if row.role == Membership.Role.STATION:
            # It was nobody's, and works nowhere else; what it recorded keeps its name.
            User.objects.filter(pk=row.user_id).update(is_active=False)
    end_streams(person=row.user_id)
    return Status(204, None)


@router.post("/kitchen/people/{person_id}/reset", response=ResetOut, openapi_extra=may_refuse(409))
def reset(request: HttpRequest, person_id: PersonId) -> ResetOut:
    """A code to hand to somebody who forgot their password. Not of whoever has anything in another's kitchen."""
    member = _owner(request)
    with transaction.atomic():
        row = _membership(member, person_id)
        if person_id in _known_elsewhere(member, [person_id]):
            raise RefusedError(409, say("brigade.known_elsewhere", name=row.user.get_username()))
        until = timezone.now() + RESET_FOR
        code = recovery_code(row.user, until)
        did(member, say("deeds.reset", name=row.user.get_username()))
    return ResetOut(name=row.user.get_username(), code=code, expires_at=until)


def _known_elsewhere(member: Member, people: list[int]) -> set[int]:
    """Whose password an owner has no say in: one's own, of a tablet, and of whoever works in a kitchen of others in
    which there is anything."""
    owned = Membership.objects.filter(user=member.user, role=Membership.Role.OWNER).values("kitchen")
    of_others = Membership.objects.filter(user__in=people).exclude(kitchen__in=owned)
    busy = of_others.annotate(batches=Count("kitchen__batches"), cooks=Count("kitchen__memberships", distinct=True))
    elsewhere = set(busy.filter(Q(batches__gt=0) | Q(cooks__gt=1)).values_list("user", flat=True))
    nobodys = set(
        Membership.objects.filter(user__in=people, role=Membership.Role.STATION).values_list("user", flat=True)
    )
    return elsewhere | nobodys | {member.user.pk}


@router.get("/kitchens", response=list[WorksInOut])
def kitchens(request: HttpRequest) -> list[WorksInOut]:
    """The kitchens that somebody works in."""
    member = member_of(request)
    rows = member.user.memberships.select_related("kitchen").order_by("pk")
    return [_works_in_out(row, member.kitchen.pk) for row in rows]


@router.put("/session/kitchen", response=WorksInOut, openapi_extra=may_refuse(404))
def switch(request: HttpRequest, data: KitchenIn) -> WorksInOut:
    """Work in another of one's kitchens in this browser."""
    user = member_of(request).user
    row = user.memberships.select_related("kitchen").filter(kitchen=data.kitchen_id).first()
    if row is None:
        raise Http404
    works_in(request, row.kitchen_id)
    return _works_in_out(row, row.kitchen_id)


@router.get("/kitchen/deeds", response=list[DeedOut])
def deeds(request: HttpRequest) -> list[DeedOut]:
    """What was done to the people, the pans, the devices and the limits of the kitchen, the newest first."""
    member = _owner(request)
    rows = member.kitchen.deeds.all()[:MOST_SHOWN]
    return [DeedOut(at=row.at, by=row.name, said=SaidOut.of(_deed(row))) for row in rows]


def _deed(row: Deed) -> Message:
    """What was done; by its key, where no phrase tells it any more."""
    said = Message(row.said, row.arguments)
    try:
        plain(said)
    except (KeyError, LookupError):
        return say("deeds.other", said=row.said)
    return said


def _owner(request: HttpRequest) -> Member:
    member = member_of(request)
    member.require_owner()
    return member


def _becomes_station(member: Member, name: str) -> None:
    """Whoever began in this browser is a tablet from now on. Raises RefusedError where it is somebody's."""
    if unclaimed_of(member.user) is None or member.user.memberships.count() > 1:
        raise RefusedError(409, say("brigade.sign_out_for_station"))
    if member.kitchen.batches.exists():
        raise RefusedError(409, say("kitchen.keep_it_first"))
    member.user.username = new_name(name)
    member.user.save(update_fields=["username"])
    member.kitchen.delete()


def _open(kitchen: Kitchen) -> QuerySet[Invitation]:
    return kitchen.invitations.filter(used_at=None, expires_at__gt=timezone.now()).select_related("made_by")


def _told(row: Invitation) -> dict[str, object]:
    by = None if row.made_by is None else row.made_by.get_username()
    return {"id": row.pk, "role": row.role, "made_at": row.made_at, "expires_at": row.expires_at, "by": by}


def _person_out(row: Membership, member: Member, *, resettable: bool) -> PersonOut:
    return PersonOut(
        id=str(row.user_id),
        name=row.user.get_username(),
        role=row.role,
        may=SaidOut.of(_ROLES[row.role]),
        you=row.user_id == member.user.pk,
        resettable=resettable and row.user.has_usable_password(),
    )


def _works_in_out(row: Membership, here: UUID) -> WorksInOut:
    return WorksInOut(id=row.kitchen_id, name=row.kitchen.name, role=row.role, here=row.kitchen_id == here)


def _membership(member: Member, person_id: int) -> Membership:
    """Somebody of the kitchen, for one change at a time. Raises Http404 for anybody else."""
    # All of them: who is the last owner is not to change meanwhile.
    rows = list(member.kitchen.memberships.select_for_update(of=("self",)).select_related("user").order_by("pk"))
    found = next((row for row in rows if row.user_id == person_id), None)
    if found is None:
        raise Http404
    return found


def _another_owner(member: Member, than: int) -> None:
    """Raises RefusedError where nobody else owns the kitchen."""
    if not member.kitchen.memberships.filter(role=Membership.Role.OWNER).exclude(user=than).exists():
        raise RefusedError(409, say("brigade.last_owner"))

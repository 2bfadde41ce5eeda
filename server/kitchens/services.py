"""What other apps may ask of a kitchen, and how a new one is set up."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, TypeVar, cast
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest
from django.utils import timezone
from people.services import User, has_session, signed_in
from shared.leaving import LEAVES
from shared.refusals import RefusedError
from spissus_core.amounts.fields import SHELF
from spissus_core.learning.liking import LIKINGS, liked
from spissus_core.learning.rates import combined
from spissus_core.learning.strength import TaughtStrength as Strength
from spissus_core.learning.strength import learned_strengths
from spissus_core.measuring.vessels import Pan as PanSpec
from spissus_core.messages import Message, say
from spissus_core.pantry.schools import LearnedStrength
from spissus_core.phenomena.heating import Burner as BurnerSpec
from spissus_core.phenomena.heating import HeatKind, boiling_point_c
from spissus_core.phenomena.heating import LearnedRate as Learned
from spissus_core.phenomena.limits import Limits
from spissus_core.phenomena.seasoning import LearnedLiking

from .models import Burner, Deed, Kitchen, LearnedRate, Membership, Pan, TaughtLiking, TaughtStrength

_Thing = TypeVar("_Thing", Pan, Burner)

#: What a new kitchen starts with, to be changed for its own. Net power into the liquid, kW: modelling choice.
STARTER_PANS = (
    PanSpec.round("16 cm saucepan", 160, 90, empty_g=720),
    PanSpec.round("20 cm saucepan", 200, 110, empty_g=1050),
    PanSpec.round("24 cm braising pan", 240, 130, empty_g=1680),
    PanSpec.round("28 cm sauté pan", 280, 75, empty_g=1460),
)
STARTER_BURNERS = (
    BurnerSpec(name="small burner, high", net_kw=0.7),
    BurnerSpec(name="middle burner, high", net_kw=1.0),
    BurnerSpec(name="large burner, high", net_kw=1.5),
    BurnerSpec(name="strong burner, full", net_kw=2.5),
)


#: What a kitchen is called before anybody gives it a name.
VISITORS_KITCHEN = "Your kitchen"

#: A made-up kitchen is let go this long after somebody stepped into it. Modelling choice.
LOOKED_AROUND_FOR = timedelta(days=7)

#: More batches than this say no more of a pan on a burner; the newest count.
MOST_REMEMBERED = 30


@dataclass(frozen=True, slots=True)
class Member:
    """The signed-in person in the kitchen they work in."""

    user: User
    kitchen: Kitchen
    role: str

    def require_recorder(self) -> None:
        """Refuse guests, who only look."""
        if self.role == Membership.Role.GUEST:
            raise RefusedError(403, say("kitchen.guests_look"))

    def require_cook(self) -> None:
        """Refuse guests, and tablets that belong to nobody."""
        self.require_recorder()
        self.require_person()

    def require_person(self) -> None:
        """Refuse a tablet that belongs to nobody."""
        if self.role == Membership.Role.STATION:
            raise RefusedError(403, say("kitchen.stations_record"))

    def require_owner(self) -> None:
        """Refuse whoever does not own the kitchen."""
        self.require_cook()
        if self.role != Membership.Role.OWNER:
            raise RefusedError(403, say("kitchen.owners_only"))


def member_of(request: HttpRequest) -> Member:
    """The member behind a request. Everything a view reads or writes goes through their kitchen."""
    user = signed_in(request)
    membership = user.first_membership or user.memberships.select_related("kitchen").order_by("pk").first()
    if membership is None:
        raise RefusedError(403, say("kitchen.no_kitchen"))
    return Member(user, membership.kitchen, membership.role)


def did(member: Member, said: Message) -> None:
    """Keep who did something to the people, the pans, the devices or the limits of a kitchen."""
    told = {name: str(value) for name, value in said.arguments.items()}
    Deed.objects.create(
        kitchen=member.kitchen, person=member.user, name=member.user.get_username(), said=said.key, arguments=told
    )


def member_called(name: str) -> Member | None:
    """Whoever signs in by that name, in the first kitchen that they own; None where there is nobody."""
    theirs = Membership.objects.filter(user__username__iexact=name, role=Membership.Role.OWNER)
    found = theirs.select_related("user", "kitchen").order_by("pk").first()
    return None if found is None else Member(found.user, found.kitchen, found.role)


@transaction.atomic
def open_kitchen(
    name: str,
    owner: User,
    *,
    pans: tuple[PanSpec, ...] = STARTER_PANS,
    burners: tuple[BurnerSpec, ...] = STARTER_BURNERS,
    is_demo: bool = False,
    claimed: bool = True,
    time_zone: str = "",
) -> Kitchen:
    """A new kitchen with pans and burners, and its owner."""
    kitchen = Kitchen.objects.create(name=name, is_demo=is_demo, claimed=claimed, time_zone=time_zone)
    Membership.objects.create(user=owner, kitchen=kitchen, role=Membership.Role.OWNER)
    for position, pan in enumerate(pans):
        Pan.objects.create(kitchen=kitchen, spec=pan.model_dump(mode="json"), position=position)
    for position, burner in enumerate(burners):
        Burner.objects.create(kitchen=kitchen, spec=burner.model_dump(mode="json"), position=position)
    return kitchen


def open_to_visitor(visitor: User, *, time_zone: str) -> Kitchen:
    """A kitchen for somebody who begins at once, until they give it a name or its session ends."""
    return open_kitchen(VISITORS_KITCHEN, visitor, claimed=False, time_zone=time_zone)


def visitors() -> int:
    """How many kitchens nobody has claimed."""
    return Kitchen.objects.filter(claimed=False).count()


def claim(kitchen: Kitchen, name: str) -> None:
    """From now on the kitchen has this name, and stays."""
    kitchen.name, kitchen.claimed = name, True
    kitchen.save(update_fields=["name", "claimed"])


#: What of a kitchen stays behind where its batches are brought along into another: that has its own.
_BEHIND = ("pans", "burners", "devices")


def delete_alone(user: User) -> None:
    """Delete the kitchens in which nobody else works. Raises RefusedError where others do, and nobody else owns one."""
    for row in user.memberships.select_related("kitchen"):
        others = row.kitchen.memberships.exclude(user=user)
        if not others.exists():
            row.kitchen.delete()
        elif row.role == Membership.Role.OWNER and not others.filter(role=Membership.Role.OWNER).exists():
            raise RefusedError(409, say("kitchen.hand_over", kitchen=row.kitchen.name))


def unclaimed_of(user: User) -> Member | None:
    """Somebody without a name, in the kitchen that was opened for them; None where they have one."""
    found = user.memberships.select_related("kitchen", "user").filter(kitchen__claimed=False, kitchen__is_demo=False)
    begun = found.order_by("pk").first()
    return None if begun is None else Member(begun.user, begun.kitchen, begun.role)


def is_named(member: Member) -> bool:
    """Whether somebody can sign in elsewhere as who they are here, or need not."""
    if member.user.has_usable_password() or member.kitchen.is_demo:
        return True
    return member.kitchen.claimed and unclaimed_of(member.user) is None


@transaction.atomic
def bring_along(begun: Member, into: Member) -> None:
    """Everything that was recorded in a kitchen nobody claimed is another's from now on, and whoever began it works
    where they were invited to under the other's name; the empty kitchen goes, and so does the one without a name."""
    for name, leaves in LEAVES.items():
        if leaves.of == "kitchen" and name not in _BEHIND:
            leaves.model._default_manager.filter(kitchen=begun.kitchen).update(kitchen=into.kitchen)
    begun.kitchen.delete()
    theirs = into.user.memberships.values_list("kitchen", flat=True)
    begun.user.memberships.exclude(kitchen__in=list(theirs)).update(user=into.user)
    begun.user.delete()


@transaction.atomic
def let_visitors_go() -> int:
    """Delete the kitchens that nobody claimed and whose session is over, and those that were looked around in for long
    enough, with their people. Returns how many."""
    looked_at = timezone.now() - LOOKED_AROUND_FOR
    gone = [
        kitchen
        for kitchen in Kitchen.objects.filter(claimed=False)
        if (kitchen.is_demo and kitchen.created_at < looked_at)
        or not has_session([member.user_id for member in kitchen.memberships.all()])
    ]
    for kitchen in gone:
        people = [member.user_id for member in kitchen.memberships.all()]
        kitchen.delete()
        User.objects.filter(pk__in=people, memberships=None).delete()
    return len(gone)


def pan_spec(kitchen_id: UUID, pan_id: UUID) -> PanSpec:
    """A pan of this kitchen. Raises Http404 for another's."""
    return PanSpec.model_validate(_owned(Pan, kitchen_id, pan_id).spec)


def pans_of(kitchen_id: UUID) -> list[tuple[UUID, PanSpec]]:
    """The pans of a kitchen with their ids, the smallest first."""
    pans = Pan.objects.filter(kitchen_id=kitchen_id, retired=False)
    return sorted(((pan.id, PanSpec.model_validate(pan.spec)) for pan in pans), key=lambda one: one[1].capacity_ml)


def burner_spec(kitchen: Kitchen, burner_id: UUID, pan: PanSpec) -> BurnerSpec:
    """A burner of this kitchen with what was learned of it under that pan. Raises Http404 for another's."""
    burner = BurnerSpec.model_validate(_owned(Burner, kitchen.pk, burner_id).spec)
    known = {"learned": learned_of(kitchen.pk, pan.name, burner.name), "boils_c": boiling_point_c(kitchen.altitude_m)}
    return burner.model_copy(update=known)


@dataclass(frozen=True, slots=True)
class Pair:
    """A pan on a burner of a kitchen, with what was learned of the two together."""

    pan_id: UUID
    pan: PanSpec
    burner_id: UUID
    burner: BurnerSpec


def kitchen_pairs(kitchen_id: UUID) -> list[Pair]:
    """Every pan of a kitchen on every burner."""
    pans = Pan.objects.filter(kitchen_id=kitchen_id, retired=False)
    burners = Burner.objects.filter(kitchen_id=kitchen_id, retired=False)
    learned = all_learned(kitchen_id)

    def known(pan: Pan, burner: Burner) -> BurnerSpec:
        rates = learned.get((pan.spec["name"], burner.spec["name"]), ())
        return BurnerSpec.model_validate(burner.spec | {"learned": rates})

    return [
        Pair(
            pan.id,
            PanSpec.model_validate(pan.spec),
            burner.id,
            known(pan, burner),
        )
        for pan in pans
        for burner in burners
    ]


def learned_of(kitchen_id: UUID, pan: str, burner: str) -> tuple[Learned, ...]:
    """What finished batches taught of a pan on a burner, for each kind of heat."""
    return _by_pair(LearnedRate.objects.filter(kitchen_id=kitchen_id, pan=pan, burner=burner)).get((pan, burner), ())


def all_learned(kitchen_id: UUID) -> dict[tuple[str, str], tuple[Learned, ...]]:
    """The same for every pan and burner of a kitchen, by their names."""
    return _by_pair(LearnedRate.objects.filter(kitchen_id=kitchen_id))


def _by_pair(rows: QuerySet[LearnedRate]) -> dict[tuple[str, str], tuple[Learned, ...]]:
    told: dict[tuple[str, str], dict[HeatKind, list[tuple[float, float]]]] = {}
    for row in rows.order_by("pan", "burner", "-at"):
        rates = told.setdefault((row.pan, row.burner), {}).setdefault(cast(HeatKind, row.heat), [])
        if len(rates) < MOST_REMEMBERED:
            rates.append((row.net_kw, row.spread))
    return {pair: tuple(combined(heat, rates) for heat, rates in by_heat.items()) for pair, by_heat in told.items()}


def learn(kitchen: Kitchen, batch: UUID, pan: str, burner: str, taught: Learned) -> None:
    """Keep what a finished batch taught; again for the same batch takes its place."""
    told = {"kitchen": kitchen, "pan": pan, "burner": burner} | taught.model_dump(exclude={"batches"})
    LearnedRate.objects.update_or_create(batch=batch, defaults=told)


def unlearn(batch: UUID) -> None:
    """Forget what a batch taught of its pan: it goes on after all."""
    LearnedRate.objects.filter(batch=batch).delete()


def limits_of(kitchen: Kitchen) -> Limits | None:
    """The limits that a kitchen chose, of cooling, keeping hot and reheating; None where it never did."""
    return None if kitchen.limits is None else Limits.model_validate(kitchen.limits, context=SHELF)


def liking_of(kitchen_id: UUID) -> LearnedLiking | None:
    """What a kitchen has come to like; None where no batch taught it anything."""
    taught: dict[str, list[tuple[float, float]]] = {}
    rows = TaughtLiking.objects.filter(kitchen_id=kitchen_id).values_list("of", "value", "error")
    for of, value, error in rows[: MOST_REMEMBERED * len(LIKINGS)]:
        if len(taught.setdefault(of, [])) < MOST_REMEMBERED:
            taught[of].append((value, error))
    return liked(taught) if taught else None


def learn_liking(kitchen: Kitchen, batch: UUID, taught: Mapping[str, tuple[float, float]]) -> None:
    """Keep what a finished batch taught of it, in the place of what it taught before; nothing, where it goes on."""
    TaughtLiking.objects.filter(batch=batch).delete()
    TaughtLiking.objects.bulk_create(
        TaughtLiking(kitchen=kitchen, batch=batch, of=of, value=value, error=error)
        for of, (value, error) in taught.items()
    )


def forget_taught(kitchen: Kitchen, batch: UUID) -> None:
    """Forget what a batch taught of its pan, of what is liked and of its thickener."""
    for rows in (kitchen.learned_rates, kitchen.likings, kitchen.strengths):
        rows.filter(batch=batch).delete()


def forget_tasted(kitchen: Kitchen) -> None:
    """Forget what every batch taught of what is liked and of what thickens."""
    kitchen.likings.all().delete()
    kitchen.strengths.all().delete()


def strengths_of(kitchen_id: UUID) -> dict[str, LearnedStrength]:
    """How strongly each dry thickener binds in a kitchen, where batches taught it."""
    taught: dict[str, list[tuple[float, float]]] = {}
    rows = TaughtStrength.objects.filter(kitchen_id=kitchen_id).values_list("dry", "log_times", "error")
    for dry, log_times, error in rows[: 20 * MOST_REMEMBERED]:
        if len(taught.setdefault(dry, [])) < MOST_REMEMBERED:
            taught[dry].append((log_times, error))
    return learned_strengths(taught)


def learn_strength(kitchen: Kitchen, batch: UUID, taught: Strength | None) -> None:
    """Keep what a finished batch taught of it, in the place of what it taught before; nothing, where it goes on."""
    TaughtStrength.objects.filter(batch=batch).delete()
    if taught is not None:
        TaughtStrength.objects.create(kitchen=kitchen, batch=batch, **taught._asdict())


def _owned(model: type[_Thing], kitchen_id: UUID, pk: UUID) -> _Thing:
    found = model.objects.filter(kitchen_id=kitchen_id, pk=pk).first()
    if found is None:
        raise Http404
    return found


def look_around(name: str, cook: User, pans: tuple[PanSpec, ...], burners: tuple[BurnerSpec, ...]) -> Member:
    """A made-up kitchen of somebody's own to look around in."""
    kitchen = open_kitchen(name, cook, pans=pans, burners=burners, is_demo=True, claimed=False)
    return Member(cook, kitchen, Membership.Role.OWNER)


def looking_around(since: datetime) -> list[Member]:
    """Who looks around in a made-up kitchen that was opened after then, the first first."""
    rows = Membership.objects.filter(kitchen__is_demo=True, kitchen__created_at__gt=since)
    found = rows.select_related("user", "kitchen").order_by("kitchen__created_at")
    return [Member(one.user, one.kitchen, one.role) for one in found]


#: What a kitchen says of itself in its file.
_SAID = ("name", "altitude_m", "limits", "time_zone")


def said_of(kitchen: Kitchen) -> dict[str, Any]:
    """What a kitchen says of itself: its name, its altitude in metres, its limits and its time zone."""
    return {name: getattr(kitchen, name) for name in _SAID}


def settle_kitchen(kitchen: Kitchen, said: Mapping[str, Any]) -> None:
    """Take what a file says of a kitchen where this one has said nothing itself; its name stays."""
    usual = Kitchen()
    taken = [name for name in _SAID[1:] if getattr(kitchen, name) == getattr(usual, name)]
    for name in taken:
        setattr(kitchen, name, said[name])
    kitchen.save(update_fields=taken)


def people_of(kitchen: Kitchen) -> dict[str, int]:
    """Who works in a kitchen, by the names they sign in with."""
    return dict(kitchen.memberships.values_list("user__username", "user_id"))

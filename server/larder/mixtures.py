"""Thickeners that a kitchen mixes itself: looked at as they are written, kept, changed, put away."""

from __future__ import annotations

from collections.abc import Iterator
from uuid import UUID

from django.http import HttpRequest
from kitchens.services import member_of
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict
from shared.refusals import RefusedError
from shared.shapes import SaidOut, Shape
from spissus_core.amounts.fields import Name, Remark
from spissus_core.amounts.quantities import show_mass, show_plain
from spissus_core.intake.mixture import HANDLINGS, GoesIn, read_mixture
from spissus_core.intake.mixture import Mixture as MixtureSpec
from spissus_core.messages import Message, Term, say, several
from spissus_core.pantry.guests import AVOIDED_WORDS
from spissus_core.phenomena.body import flour_equivalent_g
from words import plain

from .models import Mixture
from .services import key_of, own_ingredients, row_of, spec_of

router = Router(auth=SessionAuth(), tags=["larder"])

#: More mixtures of its own than any kitchen keeps.
MOST_MIXTURES = 60

#: Less of anything than this in 100 g is not worth a word, g. Modelling choice.
LEAST_TOLD_G = 0.5


class MixtureIn(Shape):
    """A thickener that a kitchen mixes itself: a list of what is in it, a line each, and how it goes in."""

    model_config = ConfigDict(extra="forbid")

    name: Name
    text: Remark
    goes_in: GoesIn


class MixtureRead(Shape):
    """How the list of a mixture was understood, line by line; what comes of it; and what somebody may not have."""

    read: list[SaidOut]
    said: list[SaidOut]
    brings: list[str]

    @classmethod
    def of(cls, spec: MixtureSpec) -> MixtureRead:
        return cls(
            read=SaidOut.of_all(say("mixtures.line", amount=line.shown, name=line.what.name) for line in spec.lines),
            said=SaidOut.of_all(_comes_to(spec)),
            brings=[plain(Term(AVOIDED_WORDS.get(key, key))) for key in spec.school("").allergens],
        )


class MixtureOut(MixtureIn):
    """A mixture of the kitchen's own: as it was said, the key that it goes by, and how it was understood."""

    id: UUID
    key: str
    goes_in_said: str
    understood: MixtureRead

    @classmethod
    def of(cls, row: Mixture) -> MixtureOut:
        spec = spec_of(row)
        return cls(
            id=row.id,
            key=key_of(row),
            name=spec.name,
            text=spec.text,
            goes_in=spec.goes_in,
            goes_in_said=plain(Term(spec.handling.label)),
            understood=MixtureRead.of(spec),
        )


class HandlingOut(Shape):
    """How a mixture may go in."""

    key: GoesIn
    label: str


class MixturesOut(Shape):
    """The kitchen's mixtures, and how such a one may go in."""

    mixtures: list[MixtureOut]
    goes_in: list[HandlingOut]


def _comes_to(spec: MixtureSpec) -> Iterator[Message]:
    """What a gram of it does, and what 100 g of it bring."""
    school = spec.school("")
    holds = school.added(100.0)
    flour_g = flour_equivalent_g(holds.starch)
    if flour_g > 0.0:
        yield say("mixtures.does", mass=show_mass(100.0), flour=show_mass(flour_g))
    brought = [
        say("mixtures.so_much", grams=show_plain(grams, "g", 2), what=Term(name))
        for name, grams in (("salt", holds.salt), ("fat", holds.fat_emulsified))
        if grams >= LEAST_TOLD_G
    ]
    if brought:
        yield say("mixtures.brings", what=several("both", *brought))


def _read(kitchen_id: UUID, data: MixtureIn) -> MixtureSpec:
    return read_mixture(data.name, data.text, data.goes_in, own_ingredients(kitchen_id))


@router.get("/mixtures", response=MixturesOut)
def mixtures(request: HttpRequest) -> MixturesOut:
    """The thickeners that the kitchen mixes itself."""
    rows = Mixture.objects.filter(kitchen=member_of(request).kitchen, retired=False)
    ways = [HandlingOut(key=key, label=plain(Term(one.label))) for key, one in HANDLINGS.items()]
    return MixturesOut(mixtures=[MixtureOut.of(row) for row in rows], goes_in=ways)


@router.post("/previews/mixture", response=MixtureRead)
def look(request: HttpRequest, data: MixtureIn) -> MixtureRead:
    """How a list would be understood; nothing is saved."""
    return MixtureRead.of(_read(member_of(request).kitchen.pk, data))


@router.post("/mixtures", response=MixtureOut)
def mix(request: HttpRequest, data: MixtureIn) -> MixtureOut:
    """Keep a mixture."""
    member = member_of(request)
    member.require_cook()
    if Mixture.objects.filter(kitchen=member.kitchen, retired=False).count() >= MOST_MIXTURES:
        raise RefusedError(422, say("mixtures.enough"))
    spec = _read(member.kitchen.pk, data).model_dump(mode="json")
    return MixtureOut.of(Mixture.objects.create(kitchen=member.kitchen, spec=spec))


@router.put("/mixtures/{mixture_id}", response=MixtureOut)
def change(request: HttpRequest, mixture_id: UUID, data: MixtureIn) -> MixtureOut:
    """Change it; batches keep what went into them."""
    row = row_of(member_of(request), Mixture, mixture_id)
    row.spec = _read(row.kitchen_id, data).model_dump(mode="json")
    row.save(update_fields=["spec"])
    return MixtureOut.of(row)


@router.delete("/mixtures/{mixture_id}", response={204: None})
def remove(request: HttpRequest, mixture_id: UUID) -> Status[None]:
    """Put it away."""
    row = row_of(member_of(request), Mixture, mixture_id)
    row.put_away()
    return Status(204, None)

"""House dishes over HTTP: kept, listed, opened for so many people, and what they come to."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from typing import TYPE_CHECKING, Annotated
from uuid import UUID

from batches.intake import LineOut, line_out
from batches.remembering import NoteOut, noted_of
from batches.services import present
from django.http import HttpRequest, HttpResponse
from interchange import DISH_FORMATS, DishFormatName, DishTold, file_answer
from kitchens.services import Member, burner_spec, kitchen_pairs, member_of, pan_spec, pans_of, strengths_of
from ninja import Query, Router
from ninja.security import SessionAuth
from pydantic import ConfigDict, Field
from shared.refusals import RefusedError, may_refuse
from shared.shapes import PanShape, RangeOut, SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.fields import Percent, Title
from spissus_core.amounts.quantities import UnitSystem, show_length, show_mass, show_minutes, show_plain, show_volume
from spissus_core.errors import SpissusError
from spissus_core.house_dish import (
    HouseDish,
    changes,
    cooked_said,
    foreseen,
    in_short,
    most_people,
    needed,
    wanted_said,
    way_said,
)
from spissus_core.intake.braise import Braise
from spissus_core.intake.liquid import Character
from spissus_core.measuring.vessels import Pan
from spissus_core.messages import Message, Shown, Term, say, sentences
from spissus_core.phenomena.body import LADDER
from spissus_core.phenomena.heating import Burner
from spissus_core.planning.spoken import way_line
from spissus_core.planning.tone import tone
from words import plain

from . import services
from .models import DishVersion
from .models import HouseDish as Row

router = Router(auth=SessionAuth(), tags=["house dishes"])

#: For how many a dish may be cooked.
People = Annotated[int, Field(ge=1, le=2000)]

# What a page sends of a wish: the model that the registry makes.
if TYPE_CHECKING:
    WantedIn = ev.Form
else:
    WantedIn = ev.form_of(ev.Wanted)


class KeepIn(Shape):
    """A batch to be kept as a house dish, for so many people; the page makes the dish's id, or says which it is."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    batch_id: UUID
    name: Title
    people: People


class ChangeIn(Shape):
    """What is otherwise with a dish; what is not said stays. ``back_to`` is the number of an earlier version."""

    model_config = ConfigDict(extra="forbid")

    name: Title | None = None
    retired: bool | None = None
    back_to: Annotated[int, Field(ge=1, le=services.MOST_VERSIONS)] | None = None
    salt_percent: Percent | None = None
    body: Annotated[int, Field(ge=0, le=5)] | None = None


class ForQuery(Shape):
    """For how many a dish is asked for, and in whose units its lines are told anew."""

    people: People | None = None
    units: UnitSystem = "metric"


class HouseDishLine(Shape):
    """A house dish in a list: for how many it is, which version that is, when and by whom it was kept. Where it cannot
    be read any more, ``said`` says so, and nothing is known of it."""

    id: UUID
    name: str
    retired: bool
    people: int
    number: int
    at: datetime
    by: str | None
    said: SaidOut
    readable: bool


class VersionOut(Shape):
    """A version: who kept it when, and what was otherwise than in the one before."""

    number: int
    at: datetime
    by: str | None
    changes: list[SaidOut]


class StirredOut(Shape):
    """Something that was stirred in after the liquid was strained."""

    name: str
    amount: ShownOut


class BeginsOut(Shape):
    """What a start of the dish begins with; the rest is measured."""

    name: str
    character: Character
    braise: Braise | None
    lines: list[LineOut]
    wanted: WantedIn | None


class HouseDishOut(HouseDishLine):
    """A house dish for ``people``, who may be others than it was kept for. ``bodies`` are the words for how thick."""

    kept_for: int
    lines: list[LineOut]
    stirred_in: list[StirredOut]
    cooked: SaidOut | None
    wanted: SaidOut | None
    salt_percent: float | None
    body: int | None
    bodies: list[str]
    way: SaidOut | None
    allergens: list[str]
    notes: list[NoteOut]
    versions: list[VersionOut]
    begins: BeginsOut | None


class PlaceQuery(ForQuery):
    """In which pan, on which burner; where nobody says, where it was cooked before, or in the smallest pan that
    holds it."""

    pan_id: UUID | None = None
    burner_id: UUID | None = None


class ComesToOut(Shape):
    """What a dish comes to in a pan: what is strained, how deep that stands, where it stops, the way and its time."""

    people: int
    pan: PanShape
    burner: str
    depth_mm: float
    fat_mm: float
    liquid: ShownOut
    stop: ShownOut | None
    tone: float
    boils: RangeOut | None
    minutes: ShownOut | None
    said: SaidOut


class DishAheadOut(Shape):
    """What it comes to where it was kept, and what it comes to here; ``apart`` says how amounts and time go apart, and
    ``problem`` why it cannot."""

    pan_id: UUID
    burner_id: UUID
    there: ComesToOut | None
    here: ComesToOut | None
    apart: SaidOut | None
    problem: SaidOut | None


class WantedDish(Shape):
    """One dish of a list to get ready."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    people: People


class PrepIn(Shape):
    """Dishes to get ready."""

    model_config = ConfigDict(extra="forbid")

    dishes: Annotated[list[WantedDish], Field(min_length=1, max_length=40)]


class EachOut(Shape):
    """How much of an ingredient goes into one of the dishes."""

    dish: str
    amount: ShownOut


class NeededOut(Shape):
    """An ingredient: how much of it in all, and for what."""

    name: str
    amount: ShownOut
    each: list[EachOut]


class UntoldOut(Shape):
    """A line that tells no amount, and its dish."""

    dish: str
    text: str


class PrepOut(Shape):
    """Everything that several dishes need."""

    needed: list[NeededOut]
    untold: list[UntoldOut]


@router.get("/house-dishes", response=list[HouseDishLine])
def house_dishes(request: HttpRequest) -> list[HouseDishLine]:
    """The kitchen's house dishes, by name; those that were put away too."""
    member = member_of(request)
    newest = services.newest_of(member)
    rows = Row.objects.filter(kitchen=member.kitchen)
    return [HouseDishLine(**_line(row, newest[row.pk])) for row in rows if row.pk in newest]


@router.post("/house-dishes", response=HouseDishOut, openapi_extra=may_refuse(404, 409))
def keep(request: HttpRequest, data: KeepIn) -> HouseDishOut:
    """Keep a batch as a house dish, or as a new version of one."""
    member = member_of(request)
    row = services.keep(member, data.id, data.name, data.people, data.batch_id)
    return _dish_out(member, row, ForQuery())


@router.post("/house-dishes/prep", response=PrepOut, openapi_extra=may_refuse(404))
def prep(request: HttpRequest, data: PrepIn) -> PrepOut:
    """Everything that several dishes need, added up; nothing is saved."""
    wanted = [(one.id, one.people) for one in data.dishes]
    rows, untold = needed(services.chosen(member_of(request), wanted))
    return PrepOut(
        needed=[
            NeededOut(
                name=row.name,
                amount=ShownOut.of(row.amount),
                each=[EachOut(dish=dish, amount=ShownOut.of(amount)) for dish, amount in row.each],
            )
            for row in rows
        ],
        untold=[UntoldOut(dish=dish, text=text) for dish, text in untold],
    )


@router.get("/house-dishes/{dish_id}", response=HouseDishOut)
def house_dish(request: HttpRequest, dish_id: UUID, query: Query[ForQuery]) -> HouseDishOut:
    """A house dish, for so many people."""
    member = member_of(request)
    return _dish_out(member, services.dish_of(member, dish_id), query)


@router.patch("/house-dishes/{dish_id}", response=HouseDishOut)
def change(request: HttpRequest, dish_id: UUID, data: ChangeIn) -> HouseDishOut:
    """Change a dish: its name, whether it is put away, its salt and body, or back to what it was."""
    member = member_of(request)
    row = services.change(member, dish_id, **data.model_dump())
    return _dish_out(member, row, ForQuery())


@router.get("/house-dishes/{dish_id}/foreseen", response=DishAheadOut)
def comes_to(request: HttpRequest, dish_id: UUID, query: Query[PlaceQuery]) -> DishAheadOut:
    """What the dish comes to in a pan of the kitchen; nothing is saved."""
    member = member_of(request)
    services.dish_of(member, dish_id)
    kept = services.read(services.versions_of(member, dish_id)[0])
    # It is begun with what is known today of what it is bound with.
    kept = replace(kept, started=kept.started.model_copy(update={"binds": strengths_of(member.kitchen.pk)}))
    dish = kept.for_people(query.people or kept.people)
    pan_id, burner_id = _place(member, dish, query)
    pan = pan_spec(member.kitchen.pk, pan_id)
    burner = burner_spec(member.kitchen, burner_id, pan)
    here, problem = _comes_to(dish, pan, burner)
    if problem is not None and (most := most_people(dish, pan)) > 0:
        problem = sentences(problem, say("house_dishes.holds_for", pan=pan.name, people=most))
    there, _ = _comes_to(kept, kept.started.pan, kept.started.burner)
    apart = None
    if here is not None and there is not None and here.minutes and there.minutes and here.people != there.people:
        times = show_plain(here.people / there.people, digits=2)
        now, then = (show_minutes(one.minutes.value) for one in (here, there) if one.minutes)
        apart = SaidOut.of(say("house_dishes.apart", times=times, now=now, then=then))
    return DishAheadOut(
        pan_id=pan_id, burner_id=burner_id, there=there, here=here, apart=apart, problem=SaidOut.maybe(problem)
    )


@router.get("/house-dishes/{dish_id}/files/{name}")
def dish_file(request: HttpRequest, dish_id: UUID, name: DishFormatName, query: Query[ForQuery]) -> HttpResponse:
    """A house dish in one of the open formats."""
    member = member_of(request)
    row = services.dish_of(member, dish_id)
    dish = services.read(services.versions_of(member, dish_id)[0])
    told = DishTold(row.name, dish.for_people(query.people or dish.people, query.units), query.units)
    written = DISH_FORMATS[name]
    return file_answer(written.write(told), written.media_type, row.name, name)


def _place(member: Member, dish: HouseDish, query: PlaceQuery) -> tuple[UUID, UUID]:
    """The pan and the burner that are asked for. Raises RefusedError where the kitchen has none."""
    pairs = kitchen_pairs(member.kitchen.pk)
    if not pairs:
        raise RefusedError(422, say("house_dishes.no_place"))
    pans, kept = pans_of(member.kitchen.pk), dish.started
    # Where it was cooked before, and else the smallest that holds it.
    own = [pan_id for pan_id, pan in pans if pan.name == kept.pan.name]
    fits = [pan_id for pan_id, pan in pans if most_people(dish, pan) >= dish.people]
    pan = next((pan_id for pan_id in own if pan_id in fits), next(iter(fits), pans[-1][0]))
    burner = next((pair.burner_id for pair in pairs if pair.burner.name == kept.burner.name), pairs[0].burner_id)
    return query.pan_id or pan, query.burner_id or burner


def _line(row: Row, version: DishVersion) -> dict[str, object]:
    told = {
        "id": row.pk,
        "name": row.name,
        "retired": row.retired,
        "people": version.people,
        "number": version.number,
        "at": version.at,
        "by": None if version.author is None else version.author.get_username(),
    }
    try:
        return told | {"said": SaidOut.of(in_short(services.read(version))), "readable": True}
    except SpissusError as error:
        return told | {"said": SaidOut.of(error.message), "readable": False}


def _dish_out(member: Member, row: Row, query: ForQuery) -> HouseDishOut:
    versions = services.versions_of(member, row.pk)
    line = _line(row, versions[0])
    told = {"kept_for": versions[0].people, "versions": _versions_out(versions)}
    told["bodies"] = [plain(Term(step.everyday)) for step in LADDER]
    told["notes"] = noted_of(member.kitchen.pk, row.name, row.pk)
    nothing = dict.fromkeys(("cooked", "wanted", "salt_percent", "body", "way", "begins"))
    if not line["readable"]:
        return HouseDishOut(**line, **told, **nothing, lines=[], stirred_in=[], allergens=[])
    kept = services.read(versions[0])
    dish = kept.for_people(query.people or kept.people, query.units)
    braise, wanted = dish.started.liquid.braise, dish.wanted
    lines = [line_out(one) for one in dish.lines]
    return HouseDishOut(
        **line | {"people": dish.people},
        **told,
        lines=lines,
        stirred_in=[StirredOut(name=one.what.name, amount=ShownOut.of(_amount(one))) for one in dish.added],
        cooked=None if braise is None else SaidOut.of(cooked_said(braise)),
        wanted=None if wanted is None else SaidOut.of(wanted_said(wanted)),
        salt_percent=None if wanted is None else wanted.salt_percent,
        body=None if wanted is None else wanted.body,
        way=SaidOut.maybe(way_said(dish)),
        allergens=list(dish.allergens),
        begins=BeginsOut(
            name=row.name,
            character=dish.started.liquid.character,
            braise=braise,
            lines=lines,
            wanted=None if wanted is None else WantedIn.model_construct(**wanted.model_dump(exclude={"time_zone"})),
        ),
    )


def _amount(added: ev.Added) -> Shown:
    return show_mass(added.mass_g) if added.mass_g is not None else show_volume(added.volume_ml or 0.0)


def _versions_out(versions: list[DishVersion]) -> list[VersionOut]:
    return [
        VersionOut(
            number=version.number,
            at=version.at,
            by=None if version.author is None else version.author.get_username(),
            changes=SaidOut.of_all(_changes(before, version)),
        )
        for version, before in zip(versions, [*versions[1:], None], strict=True)
    ]


def _changes(before: DishVersion | None, after: DishVersion) -> tuple[Message, ...]:
    """What is otherwise; nothing for the first, or where one of the two cannot be read any more."""
    if before is None:
        return ()
    try:
        return changes(services.read(before), services.read(after))
    except SpissusError:
        return ()


def _comes_to(dish: HouseDish, pan: Pan, burner: Burner) -> tuple[ComesToOut | None, Message | None]:
    """What the dish comes to there, or why it cannot."""
    try:
        found = foreseen(dish, pan, burner, present())
    except SpissusError as error:
        return None, error.message
    pot, route, wish = found.board.timeline.pot, found.route, found.board.timeline.asked.wanted
    assert pot is not None
    boils = route is not None and route.steam_g > 0.0
    said = say("house_dishes.nothing_wished") if route is None or wish is None else way_line(pot, wish, route)
    return ComesToOut(
        people=dish.people,
        pan=PanShape(**pan.model_dump()),
        burner=burner.name,
        depth_mm=pot.depth_mm,
        fat_mm=pot.fat_mm,
        liquid=ShownOut.of(show_volume(found.liquid_ml)),
        stop=ShownOut.of(show_length(route.mark_mm)) if route is not None and boils else None,
        tone=tone(pot.contents),
        boils=RangeOut.of(route.minutes) if route is not None and boils else None,
        minutes=None if found.minutes is None else ShownOut.of(show_minutes(found.minutes.best)),
        said=SaidOut.of(said),
    ), None

"""Batches over HTTP: start, read, append, and the computations that save nothing."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Literal, cast
from uuid import UUID, uuid4

from django.http import HttpRequest, HttpResponse
from interchange import FORMATS, KITCHEN_FORMATS, FormatName, Kitchen, KitchenFormatName, Told, file_answer
from interchange.recipe import MOST_BYTES, recipe_in
from kitchens.services import Member, kitchen_pairs, member_of, pan_spec, pans_of
from larder.services import mixtures, own_ingredients, school_of
from ninja import Query, Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict, Field
from shared.refusals import may_refuse
from shared.shapes import PanShape, ReasonOut, SaidOut, Shape, sent
from spissus_core import events as ev
from spissus_core.amounts.fields import Title
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.board import Board
from spissus_core.errors import SpissusError
from spissus_core.events.doubts import must_not_boil
from spissus_core.fold import fold
from spissus_core.intake.lines import read_line, read_list
from spissus_core.intake.liquid import StrainedLiquid, strained_liquid
from spissus_core.intake.sentence import read_sentence
from spissus_core.messages import say
from spissus_core.pantry.ingredients import ingredient
from spissus_core.pantry.schools import OWN_PLACE, SCHOOLS, SchoolKey
from spissus_core.pantry.ways import WAYS
from spissus_core.phenomena.keeping import KeptWhat
from spissus_core.planning.bench import stop_of
from spissus_core.planning.journey import journey
from spissus_core.planning.marks import marks as skewer_marks
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.solving import solve_route
from spissus_core.planning.trade import trade
from spissus_core.pot import Pot
from spissus_core.wish import Wish

from . import bench, choosing, door, finishing, heating, intake, logbook, marks, remembering, services, shelf, ways
from .finding import found_by
from .models import Batch
from .pot import pot_out
from .story import StoryOut, story_out

#: A saved page, or a document, as it is.
A_PAGE = {
    "requestBody": {
        "required": True,
        "content": {"text/plain": {"schema": {"type": "string", "maxLength": MOST_BYTES}}},
    }
}

router = Router(auth=SessionAuth(), tags=["batches"])


def _not_ahead(at: datetime) -> datetime:
    """A time in UTC, not later than now: a page's clock may run ahead.

    The first and the last day of the calendar may not exist in UTC; they are as good as its ends.
    """
    try:
        at = at.astimezone(UTC)
    except OverflowError:
        at = datetime(1 if at.year == 1 else 9999, 1, 1, tzinfo=UTC)
    return min(at, datetime.now(UTC))


@router.post("/previews/start", response=intake.PreviewOut, openapi_extra=may_refuse(404))
def preview_start(request: HttpRequest, data: door.StartedIn, query: Query[intake.StartQuery]) -> intake.PreviewOut:
    """What a start would give; nothing is saved."""
    member = member_of(request)
    pans = pans_of(member.kitchen.pk)
    if query.any_pan:
        liquid = cast("StrainedLiquid", getattr(data, "liquid"))  # noqa: B009
        data = data.model_copy(update={"pan_id": intake.assumed_pan(pans, data.pan_id, liquid)})
    started = services.written_out(member, data)
    assert isinstance(started, ev.Started)
    timeline = fold([ev.Event(id=uuid4(), seq=1, at=datetime.now(UTC), payload=started)], stop_of=stop_of)
    if timeline.pot is None:
        problem = timeline.moments[0].problem or SpissusError("liquid", say("intake.start_cannot"))
        raise intake.with_pans_that_fit(problem, pans)
    strained = strained_liquid(started.pan, started.liquid)
    return intake.PreviewOut(
        pan=PanShape(**started.pan.model_dump()),
        pot=pot_out(timeline.pot),
        marks=[marks.MarkOut.of(mark) for mark in skewer_marks(timeline)],
        ribbon=[marks.stretch_out(s) for s in journey(timeline)],
        estimated=(
            None if strained.estimated is None else intake.estimated_out(strained.estimated, started.liquid.braise)
        ),
        doubt=SaidOut.maybe(strained.doubt),
        ask_first=SaidOut.maybe(intake.first_question(started, query.unsure, own_ingredients(member.kitchen.pk))),
        pan_id=data.pan_id,
    )


@router.post("/previews/list", response=intake.LinesOut)
def preview_list(request: HttpRequest, data: intake.ListIn) -> intake.LinesOut:
    """A pasted list of what went in, read."""
    own = own_ingredients(member_of(request).kitchen.pk)
    read = read_list(data.text, own)
    return intake.LinesOut(lines=[intake.read_out(line, own) for line in read.lines], rest=read.rest)


@router.post("/previews/recipe", response=intake.RecipeOut, openapi_extra=A_PAGE | may_refuse(413))
def preview_recipe(request: HttpRequest) -> intake.RecipeOut:
    """What goes into a recipe of another program: its lines, read as if they had been pasted."""
    own = own_ingredients(member_of(request).kitchen.pk)
    recipe = recipe_in(request.read())
    read = read_list("\n".join(recipe.lines), own)
    lines = [intake.read_out(line, own) for line in read.lines]
    return intake.RecipeOut(name=recipe.name, lines=lines, rest=read.rest)


@router.post("/previews/line", response=intake.LinesOut)
def preview_line(request: HttpRequest, data: intake.LineIn) -> intake.LinesOut:
    """One line of it, read, or corrected."""
    own = own_ingredients(member_of(request).kitchen.pk)
    meant = None
    if data.ingredient is not None:
        meant = next((i for i in own if i.key == data.ingredient), None) or ingredient(data.ingredient)
    chosen = {n: v for n in ("use", "left", "poured_off") if (v := getattr(data, n)) is not None}
    lines = [replace(line, **chosen) for line in read_line(data.text, own, meant)]
    return intake.LinesOut(lines=[intake.read_out(line, own) for line in lines], rest="")


@router.post("/previews/sentence", response=intake.SentenceOut, openapi_extra=may_refuse(404))
def preview_sentence(request: HttpRequest, data: intake.SentenceIn) -> intake.SentenceOut:
    """A sentence about the strained liquid, read."""
    member = member_of(request)
    pan = pan_spec(member.kitchen.pk, data.pan_id) if data.pan_id else None
    return intake.sentence_out(read_sentence(data.text, None if pan is None else pan.capacity_ml), data.units)


@router.post("/previews/concentrate", response=intake.ConcentrateOut)
def preview_concentrate(request: HttpRequest, data: intake.ConcentrateIn) -> intake.ConcentrateOut:
    """Concentrate and water for a volume."""
    member_of(request)
    return intake.concentrate_out(data)


@router.get("/batches", response=logbook.BatchPage)
def list_batches(
    request: HttpRequest,
    place: Query[logbook.Place],
    away: bool = False,
    q: Annotated[str, Field(max_length=200)] = "",
    house_dish: UUID | None = None,
) -> logbook.BatchPage:
    """Batches, newest first; those that were put ``away``; those of a house dish; or those in which every word of ``q``
    stands."""
    batches = Batch.objects.filter(kitchen=member_of(request).kitchen, put_away_at__isnull=not away)
    if house_dish is not None:
        batches = batches.filter(house_dish=house_dish)
    return logbook.PAGES.of(found_by(batches, q) if q.strip() else batches, place, request)


@router.post("/batches", response=bench.BatchOut, openapi_extra=may_refuse(404, 409))
def start(request: HttpRequest, data: door.StartIn) -> HttpResponse:
    """Start a batch."""
    member, at = member_of(request), _not_ahead(data.at)
    started = services.start_batch(
        member, data.id, data.name, event_id=data.event_id, at=at, started=data.start, house_dish=data.house_dish
    )
    return sent(started)


@router.get("/batches/{batch_id}", response=bench.BatchOut)
def read(request: HttpRequest, batch_id: UUID) -> HttpResponse:
    """A batch as it stands."""
    batch = services.batch_of(member_of(request), batch_id)
    return sent(bench.batch_out(batch, Board(services.log_of(batch), services.present())))


@router.get("/batches/{batch_id}/authors", response=list[logbook.AuthorOut])
def authors(request: HttpRequest, batch_id: UUID) -> list[logbook.AuthorOut]:
    """Who recorded which entry of a batch; of what nobody is known to have recorded, nothing."""
    batch = services.batch_of(member_of(request), batch_id)
    told = batch.events.filter(author__isnull=False).values_list("id", "author__username")
    return [logbook.AuthorOut(event=event, name=name) for event, name in told]


@router.get("/batches/{batch_id}/last-time", response=list[remembering.NoteOut])
def last_time(request: HttpRequest, batch_id: UUID) -> list[remembering.NoteOut]:
    """What was noted of this dish last time, and comes back now."""
    batch = services.batch_of(member_of(request), batch_id)
    timeline = fold(services.log_of(batch), stop_of=None)
    return remembering.last_time(batch, timeline.remembered)


class ArrangeIn(Shape):
    """Another name for a batch, and whether it is put away; what is not said stays."""

    model_config = ConfigDict(extra="forbid")

    name: Title | None = None
    away: bool | None = None


@router.patch("/batches/{batch_id}", response=logbook.BatchLine)
def arrange(request: HttpRequest, batch_id: UUID, data: ArrangeIn) -> logbook.BatchLine:
    """Give a batch another name, put it away, or bring it back."""
    return logbook.line_out(services.arrange(member_of(request), batch_id, name=data.name, away=data.away))


@router.delete("/batches/{batch_id}", response={204: None})
def delete(request: HttpRequest, batch_id: UUID) -> Status[None]:
    """Delete a batch for good."""
    services.delete_for_good(member_of(request), batch_id)
    return Status(204, None)


@router.get("/batches/{batch_id}/alone", response=heating.AloneOut)
def alone(request: HttpRequest, batch_id: UUID) -> heating.AloneOut:
    """What a page needs to know of a heated pot before it has nobody to ask any more."""
    batch = services.batch_of(member_of(request), batch_id)
    return heating.alone_out(batch.last_seq, Board(services.log_of(batch), services.present()))


@router.post("/batches/{batch_id}/events", response=bench.BatchOut, openapi_extra=may_refuse(409))
def append(request: HttpRequest, batch_id: UUID, data: door.EventIn) -> HttpResponse:
    """Record an event."""
    member = member_of(request)
    return sent(services.append(member, batch_id, event_id=data.id, at=_not_ahead(data.at), said=data.payload))


@router.post("/batches/{batch_id}/foreseen", response=finishing.ForeseenOut, openapi_extra=may_refuse(404))
def foreseen(request: HttpRequest, batch_id: UUID, data: door.EntryIn) -> finishing.ForeseenOut:
    """What an entry would change of the pot; nothing is saved."""
    return finishing.foreseen_out(*services.foreseen_by(member_of(request), batch_id, data.payload))


@router.get("/batches/{batch_id}/finishes", response=list[finishing.FinishOut])
def finishes(request: HttpRequest, batch_id: UUID) -> list[finishing.FinishOut]:
    """What may finish the sauce, by what it lacks, each with all that it changes."""
    board, pot = _potted(services.batch_of(member_of(request), batch_id))
    return finishing.finishes_out(board.timeline, pot)


@router.post("/batches/{batch_id}/routes", response=ways.RoutesOut)
def routes(request: HttpRequest, batch_id: UUID, data: ev.Wanted, asked: SchoolKey | None = None) -> HttpResponse:
    """Ways to a sauce, also with the school that was ``asked`` for; nothing is saved."""
    member = member_of(request)
    board, pot = _potted(services.batch_of(member, batch_id))
    wish = _timed(member, board, data)
    splits = frozenset(must_not_boil(board.timeline))
    chosen = board.timeline.asked.way
    # What was chosen stays among them, whatever it is made with, but for another mixture that is looked at.
    taken = None if chosen is None or chosen not in WAYS else WAYS[chosen].school
    pot, place = _with_mixture(member, pot, asked)
    if pot is not board.timeline.pot and taken is not None and taken.key == place:
        chosen = None
    schools = sorted({key for key in (place, taken and taken.key) if key})
    found = solve_routes(pot, wish, agreed=board.timeline.asked.wanted, splits=splits, asked=schools)
    solved = tuple(board.as_drawn(wish.of(pot), route) if route.kind == chosen else route for route in found)
    # Another pan is looked for only where there is a time to keep.
    pairs = kitchen_pairs(member.kitchen.pk) if wish.time_there_is is not None else ()
    return sent(ways.routes_out(pot, wish, solved, trade(pot, wish, asked=schools), pairs=pairs, chosen=chosen))


@router.post("/batches/{batch_id}/schools", response=choosing.ChoosingOut)
def schools(
    request: HttpRequest,
    batch_id: UUID,
    data: ev.Wanted,
    like: ev.RouteKind,
    *,
    hand: SchoolKey | None = None,
    frozen: bool = False,
    by_spoon: bool = False,
) -> choosing.ChoosingOut:
    """What else this pot may be thickened with, on a way like the one with the school in ``hand``, where it is to be
    ``frozen``, or there is no scale; nothing is saved."""
    member = member_of(request)
    batch = services.batch_of(member, batch_id)
    board, pot = _potted(batch)
    wish, last = _timed(member, board, data), services.thickened_with(batch.kitchen_id, other_than=batch.pk)
    habit = last[0] if last else None
    own = tuple(pot.binding(one) for one in mixtures(member.kitchen.pk))
    pot, _ = _with_mixture(member, pot, hand)
    return choosing.choosing_out(
        board.timeline, pot, wish, like, frozen=frozen, by_spoon=by_spoon, habit=habit, own=own
    )


def _with_mixture(member: Member, pot: Pot, asked: str | None) -> tuple[Pot, str | None]:
    """The pot with the mixture that was asked for, and its place among the ways; both as they are for any school."""
    if asked is None or asked in SCHOOLS:
        return pot, asked
    if pot.own is not None and pot.own.key == asked:
        return pot, OWN_PLACE
    return pot.but(mixture=school_of(member.kitchen.pk, asked)), OWN_PLACE


def _timed(member: Member, board: Board, data: ev.Wanted) -> Wish:
    """A wish as it would stand if it were said now."""
    told = services.written_out(member, data)
    assert isinstance(told, ev.Wanted)
    timed, _ = told.timed(board.timeline, board.now or services.present())
    return timed.said_again(board.timeline.asked.wanted)


@router.post("/batches/{batch_id}/routes/{kind}/reasons", response=list[ReasonOut])
def reasons(
    request: HttpRequest, batch_id: UUID, kind: ev.RouteKind, data: ev.Wanted, asked: SchoolKey | None = None
) -> list[ReasonOut]:
    """The arithmetic of one of the ways, with the mixture that was ``asked`` for; nothing is saved."""
    member = member_of(request)
    board, pot = _potted(services.batch_of(member, batch_id))
    pot, _ = _with_mixture(member, pot, asked)
    wish = _timed(member, board, data).of(pot)
    pairs = kitchen_pairs(member.kitchen.pk) if wish.time_there_is is not None else ()
    route = board.as_drawn(wish, solve_route(pot, wish, kind))
    return ways.reasons_out(pot, wish, ways.in_time(pot, wish, route, pairs))


@router.get("/batches/{batch_id}/chilling/{what}", response=list[shelf.ChillOut])
def chilling(request: HttpRequest, batch_id: UUID, what: KeptWhat | Literal["pot"]) -> list[shelf.ChillOut]:
    """How each way would cool what stands aside, the sauce, or the pot as it is, before it is set to cool."""
    board, _ = _potted(services.batch_of(member_of(request), batch_id))
    return shelf.chilling_out(board.timeline, what)


@router.get("/shelf", response=list[shelf.JarOut])
def kept(request: HttpRequest) -> list[shelf.JarOut]:
    """Everything that the kitchen keeps, what is to be used soonest first."""
    batches, now = services.keeping_batches(member_of(request)), datetime.now(UTC)
    jars = [jar for batch in batches for jar in shelf.jars_out(batch, batch.summary["shelf"], now)]
    return sorted(jars, key=lambda jar: jar.use_by)


def _potted(batch: Batch) -> tuple[Board, Pot]:
    """A batch whose pot is known. Raises SpissusError where its start cannot be read."""
    board = Board(services.log_of(batch), services.present())
    if board.timeline.pot is None:
        raise SpissusError("start", say("batch.start_unreadable"))
    return board, board.timeline.pot


@router.post("/batches/{batch_id}/pans", response=ways.PansOut)
def pans(request: HttpRequest, batch_id: UUID, data: ways.PansIn) -> ways.PansOut:
    """Which pan, how hot; nothing is saved."""
    member = member_of(request)
    board, _ = _potted(services.batch_of(member, batch_id))
    return ways.pans_out(board.timeline, kitchen_pairs(member.kitchen.pk), data)


@router.get("/batches/{batch_id}/files/{name}")
def batch_file(request: HttpRequest, batch_id: UUID, name: FormatName, units: UnitSystem) -> HttpResponse:
    """A batch in one of the open formats: the skewer with its marks, at true size."""
    batch = services.batch_of(member_of(request), batch_id)
    board, _ = _potted(batch)
    return file_answer(FORMATS[name].write(Told(batch.name, board, units)), FORMATS[name].media_type, batch.name, name)


@router.get("/batches/{batch_id}/story", response=StoryOut | None)
def story(request: HttpRequest, batch_id: UUID) -> StoryOut | None:
    """What happened over what was foreseen, and why the two differ; null before the end, or where no way was taken."""
    return story_out(Board(services.log_of(services.batch_of(member_of(request), batch_id)), services.present()))


@router.get("/kitchen/files/{name}")
def kitchen_table(request: HttpRequest, name: KitchenFormatName, units: UnitSystem) -> HttpResponse:
    """The kitchen in one of the open formats: its batches as a table, what is due as a calendar."""
    member = member_of(request)
    kitchen = Kitchen(member.kitchen.name, services.present(), services.lines_of(member), services.dues_of(member))
    written = KITCHEN_FORMATS[name]
    return file_answer(written.write(kitchen), written.media_type, member.kitchen.name, name)

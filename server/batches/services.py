"""Recording events, and reading a batch back from them."""

from __future__ import annotations

import json
import logging
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from functools import lru_cache
from typing import Any
from uuid import UUID, uuid4, uuid5

from devices.services import events_of
from django.db import IntegrityError, transaction
from django.db.models import Q, TextField
from django.db.models.functions import Cast
from django.http import Http404
from interchange import DueLine, Line
from kitchens.services import (
    Member,
    burner_spec,
    learn,
    learn_liking,
    learn_strength,
    liking_of,
    limits_of,
    pan_spec,
    strengths_of,
    unlearn,
)
from larder.services import mixtures, own_ingredients, school_of
from live.services import announce
from shared.prepared import prepared
from shared.refusals import RefusedError
from shared.shapes import PanShape
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import SpissusError
from spissus_core.events.alarm import quiet
from spissus_core.events.shelf import jar_of, thing_of
from spissus_core.fold import Timeline, fold, struck_ids
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.measuring.vessels import Pan
from spissus_core.messages import say, sentences
from spissus_core.pantry.ingredients import Ingredient
from spissus_core.pantry.schools import SCHOOLS, LearnedStrength, School
from spissus_core.pantry.things import FromShelf, Thing
from spissus_core.phenomena.heating import Burner
from spissus_core.phenomena.limits import Limits
from spissus_core.phenomena.seasoning import LearnedLiking
from spissus_core.planning.due import due
from spissus_core.planning.spoken import rest_cold_by
from spissus_core.planning.tone import tone
from spissus_core.pot import Pot
from spissus_core.wish import Wish

from .bench import BatchOut, batch_out
from .due import reminds_row
from .finding import day_of, words_of
from .models import Batch, Event
from .remembering import remembered_row
from .shelf import jar_row

logger = logging.getLogger(__name__)

#: More than any pot needs, less than would slow its page.
MOST_EVENTS = 5000


def batch_of(member: Member, batch_id: UUID) -> Batch:
    """A batch of the member's kitchen. Raises Http404 for anyone else's."""
    batch = Batch.objects.filter(kitchen=member.kitchen, pk=batch_id).first()
    if batch is None:
        raise Http404
    return batch


#: So many batches back a kitchen's habit is looked for. Numerical choice.
HABIT_OF = 8

#: So many batches in a row that were thickened with the same make a habit. Modelling choice.
MAKE_A_HABIT = 2


def thickened_with(kitchen_id: UUID, other_than: UUID | None = None) -> list[str]:
    """The schools that the kitchen's batches of late were thickened with last, the newest batch first."""
    batches = Batch.objects.filter(kitchen=kitchen_id)
    if other_than is not None:
        batches = batches.exclude(pk=other_than)
    of_late = list(batches.values_list("pk", flat=True)[:HABIT_OF])
    events = Event.objects.filter(batch__in=of_late, kind__in=("thickened", "struck")).order_by("-at", "-seq")
    rows = events.values_list("id", "batch", "kind", "payload")
    # What is stored of an entry that nobody can read any more may be anything.
    told = [(str(pk), batch, kind, payload) for pk, batch, kind, payload in rows if isinstance(payload, dict)]
    struck = {str(payload.get("event")) for _, _, kind, payload in told if kind == "struck"}
    last: dict[UUID, str] = {}
    for pk, batch, kind, payload in told:
        if kind == "thickened" and pk not in struck and "thickener" in payload:
            last.setdefault(batch, str(payload["thickener"]))
    return [last[batch] for batch in of_late if batch in last]


def habit_of(kitchen_id: UUID) -> School | None:
    """What a kitchen is used to thicken with: its batches of late agree on it, and there still is such a school."""
    found = thickened_with(kitchen_id)[:MAKE_A_HABIT]
    if len(found) < MAKE_A_HABIT or len(set(found)) > 1:
        return None
    # What was put away since is a habit no more.
    return SCHOOLS.get(found[0]) or next((one for one in mixtures(kitchen_id) if one.key == found[0]), None)


def batches_named(member: Member, name: str) -> list[Batch]:
    """The member's batches of that name, the newest first."""
    return list(Batch.objects.filter(kitchen=member.kitchen, name=name))


class Kitchen:
    """What the events of a member's page name, as it is in their kitchen now."""

    def __init__(self, member: Member, log: Sequence[ev.Event] = ()) -> None:
        self._member, self._log = member, log

    def pan(self, pan_id: UUID) -> Pan:
        """A pan of the kitchen. Raises Http404 for another's."""
        return pan_spec(self._member.kitchen.pk, pan_id)

    def burner(self, burner_id: UUID, pan_id: UUID) -> Burner:
        """A burner with what this kitchen has learned of it under that pan. Raises Http404 for another's."""
        return burner_spec(self._member.kitchen, burner_id, self.pan(pan_id))

    def own_ingredients(self) -> Sequence[Ingredient]:
        """The kitchen's own ingredients."""
        return own_ingredients(self._member.kitchen.pk)

    def liking(self) -> LearnedLiking | None:
        """The salt that the kitchen has come to like."""
        return liking_of(self._member.kitchen.pk)

    def binds(self) -> dict[str, LearnedStrength]:
        """How strongly each dry thickener binds there, where batches taught it."""
        return strengths_of(self._member.kitchen.pk)

    def habit(self) -> School | None:
        """What the kitchen is used to thicken with; a start that is told again keeps what was known when it began."""
        begun = [event.payload for event in self._log if isinstance(event.payload, ev.Started)]
        return begun[-1].habit if begun else habit_of(self._member.kitchen.pk)

    def school(self, key: str) -> School:
        """A school, or a mixture of the kitchen's own. Raises QuantityError where there is none of that key."""
        return school_of(self._member.kitchen.pk, key)

    def binding(self, school: School) -> School:
        """A school as strongly as it binds in the batch of the log: what was known when that began."""
        begun = [event.payload for event in self._log if isinstance(event.payload, ev.Started)]
        known = begun[-1].binds.get(school.dry) if begun else None
        return school.binding(known.times) if known is not None and known.counts else school

    def limits(self) -> Limits | None:
        """The limits that the kitchen chose."""
        return limits_of(self._member.kitchen)

    def time_zone(self) -> str | None:
        """The time zone that was told of the kitchen."""
        return self._member.kitchen.time_zone or None

    def entry(self, event: UUID) -> ev.Kind:
        """An entry of the batch, made by hand. Raises SpissusError for any other."""
        found = next((one for one in self._log if one.id == event and one.device is None), None)
        if found is None:
            raise SpissusError("event", say("batch.no_such_entry"))
        return found.payload

    def kept(self, batch: UUID, jar: UUID) -> Thing:
        """Something that the kitchen keeps. Raises Http404 for another's, SpissusError where it is there no more."""
        begun = next((drawn for event in self._log if (drawn := _drawn(event.payload)) and drawn.jar == jar), None)
        if begun is not None and begun.thing is not None:
            # A start is told again with what it began with.
            return begun.thing
        return thing_of(jar_of(Board(log_of(batch_of(self._member, batch)), present()).timeline, jar))

    def unboiled_ml(self) -> float:
        """What the pot of the log would hold had nothing been read of it since, mL."""
        pot = fold([event for event in self._log if not isinstance(event.payload, ev.Read)], stop_of=None).pot
        if pot is None:
            raise SpissusError("value", say("events.what_is_in_it"))
        return pot.contents.volume_ml


def written_out(member: Member, said: ev.Form | ev.Kind, log: Sequence[ev.Event] = ()) -> ev.Kind:
    """An event as it is kept: later changes of what it names, and of what it is a share of, leave it alone."""
    return said.written_out(Kitchen(member, log))


def log_of(batch: Batch) -> list[ev.Event]:
    """What happened to a batch: its events by number, and what devices read of it."""
    return [*recorded(batch), *events_of(batch.pk)]


def present() -> datetime:
    """Now, to the second: what is worked out of a pot is the same for all that ask within it."""
    return datetime.now(UTC).replace(microsecond=0)


#: A kitchen that nobody has claimed holds no more batches than this. Modelling choice.
MOST_OF_VISITORS = 12

#: Nor does one that is made up, with its stories.
MOST_MADE_UP = 40

#: A time this long before its batch, or this far after it arrived, is a dead clock's.
DEAD_CLOCK, CLOCK_AHEAD = timedelta(days=7), timedelta(minutes=1)


# As text, each read by itself: one row that no reader bears must not hide the others.
_rows = prepared(
    lambda batch: (
        Event.objects.filter(batch_id=batch)
        .order_by("seq")
        .annotate(text=Cast("payload", TextField()))
        .values_list("id", "seq", "at", "recorded_at", "version", "text")
    )
)


def recorded(batch: Batch) -> list[ev.Event]:
    """The events of a batch, by number; what cannot be read any more is :class:`.events.Unread`."""
    out = []
    for id_, seq, at, arrived, version, text in _rows(batch.pk):
        dead = at < batch.created_at - DEAD_CLOCK or at > arrived + CLOCK_AHEAD
        when, told = (arrived, at) if dead else (at, None)
        out.append(ev.Event.model_construct(id=id_, seq=seq, at=when, told=told, payload=_read(text, version)))
    return out


#: Rows never change, and neither does what is read of them: a batch that is open is read again at every entry.
MOST_REMEMBERED = 4096


@lru_cache(MOST_REMEMBERED)
def _read(text: str, version: int) -> ev.Kind:
    return ev.recorded(_parsed(text), version)


def _parsed(text: str) -> object:
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        return None


@transaction.atomic
def start_batch(
    member: Member,
    batch_id: UUID,
    name: str,
    *,
    event_id: UUID,
    at: datetime,
    started: ev.Form | ev.Started,
    house_dish: UUID | None = None,
) -> BatchOut:
    """A new batch with its first event, as it stands, of a house dish or of none. The same ids again change nothing.

    Raises
    ------
    SpissusError : the measurement does not fit the pan.
    RefusedError : 409 if the id belongs to another batch.
    """
    member.require_recorder()
    if not member.kitchen.claimed:
        _refuse_more_batches(member)
    now = datetime.now(UTC)
    created = at if at >= now - DEAD_CLOCK else now
    batch, new = Batch.objects.get_or_create(
        pk=batch_id,
        defaults={"kitchen": member.kitchen, "name": name, "created_at": created, "house_dish": house_dish},
    )
    if new:
        return append(member, batch_id, event_id=event_id, at=at, said=started)
    if batch.kitchen_id != member.kitchen.pk:
        raise RefusedError(409, say("batch.exists_already"))
    return batch_out(batch, Board(log_of(batch), present()))


def _refuse_more_batches(visitor: Member) -> None:
    there = Batch.objects.filter(kitchen=visitor.kitchen).count()
    if visitor.kitchen.is_demo:
        if there >= MOST_MADE_UP:
            raise RefusedError(422, say("kitchen.looked_enough", most=MOST_MADE_UP))
    elif there >= MOST_OF_VISITORS:
        raise RefusedError(422, say("kitchen.claim_for_more", most=MOST_OF_VISITORS))


@transaction.atomic
def append(
    member: Member, batch_id: UUID, *, event_id: UUID, at: datetime, said: ev.Form | ev.Kind, inside: bool = False
) -> BatchOut:
    """Record one event and return the batch as it stands with it: both, or neither.

    The client makes the event's id, so that sending it twice records it once. Events that arrive at
    the same moment are put in order under a lock on the batch. What would leave the batch with a part
    that cannot be shown any more is refused. ``inside`` it belongs to an entry of another batch.

    Raises
    ------
    SpissusError : the event does not fit what is in the pot, or cannot be shown; nothing is recorded.
    Http404 : the batch is not the member's.
    RefusedError : 409 if the id belongs to an event of another batch.
    """
    member.require_recorder()
    batch = _locked(member, batch_id, said)
    log = log_of(batch)
    if any(event.id == event_id for event in log):
        return batch_out(batch, Board(log, present()))
    if batch.last_seq >= MOST_EVENTS:
        raise RefusedError(422, say("batch.is_full"))
    payload = written_out(member, said, log)
    if not inside:
        _refuse_half(log, payload)
    event = _event_now(batch, event_id, at, payload)
    board = Board([*log, event], present())
    _check(log, event, board.timeline)
    moment = next(m for m in board.timeline.moments if m.event.id == event_id)
    if moment.problem is not None:
        raise moment.problem
    _refuse_no_way(board, payload)
    _refuse_no_weight(board, payload)
    try:
        _row(batch, event, member).save(force_insert=True)
    except IntegrityError:
        # With it everything is rolled back: no savepoint is worth its two round trips.
        raise RefusedError(409, say("batch.of_another_batch")) from None
    _learn(member, batch, board, payload)
    _off_the_shelf(member, event, board)
    stands(batch, board, event.seq)
    answer = batch_out(batch, board)
    if board.faults:
        _refuse_new_faults(batch, board, Board(log, present()))
    announce(batch.kitchen_id, batch.id, event.seq)
    return answer


def stands(batch: Batch, board: Board, last_seq: int) -> None:
    """Keep what the lists show of a batch, and what it is found by, as of its last entry."""
    day = day_of(batch.created_at, batch.kitchen.time_zone)
    batch.last_seq, batch.summary, batch.words = last_seq, summarised(board), words_of(board.timeline, day)
    batch.save(update_fields=["last_seq", "summary", "words"])


@transaction.atomic
def tell(member: Member, name: str, happened: Sequence[tuple[datetime, ev.Kind]]) -> UUID:
    """A batch with all that happened to it, told at once; what it taught is kept. Returns its id.

    Raises
    ------
    SpissusError : an entry does not fit what is in the pot by then.
    """
    batch = Batch.objects.create(pk=uuid4(), kitchen=member.kitchen, name=name, created_at=happened[0][0])
    log: list[ev.Event] = []
    for seq, (at, said) in enumerate(happened, 1):
        log.append(ev.Event(id=uuid4(), seq=seq, at=at, payload=written_out(member, said, log)))
    Event.objects.bulk_create(_row(batch, event, member) for event in log)
    board = Board(log, present())
    for moment in board.timeline.moments:
        if moment.problem is not None:
            raise moment.problem
    _learn(member, batch, board, next((e.payload for e in log if isinstance(e.payload, ev.Finished)), log[-1].payload))
    stands(batch, board, len(log))
    return batch.pk


def _row(batch: Batch, event: ev.Event, member: Member) -> Event:
    """An entry as the database keeps it."""
    payload = event.payload
    return Event(
        id=event.id,
        batch=batch,
        seq=event.seq,
        at=event.told or event.at,
        kind=payload.kind,
        version=ev.VERSION,
        payload=payload.model_dump(mode="json"),
        author=member.user,
    )


def _locked(member: Member, batch_id: UUID, said: ev.Form | ev.Kind) -> Batch:
    """The batch, for one entry at a time; with what is poured in from another, which is locked too, in one order.

    Raises
    ------
    Http404 : the batch is not the member's.
    SpissusError : it is poured into what it was kept from.
    """
    drawn = _drawn(said)
    other = None if drawn is None else drawn.batch
    if other == batch_id:
        raise SpissusError("jar", say("batch.of_itself"))
    wanted = {batch_id, *([] if other is None else [other])}
    rows = Batch.objects.select_for_update().filter(kitchen=member.kitchen, pk__in=wanted).order_by("pk")
    found = {batch.pk: batch for batch in rows}
    batch = found.get(batch_id)
    # A start that is told again has what it began with, even where that was deleted since.
    begun = batch is not None and batch.last_seq > 0 and not isinstance(said, ev.PouredIn)
    if batch is None or (found.keys() != wanted and not begun):
        raise Http404
    return batch


def _drawn(said: ev.Form | ev.Kind) -> FromShelf | None:
    """What an entry takes off the shelf of another batch, if anything."""
    if isinstance(said, ev.PouredIn):
        return FromShelf(batch=said.batch, jar=said.jar)
    liquid = getattr(said, "liquid", None)
    return liquid.kept if isinstance(liquid, StrainedLiquid) else None


def _off_the_shelf(member: Member, event: ev.Event, board: Board) -> None:
    """Take what was poured in, or what a batch begins with, off its shelf, in the log of the batch that it was kept
    from; put it back where that is struck."""
    if isinstance(event.payload, ev.Struck):
        struck = next((m.event for m in board.timeline.moments if m.event.id == event.payload.event), None)
        drawn = None if struck is None else _drawn(struck.payload)
        there = drawn is not None and Batch.objects.filter(kitchen=member.kitchen, pk=drawn.batch).exists()
        # What was deleted for good since takes nothing back.
        if struck is not None and drawn is not None and there and _takes(struck):
            back = ev.Struck(event=_taken_by(struck))
            append(member, drawn.batch, event_id=_taken_by(event), at=event.at, said=back, inside=True)
        return
    drawn = _drawn(event.payload)
    if drawn is not None and _takes(event):
        payload = ev.JarTaken(jar=drawn.jar, volume_ml=_taken_ml(event.payload, drawn.thing, board), use="poured")
        append(member, drawn.batch, event_id=_taken_by(event), at=event.at, said=payload, inside=True)


def _takes(event: ev.Event) -> bool:
    """Whether it takes anything: a start that is told again has it already."""
    return event.seq == 1 or not isinstance(event.payload, ev.Started)


def _taken_ml(payload: ev.Kind, thing: Thing | None, board: Board) -> float | None:
    """How much of it; all, where a batch begins with as much as there was."""
    if isinstance(payload, ev.PouredIn):
        return payload.volume_ml
    begun = board.timeline.first_pot
    if begun is None or thing is None or begun.contents.volume_ml >= thing.contents.volume_ml:
        return None
    return begun.contents.volume_ml


def _refuse_half(log: Sequence[ev.Event], payload: ev.Kind) -> None:
    """Take no half of what is poured from one batch into another: it is told, and taken back, where it went in."""
    about = payload
    if isinstance(payload, ev.Struck):
        about = next((event.payload for event in log if event.id == payload.event), payload)
    if isinstance(about, ev.JarTaken) and about.use == "poured":
        raise SpissusError("use", say("batch.told_where_it_went"))


def _taken_by(event: ev.Event) -> UUID:
    """The id of the entry in the other batch: told again it is the same."""
    return uuid5(event.id, "off the shelf")


def foreseen_by(member: Member, batch_id: UUID, said: ev.Form | ev.Kind) -> tuple[ev.Kind, Pot, Pot, Wish | None]:
    """What an entry would be kept as, the pot as it is, as it would be, and what is wanted of it; nothing is recorded.

    Raises
    ------
    SpissusError : the entry does not fit what is in the pot, or there is no pot.
    Http404 : the batch is not the member's.
    """
    batch, now, event_id = batch_of(member, batch_id), datetime.now(UTC), uuid4()
    log = log_of(batch)
    payload = written_out(member, said, log)
    before = Board(log, now).timeline.pot
    timeline = Board([*log, _event_now(batch, event_id, now, payload)], now).timeline
    moment = next(one for one in timeline.moments if one.event.id == event_id)
    if moment.problem is not None:
        raise moment.problem
    if before is None or timeline.pot is None:
        raise SpissusError("start", say("batch.start_unreadable"))
    return payload, before, timeline.pot, timeline.asked.wanted


def _event_now(batch: Batch, event_id: UUID, at: datetime, payload: ev.Kind) -> ev.Event:
    """The event as it will be read back."""
    now = datetime.now(UTC)
    dead = at < batch.created_at - DEAD_CLOCK
    return ev.Event(
        id=event_id, seq=batch.last_seq + 1, at=now if dead else at, told=at if dead else None, payload=payload
    )


def _refuse_new_faults(batch: Batch, after: Board, before: Board) -> None:
    """Take nothing that makes a part of the batch impossible to show; what was missing before is no reason."""
    batch_out(batch, before)
    new = after.faults - before.faults
    if not new:
        return
    why = next((error.message for part, error in after.missing.items() if part in new), None)
    logger.error("An entry would have left %s of batch %s unreadable: %s", sorted(new), batch.pk, why)
    raise SpissusError("kind", sentences(say("batch.not_shown_any_more"), why))


def _refuse_no_way(board: Board, payload: ev.Kind) -> None:
    """Take no way that cannot lead there."""
    route = board.route if isinstance(payload, ev.Chosen) else None
    if route is not None and route.reason is not None:
        raise SpissusError("route", route.reason)


def _refuse_no_weight(board: Board, payload: ev.Kind) -> None:
    """Take no weight that its entry could not have had."""
    if not isinstance(payload, ev.Meant):
        return
    about = next(m for m in board.timeline.moments if m.event.id == payload.event)
    if about.problem is not None:
        raise SpissusError("grams", about.problem.message)


def _learn(member: Member, batch: Batch, board: Board, payload: ev.Kind) -> None:
    """Keep what a finished batch taught of its pan and of the salt that is liked; forget it if it goes on after all."""
    if not isinstance(payload, ev.Finished | ev.Struck):
        return
    pot = board.timeline.pot
    learn_liking(member.kitchen, batch.id, board.taught_likings)
    learn_strength(member.kitchen, batch.id, board.taught_strength)
    if board.taught is None or pot is None:
        unlearn(batch.id)
        return
    learn(member.kitchen, batch.id, pot.pan.name, pot.burner.name, board.taught)


def _check(log: list[ev.Event], event: ev.Event, after: Timeline) -> None:
    """Refuse an event that makes no sense after ``log``; ``after`` is the batch with it."""
    payload = event.payload
    if isinstance(payload, ev.Struck):
        _check_strike(log, payload)
    elif isinstance(payload, ev.Dated):
        _check_date(log, payload)
    elif isinstance(payload, ev.Meant):
        _check_mending(log, payload, after)
    payload.check(after)


def _in_log(log: list[ev.Event], event_id: UUID) -> ev.Event:
    target = next((e for e in log if e.id == event_id), None)
    if target is None:
        raise SpissusError("event", say("batch.no_such_entry"))
    return target


def _check_date(log: list[ev.Event], date: ev.Dated) -> None:
    _in_log(log, date.event)
    if date.at > datetime.now(UTC) + CLOCK_AHEAD:
        raise SpissusError("at", say("batch.still_to_come"))
    began = min(e.at for e in log if isinstance(e.payload, ev.Started))
    if date.at < began - DEAD_CLOCK:
        raise SpissusError("at", say("batch.before_it_began"))


def _check_mending(log: list[ev.Event], meant: ev.Meant, after: Timeline) -> None:
    """Refuse a mending by which its entry would not count any more."""
    target = _in_log(log, meant.event)
    moment = next(moment for moment in after.moments if moment.event.id == target.id)
    if meant.amount is not None and moment.problem is not None:
        raise SpissusError("amount", moment.problem.message)


def _check_strike(log: list[ev.Event], strike: ev.Struck) -> None:
    target = _in_log(log, strike.event)
    struck = struck_ids(log)
    standing = [e for e in log if isinstance(e.payload, ev.Started) and e.id not in struck]
    if standing == [target]:
        raise SpissusError("event", say("batch.where_it_starts"))


@transaction.atomic
def arrange(member: Member, batch_id: UUID, *, name: str | None = None, away: bool | None = None) -> Batch:
    """Give a batch another name, put it away, or bring it back.

    Raises
    ------
    SpissusError : it is on the heat, or something of it cools: nobody would be told any more.
    Http404 : the batch is not the member's.
    """
    member.require_recorder()
    batch = batch_of(member, batch_id)
    if name is not None:
        batch.name = name
    if away and (batch.summary.get("on_heat") or batch.summary.get("rest") or batch.summary.get("doing") == "cool"):
        raise SpissusError("away", say("batch.still_watched"))
    if away is not None:
        batch.put_away_at = present() if away else None
    batch.save(update_fields=["name", "put_away_at"])
    announce(batch.kitchen_id, batch.id, batch.last_seq)
    return batch


def of_house_dish(batch: Batch, dish_id: UUID) -> None:
    """From now on the batch is one of that dish."""
    batch.house_dish = dish_id
    batch.save(update_fields=["house_dish"])


@transaction.atomic
def delete_for_good(member: Member, batch_id: UUID) -> None:
    """Delete a batch, with its log, what is kept of it, and what it taught.

    Raises
    ------
    RefusedError : 403 for whoever does not own the kitchen.
    Http404 : the batch is not the member's.
    """
    member.require_owner()
    batch = batch_of(member, batch_id)
    unlearn(batch.pk)
    learn_liking(member.kitchen, batch.pk, {})
    learn_strength(member.kitchen, batch.pk, None)
    announce(batch.kitchen_id, batch.pk, batch.last_seq)
    batch.delete()


def keeping_batches(member: Member) -> list[Batch]:
    """The batches of which something is kept."""
    return list(Batch.objects.filter(kitchen=member.kitchen, summary__has_key="shelf"))


def lines_of(member: Member) -> list[Line]:
    """Every batch of the kitchen that was not put away, the newest first, for a table."""
    batches = Batch.objects.filter(kitchen=member.kitchen, put_away_at=None).defer("words")
    return [_line(batch.name, batch.created_at, batch.summary) for batch in batches]


def _line(name: str, begun: datetime, s: dict[str, Any]) -> Line:
    figures = {key: s.get(key) for key in ("pan", "start_ml", "volume_ml", "salt_percent", "body", "points")}
    return Line(name=name, begun=begun, finished=bool(s.get("finished")), **figures)


def dues_of(member: Member) -> list[DueLine]:
    """What is due in the kitchen, the first first: what must be cold or used, and when to look into a pot."""
    of = Batch.objects.filter(kitchen=member.kitchen, put_away_at=None)
    wanted = Q(summary__finished=False) | Q(summary__has_key="shelf") | ~Q(summary__rest=None)
    found: list[DueLine] = []
    for batch in of.filter(wanted):
        board = Board(log_of(batch), present())
        found += [DueLine(f"{batch.pk}-{one.id}@spissus", batch.name, one.at, one.said) for one in due(board.timeline)]
        look = board.act.look_at
        if look is not None:
            found.append(DueLine(f"{batch.pk}-look@spissus", batch.name, look, say("due.look")))
    return sorted(found, key=lambda one: one.at)


def summarised(board: Board) -> dict[str, Any]:
    """What a list shows of a batch; of one whose pot cannot be read, only where it stands."""
    timeline, act = board.timeline, board.act
    pot = timeline.pot
    stands = {"stage": act.doing.stage, "finished": timeline.ended, "doing": act.doing.kind}
    if pot is None:
        return stands
    mark = act.doing.mark
    return stands | {
        "pan": pot.pan.name,
        "pan_shape": PanShape(**pot.pan.model_dump()).model_dump(mode="json"),
        "burner": pot.burner.name,
        "on_heat": timeline.stove.window is not None and timeline.stove.window.heating,
        "depth_mm": pot.depth_mm,
        "fat_mm": pot.fat_mm,
        "stop_mm": None if mark is None else mark.reads.dip,
        "volume_ml": timeline.yield_ml or pot.contents.liquid_ml,
        "start_ml": (timeline.first_pot or pot).contents.liquid_ml,
        "salt_percent": pot.salt_percent.best,
        "body": pot.body.step.everyday,
        "tone": tone(pot.contents),
        "look_at": act.look_at.isoformat() if act.look_at else None,
        "sound": act.doing.sound,
        "quiet": quiet(timeline.seen, act.look_at),
        "concern": timeline.table.concerns[0].kind if timeline.table.concerns else None,
        "rest": _rest(timeline),
        "reminds": reminds_row(timeline.seen),
        **({"shelf": [jar_row(jar, timeline.limits) for jar in timeline.shelf]} if timeline.shelf else {}),
        **remembered_row(timeline.remembered),
        "wanted_ml": timeline.asked.wanted.amount_ml if timeline.asked.wanted else None,
    }


def _rest(timeline: Timeline) -> dict[str, Any] | None:
    """What stands aside and cools, or may: how much of it, and by when it must be cold."""
    rest, kept = timeline.rest, None if timeline.pot is None else timeline.pot.kept
    if rest is None or kept is None or rest.stands not in ("unsaid", "cooling"):
        return None
    return {"volume_ml": kept.liquid_ml, "cold_by": rest_cold_by(rest, timeline.limits).isoformat()}

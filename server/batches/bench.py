"""A folded batch as the page shows it. Amounts come worded in both systems of units; the page only draws."""

from __future__ import annotations

import logging
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any
from uuid import UUID

from shared.shapes import PanShape, SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_number, show_volume
from spissus_core.amounts.tables import key_of
from spissus_core.board import Board, Part
from spissus_core.errors import SetAsideError
from spissus_core.fold import Timeline
from spissus_core.messages import sentences
from spissus_core.phenomena.body import LADDER
from spissus_core.phenomena.seasoning import sodium_mg
from spissus_core.planning.account import account
from spissus_core.planning.acts import Alone
from spissus_core.planning.acts.meat import in_a_hot_pan, plate
from spissus_core.planning.making import making
from spissus_core.planning.marks import marks
from spissus_core.planning.proposing import suggested
from spissus_core.planning.safety import alcohol_cautions, allergen_cautions, boiling_cautions, serving_cautions
from spissus_core.planning.spoken import covered_rest, on_the_plate
from spissus_core.pot import Pot

from .acts import ActOut, act_out, concerns_out, rest_out
from .entries import DeviceReadOut, EntryOut, devices_out, log_out
from .fat import CoolingOut, SkimOut, cooling_out, skim_out
from .finishing import ThreadOut, thread_out
from .heating import HEAT_UNKNOWN, CurveOut, HeatOut, curve_out, heat_out
from .intake import EstimatedOut, StartOut, estimated_out, start_out
from .making import MakingOut, making_out
from .marks import MarkOut, StretchOut, stretch_out
from .models import Batch
from .pot import PotOut, StepOut, pot_out, step_out
from .remembering import RememberedOut, remembered_out
from .shelf import JarOut, KeepableOut, jar_row, jars_out, keepable_out
from .table import OnTableOut, ready_out
from .ways import PlanOut, WantedOut, plan_out, wanted_out


class ServedOut(Shape):
    """What came of it: measured, or by the ledger; the ``plates`` that are out, and what records the next;
    ``seconds`` are portions beyond those who eat.

    ``in_a_pan`` records one that is boiled up with its piece. ``on_plate`` says how thick it is where it is
    eaten, and how warm after a covered rest.
    """

    volume: ShownOut
    portions: int | None
    seconds: int
    plates: int
    plate: dict[str, Any] | None
    in_a_pan: dict[str, Any] | None
    on_plate: SaidOut
    sodium: ShownOut | None


class MissingOut(Shape):
    """A part of a batch that could not be worked out, and why; everything else stands."""

    part: Part
    why: SaidOut


class BatchOut(Shape):
    """Everything the page shows of a batch.

    What cannot be worked out is named in ``missing`` and null here, or empty; without a readable start
    there is no pot, but always the log. ``concerns`` are what makes the pot doubtful, until they are answered,
    and ``rest`` what is to be done about the liquid that was set aside.
    """

    id: UUID
    name: str
    house_dish: UUID | None
    created_at: datetime
    last_seq: int
    finished: bool
    missing: list[MissingOut]
    pan: PanShape | None
    burner: str | None
    start: StartOut | None
    pot: PotOut | None
    marks: list[MarkOut]
    curve: CurveOut | None
    heat: HeatOut
    beside: str | None
    signs: list[Annotated[str, key_of("signs")]]
    signs_asked: list[Annotated[str, key_of("signs")]]
    ribbon: list[StretchOut]
    threads: list[ThreadOut]
    wanted: WantedOut | None
    suggested: WantedOut | None
    chosen: ev.RouteKind | None
    plan: PlanOut | None
    making: MakingOut | None
    act: ActOut
    concerns: list[SaidOut]
    rest: SaidOut | None
    ready: OnTableOut | None
    shelf: list[JarOut]
    keepable: list[KeepableOut]
    log: list[EntryOut]
    devices: list[DeviceReadOut]
    skim: SkimOut | None
    cooling: CoolingOut | None
    estimated: EstimatedOut | None
    doubt: SaidOut | None
    served: ServedOut | None
    boil_cautions: list[SaidOut]
    serve_cautions: list[SaidOut]
    remembered: RememberedOut
    account: SaidOut | None
    ladder: list[StepOut]


class LiveOut(Shape):
    """What of a batch changes by itself, when a device reads: the page puts it in the place of what it has."""

    last_seq: int
    missing: list[MissingOut]
    pot: PotOut | None
    marks: list[MarkOut]
    curve: CurveOut | None
    heat: HeatOut
    ribbon: list[StretchOut]
    threads: list[ThreadOut]
    suggested: WantedOut | None
    plan: PlanOut | None
    making: MakingOut | None
    act: ActOut
    concerns: list[SaidOut]
    rest: SaidOut | None
    ready: OnTableOut | None
    devices: list[DeviceReadOut]
    skim: SkimOut | None
    cooling: CoolingOut | None
    served: ServedOut | None
    boil_cautions: list[SaidOut]
    serve_cautions: list[SaidOut]


log = logging.getLogger(__name__)


def batch_out(batch: Batch, board: Board) -> BatchOut:
    """Everything the page shows of one batch. What cannot be worked out is missing, with its reason."""
    timeline, part, act = board.timeline, board.part, board.act
    pot, start, wanted = timeline.pot, timeline.start, timeline.asked.wanted
    doing = act.doing
    no_marks: list[MarkOut] = []
    no_words: list[SaidOut] = []
    no_signs: tuple[str, ...] = ()
    no_ribbon: list[StretchOut] = []
    no_threads: list[ThreadOut] = []
    no_keepable: list[KeepableOut] = []
    serving = serving_cautions(timeline.limits)
    thought = board.part("start", lambda: _thought(board), _NOTHING_THOUGHT)
    whole = None if pot is None else part("pot", lambda: pot_out(pot), None)
    return BatchOut(
        id=batch.id,
        name=batch.name,
        house_dish=batch.house_dish,
        created_at=batch.created_at,
        last_seq=batch.last_seq,
        finished=timeline.ended,
        pan=None if pot is None else PanShape(**pot.pan.model_dump()),
        burner=None if pot is None else pot.burner.name,
        start=None if start is None else part("start", lambda: start_out(start), None),
        pot=whole,
        marks=part("marks", lambda: [MarkOut.of(mark) for mark in marks(timeline, doing, board.route)], no_marks),
        curve=None
        if pot is None
        else part("curve", lambda: curve_out(timeline, doing, board.ahead, board.route, board.now), None)
        or part("curve", lambda: curve_out(timeline, Alone(), None), None),
        heat=part("forecast", lambda: heat_out(timeline, board.ahead), HEAT_UNKNOWN),
        beside=None if pot is None or pot.beside is None else pot.beside.pan.name,
        signs=list(timeline.judged.signs),
        signs_asked=list(part("pot", lambda: ev.signs_asked(timeline), no_signs)),
        ribbon=part("ribbon", lambda: [stretch_out(s) for s in board.ribbon], no_ribbon),
        threads=part("taste", lambda: [thread_out(one) for one in board.threads], no_threads),
        wanted=None if wanted is None else part("plan", lambda: wanted_out(wanted, timeline.minutes_left), None),
        suggested=None if pot is None else part("plan", lambda: wanted_out(suggested(pot, timeline.liking)), None),
        chosen=timeline.asked.way,
        plan=part("plan", lambda: _plan_out(board), None),
        making=part("plan", lambda: making_out(making(timeline, board.drawn)), None),
        act=part("words", lambda: act_out(act, timeline), act_out(Alone(), timeline)),
        concerns=part("words", lambda: concerns_out(timeline), no_words),
        rest=part("words", lambda: rest_out(timeline), None),
        ready=part("plan", lambda: ready_out(board), None),
        shelf=jars_out(
            batch, (jar_row(jar, timeline.limits) for jar in timeline.shelf), board.now or datetime.now(UTC)
        ),
        keepable=part("pot", lambda: keepable_out(timeline), no_keepable),
        log=log_out(timeline),
        remembered=remembered_out(timeline.remembered),
        account=part("words", lambda: SaidOut.maybe(account(timeline)), None) if timeline.finished else None,
        devices=devices_out(timeline),
        skim=part("skim", lambda: _skim(board), None),
        cooling=part("cooling", lambda: cooling_out(timeline), None),
        estimated=thought.estimated,
        doubt=thought.doubt,
        served=None if pot is None else part("pot", lambda: _served(timeline, pot), None),
        boil_cautions=SaidOut.of_all(boiling_cautions(pot.body)) if pot is not None and doing.kind == "boil" else [],
        serve_cautions=[]
        if pot is None
        else part(
            "words",
            lambda: SaidOut.of_all((*alcohol_cautions(pot.contents), *allergen_cautions(timeline), *serving)),
            SaidOut.of_all(serving),
        ),
        ladder=[step_out(step) for step in LADDER],
        # Last: by now every part has been asked for.
        missing=_missing(batch, board),
    )


def _missing(batch: Batch, board: Board) -> list[MissingOut]:
    """What is missing, told in the server's log too: nothing of it is as it should be."""
    for moment in board.timeline.moments:
        if isinstance(moment.problem, SetAsideError):
            entry, why = moment.event.id, moment.problem.message
            log.warning("Batch %s: entry %s is set aside: %s", batch.pk, entry, why, exc_info=moment.problem.__cause__)
    for part, error in board.missing.items():
        log.warning("Batch %s goes without %s: %s", batch.pk, part, error.message, exc_info=error.__cause__)
    return [MissingOut(part=part, why=SaidOut.of(error.message)) for part, error in board.missing.items()]


def _plan_out(board: Board) -> PlanOut | None:
    pot, wanted, route = board.timeline.pot, board.timeline.asked.wanted, board.drawn
    return None if pot is None or wanted is None or route is None else plan_out(pot, wanted, route)


def _skim(board: Board) -> SkimOut | None:
    pot, strained = board.timeline.pot, board.strained
    return None if pot is None or strained is None else skim_out(board.timeline, pot, strained, board.route)


@dataclass(frozen=True, slots=True)
class _Thought:
    """What the list says of the start, and what contradicts it."""

    estimated: EstimatedOut | None
    doubt: SaidOut | None


_NOTHING_THOUGHT = _Thought(None, None)


def _thought(board: Board) -> _Thought:
    start, strained = board.timeline.start, board.strained
    if start is None or strained is None:
        return _NOTHING_THOUGHT
    return _Thought(
        None if strained.estimated is None else estimated_out(strained.estimated, start.liquid.braise),
        SaidOut.maybe(strained.doubt),
    )


def _served(timeline: Timeline, pot: Pot) -> ServedOut:
    wish, left_ml = timeline.asked.wanted, timeline.yield_ml or pot.contents.liquid_ml
    portions = wish.portions_in(left_ml) if wish else None
    # What is told of the salt on a label: milligrams of sodium in a helping.
    helping_ml = wish.helping_ml if wish else None
    sodium = None if helping_ml is None else show_number(sodium_mg(pot.contents, helping_ml), 0, "mg")
    out = [make(timeline, helping_ml) for make in (plate, in_a_hot_pan)] if helping_ml is not None and portions else []
    next_plate, in_a_pan = [
        {"kind": one.kind, **one.model_dump(exclude_none=True, exclude={"kind"})} for one in out
    ] or (None, None)
    return ServedOut(
        volume=ShownOut.of(show_volume(timeline.made_ml)),
        portions=None if portions is None else portions + timeline.table.plates,
        seconds=max(portions - wish.people, 0) if wish and wish.people and portions else 0,
        plates=timeline.table.plates,
        plate=next_plate,
        in_a_pan=in_a_pan,
        on_plate=SaidOut.of(sentences(on_the_plate(pot), covered_rest(pot))),
        sodium=None if sodium is None else ShownOut.of(sodium),
    )

"""A folded batch as the page shows it."""

from __future__ import annotations

import logging
import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, Literal

from kitchens.api import PanShape
from kitchens.services import Pair
from shared.shapes import RangeOut, ReasonOut, SaidOut, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.estimate import Estimate
from spissus_core.amounts.quantities import (
    show_length,
    show_mass,
    show_minutes,
    show_temperature,
    show_volume,
)
from spissus_core.board import Board
from spissus_core.errors import SetAsideError, SpissusError
from spissus_core.estimation.forecast import Outlook, Progress
from spissus_core.estimation.window import power_of
from spissus_core.events.alarm import quiet
from spissus_core.events.assumed import CLOSE_ENOUGH
from spissus_core.events.state import ConcernKind
from spissus_core.fold import Timeline
from spissus_core.measuring.measurement import DIP_ERROR_MM, Method, error_ml
from spissus_core.measuring.vessels import SHALLOW_MM
from spissus_core.messages import Message, Shown, Term, Until, say
from spissus_core.pantry.guests import USUAL_PEOPLE
from spissus_core.phenomena.body import LADDER, Body
from spissus_core.phenomena.heating import FULL_BOIL, HeatSetting, heat_key
from spissus_core.phenomena.seasoning import FIRST_SHARE
from spissus_core.planning.explanation import because, leave, left_of_it, notes, parts_of, pot_reasons, reasons
from spissus_core.planning.guidance import Act, next_act
from spissus_core.planning.hurry import Hurried, hurried
from spissus_core.planning.journey import Stretch, stage_of, tone
from spissus_core.planning.pans import compared
from spissus_core.planning.routes import LEAST_SALT_G, WAYS, Route, TradePoint, salt_ceiling_ml, suggested
from spissus_core.planning.safety import SERVING_CAUTIONS, alcohol_cautions, allergen_cautions, boiling_cautions
from spissus_core.planning.spoken import (
    ALONE,
    CONCERN_WORDS,
    carrier_amount,
    concern_line,
    dry_amount,
    now_line,
    overdue_line,
    rate_line,
    salt_amount,
)
from spissus_core.pot import Pot
from words import plain

from . import schemas as out
from .answers import answers_to
from .intake import estimated_out, start_out
from .models import Batch
from .skimming import cooling_out, skim_out

log = logging.getLogger(__name__)


def word(text: str) -> str:
    """A word of the trade in the language that is spoken."""
    return plain(Term(text))


def body_out(body: Body) -> out.BodyOut:
    step = body.step
    low, high = max(step.low, 1.0), min(step.high, 2000.0)
    along = math.log(max(body.viscosity, low) / low) / math.log(high / low)
    return out.BodyOut(
        step=step.index, word=word(step.word), does=word(step.does), viscosity=RangeOut.of(body.estimate),
        position=step.index + min(max(along, 0.0), 0.999),
    )  # fmt: skip


def pot_out(pot: Pot) -> out.PotOut:
    c = pot.contents
    liquid = show_volume(c.liquid_ml)
    return out.PotOut(
        liquid=ShownOut.of(liquid),
        depth=ShownOut.of(show_length(pot.depth_mm)),
        fat=ShownOut.of(show_volume(c.fat_ml)),
        fat_depth=ShownOut.of(show_length(pot.fat_mm)),
        gross=None if pot.gross_g is None else ShownOut.of(show_mass(pot.gross_g)),
        solids=None if pot.solids is None else ShownOut.of(show_mass(pot.solids.mass_g)),
        kept=None if pot.kept is None else ShownOut.of(show_volume(pot.kept.liquid_ml)),
        measured_by=pot.measured_by,
        liquid_error=ShownOut.of(show_volume(pot.error_ml)),
        salt=RangeOut.of(pot.salt_percent),
        body=body_out(pot.body),
        tone=tone(c),
        contents=_contents(pot),
        reasons=[ReasonOut.of(reason) for reason in pot_reasons(pot)],
        methods=_methods(pot),
    )


def _contents(pot: Pot) -> list[out.ContentsRow]:
    return [
        out.ContentsRow(
            name=plain(part.name),
            mass=ShownOut.of(show_mass(part.grams)),
            percent=part.percent,
            how=SaidOut.of(part.how),
        )
        for part in parts_of(pot)
    ]


def _methods(pot: Pot) -> list[out.MethodOut]:
    c = pot.contents
    methods: tuple[Method, ...] = ("jug", "dip", "scale")
    errors = {m: error_ml(pot.pan, m, c.volume_ml, c.density_g_ml) for m in methods}
    usable = {"jug": True, "dip": pot.depth_mm > 4 * DIP_ERROR_MM, "scale": pot.pan.empty_g is not None}
    best = min((m for m in methods if usable[m]), key=lambda m: errors[m])
    return [
        out.MethodOut(method=m, error=ShownOut.of(show_volume(errors[m])), best=m == best, usable=usable[m])
        for m in methods
    ]


def route_out(
    pot: Pot, wanted: ev.Wanted, route: Route, *, recommended: bool = False, quick: Quick | None = None
) -> out.RouteOut:
    t = route.thickener
    dry = None if t is None else dry_amount(route.dry_g, t)
    carrier = None if t is None or not t.carrier else carrier_amount(route.dry_g, t)
    salt = salt_amount(route.salt_to_add_g, "table") if route.salt_to_add_g >= LEAST_SALT_G else None
    return out.RouteOut(
        kind=route.kind,
        label=word(WAYS[route.kind].label),
        feasible=route.feasible,
        recommended=recommended,
        because=SaidOut.of(quick.why if quick else because(pot, wanted, route)) if route.feasible else None,
        first=[] if quick is None else [quick.payload],
        reason=SaidOut.maybe(route.reason),
        take=ShownOut.of(show_volume(pot.contents.liquid_ml - route.aside_ml)) if route.aside_ml > 0.0 else None,
        let_down=ShownOut.of(show_volume(route.let_down_ml)) if route.let_down_ml > 0.0 else None,
        volume=ShownOut.of(show_volume(route.volume_ml)),
        boil_to=ShownOut.of(show_volume(route.boil_to_ml)),
        share_left=route.share_left,
        leave=SaidOut.maybe(leave(route)),
        mark=ShownOut.of(show_length(route.mark_mm)),
        gross=None if route.gross_g is None else ShownOut.of(show_mass(route.gross_g)),
        minutes=RangeOut.of(route.minutes),
        school=_school_of(route.kind),
        thickener=None if t is None else word(t.label),
        dry_name=None if t is None else word(t.dry),
        dry=None if dry is None else ShownOut.of(dry.main),
        dry_also=None if dry is None else ShownOut.of(dry.also),
        dry_range=None if t is None else RangeOut.of(route.dry_range_g),
        carrier=None if carrier is None else ShownOut.of(carrier.main),
        carrier_also=None if carrier is None else ShownOut.of(carrier.also),
        carrier_name=None if t is None or not t.carrier else word(t.carrier),
        how=None if t is None else word(t.how),
        allergens=[] if t is None else list(t.allergens),
        salt_before=RangeOut.of(route.salt_before),
        salt_after=RangeOut.of(route.salt_after),
        salt_to_add=None if salt is None else ShownOut.of(salt.main),
        salt_to_add_also=None if salt is None else ShownOut.of(salt.also),
        salt_first=None if salt is None else ShownOut.of(salt_amount(FIRST_SHARE * route.salt_to_add_g, "table").main),
        portions=wanted.portions_in(route.volume_ml),
        body=body_out(route.body),
        notes=SaidOut.of_all(notes(pot, wanted, route)),
        reasons=[ReasonOut.of(reason) for reason in reasons(pot, wanted, route)],
    )


@dataclass(frozen=True, slots=True)
class Quick:
    """A way that is in time elsewhere: what is done first for it, and why."""

    payload: dict[str, Any]
    why: Message


def _quick(found: Hurried, pair: Pair) -> Quick:
    """The other pan, or the second one, as an entry and in words."""
    where = {"pan_id": str(pair.pan_id), "burner_id": str(pair.burner_id)}
    takes = show_minutes(found.takes_min)
    place = say("batch.pan_on_burner", pan=pair.pan.name, burner=pair.burner.name)
    if found.split_ml is None:
        return Quick({"kind": "moved", **where}, say("batch.in_another_pan", place=place, time=takes))
    over = say("batch.in_two_pans", volume=show_volume(found.split_ml), place=place, time=takes)
    return Quick({"kind": "split", "volume_ml": found.split_ml, **where}, over)


def routes_out(
    pot: Pot,
    wanted: ev.Wanted,
    routes: tuple[Route, ...],
    points: tuple[TradePoint, ...],
    *,
    pairs: Sequence[Pair] = (),
    chosen: str | None = None,
) -> out.RoutesOut:
    """The ways; those that this pan is too slow for in another of the kitchen's pans, where one is quick enough.

    The way that was ``chosen`` comes first while it leads there, and nothing else is recommended then.
    """
    wanted = wanted.of(pot)
    found = {r.kind: hurried(pot, wanted, r, [(p.pan, p.burner) for p in pairs]) for r in routes} if pairs else {}
    ways = [
        (one.route, _quick(one, pairs[one.place])) if (one := found.get(route.kind)) else (route, None)
        for route in routes
    ]
    # What another pan makes possible follows what this one does.
    ways.sort(key=lambda way: (not way[0].feasible, way[0].kind != chosen, way[1] is not None))
    return out.RoutesOut(
        routes=[
            route_out(pot, wanted, route, recommended=route.feasible and i == 0 and route.kind != chosen, quick=quick)
            for i, (route, quick) in enumerate(ways)
        ],
        trade=[
            out.TradeOut(
                volume=ShownOut.of(show_volume(p.volume_ml)), salt_percent=p.salt_percent,
                dry_g=dict(p.dry_g),
            )
            for p in points
        ],
        wanted=ShownOut.of(show_volume(wanted.amount_ml)),
        salt_percent=wanted.salt_percent,
        ceiling_percent=wanted.ceiling_percent,
        least=ShownOut.of(show_volume(points[0].volume_ml if points else 0.0)),
        most=ShownOut.of(show_volume(pot.contents.liquid_ml)),
    )  # fmt: skip


def _school_of(way: str) -> str | None:
    """The school that a way binds with, whether it needs any of it or not."""
    school = WAYS[way].school
    return None if school is None else school.key


MarkKind = Literal["start", "now", "stop", "ceiling", "over"]

#: What the skewer says beside its marks.
MARK_WORDS: dict[MarkKind, Message] = {
    "start": say("batch.mark_start"),
    "now": say("batch.mark_now"),
    "stop": say("batch.mark_stop"),
    "ceiling": say("batch.mark_ceiling"),
    "over": say("batch.mark_over"),
}


def mark_words(mark: out.MarkOut) -> Message:
    """What stands beside a mark, and how deep it is."""
    depth = Shown(mark.depth.value, mark.depth.metric, mark.depth.us)
    return say("batch.mark", what=MARK_WORDS[mark.kind], depth=depth)


def marks_out(timeline: Timeline, act: Act | None = None, route: Route | None = None) -> list[out.MarkOut]:
    """Where the skewer is marked: the start, now, where to stop, and where it gets too salty."""
    pot, start = timeline.pot, timeline.start
    if pot is None or start is None:
        return []
    marks = [out.MarkOut(kind="now", depth=ShownOut.of(show_length(pot.depth_mm)))]
    if start.depth_mm - pot.depth_mm > 1.0 and start.pan == pot.pan:
        marks.insert(0, out.MarkOut(kind="start", depth=ShownOut.of(show_length(start.depth_mm))))
    if act is not None and act.kind == "take":
        # What the sauce needs is taken first: the marks are those of what is left then.
        return marks
    if act is not None and act.kind in ("boil", "heat"):
        marks.append(out.MarkOut(kind="stop", depth=ShownOut.of(show_length(act.stop_mm))))
    elif route is not None and route.share_left < 1.0 - CLOSE_ENOUGH:
        marks.append(out.MarkOut(kind="stop", depth=ShownOut.of(show_length(route.mark_mm))))
    ceiling = salt_ceiling_ml(pot, timeline.wanted, route) if timeline.wanted else None
    if ceiling is not None:
        # A ceiling that is passed already is drawn at the surface.
        depth = pot.mark_mm(ceiling) if ceiling < pot.contents.liquid_ml else pot.depth_mm
        kind: MarkKind = "ceiling" if ceiling < pot.contents.liquid_ml else "over"
        marks.append(out.MarkOut(kind=kind, depth=ShownOut.of(show_length(depth))))
    return marks


def curve_out(timeline: Timeline, act: Act, ahead: Progress | None, now: datetime | None = None) -> out.CurveOut:
    """The measurements so far, the way the pot is thought to have gone, and the way on to the mark."""
    pot = timeline.pot
    assert pot is not None
    ceiling = salt_ceiling_ml(pot, timeline.wanted, act.route) if timeline.wanted else None
    measured = [
        m for m in timeline.moments
        if m.stands and isinstance(m.event.payload, ev.Started | ev.Read) and m.pot
    ]  # fmt: skip
    outlook = act.outlook
    known = outlook is not None and outlook.readings > 0
    rate = power_of(pot, FULL_BOIL)
    steam = outlook.steam if outlook else Estimate.log_normal(rate.steam_g_min, rate.spread) if rate else None
    return out.CurveOut(
        points=[
            out.CurvePoint(
                at=m.event.at, liquid=ShownOut.of(show_volume(m.pot.contents.liquid_ml)), error_ml=m.pot.error_ml
            )
            for m in measured[-MOST_CURVE_POINTS:]
            if m.pot is not None
        ],
        stop=ShownOut.of(show_volume(act.amount)) if act.kind in ("boil", "heat") else None,
        ceiling=None if ceiling is None else ShownOut.of(show_volume(ceiling)),
        arrive=None if outlook is None else out.ArrivalOut(
            low=outlook.arrives[0], best=outlook.arrives[1], high=outlook.arrives[2]
        ),
        steam_g_min=RangeOut.of(steam or Estimate.exact(0.0)),
        learned_from=outlook.readings if outlook else 0,
        left_out=outlook.outliers if outlook else 0,
        rate=SaidOut.of(rate_line(outlook, rate.batches if rate else 0)) if outlook and (known or rate) else None,
        course=_course(pot, ahead, outlook, now) if ahead and outlook else [],
    )  # fmt: skip


#: The course goes on so far past the present: a page is not asked for anew at every moment.
COURSE_AHEAD = timedelta(minutes=2)

#: A page draws no more measurements than this; the rest are in the log.
MOST_CURVE_POINTS = 120


def _course(pot: Pot, ahead: Progress, outlook: Outlook, now: datetime | None) -> list[out.CoursePoint]:
    """Where the pot is thought to stand, from the last look until it is surely past the mark, and to the present."""
    begin, end = ahead.last, max([outlook.arrives[2], *([now + COURSE_AHEAD] if now else [])])
    steps = 16
    gross = pot.gross_g
    return [
        out.CoursePoint(
            at=one.at, low_ml=one.liquid_ml.low, high_ml=one.liquid_ml.high,
            liquid=ShownOut.of(show_volume(one.liquid_ml.best)),
            depth=ShownOut.of(show_length(pot.mark_mm(one.liquid_ml.best))),
            gross=None if gross is None else ShownOut.of(
                show_mass(gross + (one.mass_g - pot.contents.mass_g) * pot.share)
            ),
        )
        for one in ahead.course([begin + (end - begin) * i / steps for i in range(steps + 1)])
    ]  # fmt: skip


def heat_out(timeline: Timeline, ahead: Progress | None) -> out.HeatOut:
    """How it is heated, as far as anyone said."""
    last = timeline.heat
    off = (ahead is None or not ahead.window.heating) if last is None else last.heat == "off"
    setting = ahead.window.setting if ahead and last is None else last
    kind = "off" if off or setting is None else setting.heat
    share = setting.share if setting else 1.0
    return out.HeatOut(
        key=heat_key(HeatSetting(heat=kind, share=share)),
        heat=kind,
        share=share,
        cover=setting.cover if setting else "open",
        oven=ShownOut.of(show_temperature(setting.oven_c if setting else FULL_BOIL.oven_c)),
        told=last is not None,
    )


_HEAT_UNKNOWN = out.HeatOut(
    key="off", heat="off", share=1.0, cover="open", oven=ShownOut.of(show_temperature(FULL_BOIL.oven_c)), told=False
)


#: Less than this, mL, is not worth a sign on the ribbon: a spoon's half. Modelling choice.
LEAST_DRAWN_ML = 2.5


def _drawn(volume_ml: float) -> ShownOut | None:
    return ShownOut.of(show_volume(volume_ml)) if volume_ml >= LEAST_DRAWN_ML else None


def stretch_out(stretch: Stretch) -> out.StretchOut:
    return out.StretchOut(
        stage=stretch.stage, planned=stretch.planned, from_ml=stretch.from_ml, to_ml=stretch.to_ml,
        from_tone=stretch.from_tone, to_tone=stretch.to_tone, salt_percent=stretch.salt_percent,
        from_fat_ml=stretch.from_fat_ml, to_fat_ml=stretch.to_fat_ml,
        liquid=ShownOut.of(show_volume(max(stretch.to_ml - stretch.to_fat_ml, 0.0))),
        fat=_drawn(stretch.fat_ml), vapour=_drawn(stretch.vapour_ml), added=_drawn(stretch.added_ml),
    )  # fmt: skip


def wanted_out(wanted: ev.Wanted, minutes_left: float | None = None) -> out.WantedOut:
    return out.WantedOut(
        amount=ShownOut.of(show_volume(wanted.amount_ml)),
        by_people=wanted.told_by == "people",
        # What was told by the pot is said again by what it came to: half of it is not half of what is left.
        said=SaidOut.of(wanted.amount_said if wanted.told_by == "portions" else show_volume(wanted.amount_ml)),
        people=wanted.people or USUAL_PEOPLE,
        over=wanted.dish,
        minutes=None if minutes_left is None else max(round(minutes_left), 1),
        avoid=list(wanted.avoid),
        portions=wanted.portions,
        portion=None if wanted.helping_ml is None else ShownOut.of(show_volume(wanted.helping_ml)),
        body=wanted.body,
        salt_percent=wanted.salt_percent,
        ceiling_percent=wanted.ceiling_percent,
        fat_g_per_100_ml=wanted.fat_g_per_100_ml,
    )


def batch_out(batch: Batch, board: Board) -> out.BatchOut:
    """Everything the page shows of one batch. What cannot be worked out is missing, with its reason."""
    timeline, part, act = board.timeline, board.part, board.act
    pot, started, wanted = timeline.pot, timeline.started, timeline.wanted
    doing = act.doing
    no_marks: list[out.MarkOut] = []
    no_words: list[SaidOut] = []
    no_signs: tuple[str, ...] = ()
    no_ribbon: list[out.StretchOut] = []
    thought = board.part("start", lambda: _thought(board), _NOTHING_THOUGHT)
    whole = None if pot is None else part("pot", lambda: pot_out(pot), None)
    return out.BatchOut(
        id=batch.id,
        name=batch.name,
        created_at=batch.created_at,
        last_seq=batch.last_seq,
        finished=timeline.ended,
        pan=None if pot is None else PanShape(**pot.pan.model_dump()),
        burner=None if pot is None else pot.burner.name,
        start=None if started is None else part("start", lambda: start_out(started), None),
        pot=whole,
        marks=part("marks", lambda: marks_out(timeline, doing, board.route), no_marks),
        curve=None if pot is None else part("curve", lambda: curve_out(timeline, doing, board.ahead, board.now), None)
        or part("curve", lambda: curve_out(timeline, Act("alone"), None), None),
        heat=part("forecast", lambda: heat_out(timeline, board.ahead), _HEAT_UNKNOWN),
        beside=None if pot is None or pot.beside is None else pot.beside.pan.name,
        signs=list(timeline.signs),
        signs_asked=list(part("pot", lambda: ev.signs_asked(timeline), no_signs)),
        ribbon=part("ribbon", lambda: [stretch_out(s) for s in board.ribbon], no_ribbon),
        wanted=None if wanted is None else part("plan", lambda: wanted_out(wanted, timeline.minutes_left), None),
        suggested=None if pot is None else part("plan", lambda: wanted_out(suggested(pot)), None),
        chosen=None if timeline.chosen is None else timeline.chosen.route,
        plan=part("plan", lambda: _plan_out(board), None),
        act=part("words", lambda: _act_out(act, timeline), _alone()),
        concerns=part("words", lambda: _concerns(timeline), no_words),
        log=_log(timeline),
        devices=_devices(timeline),
        skim=part("skim", lambda: _skim(board), None),
        cooling=part("cooling", lambda: cooling_out(timeline), None),
        estimated=thought.estimated,
        doubt=thought.doubt,
        served=None if pot is None else part("pot", lambda: _served(timeline, pot), None),
        boil_cautions=SaidOut.of_all(boiling_cautions(pot.body)) if pot is not None and doing.kind == "boil" else [],
        serve_cautions=[] if pot is None else part(
            "words",
            lambda: SaidOut.of_all(
                (*alcohol_cautions(pot.contents), *allergen_cautions(timeline), *SERVING_CAUTIONS)
            ),
            SaidOut.of_all(SERVING_CAUTIONS),
        ),
        ladder=[out.StepOut(index=step.index, word=word(step.word), does=word(step.does)) for step in LADDER],
        # Last: by now every part has been asked for.
        missing=_missing(batch, board),
    )  # fmt: skip


def _missing(batch: Batch, board: Board) -> list[out.MissingOut]:
    """What is missing, told in the server's log too: nothing of it is as it should be."""
    for moment in board.timeline.moments:
        if isinstance(moment.problem, SetAsideError):
            log.warning("Batch %s: entry %s is set aside: %s", batch.pk, moment.event.id, moment.problem.message)
    for part, error in board.missing.items():
        log.warning("Batch %s goes without %s: %s", batch.pk, part, error.message)
    return [out.MissingOut(part=part, why=SaidOut.of(error.message)) for part, error in board.missing.items()]


def _act_out(act: Act, timeline: Timeline) -> out.ActOut:
    thickener = act.route.thickener if act.route and act.kind == "thicken" else None
    return out.ActOut(
        kind=act.kind, doing=act.doing.kind, why=act.why, way=act.way, measure=act.measure, wait_min=_wait(act),
        answers=answers_to(act, timeline), stage=stage_of(act), amount=act.amount,
        sentence=SaidOut.of(now_line(act, timeline)),
        thickener=None if thickener is None else thickener.key,
        look_at=act.look_at,
        quiet=quiet(timeline.seen, act.look_at),
        countdown=SaidOut.maybe(_countdown(act)),
        overdue=None if act.look_at is None else SaidOut.of(overdue_line(act.doing, timeline)),
    )  # fmt: skip


def _countdown(act: Act) -> Message | None:
    """What stands before the sentence until it is time to look; what is asked first has no time."""
    if act.look_at is None or act.beneath is not None:
        return None
    return say("bar.look_in" if act.kind == "boil" else "bar.wait", until=Until(act.look_at))


def _concerns(timeline: Timeline) -> list[SaidOut]:
    """What makes the pot doubtful, until it is answered."""
    return [SaidOut.of(concern_line(concern, timeline)) for concern in timeline.concerns]


def _wait(act: Act) -> RangeOut | None:
    """How long a thickener wants, min."""
    if act.wait_min is None:
        return None
    low, high = act.wait_min
    return RangeOut(low=low, best=(low + high) / 2.0, high=high)


def _alone() -> out.ActOut:
    return out.ActOut(
        kind="alone", doing="alone", why=None, way=None, measure=None, wait_min=None, answers=[], stage="strain",
        sentence=SaidOut.of(ALONE), look_at=None, quiet=False, countdown=None, overdue=None, amount=0.0,
        thickener=None,
    )  # fmt: skip


def _plan_out(board: Board) -> out.RouteOut | None:
    pot, wanted, route = board.timeline.pot, board.timeline.wanted, board.route
    return None if pot is None or wanted is None or route is None else route_out(pot, wanted, route)


def _skim(board: Board) -> out.SkimOut | None:
    pot, strained = board.timeline.pot, board.strained
    return None if pot is None or strained is None else skim_out(board.timeline, pot, strained, board.route)


@dataclass(frozen=True, slots=True)
class _Thought:
    """What the list says of the start, and what contradicts it."""

    estimated: out.EstimatedOut | None
    doubt: SaidOut | None


_NOTHING_THOUGHT = _Thought(None, None)


def _thought(board: Board) -> _Thought:
    started, strained = board.timeline.started, board.strained
    if started is None or strained is None:
        return _NOTHING_THOUGHT
    return _Thought(
        None if strained.estimated is None else estimated_out(strained.estimated, started.liquid.braise),
        SaidOut.maybe(strained.doubt),
    )


def _served(timeline: Timeline, pot: Pot) -> out.ServedOut:
    measured = timeline.finished.yield_ml if timeline.finished else None
    volume = measured or pot.contents.liquid_ml
    portions = timeline.wanted.portions_in(volume) if timeline.wanted else None
    return out.ServedOut(volume=ShownOut.of(show_volume(volume)), portions=portions)


def _log(timeline: Timeline) -> list[out.EntryOut]:
    """What was recorded by hand; what devices read by themselves stands in ``devices``."""
    started = next((m.event.id for m in timeline.moments if isinstance(m.event.payload, ev.Started)), None)
    return [
        out.EntryOut(
            id=m.event.id,
            seq=m.event.seq,
            at=m.event.at,
            kind=m.event.payload.kind,
            text=_said_of(m.event.payload),
            struck=m.struck,
            problem=_problem(m.problem),
            told=m.event.told,
            strikes=m.event.payload.event if isinstance(m.event.payload, ev.Struck) else None,
            undoable=m.event.payload.undoable and not m.struck and m.event.id != started,
        )
        for m in timeline.moments
        if m.event.device is None
    ]


def _problem(error: SpissusError | None) -> SaidOut | None:
    return None if error is None else SaidOut.of(error.message)


def _said_of(happened: ev.Kind) -> SaidOut:
    """What the log says of an event; for what cannot be put into words, its kind."""
    try:
        return SaidOut.of(happened.said())
    except Exception:  # an entry without words is still an entry
        return SaidOut.of(say("batch.not_put_into_words", kind=happened.kind))


def _devices(timeline: Timeline) -> list[out.DeviceReadOut]:
    """For each device that reads this pot, its newest reading, and whether it contradicts the ledger."""
    newest = {m.event.device: m for m in timeline.moments if m.event.device is not None}
    counts = Counter(m.event.device for m in timeline.moments if m.event.device is not None)
    return [
        out.DeviceReadOut(
            name=name, at=m.event.at, text=_said_of(m.event.payload), count=counts[name],
            problem=_problem(m.problem),
            reading=m.event.payload.measured.value if isinstance(m.event.payload, ev.Read) else None,
        )
        for name, m in newest.items()
    ]  # fmt: skip


def line_out(batch: Batch) -> out.BatchLine:
    """A batch in a list, from its summary alone."""
    s = batch.summary
    known = "volume_ml" in s
    return out.BatchLine(
        id=batch.id, name=batch.name, created_at=batch.created_at, finished=s.get("finished", False),
        stage=s.get("stage", "strain"), pan=s.get("pan"),
        volume=ShownOut.of(show_volume(s["volume_ml"])) if known else None,
        start=ShownOut.of(show_volume(s["start_ml"])) if known else None,
        salt_percent=s.get("salt_percent"), body=word(s["body"]) if s.get("body") else None, tone=s.get("tone"),
        share=min(s["volume_ml"] / s["start_ml"], 1.0) if known else None,
        left=SaidOut.of(left_of_it(s["volume_ml"], s["start_ml"])) if known else None, look_at=s.get("look_at"),
        quiet=s.get("quiet", False), concern=_concern(s.get("concern")),
    )  # fmt: skip


def _concern(kind: ConcernKind | None) -> str | None:
    return plain(CONCERN_WORDS[kind]) if kind in CONCERN_WORDS else None


def pans_out(timeline: Timeline, pairs: Sequence[Pair], data: out.PansIn) -> out.PansOut:
    """The kitchen's pans for what this pot still has to lose."""
    pot = timeline.pot
    assert pot is not None
    act = next_act(timeline).doing
    stop_ml = act.amount if act.kind in ("boil", "heat") else suggested(pot).amount_ml
    found = compared(pot, stop_ml, [(pair.pan, pair.burner) for pair in pairs], data.heat)
    choices = []
    for one in found:
        pair = pairs[one.place]
        choices.append(
            out.PanChoiceOut(
                pan_id=pair.pan_id, pan=PanShape(**one.pan.model_dump()), burner_id=pair.burner_id,
                burner=one.burner.name,
                here=one.pan == pot.pan and one.burner.name == pot.burner.name,
                minutes=None if one.minutes is None else RangeOut.of(one.minutes),
                how=SaidOut.maybe(one.how),
                end_depth=ShownOut.of(show_length(one.end_mm)),
                dip_error=ShownOut.of(show_volume(one.dip_error_ml)),
                shallow=one.end_mm < SHALLOW_MM, scorches=one.scorches,
            )
        )  # fmt: skip
    here = next((c for c in choices if c.here and c.minutes), None)
    split = None
    if here is not None and here.minutes is not None and here.minutes.best > 12.0:
        two, one_pan = show_minutes(here.minutes.best / 2.0), show_minutes(here.minutes.best)
        split = say("batch.split_over_two", two=two, one=one_pan)
    return out.PansOut(stop=ShownOut.of(show_volume(stop_ml)), choices=choices, split=SaidOut.maybe(split))

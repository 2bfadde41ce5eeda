"""How the pot is heated, how it has gone, and when it will be there."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Annotated

from shared.shapes import RangeOut, SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.estimate import Estimate
from spissus_core.amounts.quantities import show_temperature, show_volume, volume_ticks
from spissus_core.amounts.tables import key_of
from spissus_core.board import Board
from spissus_core.estimation.forecast import Outlook, Progress
from spissus_core.estimation.window import power_of
from spissus_core.fold import Timeline
from spissus_core.ledger.water import HOT_EXPANSION
from spissus_core.measuring.measurement import Reads
from spissus_core.phenomena.evaporation import Cover
from spissus_core.phenomena.heating import FULL_BOIL, Heat, HeatSetting, heat_key
from spissus_core.planning.acts import Act
from spissus_core.planning.ceiling import salt_ceiling_ml
from spissus_core.planning.doubts import guard
from spissus_core.planning.solving import Route
from spissus_core.planning.spoken import rate_line
from spissus_core.pot import Pot


class CurvePoint(Shape):
    """A measurement of the liquid, with its standard error in mL."""

    at: datetime
    liquid: ShownOut
    error_ml: float


class ReadsOut(Shape):
    """What a dip, a jug (hot, the fat with it) and a scale show; null where the pan was never weighed."""

    dip: ShownOut
    jug: ShownOut
    scale: ShownOut | None

    @classmethod
    def of(cls, reads: Reads) -> ReadsOut:
        """What they show, in words."""
        return cls(
            dip=ShownOut.of(reads.shown("dip")),
            jug=ShownOut.of(reads.shown("jug")),
            scale=None if reads.scale is None else ShownOut.of(reads.shown("scale")),
        )


class CoursePoint(Shape):
    """Where the pot is thought to stand at a time, with its 80 % interval, and what is read of it then."""

    at: datetime
    liquid: ShownOut
    low_ml: float
    high_ml: float
    reads: ReadsOut


class HeatOut(Shape):
    """How the pot is heated; ``told`` says whether anyone said so, or a full boil is assumed. ``key`` is the heat of
    the list that comes nearest, and ``guard`` what is said before it is set to boil."""

    key: Annotated[str, key_of("heats")]
    heat: Heat
    share: float
    cover: Cover
    oven: ShownOut
    hold: ShownOut
    told: bool
    guard: SaidOut | None


class ArrivalOut(Shape):
    """A time with its 80 % interval."""

    low: datetime
    best: datetime
    high: datetime


class AxisOut(Shape):
    """The volumes between which the liquid is drawn, and round ones among them in either system of units."""

    low_ml: float
    high_ml: float
    metric: list[ShownOut]
    us: list[ShownOut]


class LookOut(Shape):
    """The look that follows a reading of so much liquid, taken ``at`` the earliest: so many minutes after it."""

    liquid_ml: float
    at: datetime
    minutes: float


class AloneOut(Shape):
    """What a page goes by that has nobody to ask any more, as of the batch's entry ``last_seq``: the course of the pot
    in the hours ``ahead``, and when to look after a reading. Nothing of either where it is not heated."""

    last_seq: int
    ahead: list[CoursePoint]
    looks: list[LookOut]


class CurveOut(Shape):
    """The liquid over time, and when boiling on would bring it to the mark; ``most_ml_min`` is more than any such
    stove takes in a minute, and two readings that are ``no_chance_ml`` apart are so by no chance."""

    points: list[CurvePoint]
    stop: ShownOut | None
    stop_reads: ReadsOut | None
    ceiling: ShownOut | None
    arrive: ArrivalOut | None
    steam_g_min: RangeOut
    axis: AxisOut
    learned_from: int
    left_out: int
    rate: SaidOut | None
    course: list[CoursePoint]
    most_ml_min: float
    no_chance_ml: float


def curve_out(
    timeline: Timeline,
    act: Act,
    ahead: Progress | None,
    route: Route | None = None,
    now: datetime | None = None,
) -> CurveOut:
    """The measurements so far, the way the pot is thought to have gone, and the way on to the mark."""
    pot = timeline.pot
    assert pot is not None
    ceiling = salt_ceiling_ml(pot, timeline.asked.wanted, route) if timeline.asked.wanted else None
    measured = [m for m in timeline.moments if m.stands and isinstance(m.event.payload, ev.Started | ev.Read) and m.pot]
    # The boil in hand, from the look before it.
    window = timeline.stove.window
    if window is not None and window.heating:
        before = max((i for i, m in enumerate(measured) if m.event.at <= window.began), default=0)
        measured = measured[before:]
    outlook, mark = act.outlook, act.mark
    known = outlook is not None and outlook.readings > 0
    rate = power_of(pot, FULL_BOIL)
    steam = outlook.steam if outlook else Estimate.log_normal(rate.steam_g_min, rate.spread) if rate else None
    return CurveOut(
        points=[
            CurvePoint(
                at=m.event.at, liquid=ShownOut.of(show_volume(m.pot.contents.liquid_ml)), error_ml=m.pot.error_ml
            )
            for m in measured[-MOST_CURVE_POINTS:]
            if m.pot is not None
        ],
        stop=None if mark is None else ShownOut.of(show_volume(mark.ml)),
        stop_reads=None if mark is None else ReadsOut.of(mark.reads),
        ceiling=None if ceiling is None else ShownOut.of(show_volume(ceiling)),
        arrive=None
        if outlook is None
        else ArrivalOut(low=outlook.arrives[0], best=outlook.arrives[1], high=outlook.arrives[2]),
        steam_g_min=RangeOut.of(steam or Estimate.exact(0.0)),
        axis=_axis(
            [m.pot for m in measured if m.pot is not None] or [pot],
            [ml for ml in (None if mark is None else mark.ml, ceiling) if ml is not None],
        ),
        learned_from=outlook.readings if outlook else 0,
        left_out=outlook.outliers if outlook else 0,
        rate=SaidOut.of(rate_line(outlook, rate.batches if rate else 0)) if outlook and (known or rate) else None,
        course=[] if ahead is None or outlook is None else _course(pot, ahead, _to_the_mark(ahead, outlook, now)),
        most_ml_min=ev.most_ml_min(pot),
        no_chance_ml=ev.no_chance_ml(pot.known_to_ml(act.reads_by)),
    )


#: An axis begins a little below the lowest that is drawn. Modelling choice.
BELOW_AXIS = 0.85


def _axis(pots: Sequence[Pot], lines_ml: Sequence[float]) -> AxisOut:
    """From a little below the lowest mark to the highest reading."""
    levels = [pot.contents.liquid_ml for pot in pots]
    low = BELOW_AXIS * min([levels[-1], *(ml for ml in lines_ml if ml < max(levels))])
    high = max(pot.contents.liquid_ml + pot.error_ml for pot in pots)
    ticks = volume_ticks(low, high)
    return AxisOut(
        low_ml=low,
        high_ml=high,
        metric=[ShownOut.of(one) for one in ticks["metric"]],
        us=[ShownOut.of(one) for one in ticks["us"]],
    )


#: The course goes on so far past the present: a page is not asked for anew at every moment.
COURSE_AHEAD = timedelta(minutes=2)


#: So far ahead a page may be alone with a pot, and in how many steps it is told of it (modelling choice).
ALONE, ALONE_STEPS = timedelta(hours=6), 12


#: A page draws no more measurements than this; the rest are in the log.
MOST_CURVE_POINTS = 120


def alone_out(batch_seq: int, board: Board) -> AloneOut:
    """What the page of a batch needs before it is alone with it."""
    pot, ahead, doing = board.timeline.pot, board.ahead, board.act.doing
    if pot is None or ahead is None or doing.outlook is None:
        return AloneOut(last_seq=batch_seq, ahead=[], looks=[])
    end = _end(doing.outlook, board.now)
    onward = max(board.now or ahead.last, ahead.last) + ALONE - end
    moments = [end + onward * i / ALONE_STEPS for i in range(1, ALONE_STEPS + 1)] if onward > timedelta(0) else []
    looks = [] if doing.mark is None else ahead.looks_alone(doing.mark.ml, pot.known_to_ml(doing.reads_by))
    return AloneOut(
        last_seq=batch_seq,
        ahead=_course(pot, ahead, moments),
        looks=[LookOut(liquid_ml=look.liquid_ml, at=look.at, minutes=look.minutes) for look in looks],
    )


#: The course to the mark is drawn in so many steps.
COURSE_STEPS = 16


def _to_the_mark(ahead: Progress, outlook: Outlook, now: datetime | None) -> list[datetime]:
    """From the last look until it is surely past the mark, and to the present."""
    whole = _end(outlook, now) - ahead.last
    return [ahead.last + whole * i / COURSE_STEPS for i in range(COURSE_STEPS + 1)]


def _end(outlook: Outlook, now: datetime | None) -> datetime:
    return max([outlook.arrives[2], *([now + COURSE_AHEAD] if now else [])])


def _course(pot: Pot, ahead: Progress, moments: Sequence[datetime]) -> list[CoursePoint]:
    """Where the pot is thought to stand at these moments, and what is read of it then."""
    gross, fat_ml = pot.gross_g, pot.contents.fat_ml

    def reads(liquid_ml: float, mass_g: float) -> Reads:
        weight = None if gross is None else gross + (mass_g - pot.contents.mass_g) * pot.share
        return Reads(pot.mark_mm(liquid_ml), (liquid_ml + fat_ml) * HOT_EXPANSION, weight)

    return [
        CoursePoint(
            at=one.at,
            low_ml=one.liquid_ml.low,
            high_ml=one.liquid_ml.high,
            liquid=ShownOut.of(show_volume(one.liquid_ml.best)),
            reads=ReadsOut.of(reads(one.liquid_ml.best, one.mass_g)),
        )
        for one in ahead.course(moments)
    ]


def heat_out(timeline: Timeline, ahead: Progress | None) -> HeatOut:
    """How it is heated, as far as anyone said."""
    last = timeline.stove.heat
    off = (ahead is None or not ahead.window.heating) if last is None else last.heat == "off"
    setting = ahead.window.setting if ahead and last is None else last
    kind = "off" if off or setting is None else setting.heat
    share = setting.share if setting else 1.0
    return HeatOut(
        key=heat_key(HeatSetting(heat=kind, share=share)),
        heat=kind,
        share=share,
        cover=setting.cover if setting else "open",
        oven=ShownOut.of(show_temperature(setting.oven_c if setting else FULL_BOIL.oven_c)),
        hold=ShownOut.of(show_temperature(setting.hold_c if setting else FULL_BOIL.hold_c)),
        told=last is not None,
        guard=SaidOut.maybe(guard(timeline)),
    )


HEAT_UNKNOWN = HeatOut(
    key="off",
    heat="off",
    share=1.0,
    cover="open",
    oven=ShownOut.of(show_temperature(FULL_BOIL.oven_c)),
    hold=ShownOut.of(show_temperature(FULL_BOIL.hold_c)),
    told=False,
    guard=None,
)

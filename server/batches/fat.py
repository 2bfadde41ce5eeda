"""Taking the fat off, and cooling a pot for it."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Literal

from shared.shapes import RangeOut, SaidOut, Shape, ShownOut
from spissus_core.amounts.quantities import ML_PER_CUP, show_mass, show_span, show_temperature, show_volume
from spissus_core.events import State
from spissus_core.intake.liquid import Strained
from spissus_core.ledger.contents import SPECIFIC_VOLUME_ML_G
from spissus_core.messages import Message, Term, say
from spissus_core.phenomena.cooling import Cooling, forecast, judge
from spissus_core.phenomena.fat import USUAL_REST_G_PER_100_ML, WAYS, SkimWay
from spissus_core.planning.safety import FAT_CAUTIONS, cooling_cautions
from spissus_core.planning.skimming import Option, advised, fat_for_roux, options, rest_ml, sets_at, settling, show_fat
from spissus_core.planning.solving import Route
from spissus_core.planning.spoken import cooling_line
from spissus_core.pot import Pot
from spissus_core.wish import Wish
from words import plain


class SkimWayOut(Shape):
    """A way to take the fat off this pot: what it leaves, takes with it and costs, or why it is barred."""

    way: SkimWay
    label: str
    share: float
    takes: ShownOut
    leaves: ShownOut
    lost: ShownOut
    minutes: RangeOut
    time: str
    costs: list[SaidOut]
    barred: SaidOut | None
    advised: bool
    ice: ShownOut | None


class SkimOut(Shape):
    """Taking the fat off: the ways, how much is to stay, and what is to be known first."""

    ways: list[SkimWayOut]
    rest: ShownOut
    rest_g_per_100_ml: float
    rest_in: ShownOut
    fat: ShownOut
    per_portion: SaidOut | None
    kept: ShownOut | None
    settling: SaidOut
    sets: SaidOut
    roux: SaidOut | None
    cautions: list[SaidOut]


class TemperatureOut(Shape):
    """A temperature, °C, at a time."""

    at: datetime
    celsius: float
    shown: ShownOut


class LimitOut(Shape):
    """A temperature to be reached, and by when; unknown until the clock runs."""

    celsius: float
    shown: ShownOut
    by: datetime | None


class CoolingOut(Shape):
    """A pot set to cool: its log, the way ahead at its pace, and how it stands; ``due`` is the limit to meet next."""

    began: datetime
    surroundings: ShownOut
    verdict: Literal["above", "unknown", "in_time", "too_slow", "missed", "done"]
    sentence: SaidOut
    readings: list[TemperatureOut]
    forecast: list[TemperatureOut]
    limits: list[LimitOut]
    due: LimitOut | None
    cautions: list[SaidOut]


def skim_out(timeline: State, pot: Pot, strained: Strained, route: Route | None) -> SkimOut:
    """The ways to take the fat off this pot."""
    found, rest = options(pot, strained), rest_ml(pot, timeline.asked.wanted)
    best = advised(found, rest, timeline.minutes_left)
    leave = timeline.asked.wanted.fat_g_per_100_ml if timeline.asked.wanted else USUAL_REST_G_PER_100_ML
    roux = None
    if route is not None:
        roux = fat_for_roux(timeline.skimming.kept_g, pot.contents.fat_free, route.dry_g, route.thickener)
    chosen = next((o for o in found if o.way == best), None)
    portions = _per_portion(pot, timeline.asked.wanted, chosen)
    return SkimOut(
        ways=[_way(option, advised=option.way == best) for option in found],
        rest=ShownOut.of(show_volume(rest)),
        rest_g_per_100_ml=leave,
        rest_in=ShownOut(
            value=leave,
            metric=f"{leave:g}\u00a0g in 100\u00a0mL",
            us=f"{show_fat(leave * ML_PER_CUP / 100.0).us} a cup",
        ),
        fat=ShownOut.of(show_fat(pot.contents.fat_free)),
        per_portion=SaidOut.maybe(portions),
        kept=ShownOut.of(show_fat(timeline.skimming.kept_g)) if timeline.skimming.kept_g >= 1.0 else None,
        settling=SaidOut.of(settling(pot)),
        sets=SaidOut.of(sets_at(strained)),
        roux=SaidOut.maybe(roux),
        cautions=SaidOut.of_all(FAT_CAUTIONS) if pot.contents.fat_ml > 1.0 else [],
    )


def _per_portion(pot: Pot, wanted: Wish | None, chosen: Option | None) -> Message | None:
    """Fat on each portion, before and after."""
    count = None if wanted is None else wanted.portions or wanted.people
    if count is None or pot.contents.fat_free < 0.5:
        return None
    before = pot.contents.fat_free / count
    if chosen is None:
        return say("batch.on_each_portion", fat=show_fat(before))
    after = chosen.leaves_ml.best / SPECIFIC_VOLUME_ML_G["fat_free"] / count
    way = Term(WAYS[chosen.way].label)
    return say("batch.on_each_portion_then", now=show_fat(before), then=show_fat(after), way=way)


def _way(option: Option, *, advised: bool) -> SkimWayOut:
    way = WAYS[option.way]
    return SkimWayOut(
        way=option.way,
        label=plain(Term(way.label)),
        share=way.share.best,
        takes=ShownOut.of(show_volume(option.takes_ml)),
        leaves=ShownOut.of(show_volume(option.leaves_ml.best)),
        lost=ShownOut.of(show_volume(option.liquid_ml)),
        minutes=RangeOut.of(option.minutes),
        time=show_span(option.minutes.low, option.minutes.high),
        costs=SaidOut.of_all(option.costs),
        barred=SaidOut.maybe(option.barred),
        advised=advised,
        ice=ShownOut.of(show_mass(option.ice_g)) if option.ice_g else None,
    )


def _due(began: datetime, stands: Cooling) -> datetime | None:
    return None if stands.limit_minute is None else began + timedelta(minutes=stands.limit_minute)


def cooling_out(timeline: State) -> CoolingOut | None:
    """The cooling that is under way; None where nothing cools."""
    log = timeline.cooling
    if log is None:
        return None
    limits = timeline.limits
    stands = judge(log.readings, log.surroundings_c, limits)

    def at(minute: float, celsius: float) -> TemperatureOut:
        shown = ShownOut.of(show_temperature(celsius))
        return TemperatureOut(at=log.began + timedelta(minutes=minute), celsius=celsius, shown=shown)

    began = stands.began
    until = (began or 0.0) + limits.cold.minutes
    return CoolingOut(
        began=log.began,
        surroundings=ShownOut.of(show_temperature(log.surroundings_c)),
        verdict=stands.verdict,
        sentence=SaidOut.of(cooling_line(stands, _due(log.began, stands), limits)),
        readings=[at(r.minute, r.celsius) for r in log.readings],
        forecast=[at(r.minute, r.celsius) for r in forecast(log.readings, log.surroundings_c, until)],
        limits=[
            LimitOut(
                celsius=due.celsius,
                shown=ShownOut.of(show_temperature(due.celsius)),
                by=None if began is None else log.began + timedelta(minutes=began + due.minutes),
            )
            for due in limits.cooled
        ],
        due=None
        if stands.limit_c is None
        else LimitOut(
            celsius=stands.limit_c,
            shown=ShownOut.of(show_temperature(stands.limit_c)),
            by=_due(log.began, stands),
        ),
        cautions=SaidOut.of_all(cooling_cautions(limits)),
    )

"""What is said in more than one place: amounts as they are weighed and spooned, a way step by step, how fast it boils,
how a pot cools, and what stands aside."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from ..amounts.quantities import (
    ML_PER_TSP,
    show_length,
    show_mass,
    show_minutes,
    show_number,
    show_percent,
    show_spoons,
    show_temperature,
    show_volume,
)
from ..estimation.forecast import Outlook
from ..events import State
from ..events.state import Rest
from ..ledger.contents import SPECIFIC_VOLUME_ML_G
from ..measuring.measurement import Method
from ..measuring.vessels import SHALLOW_MM
from ..messages import Argument, Message, Shown, Term, say, sentences, several
from ..pantry.ingredients import ingredient
from ..pantry.schools import OF_ITS_OWN_FAT, School
from ..phenomena.body import step_of
from ..phenomena.chilling import covered_c
from ..phenomena.cooling import Cooling, judge
from ..phenomena.limits import Limits
from ..phenomena.plating import COLD_PLATE, WARM_PLATE, on_plate_c, thicker_times
from ..phenomena.seasoning import SaltKind, salt_spoon_ml
from ..pot import Pot
from ..wish import Wish
from .solving import Route


@dataclass(frozen=True, slots=True)
class Measure:
    """An amount as a cook would weigh it, and as the same cook would spoon it."""

    main: Shown
    also: Shown

    @property
    def full(self) -> Shown:
        """Both in one: "27 g (3½ tbsp)"."""
        main, also = self.main, self.also
        return Shown(main.value, f"{main.metric} ({also.metric})", f"{main.us} ({also.us})")


#: Less than this is no part of a teaspoon, but what two fingers take, mL (common practice).
LEAST_SPOON_ML, PINCH = ML_PER_TSP / 16.0, "a pinch"


def salt_amount(grams: float, kind: SaltKind) -> Measure:
    """Salt in tenths of a gram and in level spoons of its kind."""
    spoon_ml = salt_spoon_ml(grams, kind)
    weight, spoons = f"{grams:.1f}\u00a0g", show_spoons(spoon_ml) if spoon_ml >= LEAST_SPOON_ML else PINCH
    return Measure(Shown(grams, weight, spoons), Shown(grams, spoons, weight))


def dry_amount(grams: float, thickener: School) -> Measure:
    """Dry thickener by weight and in level spoons, or in leaves."""
    weight, spoon_ml = show_mass(grams), thickener.spoon_ml(grams)
    spoons = show_spoons(spoon_ml) if spoon_ml >= LEAST_SPOON_ML else PINCH
    if thickener.leaf_g:
        spoons = _leaves(grams / thickener.leaf_g)
    return Measure(Shown(grams, weight.metric, spoons), Shown(grams, spoons, weight.us))


def _leaves(count: float) -> str:
    """Leaves in halves."""
    halves = max(round(2.0 * count), 1)
    whole, half = divmod(halves, 2)
    told = f"{whole or ''}{'½' if half else ''}"
    return f"{told}\u00a0{'leaf' if halves <= 2 else 'leaves'}"


def second_amount(grams: float, thickener: School) -> Message:
    """What goes in of the second thickener of a pair, with ``grams`` g of the first."""
    amount = show_mass(thickener.second_g * grams)
    return say("bar.gelatin" if thickener.second == "gelatin" else "bar.xanthan", amount=amount)


def made_amount(grams: float, thickener: School) -> Measure:
    """What stands ready with ``grams`` g of thickener in it: a slurry by volume, anything else by weight."""
    if not thickener.is_slurry:
        weight = show_mass(thickener.added(grams).mass_g)
        return Measure(weight, Shown(weight.value, weight.us, weight.metric))
    # Of its own liquid it brings nothing, and stands in the cup with it all the same.
    ml = grams * (thickener.liquid_ml + SPECIFIC_VOLUME_ML_G["starch"])
    volume, spoons = show_volume(ml), show_spoons(ml)
    return Measure(volume, Shown(ml, spoons, volume.metric))


#: What is ladled off goes by so many mL, a teaspoon. Common practice.
LADLED_ML = 5.0


def carrier_amount(grams: float, thickener: School) -> Measure:
    """The fat or cold liquid that goes in with ``grams`` g of thickener."""
    if thickener.fat_g:
        fat_g = grams * thickener.fat_g
        weight, spoons = show_mass(fat_g), show_spoons(fat_g / ingredient("lard").density_g_ml)
        return Measure(Shown(fat_g, weight.metric, spoons), Shown(fat_g, spoons, weight.us))
    liquid_ml = grams * thickener.liquid_ml
    if thickener.own_parts:
        # A ladle is no measure.
        liquid_ml = max(round(liquid_ml / LADLED_ML) * LADLED_ML, LADLED_ML)
    volume, spoons = show_volume(liquid_ml), show_spoons(liquid_ml)
    return Measure(volume, Shown(liquid_ml, spoons, volume.metric))


def carrier_name(grams: float, thickener: School, state: State) -> Term:
    """What the fat or cold liquid is called; of the pot's own fat, what makes it up where too little of it was kept."""
    needs_g, kept_g = grams * thickener.fat_g, state.skimming.kept_g
    if thickener.key != OF_ITS_OWN_FAT or kept_g >= ENOUGH_FAT * needs_g:
        return Term(thickener.carrier)
    without_milk = state.asked.wanted is not None and "milk" in state.asked.wanted.avoid
    if kept_g < LEAST_FAT_G:
        return Term("oil" if without_milk else "butter")
    return Term("its own fat, made up with oil" if without_milk else "its own fat, made up with butter")


#: So near to what is needed the fat that was kept is enough, as a share; less than this is none, g. Modelling choices.
ENOUGH_FAT, LEAST_FAT_G = 0.9, 1.0


def on_the_plate(pot: Pot) -> Message:
    """How thick it is after ten minutes on a warm plate, and on a cold one."""
    viscosity = pot.body.viscosity
    warm, cold = (step_of(thicker_times(on_plate_c(plate)) * viscosity) for plate in (WARM_PLATE, COLD_PLATE))
    if warm is cold:
        return say("bar.on_any_plate", body=Term(warm.everyday))
    return say("bar.on_the_plate", warm=Term(warm.everyday), cold=Term(cold.everyday))


#: What is taken off the heat to rest covered does so for this long, min, from just under a boil, °C. Common practice.
COVERED_MIN, COVERED_FROM_C = 10, 95.0


def covered_rest(pot: Pot) -> Message:
    """How warm it still is after a rest with its lid on."""
    celsius = covered_c(pot.contents.liquid_ml, pot.pan, COVERED_FROM_C, COVERED_MIN)
    return say("bar.covered_rest", time=show_minutes(COVERED_MIN), at=show_temperature(celsius))


def rest_line(timeline: State) -> Message | None:
    """What is said of the liquid that was set aside while it is hot, or cools: by when it must be cold."""
    rest, kept = timeline.rest, None if timeline.pot is None else timeline.pot.kept
    if rest is None or kept is None or rest.stands == "cold":
        return None
    volume = show_volume(kept.liquid_ml)
    if rest.stands == "hot":
        return say("bar.rest_hot", volume=volume, hot=timeline.limits.hold)
    stands = judge(rest.readings, rest.surroundings_c, timeline.limits) if rest.readings else None
    if stands is not None and stands.verdict == "done":
        return say("bar.rest_done", volume=volume)
    if stands is not None and stands.verdict in _REST_COOLS and stands.limit_minute is not None:
        by = rest.since + timedelta(minutes=stands.limit_minute)
        limit = show_temperature(stands.limit_c or 0.0)
        return say(_REST_COOLS[stands.verdict], volume=volume, limit=limit, by=by)
    dues = [
        say("bar.rest_due", limit=show_temperature(due.celsius), by=rest.since + timedelta(minutes=due.minutes))
        for due in timeline.limits.cooled
    ]
    key = "bar.rest_unsaid" if rest.stands == "unsaid" else "bar.rest_cools"
    return say(key, volume=volume, hot=timeline.limits.hold, dues=several("clauses", *dues))


#: How what was set aside cools, by its own probe.
_REST_COOLS = {"in_time": "bar.rest_in_time", "too_slow": "bar.rest_too_slow", "missed": "bar.rest_missed"}


def rest_cold_by(rest: Rest, limits: Limits) -> datetime:
    """By when what was set aside must be cold."""
    return rest.since + timedelta(minutes=limits.cold.minutes)


def way_line(pot: Pot, wanted: Wish, route: Route) -> Message:
    """What a way asks for, in the order in which it is done: a sentence each."""
    steps: list[Message] = []
    if route.aside_ml > 0.0:
        steps.append(say("bar.way_take", volume=show_volume(pot.contents.liquid_ml - route.aside_ml)))
    if route.let_down_ml > 0.0:
        steps.append(say("bar.way_stir_in", volume=show_volume(route.let_down_ml)))
    if route.steam_g > 0.0:
        volume, depth = show_volume(route.boil_to_ml), show_length(route.mark_mm)
        # Where more is to be said after it, one figure is enough.
        read = depth if route.parted_ml > 0.0 else say("bar.way_mark", depth=depth, volume=volume)
        steps.append(say("bar.way_boil", mark=volume if route.mark_mm < SHALLOW_MM else read))
    if route.parted_ml > 0.0:
        steps.append(say("bar.way_part", volume=show_volume(route.parted_ml)))
    if route.thickener is not None:
        dry = say("bar.dry", amount=dry_amount(route.dry_g, route.thickener).main, dry=route.thickener.weighed)
        steps.append(say("bar.way_bind_rest" if route.parted_ml > 0.0 else "bar.way_bind", dry=dry))
    if not steps:
        return say("bar.way_ready")
    past = route.way.stop == "told" and route.salt_before.best > wanted.ceiling_percent
    return sentences(say("bar.way_past", salt=show_percent(route.salt_before.best)) if past else None, *steps)


def by_means(measure: Method | Literal["spoon"] | None) -> Message:
    """What to measure it with, where that is known."""
    return say(_BY_MEANS.get(measure or "", "bar.measure_it"))


_BY_MEANS = {
    "scale": "bar.measure_by_scale",
    "jug": "bar.measure_in_jug",
    "dip": "bar.measure_by_dip",
}


def rate_line(outlook: Outlook, batches: int) -> Message:
    """How fast it goes, and how that is known."""
    steam = outlook.steam
    rate: dict[str, Argument] = {
        "steam": show_number(steam.best, 0, "g"),
        "low": show_number(steam.low),
        "high": show_number(steam.high),
    }
    earlier = say("bar.earlier_batches", count=batches) if batches else None
    if outlook.readings == 0:
        return say("bar.rate_guessed", **rate) if earlier is None else say("bar.rate_learned", **rate, known=earlier)
    known = several("both", say("bar.readings", count=outlook.readings), earlier)
    left_out = say("bar.left_out", count=outlook.outliers) if outlook.outliers else None
    return sentences(say("bar.rate_learned", **rate, known=known), left_out)


def cooling_line(stands: Cooling, by: datetime | None, limits: Limits) -> Message:
    """How a cooling pot stands, and what to do; ``by`` is when it must meet its next limit."""
    limit = show_temperature(stands.limit_c or 0.0)
    match stands.verdict:
        case "above":
            return say("cooling.above", at=show_temperature(limits.starts_c))
        case "done":
            return say("cooling.done")
        case "unknown" | "in_time" | "too_slow" | "missed":
            assert by is not None
            key = _COOLING[stands.verdict]
            return say(key, limit=limit, by=by)


_COOLING = {
    "unknown": "cooling.unknown",
    "in_time": "cooling.in_time",
    "too_slow": "cooling.too_slow",
    "missed": "cooling.missed",
}

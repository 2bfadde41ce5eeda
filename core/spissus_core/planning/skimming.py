"""What each way of taking the fat off would do to this pot, and what it would cost."""

from __future__ import annotations

from dataclasses import dataclass

from ..amounts.estimate import Estimate
from ..amounts.quantities import (
    show_mass,
    show_mass_or_spoons,
    show_minutes,
    show_number,
    show_temperature,
    show_volume,
)
from ..events.fat import STOOD_C
from ..intake.liquid import Strained
from ..ledger.contents import SPECIFIC_VOLUME_ML_G
from ..ledger.water import VISCOSITY_60C_MPAS
from ..messages import Message, Shown, Term, say, sentences
from ..pantry.schools import School
from ..phenomena.evaporation import minutes_to_boil_away
from ..phenomena.fat import (
    DROPLETS_UM,
    LIFTS_BELOW_C,
    PORK_LIFTS_BELOW_C,
    WAYS,
    SkimWay,
    ice_price,
    rest_g,
    settling_minutes,
)
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT
from .plan import OVERNIGHT_MIN

#: More liquid than this is not boiled dry for its fat, mL. Modelling choice.
MOST_BOILED_DRY_ML = 600.0

#: A way that leaves no more than this many times the fat that is to stay takes enough off. Modelling choice.
ENOUGH_OFF = 1.5

#: Droplets that need longer than this will not be up tonight, min. Modelling choice.
NOT_TONIGHT_MIN = 240.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Option:
    """One way, on this pot.

    ``leaves_ml`` is the fat it leaves; ``liquid_ml`` the sauce that goes with what is lifted; ``minutes``
    how long it takes, boiling off again what it adds included. ``costs`` says what to know; ``barred``
    why it does not serve here.
    """

    way: SkimWay
    takes_ml: float
    leaves_ml: Estimate
    liquid_ml: float
    minutes: Estimate
    costs: tuple[Message, ...]
    barred: Message | None
    ice_g: float


def options(pot: Pot, strained: Strained | None = None) -> tuple[Option, ...]:
    """Every way, in the order of :data:`.fat.WAYS`.

    Parameters
    ----------
    pot : as it stands.
    strained : what the start said, where the cuts of the braise tell how the fat sets.
    """
    return tuple(_option(pot, way, strained) for way in WAYS)


def _option(pot: Pot, key: SkimWay, strained: Strained | None) -> Option:
    way, fat = WAYS[key], pot.contents.fat_ml
    takes = way.removes_ml(fat)
    low, high = min(way.share.low * fat, way.most_ml), min(way.share.high * fat, way.most_ml)
    minutes = Estimate(way.minutes[0], sum(way.minutes) / 2.0, way.minutes[1])
    costs = [say("skimming.note", note=Term(way.note))]
    barred, ice_g = None, 0.0
    liquid = way.liquid_per_fat * takes
    if liquid >= 1.0:
        costs.append(say("skimming.goes_with_it", volume=show_volume(liquid)))
    estimated = strained.estimated if strained else None
    soft = estimated is not None and estimated.stays_soft
    if key == "ice":
        to_c = estimated.lifts_below_c if estimated and estimated.lifts_below_c is not None else LIFTS_BELOW_C
        price = ice_price(pot.contents.mass_g, STOOD_C, to_c, pot.burner.net_kw)
        ice_g = price.ice_g
        minutes = minutes.plus(price.minutes)
        costs.append(
            say(
                "skimming.ice_price",
                at=show_temperature(to_c),
                ice=show_mass(ice_g),
                heat=show_minutes(price.heat_min.best),
                boil=show_minutes(price.boil_min.best),
                low=show_number(price.minutes.low),
                high=show_number(price.minutes.high, 0, "min"),
            )
        )
        costs.append(say("skimming.ice_in_a_bag"))
        if soft:
            barred = say("skimming.ice_does_not_help")
        elif not pot.hot:
            barred = say("skimming.cold_already")
        elif ice_g > pot.room_ml:
            barred = say("skimming.no_room_for_ice", ice=show_mass(ice_g), pan=pot.pan.name)
    if key == "chill" and soft:
        costs.append(say("skimming.scoop_it"))
    if key == "paper" and fat > 2.0 * way.most_ml:
        barred = say("skimming.last_film")
    if key == "boil_dry":
        if pot.contents.liquid_ml > MOST_BOILED_DRY_ML:
            barred = say("skimming.tray_juices", volume=show_volume(pot.contents.liquid_ml))
        else:
            minutes = minutes.plus(minutes_to_boil_away(pot.contents.water, pot.burner.net_kw))
            costs.append(say("skimming.dry_when_frying"))
    return Option(
        way=key,
        takes_ml=takes,
        leaves_ml=Estimate(max(fat - high, 0.0), fat - takes, max(fat - low, 0.0)),
        liquid_ml=liquid,
        minutes=minutes,
        costs=tuple(costs),
        barred=barred,
        ice_g=ice_g,
    )


def advised(found: tuple[Option, ...], rest_ml: float, minutes_left: float | None = None) -> SkimWay | None:
    """The quickest way that leaves no more than ``rest_ml``, by its best value; otherwise the most thorough.

    Where there is the night for it, the cold; what takes longer than there is time for is passed over. Modelling
    choice. None where nothing floats.
    """
    usable = [o for o in found if o.barred is None and o.takes_ml >= 0.5]
    if minutes_left is not None:
        if minutes_left > OVERNIGHT_MIN and any(o.way == "chill" for o in usable):
            return "chill"
        usable = [o for o in usable if o.minutes.best <= minutes_left] or usable
    enough = [o for o in usable if o.leaves_ml.best <= ENOUGH_OFF * rest_ml]
    if enough:
        return min(enough, key=lambda o: o.minutes.best).way
    return min(usable, key=lambda o: o.leaves_ml.best).way if usable else None


def rest_ml(pot: Pot, wanted: Wish | None) -> float:
    """Fat that is to stay on, mL: what is wanted, or what most cooks leave."""
    grams = rest_g(pot.contents.liquid_ml, *(() if wanted is None else (wanted.fat_g_per_100_ml,)))
    return grams * SPECIFIC_VOLUME_ML_G["fat_free"]


def settling(pot: Pot) -> Message:
    """How long droplets need to the surface, by Stokes' law at this pot's depth and thickness."""
    depth = pot.depth_mm - pot.fat_mm
    thickness = max(pot.body.viscosity / VISCOSITY_60C_MPAS, 1.0)
    large, middling, fine = (settling_minutes(depth, size, thickness) for size in DROPLETS_UM.values())
    tonight = fine <= NOT_TONIGHT_MIN
    finest = say("skimming.finest_in", time=show_minutes(fine)) if tonight else say("skimming.not_tonight")
    return sentences(
        say("skimming.settling", large=_minutes(large), middling=_minutes(middling), finest=finest),
        say("skimming.hardly_rises") if middling > 60 else None,
    )


def _minutes(value: float) -> Shown | Message:
    return say("skimming.under_a_minute") if value < 1.0 else show_minutes(value)


def show_fat(grams: float) -> Shown:
    """Liquid fat, g, by weight or in spoons."""
    return show_mass_or_spoons(grams, grams * SPECIFIC_VOLUME_ML_G["fat_free"])


def fat_for_roux(kept_g: float, floating_g: float, dry_g: float, thickener: School | None) -> Message | None:
    """Whether the fat is enough for the roux of the chosen way; None where no roux is planned.

    Parameters
    ----------
    kept_g, floating_g : fat put by so far, and fat still to come off, g.
    dry_g : flour of the roux; a tenth more is prepared than it needs.
    """
    if thickener is None or not thickener.fat_g or dry_g <= 0.0:
        return None
    need = JUDGEMENT.prepared * dry_g * thickener.fat_g
    if kept_g >= need:
        return say("skimming.roux_put_by", need=show_fat(need), kept=show_fat(kept_g))
    if kept_g + floating_g >= need:
        return say("skimming.keep_for_roux", mass=show_fat(need - kept_g))
    return say("skimming.butter_makes_up", need=show_fat(need), gives=show_fat(kept_g + floating_g))


def sets_at(strained: Strained | None) -> Message:
    """When this pot's fat stiffens and lifts (common practice)."""
    estimated = strained.estimated if strained else None
    if estimated is None or (estimated.lifts_below_c is None and not estimated.stays_soft):
        return say(
            "skimming.lifts_by_kind",
            beef=show_temperature(LIFTS_BELOW_C),
            pork=show_temperature(PORK_LIFTS_BELOW_C),
        )
    if estimated.stays_soft:
        return say("skimming.stays_soft")
    return say("skimming.lifts_below", at=show_temperature(estimated.lifts_below_c or 0.0))

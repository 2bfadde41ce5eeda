"""What each way of taking the fat off would do to this pot, and what it would cost."""

from __future__ import annotations

from dataclasses import dataclass

from ..amounts.estimate import Estimate
from ..amounts.quantities import Said, say, show_mass, show_minutes, show_temperature, show_volume
from ..events import Wanted
from ..events.fat import STOOD_C
from ..intake.liquid import Strained
from ..ledger.contents import SPECIFIC_VOLUME_ML_G
from ..ledger.water import VISCOSITY_60C_MPAS
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
from .guidance import OVERNIGHT_MIN, PREPARED

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
    costs: tuple[Said, ...]
    barred: Said | None
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
    costs = [say(f"{way.note[0].upper()}{way.note[1:]}.")]
    barred, ice_g = None, 0.0
    liquid = way.liquid_per_fat * takes
    if liquid >= 1.0:
        costs.append(say("About {} of sauce goes with it.", show_volume(liquid)))
    estimated = strained.estimated if strained else None
    soft = estimated is not None and estimated.stays_soft
    if key == "ice":
        to_c = estimated.lifts_below_c if estimated and estimated.lifts_below_c is not None else LIFTS_BELOW_C
        price = ice_price(pot.contents.mass_g, STOOD_C, to_c, pot.burner.net_kw)
        ice_g = price.ice_g
        minutes = minutes.plus(price.minutes)
        costs.append(
            say(
                f"To set the fat at {{}} it takes {{}} of ice. That much water is then in the pot: {{}} to heat it all "
                f"up again and {{}} to boil it away ({price.minutes.low:.0f} to {price.minutes.high:.0f} min in all).",
                show_temperature(to_c), show_mass(ice_g), show_minutes(price.heat_min.best),
                show_minutes(price.boil_min.best),
            )
        )  # fmt: skip
        costs.append(say("Without the water: ice in a sealed bag, or in a steel ladle whose back touches the fat."))
        if soft:
            barred = say("Duck and chicken fat stays soft even in the cold: ice does not help here.")
        elif not pot.hot:
            barred = say("It is cold already: lift the fat.")
    if key == "chill" and soft:
        costs.append(say("This fat stays soft: scoop it, it will not lift in one piece."))
    if key == "paper" and fat > 2.0 * way.most_ml:
        barred = say("For the last film only. Spoon first.")
    if key == "boil_dry":
        if pot.contents.liquid_ml > MOST_BOILED_DRY_ML:
            barred = say("For tray juices. {} of liquid would have to boil away.", show_volume(pot.contents.liquid_ml))
        else:
            minutes = minutes.plus(minutes_to_boil_away(pot.contents.water, pot.burner.net_kw))
            costs.append(
                say("It is dry when the boiling turns into frying: listen for it. What sticks is the flavour.")
            )
    return Option(
        way=key, takes_ml=takes, leaves_ml=Estimate(max(fat - high, 0.0), fat - takes, max(fat - low, 0.0)),
        liquid_ml=liquid, minutes=minutes, costs=tuple(costs), barred=barred, ice_g=ice_g,
    )  # fmt: skip


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


def rest_ml(pot: Pot, wanted: Wanted | None) -> float:
    """Fat that is to stay on, mL: what is wanted, or what most cooks leave."""
    grams = rest_g(pot.contents.liquid_ml, *(() if wanted is None else (wanted.fat_g_per_100_ml,)))
    return grams * SPECIFIC_VOLUME_ML_G["fat_free"]


def settling(pot: Pot) -> Said:
    """How long droplets need to the surface, by Stokes' law at this pot's depth and thickness."""
    depth = pot.depth_mm - pot.fat_mm
    thickness = max(pot.body.viscosity / VISCOSITY_60C_MPAS, 1.0)
    large, middling, fine = (settling_minutes(depth, size, thickness) for size in DROPLETS_UM.values())
    ends = "not tonight" if fine > NOT_TONIGHT_MIN else f"in {show_minutes(fine).metric}"
    slow = " It has body: fat hardly rises in it." if middling > 60 else ""
    return say(
        f"Let it stand off the heat first: large drops are up in {_minutes(large)}, middling ones in "
        f"{_minutes(middling)}, the finest {ends}. A hard boil with fat in it makes fine ones.{slow}"
    )


def _minutes(value: float) -> str:
    return "under a minute" if value < 1.0 else show_minutes(value).metric


def fat_for_roux(kept_g: float, floating_g: float, dry_g: float, thickener: School | None) -> Said | None:
    """Whether the fat is enough for the roux of the chosen way; None where no roux is planned.

    Parameters
    ----------
    kept_g, floating_g : fat put by so far, and fat still to come off, g.
    dry_g : flour of the roux; a tenth more is prepared than it needs.
    """
    if thickener is None or not thickener.fat_g or dry_g <= 0.0:
        return None
    need = PREPARED * dry_g * thickener.fat_g
    if kept_g >= need:
        return say("The roux needs {} of fat; {} is put by.", show_mass(need), show_mass(kept_g))
    if kept_g + floating_g >= need:
        return say("Keep {} of it for the roux.", show_mass(need - kept_g))
    return say(
        "The roux needs {} of fat; the pot gives {}. Butter makes up the rest.",
        show_mass(need), show_mass(kept_g + floating_g),
    )  # fmt: skip


def sets_at(strained: Strained | None) -> Said:
    """When this pot's fat stiffens and lifts (common practice)."""
    estimated = strained.estimated if strained else None
    if estimated is None or (estimated.lifts_below_c is None and not estimated.stays_soft):
        return say(
            "Beef and lamb fat lifts cleanly below {}, pork below {}; duck and chicken fat stays soft in the cold.",
            show_temperature(LIFTS_BELOW_C), show_temperature(PORK_LIFTS_BELOW_C),
        )  # fmt: skip
    if estimated.stays_soft:
        return say("Poultry fat stays soft even in the cold: a separator jug or a spoon, not ice.")
    return say("This fat lifts cleanly below {}.", show_temperature(estimated.lifts_below_c or 0.0))

"""Ways from what is in the pot to what the cook wants.

Volume, body and salt cannot be chosen one by one. Each route gives one of them up, or buys it: by
boiling on, by thickener, or by stopping where the salt says so.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

from scipy.optimize import brentq

from ..amounts.estimate import Estimate
from ..amounts.quantities import Said, say, show_volume
from ..errors import TargetError
from ..events import RouteKind, Wanted
from ..fold import Pot
from ..ledger.contents import SPECIFIC_VOLUME_ML_G as ML_G
from ..ledger.contents import Contents
from ..ledger.water import OFF_THE_BOIL_C, REFERENCE_C, VISCOSITY_60C_MPAS
from ..pantry.schools import THICKENERS, Thickener, ThickenerKind, flour_equivalent_g
from ..phenomena import body as bd
from ..phenomena.evaporation import boiled_to_water, minutes_to_boil_away, minutes_to_heat
from ..phenomena.seasoning import salt_to_add_g

#: Boiling further than this share of the water is frying, not reducing. Modelling choice.
LEAST_WATER_SHARE = 0.03

#: Spread of a thickener's strength, as a share of the grams (common practice: ±25 %).
THICKENER_SPREAD = 0.25

LABELS: dict[RouteKind, str] = {
    "reduction": "Boil down, nothing added",
    "roux": "Your volume, with roux",
    "corn_starch": "Your volume, with corn starch",
    "salt_limit": "As far as the salt allows",
}
_BINDER: dict[RouteKind, ThickenerKind | None] = {
    "reduction": None, "roux": "white_roux", "corn_starch": "corn_starch", "salt_limit": "white_roux",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Route:
    """One way to the sauce.

    ``boil_to_ml`` is the liquid (20 °C, floating fat left out) at which to stop boiling, ``mark_mm``
    and ``gross_g`` the same on a skewer and a scale; ``let_down_ml`` unsalted liquid to stir in where
    the pot has gone past it, and ``steam_g`` what boils away. ``dry_g`` is the thickener without its
    carrier. ``final`` is the sauce with ``salt_to_add_g`` in it; ``salt_before`` what it would hold
    unsalted.
    """

    kind: RouteKind
    feasible: bool
    reason: Said | None
    boil_to_ml: float
    share_left: float
    let_down_ml: float
    steam_g: float
    mark_mm: float
    gross_g: float | None
    minutes: Estimate
    thickener: Thickener | None
    dry_g: float
    final: Contents
    body: bd.Body
    salt_before: Estimate
    salt_to_add_g: float
    salt_after: Estimate

    @property
    def volume_ml(self) -> float:
        """The finished sauce, mL at 20 °C."""
        return self.final.liquid_ml

    @property
    def dry_range_g(self) -> Estimate:
        """The thickener with its ±25 %, g."""
        return Estimate(self.dry_g * (1 - THICKENER_SPREAD), self.dry_g, self.dry_g * (1 + THICKENER_SPREAD))


@dataclass(frozen=True, slots=True)
class TradePoint:
    """What one finished volume costs: salt, and thickener of two kinds, for the body wanted."""

    volume_ml: float
    salt_percent: float
    roux_flour_g: float
    corn_starch_g: float
    viscosity: float


def solve_routes(pot: Pot, wanted: Wanted, *, agreed: Wanted | None = None) -> tuple[Route, ...]:
    """All four routes, in the order of :data:`LABELS`.

    Parameters
    ----------
    pot : the pot now.
    wanted : amount, body, salt and ceiling.
    agreed : the wish the cook has been working towards, if there is one; see :func:`check_amount`.

    Raises
    ------
    TargetError : more sauce is wanted than there is in the pot.
    """
    check_amount(pot, wanted, agreed)
    return tuple(solve_route(pot, wanted, kind) for kind in LABELS)


#: What is proposed before the cook has said anything: this share of the pot, as a nappe. Modelling choice.
SUGGESTED_SHARE = 0.6


def suggested(pot: Pot) -> Wanted:
    """A wish to begin with: three fifths of the pot, to 10 mL, as a nappe of usual salt."""
    return Wanted(volume_ml=max(round(SUGGESTED_SHARE * pot.contents.liquid_ml / 10.0) * 10.0, 10.0))


def check_amount(pot: Pot, wanted: Wanted, agreed: Wanted | None = None) -> None:
    """Refuse a wish for more than the pot can give.

    An amount that was agreed on earlier may stand, even when the pot has gone past it since: the
    routes then begin by letting it down with unsalted liquid.

    Raises
    ------
    TargetError : more is wanted than a small addition to the pot could give.
    """
    if agreed is not None and wanted.amount_ml <= agreed.amount_ml * (1 + 1e-6):
        return
    have = pot.contents.liquid_ml
    if wanted.amount_ml > 1.05 * have:
        field = "volume_ml" if wanted.volume_ml is not None else "portions"
        raise TargetError(
            field,
            f"Only {show_volume(have).both} of liquid is in the pot; {show_volume(wanted.amount_ml).both} cannot "
            "come of it. Ask for less, or add unsalted liquid first.",
        )


def solve_route(pot: Pot, wanted: Wanted, kind: RouteKind, *, here: bool = False) -> Route:
    """One route from the pot as it is now.

    With ``here`` no more is boiled away: the thickener is worked out for the water that is in the
    pot. That is how a sauce is finished once part of its thickener is in.
    """
    binder = _BINDER[kind]
    thickener = THICKENERS[binder] if binder else None
    contents, aim = pot.contents, bd.LADDER[wanted.body].aim
    dry = 0.0
    if here:
        water = contents.water
        if thickener is not None:
            dry, _ = _dry_needed(contents, thickener, aim, lambda d: contents.water + d * thickener.water_per_g)
    elif kind == "reduction":
        water = _water_for_body(contents, aim)
    elif kind == "salt_limit":
        water, dry = _water_for_salt(contents, thickener, aim, wanted.ceiling_percent)
    else:
        water, dry = _water_for_volume(contents, thickener, aim, wanted.amount_ml)
    return _route(pot, wanted, kind, water=water, thickener=thickener if dry > 0.0 else None, dry=dry)


def _route(
    pot: Pot, wanted: Wanted, kind: RouteKind, *, water: float, thickener: Thickener | None, dry: float
) -> Route:
    now = pot.contents
    more_water = max(water - now.water, 0.0)
    boiled = pot.traded(boiled_to_water(now, water)) if not more_water else now
    stop = boiled + Contents(water=more_water)
    bound = stop + thickener.added(dry) if thickener else stop
    salt = salt_to_add_g(bound.salt, bound.liquid_g, wanted.salt_percent)
    final = bound + Contents(salt=salt)
    gone_g = now.mass_g - boiled.mass_g
    minutes = minutes_to_boil_away(gone_g, pot.burner.net_kw)
    warm_up = Estimate.exact(0.0)
    if gone_g > 0.0 and not pot.hot:
        warm_up = minutes_to_heat(now.mass_g, REFERENCE_C, OFF_THE_BOIL_C, pot.burner.net_kw)
    mark = pot.mark_mm(boiled.liquid_ml)
    route = Route(
        kind=kind,
        feasible=True,
        reason=None,
        boil_to_ml=boiled.liquid_ml,
        share_left=boiled.liquid_ml / now.liquid_ml,
        let_down_ml=more_water * ML_G["water"],
        steam_g=gone_g,
        mark_mm=mark,
        gross_g=pot.gross_of(boiled),
        minutes=Estimate(minutes.low + warm_up.low, minutes.best + warm_up.best, minutes.high + warm_up.high),
        thickener=thickener,
        dry_g=dry,
        final=final,
        body=bd.body_of(final),
        salt_before=_salt_range(pot, bound),
        salt_to_add_g=salt,
        salt_after=_salt_range(pot, final),
    )
    reason = _why_not(pot, wanted, route)
    return replace(route, feasible=reason is None, reason=reason)


def _salt_range(pot: Pot, contents: Contents) -> Estimate:
    scale = 100.0 / contents.liquid_g
    low = max(contents.salt - pot.salt_minus, 0.0)
    return Estimate(low * scale, contents.salt * scale, (contents.salt + pot.salt_plus) * scale)


def _why_not(pot: Pot, wanted: Wanted, route: Route) -> Said | None:
    salt, ceiling = route.salt_before.best, wanted.ceiling_percent
    if route.kind == "salt_limit":
        now = pot.contents.salt_percent
        if now > ceiling * (1 + 1e-6):
            return say(f"The pot is at {now:.2f} % salt already, above your ceiling of {ceiling:.2f} %.")
        return None
    if salt > ceiling * (1 + 1e-3):
        least = _volume_at_salt(pot.contents, ceiling)
        return say(
            f"It would hold {salt:.2f} % salt; your ceiling is {ceiling:.2f} %. The pot reaches that at {{}}.",
            show_volume(least),
        )
    if route.kind == "reduction" and route.body.viscosity < 0.9 * bd.LADDER[wanted.body].aim:
        return say(f"Boiling alone does not make a {bd.LADDER[wanted.body].word} of this.")
    return None


# -- solving ------------------------------------------------------------------------------------


def _water_for_body(contents: Contents, aim: float) -> float:
    """Water at which boiling alone reaches ``aim`` mPa·s, g."""

    def excess(share: float) -> float:
        return math.log(bd.body_of(boiled_to_water(contents, contents.water * share)).viscosity / aim)

    if excess(1.0) >= 0.0:
        return contents.water
    if excess(LEAST_WATER_SHARE) <= 0.0:
        return contents.water * LEAST_WATER_SHARE
    return contents.water * float(brentq(excess, LEAST_WATER_SHARE, 1.0, xtol=1e-5))


def _dry_needed(
    contents: Contents, thickener: Thickener, aim: float, water_with: Callable[[float], float]
) -> tuple[float, float]:
    """Dry thickener for a body of ``aim`` mPa·s, and the water of the finished sauce, g.

    ``water_with(dry)`` is the water left in the sauce when ``dry`` g are in it. The flour still
    missing follows from the inverse of the starch curve; as the dry thickener hardly changes the
    phase it is dissolved in, putting it back in converges to 0.01 g in a few rounds.
    """
    c = contents
    solids = c.salt + c.sugar + c.acid + c.acetic + c.gelatin + c.pulp + c.other + c.starch_g
    solids_ml = (
        c.salt * ML_G["salt"] + c.sugar * ML_G["sugar"] + (c.acid + c.acetic) * ML_G["acid"]
        + c.gelatin * ML_G["gelatin"]
        + c.pulp * ML_G["pulp"] + c.other * ML_G["other"] + c.starch_g * ML_G["starch"]
    )  # fmt: skip
    flour = flour_equivalent_g(c.starch)
    wanted_log = math.log10(aim / VISCOSITY_60C_MPAS)
    dry = 0.0
    for _ in range(60):
        water = water_with(dry)
        if water <= 0.0:
            raise TargetError("volume_ml", "That volume is too small for what is dissolved in the pot.")
        phase_g = water + solids + dry
        phase_ml = water * ML_G["water"] + solids_ml + dry * ML_G["starch"]
        fat_ml = (c.fat_emulsified + dry * thickener.fat_per_g) * ML_G["fat_emulsified"]
        rest = (
            bd.gelatin_log(1000.0 * c.gelatin / phase_ml)
            + bd.solubles_log(100.0 * (c.sugar + c.other) / phase_g)
            + bd.fat_log(fat_ml / (phase_ml + fat_ml))
        )
        present = 100.0 * flour / phase_g + bd.pulp_percent_as_flour(100.0 * c.pulp / phase_g)
        missing = bd.starch_percent(wanted_log - rest) - present
        better = max(missing, 0.0) * phase_g / 100.0 / thickener.strength
        if abs(better - dry) < 0.005:
            break
        dry = better
    return dry, water_with(dry)


def _water_for_volume(
    contents: Contents, thickener: Thickener | None, aim: float, volume_ml: float
) -> tuple[float, float]:
    """Water before thickening, and dry thickener, for a finished ``volume_ml`` mL of body ``aim``, g."""
    assert thickener is not None
    c = contents
    ethanol = 0.0
    for _ in range(3 if c.ethanol else 1):
        fixed = c.liquid_ml - c.water * ML_G["water"] - (c.ethanol - ethanol) * ML_G["ethanol"]
        per_dry = ML_G["starch"] + thickener.fat_per_g * ML_G["fat_emulsified"]
        rest_ml = volume_ml - fixed
        dry, final_water = _dry_needed(c, thickener, aim, partial(_water_left, rest_ml, per_dry))
        water = final_water - dry * thickener.water_per_g
        if water <= 0.0:
            raise TargetError("volume_ml", "That volume is too small for what is dissolved in the pot.")
        ethanol = boiled_to_water(c, min(water, c.water)).ethanol if c.ethanol else 0.0
    return water, dry


def _water_left(rest_ml: float, per_dry_ml: float, dry_g: float) -> float:
    """Water that fits beside ``dry_g`` g of thickener when solids leave ``rest_ml`` mL free, g."""
    return (rest_ml - dry_g * per_dry_ml) / ML_G["water"]


def _water_for_salt(
    contents: Contents, thickener: Thickener | None, aim: float, ceiling_percent: float
) -> tuple[float, float]:
    """Water before thickening, and dry thickener, when the finished sauce is at the salt ceiling, g."""
    assert thickener is not None
    c = contents
    mass = 100.0 * c.salt / ceiling_percent
    if mass >= c.liquid_g or c.salt_percent >= ceiling_percent:
        dry, _ = _dry_needed(c, thickener, aim, lambda d: c.water + d * thickener.water_per_g)
        return c.water, dry
    fixed = c.liquid_g - c.water - c.ethanol
    least = LEAST_WATER_SHARE * c.water
    dry, final_water = _dry_needed(
        c, thickener, aim, lambda d: max(mass - fixed - d * (1.0 + thickener.fat_per_g), least)
    )
    return max(final_water - dry * thickener.water_per_g, least), dry


def _volume_at_salt(contents: Contents, ceiling_percent: float) -> float:
    """Volume at which boiling alone, or letting down, brings the salt to ``ceiling_percent``, mL."""
    mass = 100.0 * contents.salt / ceiling_percent
    return contents.liquid_ml + (mass - contents.liquid_g) * ML_G["water"]


def salt_ceiling_ml(pot: Pot, wanted: Wanted) -> float | None:
    """Liquid below which the pot is too salty, mL; None where boiling never gets there."""
    if pot.contents.salt <= 0.0:
        return None
    volume = _volume_at_salt(pot.contents, wanted.ceiling_percent)
    solids = pot.contents.liquid_ml - pot.contents.water * ML_G["water"]
    return volume if volume > solids + LEAST_WATER_SHARE * pot.contents.water else None


def trade(pot: Pot, wanted: Wanted, points: int = 17) -> tuple[TradePoint, ...]:
    """Salt and thickener against the finished volume, from a fifth of the pot to all of it."""
    now = pot.contents
    roux_kind = THICKENERS["white_roux"]
    out = []
    for i in range(points):
        volume = now.liquid_ml * (0.2 + 0.8 * i / (points - 1))
        try:
            roux_water, roux = _water_for_volume(now, roux_kind, bd.LADDER[wanted.body].aim, volume)
            _, corn = _water_for_volume(now, THICKENERS["corn_starch"], bd.LADDER[wanted.body].aim, volume)
        except TargetError:
            continue
        plain = now.with_masses(water=max(now.water - (now.liquid_ml - volume) / ML_G["water"], 1.0), ethanol=0.0)
        finished_g = now.liquid_g - now.water + roux_water + (1.0 + roux_kind.fat_per_g) * roux
        out.append(TradePoint(volume, 100.0 * now.salt / finished_g, roux, corn, bd.body_of(plain).viscosity))
    return tuple(out)

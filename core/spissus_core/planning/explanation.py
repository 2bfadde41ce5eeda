"""Reasons: the arithmetic behind every figure, in a form a cook can follow."""

from __future__ import annotations

from ..amounts.quantities import Reason, Said, grouped, say, show_length, show_mass, show_minutes, show_volume
from ..estimation.window import power_of, warming_kj
from ..events import Wanted
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, percent
from ..ledger.water import VISCOSITY_60C_MPAS
from ..measuring.vessels import SHALLOW_MM
from ..pantry.guests import ALCOHOL
from ..pantry.ingredients import ingredient
from ..pantry.schools import School
from ..phenomena import body as bd
from ..phenomena.alcohol import strength_percent
from ..phenomena.body import STARCHES, Body
from ..phenomena.heating import FULL_BOIL
from ..pot import Pot
from .routes import LEAST_SALT_G, WAYS, Route

#: A yield short by less than this, or salt above what is wanted by less, is not worth a note, as shares. Modelling
#: choices.
WORTH_SAYING_SHARE, SALTIER_SHARE = 0.03, 0.02

#: More than this many times what was wanted is more, not about as much. Modelling choice.
MUCH_MORE = 1.25


def notes(pot: Pot, wanted: Wanted, route: Route) -> tuple[Said, ...]:
    """What a route costs, or what to mind, beyond its figures."""
    out = []
    if route.kind in ("reduction", "salt_limit", "jus"):
        short = wanted.amount_ml - route.volume_ml
        if short > WORTH_SAYING_SHARE * wanted.amount_ml:
            out.append(say("{} less than you asked for.", show_volume(short)))
    if route.kind != "reduction" and route.thickener is None:
        ends = f"; it ends as {route.body.step.word}, thicker than you asked for" * (
            route.body.step.index > wanted.body
        )
        out.append(say(f"It needs no thickener{ends}."))
    if route.salt_before.best > wanted.salt_percent * (1.0 + SALTIER_SHARE) and route.feasible:
        out.append(say(f"Saltier than the {wanted.salt_percent:.2f} % you like; nothing takes salt out again."))
    if route.salt_before.high > wanted.ceiling_percent >= route.salt_before.best:
        out.append(say("The salt at the start is not known well enough to be sure: taste half-way."))
    if route.steam_g > 0.0 and route.mark_mm < SHALLOW_MM:
        out.append(
            say(
                "Only {} would be left in this pan, and the edge scorches. Take a smaller one.",
                show_length(route.mark_mm),
            )
        )
    if route.let_down_ml > 1.0:
        out.append(say("Stir in {} of water or unsalted stock first.", show_volume(route.let_down_ml)))
    if route.aside_ml > 0.0:
        out.append(say("Keep {} on the meat or for another day.", show_volume(route.aside_ml)))
    return tuple(out)


def because(pot: Pot, wanted: Wanted, route: Route) -> Said:
    """Why a good cook would take this way, in a sentence."""
    salty = pot.contents.salt_percent > wanted.salt_percent * (1.0 + SALTIER_SHARE)
    boils = route.steam_g > 0.0
    if route.thickener is None and not boils and route.let_down_ml <= 0.0:
        if route.aside_ml > 0.0:
            return say(
                "There is more than you need, and it has body enough: {} of it is the sauce.",
                show_volume(wanted.amount_ml),
            )
        return say("It has the body and there is enough of it: taste it, and serve it.")
    if route.aside_ml > 0.0:
        taken = show_volume(pot.contents.liquid_ml - route.aside_ml)
        if route.let_down_ml > 0.0:
            return say("There is more than you need, and it is salty: take {} and stretch it.", taken)
        if boils:
            return say(
                "There is more than you need: take {}, keep the rest, and boil {} of it away.",
                taken, show_volume(route.steam_g * SPECIFIC_VOLUME_ML_G["water"]),
            )  # fmt: skip
        return say("There is more than you need: {} makes the sauce, the rest is kept.", taken)
    if route.let_down_ml > 0.0:
        if salty:
            return say("It is saltier than you like: {} of unsalted liquid first.", show_volume(route.let_down_ml))
        return say(
            "There is too little of it: {} of unsalted liquid, thickener and salt to follow.",
            show_volume(route.let_down_ml),
        )
    if route.kind == "jus":
        return say("Stopped at the salt you like, with nothing added: thinner, a jus.")
    if WAYS[route.kind].stop == "time" and boils:
        return say("It boils for as long as there is time: about {}.", show_minutes(route.minutes.best))
    if not boils and route.volume_ml > MUCH_MORE * wanted.amount_ml:
        return say("Nothing has to boil; it makes more than you asked for, {} in all.", show_volume(route.volume_ml))
    if not boils:
        return say("There is about as much as you want, and boiling it down would make it too salty or too little.")
    if route.thickener is None:
        return say("It binds by itself on the way, and the salt allows it.")
    return say("It ends at the salt you like after about {} of boiling.", show_minutes(route.minutes.best))


def reasons(pot: Pot, wanted: Wanted, route: Route) -> tuple[Reason, ...]:
    """The arithmetic of every figure of the route, in the order a cook asks for it."""
    now, final = pot.contents, route.final
    left = 100.0 * route.share_left
    out = [
        Reason(
            "Share left",
            say(
                f"{{}} ÷ {{}} = {left:.0f} %; {100 - left:.0f} % boils off",
                show_volume(route.boil_to_ml), show_volume(now.liquid_ml),
            ),
        ),
        Reason(
            "Dip mark",
            say(
                "{} of liquid and {} of fat, 3.8 % more room when hot, stand {} deep in this pan",
                show_volume(route.boil_to_ml), show_volume(now.fat_ml), show_length(route.mark_mm),
            ),
        ),
    ]  # fmt: skip
    if route.gross_g is not None and pot.pan.empty_g is not None:
        inside = show_mass(route.gross_g - pot.pan.empty_g)
        out.append(
            Reason(
                "Scale",
                say("{} in the pan + {} pan = {}", inside, show_mass(pot.pan.empty_g), show_mass(route.gross_g)),
            )
        )
    if route.steam_g > 0.0:
        strength = power_of(pot, FULL_BOIL)
        assert strength is not None
        known = f", learned from {strength.batches} earlier," if strength.batches else ""
        rate, first = strength.steam_g_min, warming_kj(pot) / strength.kj_min
        out.append(
            Reason(
                "Time",
                say(
                    f"{first:.1f} min to the boil, then {grouped(route.steam_g)} g of steam ÷ {rate:.0f} g/min from "
                    f"{strength.kj_min / 60.0:.2g} kW into the liquid{known}: {{}}, "
                    f"likely {route.minutes.low:.0f} to {{}}",
                    show_minutes(route.minutes.best), show_minutes(route.minutes.high),
                ),
            )
        )  # fmt: skip
    out += stretched(pot, wanted, route.let_down_ml) if route.let_down_ml > 0.0 else []
    out.append(body_reason(route.body))
    if route.thickener is not None:
        out.append(_thickener_reason(route, route.thickener))
    sauce = f"{grouped(final.liquid_g - route.salt_to_add_g)} g"
    out.append(
        Reason(
            "Salt",
            say(
                f"{now.salt:.1f} g salt ÷ {sauce} of sauce = {route.salt_before.best:.2f} % "
                f"(likely {route.salt_before.low:.2f} to {route.salt_before.high:.2f} %)"
            ),
        )
    )
    if route.salt_to_add_g >= LEAST_SALT_G:
        share = wanted.salt_percent / 100.0
        out.append(
            Reason(
                "Salt to add",
                say(f"({share:.4f} × {sauce} − {now.salt:.1f} g) ÷ (1 − {share:.4f}) = {route.salt_to_add_g:.1f} g"),
            )
        )
    return tuple(out)


#: What a sauce is stretched with (common practice).
STRETCHERS = ("unsalted_stock", "water", "red_wine", "cream_heavy")


def stretched(pot: Pot, wanted: Wanted, volume_ml: float) -> list[Reason]:
    """What stirring in so much of each liquid makes of this pot: salt, body, sourness, alcohol.

    What somebody at the table must not have is left out.
    """
    out = []
    for what in (ingredient(key) for key in STRETCHERS):
        brings = {*what.allergens, *([ALCOHOL] if what.portion(1.0).ethanol > 0.0 else [])}
        if brings & set(wanted.avoid):
            continue
        after = pot.contents + what.portion(volume_ml * what.density_g_ml)
        strength = strength_percent(after.ethanol, after.liquid_ml)
        alcohol = f", {strength:.1f} % vol of alcohol until it has boiled" if strength > LEAST_STRENGTH_PERCENT else ""
        body = bd.body_of(after, pot.strength)
        out.append(
            Reason(
                f"With {what.name}",
                say(
                    f"{{}} of it: {after.salt_percent:.2f} % salt, {body.step.word}, sourness "
                    f"{percent(after.acid + after.acetic, after.liquid_g):.2f} %{alcohol}",
                    show_volume(volume_ml),
                ),
            )
        )
    return out


#: Less alcohol than this is not spoken of, % vol. Modelling choice.
LEAST_STRENGTH_PERCENT = 0.1


def body_reason(body: Body) -> Reason:
    """Where a viscosity comes from."""
    gum = f" + {body.gum:.0f} of gum" if body.gum else ""
    return Reason(
        "Body",
        say(
            f"water {VISCOSITY_60C_MPAS} mPa·s × 10^({body.starch_and_pulp:.2f} starch and pulp + {body.gelatin:.2f} "
            f"gelatin + {body.solubles:.2f} sugar and solubles + {body.fat:.2f} fat){gum} = {body.viscosity:.0f} mPa·s "
            f"at 60 °C: {body.step.word}. A factor of two either way"
        ),
    )


def _thickener_reason(route: Route, thickener: School) -> Reason:
    phase_g = route.final.liquid_g - route.final.fat_emulsified
    if thickener.fat_g:
        amount = show_mass(route.dry_g * thickener.fat_g)
    else:
        amount = show_volume(route.dry_g * thickener.water_g * SPECIFIC_VOLUME_ML_G["water"])
    if thickener.term in STARCHES:
        strength = f", {thickener.strength:g} × the strength of flour,"
        share = f"{route.body.flour_percent:.1f} % as flour"
    else:
        strength, share = "", f"{percent(route.dry_g, phase_g):.2f} %"
    with_what = f"; with {{}} {thickener.carrier}" if thickener.carrier else ""
    return Reason(
        thickener.label.capitalize(),
        say(
            f"{{}} {thickener.dry}{strength} in {{}} of watery phase = {share}{with_what}. "
            f"± {100 * thickener.spread:.0f} %, so it goes in by parts",
            *([show_mass(route.dry_g), show_mass(phase_g)] + ([amount] if thickener.carrier else [])),
        ),
    )  # fmt: skip

"""Reasons: the arithmetic behind every figure, in a form a cook can follow."""

from __future__ import annotations

from dataclasses import dataclass

from ..amounts.quantities import (
    show_length,
    show_mass,
    show_minutes,
    show_number,
    show_percent,
    show_plain,
    show_volume,
)
from ..estimation.window import power_of, warming_kj
from ..ledger.contents import Contents, percent
from ..ledger.water import HOT_EXPANSION, VISCOSITY_60C_MPAS
from ..messages import Argument, Message, Reason, Term, clauses, say, sentences
from ..pantry.guests import ALCOHOL
from ..pantry.ingredients import ingredient
from ..pantry.schools import School
from ..phenomena import body as bd
from ..phenomena.alcohol import strength_percent
from ..phenomena.body import STARCHES, Body
from ..phenomena.heating import FULL_BOIL
from ..phenomena.strength import strength_of
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT
from .solving import Route


def leave(route: Route) -> Message | None:
    """How far it boils down, and for how long; None where nothing boils away."""
    left = round(100.0 * route.share_left)
    if left >= 100:
        return None
    minutes = route.minutes
    return say(
        "explanation.leave",
        left=show_percent(left, 0),
        gone=show_percent(100 - left, 0),
        time=show_minutes(minutes.best),
        low=show_number(minutes.low),
        high=show_minutes(minutes.high),
    )


def reasons(pot: Pot, wanted: Wish, route: Route) -> tuple[Reason, ...]:
    """The arithmetic of every figure of the route, in the order a cook asks for it."""
    # Of what is taken, where a part makes the sauce.
    taken = pot if route.aside_ml <= 0.0 else pot.part(1.0 - route.aside_ml / pot.contents.liquid_ml)
    now, final = taken.contents, route.final
    left = 100.0 * route.share_left
    boil_to = show_volume(route.boil_to_ml)
    out = [
        Reason(
            say("explanation.share_left"),
            say(
                "explanation.share_left_how",
                to=boil_to,
                now=show_volume(now.liquid_ml),
                left=show_percent(left, 0),
                gone=show_percent(100 - left, 0),
            ),
        ),
        Reason(
            say("explanation.dip_mark"),
            say(
                "explanation.dip_mark_how",
                liquid=boil_to,
                fat=show_volume(route.fat_ml),
                hot=show_percent(100.0 * (HOT_EXPANSION - 1.0), 1),
                depth=show_length(route.mark_mm),
            ),
        ),
    ]
    if route.gross_g is not None and pot.pan.empty_g is not None:
        inside, empty = show_mass(route.gross_g - pot.pan.empty_g), show_mass(pot.pan.empty_g)
        how = say("explanation.scale_how", inside=inside, empty=empty, gross=show_mass(route.gross_g))
        out.append(Reason(say("explanation.scale"), how))
    if route.steam_g > 0.0:
        out.append(Reason(say("explanation.time"), _time(taken, route)))
    out += stretched(pot, wanted, route.let_down_ml) if route.let_down_ml > 0.0 else []
    out.append(body_reason(route.body))
    if route.thickener is not None:
        out += _thickener_reasons(pot, route, route.thickener)
    bound_g, bound_salt_g = final.liquid_g - route.salt_to_add_g, final.salt - route.salt_to_add_g
    sauce, salt = show_number(bound_g, 0, "g"), show_number(bound_salt_g, 1, "g")
    before = route.salt_before
    out.append(
        Reason(
            say("explanation.salt"),
            say(
                "explanation.salt_how",
                salt=salt,
                sauce=sauce,
                percent=show_percent(before.best),
                low=show_number(before.low, 2),
                high=show_percent(before.high),
            ),
        )
    )
    if route.salt_to_add_g >= JUDGEMENT.least_salt_g:
        share, grams = show_number(wanted.salt_percent / 100.0, 4), show_number(route.salt_to_add_g, 1, "g")
        how = say("explanation.salt_to_add_how", share=share, sauce=sauce, salt=salt, grams=grams)
        out.append(Reason(say("explanation.salt_to_add"), how))
    out.append(Reason(say("explanation.strength"), strength_reason(taken, final)))
    return tuple(out)


def tastes(pot: Pot, contents: Contents) -> Message:
    """How strong the pot, or the sauce that it becomes, tastes of itself: in a word, and against what was strained."""
    word = Term(strength_of(contents.strength_percent).word)
    return say("explanation.tastes", word=word, times=times_strained(pot, contents))


def times_strained(pot: Pot, contents: Contents) -> Message:
    """How many times as strong it is as what was strained."""
    times = pot.times(contents)
    if abs(times - 1.0) < LEAST_STRONGER:
        return say("explanation.as_strained")
    return say("explanation.times_strained", times=show_number(times, 1))


def strength_reason(pot: Pot, contents: Contents) -> Message:
    """Where its strength comes from, and how well it is known."""
    percent = contents.strength_percent
    return say(
        "explanation.strength_how",
        own=show_number(contents.own_g, 1, "g"),
        sauce=show_number(contents.liquid_g, 0, "g"),
        percent=show_percent(percent, 1),
        low=show_number(percent / pot.strength_factor, 1),
        high=show_percent(percent * pot.strength_factor, 1),
        tastes=tastes(pot, contents),
    )


#: Stronger or weaker by less than this share it is as strong. Modelling choice.
LEAST_STRONGER = 0.05


def _time(pot: Pot, route: Route) -> Message:
    strength = power_of(pot, FULL_BOIL)
    assert strength is not None
    earlier = (
        say("explanation.learned_from", count=strength.batches) if strength.batches else say("explanation.guessed")
    )
    return say(
        "explanation.time_how",
        first=show_number(warming_kj(pot) / strength.kj_min, 1, "min"),
        steam=show_number(route.steam_g, 0, "g"),
        rate=show_number(strength.steam_g_min, 0, "g/min"),
        power=show_plain(strength.kj_min / 60.0, "kW", 2),
        known=earlier,
        best=show_minutes(route.minutes.best),
        low=show_number(route.minutes.low),
        high=show_minutes(route.minutes.high),
    )


#: What a sauce is stretched with (common practice).
STRETCHERS = ("unsalted_stock", "red_wine_reduced", "cream_heavy", "water")


def stretched(pot: Pot, wanted: Wish, volume_ml: float) -> list[Reason]:
    """What stirring in so much of each liquid makes of this pot: salt, body, sourness, alcohol.

    What somebody at the table must not have is left out.
    """
    out = []
    for what in (ingredient(key) for key in STRETCHERS):
        brings = {*what.allergens, *([ALCOHOL] if what.portion(1.0).ethanol > 0.0 else [])}
        if brings & set(wanted.avoid):
            continue
        after = pot.contents + what.portion(volume_ml * what.density_g_ml)
        alcohol_percent = strength_percent(after.ethanol, after.liquid_ml)
        stirred = say(
            "explanation.stretched",
            volume=show_volume(volume_ml),
            salt=show_percent(after.salt_percent),
            body=Term(bd.body_of(after, pot.strength).step.word),
            sourness=show_percent(percent(after.acid + after.acetic, after.liquid_g)),
        )
        alcohol = say("explanation.until_boiled", strength=show_number(alcohol_percent, 1, "% vol"))
        how = clauses(stirred, alcohol if alcohol_percent > LEAST_ALCOHOL_PERCENT else None)
        out.append(Reason(say("explanation.with", name=Term(what.name)), how))
    return out


#: Less alcohol than this is not spoken of, % vol. Modelling choice.
LEAST_ALCOHOL_PERCENT = 0.1


def body_reason(body: Body) -> Reason:
    """Where a viscosity comes from."""
    terms: dict[str, Argument] = {
        "water": show_plain(VISCOSITY_60C_MPAS, "mPa·s"),
        "starch": show_number(body.starch_and_pulp, 2),
        "gelatin": show_number(body.gelatin, 2),
        "solubles": show_number(body.solubles, 2),
        "fat": show_number(body.fat, 2),
        "viscosity": show_number(body.viscosity, 0, "mPa·s"),
        "body": Term(body.step.word),
    }
    if body.gum:
        return Reason(say("explanation.body"), say("explanation.body_with_gum", **terms, gum=show_number(body.gum)))
    return Reason(say("explanation.body"), say("explanation.body_how", **terms))


def _thickener_reasons(pot: Pot, route: Route, thickener: School) -> list[Reason]:
    """Where the dose comes from; and, where some is in already, what all of it comes to."""
    phase_g = route.final.liquid_g - route.final.fat_emulsified
    dry = say("explanation.dry", amount=show_mass(route.dry_g), dry=thickener.weighed)
    starch = thickener.term in STARCHES
    added = percent(route.dry_g, phase_g)
    if starch:
        # By the tables, and by what the spoons have found of this one.
        strength = bd.flour_equivalent_g(thickener.added(1.0).starch) * pot.strength.thickener
        added *= strength
        dry = say("explanation.dry_of_strength", dry=dry, strength=show_number(strength, 2))
    carrier = None
    if thickener.carrier:
        amount = (
            show_mass(route.dry_g * thickener.fat_g)
            if thickener.fat_g
            else show_volume(route.dry_g * thickener.liquid_ml)
        )
        carrier = say("explanation.carrier", amount=amount, carrier=Term(thickener.carrier))
    how = sentences(
        say(
            "explanation.thickener_how" if starch else "explanation.gum_how",
            dry=dry,
            phase=show_mass(phase_g),
            share=show_percent(added),
        ),
        carrier,
        say("explanation.by_parts", spread=show_percent(100 * thickener.spread, 0)),
    )
    out = [Reason(say("explanation.thickener", school=thickener.called), how)]
    if starch and (there := route.body.flour_percent - added) >= LEAST_FLOUR_PERCENT:
        in_all = say(
            "explanation.in_all_how",
            there=show_percent(there),
            added=show_percent(added),
            all=show_percent(route.body.flour_percent),
        )
        out.append(Reason(say("explanation.in_all"), in_all))
    return out


#: Less flour than this is not in already, % of the watery phase. Modelling choice.
LEAST_FLOUR_PERCENT = 0.05


def left_of_it(now_ml: float, start_ml: float) -> Message:
    """How much of what a batch began with is left."""
    share = show_percent(100.0 * now_ml / start_ml, 0)
    return say("explanation.left_how", now=show_volume(now_ml), start=show_volume(start_ml), share=share)


# -- the pot as it is -----------------------------------------------------------------------------

#: What the ledger's masses are called.
_NAMES = {
    "water": say("batch.contents_water"),
    "ethanol": say("batch.contents_ethanol"),
    "salt": say("batch.contents_salt"),
    "sugar": say("batch.contents_sugar"),
    "acid": say("batch.contents_acid"),
    "gelatin": say("batch.contents_gelatin"),
    "pulp": say("batch.contents_pulp"),
    "other": say("batch.contents_other"),
    "fat_emulsified": say("batch.contents_fat_emulsified"),
    "fat_free": say("batch.contents_fat_free"),
    "gum": say("batch.contents_gum"),
    "starch_g": say("batch.contents_thickener"),
}

#: Less of a thing than this is not listed among what is in the pot, g.
LEAST_LISTED_G = 0.05


@dataclass(frozen=True, slots=True)
class PartOfPot:
    """One thing of the ledger: what it is called, g of it, its share of the pot in %, and how that comes about."""

    name: Message
    grams: float
    percent: float
    how: Message


def parts_of(pot: Pot) -> tuple[PartOfPot, ...]:
    """What is in the pot, each by its weight and its share."""
    now = pot.contents
    return tuple(
        PartOfPot(
            name,
            grams,
            percent(grams, now.mass_g),
            say(
                "batch.contents_how",
                grams=show_number(grams, 1, "g"),
                mass=show_number(now.mass_g, 0, "g"),
                share=show_percent(percent(grams, now.mass_g)),
            ),
        )
        for mass, name in _NAMES.items()
        if (grams := getattr(now, mass)) >= LEAST_LISTED_G
    )


def salt_reason(pot: Pot) -> Message:
    """Where the salt content of the pot comes from, and how well it is known."""
    c, salt = pot.contents, pot.salt_percent
    return say(
        "batch.salt_how",
        salt=show_number(c.salt, 1, "g"),
        mass=show_number(c.liquid_g, 0, "g"),
        percent=show_percent(salt.best),
        low=show_number(salt.low, 2),
        high=show_percent(salt.high),
    )


def pot_reasons(pot: Pot) -> tuple[Reason, ...]:
    """The arithmetic of the pot's figures: liquid, salt, body, strength and what floats."""
    c = pot.contents
    liquid = say(
        "batch.liquid_how",
        mass=show_number(c.liquid_g, 0, "g"),
        density=show_number(c.density_g_ml, 3, "g/mL"),
        volume=show_volume(c.liquid_ml),
    )
    found = [
        Reason(say("explanation.liquid"), liquid),
        Reason(say("explanation.salt"), salt_reason(pot)),
        body_reason(pot.body),
        Reason(say("explanation.strength"), strength_reason(pot, c)),
    ]
    if c.fat_free >= LEAST_FAT_G:
        film = round(pot.fat_mm) < 1
        key = "batch.film_how" if film else "batch.fat_how"
        floats = say(key, fat=show_volume(c.fat_ml), depth=show_length(1.0 if film else pot.fat_mm))
        found.append(Reason(say("explanation.fat"), floats))
    return tuple(found)


#: Less fat than this is not spoken of, g. Modelling choice.
LEAST_FAT_G = 0.5

"""Why a way is the one to take, what it costs, and what another would give: in sentences."""

from __future__ import annotations

from typing import Literal

from ..amounts.quantities import show_length, show_minutes, show_number, show_percent, show_volume
from ..estimation.spoon import height
from ..events.judging import smells_of_wine
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..measuring.vessels import SHALLOW_MM
from ..messages import Message, Term, say, sentences
from ..pantry.ways import USUAL_BINDER
from ..phenomena.strength import strength_of
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT
from .solving import Route, bitterest_percent, sourest_percent, waits_min, work_min

#: A yield short by less than this, or salt above what is wanted by less, is not worth a note, as shares. Modelling
#: choices.
WORTH_SAYING_SHARE, SALTIER_SHARE = 0.03, 0.02

#: A sauce so many times as strong as what was strained is said to be stronger. Modelling choice.
STRONGER = 1.1

#: More than this many times what was wanted is more, not about as much. Modelling choice.
MUCH_MORE = 1.25

#: So near to a mark, as a share, it is what ends the boiling. Modelling choice.
AT_THE_MARK = 0.03


def notes(pot: Pot, wanted: Wish, route: Route) -> tuple[Message, ...]:
    """What a route costs, or what to mind, beyond its figures."""
    out = []
    stop = route.way.stop
    short = wanted.amount_ml - route.volume_ml
    if short > WORTH_SAYING_SHARE * wanted.amount_ml:
        out.append(say("explanation.less_than_asked", volume=show_volume(short)))
    # What is kept before the rest is bound stands on the card.
    if route.feasible and route.volume_ml > JUDGEMENT.more_meals * wanted.amount_ml:
        out.append(say("explanation.more_meals", volume=show_volume(route.volume_ml - wanted.amount_ml)))
    if stop != "body" and route.thickener is None:
        word = Term(route.body.step.on_the_spoon)
        if height(route.body.viscosity) < wanted.body:
            out.append(say("explanation.ends_thinner"))
        elif route.body.step.index > wanted.body:
            out.append(say("explanation.ends_thicker", body=word))
        else:
            out.append(say("explanation.no_thickener"))
    # What no tongue notices is not worth a note.
    noticed = route.salt_before.best > wanted.salt_percent * (1.0 + JUDGEMENT.least_salt_share)
    if noticed and route.feasible and stop != "told":
        out.append(say("explanation.saltier", liking=show_percent(wanted.salt_percent)))
    if route.salt_before.high > wanted.ceiling_percent >= route.salt_before.best:
        out.append(say("explanation.taste_half_way"))
    if route.steam_g > 0.0 and route.mark_mm < SHALLOW_MM:
        out.append(say("explanation.edge_scorches", depth=show_length(route.mark_mm)))
    if route.let_down_ml > 1.0:
        out.append(say("explanation.stir_in_first", volume=show_volume(route.let_down_ml)))
    if route.aside_ml > 0.0:
        out.append(say("explanation.keep_the_rest", volume=show_volume(route.aside_ml)))
    out += [one for one in (_habit(pot, route), _held(wanted, route)) if one is not None]
    return tuple(out)


def _habit(pot: Pot, route: Route) -> Message | None:
    """That it is bound with what the kitchen is used to, where that is not what is usual anywhere."""
    habit, bound = pot.habit, route.thickener
    told = habit is not None and bound is not None and bound.key == habit.key != USUAL_BINDER.key
    return say("explanation.habit") if told and route.feasible else None


def _held(wanted: Wish, route: Route) -> Message | None:
    """That it is ready long before it is wanted, and whether what binds it holds that long on a pass."""
    minutes = waits_min(wanted, route)
    if not route.feasible or minutes is None:
        return None
    thins = route.thickener is not None and route.thickener.sort == "quick"
    key = "explanation.waits_and_thins" if thins else "explanation.waits"
    return say(key, time=show_minutes(minutes))


def because(pot: Pot, wanted: Wish, route: Route) -> Message:
    """Why a good cook would take this way, in a sentence; of what was told, what it passes; and that raw wine stays."""
    raw = smells_of_wine(pot) and smells_of_wine(pot.but(contents=route.final))
    return sentences(_because(pot, wanted, route), say("because.wine_stays") if raw else _not_boiled(pot, route))


def _not_boiled(pot: Pot, route: Route) -> Message | None:
    """That nothing is boiled away, where it otherwise would be, because it is sharp, or bitter, already."""
    might_boil = route.steam_g <= 0.0 and route.let_down_ml <= 0.0 and not route.as_it_is and route.way.stop != "told"
    taste = _ends_in_taste(pot, pot.contents) if might_boil else None
    return _ALREADY[taste] if taste else None


#: What is said where it tastes so as it is, and where it would taste so boiled down further.
_ALREADY = {"sharp": say("because.sharp_already"), "bitter": say("because.bitter_already")}
_FURTHER = {"sharp": say("because.ends_sharp"), "bitter": say("because.ends_bitter")}


def _ends_in_taste(pot: Pot, boiled: Contents) -> Literal["sharp", "bitter"] | None:
    """What the boiled contents of a pot taste of as much as anybody likes."""
    near = (1.0 - 2.0 * AT_THE_MARK) / 100.0
    sour, bitter = pot.sour_times * (boiled.acid + boiled.acetic), pot.bitter_times * boiled.bitter
    if sour >= near * boiled.liquid_g * sourest_percent(pot.contents, JUDGEMENT):
        return "sharp"
    return "bitter" if bitter >= near * boiled.liquid_g * bitterest_percent(pot.contents, JUDGEMENT) else None


def _because(pot: Pot, wanted: Wish, route: Route) -> Message:
    if route.way.stop == "told":
        return _as_told(wanted, route)
    salty = pot.contents.salt_percent > wanted.salt_percent * (1.0 + SALTIER_SHARE)
    if route.let_down_ml > 0.0:
        return _let_down(pot, route, salty)
    if route.as_it_is:
        return _as_it_is(wanted, route)
    if route.steam_g > 0.0 and route.final.strength_percent > STRONGER * pot.contents.strength_percent:
        return _for_its_taste(pot, wanted, route)
    if route.aside_ml > 0.0:
        return _of_a_part(pot, wanted, route)
    if route.way.stop == "salt" and route.way.school is None:
        return say("because.jus")
    if route.steam_g > 0.0:
        return _boiled_a_little(pot, wanted, route)
    return _bound_as_it_is(wanted, route)


def instead(other: Route) -> Message:
    """What another way than the first would give."""
    taste = Term(strength_of(other.final.strength_percent).word)
    label, volume = other.label, show_volume(other.volume_ml)
    if other.as_it_is:
        return say("because.instead_at_once", label=label, volume=volume, taste=taste)
    return say("because.instead", label=label, volume=volume, time=show_minutes(work_min(other)), taste=taste)


def _let_down(pot: Pot, route: Route, salty: bool) -> Message:
    """How much goes in, and of what; water is the last of it where it would leave little taste."""
    pale = route.final.strength_percent < JUDGEMENT.least_stretched_percent
    only_stock = say("because.water_would_show") if pale else None
    if route.aside_ml > 0.0:
        taken = show_volume(pot.contents.liquid_ml - route.aside_ml)
        key = "because.take_and_stretch" if salty else "because.take_and_let_down"
        return sentences(say(key, volume=taken), only_stock)
    key = "because.saltier" if salty else "because.too_little"
    return sentences(say(key, volume=show_volume(route.let_down_ml)), only_stock)


def _as_it_is(wanted: Wish, route: Route) -> Message:
    """That it is good, or what it lacks."""
    if height(route.body.viscosity) < wanted.body:
        return say("because.thinner")
    mild = route.salt_to_add_g >= JUDGEMENT.least_salt_g
    return say("because.ready_but_for_salt" if mild else "because.ready")


def _for_its_taste(pot: Pot, wanted: Wish, route: Route) -> Message:
    """How much stronger it gets, what part of the pot makes it, and what ends the boiling."""
    said = {"times": show_number(pot.times(route.final), 1), "time": show_minutes(route.minutes.best)}
    ends = _what_ends_it(pot, wanted, route)
    if route.aside_ml > 0.0:
        part = say("because.part_for_taste", volume=show_volume(pot.contents.liquid_ml - route.aside_ml), **said)
        return sentences(part, ends)
    return sentences(say("because.for_taste", **said), ends)


def _what_ends_it(pot: Pot, wanted: Wish, route: Route) -> Message | None:
    """Why it is boiled so far, and no further: the first mark that it comes to."""
    there_is = wanted.time_there_is
    if there_is is not None and work_min(route) > there_is - JUDGEMENT.time_slack_min:
        return say("because.ends_in_time")
    if route.salt_before.best >= (1.0 - AT_THE_MARK) * (wanted.salt_percent - JUDGEMENT.salt_kept):
        return say("because.ends_at_salt")
    taste = _ends_in_taste(pot, route.final)
    if taste:
        return _FURTHER[taste]
    strained = pot.strained_percent or pot.contents.strength_percent
    rich = min(JUDGEMENT.rich_percent, JUDGEMENT.most_times * strained)
    if route.final.strength_percent >= (1.0 - 2.0 * AT_THE_MARK) * rich:
        return say("because.ends_rich")
    if route.thickener is None and height(route.body.viscosity) >= wanted.body:
        return say("because.ends_thick")
    if route.aside_ml <= 0.0 and route.volume_ml / route.sauce_share <= (1.0 + AT_THE_MARK) * wanted.amount_ml:
        return say("because.ends_at_amount")
    if smells_of_wine(pot) and not smells_of_wine(pot.but(contents=route.final)):
        return say("because.ends_calm")
    return None


def _of_a_part(pot: Pot, wanted: Wish, route: Route) -> Message:
    """How much of the pot is taken, and what becomes of it."""
    taken = show_volume(pot.contents.liquid_ml - route.aside_ml)
    if route.steam_g > 0.0:
        gone = show_volume(route.steam_g * SPECIFIC_VOLUME_ML_G["water"])
        return say("because.take_and_boil", volume=taken, gone=gone)
    if route.thickener is None:
        return say("because.body_enough", volume=show_volume(wanted.amount_ml))
    return say("because.take", volume=taken)


def _boiled_a_little(pot: Pot, wanted: Wish, route: Route) -> Message:
    """What boiling it down by little comes to."""
    time = show_minutes(route.minutes.best)
    if smells_of_wine(pot) and not smells_of_wine(pot.but(contents=route.final)):
        return say("because.until_calm", time=time)
    if route.way.stop == "time":
        return say("because.in_time", time=time)
    if route.thickener is None:
        return say("because.binds_itself")
    salty = route.salt_before.best >= (1.0 - AT_THE_MARK) * (wanted.salt_percent - JUDGEMENT.salt_kept)
    return say("because.to_the_salt" if salty else "because.to_the_amount", time=time)


def _bound_as_it_is(wanted: Wish, route: Route) -> Message:
    """Why nothing is boiled away, and how much comes of it."""
    volume, whole_ml = show_volume(route.volume_ml), route.volume_ml / route.sauce_share
    if route.volume_ml < JUDGEMENT.amount_slack * wanted.amount_ml:
        return say("because.all_there_is", volume=volume)
    if route.parted_ml > 0.0:
        return say("because.bind_what_you_need", volume=volume, rest=show_volume(route.parted_ml))
    if whole_ml > MUCH_MORE * wanted.amount_ml:
        return say("because.makes_more", volume=volume)
    return say("because.about_enough")


def _as_told(wanted: Wish, route: Route) -> Message:
    salt = show_percent(route.salt_before.best)
    if route.salt_before.best > wanted.ceiling_percent:
        return say("because.told_past_ceiling", salt=salt, ceiling=show_percent(wanted.ceiling_percent))
    if route.boil_to_ml > wanted.amount_ml + 1.0:
        return say("because.told_too_far", depth=show_length(SHALLOW_MM), volume=show_volume(route.boil_to_ml))
    if route.salt_before.best > wanted.salt_percent * (1.0 + SALTIER_SHARE):
        return say("because.told_saltier", salt=salt, liking=show_percent(wanted.salt_percent))
    return say("because.told")

"""What something that goes in changes of a pot, foreseen before it is poured: what would hurt comes first.

Everything is a sum of the ledger: the pot as it is, and the pot as the entry would leave it.
"""

from __future__ import annotations

from typing import Literal, NamedTuple

from ..amounts.quantities import (
    show_degrees,
    show_mass,
    show_minutes,
    show_number,
    show_percent,
    show_temperature,
    show_volume,
)
from ..estimation.spoon import height
from ..ledger.contents import SUGAR_TASTES, Contents
from ..messages import Message, Term, say
from ..phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G
from ..phenomena.cooling import FRIDGE_C
from ..phenomena.palate import TASTE_WORDS, taste_word
from ..phenomena.strength import strength_of
from ..phenomena.warming import FINISHED_C, cooled_by_k
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT, Judgement
from .solving import boiling_minutes, sourest_percent, without_raw_wine

#: What of a pot may change.
Of = Literal["volume", "salt", "body", "sour", "sweet", "strength", "fat", "warmth", "alcohol"]

#: So much sourness, sweetness or strength more or less, as a share, is tasted; from memory, and coarser than salt.
TASTED_SHARE = 0.15

#: Less of the pot than this, more or less, is not worth a word, as a share. Common practice.
WORTH_SAYING_SHARE = 0.02

#: So little acid or sugar, g in 100 g, is not tasted however much it changes. Common practice.
LEAST_TASTED_PERCENT = {"sour": 0.1, "sweet": 0.5}

#: Cooler by less than this nobody notices, K. Common practice.
LEAST_COOLED_K = 4.0

#: So much fat that is stirred in, g in 100 g, rounds a sauce. Common practice.
ROUNDS_PERCENT = 1.0


class Change(NamedTuple):
    """One thing that changes, in words; ``hurts`` where it ends over what is wanted, or farther from it; ``how`` is the
    sum that it comes of."""

    of: Of
    said: Message
    hurts: bool
    how: Message


def foreseen(
    before: Pot, after: Pot, wanted: Wish | None, cold: Contents | None = None, judgement: Judgement = JUDGEMENT
) -> tuple[Change, ...]:
    """All that an entry changes which anybody would notice, what hurts first; nothing where it changes nothing.

    Parameters
    ----------
    before, after : the pot as it is, and as the entry would leave it.
    wanted : what the sauce is to be, if anybody said; without it nothing is over anything.
    cold : what of it comes out of the fridge.
    """
    was, will = before.contents, after.contents
    too_sour = _level("sour", will) > max(sourest_percent(will, judgement), _level("sour", was))
    changes = (
        _volume(was, will),
        _salt(before, after, wanted, judgement),
        _body(before, after, wanted, judgement),
        _tasted("sour", was, will, hurts=too_sour),
        _tasted("sweet", was, will, hurts=False),
        _strength(was, will),
        _fat(was, will),
        _warmth(was, cold),
        _alcohol(was, after),
    )
    return tuple(sorted((one for one in changes if one is not None), key=lambda one: not one.hurts))


def _share(part_g: float, of: Contents) -> float:
    return 100.0 * part_g / of.liquid_g


def _grams(taste: Literal["sour", "sweet"], of: Contents) -> float:
    return of.acid + of.acetic if taste == "sour" else of.sugar


def _level(taste: Literal["sour", "sweet"], of: Contents) -> float:
    return _share(_grams(taste, of), of)


def _shares(what: str, was_g: float, will_g: float, was: Contents, will: Contents) -> Message:
    """So much of something in so much sauce, before and after."""
    return say(
        "foreseen.how_shares",
        what=Term(what),
        was=show_number(was_g, 1, "g"),
        in_was=show_mass(was.liquid_g),
        will=show_number(will_g, 1, "g"),
        in_will=show_mass(will.liquid_g),
    )


def _volume(was: Contents, will: Contents) -> Change | None:
    if abs(will.liquid_ml - was.liquid_ml) < WORTH_SAYING_SHARE * was.liquid_ml:
        return None
    volume, before = show_volume(will.liquid_ml), show_volume(was.liquid_ml)
    key = "foreseen.how_more" if will.liquid_ml > was.liquid_ml else "foreseen.how_less"
    by = say(key, was=before, by=show_volume(abs(will.liquid_ml - was.liquid_ml)))
    return Change("volume", say("foreseen.volume", volume=volume), False, by)


def _salt(before: Pot, after: Pot, wanted: Wish | None, judgement: Judgement) -> Change | None:
    was, will = before.salt_percent.best, after.salt_percent.best
    how = _shares("salt", before.contents.salt, after.contents.salt, before.contents, after.contents)
    noticed = abs(will - was) > judgement.least_salt_share * was
    if wanted is not None and will > wanted.ceiling_percent and will > was:
        limit = show_percent(wanted.ceiling_percent)
        return Change("salt", say("foreseen.salt_over", salt=show_percent(will), limit=limit), True, how)
    if not noticed:
        return None
    over = wanted is not None and will > was and will > (1.0 + judgement.least_salt_share) * wanted.salt_percent
    key = "foreseen.saltier" if over else "foreseen.salt"
    return Change("salt", say(key, salt=show_percent(will), was=show_percent(was)), over, how)


def _body(before: Pot, after: Pot, wanted: Wish | None, judgement: Judgement) -> Change | None:
    was, will = height(before.body.viscosity), height(after.body.viscosity)
    if abs(will - was) < judgement.least_step:
        return None
    key = "foreseen.thicker" if will > was else "foreseen.thinner"
    # On the way to what is wanted nothing hurts; away from it, past its step, it does.
    away = wanted is not None and (will < min(was, wanted.body) or will > max(was, wanted.body + 1.0))
    thick = [show_number(pot.body.viscosity, 0, "mPa·s") for pot in (before, after)]
    step = after.body.step
    how = say(
        "foreseen.how_thick", was=thick[0], will=thick[1], step=Term(step.on_the_spoon), low=show_number(step.low, 0)
    )
    return Change("body", say(key, body=Term(step.on_the_spoon)), away, how)


#: What is said of a taste that was not there before, of more of it, of less, and of too much.
_WORDS = {
    "sour": ("foreseen.sour_now", "foreseen.sour_more", "foreseen.sour_less", "foreseen.sour_too_much"),
    "sweet": ("foreseen.sweet_now", "foreseen.sweet_more", "foreseen.sweet_less", "foreseen.sweet_more"),
}


def _tasted(of: Literal["sour", "sweet"], before: Contents, after: Contents, *, hurts: bool) -> Change | None:
    least, was, will = LEAST_TASTED_PERCENT[of], _level(of, before), _level(of, after)
    if max(was, will) < least or abs(will - was) <= TASTED_SHARE * max(was, least):
        return None
    new, more, less, too_much = _WORDS[of]
    what = "acid, as tartaric" if of == "sour" else "sugar"
    how = _shares(what, _grams(of, before), _grams(of, after), before, after)
    if was < least:
        # Of what was not tasted before the first word is the least that is said.
        return Change(of, say(new, word=Term(taste_word(of, max(will, TASTE_WORDS[of][1].from_percent)))), hurts, how)
    key = too_much if hurts else more if will > was else less
    return Change(of, say(key, times=show_number(will / was, 1)), hurts, how)


def _strength(was: Contents, will: Contents) -> Change | None:
    # What sugar alone adds to its solids is sweet, and not stronger.
    own = [of.own_g - SUGAR_TASTES * of.sugar for of in (was, will)]
    had, has = _share(own[0], was), _share(own[1], will)
    if abs(has - had) <= TASTED_SHARE * had:
        return None
    key = "foreseen.stronger" if has > had else "foreseen.weaker"
    how = _shares("solids of its own", own[0], own[1], was, will)
    return Change("strength", say(key, taste=Term(strength_of(will.strength_percent).word)), False, how)


def _fat(was: Contents, will: Contents) -> Change | None:
    if _share(will.fat_emulsified, will) - _share(was.fat_emulsified, was) < ROUNDS_PERCENT:
        return None
    how = _shares("fat stirred in", was.fat_emulsified, will.fat_emulsified, was, will)
    return Change("fat", say("foreseen.rounder", fat=show_mass(will.fat_emulsified - was.fat_emulsified)), False, how)


def _warmth(was: Contents, cold: Contents | None) -> Change | None:
    if cold is None or (cooler := cooled_by_k(was, cold)) < LEAST_COOLED_K:
        return None
    how = say(
        "foreseen.how_cooler",
        mass=show_mass(cold.mass_g),
        fridge=show_temperature(FRIDGE_C),
        sauce=show_mass(was.mass_g),
        at=show_temperature(FINISHED_C),
    )
    return Change("warmth", say("foreseen.cooler", by=show_degrees(cooler)), False, how)


def _alcohol(was: Contents, after: Pot) -> Change | None:
    ethanol = after.contents.ethanol
    if ethanol - was.ethanol < ALCOHOL_WORTH_A_WORD_G:
        return None
    how = _shares("alcohol", was.ethanol, ethanol, was, after.contents)
    boiled = without_raw_wine(after)
    if boiled is after.contents:
        return Change("alcohol", say("foreseen.alcohol", grams=show_mass(ethanol)), True, how)
    boils = show_minutes(max(boiling_minutes(after, boiled).best, 1.0)), show_volume(boiled.liquid_ml)
    return Change("alcohol", say("foreseen.raw", grams=show_mass(ethanol), time=boils[0], volume=boils[1]), True, how)

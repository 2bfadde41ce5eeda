"""What something that goes in changes of a pot, foreseen before it is poured: what would hurt comes first.

Everything is a sum of the ledger: the pot as it is, and the pot as the entry would leave it.
"""

from __future__ import annotations

from typing import Literal, NamedTuple

from ..amounts.quantities import show_degrees, show_mass, show_minutes, show_number, show_percent, show_volume
from ..estimation.spoon import height
from ..ledger.contents import SUGAR_TASTES, Contents
from ..messages import Message, Term, say
from ..phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G
from ..phenomena.palate import TASTE_WORDS, taste_word
from ..phenomena.strength import strength_of
from ..phenomena.warming import cooled_by_k
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
    """One thing that changes, in words; ``hurts`` where it ends over what is wanted, or farther from it."""

    of: Of
    said: Message
    hurts: bool


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
    changes = (
        _volume(was, will),
        _salt(before, after, wanted, judgement),
        _body(before, after, wanted, judgement),
        _tasted("sour", _acid(was), _acid(will), hurts=_acid(will) > max(sourest_percent(will, judgement), _acid(was))),
        _tasted("sweet", _share(was.sugar, was), _share(will.sugar, will), hurts=False),
        _strength(was, will),
        _fat(was, will),
        _warmth(was, cold),
        _alcohol(was, after),
    )
    return tuple(sorted((one for one in changes if one is not None), key=lambda one: not one.hurts))


def _share(part_g: float, of: Contents) -> float:
    return 100.0 * part_g / of.liquid_g


def _acid(of: Contents) -> float:
    return _share(of.acid + of.acetic, of)


def _volume(was: Contents, will: Contents) -> Change | None:
    if abs(will.liquid_ml - was.liquid_ml) < WORTH_SAYING_SHARE * was.liquid_ml:
        return None
    return Change("volume", say("foreseen.volume", volume=show_volume(will.liquid_ml)), False)


def _salt(before: Pot, after: Pot, wanted: Wish | None, judgement: Judgement) -> Change | None:
    was, will = before.salt_percent.best, after.salt_percent.best
    noticed = abs(will - was) > judgement.least_salt_share * was
    if wanted is not None and will > wanted.ceiling_percent and will > was:
        limit = show_percent(wanted.ceiling_percent)
        return Change("salt", say("foreseen.salt_over", salt=show_percent(will), limit=limit), True)
    if not noticed:
        return None
    over = wanted is not None and will > was and will > (1.0 + judgement.least_salt_share) * wanted.salt_percent
    key = "foreseen.saltier" if over else "foreseen.salt"
    return Change("salt", say(key, salt=show_percent(will), was=show_percent(was)), over)


def _body(before: Pot, after: Pot, wanted: Wish | None, judgement: Judgement) -> Change | None:
    was, will = height(before.body.viscosity), height(after.body.viscosity)
    if abs(will - was) < judgement.least_step:
        return None
    key = "foreseen.thicker" if will > was else "foreseen.thinner"
    # On the way to what is wanted nothing hurts; away from it, past its step, it does.
    away = wanted is not None and (will < min(was, wanted.body) or will > max(was, wanted.body + 1.0))
    return Change("body", say(key, body=Term(after.body.step.on_the_spoon)), away)


#: What is said of a taste that was not there before, of more of it, of less, and of too much.
_WORDS = {
    "sour": ("foreseen.sour_now", "foreseen.sour_more", "foreseen.sour_less", "foreseen.sour_too_much"),
    "sweet": ("foreseen.sweet_now", "foreseen.sweet_more", "foreseen.sweet_less", "foreseen.sweet_more"),
}


def _tasted(of: Literal["sour", "sweet"], was: float, will: float, *, hurts: bool) -> Change | None:
    least = LEAST_TASTED_PERCENT[of]
    if max(was, will) < least or abs(will - was) <= TASTED_SHARE * max(was, least):
        return None
    new, more, less, too_much = _WORDS[of]
    if was < least:
        # Of what was not tasted before the first word is the least that is said.
        return Change(of, say(new, word=Term(taste_word(of, max(will, TASTE_WORDS[of][1].from_percent)))), hurts)
    key = too_much if hurts else more if will > was else less
    return Change(of, say(key, times=show_number(will / was, 1)), hurts)


def _strength(was: Contents, will: Contents) -> Change | None:
    # What sugar alone adds to its solids is sweet, and not stronger.
    had, has = (_share(of.own_g - SUGAR_TASTES * of.sugar, of) for of in (was, will))
    if abs(has - had) <= TASTED_SHARE * had:
        return None
    key = "foreseen.stronger" if has > had else "foreseen.weaker"
    return Change("strength", say(key, taste=Term(strength_of(will.strength_percent).word)), False)


def _fat(was: Contents, will: Contents) -> Change | None:
    if _share(will.fat_emulsified, will) - _share(was.fat_emulsified, was) < ROUNDS_PERCENT:
        return None
    return Change("fat", say("foreseen.rounder", fat=show_mass(will.fat_emulsified - was.fat_emulsified)), False)


def _warmth(was: Contents, cold: Contents | None) -> Change | None:
    if cold is None or (cooler := cooled_by_k(was, cold)) < LEAST_COOLED_K:
        return None
    return Change("warmth", say("foreseen.cooler", by=show_degrees(cooler)), False)


def _alcohol(was: Contents, after: Pot) -> Change | None:
    ethanol = after.contents.ethanol
    if ethanol - was.ethanol < ALCOHOL_WORTH_A_WORD_G:
        return None
    boiled = without_raw_wine(after)
    if boiled is after.contents:
        return Change("alcohol", say("foreseen.alcohol", grams=show_mass(ethanol)), True)
    boils = show_minutes(max(boiling_minutes(after, boiled).best, 1.0)), show_volume(boiled.liquid_ml)
    return Change("alcohol", say("foreseen.raw", grams=show_mass(ethanol), time=boils[0], volume=boils[1]), True)

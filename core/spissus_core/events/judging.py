"""What the cook finds: by spoon and tongue, by eye and ear, and in words."""

from __future__ import annotations

import math
from collections.abc import Mapping
from datetime import datetime
from typing import Annotated, Any, Literal, NamedTuple, cast

from pydantic import Field, ValidationInfo, model_validator

from ..amounts.fields import Remark, on_the_shelf
from ..amounts.quantities import show_volume
from ..amounts.tables import one_of, table
from ..errors import SpissusError
from ..estimation.spoon import Spoonful, Verdict, belief, like
from ..estimation.window import Concentration, boiled_by
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents, percent
from ..messages import Message, Term, say
from ..phenomena.alcohol import ETHANOL_G_ML
from ..phenomena.body import LADDER
from ..phenomena.palate import (
    COOK,
    FIGURED,
    GUESSED_LN,
    LEAST_LEVEL,
    LEVELS,
    LISTED_LN,
    PALATE,
    TASTERS,
    Leaning,
    Sensed,
    Side,
    found_word,
    level_liked,
    said_of,
)
from ..phenomena.seasoning import RAW, SAUCE, USUAL_SALT_PERCENT, LeantOf, tasted
from ..phenomena.strength import gelatin_seen_percent
from ..pot import Pot
from .base import ActsOnPot, Kind
from .looking import LEAST_METERED, with_concentration
from .state import Found, State, Taste

_SPOON: Mapping[str, Message] = {
    "low": say("events.spoon_low"),
    "right": say("events.spoon_right"),
    "high": say("events.spoon_high"),
}
#: What the log says of each word for salt.
TONGUE_WORDS: Mapping[str, Message] = {
    "flat": say("events.tongue_flat"),
    "nearly": say("events.tongue_nearly"),
    "low": say("events.tongue_low"),
    "right": say("events.tongue_right"),
    "high": say("events.tongue_high"),
    "salty": say("events.tongue_salty"),
    "too_salty": say("events.tongue_too_salty"),
}


class Tested(ActsOnPot):
    """A spoonful on a warm plate, or a taste: is it where it should be?

    A spoon is low, right or high, or like one of those that are drawn, told by its ``step`` of the ladder; ``again`` is
    what a second one said that was looked at beside it. A tongue is low, right or high, or of salt one of the five
    words a cook would use; ``twice`` is what two tastes of salt say together. ``taster`` is whose tongue it was, where
    it is not that of whoever cooks. What is ``left`` as it is found is so on purpose.
    """

    called = say("entries.tested")
    versions = (1, 5, 6, 7)

    kind: Literal["tested"] = "tested"
    of: Literal["body", "salt"] | Sensed
    verdict: Taste | None = None
    step: Annotated[int, Field(ge=0, lt=len(LADDER))] | None = None
    again: Literal["low", "right", "high"] | None = None
    twice: bool = False
    left: Literal[True] | None = None
    taster: Annotated[str, *one_of("tasters")] | None = None

    @model_validator(mode="after")
    def _a_spoons_words(self, info: ValidationInfo) -> Tested:
        if on_the_shelf(info):
            return self
        if self.of == "body" and (self.verdict not in _SPOON if self.step is None else self.verdict is not None):
            raise SpissusError("verdict", say("events.a_spoons_words"))
        if self.of == "salt" and (self.verdict is None or self.step is not None):
            raise SpissusError("verdict", say("events.a_tongues_words"))
        if self.again is not None and (self.of != "body" or self.verdict is None):
            raise SpissusError("again", say("events.a_second_spoon"))
        if self.twice and self.of != "salt":
            raise SpissusError("twice", say("events.twice_by_one_word"))
        if self.taster is not None and self.of == "body":
            raise SpissusError("taster", say("events.whose_spoon"))
        if self.of in PALATE:
            self._of_the_palate()
        return self

    def _of_the_palate(self) -> None:
        words = said_of(self.of)
        if self.verdict not in words or self.step is not None:
            raise SpissusError("verdict", say("events.a_palates_words", words=", ".join(words)))
        if self.left and self.verdict == "right":
            raise SpissusError("left", say("events.right_is_left"))

    def on_pot(self, pot: Pot) -> Pot:
        """It changes what is known of the pot, not what is in it."""
        return pot

    def apply(self, state: State, at: datetime) -> State:
        """What it says is evidence: of the strength of what binds, or of the salt and of what the kitchen likes."""
        pot = state.pot
        if pot is None:
            return state
        if self.of in PALATE:
            return _sensed(state, pot, self)
        said = self._against(state)
        # Flat before it is bound: it may be boiled on.
        thin = said == "low" and self.again in (None, "low")
        boils_on = thin if self.of == "body" else self.verdict in BLAND and not state.binding.in_it
        if state.at_its_mark and not boils_on:
            state = state.but(judged=state.judged.but(boiled_enough=True))
        if self.of == "salt":
            return state if self.verdict is None else _tasted(state, pot, self.verdict, self)
        found = None if self.step is None else like(pot.contents, self.step)
        state = _looked_at(state, said, found)
        return state if self.again is None else _looked_at(state, self.again, None)

    def _against(self, state: State) -> Verdict | None:
        """The verdict on what is wanted: of a drawn spoon, on which side of it that one stands."""
        if self.step is None:
            return cast("Verdict | None", self.verdict)
        if state.asked.wanted is None:
            return None
        wanted = state.asked.wanted.body
        return "low" if self.step < wanted else "high" if self.step > wanted else "right"

    def said(self) -> Message:
        """The verdict, and whose it is where another person tasted."""
        if self.taster in (None, COOK):
            return self._said
        who = Term(TASTERS[self.taster].log)
        if self.of in PALATE:
            found = Term(found_word(self.of, self.verdict or ""))
            return say(
                "events.tasted_by",
                who=who,
                found=say("events.of_right", of=Term(PALATE[self.of].label)) if self.verdict == "right" else found,
            )
        return say("events.tasted_by", who=who, found=TONGUE_WORDS.get(self.verdict or "", ""))

    @property
    def _said(self) -> Message:
        if self.step is not None and self.step < len(LADDER):
            return say("events.tested_like", like=Term(LADDER[self.step].on_the_spoon))
        said = self.verdict or ""
        if self.of in PALATE:
            found = Term(found_word(self.of, said))
            key = "events.left_so" if self.left else "events.tasted_right" if said == "right" else "events.tasted_so"
            return say(key, of=Term(PALATE[self.of].label), found=found)
        if self.of == "body" and self.again is not None:
            return say("events.tested_two", one=_SPOON.get(said, said), other=_SPOON[self.again])
        if self.of == "body":
            return say("events.tested_body", verdict=_SPOON.get(said, said))
        return say("events.tasted_twice" if self.twice else "events.tested_salt", verdict=TONGUE_WORDS.get(said, said))


def _looked_at(state: State, said: Verdict | None, found: Spoonful | None) -> State:
    """The batch after one more spoonful: what binds is as strong as they all say together.

    ``said`` is its verdict on what is wanted, and ``found`` what it looked like, where that was told.
    """
    judged, pot, wanted = state.judged, state.pot, state.asked.wanted
    assert pot is not None
    if said is not None:
        judged = judged.but(body=(*judged.body, said))
    if found is None and wanted is not None and said in _SPOON:
        found = Spoonful(pot.contents, wanted.body, cast(Verdict, said))
    if found is None:
        return state.but(judged=judged)
    spoons = (*judged.spoons, found)
    return state.but(judged=judged.but(spoons=spoons), pot=pot.but(strength=belief(spoons).strength))


#: Words for too little salt.
BLAND = ("flat", "nearly", "low")


def _tasted(state: State, pot: Pot, verdict: Taste, test: Tested) -> State:
    """Liquid, salt and the taster's liking after a taste, each moved as far as it is unsure."""
    by, aim = test.taster or COOK, state.judged.taster
    after = _moved(state.but(judged=state.judged.tasting(by)), pot, verdict, test.twice)
    before = state.judged
    said = before.salt[-1] if before.salt and before.salt_by == by and before.salt_against is None else None
    against = said if said and _contradict(said, verdict) else None
    if against and after.pot is not None:
        # One of the two is wrong, and nobody knows which: it is known no better for it.
        after = after.but(pot=after.pot.salt_known_to(max(after.pot.salt_error_g, pot.salt_error_g), pot.salt_g_g))
    judged = after.judged.tasting(by if TASTERS[by].counts else aim)
    return after.but(judged=judged.but(salt_by=by, salt_against=against))


#: Words on both sides of right that are further apart than so many standard deviations of their difference contradict
#: each other. Modelling choice.
CONTRADICT_SD = 2.0


def _contradict(first: Taste, then: Taste) -> bool:
    """Whether nobody says one and then the other of the same salt."""
    one, other = SAUCE.stands.get(first), SAUCE.stands.get(then)
    if one is None or other is None or one * other >= 0.0:
        return False
    return abs(one - other) > CONTRADICT_SD * math.sqrt(2.0) * SAUCE.error


def _moved(state: State, pot: Pot, verdict: Taste, twice: bool) -> State:
    wish, judged = state.asked.wanted, state.judged
    told = wish.salt_percent if wish else USUAL_SALT_PERCENT
    tongue = SAUCE if state.binding.in_it or _tasted_at_leisure(state) else RAW
    known = pot.salt_error
    liking_error = judged.liking_error
    error = max(math.hypot(known, liking_error), 1e-6)
    gap = pot.contents.salt_percent - told - judged.liking_percent
    after, left = tasted(gap, error, verdict, tongue, 2 if twice else 1)
    theirs = liking_error**2 / error**2
    judged = judged.but(
        liking_percent=judged.liking_percent - theirs * (after - gap),
        liking_error=math.sqrt(max(liking_error**2 - theirs**2 * max(error**2 - left**2, 0.0), 0.0)),
        salt=(*judged.salt, verdict),
    )
    liked = state.but(judged=judged)
    if left < TELLS * error:
        # The one measurement of the salt content from which the same would be known.
        weighs = 1.0 / (1.0 / left**2 - 1.0 / error**2)
        more = (after - gap) * (weighs + error**2) / error**2
        percent = min(max(pot.contents.salt_percent + more, LEAST_METERED), MOST_SALT_PERCENT)
        return with_concentration(liked, Concentration.of(pot, percent, math.hypot(weighs**0.5, liking_error)))
    # The two contradict each other: it is known worse than before.
    mine = known**2 / error**2
    percent = min(max(pot.contents.salt_percent + mine * (after - gap), LEAST_METERED), MOST_SALT_PERCENT)
    bare_g = pot.contents.liquid_g - pot.contents.salt
    salted = pot.but(contents=pot.contents.with_masses(salt=bare_g * percent / (100.0 - percent)))
    spread = math.sqrt(known**2 + mine**2 * (left**2 - error**2)) / 100.0 * pot.contents.liquid_g
    return liked.but(pot=salted.salt_known_to(spread, pot.salt_g_g))


def _sensed(state: State, pot: Pot, test: Tested) -> State:
    """The batch after a taste of something besides salt: what is thought of it, and of what is liked, follows."""
    of, verdict, by = cast(Sensed, test.of), cast(Side, test.verdict or "right"), test.taster or COOK
    left = bool(test.left)
    before = next((one for one in state.judged.palate if one.of == of), None)
    leaning = before.leaning if before else untasted(state, of)
    same = before is not None and before.by == by
    if before is not None and not same:
        # Another tongue says as much of the pot, and likes what it likes.
        leaning = Leaning(leaning.there, leaning.there_error)
    fresh = before is not None and same and not before.again and before.against is None
    against = before.verdict if before and fresh and {before.verdict, verdict} == {"low", "high"} else None
    if of in FIGURED and not (left and before):
        gap = math.log(max(LEVELS[of](pot.contents), LEAST_LEVEL) / level_liked(of, pot.contents))
        leaning = leaning.after(gap + leaning.there - leaning.liked, verdict)
        if of != "sweet":
            state = state.but(pot=pot.but(**{f"{of}_times": math.exp(leaning.there - leaning.liked)}))
    helpings = before.helpings if before else 0
    found = Found(of, verdict, left=left, helpings=helpings, leaning=leaning, by=by, against=against)
    return state.but(judged=state.judged.finding(found))


#: What of the palate a kitchen may have come to like otherwise than most.
LEANING: tuple[Literal["sour", "bitter"], ...] = ("sour", "bitter")


def untasted(state: State, of: Sensed) -> Leaning:
    """What is thought of a taste, and of what the kitchen likes of it, before anybody tasted it."""
    known = level_known(state)
    if state.liking is None or of not in LEANING:
        return Leaning(0.0, known)
    likes = state.liking.leans(cast(LeantOf, of))
    return Leaning(0.0, known, likes.by, likes.error) if likes.batches else Leaning(0.0, known)


def level_known(state: State) -> float:
    """How well any taste but salt is known that nobody tasted, natural logarithm: by a list, or by a kind of liquid."""
    listed = state.start is not None and state.start.liquid.braise is not None
    return LISTED_LN if listed else GUESSED_LN


def _tasted_at_leisure(state: State) -> bool:
    """Whether a taste is one that is asked for, cooled and with water between: on the plan, and not out of the boil."""
    boils = state.stove.window is not None and state.stove.window.heating and state.stove.window.setting.heat == "boil"
    return state.asked.way is not None and (state.at_its_mark or not boils)


#: A taste after which the salt is known no better than by so much tells nothing of its own: as one measurement it would
#: be one of no weight and any size. Numerical choice.
TELLS = 0.9

#: No tongue makes a pot saltier than this, %. Numerical choice.
MOST_SALT_PERCENT = 90.0


#: What cooks see, hear and smell on the way down: rows of ``data/signs.csv``.
Sign = Annotated[str, *one_of("signs", outlives=True)]


class SignRow(NamedTuple):
    """A sign: what it is called, what the log says of it, and what it says of the pot: nothing, where it is empty.

    ``step`` is the step of the ladder that a sign of body stands for.
    """

    label: str
    log: str
    says: Literal["", "alcohol_gone", "water_gone", "body", "sets", "runny", "raw_wine", "yolk"]
    step: int | None


SIGNS: Mapping[str, SignRow] = table(
    "signs",
    lambda row: SignRow(row["label"], row["log"], cast(Any, row["says"]), int(row["step"]) if row["step"] else None),
)

#: Once it only simmers, or no longer smells sharp, no more alcohol than this is left, % vol. Modelling choice: cooks
#: read it so (common practice); it is never said to be none.
CALM_PERCENT_VOL = 0.5

#: What smells of raw wine holds at least so much alcohol, % vol. From memory.
RAW_PERCENT_VOL = 1.0

#: What fries has no more liquid than this by any ledger, mL; a sign that is further off is misheard. Modelling choice.
MOST_FRIED_ML = 600.0


def signs_asked(state: State) -> tuple[str, ...]:
    """The signs that would say something of this pot, by key: what says nothing is not asked for."""
    pot = state.pot
    if pot is None:
        return ()
    told = {
        "": False,
        "alcohol_gone": smells_of_wine(pot),
        "water_gone": pot.contents.liquid_ml <= MOST_FRIED_ML and pot.contents.fat_free > 0.0,
        "body": True,
        # Asked before a way is chosen, and nowhere else.
        "sets": False,
        "runny": False,
        "raw_wine": False,
        "yolk": state.went_in.raw_yolk,
    }
    return tuple(key for key, sign in SIGNS.items() if told[sign.says])


def smells_of_wine(pot: Pot) -> bool:
    """Whether raw wine is smelled in it."""
    return pot.contents.ethanol > _calm_g(pot)


def _calm_g(pot: Pot) -> float:
    return CALM_PERCENT_VOL / 100.0 * pot.contents.liquid_ml * ETHANOL_G_ML


class Seen(Kind):
    """A sign beside the numbers, and what it says of them."""

    beside = True
    away = True
    called = say("entries.seen")

    kind: Literal["seen"] = "seen"
    sign: Sign

    def apply(self, state: State, at: datetime) -> State:
        """One more sign, taken as evidence.

        An ordinary simmer: hardly any alcohol is left; a smell of wine: some is. Frying: the water is gone. A film, a
        line or a trail: the body has come so far at least. What sets on a cold plate is rich in gelatin.
        """
        heard = state.judged.signs
        if self.sign not in heard:
            state = state.but(judged=state.judged.but(signs=(*heard, self.sign)))
        pot, sign = state.pot, SIGNS.get(self.sign)
        if pot is None or sign is None:
            return state
        match sign.says:
            case "alcohol_gone":
                return state.but(pot=pot.but(contents=_calmed(pot)))
            case "water_gone":
                return state.but(pot=pot.boiled_to(_fried(pot)))
            case "body":
                assert sign.step is not None
                return _looked_at(state, None, Spoonful(pot.contents, sign.step, "enough"))
            case "sets" | "runny" if not any(SIGNS[key].says in ("sets", "runny") for key in heard if key in SIGNS):
                return state.but(pot=_set_cold(pot, sets=sign.says == "sets"))
            case "yolk":
                return state.but(went_in=state.went_in.but(raw_yolk=False))
            case "raw_wine":
                return state.but(pot=pot.but(contents=_of_raw_wine(pot)))
            case _:
                return state

    def said(self) -> Message:
        """The sign in a cook's words."""
        sign = SIGNS.get(self.sign)
        return say("events.seen", sign=Term(sign.log) if sign else self.sign)


def _calmed(pot: Pot) -> Contents:
    """The pot with as little alcohol as an ordinary simmer leaves; what it was taken for was water."""
    now = pot.contents
    left = min(now.ethanol, _calm_g(pot))
    return now.with_masses(ethanol=left, water=now.water + now.ethanol - left)


def _of_raw_wine(pot: Pot) -> Contents:
    """The pot with as much alcohol as is smelled at least; that was taken for water."""
    now = pot.contents
    more = max(RAW_PERCENT_VOL / 100.0 * now.liquid_ml * ETHANOL_G_ML - now.ethanol, 0.0)
    return now.with_masses(ethanol=now.ethanol + more, water=max(now.water - more, 0.0))


def _set_cold(pot: Pot, *, sets: bool) -> Pot:
    """The pot with the gelatin that a cold plate tells of; more of it was taken for water."""
    now = pot.contents
    if now.gelatin <= 0.0:
        return pot
    seen = gelatin_seen_percent(percent(now.gelatin, now.liquid_g), sets=sets) / 100.0 * now.liquid_g
    more_ml = (seen - now.gelatin) * SPECIFIC_VOLUME_ML_G["gelatin"]
    water = max(now.water - more_ml / SPECIFIC_VOLUME_ML_G["water"], 0.0)
    return pot.but(contents=now.with_masses(gelatin=seen, water=water))


def _fried(pot: Pot) -> Contents:
    """The pot boiled dry. Raises SpissusError where the ledger holds far too much for that."""
    if pot.contents.liquid_ml > MOST_FRIED_ML:
        raise SpissusError("sign", say("events.does_not_fry", volume=show_volume(pot.contents.liquid_ml)))
    return boiled_by(pot.contents, math.inf)


class Noted(Kind):
    """A remark."""

    beside = True
    away = True
    called = say("entries.noted")

    kind: Literal["noted"] = "noted"
    text: Remark

    def said(self) -> Message:
        """The remark."""
        return say("events.noted", text=self.text)

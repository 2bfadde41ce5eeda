"""What the sauce is to be: how much of it, how thick, how salty, in what time, for whom."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from typing import Annotated, Self

from pydantic import BaseModel, ConfigDict, Field, PrivateAttr, ValidationInfo, model_validator

from .amounts.fields import MassG, Minutes, Percent, VolumeMl, on_the_shelf
from .amounts.quantities import LONGEST_AMOUNT, parse, show_mass, show_minutes, show_percent, show_plain, show_volume
from .errors import QuantityError, TargetError
from .estimation.window import boiled_by, steam_kj
from .intake.clock import CLOCK, clock_in
from .intake.wish import read_amount_wanted
from .ledger.contents import SPECIFIC_VOLUME_ML_G
from .messages import Message, Shown, Term, say
from .pantry.guests import DISHES, USUAL_DISH, Avoided, DishKey, helpings_ml
from .phenomena.body import LADDER
from .phenomena.fat import USUAL_REST_G_PER_100_ML
from .phenomena.seasoning import SALT_PER_SODIUM, USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT
from .pot import Pot

#: A ceiling below this is a slip of the finger, % by weight; so is less sauce than this, mL. Modelling choices.
LEAST_CEILING_PERCENT, LEAST_SAUCE_ML = 0.05, 1.0

#: Unsalted liquid makes up this much at most: past that nothing of the pot is tasted any more. Modelling choice.
MOST_ADDED_SHARE = 1.0

#: A portion that lacks less than this still counts. Modelling choice.
PORTION_SLACK = 0.05


class Wish(BaseModel):
    """What the sauce is to be: the one place where its fields are defined.

    How much is told in one way of :data:`AMOUNTS`: a volume; helpings of a size; for so many people, ``over`` what it
    is poured; a ``share`` of the pot; ``gone_ml`` that boils away; a weight on the scale, pan included;
    ``at_salt_percent``, where its own salt stands at that; or, where nothing else is said, what it boils down to in
    ``minutes``. Beside any of them ``minutes`` is the time there is. It may be told by a ``clock``, "20:00", or
    "08:00 20:00" where either may be meant. ``amount`` is the way to say it in words ("half", "20 min"); what is kept
    is the number. Body on the ladder, salt and its ceiling, the fat that may float on it, g per 100 mL, and what
    somebody at the table must not have.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    amount: Annotated[str | None, Field(max_length=LONGEST_AMOUNT, exclude=True)] = None
    volume_ml: VolumeMl | None = None
    portions: Annotated[int, Field(ge=1, le=2000)] | None = None
    portion_ml: VolumeMl | None = None
    people: Annotated[int, Field(ge=1, le=2000)] | None = None
    over: DishKey | None = None
    share: Annotated[float, Field(gt=0, le=1)] | None = None
    gone_ml: VolumeMl | None = None
    gross_g: MassG | None = None
    at_salt_percent: Percent | None = None
    minutes: Minutes | None = None
    clock: Annotated[str | None, Field(max_length=11, pattern=CLOCK)] = None
    body: Annotated[int, Field(ge=0, le=5)] = 3
    salt_percent: Percent = USUAL_SALT_PERCENT
    ceiling_percent: Percent = USUAL_CEILING_PERCENT
    fat_g_per_100_ml: Annotated[float, Field(ge=0, le=30)] = USUAL_REST_G_PER_100_ML
    avoid: Annotated[tuple[Avoided, ...], Field(max_length=20)] = ()

    _comes_to_ml: float | None = PrivateAttr(None)

    @model_validator(mode="before")
    @classmethod
    def _read_amount(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict) or not isinstance(data.get("amount"), str):
            return data
        amount, clock = clock_in(data["amount"], field="amount")
        told = read_amount_wanted(amount)
        rest = {key: given for key, given in data.items() if key != "amount"}
        if clock is not None:
            rest |= {"clock": clock, "minutes": None}
        rest |= _sodium_read(rest, told.each_ml or (_poured_ml(rest) if told.field == "people" else None))
        if told.body is not None:
            rest["body"] = told.body
        if told.field == "body":
            step = Term(LADDER[int(told.value)].on_the_spoon)
            raise QuantityError("amount", say("wishes.thick_how_much", text=data["amount"].strip(), step=step))
        if told.field == "portions":
            rest["portion_ml"] = told.each_ml or rest.get("portion_ml") or DISHES[USUAL_DISH].helping_ml
        return rest | {told.field: told.value}

    @model_validator(mode="before")
    @classmethod
    def _read_clock(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict) or not isinstance(data.get("minutes"), str):
            return data
        rest, clock = clock_in(data["minutes"], alone=True)
        if clock is None:
            return data
        if rest:
            raise QuantityError("minutes", say("wishes.no_such_clock", text=data["minutes"].strip()))
        return data | {"clock": clock, "minutes": None}

    @model_validator(mode="before")
    @classmethod
    def _read_sodium(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict) or isinstance(data.get("amount"), str):
            return data
        each = data.get("portion_ml")
        if data.get("people") is not None:
            each = _poured_ml(data)
        return data | _sodium_read(data, each if isinstance(each, int | float) else None)

    @model_validator(mode="after")
    def _an_amount(self, info: ValidationInfo) -> Self:
        told = self.told
        if not told:
            raise QuantityError("volume_ml", say("wishes.volume_or_people"))
        if told[0] == "portions" and self.portion_ml is None:
            raise QuantityError("portion_ml", say("wishes.how_big_a_portion"))
        if on_the_shelf(info):
            return self
        if len(set(told) - {"minutes"}) > 1:
            raise QuantityError(told[0], say("wishes.not_both"))
        if told[0] in ("volume_ml", "portions") and self.amount_ml < LEAST_SAUCE_ML:
            field = "volume_ml" if self.volume_ml is not None else "portion_ml"
            raise QuantityError(field, say("wishes.more_than_nothing"))
        if self.ceiling_percent < LEAST_CEILING_PERCENT:
            raise QuantityError("ceiling_percent", say("wishes.too_bland"))
        if self.ceiling_percent < self.salt_percent:
            raise QuantityError("ceiling_percent", say("wishes.ceiling_below"))
        return self

    @property
    def told(self) -> tuple[str, ...]:
        """The fields that say how much, by name."""
        return tuple(name for name in AMOUNTS if getattr(self, name) is not None)

    @property
    def amount_ml(self) -> float:
        """The finished sauce, mL; told by the pot, it is known once :meth:`of` has asked it.

        Raises
        ------
        TargetError : how much that is nobody has asked the pot yet.
        """
        if self._comes_to_ml is not None:
            return self._comes_to_ml
        if self.volume_ml is not None:
            return self.volume_ml
        if self.people is not None:
            return helpings_ml(self.people, self.dish)
        if self.portions is not None and self.portion_ml is not None:
            return self.portions * self.portion_ml
        raise TargetError("volume_ml", say("wishes.depends_on_pot"))

    @property
    def dish(self) -> str:
        """What it is poured over, as told or as it is taken for granted."""
        return self.over or USUAL_DISH

    def of(self, pot: Pot) -> Self:
        """The same wish with the volume that it comes to in this pot; one that was asked before stays.

        Raises
        ------
        TargetError : it cannot be told by this pot: the pan was never weighed, or there is no salt in it.
        """
        by_the_pot = _BY_THE_POT.get(self.told_by)
        if by_the_pot is None or self._comes_to_ml is not None:
            return self
        asked = self.model_copy()
        asked._comes_to_ml = min(max(by_the_pot(self, pot), LEAST_SAUCE_ML), MOST_OF_A_POT * pot.contents.liquid_ml)
        return asked

    def again(self, pot: Pot, boils_off_kj: float = 0.0) -> Self:
        """The same wish with the volume that it comes to by now, where stove or salt are known better than at first.

        In minutes it comes to what is left once ``boils_off_kj`` have gone into vapour; at a salt content, to that of
        the salt as it is known now, but to no more than there is: a pot that turns out saltier is not let down for it.
        Any other stays.
        """
        if self.told_by == "minutes":
            comes_to = boiled_by(pot.contents, boils_off_kj).liquid_ml
        elif self.told_by == "at_salt_percent" and pot.contents.salt > 0.0:
            comes_to = min(_by_salt(self, pot), max(self.amount_ml, pot.contents.liquid_ml))
        else:
            return self
        asked = self.model_copy()
        asked._comes_to_ml = max(comes_to, LEAST_SAUCE_ML)
        return asked

    def for_people(self, people: int) -> Self:
        """The same wish for so many people, over what it was to be poured."""
        told = dict.fromkeys((*AMOUNTS, "portion_ml"), None) | {"people": people, "minutes": self.time_there_is}
        wish = self.model_copy(update=told)
        wish._comes_to_ml = None
        return wish

    def less(self, plates: int, served_ml: float) -> Self:
        """The same wish once so many plates, with so much of it, have gone out: what is still wanted in the pot."""
        told: dict[str, object] = dict.fromkeys(AMOUNTS) | {"minutes": self.time_there_is}
        if self.people is not None:
            told["people"] = max(self.people - plates, 1)
        elif self.portions is not None:
            told["portions"] = max(self.portions - plates, 1)
        else:
            told["volume_ml"] = max(self.amount_ml - served_ml, LEAST_SAUCE_ML)
        wish = self.model_copy(update=told)
        wish._comes_to_ml = None
        return wish

    def said_again(self, before: Wish | None) -> Self:
        """The same wish, told as ``before`` where it comes to the same: a page says again what the pot came to."""
        if before is None or not before.as_told or self.told_by != "volume_ml" or before._comes_to_ml is None:
            return self
        if not _same_to_see(self.amount_ml, before.amount_ml):
            return self
        # Beside another amount the minutes are the time there is, which may be another by now.
        told = {name: getattr(before, name) for name in before.told if name != "minutes" or before.told == ("minutes",)}
        again = self.model_copy(update=told | {"volume_ml": None})
        again._comes_to_ml = before._comes_to_ml
        return again

    def shows_as(self, other: Wish) -> bool:
        """Whether a page shows both alike, and so may say one for the other."""
        return _same_to_see(self.amount_ml, other.amount_ml) and self._beside_the_amount == other._beside_the_amount

    @property
    def _beside_the_amount(self) -> tuple[object, ...]:
        minutes = self.time_there_is
        by_weight = (self.salt_percent, self.ceiling_percent, self.fat_g_per_100_ml)
        shown = tuple(f"{figure:.2f}" for figure in by_weight)
        return (*shown, self.body, frozenset(self.avoid), None if minutes is None else round(minutes))

    @property
    def aim_mpas(self) -> float:
        """The middle of the wanted step of the ladder, mPa·s."""
        return LADDER[self.body].aim

    @property
    def helping_ml(self) -> float | None:
        """A helping, mL; None where nobody counts helpings."""
        return DISHES[self.dish].helping_ml if self.people is not None else self.portion_ml

    def portions_in(self, volume_ml: float) -> int | None:
        """Whole helpings in a volume; one that lacks a twentieth still counts. None without a size."""
        each = self.helping_ml
        return int(volume_ml / each + PORTION_SLACK) if each else None

    def check_amount(self, have_ml: float, agreed: Wish | None = None) -> None:
        """Refuse a wish for more than the pot can give.

        An amount that was agreed on earlier may stand, even when the pot has gone past it since: the
        routes then begin by letting it down with unsalted liquid.

        Raises
        ------
        TargetError : more is wanted than a small addition to the pot could give.
        """
        if agreed is not None and self.amount_ml <= agreed.amount_ml + LEAST_SAUCE_ML:
            return
        if self.amount_ml > (1.0 + MOST_ADDED_SHARE) * have_ml:
            raise TargetError(
                self.told_by,
                say("wishes.more_than_there_is", have=show_volume(have_ml), wanted=show_volume(self.amount_ml)),
            )

    @property
    def amount_said(self) -> Shown | Message:
        """How the amount was told."""
        said = _SPOKEN[self.told_by](self)
        if self.told_by == "share" and self._comes_to_ml is not None:
            return say("wishes.share_comes_to", said=said, volume=show_volume(self._comes_to_ml))
        return said

    @property
    def told_by(self) -> str:
        """The field the amount was told by; beside another one the minutes are only the time there is."""
        return self.told[0]

    @property
    def as_told(self) -> bool:
        """Whether the cook said how far it boils down, and not only what it is to come to: that is done."""
        return self.told_by in _BY_THE_POT

    @property
    def time_there_is(self) -> float | None:
        """Minutes until it is wanted; None where nobody said, and where they are those that it is to boil."""
        return None if self.told == ("minutes",) else self.minutes


#: What a millilitre of sauce weighs, g, where milligrams of sodium in a helping are told as a share. Modelling choice.
SAUCE_G_ML = 1.03


def _poured_ml(data: Mapping[str, object]) -> float | None:
    dish = DISHES.get(str(data.get("over") or USUAL_DISH))
    return None if dish is None else dish.helping_ml


_SODIUM = re.compile(r"\s*([\d.,]+\s*mg)\b.*", re.IGNORECASE)


def _sodium_read(data: Mapping[str, object], helping_ml: float | None) -> dict[str, float]:
    """Salt that was told as milligrams of sodium in a helping, as a share, %.

    Raises
    ------
    QuantityError : nobody said how large a helping is.
    """
    found = {}
    for name in ("salt_percent", "ceiling_percent"):
        told = data.get(name)
        match = _SODIUM.fullmatch(told) if isinstance(told, str) else None
        if match is None:
            continue
        if not helping_ml:
            raise QuantityError(name, say("wishes.sodium_of_what"))
        salt_g = SALT_PER_SODIUM * parse(match[1], "mass", field=name)
        found[name] = round(100.0 * salt_g / (helping_ml * SAUCE_G_ML), 3)
    return found


def _same_to_see(one_ml: float, other_ml: float) -> bool:
    """Whether two volumes are shown alike in either system of units: what a page shows it also says."""
    one, other = show_volume(one_ml), show_volume(other_ml)
    return one.metric == other.metric or one.us == other.us


def _by_weight(wish: Wish, pot: Pot) -> float:
    empty = pot.pan.empty_g
    assert wish.gross_g is not None
    if pot.beside is not None:
        raise TargetError("gross_g", say("wishes.two_pans"))
    if empty is None:
        raise TargetError("gross_g", say("wishes.never_weighed", pan=pot.pan.name))
    inside = wish.gross_g - empty - (pot.solids.mass_g if pot.solids else 0.0)
    if inside <= pot.contents.fat_free:
        raise TargetError("gross_g", say("wishes.pan_alone", pan=pot.pan.name, empty=show_mass(empty)))
    # Boiling takes water alone: what is left of the liquid is denser than it was.
    gone_ml = (pot.contents.mass_g - inside) * SPECIFIC_VOLUME_ML_G["water"]
    return pot.contents.liquid_ml - gone_ml


def _by_salt(wish: Wish, pot: Pot) -> float:
    assert wish.at_salt_percent is not None
    if pot.contents.salt <= 0.0 or wish.at_salt_percent <= 0.0:
        raise TargetError("at_salt_percent", say("wishes.no_salt"))
    return _at_salt_ml(pot, wish.at_salt_percent)


def _at_salt_ml(pot: Pot, percent: float) -> float:
    """Liquid in which the salt of the pot comes to ``percent``, mL."""
    gone_g = pot.contents.liquid_g - 100.0 * pot.contents.salt / percent
    return pot.contents.liquid_ml - gone_g * SPECIFIC_VOLUME_ML_G["water"]


def _by_time(wish: Wish, pot: Pot) -> float:
    assert wish.minutes is not None
    return boiled_by(pot.contents, steam_kj(pot, wish.minutes)).liquid_ml


def _by_loss(wish: Wish, pot: Pot) -> float:
    assert wish.gone_ml is not None
    have = pot.contents.liquid_ml
    if wish.gone_ml >= have:
        raise TargetError("gone_ml", say("wishes.no_more_than_all", have=show_volume(have)))
    return have - wish.gone_ml


#: Every way to say how much, the time last: it is an amount only where nothing else is said.
AMOUNTS = ("volume_ml", "portions", "people", "share", "gone_ml", "gross_g", "at_salt_percent", "minutes")

#: What each of those comes to that goes by the pot, mL.
_BY_THE_POT: Mapping[str, Callable[[Wish, Pot], float]] = {
    "share": lambda wish, pot: (wish.share or 0.0) * pot.contents.liquid_ml,
    "gone_ml": _by_loss,
    "gross_g": _by_weight,
    "at_salt_percent": _by_salt,
    "minutes": _by_time,
}

#: A wish that is told by the pot is for no more than so many times what is in it. Modelling choice.
MOST_OF_A_POT = 10.0


def _in_percent(share: float) -> Shown:
    return show_percent(100.0 * share, 0)


#: How each is spoken: in words that :func:`.read_amount_wanted` reads back, but for what stands in two fields.
_SPOKEN: Mapping[str, Callable[[Wish], Shown | Message]] = {
    "volume_ml": lambda wish: show_volume(wish.amount_ml),
    "portions": lambda wish: say("wishes.portions", count=wish.portions or 0, each=show_volume(wish.portion_ml or 0.0)),
    "people": lambda wish: say("wishes.people", count=wish.people or 0, dish=Term(DISHES[wish.dish].under)),
    "share": lambda wish: say(
        "wishes.share",
        left=show_percent(100 * (wish.share or 0.0), 0),
        gone=show_percent(100 * (1 - (wish.share or 0)), 0),
    ),
    "gone_ml": lambda wish: say("wishes.gone", volume=show_volume(wish.gone_ml or 0.0)),
    "gross_g": lambda wish: say("wishes.on_the_scale", gross=show_mass(wish.gross_g or 0.0)),
    "at_salt_percent": lambda wish: say("wishes.to_salt", salt=show_plain(wish.at_salt_percent or 0.0, "%")),
    "minutes": lambda wish: say("wishes.for_minutes", time=show_minutes(wish.minutes or 0.0)),
}

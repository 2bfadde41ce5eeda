"""A way, solved: from what is in the pot to the sauce it makes.

Volume, body and salt cannot be chosen one by one. A way says *how much of the pot* becomes the sauce, *where to
stop* boiling or letting down (at a body, a volume, a salt content, or here) and *how to bind*; what is left open
follows. The dose of a thickener is one root of ``body_of(pot + dose) = aim``, whatever the school. A way can be
taken where it ends at a salt that can be eaten, at the body, and, where it is to, at the amount.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cache, cached_property, partial
from typing import NamedTuple

from scipy.optimize import brentq

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_minutes, show_percent, show_volume
from ..errors import TargetError
from ..estimation.spoon import height
from ..estimation.window import boiled_by, kj_of, ml_of, power_of, steam_kj, vapour_kj, warming_kj
from ..events import fat_left_ml
from ..events.judging import CALM_PERCENT_VOL, smells_of_wine
from ..ledger.contents import SPECIFIC_VOLUME_ML_G as ML_G
from ..ledger.contents import Contents
from ..ledger.water import HOT_EXPANSION
from ..measuring.vessels import SHALLOW_MM
from ..messages import Argument, Message, Term, say, several
from ..pantry.guests import AVOIDED_WORDS
from ..pantry.schools import School
from ..pantry.ways import AS_IT_IS, WAYS, Stop, Way, ways_with
from ..phenomena import body as bd
from ..phenomena.alcohol import strength_percent
from ..phenomena.evaporation import boiled_to_volume, boiled_to_water
from ..phenomena.heating import FULL_BOIL, HeatSetting
from ..phenomena.palate import covers
from ..phenomena.seasoning import salt_to_add_g
from ..pot import Pot
from ..wish import LEAST_SAUCE_ML, Wish
from .ceiling import LEAST_WATER_SHARE, volume_at_salt_ml
from .judgement import JUDGEMENT, Judgement

#: What is past a ceiling by less than this share of it is at it.
ROUNDING = 1e-3

#: No pot is let down to less salt than this, %. Modelling choice.
LEAST_SALT_PERCENT = 0.02

#: What hardly tastes of anything is boiled down as if it held so much, g in 100 g. Numerical choice.
LEAST_RICH_PERCENT = 0.5

#: The thinnest that is called a sauce: this step of the ladder.
THINNEST_STEP = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Route:
    """One way to the sauce; ``kind`` is its key among :data:`.WAYS`.

    ``aside_ml`` is liquid to set aside first; ``boil_to_ml`` the liquid (20 °C, floating fat left out) at which to
    stop boiling, ``mark_mm`` and ``gross_g`` the same on a skewer and a scale, with the ``fat_ml`` that floats by
    then; ``let_down_ml`` unsalted liquid to stir in where the pot has gone past it, and ``steam_g`` what boils away.
    ``parted_ml`` of what is there then is kept for another meal before the rest is bound.
    ``dry_g`` is the thickener without its carrier. ``final`` is the sauce with ``salt_to_add_g`` in it;
    ``salt_before`` what it would hold unsalted.
    """

    kind: str
    feasible: bool
    reason: Message | None
    aside_ml: float
    boil_to_ml: float
    share_left: float
    let_down_ml: float
    parted_ml: float
    steam_g: float
    fat_ml: float
    mark_mm: float
    gross_g: float | None
    minutes: Estimate
    thickener: School | None
    dry_g: float
    final: Contents
    body: bd.Body
    salt_before: Estimate
    salt_to_add_g: float
    salt_after: Estimate

    @property
    def way(self) -> Way:
        """The way that this is."""
        return WAYS[self.kind]

    @property
    def as_it_is(self) -> bool:
        """Whether nothing is boiled away, set aside or stirred in but salt."""
        return self.thickener is None and self.steam_g <= 0.0 and self.let_down_ml <= 0.0 and self.aside_ml <= 0.0

    @property
    def label(self) -> Argument:
        """What it is called: with what binds it, where anything has to."""
        if self.as_it_is:
            return Term(AS_IT_IS)
        return self.way.called(self.thickener) if self.thickener is not None else Term(self.way.bare)

    @property
    def sauce_share(self) -> float:
        """Share of what is in the pot, when it is bound, that becomes the sauce."""
        return 1.0 - self.parted_ml / (self.boil_to_ml + self.let_down_ml)

    @property
    def whole_dry_g(self) -> float:
        """The dry thickener that all of the pot would take, g."""
        return self.dry_g / self.sauce_share

    @property
    def volume_ml(self) -> float:
        """The finished sauce, mL at 20 °C."""
        return self.final.liquid_ml

    @property
    def dry_range_g(self) -> Estimate:
        """The thickener with the spread of its strength, g."""
        spread = self.thickener.spread if self.thickener else 0.0
        return Estimate(self.dry_g * (1 - spread), self.dry_g, self.dry_g * (1 + spread))

    def stopped_at(self, boil_to_ml: float, mark_mm: float, gross_g: float | None) -> Route:
        """The same way where boiling stops at another mark: the water that stays stays in the sauce, and salt that is
        added goes by it."""
        stays_g = (boil_to_ml - self.boil_to_ml) / ML_G["water"]
        in_sauce_g, salt_g = self.sauce_share * stays_g, self.salt_to_add_g
        salts = salt_g > 0.0
        more_salt_g = max(in_sauce_g * self.salt_after.best / 100.0, -salt_g) if salts else 0.0
        water, salt = max(self.final.water + in_sauce_g, 1.0), self.final.salt + more_salt_g
        final = self.final.with_masses(water=water, salt=salt)
        steam_g = max(self.steam_g - stays_g, 0.0)
        return replace(
            self,
            boil_to_ml=boil_to_ml,
            mark_mm=mark_mm,
            gross_g=gross_g,
            share_left=self.share_left * boil_to_ml / self.boil_to_ml,
            steam_g=steam_g,
            minutes=self.minutes.scaled(steam_g / self.steam_g) if self.steam_g > 0.0 else self.minutes,
            final=final,
            salt_to_add_g=salt_g + more_salt_g,
            salt_after=self.salt_after.scaled(1.0 if salts else self.final.liquid_g / final.liquid_g),
        )


def solve_route(pot: Pot, wanted: Wish, kind: str, *, here: bool = False, judgement: Judgement = JUDGEMENT) -> Route:
    """One of the ways that are offered, from the pot as it is now.

    With ``here`` no more is boiled away: the thickener is worked out for the water that is in the
    pot. That is how a sauce is finished once part of its thickener is in.

    Raises
    ------
    TargetError : no way is called so, or no such sauce can be had of this pot.
    """
    way = WAYS.get(kind)
    if way is None:
        raise TargetError("route", say("routes.not_offered", kind=kind))
    return Task(pot, wanted.of(pot), judgement).route(way, here=here)


def solve(pot: Pot, wanted: Wish, stop: Stop, school: School | None) -> Route:
    """Where boiling stops at one of :data:`.Stop`, and what binds it then, of all that is in the pot.

    Raises
    ------
    TargetError : no such sauce can be had of this pot.
    """
    return Task(pot, wanted, JUDGEMENT).solved(None, stop, school)


class Found(NamedTuple):
    """What a stop comes to: the water that is left when it is bound, g, and the dry thickener it takes, g."""

    water: float
    dry: float


@dataclass(frozen=True)
class Task:
    """A pot and what it is to be: everything that its ways share is worked out once.

    What is in it that ``splits`` parts or curdles on the boil.
    """

    pot: Pot
    wanted: Wish
    judgement: Judgement = JUDGEMENT
    splits: frozenset[str] = frozenset()

    def with_pot(self, pot: Pot) -> Task:
        """The same of another pot."""
        return replace(self, pot=pot)

    # -- a way ----------------------------------------------------------------------------------------

    def route(self, way: Way, *, here: bool = False) -> Route:
        """A way from the pot, or from the part of it that makes the sauce, and whether it may be taken."""
        route = self._of_a_part(way) if way.part and not here and self.pot.kept is None else None
        route = route or self.solved(way, "here" if here else way.stop, way.school)
        barred = self._why_not_tonight(route) if route.feasible else None
        return route if barred is None else replace(route, feasible=False, reason=barred)

    def _of_a_part(self, way: Way) -> Route | None:
        """The way from the part that makes the sauce; None where too little would be left to set aside."""
        weighs, there_ml, amount = self.judgement, self.pot.contents.liquid_ml, self.wanted.amount_ml
        taken = min(self._for_taste_ml(way.school) if way.stop == "taste" else self.to_take_ml, there_ml)
        if there_ml - taken < max(weighs.least_aside_ml, weighs.least_aside_share * there_ml):
            return None
        # Of what is too salty so much less was taken: it is let down to its salt, and comes to what it comes to.
        salty = way.stop == "volume" and taken < (1.0 - ROUNDING) * amount
        route = self._taking(taken).solved(way, "stretch" if salty else way.stop, way.school)
        if way.stop != "taste" and route.steam_g > 0.0 and taken <= (1.0 + ROUNDING) * amount:
            # Nothing is meant to boil: so much less is taken as the thickener brings.
            taken *= amount / (amount + route.steam_g * ML_G["water"])
            route = self._taking(taken).solved(way, "here", way.school)
        return replace(route, aside_ml=there_ml - taken)

    def _taking(self, taken_ml: float) -> Task:
        return self.with_pot(self.pot.part(taken_ml / self.pot.contents.liquid_ml))

    def solved(self, way: Way | None, stop: Stop, school: School | None) -> Route:
        """All of the pot to a stop; None for a way that is none of those offered.

        Raises
        ------
        TargetError : no such sauce can be had of this pot.
        """
        school = None if school is None else self.pot.binding(school)
        water, dry = _STOPS[stop](self, school)
        if water <= 0.0:
            raise _too_small()
        kind = way.key if way else ""
        route = self._made(kind, water, dry, school if dry > 0.0 else None)
        if way is not None and route.thickener is not None:
            # What nobody would see is not bound.
            bare = self._bare(stop)
            route = replace(bare, kind=kind) if self._thick_enough(bare) else self._parted(way, route)
        reason = self._why_not(way, stop, route)
        return replace(route, feasible=reason is None, reason=reason)

    def _bare(self, stop: Stop) -> Route:
        """The way to a stop with nothing that binds it: the same beside every school."""
        if stop not in self._bare_ways:
            self._bare_ways[stop] = self._made("", _STOPS[stop](self, None).water, 0.0, None)
        return self._bare_ways[stop]

    @cached_property
    def _bare_ways(self) -> dict[Stop, Route]:
        return {}

    def _parted(self, way: Way | None, route: Route) -> Route:
        """A way of all of the pot that would bind far more than is wanted: what is too much is kept before."""
        share = self.wanted.amount_ml / max(route.volume_ml, 1.0)
        whole = way is not None and not way.part and self.pot.kept is None and self.pot.contents.starch_g <= 0.0
        if not whole or route.thickener is None or share * self.judgement.more_meals > 1.0:
            return route
        return replace(
            route,
            parted_ml=(1.0 - share) * (route.boil_to_ml + route.let_down_ml),
            dry_g=share * route.dry_g,
            final=route.final.scaled(share),
            salt_to_add_g=share * route.salt_to_add_g,
        )

    def _made(self, kind: str, water: float, dry: float, thickener: School | None) -> Route:
        pot, wanted, now, weighs = self.pot, self.wanted, self.pot.contents, self.judgement
        more_water = max(water - now.water, 0.0)
        if more_water * ML_G["water"] < max(weighs.least_liquid_ml, weighs.least_liquid_share * now.liquid_ml):
            water, more_water = min(water, now.water), 0.0
        boiled = pot.traded(boiled_to_water(now, water)) if not more_water else now
        at_stop = boiled + Contents(water=more_water)
        bound = at_stop + thickener.added(dry) if thickener else at_stop
        salt = salt_to_add_g(bound.salt, bound.liquid_g, wanted.salt_percent)
        final = bound + Contents(salt=salt)
        # Fat that is to come off first stands in no mark.
        fat_ml = fat_left_ml(pot, wanted)
        skimmed = boiled.with_masses(fat_free=fat_ml / ML_G["fat_free"])
        return Route(
            kind=kind,
            feasible=True,
            reason=None,
            aside_ml=0.0,
            boil_to_ml=boiled.liquid_ml,
            share_left=boiled.liquid_ml / now.liquid_ml,
            let_down_ml=more_water * ML_G["water"],
            parted_ml=0.0,
            steam_g=now.mass_g - boiled.mass_g,
            fat_ml=fat_ml,
            mark_mm=pot.mark_mm(boiled.liquid_ml, fat_ml),
            gross_g=pot.gross_of(skimmed),
            minutes=boiling_minutes(pot, boiled),
            thickener=thickener,
            dry_g=dry,
            final=final,
            body=bd.body_of(final, pot.strength),
            salt_before=_salt_range(pot, bound),
            salt_to_add_g=salt,
            salt_after=_salt_range(pot, final),
        )

    # -- whether it can be taken ----------------------------------------------------------------------

    def _why_not(self, way: Way | None, stop: Stop, route: Route) -> Message | None:
        """Why a way cannot be taken; None where it can."""
        wanted, weighs = self.wanted, self.judgement
        if stop == "told":
            # What was told is done; what it passes is said.
            return None
        if route.salt_before.best > wanted.ceiling_percent * (1 + ROUNDING):
            return self._too_salty(stop, route.salt_before.best)
        if stop == "stretch" and route.let_down_ml <= 0.0:
            return say("routes.nothing_to_stretch", liking=show_percent(wanted.salt_percent))
        short = route.volume_ml < weighs.amount_slack * wanted.amount_ml
        if way is not None and short and stop == "taste" and not smells_of_wine(self.pot):
            return say("routes.only_so_much", volume=show_volume(route.volume_ml))
        alone = way is not None and way.school is None
        if alone and (stop == "salt" or wanted.body <= THINNEST_STEP):
            # Nothing is meant to bind it: it has the body that it has.
            if stop == "salt" and height(route.body.viscosity) < THINNEST_STEP - weighs.thinner_jus:
                return say("routes.like_water")
            return say("routes.only_left", volume=show_volume(route.volume_ml)) if short and stop == "salt" else None
        return self._too_thin(route)

    def _too_salty(self, stop: Stop, salt: float) -> Message:
        ceiling = self.wanted.ceiling_percent
        if stop == "here":
            return say("routes.above_ceiling", salt=show_percent(salt), ceiling=show_percent(ceiling))
        least = show_volume(volume_at_salt_ml(self.pot.contents, ceiling))
        return say("routes.would_be_above", salt=show_percent(salt), ceiling=show_percent(ceiling), volume=least)

    def _thick_enough(self, route: Route) -> bool:
        return height(route.body.viscosity) >= height(self.wanted.aim_mpas) - self.judgement.enough_body

    def _too_thin(self, route: Route) -> Message | None:
        if self._thick_enough(route):
            return None
        body = Term(bd.LADDER[self.wanted.body].on_the_spoon)
        if route.thickener is None:
            return say("routes.boiling_does_not", body=body)
        return say("routes.no_amount_does", dry=route.thickener.weighed, body=body)

    def _why_not_tonight(self, route: Route) -> Message | None:
        """Why a way that makes the sauce is not one for this table, or for tonight; None where it is."""
        brings = route.thickener.allergens if route.thickener is not None else ()
        barred = [Term(AVOIDED_WORDS[key]) for key in brings if key in self.wanted.avoid]
        if barred:
            return say("routes.brings", what=several("both", *barred))
        if self.splits and route.steam_g > 0.0:
            return say("routes.parts_on_the_boil", what=several("both", *map(Term, sorted(self.splits))))
        there_is, takes = self.wanted.time_there_is, work_min(route, self.judgement)
        if there_is is not None and takes > there_is + self.judgement.time_slack_min:
            return say("routes.takes_too_long", time=show_minutes(takes), left=show_minutes(max(there_is, 0.0)))
        return None

    # -- how much of the pot --------------------------------------------------------------------------

    @cached_property
    def to_take_ml(self) -> float:
        """The part of the pot that makes the sauce, mL: what boils down or is let down to it at the wanted salt."""
        pot, wanted, weighs = self.pot, self.wanted, self.judgement
        salt = max(0.5 * (pot.salt_percent.best + pot.salt_percent.low), 1e-3)
        by_salt = max(wanted.salt_percent / salt, weighs.least_taken)
        minutes = weighs.most_flavour_min
        if wanted.time_there_is is not None:
            # A part comes to the boil sooner than the pot does: this is on the safe side.
            slowest = max((way.school.work_min for way in ways_with() if way.school is not None), default=0.0)
            minutes = min(minutes, wanted.time_there_is - slowest - weighs.aside_min)
        most_ml = (min(1.0 / weighs.taken_boils_to, by_salt) - 1.0) * wanted.amount_ml
        to_boil_ml = min(most_ml, ml_of(steam_kj(pot, minutes)))
        strength = power_of(pot, FULL_BOIL)
        boils = strength is not None and kj_of(to_boil_ml) >= weighs.least_boil_min * strength.kj_min
        # Half as far as it was to go is not worth the time.
        boils = boils and to_boil_ml >= 0.5 * most_ml
        return wanted.amount_ml * min(by_salt, 1.0 + to_boil_ml / wanted.amount_ml if boils else 1.0)

    def _for_taste_ml(self, school: School | None) -> float:
        """The part of the pot that boils down to the wanted amount where it tastes of enough, mL."""
        school = None if school is None else self.pot.binding(school)
        water, dry = _tasting_of_enough(self, school, LEAST_SAUCE_ML)
        brings_ml = school.added(dry).liquid_ml if school is not None and dry > 0.0 else 0.0
        made = boiled_to_water(self.pot.contents, water).liquid_ml + brings_ml
        return self.wanted.amount_ml * self.pot.contents.liquid_ml / max(made, 1.0)

    # -- where to stop --------------------------------------------------------------------------------

    @cached_property
    def water_for_body(self) -> float:
        """Water at which boiling alone reaches the wanted body, g."""
        contents, aim = self.pot.contents, self.wanted.aim_mpas

        def excess(share: float) -> float:
            boiled = boiled_to_water(contents, contents.water * share)
            return math.log(bd.viscosity_mpas(boiled, self.pot.strength) / aim)

        if excess(1.0) >= 0.0:
            return contents.water
        if excess(LEAST_WATER_SHARE) <= 0.0:
            return contents.water * LEAST_WATER_SHARE
        return contents.water * float(brentq(excess, LEAST_WATER_SHARE, 1.0, xtol=1e-5))

    def water_in_time(self, school: School | None) -> float:
        """Water that is left when the time there is is up, with what binding takes of it, g; none where nobody told
        one."""
        there_is = self.wanted.time_there_is
        if there_is is None:
            return 0.0
        return boiled_by(self.pot.contents, steam_kj(self.pot, there_is - binding_min(school))).water

    def taste_mark_ml(self, brings_g: float = 0.0) -> float:
        """Liquid at which a pot tastes of enough, mL: the first of the salt that is liked, its strength, the most
        sourness or bitterness, and its body.

        Salt and strength are those of the bound sauce, to which the thickener brings ``brings_g`` g. Boiling takes
        water alone, so that the mark is the same at every moment of the boil.
        """
        return min(max(self._tastes_ml - brings_g * ML_G["water"], self._thick_ml), self.no_raw_wine_ml)

    @cached_property
    def _tastes_ml(self) -> float:
        """Liquid at which it tastes of enough, with nothing in it that binds, whatever its body, mL."""
        now, weighs = self.pot.contents, self.judgement
        liked = max(self.wanted.salt_percent - weighs.salt_kept, LEAST_SALT_PERCENT)
        strained = self.pot.strained_percent or now.strength_percent
        rich = min(weighs.rich_percent, weighs.most_times * strained)
        sour = self.pot.sour_times * (now.acid + now.acetic) / sourest_percent(now, weighs)
        bitter = self.pot.bitter_times * now.bitter / bitterest_percent(now, weighs)
        sauce_g = 100.0 * max(now.salt / liked, now.own_g / max(rich, LEAST_RICH_PERCENT), sour, bitter)
        return now.liquid_ml - (now.liquid_g - sauce_g) * ML_G["water"]

    @cached_property
    def _thick_ml(self) -> float:
        """Liquid at which it has the wanted body by itself, mL."""
        return boiled_to_water(self.pot.contents, self.water_for_body).liquid_ml

    @cached_property
    def no_raw_wine_ml(self) -> float:
        """Liquid at which no raw wine is smelled any more, mL; what there is, where there is none."""
        return without_raw_wine(self.pot).liquid_ml

    def dose_g(self, sauce: Sauce) -> float:
        """Dry thickener that brings a sauce to the wanted body, g.

        Raises
        ------
        TargetError : its solids leave no room for water.
        """
        return dose_g(sauce, self.wanted.aim_mpas, self.pot.contents.mass_g, self.pot.strength)


# -- stops ----------------------------------------------------------------------------------------

#: The sauce before it is salted, by the grams of dry thickener in it.
Sauce = Callable[[float], Contents]

#: Water that a sauce has room for, g, by the grams of dry thickener in it.
Room = Callable[[float], float]


def _at_body(task: Task, school: School | None) -> Found:
    """As far down as the body needs; what binds by itself needs no thickener."""
    if school is not None:
        raise TargetError("route", say("routes.nothing_to_solve"))
    return Found(task.water_for_body, 0.0)


def _here(task: Task, school: School | None) -> Found:
    """As it is."""
    return Found(task.pot.contents.water, 0.0 if school is None else task.dose_g(as_it_is(task.pot.contents, school)))


def _as_told(task: Task, school: School | None) -> Found:
    """Boiled down as far as was said, and bound then: what the thickener brings comes on top."""
    now = task.pot.contents
    told = boiled_to_volume(now, min(max(task.wanted.amount_ml, least_told_ml(task.pot)), now.liquid_ml))
    return Found(told.water, 0.0 if school is None else task.dose_g(as_it_is(told, school)))


def _for_taste(task: Task, school: School | None) -> Found:
    """Down to where it tastes of enough, but to no less than was wanted, nor later than it is wanted."""
    return _tasting_of_enough(task, school, task.wanted.amount_ml)


def _tasting_of_enough(task: Task, school: School | None, least_sauce_ml: float) -> Found:
    """Where a sauce of at least so much tastes of enough, and the thickener that is missing then."""
    now = task.pot.contents
    soonest = min(task.water_in_time(school), now.water)
    driest_ml = boiled_to_water(now, LEAST_WATER_SHARE * now.water).liquid_ml

    def water_for(brings: Contents) -> float:
        # What the thickener brings makes room in the salt, and is part of the amount.
        least_ml = max(task.taste_mark_ml(brings.liquid_g), least_sauce_ml - brings.liquid_ml)
        # Raw wine has to go, however little is left then.
        least_ml = max(min(least_ml, task.no_raw_wine_ml, now.liquid_ml), driest_ml)
        return max(boiled_to_volume(now, least_ml).water, soonest)

    if school is None:
        return Found(water_for(Contents()), 0.0)
    # The more it brings, the further it boils down before: mark and dose have one root.
    dry = task.dose_g(lambda dry: boiled_to_water(now, water_for(school.added(dry))).mixed(school.per_gram, dry))
    return Found(water_for(school.added(dry)), dry)


def _to_volume(task: Task, school: School | None) -> Found:
    """To the wanted volume, thickener and all."""
    return _filled(task, school, partial(room_for_volume, amount_ml=task.wanted.amount_ml))


def _to_salt(task: Task, school: School | None) -> Found:
    """To the wanted salt, by boiling alone."""
    least = LEAST_WATER_SHARE * task.pot.contents.water
    return _filled(task, school, lambda fixed, bare: _room_for_salt(fixed, bare, task.wanted, least))


def _stretched(task: Task, school: School | None) -> Found:
    """Let down to the wanted salt, and to the volume, whichever is more."""
    least = task.pot.contents.water
    return _filled(
        task,
        school,
        lambda fixed, bare: _most(
            _room_for_salt(fixed, bare, task.wanted, least), room_for_volume(fixed, bare, task.wanted.amount_ml)
        ),
    )


def _in_time(task: Task, school: School | None) -> Found:
    """As far down as the time goes, but never past the salt that is liked, nor past the amount."""
    now_g = task.pot.contents.water
    in_time = min(task.water_in_time(school), now_g)
    slurry_g = school.water_g if school else 0.0
    return _filled(
        task,
        school,
        lambda fixed, bare: _most(
            lambda dry: in_time + dry * slurry_g,
            _room_for_salt(fixed, bare, task.wanted, LEAST_WATER_SHARE * now_g),
            room_for_volume(fixed, bare, task.wanted.amount_ml),
        ),
    )


#: How each stop is solved. Every school goes through all of them.
_STOPS: Mapping[Stop, Callable[[Task, School | None], Found]] = {
    "body": _at_body,
    "volume": _to_volume,
    "salt": _to_salt,
    "here": _here,
    "stretch": _stretched,
    "time": _in_time,
    "told": _as_told,
    "taste": _for_taste,
}


def _filled(task: Task, school: School | None, room: Callable[[Contents, Contents], Room]) -> Found:
    """A sauce that water fills to the room there is for it, bound."""
    sauce = filled(task.pot.contents, school, room)
    dry = 0.0 if school is None else task.dose_g(sauce)
    bound = sauce(dry).water
    if bound <= 0.0:
        raise _too_small()
    # What brings more water than there is room for goes into as little as a pot boils down to.
    brings = dry * school.water_g if school is not None else 0.0
    return Found(max(bound - brings, LEAST_WATER_SHARE * task.pot.contents.water), dry)


def as_it_is(now: Contents, school: School) -> Sauce:
    """What is in the pot, with so much thickener stirred in."""
    return lambda dry: now.mixed(school.per_gram, dry)


def filled(now: Contents, school: School | None, room: Callable[[Contents, Contents], Room]) -> Sauce:
    """What is in the pot, with so much thickener and as much water as there is ``room`` for beside them.

    Where alcohol boils off, how much of it is left is worked out from the water without the thickener: a few
    grams of flour move it by a thousandth of the volume's.
    """
    bare = (school.per_gram if school else Contents()).with_masses(water=0.0)
    fixed = now.with_masses(water=0.0)
    for _ in range(2 if now.ethanol or now.acetic else 0):
        left = boiled_to_water(now, min(max(room(fixed, bare)(0.0), LEAST_WATER_SHARE * now.water), now.water))
        fixed = left.with_masses(water=0.0)
    water = room(fixed, bare)
    return lambda dry: fixed.mixed(bare, dry).with_masses(water=max(water(dry), 0.0))


def room_for_volume(fixed: Contents, bare: Contents, amount_ml: float) -> Room:
    """Water, g, that fills a volume beside everything else and so many grams of thickener."""
    room_ml, per_dry_ml = amount_ml - fixed.liquid_ml, bare.liquid_ml
    return lambda dry: (room_ml - dry * per_dry_ml) / ML_G["water"]


def _room_for_salt(fixed: Contents, bare: Contents, wanted: Wish, least: float) -> Room:
    """Water, g, at which the sauce stands at the wanted salt; never less than ``least``."""
    share = max(wanted.salt_percent, LEAST_SALT_PERCENT) / 100.0
    at_none = fixed.salt / share - fixed.liquid_g
    per_dry = bare.salt / share - bare.liquid_g
    return lambda dry: max(at_none + dry * per_dry, least)


def _most(*rooms: Room) -> Room:
    return lambda dry: max(room(dry) for room in rooms)


#: A first guess at a dose, as a share of the pot, by how much further a guess goes than a straight line says, and how
#: exactly a dose is found, g.
_FIRST_GUESS, _FURTHER, _DOSE_G = 0.02, 1.1, 1e-6


def dose_g(sauce: Sauce, aim: float, pot_g: float, strength: bd.Strength) -> float:
    """Dry thickener that brings a sauce to ``aim`` mPa·s, g; none where it is there already.

    Raises
    ------
    TargetError : its solids leave no room for water.
    """

    wanted_percent = bd.as_flour_percent(aim)

    @cache
    def missing(dry: float) -> float:
        # In flour, of which a dose is nearly a straight line; the root is the same.
        return wanted_percent - bd.as_flour_percent(bd.viscosity_mpas(sauce(dry), strength))

    if sauce(0.0).water <= 0.0:
        raise _too_small()
    if missing(0.0) <= 0.0:
        return 0.0
    little, enough, most = 0.0, min(_FIRST_GUESS * pot_g, pot_g), pot_g
    while missing(enough) > 0.0:
        if enough >= most:
            return enough
        # As far again as what it did so far promises, and a little further.
        did = missing(little) - missing(enough)
        step = _FURTHER * missing(enough) * (enough - little) / did if did > 0.0 else enough
        little, enough = enough, min(enough + min(step, enough), most)
    return float(brentq(missing, little, enough, xtol=_DOSE_G, rtol=1e-9))


def _too_small() -> TargetError:
    return TargetError("volume_ml", say("routes.too_small"))


def least_told_ml(pot: Pot) -> float:
    """As far as a pot is boiled down because somebody said so, mL: no drier, and no shallower than an edge that
    scorches."""
    now = pot.contents
    dry = now.liquid_ml - (1.0 - LEAST_WATER_SHARE) * now.water * ML_G["water"]
    shallow = max(pot.pan.volume_ml(SHALLOW_MM) / HOT_EXPANSION / pot.share - now.fat_ml, 0.0)
    return min(max(dry, shallow), now.liquid_ml)


# -- what it takes, and what is known of it -------------------------------------------------------


def without_raw_wine(pot: Pot) -> Contents:
    """What is in the pot once no raw wine is smelled any more: what there is, where none is smelled now."""
    now = pot.contents
    if not smells_of_wine(pot):
        return now

    def over(share: float) -> float:
        boiled = boiled_to_water(now, share * now.water)
        return strength_percent(boiled.ethanol, boiled.liquid_ml) - CALM_PERCENT_VOL

    return boiled_to_water(now, float(brentq(over, LEAST_WATER_SHARE, 1.0, xtol=1e-3)) * now.water)


def boiling_minutes(pot: Pot, boiled: Contents, setting: HeatSetting = FULL_BOIL) -> Estimate:
    """Time to boil a pot down to ``boiled``, and to bring it to the boil first, min.

    By the same power, learned rate, cover and warm-up as the forecast of a boiling pot (:mod:`..estimation.window`).
    """
    heat_kj = vapour_kj(pot.contents, boiled)
    strength = power_of(pot, setting)
    if heat_kj <= 0.0 or strength is None:
        return Estimate.exact(0.0)
    return Estimate.log_normal(strength.kj_min, strength.spread).divided_into(heat_kj + warming_kj(pot))


def sourest_percent(contents: Contents, judgement: Judgement) -> float:
    """How sour a sauce of these contents may get, acid in 100 g as tartaric: more where it is covered."""
    return judgement.sour_covered_percent if covers("sour", contents) else judgement.sour_percent


def bitterest_percent(contents: Contents, judgement: Judgement) -> float:
    """How bitter a sauce of these contents may get, bitter acids of hops in 100 g: more where it is covered."""
    return judgement.bitter_covered_percent if covers("bitter", contents) else judgement.bitter_percent


def binding_min(school: School | None) -> float:
    """What making and cooking a thickener takes, min."""
    return school.work_min if school is not None else 0.0


def work_min(route: Route, judgement: Judgement = JUDGEMENT) -> float:
    """What a way takes from now until it is on the table, by the best estimate, min."""
    return (
        (route.minutes.best if route.steam_g > 0.0 else 0.0)
        + binding_min(route.thickener)
        + (judgement.aside_min if route.aside_ml > 0.0 else 0.0)
        + (judgement.stir_min if route.let_down_ml > 0.0 else 0.0)
    )


#: A sauce that waits for so long is held on a pass, min; one that waits for more than the second is cooled, or begun
#: later. Common practice: starch thins within an hour or two of it (handbook of the trade, sections 9 and 19).
HELD_MIN, NOT_HELD_MIN = 60.0, 360.0


def waits_min(wanted: Wish, route: Route, judgement: Judgement = JUDGEMENT) -> float | None:
    """For how long it would be kept warm before it is wanted, min; None where that is not worth a word."""
    there_is = wanted.time_there_is
    if there_is is None:
        return None
    waits = there_is - work_min(route, judgement)
    return waits if HELD_MIN <= waits <= NOT_HELD_MIN else None


def _salt_range(pot: Pot, contents: Contents) -> Estimate:
    """Salt of what the pot comes to, %: down to a mark its grams count, of a pot that is left as it is its share."""
    boiled = contents.liquid_g < pot.contents.liquid_g
    known = pot.salt_g if boiled else pot.salt_percent.scaled(pot.contents.liquid_g / 100.0)
    salt, scale = contents.salt, 100.0 / contents.liquid_g
    low = max(salt - (known.best - known.low), 0.0)
    return Estimate(low * scale, salt * scale, (salt + (known.high - known.best)) * scale)

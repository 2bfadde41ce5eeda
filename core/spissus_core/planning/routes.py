"""Ways from what is in the pot to what the cook wants.

Volume, body and salt cannot be chosen one by one. A way says *how much of the pot* becomes the sauce, *where to
stop* boiling or letting down (at a body, a volume, a salt content, or here) and *how to bind*; what is left open
follows. The dose of a thickener is one root of ``body_of(pot + dose) = aim``, whatever the school. A way can be
taken where it ends at a salt that can be eaten, at the body, and, where it is to, at the amount; :func:`proposed`
puts those first that a good cook would: what was told, then what is boiled for its taste, then the least work.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from typing import Literal, NamedTuple, cast

import numpy as np
from scipy.optimize import brentq

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_minutes, show_percent, show_volume
from ..amounts.tables import table
from ..errors import TargetError
from ..estimation.window import boiled_by, kj_of, ml_of, power_of, steam_kj, vapour_kj, warming_kj
from ..events import Wanted, fat_left_ml
from ..events.wishes import AMOUNTS, LEAST_SAUCE_ML
from ..ledger.contents import SPECIFIC_VOLUME_ML_G as ML_G
from ..ledger.contents import Contents
from ..ledger.water import HOT_EXPANSION
from ..measuring.vessels import SHALLOW_MM
from ..messages import Message, Term, say, several
from ..pantry.guests import AVOIDED_WORDS, DISHES, USUAL_DISH, USUAL_PEOPLE
from ..pantry.schools import SCHOOLS, School
from ..phenomena import body as bd
from ..phenomena.evaporation import boiled_to_volume, boiled_to_water
from ..phenomena.heating import FULL_BOIL, HeatSetting
from ..phenomena.seasoning import USUAL_SALT_PERCENT, salt_to_add_g
from ..pot import Pot
from .judgement import JUDGEMENT
from .tone import tone

#: Boiling further than this share of the water is frying, not reducing. Modelling choice.
LEAST_WATER_SHARE = 0.03

#: A sauce this far below the body wanted is not that body any more, as a share of the viscosity. Modelling choice.
MOST_BELOW_AIM = 0.1

#: What is past a ceiling by less than this share of it is at it.
ROUNDING = 1e-3

#: Where a way stops: at the wanted body, volume or salt, with what is in the pot, let down to the salt and to
#: the volume, whichever is more, as far down as the time goes, where the cook said, or where it tastes of enough.
Stop = Literal["body", "volume", "salt", "here", "stretch", "time", "told", "taste"]


class Way(NamedTuple):
    """A way that is offered: whether it takes all of the pot, where it stops, and the school it binds with.

    ``flag`` is its name where there is room for two or three words.
    """

    label: str
    flag: str
    part: bool
    stop: Stop
    school: School | None


#: The ways that are offered: rows of ``data/ways.csv``.
WAYS: Mapping[str, Way] = table(
    "ways",
    lambda row: Way(
        row["label"],
        row["flag"],
        row["amount"] == "part",
        cast(Stop, row["stop"]),
        SCHOOLS[row["school"]] if row["school"] else None,
    ),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Route:
    """One way to the sauce.

    ``aside_ml`` is liquid to set aside first; ``boil_to_ml`` the liquid (20 °C, floating fat left out) at which to
    stop boiling, ``mark_mm`` and ``gross_g`` the same on a skewer and a scale, with the ``fat_ml`` that floats by
    then; ``let_down_ml`` unsalted liquid to stir in where the pot has gone past it, and ``steam_g`` what boils away.
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
    def volume_ml(self) -> float:
        """The finished sauce, mL at 20 °C."""
        return self.final.liquid_ml

    @property
    def dry_range_g(self) -> Estimate:
        """The thickener with the spread of its strength, g."""
        spread = self.thickener.spread if self.thickener else 0.0
        return Estimate(self.dry_g * (1 - spread), self.dry_g, self.dry_g * (1 + spread))


@dataclass(frozen=True, slots=True)
class TradePoint:
    """What one finished volume costs for the body wanted: salt, %, and dry thickener by school, g.

    ``boil_to_ml`` is the liquid at which boiling stops for it, and ``tone`` how dark it is drawn then.
    """

    volume_ml: float
    boil_to_ml: float
    tone: float
    salt_percent: float
    dry_g: Mapping[str, float]


def solve_routes(pot: Pot, wanted: Wanted, *, agreed: Wanted | None = None) -> tuple[Route, ...]:
    """Every way that is offered, the one to propose first, and last those that cannot be taken.

    Parameters
    ----------
    pot : the pot now.
    wanted : amount, body, salt and ceiling.
    agreed : the wish the cook has been working towards, if there is one; see :meth:`.Wanted.check_amount`.

    Raises
    ------
    TargetError : more sauce is wanted than the pot could give, or so little that no way leads there.
    """
    wanted = wanted.of(pot)
    wanted.check_amount(pot.contents.liquid_ml, agreed)
    found: list[Route] = []
    refused: TargetError | None = None
    for kind, way in WAYS.items():
        if (way.stop == "time" and wanted.time_there_is is None) or (way.stop == "told" and not wanted.as_told):
            continue
        if way.stop == "taste" and way.part and not _wants_a_part(wanted, found):
            continue
        try:
            found.append(solve_route(pot, wanted, kind))
        except TargetError as error:
            refused = refused or error
    if refused is not None and not any(route.feasible for route in found):
        raise refused
    return proposed(pot, wanted, found)


def suggested(pot: Pot) -> Wanted:
    """A wish to begin with: for four people, or what there is at the usual salt; as a nappe."""
    there = pot.contents.liquid_ml * max(1.0, pot.contents.salt_percent / USUAL_SALT_PERCENT)
    four = Wanted(people=USUAL_PEOPLE, over=USUAL_DISH, body=DISHES[USUAL_DISH].body)
    return four if four.amount_ml <= there else Wanted(volume_ml=max(round(there / 10.0) * 10.0, 10.0))


def solve_route(pot: Pot, wanted: Wanted, kind: str, *, here: bool = False) -> Route:
    """One of the ways that are offered, from the pot as it is now.

    With ``here`` no more is boiled away: the thickener is worked out for the water that is in the
    pot. That is how a sauce is finished once part of its thickener is in.
    """
    way = WAYS.get(kind)
    if way is None:
        raise TargetError("route", say("routes.not_offered", kind=kind))
    wanted = wanted.of(pot)
    route = _way_from(pot, wanted, kind, way, here=here)
    barred = _why_not_here(wanted, route) if route.feasible else None
    return route if barred is None else replace(route, feasible=False, reason=barred)


def _way_from(pot: Pot, wanted: Wanted, kind: str, way: Way, *, here: bool) -> Route:
    """A way from the pot, or from the part of it that makes the sauce."""
    if here or not way.part or pot.kept is not None:
        return solve(pot, wanted, "here" if here else way.stop, way.school, kind=kind)
    taken = _for_taste_ml(pot, wanted, kind) if way.stop == "taste" else to_take_ml(pot, wanted)
    taken = min(taken, pot.contents.liquid_ml)
    aside = pot.contents.liquid_ml - taken
    if aside < max(LEAST_ASIDE_ML, LEAST_ASIDE_SHARE * pot.contents.liquid_ml):
        return solve(pot, wanted, way.stop, way.school, kind=kind)
    # Of what is too salty so much less was taken: it is let down to its salt, and comes to what it comes to.
    salty = way.stop == "volume" and taken < (1.0 - ROUNDING) * wanted.amount_ml
    stop: Stop = "stretch" if salty else way.stop
    route = solve(pot.part(taken / pot.contents.liquid_ml), wanted, stop, way.school, kind=kind)
    if way.stop != "taste" and route.steam_g > 0.0 and taken <= (1.0 + ROUNDING) * wanted.amount_ml:
        # Nothing is meant to boil: so much less is taken as the thickener brings.
        taken *= wanted.amount_ml / (wanted.amount_ml + route.steam_g * ML_G["water"])
        aside = pot.contents.liquid_ml - taken
        route = solve(pot.part(taken / pot.contents.liquid_ml), wanted, "here", way.school, kind=kind)
    return replace(route, aside_ml=aside)


#: Less than this is not worth setting aside: mL, and share of the pot. Modelling choices.
LEAST_ASIDE_ML, LEAST_ASIDE_SHARE = 60.0, 0.1

#: What is taken for a sauce may boil down to this share, for flavour, where the salt allows it: so far that the
#: salt, were it at the upper end of what is known, ends at the liking. Modelling choice.
TAKEN_BOILS_TO = 0.65

#: At least this share of a sauce is pot: what is let down further is water. Modelling choice.
LEAST_TAKEN = 0.25

#: What boils down in less than this is past its mark before anyone looks, and longer than this nobody boils for the
#: flavour alone, min. Modelling choices.
LEAST_BOIL_MIN, MOST_FLAVOUR_MIN = 6.0, 25.0


def to_take_ml(pot: Pot, wanted: Wanted) -> float:
    """The part of the pot that makes the sauce, mL: what boils down to it, or is let down to it, at the wanted salt."""
    salt = max(0.5 * (pot.salt_percent.best + pot.salt_percent.low), 1e-3)
    by_salt = max(wanted.salt_percent / salt, LEAST_TAKEN)
    minutes = MOST_FLAVOUR_MIN
    if wanted.time_there_is is not None:
        # A part comes to the boil sooner than the pot does: this is on the safe side.
        minutes = min(minutes, wanted.time_there_is - _ROUX_MIN - _ASIDE_MIN)
    most_ml = (min(1.0 / TAKEN_BOILS_TO, by_salt) - 1.0) * wanted.amount_ml
    to_boil_ml = min(most_ml, ml_of(steam_kj(pot, minutes)))
    strength = power_of(pot, FULL_BOIL)
    boils = strength is not None and kj_of(to_boil_ml) >= LEAST_BOIL_MIN * strength.kj_min
    # Half as far as it was to go is not worth the time.
    boils = boils and to_boil_ml >= 0.5 * most_ml
    return wanted.amount_ml * min(by_salt, 1.0 + to_boil_ml / wanted.amount_ml if boils else 1.0)


# -- boiled for its taste -------------------------------------------------------------------------

#: Own solids at which a sauce is rich, g in 100 g (common practice: where cooks like a braising sauce).
RICH_PERCENT = 11.0
#: So much of the salt that is liked is kept for what comes later, points (common practice).
SALT_KEPT = 0.05


def taste_mark_ml(pot: Pot, wanted: Wanted, brings_g: float = 0.0) -> float:
    """Liquid at which a pot tastes of enough, mL: the first of the salt that is liked, its strength, and its body.

    Salt and strength are those of the bound sauce, to which the thickener brings ``brings_g`` g. Boiling takes water
    alone, so that the mark is the same at every moment of the boil.
    """
    now = pot.contents
    liked = max(wanted.salt_percent - SALT_KEPT, LEAST_SALT_PERCENT)
    sauce_g = 100.0 * max(now.salt / liked, now.own_g / RICH_PERCENT)
    first = now.liquid_ml - (now.liquid_g - sauce_g + brings_g) * ML_G["water"]
    body = boiled_to_water(now, _water_for_body(now, wanted, pot.strength)).liquid_ml
    return min(max(first, body), now.liquid_ml)


def _for_taste_ml(pot: Pot, wanted: Wanted, kind: str) -> float:
    """The part of the pot that boils down to the wanted amount where it tastes of enough, mL."""
    school = WAYS[kind].school
    water, dry = _for_taste(pot, _as_little(wanted), school)
    brings_ml = school.added(dry).liquid_ml if school is not None and dry > 0.0 else 0.0
    made = boiled_to_water(pot.contents, water).liquid_ml + brings_ml
    return wanted.amount_ml * pot.contents.liquid_ml / max(made, 1.0)


def _as_little(wanted: Wanted) -> Wanted:
    """The wish with no amount that boiling would stop at."""
    told = dict.fromkeys(AMOUNTS, None) | {"volume_ml": LEAST_SAUCE_ML, "minutes": wanted.time_there_is}
    wish = wanted.model_copy(update=told)
    wish._comes_to_ml = None
    return wish


def solve(pot: Pot, wanted: Wanted, stop: Stop, school: School | None, *, kind: str = "") -> Route:
    """Where boiling stops, and what binds it, from the pot as it is now.

    Parameters
    ----------
    pot, wanted : the pot now, and what it is to be.
    stop : where boiling stops, of :data:`Stop`.
    school : what binds it; None for boiling alone.
    kind : what the way is called.

    Raises
    ------
    TargetError : no such sauce can be had of this pot.
    """
    now = pot.contents
    if stop == "body" and school is None:
        water, dry = _water_for_body(now, wanted, pot.strength), 0.0
    elif stop == "told":
        # Boiled down as far as was said, and bound then: what the thickener brings comes on top.
        told = boiled_to_volume(now, min(max(wanted.amount_ml, least_told_ml(pot)), now.liquid_ml))
        sauce = _sauce(told, "here", wanted, school)
        dry = _dose(sauce, wanted.aim_mpas, now.mass_g, pot.strength) if school is not None else 0.0
        water = told.water
    elif stop == "taste":
        water, dry = _for_taste(pot, wanted, school)
    else:
        in_time = _water_in_time(pot, wanted, school) if stop == "time" else now.water
        sauce = _sauce(now, stop, wanted, school, in_time)
        dry = _dose(sauce, wanted.aim_mpas, now.mass_g, pot.strength) if school is not None else 0.0
        bound = sauce(dry)
        water = bound.water - (dry * school.water_g if school else 0.0)
        if water <= 0.0:
            raise _too_small()
    return _route(pot, wanted, kind, stop, water=water, thickener=school if dry > 0.0 else None, dry=dry)


def _water_in_time(pot: Pot, wanted: Wanted, school: School | None) -> float:
    """Water that is left when the time there is is up, with what binding takes of it, g; none where nobody told one."""
    there_is = wanted.time_there_is
    if there_is is None:
        return 0.0
    return boiled_by(pot.contents, steam_kj(pot, there_is - binding_min(school))).water


def _for_taste(pot: Pot, wanted: Wanted, school: School | None) -> tuple[float, float]:
    """Water to boil down to for the taste, g, and the dry thickener that is missing then, g.

    What is bound is never less than was wanted, nor later than it is wanted.
    """
    now, dry = pot.contents, 0.0
    soonest = min(_water_in_time(pot, wanted, school), now.water)
    for _ in range(1 if school is None else _ROUNDS):
        # What the thickener brings makes room in the salt, and is part of the amount.
        brings = school.added(dry) if school is not None and dry > 0.0 else Contents()
        least_ml = max(taste_mark_ml(pot, wanted, brings.liquid_g), wanted.amount_ml - brings.liquid_ml)
        water = max(boiled_to_volume(now, min(least_ml, now.liquid_ml)).water, soonest)
        sauce = _sauce(boiled_to_water(now, water), "here", wanted, school)
        before, dry = dry, _dose(sauce, wanted.aim_mpas, now.mass_g, pot.strength) if school is not None else 0.0
        if abs(dry - before) <= _SETTLED * dry:
            break
    return water, dry


#: Mark and dose have found each other where a dose moves by less than this share, after so many rounds at most.
#: Numerical choice.
_SETTLED, _ROUNDS = 2e-3, 4


def least_told_ml(pot: Pot) -> float:
    """As far as a pot is boiled down because somebody said so, mL: no drier, and no shallower than an edge that
    scorches."""
    now = pot.contents
    dry = now.liquid_ml - (1.0 - LEAST_WATER_SHARE) * now.water * ML_G["water"]
    shallow = max(pot.pan.volume_ml(SHALLOW_MM) / HOT_EXPANSION / pot.share - now.fat_ml, 0.0)
    return min(max(dry, shallow), now.liquid_ml)


def _route(
    pot: Pot, wanted: Wanted, kind: str, stop: Stop, *, water: float, thickener: School | None, dry: float
) -> Route:
    now = pot.contents
    more_water = max(water - now.water, 0.0)
    if more_water * ML_G["water"] < max(JUDGEMENT.least_liquid_ml, JUDGEMENT.least_liquid_share * now.liquid_ml):
        water, more_water = min(water, now.water), 0.0
    boiled = pot.traded(boiled_to_water(now, water)) if not more_water else now
    at_stop = boiled + Contents(water=more_water)
    bound = at_stop + thickener.added(dry) if thickener else at_stop
    salt = salt_to_add_g(bound.salt, bound.liquid_g, wanted.salt_percent)
    final = bound + Contents(salt=salt)
    gone_g = now.mass_g - boiled.mass_g
    # Fat that is to come off first stands in no mark.
    fat_ml = fat_left_ml(pot, wanted)
    skimmed = boiled.with_masses(fat_free=fat_ml / ML_G["fat_free"])
    minutes = boiling_minutes(pot, boiled)
    route = Route(
        kind=kind,
        feasible=True,
        reason=None,
        aside_ml=0.0,
        boil_to_ml=boiled.liquid_ml,
        share_left=boiled.liquid_ml / now.liquid_ml,
        let_down_ml=more_water * ML_G["water"],
        steam_g=gone_g,
        fat_ml=fat_ml,
        mark_mm=pot.mark_mm(boiled.liquid_ml, fat_ml),
        gross_g=pot.gross_of(skimmed),
        minutes=minutes,
        thickener=thickener,
        dry_g=dry,
        final=final,
        body=bd.body_of(final, pot.strength),
        salt_before=_salt_range(pot, bound),
        salt_to_add_g=salt,
        salt_after=_salt_range(pot, final),
    )
    reason = _why_not(pot, wanted, stop, route)
    return replace(route, feasible=reason is None, reason=reason)


def boiling_minutes(pot: Pot, boiled: Contents, setting: HeatSetting = FULL_BOIL) -> Estimate:
    """Time to boil a pot down to ``boiled``, and to bring it to the boil first, min.

    By the same power, learned rate, cover and warm-up as the forecast of a boiling pot (:mod:`..estimation.window`).
    """
    heat_kj = vapour_kj(pot.contents, boiled)
    strength = power_of(pot, setting)
    if heat_kj <= 0.0 or strength is None:
        return Estimate.exact(0.0)
    return Estimate.log_normal(strength.kj_min, strength.spread).divided_into(heat_kj + warming_kj(pot))


def _salt_range(pot: Pot, contents: Contents) -> Estimate:
    """Salt of what the pot comes to, %: down to a mark its grams count, of a pot that is left as it is its share."""
    boiled = contents.liquid_g < pot.contents.liquid_g
    known = pot.salt_g if boiled else pot.salt_percent.scaled(pot.contents.liquid_g / 100.0)
    salt, scale = contents.salt, 100.0 / contents.liquid_g
    low = max(salt - (known.best - known.low), 0.0)
    return Estimate(low * scale, salt * scale, (salt + (known.high - known.best)) * scale)


#: Minutes of work that binding, setting aside and stirring in take. Modelling choices.
_ROUX_MIN, _STARCH_MIN, _ASIDE_MIN, _STIR_MIN = 12.0, 4.0, 2.0, 1.0


def binding_min(school: School | None) -> float:
    """What making and cooking a thickener takes, min."""
    return 0.0 if school is None else _ROUX_MIN if school.fat_g else _STARCH_MIN


def work_min(route: Route) -> float:
    """What a way takes from now until it is on the table, by the best estimate, min."""
    return (
        (route.minutes.best if route.steam_g > 0.0 else 0.0)
        + binding_min(route.thickener)
        + (_ASIDE_MIN if route.aside_ml > 0.0 else 0.0)
        + (_STIR_MIN if route.let_down_ml > 0.0 else 0.0)
    )


#: Over the time there is by less than this nobody minds, min. Modelling choice.
TIME_SLACK_MIN = 1.0

#: A sauce is what was wanted where its salt is this close, points, and its amount at least this share.
SALT_SLACK_PERCENT, AMOUNT_SLACK = 0.1, 0.95


def _why_not(pot: Pot, wanted: Wanted, stop: Stop, route: Route) -> Message | None:
    """Why a way cannot be taken; None where it can."""
    salt, ceiling, liking = route.salt_before.best, wanted.ceiling_percent, wanted.salt_percent
    if stop == "told":
        # What was told is done; what it passes is said.
        return None
    if salt > ceiling * (1 + ROUNDING):
        least = volume_at_salt_ml(pot.contents, ceiling)
        if stop == "here":
            return say("routes.above_ceiling", salt=show_percent(salt), ceiling=show_percent(ceiling))
        return say(
            "routes.would_be_above", salt=show_percent(salt), ceiling=show_percent(ceiling), volume=show_volume(least)
        )
    if stop == "stretch" and route.let_down_ml <= 0.0:
        return say("routes.nothing_to_stretch", liking=show_percent(liking))
    if stop in ("here", "taste") and route.kind in WAYS and route.volume_ml < AMOUNT_SLACK * wanted.amount_ml:
        return say("routes.only_so_much", volume=show_volume(route.volume_ml))
    if stop == "taste" and WAYS.get(route.kind, _NO_WAY).school is None and wanted.body <= THINNEST_STEP:
        return say("routes.like_water") if route.body.viscosity < bd.LADDER[THINNEST_STEP].low else None
    if stop == "salt" and route.thickener is None and WAYS.get(route.kind, _NO_WAY).school is None:
        return _no_jus(wanted, route)
    if route.body.viscosity < (1.0 - MOST_BELOW_AIM) * wanted.aim_mpas:
        body = Term(bd.LADDER[wanted.body].on_the_spoon)
        if route.thickener is None:
            return say("routes.boiling_does_not", body=body)
        return say("routes.no_amount_does", dry=Term(route.thickener.dry), body=body)
    return None


def _why_not_here(wanted: Wanted, route: Route) -> Message | None:
    """Why a way that makes the sauce is not one for this table, or for tonight; None where it is."""
    brings = route.thickener.allergens if route.thickener is not None else ()
    barred = [Term(AVOIDED_WORDS[key]) for key in brings if key in wanted.avoid]
    if barred:
        return say("routes.brings", what=several("both", *barred))
    there_is = wanted.time_there_is
    if there_is is not None and work_min(route) > there_is + TIME_SLACK_MIN:
        left = show_minutes(max(there_is, 0.0))
        return say("routes.takes_too_long", time=show_minutes(work_min(route)), left=left)
    return None


_NO_WAY = Way("", "", part=False, stop="here", school=None)

#: The thinnest that is called a sauce: this step of the ladder.
THINNEST_STEP = 1


def _no_jus(wanted: Wanted, route: Route) -> Message | None:
    """Why boiling down to the salt, with nothing added, makes no sauce; None where it does."""
    if route.body.viscosity < bd.LADDER[THINNEST_STEP].low:
        return say("routes.like_water")
    if route.volume_ml < AMOUNT_SLACK * wanted.amount_ml:
        return say("routes.only_left", volume=show_volume(route.volume_ml))
    return None


# -- what a good cook would propose ---------------------------------------------------------------

#: What a sauce that is not quite what was wanted costs beside its minutes of work: a step too thin, a tenth of the
#: amount too much or too little, a tenth of its taste let down, a tenth of a point of salt, a taste as pale as all
#: its salt is missing. Modelling choices: they only put ways in order.
_THIN, _TOO_MUCH, _TOO_LITTLE, _FLAT, _SALTY, _PALE = 25.0, 3.0, 40.0, 2.5, 20.0, 20.0


def cost(pot: Pot, wanted: Wanted, route: Route) -> float:
    """What a way costs, min: its work and its boiling, and what its sauce lacks. Modelling choice."""
    made = route.volume_ml / wanted.amount_ml
    total = work_min(route)
    total += _THIN * max(wanted.body + 0.5 - _step(route.body), 0.0)
    total += _TOO_MUCH * 10.0 * max(made - 1.1, 0.0) + _TOO_LITTLE * 10.0 * max(AMOUNT_SLACK - made, 0.0)
    total += _FLAT * 10.0 * route.let_down_ml / max(route.volume_ml, 1.0)
    total += _PALE * max(1.0 - route.salt_before.best / max(wanted.salt_percent, SALT_SLACK_PERCENT), 0.0)
    # The upper end counts as well: what is too salty can only be stretched, what is flat takes a pinch.
    likely = 0.5 * (route.salt_after.best + route.salt_after.high)
    over = max(route.salt_after.best - wanted.salt_percent - 0.5 * SALT_SLACK_PERCENT, 0.0)
    total += _SALTY * 10.0 * (over + max(likely - wanted.salt_percent - SALT_SLACK_PERCENT, 0.0))
    return total


def _step(body: bd.Body) -> float:
    step = body.step
    low, high = max(step.low, 1.0), min(step.high, 2000.0)
    return step.index + min(max(math.log(max(body.viscosity, low) / low) / math.log(high / low), 0.0), 1.0)


def proposed(pot: Pot, wanted: Wanted, routes: Sequence[Route]) -> tuple[Route, ...]:
    """The ways in the order a good cook would name them: the best first, and last what cannot be taken.

    Ways that come to the same are named once, by the plainest: taking what is needed where all is needed, boiling
    to a salt where that is the volume.
    """
    able: list[Route] = []
    for route in sorted((r for r in routes if r.feasible), key=lambda r: not _told(r)):
        if not any(_same(route, other) for other in able):
            able.append(route)
    able.sort(key=lambda r: cost(pot, wanted, r))
    # What was told is done, even where another way is better: that stands second, with its reason.
    told = next((r for r in able if _told(r)), None)
    tastes = _for_its_taste(pot, wanted, [route for route in routes if route.feasible])
    first = next((r for r in able if tastes is not None and (r is tastes or _same(r, tastes))), None)
    able = [r for r in able if r is first or not _in_the_way(r, able)]
    able.sort(key=lambda r: (r is not told, r is not first))
    return (*able, *(r for r in routes if not r.feasible))


#: Boiled down to its mark a pot may come to so many times what is wanted before only a part of it is taken; and longer
#: than this nobody boils where no time was told, min (common practice).
MOST_MEALS, MOST_BOILING_MIN = 4.0, 40.0
#: Less than this share is not worth boiling away: it is there. Modelling choice.
LEAST_BOILED = 0.08
#: Up to so many helpings it is bound with starch, which is quick; a large table gets roux, which holds (common
#: practice).
MOST_FOR_STARCH = 8


def _for_its_taste(pot: Pot, wanted: Wanted, able: Sequence[Route]) -> Route | None:
    """The way that boils for the taste, as a cook would: all of it, and a part where far more would be left, or the
    boil takes too long. A jus begins with nothing added. What has nothing to boil away is bound as it is; None where it
    is too salty for that."""
    tastes = [route for route in able if _stop(route) == "taste"]
    whole = [route for route in tastes if not WAYS[route.kind].part]
    part = [route for route in tastes if WAYS[route.kind].part and route.aside_ml > 0.0]
    ways = part if part and _wants_a_part(wanted, able) else whole
    if ways is whole and ways and all(route.share_left > 1.0 - LEAST_BOILED for route in ways):
        ways = [route for route in able if _stop(route) == "here"] or ways
    ways = [route for route in ways if route.salt_before.best <= wanted.salt_percent + SALT_SLACK_PERCENT]
    jus = wanted.body <= THINNEST_STEP
    people = wanted.people or wanted.portions or wanted.amount_ml / DISHES[USUAL_DISH].helping_ml
    starch = people <= MOST_FOR_STARCH

    def order(route: Route) -> tuple[bool, bool]:
        school = WAYS[route.kind].school
        return (school is None) != jus, school is not None and (not school.fat_g) != starch

    return min(ways, key=order, default=None)


def _wants_a_part(wanted: Wanted, routes: Sequence[Route]) -> bool:
    """Whether only a part is boiled for its taste: all of it would be far too much, takes too long, or is no way."""
    whole = [r for r in routes if r.feasible and _stop(r) == "taste" and not WAYS[r.kind].part]
    long = wanted.time_there_is is None and any(route.minutes.best > MOST_BOILING_MIN for route in whole)
    return not whole or long or any(route.volume_ml > MOST_MEALS * wanted.amount_ml for route in whole)


def _stop(route: Route) -> Stop | None:
    """Where its way stops; None for a way that is not offered."""
    return WAYS[route.kind].stop if route.kind in WAYS else None


def _in_the_way(route: Route, able: Sequence[Route]) -> bool:
    """Whether a way boils to the salt, bound, beside one that boils for the taste to nearly the same mark."""
    if _stop(route) != "salt" or WAYS[route.kind].school is None:
        return False
    tastes = [other for other in able if _stop(other) == "taste" and not other.aside_ml]
    return any(abs(other.boil_to_ml - route.boil_to_ml) < MARKS_ALIKE * route.boil_to_ml for other in tastes)


#: Marks that differ by less than this share are one to whoever chooses. Modelling choice.
MARKS_ALIKE = 0.15


def _told(route: Route) -> bool:
    return _stop(route) == "told"


def _same(one: Route, other: Route) -> bool:
    """Whether two ways are the same thing to do."""
    binds = (one.thickener and one.thickener.key) == (other.thickener and other.thickener.key)
    near = abs(one.volume_ml - other.volume_ml) < AMOUNTS_ALIKE * one.volume_ml
    return binds and near and abs(one.aside_ml - other.aside_ml) < AMOUNTS_ALIKE * one.volume_ml


#: Amounts that differ by less than this are the same to a cook. Modelling choice.
AMOUNTS_ALIKE = 0.02


# -- solving ------------------------------------------------------------------------------------


def _too_small() -> TargetError:
    return TargetError("volume_ml", say("routes.too_small"))


def _water_for_body(contents: Contents, wanted: Wanted, strength: bd.Strength) -> float:
    """Water at which boiling alone reaches the wanted body, g."""
    return _water_at(contents, wanted.aim_mpas, strength)


# Every way that stops where it tastes of enough asks it of the same pot.
@lru_cache(maxsize=256)
def _water_at(contents: Contents, aim: float, strength: bd.Strength) -> float:
    def excess(share: float) -> float:
        return math.log(bd.viscosity_mpas(boiled_to_water(contents, contents.water * share), strength) / aim)

    if excess(1.0) >= 0.0:
        return contents.water
    if excess(LEAST_WATER_SHARE) <= 0.0:
        return contents.water * LEAST_WATER_SHARE
    return contents.water * float(brentq(excess, LEAST_WATER_SHARE, 1.0, xtol=1e-5))


def _sauce(
    now: Contents, stop: Stop, wanted: Wanted, school: School | None, in_time: float = 0.0
) -> Callable[[float], Contents]:
    """The sauce before it is salted, by the grams of dry thickener in it; water makes room for them.

    ``in_time`` is the water that would be left when the time is up, g.

    Where alcohol boils off, how much of it is left is worked out from the water without the thickener: a few
    grams of flour move it by a thousandth of the volume's.
    """
    unit = school.per_gram if school else Contents()
    if stop == "here":
        return lambda dry: now.mixed(unit, dry)
    if stop == "body":
        raise TargetError("route", say("routes.nothing_to_solve"))
    bare = unit.with_masses(water=0.0)

    def room(fixed: Contents) -> Callable[[float], float]:
        least = LEAST_WATER_SHARE * now.water
        if stop == "salt":
            return _water_for_salt(fixed, bare, wanted, least)
        if stop == "time":
            # Never past the salt that is liked, nor past the amount: then it is there sooner.
            floors = _water_for_salt(fixed, bare, wanted, least), _water_for_volume(fixed, bare, wanted)
            slurry_g = school.water_g if school else 0.0
            return lambda dry: max(min(in_time, now.water) + dry * slurry_g, *(floor(dry) for floor in floors))
        if stop == "stretch":
            to_salt = _water_for_salt(fixed, bare, wanted, now.water)
            to_volume = _water_for_volume(fixed, bare, wanted)
            return lambda dry: max(to_salt(dry), to_volume(dry))
        return _water_for_volume(fixed, bare, wanted)

    fixed = now.with_masses(water=0.0)
    for _ in range(2 if now.ethanol or now.acetic else 0):
        left = boiled_to_water(now, min(max(room(fixed)(0.0), LEAST_WATER_SHARE * now.water), now.water))
        fixed = left.with_masses(water=0.0)
    water = room(fixed)

    def sauce(dry: float) -> Contents:
        return fixed.mixed(bare, dry).with_masses(water=max(water(dry), 0.0))

    return sauce


def _water_for_volume(fixed: Contents, bare: Contents, wanted: Wanted) -> Callable[[float], float]:
    """Water, g, that fills the wanted volume beside everything else and so many grams of thickener."""
    room_ml, per_dry_ml = wanted.amount_ml - fixed.liquid_ml, bare.liquid_ml
    return lambda dry: (room_ml - dry * per_dry_ml) / ML_G["water"]


#: No pot is let down to less salt than this, %. Modelling choice.
LEAST_SALT_PERCENT = 0.02


def _water_for_salt(fixed: Contents, bare: Contents, wanted: Wanted, least: float) -> Callable[[float], float]:
    """Water, g, at which the sauce stands at the wanted salt; never less than ``least``."""
    share = max(wanted.salt_percent, LEAST_SALT_PERCENT) / 100.0
    at_none = fixed.salt / share - fixed.liquid_g
    per_dry = bare.salt / share - bare.liquid_g
    return lambda dry: max(at_none + dry * per_dry, least)


#: A first guess at a dose, as a share of the pot, and how exactly it is found, g.
_FIRST_GUESS, _DOSE_G = 0.02, 1e-6


def _dose(sauce: Callable[[float], Contents], aim: float, pot_g: float, strength: bd.Strength) -> float:
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
    enough, most = _FIRST_GUESS * pot_g, pot_g
    while missing(enough) > 0.0:
        if enough >= most:
            return enough
        enough = min(2.0 * enough, most)
    return float(brentq(missing, 0.0, enough, xtol=_DOSE_G, rtol=1e-9))


def volume_at_salt_ml(contents: Contents, ceiling_percent: float) -> float:
    """Volume at which boiling alone, or letting down, brings the salt to ``ceiling_percent``, mL."""
    mass = 100.0 * contents.salt / ceiling_percent
    return contents.liquid_ml + (mass - contents.liquid_g) * ML_G["water"]


def bound_at_salt_ml(pot: Pot, percent: float, route: Route | None = None) -> float:
    """Liquid in the pot at which its sauce stands at ``percent`` salt, mL; above the surface where it is past that.

    It is that of the sauce as it will be: what ``route`` has yet to stir in thins its salt.
    """
    binds = _binds(route)
    water_g = 100.0 * (pot.contents.salt + binds.salt) / percent - pot.contents.liquid_g - binds.liquid_g
    return pot.contents.liquid_ml + water_g * ML_G["water"]


def bound_salt_percent(pot: Pot, route: Route | None = None) -> float:
    """Salt of the pot as it is, once what ``route`` has yet to stir in is in it, %."""
    return (pot.contents + _binds(route)).salt_percent


def _binds(route: Route | None) -> Contents:
    return route.thickener.added(route.dry_g) if route is not None and route.thickener is not None else Contents()


def salt_ceiling_ml(pot: Pot, wanted: Wanted, route: Route | None = None) -> float | None:
    """Liquid below which the sauce is too salty, mL; None where boiling never gets there."""
    if pot.contents.salt <= 0.0:
        return None
    volume = bound_at_salt_ml(pot, wanted.ceiling_percent, route)
    solids = pot.contents.liquid_ml - pot.contents.water * ML_G["water"]
    return volume if volume > solids + LEAST_WATER_SHARE * pot.contents.water else None


#: The trade is drawn from this share of the pot on. Modelling choice.
LEAST_DRAWN = 0.2


def trade(pot: Pot, wanted: Wanted, points: int = 17) -> tuple[TradePoint, ...]:
    """Salt and thickener against the finished volume, from a fifth of the pot to all of it.

    The salt is that of the first school offered. Whatever volume is wanted, the trade of a pot stays what it is.
    """
    return _trade(pot.contents, pot.strength, wanted.body, points)


@lru_cache(maxsize=64)
def _trade(now: Contents, strength: bd.Strength, body: int, points: int) -> tuple[TradePoint, ...]:
    schools = list(dict.fromkeys(way.school for way in WAYS.values() if way.school is not None))
    first = schools[0]
    out = []
    for i in range(points):
        volume = now.liquid_ml * (LEAST_DRAWN + (1.0 - LEAST_DRAWN) * i / (points - 1))
        at = Wanted.model_construct(volume_ml=volume, body=body)
        sauces = {school.key: _sauce(now, "volume", at, school) for school in schools}
        try:
            dry = {key: _dose(sauce, at.aim_mpas, now.mass_g, strength) for key, sauce in sauces.items()}
        except TargetError:
            continue
        bound = sauces[first.key](dry[first.key])
        stops = boiled_to_water(now, min(bound.water - dry[first.key] * first.water_g, now.water))
        out.append(TradePoint(volume, stops.liquid_ml, tone(stops), bound.salt_percent, dry))
    return tuple(out)


def too_salty_ml(points: Sequence[TradePoint], ceiling_percent: float) -> float | None:
    """The liquid below which its sauce would be past the ceiling, mL, between the points of a trade; None for none."""
    if not points or points[0].salt_percent <= ceiling_percent:
        return None
    falling = points[::-1]
    return float(np.interp(ceiling_percent, [p.salt_percent for p in falling], [p.boil_to_ml for p in falling]))

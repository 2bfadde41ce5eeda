"""Which way a good cook would take: what was told, then what is boiled for its taste, then the least work."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from ..errors import TargetError
from ..estimation.spoon import height
from ..events.judging import smells_of_wine
from ..pantry.guests import DISHES, GLAZE, USUAL_DISH, USUAL_PEOPLE
from ..pantry.ways import ways_with
from ..phenomena.body import LADDER
from ..phenomena.seasoning import USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT, LearnedLiking
from ..pot import Pot
from ..wish import Wish
from .choosing import suits
from .judgement import JUDGEMENT, Judgement
from .solving import ROUNDING, THINNEST_STEP, Route, Task, waits_min, work_min


def suggested(pot: Pot, liking: LearnedLiking | None = None) -> Wish:
    """A wish to begin with: for four people, or what there is, as salty and as thick as the kitchen likes it."""
    salt = USUAL_SALT_PERCENT if liking is None else liking.proposed_percent
    salted = {"salt_percent": salt, "ceiling_percent": max(USUAL_CEILING_PERCENT, salt + LEAST_BELOW_CEILING)}
    there = pot.contents.liquid_ml * max(1.0, pot.contents.salt_percent / salt)
    body = body_for(USUAL_DISH, liking)
    four = Wish(people=USUAL_PEOPLE, over=USUAL_DISH, body=body, **salted)
    if four.amount_ml <= there:
        return four
    return Wish(volume_ml=max(round(there / 10.0) * 10.0, 10.0), body=body, **salted)


def body_for(dish: str, liking: LearnedLiking | None = None) -> int:
    """The step of the ladder that suits a dish, as thick as the kitchen likes its sauces."""
    steps = 0 if liking is None else liking.steps
    return min(max(DISHES[dish].body + steps, 0), len(LADDER) - 1)


#: The ceiling is at least so far over what is liked, points of salt. Modelling choice.
LEAST_BELOW_CEILING = 0.2


def solve_routes(
    pot: Pot,
    wanted: Wish,
    *,
    agreed: Wish | None = None,
    judgement: Judgement = JUDGEMENT,
    splits: frozenset[str] = frozenset(),
    asked: Collection[str] = (),
) -> tuple[Route, ...]:
    """Every way that is offered, the one to propose first, and last those that cannot be taken.

    Parameters
    ----------
    pot : the pot now.
    wanted : amount, body, salt and ceiling.
    agreed : the wish the cook has been working towards, if there is one; see :meth:`.Wish.check_amount`.
    judgement : what ways are weighed by.
    splits : what is in it that parts or curdles on the boil.
    asked : schools to thicken with besides those that are proposed by themselves.

    Raises
    ------
    TargetError : more sauce is wanted than the pot could give, or so little that no way leads there.
    """
    wanted = wanted.of(pot)
    wanted.check_amount(pot.contents.liquid_ml, agreed)
    task, weighing = Task(pot, wanted, judgement, splits), _Weighing(pot, wanted, judgement)
    found: list[Route] = []
    refused: TargetError | None = None
    for way in ways_with((*asked, *pot.used_to)):
        if (way.stop == "time" and wanted.time_there_is is None) or (way.stop == "told" and not wanted.as_told):
            continue
        if way.stop == "taste" and way.part and not weighing.wants_a_part(found):
            continue
        try:
            found.append(task.route(way))
        except TargetError as error:
            refused = refused or error
    if refused is not None and not any(route.feasible for route in found):
        raise refused
    return weighing.in_order(found)


def _comes_to_ml(route: Route) -> float:
    """What is left of the pot at its mark, before it is bound, mL."""
    return route.boil_to_ml + route.let_down_ml


def _kept_ml(route: Route) -> float:
    """What is kept for the meat or another meal, mL."""
    return route.aside_ml + route.parted_ml


@dataclass(frozen=True)
class _Weighing:
    """Ways to one wish, weighed against each other."""

    pot: Pot
    wanted: Wish
    judgement: Judgement

    def in_order(self, routes: Sequence[Route]) -> tuple[Route, ...]:
        """The ways in the order a good cook would name them: the best first, and last what cannot be taken.

        Ways that come to the same are named once, by the plainest: taking what is needed where all is needed, boiling
        to a salt where that is the volume.
        """
        feasible = [route for route in routes if route.feasible]
        # What was told is done, even where another way is better: that stands second, with its reason.
        told = self._usual([route for route in feasible if route.way.stop == "told"])
        tastes = self._for_its_taste(feasible)
        if tastes is not None and tastes.way.stop == "taste" and not tastes.way.part:
            # Boiled down to the amount it is called so, beside the same with another binder.
            amounts = [route for route in feasible if route.way.stop == "volume" and not route.way.part]
            tastes = next((route for route in amounts if self._same(route, tastes)), tastes)
        able = [route for route in (told, tastes) if route is not None]
        able = able[:1] if len(able) > 1 and self._same(*able) else able
        for route in feasible:
            if route.way.stop != "told" and not any(self._same(route, other) for other in able):
                able.append(route)
        first = {id(route) for route in (told, tastes)}
        able = [r for r in able if id(r) in first or not self._in_the_way(r, able)]
        able.sort(key=lambda r: (r is not told, r is not tastes, self._cost(r)))
        return (*able, *(r for r in routes if not r.feasible))

    def _cost(self, route: Route) -> float:
        """What a way costs, min: its work and its boiling, and what its sauce lacks."""
        wanted, weighs = self.wanted, self.judgement
        made = route.volume_ml / wanted.amount_ml
        total = work_min(route, weighs)
        total += weighs.too_thin * max(wanted.body + 0.5 - height(route.body.viscosity), 0.0)
        total += weighs.too_much * 10.0 * max(made - 1.1, 0.0)
        total += weighs.too_little * 10.0 * max(weighs.amount_slack - made, 0.0)
        total += weighs.let_down * 10.0 * route.let_down_ml / max(route.volume_ml, 1.0)
        total += weighs.pale * max(1.0 - route.salt_before.best / max(wanted.salt_percent, weighs.salt_slack), 0.0)
        # The upper end counts as well: what is too salty can only be stretched, what is flat takes a pinch.
        likely = 0.5 * (route.salt_after.best + route.salt_after.high)
        over = max(route.salt_after.best - wanted.salt_percent - 0.5 * weighs.salt_slack, 0.0)
        total += weighs.salty * 10.0 * (over + max(likely - wanted.salt_percent - weighs.salt_slack, 0.0))
        return total

    def _for_its_taste(self, able: Sequence[Route]) -> Route | None:
        """The way that boils for the taste, as a cook would: all of it, and a part where far more would be left, or
        the boil takes too long. What has nothing to boil away is bound as it is, what is too salty is stretched, and
        so is what is too little, where it still tastes of something then."""
        wanted, weighs = self.wanted, self.judgement
        tastes = [route for route in able if route.way.stop == "taste"]
        whole = [route for route in tastes if not route.way.part]
        part = [route for route in tastes if route.way.part and route.aside_ml > 0.0]
        ways = part if part and self.wants_a_part(able) else whole
        usual = self._usual(ways)
        boils = usual is not None and (smells_of_wine(self.pot) or usual.share_left <= 1.0 - weighs.least_boiled)
        if not boils:
            taken = [r for r in able if r.way.stop == "volume" and r.aside_ml > 0.0 and r.steam_g <= 0.0]
            ways = (taken if ways is part else self._as_it_is(able)) or ways
        likes = [route for route in ways if route.salt_before.best <= wanted.salt_percent + weighs.salt_slack]
        return self._usual(likes or self._stretched(able))

    def _as_it_is(self, able: Sequence[Route]) -> list[Route]:
        """What is there, as it is; stretched, where it is too little and tastes of something then."""
        short = self.judgement.amount_slack * self.wanted.amount_ml
        here = [route for route in able if route.way.stop == "here"]
        if not any(route.volume_ml < short for route in here):
            return here
        more = [r for r in able if r.way.stop == "volume" and r.let_down_ml > 0.0 and not r.way.part]
        return [r for r in more if r.final.strength_percent >= self.judgement.least_stretched_percent] or here

    def _stretched(self, able: Sequence[Route]) -> list[Route]:
        """What is too salty, let down to its salt: all of it, and a part where that would be another meal, which takes
        unsalted stock for nothing, or would not go into the pan."""
        lets_down = [r for r in able if r.way.stop in ("stretch", "volume") and 0.0 < r.let_down_ml <= self.pot.room_ml]
        whole = [route for route in lets_down if route.aside_ml <= 0.0]
        part = [route for route in able if route.way.stop == "volume" and route.aside_ml > 0.0]
        much = self.judgement.more_meals * self.wanted.amount_ml
        return whole if whole and (not part or min(map(_comes_to_ml, whole)) <= much) else part

    def _usual(self, ways: Sequence[Route]) -> Route | None:
        """The way with the usual binder; None for no way.

        For a few helpings it is what is quick, for a large table or a long wait on the pass what holds; of those it is
        what the kitchen is used to, which may take its time where no table waits for it. For a jus, and for a glaze, it
        is nothing where it has body enough.
        """
        wanted, weighs = self.wanted, self.judgement
        light = wanted.body <= THINNEST_STEP or wanted.over == GLAZE
        people = wanted.people or wanted.portions or wanted.amount_ml / DISHES[USUAL_DISH].helping_ml
        waits = any(waits_min(wanted, route, weighs) is not None for route in ways)
        sort = "quick" if people <= weighs.most_quickly_bound and not waits else "lasting"

        def order(route: Route) -> tuple[bool, bool, bool, float]:
            school, habit = route.thickener or route.way.school, self._is_habit(route)
            bare = light and height(route.body.viscosity) >= wanted.body - weighs.thinner_jus
            other = school is not None and school.sort != sort and not (habit and sort == "quick")
            return (route.way.school is None) != bare, other, not habit, self._cost(route)

        return min(ways, key=order, default=None)

    def _is_habit(self, route: Route) -> bool:
        """Whether it is bound with what the kitchen is used to, and that does for this sauce."""
        habit = self.pot.habit
        if habit is None or route.thickener is None or route.thickener.key != habit.key:
            return False
        return suits(Task(self.pot, self.wanted, self.judgement), route)

    def wants_a_part(self, routes: Sequence[Route]) -> bool:
        """Whether only a part is boiled for its taste: all of it would be far too much, takes too long, or is no
        way."""
        wanted, weighs = self.wanted, self.judgement
        whole = [r for r in routes if r.feasible and r.way.stop == "taste" and not r.way.part]
        far = (1.0 + ROUNDING) * weighs.most_meals * wanted.amount_ml
        long = wanted.time_there_is is None and any(route.minutes.best > weighs.most_boiling_min for route in whole)
        return not whole or long or any(_comes_to_ml(route) > far for route in whole)

    def _in_the_way(self, route: Route, able: Sequence[Route]) -> bool:
        """Whether a way boils to the salt, bound, beside one that boils for the taste to nearly the same mark."""
        if route.way.stop != "salt" or route.way.school is None:
            return False
        tastes = [other for other in able if other.way.stop == "taste" and not other.aside_ml]
        near = self.judgement.marks_alike * route.boil_to_ml
        return any(abs(other.boil_to_ml - route.boil_to_ml) < near for other in tastes)

    def _same(self, one: Route, other: Route) -> bool:
        """Whether two ways are the same thing to do."""
        alike = self.judgement.amounts_alike * one.volume_ml
        binds = (one.thickener and one.thickener.key) == (other.thickener and other.thickener.key)
        near = abs(one.volume_ml - other.volume_ml) < alike and abs(one.steam_g - other.steam_g) < alike
        return binds and near and abs(_kept_ml(one) - _kept_ml(other)) < alike

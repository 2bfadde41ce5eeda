"""Which way a good cook would take: what was told, then what is boiled for its taste, then the least work."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..errors import TargetError
from ..estimation.spoon import height
from ..pantry.guests import DISHES, USUAL_DISH, USUAL_PEOPLE
from ..pantry.ways import WAYS
from ..phenomena.seasoning import USUAL_SALT_PERCENT
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT, Judgement
from .solving import THINNEST_STEP, Route, Task, work_min


def suggested(pot: Pot) -> Wish:
    """A wish to begin with: for four people, or what there is at the usual salt; as a nappe."""
    there = pot.contents.liquid_ml * max(1.0, pot.contents.salt_percent / USUAL_SALT_PERCENT)
    four = Wish(people=USUAL_PEOPLE, over=USUAL_DISH, body=DISHES[USUAL_DISH].body)
    return four if four.amount_ml <= there else Wish(volume_ml=max(round(there / 10.0) * 10.0, 10.0))


def solve_routes(
    pot: Pot, wanted: Wish, *, agreed: Wish | None = None, judgement: Judgement = JUDGEMENT
) -> tuple[Route, ...]:
    """Every way that is offered, the one to propose first, and last those that cannot be taken.

    Parameters
    ----------
    pot : the pot now.
    wanted : amount, body, salt and ceiling.
    agreed : the wish the cook has been working towards, if there is one; see :meth:`.Wish.check_amount`.
    judgement : what ways are weighed by.

    Raises
    ------
    TargetError : more sauce is wanted than the pot could give, or so little that no way leads there.
    """
    wanted = wanted.of(pot)
    wanted.check_amount(pot.contents.liquid_ml, agreed)
    task, weighing = Task(pot, wanted, judgement), _Weighing(wanted, judgement)
    found: list[Route] = []
    refused: TargetError | None = None
    for way in WAYS.values():
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


@dataclass(frozen=True)
class _Weighing:
    """Ways to one wish, weighed against each other."""

    wanted: Wish
    judgement: Judgement

    def in_order(self, routes: Sequence[Route]) -> tuple[Route, ...]:
        """The ways in the order a good cook would name them: the best first, and last what cannot be taken.

        Ways that come to the same are named once, by the plainest: taking what is needed where all is needed, boiling
        to a salt where that is the volume.
        """
        able: list[Route] = []
        for route in sorted((r for r in routes if r.feasible), key=lambda r: r.way.stop != "told"):
            if not any(self._same(route, other) for other in able):
                able.append(route)
        able.sort(key=self._cost)
        # What was told is done, even where another way is better: that stands second, with its reason.
        told = next((r for r in able if r.way.stop == "told"), None)
        tastes = self._for_its_taste([route for route in routes if route.feasible])
        first = next((r for r in able if tastes is not None and (r is tastes or self._same(r, tastes))), None)
        able = [r for r in able if r is first or not self._in_the_way(r, able)]
        able.sort(key=lambda r: (r is not told, r is not first))
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
        the boil takes too long. A jus begins with nothing added. What has nothing to boil away is bound as it is; None
        where it is too salty for that."""
        wanted, weighs = self.wanted, self.judgement
        tastes = [route for route in able if route.way.stop == "taste"]
        whole = [route for route in tastes if not route.way.part]
        part = [route for route in tastes if route.way.part and route.aside_ml > 0.0]
        ways = part if part and self.wants_a_part(able) else whole
        if ways is whole and ways and all(route.share_left > 1.0 - weighs.least_boiled for route in ways):
            ways = [route for route in able if route.way.stop == "here"] or ways
        ways = [route for route in ways if route.salt_before.best <= wanted.salt_percent + weighs.salt_slack]
        jus = wanted.body <= THINNEST_STEP
        people = wanted.people or wanted.portions or wanted.amount_ml / DISHES[USUAL_DISH].helping_ml
        # A few helpings are bound with what is quick; for a large table it has to hold.
        sort = "quick" if people <= weighs.most_quickly_bound else "lasting"

        def order(route: Route) -> tuple[bool, bool]:
            school = route.way.school
            return (school is None) != jus, school is not None and school.sort != sort

        return min(ways, key=order, default=None)

    def wants_a_part(self, routes: Sequence[Route]) -> bool:
        """Whether only a part is boiled for its taste: all of it would be far too much, takes too long, or is no
        way."""
        wanted, weighs = self.wanted, self.judgement
        whole = [r for r in routes if r.feasible and r.way.stop == "taste" and not r.way.part]
        long = wanted.time_there_is is None and any(route.minutes.best > weighs.most_boiling_min for route in whole)
        return not whole or long or any(route.volume_ml > weighs.most_meals * wanted.amount_ml for route in whole)

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
        near = abs(one.volume_ml - other.volume_ml) < alike
        return binds and near and abs(one.aside_ml - other.aside_ml) < alike

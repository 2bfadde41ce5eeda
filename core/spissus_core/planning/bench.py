"""A batch at the stove, asked what everything that is said of it goes by.

Between a folded batch and the acts: the way that was chosen and where it stops, what is liked and how far the pot is
from it, what the spoons say together. Nothing here is said to a cook.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, TypeVar, cast

from .. import events as ev
from ..errors import SpissusError
from ..estimation.forecast import Outlook, Progress
from ..estimation.spoon import Belief, belief
from ..events import State
from ..events.state import NO_BOILING, Boiling
from ..fold import Timeline, progress
from ..ledger.contents import SPECIFIC_VOLUME_ML_G
from ..pantry.schools import School
from ..pantry.ways import USUAL_BINDER, WAYS, Way
from ..pot import Pot
from ..wish import Wish
from .ceiling import bound_at_salt_ml, volume_at_salt_ml
from .choosing import UNSURE, most_percent
from .judgement import JUDGEMENT, Judgement
from .plan import plan, settled
from .solving import Route, solve

T = TypeVar("T")

#: Who wants no salt wants so little, %. Numerical choice.
LEAST_LIKED_PERCENT = 0.001


#: Less than this share of all that a sauce bears of a thickener, and less than so much of it, mL, is no helping.
#: Modelling choice.
_WORTH_A_HELPING, _WORTH_A_HELPING_ML = 0.1, 5.0

#: And no more than this share of what it bears goes in at once of what is hard to foresee. Modelling choice.
_MOST_AT_ONCE = 0.4


@dataclass(frozen=True)
class Bench:
    """A batch as the acts see it.

    ``ahead`` is what is known of its heating, ``planned`` its plan where that was worked out already, and
    ``judgement`` what everything is weighed by.
    """

    timeline: State
    ahead: Progress | None = None
    planned: Route | None = None
    judgement: Judgement = JUDGEMENT
    _known: dict[Any, Any] = field(default_factory=dict, compare=False, repr=False)

    def once(self, ask: Callable[[Bench], T]) -> T:
        """What ``ask`` finds, worked out once for all the acts that want to know it."""
        if ask not in self._known:
            self._known[ask] = ask(self)
        return cast(T, self._known[ask])

    # -- the batch ------------------------------------------------------------------------------------

    @property
    def pot(self) -> Pot:
        """The pot; only to be asked for where there is one."""
        assert self.timeline.pot is not None
        return self.timeline.pot

    @property
    def wanted(self) -> Wish:
        """The wish; only to be asked for where there is one."""
        assert self.timeline.asked.wanted is not None
        return self.timeline.asked.wanted

    @cached_property
    def route(self) -> Route:
        """The chosen way, worked out from the pot as it is; only to be asked for where one was chosen."""
        route = self.planned or plan(self.timeline, self.judgement)
        assert route is not None
        return route

    @property
    def way(self) -> Way:
        """The way that was chosen."""
        assert self.timeline.asked.way is not None
        return WAYS[self.timeline.asked.way]

    @property
    def seen(self) -> Pot:
        """The pot as its last event left it: what to measure it with goes by that."""
        last = self.timeline.seen.pot if isinstance(self.timeline, Timeline) else None
        return last or self.pot

    @property
    def settled(self) -> bool:
        """Whether boiling is over."""
        return settled(self.timeline)

    @property
    def boils(self) -> bool:
        """Whether it boils, as far as anybody said."""
        window, meat = self.timeline.stove.window, self.timeline.meat
        under_meat = meat is not None and meat.how == "oven" and not meat.done
        return window is not None and window.heating and window.setting.heat in ("boil", "oven") and not under_meat

    # -- where boiling ends ---------------------------------------------------------------------------

    @cached_property
    def mark_ml(self) -> float:
        """Where boiling ends: at the mark of the way, but never past the salt that is liked, nor past the body."""
        if self.way.stop == "told":
            return min(self.route.boil_to_ml, self.pot.contents.liquid_ml)
        mark = max(self.route.boil_to_ml, self.salt_mark_ml)
        if self.way.school is None and self.way.stop == "body":
            mark = max(mark, volume_at_salt_ml(self.pot.contents, self.liking), self.wanted.amount_ml)
        elif self.route.thickener is None and mark < self.pot.contents.liquid_ml:
            # It binds by itself on the way: further it would only be let down again.
            mark = max(mark, solve(self.pot, self.wanted, "body", None).boil_to_ml)
        if ev.smells_of_wine(self.pot):
            # Raw wine has to go, whatever body and salt say.
            mark = min(mark, self.route.boil_to_ml)
        return min(mark, self.pot.contents.liquid_ml)

    @property
    def salt_mark_ml(self) -> float:
        """Liquid at which the bound sauce is about as salty as is liked, mL."""
        return bound_at_salt_ml(self.pot, self.liking + self.judgement.saltier, self.route)

    @property
    def standing_mark_ml(self) -> float:
        """The mark of a pot that boils: as the last entry left it, however far it is thought to have gone since."""
        if self.timeline.stove.boiling.stop_ml is not None:
            return self.timeline.stove.boiling.stop_ml
        seen = self.timeline.seen if isinstance(self.timeline, Timeline) else self.timeline
        if seen.pot is None or plan(seen, self.judgement) is None:
            return self.mark_ml
        return Bench(seen, judgement=self.judgement).mark_ml

    def outlook(self, stop_ml: float) -> Outlook | None:
        """When it comes to ``stop_ml``, and when to look; None where it is not heated."""
        ahead = self.ahead or progress(self.timeline)
        return ahead.outlook(stop_ml) if ahead else None

    # -- amount ---------------------------------------------------------------------------------------

    @property
    def aside_due(self) -> bool:
        """Whether what the sauce needs is still to be measured off."""
        return self.route.aside_ml > 0.0 and self.pot.kept is None

    @property
    def fat_due(self) -> bool:
        """Whether fat is still to come off."""
        return not self.timeline.skimming.settled and ev.fat_to_skim(self.pot, self.wanted)

    @property
    def least_liquid_ml(self) -> float:
        """Less than this is not worth stirring in, mL."""
        weighs, there_ml = self.judgement, self.pot.contents.liquid_ml
        spoon_ml = min(weighs.least_liquid_ml, weighs.small_pot_share * there_ml)
        return max(spoon_ml, weighs.least_liquid_share * there_ml)

    @property
    def looked(self) -> bool:
        """Whether it was looked at while it boiled."""
        window = self.timeline.stove.window
        return window is not None and window.readings > 0

    @property
    def lets_down(self) -> bool:
        """Whether the plan misses so much liquid that stirring it in is worth it."""
        return self.route.let_down_ml > self.least_liquid_ml

    # -- body -----------------------------------------------------------------------------------------

    @cached_property
    def belief(self) -> Belief:
        """What the spoons say together."""
        return belief(self.timeline.judged.spoons)

    @property
    def school(self) -> School:
        """What binds it: the school of the way, as long as the sauce bears more of it; else what is usual."""
        return self.pot.binding(USUAL_BINDER) if self.has_enough_of is not None else self._own_school

    @property
    def bound_with(self) -> School | None:
        """The school of the way, as it is in this kitchen; None for a way that nothing binds."""
        return None if self.way.school is None else self.pot.binding(self.way.school)

    @property
    def _own_school(self) -> School:
        return self.pot.binding(self.way.school or USUAL_BINDER)

    @cached_property
    def has_enough_of(self) -> School | None:
        """The school of the way, where the sauce or its pan bears no more of it; None where it does."""
        own = self._own_school
        share = most_percent(own) / 100.0
        least_g = min(_WORTH_A_HELPING * share * self.pot.contents.liquid_g, own.dry_in(_WORTH_A_HELPING_ML))
        return own if self.bears_g(own) < least_g and own.key != USUAL_BINDER.key else None

    def helping_g(self, school: School) -> float:
        """As much of a thickener as goes in at once, g dry: of what is hard to foresee a part of what is borne."""
        bears = self.bears_g(school)
        if school.spread < UNSURE:
            return bears
        return min(bears, _MOST_AT_ONCE * most_percent(school) / 100.0 * self.pot.contents.liquid_g)

    def bears_g(self, school: School) -> float:
        """So much more of a thickener the sauce bears by its taste and its salt, and its pan by its room, g dry."""
        share, is_in = most_percent(school) / 100.0, dict(self.timeline.binding.grams).get(school.key, 0.0)
        by_taste = (share * self.pot.contents.liquid_g - is_in) / (1.0 - share) if share < 1.0 else math.inf
        return max(min(by_taste, self._by_its_salt_g(school), school.dry_in(self.pot.room_ml)), 0.0)

    def _by_its_salt_g(self, school: School) -> float:
        """So much of it brings the pot to the salt that is liked, g dry; no end of what is no saltier than that."""
        saltier = 100.0 * school.salt_g - self.liking * school.per_gram.liquid_g
        return -self.over * self.pot.contents.liquid_g / saltier if saltier > 0.0 else math.inf

    # -- salt -----------------------------------------------------------------------------------------

    @property
    def liking(self) -> float:
        """Salt that is liked, as told and as tasted, %; never quite none, which no water reaches."""
        return max(self.wanted.salt_percent + self.timeline.judged.liking_percent, LEAST_LIKED_PERCENT)

    @property
    def over(self) -> float:
        """Points of salt over what is liked."""
        return self.pot.contents.salt_percent - self.liking

    @property
    def salt_error(self) -> float:
        """How well that is known, points."""
        return math.hypot(self.pot.salt_error, self.timeline.judged.liking_error)

    @property
    def salt_known(self) -> bool:
        """Whether the salt of the pot is known well enough to go by without a taste."""
        return self.timeline.judged.metered or self.pot.salt_error <= self.judgement.unsure_salt

    @property
    def salt_missing_g(self) -> float:
        """Salt that is missing to what is liked, g."""
        return max(-self.over, 0.0) / 100.0 * self.pot.contents.liquid_g / (1.0 - self.liking / 100.0)

    def to_the_liking_ml(self) -> float:
        """Unsalted liquid that brings the salt to what is liked, as much of it as is sure, mL."""
        now, shares = self.pot.contents, self.judgement.water_by_tastes
        sure = 1.0 if self.salt_known else shares[min(len(self.timeline.judged.salt), len(shares) - 1)]
        missing = now.salt / (self.liking / 100.0) - now.liquid_g
        return max(sure * missing * SPECIFIC_VOLUME_ML_G["water"], self.least_liquid_ml)


def stop_of(timeline: State) -> Boiling:
    """Where boiling ends by the plan, and whether fat or a part of the pot has to come off before."""
    pot, wanted = timeline.pot, timeline.asked.wanted
    if pot is None or wanted is None or timeline.asked.way is None or settled(timeline):
        return NO_BOILING
    try:
        bench = Bench(timeline, planned=plan(timeline))
    except SpissusError:
        return NO_BOILING
    if bench.aside_due or bench.fat_due:
        return Boiling(None, waits=True)
    if bench.lets_down:
        return NO_BOILING
    return Boiling(bench.mark_ml, by_salt=bench.way.stop == "salt")

"""The next act: the one thing to do now, in numbers. The words are put to it elsewhere.

Asked in the order in which a good cook speaks: a contradiction between plan and pot, what is due, the next step; body
before salt. A correction is as large as the evidence says is missing, and one verdict ends a matter only where the
ledger agrees. Handbook of the trade, judgement; the shares and chances here are modelling choices, found by
``./spissus study obedient``.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Literal

from scipy.optimize import brentq
from scipy.special import ndtr

from .. import events as ev
from ..errors import SpissusError
from ..estimation.forecast import RULER_USELESS, Outlook, Progress
from ..estimation.spoon import Belief, belief
from ..events import State
from ..events.assumed import NO_BOILING, Boiling, there
from ..events.state import Concern, Slip
from ..fold import Timeline, progress
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..measuring.measurement import Method, Reads, error_ml
from ..measuring.vessels import SHALLOW_MM
from ..pantry.schools import SCHOOLS, School
from ..phenomena.body import flour_equivalent_g
from ..phenomena.cooling import Cooling, judge
from ..phenomena.evaporation import boiled_to_volume
from ..phenomena.fat import WAYS as SKIM_WAYS
from ..phenomena.fat import SkimWay
from ..phenomena.seasoning import FIRST_SHARE as FIRST_SALT
from ..pot import Pot
from .routes import (
    LEAST_LIQUID_ML,
    LEAST_LIQUID_SHARE,
    LEAST_SALT_G,
    WAYS,
    Route,
    Way,
    binding_min,
    bound_at_salt_ml,
    bound_salt_percent,
    solve,
    solve_route,
    solve_routes,
    suggested,
    volume_at_salt_ml,
)

ActKind = Literal[
    "start", "cool", "want", "choose", "skim", "take", "heat", "boil", "let_down", "thicken", "test_body",
    "measure", "salt", "test_salt", "finish", "done", "alone", "warn",
    "slip", "look_fat", "bigger_pan", "rest",
]  # fmt: skip

#: Why an act is spoken where it is not simply the next step: the pot contradicts the plan, or two say different
#: things of it.
Why = Literal[
    "past", "too_salty", "too_thin", "too_thick", "too_little", "once_more", "may_be_thick", "still_fat", "unsure",
    "unknown", "before_binding", "late", "stretch", "leans", "no_time", "salt_binds",
]  # fmt: skip

#: Thickener to prepare for what is worked out (common practice).
PREPARED = 1.1
#: Too small to say (common practice): dry starch, g.
LEAST_DRY_G = 1.0
#: In a small pot less starch counts, and goes by the quarter teaspoon: share of the pot. Modelling choice.
LEAST_DRY_SHARE = 0.003
#: Dry thickener is never more than this share of the pot. Modelling choice.
MOST_DRY_SHARE = 0.15
#: Salt moves by less than this unnoticed, as a share of it (Weber fraction; from memory).
LEAST_SALT_SHARE = 0.08


@dataclass(frozen=True, slots=True)
class Act:
    """What to do next.

    ``amount`` is in the unit of its kind: mL of fat for skim, mL of liquid for take, let_down, measure, rest and
    bigger_pan, dry
    g for thicken, g for salt. ``look_at`` and ``expect`` belong to boil, ``stop`` to boil and to heat, where
    the heat has to be turned on first, and ``reads_by`` is the way to measure that they are told in; ``thought_ml``
    is where it is thought to be now,
    ``late_min`` how much later than wanted it will be ready. ``measure`` says what to measure with where what was
    used so far is too coarse, and ``outlook`` the rest of what is known. ``first`` tells the first helping of
    thickener or salt from those that follow, ``why`` what the pot contradicts. ``wait_min`` is what a thickener wants
    before it is judged, from when on is ``look_at``.
    ``cooling`` is where a cooling pot stands, and ``by`` when it must meet its next limit. ``concern`` is what makes
    the pot doubtful, ``slip`` the entry that is asked about, ``beneath`` what is to be done meanwhile.
    """

    kind: ActKind
    route: Route | None = None
    amount: float = 0.0
    prepare: float = 0.0
    look_at: datetime | None = None
    expect: Reads | None = None
    stop: Reads | None = None
    reads_by: Method = "dip"
    thought_ml: float = 0.0
    late_min: float = 0.0
    first: bool = True
    why: Why | None = None
    way: SkimWay | None = None
    wait_min: tuple[float, float] | None = None
    measure: Method | Literal["spoon"] | None = None
    outlook: Outlook | None = None
    cooling: Cooling | None = None
    by: datetime | None = None
    concern: Concern | None = None
    slip: Slip | None = None
    beneath: Act | None = None

    @property
    def doing(self) -> Act:
        """What is to be done at the pot, whatever is asked before it."""
        return self.beneath or self


def next_act(timeline: State, ahead: Progress | None = None, route: Route | None = None) -> Act:
    """The next act of a batch.

    ``ahead`` is what is known of its heating, and ``route`` its plan, where they were worked out already.
    """
    pot = timeline.pot
    if pot is None:
        return Act("start")
    if timeline.thrown_away:
        return Act("done", amount=0.0)
    if timeline.concerns or timeline.slips:
        return _asked_first(timeline, next_act(timeline.but(concerns=(), slips=()), ahead, route))
    if timeline.finished is not None:
        if timeline.rest is not None and timeline.rest.stands == "unsaid" and pot.kept is not None:
            return Act("rest", amount=pot.kept.liquid_ml)
        return Act("done", amount=timeline.finished.yield_ml or pot.contents.liquid_ml)
    if timeline.cooling is not None:
        log = timeline.cooling
        stands = judge(log.readings, log.surroundings_c)
        due = None if stands.limit_minute is None else log.began + timedelta(minutes=stands.limit_minute)
        return Act("cool", amount=pot.contents.fat_ml, cooling=stands, by=due)
    if _unknown_salt(timeline, pot):
        return Act("test_salt", why="unknown")
    if timeline.wanted is None:
        return Act("want", amount=suggested(pot).amount_ml)
    if timeline.chosen is None:
        return Act("choose", _best(pot, in_the_time_left(timeline, timeline.wanted)))
    route = route or plan(timeline)
    assert route is not None
    bench = _Bench(timeline, timeline.wanted, pot, route, ahead or progress(timeline))
    act = (
        bench.fat() or bench.aside() or bench.volume() or bench.fat_again() or bench.body()
        or bench.measured() or bench.too_little() or bench.salt()
        or Act("finish", route, amount=pot.contents.liquid_ml)
    )  # fmt: skip
    more_ml = _goes_in_ml(act)
    return act if more_ml <= pot.room_ml else Act("bigger_pan", route, amount=more_ml, beneath=act)


def _goes_in_ml(act: Act) -> float:
    """What an act pours into the pan, mL."""
    if act.kind == "let_down":
        return act.amount
    school = act.route.thickener if act.kind == "thicken" and act.route is not None else None
    return 0.0 if school is None else school.added(act.amount).volume_ml


def _asked_first(timeline: State, beneath: Act) -> Act:
    """A doubt or a slip, spoken before what is to be done; what boils meanwhile is still looked at in its time."""
    if timeline.concerns:
        return Act("warn", concern=timeline.concerns[0], beneath=beneath, look_at=beneath.look_at)
    slip = timeline.slips[0]
    return Act("slip", amount=slip.grams, slip=slip, beneath=beneath, look_at=beneath.look_at)


def _unknown_salt(timeline: State, pot: Pot) -> bool:
    """Whether nobody tasted or measured the salt: nothing is planned before that."""
    told = timeline.started.liquid.salt.by if timeline.started else "taste"
    nobody = told in ("stock", "list") and not timeline.salt_tested and not timeline.metered
    return nobody and timeline.chosen is None and pot.salt_error > SALT_UNKNOWN


#: Salt that nobody tasted is unknown from this error on, points.
SALT_UNKNOWN = 0.06


def in_the_time_left(timeline: State, wanted: ev.Wanted) -> ev.Wanted:
    """The wish with as many minutes as are left of those there were; late already, with what the quickest way takes."""
    left = timeline.minutes_left
    return wanted if left is None else wanted.model_copy(update={"minutes": max(left, ev.FINISHING_MIN)})


def _best(pot: Pot, wanted: ev.Wanted) -> Route | None:
    """The way to propose; None where there is none."""
    try:
        best = solve_routes(pot, wanted)[0]
    except SpissusError:
        return None
    return best if best.feasible else None


def plan(timeline: State) -> Route | None:
    """The chosen route, worked out afresh from the pot as it is; None before there is one.

    Once thickener is in, or body is settled, no more boiling is planned.
    """
    if timeline.pot is None or timeline.wanted is None or timeline.chosen is None:
        return None
    return _solved(timeline.pot, timeline.wanted, timeline.chosen.route, _settled(timeline))


# A batch that is open is folded again at every entry, through the same pots.
@lru_cache(maxsize=1024)
def _solved(pot: Pot, wanted: ev.Wanted, kind: str, here: bool) -> Route:
    return solve_route(pot, wanted, kind, here=here)


def stop_of(timeline: State) -> Boiling:
    """Where boiling ends by the plan, and whether fat or a part of the pot has to come off before."""
    pot, wanted = timeline.pot, timeline.wanted
    if pot is None or wanted is None or timeline.chosen is None or timeline.finished is not None:
        return NO_BOILING
    try:
        route = plan(timeline)
    except SpissusError:
        return NO_BOILING
    if route is None or _settled(timeline):
        return NO_BOILING
    if _aside(timeline, route) or (not timeline.fat_settled and ev.fat_to_skim(pot, wanted)):
        return Boiling(None, waits=True)
    if _let_down(pot, route):
        return NO_BOILING
    bench = _Bench(timeline, wanted, pot, route, None)
    return Boiling(bench.mark_ml, by_salt=bench.way.stop == "salt")


def _settled(timeline: State) -> bool:
    """Whether boiling is over: a thickener is in, spoon or tongue found it enough, or the sauce is done."""
    return timeline.thickener_added or timeline.boiled_enough or timeline.finished is not None


def _aside(timeline: State, route: Route) -> bool:
    return route.aside_ml > 0.0 and timeline.pot is not None and timeline.pot.kept is None


def _let_down(pot: Pot, route: Route) -> bool:
    """Whether so much liquid is missing that stirring it in is worth it."""
    return route.let_down_ml > _least_liquid_ml(pot)


def _least_liquid_ml(pot: Pot) -> float:
    return max(LEAST_LIQUID_ML, LEAST_LIQUID_SHARE * pot.contents.liquid_ml)


#: A sauce of which this is sure is not asked for again; one of which that much is sure may be it already.
SURE, MAY_BE = 0.78, 0.3
#: A helping leaves at most this chance of too thick, the first less, and this chance of a full step too thick.
RISKS, LEAP_RISK = (0.15, 0.4, 0.5), 0.03
#: Liquid stirred in leaves at most this chance of too thin.
THIN_RISK = 0.3
#: A first helping of less than this share of the usual one waits for a spoon.
LEAST_FIRST = 0.4
#: Too thin once is asked again where it is right with more than this chance: a helping cannot be taken out.
DOUBT = 0.1
#: A sauce that is right by one spoon, and so many steps too thin by everything else, gets a little more.
LEANS = 0.15
#: A matter is asked of the spoon, or the tongue, so often at one content; then the ledger decides.
MOST_SPOONS, MOST_TASTES = 3, 3
#: Three quarters of what is missing, then taste.
SHARE = 0.75
#: Minutes of simmering after which what steamed away is worth a measurement, and the error of the amount that is.
WAITED_MIN, UNSURE_SHARE = 12.0, 0.05
#: A sauce this far over what is liked, points of salt, is too salty to go on with; boiling stops so far short of
#: that, that a look which comes late is not answered with water.
TOO_SALTY, SALTIER = 0.12, 0.08
#: Thought to be so far past its mark, as a share, a pot is told to be taken off before it is measured.
LATE_SHARE = 0.03
#: Less than this is not late, min. Modelling choice.
LATE_MIN = 3.0
#: Short by less than this is what was wanted, as a share.
SHORT_SHARE = 0.04


@dataclass(frozen=True, slots=True)
class _Bench:
    """A batch on its chosen way, asked subject by subject: what has to be done about it now, if anything."""

    timeline: State
    wanted: ev.Wanted
    pot: Pot
    route: Route
    ahead: Progress | None

    @property
    def seen(self) -> Pot:
        """The pot as its last event left it: what to measure it with goes by that."""
        last = self.timeline.seen.pot if isinstance(self.timeline, Timeline) else None
        return last or self.pot

    # -- amount -----------------------------------------------------------------------------------

    def aside(self) -> Act | None:
        """What the sauce needs is measured off first."""
        if not _aside(self.timeline, self.route):
            return None
        return Act("take", self.route, amount=self.pot.contents.liquid_ml - self.route.aside_ml)

    def fat(self) -> Act | None:
        """Fat is taken off before it is boiled in; and once more where too much of it stayed."""
        pot = self.pot
        if not ev.fat_to_skim(pot, self.wanted) or self.timeline.fat_settled:
            return None
        way = skim_way(pot, self.timeline.minutes_left)
        again = self.timeline.skims > 0
        return Act("skim", self.route, amount=pot.contents.fat_ml, way=way, why="still_fat" if again else None)

    def fat_again(self) -> Act | None:
        """Looked at once more before it is bound, where any was on it: afterwards it hardly rises."""
        timeline = self.timeline
        had_some = timeline.skims > 0 or self.pot.contents.fat_free > 0.0
        if timeline.fat_looked or timeline.thickener_added or not had_some or self.route.thickener is None:
            return None
        return Act("look_fat", self.route)

    def volume(self) -> Act | None:
        """Down to the mark, or up to it."""
        pot, route, timeline = self.pot, self.route, self.timeline
        if _settled(timeline):
            return None
        window = timeline.heating
        if window is not None and window.heating and window.setting.heat != "simmer":
            # What boils, boils until somebody says otherwise: a pot is never thought to wait.
            mark = self.standing_mark_ml
            late = pot.contents.liquid_ml < (1.0 - LATE_SHARE) * mark
            return self._boil(mark, why="late" if late else self._why_boil())
        # Bound as it is, and as it is meant to be: what is let down for its amount anyway is not too salty.
        salty = min(bound_salt_percent(pot, route), route.salt_before.best) - self.liking
        if salty > TOO_SALTY and not timeline.salt_tested and self.way.stop != "told":
            return self._to_the_liking()
        if _let_down(pot, route):
            boiled = window is not None and window.readings > 0
            return Act("let_down", route, amount=route.let_down_ml, why="past" if boiled else "stretch")
        if not there(timeline, self.mark_ml):
            return self._boil(self.mark_ml, why=self._why_boil())
        if self.way.stop == "taste" and not timeline.salt_tested and pot.salt_error > UNSURE_SALT:
            # What is bound is not boiled on: whether its salt allows more is asked before.
            return Act("test_salt", self.route, why="before_binding")
        return None

    def _why_boil(self) -> Why | None:
        if self.timeline.body_verdict == "low":
            return "too_thin"
        # Short of what the plan says: the cook is told why.
        route, salt_ml = self.route, bound_at_salt_ml(self.pot, self.liking + SALTIER, self.route)
        binds = route.boil_to_ml < (1.0 - LATE_SHARE) * self.mark_ml and self.mark_ml <= salt_ml
        return "salt_binds" if binds else None

    @property
    def standing_mark_ml(self) -> float:
        """The mark of a pot that boils: as the last entry left it, however far it is thought to have gone since."""
        if self.timeline.stop_ml is not None:
            return self.timeline.stop_ml
        seen = self.timeline.seen if isinstance(self.timeline, Timeline) else self.timeline
        route = plan(seen)
        if seen.pot is None or route is None:
            return self.mark_ml
        return replace(self, timeline=seen, pot=seen.pot, route=route).mark_ml

    @property
    def mark_ml(self) -> float:
        """Where boiling ends: at the mark of the way, but never past the salt that is liked, nor past the body."""
        if self.way.stop == "told":
            return min(self.route.boil_to_ml, self.pot.contents.liquid_ml)
        mark = max(self.route.boil_to_ml, bound_at_salt_ml(self.pot, self.liking + SALTIER, self.route))
        if self.way.school is None and self.way.stop == "body":
            mark = max(mark, volume_at_salt_ml(self.pot.contents, self.liking), self.wanted.amount_ml)
        elif self.route.thickener is None and mark < self.pot.contents.liquid_ml:
            # It binds by itself on the way: further it would only be let down again.
            mark = max(mark, solve(self.pot, self.wanted, "body", None).boil_to_ml)
        return min(mark, self.pot.contents.liquid_ml)

    def too_little(self) -> Act | None:
        """Bound and short of what was wanted: it is stretched, where it is meant to come to an amount."""
        if not _settled(self.timeline):
            return None
        missing = self.wanted.amount_ml - self.route.volume_ml
        least = _least_liquid_ml(self.pot)
        # Of less than half of the least that is stirred in, most would be too much.
        if self.way.stop not in ("volume", "stretch", "taste") or missing < max(
            SHORT_SHARE * self.wanted.amount_ml, 0.5 * least
        ):
            return None
        return Act("let_down", self.route, amount=max(missing, least), why="too_little")

    @property
    def way(self) -> Way:
        """The way that was chosen."""
        assert self.timeline.chosen is not None
        return WAYS[self.timeline.chosen.route]

    def _boil(self, stop_ml: float, why: Why | None = None) -> Act:
        """Boil on until the next look; where the heat is off, turn it on."""
        pot = self.pot
        # Worked out from what was seen last: past it, the mark stays where it was, above what is thought to be left.
        stop = _at_volume(self.seen.contents, stop_ml)
        finer = _finer(self.seen, self.seen.contents.liquid_ml - stop_ml)
        marks = self.seen.reads(stop)
        act = Act(
            "heat", self.route, amount=stop_ml, stop=marks, reads_by=self._reads_by(finer, marks),
            measure=finer, why=why, thought_ml=pot.contents.liquid_ml,
        )  # fmt: skip
        outlook = self.ahead.outlook(stop_ml) if self.ahead else None
        if outlook is None:
            return act
        late = self._late_min(outlook)
        expect = boiled_to_volume(pot.contents, min(outlook.expect_ml, pot.contents.liquid_ml))
        return replace(
            act, kind="boil", look_at=outlook.look_at, expect=pot.reads(expect), outlook=outlook,
            late_min=late, why="no_time" if late > 0.0 and act.why is None else act.why,
        )  # fmt: skip

    def _reads_by(self, finer: Method | Literal["spoon"] | None, mark: Reads) -> Method:
        """What a mark is told in: by what is used, or is to be used from now on; else a dip, which needs no pouring.

        No ruler reads a mark below :data:`.SHALLOW_MM`.
        """
        if finer in ("scale", "jug"):
            return finer
        if mark.dip < SHALLOW_MM:
            return "jug" if mark.scale is None else "scale"
        used, window = self.seen.measured_by, self.timeline.heating
        # Who strained into a jug does not pour a boiling pot back into it to look.
        poured = used == "jug" and window is not None and window.measured > 0
        return "jug" if poured else "scale" if used == "scale" and self.seen.pan.empty_g is not None else "dip"

    def _late_min(self, outlook: Outlook) -> float:
        """How much later than it is wanted it will be ready, boiled down to its mark, min; nothing where in time."""
        ready_by = self.timeline.ready_by
        if ready_by is None:
            return 0.0
        after = (outlook.arrives[1] - ready_by).total_seconds() / 60.0 + binding_min(self.way.school)
        return after if after > LATE_MIN else 0.0

    def measured(self) -> Act | None:
        """What steamed away while it simmered is measured once before it is salted."""
        timeline, pot = self.timeline, self.pot
        unsure = timeline.waited_min >= WAITED_MIN or pot.error_ml > UNSURE_SHARE * pot.contents.liquid_ml
        if not unsure or timeline.measured_bound or not timeline.thickener_added:
            return None
        return Act("measure", self.route, amount=pot.contents.liquid_ml, why="unsure", measure=best_method(pot))

    # -- body -------------------------------------------------------------------------------------

    @property
    def belief(self) -> Belief:
        """What the spoons say together."""
        return belief(self.timeline.spoons)

    def body(self) -> Act | None:
        """The spoon first where it may be there already; then thickener by parts, and by what the spoon taught."""
        timeline, route, aim = self.timeline, self.route, self.wanted.body
        if self.way.stop == "salt" and self.way.school is None:
            return None
        said, now = timeline.body_tested, self.pot.contents
        chances = self.belief.chances(now, aim)
        if not said:
            if timeline.thickener_added:
                return self._spoon()
            if route.thickener is None or chances.right + chances.high > MAY_BE:
                return self._spoon("may_be_thick")
            first = self._thicken()
            nominal = route.dry_g * route.thickener.first_share
            # So little that it would tell nothing: what is there already is asked of the spoon before.
            return self._spoon("may_be_thick") if first.amount < LEAST_FIRST * nominal else first
        if len(said) >= 2 and said[-1] == said[-2] == "right":
            return None
        agreed = len(said) >= 2 and said[-1] == said[-2]
        more = len(said) < MOST_SPOONS
        if said == ("low",) and timeline.thickener_added and chances.right + chances.high > DOUBT:
            return self._spoon("once_more")
        if said[-1] == "right":
            gap = self.belief.gap(now, aim)
            if chances.right >= SURE or (not more and gap > -LEANS):
                return None
            if more and (gap > -LEANS or len(said) == 1):
                return self._spoon("once_more")
            # Right at last, and thin by all the rest: a little more does less harm than none.
            return replace(self._thicken(), why="leans")
        if not agreed and more and chances.right >= SURE:
            return self._spoon("once_more")
        if not more and not agreed and chances.right > max(chances.low, chances.high):
            return None
        return self._thin() if said[-1] == "high" else self._thicken()

    def _spoon(self, why: Why | None = None) -> Act:
        """A spoonful; after a thickener once it has lost its raw taste."""
        timeline = self.timeline
        if timeline.bound_at is None or timeline.body_tested or not timeline.binders:
            return Act("test_body", self.route, why=why)
        wait = timeline.binders[-1]
        ready = timeline.bound_at + timedelta(minutes=wait[0])
        return Act("test_body", self.route, why=why, wait_min=wait, look_at=ready)

    def _school(self) -> School:
        """What binds it: the school of the way, and starch where boiling alone was not enough."""
        return self.way.school or SCHOOLS["corn_starch"]

    def _thicken(self) -> Act:
        """As much as is probably missing, and not so much that it is probably too thick."""
        school, now, aim = self._school(), self.pot.contents, self.wanted.body
        binder = solve(self.pot, self.wanted, "here", school, kind=self.route.kind)
        first = not self.timeline.thickener_added
        believed = self.belief
        risk = RISKS[min(len(self.timeline.binders), len(RISKS) - 1)]

        def gap(dry: float) -> float:
            return believed.gap(now.mixed(school.per_gram, dry), aim)

        def risky(part: float) -> float:
            after = now.mixed(school.per_gram, part)
            leap = 0.0 if first else believed.beyond(after, aim) / LEAP_RISK
            return max(believed.chances(after, aim).high / risk, leap) - 1.0

        total = _most(gap, max(2.0 * binder.dry_g, MOST_DRY_SHARE * now.mass_g))
        dry = _most(risky, total)
        if first:
            dry = min(dry, max(school.first_share * max(binder.dry_g, total), LEAST_DRY_SHARE * now.liquid_g))
        smallest = min(LEAST_DRY_G, LEAST_DRY_SHARE * now.liquid_g)
        least = max(
            smallest, LEAST_DOSE_SHARE * _flour_in(self.pot) / (flour_equivalent_g(school.per_gram.starch) or math.inf)
        )
        dry = max(dry, least)
        if binder.thickener is None:
            binder = replace(binder, thickener=school, dry_g=max(dry, total))
        return Act(
            "thicken", binder, amount=dry, prepare=PREPARED * max(total, dry), first=first,
            why=None if first else "too_thin", wait_min=(school.wait_low_min, school.wait_high_min),
        )  # fmt: skip

    def _thin(self) -> Act:
        """As much liquid as brings three quarters of the body back, unless that is probably too thin."""
        now, aim, believed = self.pot.contents, self.wanted.body, self.belief

        def with_water(grams: float) -> Contents:
            return now.with_masses(water=now.water + grams)

        def too_thick(grams: float) -> float:
            return -believed.gap(with_water(grams), aim)

        def risky(grams: float) -> float:
            return believed.chances(with_water(grams), aim).low - THIN_RISK

        missing = _most(risky, _most(too_thick, now.water))
        amount = max(SHARE * missing * SPECIFIC_VOLUME_ML_G["water"], 2.0 * _least_liquid_ml(self.pot))
        return Act("let_down", self.route, amount=amount, first=False, why="too_thick")

    # -- salt -------------------------------------------------------------------------------------

    @property
    def liking(self) -> float:
        """Salt that is liked, as told and as tasted, %."""
        return self.wanted.salt_percent + self.timeline.liking_percent

    @property
    def over(self) -> float:
        """Points of salt over what is liked."""
        return self.pot.contents.salt_percent - self.liking

    def _to_the_liking(self, least_share: float = 0.0) -> Act:
        """Unsalted liquid that brings the salt to what is liked, as much of it as is sure; at least so large a share of
        the pot."""
        now, timeline = self.pot.contents, self.timeline
        sure = 1.0 if timeline.metered else WATER_BY_TASTES[min(len(timeline.salt_tested), len(WATER_BY_TASTES) - 1)]
        missing = now.salt / (self.liking / 100.0) - now.liquid_g
        water = max(sure * missing, least_share * now.liquid_g)
        amount = max(water * SPECIFIC_VOLUME_ML_G["water"], _least_liquid_ml(self.pot))
        return Act("let_down", self.route, amount=amount, first=False, why="too_salty")

    def salt(self) -> Act | None:
        """Three quarters of what is missing, then by what the tongue taught."""
        timeline, now = self.timeline, self.pot.contents
        said, over = timeline.salt_tested, self.over
        error = math.hypot(self.pot.salt_error, timeline.liking_error)
        missing = max(-over, 0.0) / 100.0 * now.liquid_g / (1.0 - self.liking / 100.0)
        worth = missing >= LEAST_SALT_G and -over > LEAST_SALT_SHARE * self.liking
        if not said:
            if worth and -over > error and not timeline.salt_added:
                return Act("salt", self.route, amount=FIRST_SALT * missing)
            return Act("test_salt", self.route, amount=missing)
        agreed = len(said) >= 2 and _side(said[-1]) == _side(said[-2])
        side, more = _side(said[-1]), len(said) < MOST_TASTES
        good = float(ndtr((CLOSE_SALT - over) / error) - ndtr((-CLOSE_SALT - over) / error))
        if side == 0:
            if good >= SURE_SALT or agreed or not more:
                return None
            return Act("test_salt", self.route, amount=missing, why="once_more", first=False)
        if side * over < WORTH_SALT and not agreed:
            # The tongue says one thing, the ledger another: once more, and two tastes that agree have it.
            if (len(said) == 1 and said[-1] != "nearly") or (good < SURE_SALT and more):
                return Act("test_salt", self.route, amount=missing, why="once_more", first=False)
            return None
        if side < 0:
            amount = max(SHARE_SALT * missing, LEAST_SALT_SHARE / 100.0 * self.liking * now.liquid_g, LEAST_SALT_G)
            return Act("salt", self.route, amount=amount, first=False)
        return self._to_the_liking(LEAST_SALT_SHARE)


#: A helping after the first is at least this share of the flour that is in already: about a quarter of a step.
LEAST_DOSE_SHARE = 0.06
#: Salt this close to what is liked is what is liked, points; of what the tongue misses this share is added.
CLOSE_SALT, SHARE_SALT = 0.12, 0.85
#: Of the water that too much salt would need, a word at the start orders a half, a taste three quarters, two tastes
#: all of it (common practice): what is poured in cannot be taken out.
WATER_BY_TASTES = (0.5, 0.75, 1.0)
#: Salt that is known this well is not tasted before it is bound, points. Modelling choice.
UNSURE_SALT = 0.08
#: So sure of that is sure enough; less than this is not worth a change, points.
SURE_SALT, WORTH_SALT = 0.7, 0.07


def _most(over: Callable[[float], float], most: float) -> float:
    """The most, up to ``most``, at which ``over`` is not positive yet; nothing where it is from the first."""
    if most <= 0.0 or over(0.0) >= 0.0:
        return 0.0
    return most if over(most) <= 0.0 else float(brentq(over, 0.0, most, xtol=_GRAMS))


#: How exactly a helping is sought, g. Numerical choice.
_GRAMS = 0.05


def _at_volume(contents: Contents, liquid_ml: float) -> Contents:
    """Contents boiled down to a volume, or, where there is less, with the water that is missing."""
    missing = liquid_ml - contents.liquid_ml
    if missing <= 0.0:
        return boiled_to_volume(contents, liquid_ml)
    return contents.with_masses(water=contents.water + missing / SPECIFIC_VOLUME_ML_G["water"])


def _side(verdict: str) -> int:
    """Which way a taste points: too little, right, too much."""
    return {"flat": -1, "nearly": -1, "low": -1, "right": 0}.get(verdict, 1)


def _flour_in(pot: Pot) -> float:
    """Body that is in already, as flour, g."""
    body = pot.body
    return (body.flour_percent + body.pulp_percent) / 100.0 * pot.contents.liquid_g


def skim_way(pot: Pot, minutes_left: float | None = None) -> SkimWay:
    """The way of taking fat off that fits this pot and the time: overnight the cold does it, tonight a jug where the
    pot goes into one, else the spoon; the last film with paper."""
    if minutes_left is not None and minutes_left > OVERNIGHT_MIN:
        return "chill"
    if pot.contents.fat_ml <= SKIM_WAYS["paper"].most_ml:
        return "paper"
    return "separator" if pot.contents.volume_ml <= MOST_IN_A_JUG_ML else "spoon"


#: Served later than this it has the night to set, and to be finished, min. Modelling choice.
OVERNIGHT_MIN = SKIM_WAYS["chill"].minutes[1] + 60.0

#: More than this is not poured through a separator jug, mL. Modelling choice.
MOST_IN_A_JUG_ML = 2000.0


def best_method(pot: Pot) -> Method:
    """What tells best how much there is: the scale where the pan was weighed, else the jug or a dip."""
    in_pan, density = pot.contents.volume_ml * pot.share, pot.contents.density_g_ml
    methods: tuple[Method, ...] = ("jug", "dip") if pot.pan.empty_g is None else ("scale", "jug", "dip")
    return min(methods, key=lambda method: error_ml(pot.pan, method, in_pan, density))


def _finer(pot: Pot, to_lose_ml: float) -> Method | Literal["spoon"] | None:
    """What to measure with where the last method cannot tell what is left to lose; None where it can."""
    if pot.measured_by == "list":
        return None
    in_pan, density = pot.contents.volume_ml * pot.share, pot.contents.density_g_ml
    used = error_ml(pot.pan, pot.measured_by, in_pan, density) / pot.share
    if to_lose_ml >= RULER_USELESS * used:
        return None
    finer: tuple[Method, ...] = ("scale", "jug") if pot.pan.empty_g is not None else ("jug",)
    for method in finer:
        if to_lose_ml >= RULER_USELESS * error_ml(pot.pan, method, in_pan, density) / pot.share:
            return method
    return "spoon"

"""A batch worked out once: what its page, its list and its next act all use."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from datetime import datetime
from functools import cached_property
from typing import Literal, TypeVar
from uuid import UUID

from . import events as ev
from .errors import SetAsideError, SpissusError
from .estimation.forecast import Progress
from .fold import Moment, Timeline, fold, progress, unworkable
from .intake.liquid import Strained, strained_liquid
from .learning.liking import Taught, taught_likings
from .learning.rates import taught_rate
from .learning.strength import TaughtStrength, taught_strength
from .phenomena.heating import LearnedRate
from .planning.acts import Act, Alone, next_act
from .planning.bench import stop_of
from .planning.journey import Stretch, journey
from .planning.judgement import JUDGEMENT, Judgement
from .planning.plan import plan
from .planning.schedule import Ready, ready
from .planning.solving import Route
from .planning.story import Story, chosen, known_then, story
from .planning.threads import Thread, threads
from .pot import Pot
from .wish import Wish

T = TypeVar("T")

#: What may be missing from a batch while its pot and its log stay.
Part = Literal[
    "forecast", "plan", "next", "ribbon", "pot", "start", "marks", "curve", "skim", "cooling", "words", "taste", "story"
]


class Board:
    """One batch as it stands ``now``, or after its last event, its parts worked out once, when first asked for.

    A part that fails does not take the others with it: it stands in ``missing`` with its reason, and
    something plainer stands in its place.
    """

    def __init__(self, log: Iterable[ev.Event], now: datetime | None = None, judgement: Judgement = JUDGEMENT) -> None:
        self.missing: dict[Part, SpissusError] = {}
        self.now, self.judgement = now, judgement
        self.timeline = _shown(list(log), now)

    def part(self, name: Part, make: Callable[[], T], instead: T) -> T:
        """What ``make`` makes, or ``instead`` where it fails, and the reason kept."""
        try:
            return make()
        except Exception as error:  # whatever it is, the pot and the log must stay
            self.missing.setdefault(name, error if isinstance(error, SpissusError) else unworkable(error))
            return instead

    @property
    def faults(self) -> frozenset[str]:
        """Parts that are missing, and events that were set aside."""
        moments = self.timeline.moments
        return frozenset(self.missing) | {str(m.event.id) for m in moments if isinstance(m.problem, SetAsideError)}

    @cached_property
    def ahead(self) -> Progress | None:
        """What is known of the heating that is under way."""
        return self.part("forecast", lambda: progress(self.timeline.seen), None)

    @cached_property
    def taught(self) -> LearnedRate | None:
        """What the finished batch taught of its pan on its burner."""
        if not self.timeline.finished:
            return None
        return self.part("forecast", lambda: taught_rate(self.timeline), None)

    @cached_property
    def taught_likings(self) -> dict[str, Taught]:
        """What the finished batch taught of what is liked."""
        return self.part("forecast", lambda: taught_likings(self.timeline), {})

    @cached_property
    def taught_strength(self) -> TaughtStrength | None:
        """What the finished batch taught of its thickener."""
        return self.part("forecast", lambda: taught_strength(self.timeline), None)

    @cached_property
    def route(self) -> Route | None:
        """The chosen way, from the pot as it is."""
        return self.part("plan", lambda: plan(self.timeline, self.judgement), None)

    @cached_property
    def act(self) -> Act:
        """The next act; where it cannot be worked out, to look after the pot oneself."""
        alone: Act = Alone()
        return self.part("next", lambda: next_act(self.timeline, self.ahead, self.route, self.judgement), alone)

    @cached_property
    def ready(self) -> Ready | None:
        """When it will be on the table; None before a way is chosen, and once it is finished."""
        route, timeline = self.route, self.timeline
        if route is None or timeline.ended or timeline.stands_at is None:
            return None
        return self.part("plan", lambda: ready(timeline, route, self.act.doing.outlook), None)

    @cached_property
    def story(self) -> Story | None:
        """What happened over what was foreseen when its way was taken; None where none was, or nothing followed."""
        return self.part("story", self._story, None)

    def _story(self) -> Story | None:
        taken = chosen(self.timeline)
        if taken is None or not self.timeline.ended:
            return None
        then = Board(known_then(self.timeline, taken), taken.event.at, self.judgement)
        if then.route is None or then.ready is None:
            return None
        return story(self.timeline, then.timeline, then.route, then.ready, self.taught)

    @cached_property
    def strained(self) -> Strained | None:
        """What the start comes to; None without one."""
        start = self.timeline.start
        if start is None:
            return None
        return self.part("start", lambda: strained_liquid(start.pan, start.liquid), None)

    @cached_property
    def ribbon(self) -> tuple[Stretch, ...]:
        """The journey, done and planned."""
        return self.part("ribbon", lambda: journey(self.timeline, self.drawn), ())

    @cached_property
    def threads(self) -> tuple[Thread, ...]:
        """The tastes along the ribbon."""
        return self.part("taste", lambda: threads(self.timeline, self.ribbon, self.judgement), ())

    @cached_property
    def drawn(self) -> Route | None:
        """The chosen way as it is shown: it stops at the mark that the bar speaks, which stands until the next look."""
        route, mark = self.route, self.act.doing.mark
        if route is None or mark is None:
            return route
        return route.stopped_at(mark.ml, mark.reads.dip, mark.reads.scale)

    def as_drawn(self, wish: Wish, route: Route) -> Route:
        """A way to a wish; the chosen one as it is shown everywhere else, where it leads to what was agreed on."""
        drawn, agreed = self.drawn, self.timeline.asked.wanted
        if drawn is None or agreed is None or route.kind != drawn.kind or not wish.shows_as(agreed):
            return route
        return drawn


def _shown(log: list[ev.Event], now: datetime | None) -> Timeline:
    """The batch folded, without the events that leave a pot nobody can show."""
    aside: dict[UUID, SpissusError] = {}
    while True:
        timeline = fold(log, aside, stop_of=stop_of, now=now)
        pot = timeline.pot
        if pot is None:
            return timeline
        try:
            _show(pot)
        except Exception as error:
            did_it = (m for m in reversed(timeline.moments) if _could_have_changed_it(m))
            culprit = next(did_it, None)
            if culprit is None:
                return timeline.but(pot=None)
            aside[culprit.event.id] = unworkable(error)
        else:
            return timeline


def _show(pot: Pot) -> None:
    """Work out all that is shown of a pot. Raises ArithmeticError or ValueError where that is no figure."""
    body, salt = pot.body.estimate, pot.salt_percent
    figures = (pot.depth_mm, pot.fat_mm, pot.gross_g or 0.0, pot.error_ml, salt.low, salt.high, body.low, body.high)
    if not all(math.isfinite(figure) for figure in figures):
        raise ValueError("the pot it leaves has no figures")


def _could_have_changed_it(moment: Moment) -> bool:
    return moment.stands and isinstance(moment.event.payload, ev.ActsOnPot | ev.Started)

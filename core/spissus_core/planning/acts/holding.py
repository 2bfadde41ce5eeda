"""A sauce that is kept warm: what steams away is given back before it is another sauce, and it stays hot enough."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_percent, show_temperature, show_volume
from ...estimation.spoon import height
from ...estimation.window import boiled_by, ml_of
from ...events import Stage, State
from ...events.additions import DELICATE
from ...events.warmth import fresh
from ...fold import Timeline
from ...ledger.contents import Contents
from ...messages import Message, Until, say, sentences
from ...phenomena.body import body_of
from ..bench import Bench
from ..doubts import guard
from .base import Act, Answer, Rank, Sound

#: It is looked at again once so much more salt, points, or body, steps, would be tasted or seen; at the latest after so
#: many minutes, when its temperature is due, and no sooner than after some. Common practice, and modelling choices.
SALTIER, THICKER_STEPS, AT_LATEST_MIN, AT_SOONEST_MIN = 0.04, 0.2, 30.0, 10.0

#: A lid is spoken of where more than this steams away in an hour, as a share of it. Modelling choice.
WORTH_A_LID = 0.08


@dataclass(frozen=True, kw_only=True)
class Hold(Act):
    """It is kept warm at ``celsius``; ``hour_ml`` steams away in an hour, and ``gone_ml`` has by now."""

    kind: ClassVar[str] = "hold"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.HOLD
    next_words: ClassVar[Message | None] = say("bar.next_hold")
    sound: ClassVar[Sound] = "ready"

    celsius: float
    hour_ml: float
    gone_ml: float
    salt_percent: float
    wants_a_lid: bool
    parts_c: float | None

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where somebody said so."""
        window = bench.timeline.stove.window
        if window is None or not window.heating or window.setting.heat != "hold" or bench.timeline.finished:
            return None
        kj_min = max(window.track.power[0] * window.factor, 0.0)
        held, pot, since = bench.timeline.held or bench.seen.contents, bench.pot, _since(bench)
        measured = fresh(bench.timeline.probed, bench.timeline.stands_at)
        minutes = _minutes(bench, held, kj_min)
        hour_ml = ml_of(60.0 * kj_min)
        delicate = [DELICATE[key].to_c for key in bench.timeline.went_in.delicate if key in DELICATE]
        return cls(
            look_at=None if since is None else since + timedelta(minutes=minutes),
            celsius=window.setting.hold_c if measured is None else measured,
            hour_ml=hour_ml,
            gone_ml=max(held.liquid_ml - pot.contents.liquid_ml, 0.0),
            salt_percent=pot.salt_percent.best,
            wants_a_lid=hour_ml > WORTH_A_LID * pot.contents.liquid_ml,
            parts_c=min((one for one in delicate if one is not None), default=None),
        )

    @property
    def pours_ml(self) -> float:
        """What is given back."""
        return self.gone_ml

    def countdown(self) -> Message | None:
        """When it is looked at."""
        return None if self.look_at is None else say("bar.probe_in", until=Until(self.look_at))

    def said(self, timeline: State) -> Message:
        """How warm it is, and how much of it steams away."""
        lid = say("bar.hold_lid") if self.wants_a_lid else None
        return sentences(self._too_cool_or_hot(timeline), self._steams(), lid)

    def overdue(self, timeline: State) -> Message:
        """What is given back."""
        if self.gone_ml < LEAST_BACK_ML:
            return sentences(self._too_cool_or_hot(timeline), say("bar.hold_probe"))
        back = say("bar.hold_give", volume=show_volume(self.gone_ml), salt=show_percent(self.salt_percent))
        return sentences(self._too_cool_or_hot(timeline), back)

    def _steams(self) -> Message:
        return say("bar.hold", at=show_temperature(self.celsius), volume=show_volume(self.hour_ml))

    def _too_cool_or_hot(self, timeline: State) -> Message | None:
        if self.celsius < timeline.limits.hold_c:
            return say("bar.hold_too_cool", at=show_temperature(self.celsius), hot=timeline.limits.hold)
        if self.parts_c is not None and self.celsius > self.parts_c:
            return guard(timeline)
        return None

    def answers(self, timeline: State) -> list[Answer]:
        """What steamed away is back in it; a temperature; or it is served. Water is all that left it."""
        water = Answer(say("answers.water_is_in"), ev.Added(ingredient="water", volume_ml=self.gone_ml))
        stock = Answer(say("answers.stock_is_in"), ev.Added(ingredient="unsalted_stock", volume_ml=self.gone_ml))
        others = [Answer(say("answers.temperature"), asks="probe"), Answer(say("answers.finish"), ev.Finished())]
        return [water, stock, *others] if self.gone_ml >= LEAST_BACK_ML else others


#: Less than this is not worth stirring in, mL. Common practice: a spoon.
LEAST_BACK_ML = 5.0


def _since(bench: Bench) -> datetime | None:
    """When something was last said of it."""
    timeline = bench.timeline
    return timeline.seen.stands_at if isinstance(timeline, Timeline) else timeline.stands_at


def _minutes(bench: Bench, held: Contents, kj_min: float) -> float:
    """How long until it is saltier, or thicker, than it was to be kept, from where it was last seen, min."""
    seen = bench.seen
    if kj_min <= 0.0:
        return AT_LATEST_MIN
    salt, body = held.salt_percent, height(body_of(held, seen.strength).viscosity)
    minutes = AT_SOONEST_MIN
    while minutes < AT_LATEST_MIN:
        later = seen.boiled_to(boiled_by(seen.contents, (minutes + 1.0) * kj_min))
        if later.contents.salt_percent - salt > SALTIER or height(later.body.viscosity) - body > THICKER_STEPS:
            return minutes
        minutes += 1.0
    return AT_LATEST_MIN

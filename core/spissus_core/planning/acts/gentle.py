"""What must not get too hot: told by the probe before it parts, and a yolk is warmed until it binds, and no further."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_temperature
from ...events import Stage, State
from ...events.additions import DELICATE, YOLK
from ...events.state import Splits
from ...events.warmth import fresh
from ...messages import Message, say
from ..bench import Bench
from .base import Act, Answer, Rank

_PARTS: dict[Splits, str] = {"butter": "bar.butter_parts", "yolk": "bar.yolk_flakes", "cream": "bar.cream_curdles"}


@dataclass(frozen=True, kw_only=True)
class TooHot(Act):
    """The probe reads more than what is in it bears."""

    kind: ClassVar[str] = "too_hot"
    stage: ClassVar[Stage] = "season"
    rank: ClassVar[Rank] = Rank.GENTLE
    next_words: ClassVar[Message | None] = say("bar.next_cooler")

    celsius: float
    bears_c: float
    parts: Splits

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it was taken lately."""
        celsius = fresh(bench.timeline.probed, bench.timeline.stands_at)
        if celsius is None:
            return None
        over = [
            (row.to_c, row.doubt)
            for row in (DELICATE[key] for key in bench.timeline.went_in.delicate)
            if row.to_c is not None and celsius > row.to_c
        ]
        if not over:
            return None
        bears_c, parts = min(over)
        return cls(celsius=celsius, bears_c=bears_c, parts=parts)

    def said(self, timeline: State) -> Message:
        """How hot it is, and what it bears."""
        at, bears = show_temperature(self.celsius), show_temperature(self.bears_c)
        return say(_PARTS[self.parts], at=at, bears=bears)

    def answers(self, timeline: State) -> list[Answer]:
        """It is off the heat, or has cooled."""
        cooler = Answer(
            say("answers.it_is_so_hot", safe=show_temperature(self.bears_c)), ev.Probed(celsius=self.bears_c)
        )
        return [cooler, Answer(say("answers.temperature"), asks="probe")]


@dataclass(frozen=True, kw_only=True)
class WarmYolk(Act):
    """There is raw yolk in it: it is warmed until it binds, and no further."""

    kind: ClassVar[str] = "warm_yolk"
    stage: ClassVar[Stage] = "thicken"
    rank: ClassVar[Rank] = Rank.GENTLE
    next_words: ClassVar[Message | None] = say("bar.next_yolk")

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where nobody said that it is."""
        return cls() if bench.timeline.went_in.raw_yolk else None

    def said(self, timeline: State) -> Message:
        """How far."""
        yolk = DELICATE[YOLK]
        assert yolk.from_c is not None
        assert yolk.to_c is not None
        return say("bar.warm_yolk", low=show_temperature(yolk.from_c), high=show_temperature(yolk.to_c))

    def answers(self, timeline: State) -> list[Answer]:
        """It coats; or a temperature."""
        coats = Answer(say("answers.it_coats"), ev.Seen(sign="yolk_coats"))
        return [coats, Answer(say("answers.temperature"), asks="probe")]

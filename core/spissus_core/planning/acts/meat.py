"""Meat and sauce together: what is warmed in it has its clock and its probe; then it goes out plate by plate."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_temperature, show_volume
from ...events import Stage, State
from ...events.meat import GLAZE_C
from ...events.state import MeatHow
from ...messages import Message, Until, say, sentences
from ...phenomena.warming import SAFE_C
from ..bench import Bench
from ..spoken import HOLD_HOT
from .base import Act, Answer, Rank, Sound

#: What the trade asks for in the middle of reheated meat.
SAFE = show_temperature(SAFE_C)


@dataclass(frozen=True, kw_only=True)
class WarmMeat(Act):
    """Meat and sauce together: from the fridge until its middle is hot, kept warm until it is coated, or glazed."""

    kind: ClassVar[str] = "warm_meat"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.MEAT
    next_words: ClassVar[Message | None] = say("bar.next_meat")
    sound: ClassVar[Sound] = "ready"

    how: MeatHow
    parts: bool

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is in, and not hot through."""
        meat = bench.timeline.meat
        if meat is None or meat.done:
            return None
        parts = meat.how == "cold" and bool(bench.timeline.went_in.delicate)
        # In the oven it is basted twice on the way.
        return cls(look_at=meat.baste_at if meat.how == "glazed" else meat.look_at, how=meat.how, parts=parts)

    def countdown(self) -> Message | None:
        """When it is looked at."""
        return None if self.look_at is None else say("bar.probe_in", until=Until(self.look_at))

    def said(self, timeline: State) -> Message:
        """How it is kept meanwhile."""
        if self.how == "glazed":
            return say("bar.glaze_meat", oven=show_temperature(GLAZE_C), safe=SAFE)
        if self.how == "warm":
            return say("bar.coat_meat")
        return sentences(say("bar.warm_meat", safe=SAFE), say("bar.meat_parts") if self.parts else None)

    def overdue(self, timeline: State) -> Message:
        """What is asked then."""
        if self.how == "cold":
            return say("bar.probe_meat", safe=SAFE)
        return say("bar.baste_meat" if self.how == "glazed" else "bar.meat_coated")

    def answers(self, timeline: State) -> list[Answer]:
        """It is hot through, or not yet."""
        if self.how == "glazed":
            return [
                Answer(say("answers.basted"), ev.MeatProbed(ready=False)),
                Answer(say("answers.it_shines"), ev.MeatProbed(ready=True)),
            ]
        probed = Answer(say("answers.it_is_so_hot", safe=SAFE), ev.MeatProbed(celsius=SAFE_C))
        coated = Answer(say("answers.it_is_coated"), ev.MeatProbed(ready=True))
        not_yet = Answer(say("answers.not_yet"), ev.MeatProbed(ready=False))
        return [probed if self.how == "cold" else coated, not_yet]


@dataclass(frozen=True, kw_only=True)
class NextPlate(Act):
    """It goes out plate by plate, and nobody changes it any more: the next one, and how many there are to go."""

    kind: ClassVar[str] = "plate"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.PLATES
    next_words: ClassVar[Message | None] = say("bar.next_plate")

    volume_ml: float
    left: int

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where one has gone out, and there is sauce for another."""
        if not bench.timeline.table.plates:
            return None
        helping_ml, left = bench.wanted.helping_ml, bench.wanted.portions_in(bench.pot.contents.liquid_ml)
        return None if helping_ml is None or not left else cls(volume_ml=helping_ml, left=left)

    def said(self, timeline: State) -> Message:
        """How much for it, and what is kept."""
        volume = show_volume(self.volume_ml * (1.0 if timeline.pot is None else timeline.pot.expansion))
        return say("bar.plate", volume=volume, count=self.left, hot=HOLD_HOT)

    def answers(self, timeline: State) -> list[Answer]:
        """It is on the plate; or that was all."""
        return [
            Answer(say("answers.on_the_plate"), plate(timeline, self.volume_ml)),
            Answer(say("answers.that_is_all"), ev.Finished()),
        ]


@dataclass(frozen=True, kw_only=True)
class PlatesOut(Act):
    """The last plate is out, and ``volume_ml`` of sauce is left."""

    kind: ClassVar[str] = "finish"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.PLATES
    next_words: ClassVar[Message | None] = say("bar.next_serve")

    volume_ml: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where some went out, and there is no sauce for another."""
        out = bench.timeline.table.plates and NextPlate.due(bench) is None
        return cls(volume_ml=bench.pot.contents.liquid_ml) if out else None

    def said(self, timeline: State) -> Message:
        """How many, and what is left."""
        return say("bar.plates_out", count=timeline.table.plates, volume=show_volume(self.volume_ml), hot=HOLD_HOT)

    def answers(self, timeline: State) -> list[Answer]:
        """Where it is served from it is finished."""
        return [Answer(say("answers.finish"), ev.Finished(), opens="serve")]


def plate(timeline: State, helping_ml: float) -> ev.Parted:
    """A helping as it is ladled out of the pot, hot where that is."""
    expansion = 1.0 if timeline.pot is None else timeline.pot.expansion
    return ev.Parted(volume_ml=helping_ml * expansion, purpose="plate", how="under", plates=1)

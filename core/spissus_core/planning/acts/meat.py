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
from ...phenomena.evaporation import boiling_rate_g_min
from ...wish import PORTION_SLACK
from ..bench import Bench
from .base import Act, Answer, Rank, Sound

#: What the trade asks for in the middle of reheated meat.


#: What is asked of meat that is not probed.
_ASKED: dict[MeatHow, str] = {
    "warm": "bar.meat_coated",
    "glazed": "bar.baste_meat",
    "crisped": "bar.is_it_crisp",
    "oven": "bar.does_it_shine",
}


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
    oven_c: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is in, and not hot through."""
        meat = bench.timeline.meat
        if meat is None or meat.done:
            return None
        parts = meat.how == "cold" and bool(bench.timeline.went_in.delicate)
        # Glazed it is basted twice on the way.
        look_at = meat.baste_at if meat.how == "glazed" else meat.look_at
        return cls(look_at=look_at, how=meat.how, parts=parts, oven_c=meat.oven_c)

    def countdown(self) -> Message | None:
        """When it is looked at."""
        return None if self.look_at is None else say("bar.probe_in", until=Until(self.look_at))

    def said(self, timeline: State) -> Message:
        """How it is kept meanwhile."""
        if self.how == "glazed":
            return say("bar.glaze_meat", oven=show_temperature(GLAZE_C), safe=timeline.limits.reheat)
        if self.how == "crisped":
            return say("bar.crisp_meat", oven=show_temperature(self.oven_c))
        if self.how == "oven":
            return say("bar.meat_under_sauce", oven=show_temperature(self.oven_c))
        if self.how == "warm":
            return say("bar.coat_meat")
        return sentences(
            say("bar.warm_meat", safe=timeline.limits.reheat), say("bar.meat_parts") if self.parts else None
        )

    def overdue(self, timeline: State) -> Message:
        """What is asked then."""
        if self.how == "cold":
            return say("bar.probe_meat", safe=timeline.limits.reheat)
        return say(_ASKED[self.how])

    def answers(self, timeline: State) -> list[Answer]:
        """It is hot through, or not yet."""
        if self.how == "glazed":
            return [
                Answer(say("answers.basted"), ev.MeatProbed(ready=False)),
                Answer(say("answers.it_shines"), ev.MeatProbed(ready=True)),
            ]
        not_yet = Answer(say("answers.not_yet"), ev.MeatProbed(ready=False))
        if self.how in ("crisped", "oven"):
            done = say("answers.it_is_crisp" if self.how == "crisped" else "answers.it_shines")
            return [Answer(done, ev.MeatProbed(ready=True)), not_yet]
        hot = timeline.limits
        probed = Answer(say("answers.it_is_so_hot", safe=hot.reheat), ev.MeatProbed(celsius=hot.reheat_c))
        coated = Answer(say("answers.it_is_coated"), ev.MeatProbed(ready=True))
        by_probe = Answer(say("answers.another_temperature"), asks="probe_meat")
        return [probed, not_yet, by_probe] if self.how == "cold" else [coated, not_yet]


@dataclass(frozen=True, kw_only=True)
class NextPlate(Act):
    """It goes out plate by plate, and nobody changes it any more: the next one, and how many there are to go."""

    kind: ClassVar[str] = "plate"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.PLATES
    next_words: ClassVar[Message | None] = say("bar.next_plate")

    volume_ml: float
    left: int
    in_a_pan: bool

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where one has gone out, and there is sauce for another."""
        if not bench.timeline.table.plates:
            return None
        helping_ml, in_a_pan = bench.wanted.helping_ml, bench.timeline.table.in_a_pan
        if helping_ml is None:
            return None
        ladle_ml = helping_ml + (PAN_STEAMS_ML if in_a_pan else 0.0)
        left = int(bench.pot.contents.liquid_ml / ladle_ml + PORTION_SLACK)
        return cls(volume_ml=helping_ml, left=left, in_a_pan=in_a_pan) if left else None

    def said(self, timeline: State) -> Message:
        """How much for it, and what is kept."""
        hot = 1.0 if timeline.pot is None else timeline.pot.expansion
        volume = show_volume(self.volume_ml * hot)
        if self.in_a_pan:
            ladle = show_volume((self.volume_ml + PAN_STEAMS_ML) * hot)
            return say("bar.plate_in_pan", ladle=ladle, volume=volume, count=self.left)
        return say("bar.plate", volume=volume, count=self.left, hot=timeline.limits.hold)

    def answers(self, timeline: State) -> list[Answer]:
        """It is on the plate; or that was all."""
        out = in_a_hot_pan if self.in_a_pan else plate
        return [
            Answer(say("answers.on_the_plate"), out(timeline, self.volume_ml)),
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
        return say(
            "bar.plates_out", count=timeline.table.plates, volume=show_volume(self.volume_ml), hot=timeline.limits.hold
        )

    def answers(self, timeline: State) -> list[Answer]:
        """Where it is served from it is finished."""
        return [Answer(say("answers.finish"), ev.Finished(), opens="serve")]


#: A ladle that boils for a minute with its piece in a small hot pan loses so much: 0.7 kW into it. Modelling choice.
PAN_STEAMS_ML = boiling_rate_g_min(0.7).best


def in_a_hot_pan(timeline: State, helping_ml: float) -> ev.Parted:
    """A ladle that leaves a helping once it has boiled up with its piece."""
    return plate(timeline, helping_ml + PAN_STEAMS_ML).model_copy(update={"in_a_pan": True})


def plate(timeline: State, helping_ml: float) -> ev.Parted:
    """A helping as it is ladled out of the pot, hot where that is."""
    expansion = 1.0 if timeline.pot is None else timeline.pot.expansion
    return ev.Parted(volume_ml=helping_ml * expansion, purpose="plate", how="under", plates=1)

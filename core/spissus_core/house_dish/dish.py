"""The dish: what is kept of a batch, the same for others, and what is to be expected strained of it."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any, TypeVar

from .. import events as ev
from ..amounts.fields import SHELF
from ..amounts.quantities import UnitSystem
from ..errors import SpissusError
from ..fold import Timeline
from ..intake.braise import Line
from ..intake.estimated import estimate
from ..intake.liquid import StrainedLiquid, strained_liquid
from ..measuring.measurement import Measured
from ..measuring.vessels import Pan
from ..messages import say
from ..pantry.ways import WAYS
from ..phenomena.seasoning import SaltByList, SaltByMeter
from ..wish import Wish
from .wording import text_for

#: A list that foresaw less than this share of what was strained, or more than its inverse, was another list: it is
#: not held against it the next time. Modelling choice.
LIST_MAY_BE_OFF = 0.5

_T = TypeVar("_T", bound=ev.Kind)


@dataclass(frozen=True, slots=True, kw_only=True)
class HouseDish:
    """A house dish for so many ``people``.

    ``strained_ml`` is what was strained, mL at 20 °C without fat, at ``strained_percent`` of salt; it was
    ``of_its_list`` times what its list foresaw.
    """

    people: int
    started: ev.Started
    wanted: ev.Wanted | None
    chosen: ev.Chosen | None
    added: tuple[ev.Added, ...]
    strained_ml: float
    strained_percent: float
    of_its_list: float

    @classmethod
    def of(cls, people: int, told: Sequence[ev.Kind]) -> HouseDish:
        """A dish of the start, the wish, the way and what was stirred in, as they were said.

        Raises
        ------
        SpissusError : its start cannot be read, or worked out.
        """
        started = _last(told, ev.Started)
        if started is None:
            raise SpissusError("start", say("batch.start_unreadable"))
        strained, braise = strained_liquid(started.pan, started.liquid).contents, started.liquid.braise
        times = 1.0
        if braise is not None and braise.counted and started.liquid.measured is not None:
            times = strained.liquid_ml / estimate(braise, started.pan).liquid_ml.best
        return cls(
            people=people,
            started=started,
            wanted=_last(told, ev.Wanted),
            chosen=_last(told, ev.Chosen),
            added=tuple(one for one in told if isinstance(one, ev.Added)),
            strained_ml=strained.liquid_ml,
            strained_percent=strained.salt_percent,
            of_its_list=times if LIST_MAY_BE_OFF <= times <= 1.0 / LIST_MAY_BE_OFF else 1.0,
        )

    @classmethod
    def recorded(cls, people: int, entries: Sequence[object], version: int) -> HouseDish:
        """A dish as it was kept, in the words of that version of the events. Raises as :meth:`of` does."""
        return cls.of(people, [ev.recorded(entry, version) for entry in entries])

    @property
    def entries(self) -> list[dict[str, Any]]:
        """The dish as it is kept, in today's words."""
        told: tuple[ev.Kind | None, ...] = (self.started, self.wanted, self.chosen, *self.added)
        return [one.model_dump(mode="json") for one in told if one is not None]

    @property
    def lines(self) -> tuple[Line, ...]:
        """What went into the braise, where that was told."""
        return () if self.started.liquid.braise is None else self.started.liquid.braise.lines

    @property
    def allergens(self) -> tuple[str, ...]:
        """What somebody may not have, of everything that is told of it."""
        way = WAYS.get(self.chosen.route) if self.chosen is not None else None
        own = None if self.chosen is None else self.chosen.school
        school = own or (None if way is None else way.school)
        bound = () if school is None else school.allergens
        listed = [name for line in self.lines if line.counts for name in line.what.allergens]
        return tuple(sorted({*bound, *listed, *(name for one in self.added for name in one.allergens)}))

    def for_people(self, people: int, units: UnitSystem = "metric") -> HouseDish:
        """The same for others: every mass times as much, and nothing that is a time."""
        if people == self.people:
            return self
        times = people / self.people
        braise = self.started.liquid.braise
        if braise is not None:
            lines = tuple(_line_for(line, times, units) for line in braise.lines)
            braise = braise.model_copy(update={"lines": lines})
        liquid = self.started.liquid.model_copy(update={"braise": braise})
        return replace(
            self,
            people=people,
            started=self.started.model_copy(update={"liquid": liquid}),
            wanted=None if self.wanted is None else _wanted_for(self.wanted, times),
            added=tuple(_added_for(one, times) for one in self.added),
            strained_ml=self.strained_ml * times,
        )

    def wished(self, salt_percent: float | None = None, body: int | None = None) -> HouseDish:
        """The same with another salt, % by weight, or another body on the ladder; what is not said stays.

        Raises
        ------
        SpissusError : nothing was wished for with it.
        """
        if self.wanted is None:
            raise SpissusError("wanted", say("house_dishes.nothing_wished"))
        salt = self.wanted.salt_percent if salt_percent is None else salt_percent
        told: dict[str, Any] = {"salt_percent": salt, "ceiling_percent": max(self.wanted.ceiling_percent, salt)}
        told |= {} if body is None else {"body": body}
        return replace(self, wanted=self.wanted.model_copy(update=told))

    def liquid_in(self, pan: Pan) -> StrainedLiquid:
        """What is to be expected strained, with nothing measured yet: by its list, cooked in that pan.

        Where it was measured, it is taken to be off its list by the same share again. Without a list it is as much as
        it was, and as salty.
        """
        braise, character = self.started.liquid.braise, self.started.liquid.character
        if braise is None or not braise.counted:
            salt = SaltByMeter(by="meter", percent=self.strained_percent)
            return StrainedLiquid(measured=_jugged(self.strained_ml), salt=salt, character=character)
        listed = estimate(braise, pan)
        # Its fat stands on it, in a jug too.
        foreseen_ml = listed.liquid_ml.best * self.of_its_list + listed.contents.fat_ml
        salt_by_list = SaltByList(by="list")
        return StrainedLiquid(measured=_jugged(foreseen_ml), salt=salt_by_list, character=character, braise=braise)


def _jugged(ml: float) -> Measured:
    """So much, mL at 20 °C, however much that is."""
    return Measured.model_construct(method="jug", value=ml, hot=False)


def _last(read: Iterable[ev.Kind], kind: type[_T]) -> _T | None:
    return next((one for one in reversed(list(read)) if isinstance(one, kind)), None)


def kept_from(timeline: Timeline, people: int) -> HouseDish:
    """A batch as a house dish, for so many people as it was for.

    What was told of the pot by a weight, or by what boils away, is kept as the volume that it came to; the hour is
    not kept.

    Raises
    ------
    SpissusError : its start cannot be read, or nobody eats it.
    """
    wanted = timeline.asked.wanted
    told: list[ev.Kind] = []
    for one in (moment.event.payload for moment in timeline.moments if moment.stands):
        match one:
            case ev.Started():
                told.append(one.model_copy(update={"liquid": one.liquid.model_copy(update={"kept": None})}))
            case ev.Chosen() | ev.Added():
                told.append(one)
    if wanted is not None:
        told.append(ev.Wanted.model_validate(_untimed(wanted), context=SHELF))
    return HouseDish.of(people, told)


def _untimed(wanted: Wish) -> dict[str, Any]:
    told = wanted.model_dump(mode="json") | {"kind": "wanted", "minutes": None, "clock": None, "time_zone": None}
    if wanted.told_by in ("gone_ml", "gross_g", "minutes"):
        told |= {"gone_ml": None, "gross_g": None, "volume_ml": wanted.amount_ml}
    return told


def _line_for(line: Line, times: float, units: UnitSystem) -> Line:
    """The line for others, in the words it was told in where they still say what they mean."""
    if line.mass_g is None and line.volume_ml is None:
        return line
    mass = None if line.mass_g is None else line.mass_g * times
    volume = None if line.volume_ml is None else line.volume_ml * times
    more = line.model_copy(update={"mass_g": mass, "volume_ml": volume})
    return more.model_copy(update={"text": text_for(more, line.text, times, units)}) if more.counts else more


def _wanted_for(wanted: ev.Wanted, times: float) -> ev.Wanted:
    def heads(count: int | None) -> int | None:
        return None if count is None else max(math.floor(count * times + 0.5), 1)

    volume = None if wanted.volume_ml is None else wanted.volume_ml * times
    more = {"volume_ml": volume, "portions": heads(wanted.portions), "people": heads(wanted.people)}
    return wanted.model_copy(update=more)


def _added_for(added: ev.Added, times: float) -> ev.Added:
    mass, volume = added.mass_g, added.volume_ml
    return added.model_copy(
        update={
            "mass_g": None if mass is None else mass * times,
            "volume_ml": None if volume is None else volume * times,
        }
    )

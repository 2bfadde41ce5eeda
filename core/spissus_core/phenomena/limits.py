"""The limits of cooling, keeping hot and reheating: by place, and a kitchen's own where they are stricter.

Aids, not a safety certificate: local food rules and the kitchen's own food-safety plan come first.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, NamedTuple, Self

from pydantic import BaseModel, ConfigDict, Field

from ..amounts.fields import Celsius, Minutes
from ..amounts.quantities import show_minutes, show_temperature
from ..amounts.rows import Row
from ..amounts.tables import one_of, table
from ..errors import MeasurementError
from ..messages import Shown, say

#: Own limits stay within what a kitchen can do: kept hot and reheated below a bare simmer, cold above freezing, and not
#: cooled within less than so many minutes, °C and min. Modelling choices.
HOTTEST_C, COLDEST_C, QUICKEST_MIN = 85.0, 0.0, 15.0


class Due(BaseModel):
    """A temperature, °C, that is to be reached within so many minutes of the start of the clock."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    celsius: Celsius
    minutes: Minutes


class Limits(BaseModel):
    """What counts as safe at a place: a row of ``data/limits.csv``, or stricter.

    The clock of cooling starts below ``starts_c``; ``cooled`` is what is due then, the coldest last. Food is kept hot
    at ``hold_c`` or above, and heated again to ``reheat_c`` in its thickest part. It is written whole into a batch, so
    that a verdict stays what it was.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    place: Annotated[str, *one_of("limits", outlives=True)] = "us"
    starts_c: Celsius
    cooled: Annotated[tuple[Due, ...], Field(min_length=1, max_length=2)]
    hold_c: Celsius
    reheat_c: Celsius

    @property
    def label(self) -> str:
        """Whose they are."""
        return PLACES[self.place].label if self.place in PLACES else self.place

    @property
    def cold(self) -> Due:
        """What ends the cooling."""
        return self.cooled[-1]

    @property
    def hold(self) -> Shown:
        """The temperature above which it is kept hot."""
        return show_temperature(self.hold_c)

    @property
    def reheat(self) -> Shown:
        """The temperature to which it is heated again."""
        return show_temperature(self.reheat_c)

    def stricter(
        self,
        *,
        hold_c: float | None = None,
        reheat_c: float | None = None,
        cold_c: float | None = None,
        cold_min: float | None = None,
    ) -> Self:
        """The same with a kitchen's own figures, °C and min.

        Raises
        ------
        MeasurementError : one of them, named by its field, is laxer than the place's, or beyond what a kitchen can do.
        """
        _within("hold_c", hold_c, self.hold_c, HOTTEST_C)
        _within("reheat_c", reheat_c, self.reheat_c, HOTTEST_C)
        _within("cold_c", cold_c, COLDEST_C, self.cold.celsius)
        _within("cold_min", cold_min, QUICKEST_MIN, self.cold.minutes, show=show_minutes)
        cold = Due(
            celsius=self.cold.celsius if cold_c is None else cold_c,
            minutes=self.cold.minutes if cold_min is None else cold_min,
        )
        # What was to be reached on the way is of no use once all of it is due sooner.
        before = tuple(due for due in self.cooled[:-1] if due.minutes < cold.minutes)
        return self.model_copy(
            update={
                "cooled": (*before, cold),
                "hold_c": self.hold_c if hold_c is None else hold_c,
                "reheat_c": self.reheat_c if reheat_c is None else reheat_c,
            }
        )


def _within(
    field: str, figure: float | None, low: float, high: float, show: Callable[[float], Shown] = show_temperature
) -> None:
    if figure is not None and not low <= figure <= high:
        raise MeasurementError(field, say("kitchen.own_limit", low=show(low), high=show(high)))


class Place(NamedTuple):
    """A place, what is common or required there, and where that stands."""

    key: str
    label: str
    limits: Limits
    source: str


def _place(row: Row) -> Place:
    pairs = [(row["first_c"], row["first_min"]), (row["cold_c"], row["cold_min"])]
    limits = Limits(
        place=row["key"],
        starts_c=float(row["starts_c"]),
        cooled=tuple(Due(celsius=float(celsius), minutes=float(minutes)) for celsius, minutes in pairs if celsius),
        hold_c=float(row["hold_c"]),
        reheat_c=float(row["reheat_c"]),
    )
    return Place(row["key"], row["label"], limits, row["source"])


#: By their keys.
PLACES: Mapping[str, Place] = table("limits", _place)

#: Where nobody said which: the place of the clock that most sources of the trade go by.
USUAL = PLACES["us"].limits

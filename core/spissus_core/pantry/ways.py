"""Ways to a sauce: how much of the pot it is made of, times where boiling stops, times what binds it.

A way is composed of rows: of ``data/stops.csv``, which says what a stop is called and what goes with it, and of
``data/schools.csv``. One more row of either is all that a new way costs. Of the schools two are proposed by themselves;
those of ``data/choosing.csv`` may be asked for, and one place is kept for a mixture of the kitchen's own.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Literal, cast, get_args

from ..amounts.rows import Row, rows
from ..messages import Argument, Term, say
from .schools import OWN_PLACE, OWN_SCHOOL, SCHOOLS, School

#: How much of the pot makes the sauce.
Part = Literal["all", "part"]

#: Where a way stops: at the wanted body, volume or salt, with what is in the pot, let down to the salt and to
#: the volume, whichever is more, as far down as the time goes, where the cook said, or where it tastes of enough.
Stop = Literal["body", "volume", "salt", "here", "stretch", "time", "told", "taste"]

#: What a way with nothing added is called in its key, and to a cook.
ALONE, NOTHING_ADDED = "alone", "nothing added"

#: What a way is called where it turns out that nothing is to be done but to salt it.
AS_IT_IS = "As it is"


@dataclass(frozen=True, slots=True)
class Way:
    """A way that is offered: of how much of the pot, where it stops, and the school it binds with, if any.

    ``bare`` is its name where it turns out to need nothing added, and ``flag`` where there is room for two or three
    words.
    """

    key: str
    label: str
    bare: str
    flag: str
    part: bool
    stop: Stop
    school: School | None

    @property
    def with_own(self) -> bool:
        """Whether it is made with a mixture of the kitchen's own."""
        return self.school is not None and self.school.key == OWN_PLACE

    def called(self, school: School | None) -> Argument:
        """What it is called with that school in it: by the name of a mixture, where it is one."""
        if not self.with_own or school is None or not school.like:
            return Term(self.label)
        return say("routes.with_own", way=Term(self.label), own=school.label)


#: The schools that may be asked for besides those that are offered.
ASKED_FOR: frozenset[str] = frozenset(row["key"] for row in rows("choosing"))


def _binders(stop: Row) -> Iterator[School | None]:
    """What a stop is bound with, the lasting ones first, and nothing last where it may be left alone."""
    for school in SCHOOLS.values():
        if (school.offered or school.key in ASKED_FOR) and stop["binders"] in ("every", school.sort):
            yield school
    if stop["binders"]:
        yield OWN_SCHOOL
    if stop["alone"]:
        yield None


def _ways() -> Iterator[Way]:
    for stop in rows("stops"):
        for part in get_args(Part):
            if not stop[part]:
                continue
            for school in _binders(stop):
                key = f"{part}-{stop['key']}-{school.key if school else ALONE}"
                bare = f"{stop['bare'] or stop[part]}, {NOTHING_ADDED}"
                label = f"{stop[part]}, {school.words}" if school and school.words else stop[part] if school else bare
                yield Way(key, label, bare, stop[f"{part}_flag"], part == "part", cast(Stop, stop["key"]), school)


#: Every way there is, by its key.
WAYS: Mapping[str, Way] = MappingProxyType({way.key: way for way in _ways()})


def ways_with(asked: Iterable[str] = ()) -> Iterator[Way]:
    """The ways that are proposed by themselves, and those with the schools that were ``asked`` for."""
    wanted = frozenset(asked)
    return (way for way in WAYS.values() if way.school is None or way.school.offered or way.school.key in wanted)


#: What ways were called before they were composed, by the names of then.
EARLIER: Mapping[str, str] = MappingProxyType({row["key"]: row["way"] for row in rows("earlier_ways")})

#: What binds where nothing was told: the first of the quick ones, which can be added to as it boils (common practice).
USUAL_BINDER = next(school for school in SCHOOLS.values() if school.offered and school.sort == "quick")

#: What is left to do where there is no time to boil: all of it is bound as it is, by what is quickest.
QUICKEST = min(
    (way for way in ways_with() if way.stop == "here" and not way.part and way.school is not None),
    key=lambda way: way.school.work_min if way.school else 0.0,
)

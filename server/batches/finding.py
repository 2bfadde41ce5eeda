"""Finding a batch by its words: its name, what went in, what was noted, how it was. PostgreSQL's own index of words."""

from __future__ import annotations

import re
from datetime import UTC, datetime

from django.contrib.postgres.search import SearchQuery
from django.db.models import QuerySet
from spissus_core import events as ev
from spissus_core.amounts.fields import zone_of
from spissus_core.fold import Timeline

from .models import WORDS, Batch

#: Words longer than this, and more than so many, find nothing more. Modelling choices.
LONGEST, MOST = 40, 8

#: No more than so many characters of a batch are indexed: its first words say what it is. Modelling choice.
MOST_INDEXED = 8000

_WORD = re.compile(r"\w+")
#: A day of the calendar as figures: zeros before them find nothing more.
_ZERO = re.compile(r"^0+(?=\d)")

MONTHS = (
    *("january", "february", "march", "april", "may", "june", "july"),
    *("august", "september", "october", "november", "december"),
)
WEEKDAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")


def day_of(begun: datetime, time_zone: str) -> str:
    """The day of a batch as somebody may write it, by the clock of its kitchen.

    >>> from datetime import UTC
    >>> day_of(datetime(2026, 11, 9, 23, 30, tzinfo=UTC), "Europe/Athens")
    '2026 11 10 november tuesday'
    """
    here = begun.astimezone(zone_of(time_zone) or UTC)
    return f"{here.year} {here.month} {here.day} {MONTHS[here.month - 1]} {WEEKDAYS[here.weekday()]}"


def words_of(timeline: Timeline, day: str) -> str:
    """Everything by which somebody may look for a batch, besides its name: its day, its pan, ingredients, remarks, how
    it was."""
    start, stood = timeline.start, [moment.event.payload for moment in timeline.moments if moment.stands]
    found = [day, *([] if timeline.pot is None else [timeline.pot.pan.name])]
    if start is not None and start.liquid.braise is not None:
        found += [line.text for line in start.liquid.braise.lines]
    for said in stood:
        match said:
            case ev.Added():
                found.append(said.what.name)
            case ev.Thickened():
                found.append(said.school.label if said.school else said.thickener)
            case ev.Noted() | ev.NextTime():
                found.append(said.text)
            case ev.Rated():
                found.append(ev.POINTS.get(said.points, ""))
    return " ".join(dict.fromkeys(found))[:MOST_INDEXED]


def found_by(batches: QuerySet[Batch], text: str) -> QuerySet[Batch]:
    """Those of them in which every word stands, or begins one; none for a text without any."""
    words = [_ZERO.sub("", word[:LONGEST]) for word in _WORD.findall(text)][:MOST]
    if not words:
        return batches.none()
    query = SearchQuery(" & ".join(f"{word}:*" for word in words), search_type="raw", config=WORDS)
    return batches.filter(index=query)

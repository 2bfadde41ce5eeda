"""Finding a batch by its words: its name, what went in, what was noted, how it was. PostgreSQL's own index of words."""

from __future__ import annotations

import re

from django.contrib.postgres.search import SearchQuery, SearchVector
from django.db.models import QuerySet
from spissus_core import events as ev
from spissus_core.fold import Timeline

from .models import WORDS, Batch

#: Words longer than this, and more than so many, find nothing more. Modelling choices.
LONGEST, MOST = 40, 8

#: No more than so many characters of a batch are indexed: its first words say what it is. Modelling choice.
MOST_INDEXED = 8000

_WORD = re.compile(r"\w+")


def words_of(timeline: Timeline) -> str:
    """Everything by which somebody may look for a batch, besides its name: pan, ingredients, remarks, how it was."""
    start, stood = timeline.start, [moment.event.payload for moment in timeline.moments if moment.stands]
    found = [] if timeline.pot is None else [timeline.pot.pan.name]
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
    words = [word[:LONGEST] for word in _WORD.findall(text)][:MOST]
    if not words:
        return batches.none()
    query = SearchQuery(" & ".join(f"{word}:*" for word in words), search_type="raw", config=WORDS)
    return batches.annotate(found=SearchVector("name", "words", config=WORDS)).filter(found=query)

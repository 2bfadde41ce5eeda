"""A batch as plain text: what it came to, what was done, and everything that happened, to print or to send."""

from __future__ import annotations

from spissus_core.planning.account import account
from words import plain

from . import Told, written

TEXT = "text/plain; charset=utf-8"


@written("batch.txt", TEXT)
def _text_of(told: Told) -> bytes:
    """A line an entry."""
    timeline = told.board.timeline
    done = account(timeline)
    lines = [told.name, "" if done is None else plain(done, told.units), ""]
    for moment in timeline.moments:
        said = plain(moment.event.payload.said(), told.units)
        lines.append(f"{moment.event.at:%Y-%m-%d %H:%M} UTC  {said}{'' if moment.stands else '  (does not count)'}")
    return ("\n".join(lines) + "\n").encode()

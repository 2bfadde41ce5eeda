"""What goes in last: what an entry would change, and what may finish a sauce, as the page shows it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from shared.shapes import RangeOut, SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.messages import say
from spissus_core.pantry.guests import AVOIDED_WORDS
from spissus_core.phenomena.palate import Side
from spissus_core.planning.finishing import Lack, Offer, finishes
from spissus_core.planning.foreseen import Change, foreseen
from spissus_core.planning.threads import Drawn, Thread
from spissus_core.pot import Pot
from spissus_core.wish import Wish

from .pot import word


class ChangeOut(Shape):
    """One thing that would change; ``hurts`` where it would be worse for what is wanted; ``how`` is its arithmetic."""

    said: SaidOut
    hurts: bool
    how: SaidOut | None


class ForeseenOut(Shape):
    """All that an entry would change which anybody would notice, what hurts first; ``nothing`` says that it is none.

    ``barred`` says that somebody at the table must not have it.
    """

    changes: list[ChangeOut]
    nothing: SaidOut | None
    barred: SaidOut | None


class ThreadOut(Shape):
    """One taste along the ribbon; see ``spissus_core.planning.threads.Thread``.

    Levels are shares of its lane; ``starts`` and ``ends`` are it at both ends of each stretch of the ribbon.
    """

    of: Drawn
    starts: list[float]
    ends: list[float]
    now: RangeOut
    end: float
    gate_low: float
    gate_high: float
    word: SaidOut
    end_word: SaidOut | None
    figure: SaidOut
    how: SaidOut
    stands: Side
    tasted: bool


def thread_out(thread: Thread) -> ThreadOut:
    """A taste as it is drawn."""
    return ThreadOut(
        of=thread.of,
        starts=[start for start, _ in thread.path],
        ends=[end for _, end in thread.path],
        now=RangeOut.of(thread.now),
        end=thread.end,
        gate_low=thread.gate.low,
        gate_high=thread.gate.high,
        word=SaidOut.of(thread.word),
        end_word=SaidOut.maybe(thread.end_word),
        figure=SaidOut.of(thread.figure),
        how=SaidOut.of(thread.how),
        stands=thread.stands,
        tasted=thread.tasted,
    )


class FinishOut(Shape):
    """The first step of something that a sauce may lack: ``payload`` records that it went in."""

    key: str
    lacks: Lack
    name: str
    amount: ShownOut
    how: str
    changes: list[ChangeOut]
    barred: SaidOut | None
    payload: dict[str, Any]


def foreseen_out(payload: ev.Kind, before: Pot, after: Pot, wanted: Wish | None) -> ForeseenOut:
    """What an entry changes of a pot, and what it brings that somebody may not eat."""
    allergens = payload.allergens if isinstance(payload, ev.Added | ev.Thickened) else ()
    cold = payload.cold if isinstance(payload, ev.Added) else None
    changes = _changes(foreseen(before, after, wanted, cold), allergens, wanted)
    return ForeseenOut(
        changes=changes,
        nothing=None if changes else SaidOut.of(say("foreseen.nothing")),
        barred=_barred(allergens, wanted),
    )


def finishes_out(state: ev.State, pot: Pot) -> list[FinishOut]:
    """What may finish this pot."""
    wanted = state.asked.wanted
    liking = None if wanted is None else wanted.salt_percent + state.judged.liking_percent
    return [_finish_out(offer, wanted) for offer in finishes(pot, wanted, liking)]


def _finish_out(offer: Offer, wanted: Wish | None) -> FinishOut:
    return FinishOut(
        key=offer.finish.key,
        lacks=offer.finish.lacks,
        name=word(offer.finish.name),
        amount=ShownOut.of(offer.amount),
        how=word(offer.finish.how),
        changes=_changes(offer.changes, offer.added.allergens, wanted),
        barred=_barred(offer.added.allergens, wanted),
        payload=offer.entry.model_dump(exclude_none=True),
    )


def _changes(found: tuple[Change, ...], allergens: tuple[str, ...], wanted: Wish | None) -> list[ChangeOut]:
    changes = [ChangeOut(said=SaidOut.of(one.said), hurts=one.hurts, how=SaidOut.of(one.how)) for one in found]
    if allergens:
        brings = say("foreseen.brings", allergens=_named(allergens))
        avoided = wanted is not None and bool(set(allergens) & set(wanted.avoid))
        place = 0 if avoided else len(changes)
        changes.insert(place, ChangeOut(said=SaidOut.of(brings), hurts=avoided, how=None))
    return changes


def _barred(allergens: tuple[str, ...], wanted: Wish | None) -> SaidOut | None:
    held = [] if wanted is None else [key for key in allergens if key in wanted.avoid]
    return SaidOut.of(say("foreseen.barred", allergens=_named(held))) if held else None


def _named(allergens: Iterable[str]) -> str:
    return ", ".join(word(AVOIDED_WORDS.get(key, key)) for key in allergens)

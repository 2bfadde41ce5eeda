"""The account of a batch: what was done, in one sentence that it can be cooked from again."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from itertools import pairwise

from .. import events as ev
from ..amounts.quantities import show_mass, show_minutes, show_number, show_percent, show_volume
from ..fold import Moment, Timeline
from ..ledger.contents import Contents
from ..messages import Argument, Message, Term, say, several
from ..pot import Pot

#: What steams away between two entries is boiled where it is more than this, mL. Modelling choice.
BOILED_ML = 15.0


def account(timeline: Timeline) -> Message | None:
    """What was done, in its order: boiled, skimmed, set aside, bound, stirred in, salted; and what came of it.

    None where there is no pot.
    """
    pot, stood = timeline.pot, [moment for moment in timeline.moments if moment.stands and moment.pot is not None]
    if pot is None or not stood:
        return None
    binds = next((n for n, one in enumerate(stood) if isinstance(one.event.payload, ev.Thickened)), len(stood))
    steps = [
        *_fat(stood),
        *_aside(stood),
        # What simmers once it is bound is no mark to stop at.
        *_boiled(stood[: binds + 1]),
        *_bound(stood),
        *_stirred_in(stood),
        *_salted(stood),
    ]
    came: dict[str, Argument] = {
        "body": Term(pot.body.step.everyday),
        "salt": show_percent(pot.contents.salt_percent),
        "volume": show_volume(timeline.made_ml),
    }
    if not steps:
        return say("account.nothing", **came)
    return say("account.whole", steps=several("clauses", *steps), **came)


def _boiled(stood: list[Moment]) -> Iterator[Message]:
    """From how much to how much in how long, over everything that boiled away."""
    stretches = [
        (before.pot, after, (moment.event.at - before.event.at).total_seconds() / 60.0)
        for before, moment in pairwise(stood)
        if before.pot
        and (after := _came_to(moment))
        and before.pot.contents.liquid_ml - after.contents.liquid_ml > BOILED_ML
    ]
    if not stretches:
        return
    first, last = stretches[0][0], stretches[-1][1]
    minutes = sum(taken for _, _, taken in stretches)
    yield say(
        "account.boiled",
        before=show_volume(first.contents.liquid_ml),
        after=show_volume(last.contents.liquid_ml),
        time=show_minutes(minutes),
    )


def _came_to(moment: Moment) -> Pot | None:
    """The pot that an entry found: as a reading showed it, where it is one."""
    return moment.pot if isinstance(moment.event.payload, ev.Read) else moment.found


def _fat(stood: list[Moment]) -> Iterator[Message]:
    off = _lost(stood, ev.Skimmed, lambda contents: contents.fat_ml)
    if off > 1.0:
        yield say("account.fat", fat=show_volume(off))


def _aside(stood: list[Moment]) -> Iterator[Message]:
    rest = [
        one for one in stood if not (isinstance(one.event.payload, ev.Parted) and one.event.payload.purpose == "plate")
    ]
    off = _lost(rest, ev.Parted, lambda contents: contents.liquid_ml)
    off += _lost(stood, ev.Taken, lambda contents: contents.liquid_ml)
    if off > 1.0:
        yield say("account.aside", volume=show_volume(off))


def _lost(stood: list[Moment], kind: type[ev.Kind], of: Callable[[Contents], float]) -> float:
    """How much of something entries of a kind took out of the pot."""
    return sum(
        max(of(moment.found.contents) - of(moment.pot.contents), 0.0)
        for moment in stood
        if isinstance(moment.event.payload, kind) and moment.found and moment.pot
    )


def _bound(stood: list[Moment]) -> Iterator[Message]:
    for dry, grams in _by((said.named, said.dry_g) for said in _payloads(stood) if isinstance(said, ev.Thickened)):
        yield say("account.bound", mass=show_mass(sum(grams)), what=dry, count=len(grams))


def _stirred_in(stood: list[Moment]) -> Iterator[Message]:
    for said in _payloads(stood):
        if isinstance(said, ev.PouredIn):
            yield say("account.added", amount=show_volume(said.volume_ml), what=said.what.name)
    added = [said for said in _payloads(stood) if isinstance(said, ev.Added)]
    for what, amounts in _by((said.named, said.volume_ml) for said in added if said.volume_ml is not None):
        yield say("account.added", amount=show_volume(sum(amounts)), what=what)
    for what, amounts in _by((said.named, said.mass_g) for said in added if said.mass_g is not None):
        yield say("account.added", amount=show_mass(sum(amounts)), what=what)


def _salted(stood: list[Moment]) -> Iterator[Message]:
    grams = sum(said.salt_g for said in _payloads(stood) if isinstance(said, ev.Salted))
    if grams > 0.0:
        yield say("account.salt", mass=show_number(grams, 1, "g"))


def _payloads(stood: Iterable[Moment]) -> list[ev.Kind]:
    return [moment.event.payload for moment in stood]


def _by(pairs: Iterable[tuple[Argument, float]]) -> Iterator[tuple[Argument, list[float]]]:
    """Amounts of the same thing together, in the order in which it came first."""
    found: dict[Argument, list[float]] = {}
    for what, amount in pairs:
        found.setdefault(what, []).append(amount)
    return iter(found.items())

"""A fold that goes on from what was folded before comes to exactly what one from zero comes to."""

from __future__ import annotations

import random
import sys
import tracemalloc
from collections.abc import Sequence
from datetime import timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import EVENING, event, fold, read, started, wanted
from spissus_core import events as ev
from spissus_core import fold as folding
from spissus_core.fold import REMEMBERED, Memory
from spissus_core.planning.bench import stop_of

#: What may happen next; a number is a place in the log that a correction is about.
NEXT = st.one_of(
    st.sampled_from(
        [
            ev.Salted(salt_g=2),
            ev.Skimmed(way="spoon"),
            read("scale", 2600),
            read("dip", "30 mm"),
            read("jug", "1.1 l"),
            ev.Heated(heat="boil"),
            ev.Heated(heat="off"),
            ev.Tested(of="salt", verdict="flat"),
            ev.Thickened(thickener="white_roux", dry_g=10),
            ev.Metered(percent=0.8),
            wanted(700),
            wanted(1000),
            ev.Chosen(route="all-volume-white_roux"),
            ev.Added(ingredient="butter", mass_g=20),
            started("1.5 l", fat_ml="30 ml"),
        ]
    ),
    st.tuples(st.sampled_from(["strike", "date", "late", "device"]), st.integers(0, 30)),
)


def entry(log: Sequence[ev.Event], what: ev.Kind | tuple[str, int]) -> ev.Event:
    """The next event of a log: a new one, or a word on an earlier one."""
    seq, minute = len(log) + 1, 4.0 * len(log)
    if not isinstance(what, tuple):
        return event(seq, what, minute=minute)
    how, place = what
    about = log[place % len(log)]
    if how == "strike":
        return event(seq, ev.Struck(event=about.id), minute=minute)
    if how == "date":
        return event(seq, ev.Dated(event=about.id, at=about.at - timedelta(minutes=3)), minute=minute)
    if how == "late":
        return event(seq, ev.Salted(salt_g=1), minute=max(minute - 9.0, 0.0))
    return event(seq, read("scale", 2700 - place), minute=max(minute - 6.0, 0.0)).model_copy(update={"device": "scale"})


def told(log: Sequence[ev.Event], minute: float) -> str:
    """All that a fold comes to, in words."""
    timeline = fold(log, now=EVENING + timedelta(minutes=minute))
    moments = [(m.event, m.pot, m.found, m.struck, str(m.problem)) for m in timeline.moments]
    return repr((moments, {name: value for name, value in vars(timeline).items() if name != "moments"}))


@settings(max_examples=60, deadline=None)
@given(st.lists(NEXT, max_size=14))
def test_going_on_comes_to_the_same_as_from_zero(steps: list[ev.Kind | tuple[str, int]]) -> None:
    log = [event(1, started("1.6 l", fat_ml="60 ml"), minute=0)]
    for what in [wanted(900), ev.Chosen(route="all-volume-white_roux"), *steps]:
        log.append(entry(log, what))
        went_on = told(log, 4.0 * len(log))
        REMEMBERED.forget()
        assert told(log, 4.0 * len(log)) == went_on


@given(st.randoms(use_true_random=False))
@settings(max_examples=20, deadline=None)
def test_nor_does_it_matter_in_which_order_they_arrive(chance: random.Random) -> None:
    log = [
        event(1, started("1.6 l"), minute=0),
        event(2, wanted(900), minute=1),
        event(3, ev.Chosen(route="all-volume-white_roux"), minute=2),
    ]
    log += [event(n, read("scale", 3000 - 20 * n), minute=3 * n) for n in range(4, 10)]
    shuffled = log[1:]
    chance.shuffle(shuffled)
    arrived = [log[0]]
    for one in shuffled:
        arrived.append(one)
        told(arrived, 40)
    went_on = told(arrived, 40)
    REMEMBERED.forget()
    assert told(log, 40) == went_on


def test_one_id_with_other_words_is_not_taken_for_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(folding, "REMEMBERED", Memory(most_events=100))
    begin = event(1, started("1.6 l"), minute=0)
    salt = event(2, ev.Salted(salt_g=2), minute=1)
    more = salt.model_copy(update={"payload": ev.Salted(salt_g=5)})
    one, other = fold([begin, salt]).pot, fold([begin, more]).pot
    assert one is not None
    assert other is not None
    assert other.contents.salt - one.contents.salt == pytest.approx(3.0)
    smaller = begin.model_copy(update={"payload": started("0.8 l")})
    again = fold([smaller, salt]).pot
    assert again is not None
    assert again.contents.liquid_ml < 900


def test_what_is_remembered_is_bounded(monkeypatch: pytest.MonkeyPatch) -> None:
    small = Memory(most_events=40)
    monkeypatch.setattr(folding, "REMEMBERED", small)
    for batch in range(12):
        log = [event(1, started(f"{1.2 + batch / 50:.2f} l"), minute=0)]
        for n in range(2, 10):
            log.append(event(n, ev.Salted(salt_g=0.1), minute=n))
            fold(log)
    assert small.events <= 40
    assert small.of([log[0]], stop_of) is not None


@pytest.mark.skipif(sys.gettrace() is not None, reason="a tracer keeps what it sees")
def test_an_event_that_is_remembered_weighs_little(monkeypatch: pytest.MonkeyPatch) -> None:
    memory = Memory(most_events=8000)
    monkeypatch.setattr(folding, "REMEMBERED", memory)
    log = [
        event(1, started("1.6 l"), minute=0),
        event(2, wanted(900), minute=1),
        event(3, ev.Chosen(route="all-volume-white_roux"), minute=1),
    ]
    log += [event(n, read("scale", 3000 - n), minute=n) for n in range(4, 204)]
    fold(log[:20])
    tracemalloc.start()
    fold(log)
    held, _ = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    # Eight thousand of them are fifty megabytes.
    assert held / len(log) < 8000, held / len(log)

"""An entry whose amount was wrong is mended, as its time can be; what was first said stays in the log."""

from __future__ import annotations

from uuid import UUID

import pytest
from makers import event, fold, in_words, read, refused, started, wanted
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.fold import Timeline

START = (started("1.6 l", fat_ml="40 ml", salt={"by": "meter", "percent": 0.6}), wanted(900))


class Log:
    """The entries of a batch, by their ids."""

    def __init__(self, events: list[ev.Event]) -> None:
        self.events = events

    def entry(self, event: UUID) -> ev.Kind:
        return next(one.payload for one in self.events if one.id == event)


def meant(log: list[ev.Event], entry: int, amount: str) -> ev.Kind:
    """The mending of an entry, as it is kept."""
    return ev.Meant(event=log[entry].id, amount=amount).written_out(Log(log))  # type: ignore[arg-type]


def mended(kind: ev.Kind, amount: str) -> tuple[Timeline, Timeline]:
    """A batch with an entry as it was meant, and one in which it was entered wrongly and mended later."""
    log = [event(seq, step) for seq, step in enumerate((*START, kind, ev.Noted(text="on it goes")), 1)]
    told = kind.with_amount(amount)
    right = [event(seq, step) for seq, step in enumerate((*START, told, ev.Noted(text="on it goes")), 1)]
    return fold(right), fold([*log, event(5, meant(log, 2, amount))])


#: An entry, what it was to be, and what the log says then.
CASES: list[tuple[ev.Kind, str, str]] = [
    (ev.Salted(salt_g=20.0), "2 g", "2.0"),
    (read("jug", "14 dl"), "1.1 l", "1 100"),
    (read("dip", "40 mm"), "34 mm", "34"),
    (ev.Added(ingredient="water", volume_ml=500.0), "50 ml", "50"),
    (ev.Added(ingredient="cream_heavy", mass_g=200.0), "1/2 cup", "mL"),
    (ev.Thickened(thickener="corn_starch", dry_g=40.0), "4 g", "4"),
    (ev.Skimmed(way="spoon", fat_ml=400.0), "35 ml", ""),
    (ev.Parted(volume_ml=900.0, how="under", purpose="aside"), "300 ml", "300"),
    (ev.Metered(percent=0.62), "0.7 %", "0.7"),
    (ev.Solids(mass_g=4000.0), "400 g", "400"),
]


@pytest.mark.parametrize(("kind", "amount", "says"), CASES, ids=lambda one: getattr(one, "kind", None))
def test_a_mended_entry_counts_as_it_was_meant(kind: ev.Kind, amount: str, says: str) -> None:
    right, now = mended(kind, amount)
    assert right.pot is not None
    assert now.pot is not None
    assert now.pot.contents == right.pot.contents
    assert now.pot.salt_minus == right.pot.salt_minus
    entry = next(moment for moment in now.moments if moment.event.seq == 3)
    assert says.replace(" ", "\u00a0") in in_words(entry.event.payload.said()).replace(" ", "\u00a0")
    # What was first said stays: the mending is an entry of its own.
    assert "meant" in [moment.event.payload.kind for moment in now.moments]


def test_the_newest_word_counts_and_a_mending_may_be_taken_back() -> None:
    log = [event(seq, step) for seq, step in enumerate((*START, ev.Salted(salt_g=20.0)), 1)]
    first = event(4, meant(log, 2, "2 g"))
    second = event(5, meant(log, 2, "3 g"))

    def salt(*more: ev.Event) -> float:
        pot = fold([*log, *more]).pot
        assert pot is not None
        return pot.contents.salt

    assert salt() - salt(first) == pytest.approx(18.0)
    assert salt(first, second) - salt(first) == pytest.approx(1.0)
    taken = event(6, ev.Struck(event=second.id))
    assert salt(first, second, taken) == pytest.approx(salt(first))


@pytest.mark.parametrize(
    ("kind", "amount"),
    [
        (ev.Salted(salt_g=2.0), "two cups and a wish"),
        (ev.Salted(salt_g=2.0), "-4 g"),
        (read("jug", "1.4 l"), "40 bananas"),
        (ev.Metered(percent=0.6), "180 %"),
        (ev.Noted(text="nothing"), "4 g"),
        (ev.Chosen(route="all-volume-white_roux"), "4 g"),
    ],
)
def test_what_is_no_such_amount_is_refused_beside_the_field(kind: ev.Kind, amount: str) -> None:
    with refused(SpissusError, ".") as caught:
        kind.with_amount(amount)
    assert caught is None


def test_every_amount_that_the_log_shows_can_be_said_again() -> None:
    for kind, _, _ in CASES:
        amount = kind.how_much
        assert amount is not None, kind.kind
        again = kind.with_amount(amount.metric).how_much
        assert again is not None
        assert again.value == pytest.approx(amount.value, rel=0.03)


def test_what_was_mended_is_a_number_and_is_never_read_again(monkeypatch: pytest.MonkeyPatch) -> None:
    log = [event(seq, step) for seq, step in enumerate((*START, ev.Salted(salt_g=20.0)), 1)]
    kept = meant(log, 2, "2 g")
    assert kept.model_dump()["becomes"] == {"salt_g": 2.0}
    monkeypatch.setattr(ev.Kind, "with_amount", None)
    assert fold([*log, event(4, kept)]).pot == fold([*log[:2], event(3, ev.Salted(salt_g=2.0))]).pot


def test_an_odd_mending_leaves_its_entry_as_it_was() -> None:
    """Whatever was recorded once never breaks a batch."""
    salted = ev.Salted(salt_g=2.0)
    for becomes in ({"salt_g": "forty somethings"}, {"colour": "red"}, {"salt_g": None}, {}):
        assert ev.Meant(event=UUID(int=9), amount="odd", becomes=becomes).corrected(salted) == salted

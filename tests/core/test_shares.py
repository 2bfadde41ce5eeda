"""By and to: every share, in every wording of the trade, in every field, means one thing."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import in_words, pot, refused, started
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.errors import QuantityError, SpissusError
from spissus_core.intake.lines import read_list
from spissus_core.intake.sentence import read_sentence
from spissus_core.measuring.vessels import Pan
from spissus_core.pantry.ingredients import Ingredient
from spissus_core.phenomena.heating import Burner

#: Shares as they are written, and what they are.
SHARES = {
    "a third": 1 / 3,
    "one third": 1 / 3,
    "1/3": 1 / 3,
    "two thirds": 2 / 3,
    "⅔": 2 / 3,
    "a quarter": 0.25,
    "¼": 0.25,
    "three quarters": 0.75,
    "3/4": 0.75,
    "half": 0.5,
    "1/2": 0.5,
    "50 %": 0.5,
    "two fifths": 0.4,
    "40 %": 0.4,
    "75%": 0.75,
    "30 percent": 0.3,
    "0.4": 0.4,
}
STAYS = (
    "to {}",
    "reduce to {}",
    "reduced to {}",
    "boil down to {}",
    "boil it down to {}",
    "leave {}",
    "leave {} of it",
    "{} left",
    "{} of it",
    "{} remains",
    "until {} is left",
    "down to {}",
)
GOES = (
    "by {}",
    "reduce by {}",
    "reduced by {}",
    "boil down by {}",
    "reduce it by {}",
    "boil off {}",
    "boil away {}",
    "{} gone",
    "{} off",
    "until {} is gone",
    "lose {}",
    "take {} away",
)
NEITHER = ("{}", "reduce {}", "boil down {}")


class House:
    """A kitchen whose pot would hold a litre and a half."""

    def pan(self, pan_id: object) -> Pan:
        raise AssertionError("a reading asks for no pan")

    def burner(self, burner_id: object, pan_id: object) -> Burner:
        raise AssertionError("a reading asks for no pan")

    def own_ingredients(self) -> tuple[Ingredient, ...]:
        return ()

    def unboiled_ml(self) -> float:
        return 1500.0


def in_a_wish(text: str) -> float:
    wish = ev.Wanted(amount=text)
    assert wish.told == ("share",)
    assert wish.share is not None
    return wish.share


def in_a_reading(text: str) -> float:
    for method in ("jug", "dip", "scale", "eye"):
        said = ev.Read.model_validate({"measured": {"method": method, "value": text}}).written_out(House())
        assert isinstance(said, ev.Read)
        assert said.measured is not None
        assert said.measured.method == "eye"
    assert said.left == pytest.approx(said.measured.value / said.measured.expansion / 1500.0)
    return said.left or 0.0


def in_a_list(text: str) -> float:
    (line,) = read_list(f"1 bottle red wine, {text}").lines
    assert line.use == "reduced", line
    return line.left or 0.0


@given(share=st.sampled_from(sorted(SHARES)), words=st.sampled_from(STAYS), spoken=st.sampled_from([str, str.title]))
def test_what_stays_stays(share: str, words: str, spoken: type[str]) -> None:
    said = spoken(words.format(share))
    for field in (in_a_wish, in_a_reading):
        assert field(said) == pytest.approx(SHARES[share])


@given(share=st.sampled_from(sorted(SHARES)), words=st.sampled_from(GOES), spoken=st.sampled_from([str, str.title]))
def test_what_goes_goes(share: str, words: str, spoken: type[str]) -> None:
    said = spoken(words.format(share))
    for field in (in_a_wish, in_a_reading):
        assert field(said) == pytest.approx(1.0 - SHARES[share])


@given(share=st.sampled_from(sorted(SHARES)), way=st.sampled_from(["by", "to"]))
def test_a_list_means_the_same(share: str, way: str) -> None:
    left = SHARES[share] if way == "to" else 1.0 - SHARES[share]
    assert in_a_list(f"reduced {way} {share}") == pytest.approx(left)


@given(share=st.sampled_from(sorted(set(SHARES) - {"half", "1/2", "50 %"})), words=st.sampled_from(NEITHER))
def test_a_share_with_neither_word_is_asked(share: str, words: str) -> None:
    with refused((ValidationError, SpissusError), "left, or gone"):
        ev.Wanted(amount=words.format(share))


@given(share=st.sampled_from(sorted(SHARES)), words=st.sampled_from((*STAYS, *GOES, *NEITHER)))
def test_a_start_never_takes_a_share_for_an_amount(share: str, words: str) -> None:
    said = read_sentence(f"1.4 l, {words.format(share)}, 0.6 % salt", 5000.0)
    assert said.value == 1400.0
    assert said.percent == 0.6


def test_what_was_read_is_shown_both_ways_and_read_back() -> None:
    one = pot()
    wish = ev.Wanted(amount="by three quarters").of(one)
    assert in_words(wish.amount_said) == "leave 25 % (boil off 75 %) = 365 mL"
    bare = in_words(ev.Wanted(amount="by three quarters").amount_said)
    assert ev.Wanted(amount=bare.partition(" (")[0]).share == 0.25
    assert in_words(ev.Wanted(amount="reduce by 400 ml").amount_said) == "boil off 400 mL"
    assert ev.Wanted(amount="reduce by 400 ml").of(one).amount_ml == pytest.approx(one.contents.liquid_ml - 400.0)


@pytest.mark.parametrize("said", ["by 0", "by 0 %", "by 100 %", "by 120 %", "to 120 %", "leave 0", "five thirds gone"])
def test_what_leaves_nothing_or_more_than_all_is_refused(said: str) -> None:
    with pytest.raises((ValidationError, QuantityError)):
        ev.Wanted(amount=said)


def test_a_wish_said_again_by_what_it_came_to_is_the_same_wish() -> None:
    start = started("1.6 l")
    at = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)
    before = ev.State(pot=start.begin())
    told = ev.Wanted(amount="half").apply(before, at)
    assert told.asked.wanted is not None
    again = ev.Wanted(volume_ml=round(told.asked.wanted.amount_ml / 5.0) * 5.0, salt_percent=1.0).apply(told, at)
    assert again.asked.wanted is not None
    assert again.asked.wanted.as_told
    assert again.asked.wanted.amount_ml == told.asked.wanted.amount_ml
    assert again.asked.wanted.salt_percent == 1.0
    other = ev.Wanted(volume_ml=700.0).apply(told, at)
    assert other.asked.wanted is not None
    assert not other.asked.wanted.as_told


def test_a_share_that_leaves_no_spoonful_is_refused_with_a_sentence() -> None:
    tiny = ev.Read.model_validate({"measured": {"method": "jug", "value": "leave 0.1 %"}})
    with refused(QuantityError, "how much is left"):
        tiny.written_out(House())

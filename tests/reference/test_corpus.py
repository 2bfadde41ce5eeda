"""What cooks write, against what it comes to: lines of old books, of a pad, of a grammar; amounts; sentences.

The books are named in ``tests/corpus/books.txt``; weights that lines do not say are portions of USDA SR Legacy, or
from memory, and marked so.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

import pytest
from corpus import Case, amounts, cases, kept_apart, later, outcome, sentences, unlike, wishes
from spissus_core.amounts.quantities import parse
from spissus_core.errors import QuantityError
from spissus_core.intake.lines import read_line
from spissus_core.intake.sentence import ReadSentence, read_sentence
from spissus_core.intake.wish import read_amount_wanted

#: At least this share is to be read right, and the rest asked about.
RIGHT = 0.93

#: What the pan of the sentences holds, mL.
PAN_ML = 5000.0


def share_right(of: tuple[Case, ...]) -> float:
    """The share read right, after none was misread without a word."""
    found = {one.text: outcome(one) for one in of}
    assert [text for text, how in found.items() if how == "wrong"] == []
    return Counter(found.values())["right"] / len(found)


def test_the_corpus_holds() -> None:
    assert len(cases()) >= 350
    assert share_right(cases()) >= RIGHT


def test_the_tenth_that_was_kept_apart_holds_too() -> None:
    assert share_right(kept_apart()) >= RIGHT


def test_what_came_up_later_holds_too() -> None:
    assert share_right(later()) >= RIGHT


def test_lines_of_other_kinds_hold_too() -> None:
    assert share_right(unlike()) >= RIGHT


@pytest.mark.parametrize("of", [cases, unlike])
def test_most_lines_are_read_without_a_doubt(of: Callable[[], tuple[Case, ...]]) -> None:
    lines = [line for one in of() if not one.ask for line in read_line(one.text)]
    assert sum(line.doubt is not None for line in lines) <= 0.08 * len(lines)


@pytest.mark.parametrize(("dimension", "text", "value"), amounts(), ids=[text for _, text, _ in amounts()])
def test_an_amount_is_read_as_it_is_meant(dimension: str, text: str, value: float | None) -> None:
    if value is None:
        with pytest.raises(QuantityError):
            parse(text, dimension)  # type: ignore[arg-type]
    else:
        assert parse(text, dimension) == pytest.approx(value, rel=0.012, abs=0.001)  # type: ignore[arg-type]


@pytest.mark.parametrize(("text", "field", "value"), wishes(), ids=[text for text, _, _ in wishes()])
def test_a_wish_is_read_as_it_is_meant(text: str, field: str, value: float | None) -> None:
    if value is None:
        with pytest.raises(QuantityError):
            read_amount_wanted(text)
        return
    told = read_amount_wanted(text)
    assert told.field == field
    assert told.value == pytest.approx(value, rel=0.01)


@pytest.mark.parametrize(("text", "expected"), sentences(), ids=[text for text, _ in sentences()])
def test_a_sentence_says_what_it_says(text: str, expected: dict[str, str]) -> None:
    said = read_sentence(text, PAN_ML)
    assert bool(said.unread) == ("unread" in expected)
    assert "none" not in expected or said.value is None
    for name, value in expected.items():
        if name not in ("unread", "none"):
            _says(said, name, value)


def _says(said: ReadSentence, name: str, value: str) -> None:
    if name in ("jug", "eye", "dip", "scale", "pot"):
        assert said.method == ("eye" if name == "pot" else name)
        assert said.value == pytest.approx(float(value) * (PAN_ML if name == "pot" else 1.0), rel=0.012)
    elif name in ("fat_mm", "fat_ml"):
        # What is told by eye is right within a half.
        within = 0.5 if value.endswith("~") else 0.02
        assert getattr(said, name) == pytest.approx(float(value.rstrip("~")), rel=within)
    elif name == "hot":
        assert said.hot == (value == "yes")
    elif name == "percent":
        assert said.percent == pytest.approx(float(value))
    else:
        assert getattr(said, name) == value

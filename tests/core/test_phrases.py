"""Everything that is said has its phrase, and every phrase its use; what was typed is never part of one."""

from __future__ import annotations

import ast
import json
import re
from collections.abc import Iterator
from datetime import UTC, datetime
from itertools import chain
from pathlib import Path

import pytest
from golden.told import EVENINGS, KEPT
from hypothesis import given
from hypothesis import strategies as st
from makers import backwards, braise, in_words, pot, wanted
from spissus_core.amounts.quantities import UnitSystem, show_volume
from spissus_core.messages import Argument, Message, Term, Until, clauses, say, sentences, several
from spissus_core.pantry.ways import WAYS
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.spoken import way_line
from words import Amount, Moment, Name, Remaining, parts, plain
from words.catalogue import HERE, english, speaking

ROOT = Path(__file__).parents[2]
SUBJECTS = {path.stem for path in (HERE / "en").glob("*.toml")}
#: Phrases by which several things are put together; their keys are made up by :func:`.several`.
LISTS = {key for key in english().phrases if key.startswith("lists.")}


def keys_and_calls() -> Iterator[tuple[str, frozenset[str] | None]]:
    """Every key of a phrase that the code names, with the arguments beside it where they stand there."""
    for folder in ("core/spissus_core", "server"):
        for path in (ROOT / folder).rglob("*.py"):
            tree = ast.parse(path.read_text(encoding="utf-8"))
            for node in ast.walk(tree):
                if isinstance(node, ast.Constant) and isinstance(node.value, str) and _is_key(node.value):
                    yield node.value, None
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "say":
                    key = node.args[0]
                    named = frozenset(word.arg for word in node.keywords if word.arg is not None)
                    if isinstance(key, ast.Constant) and all(word.arg is not None for word in node.keywords):
                        yield key.value, named


def _is_key(text: str) -> bool:
    subject, dot, name = text.partition(".")
    return bool(dot) and subject in SUBJECTS and re.fullmatch(r"[a-z_0-9]+", name) is not None


#: What stands in the code in the shape of a key, and is the name of a file, a module or a field.
NOT_KEYS = {
    *("batches.api", "batches.models", "kitchen.toml", "devices.api"),
    *("batch.json", "batch.txt", "batches.csv", "due.ics", "events.csv", "kitchen.json", "recipe.jsonld"),
}


def test_every_key_has_its_phrase_and_every_phrase_its_use() -> None:
    named = {key for key, _ in keys_and_calls()} - NOT_KEYS
    named, known = named - LISTS, set(english().phrases) - LISTS
    assert named - known == set()
    assert known - named == set()


def test_every_phrase_is_given_what_it_names_and_no_more() -> None:
    for key, given_to_it in keys_and_calls():
        if given_to_it is not None:
            assert english().phrases[key].arguments | {"count"} == given_to_it | {"count"}, key


def test_every_phrase_is_said_in_both_systems() -> None:
    for key, phrase in english().phrases.items():
        message = Message(key, {name: show_volume(900.0) for name in phrase.arguments})
        for units in ("metric", "us"):
            text = plain(message, units)  # type: ignore[arg-type]
            assert not {"{", "}"} & set(text), key
            assert text, key
            assert text.strip() == text, key
            assert not phrase.arguments or ("900" in text) == (units == "metric"), key


def test_a_sentence_speaks_both_systems() -> None:
    said = say("bar.take", volume=show_volume(750))
    assert plain(said, "metric") == "Take 750\u00a0mL for the sauce by the jug. Keep the rest."
    assert plain(said, "us") == "Take 3⅛\u00a0cups for the sauce by the jug. Keep the rest."
    assert plain(said) == "Take 750\u00a0mL (3⅛\u00a0cups) for the sauce by the jug. Keep the rest."
    amount = Amount("750\u00a0mL", "3⅛\u00a0cups")
    assert parts(said) == ("Take ", amount, " for the sauce by the jug. Keep the rest.")


#: So many words stand before the first full stop of the bar, and so many figures in it; what stands in brackets is the
#: same once more.
MOST_WORDS, MOST_FIGURES = 12, 3
_BRACKETS, _FIGURE = re.compile(r" \([^)]*\)"), re.compile(r"\d[\d.:]*(?: \d{3})*[½¼¾⅓⅔⅛⅜⅝⅞]?|[½¼¾⅓⅔⅛⅜⅝⅞]")


def test_the_bar_is_read_at_a_metre() -> None:
    """Every line of twelve evenings as it was kept (tests/golden/told.json), and what the ways of four pots ask for."""
    evenings = {case: lines for case, lines in json.loads(KEPT.read_text("utf-8")).items() if "evening" in case}
    assert len(evenings) == len(EVENINGS)
    wish, pots = wanted(600), [pot(braise(salt=grams)) for grams in (4.0, 9.0, 14.0, 22.0)]
    ways = [in_words(way_line(one, wish, way)) for one in pots for way in solve_routes(one, wish)]
    for line in chain(ways, *evenings.values()):
        bare = _BRACKETS.sub("", line)
        first = re.split(r"[.?:](?: |$)", _FIGURE.sub("some", bare))[0]
        assert len(first.split()) <= MOST_WORDS, line
        assert len(_FIGURE.findall(bare)) <= MOST_FIGURES, line


#: What no cook says: stiff, or ours alone.
NEVER_SAID = re.compile(
    r"\bI make\b|reckoning|put by\b|binned|\bbarred\b|tide-mark|\bis that it\b|\b[Ll]et (it )?down\b|\bceiling\b|"
    r"\bbind\b|\bbound\b|\bbinds\b|\bthen[.?]",
    re.IGNORECASE,
)


def test_the_words_are_a_cooks() -> None:
    for key, phrase in english().phrases.items():
        said = "".join(piece.words for piece in (*phrase.pieces, *(phrase.of_one or ())))
        assert not NEVER_SAID.search(said), f"{key}: {said}"
    for way in WAYS.values():
        assert not NEVER_SAID.search(f"{way.label} {way.bare} {way.flag}"), way.key


def test_times_are_parts() -> None:
    at = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)
    assert Moment(at) in parts(say("cooling.unknown", limit=show_volume(1), by=at))
    assert Remaining(at) in parts(say("bar.look_in", until=Until(at)))


def test_of_one_it_is_said_otherwise() -> None:
    assert plain(say("bar.readings", count=1)) == "1 reading"
    assert plain(say("bar.readings", count=3)) == "3 readings"


def test_an_amount_that_is_always_the_same_stands_in_the_phrase_in_both_systems() -> None:
    said = say("measuring.pour_and_dip")
    assert plain(said, "metric") == "Pour a known volume in and dip it: 500 ml, then 500 ml more."
    assert plain(said, "us") == "Pour a known volume in and dip it: 2 cups, then 2 cups more."


def test_several_things_are_put_together() -> None:
    milk, egg, soy = Term("milk"), Term("egg"), Term("soy")
    assert plain(several("both", milk)) == "milk"
    assert plain(several("both", milk, egg)) == "milk and egg"
    assert plain(several("clauses", milk, None, egg, soy)) == "milk, egg, soy"
    assert plain(sentences(say("bar.start"), None, say("bar.thrown_away"))) == "Say what is in the pot. Thrown away."
    assert plain(clauses(say("events.finished"))) == "Finished"


@pytest.mark.parametrize("case", ["explanation.line", "because.take"])
def test_a_phrase_that_is_missing_or_lacks_something_is_no_fault_of_the_batch(case: str) -> None:
    assert plain(say(case)) == case
    assert plain(say("bar.no_such_phrase", volume="1")) == "bar.no_such_phrase"


@given(st.text(max_size=60))
def test_what_was_typed_comes_out_as_it_was_typed(text: str) -> None:
    """Whatever it holds: braces, per cents, directives, mark-up, letters that run the other way."""
    assert parts(say("events.noted", text=text)) == (Name(text),)
    for units in ("metric", "us", "both"):
        said = plain(say("events.moved", pan=text, burner=text), units)  # type: ignore[arg-type]
        assert said == f"Moved into: {text}, on: {text}"


def test_another_language_is_another_catalogue() -> None:
    said: Argument = say("bar.take", volume=show_volume(750))
    units: UnitSystem = "metric"
    with speaking(backwards(english())):
        assert plain(said, units).startswith(" ekaT750")
    assert plain(said, units).startswith("Take 750")

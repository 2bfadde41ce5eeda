"""What a name in a line means: every word of it is accounted for, or said to be left over.

A name is compared word by word with everything that ingredients are called (:mod:`.ingredients`). The ingredient
whose words explain the most of it is meant; words that only describe (``data/describing.csv``) explain nothing and
are not missed, nor is what was done to a thing ("snipped"), nor a remark that names nothing else ("from the kettle").
What is then left over, guessed from a slip of the finger, or called alike by two ingredients, is doubted.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from rapidfuzz import fuzz, process

from ..amounts.rows import rows
from .ingredients import Ingredient, catalogue, names_of, plain

#: Words that change what a thing is, and so explain more of a name than one that says of what it is.
_TELLING = frozenset(
    {
        "unsalted",
        "salted",
        "salt",
        "low",
        "reduced",
        "sodium",
        "free",
        "smoked",
        "dried",
        "dry",
        "canned",
        "powder",
        "cube",
        "concentrate",
        "condensed",
        "juice",
        "zest",
        "peel",
        "rind",
        "vinegar",
        "oil",
        "fat",
        "seed",
        "flour",
        "starch",
        "paste",
        "puree",
        "skinless",
        "without",
        "skin",
        "sweet",
        "stock",
        "broth",
        "sauce",
        "ground",
        "bone",
        "ketchup",
        "powdered",
    }
)
_STOPS = frozenset(
    {
        "of",
        "the",
        "a",
        "an",
        "with",
        "from",
        "in",
        "and",
        "for",
        "to",
        "its",
        "or",
        "s",
        "d",
        "de",
        "du",
        "la",
        "le",
    }
)

#: Things that are not imitated: an unknown word beside one is a kind of it ("Bramley apple"), not another thing
#: ("oat milk"). Modelling choice.
_OF_MANY_KINDS = frozenset({"vegetable", "fruit", "wine", "juice", "tomato", "sugar", "spice", "pulse", "acid"})
#: How alike a word must be to one that is known, to be taken for a slip of it, 0 to 100; shorter words are not
#: guessed. Modelling choices.
_A_SLIP, _SHORTEST = 74.0, 4
#: What each kind of word explains of a name. Modelling choices.
_TELLS, _NAMES, _DESCRIBES = 1.5, 1.0, 0.3
#: What a word of an ingredient's name takes off that was not said, and one that only describes it. Modelling choices.
_MISSING, _UNSAID = 0.8, 0.02
#: A word that was guessed explains this share of one that was written. Modelling choice.
_GUESSED = 0.7
#: What it adds that words stand together as the name has them: "fat bacon" is no bacon fat. Modelling choice.
_IN_ORDER = 0.05
#: A word that may stand in a name explains this share of one that must, and a kitchen's own is this much ahead of an
#: equal. Modelling choices.
_MAY_TELL, _OWN_FIRST = 0.9, 0.01


@dataclass(frozen=True, slots=True)
class Taken:
    """What a name was taken for.

    ``left`` are words, as they were written, that say nothing of it; ``guessed`` those that were taken for another
    word; ``missing`` how many words of its own name were not said; ``others`` what else is called so.
    """

    ingredient: Ingredient
    left: tuple[str, ...] = ()
    guessed: tuple[str, ...] = ()
    missing: int = 0
    others: tuple[Ingredient, ...] = ()


@dataclass(frozen=True, slots=True)
class _Phrase:
    """A way an ingredient is called: words that must be there, and words that may; whether the file lists it."""

    key: str
    order: tuple[str, ...]
    words: frozenset[str]
    may: frozenset[str]
    listed: bool


def _words(text: str) -> list[str]:
    return [word for word in plain(text).split() if word not in _STOPS]


def _phrases_of(item: Ingredient) -> list[_Phrase]:
    head, _, tail = item.name.partition(",")
    whole = tuple(_words(head))
    out = [_Phrase(item.key, whole, frozenset(whole), frozenset(_words(tail)) - frozenset(whole), listed=not tail)]
    for name in names_of(item):
        order = tuple(_words(name))
        out.append(_Phrase(item.key, order, frozenset(order), frozenset(), listed=True))
    return [phrase for phrase in out if phrase.words]


@dataclass(frozen=True)
class _Index:
    phrases: Sequence[_Phrase]
    by_word: dict[str, list[int]]
    joined: dict[str, tuple[str, ...]]


def _index_of(items: Sequence[Ingredient]) -> _Index:
    phrases = [phrase for item in items for phrase in _phrases_of(item)]
    by_word: dict[str, list[int]] = defaultdict(list)
    joined: dict[str, tuple[str, ...]] = {}
    for place, phrase in enumerate(phrases):
        for word in phrase.words | phrase.may:
            by_word[word].append(place)
    for item in items:
        for name in (item.name, *names_of(item)):
            words = _words(name)
            for one, two in pairwise(words):
                joined.setdefault(one + two, (one, two))
    return _Index(phrases, dict(by_word), joined)


@lru_cache(maxsize=1)
def _catalogue_index() -> _Index:
    return _index_of(list(catalogue().values()))


@lru_cache(maxsize=64)
def _own_index(own: tuple[Ingredient, ...]) -> _Index:
    return _index_of(own)


@lru_cache(maxsize=1)
def _places() -> dict[str, int]:
    return {key: place for place, key in enumerate(catalogue())}


@lru_cache(maxsize=1)
def _describing() -> dict[str, frozenset[str]]:
    """Words that describe a thing and do not name it, with the groups of which they tell: a white wine is no red."""
    return {
        plain(word): frozenset(row["but_of"].split()) for row in rows("describing") for word in row["words"].split()
    }


@lru_cache(maxsize=8)
def _remarks(what: str) -> frozenset[str]:
    """Words of a remark: those that limit what or how much is meant ("only"), those in -ed that make a thing another
    one ("smoked"), and those that open a remark once a thing was named ("from the kettle")."""
    return frozenset(word for row in rows("remarks") if row["what"] == what for word in row["words"].split())


def _describes(word: str, item: Ingredient) -> bool:
    """Whether a word only describes this ingredient."""
    groups = _describing().get(word)
    return groups is not None and item.group not in groups


@dataclass(frozen=True, slots=True)
class _Word:
    """A word of a name: as written, as compared, whether it was guessed, whether it says nothing of what or how much
    there is, and whether it is one that nobody knows."""

    written: str
    word: str
    guessed: bool = False
    idle: bool = False
    strange: bool = False


def _sought(text: str, indexes: Sequence[_Index]) -> list[_Word]:
    """The words of a name as the catalogue knows them."""

    def known(word: str) -> bool:
        return any(word in index.by_word for index in indexes)

    out: list[_Word] = []
    # A slash, a hyphen and an apostrophe divide words as a space does.
    written = re.findall(r"\d+(?:[.,]\d+)+|[^\W_]+|,", text)
    pairs, idle = [], _idle(written, known)
    for place, one in enumerate(written):
        word = plain(one) if one[0] not in _DIGITS else one
        if word and word not in _STOPS and one != ",":
            pairs.append((one, word, place in idle))
    skip = False
    for place, (one, word, says_nothing) in enumerate(pairs):
        if skip:
            skip = False
            continue
        following = pairs[place + 1] if place + 1 < len(pairs) else None
        if following and known(word + following[1]) and not (known(word) and known(following[1])):
            out.append(_Word(f"{one} {following[0]}", word + following[1]))
            skip = True
        elif known(word) or word in _describing() or any(c.isdigit() for c in word):
            out.append(_Word(one, word, idle=says_nothing))
        elif parts := next((index.joined[word] for index in indexes if word in index.joined), None):
            out += [_Word(one, part) for part in parts]
        elif says_nothing:
            out.append(_Word(one, word, idle=True))
        else:
            out.append(_slip(one, word, indexes))
    return out


_DIGITS = frozenset("0123456789")


def _idle(written: Sequence[str], known: Callable[[str], bool]) -> frozenset[int]:
    """Places of words that say nothing of what or how much there is: what was done to a thing, and unknown ones of
    remarks behind it."""
    named = remark = False
    out: set[int] = set()
    for place, one in enumerate(written):
        if one == "," or (one.lower() in _remarks("opens") and named):
            remark = remark or named
            out.add(place)
            continue
        word = plain(one) if one[0] not in _DIGITS else one
        if not word or one[0] in _DIGITS or {one.lower(), word} & _remarks("limits"):
            continue
        low = one.lower()
        done_to_it = len(low) > _SHORTEST and low.endswith("ed") and not low.endswith(("seed", "weed"))
        done_to_it = done_to_it and low not in _remarks("alters")
        if known(word) and not done_to_it:
            named = named or word not in _describing()
            continue
        if remark or done_to_it:
            out.add(place)
    return frozenset(out)


def _slip(written: str, word: str, indexes: Sequence[_Index]) -> _Word:
    """A word nobody knows: one that is known, but for a slip of the finger."""
    strange = word not in _remarks("limits") and written.lower() not in _remarks("alters")
    if len(word) < _SHORTEST:
        return _Word(written, word, strange=strange)
    near = (w for index in indexes for w in index.by_word if w[0] == word[0] and abs(len(w) - len(word)) <= 2)
    found = process.extractOne(word, list(near), scorer=fuzz.ratio, score_cutoff=_A_SLIP)
    return _Word(written, found[0], guessed=True, strange=strange) if found else _Word(written, word, strange=strange)


def _tells(word: str) -> float:
    if word in _TELLING:
        return _TELLS
    return _DESCRIBES if word in _describing() else _NAMES


def taken_for(text: str, own: Sequence[Ingredient] = ()) -> list[Taken]:
    """What a name may mean, best first; each ingredient once.

    Parameters
    ----------
    text : the name, with whatever describes it.
    own : a kitchen's own ingredients; one with the key of a catalogue row stands in its place.
    """
    mine = {item.key: item for item in own}
    indexes = [_catalogue_index()] if not mine else [_own_index(tuple(mine.values())), _catalogue_index()]
    sought = _sought(text, indexes)
    if not sought:
        return []
    words = {one.word for one in sought}
    unsure = {one.word: _GUESSED for one in sought if one.guessed}
    in_order = " ".join(("", *(one.word for one in sought), ""))
    best: dict[str, tuple[float, _Phrase]] = {}
    alike: dict[str, set[frozenset[str]]] = defaultdict(set)
    for index in indexes:
        seen = {place for word in words for place in index.by_word.get(word, ())}
        for place in seen:
            phrase = index.phrases[place]
            if index is indexes[-1] and mine and phrase.key in mine:
                continue
            said = words & phrase.words
            if not said - _describing().keys() and said != phrase.words:
                continue
            missing = sum(_MISSING * _tells(word) for word in phrase.words - words)
            score = (
                sum(_tells(word) * unsure.get(word, 1.0) for word in said)
                + _MAY_TELL * sum(map(_tells, words & phrase.may))
                - missing
            )
            score -= _UNSAID * len(phrase.may - words)
            score += _OWN_FIRST if phrase.key in mine else 0.0
            ordered = len(phrase.order) == 1 or f" {' '.join(phrase.order)} " in in_order
            score += _IN_ORDER if ordered else 0.0
            if phrase.listed and phrase.words <= words and ordered:
                alike[phrase.key].add(phrase.words)
            known = best.get(phrase.key)
            if known is None or (phrase.words <= words, score) > (known[1].words <= words, known[0]):
                best[phrase.key] = (score, phrase)
    places = _places()
    # What is named whole comes before what is only begun.
    ranked = sorted(
        best.items(), key=lambda pair: (not pair[1][1].words <= words, -pair[1][0], places.get(pair[0], -1))
    )
    out = []
    for key, (score, phrase) in ranked[:8]:
        if score <= 0.0:
            break
        out.append(_taken(mine.get(key) or catalogue()[key], phrase, sought))
    if out and not out[0].missing:
        top = ranked[0][1][1].words
        same = [one.ingredient for one in out[1:] if top in alike[one.ingredient.key]]
        if ranked[0][1][1].listed and same and ranked[0][0] not in mine:
            out[0] = Taken(out[0].ingredient, out[0].left, out[0].guessed, 0, tuple(same))
    return out


def is_named(name: str, own: Sequence[Ingredient]) -> bool:
    """Whether a name holds that of a thing, whatever else it says."""
    found = taken_for(name, own)
    return bool(found) and not found[0].missing


def stands(name: str, own: Sequence[Ingredient]) -> bool:
    """Whether a name is that of a thing, without a word left over."""
    found = taken_for(re.sub(r"^\s*(?:of|the)\s+", "", name), own)
    return bool(found) and not found[0].missing and not found[0].left


@lru_cache(maxsize=4096)
def _all_words(item: Ingredient) -> frozenset[str]:
    """The words of all its names: what any of them says of it is no riddle."""
    return frozenset(word for name in (item.name, *names_of(item)) for word in _words(name))


def _taken(item: Ingredient, phrase: _Phrase, sought: Sequence[_Word]) -> Taken:
    explained = phrase.words | phrase.may
    also = _all_words(item)
    last = max((place for place, one in enumerate(sought) if one.word in explained), default=-1)
    # A word that nobody knows behind the name may be what the thing is: "orange blorple".
    left = tuple(
        one.written
        for place, one in enumerate(sought)
        if not (one.idle or (one.strange and place < last and item.group in _OF_MANY_KINDS))
        and one.word not in explained
        and one.word not in also
        and not _describes(one.word, item)
    )
    guessed = tuple(one.written for one in sought if one.guessed and one.word in explained)
    said = {one.word for one in sought}
    return Taken(item, left, guessed, len(phrase.words - said), ())

"""A language: its phrases by key, and how a message becomes parts by them."""

from __future__ import annotations

import logging
import tomllib
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import datetime
from functools import cache
from pathlib import Path
from string import Formatter
from typing import NamedTuple

from spissus_core.messages import Argument, Message, Shown, Term, Until

log = logging.getLogger(__name__)

HERE = Path(__file__).parent


@dataclass(frozen=True, slots=True)
class Amount:
    """A figure, in either system of units."""

    metric: str
    us: str


@dataclass(frozen=True, slots=True)
class Name:
    """What somebody typed, or the name of a thing of theirs, as it is."""

    text: str


@dataclass(frozen=True, slots=True)
class Moment:
    """A time of day; whoever shows it knows the clock on the wall."""

    at: datetime


@dataclass(frozen=True, slots=True)
class Remaining:
    """The minutes left until a time."""

    until: datetime


#: What a sentence is made of: words, and what stands between them.
Part = str | Amount | Name | Moment | Remaining


class Piece(NamedTuple):
    """Words of a phrase, and the argument that follows them, with what is done to its first letter."""

    words: str
    argument: str | None
    case: str


class Phrase(NamedTuple):
    """One way to say it, and another where there is one of what is counted."""

    pieces: tuple[Piece, ...]
    of_one: tuple[Piece, ...] | None = None

    @property
    def arguments(self) -> frozenset[str]:
        """The names of what fills it."""
        return frozenset(p.argument for p in (*self.pieces, *(self.of_one or ())) if p.argument is not None)


def _pieces(template: str) -> tuple[Piece, ...]:
    return tuple(Piece(words, name, case or "") for words, name, case, _ in Formatter().parse(template))


def _phrase(said: str | Mapping[str, str]) -> Phrase:
    if isinstance(said, str):
        return Phrase(_pieces(said))
    return Phrase(_pieces(said["other"]), _pieces(said["one"]))


class Catalogue:
    """The phrases of a language, and its words for the terms of the trade."""

    def __init__(self, phrases: Mapping[str, Phrase], terms: Callable[[str], str] = str) -> None:
        self.phrases = phrases
        self.terms = terms

    @classmethod
    def of(cls, language: str) -> Catalogue:
        """The phrases of a folder: ``bar.salt`` is the phrase ``salt`` of ``bar.toml``."""
        phrases = {}
        for path in sorted((HERE / language).glob("*.toml")):
            for name, said in tomllib.loads(path.read_text(encoding="utf-8")).items():
                phrases[f"{path.stem}.{name}"] = _phrase(said)
        return cls(phrases)

    def parts(self, said: Argument) -> tuple[Part, ...]:
        """What is to be said, in parts; words that follow each other are one."""
        out: list[Part] = []
        for part in self._parts(said):
            if isinstance(part, str) and out and isinstance(out[-1], str):
                out[-1] += part
            elif part != "":
                out.append(part)
        return tuple(out)

    def _parts(self, said: Argument) -> Iterator[Part]:
        match said:
            case Message():
                yield from self._phrased(said)
            case Shown():
                yield Amount(said.metric, said.us)
            case Term():
                yield self.terms(said.text)
            case Until():
                yield Remaining(said.at)
            case datetime():
                yield Moment(said)
            case tuple():
                yield from self._phrased(Message("lists.clauses", {"items": said}))
            case int():
                yield Amount(str(said), str(said))
            case str():
                yield Name(said)

    def _phrased(self, message: Message) -> Iterator[Part]:
        phrase, given = self.phrases.get(message.key), message.arguments
        items = given.get("items")
        if isinstance(items, tuple):
            yield from self._listed(message.key, items)
            return
        if phrase is None or not phrase.arguments <= given.keys():
            # Never a batch lost for want of a word: the tests see to it that this does not happen.
            log.error("There is no phrase for %s", message)
            yield message.key
            return
        pieces = phrase.of_one if phrase.of_one is not None and given.get("count") == 1 else phrase.pieces
        for words, argument, case in pieces:
            yield words
            if argument is not None:
                yield from _cased(self._parts(given[argument]), case)

    def _listed(self, key: str, items: tuple[Argument, ...]) -> Iterator[Part]:
        if len(items) < 2:
            yield from (part for item in items for part in self._parts(item))
            return
        rest: Argument = items[1] if len(items) == 2 else Message(key, {"items": items[1:]})
        yield from self._phrased(Message(key, {"first": items[0], "rest": rest}))


def _cased(found: Iterator[Part], case: str) -> Iterator[Part]:
    """The same with a capital in front, or none anywhere."""
    first = True
    for part in found:
        text = part.text if isinstance(part, Name) else part
        if case == "lower" and isinstance(text, str):
            text = text.lower()
        elif case == "cap" and first and isinstance(text, str):
            text = text[:1].upper() + text[1:]
        first = first and text == ""
        yield part if not isinstance(text, str) else Name(text) if isinstance(part, Name) else text


@cache
def english() -> Catalogue:
    """The language that comes with it."""
    return Catalogue.of("en")


_SPOKEN: ContextVar[Catalogue | None] = ContextVar("catalogue", default=None)


def spoken() -> Catalogue:
    """The language that is spoken just now."""
    return _SPOKEN.get() or english()


@contextmanager
def speaking(catalogue: Catalogue) -> Iterator[None]:
    """Another language for a while."""
    before = _SPOKEN.set(catalogue)
    try:
        yield
    finally:
        _SPOKEN.reset(before)

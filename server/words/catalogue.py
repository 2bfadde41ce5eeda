"""A language: its phrases by key, and how a message becomes parts by them."""

from __future__ import annotations

import logging
import tomllib
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from datetime import datetime
from functools import cache
from pathlib import Path
from string import Formatter
from typing import NamedTuple

from spissus_core.messages import Argument, Message, Shown, Term, Until

from .parts import Amount, Figure, Moment, Name, Part, Remaining, amount

log = logging.getLogger(__name__)

HERE = Path(__file__).parent


class Piece(NamedTuple):
    """Words of a phrase, and what follows them: an argument, with what is done to its first letter, or an amount that
    is always the same."""

    words: str
    argument: str | None
    case: str
    fixed: Amount | Figure | None = None


@dataclass(frozen=True, slots=True)
class Phrase:
    """One way to say it, and another where there is one of what is counted; the names of what fills it."""

    pieces: tuple[Piece, ...]
    of_one: tuple[Piece, ...] | None = None
    arguments: frozenset[str] = field(init=False)

    def __post_init__(self) -> None:
        names = (piece.argument for piece in (*self.pieces, *(self.of_one or ())))
        object.__setattr__(self, "arguments", frozenset(name for name in names if name is not None))


def _pieces(template: str) -> tuple[Piece, ...]:
    """``{name}``, ``{name:cap}``, ``{name:lower}``; and ``{:300 ml|1 1/4 cups}``, one amount in both systems."""
    return tuple(_piece(words, name, how or "") for words, name, how, _ in Formatter().parse(template))


def _piece(words: str, name: str | None, how: str) -> Piece:
    if name != "":
        return Piece(words, name, how)
    metric, _, us = how.partition("|")
    return Piece(words, None, "", amount(metric, us))


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
        self._say(said, out)
        return tuple(out)

    def _say(self, said: Argument, out: list[Part]) -> None:
        match said:
            case Shown():
                out.append(amount(said.metric, said.us))
            case Message():
                self._phrase(said, out)
            case Term():
                _words(self.terms(said.text), out)
            case str():
                out.append(Name(said))
            case Until():
                out.append(Remaining(said.at))
            case datetime():
                out.append(Moment(said))
            case tuple():
                self._list("lists.clauses", said, out)
            case int():
                out.append(Figure(str(said)))

    def _phrase(self, message: Message, out: list[Part]) -> None:
        phrase, given = self.phrases.get(message.key), message.arguments
        items = given.get("items")
        if isinstance(items, tuple):
            self._list(message.key, items, out)
            return
        if phrase is None or not phrase.arguments <= given.keys():
            # Never a batch lost for want of a word: the tests see to it that this does not happen.
            log.error("There is no phrase for %s", message)
            _words(message.key, out)
            return
        pieces = phrase.of_one if phrase.of_one is not None and given.get("count") == 1 else phrase.pieces
        for words, argument, case, fixed in pieces:
            _words(words, out)
            if fixed is not None:
                out.append(fixed)
            if argument is None:
                continue
            if not case:
                self._say(given[argument], out)
                continue
            said: list[Part] = []
            self._say(given[argument], said)
            for part in _cased(said, case):
                _words(part, out) if isinstance(part, str) else out.append(part)

    def _list(self, key: str, items: tuple[Argument, ...], out: list[Part]) -> None:
        if len(items) < 2:
            for item in items:
                self._say(item, out)
            return
        rest: Argument = items[1] if len(items) == 2 else Message(key, {"items": items[1:]})
        self._phrase(Message(key, {"first": items[0], "rest": rest}), out)


def _words(text: str, out: list[Part]) -> None:
    """Words after what there is; those that follow words are one with them."""
    if not text:
        return
    if out and isinstance(last := out[-1], str):
        out[-1] = last + text
    else:
        out.append(text)


def _cased(parts: list[Part], case: str) -> list[Part]:
    """The same with a capital in front, or none anywhere."""
    if case == "lower":
        return [Name(p.name.lower()) if isinstance(p, Name) else p.lower() if isinstance(p, str) else p for p in parts]
    first = parts[0] if parts else None
    if isinstance(first, str):
        return [first[:1].upper() + first[1:], *parts[1:]]
    if isinstance(first, Name):
        return [Name(first.name[:1].upper() + first.name[1:]), *parts[1:]]
    return parts


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

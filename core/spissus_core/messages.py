"""What the core says: a key and what fills it. The sentence is made at the edge, in whatever language and units.

Nothing that somebody typed is ever part of a phrase: it is an argument, whatever signs it holds.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime


@dataclass(frozen=True, slots=True)
class Shown:
    """One amount, exact and as a cook reads it in either system of units."""

    value: float
    metric: str
    us: str


@dataclass(frozen=True, slots=True)
class Term:
    """A word of the trade, out of a row of the tables: a language may have another for it."""

    text: str


@dataclass(frozen=True, slots=True)
class Until:
    """The minutes that are left until a time; whoever shows it counts them down."""

    at: datetime


@dataclass(frozen=True, slots=True)
class Message:
    """Something to be said: the ``key`` of its phrase, and the ``arguments`` that phrase names.

    A plain string among them is as somebody typed it, or the name of a thing of theirs.
    """

    key: str
    arguments: Mapping[str, Argument] = field(default_factory=dict, hash=False)

    def __str__(self) -> str:
        """The key and what fills it, for whoever reads a trace."""
        return f"{self.key}({', '.join(f'{name}={_plain(value)}' for name, value in self.arguments.items())})"


#: What may fill a phrase. Several together are put between each other by a phrase of ``lists``.
Argument = Shown | Term | Message | Until | str | int | datetime | tuple["Argument", ...]


def _plain(value: Argument) -> str:
    if isinstance(value, Shown):
        return value.metric
    if isinstance(value, Term):
        return value.text
    return f"[{', '.join(_plain(one) for one in value)}]" if isinstance(value, tuple) else str(value)


def say(key: str, /, **arguments: Argument) -> Message:
    """What is to be said by the phrase of that key."""
    return Message(key, arguments)


def several(how: str, *found: Argument | None) -> Argument:
    """All that there is of these, put together by the phrase ``lists.<how>``; one alone is itself."""
    items = tuple(one for one in found if one is not None)
    return items[0] if len(items) == 1 else Message(f"lists.{how}", {"items": items})


def sentences(*found: Message | None) -> Message:
    """One sentence after the other, those there are."""
    return _message(several("sentences", *found))


def clauses(*found: Message | None) -> Message:
    """One clause after the other, with commas between."""
    return _message(several("clauses", *found))


def _message(one: Argument) -> Message:
    assert isinstance(one, Message)
    return one


@dataclass(frozen=True, slots=True)
class Reason:
    """One line of arithmetic behind a figure: what it is, and how it comes about."""

    what: Message
    how: Message

    @property
    def key(self) -> str:
        """What it is the reason of, for whoever looks it up: the name of ``what`` without its subject."""
        return self.what.key.rpartition(".")[2]

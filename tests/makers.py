"""Things to test with: a pan, a pot, a log."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from typing import Any, Literal
from uuid import UUID, uuid4

import pytest
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.errors import SpissusError
from spissus_core.fold import Timeline
from spissus_core.fold import fold as folded
from spissus_core.intake.braise import Braise, Line
from spissus_core.intake.lines import read_list
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.vessels import Pan
from spissus_core.messages import Argument
from spissus_core.phenomena.heating import Burner
from spissus_core.planning.bench import stop_of
from spissus_core.pot import Pot
from words import Catalogue, plain
from words.catalogue import Phrase, Piece

PAN = Pan.round("24 cm pan", 240, 130, empty_g=1450)
BURNER = Burner(name="middle burner", net_kw=1.0)
EVENING = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)


def braise(liquid_ml: float = 1460.0, **masses: float) -> Contents:
    """The worked example of the trade: 1.46 L of skimmed liquid, 0.60 % salt, gelatin-rich."""
    solids = {"salt": 9.0, "gelatin": 34.0, "sugar": 22.0, "other": 22.0, "acid": 5.0, "pulp": 3.0} | masses
    dry = Contents().with_masses(**solids)
    return dry.with_masses(water=(liquid_ml - dry.liquid_ml) / 1.0018)


def listed(text: str, **cooked: Any) -> Braise:
    """A braise from a list as a cook would paste it."""
    lines = []
    for read in read_list(text).lines:
        assert read.problem is None, read
        assert read.ingredient is not None
        assert read.amount is not None
        amount = {"mass_g" if read.amount.dimension == "mass" else "volume_ml": read.amount.value}
        lines.append(
            Line(
                text=read.text,
                ingredient=read.ingredient.key,
                spread=read.amount.spread,
                use=read.use,
                left=read.left,
                poured_off=read.poured_off,
                **amount,
            )
        )
    return Braise(lines=tuple(lines), **cooked)


def pot(contents: Contents | None = None, pan: Pan = PAN, burner: Burner = BURNER, **more: Any) -> Pot:
    """A hot pot whose salt is known exactly."""
    known = {"salt_minus": 0.0, "salt_plus": 0.0, "measured_by": "scale", "error_ml": 3.0} | more
    return Pot(contents=contents or braise(), pan=pan, burner=burner, hot=True, **known)


def started(value: str = "1.6 l", method: str = "jug", *, hot: bool = True, **liquid: Any) -> ev.Started:
    """A start in the pan, at 0.6 % salt by the meter."""
    given = {"salt": {"by": "meter", "percent": 0.6}} | liquid
    measured = {"method": method, "value": value, "hot": hot}
    return ev.Started(pan=PAN, burner=BURNER, liquid=StrainedLiquid.model_validate({"measured": measured, **given}))


def wanted(volume_ml: float = 900.0, **more: Any) -> ev.Wanted:
    return ev.Wanted(volume_ml=volume_ml, **more)


def read(method: str, value: str | float, **more: Any) -> ev.Read:
    return ev.Read.model_validate({"measured": {"method": method, "value": value}, **more})


def event(seq: int, payload: ev.Kind, *, minute: float | None = None, id: UUID | None = None) -> ev.Event:
    at = EVENING + timedelta(minutes=seq if minute is None else minute)
    return ev.Event(id=id or uuid4(), seq=seq, at=at, payload=payload)


def log(*payloads: ev.Kind) -> list[ev.Event]:
    """Events a minute apart, numbered from 1."""
    return [event(seq, payload) for seq, payload in enumerate(payloads, 1)]


def told(*payloads: ev.Kind) -> Timeline:
    """The batch in which these things happened."""
    return fold(log(*payloads))


def fold(events: Iterable[ev.Event], now: datetime | None = None) -> Timeline:
    """A batch folded with what its plan asks of the heat, as a board folds it."""
    return folded(events, stop_of=stop_of, now=now)


def potted(*payloads: ev.Kind) -> Pot:
    """The pot after these things happened."""
    found = told(*payloads).pot
    assert found is not None
    return found


def in_words(said: Argument, units: UnitSystem | Literal["both"] = "metric") -> str:
    """What is said, with ordinary spaces."""
    return plain(said, units).replace("\u00a0", " ")


def text_of(parts: list[Any], units: UnitSystem = "metric") -> str:
    """A sentence of an answer, with ordinary spaces."""
    found = (part if isinstance(part, str) else part.get(units) or next(iter(part.values())) for part in parts)
    return "".join(found).replace("\u00a0", " ")


def words_of(error: BaseException) -> str:
    """What a cook is told of an error."""
    if isinstance(error, ValidationError):
        raised = (one.get("ctx", {}).get("error") for one in error.errors())
        return " ".join([*(words_of(one) for one in raised if isinstance(one, SpissusError)), str(error)])
    return in_words(error.message, "both") if isinstance(error, SpissusError) else str(error)


@contextmanager
def refused(kind: type[BaseException] | tuple[type[BaseException], ...], complaint: str) -> Iterator[None]:
    """Something is refused, and the cook is told why."""
    with pytest.raises(kind) as caught:
        yield
    assert re.search(complaint, words_of(caught.value)), words_of(caught.value)


def backwards(language: Catalogue) -> Catalogue:
    """A made-up language: each phrase and each word of the trade reversed, with what fills it where it was."""

    def turned(pieces: tuple[Piece, ...] | None) -> tuple[Piece, ...] | None:
        return pieces and tuple(piece._replace(words=piece.words[::-1]) for piece in pieces)

    phrases = {key: Phrase(turned(p.pieces) or (), turned(p.of_one)) for key, p in language.phrases.items()}
    return Catalogue(phrases, lambda term: term[::-1])

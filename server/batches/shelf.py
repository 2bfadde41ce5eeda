"""What the kitchen keeps, as the page shows it: on the shelf of the stove view, in its batch, and on a label."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from shared.shapes import SaidOut, Shape, ShownOut
from spissus_core.amounts.quantities import show_minutes, show_number, show_temperature, show_volume
from spissus_core.events.shelf import there_is
from spissus_core.events.state import Jar, State
from spissus_core.messages import Message, Term, say, several
from spissus_core.pantry.guests import AVOIDED_WORDS
from spissus_core.phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G
from spissus_core.phenomena.chilling import Chilled, Makes, proposals
from spissus_core.phenomena.keeping import KEEPING, Cold, KeptWhat
from spissus_core.phenomena.limits import USUAL, Limits
from spissus_core.phenomena.strength import strength_of
from spissus_core.planning.warming_again import again, warming_again

from .models import Batch
from .pot import word


class JarOut(Shape):
    """Something that is kept; ``past`` its date, ``cold_by`` when it must be cold, ``again`` how it is warmed again."""

    id: UUID
    batch: UUID
    of: str
    name: str
    what: KeptWhat
    place: Cold
    made: datetime
    use_by: datetime
    past: bool
    cold_by: datetime | None
    volume: ShownOut
    containers: int
    salt_percent: float
    taste: str
    allergens: list[str]
    alcohol: ShownOut | None
    reheated: bool
    freezes: bool
    again: SaidOut
    warming: list[SaidOut]


class KeepableOut(Shape):
    """What of a batch may still be put by, and how much there is of it."""

    what: KeptWhat
    volume: ShownOut


class ChillOut(Shape):
    """A way to cool it, and how it would go, before it is set to cool."""

    key: str
    makes: Makes
    said: SaidOut


def jar_row(jar: Jar, limits: Limits) -> dict[str, Any]:
    """What a summary keeps of it, so that a shelf never folds."""
    held = jar.contents
    return {
        "id": str(jar.id),
        "name": jar.name,
        "what": jar.what,
        "keeps": jar.keeps,
        "place": jar.place,
        "made": _told(jar.made),
        "use_by": _told(jar.use_by),
        "cold_by": None if jar.cold_by is None else _told(jar.cold_by),
        "volume_ml": held.volume_ml,
        "containers": jar.containers,
        "salt_percent": held.salt_percent,
        "strength_percent": held.strength_percent if jar.what != "fat" else None,
        "allergens": list(jar.allergens),
        "ethanol_g": held.ethanol,
        "reheated": jar.reheated,
        "warming": [SaidOut.of(said).model_dump(mode="json") for said in warming_again(jar, limits)],
        "freezes": bool(KEEPING[jar.keeps].days["freezer"]) and not jar.thawed,
    }


def _told(at: datetime) -> str:
    """A time to the second, as every answer tells it."""
    return at.replace(microsecond=0).isoformat()


def jars_out(batch: Batch, rows: Iterable[dict[str, Any]], now: datetime) -> list[JarOut]:
    """The things of a batch, from its summary."""
    return [_jar_out(batch, row, now) for row in rows]


def _jar_out(batch: Batch, row: dict[str, Any], now: datetime) -> JarOut:
    use_by, warming = datetime.fromisoformat(row["use_by"]), row.get("warming", [])
    ethanol, strength = row["ethanol_g"], row["strength_percent"]
    return JarOut(
        id=UUID(row["id"]),
        batch=batch.pk,
        of=batch.name,
        name=row["name"],
        what=row["what"],
        place=row["place"],
        made=datetime.fromisoformat(row["made"]),
        use_by=use_by,
        past=use_by < now,
        cold_by=None if row["cold_by"] is None else datetime.fromisoformat(row["cold_by"]),
        volume=ShownOut.of(show_volume(row["volume_ml"])),
        containers=row["containers"],
        salt_percent=row["salt_percent"],
        taste="" if strength is None else word(strength_of(strength).word),
        allergens=[word(AVOIDED_WORDS.get(key, key)) for key in row["allergens"]],
        alcohol=ShownOut.of(show_number(ethanol, 0, "g")) if ethanol >= ALCOHOL_WORTH_A_WORD_G else None,
        reheated=row["reheated"],
        freezes=row["freezes"],
        again=SaidOut.model_validate(warming[0]) if warming else SaidOut.of(again(row["keeps"], USUAL)),
        warming=[SaidOut.model_validate(said) for said in warming],
    )


def keepable_out(state: State) -> list[KeepableOut]:
    """What may still be put by."""
    whats: tuple[KeptWhat, ...] = ("rest", "sauce", "fat")
    found = [(what, there_is(state, what)) for what in whats]
    return [
        KeepableOut(what=what, volume=ShownOut.of(show_volume(there.volume_ml)))
        for what, there in found
        if there is not None
    ]


def chilling_out(state: State, what: KeptWhat | Literal["pot"]) -> list[ChillOut]:
    """How each way would cool it, the one that makes it first; nothing where there is none of it."""
    pot = state.pot
    if pot is None:
        return []
    unfinished = what == "pot" or (what == "sauce" and not state.finished)
    there = pot.contents if unfinished or what == "pot" else there_is(state, what)
    if there is None:
        return []
    solids_ml = pot.solids_ml if what == "pot" else 0.0
    return [
        ChillOut(key=one.way.key, makes=one.makes, said=SaidOut.of(_said(one, state.limits)))
        for one in proposals(there.volume_ml, pot.pan, state.limits, solids_ml)
    ]


def _said(one: Chilled, limits: Limits) -> Message:
    """How long it would take to each limit, or that it never gets there."""
    trays = "shelf.trays_strained" if one.lifted else "shelf.trays"
    how = say(trays, count=one.trays) if one.trays else say("shelf.way", how=Term(one.way.label))
    last = one.minutes[-1].best
    if last == float("inf"):
        return say("shelf.never", how=how)
    reached = [
        say("shelf.reached", limit=show_temperature(due.celsius), time=show_minutes(minutes.best))
        for due, minutes in zip(limits.cooled, one.minutes, strict=True)
    ]
    key = {"in_time": "shelf.in_time", "perhaps": "shelf.perhaps", "too_slow": "shelf.too_slow"}[one.makes]
    allowed = several("both", *(show_minutes(due.minutes) for due in limits.cooled))
    return say(key, how=how, reached=several("both", *reached), allowed=allowed)

"""An example sauce, for whoever has not seen one made: its log, and what is said of each step of it.

All figures are worked out as those of any other pot; what happened is made up.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import cache
from uuid import UUID

from .. import events as ev
from ..amounts.quantities import show_mass, show_minutes, show_percent, show_volume
from ..fold import Timeline, fold
from ..intake.liquid import StrainedLiquid
from ..measuring.vessels import Pan
from ..messages import Argument, Message, Term, say
from ..phenomena.heating import Burner
from ..planning.bench import stop_of
from ..planning.journey import Stretch, journey
from ..planning.tone import tone
from ..pot import Pot

#: How many eat of it, and what was stirred in, g.
PEOPLE, FLOUR_G, SALT_G = 6, 18.0, 1.1

#: Any day: nothing of it is shown.
_BEGAN = datetime(2026, 1, 10, 17, 0, tzinfo=UTC)

_STARTED = ev.Started(
    pan=Pan.round("22 cm braising pan", 220, 110, empty_g=1900),
    burner=Burner(name="middle burner", net_kw=1.2),
    liquid=StrainedLiquid.model_validate(
        {
            "measured": {"method": "dip", "value": "44 mm", "hot": True},
            "fat_mm": "4 mm",
            "salt": {"by": "meter", "percent": 0.45},
            "character": "gelatin_rich",
        }
    ),
)

#: What happened: at which minute, and what.
_HAPPENED: tuple[tuple[float, ev.Kind], ...] = (
    (0.0, _STARTED),
    (2.0, ev.Wanted(people=PEOPLE, body=3, salt_percent=0.9, ceiling_percent=1.3)),
    (3.0, ev.Chosen(route="all-taste-white_roux")),
    (9.0, ev.Skimmed(way="separator")),
    (34.9, ev.Heated(heat="off")),
    (35.0, ev.Read.model_validate({"measured": {"method": "dip", "value": "23 mm", "hot": True}})),
    (37.0, ev.Thickened(thickener="white_roux", dry_g=FLOUR_G)),
    (47.0, ev.Tested(of="body", verdict="right")),
    (49.0, ev.Salted(salt_g=SALT_G)),
    (50.0, ev.Tested(of="salt", verdict="right")),
    (52.0, ev.Finished(yield_ml=None)),
)


@dataclass(frozen=True, slots=True)
class Step:
    """A step of the example: the stage it ends, the pot as it is then, and what is said of it."""

    stage: ev.Stage
    pot: Pot
    said: Message

    @property
    def tone(self) -> float:
        """How dark it is by then, 0 to 1."""
        return tone(self.pot.contents)


@dataclass(frozen=True, slots=True)
class Example:
    """The whole of it, as it went; each stretch was done once its step is told."""

    timeline: Timeline
    ribbon: tuple[Stretch, ...]
    steps: tuple[Step, ...]


@cache
def example() -> Example:
    """The example sauce, worked out.

    >>> [step.stage for step in example().steps]
    ['strain', 'skim', 'reduce', 'thicken', 'season', 'serve']
    """
    log = [
        ev.Event(id=UUID(int=seq), seq=seq, at=_BEGAN + timedelta(minutes=minute), payload=payload)
        for seq, (minute, payload) in enumerate(_HAPPENED, 1)
    ]
    timeline = fold(log, stop_of=stop_of)
    after = {type(moment.event.payload): moment.pot for moment in timeline.moments if moment.pot is not None}
    strained, skimmed, boiled = after[ev.Started], after[ev.Skimmed], after[ev.Read]
    thick, salted, served = after[ev.Thickened], after[ev.Salted], after[ev.Finished]
    at = {type(payload): minute for minute, payload in _HAPPENED}
    steps = (
        Step(
            "strain",
            strained,
            say("example.strained", volume=_liquid(strained), fat=show_volume(strained.contents.fat_ml)),
        ),
        Step("skim", skimmed, say("example.skimmed", salt=_salt(skimmed))),
        Step(
            "reduce",
            boiled,
            say(
                "example.boiled",
                before=_liquid(skimmed),
                after=_liquid(boiled),
                time=show_minutes(at[ev.Read] - at[ev.Skimmed]),
                salt=_salt(boiled),
            ),
        ),
        Step("thicken", thick, say("example.thickened", mass=show_mass(FLOUR_G), body=Term(salted.body.step.everyday))),
        Step("season", salted, say("example.salted", mass=show_mass(SALT_G), salt=_salt(salted))),
        Step("serve", served, say("example.served", volume=_liquid(served), people=str(PEOPLE))),
    )
    return Example(timeline, journey(timeline), steps)


def _liquid(pot: Pot) -> Argument:
    return show_volume(pot.contents.liquid_ml)


def _salt(pot: Pot) -> Argument:
    return show_percent(pot.contents.salt_percent)

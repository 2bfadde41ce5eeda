"""What has become doubtful by an event, and stays so until the cook answers it: a cooling, a boil, a guest, a slip."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta
from typing import get_args

from ..ledger.contents import Contents
from ..messages import Term
from ..pantry.guests import ALCOHOL
from ..phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G
from ..phenomena.cooling import judge
from ..phenomena.palate import LEVELS, LIKED, Figured, taste_word
from ..phenomena.seasoning import USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT
from .additions import DELICATE, GoesIn, Salted
from .base import Happened
from .judging import Tested, smells_of_wine
from .looking import Metered, Read
from .rest import RestIs
from .shelf import PouredIn
from .state import Concern, Slip, Splits, State, WentIn
from .warmth import Probed

#: A reading of salt so far over what is liked, points, that comes of one entry which at least doubles it, is asked
#: about; so is the same that goes in twice within so many seconds, to within a share. Modelling choices.
SLIP_POINTS, SLIP_FACTOR, TWICE_S, SAME_SHARE = 0.15, 2.0, 120.0, 0.02

#: Cooled without anyone knowing its temperature for longer than this it is doubtful (FDA Food Code: 2 h to 21 °C).
DANGER = timedelta(hours=2)


def doubted(before: State, after: State, event: Happened) -> State:
    """The batch with what has become doubtful by an event: its cooling, what parts as it boils, or the entry itself."""
    return _slipped(before, _concerned(before, after, event), event)


def _concerned(before: State, after: State, event: Happened) -> State:
    """A cooling that failed or was left before anyone knew, what parts as it boils, and what must not be eaten."""
    found = [concern for find in _CONCERNS if (concern := find(before, after, event)) is not None]
    known = {(concern.kind, concern.holds) for concern in after.table.concerns}
    new = tuple(concern for concern in found if (concern.kind, concern.holds) not in known)
    if not new:
        return after
    kinds = {concern.kind for concern in new}
    concerns = (*(c for c in after.table.concerns if c.kind not in kinds), *new)
    return after.but(table=after.table.but(concerns=concerns))


def _cooled(before: State, after: State, event: Happened) -> Concern | None:
    """The cooling that an event ends, or takes the temperature of, where it failed or nobody knows."""
    ended = before.cooling is not None and (after.cooling is None or after.cooling.began != before.cooling.began)
    log = before.cooling if ended else after.cooling
    if log is None or log.began == after.table.vouched_for or not (ended or isinstance(event.payload, Probed)):
        return None
    stood = judge(log.readings, log.surroundings_c, after.limits).verdict
    left_late = ended and stood == "unknown" and event.at - log.began > DANGER
    failed = stood == "missed" or (ended and stood == "too_slow") or left_late
    return Concern("cooling", log.began) if failed else None


def _rest_cooled(before: State, after: State, event: Happened) -> Concern | None:
    """What was set aside, and cooled too slowly by its own probe, or was cold long after anybody knew."""
    log = before.rest if before.rest is not None and not isinstance(event.payload, RestIs) else after.rest
    if log is None or not log.readings:
        return None
    stood = judge(log.readings, log.surroundings_c, after.limits).verdict
    ended = isinstance(event.payload, RestIs) and event.payload.rest == "cold"
    left_late = ended and stood == "unknown" and event.at - log.since > DANGER
    failed = stood == "missed" or (ended and stood == "too_slow") or left_late
    return Concern("rest", log.since) if failed else None


def _past_its_date(before: State, after: State, event: Happened) -> Concern | None:
    """Something that was kept for too long has gone in."""
    payload = event.payload
    if not isinstance(payload, PouredIn) or payload.thing is None or payload.thing.use_by >= event.at:
        return None
    return Concern("kept", event.at)


def _boils(splits: Splits) -> Callable[[State, State, Happened], Concern | None]:
    """What parts or curdles, and has come to be on to boil."""

    def found(before: State, after: State, event: Happened) -> Concern | None:
        new = splits in _splitting(after) and splits not in _splitting(before)
        return Concern(splits, event.at) if new else None

    return found


def _not_eaten(before: State, after: State, event: Happened) -> Concern | None:
    """Allergens that have come to be in the pot, or in the wish, and that somebody at the table must not have.

    What was said to be free of them is asked about again as soon as another entry brings them.
    """
    if not _avoided(after):
        return None
    brought = set(event.payload.allergens) & _avoided(after)
    new = ((_shunned(after) - _shunned(before)) | brought) - after.table.told
    asked = {held for concern in after.table.concerns if concern.kind == "allergen" for held in concern.holds}
    return Concern("allergen", event.at, tuple(sorted(new | asked))) if new - asked else None


def _not_drunk(before: State, after: State, event: Happened) -> Concern | None:
    """Alcohol that has come to be in the pot, where somebody at the table must not have any, or who has come to it."""
    if ALCOHOL not in _avoided(after) or ALCOHOL in after.table.told or _alcohol_g(after) < ALCOHOL_WORTH_A_WORD_G:
        return None
    stood = ALCOHOL in _avoided(before) and _alcohol_g(before) >= ALCOHOL_WORTH_A_WORD_G
    known = any(concern.kind == ALCOHOL for concern in after.table.concerns)
    more = _alcohol_g(after) > _alcohol_g(before)
    return None if known or (stood and not more) else Concern(ALCOHOL, event.at)


def _avoided(state: State) -> set[str]:
    return set() if state.asked.wanted is None else set(state.asked.wanted.avoid)


def _shunned(state: State) -> set[str]:
    """Allergens in the pot that somebody must not have."""
    return set(state.all_allergens) & _avoided(state)


def _alcohol_g(state: State) -> float:
    return 0.0 if state.pot is None else state.pot.contents.ethanol


_CONCERNS = (
    _cooled,
    _rest_cooled,
    _past_its_date,
    *(_boils(splits) for splits in get_args(Splits)),
    _not_eaten,
    _not_drunk,
)


def _splitting(state: State) -> set[Splits]:
    """What in the pot parts or curdles since it is on to boil."""
    window = state.stove.window
    boils = window is not None and window.heating and window.setting.heat == "boil"
    return must_not_boil(state) if boils else set()


def must_not_boil(state: State) -> set[Splits]:
    """What in the pot would part or curdle on the boil; cream that bears a boil bears none with raw wine."""
    if state.pot is None or not state.went_in.delicate:
        return set()
    raw = smells_of_wine(state.pot)
    return {row.doubt for key in state.went_in.delicate if (row := DELICATE[key]).always or raw}


def _slipped(before: State, after: State, event: Happened) -> State:
    """Salt over the ceiling, or twice what there was, of one entry; and the same twice within a short while."""
    happened, pot, was = event.payload, after.pot, before.pot
    if isinstance(happened, Tested | Read | Metered):
        # Whoever looked or tasted in between knew of the first.
        return after.but(went_in=after.went_in.but(last=()))
    if pot is None or was is None or not isinstance(happened, GoesIn):
        return after
    grams = pot.contents.mass_g - was.contents.mass_g
    new = WentIn(happened.key, event.at, grams)
    last = next((one for one in before.went_in.last if one.key == new.key), None)
    others = (one for one in before.went_in.last if one.key != new.key)
    after = after.but(went_in=after.went_in.but(last=(*others, new)))
    wanted = after.asked.wanted
    ceiling = wanted.ceiling_percent if wanted else USUAL_CEILING_PERCENT
    liking = wanted.salt_percent if wanted else USUAL_SALT_PERCENT
    percent, past = pot.contents.salt_percent, was.contents.salt_percent
    more = pot.contents.salt > was.contents.salt
    over = more and past <= ceiling < percent
    doubled = more and percent > SLIP_FACTOR * past and percent > liking + SLIP_POINTS
    twice = last is not None and _the_same(last, new, happened)
    tastes = _far_too(pot.contents, was.contents)
    if not (over or doubled or tastes or twice):
        return after
    salty = over or doubled
    named = "" if salty or tastes else happened.named
    slip = Slip(event.id, grams, percent, twice=named, tastes="" if salty or not tastes else Term(tastes))
    return after.but(went_in=after.went_in.but(slips=(*after.went_in.slips, slip)))


#: An entry that makes it so many times as sour, or as sweet, as anybody likes it covered is a slip. Modelling choice.
FAR_TIMES = 2.0


#: Which tastes a slip may make too much of.
_SLIPS: tuple[Figured, ...] = ("sour", "sweet")


def _far_too(now: Contents, was: Contents) -> str | None:
    """What it tastes of far too much by one entry, in a word; None where it does not."""
    for of in _SLIPS:
        level, before = LEVELS[of](now), LEVELS[of](was)
        if level > FAR_TIMES * LIKED[of].covered and level > SLIP_FACTOR * before:
            return taste_word(of, level)
    return None


def _the_same(last: WentIn, new: WentIn, happened: GoesIn) -> bool:
    """Whether two entries may be one that was told twice: of salt any amount, of all else the same."""
    soon = abs((new.at - last.at).total_seconds()) <= TWICE_S
    return soon and (isinstance(happened, Salted) or abs(new.grams - last.grams) <= SAME_SHARE * new.grams)

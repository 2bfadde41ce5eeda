"""What may be doubtful about a pot: what is said of it, in full and in a list of pots, and what may be said to it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from ..amounts.quantities import show_number
from ..events import State
from ..events.doubts import must_not_boil
from ..events.state import Concern, ConcernKind, Splits
from ..messages import Argument, Message, Term, say, sentences, several
from ..pantry.guests import AVOIDED_WORDS

Told = Literal["thrown_away", "in_order", "mended", "told"]


@dataclass(frozen=True, slots=True)
class Doubt:
    """A kind of doubt: its phrase, the words for a list of pots, and the answers with what each of them means."""

    phrase: str
    short: Message
    answers: tuple[tuple[Message, Told], ...]


_BOILED: tuple[tuple[Message, Told], ...] = (
    (say("answers.taken_off_in_time"), "in_order"),
    (say("answers.it_boiled"), "mended"),
)

DOUBTS: Mapping[ConcernKind, Doubt] = {
    "cooling": Doubt(
        "doubts.cooling",
        say("doubts.cooling_short"),
        ((say("answers.thrown_away"), "thrown_away"), (say("answers.reading_was_wrong"), "in_order")),
    ),
    "rest": Doubt(
        "doubts.rest",
        say("doubts.rest_short"),
        ((say("answers.thrown_away"), "thrown_away"), (say("answers.reading_was_wrong"), "in_order")),
    ),
    "kept": Doubt(
        "doubts.kept",
        say("doubts.kept_short"),
        ((say("answers.thrown_away"), "thrown_away"), (say("answers.date_was_wrong"), "in_order")),
    ),
    "butter": Doubt("doubts.butter", say("doubts.butter_short"), _BOILED),
    "yolk": Doubt("doubts.yolk", say("doubts.yolk_short"), _BOILED),
    "cream": Doubt("doubts.cream", say("doubts.cream_short"), _BOILED),
    "alcohol": Doubt(
        "doubts.alcohol",
        say("doubts.alcohol_short"),
        ((say("answers.they_are_told"), "told"), (say("answers.none_in_it"), "in_order")),
    ),
    "allergen": Doubt(
        "doubts.allergen",
        say("doubts.allergen_short"),
        ((say("answers.they_are_told"), "told"), (say("answers.free_of_it"), "in_order")),
    ),
}

#: What each of what parts or curdles bears, in words: handbook of the trade, sections 9 and 11.
_BEARS: Mapping[Splits, Message] = {
    "butter": say("doubts.butter_bears"),
    "yolk": say("doubts.yolk_bears"),
    "cream": say("doubts.cream_bears"),
}


def guard(timeline: State) -> Message | None:
    """What is said before it is set to boil, where something in it must not; None where all of it may."""
    held = must_not_boil(timeline)
    found = [said for splits, said in _BEARS.items() if splits in held]
    return sentences(*found) if found else None


#: Less alcohol than this is "up to a gram", g. Modelling choice.
LEAST_ALCOHOL_G = 1.0


def concern_line(concern: Concern, timeline: State) -> Message:
    """What is said of a pot that is doubtful, before anything else and on every page."""
    assert timeline.pot is not None
    grams = timeline.pot.contents.ethanol
    if concern.kind == "alcohol" and grams < LEAST_ALCOHOL_G:
        return say("doubts.little_alcohol")
    holds = (Term(AVOIDED_WORDS[key]) if key in AVOIDED_WORDS else key for key in concern.holds)
    told: Mapping[str, dict[str, Argument]] = {
        "alcohol": {"grams": show_number(grams, 0, "g")},
        "allergen": {"holds": several("both", *holds)},
    }
    return say(DOUBTS[concern.kind].phrase, **told.get(concern.kind, {}))

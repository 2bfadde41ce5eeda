"""Cautions, where they apply. Aids, not a safety certificate: local food rules come first."""

from __future__ import annotations

from ..amounts.quantities import show_number
from ..events import State
from ..intake.braise import Braise
from ..ledger.contents import Contents
from ..messages import Message, Term, say, sentences, several
from ..pantry.guests import AVOIDED_WORDS
from ..phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G, strength_percent
from ..phenomena.body import Body

#: While fat is handled (common practice, and rules for drains everywhere).
FAT_CAUTIONS = (say("safety.hot_fat"), say("safety.never_down_the_drain"))

#: Temperatures: FDA Food Code 2022 §3-501.16 and §3-501.14; Food Safety and Hygiene (England)
#: Regulations 2013, Sch. 4.
SERVING_CAUTIONS = (say("safety.keep_it_hot"), say("safety.local_rules"))

#: While a pot cools. Limits as in :mod:`.cooling`.
COOLING_CAUTIONS = (say("safety.cool_it_fast"), say("safety.never_a_full_pot"))

#: Body from which boiling slows and scorching starts, step of the ladder (common practice).
SCORCHES_FROM_STEP = 2


def boiling_cautions(body: Body) -> tuple[Message, ...]:
    """What to mind while this liquid boils down (common practice)."""
    always = say("safety.tide_mark")
    return (say("safety.scorches"), always) if body.step.index >= SCORCHES_FROM_STEP else (always,)


ALCOHOL_REMAINS = say("safety.alcohol_remains")


def alcohol_cautions(contents: Contents, portions: int | None = None) -> tuple[Message, ...]:
    """Alcohol the ledger still holds, in g, in % vol and for each portion (common practice)."""
    if contents.ethanol < ALCOHOL_WORTH_A_WORD_G:
        return ()
    grams = show_number(contents.ethanol, 1, "g")
    strength = show_number(strength_percent(contents.ethanol, contents.liquid_ml), 1, "% vol")
    if not portions:
        return (sentences(say("safety.alcohol", grams=grams, strength=strength), ALCOHOL_REMAINS),)
    each = show_number(contents.ethanol / portions, 1, "g")
    held = say("safety.alcohol_by_portion", grams=grams, strength=strength, each=each, count=portions)
    return (sentences(held, ALCOHOL_REMAINS),)


def intake_cautions(braise: Braise) -> tuple[Message, ...]:
    """What to mind about what went in (common practice)."""
    out: list[Message] = []
    uses = {line.use for line in braise.counted}
    groups = {line.what.group for line in braise.counted}
    if "flamed" in uses:
        out.append(say("safety.flaming"))
    if "fried" in uses:
        out.append(say("safety.what_sticks"))
    if groups & {"wine", "tomato"}:
        out.append(say("safety.bare_metal"))
    if any(line.what.key == "tomato_paste" for line in braise.counted):
        out.append(say("safety.tomato_paste"))
    if any(line.what.group == "starch" and line.use in ("in", "dredged") for line in braise.counted):
        out.append(say("safety.flour_first"))
    return tuple(out)


def allergen_cautions(timeline: State) -> tuple[Message, ...]:
    """What to tell a guest who asks."""
    brings = [Term(AVOIDED_WORDS.get(key, key)) for key in timeline.all_allergens]
    known = several("clauses", *brings) if brings else None
    if timeline.start and timeline.start.liquid.braise:
        return (say("safety.no_allergen_listed") if known is None else say("safety.holds_by_list", allergens=known),)
    rest = say("safety.allergens_of_the_braise")
    return (rest if known is None else sentences(say("safety.added_here", allergens=known), rest),)

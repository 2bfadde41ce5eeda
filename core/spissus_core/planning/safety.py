"""Cautions, where they apply. Aids, not a safety certificate: local food rules come first."""

from __future__ import annotations

from ..amounts.quantities import show_minutes, show_number, show_temperature
from ..events import State
from ..intake.braise import Braise
from ..ledger.contents import Contents
from ..messages import Argument, Message, Shown, Term, say, sentences, several
from ..pantry.guests import AVOIDED_WORDS
from ..phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G, strength_percent
from ..phenomena.body import Body
from ..phenomena.limits import Limits

#: While fat is handled (common practice, and rules for drains everywhere).
FAT_CAUTIONS = (say("safety.hot_fat"), say("safety.never_down_the_drain"))


def serving_cautions(limits: Limits) -> tuple[Message, ...]:
    """What to mind of a finished sauce, by the limits of its kitchen."""
    hot = say("safety.keep_it_hot", hot=limits.hold, start=_starts(limits), dues=_dues(limits))
    return hot, say("safety.late_plate", hot=limits.hold, reheat=limits.reheat), local_rules(limits)


def cooling_cautions(limits: Limits) -> tuple[Message, ...]:
    """What to mind while a pot cools, by the limits of its kitchen."""
    how = say("safety.cool_it_fast", start=_starts(limits), dues=_dues(limits))
    return how, say("safety.never_a_full_pot"), local_rules(limits)


def kitchen_limits(limits: Limits) -> tuple[Message, ...]:
    """What the limits of a kitchen say, a line each."""
    return (
        say("safety.kept_hot", hot=limits.hold, reheat=limits.reheat),
        say("safety.cooled", start=_starts(limits), dues=_dues(limits)),
        local_rules(limits),
    )


def local_rules(limits: Limits) -> Message:
    """Whose figures these are, and that local rules come first."""
    return say("safety.local_rules", place=Term(limits.label))


def _starts(limits: Limits) -> Shown:
    return show_temperature(limits.starts_c)


def _dues(limits: Limits) -> Argument:
    dues = [
        say("safety.due", limit=show_temperature(due.celsius), within=show_minutes(due.minutes))
        for due in limits.cooled
    ]
    return several("both", *dues)


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

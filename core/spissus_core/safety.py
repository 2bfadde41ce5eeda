"""Cautions, where they apply. Aids, not a safety certificate: local food rules come first."""

from __future__ import annotations

from . import events as ev
from .body import Body
from .contents import Contents
from .fold import Timeline
from .ingredients import ingredient
from .thickeners import THICKENERS

#: While fat is handled (common practice, and rules for drains everywhere).
FAT_CAUTIONS = (
    "Hot fat burns: tilt the pan away from you. Never put water or ice into fat hotter than boiling water.",
    "Let the fat set and bin it, or keep it for roux. Never pour it down the drain.",
)

#: Temperatures: FDA Food Code 2022 §3-501.16 and §3-501.14; Food Safety and Hygiene (England)
#: Regulations 2013, Sch. 4.
SERVING_CAUTIONS = (
    "Keep it hot at 57 °C / 135 °F or above (63 °C in England). To keep it for later, cool it from 57 to 21 °C "
    "within 2 h and to 5 °C within 6 h in all: shallow pans, an ice bath, stirring.",
    "Local food rules and your own food-safety plan come first.",
)

#: Body from which boiling slows and scorching starts, step of the ladder (common practice).
SCORCHES_FROM_STEP = 2


def boiling_cautions(body: Body) -> tuple[str, ...]:
    """What to mind while this liquid boils down (common practice)."""
    always = "Brush the tide-mark down with a little of the sauce: it is flavour, and it burns."
    if body.step.index >= SCORCHES_FROM_STEP:
        return ("It is thick enough to scorch and to spit: lower the heat and stir the base.", always)
    return (always,)


#: Less alcohol than this in a whole pot is not worth a word, g. Modelling choice.
ALCOHOL_WORTH_A_WORD_G = 0.5


def alcohol_cautions(contents: Contents) -> tuple[str, ...]:
    """Alcohol the ledger still holds; what the braise itself brought is not in it (common practice)."""
    if contents.ethanol < ALCOHOL_WORTH_A_WORD_G:
        return ()
    return (
        f"About {contents.ethanol:.0f} g of alcohol is still in the pot from what was added here, by the ledger. "
        "Boiling drives most of it off, never surely all.",
    )


def allergens(timeline: Timeline) -> tuple[str, ...]:
    """Allergens of everything that was added, by name and in order of the alphabet.

    What went into the braise before it was strained is not known here.
    """
    found: set[str] = set()
    for moment in timeline.moments:
        happened = moment.event.payload
        if moment.struck or moment.problem is not None:
            continue
        if isinstance(happened, ev.Thickened):
            found.update(THICKENERS[happened.thickener].allergens)
        elif isinstance(happened, ev.Added):
            found.update(ingredient(happened.ingredient).allergens)
    return tuple(sorted(found))


def allergen_cautions(timeline: Timeline) -> tuple[str, ...]:
    """What to tell a guest who asks."""
    known = ", ".join(allergens(timeline))
    brought = f"What was added here brings {known}. " if known else ""
    return (f"{brought}Allergens of the braise itself, its stock and its wine count too.",)

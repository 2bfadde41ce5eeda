"""Cautions, where they apply. Aids, not a safety certificate: local food rules come first."""

from __future__ import annotations

from ..events import State
from ..intake.braise import Braise
from ..ledger.contents import Contents
from ..phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G, strength_percent
from ..phenomena.body import Body

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

#: While a pot cools. Limits as in :mod:`.cooling`.
COOLING_CAUTIONS = (
    "From 57 to 21 °C (135 to 70 °F) within 2 h and to 5 °C (41 °F) within 6 h in all: a whole pot with meat in it "
    "often fails. Lift the meat or split it, shallow pans of at most 5 cm, an ice bath, stirring, then the fridge.",
    "Never leave a full pot to cool to room temperature first. Local food rules come first.",
)

#: Body from which boiling slows and scorching starts, step of the ladder (common practice).
SCORCHES_FROM_STEP = 2


def boiling_cautions(body: Body) -> tuple[str, ...]:
    """What to mind while this liquid boils down (common practice)."""
    always = "Brush the tide-mark down with a little of the sauce: it is flavour, and it burns."
    if body.step.index >= SCORCHES_FROM_STEP:
        return ("It is thick enough to scorch and to spit: lower the heat and stir the base.", always)
    return (always,)


ALCOHOL_REMAINS = "Boiling drives most of it off, never surely all: tell whoever must not have any."


def alcohol_cautions(contents: Contents, portions: int | None = None) -> tuple[str, ...]:
    """Alcohol the ledger still holds, in g, in % vol and for each portion (common practice)."""
    if contents.ethanol < ALCOHOL_WORTH_A_WORD_G:
        return ()
    each = f", {contents.ethanol / portions:.1f} g in each of {portions} portions" if portions else ""
    strength = strength_percent(contents.ethanol, contents.liquid_ml)
    return (
        f"About {contents.ethanol:.1f} g of alcohol may still be in the pot by the ledger, {strength:.1f} % vol{each}. "
        f"{ALCOHOL_REMAINS}",
    )


#: For anyone who sets spirits alight (common practice).
FLAMING_CAUTIONS = (
    "Flaming: take the pan off the burner, switch the extractor off, keep a lid at hand, never pour from the bottle. "
    "At home it is better not done: boiling drives off more.",
)


def intake_cautions(braise: Braise) -> tuple[str, ...]:
    """What to mind about what went in (common practice)."""
    out: list[str] = []
    uses = {line.use for line in braise.counted}
    groups = {line.what.group for line in braise.counted}
    if "flamed" in uses:
        out += FLAMING_CAUTIONS
    if "fried" in uses:
        out.append(
            "What sticks to the pan is the flavour: dissolve it with the wine or the stock. What is black is bitter: "
            "wipe it out."
        )
    if groups & {"wine", "tomato"}:
        out.append(
            "Wine and tomato can taste of metal from bare iron or aluminium: enamelled or steel pans are kinder."
        )
    if any(line.what.key == "tomato_paste" for line in braise.counted):
        out.append("Tomato paste wants 2 to 5 min of frying before liquid goes in, to lose its raw taste.")
    if any(line.what.group == "starch" and line.use in ("in", "dredged") for line in braise.counted):
        out.append(
            "Flour wants 1 to 4 min of frying before liquid goes in. It concentrates with everything else; wipe black "
            "flour out of the pan, it is bitter."
        )
    return tuple(out)


def allergen_cautions(timeline: State) -> tuple[str, ...]:
    """What to tell a guest who asks."""
    known = ", ".join(timeline.all_allergens)
    if timeline.started and timeline.started.liquid.braise:
        said = f"By the list it holds {known}." if known else "The list names no allergen."
        return (f"{said} Labels of what you bought come first.",)
    brought = f"What was added here brings {known}. " if known else ""
    return (f"{brought}Allergens of the braise itself, its stock and its wine count too.",)

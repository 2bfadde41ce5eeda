"""What something that is kept needs when it is warmed again: how hot, how long, and what goes in at the end."""

from __future__ import annotations

from ..amounts.quantities import show_mass, show_minutes, show_percent, show_temperature, show_volume
from ..events.state import Jar
from ..ledger.contents import percent
from ..ledger.water import HEAT_CAPACITY_KJ_KG_K
from ..messages import Message, Term, say, sentences
from ..phenomena.cooling import FRIDGE_C
from ..phenomena.keeping import KEEPING
from ..phenomena.limits import Limits

#: A middle burner under a small pan, kW into it, and at the gentlest, for what must not boil. Modelling choices.
BRISK_KW, GENTLE_KW = 0.8, 0.3

#: A fresh knob for so much sauce, g per mL (handbook of the trade, section 11: 10 g in 250 mL); what starch binds
#: has thickened as it stood, and takes a spoon of water: a share of it. Common practice.
KNOB_G_ML, LOOSENS = 10.0 / 250.0, 0.04

#: From so much gelatin on it has set as a jelly, %. Handbook of the trade, section 2.
SETS_PERCENT = 1.5


def again(keeps: str, limits: Limits) -> Message:
    """How it is warmed again, as it stands on a label."""
    row = KEEPING[keeps]
    how = say("shelf.again", how=Term(row.again))
    if row.warm_c is None:
        return how
    low_c, high_c = row.warm_c
    to_c = max(low_c, limits.reheat_c)
    low, high = show_temperature(to_c), show_temperature(high_c)
    if to_c > high_c:
        return say("shelf.not_warm_enough", low=low, high=high)
    return sentences(say("shelf.warm_to", low=low, high=high), how)


def warming_again(jar: Jar, limits: Limits) -> tuple[Message, ...]:
    """What is said of it, the first first."""
    if jar.what == "fat":
        return (again(jar.keeps, limits),)
    held = jar.contents
    kw = BRISK_KW if jar.keeps in ("stock", "sauce") else GENTLE_KW
    minutes = held.mass_g / 1000.0 * HEAT_CAPACITY_KJ_KG_K * (limits.reheat_c - FRIDGE_C) / (60.0 * kw)
    said = [
        again(jar.keeps, limits),
        say("shelf.warms_in", time=show_minutes(max(minutes, 1.0)), volume=show_volume(held.liquid_ml)),
    ]
    if percent(held.gelatin, held.liquid_g) >= SETS_PERCENT:
        said.append(say("shelf.has_set"))
    if held.starch_g > 0.0:
        said.append(say("shelf.loosens", volume=show_volume(LOOSENS * held.liquid_ml)))
    if jar.keeps == "butter":
        said.append(say("shelf.knob", mass=show_mass(max(round(KNOB_G_ML * held.liquid_ml), 1))))
    said.append(say("shelf.taste", salt=show_percent(held.salt_percent)))
    return tuple(said)

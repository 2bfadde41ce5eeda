"""The words: what the now line says, and what the log says of each event."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from spissus_core.amounts.quantities import (
    Said,
    Shown,
    say,
    show_length,
    show_mass,
    show_spoons,
    show_temperature,
    show_volume,
)
from spissus_core.estimation.forecast import Outlook
from spissus_core.events import State
from spissus_core.ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from spissus_core.measuring.measurement import Method
from spissus_core.pantry.ingredients import ingredient
from spissus_core.pantry.schools import School
from spissus_core.phenomena.body import LADDER
from spissus_core.phenomena.cooling import HOLD_HOT_C, STARTS_C, Cooling
from spissus_core.phenomena.seasoning import SaltKind, salt_spoon_ml
from spissus_core.planning.guidance import Act


@dataclass(frozen=True, slots=True)
class Measure:
    """An amount as a cook would weigh it, and as the same cook would spoon it."""

    main: Shown
    also: Shown

    @property
    def full(self) -> Shown:
        """Both in one: "27 g (3½ tbsp)"."""
        main, also = self.main, self.also
        return Shown(main.value, f"{main.metric} ({also.metric})", f"{main.us} ({also.us})")


def salt_amount(grams: float, kind: SaltKind) -> Measure:
    """Salt in tenths of a gram and in level spoons of its kind."""
    weight, spoons = f"{grams:.1f}\u00a0g", show_spoons(salt_spoon_ml(grams, kind))
    return Measure(Shown(grams, weight, spoons), Shown(grams, spoons, weight))


def dry_amount(grams: float, thickener: School) -> Measure:
    """Dry thickener by weight and in level spoons."""
    weight, spoons = show_mass(grams), show_spoons(thickener.spoon_ml(grams))
    return Measure(Shown(grams, weight.metric, spoons), Shown(grams, spoons, weight.us))


def carrier_amount(grams: float, thickener: School) -> Measure:
    """The fat or cold liquid that goes in with ``grams`` g of thickener."""
    if thickener.fat_g:
        fat_g = grams * thickener.fat_g
        weight, spoons = show_mass(fat_g), show_spoons(fat_g / ingredient("lard").density_g_ml)
        return Measure(Shown(fat_g, weight.metric, spoons), Shown(fat_g, spoons, weight.us))
    water_ml = grams * thickener.water_g * SPECIFIC_VOLUME_ML_G["water"]
    volume, spoons = show_volume(water_ml), show_spoons(water_ml)
    return Measure(volume, Shown(water_ml, spoons, volume.metric))


#: Where the next act cannot be worked out.
ALONE = say("What comes next cannot be worked out. What you enter is kept; go by spoon and tongue.")


def now_line(act: Act, timeline: State) -> Said:
    """One sentence that says what to do next."""
    match act.kind:
        case "start":
            return say("Say what is in the pot.")
        case "want":
            return say("Say what you want of it: how much, how thick, how salty.")
        case "choose":
            return say("Pick a way there.")
        case "cool":
            assert act.cooling is not None
            return cooling_line(act.cooling)
        case "skim":
            return say("Skim first: about {} of fat is floating.", show_volume(act.amount))
        case "heat":
            return say("Turn the heat on and boil it down to {}: {}.", show_volume(act.amount), _stop(act))
        case "boil":
            return _boil_line(act)
        case "let_down":
            return _let_down_line(act, timeline)
        case "thicken":
            return _thicken_line(act)
        case "test_body":
            return _test_line(act, timeline)
        case "salt":
            more = "Stir in {} of salt, taste, let it rest." if act.first else "Stir in {} more salt, and taste again."
            return say(more, salt_amount(act.amount, "table").full)
        case "test_salt":
            return _salt_line(act, timeline)
        case "finish":
            return say("It is a sauce: {}. Serve it, or keep it hot above {}.", show_volume(act.amount), HOLD_HOT)
        case "done":
            return say("Finished with {}.", show_volume(act.amount))
        case "alone":
            return ALONE


#: Hot-holding limit. England asks for more; local rules come first.
HOLD_HOT = show_temperature(HOLD_HOT_C)


def _boil_line(act: Act) -> Said:
    return say(f"Expect {{}}. Stop at {{}}.{_MEASURE[act.measure]}", show_length(act.expect_mm), _stop(act))


#: Where what was measured with so far is too coarse for what is left to lose.
_MEASURE: dict[Method | Literal["spoon"] | None, str] = {
    None: "", "scale": " By the scale from now on.", "jug": " By the jug from now on.", "dip": "", "eye": "",
    "spoon": " Go by the spoon from now on.",
}  # fmt: skip


def _stop(act: Act) -> Shown:
    """The mark in the pan, and the weight where a scale is the better judge."""
    mark = show_length(act.stop_mm)
    if act.measure != "scale" or act.stop_gross_g is None:
        return mark
    weight = show_mass(act.stop_gross_g)
    return Shown(mark.value, f"{weight.metric} ({mark.metric})", f"{weight.us} ({mark.us})")


def overdue_line(act: Act) -> Said:
    """What the now line says once the time to look has come."""
    return say(f"Look now. Stop at {{}}.{_MEASURE[act.measure]}", _stop(act))


def rate_line(outlook: Outlook, batches: int) -> Said:
    """How fast it goes, and how that is known."""
    steam = outlook.steam
    what = f"{steam.best:.0f} g of steam a minute, likely {steam.low:.0f} to {steam.high:.0f}"
    earlier = f" and {batches} earlier {'batch' if batches == 1 else 'batches'}" if batches else ""
    if outlook.readings == 0:
        return say(
            f"{what}: a guess from the burner{earlier}." if not batches else f"{what}: learned from{earlier[4:]}."
        )
    readings = f"{outlook.readings} reading{'s' if outlook.readings > 1 else ''}"
    left_out = (
        " One reading does not fit and is left out."
        if outlook.outliers == 1
        else (f" {outlook.outliers} readings do not fit and are left out." if outlook.outliers else "")
    )
    return say(f"{what}, learned from {readings}{earlier}.{left_out}")


def _let_down_line(act: Act, timeline: State) -> Said:
    amount = show_volume(act.amount)
    if timeline.salt_verdict == "high":
        return say("Too salty: stir in {} of water or unsalted stock, and taste again.", amount)
    if timeline.body_verdict == "high":
        return say("Too thick: let it down with {} of unsalted stock or water, and test again.", amount)
    pot = timeline.pot
    assert pot is not None
    after = (pot.contents + Contents(water=act.amount / SPECIFIC_VOLUME_ML_G["water"])).salt_percent
    return say(f"Past the mark: stir in {{}} of water or unsalted stock; {after:.2f} % salt then.", amount)


def _thicken_line(act: Act) -> Said:
    assert act.route is not None
    thickener = act.route.thickener
    assert thickener is not None
    what = f"of {thickener.dry}" if act.first else f"more {thickener.dry}"
    ends = ". More follows by the spoon." if act.first else ", and test again."
    if not thickener.carrier:
        return say(f"Whisk in {{}} {what}{ends}", dry_amount(act.amount, thickener).full)
    return say(
        f"Whisk in {{}} {what} with {{}} {thickener.carrier}{ends}",
        dry_amount(act.amount, thickener).full, carrier_amount(act.amount, thickener).main,
    )  # fmt: skip


def _test_line(act: Act, timeline: State) -> Said:
    word = LADDER[timeline.wanted.body].word if timeline.wanted else "sauce"
    if timeline.binders:
        low, high = timeline.binders[-1]
        return say(f"Simmer {low:.0f} to {high:.0f} min, then a spoonful on a warm plate. Is it a {word}?")
    return say(f"Put a spoonful on a warm plate. Is it a {word}?")


def _salt_line(act: Act, timeline: State) -> Said:
    pot = timeline.pot
    assert pot is not None
    salt = f"about {pot.salt_percent.best:.2f} % salt"
    if act.amount > 0.3:
        return say(f"Taste it: {salt}. Flat? {{}} more would bring it to yours.", salt_amount(act.amount, "table").full)
    return say(f"Taste it: {salt}. Right?")


def cooling_line(stands: Cooling) -> Said:
    """How a cooling pot stands, and what to do."""
    limit = show_temperature(stands.limit_c or 0.0)
    match stands.verdict:
        case "above":
            return say("Cooling. The clock starts at {}: take its temperature again.", show_temperature(STARTS_C))
        case "unknown":
            return say("It must reach {} by {{by}}. Take its temperature again.", limit)
        case "in_time":
            return say("On its way: it must reach {} by {{by}}, and will.", limit)
        case "too_slow":
            return say("Too slow: it must reach {} by {{by}} and will not. Split it, ice bath, stir.", limit)
        case "missed":
            return say("It missed {}, due by {{by}}. By the food code it is not safe to keep.", limit)
        case "done":
            return say("Cold, and in time. Lift the fat.")

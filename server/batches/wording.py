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
    show_minutes,
    show_spoons,
    show_temperature,
    show_volume,
)
from spissus_core.estimation.forecast import Outlook
from spissus_core.events import State
from spissus_core.events.state import Concern, ConcernKind
from spissus_core.ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from spissus_core.measuring.measurement import Method
from spissus_core.pantry.guests import AVOIDED_WORDS, DISHES, USUAL_PEOPLE
from spissus_core.pantry.ingredients import ingredient
from spissus_core.pantry.schools import School
from spissus_core.phenomena.body import LADDER
from spissus_core.phenomena.cooling import HOLD_HOT_C, STARTS_C, Cooling
from spissus_core.phenomena.fat import WAYS as SKIM_WAYS
from spissus_core.phenomena.seasoning import SaltKind, salt_spoon_ml
from spissus_core.planning.explanation import because
from spissus_core.planning.guidance import Act
from spissus_core.planning.routes import WAYS, suggested


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
            return _want_line(act, timeline)
        case "choose":
            return _choose_line(act, timeline)
        case "cool":
            assert act.cooling is not None
            return cooling_line(act.cooling)
        case "skim":
            way = SKIM_WAYS[act.way].label if act.way else "skim"
            again = "Still" if act.why == "still_fat" else "Skim first:"
            return say(f"{again} about {{}} of fat is floating. Take it off: {way}.", show_volume(act.amount))
        case "take":
            return say("Take {} for the sauce by the jug, and keep the rest.", show_volume(act.amount))
        case "heat":
            again = (
                "Too thin, and the salt allows it: boil on to"
                if act.why == "too_thin"
                else "Turn the heat on and boil it down to"
            )
            return say(f"{again} {{}}: {{}}.", show_volume(act.amount), _stop(act))
        case "boil":
            return _boil_line(act)
        case "let_down":
            return _let_down_line(act, timeline)
        case "thicken":
            return _thicken_line(act)
        case "test_body":
            return _test_line(act, timeline)
        case "measure":
            return say(f"Some of it steamed away: measure it{_BY[act.measure]} before it is salted.")
        case "salt":
            more = "Stir in {} of salt, taste, let it rest." if act.first else "Stir in {} more salt, and taste again."
            return say(more, salt_amount(act.amount, "table").full)
        case "test_salt":
            return _salt_line(act, timeline)
        case "finish":
            return say("It is a sauce: {}. Serve it, or keep it hot above {}.", show_volume(act.amount), HOLD_HOT)
        case "done":
            return say("Thrown away.") if timeline.thrown_away else say("Finished with {}.", show_volume(act.amount))
        case "alone":
            return ALONE
        case "warn":
            assert act.concern is not None
            return concern_line(act.concern, timeline)
        case "slip":
            return _slip_line(act)


#: What is said of a pot that is doubtful, before anything else and on every page.
_CONCERNS: dict[ConcernKind, str] = {
    "cooling": "It was not cooled in time, or nobody knows that it was. By the food code it is not safe to keep: throw "
    "it away, or say that a reading was wrong. Local food rules come first.",
    "butter": "Butter is in it, and it is on to boil: it parts. Take it off the heat, and whisk.",
    "alcohol": "{grams} of alcohol may be in it, and somebody at the table must not have any. Boiling "
    "never drives all of it off: tell them, or cook theirs apart.",
    "allergen": "It holds {holds}, and somebody at the table must not have that: tell them, or cook theirs apart.",
}


#: The same in a list of pots.
CONCERN_WORDS: dict[ConcernKind, str] = {
    "cooling": "cooling in doubt",
    "butter": "butter on the boil",
    "alcohol": "alcohol, and somebody must not",
    "allergen": "holds what somebody must not eat",
}


def concern_line(concern: Concern, timeline: State) -> Said:
    """What is said of a pot that is doubtful."""
    pot = timeline.pot
    assert pot is not None
    holds = " and ".join(AVOIDED_WORDS.get(key, key) for key in concern.holds)
    grams = pot.contents.ethanol
    about = f"About {grams:.0f}\u00a0g" if grams >= 1.0 else "Up to a gram"
    return say(_CONCERNS[concern.kind].format(grams=about, holds=holds))


def _slip_line(act: Act) -> Said:
    """What is asked of an entry that looks like a slip."""
    slip = act.slip
    assert slip is not None
    if slip.twice:
        return say(f"Salt went in twice within a minute; {slip.percent:.2f}\u00a0% now. Both?")
    return say(f"That makes {slip.percent:.1f}\u00a0% salt: {slip.grams:.3g}\u00a0g, or {slip.grams / 10:.2g}\u00a0g?")


def _want_line(act: Act, timeline: State) -> Said:
    pot = timeline.pot
    assert pot is not None
    wish = suggested(pot)
    for_whom = f"For {_COUNT[wish.people]}, {DISHES[wish.dish].under}" if wish.people else "All there is"
    return say(
        f"{for_whom}: {{}}, {LADDER[wish.body].word}, {wish.salt_percent:g}\u00a0% salt. Is that it?",
        show_volume(act.amount),
    )


#: So many people, in words.
_COUNT = {USUAL_PEOPLE: "four people"}


def _choose_line(act: Act, timeline: State) -> Said:
    pot, wanted = timeline.pot, timeline.wanted
    assert pot is not None
    assert wanted is not None
    if act.route is None:
        return say("No way leads there from this pot: ask for another amount, body or salt.")
    why, label = because(pot, wanted, act.route), WAYS[act.route.kind].label
    return Said(f"{label}. {why.metric}", f"{label}. {why.us}")


#: Hot-holding limit. England asks for more; local rules come first.
HOLD_HOT = show_temperature(HOLD_HOT_C)


def _boil_line(act: Act) -> Said:
    back = {
        "too_thin": "Too thin, and the salt allows it. ",
        "no_time": f"About {show_minutes(act.late_min).metric} too late for when you want it. ",
    }.get(act.why or "", "")
    expect = "" if act.stop_mm < LEAST_RULER_MM else f"Expect {show_length(act.expect_mm).metric}. "
    us = "" if act.stop_mm < LEAST_RULER_MM else f"Expect {show_length(act.expect_mm).us}. "
    ends = say(f"Stop at {{}}.{_MEASURE[act.measure]}", _stop(act))
    return Said(f"{back}{expect}{ends.metric}", f"{back}{us}{ends.us}")


#: Where what was measured with so far is too coarse for what is left to lose.
_MEASURE: dict[Method | Literal["spoon"] | None, str] = {
    None: "", "scale": " By the scale from now on.", "jug": " By the jug from now on.", "dip": "", "eye": "",
    "spoon": " Go by the spoon from now on.",
}  # fmt: skip


def _stop(act: Act) -> Shown:
    """The mark in the pan, and the weight where a scale is the better judge; where no ruler reads it, no mark."""
    mark, volume = show_length(act.stop_mm), show_volume(act.amount)
    weight = None if act.stop_gross_g is None else show_mass(act.stop_gross_g)
    if act.stop_mm < LEAST_RULER_MM:
        plain = weight or volume
        return Shown(plain.value, plain.metric, plain.us)
    if act.measure != "scale" or weight is None:
        return mark
    return Shown(mark.value, f"{weight.metric} ({mark.metric})", f"{weight.us} ({mark.us})")


#: A ruler reads nothing in less liquid than this, mm (common practice).
LEAST_RULER_MM = 8.0


#: Where a measurement is asked for.
_BY: dict[Method | Literal["spoon"] | None, str] = {
    None: "", "scale": " by the scale", "jug": " in the jug", "dip": " by a dip", "eye": "", "spoon": "",
}  # fmt: skip


def overdue_line(act: Act, timeline: State) -> Said:
    """What the now line says once the time to look has come."""
    if act.kind == "test_body":
        return say(f"It has simmered. A spoonful on a warm plate: {_asked(timeline)}")
    if act.why == "late":
        return say(
            f"It has probably gone past: about {{}} by now, {{}} was meant. Take it off, and measure it"
            f"{_BY[act.measure]}.",
            show_volume(act.thought_ml), show_volume(act.amount),
        )  # fmt: skip
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
    pot = timeline.pot
    assert pot is not None
    after = (pot.contents + Contents(water=act.amount / SPECIFIC_VOLUME_ML_G["water"])).salt_percent
    match act.why:
        case "too_salty":
            return say(f"Too salty: stir in {{}} of water or unsalted stock; {after:.2f}\u00a0% salt then.", amount)
        case "too_thick":
            return say("Too thick: let it down with {} of unsalted stock or water, and test again.", amount)
        case "too_little":
            return say("Short of what you wanted: stir in {} of unsalted stock or water.", amount)
        case "stretch":
            return say(f"Stir in {{}} of unsalted stock or water first; {after:.2f}\u00a0% salt then.", amount)
        case _:
            return say(f"Past the mark: stir in {{}} of water or unsalted stock; {after:.2f}\u00a0% salt then.", amount)


def _thicken_line(act: Act) -> Said:
    assert act.route is not None
    thickener = act.route.thickener
    assert thickener is not None
    what = f"of {thickener.dry}" if act.first else f"more {thickener.dry}"
    ends = ". More follows by the spoon." if act.first else ", and test again."
    nearly = "Right by the spoon, and a little thin by the ledger. " if act.why == "leans" else ""
    if not thickener.carrier:
        return say(f"{nearly}Whisk in {{}} {what}{ends}", dry_amount(act.amount, thickener).full)
    return say(
        f"{nearly}Whisk in {{}} {what} with {{}} {thickener.carrier}{ends}",
        dry_amount(act.amount, thickener).full, carrier_amount(act.amount, thickener).main,
    )  # fmt: skip


def _asked(timeline: State) -> str:
    """The question to a spoonful: what it looks like before the trade's word."""
    step = LADDER[timeline.wanted.body if timeline.wanted else USUAL_STEP]
    return f"{step.does.replace(';', ',')} ({step.word})?"


#: What is asked for where nobody said how thick it is to be.
USUAL_STEP = 3


def _test_line(act: Act, timeline: State) -> Said:
    asked, pot = _asked(timeline), timeline.pot
    if act.why == "once_more" and pot is not None:
        wanted = timeline.wanted
        agrees = wanted is not None and pot.body.step.index == wanted.body
        why = f"By the ledger it is {pot.body.step.word}" if agrees else "One spoon may be wrong"
        return say(f"{why}: one more spoonful on a warm plate. {asked[0].upper()}{asked[1:]}")
    if act.why == "may_be_thick":
        return say(f"It may be thick enough already. A spoonful on a warm plate: {asked}")
    if act.wait_min is not None:
        low, high = act.wait_min
        return say(f"Simmer {low:.0f} to {high:.0f} min with the lid on, then a spoonful on a warm plate: {asked}")
    return say(f"A spoonful on a warm plate: {asked}")


def _salt_line(act: Act, timeline: State) -> Said:
    pot = timeline.pot
    assert pot is not None
    if act.why == "unknown":
        return say("Taste it first, at drinking warmth: how salty is it?")
    salt = pot.salt_percent.best
    if act.why == "once_more":
        liking = timeline.wanted.salt_percent if timeline.wanted else salt
        for_you = (
            "salty for you" if salt > liking + 0.05 else "mild for you" if salt < liking - 0.05 else "right for you"
        )
        return say(f"I make it {salt:.2f}\u00a0%, {for_you}: taste once more, with water.")
    return say(f"Taste it, on what it will be eaten with: about {salt:.2f}\u00a0% salt. Right?")


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

"""The words: what the now line says, and what the log says of each event."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from spissus_core import events as ev
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
from spissus_core.fold import Timeline
from spissus_core.learning import Outlook
from spissus_core.ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from spissus_core.measuring.measurement import Measured, Method
from spissus_core.pantry.ingredients import ingredient
from spissus_core.pantry.schools import THICKENERS, Thickener
from spissus_core.phenomena.body import LADDER
from spissus_core.phenomena.cooling import STARTS_C, Cooling
from spissus_core.phenomena.fat import WAYS
from spissus_core.phenomena.seasoning import SaltKind, salt_spoon_ml
from spissus_core.planning.guidance import Act
from spissus_core.planning.routes import LABELS


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


def dry_amount(grams: float, thickener: Thickener) -> Measure:
    """Dry thickener by weight and in level spoons."""
    weight, spoons = show_mass(grams), show_spoons(thickener.spoon_ml(grams))
    return Measure(Shown(grams, weight.metric, spoons), Shown(grams, spoons, weight.us))


def carrier_amount(grams: float, thickener: Thickener) -> Measure:
    """The fat or cold liquid that goes in with ``grams`` g of thickener."""
    if thickener.fat_per_g:
        fat_g = grams * thickener.fat_per_g
        weight, spoons = show_mass(fat_g), show_spoons(fat_g / ingredient("lard").density_g_ml)
        return Measure(Shown(fat_g, weight.metric, spoons), Shown(fat_g, spoons, weight.us))
    water_ml = grams * thickener.water_per_g * SPECIFIC_VOLUME_ML_G["water"]
    volume, spoons = show_volume(water_ml), show_spoons(water_ml)
    return Measure(volume, Shown(water_ml, spoons, volume.metric))


#: Where the next act cannot be worked out.
ALONE = say("What comes next cannot be worked out. What you enter is kept; go by spoon and tongue.")


def now_line(act: Act, timeline: Timeline) -> Said:
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


#: Hot-holding limit: FDA Food Code 2022 §3-501.16. England asks for 63 °C; local rules come first.
HOLD_HOT = show_temperature(57.0)


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


def _let_down_line(act: Act, timeline: Timeline) -> Said:
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
    carrier = carrier_amount(act.amount, thickener).main
    with_what = "fat" if thickener.fat_per_g else "cold water"
    if act.first:
        return say(
            f"Whisk in {{}} of {thickener.dry} with {{}} {with_what}. More follows by the spoon.",
            dry_amount(act.amount, thickener).full, carrier,
        )  # fmt: skip
    return say(
        f"Whisk in {{}} more {thickener.dry} with {{}} {with_what}, and test again.",
        dry_amount(act.amount, thickener).full, carrier,
    )  # fmt: skip


def _test_line(act: Act, timeline: Timeline) -> Said:
    word = LADDER[timeline.wanted.body].word if timeline.wanted else "sauce"
    used = [m.event.payload for m in timeline.moments if not m.struck and isinstance(m.event.payload, ev.Thickened)]
    if used:
        low, high = THICKENERS[used[-1].thickener].wait_min
        return say(f"Simmer {low} to {high} min, then a spoonful on a warm plate. Is it a {word}?")
    return say(f"Put a spoonful on a warm plate. Is it a {word}?")


def _salt_line(act: Act, timeline: Timeline) -> Said:
    pot = timeline.pot
    assert pot is not None
    salt = f"about {pot.salt_percent.best:.2f} % salt"
    if act.amount > 0.3:
        return say(f"Taste it: {salt}. Flat? {{}} more would bring it to yours.", salt_amount(act.amount, "table").full)
    return say(f"Taste it: {salt}. Right?")


_COVERED = {"open": "", "ajar": ", lid ajar", "paper": ", under paper", "tight": ", covered"}
_HEATS = {
    "off": "Heat off", "simmer": "A simmer{cover}", "boil": "Boiling at {share} of full{cover}",
    "oven": "In the oven at {oven}{cover}",
}  # fmt: skip

#: Signs that cooks go by, in their words (common practice).
SIGNS: dict[ev.Sign, str] = {
    "fizzing": "quick small bubbles", "calm": "an ordinary simmer", "slow_bubbles": "slow heavy bubbles",
    "raw_gone": "the sharp smell is gone", "dark": "it has turned dark", "trail": "a spoon leaves a trail",
    "film": "film on the spoon", "line": "the line on the spoon stays", "frying": "it sounds like frying",
}  # fmt: skip


def log_line(payload: ev.Payload | ev.Unread) -> Said:
    """What the log says of an event."""
    match payload:
        case ev.Started():
            known = payload.liquid
            if known.measured is None:
                lines = len(known.braise.counted) if known.braise else 0
                return say(f"By the list of what went in ({lines} lines), in: {{}}", _verbatim(payload.pan.name))
            by = "by eye" if known.measured.method == "eye" else f"by {known.measured.method}"
            return say(f"{{}} {by} in: {{}}", _reading(known.measured), _verbatim(payload.pan.name))
        case ev.Wanted():
            return say(
                f"Wanted: {{}}, {LADDER[payload.body].word}, {payload.salt_percent:g} % salt, at most "
                f"{payload.ceiling_percent:g} %",
                show_volume(payload.amount_ml),
            )
        case ev.Chosen():
            return say(f"Chosen: {LABELS[payload.route].lower()}")
        case ev.Skimmed():
            if payload.fat_ml is None:
                ice = f", {show_mass(payload.ice_g).both} of ice" if payload.ice_g else ""
                return say(f"Skimmed: {WAYS[payload.way].label}{ice}")
            return say("Left the fat on" if payload.fat_ml == 0 else "Skimmed {} of fat", show_volume(payload.fat_ml))
        case ev.Read():
            ends = {"misread": ", misread", "added": ", liquid was added", None: ""}[payload.gain]
            return say(f"Reading by {payload.measured.method}: {{}}{ends}", _reading(payload.measured))
        case ev.Thickened():
            t = THICKENERS[payload.thickener]
            return say(f"{t.label.capitalize()}: {{}} of {t.dry}", show_mass(payload.dry_g))
        case ev.Salted():
            return say(f"Salt: {payload.salt_g:.1f}\u00a0g")
        case ev.Added():
            amount = show_mass(payload.mass_g) if payload.mass_g is not None else show_volume(payload.volume_ml or 0.0)
            return say("Added {} of {}", amount, _verbatim(payload.what.name))
        case ev.Solids():
            if payload.mass_g <= 0.0:
                return say("Lifted everything out")
            return say("{} of meat and vegetables in the pan", show_mass(payload.mass_g))
        case ev.Drawn():
            return say("Drew off {} into: {}", show_volume(payload.volume_ml), _verbatim(payload.pan.name))
        case ev.Returned():
            return say("Poured back {}", _all_or(payload.volume_ml))
        case ev.Cooling():
            return say("Set to cool at {} in {}", show_temperature(payload.celsius), _place(payload.surroundings_c))
        case ev.Heated():
            heated = _HEATS[payload.heat].format(
                share=f"{100 * payload.share:.0f} %", cover=_COVERED[payload.cover], oven="{}"
            )
            return say(heated, *([show_temperature(payload.oven_c)] if payload.heat == "oven" else []))
        case ev.Moved():
            return say("Moved into: {}, on: {}", _verbatim(payload.pan.name), _verbatim(payload.burner.name))
        case ev.Split():
            return say("Poured {} over into: {}", show_volume(payload.volume_ml), _verbatim(payload.pan.name))
        case ev.Rejoined():
            return say("Poured together again")
        case ev.Metered():
            return say(f"Salt meter: {payload.percent:.2f} %")
        case ev.Seen():
            return say(f"Seen: {SIGNS[payload.sign]}")
        case ev.Probed():
            return say("{} in the thickest part", show_temperature(payload.celsius))
        case ev.Tested():
            words = {"low": "not enough", "right": "right", "high": "too much"}
            return say(f"Tested {payload.of}: {words[payload.verdict]}")
        case ev.Noted():
            return say("{}", _verbatim(payload.text))
        case ev.Finished():
            return say("Finished")
        case ev.Dated():
            return say("Said when an entry happened")
        case ev.Struck():
            return say("Took an entry back")
        case ev.Unread():
            return say("An entry that cannot be read: {}", _verbatim(payload.kind))


def _verbatim(text: str) -> Shown:
    """The cook's own words, in either system of units."""
    return Shown(0.0, text, text)


def _reading(measured: Measured) -> Shown:
    show = {"jug": show_volume, "eye": show_volume, "dip": show_length, "scale": show_mass}[measured.method]
    return show(measured.value)


def _all_or(volume_ml: float | None) -> Shown:
    return Shown(0.0, "all of it", "all of it") if volume_ml is None else show_volume(volume_ml)


def _place(celsius: float) -> Shown:
    """What it cools in: air, a refrigerator or ice, by temperature."""
    shown = show_temperature(celsius)
    return Shown(celsius, f"surroundings of {shown.metric}", f"surroundings of {shown.us}")


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

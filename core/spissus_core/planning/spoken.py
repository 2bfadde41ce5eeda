"""What the bar says of the next act, and amounts as they are weighed and spooned."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from ..amounts.quantities import (
    ML_PER_TSP,
    show_length,
    show_mass,
    show_minutes,
    show_number,
    show_percent,
    show_plain,
    show_spoons,
    show_temperature,
    show_volume,
)
from ..estimation.forecast import Outlook
from ..estimation.spoon import belief
from ..events import State, Wanted, fat_to_skim
from ..events.state import Concern, ConcernKind, Rest
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import HOT_EXPANSION
from ..measuring.measurement import Method, Reads
from ..measuring.vessels import SHALLOW_MM
from ..messages import Argument, Message, Shown, Term, say, sentences, several
from ..pantry.guests import AVOIDED_WORDS, DISHES, USUAL_PEOPLE
from ..pantry.ingredients import ingredient
from ..pantry.schools import School
from ..phenomena.body import LADDER
from ..phenomena.cooling import HOLD_HOT_C, LIMITS, STARTS_C, Cooling
from ..phenomena.fat import WAYS as SKIM_WAYS
from ..phenomena.seasoning import SaltKind, salt_spoon_ml
from ..pot import Pot
from .explanation import because
from .guidance import CLOSE_SALT, Act, ActKind
from .routes import WAYS, Route, suggested


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


#: Less than this is no part of a teaspoon, but what two fingers take, mL (common practice).
LEAST_SPOON_ML, PINCH = ML_PER_TSP / 16.0, "a pinch"


def salt_amount(grams: float, kind: SaltKind) -> Measure:
    """Salt in tenths of a gram and in level spoons of its kind."""
    spoon_ml = salt_spoon_ml(grams, kind)
    weight, spoons = f"{grams:.1f}\u00a0g", show_spoons(spoon_ml) if spoon_ml >= LEAST_SPOON_ML else PINCH
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
ALONE = say("bar.alone")


def now_line(act: Act, timeline: State) -> Message:
    """What to do next, in a sentence."""
    match act.kind:
        case "start":
            return say("bar.start")
        case "want":
            return _want_line(act, timeline)
        case "choose":
            return _choose_line(act, timeline)
        case "cool":
            assert act.cooling is not None
            return cooling_line(act.cooling, act.by)
        case "skim":
            way = Term(SKIM_WAYS[act.way].label if act.way else "skim")
            fat = show_volume(act.amount)
            return say("bar.still_fat" if act.why == "still_fat" else "bar.skim", fat=fat, way=way)
        case "take":
            volume: Shown | Message = show_volume(act.amount)
            if timeline.pot is not None and timeline.pot.hot:
                # It is measured as it stands.
                volume = say("bar.hot", volume=show_volume(act.amount * HOT_EXPANSION))
            floats = timeline.pot is not None and timeline.pot.contents.fat_free > 0.0
            return say("bar.take_from_under" if floats else "bar.take", volume=volume)
        case "look_fat":
            return say("bar.look_fat")
        case "heat":
            key = "bar.boil_on" if act.why == "too_thin" else "bar.heat"
            binds = say("bar.salt_binds") if act.why == "salt_binds" else None
            return sentences(say(key, volume=show_volume(act.amount), mark=_stop(act)), binds)
        case "boil":
            return _boil_line(act)
        case "let_down":
            return _let_down_line(act, timeline)
        case "thicken":
            return _thicken_line(act)
        case "test_body":
            return _test_line(act, timeline)
        case "measure":
            return say("bar.measure", by=_by(act))
        case "salt":
            return say("bar.salt" if act.first else "bar.more_salt", amount=salt_amount(act.amount, "table").full)
        case "test_salt":
            return _salt_line(act, timeline)
        case "finish":
            return _finish_line(act, timeline)
        case "bigger_pan":
            return say("bar.bigger_pan", volume=show_volume(act.amount))
        case "rest":
            return say("bar.ask_rest", volume=show_volume(act.amount))
        case "done":
            return say("bar.thrown_away") if timeline.thrown_away else say("bar.done", volume=show_volume(act.amount))
        case "alone":
            return ALONE
        case "warn":
            assert act.concern is not None
            return concern_line(act.concern, timeline)
        case "slip":
            return _slip_line(act)


#: What comes next, in a list of pots.
NEXT_WORDS: dict[ActKind, Message] = {
    "want": say("bar.next_want"),
    "choose": say("bar.next_choose"),
    "cool": say("bar.next_cool"),
    "skim": say("bar.next_skim"),
    "take": say("bar.next_take"),
    "look_fat": say("bar.next_look_fat"),
    "heat": say("bar.next_heat"),
    "boil": say("bar.next_look"),
    "measure": say("bar.next_measure"),
    "let_down": say("bar.next_let_down"),
    "thicken": say("bar.next_thicken"),
    "test_body": say("bar.next_spoon"),
    "salt": say("bar.next_salt"),
    "test_salt": say("bar.next_taste"),
    "finish": say("bar.next_serve"),
    "bigger_pan": say("bar.next_bigger_pan"),
    "rest": say("bar.next_rest"),
}

#: A doubt in a list of pots.
CONCERN_WORDS: dict[ConcernKind, Message] = {
    "cooling": say("doubts.cooling_short"),
    "butter": say("doubts.butter_short"),
    "yolk": say("doubts.yolk_short"),
    "cream": say("doubts.cream_short"),
    "alcohol": say("doubts.alcohol_short"),
    "allergen": say("doubts.allergen_short"),
}

#: Less alcohol than this is "up to a gram", g. Modelling choice.
LEAST_ALCOHOL_G = 1.0


def concern_line(concern: Concern, timeline: State) -> Message:
    """What is said of a pot that is doubtful, before anything else and on every page."""
    pot = timeline.pot
    assert pot is not None
    match concern.kind:
        case "cooling":
            return say("doubts.cooling")
        case "butter":
            return say("doubts.butter")
        case "yolk":
            return say("doubts.yolk")
        case "cream":
            return say("doubts.cream")
        case "alcohol":
            grams = pot.contents.ethanol
            if grams < LEAST_ALCOHOL_G:
                return say("doubts.little_alcohol")
            return say("doubts.alcohol", grams=show_number(grams, 0, "g"))
        case "allergen":
            holds = (Term(AVOIDED_WORDS[key]) if key in AVOIDED_WORDS else key for key in concern.holds)
            return say("doubts.allergen", holds=several("both", *holds))


def rest_line(timeline: State) -> Message | None:
    """What is said of the liquid that was set aside while it is hot, or cools: by when it must be cold."""
    rest, kept = timeline.rest, None if timeline.pot is None else timeline.pot.kept
    if rest is None or kept is None or rest.stands == "cold":
        return None
    volume = show_volume(kept.liquid_ml)
    if rest.stands == "hot":
        return say("bar.rest_hot", volume=volume, hot=HOLD_HOT)
    (warm_c, warm_min), (cold_c, _) = LIMITS
    return say(
        "bar.rest_unsaid" if rest.stands == "unsaid" else "bar.rest_cools", volume=volume, hot=HOLD_HOT,
        warm=show_temperature(warm_c), warm_by=rest.since + timedelta(minutes=warm_min), cold=show_temperature(cold_c),
        cold_by=rest_cold_by(rest),
    )  # fmt: skip


def rest_cold_by(rest: Rest) -> datetime:
    """By when what was set aside must be cold."""
    return rest.since + timedelta(minutes=LIMITS[-1][1])


def _slip_line(act: Act) -> Message:
    """What is asked of an entry that looks like a slip."""
    slip = act.slip
    assert slip is not None
    if slip.twice:
        return say("bar.twice", what=slip.twice, salt=show_percent(slip.percent))
    grams, tenth = show_plain(slip.grams, "g", 3), show_plain(slip.grams / 10.0, "g", 2)
    return say("bar.slip", salt=show_percent(slip.percent, 1), grams=grams, tenth=tenth)


def _want_line(act: Act, timeline: State) -> Message:
    pot = timeline.pot
    assert pot is not None
    wish = suggested(pot)
    volume = show_volume(act.amount)
    if not wish.people:
        return say("bar.want_all", volume=volume)
    usual = wish.people == USUAL_PEOPLE
    people = say("bar.four_people") if usual else say("bar.people", count=wish.people)
    return say("bar.want", volume=volume, people=people, dish=Term(DISHES[wish.dish].under))


def _choose_line(act: Act, timeline: State) -> Message:
    pot, wanted = timeline.pot, timeline.wanted
    assert pot is not None
    assert wanted is not None
    if act.route is None:
        return say("bar.no_way")
    return say("bar.choose", way=Term(WAYS[act.route.kind].label), because=because(pot, wanted, act.route))


#: A sauce this many steps off is thicker or thinner than was wanted, and by so many much so; short by more than this
#: share of what was wanted it is short. Modelling choices.
OFF_STEPS, MUCH_OFF_STEPS, OFF_SHORT = 0.75, 1.5, 0.05

#: Up to so many times what was wanted is no fault, beyond it more meals (common practice).
MORE_MEALS = 1.5


def _finish_line(act: Act, timeline: State) -> Message:
    """That it is done, and how it stands against what was wanted."""
    pot, wanted = timeline.pot, timeline.wanted
    assert pot is not None
    amounts = {"volume": show_volume(act.amount), "hot": HOLD_HOT}
    if wanted is None:
        return say("bar.finish_plain", **amounts)
    steps = belief(timeline.spoons).gap(pot.contents, wanted.body)
    over = pot.contents.salt_percent - wanted.salt_percent - timeline.liking_percent
    short = wanted.amount_ml - act.amount
    thicker = say("bar.off_much_thicker" if steps > MUCH_OFF_STEPS else "bar.off_thicker")
    thinner = say("bar.off_much_thinner" if steps < -MUCH_OFF_STEPS else "bar.off_thinner")
    fat = show_volume(pot.contents.fat_ml)
    off = [
        thicker if steps > OFF_STEPS else thinner if steps < -OFF_STEPS else None,
        say("bar.off_saltier" if over > 0.0 else "bar.off_milder") if abs(over) > CLOSE_SALT else None,
        say("bar.off_short", volume=show_volume(short)) if short > OFF_SHORT * wanted.amount_ml else None,
        say("bar.off_more") if act.amount > MORE_MEALS * wanted.amount_ml else None,
        say("bar.off_fat", fat=fat) if fat_to_skim(pot, wanted) else None,
    ]
    found = [one for one in off if one is not None]
    return say("bar.finish_off", off=several("both", *found), **amounts) if found else say("bar.finish", **amounts)


def way_line(pot: Pot, wanted: Wanted, route: Route) -> Message:
    """What a way asks for, in the order in which it is done."""
    steps: list[Message] = []
    if route.aside_ml > 0.0:
        steps.append(say("bar.way_take", volume=show_volume(pot.contents.liquid_ml - route.aside_ml)))
    if route.let_down_ml > 0.0:
        steps.append(say("bar.way_stir_in", volume=show_volume(route.let_down_ml)))
    if route.steam_g > 0.0:
        volume = show_volume(route.boil_to_ml)
        read = say("bar.way_mark", depth=show_length(route.mark_mm), volume=volume)
        steps.append(say("bar.way_boil", mark=volume if route.mark_mm < SHALLOW_MM else read))
    if route.thickener is not None:
        dry = say("bar.dry", amount=dry_amount(route.dry_g, route.thickener).main, dry=Term(route.thickener.dry))
        steps.append(say("bar.way_bind", dry=dry))
    if not steps:
        return say("bar.way_ready")
    way = say("bar.way", steps=several("clauses", *steps[:-2], several("both", *steps[-2:])))
    past = WAYS[route.kind].stop == "told" and route.salt_before.best > wanted.ceiling_percent
    return sentences(say("bar.way_past", salt=show_percent(route.salt_before.best)) if past else None, way)


#: Hot-holding limit. England asks for more; local rules come first.
HOLD_HOT = show_temperature(HOLD_HOT_C)


def _boil_line(act: Act) -> Message:
    back = {"too_thin": say("bar.too_thin"), "no_time": say("bar.too_late", time=show_minutes(act.late_min))}
    # Thought to be at its mark already, there is nothing to expect above it.
    expect, stop = act.expect, act.stop
    above = expect is not None and stop is not None and expect.dip >= stop.dip >= SHALLOW_MM
    expected = say("bar.expect", read=_read(expect, act.reads_by)) if expect is not None and above else None
    binds = say("bar.salt_binds") if act.why == "salt_binds" else None
    return sentences(back.get(act.why or ""), expected, say("bar.stop_at", mark=_stop(act)), binds, _finer(act))


def _finer(act: Act) -> Message | None:
    """Where what was measured with so far is too coarse for what is left to lose."""
    match act.measure:
        case "scale":
            return say("bar.by_scale_now")
        case "jug":
            return say("bar.by_jug_now")
        case "spoon":
            return say("bar.by_spoon_now")
        case _:
            return None


def _stop(act: Act) -> Argument:
    """The mark in what is measured with, and in the pan; where no ruler reads it, no mark."""
    stop = act.stop
    if stop is None:
        return show_volume(act.amount)
    mark = stop.shown("dip")
    if stop.dip < SHALLOW_MM:
        return _read(stop, "jug" if stop.scale is None else "scale")
    return mark if act.reads_by == "dip" else say("bar.read_and_mark", read=_read(stop, act.reads_by), mark=mark)


def _read(reads: Reads, method: Method) -> Argument:
    """What is read of it; of a jug, that it is read hot."""
    shown = reads.shown(method)
    return say("bar.hot", volume=shown) if method == "jug" else shown


def _by(act: Act) -> Message:
    """What to measure it with, where that is known."""
    match act.measure:
        case "scale":
            return say("bar.measure_by_scale")
        case "jug":
            return say("bar.measure_in_jug")
        case "dip":
            return say("bar.measure_by_dip")
        case _:
            return say("bar.measure_it")


def overdue_line(act: Act, timeline: State) -> Message:
    """What the bar says once the time to look has come."""
    if act.kind == "test_body":
        return say("bar.has_simmered", asked=_asked(timeline))
    if act.why == "late":
        missing = show_volume(max(act.amount - act.thought_ml, 0.0))
        return say("bar.gone_past", missing=missing, mark=_stop(act), by=_by(act))
    return sentences(say("bar.look_now", mark=_stop(act)), _finer(act))


def rate_line(outlook: Outlook, batches: int) -> Message:
    """How fast it goes, and how that is known."""
    steam = outlook.steam
    rate: dict[str, Argument] = {
        "steam": show_number(steam.best, 0, "g"), "low": show_number(steam.low), "high": show_number(steam.high)
    }  # fmt: skip
    earlier = say("bar.earlier_batches", count=batches) if batches else None
    if outlook.readings == 0:
        return say("bar.rate_guessed", **rate) if earlier is None else say("bar.rate_learned", **rate, known=earlier)
    known = several("both", say("bar.readings", count=outlook.readings), earlier)
    left_out = say("bar.left_out", count=outlook.outliers) if outlook.outliers else None
    return sentences(say("bar.rate_learned", **rate, known=known), left_out)


def _let_down_line(act: Act, timeline: State) -> Message:
    pot = timeline.pot
    assert pot is not None
    after = (pot.contents + Contents(water=act.amount / SPECIFIC_VOLUME_ML_G["water"])).salt_percent
    key = {
        "too_salty": "bar.too_salty", "too_thick": "bar.too_thick", "too_little": "bar.too_little",
        "stretch": "bar.stretch",
    }.get(act.why or "", "bar.past_the_mark")  # fmt: skip
    return say(key, volume=show_volume(act.amount), salt=show_percent(after))


def _thicken_line(act: Act) -> Message:
    assert act.route is not None
    thickener = act.route.thickener
    assert thickener is not None
    dry = say("bar.dry" if act.first else "bar.more_dry", amount=dry_amount(act.amount, thickener).full,
              dry=Term(thickener.dry))  # fmt: skip
    if thickener.carrier:
        carried = carrier_amount(act.amount, thickener).main
        dry = say("bar.with_carrier", dry=dry, amount=carried, carrier=Term(thickener.carrier))
    return sentences(
        say("bar.leans") if act.why == "leans" else None,
        say("bar.whisk_in" if act.first else "bar.whisk_in_more", dry=dry),
    )


def _asked(timeline: State) -> Message:
    """The question to a spoonful: what it looks like."""
    step = LADDER[timeline.wanted.body if timeline.wanted else USUAL_STEP]
    return say("bar.asked", does=Term(step.does.replace(";", ",")))


#: What is asked for where nobody said how thick it is to be.
USUAL_STEP = 3


def _test_line(act: Act, timeline: State) -> Message:
    asked, pot = _asked(timeline), timeline.pot
    if act.why == "once_more" and pot is not None:
        if timeline.body_tested[-1:] == ("right",):
            return say("bar.right_once_more", asked=asked)
        wanted = timeline.wanted
        if wanted is not None and pot.body.step.index == wanted.body:
            return say("bar.once_more", body=Term(pot.body.step.on_the_spoon), asked=asked)
        return say("bar.one_spoon_may_be_wrong", asked=asked)
    if act.why == "may_be_thick":
        return say("bar.may_be_thick", asked=asked)
    if act.wait_min is not None:
        low, high = act.wait_min
        return say("bar.simmer_first", low=show_number(low), high=show_number(high, 0, "min"), asked=asked)
    return say("bar.spoonful", asked=asked)


#: Salt this close to what is liked is neither mild nor salty, points. Modelling choice.
NEAR_LIKING = 0.05


def _salt_line(act: Act, timeline: State) -> Message:
    pot = timeline.pot
    assert pot is not None
    if act.why in ("unknown", "before_binding"):
        return say("bar.taste_first" if act.why == "unknown" else "bar.taste_before_binding")
    salt = pot.salt_percent.best
    if act.why == "once_more":
        liking = timeline.wanted.salt_percent if timeline.wanted else salt
        over = salt - liking
        key = (
            "bar.salty_for_you"
            if over > NEAR_LIKING
            else "bar.mild_for_you"
            if over < -NEAR_LIKING
            else "bar.right_for_you"
        )
        return say("bar.taste_once_more", salt=show_percent(salt), found=say(key))
    return say("bar.taste", salt=show_percent(salt))


def cooling_line(stands: Cooling, by: datetime | None) -> Message:
    """How a cooling pot stands, and what to do; ``by`` is when it must meet its next limit."""
    limit = show_temperature(stands.limit_c or 0.0)
    match stands.verdict:
        case "above":
            return say("cooling.above", at=show_temperature(STARTS_C))
        case "done":
            return say("cooling.done")
        case "unknown" | "in_time" | "too_slow" | "missed":
            assert by is not None
            key = _COOLING[stands.verdict]
            return say(key, limit=limit, by=by)


_COOLING = {
    "unknown": "cooling.unknown", "in_time": "cooling.in_time", "too_slow": "cooling.too_slow",
    "missed": "cooling.missed",
}  # fmt: skip

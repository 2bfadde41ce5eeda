"""Learning the rate while it cooks: windows, readings, changes of heat and of pans, and the next look."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import numpy as np
import pytest
from makers import BURNER, EVENING, PAN, braise, event, fold, in_words, refused, started
from spissus_core import events as ev
from spissus_core.estimation.forecast import LONGEST_LOOK_MIN, Progress
from spissus_core.estimation.path import Path
from spissus_core.estimation.track import INTERVAL, Track
from spissus_core.estimation.window import ETHANOL_KJ_G, WATER_KJ_G, Window, boiled_by, kj_of, vapour_kj
from spissus_core.fold import Timeline, progress
from spissus_core.learning.rates import combined, taught_rate
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.heating import (
    FULL_BOIL,
    Burner,
    HeatSetting,
    LearnedRate,
    boiling_point_c,
    power,
)
from spissus_core.planning.acts import next_act
from spissus_core.practice.simulator import SimulatedPot, after_heat

START = started("1.6 l", "jug", hot=True)
SMALL = Pan.round("18 cm pan", 180, 105, empty_g=1060)
STRONG = Burner(name="strong burner", net_kw=2.0)
WISH = ev.Wanted(volume_ml=900)


def window_of(timeline: Timeline) -> Window | None:
    found = progress(timeline)
    return None if found is None else found.window


def scale(gross: float) -> ev.Read:
    return ev.Read.model_validate({"measured": {"method": "scale", "value": gross}})


def story(*happened: tuple[float, ev.Kind]) -> Timeline:
    """A batch from its start, wish and plan at minute 0, and what happened at the minutes after."""
    first: list[tuple[float, ev.Kind]] = [(0, START), (0, WISH), (0, ev.Chosen(route="all-volume-white_roux"))]
    return fold(event(seq, payload, minute=minute) for seq, (minute, payload) in enumerate([*first, *happened], 1))


def gross_at(minute: float, g_min: float = 27.0, late: float = 0.0) -> float:
    """Gross weight of the pot that loses ``g_min`` from minute ``late`` on."""
    pot = story().pot
    assert pot is not None
    assert pot.gross_g is not None
    return pot.gross_g - g_min * max(minute - late, 0.0)


def falling(*minutes: float, g_min: float = 27.0) -> list[tuple[float, ev.Kind]]:
    return [(m, scale(gross_at(m, g_min))) for m in minutes]


def known(timeline: Timeline) -> Progress:
    found = progress(timeline)
    assert found is not None
    return found


# -- what drives it -------------------------------------------------------------------------------


def test_a_boil_is_the_burners_net_power() -> None:
    one = power(PAN, BURNER, FULL_BOIL, 30.0)
    assert one is not None
    # 1 kW into the liquid boils 27 g/min away (latent heat, IAPWS).
    assert one.steam_g_min == pytest.approx(26.6, abs=0.2)
    half = power(PAN, BURNER, HeatSetting(share=0.5), 30.0)
    covered = power(PAN, BURNER, HeatSetting(cover="ajar"), 30.0)
    assert half is not None
    assert covered is not None
    assert half.kj_min == pytest.approx(one.kj_min / 2)
    assert covered.kj_min == pytest.approx(0.3 * one.kj_min)
    assert power(PAN, BURNER, HeatSetting(heat="off"), 30.0) is None


def test_a_simmer_goes_by_the_surface_and_an_oven_by_its_air() -> None:
    narrow, wide = (power(pan, STRONG, HeatSetting(heat="simmer"), 30.0) for pan in (SMALL, PAN))
    assert narrow is not None
    assert wide is not None
    assert wide.kj_min / narrow.kj_min == pytest.approx((240 / 180) ** 2, rel=0.01)
    assert wide.spread == 0.55
    mild, hot = (power(PAN, BURNER, HeatSetting(heat="oven", oven_c=c), 40.0) for c in (130, 180))
    assert mild is not None
    assert hot is not None
    assert hot.kj_min > 1.5 * mild.kj_min
    weak = Burner(name="night light", net_kw=0.05)
    capped = power(PAN, weak, HeatSetting(heat="simmer"), 30.0)
    assert capped is not None
    assert capped.kj_min == pytest.approx(3.0)


def test_what_was_learned_takes_the_place_of_the_guess() -> None:
    taught = LearnedRate(heat="boil", net_kw=1.3, spread=0.13, batches=3)
    one = power(PAN, BURNER.model_copy(update={"learned": (taught,)}), FULL_BOIL, 30.0)
    assert one is not None
    assert (one.kj_min, one.spread, one.batches) == (pytest.approx(78.0), 0.13, 3)


def test_several_batches_together_know_more_than_one_but_never_all() -> None:
    one = combined("boil", [(1.2, 0.1)])
    many = combined("boil", [(1.2, 0.1), (1.3, 0.1), (1.25, 0.1), (1.22, 0.1)])
    assert many.spread < one.spread
    assert many.spread > 0.12
    assert 1.2 < many.net_kw < 1.3
    assert many.batches == 4


@pytest.mark.parametrize(("altitude", "celsius"), [(0, 100.0), (300, 99.0), (1500, 95.1), (3000, 90.0)])
def test_water_boils_cooler_higher_up(altitude: float, celsius: float) -> None:
    # About 1 °C less for every 300 m (figure of the trade).
    assert boiling_point_c(altitude) == pytest.approx(celsius, abs=0.4)


# -- windows --------------------------------------------------------------------------------------


def test_a_full_boil_is_taken_for_granted_from_the_plan_on() -> None:
    window = window_of(story())
    assert window is not None
    assert window.began == EVENING
    assert window.setting == FULL_BOIL
    assert window.readings == 0
    later = window_of(story((4, ev.Skimmed(way="spoon", fat_ml=0))))
    assert later is not None
    # Fat was no question, so it boiled from the plan on, and has lost steam meanwhile.
    assert later.began == EVENING
    assert later.unseen_kj > 0.0


def test_nothing_is_foretold_before_there_is_a_plan_or_with_the_heat_off() -> None:
    assert window_of(fold([event(1, START)])) is None
    off = story((3, ev.Heated(heat="off")))
    assert known(off).outlook(900.0) is None
    assert next_act(off).kind == "heat"
    paused = story(*falling(5, 10), (12, ev.Heated(heat="off")))
    assert known(paused).outlook(900.0) is None
    assert next_act(paused).kind == "heat"


def test_the_rate_is_learned_and_narrows() -> None:
    widths = []
    for minutes in ((), (5,), (5, 10), (5, 10, 15), (5, 10, 15, 20)):
        steam = known(story(*falling(*minutes, g_min=20.0))).steam_g_min
        widths.append(np.log(steam.high / steam.low))
    assert widths == sorted(widths, reverse=True)
    assert widths[-1] < 0.35 * widths[0]
    # From the boil on: what warms it first is no vapour.
    assert steam.best == pytest.approx(20.0, rel=0.08)


def test_a_pause_and_half_the_heat_are_respected() -> None:
    g = 27.0
    happened: list[tuple[float, ev.Kind]] = [
        *falling(5, 10),
        (10, ev.Heated(heat="off")),
        (30, ev.Heated(heat="boil")),
        (35, scale(gross_at(15))),
        (35, ev.Heated(heat="boil", share=0.5)),
        (45, scale(gross_at(20))),
    ]
    ahead = known(story(*happened))
    assert ahead.steam_g_min.best == pytest.approx(g / 2, rel=0.12)
    assert ahead.window.readings == 4


def test_another_kind_of_heat_or_another_pan_begins_anew() -> None:
    moved = known(story(*falling(5, 10), (11, ev.Moved(pan=SMALL, burner=STRONG))))
    assert moved.window.readings == 0
    assert moved.window.power.kj_min == pytest.approx(120.0)
    simmer = known(story(*falling(5, 10), (11, ev.Heated(heat="simmer"))))
    assert simmer.window.setting.heat == "simmer"
    assert simmer.window.readings == 0


def test_cold_liquid_topped_up_has_to_be_heated_too() -> None:
    plain = known(story(*falling(5, 10)))
    topped = known(story(*falling(5, 10), (10, ev.Added(ingredient="water", volume_ml=500))))
    stop = 900.0
    before, after = plain.outlook(stop), topped.outlook(stop)
    assert before is not None
    assert after is not None
    minutes = (after.arrives[1] - before.arrives[1]).total_seconds() / 60
    # 499 g to boil off again at 27 g/min, and 499 g × 4 kJ/(kg K) × 80 K to heat at 60 kJ/min.
    assert minutes == pytest.approx(499 / 27 + 499 * 4e-3 * 80 / 60, rel=0.15)


def test_two_pans_boil_faster_and_come_together_again() -> None:
    one = known(story())
    split = story((1, ev.Split(volume_ml="600 ml", pan=SMALL, burner=BURNER)))
    two = known(split)
    assert two.window.power.kj_min == pytest.approx(2 * one.window.power.kj_min)
    assert split.pot is not None
    assert split.pot.gross_g is not None
    assert split.pot.share == pytest.approx(1 - 600 / split.pot.contents.liquid_ml)
    whole = split.pot.contents
    read = fold([*_events(split), event(9, scale(split.pot.gross_g - 50), minute=5)])
    assert read.pot is not None
    # What the first pan lost, the second lost in proportion.
    assert whole.mass_g - read.pot.contents.mass_g == pytest.approx(50 / split.pot.share, rel=0.06)
    together = fold([*_events(read), event(10, ev.Rejoined(), minute=6)])
    assert together.pot is not None
    assert together.pot.beside is None
    # They boil on, for a minute more.
    assert together.pot.contents.salt == read.pot.contents.salt
    assert together.pot.contents.mass_g == pytest.approx(read.pot.contents.mass_g, rel=0.03)


def _events(timeline: Timeline) -> list[ev.Event]:
    return [moment.event for moment in timeline.moments]


@pytest.mark.parametrize(
    ("happened", "complaint"),
    [
        (ev.Split(volume_ml="5 l", pan=SMALL, burner=BURNER), "Pour a part of it over"),
        (ev.Split(volume_ml="1.2 l", pan=Pan.round("cup", 80, 60), burner=BURNER), "more than “cup” holds"),
        (ev.Moved(pan=Pan.round("cup", 80, 60), burner=BURNER), "holds only"),
        (ev.Rejoined(), "in one pan already"),
    ],
)
def test_pans_that_do_not_hold_it(happened: ev.Kind, complaint: str) -> None:
    problem = story((1, happened)).moments[-1].problem
    assert problem is not None
    assert complaint in in_words(problem.message)


def test_a_reading_that_gains_is_no_part_of_what_is_learned() -> None:
    timeline = story(*falling(5, 10), (12, scale(gross_at(10) + 300)))
    assert timeline.moments[-1].problem is not None
    assert known(timeline).window.readings == 2
    answered = ev.Read.model_validate({"measured": {"method": "scale", "value": gross_at(10) + 300}, "gain": "misread"})
    assert known(story(*falling(5, 10), (12, answered))).window.readings == 2


def test_one_wild_reading_among_many_is_left_out_and_two_are_believed() -> None:
    minutes = list(range(2, 22, 2))
    happened: list[tuple[float, ev.Kind]] = [(m, scale(gross_at(m))) for m in minutes]
    happened[4] = (10, scale(gross_at(10) - 120))
    window = window_of(story(*happened))
    assert window is not None
    assert (window.track.outliers, window.readings) == (1, 9)
    assert window.track.power_range.best / WATER_KJ_G == pytest.approx(27.0, rel=0.05)
    happened[5:] = [(m, scale(gross_at(m) - 120)) for m in minutes[5:]]
    poured = story(*happened)
    assert poured.pot is not None
    assert poured.pot.gross_g == pytest.approx(gross_at(20) - 120, abs=5.0)


def test_an_hour_of_scale_readings_is_learned_from() -> None:
    ahead = known(story(*falling(*np.linspace(0.1, 20, 240), g_min=25.0)))
    assert ahead.window.readings == 240
    assert ahead.steam_g_min.best == pytest.approx(25.0, rel=0.04)


def test_readings_raise_the_pot_as_well_as_lower_it() -> None:
    by_dip = ev.Read.model_validate({"measured": {"method": "dip", "value": 31.0}})
    by_jug = ev.Read.model_validate({"measured": {"method": "jug", "value": 1500}})
    low = story((5, by_dip))
    high = story((5, by_dip), (6, by_jug))
    assert low.pot is not None
    assert high.pot is not None
    assert high.pot.contents.liquid_ml > low.pot.contents.liquid_ml
    assert high.pot.error_ml < low.pot.error_ml
    # Tasted at the start: the more liquid there is, the more salt; by no more than it was unknown by.
    assert low.pot.contents.salt < high.pot.contents.salt < low.pot.contents.salt * (1.0 + 0.025)


def test_a_pot_goes_on_boiling_while_nobody_looks_and_ends_dry() -> None:
    def liquid(minutes: float) -> float:
        log = [
            event(1, START, minute=0),
            event(2, WISH, minute=0),
            event(3, ev.Chosen(route="all-volume-white_roux"), minute=0),
        ]
        pot = fold(log, EVENING + timedelta(minutes=minutes)).pot
        assert pot is not None
        return pot.contents.liquid_ml

    assert liquid(0) > liquid(10) > liquid(20) > liquid(40) > liquid(90)
    # 1 kW into the liquid boils 26.6 g/min away.
    assert liquid(20) - liquid(30) == pytest.approx(10 * 26.6, rel=0.1)
    assert liquid(400) == pytest.approx(liquid(500))
    assert liquid(500) > 0.0


@pytest.mark.parametrize("ethanol", [0.0, 40.0])
def test_heat_boils_away_what_its_energy_says(ethanol: float) -> None:
    before = braise(ethanol=ethanol)
    after = boiled_by(before, 500.0)
    assert vapour_kj(before, after) == pytest.approx(500.0, abs=0.5)
    assert boiled_by(after, -50.0).water == pytest.approx(after.water + 50.0 / WATER_KJ_G)


# -- the way down, and the next look ------------------------------------------------------------


def test_alcohol_leaves_with_less_heat_than_water() -> None:
    wine = braise(1000, ethanol=80.0)
    path = Path(wine)
    after = path.mass_g(100.0)
    assert wine.mass_g - after > 100.0 / WATER_KJ_G * 1.05
    plain = braise(1000)
    assert plain.mass_g - Path(plain).mass_g(100.0) == pytest.approx(100.0 / WATER_KJ_G, rel=1e-3)


def test_the_path_can_be_read_both_ways() -> None:
    for contents in (braise(), braise(1000, ethanol=60.0)):
        path = Path(contents)
        for volume in (1.05 * contents.liquid_ml, 0.9 * contents.liquid_ml, 0.5 * contents.liquid_ml):
            assert path.liquid_ml(path.energy_to(volume)) == pytest.approx(volume, rel=1e-6)
    assert vapour_kj(braise(), braise()) == 0.0


def test_the_next_look_is_neither_too_soon_nor_too_late() -> None:
    far = known(story()).outlook(300.0)
    assert far is not None
    assert LONGEST_LOOK_MIN - 1.0 < (far.look_at - EVENING).total_seconds() / 60.0 <= LONGEST_LOOK_MIN
    near = known(story(*falling(5, 10))).outlook(1150.0)
    assert near is not None
    wait = (near.look_at - (EVENING + timedelta(minutes=10))).total_seconds() / 60
    assert 1.0 <= wait < 8.0
    assert near.arrives[0] < near.arrives[1] < near.arrives[2]


def test_a_ruler_gives_way_to_finer_means() -> None:
    def dip(minute: float, mm: float) -> tuple[float, ev.Kind]:
        return minute, ev.Read.model_validate({"measured": {"method": "dip", "value": mm}})

    far = next_act(story(dip(3, 34.0)))
    assert (far.kind, far.measure) == ("boil", None)
    near = next_act(story(dip(3, 34.0), dip(16, 21.5)))
    assert near.kind == "boil"
    assert near.measure == "scale"
    assert near.mark is not None
    assert (near.reads_by, near.mark.reads.scale is None) == ("scale", False)


def test_where_the_pot_is_now_is_foretold_between_readings() -> None:
    ahead = known(story(*falling(5, 10, 15)))
    pot = story(*falling(5, 10, 15)).pot
    assert pot is not None
    now, later = (one.liquid_ml for one in ahead.course([EVENING + timedelta(minutes=m) for m in (15, 20)]))
    assert now.best == pytest.approx(pot.contents.liquid_ml, rel=0.01)
    assert now.best - later.best == pytest.approx(5 * 27.0, rel=0.1)
    assert later.high - later.low > now.high - now.low


def test_a_finished_batch_teaches_its_rate() -> None:
    taught = taught_rate(story(*falling(5, 10, 15, 20, g_min=20.0)))
    assert taught is not None
    assert taught.net_kw == pytest.approx(20.0 / 26.6, rel=0.08)
    assert taught.spread < 0.15
    assert taught_rate(story(*falling(5))) is None
    half = [(0.5, ev.Heated(share=0.5)), *falling(5, 10, 15, g_min=13.0)]
    slow = taught_rate(story(*half))
    assert slow is not None
    # What is kept is the burner's full power.
    assert slow.net_kw == pytest.approx(26.0 / 26.6, rel=0.15)


def test_a_meter_pins_the_salt_on_the_way() -> None:
    before = story().pot
    after = story((2, ev.Metered(percent="0.64 %"))).pot
    wrong = story((2, ev.Metered(percent="1.2 %", because="salted"))).pot
    assert before is not None
    assert after is not None
    assert wrong is not None
    assert 0.6 < after.salt_percent.best < 0.64
    assert after.salt_percent.high - after.salt_percent.low < before.salt_percent.high - before.salt_percent.low
    assert wrong.salt_percent.best == pytest.approx(1.2)
    assert in_words(story((2, ev.Metered(percent="1.2 %"))).moments[-1].problem.message).count("?") == 1  # type: ignore[union-attr]


def test_a_sign_that_says_nothing_is_noted_and_changes_nothing() -> None:
    assert story((2, ev.Seen(sign="dark"))).pot == story((2, ev.Noted(text="dark"))).pot


def test_the_prior_alone_is_the_guess_with_heavy_tails() -> None:
    track = Track.begun(60.0, 0.35, 0.0)
    found = track.power_range
    assert found.best == pytest.approx(60.0, rel=0.01)
    # Half of it is the spread of the trade, half is twice as wide: a stove nobody timed may be quite another.
    narrow, wide = np.exp(1.2816 * 0.35), np.exp(1.2816 * 0.7)
    assert narrow < found.high / found.best < wide


def test_a_simulated_pot_with_alcohol_goes_down_the_same_way() -> None:
    wine = braise(1000, ethanol=80.0)
    for heat in (0.0, 50.0, 400.0, 1200.0):
        after = after_heat(wine, heat)
        assert after.mass_g == pytest.approx(Path(wine).mass_g(heat), rel=0.01)
        assert after.ethanol <= wine.ethanol
    assert after_heat(wine, 0.0).water == pytest.approx(wine.water, rel=1e-3)


def test_a_simulated_pot_loses_what_its_power_takes_and_no_more() -> None:
    simulated = SimulatedPot(braise(), 60.0, drifts=False)
    simulated.boil(np.random.default_rng(1), 10.0)
    assert braise().water - simulated.contents.water == pytest.approx(600.0 / WATER_KJ_G)


@pytest.mark.parametrize("celsius", [61.0, 104.0])
def test_water_boils_between_the_highest_kitchen_and_the_lowest(celsius: float) -> None:
    assert Burner(name="high up", net_kw=1.0, boils_c=celsius).boils_c == celsius


@pytest.mark.parametrize("readings", [(), (6,), (5, 10)])
@pytest.mark.parametrize("minutes", [1.0, 12.0, 240.0])
def test_the_spread_of_the_heat_spent_is_that_of_draws_from_its_mixture(
    readings: tuple[int, ...], minutes: float
) -> None:
    """Against NumPy: two hundred thousand draws of the power, and of the energy given it."""
    ahead = known(story(*falling(*readings)))
    (mean, sd), weights = ahead._ahead(np.array([minutes])), ahead.window.track.weights
    rng = np.random.default_rng(3)
    drawn = rng.choice(mean[0], 200_000, p=weights / weights.sum()) + sd[0] * rng.standard_normal(200_000)
    spent = ahead._spent([minutes])[0]
    low, best, high = np.quantile(drawn, INTERVAL)
    assert (spent.low, spent.best, spent.high) == pytest.approx((low, best, high), abs=0.01 * float(drawn.std()))


# -- alone with the pot, and what cannot be -----------------------------------------------------------


@pytest.mark.parametrize("later", [0.0, 2.0, 6.0])
@pytest.mark.parametrize("readings", [(), (6,), (5, 10)])
@pytest.mark.parametrize("g_min", [15.0, 27.0, 45.0])
def test_who_is_alone_looks_no_later_than_would_be_said(g_min: float, readings: tuple[int, ...], later: float) -> None:
    """What an answer carries of the looks to come is the rule itself: for a reading taken when it says, and later."""
    begun = known(story(*falling(*readings, g_min=g_min)))
    stop = 900.0
    for look in begun.looks_alone(stop, 12.0):
        at = look.at + timedelta(minutes=later)
        there, gone_kj = begun.window.moved(at)
        read = there.seen(begun.path.energy_to(look.liquid_ml) - gone_kj, kj_of(12.0))
        left = boiled_by(begun.contents, gone_kj + read.track.energy_kj - there.track.energy_kj)
        outlook = Progress(read, left, at).outlook(stop)
        assert outlook is not None
        said = (outlook.look_at - at).total_seconds() / 60.0
        assert look.minutes <= said
        assert later > 0.0 or look.minutes >= 0.85 * said


def _after_a_look(value: str, minute: float = 11.0, **more: Any) -> Timeline:
    """A pot that was weighed at ten minutes, and dipped a minute later."""
    dip = ev.Read.model_validate({"measured": {"method": "dip", "value": value}, **more})
    return story((0, ev.Heated(heat="boil")), *falling(10), (minute, dip))


def test_fourteen_millimetres_in_a_minute_are_asked_about() -> None:
    before = story((0, ev.Heated(heat="boil")), *falling(10)).pot
    assert before is not None
    asked = _after_a_look(f"{before.depth_mm - 14:.0f} mm").moments[-1].problem
    assert isinstance(asked, ev.LossError)
    assert "Is it right, was some poured off, or was it misread?" in in_words(asked.message)
    assert {says["gain"] for _, says in asked.answers} == {"right", "poured", "misread"}
    # What an ordinary stove does is no question, nor what is told of a start that stood who knows how long.
    assert _after_a_look(f"{before.depth_mm - 2:.0f} mm").moments[-1].problem is None
    assert story((1, ev.Read.model_validate({"measured": {"method": "dip", "value": 15}}))).moments[-1].problem is None


def test_each_answer_is_believed() -> None:
    before = story((0, ev.Heated(heat="boil")), *falling(10)).pot
    assert before is not None
    value = f"{before.depth_mm - 14:.0f} mm"
    right, poured, misread = (_after_a_look(value, gain=gain).pot for gain in ("right", "poured", "misread"))
    assert right is not None
    assert poured is not None
    assert misread is not None
    assert right.depth_mm == pytest.approx(before.depth_mm - 14, abs=1.5)
    assert poured.depth_mm == pytest.approx(before.depth_mm - 14, abs=1.5)
    assert misread.depth_mm > before.depth_mm - 2
    # Boiled away the salt stays; poured off it goes along.
    assert right.contents.salt == pytest.approx(before.contents.salt, rel=0.02)
    assert poured.contents.salt < 0.8 * before.contents.salt
    assert poured.salt_percent.best == pytest.approx(before.salt_percent.best, rel=0.05)


def test_a_reading_that_contradicts_those_before_it_is_asked_about_at_the_door() -> None:
    """A device's is left out until another agrees with it; a cook's is never dropped in silence."""
    steady = story((0, ev.Heated(heat="boil")), *falling(4, 8, 12, 16))
    odd = ev.Read.model_validate({"measured": {"method": "scale", "value": gross_at(20.0) - 330.0}})
    after = story((0, ev.Heated(heat="boil")), *falling(4, 8, 12, 16), (20, odd))
    assert steady.pot is not None
    assert after.pot is not None
    assert after.stove.window is not None
    assert after.stove.window.track.contradicting == 1
    with refused(ev.LossError, "was it misread"):
        odd.check(after)
    sure = odd.model_copy(update={"gain": "right"})
    believed = story((0, ev.Heated(heat="boil")), *falling(4, 8, 12, 16), (20, sure))
    assert believed.pot is not None
    sure.check(believed)
    assert believed.pot.contents.mass_g < after.pot.contents.mass_g - 200


def test_alcohol_takes_its_own_part_of_the_heat() -> None:
    """Heat goes into both vapours, and adds up; where some of it drives alcohol out, less water has left."""
    wine = braise(1000.0, ethanol=40.0)
    after = boiled_by(wine, 200.0)
    lost_water, lost_ethanol = wine.water - after.water, wine.ethanol - after.ethanol
    assert lost_ethanol > 5.0
    assert lost_water * WATER_KJ_G + lost_ethanol * ETHANOL_KJ_G == pytest.approx(200.0, rel=3e-3)
    assert vapour_kj(wine, after) == pytest.approx(200.0, rel=3e-3)
    dry = boiled_by(braise(1000.0), 200.0)
    assert lost_water < braise(1000.0).water - dry.water - 1.0
    path = Path(wine)
    assert path.liquid_ml(200.0) == pytest.approx(after.liquid_ml, rel=2e-3)

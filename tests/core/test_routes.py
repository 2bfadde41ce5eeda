"""Ways to a sauce, what they cost, and what to do next."""

from __future__ import annotations

import re
from datetime import timedelta
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import BURNER, EVENING, braise, event, fold, in_words, pot, potted, read, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.errors import TargetError
from spissus_core.estimation.spoon import height
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.body import LADDER
from spissus_core.phenomena.evaporation import boiled_to_volume
from spissus_core.phenomena.heating import Burner
from spissus_core.phenomena.seasoning import salt_to_add_g, starting_salt_percent
from spissus_core.planning.acts import next_act
from spissus_core.planning.because import notes
from spissus_core.planning.bench import Bench
from spissus_core.planning.ceiling import salt_ceiling_ml
from spissus_core.planning.explanation import reasons
from spissus_core.planning.journey import journey
from spissus_core.planning.plan import plan
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.solving import Route, Task, solve_route
from spissus_core.planning.tone import tone
from spissus_core.planning.trade import too_salty_ml, trade
from spissus_core.pot import Pot


def test_the_worked_example_of_the_trade() -> None:
    """Common practice, worked by hand: 1.46 L at 0.60 % salt, gelatin-rich."""
    ways = (
        "all-body-alone",
        "all-volume-white_roux",
        "all-volume-corn_starch_own",
        "all-salt-white_roux",
    )
    reduction, roux, corn, limit = (solve_route(pot(), wanted(926, body=3), kind) for kind in ways)
    # To a third it coats a spoon at last, and is inedible.
    assert reduction.share_left == pytest.approx(1 / 3, abs=0.02)
    assert reduction.salt_before.best == pytest.approx(1.7, abs=0.06)
    assert not reduction.feasible
    assert reduction.reason is not None
    assert "your limit is 1.30 %" in in_words(reduction.reason)
    # Stop near 60 %, with somewhat under 30 g of flour.
    assert roux.share_left == pytest.approx(0.6, abs=0.01)
    assert 22 < roux.dry_g < 32
    assert roux.salt_before.best == pytest.approx(0.95, abs=0.03)
    assert corn.dry_g < 0.62 * roux.dry_g
    assert limit.salt_before.best == pytest.approx(0.9, abs=0.001)


@given(st.floats(min_value=450, max_value=1400), st.integers(min_value=2, max_value=5))
def test_a_bound_route_ends_where_it_was_asked_to(volume: float, body: int) -> None:
    for kind in ("all-volume-white_roux", "all-volume-corn_starch_own"):
        route = solve_route(pot(), wanted(volume, body=body, ceiling_percent=5), kind)
        assert route.final.liquid_ml - route.salt_to_add_g * 0.33 == pytest.approx(volume, rel=1e-3)
        if route.thickener:
            assert route.body.viscosity == pytest.approx(LADDER[body].aim, rel=0.03)
        else:
            # Half a step short of it nothing is bound: the spoon says what is missing then.
            assert height(route.body.viscosity) >= body


@given(st.floats(min_value=450, max_value=1400))
def test_salt_is_conserved_along_a_route(volume: float) -> None:
    route = solve_route(pot(), wanted(volume, salt_percent=1.0, ceiling_percent=5), "all-volume-white_roux")
    assert route.final.salt == pytest.approx(9.0 + route.salt_to_add_g)
    assert route.salt_after.best >= min(1.0, route.salt_before.best) - 1e-6


def test_alcohol_in_the_pot_does_not_spoil_the_volume() -> None:
    route = solve_route(pot(braise().with_masses(ethanol=50.0)), wanted(900), "all-volume-white_roux")
    assert route.final.liquid_ml == pytest.approx(900, rel=2e-3)
    assert route.final.ethanol < 5.0


def test_more_than_the_pot_is_refused_at_the_start_and_let_down_later() -> None:
    with refused(TargetError, r"Only 1 460 mL .* is in the pot"):
        solve_routes(pot(), wanted(3000))
    with pytest.raises(TargetError) as caught:
        solve_routes(pot(), ev.Wanted(portions=60, portion_ml=60))
    assert caught.value.field == "portions"
    assert solve_routes(pot(), wanted(3000), agreed=wanted(3000))
    stretched = solve_route(pot(), wanted(2000), "all-volume-white_roux")
    assert stretched.let_down_ml > 350
    assert stretched.salt_after.best == pytest.approx(0.9)
    assert any("Stir in" in in_words(note) for note in notes(pot(), wanted(2000), stretched))


def test_a_volume_smaller_than_the_solids_is_refused() -> None:
    with refused(TargetError, "too small"):
        solve_route(pot(), wanted(40), "all-volume-white_roux")
    # Taking what is needed still leads there.
    assert {route.kind for route in solve_routes(pot(), wanted(40)) if route.feasible} & {
        "part-volume-white_roux",
        "part-volume-corn_starch_own",
    }


def test_a_pot_too_salty_already_is_stretched_or_taken_in_part() -> None:
    routes = solve_routes(pot(braise(salt=25.0)), wanted(900))
    able = {route.kind for route in routes if route.feasible}
    assert able == {"part-volume-white_roux", "part-volume-corn_starch_own", "all-stretch-corn_starch_own"} | (
        able & {"all-salt-white_roux"}
    )
    bound = next(route for route in routes if route.kind == "all-here-white_roux")
    assert "above your limit" in in_words(bound.reason)
    assert routes[0].salt_after.best == pytest.approx(0.9, abs=0.01)


def test_unsalted_stock_never_reaches_the_ceiling_by_boiling() -> None:
    assert salt_ceiling_ml(pot(braise(salt=0.0)), wanted()) is None
    routes = {route.kind: route for route in solve_routes(pot(braise(salt=0.0)), wanted(700))}
    assert routes["all-body-alone"].feasible
    assert routes["all-volume-white_roux"].feasible
    assert routes["all-volume-white_roux"].salt_after.best == pytest.approx(0.9, abs=1e-6)


def test_time_follows_power_and_what_boils_away() -> None:
    slow = solve_route(pot(burner=Burner(name="slow", net_kw=0.5)), wanted(900), "all-volume-white_roux")
    fast = solve_route(pot(), wanted(900), "all-volume-white_roux")
    assert slow.minutes.best == pytest.approx(2 * fast.minutes.best)
    assert fast.minutes.low < fast.minutes.best < fast.minutes.high
    cold = solve_route(potted(started("1.5 l", hot=False)), wanted(900), "all-volume-white_roux")
    warm = solve_route(potted(started("1557 ml")), wanted(900), "all-volume-white_roux")
    assert cold.minutes.best > warm.minutes.best + 5


def test_every_figure_has_its_arithmetic() -> None:
    route = solve_route(pot(), wanted(900, salt_percent=1.2), "all-volume-white_roux")
    lines = {
        in_words(reason.what): in_words(reason.how) for reason in reasons(pot(), wanted(900, salt_percent=1.2), route)
    }
    assert set(lines) == {
        "Share left",
        "Dip mark",
        "Scale",
        "Time",
        "Body",
        "White roux",
        "Salt",
        "Salt to add",
        "Strength",
    }
    assert re.search(r"g of liquid = \d+\.\d % .*: light, 1\.\d × what you strained", lines["Strength"])
    assert "9.0 g salt ÷" in lines["Salt"]
    assert "÷ 27 g/min from 1 kW" in lines["Time"]


def test_the_trade_falls_and_rises() -> None:
    points = trade(pot(), wanted(900))
    assert [p.salt_percent for p in points] == sorted((p.salt_percent for p in points), reverse=True)
    flour = [p.dry_g["white_roux"] for p in points]
    assert flour == sorted(flour)
    at = min(points, key=lambda p: abs(p.volume_ml - 900))
    route = solve_route(pot(), wanted(at.volume_ml), "all-volume-white_roux")
    assert at.dry_g["white_roux"] == pytest.approx(route.dry_g, abs=1e-3)
    assert at.salt_percent == pytest.approx(route.salt_before.best, abs=0.005)


def test_the_trade_says_where_boiling_stops_and_where_it_gets_too_salty() -> None:
    one = pot()
    points = trade(one, wanted(900))
    assert all(p.boil_to_ml <= p.volume_ml for p in points)
    assert [p.tone for p in points] == sorted((p.tone for p in points), reverse=True)
    at = min(points, key=lambda p: abs(p.volume_ml - 900))
    assert at.boil_to_ml == pytest.approx(
        solve_route(one, wanted(at.volume_ml), "all-volume-white_roux").boil_to_ml, rel=1e-3
    )
    # 9 g of salt make 1.3 % of 692 g, of which a part is thickener.
    salty = too_salty_ml(points, 1.3)
    assert salty is not None
    assert 600 < salty < 690
    assert too_salty_ml(points, 20.0) is None


def test_a_shallow_end_is_mentioned() -> None:
    small = pot(braise(400.0, salt=1.0))
    route = solve_route(small, wanted(250), "all-volume-white_roux")
    assert any("edge scorches" in in_words(note) for note in notes(small, wanted(250), route))


def test_seasoning_arithmetic() -> None:
    assert salt_to_add_g(5.0, 1000.0, 0.9) == pytest.approx((0.009 * 1000 - 5) / (1 - 0.009))
    assert salt_to_add_g(12.0, 1000.0, 0.9) == 0.0
    soy = salt_to_add_g(5.0, 1000.0, 0.9, carrier_salt=0.14)
    assert (5 + 0.14 * soy) / (1000 + soy) == pytest.approx(0.009)
    with pytest.raises(TargetError):
        salt_to_add_g(0.0, 1000.0, 15.0, carrier_salt=0.14)


def test_salt_at_the_start_by_taste_meter_and_stock() -> None:
    by = lambda salt: starting_salt_percent(started(salt=salt).liquid.salt)  # noqa: E731
    assert by({"by": "taste", "verdict": "right"}).best == 0.85
    assert by({"by": "stock", "stock": "unsalted"}).best == 0.1
    assert by({"by": "meter", "percent": 0.02}).low == 0.0


@pytest.mark.parametrize(
    ("stock", "percent"), [("salted", 0.9), ("reduced_salt", 0.5), ("low_salt", 0.15), ("unsalted", 0.1)]
)
def test_stock_by_its_kind(stock: str, percent: float) -> None:
    """Figures of the trade (common practice; USDA rows of broths span 0.08 to 0.95 %)."""
    found = starting_salt_percent(started(salt={"by": "stock", "stock": stock}).liquid.salt)  # type: ignore[arg-type]
    assert found.best == percent
    assert found.low < percent < found.high


# -- the now line --------------------------------------------------------------------------------

START = started("1.6 l", fat_ml="80 ml")
PLAN = (START, wanted(900), ev.Chosen(route="all-volume-white_roux"))
SKIMMED = (*PLAN, ev.Skimmed(way="separator"))
AT_MARK = (*SKIMMED, read("scale", "2340 g"), ev.FatSeen(look="eyes"))


@pytest.mark.parametrize(("percent", "said"), [(0.5, "Make all there is"), (1.3, "stretched with unsalted stock")])
def test_what_is_proposed_of_little_says_whether_it_is_let_down(percent: float, said: str) -> None:
    little = told(started("260 ml", fat_ml="0 ml", salt={"by": "meter", "percent": percent}))
    assert said in in_words(next_act(little).said(little))


def test_the_now_line_leads_through_the_whole_work() -> None:
    assert next_act(told()).kind == "start"
    assert next_act(told(START)).kind == "want"
    offer = next_act(told(START, wanted(900)))
    assert offer.kind == "choose"
    assert offer.route is not None
    assert offer.route.feasible
    assert next_act(told(*PLAN)).kind == "skim"
    boil = next_act(told(*SKIMMED))
    assert boil.kind == "boil"
    assert boil.expect is not None
    assert boil.mark is not None
    assert boil.expect.dip >= boil.mark.reads.dip
    skimmed_at = told(*SKIMMED).moments[-1].event.at
    assert boil.look_at is not None
    assert 1 <= (boil.look_at - skimmed_at).total_seconds() / 60 <= 12
    first = next_act(told(*AT_MARK))
    assert first.kind == "thicken"
    assert first.first
    whole = plan(told(*AT_MARK))
    assert whole is not None
    # At most six parts in ten, and never so much that it is likely too thick.
    assert 0.2 * whole.dry_g < first.dry_g <= 0.6 * whole.dry_g
    some = (*AT_MARK, ev.Thickened(thickener="white_roux", dry_g=first.dry_g))
    spoon = next_act(told(*some))
    assert (spoon.kind, spoon.wait_min) == ("test_body", (5, 10))
    thin = next_act(told(*some, ev.Tested(of="body", verdict="low", again="low")))
    assert (thin.kind, thin.first, thin.why) == ("thicken", False, "too_thin")
    bound = (*some, ev.Thickened(thickener="white_roux", dry_g=thin.dry_g))
    again = (*bound, *[ev.Tested(of="body", verdict="right", again="right")] * 2)
    assert next_act(told(*again)).kind in ("measure", "salt", "test_salt")
    right = ev.Tested(of="salt", verdict="right", twice=True)
    ready = (*again, read("scale", told(*again).pot.gross_g), right)
    assert next_act(told(*ready, right)).kind == "finish"
    done = next_act(told(*ready, ev.Finished(yield_ml="880 ml")))
    assert done.kind == "done"
    assert done.volume_ml == 880


def test_fat_may_stay() -> None:
    assert next_act(told(*PLAN, ev.Skimmed(fat_ml=0))).kind == "boil"


def test_past_the_mark_unsalted_liquid_comes_back() -> None:
    act = next_act(told(*SKIMMED, read("scale", "2100 g")))
    assert act.kind == "let_down"
    stirred = ev.Added(ingredient="water", volume_ml=act.volume_ml)
    assert next_act(told(*SKIMMED, read("scale", "2100 g"), stirred)).kind == "look_fat"
    assert next_act(told(*SKIMMED, read("scale", "2100 g"), stirred, ev.FatSeen(look="eyes"))).kind == "thicken"


def test_salt_goes_in_by_parts() -> None:
    bland = started("1.6 l", salt={"by": "stock", "stock": "unsalted"})
    way = (bland, wanted(900), ev.Chosen(route="all-volume-corn_starch_own"), read("scale", "2340 g"))
    right = ev.Tested(of="body", verdict="right", again="right")
    bound = (*way, ev.Thickened(thickener="corn_starch", dry_g=14), right, right, right)
    # Salt cannot be taken out: three quarters of what is missing, and then it is tasted.
    salt, missing = next_act(told(*bound)), Bench(told(*bound)).salt_missing_g
    assert salt.kind == "salt"
    assert salt.salt_g == pytest.approx(0.75 * missing, rel=0.02)
    assert next_act(told(*bound, ev.Salted(salt_g=salt.salt_g))).kind == "test_salt"


def test_reduction_alone_boils_on_until_the_spoon_says_so() -> None:
    weak = started("1.6 l", salt={"by": "stock", "stock": "unsalted"})
    way = (weak, wanted(500, body=1), ev.Chosen(route="all-body-alone"))
    stop = next_act(told(*way))
    assert stop.kind == "boil"
    assert stop.mark is not None
    reached = (*way, read("scale", stop.mark.reads.scale), read("scale", stop.mark.reads.scale))
    assert next_act(told(*reached)).kind == "test_body"
    again = next_act(told(*reached, ev.Tested(of="body", verdict="low")))
    assert (again.kind, again.why) == ("boil", "too_thin")
    assert again.mark.ml < stop.mark.ml


def test_the_ribbon_joins_up() -> None:
    timeline = told(*SKIMMED, read("scale", "2600 g"))
    way = journey(timeline)
    assert [s.stage for s in way] == ["strain", "skim", "reduce", "reduce", "thicken", "serve"]
    assert [s.planned for s in way] == [False, False, False, True, True, True]
    for before, after in pairwise(way):
        assert after.from_ml == pytest.approx(before.to_ml)
        assert after.from_fat_ml == pytest.approx(before.to_fat_ml)
    now = next(s for s in reversed(way) if not s.planned)
    assert now.to_ml == pytest.approx(timeline.pot.contents.volume_ml)
    assert way[-1].to_ml - way[-1].to_fat_ml == pytest.approx(900, rel=0.01)


def test_the_ribbon_ends_as_the_plan_does_while_it_boils_on() -> None:
    log = [event(i, kind, minute=i) for i, kind in enumerate((*SKIMMED, read("scale", "2800 g")), 1)]
    timeline = fold(log, EVENING + timedelta(minutes=11))
    way = journey(timeline)
    now = next(s for s in reversed(way) if not s.planned)
    assert now.to_ml == pytest.approx(timeline.pot.contents.volume_ml)
    assert now.stage == "reduce"
    assert way[-1].to_ml - way[-1].to_fat_ml == pytest.approx(900, rel=0.01)


def test_the_tone_deepens_with_concentration() -> None:
    tones = [tone(boiled_to_volume(braise(), 1460 * share)) for share in (1.0, 0.7, 0.4, 0.2)]
    assert tones == sorted(tones)
    assert 0 <= tones[0] < tones[-1] <= 1
    # Flour makes nothing look rich.
    assert tone(braise() + Contents(starch={"wheat": 60.0})) <= tones[0]


def first_way(salt: float, wish: ev.Wanted, litres: float = 1.5, **liquid: Any) -> tuple[Pot, Route]:
    """The first way from so much liquid in a pan that fits it."""
    pan = Pan.round("pan", 240 if litres < 3.0 else 320, 130 if litres < 3.0 else 200)
    given = {
        "measured": {"method": "jug", "value": f"{litres} l", "hot": True},
        "salt": {"by": "meter", "percent": salt},
    }
    begun = ev.Started(pan=pan, burner=BURNER, liquid=StrainedLiquid.model_validate(given | liquid))
    found = potted(begun)
    return found, solve_routes(found, wish)[0]


def test_a_pot_is_boiled_for_its_taste_to_the_salt_that_is_liked() -> None:
    before, way = first_way(0.6, wanted(450), character="gelatin_rich")
    assert way.way.stop == "taste"
    assert way.aside_ml == 0.0
    assert way.salt_before.best == pytest.approx(0.9 - 0.05, abs=0.01)
    assert way.final.strength_percent > 1.35 * before.contents.strength_percent


def test_unsalted_it_is_boiled_until_it_is_rich_and_never_below_the_amount() -> None:
    _, rich = first_way(0.1, wanted(300), character="gelatin_rich")
    assert rich.final.strength_percent == pytest.approx(11.0, rel=0.02)
    _, enough = first_way(0.1, wanted(1000), character="gelatin_rich")
    assert enough.volume_ml == pytest.approx(1000, rel=0.02)
    assert enough.steam_g > 300


def test_only_of_far_too_much_a_part_is_taken_and_that_is_boiled_too() -> None:
    _, whole = first_way(0.6, wanted(450), litres=2.0)
    assert whole.aside_ml == 0.0
    before, part = first_way(0.6, wanted(450), litres=4.0)
    assert part.aside_ml > 3000
    assert part.volume_ml == pytest.approx(450, rel=0.02)
    assert part.final.strength_percent > 1.35 * before.contents.strength_percent


def test_a_jus_begins_with_nothing_added() -> None:
    _, jus = first_way(0.1, wanted(500, body=1), character="gelatin_rich")
    assert jus.thickener is None
    assert jus.steam_g > 0.0


def test_what_is_too_salty_already_is_not_boiled() -> None:
    _, way = first_way(1.3, wanted(450))
    assert way.way.stop != "taste"
    assert way.salt_before.best < 0.95


@given(st.floats(0.1, 0.8), st.sampled_from(["thin", "gelatin_rich", "milled"]), st.floats(0.35, 1.0))
@settings(max_examples=30, deadline=None)
def test_the_mark_for_the_taste_stands_still_while_it_boils(salt: float, character: str, share: float) -> None:
    begun, _ = first_way(salt, wanted(300), character=character)
    mark = Task(begun, wanted(300)).taste_mark_ml()
    later = begun.boiled_to(boiled_to_volume(begun.contents, max(share * begun.contents.liquid_ml, mark)))
    assert Task(later, wanted(300)).taste_mark_ml() == pytest.approx(mark, rel=2e-3)


def test_unsure_of_its_salt_it_is_tasted_before_it_is_bound() -> None:
    begun = started("1.4 l", salt={"by": "taste", "verdict": "nearly"}, character="thin")
    steps = [begun, wanted(450), ev.Chosen(route="all-taste-corn_starch_own")]
    mark = next_act(told(*steps)).mark.ml
    at_mark = [
        *steps,
        ev.Read.model_validate({"measured": {"method": "jug", "value": f"{mark * 1.04:.0f} ml", "hot": True}}),
    ]
    asked = next_act(told(*at_mark))
    assert (asked.kind, asked.why) == ("test_salt", "before_binding")
    # Flat: there is room for more boiling. Right: it is bound.
    assert next_act(told(*at_mark, ev.Tested(of="salt", verdict="flat"))).kind in ("heat", "boil")
    assert next_act(told(*at_mark, ev.Tested(of="salt", verdict="right"))).kind != "heat"

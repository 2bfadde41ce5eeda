"""What a kitchen is used to thicken with is proposed where it does for this sauce."""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import UUID

import pytest
from makers import in_words, pot, potted, started, wanted
from spissus_core import events as ev
from spissus_core.fold import fold
from spissus_core.intake.mixture import read_mixture
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.planning.because import notes
from spissus_core.planning.plan import best_way
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.solving import Route
from spissus_core.planning.trade import trade

AT = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)


def first(habit: str, **wish: object) -> Route:
    told = wanted(450, **wish) if "volume_ml" not in wish else wanted(**wish)
    return solve_routes(pot().but(habit=SCHOOLS[habit]), told)[0]


def usual(**wish: object) -> Route:
    return solve_routes(pot(), wanted(450, **wish))[0]


@pytest.mark.parametrize("habit", ["arrowroot_own", "tapioca_own", "brown_roux", "white_roux", "kneaded_butter"])
def test_what_it_is_used_to_is_the_first_for_a_few(habit: str) -> None:
    one, other = first(habit), usual()
    assert one.thickener is not None
    assert one.thickener.key == habit
    assert (one.way.stop, one.way.part) == (other.way.stop, other.way.part)


def test_the_usual_ones_are_offered_all_the_same() -> None:
    ways = solve_routes(pot().but(habit=SCHOOLS["arrowroot_own"]), wanted(450))
    bound = {route.thickener.key for route in ways if route.feasible and route.thickener is not None}
    assert {"arrowroot_own", "corn_starch_own", "white_roux"} <= bound


def test_what_each_volume_costs_is_told_of_it_too() -> None:
    own = read_mixture("house roux", "500 g flour\n500 g butter", "roux").school("own-1")
    for habit, key in ((SCHOOLS["arrowroot_own"], "arrowroot_own"), (own, "own-1")):
        points = trade(pot().but(habit=habit), wanted(450))
        assert points
        assert all(key in point.dry_g for point in points)


def test_for_a_large_table_it_is_what_holds() -> None:
    table = ev.Wanted(people=12, over="mash", body=3, salt_percent=1.0)
    ways = solve_routes(pot().but(habit=SCHOOLS["arrowroot_own"]), table)
    assert ways[0].thickener is not None
    assert ways[0].thickener.sort == "lasting"


def test_the_usual_starch_as_a_habit_changes_nothing() -> None:
    assert first("corn_starch_own") == usual()


@pytest.mark.parametrize(
    ("habit", "wish"),
    [
        ("white_roux", {"avoid": ("gluten",)}),
        ("kneaded_butter", {"avoid": ("milk",)}),
        ("dark_roux", {"minutes": 25}),
        ("own_fat_roux", {}),
        ("gelatin_leaves", {}),
    ],
)
def test_a_habit_that_does_not_do_here_is_not_proposed(habit: str, wish: dict[str, object]) -> None:
    one = first(habit, **wish)
    assert one.thickener is None or one.thickener.key != habit
    assert one == usual(**wish)


def test_a_salted_thickener_is_not_proposed_where_there_is_no_room_for_its_salt() -> None:
    salty = pot(potted(started("1 l", salt={"by": "meter", "percent": 0.85})).contents)
    one = solve_routes(salty.but(habit=SCHOOLS["granules"]), wanted(450))[0]
    assert one.thickener is None or one.thickener.key != "granules"


def test_a_glaze_that_has_body_enough_is_left_alone() -> None:
    jus = solve_routes(pot(), wanted(300, body=1))[0]
    with_habit = solve_routes(pot().but(habit=SCHOOLS["arrowroot_own"]), wanted(300, body=1))[0]
    assert (jus.thickener is None) == (with_habit.thickener is None)


def test_a_mixture_of_its_own_may_be_the_habit() -> None:
    own = read_mixture("house roux", "500 g flour\n500 g butter", "roux").school("own-1")
    one = solve_routes(pot().but(habit=own), wanted(450))[0]
    assert one.thickener == own
    assert one.way.with_own


def test_the_start_says_what_the_kitchen_is_used_to_and_the_bar_goes_by_it() -> None:
    begun = started("1.2 l").model_copy(update={"habit": SCHOOLS["arrowroot_own"]})
    payloads = [begun, wanted(450)]
    log = [ev.Event(id=UUID(int=n), seq=n, at=AT, payload=one) for n, one in enumerate(payloads, 1)]
    timeline = fold(log, stop_of=None)
    best = best_way(timeline)
    assert best is not None
    assert best.thickener is not None
    assert best.thickener.key == "arrowroot_own"
    assert timeline.pot is not None
    said = [in_words(note) for note in notes(timeline.pot, wanted(450), best)]
    assert any("last two sauces" in note for note in said)

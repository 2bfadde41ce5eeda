"""What is set aside is a thing: cooled, kept, labelled, and poured into another batch with its own figures."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import UUID, uuid4

import pytest
from makers import EVENING, event, in_words, potted, read, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import SpissusError
from spissus_core.events.shelf import thing_of
from spissus_core.events.state import Jar
from spissus_core.pantry.things import Thing
from spissus_core.phenomena.keeping import keeps_as, use_by
from spissus_core.phenomena.limits import USUAL
from spissus_core.planning.spoken import rest_line
from spissus_core.planning.warming_again import warming_again

#: A first proposal that takes a part: the rest stays on the meat.
TAKEN = (
    started("2.4 l", fat_ml="20 ml", salt={"by": "meter", "percent": 0.6}),
    wanted(600),
    ev.Parted(volume_ml=1000, purpose="aside", how="under"),
)
JAR = UUID(int=7)


def put_by(what: str = "rest", **more: Any) -> ev.PutBy:
    return ev.PutBy.model_validate({"jar": JAR, "what": what, "place": "freezer", **more})


def test_the_rest_is_put_by_with_its_figures_and_stands_aside_no_more() -> None:
    kept = potted(*TAKEN).kept
    assert kept is not None
    timeline = told(*TAKEN, ev.RestIs(rest="cooling"), ev.RestIs(rest="cold"), put_by(containers=2, name="Tuesday's"))
    jar = timeline.shelf[0]
    assert jar.contents.salt == pytest.approx(kept.salt)
    assert jar.contents.gelatin == pytest.approx(kept.gelatin)
    assert jar.containers == 2
    assert jar.name == "Tuesday's"
    assert timeline.rest is None
    assert timeline.pot is not None
    assert timeline.pot.kept is None
    # Frozen in the evening it was made: ninety days.
    assert jar.use_by - EVENING > timedelta(days=89)


def test_only_what_there_is_is_put_by() -> None:
    for steps in ((*TAKEN[:2], put_by()), (*TAKEN, put_by(volume_ml=5000)), (*TAKEN, put_by("fat"))):
        with refused(SpissusError, "aside|only|No fat"):
            steps[-1].apply(told(*steps[:-1]), EVENING)
    with refused(SpissusError, "finished"):
        put_by("sauce").apply(told(*TAKEN), EVENING)


def test_a_part_of_it_is_used_and_the_rest_of_it_stays() -> None:
    jar = told(*TAKEN, put_by()).shelf[0]
    half = jar.contents.liquid_ml / 2.0
    used = told(*TAKEN, put_by(), ev.JarTaken(jar=JAR, volume_ml=half, use="eaten"))
    assert used.shelf[0].contents.liquid_ml == pytest.approx(half, rel=1e-6)
    assert not told(*TAKEN, put_by(), ev.JarTaken(jar=JAR, use="thrown_away")).shelf
    with refused(SpissusError, "only"):
        ev.JarTaken(jar=JAR, volume_ml=9000, use="eaten").apply(told(*TAKEN, put_by()), EVENING)
    with refused(SpissusError, "not on the shelf"):
        ev.JarTaken(jar=uuid4(), use="eaten").apply(told(*TAKEN, put_by()), EVENING)


def kept() -> Thing:
    return thing_of(told(*TAKEN, put_by(name="Tuesday's stock")).shelf[0])


def poured(volume_ml: float = 400.0, **more: Any) -> ev.PouredIn:
    thing = kept().model_copy(update=more)
    return ev.PouredIn(jar=JAR, batch=UUID(int=1), volume_ml=volume_ml, thing=thing)


def test_three_days_later_it_is_poured_into_another_batch_with_its_salt() -> None:
    other = (started("0.8 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.3}),)
    before, after = potted(*other), potted(*other, poured())
    thing = kept()
    brought = 400.0 / thing.contents.liquid_ml * thing.contents.salt
    assert after.contents.salt - before.contents.salt == pytest.approx(brought, rel=1e-6)
    assert after.contents.liquid_ml - before.contents.liquid_ml == pytest.approx(400.0, abs=2.0)
    assert "Tuesday's stock" in in_words(poured().said())
    with refused(SpissusError, "only"):
        poured(90_000.0).on_pot(before)


def test_past_its_date_it_is_asked_about_and_in_time_it_is_not() -> None:
    other = started("0.8 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.3})
    old = Board([event(1, other), event(2, poured(use_by=EVENING - timedelta(days=1)))])
    assert "use-by" in in_words(old.act.said(old.timeline))
    fresh = Board([event(1, other), event(2, poured())])
    assert "use-by" not in in_words(fresh.act.said(fresh.timeline))


def test_once_reheated_goes_with_it_and_so_does_the_earlier_date() -> None:
    """What was kept once and boiled up with something new is not kept for longer than the old would have been."""
    by = EVENING + timedelta(days=1)
    steps = (
        started("0.8 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.3}),
        poured(use_by=by),
        ev.Finished(),
        put_by("sauce", place="fridge", volume_ml=300),
    )
    jar = told(*steps).shelf[0]
    assert jar.reheated
    assert jar.use_by == by


def test_what_is_in_it_decides_how_long_it_keeps_and_how_it_is_warmed() -> None:
    butter = (*TAKEN[:2], ev.Added(ingredient="butter", mass_g=30), ev.Finished(), put_by("sauce", volume_ml=200))
    assert told(*butter).shelf[0].keeps == "butter"
    assert keeps_as("sauce", ["yolk", "butter"]) == "yolk"
    assert use_by("stock", "fridge", EVENING) - EVENING == timedelta(days=3)
    with refused(SpissusError, "freez"):
        yolk = (*TAKEN[:2], ev.Added(ingredient="egg_yolk", mass_g=17), ev.Finished())
        put_by("sauce", volume_ml=200).apply(told(*yolk), EVENING)


def test_thawed_it_is_used_the_next_day_and_frozen_it_keeps() -> None:
    steps = (*TAKEN, put_by(), ev.JarMoved(jar=JAR, place="fridge"))
    jar = told(*steps).shelf[0]
    assert jar.place == "fridge"
    assert jar.use_by - EVENING < timedelta(days=1, minutes=10)
    again = told(*TAKEN, put_by(place="fridge"), ev.JarMoved(jar=JAR, place="freezer")).shelf[0]
    assert again.use_by - EVENING > timedelta(days=80)
    with refused(SpissusError, "thawed"):
        ev.JarMoved(jar=JAR, place="freezer").apply(told(*steps), EVENING)


@pytest.mark.parametrize("stands", ["unsaid", "hot", "cooling"])
def test_what_is_put_by_before_it_is_cold_keeps_its_clock(stands: str) -> None:
    said = () if stands == "unsaid" else (ev.RestIs(rest=stands),)  # type: ignore[arg-type]
    jar = told(*TAKEN, *said, put_by(place="fridge")).shelf[0]
    assert jar.cold_by is not None
    assert told(*TAKEN, ev.RestIs(rest="cold"), put_by(place="fridge")).shelf[0].cold_by is None


def test_the_rest_cools_by_its_own_probe_and_a_cooling_that_fails_stays_failed() -> None:
    log = [event(i, step) for i, step in enumerate(TAKEN, 1)]
    log.append(event(4, ev.RestIs(rest="cooling", celsius=57), minute=4))
    log.append(event(5, ev.RestIs(rest="cooling", celsius=40), minute=70))
    board = Board(log, log[-1].at)
    assert "too slow" in in_words(rest_line(board.timeline) or "")
    log.append(event(6, ev.RestIs(rest="cooling", celsius=25), minute=150))
    log.append(event(7, ev.RestIs(rest="cold"), minute=400))
    failed = Board(log, log[-1].at)
    assert [concern.kind for concern in failed.timeline.table.concerns] == ["rest"]
    log.append(event(8, ev.Answered(concern="rest", answer="thrown_away"), minute=401))
    gone = Board(log, log[-1].at).timeline
    assert gone.rest is None
    assert not gone.table.thrown_away
    assert gone.pot is not None
    assert gone.pot.kept is None


def test_a_sauce_with_butter_is_warmed_to_its_limit_and_gets_a_fresh_knob() -> None:
    butter = (*TAKEN[:2], ev.Added(ingredient="butter", mass_g=30), ev.Finished(), put_by("sauce", volume_ml=250))
    jar = told(*butter).shelf[0]
    said = [in_words(one) for one in warming_again(jar, USUAL)]
    assert said[0].startswith("Warm it to 74 °C, stirring, once, and no hotter than 78 °C.")
    assert any("10 g of cold butter" in line for line in said), said
    # Not hot through it is still there; hot it is eaten, once.
    assert told(*butter, ev.JarWarmed(jar=JAR, celsius=66)).shelf == (jar,)
    assert not told(*butter, ev.JarWarmed(jar=JAR, celsius=75)).shelf
    left = told(*butter, ev.JarWarmed(jar=JAR, celsius=75, volume_ml=100)).shelf[0]
    assert left.contents.volume_ml == pytest.approx(150.0, rel=0.01)


def test_stock_that_has_set_is_told_to_melt_and_fat_only_to_be_melted() -> None:
    jar = told(*TAKEN, put_by()).shelf[0]
    assert any("It has set" in in_words(one) for one in warming_again(jar, USUAL))
    skimmed = (
        started("2.4 l", fat_ml="200 ml", salt={"by": "meter", "percent": 0.6}),
        ev.Skimmed(way="spoon"),
        put_by("fat"),
    )
    assert [in_words(one) for one in warming_again(told(*skimmed).shelf[0], USUAL)] == ["Melt it as you need it."]


@pytest.mark.parametrize(
    ("steps", "complaint"),
    [
        ((put_by(volume_ml=100), put_by(volume_ml=100)), "already"),
        ((put_by(volume_ml=0.001),), "How much is kept"),
        ((put_by(), ev.JarTaken(jar=JAR, volume_ml=0, use="eaten")), "how much"),
    ],
)
def test_what_makes_no_thing_is_refused_with_a_sentence(steps: tuple[ev.Kind, ...], complaint: str) -> None:
    with refused(SpissusError, complaint):
        steps[-1].apply(told(*TAKEN, *steps[:-1]), EVENING)


def test_a_yield_that_is_all_kept_leaves_none_and_says_so() -> None:
    with refused(SpissusError, "none of it left"):
        put_by("sauce").apply(told(*TAKEN[:2], ev.Finished(yield_ml=1)), EVENING)


def test_called_cold_long_after_a_cooling_that_was_too_slow_it_is_in_doubt() -> None:
    log = [event(i, step) for i, step in enumerate(TAKEN, 1)]
    log += [event(4, ev.RestIs(rest="cooling", celsius=57), minute=4), event(5, ev.RestIs(rest="cold"), minute=600)]
    assert [one.kind for one in Board(log, log[-1].at).timeline.table.concerns] == ["rest"]


def begun_with(jar_of: Jar, **more: Any) -> ev.Started:
    """A batch of its own, out of all of what is kept."""
    held = jar_of.contents
    kept = {"batch": UUID(int=1), "jar": JAR, "thing": thing_of(jar_of)}
    salt = {"by": "meter", "percent": held.salt_percent}
    return started(f"{held.volume_ml:.1f} ml", hot=False, salt=salt, kept=kept, **more)


def test_yesterdays_sauce_begins_a_batch_with_all_that_it_is() -> None:
    finished = (
        started("900 ml"),
        wanted(890, body=1),
        ev.Added(ingredient="butter_unsalted", mass_g=40),
        ev.Finished(),
    )
    jar = told(*finished, put_by("sauce", place="fridge")).shelf[0]
    begun = told(begun_with(jar))
    assert begun.pot is not None
    assert begun.pot.contents.volume_ml == pytest.approx(jar.contents.volume_ml, rel=0.01)
    assert begun.pot.contents.salt == pytest.approx(jar.contents.salt, rel=0.01)
    assert begun.pot.contents.fat_emulsified == pytest.approx(jar.contents.fat_emulsified, rel=0.01)
    # It bears no boil for its butter, it is warmed once, and the earlier date goes with it.
    assert begun.went_in.delicate == jar.delicate
    assert begun.table.reheated
    assert begun.table.use_by == jar.use_by
    assert begun.all_allergens == jar.allergens
    again = told(begun_with(jar), ev.Finished(), put_by("sauce", place="fridge")).shelf[0]
    assert again.reheated
    assert again.use_by <= jar.use_by


def test_more_than_was_kept_begins_nothing() -> None:
    jar = told(*TAKEN, put_by()).shelf[0]
    with refused(SpissusError, "only"):
        begun_with(jar).model_copy(
            update={"liquid": begun_with(jar).liquid.model_copy(update={"measured": read("jug", "3 l").measured})}
        ).begin()

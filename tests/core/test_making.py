"""A thickener is made beside the pot: its card and clock, what goes in of it, and what is left over."""

from __future__ import annotations

from datetime import timedelta

import pytest
from makers import EVENING, event, fold, in_words, log, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.planning.acts import next_act
from spissus_core.planning.acts.body import Thicken
from spissus_core.planning.choosing import TRAITS
from spissus_core.planning.making import MORE_READY, STEPS, making
from spissus_core.planning.plan import plan

START = started("1.2 l", salt={"by": "meter", "percent": 0.6}, fat_ml=0.0)


def way(school: str, *more: ev.Kind, body: int = 3) -> ev.State:
    return told(START, wanted(1150, body=body), ev.Chosen(route=f"all-here-{school}"), *more)


def thin(*more: ev.Kind, school: str = "corn_starch_own") -> ev.State:
    """Far too thin, and a spoon said so."""
    return way(school, *more, ev.Tested(of="body", verdict="low", again="low"))


def test_every_school_that_may_be_asked_for_has_its_steps() -> None:
    strewn = {"instant_flour", "granules"}
    assert {key for key, steps in STEPS.items() if not steps} <= strewn
    for steps in STEPS.values():
        spans = [(step.from_min, step.to_min) for step in steps if step.to_min is not None]
        assert all(start is not None and start < end for start, end in spans if end is not None)
        assert spans == sorted(spans, key=lambda span: span[1] or 0.0)


@pytest.mark.parametrize(
    ("school", "minutes"),
    [("white_roux", 3), ("blond_roux", 5), ("brown_roux", 15), ("dark_roux", 30), ("xanthan", None)],
)
def test_a_roux_takes_as_long_as_its_colour(school: str, minutes: float | None) -> None:
    """Handbook of the trade, section 9: white 2 to 3 min, blond 5, brown 10 to 15, dark 25 and more."""
    state = way(school, body=1)
    card = making(state, plan(state))
    assert card is not None
    assert card.takes_min == minutes


def test_a_tenth_more_is_made_than_the_sums_ask_for() -> None:
    state = way("white_roux")
    route = plan(state)
    assert route is not None
    card = making(state, route)
    assert card is not None
    assert card.dry_g == pytest.approx(MORE_READY * route.dry_g)
    flour, fat = map(in_words, card.weigh)
    assert "of flour" in flour
    assert fat.split(" g")[0] == flour.split(" g")[0]


def test_no_way_no_card() -> None:
    assert making(told(START), None) is None


def test_its_clock_runs_from_when_it_was_begun() -> None:
    begun, ready = (ev.Prepared(thickener="blond_roux", dry_g=40, stands=one) for one in ("begun", "ready"))
    entries = [event(1, START), event(2, wanted(1150)), event(3, ev.Chosen(route="all-here-blond_roux"))]
    entries += [event(4, begun, minute=6), event(5, ready, minute=11)]
    for count, is_ready in ((4, False), (5, True)):
        state = fold(entries[:count], now=EVENING + timedelta(minutes=12))
        card = making(state, plan(state))
        assert card is not None
        assert card.since == EVENING + timedelta(minutes=6)
        assert card.ready is is_ready
    assert state.pot is not None
    assert state.pot.contents.starch_g == 0.0


def test_what_stands_ready_is_poured_in_parts_and_what_is_left_is_said() -> None:
    ready = ev.Prepared(thickener="corn_starch_own", dry_g=30, stirred_into="red_wine")
    assert "stirred into red wine" in in_words(ready.said())
    act = next_act(thin(ready)).doing
    assert isinstance(act, Thicken)
    line = in_words(act.said(thin(ready)))
    assert line.startswith("Stir it up. Whisk in")
    poured = act.answers(thin(ready))[0].event
    assert isinstance(poured, ev.Thickened)
    assert poured.stirred_into == "red_wine"
    assert poured.dry_g < 30
    state = thin(ready, poured)
    card = making(state, plan(state))
    assert card is not None
    assert card.left is not None
    assert f"{30 - poured.dry_g:.1f} g of corn starch is left" in in_words(card.left)
    assert state.pot is not None
    assert state.pot.contents.ethanol > 0.0
    assert "stirred into red wine" in in_words(poured.said())


def test_no_more_is_poured_than_stands_ready() -> None:
    little = ev.Prepared(thickener="corn_starch_own", dry_g=2)
    act = next_act(thin(little)).doing
    assert isinstance(act, Thicken)
    assert act.dry_g == 2
    assert in_words(act.said(thin(little))).startswith("Whisk in all that is left")
    # Then there is none of it, and it is weighed as ever.
    again = next_act(thin(little, ev.Thickened(thickener="corn_starch_own", dry_g=2), school="corn_starch_own")).doing
    assert getattr(again, "made", None) is None


def test_another_thickener_than_the_ways_stays_beside() -> None:
    act = next_act(thin(ev.Prepared(thickener="white_roux", dry_g=30))).doing
    assert isinstance(act, Thicken)
    assert act.made is None


def test_what_is_only_begun_is_not_poured() -> None:
    act = next_act(thin(ev.Prepared(thickener="corn_starch_own", dry_g=30, stands="begun"))).doing
    assert isinstance(act, Thicken)
    assert act.made is None


@pytest.mark.parametrize("liquid", ["water", "stock", "red_wine", "white_wine", "beer", "cream"])
def test_what_it_is_stirred_into_enters_the_ledger(liquid: str) -> None:
    before = told(START).pot
    after = told(START, ev.Thickened(thickener="corn_starch_own", dry_g=16, stirred_into=liquid)).pot
    assert before is not None
    assert after is not None
    # Two parts of it to one of starch by volume: 16 g are two spoons, and so much liquid is four.
    assert after.contents.liquid_ml - before.contents.liquid_ml == pytest.approx(59 + 16 * 0.63, abs=4)
    assert after.contents.starch["corn"] == 16
    assert (after.contents.ethanol > 0.0) == (liquid in {"red_wine", "white_wine", "beer"})
    assert (after.contents.fat_emulsified > before.contents.fat_emulsified) == (liquid == "cream")


def test_wine_brings_what_wine_brings() -> None:
    state = told(START, ev.Thickened(thickener="corn_starch_own", dry_g=16, stirred_into="red_wine"))
    assert "sulphites" in state.table.allergens
    assert (
        "milk" in told(START, ev.Thickened(thickener="corn_starch_own", dry_g=16, stirred_into="cream")).table.allergens
    )


def test_a_roux_is_stirred_into_nothing_cold() -> None:
    plain, wine = (
        told(START, ev.Thickened(thickener="white_roux", dry_g=16, stirred_into=one)) for one in (None, "red_wine")
    )
    assert plain.pot is not None
    assert wine.pot is not None
    assert plain.pot.contents == wine.pot.contents


def test_its_own_fat_is_taken_off_what_was_kept() -> None:
    skimmed = ev.Skimmed(way="spoon", fat_ml=60, kept=True)
    fat = started("1.2 l", fat_ml=80.0)
    kept_g = told(fat, skimmed).skimming.kept_g
    assert kept_g > 40
    used = ev.Thickened(thickener="own_fat_roux", dry_g=20)
    assert told(fat, skimmed, used).skimming.kept_g == pytest.approx(kept_g - 20)
    # Made beside the pot first, it is taken once.
    made = ev.Prepared(thickener="own_fat_roux", dry_g=22)
    assert told(fat, skimmed, made, used).skimming.kept_g == pytest.approx(kept_g - 22)
    assert told(fat, skimmed, ev.Thickened(thickener="own_fat_roux", dry_g=500)).skimming.kept_g == 0.0


def test_nothing_is_made_of_nothing() -> None:
    with refused(SpissusError, "Say how much thickener"):
        ev.Prepared(thickener="white_roux", dry_g=0).apply(told(START), EVENING)


@pytest.mark.parametrize(
    ("school", "said"),
    [
        ("roux_gelatin", "g of gelatin, soaked in cold water"),
        ("starch_xanthan", "of xanthan, stirred in dry"),
        ("gelatin_leaves", "leaves"),
    ],
)
def test_a_pair_says_both_and_leaves_are_counted(school: str, said: str) -> None:
    act = Thicken(thickener=SCHOOLS[school], dry_g=12.0, first=True)
    card = making(way("white_roux", ev.Prepared(thickener=school, dry_g=12)), None)
    assert card is not None
    assert said in " ".join(map(in_words, card.weigh))
    if not SCHOOLS[school].own_parts:
        assert said in in_words(act.said(told(START)))
    assert log(START)


def too_thin_for_ever(school: str, *, litres: str = "0.9 l") -> tuple[list[Thicken], ev.State]:
    """A cook whose thickener does nothing, and who obeys: the helpings, and the batch after them."""
    said: list[ev.Kind] = [started(litres, fat_ml=0.0), wanted(450), ev.Chosen(route=f"all-here-{school}")]
    helpings: list[Thicken] = []
    for _ in range(30):
        act = next_act(told(*said)).doing
        if isinstance(act, Thicken):
            helpings.append(act)
            answer = act.answers(told(*said))[0].event
            assert answer is not None
            said.append(answer)
        elif act.kind == "test_body":
            said.append(ev.Tested(of="body", verdict="low", again="low"))
        else:
            break
    return helpings, told(*said)


@pytest.mark.parametrize("school", ["vegetable_puree", "bean_puree", "xanthan", "granules", "roux_gelatin"])
def test_no_more_goes_in_than_a_sauce_bears(school: str) -> None:
    helpings, after = too_thin_for_ever(school)
    own = [one.dry_g for one in helpings if one.thickener is not None and one.thickener.key == school]
    assert own
    assert after.pot is not None
    assert 100.0 * sum(own) / after.pot.contents.liquid_g <= TRAITS[school].most_percent * 1.05
    # Then it is thickened with what is usual, and that is said.
    other = [one for one in helpings if one.thickener is not None and one.thickener.key != school]
    if other:
        assert in_words(other[0].said(after)).startswith("It bears no more of what it was thickened with.")


def test_nothing_is_ordered_into_a_full_pan() -> None:
    helpings, after = too_thin_for_ever("vegetable_puree", litres="4.6 l")
    assert after.pot is not None
    assert after.pot.contents.volume_ml < after.pot.pan.capacity_ml
    assert helpings


def test_a_puree_goes_in_by_the_ladle() -> None:
    """However much is missing by the sums, no more at once than a spoon can put right again."""
    helpings, after = too_thin_for_ever("vegetable_puree")
    assert after.pot is not None
    assert max(one.dry_g for one in helpings) < 0.2 * after.pot.contents.liquid_g


def test_what_was_stirred_into_wine_goes_on_in_wine() -> None:
    ready = ev.Prepared(thickener="corn_starch_own", dry_g=5, stirred_into="red_wine")
    state = thin(
        ready,
        ev.Thickened(thickener="corn_starch_own", dry_g=5, stirred_into="red_wine"),
        ev.Tested(of="body", verdict="low", again="low"),
    )
    act = next_act(state).doing
    assert isinstance(act, Thicken)
    assert "of red wine" in in_words(act.said(state))
    answer = act.answers(state)[0].event
    assert isinstance(answer, ev.Thickened)
    assert answer.stirred_into == "red_wine"


def test_granules_stop_at_the_salt_that_is_liked() -> None:
    """What brings salt goes in as long as there is room for it; then something without."""
    helpings, after = too_thin_for_ever("granules")
    assert after.pot is not None
    assert after.pot.contents.salt_percent < 0.95
    assert {one.thickener.key for one in helpings if one.thickener} > {"granules"}


@pytest.mark.parametrize(
    ("fat_ml", "avoid", "named"),
    [
        (60, (), "of its own fat"),
        (12, (), "of its own fat, made up with butter"),
        (12, ("milk",), "of its own fat, made up with oil"),
        (0, ("milk",), "of oil"),
    ],
)
def test_short_of_its_own_fat_the_card_and_the_bar_name_what_makes_it_up(
    fat_ml: float, avoid: tuple[str, ...], named: str
) -> None:
    off = (ev.Skimmed(way="spoon", fat_ml=fat_ml, kept=True),) if fat_ml else ()
    start = started("1.2 l", fat_ml=float(fat_ml + 5))
    state = told(start, *off, wanted(1150, avoid=avoid), ev.Chosen(route="all-here-own_fat_roux"))
    card = making(state, plan(state))
    assert card is not None
    assert in_words(card.weigh[1]).endswith(named)
    act = Thicken(thickener=SCHOOLS["own_fat_roux"], dry_g=30.0, first=True)
    assert f"{named}. More" in in_words(act.said(state))


def test_what_was_only_begun_or_goes_beyond_what_was_made_takes_its_fat_then() -> None:
    start, skimmed = started("1.2 l", fat_ml=80.0), ev.Skimmed(way="spoon", fat_ml=60, kept=True)
    kept_g = told(start, skimmed).skimming.kept_g
    begun = ev.Prepared(thickener="own_fat_roux", dry_g=22, stands="begun")
    poured = ev.Thickened(thickener="own_fat_roux", dry_g=30)
    assert told(start, skimmed, begun, poured).skimming.kept_g == pytest.approx(kept_g - 30)
    ready = ev.Prepared(thickener="own_fat_roux", dry_g=22)
    assert told(start, skimmed, ready, poured).skimming.kept_g == pytest.approx(kept_g - 30)


def test_what_is_all_in_stands_ready_no_more() -> None:
    ready = ev.Prepared(thickener="corn_starch_own", dry_g=10)
    state = thin(ready, ev.Thickened(thickener="corn_starch_own", dry_g=10))
    assert making(state, plan(state)) is None

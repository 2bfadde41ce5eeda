"""Events folded into what is in the pot."""

from __future__ import annotations

import random
from typing import Any
from uuid import uuid4

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import BURNER, PAN, event, fold, in_words, log, potted, read, refused, started, told, wanted
from pydantic import TypeAdapter, ValidationError
from spissus_core import events as ev
from spissus_core.events import GainError
from spissus_core.ledger.contents import SPECIFIC_VOLUME_ML_G
from spissus_core.ledger.water import HOT_EXPANSION
from spissus_core.measuring.measurement import Measured
from spissus_core.measuring.vessels import Pan
from spissus_core.pantry.larder import Label, OwnIngredient
from spissus_core.planning.acts import next_act
from spissus_core.pot import implied_mass_g

START = started("1.6 l", fat_ml="80 ml")


def test_a_start_fills_the_pot() -> None:
    pot = potted(START)
    assert pot is not None
    # 1.6 L hot is 1.54 L cold, of which 77 mL are fat.
    assert pot.contents.volume_ml == pytest.approx(1600 / 1.038, rel=1e-3)
    assert pot.contents.fat_ml == pytest.approx(80 / 1.038, rel=1e-3)
    assert pot.salt_percent.best == pytest.approx(0.6)
    assert pot.depth_mm == pytest.approx(PAN.depth_mm(1600), rel=1e-6)


def test_skimming_by_a_way_and_by_an_amount() -> None:
    before = potted(START)
    spooned = potted(START, ev.Skimmed(way="spoon"))
    poured = potted(START, ev.Skimmed(fat_ml="40 ml"))
    kept = potted(START, ev.Skimmed(fat_ml=0))
    assert spooned.contents.fat_free == pytest.approx(0.25 * before.contents.fat_free)
    assert spooned.contents.liquid_ml < before.contents.liquid_ml
    assert poured.contents.fat_ml == pytest.approx(before.contents.fat_ml - 40)
    assert kept.contents == before.contents


def test_readings_take_water_only() -> None:
    before, after = potted(START), potted(START, read("scale", "2500 g"))
    # Nobody said that it boils: so much less than there was is believed all the same.
    assert after.contents.mass_g == pytest.approx(2500 - 1450)
    assert after.contents.salt == before.contents.salt
    assert after.salt_percent.best > before.salt_percent.best


def test_a_gain_within_the_errors_is_weighed_in() -> None:
    timeline = told(START, read("jug", "1.62 l"))
    assert timeline.moments[-1].problem is None
    before, after = potted(START), potted(START, read("jug", "1.62 l"))
    # Two readings by the same jug: half-way between them, and better known than by either.
    assert after.contents.volume_ml - before.contents.volume_ml == pytest.approx(10 / 1.038, rel=0.05)
    assert after.error_ml == pytest.approx(before.error_ml / 2**0.5, rel=0.02)
    # What was tasted is a share of it, however much there is.
    assert after.contents.salt_percent == pytest.approx(before.contents.salt_percent, rel=1e-3)


def test_a_gain_beyond_the_error_asks() -> None:
    timeline = told(START, read("jug", "1.9 l"))
    problem = timeline.moments[-1].problem
    assert isinstance(problem, GainError)
    assert "Did you add something, did it boil less, or was it misread?" in in_words(problem.message)
    assert timeline.pot == potted(START)


def test_a_gain_can_be_answered() -> None:
    added = potted(START, read("jug", "1.9 l", gain="added"))
    misread = potted(START, read("jug", "1.9 l", gain="misread"))
    before = potted(START)
    assert added.contents.volume_ml == pytest.approx(1900 / 1.038, rel=1e-3)
    assert added.contents.salt == before.contents.salt
    assert misread == before


def test_more_than_there_should_be_may_have_boiled_less() -> None:
    pot = potted(START, read("jug", "1.9 l", gain="right"))
    assert pot.contents.volume_ml == pytest.approx(1900 / 1.038, rel=1e-3)
    assert pot.contents.salt == potted(START).contents.salt


def test_everything_that_goes_in_is_in() -> None:
    base = potted(START)
    full = potted(
        START,
        ev.Thickened(thickener="white_roux", dry_g="20 g"),
        ev.Thickened(thickener="corn_starch", dry_g=5),
        ev.Salted(salt_g=2.5),
        ev.Added(ingredient="red_wine", volume_ml="100 ml"),
        ev.Added(ingredient="butter", mass_g="30 g"),
    )
    c, b = full.contents, base.contents
    assert dict(c.starch) == {"wheat": 20.0, "corn": 5.0}
    assert c.ethanol == pytest.approx(100 * 0.13 * 0.789, rel=0.01)
    assert c.fat_emulsified == pytest.approx(20 + 30 * 0.8111, rel=1e-3)
    assert c.salt == pytest.approx(b.salt + 2.5, abs=0.05)


def test_striking_and_bringing_back() -> None:
    salt = event(2, ev.Salted(salt_g=3))
    strike = event(3, ev.Struck(event=salt.id))
    back = event(4, ev.Struck(event=strike.id))
    begin = event(1, START)
    plain = fold([begin]).pot
    assert fold([begin, salt, strike]).pot == plain
    assert fold([begin, salt, strike, back]).pot == fold([begin, salt]).pot != plain
    again = event(5, ev.Struck(event=back.id))
    assert fold([begin, salt, strike, back, again]).pot == plain


def test_a_corrected_start_is_what_everything_else_is_applied_to() -> None:
    entries = log(START, ev.Skimmed(way="separator"), ev.Salted(salt_g=2))
    corrected = fold([*entries, event(4, started("1.2 l", hot=False))]).pot
    fresh = fold([event(1, started("1.2 l", hot=False)), *entries[1:]]).pot
    assert corrected == fresh


def test_what_no_longer_fits_is_left_out_and_said() -> None:
    entries = log(started("3 l"), read("dip", "60 mm"))
    timeline = fold([*entries, event(3, started("1 l"))])
    late = next(m for m in timeline.moments if isinstance(m.event.payload, ev.Read))
    assert late.problem is not None
    assert timeline.pot is not None


STEPS = st.lists(
    st.sampled_from(
        [
            ev.Skimmed(way="spoon"),
            ev.Skimmed(fat_ml=20),
            read("scale", 2700),
            read("dip", 25),
            ev.Thickened(thickener="white_roux", dry_g=10),
            ev.Salted(salt_g=1),
            ev.Added(ingredient="water", volume_ml=50),
            wanted(800),
            ev.Chosen(route="all-volume-white_roux"),
            ev.Tested(of="body", verdict="low"),
            ev.Noted(text="smells right"),
        ]
    ),
    max_size=12,
)


@given(STEPS, st.randoms(use_true_random=False))
def test_the_order_in_which_events_arrive_does_not_matter(steps: list[ev.Kind], chance: random.Random) -> None:
    entries = log(START, *steps)
    shuffled = list(entries)
    chance.shuffle(shuffled)
    one, other = fold(shuffled), fold(entries)
    assert one.pot == other.pot
    assert [(m.event.id, m.pot, str(m.problem)) for m in one.moments] == [
        (m.event.id, m.pot, str(m.problem)) for m in other.moments
    ]


@given(STEPS)
def test_folding_never_fails_and_salt_is_only_added(steps: list[ev.Kind]) -> None:
    timeline = told(START, *steps)
    assert timeline.pot is not None
    assert len(timeline.moments) == 1 + len(steps)
    assert timeline.pot.contents.mass_g > 0


@pytest.mark.parametrize(
    ("payload", "complaint"),
    [
        ({"kind": "wanted", "body": 3}, "Say how much sauce"),
        ({"kind": "wanted", "volume_ml": 0}, "more than nothing"),
        ({"kind": "wanted", "volume_ml": 500, "portions": 4, "portion_ml": 60}, "not both"),
        ({"kind": "wanted", "volume_ml": 500, "salt_percent": 1.2, "ceiling_percent": 1}, "limit cannot be below"),
        ({"kind": "wanted", "volume_ml": 500, "salt_percent": 0, "ceiling_percent": 0}, "No sauce is that bland"),
        ({"kind": "wanted", "volume_ml": "9 furlongs"}, "not a unit"),
        ({"kind": "salted", "salt_g": -1}, "must lie between 0"),
        ({"kind": "salted", "salt_g": "1e9"}, "cannot be read as one number"),
        ({"kind": "added", "ingredient": "water"}, "by volume or by weight"),
        ({"kind": "noted", "text": ""}, "at least 1 character"),
        ({"kind": "sung"}, "does not match any of the expected tags"),
        ({"kind": "salted", "salt_g": 1, "pepper": 2}, "Extra inputs"),
        ({"kind": "struck", "event": "nobody"}, "valid UUID"),
    ],
)
def test_nonsense_is_refused_with_a_sentence(payload: dict[str, object], complaint: str) -> None:
    with refused(ValidationError, complaint):
        TypeAdapter(ev.door).validate_python(payload)


def test_two_fat_measurements_are_one_too_many() -> None:
    with refused(ValidationError, "not both"):
        started("1 l", fat_mm=3, fat_ml=30)


def test_a_payload_survives_being_stored() -> None:
    for payload in (START, wanted(700), read("dip", "2 1/8 in"), ev.Struck(event=uuid4())):
        assert ev.recorded(payload.model_dump(mode="json")) == payload


def test_unfitting_events_say_why() -> None:
    for payload, complaint in (
        (read("dip", 200), "does not fit"),
        (read("scale", 1300), "empty pan weighs"),
        (read("scale", 1460), "less than the meat"),
        (ev.Skimmed(fat_ml=700), "Only about"),
        (ev.Added(ingredient="water", volume_ml=6000), "would be in"),
        (ev.Added(ingredient="stardust", mass_g=1), "not in the catalogue"),
        (ev.Thickened(thickener="white_roux", dry_g=0), "how much thickener"),
    ):
        problem = told(START, payload).moments[-1].problem
        assert problem is not None, payload
        assert complaint in in_words(problem.message)


# -- drawing off, and what stays in the pan -------------------------------------------------------

SMALL = Pan.round("16 cm pan", 160, 90, empty_g=700)


def drawn(volume: str = "400 ml", pan: Pan = SMALL, **more: Any) -> ev.Drawn:
    return ev.Drawn.model_validate({"volume_ml": volume, "pan": pan, "burner": BURNER, **more})


def test_drawing_off_keeps_both_parts_consistent() -> None:
    whole = potted(START)
    part = potted(START, drawn("400 ml"))
    assert part.kept is not None
    assert part.pan.name == "16 cm pan"
    assert part.contents.liquid_ml == pytest.approx(400, rel=1e-3)
    assert (part.contents + part.kept).mass_g == pytest.approx(whole.contents.mass_g)
    assert part.salt_percent.best == pytest.approx(whole.salt_percent.best)
    assert part.contents.salt / part.contents.mass_g == pytest.approx(part.kept.salt / part.kept.mass_g)


def test_what_stayed_on_the_meat_can_come_back() -> None:
    whole = potted(START)
    back = potted(START, drawn("400 ml"), ev.Returned(volume_ml="200 ml"))
    assert back.contents.liquid_ml == pytest.approx(600, rel=1e-3)
    assert back.kept is not None
    assert (back.contents + back.kept).mass_g == pytest.approx(whole.contents.mass_g)
    roomy = drawn("400 ml", PAN)
    all_back = potted(START, roomy, ev.Returned())
    assert all_back.kept is None
    assert all_back.contents.mass_g == pytest.approx(whole.contents.mass_g)


def ladled(purpose: str, volume: str = "150 ml", **more: Any) -> ev.Parted:
    return ev.Parted.model_validate({"purpose": purpose, "volume_ml": volume, **more})


@pytest.mark.parametrize("how", [None, "under", "ladle", "top", "poured"])
@pytest.mark.parametrize("purpose", ["plate", "aside"])
def test_a_ladle_leaves_the_pot_and_the_rest_goes_on(purpose: str, how: str | None) -> None:
    whole, rest = potted(START), potted(START, ladled(purpose, how=how))
    assert rest.pan == whole.pan
    assert (rest.kept is None) == (purpose == "plate")
    if rest.kept is not None:
        assert (rest.contents + rest.kept).mass_g == pytest.approx(whole.contents.mass_g)
    # An older page told cold liquid, with the fat in proportion; a jug shows all of it, hot.
    gone = whole.contents.liquid_ml - rest.contents.liquid_ml
    fat_gone = whole.contents.fat_ml - rest.contents.fat_ml
    assert gone + (fat_gone if how else 0.0) == pytest.approx(150 / 1.038 if how else 150.0, rel=1e-3)
    assert rest.salt_percent.best == pytest.approx(whole.salt_percent.best, rel=0.02)
    assert (rest.contents.fat_free == whole.contents.fat_free) == (how == "under")


@pytest.mark.parametrize(
    ("wish", "rest_for"),
    [
        ({"people": 8}, 7),
        ({"portions": 8, "portion_ml": "90 ml"}, 7),
        ({"volume_ml": "900 ml"}, 7),
        ({"share": 0.5}, 6),
    ],
)
def test_what_goes_on_is_for_as_many_as_was_said(wish: dict[str, Any], rest_for: int) -> None:
    asked = ev.Wanted.model_validate({**wish, "over": "mash"})
    timeline = told(START, asked, ladled("plate", people=rest_for))
    assert timeline.asked.wanted is not None
    assert (timeline.asked.wanted.people, timeline.asked.wanted.told_by) == (rest_for, "people")
    assert timeline.asked.wanted.amount_ml == ev.Wanted(people=rest_for, over="mash").amount_ml
    assert timeline.asked.wanted.salt_percent == asked.salt_percent
    # Nobody said for how many: as much is wanted as before.
    same = told(START, asked, ladled("plate")).asked.wanted
    assert same is not None
    assert same.amount_ml == told(START, asked).asked.wanted.amount_ml  # type: ignore[union-attr]


def test_a_wish_far_out_of_reach_of_what_is_left_is_asked_anew() -> None:
    """A ladle off a pot for eight is no sauce for eight: it keeps no wish that no way leads to."""
    eight = (START, ev.Wanted(people=8), ev.Chosen(route="all-volume-corn_starch_own"))
    plate = told(*eight, drawn("150 ml"))
    assert (plate.asked.wanted, plate.asked.way) == (None, None)
    assert next_act(plate).kind == "want"
    for_one = told(
        *eight, ev.Drawn.model_validate({"volume_ml": "150 ml", "pan": SMALL, "burner": BURNER, "people": 1})
    )
    assert for_one.asked.wanted is not None
    assert for_one.asked.wanted.people == 1
    # What reaches is kept.
    assert told(*eight, drawn("900 ml")).asked.wanted == told(*eight).asked.wanted


@pytest.mark.parametrize(
    ("happened", "complaint"),
    [
        ([ladled("plate", "1.6 l", how="poured")], "Take a part of it"),
        ([ladled("aside", "5 l")], "Take a part of it"),
        ([drawn("5 l")], "Draw off some of it"),
        ([drawn("1.4 l", Pan.round("cup", 80, 60))], "more than “cup” holds"),
        ([ev.Returned()], "No liquid is left on the meat"),
        ([drawn("400 ml"), ev.Returned(volume_ml="3 l")], "Only 1 065 mL"),
        ([ev.Solids(mass_g="9 kg")], "does not fit into"),
    ],
)
def test_what_cannot_be_drawn_or_fitted_is_said(happened: list[ev.Kind], complaint: str) -> None:
    problem = told(START, *happened).moments[-1].problem
    assert problem is not None
    assert complaint in in_words(problem.message)


def test_meat_in_the_pan_stands_in_depth_and_weight_but_is_no_liquid() -> None:
    without, with_meat = potted(START), potted(START, ev.Solids(mass_g="800 g"))
    assert with_meat.contents.liquid_ml == without.contents.liquid_ml
    assert with_meat.depth_mm > without.depth_mm + 10
    assert without.gross_g is not None
    assert with_meat.gross_g == pytest.approx(without.gross_g + 800)
    out_again = potted(START, ev.Solids(mass_g="800 g"), ev.Solids(mass_g=0))
    assert out_again == without


def test_half_means_half_of_the_liquid_with_meat_in_the_pan() -> None:
    before = potted(START, ev.Solids(mass_g="800 g"))
    half_g = before.contents.mass_g - before.contents.liquid_g / 2 + 800 + 1450
    after = potted(START, ev.Solids(mass_g="800 g"), read("scale", half_g))
    assert after.contents.liquid_g == pytest.approx(before.contents.liquid_g / 2, rel=0.02)


def test_meat_in_the_pan_takes_up_salt_while_the_liquid_boils_down() -> None:
    bare = potted(START, read("scale", "2200 g"))
    with_meat = potted(START, ev.Solids(mass_g="800 g"), read("scale", "3000 g"))
    assert with_meat.contents.liquid_ml == pytest.approx(bare.contents.liquid_ml, rel=0.01)
    assert with_meat.salt_percent.best < bare.salt_percent.best
    assert with_meat.solids is not None
    before = potted(START, ev.Solids(mass_g="800 g"))
    assert before.solids is not None
    total = [pot.contents.salt + pot.solids.salt_g for pot in (before, with_meat) if pot.solids]
    assert total[0] == pytest.approx(total[1])


def test_resting_juices_thin_and_salt_the_sauce() -> None:
    before = potted(START)
    after = potted(START, ev.Added.model_validate({"ingredient": "resting_juices", "amount": "80 ml"}))
    assert after.contents.liquid_ml == pytest.approx(before.contents.liquid_ml + 80, rel=0.01)
    assert after.contents.salt > before.contents.salt


def test_a_kitchens_own_ingredient_is_kept_whole_in_the_event() -> None:
    own = OwnIngredient(name="brine", like="water", label=Label(salt_g=20, serving="100 g")).ingredient("own-1")
    added = ev.Added(ingredient="own-1", own=own, mass_g=50)
    assert potted(START, added).contents.salt - potted(START).contents.salt == pytest.approx(50 * 0.2034, rel=0.01)
    assert ev.recorded(added.model_dump(mode="json")) == added


@pytest.mark.parametrize("solids", [0, 300])
@pytest.mark.parametrize("method", ["dip", "jug", "scale"])
def test_the_table_of_a_pot_says_what_a_reading_would_say(method: str, solids: float) -> None:
    before = (START, ev.Solids(mass_g=solids)) if solids else (START,)
    pot = potted(*before)
    for liquid_ml, reads in pot.table()[4:-2:5]:
        figure = getattr(reads, method)
        assert potted(*before, read(method, figure)).contents.liquid_ml == pytest.approx(liquid_ml, rel=2e-3)


# -- two pans, and what stands in them ---------------------------------------------------------------


def test_a_dip_of_one_of_two_pans_tells_of_both() -> None:
    two = (START, ev.Split(volume_ml=600, pan=SMALL, burner=BURNER))
    pot = potted(*two)
    assert pot.beside is not None
    assert pot.share == pytest.approx(1.0 - 600 / potted(START).contents.liquid_ml)
    # What stands in the first pan is what the skewer shows there; a millimetre of it is more of both together.
    assert pot.depth_mm == pytest.approx(PAN.depth_mm(pot.contents.volume_ml * pot.share * HOT_EXPANSION))
    lower = Measured(method="dip", value=pot.depth_mm - 4.0, hot=True)
    lost_ml = PAN.area_mm2(0.0) * 4.0 / 1000.0 / HOT_EXPANSION / pot.share
    lost_g = pot.contents.mass_g - implied_mass_g(pot, lower)
    assert lost_g == pytest.approx(lost_ml / SPECIFIC_VOLUME_ML_G["water"], rel=1e-3)
    assert pot.known_to_ml("dip") == pytest.approx(PAN.area_mm2(0.0) * 1.5 / 1000.0 / pot.share, rel=1e-3)


def test_solids_take_their_own_room_in_depth_and_in_weight() -> None:
    without, with_meat = potted(START), potted(START, ev.Solids(mass_g=840))
    room_ml = 840 / 1.05
    stands_ml = without.contents.volume_ml * HOT_EXPANSION
    assert with_meat.depth_mm == pytest.approx(PAN.depth_mm(stands_ml + room_ml))
    assert with_meat.gross_g == pytest.approx((without.gross_g or 0.0) + 840)
    # And it comes off a reading again.
    read_back = implied_mass_g(with_meat, Measured(method="dip", value=with_meat.depth_mm, hot=True))
    assert read_back == pytest.approx(with_meat.contents.mass_g, rel=1e-6)

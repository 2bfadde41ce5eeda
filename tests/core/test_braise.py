"""From what went into a braise to what is in its strained liquid."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import PAN, in_words, listed, refused, started
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.amounts.quantities import parse
from spissus_core.errors import QuantityError
from spissus_core.intake.braise import Braise, Line
from spissus_core.intake.estimated import Estimated, estimate
from spissus_core.intake.liquid import StrainedLiquid, strained_liquid
from spissus_core.intake.terms import brings, reduced_note
from spissus_core.measuring.measurement import JUG_ERROR_SHARE
from spissus_core.measuring.vessels import Pan
from spissus_core.pantry.ingredients import ingredient
from spissus_core.phenomena.seasoning import SaltByList, starting_salt_percent

POT = Pan.round("28 cm pot", 280, 160, empty_g=2200)
CHEEK = """
1.2 kg pork cheek
12 g salt on the meat
2 onions
1 bottle dry cider (750 ml), reduced by half
1 l chicken stock
"""


def estimated(text: str, liquid_ml: float | None = None, **cooked: Any) -> Estimated:
    return estimate(listed(text, **cooked), POT, liquid_ml)


def best(text: str, name: str, **cooked: Any) -> float:
    return float(getattr(estimated(text, **cooked).contents, name))


# -- the balance --------------------------------------------------------------------------------


@pytest.mark.parametrize("strain", ["fine", "pressed", "colander", "milled", "not_strained"])
def test_salt_is_conserved_between_liquid_and_solids(strain: str) -> None:
    """What is in the liquid and what stays in the meat and the sieve add up to what went in."""
    whole = estimated(CHEEK, strain=strain)
    went_in = sum(line.what.portion(line.grams).salt for line in listed(CHEEK).lines)
    assert 0.5 * went_in < whole.contents.salt < went_in


def test_the_liquids_share_is_its_share_of_the_water() -> None:
    """Salt shares itself by W_liq / (W_liq + E·W_meat), E about a half for large pieces (modelling choice)."""
    found = estimated("1 l water\n10 g salt\n1 kg beef shin", strain="not_strained", hours=0, level="submerged")
    water = found.contents.water
    meat_water, exchange = 1000 * 0.65 * 0.57, 0.5
    salt = 10 * ingredient("salt_table").salt / 100 + 1000 * ingredient("beef_shin").salt / 100
    salt += 1000 * ingredient("water").salt / 100
    assert found.contents.salt == pytest.approx(salt * water / (water + exchange * meat_water), rel=0.01)


def test_a_night_in_the_liquid_and_small_pieces_take_up_more_salt() -> None:
    large = best(CHEEK, "salt")
    assert best(CHEEK, "salt", pieces="small") < large
    assert best(CHEEK, "salt", overnight=True) < large
    assert best(CHEEK, "salt", level="half_way") > large


def test_salt_rubbed_on_the_meat_comes_out_by_the_same_law() -> None:
    rubbed = best("1 kg beef shin\n1 l water\n10 g salt on the meat", "salt")
    stirred = best("1 kg beef shin\n1 l water\n10 g salt", "salt")
    assert rubbed == pytest.approx(stirred)
    # Where the browning fat is thrown away some of what was rubbed on goes with it.
    fried = best("1 kg beef shin\n1 l water\n10 g salt on the meat\n2 tbsp olive oil for frying, poured off", "salt")
    assert 0.9 * rubbed < fried < rubbed


def test_meat_gives_fat_and_gelatin_by_its_cut() -> None:
    shin, belly = estimated("1 kg beef shin\n1 l water"), estimated("1 kg pork belly\n1 l water")
    # Raw and braised rows by protein balance: boned shin 0.5 to 2 % fat, belly 15 to 25; 1.5 to 2 % gelatin of shin.
    assert 5 <= shin.ranges["fat_free"].best <= 20
    assert 15 <= shin.ranges["gelatin"].best <= 20
    assert 150 <= belly.ranges["fat_free"].best <= 250
    trimmed = estimated("1 kg pork belly\n1 l water", trimmed=True)
    assert trimmed.ranges["fat_free"].best < 0.6 * belly.ranges["fat_free"].best


def test_an_open_pot_loses_more_than_a_covered_one() -> None:
    volumes = [estimated(CHEEK, cover=cover).liquid_ml.best for cover in ("tight", "ajar", "open")]
    assert volumes == sorted(volumes, reverse=True)
    assert volumes[0] - volumes[2] > 200


def test_the_mill_turns_vegetables_into_body() -> None:
    text = "500 g tomatoes\n3 carrots\n1 l water"
    assert best(text, "pulp", strain="milled") > 3 * best(text, "pulp", strain="fine")


def test_pressing_yields_more() -> None:
    assert estimated(CHEEK, strain="pressed").liquid_ml.best > estimated(CHEEK, strain="fine").liquid_ml.best


def test_dredged_flour_mostly_stays_behind() -> None:
    dredged = estimated("1 l water\n30 g flour for dredging").contents.starch_g
    stirred = estimated("1 l water\n30 g flour").contents.starch_g
    # About a third reaches the liquid (modelling choice).
    assert dredged / stirred == pytest.approx(0.25, abs=0.01)


def test_what_is_dry_drinks() -> None:
    without, with_barley = (estimated(t).liquid_ml.best for t in ("1 l water", "1 l water\n100 g pearl barley"))
    assert 80 < without - with_barley < 250


def test_ranges_hold_their_best_value_and_are_wider_for_a_guessed_amount() -> None:
    found = estimated(CHEEK)
    for name, span in found.ranges.items():
        assert span.low <= span.best <= span.high, name
    wine = estimated("375 ml red wine").liquid_ml
    assert wine.low < wine.best < wine.high < 380
    sure, guessed = estimated("1 l chicken broth"), estimated("about 1 l chicken broth")
    width = [e.ranges["salt"].high - e.ranges["salt"].low for e in (sure, guessed)]
    assert width[1] > width[0]


@settings(max_examples=40, deadline=None)
@given(st.floats(0.3, 3.0), st.floats(0.0, 30.0), st.floats(0.5, 4.0))
def test_more_salt_in_is_more_salt_out(stock_l: float, salt_g: float, hours: float) -> None:
    less = best(f"{stock_l:.2f} l chicken stock\n1 kg beef shin", "salt", hours=hours)
    more = best(f"{stock_l:.2f} l chicken stock\n1 kg beef shin\n{salt_g + 1:.1f} g salt", "salt", hours=hours)
    assert more > less


def test_no_liquid_is_said_so() -> None:
    with refused(QuantityError, "no liquid is left"):
        estimated("500 g flour\n10 g salt")
    with refused(QuantityError, "Nothing counts yet"):
        estimate(Braise(lines=(Line(text="blorple"),)), POT)


def test_tray_juices_start_from_a_roast_without_liquid() -> None:
    found = estimated("1.5 kg pork belly", cover="open", heat="oven", oven_c=160, hours=0.2)
    assert found.contents.fat_free > 150
    assert found.contents.liquid_ml > 100


# -- alcohol ------------------------------------------------------------------------------------


def test_under_a_lid_the_table_says_what_alcohol_is_left() -> None:
    found = estimated("1 bottle red wine\n1 kg beef shin", hours=2)
    wine = 750 * ingredient("red_wine").density_g_ml * ingredient("red_wine").ethanol / 100
    assert found.alcohol.rule == "table"
    assert found.alcohol.grams.best == pytest.approx(0.10 * wine, rel=0.01)
    assert "lid" in in_words(found.alcohol.why)


def test_in_an_open_pot_that_was_measured_rayleigh_does() -> None:
    found = estimated("1 bottle red wine\n1 l water", 900.0, cover="open", hours=1)
    assert found.alcohol.rule == "vapour"
    assert found.alcohol.grams.best < 2.0


def test_in_an_open_pot_that_was_not_measured_the_table_does() -> None:
    found = estimated("1 bottle red wine\n1 l water", cover="open", hours=1)
    assert found.alcohol.rule == "table"
    assert "Nobody measured" in in_words(found.alcohol.why)


def test_wine_boiled_down_first_has_lost_nearly_all() -> None:
    found = estimated("1 bottle red wine, reduced by half\n1 kg beef shin")
    assert found.alcohol.rule == "vapour"
    assert found.alcohol.grams.high < 3.0
    line = listed("1 bottle red wine, reduced by half").lines[0]
    note = reduced_note(line)
    assert note is not None
    assert "375 mL left of 750 mL" in in_words(note)
    assert reduced_note(listed("1 bottle red wine").lines[0]) is None


def test_flamed_and_late_keep_most_of_it() -> None:
    """USDA retention factors: flamed 75 %, added to boiling liquid and taken off the heat 85 %."""
    brandy = ingredient("brandy")
    spirit = 100 * brandy.density_g_ml * brandy.ethanol / 100
    late = estimated("1 l water\n100 ml brandy, at the end")
    assert late.alcohol.grams.best == pytest.approx(0.85 * spirit, rel=0.01)
    flamed = estimated("1 l water\n100 ml brandy, set alight", hours=0)
    # And the table again for what went into boiling liquid.
    assert flamed.alcohol.grams.best == pytest.approx(0.75 * 0.85 * spirit, rel=0.01)


def test_wine_acid_stays_and_vinegar_acid_half_stays() -> None:
    wine = listed("1 bottle red wine, reduced by half").lines[0]
    assert "acid" in dict(brings(wine))
    whole, halved = (best(f"1 l water\n100 ml white vinegar{how}", "acetic") for how in ("", ", reduced by half"))
    assert halved / whole == pytest.approx(0.6, abs=0.06)


# -- pinned by what was measured --------------------------------------------------------------


def known(text: str = CHEEK, **more: Any) -> StrainedLiquid:
    given = {"salt": {"by": "list"}, "braise": listed(text)} | more
    return StrainedLiquid.model_validate(given)


def test_the_list_alone_makes_a_ledger() -> None:
    found = strained_liquid(POT, known())
    assert found.measured_by == "list"
    assert found.estimated is not None
    assert found.contents.liquid_ml == pytest.approx(found.estimated.liquid_ml.best, rel=0.01)
    assert found.salt_g.low < found.contents.salt < found.salt_g.high


def test_a_measured_volume_pins_the_volume_and_keeps_the_solids() -> None:
    listed_only = strained_liquid(POT, known())
    pinned = strained_liquid(POT, known(measured={"method": "jug", "value": "1.3 l", "hot": False}, fat_ml="60 ml"))
    assert pinned.contents.volume_ml == pytest.approx(1300, rel=1e-3)
    assert pinned.contents.fat_ml == pytest.approx(60, rel=1e-3)
    assert pinned.contents.gelatin == pytest.approx(listed_only.contents.gelatin, rel=0.05)


def test_a_salt_meter_narrows_the_salt() -> None:
    measured = {"method": "jug", "value": "1.5 l", "hot": False}
    by_list = strained_liquid(POT, known(measured=measured))
    percent = by_list.contents.salt_percent
    both = strained_liquid(POT, known(measured=measured, salt={"by": "meter", "percent": percent}))
    assert both.doubt is None
    assert both.salt_g.high - both.salt_g.low < by_list.salt_g.high - by_list.salt_g.low


@pytest.mark.parametrize(
    ("salt", "believed", "because"),
    [
        ({"by": "meter", "percent": 1.6}, "stated", "something is missing from the list"),
        ({"by": "meter", "percent": 0.2}, "stated", "is not in the pot"),
        # Lists forget things, tongues tire.
        ({"by": "taste", "verdict": "too_salty"}, "stated", "something is missing from the list"),
        ({"by": "taste", "verdict": "flat"}, "both", "Taste again"),
        ({"by": "stock", "stock": "unsalted"}, "both", "Taste again"),
    ],
)
def test_who_is_believed_where_list_and_tongue_or_meter_contradict(
    salt: dict[str, Any], believed: str, because: str
) -> None:
    measured = {"method": "jug", "value": "1.5 l", "hot": False}
    by_list = strained_liquid(POT, known(measured=measured))
    found = strained_liquid(POT, known(measured=measured, salt=salt))
    assert found.doubt is not None
    assert because in in_words(found.doubt)
    stated = StrainedLiquid.model_validate({"salt": salt, "measured": measured}).salt
    assert not isinstance(stated, SaltByList)
    assert by_list.estimated is not None
    told, listed = starting_salt_percent(stated), by_list.estimated.percent["salt"]
    if believed == "stated":
        assert found.contents.salt_percent == pytest.approx(told.best, rel=0.01)
        return
    # Each by the inverse of its variance (JCGM 100), and known no better than the two lie apart.
    mine, theirs = ((e.high - e.low) ** -2.0 for e in (listed, told))
    assert found.contents.salt_percent == pytest.approx(
        (mine * listed.best + theirs * told.best) / (mine + theirs), rel=0.02
    )
    spread = 100.0 * (found.salt_g.high - found.salt_g.low) / found.contents.liquid_g
    assert spread > 0.9 * (mine + theirs) ** -0.5


def test_a_list_whose_salt_was_told_in_pinches_does_not_overrule_the_tongue() -> None:
    measured = {"method": "jug", "value": "1.5 l", "hot": False}
    taste = {"by": "taste", "verdict": "flat"}
    flat = starting_salt_percent(StrainedLiquid.model_validate({"salt": taste, "measured": measured}).salt).best  # type: ignore[arg-type]

    def found(salt: str) -> float:
        braise = listed(f"1.2 kg pork cheek\n{salt}\n1.5 l water")
        return strained_liquid(POT, known(measured=measured, salt=taste, braise=braise)).contents.salt_percent

    weighed, by_eye = found("14 g salt"), found("14 g salt".replace("14 g", "28 pinches of"))
    assert abs(by_eye - flat) < 0.6 * abs(weighed - flat)


@pytest.mark.parametrize(
    ("more", "said"),
    [("90 g salt", "90 g salt"), ("500 g gelatin", "500 g gelatin")],
)
def test_what_no_pot_can_hold_names_the_line_that_makes_it_so(more: str, said: str) -> None:
    found = strained_liquid(POT, known(braise=listed(f"1 kg beef shin\n1.5 l water\n{more}")))
    assert found.doubt is not None
    assert said in in_words(found.doubt)


def test_a_pot_that_was_measured_is_believed_though_its_list_foresees_nothing_left() -> None:
    braise = listed("500 g dry white beans\n300 ml water", cover="open", heat="stove", hours=5)
    with pytest.raises(QuantityError):
        strained_liquid(POT, known(braise=braise))
    found = strained_liquid(POT, known(braise=braise, measured={"method": "jug", "value": "600 ml", "hot": False}))
    assert found.contents.liquid_ml == pytest.approx(600.0, rel=0.02)
    assert found.doubt is not None
    assert "measurement is believed" in in_words(found.doubt)


def test_butter_that_was_fried_in_floats_like_any_other_fat() -> None:
    def fat(line: str) -> float:
        return strained_liquid(POT, known(braise=listed(f"1 l water\n500 g carrots\n{line}"))).contents.fat_free

    assert fat("50 g butter for frying") == pytest.approx(0.8111 * 50, rel=0.01)
    assert fat("50 g butter for frying, poured off") == pytest.approx(0.15 * 0.8111 * 50, rel=0.01)
    assert fat("50 g butter") == 0.0


def test_a_pot_that_holds_more_than_went_in_is_asked_about() -> None:
    more = strained_liquid(POT, known(measured={"method": "jug", "value": "3 l"}))
    assert more.doubt is not None
    assert "missing from the list" in in_words(more.doubt)
    less = strained_liquid(POT, known(measured={"method": "jug", "value": "600 ml"}, fat_ml=0))
    assert less.doubt is not None
    assert "boiled away" in in_words(less.doubt)


@pytest.mark.parametrize(("past", "doubted"), [(0.9, False), (1.1, True)])
@pytest.mark.parametrize("end", ["high", "low"])
def test_what_a_jug_cannot_tell_is_no_contradiction(end: str, past: float, doubted: bool) -> None:
    by_list = strained_liquid(POT, known()).estimated
    assert by_list is not None
    room = 2.0 * JUG_ERROR_SHARE * past
    ml = by_list.liquid_ml.high / (1.0 - room) if end == "high" else by_list.liquid_ml.low / (1.0 + room)
    found = strained_liquid(POT, known(measured={"method": "jug", "value": ml, "hot": False}, fat_ml=0))
    assert (found.doubt is not None) == doubted


def test_without_a_list_something_must_be_measured_and_tasted() -> None:
    with refused(ValidationError, "Say how much there is"):
        StrainedLiquid.model_validate({"salt": {"by": "taste", "verdict": "flat"}})
    with refused(ValidationError, "Say how salty"):
        StrainedLiquid.model_validate({"salt": {"by": "list"}, "measured": {"method": "jug", "value": "1 l"}})
    empty = StrainedLiquid.model_validate({"salt": {"by": "list"}, "braise": {"lines": []}})
    with refused(QuantityError, "Nothing counts yet"):
        strained_liquid(PAN, empty)


def test_a_line_that_cannot_be_weighed_is_refused() -> None:
    with refused(ValidationError, "weighed, not poured"):
        Line(text="600 ml pork cheek", ingredient="pork_cheek", volume_ml=600)
    with refused(ValidationError, "not in the catalogue"):
        Line(text="ambrosia", ingredient="ambrosia", mass_g=10)


def test_every_figure_explains_itself() -> None:
    found = estimated(CHEEK)
    told = {
        name: " ".join(f"{in_words(r.what)}: {in_words(r.how)}" for r in terms) for name, terms in found.terms.items()
    }
    assert set(told) == {"liquid", "salt", "gelatin", "fat", "sugar", "acid", "alcohol"}
    assert "Table salt: 12 g: 11.8 g salt" in told["salt"]
    assert "the liquid’s share" in told["salt"]
    assert "1 200 g raw × 1.75 % = 21.0 g" in told["gelatin"]
    assert "Held back" in told["liquid"]


def test_what_a_line_brings_in_short() -> None:
    lines = {line.text: ", ".join(in_words(said) for _, said in brings(line)) for line in listed(CHEEK).lines}
    assert lines["12 g salt on the meat"] == "12 g salt"
    assert lines["1.2 kg pork cheek"].startswith("gives 18 to 72 g fat, 18 to 26 g gelatin")
    assert brings(Line(text="blorple")) == ()


def test_allergens_and_the_set_point_come_from_the_list() -> None:
    found = estimated("1 kg beef shin\n2 sticks celery\n1 bottle red wine\n2 tbsp flour")
    assert set(found.allergens) == {"celery", "gluten", "sulphites"}
    assert found.lifts_below_c == 30
    assert not found.stays_soft
    assert estimated("4 duck legs\n1 l water").stays_soft


@pytest.mark.parametrize(
    ("line", "fat"), [("1.2 kg squid", "gives 12 to 17 g fat"), ("1.2 kg veal cheek", "gives 18 to 60 g fat")]
)
def test_a_cut_is_said_to_give_no_more_fat_than_it_holds(line: str, fat: str) -> None:
    (one,) = listed(line).lines
    assert in_words(dict(brings(one))["fat"]) == fat


# -- fat where it was seen -------------------------------------------------------------------------


@pytest.mark.parametrize(("value", "fat_ml"), [("480 ml", 64.0), ("700 ml", 95.0), ("1.9 l", 133.0)])
def test_a_layer_is_as_wide_as_the_jug_in_which_it_was_seen(value: str, fat_ml: float) -> None:
    start = started(value, fat_mm="1 cm", hot=False)
    assert start.liquid.fat_in == "jug"
    pot = start.begin()
    assert pot.contents.fat_ml == pytest.approx(fat_ml, rel=0.03)
    assert pot.contents.volume_ml == pytest.approx(parse(value, "volume"), rel=0.001)
    # Nobody knows how wide the jug is: what is left under the layer is known the worse.
    assert pot.error_ml == pytest.approx(
        math.hypot(0.025 * pot.contents.volume_ml, 0.2 * pot.contents.fat_ml), rel=0.01
    )


def test_a_layer_in_the_pan_is_as_wide_as_the_pan() -> None:
    pot = started("2 l", fat_mm="5 mm", fat_in="pan", hot=False).begin()
    assert pot.contents.fat_ml == pytest.approx(math.pi / 4 * 24.0**2 * 0.5, rel=0.02)
    # A dip was taken in the pan, and so was what an eye saw.
    for method, value in (("dip", "44 mm"), ("eye", "2 l")):
        assert started(value, method, fat_mm="5 mm").liquid.fat_in is None


def test_where_it_cannot_be_known_it_is_asked() -> None:
    with refused(ValidationError, "in the pan"):
        started("3 l", fat_mm="1 cm")
    with refused(ValidationError, "in the pan"):
        started("3 l", fat_mm="1 cm", fat_in="jug")
    assert started("3 l", fat_mm="1 cm", fat_in="pan").begin().contents.fat_ml > 400


def test_more_than_a_quarter_of_fat_is_asked_about() -> None:
    much = strained_liquid(PAN, started("1 l", fat_mm="1 cm", fat_in="pan").liquid)
    assert much.doubt is not None
    assert "Where was that layer seen" in in_words(much.doubt)
    assert strained_liquid(PAN, started("1 l", fat_mm="1 cm").liquid).doubt is None


def test_what_was_recorded_of_a_layer_is_read_back_as_it_was_meant() -> None:
    kept = started("1 l", fat_mm="1 cm").model_dump(mode="json")
    del kept["liquid"]["fat_in"]
    back = ev.recorded(kept, 2)
    assert isinstance(back, ev.Started)
    assert back.begin().contents.fat_ml > 400

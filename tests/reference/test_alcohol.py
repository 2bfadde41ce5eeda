"""Alcohol during open boiling: Rayleigh's equation on the Carey and Lewis equilibrium, against CoolProp.

CoolProp's mixture of ethanol and water (HEOS, multi-fluid Helmholtz energies) agrees with the tabled
points within 1 % of the vapour's mole fraction, but for the most dilute, where it is 4.8 % richer: a
measured point against a fitted model at the edge of its data. Below it the table's volatility is held,
which keeps a little more alcohol in the pot than the model would: the cautious side.
"""

from __future__ import annotations

import numpy as np
import pytest
from CoolProp import CoolProp
from makers import in_words
from scipy.integrate import solve_ivp
from spissus_core.phenomena.alcohol import (
    EQUILIBRIUM,
    MOLAR_MASS_ETHANOL,
    MOLAR_MASS_WATER,
    RETENTION,
    UPPER_BOUND,
    acetic_left,
    ethanol_left,
    left_by_table,
    left_by_vapour,
    relative_volatility,
    retained,
    strength_percent,
)

#: A litre of wine at 13 % by volume, g.
ETHANOL, WATER = 130 * 0.789, 880.0


@pytest.mark.parametrize(("x", "y"), EQUILIBRIUM)
def test_the_curve_goes_through_the_tabled_points(x: float, y: float) -> None:
    alpha = relative_volatility(x)
    assert alpha * x / (1 + (alpha - 1) * x) == pytest.approx(y, rel=1e-9)


@pytest.mark.parametrize("share", [0.95, 0.9, 0.75, 0.6])
def test_against_an_adaptive_integrator(share: float) -> None:
    def slope(_log_water: float, log_ethanol: np.ndarray) -> np.ndarray:
        ethanol, water = np.exp(log_ethanol[0]), np.exp(_log_water)
        return np.array([relative_volatility(ethanol / (ethanol + water))])

    n_w, n_e = WATER / MOLAR_MASS_WATER, ETHANOL / MOLAR_MASS_ETHANOL
    span = (np.log(n_w), np.log(n_w * share))
    solved = solve_ivp(slope, span, [np.log(n_e)], rtol=1e-9, atol=1e-12, max_step=0.002)
    reference = np.exp(solved.y[0, -1]) * MOLAR_MASS_ETHANOL
    assert ethanol_left(ETHANOL, WATER, WATER * share) == pytest.approx(reference, rel=5e-3)


def test_bounds() -> None:
    assert ethanol_left(0.0, 100.0, 50.0) == 0.0
    assert ethanol_left(10.0, 100.0, 100.0) == 10.0
    assert ethanol_left(10.0, 100.0, 0.0) == 0.0


def coolprop_vapour(x: float) -> float:
    """Mole fraction of ethanol in the vapour over a boiling mixture at 1 atm."""
    state = CoolProp.AbstractState("HEOS", "Ethanol&Water")
    state.set_mole_fractions([x, 1.0 - x])
    state.update(CoolProp.PQ_INPUTS, 101_325, 0)
    return float(state.mole_fractions_vapor()[0])


@pytest.mark.parametrize(("x", "y"), EQUILIBRIUM)
def test_the_tabled_points_against_coolprop(x: float, y: float) -> None:
    assert y == pytest.approx(coolprop_vapour(x), rel=0.05 if x < 0.02 else 0.01)


#: A 13 % wine that has lost a tenth, a quarter and half of its volume keeps about this much of its alcohol
#: (figures of the trade, by the same equation).
@pytest.mark.parametrize(("volume_left", "usual"), [(0.90, 0.57), (0.75, 0.15), (0.50, 0.01)])
def test_alcohol_left_against_coolprop_integrated_on_its_own(volume_left: float, usual: float) -> None:
    n_w, n_e = WATER / MOLAR_MASS_WATER, ETHANOL / MOLAR_MASS_ETHANOL
    grid = np.array([1e-5, 1e-3, 0.004, 0.008, 0.012, 0.016, 0.02, 0.03, 0.04, 0.05, 0.06])
    vapour = np.array([coolprop_vapour(x) for x in grid])
    alpha = (vapour / (1 - vapour)) / (grid / (1 - grid))

    def slope(log_water: float, log_ethanol: np.ndarray) -> np.ndarray:
        ethanol, water = np.exp(log_ethanol[0]), np.exp(log_water)
        return np.array([np.interp(ethanol / (ethanol + water), grid, alpha)])

    def volume(water_g: float, ethanol_g: float) -> float:
        return water_g * 1.0018 + ethanol_g * 1.17

    whole = volume(WATER, ETHANOL)
    solved = solve_ivp(slope, (np.log(n_w), np.log(n_w * 0.3)), [np.log(n_e)], rtol=1e-8, dense_output=True)
    shares = np.linspace(0.999, 0.31, 600)
    ethanol = np.exp([solved.sol(np.log(n_w * share))[0] for share in shares]) * MOLAR_MASS_ETHANOL
    volumes = np.array([volume(WATER * s, e) for s, e in zip(shares, ethanol, strict=True)]) / whole
    water_share = float(np.interp(-volume_left, -volumes, shares))
    theirs = float(np.interp(-volume_left, -volumes, ethanol)) / ETHANOL
    mine = ethanol_left(ETHANOL, WATER, WATER * water_share) / ETHANOL
    # Within 3 % of what went in, and never less than the library leaves.
    assert theirs - 0.005 <= mine <= theirs + 0.03
    assert mine == pytest.approx(usual, abs=0.03)


def test_the_upper_bound_at_half() -> None:
    # About 2 % at half the volume (figure of the trade).
    assert ethanol_left(ETHANOL, WATER, 0.54 * WATER, volatility=UPPER_BOUND) / ETHANOL == pytest.approx(
        0.02, abs=0.015
    )


@pytest.mark.parametrize(
    ("minutes", "share"), [(15, 0.40), (30, 0.35), (60, 0.25), (90, 0.20), (120, 0.10), (150, 0.05)]
)
def test_the_retention_table(minutes: float, share: float) -> None:
    """USDA Table of Nutrient Retention Factors, Release 6 (2007): alcohol stirred in and simmered."""
    assert (minutes, share) in RETENTION
    assert retained(minutes).best == pytest.approx(share)


def test_between_and_beyond_the_tables_rows() -> None:
    assert 0.25 < retained(45).best < 0.35
    assert retained(600).best == pytest.approx(0.05)
    assert retained(0).best == pytest.approx(0.85)


def test_vinegar_halved_keeps_three_fifths_of_its_acid() -> None:
    # Relative volatility of dilute acetic acid 0.65 to 0.70 (modelling choice): about 60 % (figure of the trade).
    assert acetic_left(5.0, 95.0, 47.5) / 5.0 == pytest.approx(0.60, abs=0.04)
    assert acetic_left(5.0, 95.0, 95.0) == 5.0


def test_what_is_left_says_by_which_rule_and_why() -> None:
    open_pot = left_by_vapour(ETHANOL, WATER, 0.6 * WATER)
    assert open_pot.rule == "vapour"
    assert "40 % of its water left as vapour: Rayleigh" in in_words(open_pot.why)
    assert open_pot.grams.best <= open_pot.grams.high
    lidded = left_by_table(20.0, 120, "The lid kept the vapour in")
    assert lidded.rule == "table"
    assert lidded.grams.best == pytest.approx(2.0)
    assert in_words(lidded.why).startswith("The lid kept the vapour in: by the retention table")


def test_strength() -> None:
    # 0.789 g/mL: pure ethanol at 20 °C, any table of densities.
    assert strength_percent(78.9, 1000.0) == pytest.approx(10.0)
    assert strength_percent(78.9, 0.0) == 0.0

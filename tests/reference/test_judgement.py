"""Spoon and tongue against SciPy's own posterior; and the studies of judgement, thinned.

The long studies are ``./spissus study obedient``, ``looks`` and ``spoons``; what came of them stands beside them.
"""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path

import numpy as np
import pytest
from makers import braise
from scipy.integrate import dblquad, quad
from scipy.stats import norm
from spissus_core.estimation import spoon as sp
from spissus_core.ledger.contents import Contents
from spissus_core.phenomena.body import Strength, viscosity_mpas
from spissus_core.phenomena.seasoning import RAW, SAUCE, Tongue, tasted

from tests.study import looks, obedient, readiness, schools, spoons

STUDY = Path(spoons.__file__).parent


def _prior(z: float) -> float:
    return float((1.0 - sp.WILD_SHARE) * norm.pdf(z) + sp.WILD_SHARE * norm.pdf(z, scale=sp.WILD_FACTOR))


def test_the_strength_of_a_thickener_against_scipys_integral() -> None:
    """Bayes' rule by adaptive quadrature over the two factors, with the same likelihood, ends of the grid included."""
    pot = braise(900).with_masses(gelatin=20.0) + Contents(starch={"wheat": 30.0})
    seen = (sp.Spoonful(pot, 3, "low"), sp.Spoonful(pot + Contents(starch={"wheat": 10.0}), 3, "low"))

    def likely(z: float, w: float) -> float:
        strength = Strength(float(np.exp(z * sp.STRENGTH_SPREAD)), float(np.exp(w * sp.BEFORE_SPREAD)))
        chance = _prior(z) * _prior(w)
        for one in seen:
            gap = sp.height(viscosity_mpas(one.contents, strength)) - 3.5
            chance *= float(norm.cdf((-sp.HALF_STEP - gap) / sp.SPOON_ERROR))
        return chance

    options = {"epsabs": 1e-5, "epsrel": 1e-3}
    whole, _ = dblquad(likely, -3.0, 3.0, -3.0, 3.0, **options)
    mean, _ = dblquad(lambda z, w: z * likely(z, w), -3.0, 3.0, -3.0, 3.0, **options)
    expected = np.exp(sp.STRENGTH_SPREAD * mean / whole)
    assert sp.belief(seen).strength.thickener == pytest.approx(expected, rel=0.01)


@pytest.mark.parametrize("tongue", [RAW, SAUCE], ids=["raw", "sauce"])
@pytest.mark.parametrize("verdict", ["flat", "right", "salty", "low", "high"])
def test_a_taste_against_scipys_integral(verdict: str, tongue: Tongue) -> None:
    gap, error = -0.05, 0.14
    low, high = tongue.ends[verdict]

    def likely(at: float) -> float:
        said = norm.cdf((high - at) / tongue.error) - norm.cdf((low - at) / tongue.error)
        return float(norm.pdf(at, gap, error) * said)

    whole, _ = quad(likely, -1.0, 1.0)
    mean, _ = quad(lambda at: at * likely(at) / whole, -1.0, 1.0)
    found, _ = tasted(gap, error, verdict, tongue)
    assert found == pytest.approx(mean, abs=2e-3)


# -- the studies, thinned -------------------------------------------------------------------------


@lru_cache(maxsize=2)
def _evenings(perfect: bool) -> obedient.Result:
    senses, count = (obedient.PERFECT, 30) if perfect else (obedient.ERRING, obedient.THINNED)
    return obedient.came_of(list(obedient.evenings(count, senses, seed=obedient.THINNED_SEED)))


def test_who_obeys_the_bar_makes_good_sauces() -> None:
    kept = json.loads((STUDY / "obedient.json").read_text("utf-8"))
    assert kept["erring"]["good"] >= obedient.LEAST_GOOD
    assert kept["perfect"]["good"] >= obedient.LEAST_GOOD_PERFECT
    assert kept["erring"]["never"] < obedient.MOST_NEVER
    assert kept["erring"]["acts"] <= obedient.MOST_MEDIAN_ACTS
    assert kept["erring"]["tasty"] >= obedient.LEAST_TASTY
    assert kept["perfect"]["tasty"] >= obedient.LEAST_TASTY_PERFECT
    # The same evenings as were kept: a change that makes things worse shows.
    assert _evenings(perfect=False).good >= kept["thinned"]["good"] - 0.02
    assert _evenings(perfect=False).tasty >= kept["thinned"]["tasty"] - 0.02
    assert _evenings(perfect=True).good >= obedient.LEAST_GOOD_PERFECT
    assert _evenings(perfect=False).never == 0.0


@pytest.mark.parametrize("tool", looks.MOST_PAST)
def test_a_stove_unlike_the_guess_does_not_run_past_the_mark(tool: looks.Tool) -> None:
    for power in looks.POWERS:
        cell = looks.came_of(list(looks.boils(tool, power, 25)))
        # A tenth more than the long study allows: 25 boils are good to eight points.
        assert cell.past <= looks.MOST_PAST[tool] + 0.12
        assert cell.short <= looks.MOST_SHORT[tool] + 0.12
        assert cell.closest_min >= 1.0 - 1e-9


@pytest.mark.parametrize("strength", [0.7, 1.0, 1.4])
def test_a_thickener_of_another_strength_is_found_out_in_a_few_parts(strength: float) -> None:
    kept = json.loads((STUDY / "spoons.json").read_text("utf-8"))[f"{strength:g}"]
    cell = spoons.came_of(list(spoons.bound(strength, 20)))
    # Twenty pots are good to a tenth.
    assert kept["within"] >= 0.8
    assert cell.within >= kept["within"] - 0.1
    assert cell.parts <= spoons.MOST_PARTS


def test_one_wrong_verdict_costs_at_most_one_part() -> None:
    plain = list(spoons.bound(1.0, 12, seed=6))
    misled = list(spoons.bound(1.0, 12, wrong_at=2, seed=6))
    assert np.mean([m.parts - p.parts for p, m in zip(plain, misled, strict=True)]) <= 1.0


def test_what_is_said_of_the_time_holds_in_most_evenings() -> None:
    """Of three hundred evenings 75 to 90 in a hundred intervals hold (``./spissus study readiness``)."""
    kept = json.loads(readiness.RESULTS.read_text("utf-8"))
    assert 0.75 <= kept["first"] <= 0.9
    assert 0.75 <= kept["later"] <= 0.9
    found = readiness.held(readiness.SEED * 100_000 + i for i in range(readiness.THINNED))
    assert found.first >= 0.65
    assert found.later >= 0.65


#: Of fewer evenings than this nothing is said of a school: few sauces have room for the salt of granules.
ENOUGH_EVENINGS = 30


def test_who_obeys_makes_good_sauces_with_every_school() -> None:
    kept = json.loads((STUDY / "schools.json").read_text("utf-8"))
    told = {key: kept[key]["good"] for key in schools.TRAITS if kept[key]["evenings"] >= ENOUGH_EVENINGS}
    assert len(told) >= 8
    assert min(told.values()) >= schools.LEAST_GOOD
    assert schools.share_good(list(schools.evenings("kneaded_butter", 60, obedient.THINNED_SEED))) >= schools.LEAST_GOOD

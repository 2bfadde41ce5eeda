"""Unit sizes against the printed tables they come from.

NIST SP 811 (2008) appendix B and NIST Handbook 44 appendix C for customary units; 21 CFR 101.9 for
label measures; Regulation (EU) 1169/2011 and molar masses for salt and sodium; equivalent weights
for acids.
"""

from __future__ import annotations

import pytest
from spissus_core.amounts.quantities import parse
from spissus_core.phenomena.seasoning import SALT_PER_SODIUM

NIST = {
    "1 cup": ("volume", 236.5882),
    "1 tbsp": ("volume", 14.78676),
    "1 tsp": ("volume", 4.928922),
    "1 fl oz": ("volume", 29.57353),
    "1 pint": ("volume", 473.1765),
    "1 quart": ("volume", 946.3529),
    "1 gallon": ("volume", 3785.412),
    "1 oz": ("mass", 28.34952),
    "1 lb": ("mass", 453.5924),
    "1 inch": ("length", 25.4),
}
LABEL = {"1 label cup": 240.0, "1 label tbsp": 15.0, "1 label tsp": 5.0}


@pytest.mark.parametrize("text", NIST)
def test_customary_units_against_nist(text: str) -> None:
    dimension, size = NIST[text]
    assert parse(text, dimension) == pytest.approx(size, rel=1e-6)


@pytest.mark.parametrize("text", LABEL)
def test_label_measures_against_21_cfr_101_9(text: str) -> None:
    assert parse(text, "volume") == LABEL[text]


def test_half_a_bottle_is_a_cup_and_six_tenths() -> None:
    assert parse("half a bottle", "volume") / parse("1 cup", "volume") == pytest.approx(1.585, abs=0.001)


def test_salt_and_sodium() -> None:
    # Molar masses of NaCl 58.44 and Na 22.99 g/mol.
    assert pytest.approx(2.542, abs=5e-4) == SALT_PER_SODIUM
    # Regulation (EU) 1169/2011, annex I: salt = sodium × 2.5; real salt is 1.7 % more.
    assert pytest.approx(1.017, abs=5e-4) == SALT_PER_SODIUM / 2.5

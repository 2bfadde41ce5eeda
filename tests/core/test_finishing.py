"""What may finish a sauce, and what it would change: by the sums of the ledger, and as the fold finds it afterwards."""

from __future__ import annotations

from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import in_words, potted, started, told
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_mass
from spissus_core.planning.finishing import FINISHES, LACKS, finishes
from spissus_core.planning.foreseen import foreseen
from spissus_core.planning.judgement import JUDGEMENT
from spissus_core.pot import Pot
from spissus_core.wish import Wish

START = started("0.52 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.9})
BOUND = (START, ev.Thickened(thickener="white_roux", dry_g=20))
WISH = Wish(volume_ml=450, body=3, salt_percent=0.9, ceiling_percent=1.3)


def said(before: Pot, after: Pot, wanted: Wish | None = WISH) -> list[str]:
    return [in_words(change.said) for change in foreseen(before, after, wanted)]


#: What is missing, and the ledger holds: the rest is for nose and tongue alone.
BRINGS = ("salt", "sharpness", "sweetness", "depth", "roundness")


def _of(pot: Pot, lack: str) -> float:
    """What is missing, as a share of the liquid."""
    c = pot.contents
    brings = {"salt": c.salt, "sharpness": c.acid + c.acetic, "sweetness": c.sugar, "roundness": c.fat_emulsified}
    return brings.get(lack, c.own_g - c.sugar / 2) / c.liquid_g


@given(litres=st.floats(0.1, 4.0), percent=st.floats(0.2, 1.2), flour=st.floats(0, 40))
def test_what_is_proposed_brings_what_is_missing_and_no_more_than_it_says(
    litres: float, percent: float, flour: float
) -> None:
    steps: list[ev.Kind] = [started(f"{litres:.2f} l", salt={"by": "meter", "percent": percent})]
    if flour >= 1:
        steps.append(ev.Thickened(thickener="white_roux", dry_g=flour * litres))
    pot = potted(*steps)
    offers = finishes(pot, WISH)
    mild = WISH.salt_percent - pot.salt_percent.best > JUDGEMENT.least_salt_share * WISH.salt_percent
    assert {offer.finish.lacks for offer in offers} == set(LACKS) - (set() if mild else {"salt"})
    for offer in offers:
        # A minute later, as the fold finds it: whoever takes it finds what is foreseen then.
        moment = told(*steps, offer.added).moments[-1]
        found, after = moment.found, moment.pot
        assert found is not None
        assert after is not None
        if offer.finish.lacks in BRINGS:
            assert _of(after, offer.finish.lacks) > _of(found, offer.finish.lacks), offer.finish.key
        assert foreseen(found, after, WISH) == foreseen(found, offer.added.on_pot(found), WISH)
        # A first step moves nobody's salt past the limit unsaid.
        over = after.salt_percent.best > max(WISH.ceiling_percent, found.salt_percent.best)
        assert not over or any(change.of == "salt" and change.hurts for change in foreseen(found, after, WISH))


def test_the_order_of_what_goes_in_changes_no_mass() -> None:
    added = [offer.added for offer in finishes(potted(*BOUND), WISH)][::8]
    ends = [potted(*BOUND, *order).contents for order in permutations(added)]
    assert all(one.mass_g == pytest.approx(ends[0].mass_g) and one.salt == pytest.approx(ends[0].salt) for one in ends)


def test_butter_is_foreseen_as_the_handbook_has_it() -> None:
    """40 g of unsalted butter in half a litre: about 42 mL more, and 0.90 % of salt becomes 0.84. Common practice."""
    pot = potted(START)
    after = potted(START, ev.Added(ingredient="butter", mass_g=40))
    assert after.contents.liquid_ml - pot.contents.liquid_ml == pytest.approx(42, abs=3)
    assert after.salt_percent.best == pytest.approx(0.84, abs=0.01)
    assert "rounder: 32 g of fat stirred in" in said(pot, after)


def test_cream_thins_a_bound_sauce_and_says_so_before_it_is_poured() -> None:
    pot = potted(*BOUND)
    cream = ev.Added(ingredient="cream_heavy", volume_ml=100)
    told = [in_words(change.said) for change in foreseen(pot, cream.on_pot(pot), WISH, cream.cold)]
    # Handbook of the trade: from the fridge 100 mL cool half a litre by about 11 °C. Common practice.
    assert any(line in told for line in ("about 10 °C cooler: warm it again", "about 11 °C cooler: warm it again")), (
        told
    )
    assert any(line.startswith("thinner: ") for line in told)
    assert any("of fat stirred in" in line for line in told)


def test_what_hurts_comes_first() -> None:
    pot = potted(*BOUND)
    wine = potted(*BOUND, ev.Added(ingredient="red_wine", volume_ml=100))
    salty = potted(*BOUND, ev.Added(ingredient="soy_sauce", volume_ml=30))
    assert said(pot, salty)[0].endswith("over your limit of 1.30 %")
    assert [change.hurts for change in foreseen(pot, wine, WISH)] == sorted(
        (change.hurts for change in foreseen(pot, wine, WISH)), reverse=True
    )
    assert any("g of alcohol: boil it for " in line and " min first, down to " in line for line in said(pot, wine))
    assert foreseen(pot, pot, WISH) == ()


def test_a_guest_who_must_not_have_it_puts_it_last() -> None:
    pot = potted(*BOUND)
    without = WISH.model_copy(update={"avoid": ("soy",)})
    depth = [offer.finish.key for offer in finishes(pot, without) if offer.finish.lacks == "depth"]
    assert depth[-1] == "soy"


def test_a_step_is_of_the_pot() -> None:
    small, large = (finishes(potted(started(amount)), WISH) for amount in ("250 ml", "2 l"))
    amounts = [(one.amount.value, other.amount.value) for one, other in zip(small, large, strict=True)]
    assert len(amounts) == len(FINISHES)
    assert any(one.finish.lacks == "salt" for one in small)
    assert all(much >= 6 * little for little, much in amounts)


@pytest.mark.parametrize("what", ["red_wine", "cream_heavy", "sugar", "wine_vinegar", "unsalted_stock", "glaze"])
def test_every_change_unfolds_the_sum_it_comes_of(what: str) -> None:
    before = potted(started("0.5 l", fat_ml="0 ml", character="thin", salt={"by": "meter", "percent": 0.9}))
    added = ev.Added(ingredient=what, mass_g=120)
    changes = foreseen(before, added.on_pot(before), WISH, added.cold)
    assert changes
    for change in changes:
        assert any(letter.isdigit() for letter in in_words(change.how)), change
    salt = next((change for change in changes if change.of == "salt"), None)
    if salt is not None:
        said = in_words(salt.how)
        assert "g in " in said
        assert in_words(show_mass(before.contents.liquid_g)) in said

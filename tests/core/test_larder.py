"""Concentrates, labels, and ingredients of a kitchen's own."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import refused
from pydantic import ValidationError
from spissus_core.errors import QuantityError
from spissus_core.events import Added
from spissus_core.intake.braise import Line, line_of
from spissus_core.intake.lines import read_line
from spissus_core.intake.unsure import asked_first
from spissus_core.pantry.concentrates import made_up, salt_from_label_salt, salt_from_sodium_percent
from spissus_core.pantry.ingredients import ALLERGENS, catalogue, ingredient, search
from spissus_core.pantry.larder import OwnIngredient


@given(st.floats(1, 50_000), st.floats(0.1, 20), st.floats(0, 60))
def test_a_concentrate_makes_exactly_the_volume_in_its_proportion(volume: float, a: float, b: float) -> None:
    made = made_up(volume, a, b)
    assert made.concentrate_ml + made.water_ml == pytest.approx(volume)
    assert made.water_ml * a == pytest.approx(made.concentrate_ml * b)


def test_nonsense_parts_are_refused() -> None:
    with refused(QuantityError, "how much it is to make"):
        made_up(0, 2, 7)
    with refused(QuantityError, "Give the parts"):
        made_up(1000, 0, 7)


def test_sodium_of_a_serving_as_salt() -> None:
    # 480 mg sodium in 240 g: 0.2 % sodium, × 2.542 (58.44/22.99, molar masses).
    assert salt_from_sodium_percent(480, 240) == pytest.approx(0.5084, rel=1e-3)
    # A European label's salt is sodium × 2.5 (Regulation (EU) 1169/2011).
    assert salt_from_label_salt(1.0) == pytest.approx(1.0168, rel=1e-4)
    with refused(QuantityError, "how big the serving"):
        salt_from_sodium_percent(480, 0)
    with refused(QuantityError, "Check the sodium"):
        salt_from_sodium_percent(90_000, 100)


def own(**given: Any) -> OwnIngredient:
    return OwnIngredient.model_validate({"name": "house stock", "like": "beef_stock_own"} | given)


def test_a_house_stock_by_its_label() -> None:
    by_sodium = own(label={"sodium_g": "480 mg", "serving": "240 ml"}).ingredient("own-1")
    # A cup of 240 g measures 236.6 mL: 240 mL weigh 243.5 g.
    assert by_sodium.salt == pytest.approx(0.48 * 2.542 / 243.46 * 100, rel=1e-3)
    by_salt = own(label={"salt_g": "1.2 g", "serving": "100 g"}).ingredient("own-1")
    assert by_salt.salt == pytest.approx(1.2 * 1.0168, rel=1e-3)
    assert by_salt.gelatin == ingredient("beef_stock_own").gelatin
    assert by_salt.source == "the kitchen’s own, after “beef stock, home made, lightly salted”"


def test_what_a_cook_knows_better_takes_the_place() -> None:
    stock = own(gelatin="4 g", fat=0).ingredient("own-1")
    assert (stock.gelatin, stock.fat) == (4.0, 0.0)
    wine = OwnIngredient(name="table wine", like="red_wine", abv="14.5 %").ingredient("own-2")
    assert wine.abv == 14.5
    assert wine.portion(1000).mass_g == pytest.approx(1000)


@pytest.mark.parametrize(
    ("given", "complaint"),
    [
        ({"abv": "300 %"}, "between 0 and 96.%"),
        ({"gelatin": "80 g", "fat": "40 g"}, "add up to"),
        ({"like": "ambrosia"}, "not in the catalogue"),
        ({"label": {"sodium_g": "1 g", "salt_g": "1 g"}}, "sodium, such as"),
        ({"label": {"sodium_g": "1 g", "serving": "a bit"}}, "cannot be|not a unit|start with a number|which unit"),
        ({"label": {"sodium_g": "70 g", "serving": "100 g"}}, "Check the sodium"),
    ],
)
def test_nonsense_is_refused_with_a_sentence(given: dict[str, Any], complaint: str) -> None:
    with refused(ValidationError, complaint):
        own(**given)


@pytest.mark.parametrize(
    ("typed", "key"),
    [
        ("chiken stock", "chicken_stock_own"),
        ("bay leafs", "bay"),
        ("maderia", "fortified_sweet"),
        ("oxtial", "oxtail"),
        ("parsnips", "parsnip"),
        ("ox cheek", "beef_cheek"),
        ("rosè wine", "rose_wine"),
    ],
)
def test_slips_of_the_finger_find_it_all_the_same(typed: str, key: str) -> None:
    assert search(typed)[0].ingredient.key == key


def test_the_catalogue_names_known_allergens_only() -> None:
    for item in catalogue().values():
        assert set(item.allergens) <= set(ALLERGENS), item.key
    assert "gluten" in ingredient("flour").allergens
    assert "fish" in ingredient("anchovy").allergens
    assert "soy" in ingredient("soy_sauce").allergens


@pytest.mark.parametrize(
    ("key", "text", "grams"),
    [
        ("egg_yolk", "3 yolks", 51.0),
        ("orange_juice", "half an orange", 40.0),
        ("lemon_juice", "the juice of half a lemon", 22.5),
        ("butter", "a knob", 15.0),
        ("anchovy", "4 fillets", 16.0),
        ("brandy", "a splash", 15.0 * ingredient("brandy").density_g_ml),
    ],
)
def test_at_the_stove_things_are_counted_as_in_a_list(key: str, text: str, grams: float) -> None:
    assert Added(ingredient=key, amount=text).grams == pytest.approx(grams)


@pytest.mark.parametrize(("key", "text"), [("orange_juice", "100 blorple"), ("egg_yolk", "3 lemons"), ("water", "3")])
def test_a_count_of_something_else_is_asked_about(key: str, text: str) -> None:
    with pytest.raises(ValidationError):
        Added(ingredient=key, amount=text)


def kept(*texts: str) -> list[Line]:
    return [line_of(line) for text in texts for line in read_line(text)]


def test_a_doubt_that_may_be_half_of_the_salt_is_asked_first() -> None:
    lines = kept("1.5 kg beef shin", "1 l stock", "2 carrots")
    first = asked_first(lines, [1])
    assert first is not None
    assert first.text == "1 l stock"
    # Beside 20 g of salt it is a small part; answered, it is no doubt any more.
    assert asked_first(kept("1 l stock", "20 g salt"), [0]) is None
    assert asked_first(lines, []) is None
    assert asked_first(kept("200 ml wine", "1 l water"), [0]) is None

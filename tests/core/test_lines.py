"""Reading what a cook writes: lines, whole lists, sentences."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import in_words
from spissus_core.intake.lines import LONGEST_LINE, MOST_LINES, ReadLine, read_line, read_list
from spissus_core.intake.sentence import read_sentence
from spissus_core.pantry.ingredients import catalogue, ingredient, search
from spissus_core.pantry.larder import OwnIngredient


def one(text: str) -> ReadLine:
    (line,) = read_line(text)
    return line


@pytest.mark.parametrize(
    ("text", "key", "dimension", "value"),
    [
        ("half a bottle of red wine", "red_wine", "volume", 375),
        ("1/2 a bottle of red wine", "red_wine", "volume", 375),
        ("a 75 cl bottle of white wine", "white_wine", "volume", 750),
        ("1 bottle dry cider (750 ml)", "dry_cider", "volume", 750),
        ("2 heaped tbsp flour", "flour", "volume", 2 * 14.787 * 1.75),
        ("1 1/2 cups chicken stock", "chicken_stock_own", "volume", 354.9),
        ("1½ c chicken stock", "chicken_stock_own", "volume", 354.9),
        ("¾ pt stout", "stout", "volume", 354.9),
        ("1,5 l chicken stock", "chicken_stock_own", "volume", 1500),
        ("1.2 kg pork cheek", "pork_cheek", "mass", 1200),
        ("pork cheek 1.2 kg", "pork_cheek", "mass", 1200),
        ("Salt: 12 g", "salt_table", "mass", 12),
        ("1 lb 4 oz beef shin", "beef_shin", "mass", 567),
        ("2 x 400 g tins chopped tomatoes", "tomato_crushed", "mass", 800),
        ("2 tins (400 g each) chopped tomatoes", "tomato_crushed", "mass", 800),
        ("500 ml / 18 fl oz beef stock", "beef_stock_own", "volume", 500),
        ("2-3 carrots", "carrot", "mass", 200),
        ("4 cloves garlic", "garlic", "mass", 20),
        ("3 strips of bacon", "bacon", "mass", 75),
        ("2 onions, roughly chopped", "onion", "mass", 300),
        ("juice of half a lemon", "lemon_juice", "mass", 22.5),
        ("• 1 tsp pepper", "black_pepper", "volume", 4.93),
        ("2 peppers", "sweet_pepper", "mass", 300),
        ("1 label cup water", "water", "volume", 240),
        ("beaf shin 1 kg", "beef_shin", "mass", 1000),
        ("200 g chesnuts", "chestnuts", "mass", 200),
    ],
)
def test_lines_as_cooks_write_them(text: str, key: str, dimension: str, value: float) -> None:
    line = one(text)
    assert line.problem is None
    assert line.ingredient is not None
    assert line.amount is not None
    assert (line.ingredient.key, line.amount.dimension) == (key, dimension)
    assert line.amount.value == pytest.approx(value, rel=0.01)


@pytest.mark.parametrize(
    ("text", "use", "left", "poured"),
    [
        ("1 bottle red wine, reduced by half", "reduced", 0.5, 0),
        ("1 bottle red wine, reduced by three quarters", "reduced", 0.25, 0),
        ("1 bottle red wine (reduced to three quarters)", "reduced", 0.75, 0),
        ("1 bottle red wine, leave a third", "reduced", 1 / 3, 0),
        ("100 ml brandy, set alight", "flamed", None, 0),
        ("100 ml cream, at the end", "late", None, 0),
        ("2 tbsp flour for dredging", "dredged", None, 0),
        ("12 g salt on the meat", "rubbed", None, 0),
        ("2 tbsp olive oil for frying, most poured off", "fried", None, 0.85),
        ("1 l water", "in", None, 0),
    ],
)
def test_what_was_done_with_it(text: str, use: str, left: float | None, poured: float) -> None:
    line = one(text)
    assert line.problem is None
    assert line.use == use
    assert line.left == (None if left is None else pytest.approx(left))
    assert line.poured_off == pytest.approx(poured)


@pytest.mark.parametrize(
    ("text", "complaint"),
    [
        ("600 ml pork cheek", "weighed, not poured"),
        ("salt", "How much of it?"),
        ("1 salt", "Say how much of it"),
        ("3 cups blorple", "“blorple” is not in the catalogue"),
        ("500 g", "not of what"),
        ("-5 g salt", "below zero"),
        ("1,200 g beef shin", "can be read two ways"),
        ("1e9 kg salt", "cannot be read as one number"),
        ("999999 kg salt", "no amount a kitchen holds"),
        ("🍷🍷🍷", "not in the catalogue"),
        ("مرق لحم", "not in the catalogue"),
        ("1/0 l water", "divides by zero"),
        ("x" * (LONGEST_LINE + 1), "longer than"),
    ],
)
def test_what_cannot_be_read_is_kept_and_says_why(text: str, complaint: str) -> None:
    line = one(text)
    assert line.text == text
    assert line.amount is None
    assert line.problem is not None
    assert complaint in in_words(line.problem)


@pytest.mark.parametrize(
    ("text", "doubt", "choices"),
    [
        ("200 ml stock", "several are called so", ["stock, unsalted"]),
        ("500 g orange blorple", "“blorple” says nothing", []),
        ("beaf shin 1 kg", "“beaf” was read as that", []),
        ("3 lamb legs, 4.5 kg", "in all", ["g in all"]),
        ("salted by eye", "perhaps 2", ["2.0", "12"]),
    ],
)
def test_what_is_not_sure_says_so_and_what_else_it_may_be(text: str, doubt: str, choices: list[str]) -> None:
    line = one(text)
    assert line.amount is not None
    assert line.doubt is not None
    assert doubt in in_words(line.doubt)
    assert len(line.choices) <= 2
    said = [in_words(choice.said) for choice in line.choices]
    assert all(any(choice in words for words in said) for choice in choices), said
    for choice in line.choices:
        meant = ingredient(choice.ingredient) if choice.ingredient else None
        (other,) = read_line(choice.text, meant=meant)
        assert other.doubt is None
        assert other.problem is None


def test_a_number_that_can_be_read_two_ways_offers_both() -> None:
    line = one("1,200 g beef shin")
    assert line.problem is not None
    assert [choice.text for choice in line.choices] == ["1200 g beef shin", "1.200 g beef shin"]


@settings(max_examples=60, deadline=None)
@given(
    st.sampled_from(["250 g butter", "1 l water", "2 onions"]), st.text("bcdfghjklmnpqrstvwxz", min_size=5, max_size=12)
)
def test_words_left_over_are_never_passed_over(line: str, word: str) -> None:
    read = one(f"{line} {word}")
    assert read.problem is not None or read.doubt is not None


def test_a_cube_is_never_poured() -> None:
    line = one("500 ml beef stock cube")
    assert line.problem is not None
    assert "never poured" in in_words(line.problem)


def test_marks_that_only_steer_the_display_change_nothing() -> None:
    assert one("\u202b1 l water\u202c").amount == one("1 l water").amount
    assert one("1\u00a0l\u2009water").amount == one("1 l water").amount


def test_a_concentrate_and_its_water_make_exactly_the_volume() -> None:
    concentrate, water = read_line("7 parts water to 2 of chicken concentrate, 1.8 l in all")[::-1]
    assert concentrate.ingredient == ingredient("chicken_broth_condensed")
    assert water.ingredient == ingredient("water")
    assert concentrate.amount is not None
    assert water.amount is not None
    assert concentrate.amount.value == pytest.approx(400)
    assert water.amount.value == pytest.approx(1400)


def test_an_ingredient_that_was_chosen_stands_whatever_the_line_says() -> None:
    (line,) = read_line("3 cups blorple", meant=ingredient("beef_stock_own"))
    assert line.problem is None
    assert line.ingredient == ingredient("beef_stock_own")
    assert line.amount is not None
    assert line.amount.value == pytest.approx(709.8, abs=0.1)


def test_a_kitchens_own_comes_first() -> None:
    label = {"sodium_g": "480 mg", "serving": "240 ml"}
    mine = OwnIngredient.model_validate({"name": "house stock", "like": "chicken_broth", "label": label})
    own = mine.ingredient("own-1")
    assert search("house stock", [own])[0].ingredient == own
    (line,) = read_line("1 l house stock", [own])
    assert line.ingredient == own
    # 480 mg of sodium in 249 g: 0.49 % salt.
    assert own.salt == pytest.approx(0.48 * 2.542 / 249 * 100 * 249 / 252.6, rel=0.01)
    instead = mine.model_copy(update={"instead": True}).ingredient("own-1")
    (line,) = read_line("1 l chicken broth", [instead])
    assert line.ingredient == instead


def test_a_list_passes_headings_over_and_keeps_what_is_too_much() -> None:
    read = read_list("For the pot:\n\n1 l water\n- 2 carrots\n")
    assert [line.ingredient.key for line in read.lines if line.ingredient] == ["water", "carrot"]
    long = "\n".join(f"{i} g salt" for i in range(1, 5001))
    read = read_list(long)
    assert len(read.lines) == MOST_LINES
    assert read.rest.startswith(f"{MOST_LINES + 1} g salt")
    assert read.rest.endswith("5000 g salt")


@settings(max_examples=60, deadline=None)
@given(st.text(max_size=120))
def test_no_line_breaks_the_reader_or_is_dropped(text: str) -> None:
    lines = read_line(text)
    assert lines
    for line in lines:
        assert line.problem is not None or (line.ingredient is not None and line.amount is not None)


@settings(max_examples=80, deadline=None)
@given(
    st.sampled_from(sorted(catalogue())),
    st.sampled_from(["g", "kg", "oz", "lb"]),
    st.sampled_from([1, 2, 12, 90, 0.5, 2.25]),
)
def test_every_ingredient_is_found_by_its_own_name(key: str, unit: str, number: float) -> None:
    item = ingredient(key)
    line = one(f"{number:g} {unit} {item.name}")
    assert line.problem is None
    assert line.ingredient is not None
    assert line.ingredient.key == key


@pytest.mark.parametrize(
    ("text", "method", "value"),
    [
        ("a bit over two litres", "eye", 2100),
        ("1.4 l", "jug", 1400),
        ("2 1/2 quarts", "jug", 2366),
        ("a litre and a half", "jug", 1500),
        ("two and a half litres", "jug", 2500),
        ("it stands 53 mm deep", "dip", 53),
        ("2.62 kg on the scale", "scale", 2620),
        ("about 6 cups", "eye", 1420),
    ],
)
def test_how_much_in_a_sentence(text: str, method: str, value: float) -> None:
    said = read_sentence(text)
    assert said.method == method
    assert said.value == pytest.approx(value, rel=0.005)
    assert said.unread == ()


def test_a_whole_sentence() -> None:
    said = read_sentence("A bit over two litres, two centimetres of fat, nearly right for salt")
    assert (said.method, said.value, said.fat_mm, said.verdict) == ("eye", 2100, 20, "nearly")
    assert said.unread == ()
    said = read_sentence("1.6 l hot, 80 ml of fat, the meter says 0.6 %, it sets when cold")
    assert (said.method, said.value, said.hot, said.fat_ml, said.percent) == ("jug", 1600, True, 80, 0.6)
    assert said.character == "gelatin_rich"


@pytest.mark.parametrize(
    ("text", "verdict"),
    [("flat", "flat"), ("it tastes right", "right"), ("too salty", "too_salty"), ("rather salty", "salty")],
)
def test_taste_in_a_sentence(text: str, verdict: str) -> None:
    assert read_sentence(text).verdict == verdict


def test_stock_in_a_sentence_and_no_fat() -> None:
    said = read_sentence("1 l, low-salt stock, no fat")
    assert (said.stock, said.fat_ml, said.verdict) == ("low_salt", 0.0, None)


def test_what_a_sentence_does_not_say_is_named() -> None:
    said = read_sentence("two litres, the cat is on the roof")
    assert said.value == 2000
    assert said.unread == ("the cat is on the roof",)


@settings(max_examples=60, deadline=None)
@given(st.text(max_size=200))
def test_no_sentence_breaks_the_reader(text: str) -> None:
    read_sentence(text)


#: What each word makes of 100 mL: the amount, and how far it may be off as a share (common practice, by hand).
HEDGED = {
    "about": (100, 0.08),
    "~": (100, 0.08),
    "a generous": (110, 0.10),
    "a scant": (92, 0.08),
    "nearly": (96, 0.04),
    "well over": (115, 0.10),
    "some": (100, 0.15),
    "a bit under": (95, 0.06),
    "": (100, 0.0),
}


@pytest.mark.parametrize("word", HEDGED)
def test_a_vague_word_shifts_and_widens(word: str) -> None:
    (line,) = read_line(f"{word} 100 ml beef stock".strip())
    assert line.amount is not None
    assert (line.amount.value, line.amount.spread) == pytest.approx(HEDGED[word])
    assert line.poured_off == 0.0
    assert line.left is None


@pytest.mark.parametrize(
    ("said", "left"), [("to 40 %", 0.4), ("to 1/3", 1 / 3), ("by half", 0.5), ("to a quarter", 0.25)]
)
def test_what_is_left_of_what_was_boiled_down(said: str, left: float) -> None:
    (line,) = read_line(f"750 ml red wine, reduced {said}")
    assert line.left == pytest.approx(left)


def test_a_line_that_counts_nothing_pours_nothing_off() -> None:
    (line,) = read_line("3 cups blorple")
    assert line.problem
    assert (line.poured_off, line.left, line.use) == (0.0, None, "in")


@pytest.mark.parametrize(
    ("line", "grams"),
    [
        # What is bought weighs what is said of it, however much of the beast it is.
        ("half a goose, 1.9 kg", 1900),
        ("1/2 shoulder of lamb, 2.2 kg", 2200),
        ("half a leg of mutton (1.4 kg)", 1400),
        ("half a duck, 900 g", 900),
        ("1/2 rabbit, 600 g in all", 600),
        # Of the pair, of each, of all.
        ("2 duck legs, 600 g the pair", 600),
        ("2 pork cheeks, 500 g a pair", 500),
        ("4 lamb shanks, 350 g each", 1400),
        ("4 lamb shanks, 1.4 kg in all", 1400),
        ("3 × 400 g beef cheeks", 1200),
        ("2 oxtails, 1.8 kg the two", 1800),
    ],
)
def test_a_weight_that_is_said_is_not_multiplied_by_a_share(line: str, grams: float) -> None:
    (read,) = read_list(line).lines
    assert read.doubt is None
    assert read.amount is not None
    assert read.amount.value == pytest.approx(grams)


@pytest.mark.parametrize(
    ("line", "key", "amount"),
    [
        ("two point four kilos beef shin", "beef_shin", 2400),
        ("six hundred mils red wine", "red_wine", 600),
        ("600 mil red wine", "red_wine", 600),
        ("two hundred and fifty grams butter", "butter", 250),
        ("one point five litres of water", "water", 1500),
        ("2.250 g beef shin", "beef_shin", 2250),
        ("2.5 kg beef shin", "beef_shin", 2500),
        ("a hundred grams of flour", "flour", 100),
    ],
)
def test_spoken_figures_are_figures(line: str, key: str, amount: float) -> None:
    (read,) = read_list(line).lines
    assert read.ingredient is not None
    assert read.ingredient.key == key
    assert read.amount is not None
    assert read.amount.value == pytest.approx(amount)
    assert read.text == line


def test_what_is_not_understood_is_named_as_it_was_said() -> None:
    said = read_sentence("a bit over two litres, nearly right for salt, and the radio is on")
    assert said.unread == ("the radio is on",)

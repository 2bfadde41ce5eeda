"""Reading and printing amounts."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import in_words, refused
from spissus_core.amounts.quantities import (
    UnitSystem,
    parse,
    parse_any,
    show_length,
    show_mass,
    show_minutes,
    show_percent,
    show_plain,
    show_spoons,
    show_temperature,
    show_volume,
    within,
)
from spissus_core.amounts.reading import Dimension
from spissus_core.errors import QuantityError
from spissus_core.messages import Shown

WEB = Path(__file__).parents[2] / "web" / "src"


@pytest.mark.parametrize(
    ("text", "ml"),
    [
        ("1.4 l", 1400),
        ("1,4 L", 1400),
        ("1400ml", 1400),
        ("1 010 mL", 1010),
        ("1\u00a0010\u00a0mL", 1010),
        ("6 cups", 6 * 236.588),
        ("1 1/2 cups", 1.5 * 236.588),
        ("1½ c", 1.5 * 236.588),
        ("1 ½ cup", 1.5 * 236.588),
        ("¾ pt", 0.75 * 473.176),
        ("1 1/2 qt", 1.5 * 946.353),
        ("1-1/2 qt.", 1.5 * 946.353),
        ("2 tbsp", 2 * 14.7868),
        ("3 label cups", 720),
        ("1 metric cup", 250),
        ("1 australian tablespoon", 20),
        ("75 cl", 750),
        ("half a bottle", 375),
        ("a bottle", 750),
        (".5 l", 500),
        ("12 fl oz", 12 * 29.5735),
    ],
)
def test_volumes_are_read_as_cooks_write_them(text: str, ml: float) -> None:
    assert parse(text, "volume") == pytest.approx(ml, rel=1e-4)


@pytest.mark.parametrize(
    ("text", "dimension", "value"),
    [
        ("812 g", "mass", 812),
        ("1 lb", "mass", 453.592),
        ("2 1/8 in", "length", 53.975),
        ('2"', "length", 50.8),
        ("5,3 cm", "length", 53),
        ("0.6 %", "percent", 0.6),
        ("185 °F", "temperature", 85),
        ("-5 c", "temperature", -5),
        ("85", "temperature", 85),
    ],
)
def test_other_amounts(text: str, dimension: str, value: float) -> None:
    assert parse(text, dimension, default_unit="°C") == pytest.approx(value, rel=1e-4)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("text", "complaint"),
    [
        ("", "Write an amount"),
        ("   ", "Write an amount"),
        ("1/0 cup", "divides by zero"),
        ("-2 l", "below zero"),
        ("3 furlongs", "“furlongs” is not a unit"),
        ("2 kg", "measures a weight; a volume is needed"),
        ("some", "does not start with a number"),
        ("1,400 ml", "can be read two ways. Write 1400 or 1.400"),
        ("5", "Say which unit"),
        ("1.2.3 l", "cannot be read as one number"),
        ("9" * 61, "too long"),
        ("999999999999999 l", "more than any kitchen holds"),
        ("½½ cup", "cannot be read as one number"),
        ("🍷 2 l", "does not start with a number"),
        ("١٢ لتر", "is not a unit"),
    ],
)
def test_what_cannot_be_read_gets_a_sentence(text: str, complaint: str) -> None:
    with pytest.raises(QuantityError) as caught:
        parse(text, "volume", field="volume_ml")
    assert complaint in in_words(caught.value.message)
    assert caught.value.field == "volume_ml"


@given(st.text(max_size=80))
def test_no_text_breaks_the_reader(text: str) -> None:
    try:
        value = parse(text, "volume")
    except QuantityError:
        return
    assert value >= 0


@given(st.floats(min_value=2.5, max_value=9_990))
def test_a_printed_volume_reads_back_the_same(ml: float) -> None:
    shown = show_volume(ml)
    step = 5 if ml >= 50 else 2.5
    assert parse(shown.metric, "volume") == pytest.approx(ml, abs=step / 2 + 1e-9)
    assert show_volume(parse(shown.metric, "volume")).metric == shown.metric


@given(st.floats(min_value=2.5, max_value=9_990))
def test_a_volume_printed_in_us_measure_is_near_and_stable(ml: float) -> None:
    again = parse(show_volume(ml).us, "volume")
    assert again == pytest.approx(ml, rel=0.13, abs=0.7)
    assert show_volume(again).us == show_volume(ml).us


@given(st.floats(min_value=0.1, max_value=9_990))
def test_a_printed_mass_reads_back(g: float) -> None:
    assert parse(show_mass(g).metric, "mass") == pytest.approx(g, abs=0.5)


@given(st.floats(min_value=1, max_value=800))
def test_a_printed_depth_reads_back(mm: float) -> None:
    shown = show_length(mm)
    assert parse(shown.metric, "length") == pytest.approx(mm, abs=0.5)
    assert parse(shown.us, "length") == pytest.approx(mm, abs=25.4 / 32 + 1e-6)


#: What each kind of figure is printed by, its dimension, and how far it may be from itself when it is read back.
PRINTED: tuple[tuple[Callable[[float], Shown], Dimension, float, float], ...] = (
    (show_volume, "volume", 1.5, 90_000.0),
    (show_mass, "mass", 0.3, 90_000.0),
    (show_length, "length", 1.0, 800.0),
    (show_temperature, "temperature", -20.0, 250.0),
    (show_minutes, "time", 1.0, 2000.0),
    (show_percent, "percent", 0.05, 30.0),
)


@given(st.sampled_from(PRINTED), st.floats(min_value=0.0, max_value=1.0), st.sampled_from(["metric", "us"]))
def test_what_is_printed_is_read_back_as_itself(
    printed: tuple[Callable[[float], Shown], Dimension, float, float], share: float, units: UnitSystem
) -> None:
    show, dimension, low, high = printed
    value = low + share**3 * (high - low)
    text = getattr(show(value), units)
    again = parse(text, dimension, signed=True)
    # A time is read in hours and printed from minutes; all else in the unit that it is printed from.
    back = 60.0 * again if dimension == "time" else again
    assert getattr(show(back), units) == text


def _placeholders() -> list[tuple[str, str]]:
    """Every example that stands in a field of the page, with the file it stands in."""
    found = []
    for file in sorted(WEB.rglob("*.tsx")):
        for line in file.read_text(encoding="utf-8").splitlines():
            if "placeholder=" in line or line.startswith("const placeholders"):
                after = line.partition("placeholder")[2].partition(" value=")[0]
                found += [(file.name, text) for text in re.findall(r"""['"]([^'"]*\d[^'"]*)['"]""", after)]
    return found


def test_the_page_has_examples_in_its_fields() -> None:
    assert len(_placeholders()) >= 25


@pytest.mark.parametrize(("file", "text"), _placeholders())
def test_the_example_in_a_field_is_accepted_by_it(file: str, text: str) -> None:
    assert parse_any(text, ("volume", "mass", "length", "temperature", "percent", "time"))[1] > 0.0


def test_amounts_are_rounded_to_what_can_be_measured() -> None:
    assert show_volume(1012.4).metric == "1\u00a0010\u00a0mL"
    assert show_volume(33).metric == "32.5\u00a0mL"
    assert show_volume(118.3).us == "½\u00a0cup"
    assert show_volume(1.0).us == "¼\u00a0tsp"
    assert show_spoons(22.2) == "1½\u00a0tbsp"
    assert show_mass(1.44).metric == "1.4\u00a0g"
    assert show_mass(812.3).metric == "812\u00a0g"


def test_a_range_names_itself() -> None:
    with refused(QuantityError, r"A depth must lie between 1 and 800 mm; this is 900 mm\."):
        within(900, 1, 800, field="value", what="A depth", unit="mm")
    with pytest.raises(QuantityError):
        within(float("nan"), 1, 800, field="value", what="A depth", unit="mm")


@pytest.mark.parametrize(
    ("value", "shown"),
    [(1e-6, "0.000001"), (0.9, "0.9"), (12.0, "12"), (160_000.0, "160 000"), (5e6, "5 000 000"), (-430.0, "-430")],
)
def test_no_figure_is_told_by_a_power_of_ten(value: float, shown: str) -> None:
    assert show_plain(value).metric.replace("\u00a0", " ") == shown

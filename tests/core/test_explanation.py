"""An explanation closes: every result that is shown comes of the terms that are shown, to its last printed digit."""

from __future__ import annotations

import itertools
import math
import re
from collections.abc import Callable, Iterator, Mapping

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import BURNER, PAN, braise, in_words, listed, pot, wanted
from spissus_core.intake.estimated import estimate
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.vessels import Pan
from spissus_core.messages import Argument, Message, Reason, Shown
from spissus_core.phenomena.heating import HeatSetting
from spissus_core.planning.explanation import left_of_it, parts_of, pot_reasons, reasons
from spissus_core.planning.pans import compared
from spissus_core.planning.proposing import solve_routes

#: The smallest and the largest value that a printed figure may stand for.
Interval = tuple[float, float]

Terms = Mapping[str, float]

#: What each phrase of arithmetic claims: the argument that is its result, and how it comes of the others.
EQUATIONS: dict[str, tuple[str, Callable[[Terms], float]]] = {
    "explanation.share_left_how": ("left", lambda a: 100.0 * a["to"] / a["now"]),
    "explanation.scale_how": ("gross", lambda a: a["inside"] + a["empty"]),
    "explanation.time_how": ("best", lambda a: a["first"] + a["steam"] / a["rate"]),
    "explanation.salt_how": ("percent", lambda a: 100.0 * a["salt"] / a["sauce"]),
    "explanation.salt_to_add_how": ("grams", lambda a: (a["share"] * a["sauce"] - a["salt"]) / (1.0 - a["share"])),
    "explanation.strength_how": ("percent", lambda a: 100.0 * a["own"] / a["sauce"]),
    "explanation.body_how": (
        "viscosity",
        lambda a: a["water"] * math.pow(10.0, a["starch"] + a["gelatin"] + a["solubles"] + a["fat"]),
    ),
    "explanation.thickener_how": ("share", lambda a: 100.0 * a["dry"] / a["phase"]),
    "explanation.gum_how": ("share", lambda a: 100.0 * a["dry"] / a["phase"]),
    "explanation.dry_of_strength": ("", lambda a: a["dry"] * a["strength"]),
    "explanation.dry": ("", lambda a: a["amount"]),
    "explanation.in_all_how": ("all", lambda a: a["there"] + a["added"]),
    "explanation.pan_how": ("best", lambda a: a["first"] + a["steam"] / a["rate"]),
    "explanation.left_how": ("share", lambda a: 100.0 * a["now"] / a["start"]),
    "batch.contents_how": ("share", lambda a: 100.0 * a["grams"] / a["mass"]),
    "batch.salt_how": ("percent", lambda a: 100.0 * a["salt"] / a["mass"]),
    "batch.liquid_how": ("volume", lambda a: a["mass"] / a["density"]),
    "intake.line_raw": ("grams", lambda a: a["amount"] * a["rate"] / 100.0),
    "intake.line_all_its_fat": ("grams", lambda a: a["amount"] * a["rate"] / 100.0),
    "intake.line_trimmed": ("grams", lambda a: a["amount"] * a["rate"] / 100.0 * a["trimmed"]),
    "intake.greens_give": ("grams", lambda a: a["share"] / 100.0 * a["held"]),
    "intake.shared_out": ("grams", lambda a: a["all"] * a["share"] / 100.0 * a["passes"] / 100.0),
    "intake.together_sieved": ("grams", lambda a: a["all"] * a["passes"] / 100.0),
}

WIDE = Pan.round("32 cm pan", 320, 160, empty_g=2300)

_FIGURE = re.compile(r"-?\d[\d\u00a0]*(?:\.\d+)?")


def printed(shown: Shown) -> Interval:
    """What a printed figure may stand for: half of its last digit either way, or half a step of the jug."""
    if hours := re.fullmatch(r"(\d+)\u00a0h(?: (\d\d)\u00a0min)?", shown.metric):
        minutes = 60.0 * int(hours[1]) + int(hours[2] or 0)
        return minutes - 0.5, minutes + 0.5
    found = _FIGURE.match(shown.metric)
    assert found, shown
    digits = found.group().replace("\u00a0", "")
    half = 0.5 * 10.0 ** -len(digits.partition(".")[2])
    # A volume is shown in steps of 5 mL, or of half a teaspoon.
    unit = shown.metric.rpartition("\u00a0")[2]
    if unit == "mL":
        half = 2.5 if shown.value >= 50.0 else 1.25
    size = 1000.0 if unit == "L" else 1.0
    half *= size
    return float(digits) * size - half, float(digits) * size + half


def spread(argument: Argument) -> Interval | None:
    """What an argument may come to; None for what is no figure."""
    if isinstance(argument, Shown):
        return printed(argument)
    if isinstance(argument, Message) and argument.key in EQUATIONS:
        return result(argument)
    return None


def result(message: Message) -> Interval:
    """What the terms of a phrase come to, whatever each may stand for."""
    name, equation = EQUATIONS[message.key]
    known = {n: s for n, a in message.arguments.items() if n != name and (s := spread(a)) is not None}
    found = [equation(dict(zip(known, ends, strict=True))) for ends in itertools.product(*known.values())]
    return min(found), max(found)


def equations_in(message: Message) -> Iterator[Message]:
    if message.key in EQUATIONS:
        yield message
    for argument in message.arguments.values():
        for one in argument if isinstance(argument, tuple) else (argument,):
            if isinstance(one, Message):
                yield from equations_in(one)


def check(how: Message) -> int:
    """How many equations of an explanation close; all must."""
    closed = 0
    for message in equations_in(how):
        shown = message.arguments.get(EQUATIONS[message.key][0])
        if isinstance(shown, Shown):
            low, high = result(message)
            least, most = printed(shown)
            assert low <= most + 1e-9, (in_words(how), (low, high), (least, most))
            assert least <= high + 1e-9, (in_words(how), (low, high), (least, most))
            closed += 1
    return closed


def summed(terms: tuple[Reason, ...], *phrases: str) -> Interval:
    """What the lines of a sum come to."""
    ends = [printed(r.how.arguments["grams"]) for r in terms if r.how.key in phrases]  # type: ignore[arg-type]
    return sum(low for low, _ in ends), sum(high for _, high in ends)


@settings(max_examples=60, deadline=None)
@given(
    st.tuples(
        st.floats(300, 6000),
        st.floats(0.05, 1.6),
        st.floats(0, 60),
        st.floats(0, 40),
        st.floats(0.15, 1.05),
        st.integers(1, 4),
    )
)
def test_the_figures_of_every_way_close(told: tuple[float, float, float, float, float, int]) -> None:
    liquid, salt, gelatin, flour, share, body = told
    scale = liquid / 1460.0
    full = braise(liquid, salt=0.01 * salt * liquid, gelatin=gelatin * scale, sugar=15 * scale, other=15 * scale)
    have = pot(full + Contents(starch={"wheat": flour * scale}) if flour > 1.0 else full)
    wish = wanted(max(share * have.contents.liquid_ml, 60.0), body=body)
    ways = solve_routes(have, wish)
    for route in ways:
        # Share left, scale, body and salt at the least.
        assert sum(check(reason.how) for reason in reasons(have, wish, route)) >= 4
    assert sum(check(reason.how) for reason in pot_reasons(have)) >= 3
    assert all(check(part.how) == 1 for part in parts_of(have))
    assert check(left_of_it(share * liquid, liquid)) == 1
    pans = compared(have, min(share, 0.9) * liquid, [(PAN, BURNER), (WIDE, BURNER)], HeatSetting(heat="simmer"))
    assert sum(check(pan.how) for pan in pans if pan.how) == sum(pan.holds_it for pan in pans)


@pytest.mark.parametrize("strain", ["fine", "pressed", "colander", "milled"])
@pytest.mark.parametrize("cooked", [{}, {"trimmed": True}, {"overnight": True, "hours": 5}])
@pytest.mark.parametrize("liquid_ml", [None, 1100.0])
def test_the_figures_of_a_list_close(strain: str, cooked: dict[str, object], liquid_ml: float | None) -> None:
    text = (
        "1.2 kg pork cheek\n300 g duck leg\n12 g salt on the meat\n2 onions\n150 g dried prunes\n1 l stock\n"
        "1 bottle dry cider (750 ml), reduced by half\n40 g lard for frying, poured off\n2 tbsp flour, dredged"
    )
    found = estimate(listed(text, strain=strain, **cooked), PAN, liquid_ml)
    assert sum(check(reason.how) for terms in found.terms.values() for reason in terms) >= 5
    parts = (
        "intake.line_grams",
        "intake.line_raw",
        "intake.line_all_its_fat",
        "intake.line_trimmed",
        "intake.greens_give",
    )
    for name in ("gelatin", "sugar", "acid"):
        terms = found.terms[name]
        whole = printed(terms[-1].how.arguments["all"])  # type: ignore[arg-type]
        low, high = summed(terms, *parts)
        # Lines that bring next to nothing are not named: a tenth of a gram each.
        assert low <= whole[1] + 1e-9
        assert whole[0] <= high + 0.1 * len(terms) + 0.4
    low, high = summed(found.terms["fat"], *parts)
    least, most = printed(found.terms["fat"][-1].how.arguments["grams"])  # type: ignore[arg-type]
    assert low <= most + 1e-9
    assert least <= high + 0.5
    low, high = summed(found.terms["salt"], "intake.line_salt", "intake.salt")
    lost = summed(found.terms["salt"], "intake.less_salt")
    least, most = printed(found.terms["salt"][-1].how.arguments["all"])  # type: ignore[arg-type]
    assert low - lost[1] <= most + 1e-9
    assert least <= high - lost[0] + 0.3
    water = {r.key: printed(r.how.arguments["grams"]) for r in found.terms["liquid"]}  # type: ignore[arg-type]
    gone = [water[key] for key in ("vapour", "held_back", "taken_up") if key in water]
    low = water["water_in"][0] + water["juice"][0] - sum(high for _, high in gone)
    high = water["water_in"][1] + water["juice"][1] - sum(low for low, _ in gone)
    assert low <= water["together"][1]
    assert water["together"][0] <= high

"""What must not get too hot: a probe tells before it parts, and a yolk is warmed until it binds, and no further."""

from __future__ import annotations

from datetime import timedelta

import pytest
from makers import EVENING, event, in_words, started, told, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.planning.plan import best_way
from spissus_core.planning.proposing import solve_routes

from .test_palate import right, sharp

BUTTER = ev.Added(ingredient="butter", mass_g=30)
YOLK = ev.Added(ingredient="egg_yolk", mass_g=17)
TONGUE = ev.Tested(of="salt", verdict="right", twice=True)


def board(*steps: ev.Kind, later: float = 0.0) -> Board:
    log = [event(seq, step) for seq, step in enumerate(steps, 1)]
    return Board(log, EVENING + timedelta(minutes=len(steps) + later))


def said(*steps: ev.Kind, later: float = 0.0) -> str:
    found = board(*steps, later=later)
    return in_words(found.act.said(found.timeline))


def test_a_probe_over_what_butter_bears_is_told_at_once() -> None:
    assert said(*right(), BUTTER, ev.Probed(celsius=86)).startswith("86 °C, and butter parts over 80 °C.")
    assert "parts over" not in said(*right(), BUTTER, ev.Probed(celsius=76))
    # Of a sauce with nothing in it that parts a boil is a boil.
    assert "parts over" not in said(*right(), ev.Probed(celsius=99))


def test_it_is_told_until_it_has_cooled_or_the_reading_is_old() -> None:
    hot = (*right(), BUTTER, ev.Probed(celsius=86))
    assert "parts over" not in said(*hot, ev.Probed(celsius=78))
    assert "parts over" not in said(*hot, later=15.0)


def test_a_yolk_is_warmed_until_it_binds_and_no_further() -> None:
    raw = (*right(), YOLK)
    assert said(*raw) == "Warm it gently, stirring, to 72 °C. Stop short of 80 °C: it coats, and no bubble rises."
    assert "Warm it gently" in said(*raw, ev.Probed(celsius=64))
    assert "Warm it gently" not in said(*raw, ev.Probed(celsius=74))
    assert "Warm it gently" not in said(*raw, ev.Seen(sign="yolk_coats"))
    assert said(*raw, ev.Probed(celsius=84)).startswith("84 °C, and yolk flakes over 80 °C.")


@pytest.mark.parametrize(
    ("celsius", "begins"),
    [(90, "Let it cool to 80 °C first."), (50, "Warm it to 75 °C first.")],
)
def test_butter_goes_in_within_its_window(celsius: float, begins: str) -> None:
    tasted = (*sharp(), sharp()[-1], ev.Salted(salt_g=0.8), TONGUE, ev.Tested(of="sour", verdict="high"))
    assert "cold butter" in said(*tasted)
    assert begins in said(*tasted, ev.Probed(celsius=celsius))
    assert "first" not in said(*tasted, ev.Probed(celsius=77))


def test_butter_that_goes_in_first_bars_every_boil() -> None:
    """A pot in the wrong order: nobody would propose to boil it down now, and what boils comes off first."""
    begun = (started("1.5 l", salt={"by": "meter", "percent": 0.55}), wanted(450), BUTTER)
    state = told(*begun)
    way = best_way(state)
    assert way is not None
    assert way.steam_g == 0.0
    assert state.pot is not None
    barred = [one for one in solve_routes(state.pot, wanted(450), splits=frozenset({"butter"})) if not one.feasible]
    assert any("butter in it" in in_words(one.reason or "") for one in barred)
    boils = (
        *begun,
        ev.Chosen(route=way.kind),
        ev.Heated(heat="boil"),
        ev.Answered(concern="butter", answer="in_order"),
    )
    assert said(*boils) == "Take it off the heat. There is butter in it, and that parts on the boil."

"""How strongly a kitchen's thickener binds is learned from its spoons, and the next dose goes by it."""

from __future__ import annotations

import math

import numpy as np
import pytest
from makers import event, fold, in_words, started, wanted
from scipy import stats
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.estimation.spoon import likelihood, steps_over
from spissus_core.fold import Timeline
from spissus_core.learning.strength import BATCHES_DIFFER, KITCHENS_DIFFER, learned_strengths, taught_strength
from spissus_core.pantry.schools import LearnedStrength, school
from spissus_core.planning.solving import Route, solve_route
from spissus_core.planning.trade import trade

WAY = "all-volume-corn_starch_own"
STARCH = school("corn_starch")


def begun(**more: object) -> ev.Started:
    plain = started("1.2 l", salt={"by": "meter", "percent": 0.3})
    return plain.kept_with(**more) if more else plain  # type: ignore[return-value]


def bound_by(*steps: ev.Kind, start: ev.Started | None = None) -> Timeline:
    chosen = (start or begun(), wanted(1000), ev.Chosen(route=WAY))
    payloads = (*chosen, *steps, ev.Finished())
    return fold([event(seq, one) for seq, one in enumerate(payloads, 1)])


def starch(grams: float, **more: object) -> ev.Thickened:
    return ev.Thickened(thickener="corn_starch", dry_g=grams, **more)


def spoon(verdict: str) -> ev.Tested:
    return ev.Tested.model_validate({"of": "body", "verdict": verdict})


def foreseen(start: ev.Started | None = None) -> Route:
    pot = fold([event(1, start or begun())]).pot
    assert pot is not None
    return solve_route(pot, wanted(1000), WAY)


def test_a_starch_that_had_to_be_doubled_teaches_that_it_is_weak() -> None:
    dose = foreseen().dry_g
    taught = taught_strength(bound_by(starch(dose), spoon("low"), starch(dose), spoon("right")))
    assert taught is not None
    assert taught.dry == "corn starch"
    assert taught.log_times < -0.2


def test_one_that_was_too_thick_by_its_dose_teaches_that_it_is_strong() -> None:
    taught = taught_strength(bound_by(starch(foreseen().dry_g), spoon("high")))
    assert taught is not None
    assert taught.log_times > 0.1


@pytest.mark.parametrize(
    "steps",
    [
        (starch(8.0),),
        (spoon("low"), starch(8.0)),
        (starch(8.0), ev.Thickened(thickener="white_roux", dry_g=5.0), spoon("right")),
        (spoon("right"),),
    ],
)
def test_nothing_is_taught_where_nobody_looked_or_two_thickeners_are_in_it(steps: tuple[ev.Kind, ...]) -> None:
    assert taught_strength(bound_by(*steps)) is None


def test_schools_of_the_same_starch_teach_the_same() -> None:
    dose = foreseen().dry_g
    own = ev.Thickened(thickener="corn_starch_own", dry_g=dose)
    assert taught_strength(bound_by(starch(dose), spoon("low"), own, spoon("right"))) is not None


@pytest.mark.parametrize("thickener", ["roux_gelatin", "starch_xanthan", "xanthan", "vegetable_puree"])
def test_what_is_no_flour_alone_teaches_nothing_of_flour(thickener: str) -> None:
    """Of a pair nobody knows which of both was weak, and a gum or a purée is dosed by no strength of a starch."""
    steps = [ev.Thickened(thickener=thickener, dry_g=3.0), spoon("low")] * 3
    assert taught_strength(bound_by(*steps, spoon("right"))) is None


def weak(times: float, batches: int = 3) -> ev.Started:
    return begun(binds={"corn starch": LearnedStrength(times=times, spread=0.1, batches=batches)})


@pytest.mark.parametrize("times", [0.6, 0.8, 1.3])
def test_the_next_dose_goes_by_it(times: float) -> None:
    plain, learned = foreseen(), foreseen(weak(times))
    assert learned.dry_g == pytest.approx(plain.dry_g / times, rel=0.05)
    assert learned.body.step == plain.body.step
    # Another thickener is as strong as ever.
    pot = fold([event(1, weak(times))]).pot
    assert pot is not None
    roux = solve_route(pot, wanted(1000), "all-volume-white_roux")
    before = fold([event(1, begun())]).pot
    assert before is not None
    assert roux.dry_g == pytest.approx(solve_route(before, wanted(1000), "all-volume-white_roux").dry_g)
    point, other = trade(pot, wanted(1000))[8], trade(before, wanted(1000))[8]
    assert point.dry_g["corn_starch_own"] == pytest.approx(other.dry_g["corn_starch_own"] / times, rel=0.05)


def test_two_batches_are_not_gone_by_yet() -> None:
    assert foreseen(weak(0.6, batches=2)).dry_g == pytest.approx(foreseen().dry_g)


def test_what_went_in_as_it_was_learned_binds_as_foreseen_and_teaches_nothing_new() -> None:
    """Bound by the dose that was foreseen, and right: it is as weak as was known."""
    start, way = weak(0.7), "all-here-corn_starch_own"
    pot = fold([event(1, start)]).pot
    assert pot is not None
    route = solve_route(pot, wanted(1000), way)
    kept = starch(route.dry_g, school=STARCH.binding(0.7))
    board = Board([event(n, one) for n, one in enumerate((start, wanted(1000), ev.Chosen(route=way), kept), 1)])
    assert board.timeline.pot
    assert board.timeline.pot.body.step == route.body.step
    taught = taught_strength(bound_by(kept, spoon("right"), spoon("right"), start=start))
    assert taught is not None
    assert taught.log_times == pytest.approx(math.log(0.7), abs=0.15)


def test_a_kitchen_of_weak_starch_is_found_out_over_its_batches() -> None:
    """Ten batches by spoons that err, drawn with a fixed seed: the truth lies within the interval, and doses by it."""
    draw, truth = np.random.default_rng(7), 0.7
    taught: dict[str, list[tuple[float, float]]] = {"corn starch": []}
    for _ in range(10):
        times = truth * math.exp(draw.normal(0.0, BATCHES_DIFFER))
        dose, steps, said = foreseen().dry_g, [], ""
        while said != "right" and len(steps) < 10:
            steps.append(starch(dose if not steps else 0.3 * dose))
            said = _said_of(bound_by(*(starch(s.dry_g, school=STARCH.binding(times)) for s in steps[::2])), draw)
            steps.append(spoon(said))
            if said == "high":
                break
        one = taught_strength(bound_by(*steps))
        if one is not None:
            taught["corn starch"].append((one.log_times, one.error))
    learned = learned_strengths(taught)["corn starch"]
    assert abs(math.log(learned.times / truth)) < 2.5 * learned.spread
    assert learned.times < 0.9


def _said_of(timeline: Timeline, draw: np.random.Generator) -> str:
    assert timeline.pot is not None
    gap = steps_over(timeline.pot.contents, 3)[12:13, 12:13]
    chances = [float(likelihood(gap, verdict)[0, 0]) for verdict in ("low", "right", "high")]
    return str(draw.choice(["low", "right", "high"], p=np.array(chances) / sum(chances)))


def test_several_batches_are_weighed_as_scipy_weighs_them() -> None:
    """The posterior of SciPy's normal densities over a fine grid."""
    taught = [(-0.4, 0.2), (-0.1, 0.3), (-0.25, 0.15)]
    at = np.linspace(-3.0, 3.0, 20001)
    density = stats.norm.pdf(at, 0.0, KITCHENS_DIFFER)
    for log_times, error in taught:
        density *= stats.norm.pdf(at, log_times, math.hypot(error, BATCHES_DIFFER))
    mean = float((at * density).sum() / density.sum())
    spread = float(np.sqrt(((at - mean) ** 2 * density).sum() / density.sum()))
    learned = learned_strengths({"flour": taught})["flour"]
    assert math.log(learned.times) == pytest.approx(mean, abs=1e-6)
    assert learned.spread == pytest.approx(spread, rel=1e-4)
    assert learned.batches == 3


def test_a_thickener_that_binds_weakly_is_asked_about_before_more_of_it_goes_in() -> None:
    dose, steps, lines = foreseen().dry_g, [begun(), wanted(1000), ev.Chosen(route="all-here-corn_starch_own")], []
    for _ in range(5):
        steps += [starch(dose), ev.Tested(of="body", verdict="low", again="low")]
        board = Board([event(n, one) for n, one in enumerate(steps, 1)])
        lines.append(in_words(board.act.said(board.timeline)))
    # Once, and not at the first spoon.
    assert "thickens weakly" not in lines[0]
    assert ["thickens weakly: has it boiled" in line for line in lines].count(True) == 1


@pytest.mark.parametrize("log_times", [-50.0, -3.0, 3.0, 50.0])
def test_however_odd_what_was_taught_is_a_kitchen_goes_on(log_times: float) -> None:
    """A row of a file that was made up, or spoons that were all wrong: no plan and no entry fails for it."""
    learned = learned_strengths({"corn starch": [(log_times, 0.05)] * 9})["corn starch"]
    assert 1.0 / 3.0 <= learned.times <= 3.0
    for times in (learned.times, 20.0, 0.01):
        known = LearnedStrength(times=times, spread=0.1, batches=9)
        assert foreseen(begun(binds={"corn starch": known})).dry_g >= 0.0

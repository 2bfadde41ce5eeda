"""The rate of a pan on a burner, from the batches that boiled down on it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import cast

from ..estimation.window import Window
from ..events import State
from ..phenomena.evaporation import COVERS
from ..phenomena.heating import HeatKind, LearnedRate

#: The same pan on the same burner differs by this from batch to batch, log standard deviation. Modelling choice.
BETWEEN_BATCHES = 0.12


def combined(heat: HeatKind, rates: Sequence[tuple[float, float]]) -> LearnedRate:
    """What several batches say together: net power, kW, each with its log standard deviation.

    Weighed by precision in the logarithm; the next batch will differ from them as they do from one
    another.
    """
    weights = [1.0 / (spread**2 + BETWEEN_BATCHES**2) for _, spread in rates]
    mean = sum(w * math.log(kw) for w, (kw, _) in zip(weights, rates, strict=True)) / sum(weights)
    spread = math.sqrt(1.0 / sum(weights) + BETWEEN_BATCHES**2)
    return LearnedRate(heat=heat, net_kw=math.exp(mean), spread=min(spread, 1.0), batches=len(rates))


#: Fewer readings than this teach nothing that the next batch could use.
LEAST_TO_TEACH = 2

#: Net powers and spreads that can be kept, kW and log standard deviation: whatever lies outside was not learned well.
LEAST_KW, MOST_KW, MOST_SPREAD = 0.01, 40.0, 1.0


def taught_rate(state: State) -> LearnedRate | None:
    """What a batch taught of its pan on its burner at the full setting, or None: too few readings, or two pans."""
    window, pot = _taught_by(state), state.pot
    if window is None or pot is None or pot.beside is not None or window.track.readings < LEAST_TO_TEACH:
        return None
    setting, track = window.setting, window.track
    factor = COVERS[setting.cover].share.best * (setting.share if setting.heat == "boil" else 1.0)
    kw = track.power_range.best / 60.0 / factor
    return LearnedRate(
        heat=cast(HeatKind, setting.heat),
        net_kw=min(max(kw, LEAST_KW), MOST_KW),
        spread=min(track.power_spread, MOST_SPREAD),
        batches=1,
    )


def _taught_by(state: State) -> Window | None:
    """The stretch with readings enough, the one under way before the one before."""
    for window in (state.stove.window, state.stove.timed):
        if (
            window is not None
            and window.track.readings >= LEAST_TO_TEACH
            and window.setting.heat not in ("off", "hold")
        ):
            return window
    return None

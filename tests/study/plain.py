"""The cook to be beaten: a plain rule by jug, spoon and tongue, on the evenings of the obedient cook.

Nothing here asks the app. This cook takes the fat off twice, boils all of it down in three stages to the first of twice
its strength, the salt that is liked and the amount, and tastes on the way; binds with three spoonfuls before each
correction, of nine tenths of what they say together; and salts once, by three tastes. It knows its thickener to 12 %,
which nobody does who has not used that packet before, and how much of it a step takes, which takes years.
"""

from __future__ import annotations

import copy
import math

from scipy.optimize import brentq

from tests.study.obedient import EYE, MOST_STRENGTH, STRENGTHS, Evening

#: Where it is looked at and tasted: shares of the way to its mark.
STAGES = (0.75, 0.9, 1.0)

#: How well it knows its thickener, a log standard deviation.
KNOWN = 0.12

#: So much of what is missing is put right at once; so near it is right, steps and points; and no more corrections.
AT_ONCE, NEAR_STEP, NEAR_SALT, MOST_CORRECTIONS = 0.9, 0.25, 0.08, 5


class Plain(Evening):
    """An evening of the plain cook."""

    def run(self) -> Plain:
        """From the strained liquid to the sauce."""
        self.known = math.exp(self.rng.normal(0.0, KNOWN if self.senses.spoon else 0.0))
        self.way, self.told_amount = "plain", min(self.amount, self.pot.ml)
        if self.tells:
            self.told_amount = 0.0
        for low, high in ((0.9, 0.95), (0.6, 0.95)):
            self.pot.fat *= 1.0 - self.rng.uniform(low, high)
            self._did(6.0)
        self._boil_down()
        self._bind()
        self._season()
        self.verdict = self.judged()
        return self

    def _did(self, minutes: float) -> None:
        self.acts.append((None, self.state()))
        self.wait(minutes)

    def _tastes(self, times: int, error: float) -> float:
        """Salt as it tastes, %, the mean of so many."""
        self.tastes += times
        self._did(1.0)
        if self.method == "eye":
            return self.metered()
        return self.pot.salt_percent + float(self.rng.normal(0.0, error / math.sqrt(times)))

    def _spoons(self, times: int = 3) -> float:
        """Steps over what is wanted, the mean of so many spoonfuls."""
        self.spoons += times
        self._did(1.0)
        error = self.senses.spoon / math.sqrt(times)
        return self.pot.step - (self.body + 0.5) + float(self.rng.normal(0.0, error))

    def _volume_ml(self) -> float:
        error = EYE if self.method == "eye" and self.senses.jug else self.senses.jug
        return self.pot.ml * (1.0 + float(self.rng.normal(0.0, error)))

    def _boil_down(self) -> None:
        pot, raw = self.pot, self.senses.raw_tongue
        begun = self.wished_ml = self._volume_ml()
        field, value = self.tells or ("", 0.0)
        salt, weight = self._tastes(2, raw), 2.0 / max(raw, 1e-6) ** 2
        for share in STAGES:
            stands = self._volume_ml()
            mark = max(self.amount, begun / MOST_STRENGTH, stands * salt / self.liking)
            mark = {"share": value * begun, "at_salt_percent": stands * salt / max(value, 0.01)}.get(field, mark)
            to_lose = stands - (begun - share * (begun - mark) if share < 1.0 else mark)
            minutes = (to_lose * 2.2565 + pot.pending_kj) / (pot.kw * 60.0)
            if field == "minutes":
                minutes = share * value - self.boiled_min
            elif to_lose <= 0.02 * stands:
                continue
            before = pot.ml
            pot.boil(minutes)
            self.boiled_min += minutes
            self.boiled_to = copy.copy(pot)
            self._did(minutes)
            # What was tasted before stands for the salt that is in it still.
            salt *= before / pot.ml
            if share < 1.0:
                tasted, more = self._tastes(2, self.senses.tongue * 1.5), 2.0 / max(self.senses.tongue * 1.5, 1e-6) ** 2
                salt, weight = (salt * weight + tasted * more) / (weight + more), weight + more

    def _bind(self) -> None:
        for _ in range(MOST_CORRECTIONS):
            over = self._spoons()
            if abs(over) <= NEAR_STEP:
                return
            if over < 0.0:
                grams = self._dose(-AT_ONCE * over)
                self.pot.starch += STRENGTHS["corn_starch_own"] * grams * (1.0 + self.rng.normal(0.0, 0.03))
                self.parts += 1
                self._did(3.5)
            else:
                self.pot.water += self._water(AT_ONCE * over)
                self._did(1.0)

    def _dose(self, steps: float) -> float:
        """Starch, g, that this cook thinks makes so many steps."""
        trial = copy.copy(self.pot)
        trial.thickener *= self.known
        aim = trial.step + steps

        def off(grams: float) -> float:
            trial.starch = self.pot.starch + STRENGTHS["corn_starch_own"] * grams
            return trial.step - aim

        most = 0.2 * self.pot.liquid_g
        return most if off(most) < 0.0 else float(brentq(off, 0.0, most, xtol=0.01))

    def _water(self, steps: float) -> float:
        """Water, g, that takes so many steps away."""
        trial = copy.copy(self.pot)
        aim = self.pot.step - steps

        def off(grams: float) -> float:
            trial.water = self.pot.water + grams
            return trial.step - aim

        most = 1.5 * self.pot.liquid_g
        return most if off(most) > 0.0 else float(brentq(off, 0.0, most, xtol=0.1))

    def _season(self) -> None:
        tasted = self._tastes(3, self.senses.tongue)
        missing = self.liking - tasted
        if missing > NEAR_SALT:
            grams = missing / 100.0 * self.pot.liquid_g
            self.pot.salt += grams * (1.0 + float(self.rng.normal(0.0, 0.03)))
            self._did(1.0)
        elif missing < -NEAR_SALT:
            self.pot.water += AT_ONCE * (tasted / self.liking - 1.0) * self.pot.liquid_g
            self._did(1.0)
            self._bind()

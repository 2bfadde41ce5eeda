"""A number with the range it may really have."""

from __future__ import annotations

import math
from dataclasses import dataclass

#: Half-width of a central 80 % interval of a normal distribution, in standard deviations.
Z80 = 1.2816


@dataclass(frozen=True, slots=True)
class Estimate:
    """A best value between the ends of its 80 % interval."""

    low: float
    best: float
    high: float

    def __post_init__(self) -> None:
        if not self.low <= self.best <= self.high:
            raise ValueError(f"not ordered: {self.low} <= {self.best} <= {self.high}")

    @classmethod
    def exact(cls, value: float) -> Estimate:
        """A value known without error."""
        return cls(value, value, value)

    @classmethod
    def log_normal(cls, best: float, spread: float) -> Estimate:
        """80 % interval of a log-normal with median ``best`` and log standard deviation ``spread``."""
        factor = math.exp(Z80 * spread)
        return cls(best / factor, best, best * factor)

    def scaled(self, factor: float) -> Estimate:
        """The estimate times a non-negative constant."""
        return Estimate(self.low * factor, self.best * factor, self.high * factor)

    def at_most(self, most: float) -> Estimate:
        """The estimate where no more than ``most`` can be."""
        return Estimate(min(self.low, most), min(self.best, most), min(self.high, most))

    def plus(self, other: Estimate) -> Estimate:
        """Both together, their ends added: for spans that are wide on the same day."""
        return Estimate(self.low + other.low, self.best + other.best, self.high + other.high)

    def times(self, other: Estimate) -> Estimate:
        """The product of two independent figures, none of them zero: their ratios added in quadrature (JCGM 100)."""
        down = math.hypot(math.log(self.best / self.low), math.log(other.best / other.low))
        up = math.hypot(math.log(self.high / self.best), math.log(other.high / other.best))
        best = self.best * other.best
        return Estimate(best * math.exp(-down), best, best * math.exp(up))

    def divided_into(self, amount: float) -> Estimate:
        """``amount`` / self: a high rate gives the short time."""
        return Estimate(amount / self.high, amount / self.best, amount / self.low)

    def weighed_with(self, other: Estimate) -> Estimate:
        """This and an independent estimate of the same thing as one, each by the inverse of its variance."""
        if self.low == self.high:
            return self
        if other.low == other.high:
            return other
        mine, theirs = ((e.high - e.low) ** -2.0 for e in (self, other))
        best = (mine * self.best + theirs * other.best) / (mine + theirs)
        half = 0.5 * (mine + theirs) ** -0.5
        return Estimate(max(best - half, 0.0), best, best + half)

    def apart_from(self, other: Estimate) -> float:
        """How far apart two estimates of the same thing are, in their intervals together: 1 is as far as they allow."""
        far = abs(self.best - other.best)
        room = 0.5 * math.hypot(self.high - self.low, other.high - other.low)
        return far / room if room > 0.0 else math.inf

    def widened(self, factor: float) -> Estimate:
        """The same best value with ends ``factor`` times as far away, if that is farther."""
        by = max(factor, 1.0)
        return Estimate(
            max(self.best - by * (self.best - self.low), 0.0), self.best, self.best + by * (self.high - self.best)
        )

    def agrees_with(self, other: Estimate) -> bool:
        """Whether the two intervals overlap."""
        return self.low <= other.high and other.low <= self.high

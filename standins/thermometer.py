"""A probe thermometer: a pot at a boil, or one that cools towards its surroundings."""

from __future__ import annotations

import math
import random

from .device import parser, run


def main() -> None:
    options = parser(__doc__, every_s=10.0)
    options.add_argument("--celsius", type=float, default=100.0, help="temperature at the beginning, °C")
    options.add_argument("--surroundings", type=float, help="what it cools in, °C; it keeps its heat without")
    options.add_argument("--constant", type=float, default=70.0, help="time constant of the cooling, min")
    options.add_argument("--noise", type=float, default=0.2, help="standard error of a reading, K")
    given = options.parse_args()

    def read(minute: float, noise: random.Random) -> float:
        celsius = given.celsius
        if given.surroundings is not None:
            excess = given.celsius - given.surroundings
            celsius = given.surroundings + excess * math.exp(-minute / given.constant)
        return float(celsius + noise.gauss(0.0, given.noise))

    run(given, read)


if __name__ == "__main__":
    main()

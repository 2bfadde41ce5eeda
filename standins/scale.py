"""A kitchen scale under a boiling pan: gross weight once a second, falling as the steam leaves."""

from __future__ import annotations

import random

from .device import parser, run


def main() -> None:
    options = parser(__doc__, every_s=1.0)
    options.add_argument("--gross", type=float, required=True, help="pan and contents at the beginning, g")
    options.add_argument("--steam", type=float, default=27.0, help="steam, g a minute")
    options.add_argument("--floor", type=float, default=0.0, help="weight at which someone turns the heat off, g")
    options.add_argument("--noise", type=float, default=1.0, help="standard error of a reading, g")
    given = options.parse_args()

    def read(minute: float, noise: random.Random) -> float:
        return float(max(given.gross - given.steam * minute, given.floor) + noise.gauss(0.0, given.noise))

    run(given, read)


if __name__ == "__main__":
    main()

"""A salt meter dipped into a boiling pot every few minutes: what salt there is, in less and less liquid."""

from __future__ import annotations

import random

from .device import parser, run


def main() -> None:
    options = parser(__doc__, every_s=240.0)
    options.add_argument("--salt", type=float, required=True, help="salt in the pot, g")
    options.add_argument("--liquid", type=float, required=True, help="liquid at the beginning, g")
    options.add_argument("--steam", type=float, default=27.0, help="steam, g a minute")
    options.add_argument("--floor", type=float, default=100.0, help="liquid at which the heat is off, g")
    options.add_argument("--noise", type=float, default=0.02, help="standard error of a reading, %%")
    given = options.parse_args()

    def read(minute: float, noise: random.Random) -> float:
        liquid = max(given.liquid - given.steam * minute, given.floor)
        return float(max(100.0 * given.salt / liquid + noise.gauss(0.0, given.noise), 0.0))

    run(given, read)


if __name__ == "__main__":
    main()

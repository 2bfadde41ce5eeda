"""A house dish: a batch that is kept to be cooked again, for other numbers and in other pans.

What is kept of it is what was said: the start, the wish, the way and what was stirred in, as events. Masses follow the
number of people. Salt follows the ledger, as in every batch. Time does not scale: it is worked out for the pan and the
burner that are taken.
"""

from .ahead import Foreseen, foreseen, most_people
from .changes import changes
from .dish import HouseDish, kept_from
from .prep import Needed, needed
from .said import cooked_said, in_short, wanted_said, way_said

__all__ = [
    "Foreseen",
    "HouseDish",
    "Needed",
    "changes",
    "cooked_said",
    "foreseen",
    "in_short",
    "kept_from",
    "most_people",
    "needed",
    "wanted_said",
    "way_said",
]

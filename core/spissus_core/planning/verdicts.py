"""What a tongue may answer: the words on the buttons, and the verdict that each stands for."""

from __future__ import annotations

from ..events.state import Taste
from ..messages import Message, Term, say
from ..phenomena.palate import Sensed, Side, said_of

#: Of salt.
TONGUE: tuple[tuple[Message, Taste], ...] = (
    (say("answers.flat"), "flat"),
    (say("answers.nearly"), "nearly"),
    (say("answers.right"), "right"),
    (say("answers.salty"), "salty"),
    (say("answers.too_salty"), "too_salty"),
)


def palate(of: Sensed) -> tuple[tuple[Message, Side], ...]:
    """Of anything else that is tasted."""
    return tuple((say("answers.found", found=Term(word)), verdict) for verdict, word in said_of(of).items())

"""What the core says when it cannot use what it was given."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from .messages import Message


class SpissusError(ValueError):
    """Input the core cannot use.

    ``field`` is the dotted name of the offending input, ``message`` what a cook is told, and can act on.
    """

    def __init__(self, field: str, message: Message) -> None:
        super().__init__(str(message))
        self.field = field
        self.message = message


class AskedError(SpissusError):
    """Input that contradicts what is known, and may be right all the same: the cook is asked.

    ``answers`` are what may be answered, each with the fields that say so.
    """

    answers: Sequence[tuple[Message, Mapping[str, str]]] = ()


class SetAsideError(SpissusError):
    """An event that cannot be worked out, whatever the reason: it is left out and everything else goes on."""

    def __init__(self, message: Message) -> None:
        super().__init__("kind", message)


class QuantityError(SpissusError):
    """An amount that cannot be read, or lies outside what a kitchen can hold."""


class MeasurementError(SpissusError):
    """A measurement that contradicts the pan it was taken in."""


class TargetError(SpissusError):
    """A wish the pot in hand cannot meet."""

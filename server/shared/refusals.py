"""What is not done, and why, where it is no field's fault."""

from __future__ import annotations

from typing import Any

from ninja.errors import HttpError
from spissus_core.messages import Message
from words import plain


class RefusedError(HttpError):
    """Not done: a status of HTTP, and what is said of it."""

    def __init__(self, status_code: int, said: Message) -> None:
        super().__init__(status_code, plain(said))


def may_refuse(*statuses: int) -> dict[str, Any]:
    """What a view answers beside that, for its ``openapi_extra``."""
    return {"x-refused": list(statuses)}

"""What is not done, and why, where it is no field's fault."""

from __future__ import annotations

import math
from typing import Any

from ninja.errors import HttpError
from spissus_core.amounts.quantities import show_number
from spissus_core.messages import Message, Shown
from words import plain


class RefusedError(HttpError):
    """Not done: a status of HTTP, what is said of it, and after how many seconds it may be asked for again."""

    def __init__(self, status_code: int, said: Message, retry_s: float | None = None) -> None:
        super().__init__(status_code, plain(said))
        self.retry_s = retry_s


def wait_shown(seconds: float) -> Shown:
    """How long to wait, as one would say it: seconds up to a minute and a half, whole minutes past it."""
    if seconds < 90.0:
        return show_number(max(math.ceil(seconds), 1), 0, "s")
    return show_number(math.ceil(seconds / 60.0), 0, "min")


def may_refuse(*statuses: int) -> dict[str, Any]:
    """What a view answers beside that, for its ``openapi_extra``."""
    return {"x-refused": list(statuses)}

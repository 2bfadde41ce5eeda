"""Passwords, hashed so that guessing is slow and signing in is not."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from threading import BoundedSemaphore

from django.contrib.auth.hashers import Argon2PasswordHasher
from shared.refusals import RefusedError
from spissus_core.messages import say

#: Hashes worked out at once in a process, and how long one waits for its turn, s: a crowd at the door
#: must not take the processor from those who cook.
AT_ONCE, PATIENCE_S = 2, 4.0

_turns = BoundedSemaphore(AT_ONCE)


@contextmanager
def _turn() -> Iterator[None]:
    if not _turns.acquire(timeout=PATIENCE_S):
        raise RefusedError(503, say("kitchen.too_many_sign_in"))
    try:
        yield
    finally:
        _turns.release()


class Argon2(Argon2PasswordHasher):
    """Argon2id with 19 MiB, two rounds and one lane (OWASP Password Storage Cheat Sheet, 2024)."""

    memory_cost = 19 * 1024
    time_cost = 2
    parallelism = 1

    def encode(self, password: str, salt: str) -> str:
        with _turn():
            return super().encode(password, salt)

    def verify(self, password: str, encoded: str) -> bool:
        with _turn():
            return super().verify(password, encoded)

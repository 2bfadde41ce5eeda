"""Passwords, hashed so that guessing is slow and signing in is not. Who waits for it, waits at the door."""

from __future__ import annotations

from django.contrib.auth.hashers import Argon2PasswordHasher


class Argon2(Argon2PasswordHasher):
    """Argon2id with 19 MiB, two rounds and one lane (OWASP Password Storage Cheat Sheet, 2024)."""

    memory_cost = 19 * 1024
    time_cost = 2
    parallelism = 1

"""Codes that are read out or typed once; nothing is kept of one but a digest."""

from __future__ import annotations

from typing import Annotated

from django.utils.crypto import get_random_string, salted_hmac
from pydantic import Field

#: What a code is drawn from, by Django's generator: no two signs of it are taken for each other. Ten of them are 49
#: bits, of which a guesser may try a few a minute.
SIGNS, LENGTH = "abcdefghjkmnpqrstuvwxyz23456789", 10

#: A code as somebody typed it.
Code = Annotated[str, Field(max_length=60)]


def drawn() -> str:
    """A new code."""
    return get_random_string(LENGTH, SIGNS)


def digest(of: str, code: str) -> str:
    """What is kept of a code ``of`` something; hyphens, spaces and capitals are nothing of it."""
    plain = "".join(sign for sign in code.lower() if sign.isalnum())
    return salted_hmac(of, plain, algorithm="sha256").hexdigest()

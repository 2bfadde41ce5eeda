"""What other apps may ask of the people."""

from __future__ import annotations

from django.http import HttpRequest

from .models import User

__all__ = ["User", "newcomer", "signed_in"]


def signed_in(request: HttpRequest) -> User:
    """Who is behind a request that only the signed-in may make."""
    user = request.user
    assert isinstance(user, User)
    return user


def newcomer(name: str) -> User:
    """Somebody without a password: only a one-tap way leads in."""
    user = User(username=name)
    user.set_unusable_password()
    user.save()
    return user

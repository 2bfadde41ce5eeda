"""Set someone's password anew, for when it is forgotten."""

from __future__ import annotations

import sys
from getpass import getpass
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError, CommandParser
from live.services import end_streams

from people.models import User


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")

    def handle(self, *args: Any, **options: Any) -> None:
        user = User.objects.filter(username__iexact=User.normalize_username(options["name"])).first()
        if user is None:
            raise CommandError(f"Nobody signs in as {options['name']}.")
        asked = sys.stdin.isatty()
        password = getpass(f"New password of {user.username}: ") if asked else sys.stdin.readline().rstrip("\n")
        if asked and getpass("The same again: ") != password:
            raise CommandError("These two are not the same. Nothing was changed.")
        try:
            validate_password(password, user)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from None
        user.set_password(password)
        user.save(update_fields=["password"])
        # Whoever is signed in by the old one is signed out by the change; their open pages are told.
        end_streams(person=user.pk)
        self.stdout.write(f"{user.username} has a new password; everywhere else they are signed out.")

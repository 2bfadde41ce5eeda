"""Take what is new in a kitchen's file into the kitchen of somebody: all of it, or nothing."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from kitchens.services import member_called
from spissus_core.errors import SpissusError
from words import plain

from archive.services import take


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name", help="the name that its owner signs in with")
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        member = member_called(options["name"])
        if member is None:
            raise CommandError(f"Nobody who owns a kitchen signs in as {options['name']}.")
        try:
            text = options["file"].read_bytes()
        except OSError as error:
            raise CommandError(f"{options['file']} cannot be read: {error.strerror}.") from None
        try:
            _, looked = take(member, text)
        except SpissusError as error:
            raise CommandError(plain(error.message)) from None
        for name, why in looked.refused:
            self.stderr.write(f"Not taken: {name}: {plain(why)}")
        new = sum(len(rows) for rows in looked.new.values())
        self.stdout.write(f"Taken into {member.kitchen.name}: {len(looked.batches)} batches, {new} other rows.")

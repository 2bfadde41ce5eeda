"""Write the kitchen of somebody into a file, to keep or to take elsewhere."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from kitchens.services import member_called

from archive.services import file_of


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name", help="the name that its owner signs in with")
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        member, file = member_called(options["name"]), options["file"]
        if member is None:
            raise CommandError(f"Nobody who owns a kitchen signs in as {options['name']}.")
        # A file that is half written is nowhere to be found under its name.
        part = file.with_name(f"{file.name}.part")
        with part.open("w", encoding="utf-8") as out:
            out.writelines(file_of(member))
        part.replace(file)
        self.stdout.write(f"{member.kitchen.name} is in {file}.")

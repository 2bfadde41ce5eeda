"""Load the demo kitchen."""

from datetime import UTC, datetime
from typing import Any

from django.core.management.base import BaseCommand

from demo.kitchen import load


class Command(BaseCommand):
    help = "Load the demo kitchen, unless it stands already."

    def handle(self, *args: Any, **options: Any) -> None:
        load(datetime.now(UTC))

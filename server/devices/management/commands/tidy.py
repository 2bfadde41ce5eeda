"""Let go of what serves nobody any more: old raw readings, ended sessions, kitchens nobody claimed, old counts."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from axes.models import AccessAttempt, AccessFailureLog
from django.core.management.base import BaseCommand
from django.db import connection
from kitchens.services import let_visitors_go
from people.services import let_sessions_go

from devices.services import let_raw_go


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        now = datetime.now(UTC)
        readings = let_raw_go(now)
        sessions = let_sessions_go(now)
        visitors = let_visitors_go()
        yesterday = now - timedelta(days=1)
        # The library's first table is what earlier versions counted in.
        attempts = sum(
            of.objects.filter(attempt_time__lt=yesterday).delete()[0] for of in (AccessFailureLog, AccessAttempt)
        )
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM spissus_counts WHERE expires < %s", [now])
            counts = cursor.rowcount
        self.stdout.write(
            f"{readings} raw readings, {sessions} ended sessions, {visitors} kitchens that nobody claimed"
            f" and {attempts + counts} old counts are gone."
        )

"""Let go of what serves nobody any more: old raw readings, ended sessions, old counts."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from axes.models import AccessAttempt
from django.contrib.sessions.models import Session
from django.core.management.base import BaseCommand
from django.db import connection

from devices.services import let_raw_go


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        now = datetime.now(UTC)
        readings = let_raw_go(now)
        sessions = Session.objects.filter(expire_date__lt=now).delete()[0]
        attempts = AccessAttempt.objects.filter(attempt_time__lt=now - timedelta(days=1)).delete()[0]
        with connection.cursor() as cursor:
            cursor.execute("DELETE FROM spissus_counts WHERE expires < %s", [now])
            counts = cursor.rowcount
        self.stdout.write(
            f"{readings} raw readings, {sessions} ended sessions and {attempts + counts} old counts are gone."
        )

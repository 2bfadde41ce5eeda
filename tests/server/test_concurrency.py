"""Two tablets at once, on a real PostgreSQL."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from uuid import UUID, uuid4

import pytest
from batches.models import Event
from batches.services import append
from django.db import connection
from django.utils import timezone
from spissus_core import events as ev

from .conftest import person

TABLETS, EACH = 4, 12


@pytest.mark.django_db(transaction=True)
def test_events_appended_at_once_are_all_kept_in_one_order() -> None:
    cook = person("cook")
    batch_id = UUID(cook.start()["id"])
    member = cook.member()

    def work(tablet: int) -> None:
        try:
            for number in range(EACH):
                text = ev.Noted(text=f"{tablet}.{number}")
                append(member, batch_id, event_id=uuid4(), at=timezone.now(), said=text)
        finally:
            connection.close()

    with ThreadPoolExecutor(TABLETS) as pool:
        list(pool.map(work, range(TABLETS)))
    rows = list(Event.objects.filter(batch_id=batch_id).order_by("seq").values_list("seq", flat=True))
    assert rows == list(range(1, TABLETS * EACH + 2))


@pytest.mark.django_db(transaction=True)
def test_one_event_sent_by_two_at_once_is_one_row() -> None:
    cook = person("cook")
    batch_id = UUID(cook.start()["id"])
    member = cook.member()
    same = uuid4()

    def send(_: int) -> int:
        try:
            salt = ev.Salted(salt_g=2.0)
            return len(append(member, batch_id, event_id=same, at=timezone.now(), said=salt).log)
        finally:
            connection.close()

    with ThreadPoolExecutor(TABLETS) as pool:
        assert set(pool.map(send, range(TABLETS))) == {2}
    assert Event.objects.filter(batch_id=batch_id).count() == 2

"""What other apps may hear from devices."""

from django.dispatch import Signal

#: What a batch is worked out from has changed: ``batch_id``. Sent in the transaction that keeps the reading.
kept = Signal()

"""Devices and what they read."""

import uuid

from django.db import models


class Device(models.Model):
    """A scale, thermometer or salt meter. Only a hash of its token is kept.

    It reads for one batch at a time. ``window_began`` and ``window_count`` limit how fast.
    """

    class Kind(models.TextChoices):
        SCALE = "scale"
        THERMOMETER = "thermometer"
        SALT_METER = "salt_meter"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="devices")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=12, choices=Kind)
    token_hash = models.CharField(max_length=64, unique=True)
    batch = models.ForeignKey("batches.Batch", null=True, on_delete=models.SET_NULL, related_name="devices")
    created_at = models.DateTimeField(auto_now_add=True)
    revoked = models.BooleanField(default=False)
    last_at = models.DateTimeField(null=True)
    last_value = models.FloatField(null=True)
    window_began = models.DateTimeField(null=True)
    window_count = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["created_at", "id"]

    def __str__(self) -> str:
        return self.name


class Reading(models.Model):
    """One reading: g gross, °C or % salt by the kind of the device. Rows are added, never changed."""

    device = models.ForeignKey(Device, on_delete=models.CASCADE, related_name="readings")
    batch = models.ForeignKey("batches.Batch", on_delete=models.CASCADE, related_name="readings")
    at = models.DateTimeField()
    value = models.FloatField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["device", "at"], name="one_reading_a_moment")]
        indexes = [models.Index(fields=["batch", "at"], name="readings_of_a_batch")]

    def __str__(self) -> str:
        return f"{self.device_id} {self.at:%H:%M:%S}: {self.value:g}"

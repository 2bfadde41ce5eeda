"""Devices and what they read."""

import uuid

from django.db import models


class Device(models.Model):
    """A scale, thermometer or salt meter. Only a hash of its token is kept.

    It reads for one batch at a time.
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

    class Meta:
        ordering = ["created_at", "id"]

    def __str__(self) -> str:
        return self.name


class Reading(models.Model):
    """One reading as it came: g gross, °C or % salt by the kind of the device.

    It serves to thin the stretch of time it falls into, and is let go when no reading of that time can
    come any more; a batch is worked out from :class:`Kept` alone.
    """

    device = models.ForeignKey(Device, on_delete=models.CASCADE, related_name="readings")
    batch = models.ForeignKey("batches.Batch", on_delete=models.CASCADE, related_name="readings")
    at = models.DateTimeField()
    value = models.FloatField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["device", "at"], name="one_reading_a_moment")]
        indexes = [models.Index(fields=["batch", "at"], name="readings_of_a_batch")]

    def __str__(self) -> str:
        return f"{self.device_id} {self.at:%H:%M:%S}: {self.value:g}"


class Kept(models.Model):
    """A stretch of readings as one: what a batch is worked out from."""

    device = models.ForeignKey(Device, on_delete=models.CASCADE, related_name="kept")
    batch = models.ForeignKey("batches.Batch", on_delete=models.CASCADE, related_name="kept_readings")
    stretch = models.BigIntegerField()
    at = models.DateTimeField()
    value = models.FloatField()
    count = models.PositiveIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["batch", "device", "stretch"], name="one_kept_a_stretch")]

    def __str__(self) -> str:
        return f"{self.device_id} {self.at:%H:%M:%S}: {self.value:g}"

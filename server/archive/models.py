"""What was brought in, so that it can be taken out again."""

import uuid

from django.conf import settings
from django.db import models
from shared.leaving import STAYS


class Taken(models.Model):
    """A file that was taken in: the rows it made, by the part of the file they came in."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="taken")
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    rows = models.JSONField()

    class Meta:
        ordering = ["-at"]

    def __str__(self) -> str:
        return f"{self.at:%Y-%m-%d}: {sum(len(keys) for keys in self.rows.values())} rows"


STAYS[Taken] = "What was brought in here can be taken out here."

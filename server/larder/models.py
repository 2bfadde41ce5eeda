"""What a kitchen adds to the catalogue, or puts in the place of one of its rows, and the thickeners it mixes itself."""

import uuid

from django.db import models


class OwnIngredient(models.Model):
    """An ingredient of a kitchen's own. ``spec`` is a ``spissus_core.pantry.larder.OwnIngredient``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="own_ingredients")
    spec = models.JSONField()
    created_at = models.DateTimeField(auto_now_add=True)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["created_at", "id"]

    def __str__(self) -> str:
        return str(self.spec["name"])


class Mixture(models.Model):
    """A thickener that a kitchen mixes itself. ``spec`` is a ``spissus_core.intake.mixture.Mixture``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="mixtures")
    spec = models.JSONField()
    created_at = models.DateTimeField(auto_now_add=True)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["created_at", "id"]

    def __str__(self) -> str:
        return str(self.spec["name"])

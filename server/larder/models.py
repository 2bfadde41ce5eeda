"""What a kitchen adds to the catalogue, or puts in the place of one of its rows, and the thickeners it mixes itself."""

import uuid

from django.db import models


class Kept(models.Model):
    """Something of a kitchen's own as it was said, in a ``spec``. Put away, it stays for what was once made with it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    spec = models.JSONField()
    created_at = models.DateTimeField(auto_now_add=True)
    retired = models.BooleanField(default=False)

    class Meta:
        abstract = True
        ordering = ["created_at", "id"]

    def __str__(self) -> str:
        return str(self.spec["name"])

    def put_away(self) -> None:
        """It is offered no more."""
        self.retired = True
        self.save(update_fields=["retired"])


class OwnIngredient(Kept):
    """An ingredient of a kitchen's own. ``spec`` is a ``spissus_core.pantry.larder.OwnIngredient``."""

    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="own_ingredients")


class Mixture(Kept):
    """A thickener that a kitchen mixes itself. ``spec`` is a ``spissus_core.intake.mixture.Mixture``."""

    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="mixtures")

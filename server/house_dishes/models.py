"""House dishes and their versions."""

import uuid

from django.conf import settings
from django.db import models


class HouseDish(models.Model):
    """A dish that a kitchen keeps to cook again. What it is like stands in its versions."""

    id = models.UUIDField(primary_key=True)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="house_dishes")
    name = models.CharField(max_length=120)
    created_at = models.DateTimeField(auto_now_add=True)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["name", "id"]

    def __str__(self) -> str:
        return self.name


class DishVersion(models.Model):
    """A house dish as somebody kept it. Rows are added, never changed or removed.

    ``entries`` are events that tell it, in the words of ``version``; what they say is for so many ``people``. A version
    goes by its kitchen and the id of its dish, so that one that came in with a file is of no other kitchen's dish.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="dish_versions")
    house_dish = models.UUIDField()
    number = models.PositiveSmallIntegerField()
    at = models.DateTimeField(auto_now_add=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    people = models.PositiveSmallIntegerField()
    version = models.PositiveSmallIntegerField()
    entries = models.JSONField()

    class Meta:
        ordering = ["house_dish", "number"]
        constraints = [
            models.UniqueConstraint(fields=["kitchen", "house_dish", "number"], name="one_dish_version_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.house_dish} {self.number}"

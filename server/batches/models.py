"""Batches and their events. Nothing about a pot is stored but what happened to it."""

from __future__ import annotations

from django.conf import settings
from django.contrib.postgres.search import SearchVector, SearchVectorField
from django.db import models
from django.db.models import Q
from django.db.models.functions import Upper

#: Words as they are written: a kitchen's are of many languages.
WORDS = "simple"


class Batches(models.Manager["Batch"]):
    """Batches without what they are found by, which nobody reads."""

    def get_queryset(self) -> models.QuerySet[Batch]:
        return super().get_queryset().defer("words", "index")


class Batch(models.Model):
    """One pot of liquid on its way to a sauce.

    ``summary`` is a projection of the events, written in the transaction that appends one, so that
    lists never fold. So are ``words``, by which it is found besides its name. One that was
    ``put_away_at`` a time stands in no list but that of what was put away. ``house_dish`` is the id of the dish that it
    is one of: none, where its kitchen keeps no such dish.
    """

    id = models.UUIDField(primary_key=True)
    kitchen = models.ForeignKey("kitchens.Kitchen", on_delete=models.CASCADE, related_name="batches")
    name = models.CharField(max_length=120)
    created_at = models.DateTimeField()
    last_seq = models.PositiveIntegerField(default=0)
    summary = models.JSONField(default=dict)
    put_away_at = models.DateTimeField(null=True)
    house_dish = models.UUIDField(null=True)
    words = models.TextField(default="", blank=True)
    # Kept: ten thousand of a kitchen are gone through in ten milliseconds, where reading their words took a second.
    index = models.GeneratedField(
        expression=SearchVector("name", "words", config=WORDS), output_field=SearchVectorField(), db_persist=True
    )

    objects = Batches()

    class Meta:
        ordering = ["-created_at", "-id"]
        indexes = [
            models.Index(fields=["kitchen", "-created_at", "-id"], name="batch_list"),
            # What is still open is few, however long the logbook gets.
            models.Index(fields=["kitchen", "-created_at"], name="open_batches", condition=Q(summary__finished=False)),
            # Nor is what is kept.
            models.Index(fields=["kitchen"], name="kept_batches", condition=Q(summary__has_key="shelf")),
            models.Index(
                fields=["kitchen", "house_dish"], name="batches_of_a_dish", condition=Q(house_dish__isnull=False)
            ),
            # Notes come back by the name of the dish.
            models.Index("kitchen", Upper("name"), name="batches_of_a_name"),
        ]

    def __str__(self) -> str:
        return self.name


class Event(models.Model):
    """Something that happened. Rows are added, never changed or removed."""

    id = models.UUIDField(primary_key=True)
    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="events")
    seq = models.PositiveIntegerField()
    at = models.DateTimeField()
    recorded_at = models.DateTimeField(auto_now_add=True)
    kind = models.CharField(max_length=20)
    version = models.PositiveSmallIntegerField()
    payload = models.JSONField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ["seq"]
        constraints = [models.UniqueConstraint(fields=["batch", "seq"], name="one_event_a_number")]

    def __str__(self) -> str:
        return f"{self.batch_id} {self.seq}: {self.kind}"

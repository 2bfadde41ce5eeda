"""Kitchens, who works in them, and what stands in them."""

import uuid

from django.conf import settings
from django.db import models


class Kitchen(models.Model):
    """A kitchen. Every row of the database belongs to one, directly or through its batch.

    Higher up, water boils cooler: ``altitude_m`` is in metres. ``limits`` is a
    ``spissus_core.phenomena.limits.Limits``, none where nobody chose them; ``time_zone`` a name of the tz database,
    empty where nobody said it. One that is not ``claimed`` belongs to a browser in which somebody began at once; it has
    no name and no password, and is let go with its session.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=80)
    created_at = models.DateTimeField(auto_now_add=True)
    is_demo = models.BooleanField(default=False)
    claimed = models.BooleanField(default=True)
    altitude_m = models.FloatField(default=0.0)
    limits = models.JSONField(null=True)
    time_zone = models.CharField(max_length=60, default="", blank=True)

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    """Who may do what in a kitchen: owners arrange it, cooks work, guests look; a station is a tablet without a person,
    which records."""

    class Role(models.TextChoices):
        OWNER = "owner"
        COOK = "cook"
        GUEST = "guest"
        STATION = "station"

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=7, choices=Role, default=Role.COOK)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "kitchen"], name="one_membership_a_kitchen")]

    def __str__(self) -> str:
        return f"{self.user} in {self.kitchen}: {self.role}"


class Invitation(models.Model):
    """A code by which somebody joins a kitchen, once, within its time. The code itself is nowhere, only its digest.

    By that of a ``station`` a tablet joins, under that name.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=7, choices=Membership.Role)
    station = models.CharField(max_length=150, default="", blank=True)
    digest = models.CharField(max_length=64, unique=True)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    used_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return f"{self.kitchen}: {self.role}"


class Deed(models.Model):
    """What somebody did to the people, the pans, the devices or the limits of a kitchen, for its owners to read.

    ``said`` is the key of its phrase, with its ``arguments``; ``name`` is what its person was called then.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="deeds")
    at = models.DateTimeField(auto_now_add=True)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    name = models.CharField(max_length=150)
    said = models.CharField(max_length=60)
    arguments = models.JSONField(default=dict)

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [models.Index(fields=["kitchen", "-at"], name="deeds_of_a_kitchen")]

    def __str__(self) -> str:
        return f"{self.name}: {self.said}"


class Pan(models.Model):
    """A pan of a kitchen. ``spec`` is a ``spissus_core.measuring.vessels.Pan``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="pans")
    spec = models.JSONField()
    position = models.PositiveSmallIntegerField(default=0)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["position", "id"]

    def __str__(self) -> str:
        return str(self.spec["name"])


class LearnedRate(models.Model):
    """What one finished batch taught of a pan on a burner: net power, kW, and its log standard deviation.

    Pans and burners go by name, as in the batch: one that was changed is not the same any more.
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="learned_rates")
    batch = models.UUIDField(unique=True)
    pan = models.CharField(max_length=60)
    burner = models.CharField(max_length=60)
    heat = models.CharField(max_length=6)
    net_kw = models.FloatField()
    spread = models.FloatField()
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["pan", "burner", "heat", "at"]
        indexes = [models.Index(fields=["kitchen", "pan", "burner"], name="learned_of_a_pair")]

    def __str__(self) -> str:
        return f"{self.pan} on {self.burner}: {self.net_kw:.2f} kW"


class TaughtLiking(models.Model):
    """What one finished batch taught of what its kitchen likes ``of`` something, and its standard error.

    The value is % of salt, steps of body or a natural logarithm (``spissus_core.learning.liking``).
    """

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="likings")
    batch = models.UUIDField()
    of = models.CharField(max_length=6, default="salt")
    value = models.FloatField()
    error = models.FloatField()
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["kitchen", "of", "-at"], name="liked_by_a_kitchen")]
        constraints = [models.UniqueConstraint(fields=["batch", "of"], name="one_liking_of_each")]

    def __str__(self) -> str:
        return f"{self.of}: {self.value:.2f}"


class TaughtStrength(models.Model):
    """What one finished batch taught of a ``dry`` thickener: the logarithm of how many times as strongly as the tables
    say it binds, and its standard error (``spissus_core.learning.strength``)."""

    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="strengths")
    batch = models.UUIDField(unique=True)
    dry = models.CharField(max_length=60)
    log_times = models.FloatField()
    error = models.FloatField()
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["kitchen", "dry", "-at"], name="strength_in_a_kitchen")]

    def __str__(self) -> str:
        return f"{self.dry}: {self.log_times:+.2f}"


class Burner(models.Model):
    """A heat source of a kitchen. ``spec`` is a ``spissus_core.phenomena.heating.Burner``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    kitchen = models.ForeignKey(Kitchen, on_delete=models.CASCADE, related_name="burners")
    spec = models.JSONField()
    position = models.PositiveSmallIntegerField(default=0)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["position", "id"]

    def __str__(self) -> str:
        return str(self.spec["name"])

"""People, and the browsers they are signed in with."""

from typing import Any, ClassVar

from django.contrib.auth.models import AbstractUser, UserManager
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models
from django.db.models.functions import Lower

#: Where the tables of people have stood from the beginning: what is recorded stays where it is.
TABLES_OF = "kitchens"


class People(UserManager["User"]):
    """People by the names they sign in with, in whatever case they are typed."""

    def get_by_natural_key(self, username: str | None) -> "User":
        return self.get(username__iexact=username)


class User(AbstractUser):
    """Someone who signs in. Their units are theirs in every kitchen."""

    objects: ClassVar[People] = People()

    class Units(models.TextChoices):
        METRIC = "metric"
        US = "us"

    units = models.CharField(max_length=6, choices=Units, default=Units.METRIC)

    #: Where it was read together with the session.
    first_membership: Any = None

    class Meta:
        app_label = TABLES_OF
        constraints = [models.UniqueConstraint(Lower("username"), name="one_person_a_name")]


class RecoveryCode(models.Model):
    """A code by which somebody chooses a new password, once. One that an owner handed over expires."""

    person = models.ForeignKey(User, on_delete=models.CASCADE, related_name="recovery_codes")
    digest = models.CharField(max_length=64, unique=True)
    expires_at = models.DateTimeField(null=True)

    class Meta:
        app_label = TABLES_OF

    def __str__(self) -> str:
        return f"{self.person}"


class Session(AbstractBaseSession):
    """A signed-in browser. It knows whose it is, so that both are found at once; and in which kitchen it works, where
    its person works in several."""

    kitchen = models.UUIDField(null=True)
    person = models.ForeignKey(User, null=True, on_delete=models.CASCADE, related_name="session")

    class Meta(AbstractBaseSession.Meta):
        app_label = TABLES_OF

    @classmethod
    def get_session_store_class(cls) -> type:
        from .sessions import SessionStore  # noqa: PLC0415  # which needs this model

        return SessionStore

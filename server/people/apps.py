from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """People: who they are, signing up, in and out."""

    name = "people"

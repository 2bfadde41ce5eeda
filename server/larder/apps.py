from django.apps import AppConfig


class LarderConfig(AppConfig):
    """Ingredients of a kitchen's own."""

    name = "larder"

from django.apps import AppConfig


class KitchensConfig(AppConfig):
    """Kitchens, who works in them, and what stands in them."""

    name = "kitchens"

from django.apps import AppConfig


class KitchensConfig(AppConfig):
    """People, the kitchens they work in, and what stands in those kitchens."""

    name = "kitchens"

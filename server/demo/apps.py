from django.apps import AppConfig


class DemoConfig(AppConfig):
    """A made-up kitchen to look around in."""

    name = "demo"

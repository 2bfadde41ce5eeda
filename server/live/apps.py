from django.apps import AppConfig


class LiveConfig(AppConfig):
    """News of batches, as they happen, to every page that looks."""

    name = "live"

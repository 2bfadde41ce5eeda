from django.apps import AppConfig


class BatchesConfig(AppConfig):
    """Batches and what happened to them."""

    name = "batches"

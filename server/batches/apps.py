from django.apps import AppConfig


class BatchesConfig(AppConfig):
    """Batches and what happened to them."""

    name = "batches"

    def ready(self) -> None:
        """Listen to what devices read."""
        from . import news  # noqa: F401, PLC0415

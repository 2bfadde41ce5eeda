from importlib import import_module

from django.apps import AppConfig

#: Each says what of its tables leaves.
LEAVING = ("kitchens", "larder", "devices", "batches", "house_dishes")


class ArchiveConfig(AppConfig):
    """Kitchens that leave and return."""

    name = "archive"

    def ready(self) -> None:
        for app in LEAVING:
            import_module(f"{app}.leaving")

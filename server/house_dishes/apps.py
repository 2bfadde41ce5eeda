from django.apps import AppConfig


class HouseDishesConfig(AppConfig):
    """Dishes that a kitchen keeps to cook again."""

    name = "house_dishes"

from django.apps import AppConfig


class DevicesConfig(AppConfig):
    """Scales, thermometers and salt meters that read by themselves."""

    name = "devices"

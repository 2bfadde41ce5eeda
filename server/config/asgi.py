"""The application as an ASGI server runs it."""

import os

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

django_application = get_asgi_application()

# Only after Django is set up.
from .door import Door  # noqa: E402

application = Door(django_application)  # type: ignore[arg-type]

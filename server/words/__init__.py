"""Words are made here, once: what the core and the server have to say, put into phrases and then into parts.

The phrases of a language stand in its folder, a file for each subject. Nothing here knows of Django.
"""

from __future__ import annotations

from .catalogue import Catalogue, speaking
from .parts import Amount, Figure, Moment, Name, Part, Remaining
from .spoken import parts, plain

__all__ = ["Amount", "Catalogue", "Figure", "Moment", "Name", "Part", "Remaining", "parts", "plain", "speaking"]

"""What every test may use."""

from __future__ import annotations

from hypothesis import settings

# A loaded machine is no failure of the code; examples are the same from run to run.
settings.register_profile("spissus", deadline=None, derandomize=True)
settings.load_profile("spissus")

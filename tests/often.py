"""How often something is tried: as a rule, and where somebody waits for it (`make soak`)."""

from __future__ import annotations

import os

THOROUGH = "BENDREL_THOROUGH" in os.environ


def often(usual: int, thorough: int) -> int:
    """So many times as a rule, or at length."""
    return thorough if THOROUGH else usual

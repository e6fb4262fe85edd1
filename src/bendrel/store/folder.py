"""Where a shop's data lies when nobody says otherwise."""

from __future__ import annotations

import os
from pathlib import Path


def shop_folder() -> Path:
    """$BENDREL_DATA, or the user's data folder."""
    named = os.environ.get("BENDREL_DATA")
    if named:
        return Path(named)
    base = os.environ.get("XDG_DATA_HOME")
    return (Path(base) if base else Path.home() / ".local" / "share") / "bendrel"

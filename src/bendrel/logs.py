"""The small log beside the data: what was refused and what failed, without a word of what was sent."""

from __future__ import annotations

import logging
import os
from logging.handlers import RotatingFileHandler
from pathlib import Path

MOST_BYTES = 500_000
KEPT = 2


def log_beside(database: Path) -> None:
    """Write refusals, faults and troubles to `bendrel.log` in the folder of the data, two files of 500 kB.
    A log that cannot be written is no reason not to start."""
    path = database.parent / "bendrel.log"
    try:
        handler = RotatingFileHandler(path, maxBytes=MOST_BYTES, backupCount=KEPT - 1, encoding="utf-8")
        os.chmod(path, 0o600)
    except OSError:
        return
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(message)s"))
    ours = logging.getLogger("bendrel")
    ours.addHandler(handler)
    ours.setLevel(logging.INFO)
    ours.propagate = False

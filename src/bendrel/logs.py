"""The small log beside the data: what was refused and what failed, without a word of what was sent."""

from __future__ import annotations

import logging
import os
from logging.handlers import RotatingFileHandler
from pathlib import Path

MOST_BYTES = 500_000
KEPT = 2


class OneLine(logging.Formatter):
    """A record is one line: what was sent cannot begin another."""

    def formatMessage(self, record: logging.LogRecord) -> str:
        """The record's line, what cannot be printed shown as a question mark."""
        return "".join(letter if letter.isprintable() else "?" for letter in super().formatMessage(record))


def log_beside(database: Path) -> None:
    """Write refusals, faults and troubles to `bendrel.log` in the folder of the data, two files of 500 kB.
    A log that cannot be written is no reason not to start."""
    path = database.parent / "bendrel.log"
    try:
        handler = RotatingFileHandler(path, maxBytes=MOST_BYTES, backupCount=KEPT - 1, encoding="utf-8")
        os.chmod(path, 0o600)
    except OSError:
        return
    handler.setFormatter(OneLine("%(asctime)s %(levelname)s %(message)s"))
    ours = logging.getLogger("bendrel")
    ours.addHandler(handler)
    ours.setLevel(logging.INFO)
    ours.propagate = False

"""Dated copies of the database, made while it is in use."""

from __future__ import annotations

import sqlite3
from datetime import date
from pathlib import Path

KEPT = 14


def back_up(database: Path, today: date) -> Path:
    """Copy the database into `backups/` beside it, once a day; the oldest beyond 14 go.

    Returns the copy's path. Raises OSError or sqlite3.Error when it cannot be written.
    """
    folder = database.parent / "backups"
    folder.mkdir(exist_ok=True)
    copy = folder / f"{database.stem}-{today.isoformat()}.db"
    if not copy.exists():
        unfinished = copy.with_suffix(".part")
        with sqlite3.connect(database) as source, sqlite3.connect(unfinished) as target:
            source.backup(target)
        source.close()
        target.close()
        unfinished.rename(copy)
    for old in sorted(folder.glob(f"{database.stem}-*.db"))[:-KEPT]:
        old.unlink()
    return copy

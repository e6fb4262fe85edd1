"""What an end half way left behind, cleared away: never anything that undo, a backup or a person may need."""

from __future__ import annotations

import shutil
import sqlite3
import time
from contextlib import closing
from pathlib import Path

from bendrel.store.backup import photos_beside
from bendrel.store.photos import UNFINISHED

WAY_OUT, WAY_IN = "shop-out-", "shop-in-"
"""How the files of a whole shop that is written or read begin, beside the database."""
UNTOUCHED_S = 3600.0
"""What is younger may be in the making."""


def sweep(database: Path, now: float | None = None) -> list[Path]:
    """Remove unfinished files, and photographs that were written but never acknowledged: the database does
    not know them. Returns what was removed."""
    before = (now or time.time()) - UNTOUCHED_S
    folder, backups = photos_beside(database), database.parent / "backups"
    left = [*folder.glob(f"*{UNFINISHED}"), *backups.rglob(f"*{UNFINISHED}")]
    left += [*database.parent.glob(f"*{UNFINISHED}"), *database.parent.glob(f"{database.name}.restoring")]
    # what a whole shop on its way out or in leaves, and the probe of a start
    left += [
        *database.parent.glob(f"{WAY_OUT}*"),
        *database.parent.glob(f"{WAY_IN}*"),
        *database.parent.glob(".write-*"),
    ]
    known = _known(database)
    if known is not None:
        left += [path for path in folder.glob("*.jpg") if path.stem not in known]
    gone = []
    for path in left:
        try:
            if path.stat().st_mtime >= before:
                continue
            if path.is_dir():
                shutil.rmtree(path)
            else:
                path.unlink(missing_ok=True)
            gone.append(path)
        except OSError:
            continue  # somebody else cleared it, or it may not be touched
    return gone


def _known(database: Path) -> set[str] | None:
    """The photographs that were acknowledged, None where that cannot be told."""
    try:
        with closing(sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)) as opened:
            return {str(row[0]) for row in opened.execute("select id from photos")}
    except sqlite3.Error:
        return None

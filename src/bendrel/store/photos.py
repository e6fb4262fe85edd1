"""The files of photographs beside the database, each named by what is in it."""

from __future__ import annotations

import os
from pathlib import Path

UNFINISHED = ".part"


def write_photo(folder: Path, name: str, data: bytes) -> None:
    """Put a photograph into its folder: on the disk, whole, before this returns."""
    folder.mkdir(mode=0o700, exist_ok=True)
    unfinished = folder / f"{name}{UNFINISHED}"
    try:
        with unfinished.open("wb") as file:
            os.fchmod(file.fileno(), 0o600)
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        os.replace(unfinished, folder / f"{name}.jpg")
    except OSError:
        unfinished.unlink(missing_ok=True)
        raise
    sync_folder(folder)


def sync_folder(folder: Path) -> None:
    """Have the disk know the names in a folder too: a file that is synced may still lose its name."""
    opened = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(opened)
    finally:
        os.close(opened)

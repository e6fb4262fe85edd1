"""Whether a shop's folder and database can be worked with, and why not, before anything is changed."""

from __future__ import annotations

import errno
import fcntl
import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from bendrel.core.errors import BendrelError
from bendrel.store.backup import copies
from bendrel.store.database import layouts

SQLITE = b"SQLite format 3\x00"
"""How every SQLite file begins: SQLite's file format, 1.3."""
NOT_OURS = {Path.home(), Path("/"), Path("/tmp")}
"""Folders that hold more than a shop's data, where somebody put it there."""
LEAST_FREE_BYTES = 20_000_000
"""With less than this a start would fail half way: the day's backup and a migration need room."""


class UnusableShop(BendrelError, ValueError):
    """The data cannot be worked with as it is. The text says why, and what to do."""


@contextmanager
def served_alone(database: Path, address: str) -> Iterator[None]:
    """This folder is served by this process alone; another one is told where it runs. Raises UnusableShop."""
    path = database.with_name(f"{database.name}.served")
    try:
        opened = os.open(path, os.O_RDWR | os.O_CREAT, 0o600)
    except OSError as error:
        raise unusable(database, error) from error
    try:
        try:
            fcntl.flock(opened, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            where = os.pread(opened, 200, 0).decode(errors="replace").strip() or "another address"
            raise UnusableShop(
                f"Bendrel runs on {database.parent} already, at {where}; open that, or name another folder "
                "with --data."
            ) from error
        os.ftruncate(opened, 0)
        os.pwrite(opened, address.encode(), 0)
        yield
    finally:
        os.close(opened)


def make_folder(folder: Path) -> None:
    """The folder of the data, for its owner alone. Raises UnusableShop."""
    try:
        if not folder.exists():
            folder.mkdir(mode=0o700, parents=True)
        if not folder.is_dir():
            raise UnusableShop(f"{folder} is a file; name a folder with --data.")
        os.listdir(folder)
        probe = folder / f".write-{os.getpid()}"
        probe.write_bytes(b"x")
        probe.unlink()
        free = os.statvfs(folder)
    except OSError as error:
        raise unusable(folder, error) from error
    if free.f_bavail * free.f_frsize < LEAST_FREE_BYTES:
        raise UnusableShop(f"The disk of {folder} is full; make room on it, then start again.")


def for_the_owner_alone(database: Path) -> None:
    """Take away what others may do with data that an earlier Bendrel made."""
    for beside in ("", "-wal", "-shm", ".open"):
        path = database.with_name(database.name + beside)
        if path.exists():
            path.chmod(0o600)
    folders = [database.parent / f"{database.stem}-photos", database.parent / "backups"]
    if database.parent not in NOT_OURS:
        folders.append(database.parent)
    for folder in folders:
        if folder.is_dir() and folder.stat().st_uid == os.getuid():
            folder.chmod(0o700)


def refuse_damaged(path: Path, *, new: bool) -> None:
    """Raises UnusableShop for a file that is empty, no database, damaged or of a newer Bendrel, and for one
    that is gone while its backups are there, unless a `new` one is meant."""
    there = copies(path)
    offer = (
        f"The newest backup is of {there[0].day}: bendrel restore {there[0].day}."
        if there
        else "There is no backup of it."
    )
    if not path.exists():
        if there and not new:
            raise UnusableShop(f"{path.name} is gone, but its backups are here. {offer}")
        return
    if not path.is_file():
        raise UnusableShop(f"{path} is no file; name another folder with --data.")
    try:
        if path.stat().st_size == 0:
            raise UnusableShop(f"{path.name} is empty (0 bytes): that is damage and no new shop. {offer}")
        with path.open("rb") as file:
            if file.read(16) != SQLITE:
                raise UnusableShop(f"{path.name} is damaged: it is no database any more. {offer}")
        with closing(sqlite3.connect(path, timeout=5)) as opened:
            wrong = str(opened.execute("PRAGMA quick_check(1)").fetchone()[0])
            if wrong != "ok":
                raise UnusableShop(f"{path.name} is damaged: {wrong.splitlines()[0][:120]}. {offer}")
            _refuse_strange(path, opened, offer)
    except OSError as error:
        raise unusable(path, error) from error
    except sqlite3.OperationalError as error:
        raise UnusableShop(
            f"{path} cannot be opened: {error}; look at its permissions and the disk."
        ) from error
    except (sqlite3.DatabaseError, UnicodeDecodeError) as error:
        raise UnusableShop(f"{path.name} is damaged: its description cannot be read. {offer}") from error


def _refuse_strange(path: Path, opened: sqlite3.Connection, offer: str) -> None:
    """Tables that are not ours, or those of a Bendrel that is newer than this one."""
    tables = {row[0] for row in opened.execute("select name from sqlite_master where type = 'table'")}
    if "alembic_version" not in tables:
        if tables:
            raise UnusableShop(f"{path.name} is the database of something else. {offer}")
        return
    for (revision,) in opened.execute("select version_num from alembic_version"):
        if revision not in layouts():
            raise UnusableShop(
                f"{path.name} was made by a newer Bendrel (tables {str(revision)[:20]}); start that one."
            )


def unusable(path: Path, error: OSError) -> UnusableShop:
    """What stands in the way of a file or folder."""
    if error.errno == errno.ENOSPC:
        return UnusableShop(f"The disk of {path} is full; make room on it, then start again.")
    if error.errno == errno.EROFS:
        return UnusableShop(f"{path} lies on a disk that is read only; name another folder with --data.")
    if error.errno in (errno.EACCES, errno.EPERM):
        return UnusableShop(f"{path} may not be read and written by you; name another folder with --data.")
    return UnusableShop(f"{path}: {error.strerror or error}.")

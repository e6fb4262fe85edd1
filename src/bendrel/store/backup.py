"""Dated copies of the database and its photographs: made while it is in use, checked, thinned, restored.

A copy is `backups/NAME-NUMBER-DATE.db` beside the database. The number tells which is newer, because a clock
can be wrong; the date is for people. Photographs never change under their name, so that all copies share one
folder of links, `backups/NAME-photos`.
"""

from __future__ import annotations

import os
import re
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import date, datetime
from hashlib import sha256
from pathlib import Path
from typing import NamedTuple

from bendrel.core.errors import BendrelError

LAST_KEPT, WEEKS_KEPT, MONTHS_KEPT = 7, 8, 12
"""All of the last seven, then the newest of each of eight weeks, then of each of twelve months."""


class BackupError(BendrelError, ValueError):
    """A copy cannot be made, or is not fit to be restored. The text is for the person."""


class Copy(NamedTuple):
    """One copy: its place in the order, its date, and where it lies."""

    number: int
    day: date
    path: Path


class Restored(NamedTuple):
    """What was brought back: the copy, where the state before it was set aside (None: there was none), and
    the photographs that the copy names and that are nowhere to be had."""

    copy: Copy
    set_aside: Path | None
    missing_photos: tuple[str, ...]


def photos_beside(database: Path) -> Path:
    """Where the photographs of a database lie."""
    return database.parent / f"{database.stem}-photos"


def copies(database: Path) -> list[Copy]:
    """All copies of a database, the newest first; dates that are none are passed over."""
    pattern = re.compile(rf"{re.escape(database.stem)}-(?:([0-9]+)-)?([0-9]{{4}}-[0-9]{{2}}-[0-9]{{2}})\.db")
    found = []
    for path in _folder(database).glob("*.db"):
        told = pattern.fullmatch(path.name)
        if told is None:
            continue
        try:
            found.append(Copy(int(told[1] or 0), date.fromisoformat(told[2]), path))
        except ValueError:
            continue
    return sorted(found, key=lambda copy: (copy.number, copy.day), reverse=True)


GARBLED = "its own description cannot be read"
"""What is wrong where SQLite's message repeats bytes that are no text."""


def back_up(database: Path, today: date, *, always: bool = False) -> Copy:
    """Copy the database and its photographs, once a day (or `always`), check the copy, and thin the old
    ones. Returns the newest copy. Raises BackupError; then nothing is kept of it and nothing thinned.
    """
    there = copies(database)
    if there and there[0].day == today and not always:
        return there[0]
    folder = _folder(database)
    number = there[0].number + 1 if there else 1
    made = Copy(number, today, folder / f"{database.stem}-{number:05d}-{today.isoformat()}.db")
    unfinished = made.path.with_suffix(".part")
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        unfinished.unlink(missing_ok=True)
        unfinished.touch(mode=0o600)
        with closing(sqlite3.connect(database)) as source, closing(sqlite3.connect(unfinished)) as target:
            source.backup(target)
            target.execute("PRAGMA journal_mode=DELETE")  # one file, nothing beside it
        wrong = damage(unfinished)
        if wrong:
            raise BackupError(f"The database is damaged ({wrong}); it was not copied over good backups.")
        _link_photos(database, unfinished)
        os.replace(unfinished, made.path)
    except (OSError, sqlite3.Error) as error:
        raise BackupError(f"No backup could be made: {error}.") from error
    except UnicodeDecodeError as error:
        raise BackupError(f"The database is damaged ({GARBLED}); it was not copied over.") from error
    finally:
        unfinished.unlink(missing_ok=True)
    _thin(database)
    return made


def damage(path: Path) -> str:
    """What is wrong with a database file, "" where it is sound. The file is not touched."""
    if not path.is_file():
        return "there is no such file"
    if path.stat().st_size == 0:
        return "it is empty, 0 bytes"
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as opened:
            said = opened.execute("PRAGMA integrity_check").fetchone()[0]
            if said != "ok":
                return str(said).splitlines()[0]
            if opened.execute("PRAGMA foreign_key_check").fetchone() is not None:
                return "its tables contradict each other"
            tables = {row[0] for row in opened.execute("select name from sqlite_master where type = 'table'")}
    except sqlite3.Error as error:
        return str(error)
    except UnicodeDecodeError:
        return GARBLED
    return "" if {"jobs", "lines", "line_steps"} <= tables else "it holds no jobs and lines"


def counts(path: Path) -> tuple[int, int]:
    """How many jobs and lines a sound database holds."""
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as opened:
        jobs, lines = (
            opened.execute(f"select count(*) from {table} where deleted_at is null").fetchone()[0]
            for table in ("jobs", "lines")
        )
    return int(jobs), int(lines)


def restore(database: Path, copy: Copy, now: datetime) -> Restored:
    """Put a copy in the place of the database, what is there now set aside, and bring its photographs.

    Nothing of a later state is left beside it that could be played into it. Raises BackupError when the
    copy is damaged or a server has the database open; then nothing is changed.
    """
    wrong = damage(copy.path)
    if wrong:
        raise BackupError(f"The backup of {copy.day} is damaged: {wrong}. Choose another one.")
    with alone(database):
        fresh = database.with_name(f"{database.name}.restoring")
        shutil.copyfile(copy.path, fresh)
        aside = _set_aside(database, now)
        for beside in ("-wal", "-shm"):
            database.with_name(database.name + beside).unlink(missing_ok=True)
        os.replace(fresh, database)
        missing = _bring_photos(database, copy.path)
    return Restored(copy=copy, set_aside=aside, missing_photos=missing)


@contextmanager
def alone(database: Path) -> Iterator[None]:
    """Nobody else has the database open meanwhile. Raises BackupError when somebody has."""
    lock: sqlite3.Connection | None = None
    try:
        lock = sqlite3.connect(_lock(database), timeout=0, isolation_level=None)
        lock.execute("BEGIN EXCLUSIVE")
    except sqlite3.OperationalError as error:
        if lock is not None:
            lock.close()
        if "locked" not in str(error):
            raise BackupError("The disk takes nothing just now: make room on it, then restore.") from error
        raise BackupError("Bendrel is running on this data; stop it first, then restore.") from error
    with closing(lock):
        yield
        lock.execute("ROLLBACK")


class OpenSign:
    """Says to `alone` that the database is open, for as long as it is not closed or the process ends."""

    def __init__(self, database: Path) -> None:
        # used by whichever thread closes the shop
        self._lock = sqlite3.connect(
            _lock(database), timeout=5, isolation_level=None, check_same_thread=False
        )
        self._lock.execute("BEGIN")
        self._lock.execute("select count(*) from sqlite_master").fetchone()  # a shared lock from here on

    def close(self) -> None:
        """Take the sign down."""
        self._lock.close()


def _folder(database: Path) -> Path:
    return database.parent / "backups"


def _lock(database: Path) -> Path:
    return database.with_name(f"{database.name}.open")


def _names(path: Path) -> set[str]:
    """The photographs that a sound database names."""
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as opened:
        tables = {row[0] for row in opened.execute("select name from sqlite_master where type = 'table'")}
        if "photos" not in tables:
            return set()
        return {str(row[0]) for row in opened.execute("select id from photos")}


def _sound_photo(path: Path) -> bool:
    """A photograph is named by what is in it."""
    try:
        return sha256(path.read_bytes()).hexdigest()[:32] == path.stem
    except OSError:
        return False


def _link(source: Path, target: Path) -> None:
    """A second name for one file where the disk can do that, else a copy."""
    unfinished = target.with_suffix(".part")
    unfinished.unlink(missing_ok=True)
    try:
        os.link(source, unfinished)
    except OSError:
        shutil.copyfile(source, unfinished)
    os.replace(unfinished, target)


def _pool(database: Path) -> Path:
    return _folder(database) / f"{database.stem}-photos"


def _link_photos(database: Path, copy: Path) -> None:
    pool = _pool(database)
    pool.mkdir(mode=0o700, exist_ok=True)
    for name in _names(copy):
        there, kept = photos_beside(database) / f"{name}.jpg", pool / f"{name}.jpg"
        if not kept.exists() and there.exists():
            _link(there, kept)


def _bring_photos(database: Path, copy: Path) -> tuple[str, ...]:
    missing = []
    for name in sorted(_names(copy)):
        there, kept = photos_beside(database) / f"{name}.jpg", _pool(database) / f"{name}.jpg"
        if _sound_photo(there):
            continue
        if not _sound_photo(kept):
            missing.append(name)
            continue
        there.parent.mkdir(exist_ok=True)
        _link(kept, there)
    return tuple(missing)


def _set_aside(database: Path, now: datetime) -> Path | None:
    """Copy what is there, whatever state it is in, to a folder of its own."""
    parts = [database.with_name(database.name + end) for end in ("", "-wal", "-shm")]
    present = [part for part in parts if part.exists()]
    if not present:
        return None
    start = database.parent / "set-aside" / f"{database.stem}-{now:%Y-%m-%d-%H%M%S}"
    aside, number = start, 1
    while aside.exists():
        number += 1
        aside = start.with_name(f"{start.name}-{number}")
    aside.mkdir(parents=True)
    for part in present:
        shutil.copyfile(part, aside / part.name)
    return aside


def _thin(database: Path) -> None:
    """Drop what is older than is worth its room, and photographs that no copy names any more. Ages are
    counted by the copies' own order, so that a wrong clock costs nothing."""
    there = copies(database)
    kept = there[:LAST_KEPT]
    weeks: dict[tuple[int, int], Copy] = {}
    months: dict[tuple[int, int], Copy] = {}
    for copy in there[LAST_KEPT:]:
        year, week, _ = copy.day.isocalendar()
        if len(weeks) < WEEKS_KEPT or (year, week) in weeks:
            weeks.setdefault((year, week), copy)
        elif len(months) < MONTHS_KEPT:
            months.setdefault((copy.day.year, copy.day.month), copy)
    stay = {copy.path for copy in (*kept, *weeks.values(), *months.values())}
    gone = [copy for copy in there if copy.path not in stay]
    for copy in gone:
        copy.path.unlink(missing_ok=True)
    if gone and _pool(database).is_dir():
        named = set().union(*(_names(path) for path in stay if not damage(path)))
        for photo in _pool(database).glob("*.jpg"):
            if photo.stem not in named:
                photo.unlink()

"""Open the database: WAL, foreign keys, migrated to the newest table layout."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from functools import cache
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session, sessionmaker

from bendrel.core.errors import BendrelError

PATIENCE_S = 15
"""How long a write waits for another one before the person is told."""
MIGRATIONS = Path(__file__).parent / "migrations"


class Database:
    """One SQLite file. Every `reading()` and `writing()` is one transaction: all of it or nothing.

    A read never waits for a write and holds none up; a write takes the lock at once, so it is kept short:
    whatever has to be computed is computed outside.
    """

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.path = path
        self.engine = _engine(path)
        migrate(self.engine)
        self.changes = 0
        """Goes up with every change that was kept."""
        self._writing = sessionmaker(self.engine, expire_on_commit=False)
        self._reading = sessionmaker(self.engine.execution_options(reading=True), expire_on_commit=False)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A transaction that only reads, all of it from one moment. What is changed in it is not kept.

        Raises Busy when the file is locked for too long, as by another program."""
        with _told(), self._reading() as session:
            yield session
            session.expunge_all()  # what was read stays readable; leaving rolls back

    @contextmanager
    def writing(self, *, counts: bool = True) -> Iterator[Session]:
        """A transaction that changes something: committed at the end, rolled back by any exception. One that
        does not count keeps nothing that a person could miss.

        Raises Busy when another write holds the lock for too long, NoRoom when the disk takes nothing."""
        with _told(), self._writing.begin() as session:
            yield session
        self.changes += counts

    def copy_to(self, path: Path) -> None:
        """The whole database as it is at one moment, in a file of its own; work goes on meanwhile. Raises
        NoRoom."""
        try:
            with closing(sqlite3.connect(self.path)) as source, closing(sqlite3.connect(path)) as target:
                source.backup(target)
        except sqlite3.OperationalError as error:
            raise NoRoom(NO_COPY) from error

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()


class NoRoom(BendrelError):
    """The disk takes nothing any more. The text is meant for the person."""


NO_ROOM = "The disk is full: this was not kept. Make room on it and save again; what was typed is still here."
NO_COPY = "The disk takes no copy of the data: make room on it and try again. Nothing was changed."
READ_ONLY = "The disk or the folder cannot be written just now: this was not kept. Look at it and save again."


class Busy(BendrelError):
    """The database is locked by something else. The text is meant for the person; trying again helps."""


@contextmanager
def _told() -> Iterator[None]:
    try:
        yield
    except OperationalError as error:
        if "locked" in str(error.orig) or "busy" in str(error.orig):
            raise Busy("The data is in use by something else just now; it is tried again.") from error
        if "disk is full" in str(error.orig):
            raise NoRoom(NO_ROOM) from error
        if any(said in str(error.orig) for said in ("readonly", "disk I/O error", "unable to open")):
            raise NoRoom(READ_ONLY) from error
        raise


@cache
def layouts() -> tuple[str, ...]:
    """The layouts of the tables that this Bendrel knows, the newest first."""
    scripts = ScriptDirectory.from_config(_config())
    return tuple(script.revision for script in scripts.walk_revisions())


def migrate(engine: Engine) -> None:
    """Bring the tables to the newest layout. Safe to repeat."""
    config = _config()
    with engine.begin() as connection:
        present = connection.exec_driver_sql("select 1 from sqlite_master where name = 'alembic_version'")
        if present.first() is not None:
            told = connection.exec_driver_sql("select version_num from alembic_version").scalars().all()
            if told == [layouts()[0]]:
                return
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS).replace("%", "%%"))
    return config


def _engine(path: Path) -> Engine:
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": PATIENCE_S})

    @event.listens_for(engine, "connect")
    def _prepare(connection: Any, _record: Any) -> None:
        connection.isolation_level = None  # so that BEGIN below is ours, not the driver's
        cursor = connection.cursor()
        cursor.execute("PRAGMA journal_mode=WAL")
        cursor.execute("PRAGMA foreign_keys=ON")
        cursor.execute("PRAGMA synchronous=FULL")
        cursor.close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Any) -> None:
        # taking the write lock at once keeps two writers from both reading the same version
        reading = connection.get_execution_options().get("reading", False)
        connection.exec_driver_sql("BEGIN" if reading else "BEGIN IMMEDIATE")

    return engine

"""Every row of a shop as text, out of one database and into another that is empty."""

from __future__ import annotations

import base64
import json
import sqlite3
from collections.abc import Iterable, Iterator
from contextlib import closing
from pathlib import Path

from bendrel.core.errors import BendrelError

TABLES = (
    "jobs", "lines", "line_steps", "strip_downs", "bookings", "photos", "own_entries", "trials", "makings",
    "proof_runs", "proof_chunks", "stock", "stock_moves", "cuttings", "holdings", "preferences",
    "set_aside",
)  # fmt: skip
"""All that a person entered, in an order in which every row finds what it names. What the board says is
worked out anew."""
Value = str | int | float | None


class NotEmpty(BendrelError, ValueError):
    """A whole shop is brought into an empty one. The text is for the person."""


class Strange(BendrelError, ValueError):
    """Rows that the tables do not take. The text is for the person."""


def revision_of(database: Path) -> str:
    """Which layout the tables have."""
    with closing(_reading(database)) as opened:
        return str(opened.execute("select version_num from alembic_version").fetchone()[0])


def dump(database: Path, table: str) -> Iterator[bytes]:
    """A table as lines of JSON: its columns, then each row as it is kept, by the order it was made in."""
    with closing(_reading(database)) as opened:
        columns = [str(row[1]) for row in opened.execute(f"pragma table_info({table})")]
        yield json.dumps(columns).encode() + b"\n"
        for row in opened.execute(f"select {', '.join(columns)} from {table} order by rowid"):
            told = [_out(value) for value in row]
            yield (
                json.dumps(told, ensure_ascii=False, separators=(",", ":")).encode("utf-8", "replace") + b"\n"
            )


def fill(database: Path, table: str, lines: Iterable[bytes]) -> int:
    """Put the rows of `dump` into an empty table; returns how many. Raises Strange."""
    rows = iter(lines)
    with closing(sqlite3.connect(database)) as opened:
        known = [str(row[1]) for row in opened.execute(f"pragma table_info({table})")]
        try:
            columns = json.loads(next(rows, b"null"))
            if columns != known:
                raise Strange(f"The columns of {table} are not those of this Bendrel.")
            marks = ", ".join("?" * len(known))
            done = opened.executemany(
                f"insert into {table} ({', '.join(known)}) values ({marks})",
                (_in(table, line, len(known)) for line in rows),
            )
            opened.commit()
        except (sqlite3.Error, ValueError, RecursionError, OverflowError) as error:
            said = str(error) if isinstance(error, Strange) else f"A row of {table} cannot be kept."
            raise Strange(said) from error
        return done.rowcount if done.rowcount > 0 else 0


def sound(database: Path) -> bool:
    """Whether every row finds what it names, and the file is whole."""
    with closing(_reading(database)) as opened:
        whole = opened.execute("pragma integrity_check").fetchone()[0] == "ok"
        return whole and opened.execute("pragma foreign_key_check").fetchone() is None


def take_over(database: Path, other: Path) -> None:
    """Copy all rows of another database in one transaction. Raises NotEmpty."""
    with closing(sqlite3.connect(database, timeout=15, isolation_level=None)) as opened:
        opened.execute("attach database ? as brought", (str(other),))
        opened.execute("begin immediate")
        try:
            for table in TABLES:
                if opened.execute(f"select 1 from main.{table} limit 1").fetchone() is not None:
                    raise NotEmpty(
                        "A whole shop is brought into an empty one, and this one holds something. Start "
                        "Bendrel on a new folder with --data, and bring it in there."
                    )
                opened.execute(f"insert into main.{table} select * from brought.{table}")
            opened.execute("commit")
        except BaseException:
            opened.execute("rollback")
            raise


def _reading(database: Path) -> sqlite3.Connection:
    opened = sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True)
    opened.text_factory = lambda told: told.decode("utf-8", "replace")
    return opened


def _out(value: object) -> object:
    return {"base64": base64.b64encode(value).decode()} if isinstance(value, bytes) else value


def _in(table: str, line: bytes, count: int) -> list[Value | bytes]:
    row = json.loads(line)
    if not isinstance(row, list) or len(row) != count:
        raise Strange(f"A row of {table} is not as long as its columns.")
    made: list[Value | bytes] = []
    for value in row:
        if isinstance(value, dict) and set(value) == {"base64"} and isinstance(value["base64"], str):
            made.append(base64.b64decode(value["base64"], validate=True))
        elif value is None or isinstance(value, str | int | float):
            made.append(value)
        else:
            raise Strange(f"A row of {table} holds something that is no value.")
    return made

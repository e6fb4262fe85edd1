"""Whether what stands in the tables can be read: row by row before a shop takes a file over, and at every
start, where what cannot be read is set aside and takes nothing else with it."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any, get_args

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import Column, LargeBinary, cast, delete, inspect, literal_column, select, update
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from bendrel.catalogue.own import ShelfName
from bendrel.core.bend.bench.state import MakingState, Outcome
from bendrel.core.line.strip_down import StripDown
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.services.errors import NotFound
from bendrel.services.job.bookings import Account
from bendrel.services.proof.proof_runs import RunSource
from bendrel.services.stock.cuttings import CutItem
from bendrel.services.stock.stock import Form
from bendrel.store.database import Database
from bendrel.store.models import (
    Base,
    BookingRow,
    CuttingRow,
    Job,
    LineStep,
    MakingRow,
    OwnEntry,
    ProofChunk,
    ProofRunRow,
    SetAsideRow,
    StockRow,
    StripDownRow,
    SummaryRow,
    TrialRow,
    now,
)


def _column(told: Any) -> Column[Any]:
    """The column behind a mapped name."""
    found: Column[Any] = told.property.columns[0]
    return found


_SHAPES: dict[Any, TypeAdapter[Any]] = {
    _column(told): meant
    for told, meant in (
        (Job.unit, TypeAdapter[Any](Unit)),
        (BookingRow.account, TypeAdapter[Any](Account)),
        (OwnEntry.shelf, TypeAdapter[Any](ShelfName)),
        (OwnEntry.fields, TypeAdapter[Any](dict[str, str])),
        (TrialRow.fields, TypeAdapter[Any](dict[str, str])),
        (StripDownRow.log, TypeAdapter[Any](StripDown)),
        (MakingRow.outcome, TypeAdapter[Any](Outcome)),
        (MakingRow.state, TypeAdapter[Any](MakingState)),
        (MakingRow.document, TypeAdapter[Any](dict[str, Any])),
        (MakingRow.departures, TypeAdapter[Any](list[tuple[str, float] | tuple[str, float, int, int]])),
        (CuttingRow.items, TypeAdapter[Any](list[CutItem])),
        (ProofRunRow.source, TypeAdapter[Any](RunSource)),
        (ProofRunRow.marks, TypeAdapter[Any](list[tuple[float, str]])),
        (StockRow.form, TypeAdapter[Any](Form)),
    )
}
"""What a column holds that has a shape of its own. The document of a line has none here: one that cannot be
read is a line that says so, with its ways out."""
_STAND_INS: dict[Any, Any] = {
    _column(StripDownRow.log): {},
    _column(ProofRunRow.marks): [],
    _column(ProofRunRow.source): "file",
    _column(BookingRow.account): get_args(Account)[0],
    _column(StockRow.form): "offcut",
}
"""What stands in a column whose content is set aside, where neither its default nor nothing can."""
_WHOLE = (SummaryRow, OwnEntry, TrialRow, MakingRow, CuttingRow, ProofChunk)
"""Rows that mean nothing without each of their columns: set aside whole. Nothing else hangs on them."""
_NAMES = {
    "jobs": "a job",
    "lines": "a line",
    "line_steps": "an undo step of a line",
    "strip_downs": "what came off in a job",
    "bookings": "a booking",
    "photos": "a photograph",
    "own_entries": "an own entry of the catalogue",
    "trials": "a test piece",
    "makings": "a part that was made",
    "proof_runs": "a run of a gauge",
    "proof_chunks": "a second of a gauge's run",
    "stock": "an entry of the stock",
    "stock_moves": "a move of the stock",
    "cuttings": "what was cut at one time",
    "holdings": "what the shop has of a part",
    "preferences": "one of the shop's ways",
}
"""What a row of each table is to the person."""
_NUMBER: Any = literal_column("rowid")


@dataclass(frozen=True)
class Wrong:
    """A row that cannot be read, by its number in the file, and the columns that are to blame."""

    entity: type[Base]
    rowid: int
    columns: tuple[Column[Any], ...]


@record
class UnreadRow:
    """One row that could not be read, in words, and as it was kept."""

    id: int
    said: str
    kept: str


def illegible(database: Path) -> str:
    """The table with the first row that cannot be read; blank where all can."""
    opened = Database(database)
    try:
        with opened.reading() as session:
            return next((str(wrong.entity.__tablename__) for wrong in wrongs(session)), "")
    finally:
        opened.close()


def set_aside(database: Database) -> None:
    """Take what cannot be read out of its table, kept as it was, so that the rest can be worked with."""
    with database.reading() as session:
        found = list(wrongs(session))
    if not found:
        return
    with database.writing() as session:
        for wrong in found:
            _take_out(session, wrong)


def all_set_aside(database: Database) -> tuple[UnreadRow, ...]:
    """What was set aside and nobody has looked at yet, the oldest first."""
    with database.reading() as session:
        rows = session.scalars(
            select(SetAsideRow).where(SetAsideRow.seen_at.is_(None)).order_by(SetAsideRow.id)
        )
        return tuple(UnreadRow(id=row.id, said=_said(row), kept=row.kept) for row in rows)


def looked_at(database: Database, row_id: int) -> None:
    """Somebody has looked at what was set aside; it is kept. Raises NotFound."""
    with database.writing() as session:
        row = session.get(SetAsideRow, row_id)
        if row is None:
            raise NotFound("Nothing of that number was set aside.")
        row.seen_at = now()


def _said(row: SetAsideRow) -> str:
    name, called = _NAMES.get(row.of, "a row"), json.loads(row.kept).get("name")
    if called and "name" not in row.columns:
        name = f"the {name.partition(' ')[2]} “{called}”"
    if not row.columns:
        return f"{name[0].upper()}{name[1:]} could not be read and was set aside."
    what = " and ".join(str(column).replace("_", " ") for column in row.columns)
    return f"“{what[0].upper()}{what[1:]}” of {name} could not be read; that alone was set aside."


def wrongs(session: Session) -> Iterator[Wrong]:
    """All rows that cannot be read."""
    for mapper in Base.registry.mappers:
        entity: type[Base] = mapper.class_
        columns = [c for c in mapper.columns if c is not _column(LineStep.document)]
        try:
            for row in session.execute(select(_NUMBER, *columns).select_from(entity)):
                bad = tuple(c for c, value in zip(columns, row[1:], strict=True) if not _fits(c, value))
                if bad:
                    yield Wrong(entity, row[0], bad)
        except (ValueError, TypeError, SQLAlchemyError):
            yield from _one_by_one(session, entity, columns)


def _one_by_one(session: Session, entity: type[Base], columns: list[Column[Any]]) -> Iterator[Wrong]:
    """The rows of a table that cannot be read in one go."""
    for (rowid,) in session.execute(select(_NUMBER).select_from(entity)).all():
        bad = []
        for column in columns:
            try:
                value = session.execute(select(column).where(rowid == _NUMBER)).scalar_one()
            except (ValueError, TypeError, SQLAlchemyError):
                bad.append(column)
            else:
                if not _fits(column, value):
                    bad.append(column)
        if bad:
            yield Wrong(entity, rowid, tuple(bad))


def _fits(column: Column[Any], value: Any) -> bool:
    shape = _SHAPES.get(column)
    if shape is not None:
        try:
            shape.validate_python(value)
        except ValidationError:
            return False
        return True
    if value is None:
        return bool(column.nullable)
    kind = column.type.python_type
    return isinstance(value, (int, float) if kind is float else kind)


def _take_out(session: Session, wrong: Wrong) -> None:
    table = inspect(wrong.entity).local_table
    names = [column.name for column in table.columns]
    # as bytes, for a text that is no text cannot be read as one
    bytes_of = [cast(column, LargeBinary) for column in table.columns]
    here = wrong.rowid == _NUMBER
    raw = session.execute(select(*bytes_of).select_from(wrong.entity).where(here)).one()
    told = {
        name: None if value is None else bytes(value).decode("utf-8", "replace")
        for name, value in zip(names, raw, strict=True)
    }
    whole = wrong.entity in _WHOLE
    if wrong.entity is not SummaryRow:
        session.add(
            SetAsideRow(
                of=str(wrong.entity.__tablename__),
                columns=[] if whole else [column.name for column in wrong.columns],
                kept=json.dumps(told, ensure_ascii=False),
            )
        )
    if whole:
        session.execute(delete(wrong.entity).where(here))
    else:
        session.execute(update(wrong.entity).where(here).values({c: _stand_in(c) for c in wrong.columns}))


def _stand_in(column: Column[Any]) -> Any:
    if column in _STAND_INS:
        return _STAND_INS[column]
    if column.default is not None:
        told: Any = column.default
        return told.arg(None) if told.is_callable else told.arg
    if column.nullable:
        return None
    kind = column.type.python_type
    return kind() if kind in (int, float, str, bytes) else now()

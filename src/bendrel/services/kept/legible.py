"""Whether what stands in the tables can be read, row by row, before a shop takes it over."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import inspect, select
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from bendrel.core.bend.bench.state import MakingState
from bendrel.core.line.strip_down import StripDown
from bendrel.services.stock.cuttings import CutItem
from bendrel.store.database import Database
from bendrel.store.models import (
    Base,
    CuttingRow,
    LineStep,
    MakingRow,
    OwnEntry,
    ProofRunRow,
    StripDownRow,
    TrialRow,
)

_MEANT: tuple[tuple[Any, TypeAdapter[Any]], ...] = (
    (OwnEntry.fields, TypeAdapter(dict[str, str])),
    (TrialRow.fields, TypeAdapter(dict[str, str])),
    (StripDownRow.log, TypeAdapter(StripDown)),
    (MakingRow.state, TypeAdapter(MakingState)),
    (MakingRow.document, TypeAdapter(dict[str, Any])),
    (MakingRow.departures, TypeAdapter(list[tuple[str, float] | tuple[str, float, int, int]])),
    (CuttingRow.items, TypeAdapter(list[CutItem])),
    (ProofRunRow.marks, TypeAdapter(list[tuple[float, str]])),
)
"""What a column holds that has a shape of its own. The document of a line has none here: one that cannot be
read is a line that says so, with its ways out."""


def illegible(database: Path) -> str:
    """The table with the first row that cannot be read; blank where all can."""
    opened = Database(database)
    try:
        with opened.reading() as session:
            return next(_illegible(session), "")
    finally:
        opened.close()


def _illegible(session: Session) -> Iterator[str]:
    for mapper in Base.registry.mappers:
        table = str(inspect(mapper.class_).local_table.name)
        columns = [
            column for column in mapper.column_attrs if column.class_attribute is not LineStep.document
        ]
        try:
            for _ in session.execute(select(*(column.class_attribute for column in columns))):
                pass
        except (ValueError, TypeError, SQLAlchemyError):
            yield table
    for column, meant in _MEANT:
        try:
            for (value,) in session.execute(select(column)):
                meant.validate_python(value)
        except (ValidationError, ValueError, TypeError):
            yield str(column.class_.__tablename__)

"""Reading and writing lines and their steps."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select, text
from sqlalchemy.orm import Session

from bendrel.core.errors import BendrelError
from bendrel.store.models import Job, LineRow, LineStep, new_id, now


def find_line(session: Session, line_id: str, *, deleted: bool = False) -> LineRow | None:
    """One line by id; a deleted one, or one of a deleted job, only when asked for."""
    row = session.get(LineRow, line_id)
    if row is None or deleted:
        return row
    return row if row.deleted_at is None and row.job.deleted_at is None else None


def add_line(session: Session, job: Job, document: dict[str, Any], name: str | None = None) -> LineRow:
    """A new line at the end of its job, with its first step; `name` is its id where others speak of it."""
    place = session.scalar(select(func.max(LineRow.place)).where(LineRow.job_id == job.id))
    row = LineRow(id=name or new_id(), job=job, place=0 if place is None else place + 1)
    row.steps.append(LineStep(seq=1, document=document))
    session.add(row)
    job.updated_at = now()
    session.flush()
    return row


class UnreadableDocument(BendrelError, ValueError):
    """What is kept of a line is no document any more. The text is for the person."""


def document_at(session: Session, row: LineRow, seq: int) -> dict[str, Any]:
    """The document after one step. Raises UnreadableDocument."""
    found = kept_document(session, row.id, seq)
    if not isinstance(found, dict):
        raise UnreadableDocument("What is kept of this line is no document any more.")
    return found


def last_step(session: Session, row: LineRow) -> int:
    """Number of the newest step, which lies after `head` when something was undone."""
    return session.scalar(select(func.max(LineStep.seq)).where(LineStep.line_id == row.id)) or 0


def push_step(session: Session, row: LineRow, document: dict[str, Any]) -> None:
    """Make `document` the present one; steps that had been undone are gone."""
    session.execute(delete(LineStep).where(LineStep.line_id == row.id, LineStep.seq > row.head))
    session.add(LineStep(line_id=row.id, seq=row.head + 1, document=document))
    move_head(row, row.head + 1)


def move_head(row: LineRow, seq: int) -> None:
    """Make another step the present one."""
    row.head = seq
    row.version += 1
    row.updated_at = row.job.updated_at = now()


@dataclass(frozen=True)
class LineAt:
    """Where a line stands, without its document."""

    id: str
    job_id: str
    place: int
    version: int
    head: int
    updated_at: datetime


def lines_at(session: Session, job_id: str | None = None) -> list[LineAt]:
    """All lines that are not deleted, of one job or of all, in the order of their jobs."""
    query = select(
        LineRow.id, LineRow.job_id, LineRow.place, LineRow.version, LineRow.head, LineRow.updated_at
    ).where(LineRow.deleted_at.is_(None))
    if job_id is not None:
        query = query.where(LineRow.job_id == job_id)
    return [LineAt(*row) for row in session.execute(query.order_by(LineRow.place))]


def raw_document(session: Session, line_id: str, seq: int) -> bytes | None:
    """A step as it is kept, readable or not."""
    found = session.execute(
        text("select cast(document as blob) from line_steps where line_id = :line and seq = :seq"),
        {"line": line_id, "seq": seq},
    ).first()
    return None if found is None or found[0] is None else bytes(found[0])


def kept_document(session: Session, line_id: str, seq: int) -> Any:
    """The values of a step; None where what is kept is no JSON."""
    told = raw_document(session, line_id, seq)
    try:
        return None if told is None else json.loads(told)
    except ValueError:
        return None

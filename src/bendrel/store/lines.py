"""Reading and writing lines and their steps."""

from __future__ import annotations

from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

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


def document_at(session: Session, row: LineRow, seq: int) -> dict[str, Any]:
    """The document after one step."""
    found: dict[str, Any] = session.scalars(
        select(LineStep.document).where(LineStep.line_id == row.id, LineStep.seq == seq)
    ).one()
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

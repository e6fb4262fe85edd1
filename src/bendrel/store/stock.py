"""Reading and writing sticks, coils and offcuts."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.store.models import StockRow, now


def present_stock(session: Session) -> list[StockRow]:
    """Everything that lies there, by tube and the longest first."""
    order = (StockRow.tube, StockRow.length_mm.desc(), StockRow.label)
    return list(session.scalars(select(StockRow).where(StockRow.deleted_at.is_(None)).order_by(*order)))


def lying_mm(session: Session) -> dict[str, float]:
    """How much of each tube lies there in all, in mm."""
    found: dict[str, float] = {}
    for row in present_stock(session):
        found[row.tube] = found.get(row.tube, 0.0) + row.length_mm * row.count
    return found


def put_in(session: Session, row: StockRow) -> StockRow:
    """Keep a new entry under a label that no other has had: the form's letter and the next number."""
    numbers = [int(label[1:]) for label in session.scalars(select(StockRow.label)) if label[1:].isdigit()]
    row.label = f"{row.form[0].upper()}{max(numbers, default=0) + 1}"
    session.add(row)
    session.flush()
    return row


def take_from(row: StockRow, used_mm: float) -> None:
    """Cut from a coil, which becomes shorter, or use up one of the sticks or offcuts."""
    if row.form == "coil":
        row.length_mm = max(0.0, row.length_mm - used_mm)
        if row.length_mm < 1.0:
            row.deleted_at = now()
        return
    row.count -= 1
    if row.count <= 0:
        row.count, row.deleted_at = 1, now()


def give_back(row: StockRow, used_mm: float) -> None:
    """The reverse of `take_from`."""
    if row.form == "coil":
        row.length_mm += used_mm
    else:
        row.count = 1 if row.deleted_at is not None else row.count + 1
    row.deleted_at = None

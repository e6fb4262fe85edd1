"""Sticks, coils and offcuts: what lies there is what came less what went."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from sqlalchemy import Select, func, select
from sqlalchemy.orm import Session

from bendrel.store.models import StockMove, StockRow

Kind = Literal["put in", "cut", "given back", "counted", "taken out", "put back"]
LEAST_MM = 1.0
"""A coil with less left is used up."""


@dataclass(frozen=True)
class Lying:
    """An entry and what lies there of it: how many pieces (0: it is gone), and how long each is."""

    id: str
    tube: str
    form: str
    length_mm: float
    count: int
    label: str
    finished: str
    note: str
    version: int


def present_stock(session: Session) -> list[Lying]:
    """Everything that lies there, by tube and the longest first."""
    found = [_lying(row, pieces, mm) for row, pieces, mm in session.execute(_added_up()) if pieces > 0]
    return sorted(found, key=lambda one: (one.tube, -one.length_mm, one.label))


def lying(session: Session, stock_id: str) -> Lying | None:
    """One entry, gone or not."""
    found = session.execute(_added_up().where(StockRow.id == stock_id)).first()
    return None if found is None else _lying(*found)


def lying_mm(session: Session) -> dict[str, float]:
    """How much of each tube lies there in all, in mm."""
    found: dict[str, float] = {}
    for one in present_stock(session):
        found[one.tube] = found.get(one.tube, 0.0) + one.length_mm * one.count
    return found


def put_in(session: Session, row: StockRow, count: int = 1, cutting_id: str = "") -> str:
    """Keep a new entry under a label that no other has had: the form's letter and the next number. Returns
    its id."""
    numbers = [int(label[1:]) for label in session.scalars(select(StockRow.label)) if label[1:].isdigit()]
    row.label = f"{row.form[0].upper()}{max(numbers, default=0) + 1}"
    session.add(row)
    session.flush()
    coil_mm = row.length_mm if row.form == "coil" else 0.0
    _move(session, row.id, "put in", count, coil_mm, cutting_id)
    return row.id


def cut_from(session: Session, one: Lying, used_mm: float, cutting_id: str) -> None:
    """Cut from a coil, which becomes shorter, or use up one of the sticks or offcuts."""
    if one.form != "coil":
        _move(session, one.id, "cut", -1, 0.0, cutting_id)
        return
    used = min(used_mm, one.length_mm)
    _move(session, one.id, "cut", -1 if one.length_mm - used < LEAST_MM else 0, -used, cutting_id)


def count_anew(session: Session, one: Lying, count: int, length_mm: float) -> None:
    """Somebody has looked what lies there: that holds, whatever was booked before."""
    row = session.get_one(StockRow, one.id)
    was, is_now = (one.length_mm if one.form == "coil" else 0.0), (length_mm if row.form == "coil" else 0.0)
    row.length_mm = length_mm
    _move(session, one.id, "counted", count - one.count, is_now - was)


def take_out(session: Session, one: Lying) -> None:
    """The entry is gone, for another reason than a cut."""
    _move(session, one.id, "taken out", -one.count, -one.length_mm if one.form == "coil" else 0.0)


def put_back(session: Session, one: Lying) -> None:
    """What was taken out last lies there again."""
    if one.count > 0:
        return
    last = session.scalars(
        select(StockMove)
        .where(StockMove.stock_id == one.id, StockMove.kind == "taken out")
        .order_by(StockMove.id.desc())
    ).first()
    if last is not None:
        _move(session, one.id, "put back", -last.pieces, -last.mm)


def looked_at_since(session: Session, stock_id: str, cutting_id: str) -> bool:
    """Whether somebody has counted an entry, or taken it out, after a cutting took from it or made it."""
    # what was cut before there was a ledger has no move: any count is later than that
    first = select(func.coalesce(func.min(StockMove.id), 0)).where(
        StockMove.stock_id == stock_id, StockMove.cutting_id == cutting_id
    )
    after = select(StockMove.id).where(
        StockMove.stock_id == stock_id,
        StockMove.kind.in_(("counted", "put back"))
        | ((StockMove.kind == "taken out") & (first.scalar_subquery() > 0)),
        StockMove.id > first.scalar_subquery(),
    )
    return session.execute(after).first() is not None


def give_back(session: Session, stock_id: str, cutting_id: str, before: tuple[int, float]) -> None:
    """As if the cutting had neither taken from an entry nor made it. `before` is what it took (less than 0)
    or made, in pieces and mm of a coil, where it is older than the ledger and has no moves."""
    moved = session.scalars(
        select(StockMove).where(StockMove.stock_id == stock_id, StockMove.cutting_id == cutting_id)
    ).all()
    pieces, mm = sum(move.pieces for move in moved), sum(move.mm for move in moved)
    if not moved:
        pieces, mm = before
    _move(session, stock_id, "given back", -pieces, -mm, cutting_id)


def _move(session: Session, stock_id: str, kind: Kind, pieces: int, mm: float, cutting_id: str = "") -> None:
    session.add(StockMove(stock_id=stock_id, kind=kind, pieces=pieces, mm=mm, cutting_id=cutting_id))
    row = session.get_one(StockRow, stock_id)
    row.version += kind != "put in"
    session.flush()


def _added_up() -> Select[StockRow, int, float]:
    """Entries with the sums of their moves."""
    return (
        select(StockRow, func.sum(StockMove.pieces), func.sum(StockMove.mm))
        .join(StockMove, StockMove.stock_id == StockRow.id)
        .group_by(StockRow.id)
    )


def _lying(row: StockRow, pieces: int, mm: float) -> Lying:
    return Lying(
        id=row.id,
        tube=row.tube,
        form=row.form,
        length_mm=max(0.0, mm) if row.form == "coil" else row.length_mm,
        count=pieces,
        label=row.label,
        finished=row.finished,
        note=row.note,
        version=row.version,
    )

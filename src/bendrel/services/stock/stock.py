"""Sticks, coils and labelled offcuts."""

from __future__ import annotations

from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen, MinLen
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import Text
from bendrel.core.units.notation import Unit, UnitError, format_length, parse_length
from bendrel.exchange.paper.label import build_label
from bendrel.services.errors import NotFound, Refused, Stale
from bendrel.services.shelf.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.models import StockMove, StockRow
from bendrel.store.stock import Lying, count_anew, lying, present_stock, put_back, put_in, take_out

Form = Literal["stick", "coil", "offcut"]


@record
class StockDraft:
    """Stock as typed: how many of one length. `finished` says which end is flared and with which nut."""

    tube: Annotated[str, MinLen(1), MaxLen(80)]
    form: Form = "stick"
    length: Text = ""
    unit: Unit = "mm"
    count: Annotated[int, Ge(1), Le(1000)] = 1
    finished: Annotated[str, MaxLen(120)] = ""
    note: Annotated[str, MaxLen(120)] = ""


@record
class Stock:
    """One kept entry; `label` is what is written on it."""

    id: str
    tube: str
    tube_name: str
    form: Form
    length_mm: float
    count: int
    label: str
    finished: str
    note: str
    version: int


@record
class StockBooking:
    """Something that came to an entry or went: pieces, and of a coil mm."""

    kind: str
    pieces: int
    mm: float
    at: datetime


SAME_MM = 0.06
"""Lengths are shown to a tenth; what reads the same is the same."""


class StockRoom:
    """Use cases on stock. Raises NotFound, Refused and Stale."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf

    def all(self) -> tuple[Stock, ...]:
        """Everything that lies there, by tube and the longest first."""
        with self._database.reading() as session:
            return tuple(self._stock(row) for row in present_stock(session))

    def add(self, draft: StockDraft) -> Stock:
        """Put something into the stock; every piece gets a label of its own number."""
        length = self._checked(draft)
        with self._database.writing() as session:
            row = StockRow(
                tube=draft.tube, form=draft.form, length_mm=length, finished=draft.finished, note=draft.note
            )
            return self._stock(_lying(session, put_in(session, row, draft.count)))

    def change(self, stock_id: str, draft: StockDraft, version: int | None = None) -> Stock:
        """Correct an entry. Another count or length than what was booked is what somebody has counted; it
        holds. Raises Stale on another `version` than the one that was read."""
        length = self._checked(draft)
        with self._database.writing() as session:
            there = self._read_at(session, stock_id, version)
            row = session.get_one(StockRow, stock_id)
            row.tube, row.form = draft.tube, draft.form
            row.finished, row.note = draft.finished, draft.note
            told = (draft.count, draft.form)
            if told != (there.count, there.form) or abs(length - there.length_mm) > SAME_MM:
                count_anew(session, there, draft.count, length)
            else:
                row.version += 1
            session.flush()
            return self._stock(_lying(session, stock_id))

    def remove(self, stock_id: str, version: int | None = None, *, back: bool = False) -> None:
        """Take an entry out, or put it back. Raises Stale as `change`."""
        with self._database.writing() as session:
            there = self._read_at(session, stock_id, None if back else version)
            if back:
                put_back(session, there)
            elif there.count > 0:
                take_out(session, there)

    def moves(self, stock_id: str) -> tuple[StockBooking, ...]:
        """All that came to an entry and went, the newest first."""
        with self._database.reading() as session:
            _lying(session, stock_id)
            rows = session.scalars(
                select(StockMove).where(StockMove.stock_id == stock_id).order_by(StockMove.id.desc())
            )
            return tuple(StockBooking(kind=row.kind, pieces=row.pieces, mm=row.mm, at=row.at) for row in rows)

    def _read_at(self, session: Session, stock_id: str, version: int | None) -> Lying:
        there = _lying(session, stock_id)
        if version is not None and there.version != version:
            raise Stale(
                f"{there.label} was changed elsewhere first: there it is {_said(there)} now. What you typed "
                "is still here.",
                there.version,
                asdict(there),
            )
        return there

    def label(self, stock_id: str) -> bytes:
        """PDF of the label of one entry."""
        with self._database.reading() as session:
            found = self._stock(_lying(session, stock_id))
        said = f"{found.length_mm:.0f} mm · {format_length(found.length_mm, 'in')}"
        return build_label(found.label, found.tube_name, said, found.finished)

    def _checked(self, draft: StockDraft) -> float:
        if draft.tube not in self._shelf.kit.tubes:
            raise Refused(f"The catalogue has no tube “{draft.tube[:40]}”; choose one that is listed.")
        if draft.form == "coil" and draft.count != 1:
            raise Refused("A coil is one piece: enter each coil by itself.")
        try:
            return parse_length(draft.length, draft.unit)
        except UnitError as error:
            raise Refused(f"Length: {error}") from error

    def _stock(self, row: Lying) -> Stock:
        return Stock(
            id=row.id,
            tube=row.tube,
            tube_name=tube_name(self._shelf.kit, row.tube),
            form=row.form,  # type: ignore[arg-type]
            length_mm=row.length_mm,
            count=row.count,
            label=row.label,
            finished=row.finished,
            note=row.note,
            version=row.version,
        )


def tube_name(kit: Kit, tube: str) -> str:
    """Size, wall and material of a tube, as stock and cut lists say it."""
    found = kit.tubes.get(tube)
    if found is None:
        return f"not in the catalogue: {tube}"
    return f"{found.size} × {found.wall_mm:g} mm {kit.materials[found.material].name}"


def _lying(session: Session, stock_id: str) -> Lying:
    found = lying(session, stock_id)
    if found is None:
        raise NotFound(f"There is nothing “{stock_id[:40]}” in the stock.")
    return found


def _said(there: Lying) -> str:
    if there.count <= 0:
        return "gone"
    note = f", {there.note}" if there.note else ""
    return f"{there.count} × {there.length_mm:.0f} mm{note}"

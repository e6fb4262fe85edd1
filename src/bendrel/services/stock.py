"""Sticks, coils and labelled offcuts."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen, MinLen
from sqlalchemy.orm import Session

from bendrel.core.lengths import Text
from bendrel.core.record import record
from bendrel.core.shop.kit import Kit
from bendrel.core.units import Unit, UnitError, format_length, parse_length
from bendrel.exchange.label import build_label
from bendrel.services.errors import NotFound, Refused
from bendrel.services.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.models import StockRow, now
from bendrel.store.stock import present_stock, put_in

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


class StockRoom:
    """Use cases on stock. Raises NotFound and Refused."""

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
                tube=draft.tube,
                form=draft.form,
                length_mm=length,
                count=draft.count,
                finished=draft.finished,
                note=draft.note,
            )
            return self._stock(put_in(session, row))

    def change(self, stock_id: str, draft: StockDraft) -> Stock:
        """Correct an entry."""
        length = self._checked(draft)
        with self._database.writing() as session:
            row = _row(session, stock_id)
            row.tube, row.form, row.length_mm = draft.tube, draft.form, length
            row.count, row.finished, row.note = draft.count, draft.finished, draft.note
            return self._stock(row)

    def remove(self, stock_id: str, *, back: bool = False) -> None:
        """Take an entry out, or put it back."""
        with self._database.writing() as session:
            _row(session, stock_id).deleted_at = None if back else now()

    def label(self, stock_id: str) -> bytes:
        """PDF of the label of one entry."""
        with self._database.reading() as session:
            found = self._stock(_row(session, stock_id))
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

    def _stock(self, row: StockRow) -> Stock:
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
        )


def tube_name(kit: Kit, tube: str) -> str:
    """Size, wall and material of a tube, as stock and cut lists say it."""
    found = kit.tubes.get(tube)
    if found is None:
        return f"not in the catalogue: {tube}"
    return f"{found.size} × {found.wall_mm:g} mm {kit.materials[found.material].name}"


def _row(session: Session, stock_id: str) -> StockRow:
    row = session.get(StockRow, stock_id)
    if row is None:
        raise NotFound(f"There is nothing “{stock_id[:40]}” in the stock.")
    return row

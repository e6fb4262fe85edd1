"""Sticks, coils and labelled offcuts, and the cut list of a job over them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen, MinLen
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.lengths import Text
from bendrel.core.plan.assemble import plan_line
from bendrel.core.record import record
from bendrel.core.stock.cutting import CutList, Wanted, cut_list
from bendrel.core.stock.patterns import Bar
from bendrel.core.units import Unit, UnitError, format_length, parse_length
from bendrel.exchange.documents import line_from_value
from bendrel.exchange.label import build_label
from bendrel.services.errors import NotFound, Refused
from bendrel.services.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.jobs import find_job
from bendrel.store.lines import document_at
from bendrel.store.models import Job, StockRow, now

Form = Literal["stick", "coil", "offcut"]
NEW_STICKS = ("new_stick_short_mm", "new_stick_long_mm")
"""The rules that say in which lengths sticks are bought."""


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


@record
class NamedPiece:
    """A piece of the cut list: the line it is for and its length."""

    line_id: str
    line: str
    mm: float


@record
class TubeCuts:
    """The cut list of one tube. `bought` are bars that the shop has not got; `pieces` by their id."""

    tube: str
    tube_name: str
    pieces: Mapping[str, NamedPiece]
    bars: Mapping[str, str]
    cuts: CutList
    bought: tuple[str, ...]


@record
class JobCuts:
    """Cut lists of a job, one a tube, and the lines that cannot be planned yet."""

    tubes: tuple[TubeCuts, ...]
    waiting: tuple[str, ...]
    kerf_mm: float
    least_kept_mm: float


class StockRoom:
    """Use cases on stock. Raises NotFound and Refused."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf

    def all(self) -> tuple[Stock, ...]:
        """Everything that lies there, by tube and the longest first."""
        with self._database.session() as session:
            return tuple(self._stock(row) for row in _present(session))

    def add(self, draft: StockDraft) -> Stock:
        """Put something into the stock; every piece gets a label of its own number."""
        length = self._checked(draft)
        with self._database.session() as session:
            row = self._new(session, draft.tube, draft.form, length, draft.count, draft.finished, draft.note)
            return self._stock(row)

    def change(self, stock_id: str, draft: StockDraft) -> Stock:
        """Correct an entry."""
        length = self._checked(draft)
        with self._database.session() as session:
            row = _row(session, stock_id)
            row.tube, row.form, row.length_mm = draft.tube, draft.form, length
            row.count, row.finished, row.note = draft.count, draft.finished, draft.note
            return self._stock(row)

    def remove(self, stock_id: str, *, back: bool = False) -> None:
        """Take an entry out, or put it back."""
        with self._database.session() as session:
            _row(session, stock_id).deleted_at = None if back else now()

    def label(self, stock_id: str) -> bytes:
        """PDF of the label of one entry."""
        with self._database.session() as session:
            found = self._stock(_row(session, stock_id))
        said = f"{found.length_mm:.0f} mm · {format_length(found.length_mm, 'in')}"
        return build_label(found.label, found.tube_name, said, found.finished)

    def cuts(self, job_id: str) -> JobCuts:
        """What is cut from what, over all lines of a job that are not done."""
        with self._database.session() as session:
            return self._cuts(session, _job(session, job_id))

    def cut(self, job_id: str) -> JobCuts:
        """Take the cuts out of the stock: bars become their labelled offcuts or are gone."""
        with self._database.session() as session:
            told = self._cuts(session, _job(session, job_id))
            for tube in told.tubes:
                for cut in tube.cuts.cuts:
                    source = session.get(StockRow, cut.bar)
                    if source is not None:
                        self._take(source, cut.bar_mm - cut.left_mm)
                        if source.form == "coil":
                            continue
                    if cut.kept:
                        note = f"from {source.label}" if source is not None else "from a new stick"
                        # a finished end goes with the first piece
                        self._new(session, tube.tube, "offcut", cut.left_mm, 1, "", note)
            session.flush()
            return told

    def _take(self, row: StockRow, used_mm: float) -> None:
        if row.form == "coil":
            row.length_mm = max(0.0, row.length_mm - used_mm)
            if row.length_mm < 1.0:
                row.deleted_at = now()
            return
        row.count -= 1
        if row.count <= 0:
            row.count, row.deleted_at = 1, now()

    def _cuts(self, session: Session, job: Job) -> JobCuts:
        kit = self._shelf.kit
        wanted: dict[str, list[tuple[str, NamedPiece]]] = {}
        waiting = []
        for line_row in (row for row in job.lines if row.deleted_at is None):
            line = line_from_value(document_at(session, line_row, line_row.head))
            plan = plan_line(line, kit)
            if plan.removed.done:
                continue
            if plan.part is None:
                waiting.append(line.name)
                continue
            piece = NamedPiece(line_id=line_row.id, line=line.name, mm=plan.part.take_mm)
            wanted.setdefault(line.spans[0].tube, []).append((line_row.id, piece))
        rows = _present(session)
        kerf, least = kit.limits["kerf_mm"].value, kit.limits["useful_offcut_mm"].value
        tubes = []
        for tube, pieces in wanted.items():
            held = [row for row in rows if row.tube == tube]
            bars = [
                Bar(id=r.id, mm=r.length_mm, count=r.count, own=True, coil=r.form == "coil") for r in held
            ]
            lengths = [kit.limits[name].value for name in NEW_STICKS]
            new = [Bar(id=f"new {mm:.0f}", mm=mm, count=None, own=False) for mm in lengths]
            found = cut_list(
                [Wanted(id=key, mm=piece.mm) for key, piece in pieces],
                [*bars, *new],
                kerf_mm=kerf,
                least_kept_mm=least,
            )
            names = {row.id: f"{row.label} {row.form}" for row in held}
            names |= {bar.id: f"new stick of {bar.mm:.0f} mm" for bar in new}
            tubes.append(
                TubeCuts(
                    tube=tube,
                    tube_name=self._name(tube),
                    pieces=dict(pieces),
                    bars=names,
                    cuts=found,
                    bought=tuple(cut.bar for cut in found.cuts if cut.bar.startswith("new ")),
                )
            )
        return JobCuts(tubes=tuple(tubes), waiting=tuple(waiting), kerf_mm=kerf, least_kept_mm=least)

    def _new(
        self, session: Session, tube: str, form: Form, length: float, count: int, finished: str, note: str
    ) -> StockRow:
        numbers = [int(label[1:]) for label in session.scalars(select(StockRow.label)) if label[1:].isdigit()]
        label = f"{form[0].upper()}{max(numbers, default=0) + 1}"
        row = StockRow(
            tube=tube, form=form, length_mm=length, count=count, label=label, finished=finished, note=note
        )
        session.add(row)
        session.flush()
        return row

    def _checked(self, draft: StockDraft) -> float:
        if draft.tube not in self._shelf.kit.tubes:
            raise Refused(f"The catalogue has no tube “{draft.tube[:40]}”; choose one that is listed.")
        if draft.form == "coil" and draft.count != 1:
            raise Refused("A coil is one piece: enter each coil by itself.")
        try:
            return parse_length(draft.length, draft.unit)
        except UnitError as error:
            raise Refused(f"Length: {error}") from error

    def _name(self, tube: str) -> str:
        kit = self._shelf.kit
        found = kit.tubes.get(tube)
        if found is None:
            return f"not in the catalogue: {tube}"
        return f"{found.size} × {found.wall_mm:g} mm {kit.materials[found.material].name}"

    def _stock(self, row: StockRow) -> Stock:
        return Stock(
            id=row.id,
            tube=row.tube,
            tube_name=self._name(row.tube),
            form=row.form,  # type: ignore[arg-type]
            length_mm=row.length_mm,
            count=row.count,
            label=row.label,
            finished=row.finished,
            note=row.note,
        )


def _present(session: Session) -> list[StockRow]:
    order = (StockRow.tube, StockRow.length_mm.desc(), StockRow.label)
    return list(session.scalars(select(StockRow).where(StockRow.deleted_at.is_(None)).order_by(*order)))


def _row(session: Session, stock_id: str) -> StockRow:
    row = session.get(StockRow, stock_id)
    if row is None:
        raise NotFound(f"There is nothing “{stock_id[:40]}” in the stock.")
    return row


def _job(session: Session, job_id: str) -> Job:
    job = find_job(session, job_id)
    if job is None:
        raise NotFound(f"There is no job “{job_id[:40]}”; it may have been deleted.")
    return job

"""Parts while they are being made: where the person stands, what they read, how long it took."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.bend.bench.state import Ended, MakingState, Outcome
from bendrel.core.bend.told.spread import HandRead
from bendrel.core.line.document import Line, RigidSpan
from bendrel.core.line.run import with_span
from bendrel.core.record import record
from bendrel.core.units.lengths import Length
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.services.bench.benches import hands_read, planned_of
from bendrel.services.bench.gaps import across_gap, with_gap
from bendrel.services.errors import Crowded, NotFound, Refused, Stale, TooMuch
from bendrel.services.readable import present_line
from bendrel.services.reckoned.apart import RECKONING, apart
from bendrel.services.shelf.shelf import Shelf
from bendrel.services.shelf.tubes import tube_of
from bendrel.store.database import Database
from bendrel.store.lines import find_line, push_step
from bendrel.store.models import LineRow, MakingRow, now


@record
class Making:
    """One making of a tube of a line, with the document it was begun with."""

    id: str
    line_id: str
    span: str
    job_id: str
    version: int
    document: Line
    state: MakingState
    outcome: Outcome
    at: datetime
    ended_at: datetime | None


_STATE = TypeAdapter(MakingState)


class Makings:
    """Use cases on makings. Raises NotFound, Refused and Stale."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf

    def of_line(self, line_id: str) -> tuple[Making, ...]:
        """All makings of a line, the newest first."""
        with self._database.reading() as session:
            job_id = _line(session, line_id)
            rows = session.scalars(
                select(MakingRow).where(MakingRow.line_id == line_id).order_by(MakingRow.at.desc())
            )
            return tuple(_making(row, job_id) for row in rows)

    def begin(self, line_id: str, span: str = "") -> Making:
        """Begin to make a tube of the line as it is saved, or go on with what was begun."""
        with self._database.reading() as session:
            line_row = _line_row(session, line_id)
            job_id = line_row.job_id
            line = present_line(session, line_row)
            own = tube_of(line, span).span
            begun = _begun(session, line_id, own.id)
        if begun is not None:
            return _making(begun, job_id)
        if own.state == "stays":
            raise Refused("This tube stays as it is; there is nothing to make.")
        planned_of(line, self._shelf.kit, own.id)  # refused here where it cannot be made
        with self._database.writing() as session:
            row = _begun(session, line_id, own.id)
            if row is None:
                row = MakingRow(
                    line_id=line_id, span=own.id, document=line_to_value(line), state={}, departures=[]
                )
                session.add(row)
                session.flush()
            return _making(row, job_id)

    def keep(self, making_id: str, version: int, state: MakingState) -> Making:
        """Keep how far it is. A stale write is refused with what is kept."""
        with self._database.reading() as session:
            begun = _row(session, making_id)
            document, span = line_from_value(begun.document), begun.span
        told = (document, self._shelf.kit, state.made, span, state.offers)
        read: Sequence[HandRead] | None
        try:
            read = apart(RECKONING, hands_read, *told)
        except (TooMuch, Crowded):  # what was typed is kept all the same
            read = None
        with self._database.writing() as session:
            row = _row(session, making_id)
            job_id = _line(session, row.line_id)
            _refuse_unless_under_way(row, version)
            row.state = _STATE.dump_python(state, mode="json")
            if read is not None:
                row.departures = [[d.name, d.off, d.hands, d.reads] for d in read]
            row.version += 1
            kept = _making(row, job_id)
        self._shelf.read_hand()
        return kept

    def gap(self, making_id: str, version: int, read: Length) -> Making:
        """The piece is planned for the gap as it was read after the cuts, here and on the line itself. Raises
        Refused once a bend is made."""
        with self._database.writing() as session:
            row = _row(session, making_id)
            _refuse_unless_under_way(row, version)
            if _STATE.validate_python(row.state).made:
                raise Refused("A bend is made already, for the gap as it was planned; begin a new piece.")
            changed = with_gap(line_from_value(row.document), self._shelf.kit, row.span, read)
            row.document = line_to_value(changed)
            row.version += 1
            line_row = _line_row(session, row.line_id)
            line = present_line(session, line_row)
            own = next((span for span in line.spans if span.id == row.span), None)
            if isinstance(own, RigidSpan):
                told = with_span(line, across_gap(own, read))
                if told != line:
                    push_step(session, line_row, line_to_value(told))
            return _making(row, line_row.job_id)

    def end(self, making_id: str, outcome: Ended) -> Making:
        """The part is finished, scrapped or given up; its readings stay in the shop's spread."""
        with self._database.writing() as session:
            row = _row(session, making_id)
            if row.ended_at is not None:
                raise Refused("This making has ended already.")
            row.outcome, row.ended_at = outcome, now()
            row.version += 1
            kept = _making(row, _line(session, row.line_id))
        self._shelf.read_anew()  # its angles teach the tool
        return kept


def _begun(session: Session, line_id: str, span: str) -> MakingRow | None:
    return session.scalars(
        select(MakingRow).where(
            MakingRow.line_id == line_id, MakingRow.span == span, MakingRow.ended_at.is_(None)
        )
    ).first()


def _line_row(session: Session, line_id: str) -> LineRow:
    row = find_line(session, line_id)
    if row is None:
        raise NotFound(f"There is no line “{line_id[:40]}”; it may have been deleted.")
    return row


def _line(session: Session, line_id: str) -> str:
    return _line_row(session, line_id).job_id


def _row(session: Session, making_id: str) -> MakingRow:
    row = session.get(MakingRow, making_id)
    if row is None:
        raise NotFound(f"There is no making “{making_id[:40]}”.")
    return row


def _refuse_unless_under_way(row: MakingRow, version: int) -> None:
    """Raises Refused for a making that has ended, Stale for one that somebody else has gone on with."""
    if row.ended_at is not None:
        raise Refused("This making has ended; begin a new one.")
    if row.version != version:
        raise Stale(
            "Somebody else has gone on with this part; look at their state first.", row.version, row.state
        )


def _making(row: MakingRow, job_id: str) -> Making:
    return Making(
        id=row.id,
        line_id=row.line_id,
        span=row.span,
        job_id=job_id,
        version=row.version,
        document=line_from_value(row.document),
        state=_STATE.validate_python(row.state),
        outcome=row.outcome,  # type: ignore[arg-type]
        at=row.at,
        ended_at=row.ended_at,
    )

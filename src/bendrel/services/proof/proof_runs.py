"""Runs that prove a line: recorded from the gauge, or brought in as a file; read back for the chart."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.record import record
from bendrel.exchange.readings.readings import GaugeReadings, read_readings, write_readings
from bendrel.services.errors import NotFound, Refused
from bendrel.services.proof.recorder import Recorder
from bendrel.services.reckoned.apart import READING, apart
from bendrel.store.database import Database
from bendrel.store.lines import find_line
from bendrel.store.models import ProofRunRow, now
from bendrel.store.proof_runs import add_readings, count_of, readings_of

RunSource = Literal["gauge", "file"]
MOST_MARK = 80


@record
class Mark:
    """Something that happened in a run: seconds from its start, and what."""

    at_s: float
    text: str


@record
class ProofRun:
    """One run. `absolute` says that pressures count from nothing, else from the air. `recording` says that it
    is on, `silent_s` for how long the gauge has said nothing, `link` how the gauge is connected; `trouble`
    why the last readings are not written yet, `waiting` how many there are."""

    id: str
    line_id: str
    source: RunSource
    absolute: bool
    at: datetime
    ended_at: datetime | None
    readings: int
    marks: tuple[Mark, ...]
    recording: bool
    silent_s: float | None
    link: str
    trouble: str
    waiting: int


@record
class ChartPoint:
    """A stretch of a run: its middle (s), and the least, the mean and the greatest pressure (kPa)."""

    at_s: float
    least: float
    mean: float
    most: float
    warm_c: float | None


@record
class Chart:
    """A run thinned out for a chart."""

    run: ProofRun
    points: tuple[ChartPoint, ...]


class ProofRuns:
    """Use cases on runs. Raises NotFound, Refused and FileError."""

    def __init__(self, database: Database, recorder: Recorder) -> None:
        self._database = database
        self._recorder = recorder

    def of_line(self, line_id: str) -> tuple[ProofRun, ...]:
        """All runs of a line, the newest first."""
        with self._database.reading() as session:
            _present(session, line_id)
            rows = session.scalars(
                select(ProofRunRow).where(ProofRunRow.line_id == line_id).order_by(ProofRunRow.at.desc())
            )
            return tuple(self._told(session, row) for row in rows)

    def begin(self, line_id: str, *, absolute: bool) -> ProofRun:
        """Record the gauge for a line from now on. One run is on at a time."""
        if self._recorder.run:
            with self._database.reading() as session:
                other = _run(session, self._recorder.run)
                if other.line_id == line_id:
                    return self._told(session, other)
            raise Refused("The gauge is being recorded for another line; end that run first.")
        with self._database.writing() as session:
            _present(session, line_id)
            row = ProofRunRow(line_id=line_id, source="gauge", absolute=absolute, marks=[])
            session.add(row)
            session.flush()
            run_id = row.id
        self._recorder.begin(run_id, absolute=absolute)
        return self.open(run_id)

    def end(self, run_id: str) -> ProofRun:
        """Record no more; a run that was cut off by a stop of the program ends where its readings do."""
        with self._database.reading() as session:
            _run(session, run_id)
        if self._recorder.run == run_id:
            self._recorder.end()
        with self._database.writing() as session:
            row = _run(session, run_id)
            row.ended_at = row.ended_at or now()
            return self._told(session, row)

    def mark(self, run_id: str, text: str) -> ProofRun:
        """A mark at this moment of a run that is on."""
        if self._recorder.run != run_id:
            raise Refused("This run is not being recorded any more; a mark belongs to a run that is on.")
        if not text.strip():
            raise Refused("A mark needs a word, such as: valve shut.")
        self._recorder.mark(text.strip()[:MOST_MARK])
        return self.open(run_id)

    def open(self, run_id: str) -> ProofRun:
        """One run."""
        with self._database.reading() as session:
            return self._told(session, _run(session, run_id))

    def chart(self, run_id: str, points: int) -> Chart:
        """A run as at most `points` stretches of equal length."""
        with self._database.reading() as session:
            told = self._told(session, _run(session, run_id))
            data = readings_of(session, run_id)
        return Chart(run=told, points=thinned(data, points))

    def bring_in(self, line_id: str, data: bytes) -> ProofRun:
        """A file of readings becomes a run of the line, whole or not at all."""
        read: GaugeReadings = apart(READING, read_readings, data)
        warm = read.temperatures_c or (float("nan"),) * len(read.times_s)
        rows = list(zip(read.times_s, read.pressures_kpa, warm, strict=True))
        if not rows:
            raise Refused("The file has no readings; at least five rows are needed.")
        with self._database.writing() as session:
            _present(session, line_id)
            row = ProofRunRow(line_id=line_id, source="file", absolute=True, marks=[], ended_at=now())
            session.add(row)
            session.flush()
            add_readings(session, row.id, rows)
            return self._told(session, row)

    def written(self, run_id: str, air_kpa: float) -> str:
        """The run as CSV, absolute pressure."""
        return write_readings(self.readings(run_id, air_kpa))

    def readings(self, run_id: str, air_kpa: float) -> GaugeReadings:
        """All readings of a run in absolute pressure."""
        with self._database.reading() as session:
            row = _run(session, run_id)
            absolute, data = row.absolute, readings_of(session, run_id)
        pressures = data[:, 1] if absolute else np.maximum(data[:, 1] + air_kpa, 0.0)
        warm = data[:, 2]
        return GaugeReadings(
            times_s=tuple(data[:, 0].tolist()),
            pressures_kpa=tuple(pressures.tolist()),
            temperatures_c=None if len(warm) == 0 or bool(np.isnan(warm).any()) else tuple(warm.tolist()),
        )

    def _told(self, session: Session, row: ProofRunRow) -> ProofRun:
        on = self._recorder.run == row.id
        last = self._recorder.last
        return ProofRun(
            id=row.id,
            line_id=row.line_id,
            source="gauge" if row.source == "gauge" else "file",
            absolute=row.absolute,
            at=row.at,
            ended_at=row.ended_at,
            readings=count_of(session, row.id),
            marks=tuple(Mark(at_s=at, text=text) for at, text in row.marks),
            recording=on,
            silent_s=self._recorder.silent_s() if on else None,
            link=last.state if last is not None else "off",
            trouble=self._recorder.trouble if on else "",
            waiting=self._recorder.waiting if on and self._recorder.trouble else 0,
        )


def thinned(data: NDArray[np.float64], points: int) -> tuple[ChartPoint, ...]:
    """At most `points` stretches of a run; one of a single reading is that reading."""
    found = []
    for part in np.array_split(data, min(max(points, 1), max(len(data), 1))):
        if not len(part):
            continue
        warm = part[:, 2][~np.isnan(part[:, 2])]
        found.append(
            ChartPoint(
                at_s=float(part[:, 0].mean()),
                least=float(part[:, 1].min()),
                mean=float(part[:, 1].mean()),
                most=float(part[:, 1].max()),
                warm_c=float(warm.mean()) if len(warm) else None,
            )
        )
    return tuple(found)


def _run(session: Session, run_id: str) -> ProofRunRow:
    row = session.get(ProofRunRow, run_id)
    if row is None:
        raise NotFound(f"There is no run “{run_id[:40]}”.")
    return row


def _present(session: Session, line_id: str) -> None:
    if find_line(session, line_id) is None:
        raise NotFound(f"There is no line “{line_id[:40]}”; it may have been deleted.")

"""Runs of a job on their way into and out of an archive."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.line.document import Line
from bendrel.exchange.documents.archive import ArchivedJob, ArchivedRun
from bendrel.exchange.errors import FileError
from bendrel.exchange.readings.readings import read_run, write_run
from bendrel.store.models import ProofRunRow, new_id
from bendrel.store.proof_runs import add_readings, readings_of


def runs_out(session: Session, lines: Sequence[str]) -> tuple[tuple[ArchivedRun, ...], dict[str, bytes]]:
    """The runs of some lines, in their order, and the readings of each as CSV."""
    rows = [
        (place, row)
        for place, line in enumerate(lines)
        for row in session.scalars(
            select(ProofRunRow).where(ProofRunRow.line_id == line).order_by(ProofRunRow.at)
        )
    ]
    told = tuple(
        ArchivedRun(
            id=row.id,
            line=place,
            source="gauge" if row.source == "gauge" else "file",
            absolute=row.absolute,
            marks=tuple((float(at), str(text)) for at, text in row.marks),
            at=row.at,
            ended_at=row.ended_at,
        )
        for place, row in rows
    )
    return told, {row.id: write_run(readings_of(session, row.id).tolist()) for _, row in rows}


def check_runs(
    job: ArchivedJob, readings: Mapping[str, bytes]
) -> dict[str, list[tuple[float, float, float]]]:
    """The readings of every run that came along, checked before anything is kept. Raises FileError for a run
    of a line that the job does not have, and for readings that are none."""
    found = {}
    for run in job.runs:
        if run.line >= len(job.lines):
            raise FileError(f"A run belongs to line {run.line + 1}, and the job has {len(job.lines)}.")
        if run.id in readings:
            found[run.id] = read_run(readings[run.id])
    return found


def runs_in(
    session: Session,
    job: ArchivedJob,
    lines: Sequence[str],
    ids: Mapping[str, str],
    readings: Mapping[str, list[tuple[float, float, float]]],
) -> None:
    """Keep the runs of a job that was brought in, under their new `ids`."""
    for run in job.runs:
        session.add(
            ProofRunRow(
                id=ids[run.id],
                line_id=lines[run.line],
                source=run.source,
                absolute=run.absolute,
                marks=[list(mark) for mark in run.marks],
                at=run.at.replace(tzinfo=None),
                ended_at=(run.ended_at or run.at).replace(tzinfo=None),
            )
        )
        session.flush()
        if readings.get(run.id):
            add_readings(session, ids[run.id], readings[run.id])


def new_run_ids(job: ArchivedJob) -> dict[str, str]:
    """New ids for the runs of a job, so that it may be brought in twice."""
    return {run.id: new_id() for run in job.runs}


def with_runs(line: Line, ids: Mapping[str, str]) -> Line:
    """`line` with its hold tests naming their runs by new ids; one that did not come along is not found."""
    holds = tuple(replace(hold, run=ids.get(hold.run, hold.run)) for hold in line.proving.holds)
    return replace(line, proving=replace(line.proving, holds=holds))

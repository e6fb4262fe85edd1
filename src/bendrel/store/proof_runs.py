"""Readings of a run in the database: written a second at a time, read whole or thinned out."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from bendrel.store.models import ProofChunk

Reading = tuple[float, float, float]
"""Seconds from the start, kPa, °C (NaN where it was not measured)."""
COLUMNS = 3


def add_readings(session: Session, run_id: str, readings: Sequence[Reading]) -> None:
    """Keep some more readings of a run."""
    data = np.asarray(readings, dtype="<f8")
    session.add(ProofChunk(run_id=run_id, count=len(data), readings=data.tobytes()))


def readings_of(session: Session, run_id: str) -> NDArray[np.float64]:
    """All readings of a run, one row each: seconds, kPa, °C."""
    parts = session.scalars(
        select(ProofChunk.readings).where(ProofChunk.run_id == run_id).order_by(ProofChunk.id)
    )
    return np.frombuffer(b"".join(parts), dtype="<f8").reshape(-1, COLUMNS)


def count_of(session: Session, run_id: str) -> int:
    """How many readings a run has."""
    query = select(func.coalesce(func.sum(ProofChunk.count), 0)).where(ProofChunk.run_id == run_id)
    return int(session.scalar(query) or 0)

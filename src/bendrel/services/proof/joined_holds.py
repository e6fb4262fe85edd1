"""A circuit is proved once: the hold tests of the lines that one is joined to, to be noted with it too."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import assert_never

from bendrel.core.line.proving import GaugeReads, Hold, HoldRow
from bendrel.core.record import record
from bendrel.core.work.holding import air_of
from bendrel.services.errors import NotFound
from bendrel.services.job.circuits import Circuits
from bendrel.services.line.lines import Lines
from bendrel.services.proof.closings import Closings
from bendrel.services.proof.proof_runs import ProofRuns
from bendrel.services.shelf.shelf import Shelf

MOST_ROWS = 60
"""Rows that a recorded run is told in where it is noted with another line."""


TAKEN = "taken together with"
"""How the note of one begins that was noted with another line."""


@record
class JoinedHold:
    """A hold test of a line that this one is joined to, as it would be noted here, and what it says."""

    line: str
    name: str
    hold: Hold
    leak: str


class JoinedHolds:
    """The use case. Raises NotFound."""

    def __init__(
        self, lines: Lines, closings: Closings, circuits: Circuits, runs: ProofRuns, shelf: Shelf
    ) -> None:
        self._lines, self._closings, self._circuits = lines, closings, circuits
        self._runs, self._shelf = runs, shelf

    def of(self, line_id: str, today: date) -> tuple[JoinedHold, ...]:
        """Every judged hold test of the lines in the same circuit, with what was shut in and where it comes
        from."""
        opened = self._lines.open(line_id)
        groups = self._circuits.of_job(opened.job_id, self._shelf.kit).groups
        group = next((group for group in groups if line_id in group), ())
        found: list[JoinedHold] = []
        for other in group:
            if other == line_id:
                continue
            try:
                found += self._held(other, today)
            except NotFound:  # deleted meanwhile
                continue
        return tuple(found)

    def _held(self, line_id: str, today: date) -> list[JoinedHold]:
        opened = self._lines.open(line_id)
        said = self._closings.of(opened.document, line_id, today)
        told = {one.id: one for one in said.holds}
        found = []
        for hold in opened.document.proving.holds:
            # one that was itself taken over is offered by the line that it was made with
            if told[hold.id].result is None or hold.note.startswith(TAKEN):
                continue
            volume = hold.volume.strip() or f"{said.volume_ml or 0.0:.0f} ml"
            there = replace(
                hold,
                id="",
                run="",
                rows=self._rows(hold),
                volume=volume,
                note=f"{TAKEN} {opened.document.name}"[:400],
            )
            found.append(
                JoinedHold(line=line_id, name=opened.document.name, hold=there, leak=told[hold.id].leak)
            )
        return found

    def _rows(self, hold: Hold) -> tuple[HoldRow, ...]:
        if not hold.run:
            return hold.rows
        air = air_of(hold)
        read = self._runs.readings(hold.run, air)
        count = len(read.times_s)
        every = max(1, count // MOST_ROWS)
        warm = read.temperatures_c
        at = sorted({*range(0, count, every), count - 1}) if count else []
        return tuple(
            HoldRow(
                minutes=f"{read.times_s[k] / 60:.3f}",
                pressure=f"{_as_read(read.pressures_kpa[k], hold.reads, air):.3f} kPa",
                temperature=f"{warm[k]:.2f}" if warm is not None else "",
            )
            for k in at
        )


def _as_read(kpa: float, reads: GaugeReads, air_kpa: float) -> float:
    """An absolute pressure as the gauge shows it."""
    match reads:
        case "absolute":
            return kpa
        case "above the air":
            return kpa - air_kpa
        case "below the air":
            return air_kpa - kpa
        case _:
            assert_never(reads)

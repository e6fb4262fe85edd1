"""Recording a pressure gauge: every reading is in the database in half a second, or once there is room."""

from __future__ import annotations

import logging
import threading
from time import monotonic

from bendrel.services.bench.instruments import InstrumentEvent
from bendrel.store.database import Busy, Database, NoRoom
from bendrel.store.models import ProofRunRow
from bendrel.store.proof_runs import Reading, add_readings

WRITE_EVERY_S = 0.5
MOST_MARKS = 200
_NOT_MEASURED = float("nan")


class Recorder:
    """Takes what the pressure gauge sends and keeps it with the run that is on, if any. Readings are written
    by a thread of its own, so that the one who hears them never waits for the disk."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._lock = threading.Lock()
        self._wake = threading.Event()
        self._run = ""
        self._began = 0.0
        self._absolute = False
        self._waiting: list[Reading] = []
        self._marks: list[tuple[float, str]] = []
        self._writing = threading.Lock()
        self._trouble = ""
        self._last_at: float | None = None
        self._last: InstrumentEvent | None = None
        self._thread: threading.Thread | None = None

    @property
    def run(self) -> str:
        """The run that is being recorded; blank for none."""
        return self._run

    @property
    def last(self) -> InstrumentEvent | None:
        """What the gauge said last."""
        return self._last

    @property
    def waiting(self) -> int:
        """Readings that are heard and not written yet."""
        return len(self._waiting)

    @property
    def trouble(self) -> str:
        """Why what was heard last is not written yet; blank while all is well."""
        return self._trouble

    def silent_s(self) -> float | None:
        """Seconds since the last reading of the run that is on; None before the first."""
        return None if self._last_at is None else monotonic() - self._last_at

    def begin(self, run_id: str, *, absolute: bool) -> None:
        """Record into a run from now on."""
        with self._lock:
            self._run, self._began, self._absolute = run_id, monotonic(), absolute
            self._waiting, self._marks, self._last_at, self._trouble = [], [], None, ""
        self._thread = threading.Thread(target=self._write, args=(run_id,), daemon=True)
        self._thread.start()

    def end(self) -> None:
        """Record no more; everything heard is kept. Raises NoRoom and Busy, and then goes on recording."""
        if self._run:
            self._flush(self._run)
        with self._lock:
            self._run = ""
        self._wake.set()
        if self._thread is not None:
            self._thread.join()
            self._thread = None

    def mark(self, text: str) -> None:
        """A mark at this moment of the run that is on, kept when this returns. Raises NoRoom and Busy: then
        there is none."""
        with self._lock:
            run, before = self._run, len(self._marks)
            self._note(text)
        try:
            self._flush(run)
        except (Busy, NoRoom):
            with self._lock:
                del self._marks[before : before + 1]
            raise

    def take(self, event: InstrumentEvent) -> None:
        """A reading, a line that was nonsense, or a change of the connection."""
        self._last = event
        with self._lock:
            if not self._run:
                return
            if event.reading is None:
                self._note(event.trouble or f"gauge {event.state}")
                return
            if event.reading.absolute != self._absolute:
                self._note("a reading that counts from something else was left out")
                return
            figures = event.reading.figures
            warm = figures[1] if len(figures) > 1 else _NOT_MEASURED
            self._waiting.append((monotonic() - self._began, figures[0], warm))
            self._last_at = monotonic()

    def _note(self, text: str) -> None:
        # the same trouble ten times a second is told once
        if len(self._marks) < MOST_MARKS and (not self._marks or self._marks[-1][1] != text):
            self._marks.append((monotonic() - self._began, text))

    def _write(self, run_id: str) -> None:
        while True:
            self._wake.wait(WRITE_EVERY_S)
            self._wake.clear()
            on = self._run == run_id
            try:
                self._flush(run_id)
            except (Busy, NoRoom) as error:
                # what was heard waits: there may be room in half a second
                logging.getLogger(__name__).warning("%s", error)
            if not on:
                return

    def _flush(self, run_id: str) -> None:
        """Write what waits. What cannot be written goes on waiting."""
        with self._writing:
            with self._lock:
                readings, self._waiting = self._waiting, []
                marks = list(self._marks)
            if not readings and not marks:
                return
            try:
                self._keep(run_id, readings, marks)
                self._trouble = ""
            except (Busy, NoRoom) as error:
                self._trouble = str(error)
                with self._lock:
                    self._waiting = [*readings, *self._waiting]
                raise

    def _keep(self, run_id: str, readings: list[Reading], marks: list[tuple[float, str]]) -> None:
        with self._database.writing() as session:
            row = session.get(ProofRunRow, run_id)
            if row is None:
                return
            if readings:
                add_readings(session, run_id, readings)
            if len(marks) != len(row.marks):
                row.marks = [list(mark) for mark in marks]

"""Use cases on backups: one at the start and one a day while it runs; what went wrong is said."""

from __future__ import annotations

import logging
from collections.abc import Callable
from datetime import date
from pathlib import Path

from bendrel.core.record import record
from bendrel.store.backup import BackupError, back_up, copies

log = logging.getLogger("bendrel")


@record
class BackupState:
    """How the backups stand: the newest one, how many there are, and why the last try failed ("": it did
    not)."""

    newest: date | None
    count: int
    problem: str


class Backups:
    """Backups of one database. Its problems are kept and said, never raised: the work goes on."""

    def __init__(self, database: Path, today: Callable[[], date] = date.today) -> None:
        self._database = database
        self._today = today
        self._problem = ""

    def if_due(self) -> None:
        """Make today's, unless it is there."""
        try:
            back_up(self._database, self._today())
            self._problem = ""
        except BackupError as error:
            self._problem = str(error)
            log.warning("%s", error)

    def state(self) -> BackupState:
        """How they stand."""
        there = copies(self._database)
        return BackupState(newest=there[0].day if there else None, count=len(there), problem=self._problem)

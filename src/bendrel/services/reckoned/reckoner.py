"""Works out in the background what the board does not know yet: apart, the newest jobs first."""

from __future__ import annotations

import logging
import threading
from collections.abc import Sequence
from dataclasses import replace

from bendrel.services.errors import Busy, Crowded, GivenUp, NoRoom, Refused
from bendrel.services.reckoned.apart import BACKGROUND, apart
from bendrel.services.reckoned.summaries import Summaries, unsaid_of
from bendrel.services.reckoned.summarising import LineSummary, Unsaid, all_said, bare
from bendrel.services.shelf.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.lines import LineAt

log = logging.getLogger("bendrel")

AT_A_TIME = 12
"""Lines to a process: few enough that the board fills while it is looked at."""


class Reckoner:
    """One thread that hands lines to processes and keeps what they say. It sleeps when nothing is lacking."""

    def __init__(self, database: Database, shelf: Shelf, summaries: Summaries) -> None:
        self._database = database
        self._shelf = shelf
        self._summaries = summaries
        self._wanted: list[LineAt] = []
        self._changed = threading.Condition()
        self._ended = False
        self._thread: threading.Thread | None = None

    def want(self, lines: Sequence[LineAt]) -> None:
        """Work these out, in this order, instead of what was wanted before."""
        with self._changed:
            self._wanted = list(lines)
            if self._wanted and self._thread is None and not self._ended:
                self._thread = threading.Thread(target=self._go_on, name="reckoner", daemon=True)
                self._thread.start()
            self._changed.notify()

    def end(self) -> None:
        """Work out no more."""
        with self._changed:
            self._ended, self._wanted = True, []
            self._changed.notify()
        if self._thread is not None:
            self._thread.join(timeout=5)

    def _go_on(self) -> None:
        while True:
            with self._changed:
                self._changed.wait_for(lambda: self._ended or self._wanted)
                if self._ended:
                    return
                batch, self._wanted = self._wanted[:AT_A_TIME], self._wanted[AT_A_TIME:]
            try:
                self._work_out(batch)
            except (Busy, NoRoom, Crowded, GivenUp) as error:
                log.info("The board's summaries were not written down: %s", error)
            except Exception as error:  # the thread goes on with the next ones
                log.error("The board's summaries: %s", type(error).__name__)

    def _work_out(self, batch: Sequence[LineAt]) -> None:
        stamp, kit = self._summaries.stamp, self._shelf.kit
        with self._database.reading() as session:
            lacking = [unsaid_of(session, line) for line in self._summaries.lacking(session, batch)]
        if not lacking:
            return
        try:
            said: list[LineSummary] = apart(BACKGROUND, all_said, lacking, kit)
        except Refused:
            said = [self._alone(one) for one in lacking]
        if not self._ended:
            self._summaries.keep(stamp, lacking, said)

    def _alone(self, one: Unsaid) -> LineSummary:
        """One that may be what was too much for its batch."""
        try:
            found: list[LineSummary] = apart(BACKGROUND, all_said, [one], self._shelf.kit)
            return found[0]
        except Refused:
            return replace(bare(one), next_step="too much to work out for the board; open it")

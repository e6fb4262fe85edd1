"""Open a shop's data: database, catalogue and the use cases on them."""

from __future__ import annotations

import logging
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from pathlib import Path

from bendrel.catalogue.loader import load_kit
from bendrel.core.plan.kit import Kit
from bendrel.exchange.instruments import KINDS, InstrumentKind
from bendrel.services.archives import Archives
from bendrel.services.bookings import Bookings
from bendrel.services.instruments import Instruments
from bendrel.services.jobs import Jobs
from bendrel.services.lines import Lines
from bendrel.services.photos import Photos
from bendrel.standins.bench import StandIn
from bendrel.store.backup import back_up
from bendrel.store.database import Database

log = logging.getLogger("bendrel")


@dataclass(frozen=True)
class Shop:
    """Everything that a running Bendrel needs."""

    kit: Kit
    database: Database
    jobs: Jobs
    lines: Lines
    bookings: Bookings
    photos: Photos
    archives: Archives
    instruments: Instruments
    standins: Mapping[InstrumentKind, StandIn]

    def close(self) -> None:
        """Let go of the database."""
        self.database.close()


def open_shop(path: Path, *, backups: bool = True) -> Shop:
    """Open the database at `path`, made and migrated as needed, with a dated backup first."""
    if backups and path.exists():
        try:
            back_up(path, date.today())
        except (OSError, sqlite3.Error) as error:
            log.warning("No backup today: %s", error)
    kit, database = load_kit(), Database(path)
    photos, instruments = Photos(database), Instruments()
    return Shop(
        kit=kit,
        database=database,
        jobs=Jobs(database, kit),
        lines=Lines(database, kit),
        bookings=Bookings(database),
        photos=photos,
        archives=Archives(database, photos),
        instruments=instruments,
        standins={kind: StandIn(kind, instruments) for kind in KINDS},
    )

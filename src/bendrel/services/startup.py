"""Open a shop's data: database, catalogue and the use cases on them."""

from __future__ import annotations

import logging
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from pathlib import Path

from bendrel.core.plan.kit import Kit
from bendrel.exchange.instruments import KINDS, InstrumentKind
from bendrel.services.archives import Archives
from bendrel.services.bookings import Bookings
from bendrel.services.cuttings import Cuttings
from bendrel.services.instruments import Instruments
from bendrel.services.jobs import Jobs
from bendrel.services.kits import KitLists
from bendrel.services.lines import Lines
from bendrel.services.makings import Makings
from bendrel.services.photos import Photos
from bendrel.services.shelf import Shelf
from bendrel.services.stock import StockRoom
from bendrel.standins.bench import StandIn
from bendrel.standins.supplier import Supplier
from bendrel.store.backup import back_up
from bendrel.store.database import Database

log = logging.getLogger("bendrel")


@dataclass(frozen=True)
class Shop:
    """Everything that a running Bendrel needs."""

    shelf: Shelf
    database: Database
    jobs: Jobs
    lines: Lines
    bookings: Bookings
    photos: Photos
    archives: Archives
    instruments: Instruments
    standins: Mapping[InstrumentKind, StandIn]
    supplier: Supplier
    kits: KitLists
    makings: Makings
    stock: StockRoom
    cuttings: Cuttings

    @property
    def kit(self) -> Kit:
        """The catalogue with the shop's own entries and preferences."""
        return self.shelf.kit

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
    database = Database(path)
    shelf, supplier = Shelf(database), Supplier()
    photos, instruments = Photos(database), Instruments()
    return Shop(
        shelf=shelf,
        database=database,
        jobs=Jobs(database, shelf),
        lines=Lines(database, shelf),
        bookings=Bookings(database),
        photos=photos,
        archives=Archives(database, photos, shelf),
        instruments=instruments,
        standins={kind: StandIn(kind, instruments) for kind in KINDS},
        supplier=supplier,
        kits=KitLists(database, shelf, supplier),
        makings=Makings(database, shelf),
        stock=StockRoom(database, shelf),
        cuttings=Cuttings(database, shelf),
    )

"""Open a shop's data: database, catalogue and the use cases on them."""

from __future__ import annotations

import logging
import os
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from bendrel.core.parts.kit import Kit
from bendrel.exchange.readings.instruments import FIELD_KINDS, FieldKind
from bendrel.services.bench.instruments import Instruments
from bendrel.services.bench.makings import Makings
from bendrel.services.job.bookings import Bookings
from bendrel.services.job.circuits import Circuits
from bendrel.services.job.jobs import Jobs
from bendrel.services.job.kits import KitLists
from bendrel.services.job.photos import Photos
from bendrel.services.job.stripdowns import StripDowns
from bendrel.services.kept.archives import Archives
from bendrel.services.kept.backups import Backups
from bendrel.services.kept.legible import set_aside
from bendrel.services.kept.whole_shop import WholeShops
from bendrel.services.line.lines import Lines
from bendrel.services.line.papers import Papers
from bendrel.services.proof.closings import Closings
from bendrel.services.proof.joined_holds import JoinedHolds
from bendrel.services.proof.proof_runs import ProofRuns
from bendrel.services.proof.recorder import Recorder
from bendrel.services.shelf.shelf import Shelf
from bendrel.services.stock.cuttings import Cuttings
from bendrel.services.stock.stock import StockRoom
from bendrel.standins.bench import StandIn
from bendrel.standins.supplier import Supplier
from bendrel.standins.vessel import Vessel
from bendrel.store.backup import OpenSign
from bendrel.store.database import Busy, Database, NoRoom
from bendrel.store.opening import UnusableShop, for_the_owner_alone, make_folder, refuse_damaged, unusable
from bendrel.store.photos import UNFINISHED, sync_folder


@dataclass(frozen=True)
class Shop:
    """Everything that a running Bendrel needs."""

    shelf: Shelf
    database: Database
    backups: Backups
    sign: OpenSign
    jobs: Jobs
    lines: Lines
    bookings: Bookings
    photos: Photos
    archives: Archives
    instruments: Instruments
    standins: Mapping[FieldKind, StandIn]
    supplier: Supplier
    kits: KitLists
    makings: Makings
    stock: StockRoom
    cuttings: Cuttings
    strip_downs: StripDowns
    circuits: Circuits
    joined_holds: JoinedHolds
    recorder: Recorder
    runs: ProofRuns
    closings: Closings
    papers: Papers
    whole: WholeShops
    vessel: Vessel

    @property
    def kit(self) -> Kit:
        """The catalogue with the shop's own entries and preferences."""
        return self.shelf.kit

    def close(self) -> None:
        """Keep what is being recorded, and let go of the database."""
        self.jobs.end()
        try:
            self.recorder.end()
        except (Busy, NoRoom) as error:
            logging.getLogger(__name__).warning("The end of a recording is lost: %s", error)
        self.database.close()
        self.sign.close()


def open_shop(path: Path, *, backups: bool = True, new: bool = False) -> Shop:
    """Open the database at `path`, made and migrated as needed, with a dated backup first.

    Raises UnusableShop where the folder or the file cannot be worked with, and for one that is gone while its
    backups are there, unless a `new` one is meant.
    """
    make_folder(path.parent)
    refuse_damaged(path, new=new)
    kept = Backups(path)
    if backups and path.exists():
        kept.if_due()
    sign, database = _opened(path)
    set_aside(database)
    shelf, supplier = Shelf(database), Supplier()
    photos, recorder = Photos(database), Recorder(database)
    instruments = Instruments({"pressure": recorder})
    lines, runs = Lines(database, shelf), ProofRuns(database, recorder)
    jobs, closings = Jobs(database, shelf), Closings(lines, runs, shelf)
    circuits, makings = Circuits(database), Makings(database, shelf)
    return Shop(
        shelf=shelf,
        database=database,
        backups=kept,
        sign=sign,
        jobs=jobs,
        lines=lines,
        bookings=Bookings(database),
        photos=photos,
        archives=Archives(database, photos, shelf),
        instruments=instruments,
        standins={kind: StandIn(kind, instruments) for kind in FIELD_KINDS},
        supplier=supplier,
        kits=KitLists(database, shelf, supplier),
        makings=makings,
        stock=StockRoom(database, shelf),
        cuttings=Cuttings(database, shelf),
        strip_downs=StripDowns(database),
        circuits=circuits,
        joined_holds=JoinedHolds(lines, closings, circuits, runs, shelf),
        recorder=recorder,
        runs=runs,
        closings=closings,
        whole=WholeShops(database, shelf),
        papers=Papers(lines, jobs, closings, runs, makings, photos, shelf),
        vessel=Vessel(instruments),
    )


def _make(path: Path) -> None:
    """A new database, there whole or not at all: a start may be cut off at any moment."""
    unfinished = path.with_name(f"{path.name}{UNFINISHED}")
    for beside in ("", "-wal", "-shm"):
        unfinished.with_name(unfinished.name + beside).unlink(missing_ok=True)
    Database(unfinished).close()  # the last one to close it leaves one file
    os.replace(unfinished, path)
    sync_folder(path.parent)


def _opened(path: Path) -> tuple[OpenSign, Database]:
    sign: OpenSign | None = None
    try:
        sign = OpenSign(path)
        if not path.exists():
            _make(path)
        database = Database(path)
        for_the_owner_alone(path)
    except BaseException as error:
        if sign is not None:
            sign.close()
        if isinstance(error, OSError):
            raise unusable(path, error) from error
        if isinstance(error, SQLAlchemyError | sqlite3.Error):
            reason = str(getattr(error, "orig", error))
            raise UnusableShop(
                f"{path} cannot be opened: {reason}; look at the disk and its room."
            ) from error
        raise
    return sign, database

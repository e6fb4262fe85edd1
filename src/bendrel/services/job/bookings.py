"""Time and material, booked to whoever pays: planned work and extra work found are the customer's,
the shop's own mistakes are the shop's and never mixed into the customer's total."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal, cast

from annotated_types import Ge, Le

from bendrel.core.line.document import Name
from bendrel.core.record import record
from bendrel.services.errors import NotFound, check_name
from bendrel.services.present import present_job
from bendrel.store.database import Database
from bendrel.store.jobs import find_booking
from bendrel.store.models import BookingRow, now

Account = Literal["planned", "extra", "own mistake"]
Payer = Literal["customer", "shop"]

PAYERS: dict[Account, Payer] = {"planned": "customer", "extra": "customer", "own mistake": "shop"}


@record
class BookingDraft:
    """What was done or used. Minutes of work; material in hundredths of the shop's currency."""

    account: Account = "planned"
    what: Name
    minutes: Annotated[int, Ge(0), Le(100_000)] = 0
    material_cents: Annotated[int, Ge(0), Le(100_000_000)] = 0


@record
class Booking:
    """One booking as kept."""

    id: str
    account: Account
    payer: Payer
    what: str
    minutes: int
    material_cents: int
    at: datetime


@record
class Total:
    """What one payer owes: minutes of work and hundredths of material."""

    payer: Payer
    minutes: int
    material_cents: int


@record
class Ledger:
    """All bookings of a job and one total a payer."""

    bookings: tuple[Booking, ...]
    totals: tuple[Total, ...]


def ledger_of(bookings: tuple[Booking, ...]) -> Ledger:
    """Total every payer apart."""
    totals = tuple(
        Total(
            payer=payer,
            minutes=sum(b.minutes for b in bookings if b.payer == payer),
            material_cents=sum(b.material_cents for b in bookings if b.payer == payer),
        )
        for payer in ("customer", "shop")
    )
    return Ledger(bookings=bookings, totals=totals)


class Bookings:
    """Use cases on bookings. Raises NotFound and Refused."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def ledger(self, job_id: str) -> Ledger:
        """All bookings of a job."""
        with self._database.reading() as session:
            job = present_job(session, job_id)
            return ledger_of(tuple(_booking(row) for row in job.bookings if row.deleted_at is None))

    def book(self, job_id: str, draft: BookingDraft) -> Ledger:
        """Add one booking."""
        check_name(draft.what)
        with self._database.writing() as session:
            job = present_job(session, job_id)
            job.bookings.append(
                BookingRow(
                    account=draft.account,
                    what=draft.what,
                    minutes=draft.minutes,
                    material_cents=draft.material_cents,
                )
            )
            job.updated_at = now()
        return self.ledger(job_id)

    def strike(self, booking_id: str, *, back: bool = False) -> None:
        """Strike a booking out, or put it back."""
        with self._database.writing() as session:
            row = find_booking(session, booking_id)
            if row is None:
                raise NotFound(f"There is no booking “{booking_id[:40]}”.")
            row.deleted_at = None if back else now()


def _booking(row: BookingRow) -> Booking:
    account = cast(Account, row.account)
    return Booking(
        id=row.id,
        account=account,
        payer=PAYERS[account],
        what=row.what,
        minutes=row.minutes,
        material_cents=row.material_cents,
        at=row.at,
    )

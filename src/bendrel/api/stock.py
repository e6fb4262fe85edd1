"""Sticks, coils, offcuts, their labels, and cut lists."""

from __future__ import annotations

from fastapi import Response

from bendrel.api.files import as_file
from bendrel.api.rooms import room
from bendrel.api.state import At, IfAt, Services
from bendrel.core.record import record
from bendrel.services.stock.cuttings import CutsDone, JobCuts, TakenBack
from bendrel.services.stock.stock import Stock, StockBooking, StockDraft

router = room("/api", "stock")


@record
class CutsTaken:
    """The id by which a cutting is taken back."""

    id: str


@router.get("/stock")
def stock(services: Services) -> tuple[Stock, ...]:
    """Everything that lies there."""
    return services.stock.all()


@router.post("/stock", status_code=201)
def add(draft: StockDraft, services: Services) -> Stock:
    """Put something into the stock."""
    return services.stock.add(draft)


@router.put("/stock/{stock_id}")
def change(stock_id: str, draft: StockDraft, version: At, services: Services) -> Stock:
    """Correct an entry that was read at a version."""
    return services.stock.change(stock_id, draft, version)


@router.delete("/stock/{stock_id}", status_code=204)
def remove(stock_id: str, services: Services, version: IfAt = None) -> None:
    """Take an entry out; it can be put back."""
    services.stock.remove(stock_id, version)


@router.post("/stock/{stock_id}/restore", status_code=204)
def restore(stock_id: str, services: Services) -> None:
    """Put an entry back."""
    services.stock.remove(stock_id, back=True)


@router.get("/stock/{stock_id}/moves")
def moves(stock_id: str, services: Services) -> tuple[StockBooking, ...]:
    """All that came to an entry and went, the newest first."""
    return services.stock.moves(stock_id)


@router.get("/stock/{stock_id}/label.pdf", response_class=Response)
def label(stock_id: str, services: Services) -> Response:
    """The label of one entry."""
    return as_file(services.stock.label(stock_id), "application/pdf", "label.pdf", inline=True)


@router.get("/jobs/{job_id}/cuts")
def cuts(job_id: str, services: Services, pieces: str | None = None) -> JobCuts:
    """What is cut from what for a job: for the `pieces` named, with commas between, or for all that
    are ready to be cut."""
    return services.cuttings.of(job_id, None if pieces is None else pieces.split(","))


@router.post("/jobs/{job_id}/cuts", status_code=201)
def cut(job_id: str, done: CutsDone, services: Services) -> CutsTaken:
    """Take these cuts out of the stock."""
    return CutsTaken(id=services.cuttings.take(job_id, done))


@router.delete("/cuts/{cutting_id}")
def take_back(cutting_id: str, services: Services) -> TakenBack:
    """Put back what these cuts have taken, as if they had not been made."""
    return services.cuttings.take_back(cutting_id)

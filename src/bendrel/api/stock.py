"""Sticks, coils, offcuts, their labels, and cut lists."""

from __future__ import annotations

from fastapi import APIRouter, Response

from bendrel.api.files import as_file
from bendrel.api.state import Services
from bendrel.services.stock import JobCuts, Stock, StockDraft

router = APIRouter(prefix="/api", tags=["stock"])


@router.get("/stock")
def stock(services: Services) -> tuple[Stock, ...]:
    """Everything that lies there."""
    return services.stock.all()


@router.post("/stock", status_code=201)
def add(draft: StockDraft, services: Services) -> Stock:
    """Put something into the stock."""
    return services.stock.add(draft)


@router.put("/stock/{stock_id}")
def change(stock_id: str, draft: StockDraft, services: Services) -> Stock:
    """Correct an entry."""
    return services.stock.change(stock_id, draft)


@router.delete("/stock/{stock_id}", status_code=204)
def remove(stock_id: str, services: Services) -> None:
    """Take an entry out; it can be put back."""
    services.stock.remove(stock_id)


@router.post("/stock/{stock_id}/restore", status_code=204)
def restore(stock_id: str, services: Services) -> None:
    """Put an entry back."""
    services.stock.remove(stock_id, back=True)


@router.get("/stock/{stock_id}/label.pdf", response_class=Response)
def label(stock_id: str, services: Services) -> Response:
    """The label of one entry."""
    return as_file(services.stock.label(stock_id), "application/pdf", "label.pdf", inline=True)


@router.get("/jobs/{job_id}/cuts")
def cuts(job_id: str, services: Services) -> JobCuts:
    """What is cut from what for a job."""
    return services.stock.cuts(job_id)


@router.post("/jobs/{job_id}/cuts")
def cut(job_id: str, services: Services) -> JobCuts:
    """Take the cuts of a job out of the stock."""
    return services.stock.cut(job_id)

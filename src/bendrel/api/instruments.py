"""Instruments: one stream of server-sent events for the screens, and the simulated ones."""

from __future__ import annotations

from collections.abc import AsyncIterator

from fastapi import Request
from fastapi.responses import StreamingResponse
from pydantic import TypeAdapter

from bendrel.api.files import BINARY_BODY
from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.exchange.readings.instruments import FieldKind, InstrumentKind
from bendrel.services.bench.instruments import InstrumentEvent, Instruments
from bendrel.standins.bench import StandInOrder

router = room("/api/instruments", "instruments")

_EVENT = TypeAdapter(InstrumentEvent)


@router.get("")
async def present(services: Services) -> tuple[InstrumentEvent, ...]:
    """How every instrument stands."""
    return services.instruments.present()


# no part of the schema: an endless answer is no call that a client library makes
@router.get("/stream", response_class=StreamingResponse, include_in_schema=False)
async def stream(services: Services) -> StreamingResponse:
    """Server-sent events: each `data` line is one InstrumentEvent as JSON."""
    headers = {"cache-control": "no-store", "x-accel-buffering": "no"}
    return StreamingResponse(_lines(services.instruments), media_type="text/event-stream", headers=headers)


async def _lines(instruments: Instruments) -> AsyncIterator[bytes]:
    async for event in instruments.listen():
        yield b": here\n\n" if event is None else b"data: " + _EVENT.dump_json(event) + b"\n\n"


@router.post("/{kind}/line", openapi_extra=BINARY_BODY)
async def hear(kind: InstrumentKind, request: Request, services: Services) -> InstrumentEvent:
    """One line from an instrument; it must have been switched on."""
    text = (await request.body()).decode(errors="replace")
    return services.instruments.hear(kind, text)


@router.post("/{kind}/simulated", status_code=204)
async def simulate(kind: FieldKind, order: StandInOrder, services: Services) -> None:
    """Do something with the simulated instrument of this kind."""
    services.standins[kind].do(order)

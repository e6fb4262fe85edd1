"""Instruments on the bench: who is connected, what they last said, and everybody who listens."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator, Mapping
from typing import Literal, Protocol

from bendrel.core.record import record
from bendrel.exchange.errors import FileError
from bendrel.exchange.readings.instruments import KINDS, InstrumentKind, InstrumentReading, read_message

LinkState = Literal["off", "on", "lost"]

HEARTBEAT_S = 10.0
MOST_WAITING = 50


@record
class InstrumentEvent:
    """What listeners are told: how an instrument is connected, a good reading, or what was wrong
    with a bad one. `last` is the last good reading, which a bad one never replaces."""

    instrument: InstrumentKind
    state: LinkState
    reading: InstrumentReading | None = None
    trouble: str = ""
    last: InstrumentReading | None = None


class Follows(Protocol):
    """What takes every reading of an instrument that streams, where one alone is of no use to a field."""

    def take(self, event: InstrumentEvent) -> None:
        """A reading, a line that was nonsense, or a change of the connection."""


class Instruments:
    """All instruments of the shop. Belongs to one event loop. What is in `follows` takes the readings of its
    instrument instead of those who listen."""

    def __init__(self, follows: Mapping[InstrumentKind, Follows] | None = None) -> None:
        self._follows = dict(follows or {})
        self._states: dict[InstrumentKind, LinkState] = dict.fromkeys(KINDS, "off")
        self._last: dict[InstrumentKind, InstrumentReading] = {}
        self._listeners: set[asyncio.Queue[InstrumentEvent]] = set()

    def present(self) -> tuple[InstrumentEvent, ...]:
        """How every instrument stands."""
        return tuple(
            InstrumentEvent(instrument=kind, state=self._states[kind], last=self._last.get(kind))
            for kind in KINDS
        )

    def link(self, kind: InstrumentKind, state: LinkState) -> None:
        """An instrument was switched on or off, or its connection was lost."""
        self._states[kind] = state
        self._tell(InstrumentEvent(instrument=kind, state=state, last=self._last.get(kind)))

    def hear(self, kind: InstrumentKind, text: str) -> InstrumentEvent:
        """A line that an instrument sent. What is no reading is told and changes nothing; what
        comes from one that is not connected is not heard."""
        state = self._states[kind]
        last = self._last.get(kind)
        if state != "on":
            return InstrumentEvent(instrument=kind, state=state, last=last)
        try:
            reading = read_message(kind, text)
        except FileError as error:
            event = InstrumentEvent(instrument=kind, state=state, trouble=str(error), last=last)
        else:
            self._last[kind] = reading
            event = InstrumentEvent(instrument=kind, state=state, reading=reading, last=reading)
        self._tell(event)
        return event

    async def listen(self) -> AsyncIterator[InstrumentEvent | None]:
        """Every event from now on, first how all stand; None every ten seconds as a sign of life."""
        queue: asyncio.Queue[InstrumentEvent] = asyncio.Queue(MOST_WAITING)
        self._listeners.add(queue)
        try:
            for event in self.present():
                yield event
            while True:
                try:
                    yield await asyncio.wait_for(queue.get(), HEARTBEAT_S)
                except TimeoutError:
                    yield None
        finally:
            self._listeners.discard(queue)

    def _tell(self, event: InstrumentEvent) -> None:
        follower = self._follows.get(event.instrument)
        if follower is not None:
            follower.take(event)
            if event.reading is not None or event.trouble:
                return
        for queue in self._listeners:
            if queue.full():
                queue.get_nowait()  # a listener that sleeps loses its oldest news, not the newest
            queue.put_nowait(event)

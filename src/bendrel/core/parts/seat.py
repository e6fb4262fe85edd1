"""What a port offers, and which tube ends seal in it."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.record import record

SealsAt = Literal["bottom", "face", "thread", "outside"]
"""Where a port seals: on a cone or flat at the bottom of its bore, on its face, on the thread itself, or on a
cone or spigot outside."""
SeatWord = Literal["seals", "wrong", "no pair"]


@record
class WrongPair:
    """An end that looks right in a seat and is not."""

    id: str
    reason: str


@record
class Seat:
    """A seat, where it seals, the end types that seal in it, and the wrong ones that look right."""

    id: str
    name: str
    seals_at: SealsAt
    takes: tuple[str, ...]
    source: Source
    wrong: tuple[WrongPair, ...] = ()


@record
class SharedThread:
    """Threads on which a nut of `ends` also goes home in a seat that it does not seal in. Where it is
    `severe` a line that people depend on stops until the seat is said."""

    threads: tuple[str, ...]
    ends: tuple[str, ...]
    looks_like: str
    severe: bool
    source: Source


@record
class SeatFit:
    """One end type in one seat."""

    fits: SeatWord
    reason: str


def seat_fit(seat: Seat, fitting: str) -> SeatFit:
    """Whether the end type `fitting` seals in `seat`. Source: the seat's own row."""
    if fitting in seat.takes:
        return SeatFit(fits="seals", reason="")
    for pair in seat.wrong:
        if pair.id == fitting:
            return SeatFit(fits="wrong", reason=pair.reason)
    return SeatFit(fits="no pair", reason="The two do not go together; it needs an adapter.")

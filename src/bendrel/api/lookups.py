"""Look-ups that stand on their own: threads, wrenches, stripped ports, strength, the verdict matrix."""

from __future__ import annotations

from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.services.shelf import lookups
from bendrel.services.shelf.lookups import (
    HexOrder,
    Matrix,
    PairOrder,
    PortOrder,
    PortRescue,
    StrengthOrder,
    Stronger,
    ThreadFound,
    ThreadOrder,
    ThreadPair,
    WrenchAnswer,
)

router = room("/api/lookups", "lookups")


@router.post("/thread")
def which_thread(body: ThreadOrder, services: Services) -> ThreadFound:
    """Which thread a reading may be, with what each is taken for."""
    return lookups.which_thread(body, services.kit)


@router.post("/thread-pair")
def thread_pair(body: PairOrder, services: Services) -> ThreadPair:
    """One thread turned into another, with both profiles to scale."""
    return lookups.thread_pair(body, services.kit)


@router.post("/wrench")
def wrench(body: HexOrder, services: Services) -> WrenchAnswer:
    """Which wrenches go on a hex."""
    return lookups.which_wrench(body, services.kit)


@router.post("/stripped")
def stripped(body: PortOrder, services: Services) -> PortRescue:
    """Ways to save a stripped port."""
    return lookups.save_port(body, services.kit)


@router.post("/strength")
def strength(body: StrengthOrder, services: Services) -> Stronger:
    """Burst and allowed pressure of one tube."""
    return lookups.how_strong(body, services.kit)


@router.get("/verdicts")
def verdicts(services: Services) -> Matrix:
    """What may be used in which service, as a matrix."""
    return lookups.matrix(services.kit)

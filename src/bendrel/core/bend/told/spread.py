"""How exactly this shop bends: what is common, and what it read off its own parts."""

from __future__ import annotations

from collections.abc import Iterable
from math import sqrt

from bendrel.core.bend.told.figures import Departure
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.spread import Spread
from bendrel.core.record import record


@record
class HandRead:
    """One departure read at the bench: angle, plane or leg; how far off (mm or degrees), and the errors of
    how many settings and how many readings are in it."""

    name: str
    off: float
    hands: int
    reads: int


def hands_of(departures: Iterable[Departure]) -> tuple[HandRead, ...]:
    """What one making tells of the hand."""
    return tuple(HandRead(name=d.name, off=d.off, hands=d.hands, reads=d.reads) for d in departures)


def spread_of(kit: Kit, told: Iterable[HandRead]) -> Spread:
    """The shop's spread: what is common, as if it were a few readings, and its own readings, with the
    variance of the readings themselves taken off.

    A reading that is far off is a slip and no spread. Source: pooled variance, a reading counting for what
    the hand has in it: its variance is (hand² + reads · reading²)/(hand²) of one that is read without error,
    so it counts the less; the common values weigh `spread_counts`. Taken again until it stands.
    """
    limits = kit.limits
    common, slip = limits["spread_counts"].value, limits["slip_off"].value
    degrees, tape = limits["made_reading_deg"].value, limits["made_reading_mm"].value
    reading = {"leg": tape, "angle": degrees, "plane": degrees}
    start = {
        "leg": limits["spread_straight_mm"].value,
        "angle": limits["spread_angle_deg"].value,
        "plane": limits["spread_rotation_deg"].value,
    }
    own: dict[str, list[HandRead]] = {name: [] for name in start}
    for item in told:
        if item.name in own and abs(item.off) <= slip:
            own[item.name].append(item)
    sd = {name: _pooled(own[name], start[name], reading[name], common) for name in start}
    return Spread(
        straight_mm=sd["leg"],
        angle_deg=sd["angle"],
        rotation_deg=sd["plane"],
        readings=sum(len(items) for items in own.values()),
    )


def _pooled(own: list[HandRead], start: float, reading: float, common: float) -> float:
    variance = start**2
    for _ in range(20):
        weight, total = common, common * start**2
        for item in own:
            share = (item.hands * variance / (item.hands * variance + item.reads * reading**2)) ** 2
            weight += share
            total += share * (item.off**2 - item.reads * reading**2) / item.hands
        variance = max(total / weight, (0.1 * start) ** 2)
    return sqrt(variance)

"""What to read next: what each further reading would bring, before it is taken."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.adjust import Trust, expected
from bendrel.core.measure.doubt import Doubt, ReadingErrors
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.record import record

WorthKind = Literal["place B", "way B", "tape", "wire"]

SAYS_MORE = 0.85
"""A reading is worth taking where it leaves less than this share of the doubt."""


@record
class Worth:
    """A further reading, and how well end B would be known with it: 95 of 100 lie within."""

    kind: WorthKind
    end_b_mm: float
    way_b_deg: float


@record
class NextReadings:
    """How well end B is known now, whether that is enough to meet its port, and what may be read further, the
    one that brings most first."""

    end_b_mm: float
    way_b_deg: float
    enough: bool
    worth: tuple[Worth, ...]


def next_readings(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors, trust: Trust, zone: tuple[float, float]
) -> NextReadings:
    """What to read next, until end B surely lies within `zone` (mm, degrees) of its port. Raises ShapeError
    where `read` is no shape.

    A reading counts by how much of the doubt of end B it leaves, of its place and of its way, each in shares
    of the zone. Source: the covariance of what is wanted as the aim of a design, any textbook of surveying.
    """
    now = expected(read, given, errors, trust)

    def left(doubt: Doubt) -> float:
        return max(doubt.end_b_mm / zone[0], doubt.way_b_deg / zone[1])

    found = [(kind, expected(read, more, errors, trust)) for kind, more in _further(read, given)]
    found.sort(key=lambda pair: (left(pair[1]), pair[1].end_b_mm))
    enough = left(now) <= 1
    return NextReadings(
        end_b_mm=now.end_b_mm,
        way_b_deg=now.way_b_deg,
        enough=enough,
        worth=()
        if enough
        else tuple(
            Worth(kind=kind, end_b_mm=doubt.end_b_mm, way_b_deg=doubt.way_b_deg)
            for kind, doubt in found
            if left(doubt) < SAYS_MORE * left(now) or doubt.end_b_mm < SAYS_MORE * now.end_b_mm
        ),
    )


def _further(read: ReadBends | Corners, given: Given) -> Iterator[tuple[WorthKind, Given]]:
    """What was not read yet; the figures stand for none."""
    if given.place_b is None and isinstance(read, ReadBends):
        yield "place B", replace(given, place_b=(0.0, 0.0, 0.0))
    if given.way_b is None:
        yield "way B", replace(given, way_b=(1.0, 0.0, 0.0))
    if given.tape_mm is None:
        yield "tape", replace(given, tape_mm=0.0)
    if given.wire_mm is None:
        yield "wire", replace(given, wire_mm=0.0)

"""What to read next: what each further reading would bring, before it is taken."""

from __future__ import annotations

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.adjust import Trust, expected
from bendrel.core.measure.doubt import Doubt
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.further import Further, as_read, not_read, with_more
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, od_of
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.sheet import sheet_of
from bendrel.core.record import record

SAYS_MORE = 0.85
"""A reading is worth taking where it leaves less than this share of the doubt."""
MOST_TOLD = 3


@record
class Worth:
    """A further reading, and how near end B would then come to its port: 95 of 100 lie within."""

    reading: Further
    meets_mm: float
    meets_deg: float


@record
class NextReadings:
    """How near end B comes to its port as it is known now (95 of 100, rolled to its best), whether that is
    enough, and what may be read further, the one that brings most first."""

    meets_mm: float
    meets_deg: float
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
        return max(doubt.meets_mm / zone[0], doubt.meets_deg / zone[1])

    enough = left(now) <= 1
    found: list[tuple[Further, Doubt]] = []
    if not enough:
        made, sheet, od = outcome(read), sheet_of(read), od_of(read)
        for one in not_read(read, given, sheet, errors):
            more = with_more(given, as_read(one, made, sheet, od, errors))
            found.append((one, expected(read, more, errors, trust)))
    found.sort(key=lambda pair: (left(pair[1]), pair[1].end_b_mm))
    return NextReadings(
        meets_mm=now.meets_mm,
        meets_deg=now.meets_deg,
        enough=enough,
        worth=tuple(
            Worth(reading=one, meets_mm=doubt.meets_mm, meets_deg=doubt.meets_deg)
            for one, doubt in found
            if left(doubt) < SAYS_MORE * left(now) or doubt.meets_mm < SAYS_MORE * now.meets_mm
        )[:MOST_TOLD],
    )

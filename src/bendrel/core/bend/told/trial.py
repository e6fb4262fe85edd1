"""A part offered to its ports."""

from __future__ import annotations

from bendrel.core.bend.told.unknowns import Act
from bendrel.core.measure.landing import EndBeside
from bendrel.core.record import record


@record
class Offer(EndBeside):
    """One trial fit, and what was done after it."""

    then: tuple[Act, ...] = ()

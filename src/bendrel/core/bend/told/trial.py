"""A part offered to its ports."""

from __future__ import annotations

from bendrel.core.bend.told.unknowns import Act
from bendrel.core.findings import EndName
from bendrel.core.measure.landing import EndBeside
from bendrel.core.record import record


@record
class Offer(EndBeside):
    """One trial fit, which end was read with the other one home, and what was done after it. What is said of
    end B and seen from A holds of end A seen from B, then from the plane of the last bend."""

    lands: EndName = "B"
    then: tuple[Act, ...] = ()

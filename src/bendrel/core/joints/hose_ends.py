"""The kind of end that a hose has."""

from __future__ import annotations

from bendrel.core.joints.faces import end_kind
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.parts.hose_end import HoseEndKind
from bendrel.core.parts.kit import Kit


def end_kind_of(kit: Kit, hose: PlacedHose) -> HoseEndKind | None:
    """The kind of end that a hose has; None where nobody makes one for its class."""
    return end_kind(kit, hose.piece, hose.hose)

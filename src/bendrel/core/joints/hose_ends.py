"""The kind of end that a hose has, and what its ends add to its length."""

from __future__ import annotations

from bendrel.core.joints.faces import end_kind
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.parts.hose_end import HoseEndKind
from bendrel.core.parts.kit import Kit


def end_kind_of(kit: Kit, hose: PlacedHose) -> HoseEndKind | None:
    """The kind of end that a hose has; None where nobody makes one for its class."""
    return end_kind(kit, hose.piece, hose.hose)


def end_takes_mm(kit: Kit, hose: PlacedHose) -> tuple[float, float]:
    """What the ends of a hose add to its length, at A and at B; 0 of ends that have no figures."""
    kind = end_kind_of(kit, hose)
    size = kind.size_for(hose.hose.size) if kind else None
    if size is None:
        return (0.0, 0.0)
    return (size.takes_mm(hose.piece.angle_a), size.takes_mm(hose.piece.angle_b))

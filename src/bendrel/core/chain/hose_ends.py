"""The kind of end that a hose has, and what its ends add to its length."""

from __future__ import annotations

from bendrel.core.chain.pieces import PlacedHose
from bendrel.core.hose.ending import HoseEndKind
from bendrel.core.shop.kit import Kit


def end_kind_of(kit: Kit, hose: PlacedHose) -> HoseEndKind | None:
    """The kind of end that a hose has; None where nobody makes one for its class."""
    piece = hose.piece
    if piece.joined == "clamps":
        return kit.hose_ends["push-on" if piece.clamps_each == 0 else "clamped"]
    if piece.joined == "crimped":
        return kit.hose_ends["made-up" if hose.hose_class.law else "crimped"]
    return next(
        (
            kind
            for kind in kit.hose_ends.values()
            if kind.joined == "reusable" and hose.hose_class.id in kind.hose_classes
        ),
        None,
    )


def end_takes_mm(kit: Kit, hose: PlacedHose) -> tuple[float, float]:
    """What the ends of a hose add to its length, at A and at B; 0 of ends that have no figures."""
    kind = end_kind_of(kit, hose)
    size = kind.size_for(hose.hose.size) if kind else None
    if size is None:
        return (0.0, 0.0)
    return (size.takes_mm(hose.piece.angle_a), size.takes_mm(hose.piece.angle_b))

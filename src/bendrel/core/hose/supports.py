"""Where a hose is held, where it must be free, and where it wants a sleeve or a shield."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import ceil
from typing import Literal

import numpy as np

from bendrel.core.findings import Source
from bendrel.core.hose.laid import LaidHose, distances_along, touches
from bendrel.core.hose.read import BesideHose
from bendrel.core.hose.shape.moving import AtPosition
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


@record
class Support:
    """One thing to do along the hose, from its end A in mm: hold it there, leave it free, put a sleeve on
    it, keep it off."""

    kind: Literal["hold", "free", "sleeve", "away"]
    from_mm: float
    to_mm: float
    text: str
    source: Source


def supports_of(
    kit: Kit, hose: PlacedHose, laid: LaidHose, told: Sequence[AtPosition], beside: Sequence[BesideHose]
) -> tuple[Support, ...]:
    """Everything to do along one hose of known length, from its end A on."""
    if laid.length_mm is None:
        return ()
    found = [*_held(kit, hose, laid), *_protected(kit, hose, told, beside)]
    return tuple(sorted(found, key=lambda one: (one.from_mm, one.kind)))


def _held(kit: Kit, hose: PlacedHose, laid: LaidHose) -> Iterator[Support]:
    length = laid.length_mm or 0.0
    if laid.moves:
        rule = kit.advice["hose_free"]
        moved = {move.end for move in laid.moves}
        for end, at in (("A", 0.0), ("B", length)):
            where = "on what moves" if end in moved else "on what stands still"
            yield Support(
                kind="hold",
                from_mm=at,
                to_mm=at,
                text=f"End {end} held in a bracket {where}, so that the tube behind it does not work.",
                source=rule.source,
            )
        yield Support(
            kind="free",
            from_mm=laid.ends.a.straight_mm,
            to_mm=max(laid.ends.a.straight_mm, length - laid.ends.b.straight_mm),
            text=rule.text,
            source=rule.source,
        )
        return
    spacing = next((row for row in kit.clip_spacing if hose.hose.od_mm <= row.up_to_mm), kit.clip_spacing[-1])
    parts = ceil(length / (spacing.apart_mm * kit.limits["hose_clip_share"].value) - 1e-9)
    for k in range(1, parts):
        at = length * k / parts
        yield Support(
            kind="hold",
            from_mm=at,
            to_mm=at,
            text="A cushioned clip: it holds the hose where it lies, and does not pinch it.",
            source=kit.limits["hose_clip_share"].source,
        )


def _protected(
    kit: Kit, hose: PlacedHose, told: Sequence[AtPosition], beside: Sequence[BesideHose]
) -> Iterator[Support]:
    for item in beside:
        kind = kit.clearances[item.kind]
        first, last = np.inf, -np.inf
        against = False
        for along, off in distances_along(hose, told, item):
            near = along[off < kind.least_mm]
            if len(near):
                first, last = min(first, float(near[0])), max(last, float(near[-1]))
                against = against or touches(kit, float(off.min()))
        if last < first:
            continue
        name = item.what.strip() or kind.name
        yield Support(
            kind="sleeve" if against and not kind.stop else "away",
            from_mm=first,
            to_mm=last,
            text=f"{name[0].upper()}{name[1:]}: {kind.remedy}.",
            source=kind.source,
        )

"""Where the new line is held: where the old one was, else near each end and regularly between."""

from __future__ import annotations

from collections.abc import Sequence

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.geometry.bends import bend_spans
from bendrel.core.geometry.clips import Clips, clip_for, clip_places, spacing_for
from bendrel.core.line.condition import HOLDING
from bendrel.core.mend.looked import PlacedFixture
from bendrel.core.parts.kit import Kit


def clips_of(kit: Kit, rigid: Rigid, fixtures: Sequence[PlacedFixture]) -> Clips:
    """The clips of a planned rigid piece; `fixtures` are those that were found on it."""
    tube, shape = rigid.tube, rigid.shape
    row = spacing_for(kit.clip_spacing, tube.od_mm)
    plastic = rigid.choices.material.family == "plastic"
    apart = row.apart_mm * (kit.limits["clip_plastic_share"].value if plastic else 1.0)
    old = tuple(sorted(f.at_mm for f in fixtures if f.kind in HOLDING))
    return Clips(
        apart_mm=apart,
        places_mm=old
        or clip_places(shape.developed_mm, bend_spans(shape), apart, kit.limits["clip_end_mm"].value),
        old=bool(old),
        clip=clip_for(kit.clips, tube.od_mm, kit.limits["clip_give_mm"].value),
        source=row.source,
    )


def clips_to_get(clips: Clips, fixtures: Sequence[PlacedFixture]) -> int:
    """How many clips are new: all, or where the old places are used again, those that are not there whole."""
    if not clips.old:
        return len(clips.places_mm)
    return sum(1 for f in fixtures if f.kind in HOLDING and f.state != "there")

"""Hose on tube, clamp on hose, and the room for it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from math import sqrt
from typing import Literal

from bendrel.core.parts.hose import Clamp, ClampKindId, Hose
from bendrel.core.record import record

Push = Literal["loose", "slides on", "warm", "too tight"]


@record
class PushBands:
    """Interference, (tube − hose bore)/hose bore, at which the words change."""

    loose: float
    slides: float
    warm: float


@record
class HoseFit:
    """One hose on one diameter. `over_mm` is its outside diameter once pushed on, before clamping."""

    interference: float
    push: Push
    over_mm: float


def hose_fit(hose: Hose, on_mm: float, bands: PushBands) -> HoseFit:
    """How `hose` goes on a tube, bead or barb of `on_mm`.

    Source: interference by the bands (common practice); the wall keeps its section:
    √(OD² − ID² + tube²).
    """
    interference = (on_mm - hose.id_mm) / hose.id_mm
    push: Push = "too tight"
    if interference < bands.loose:
        push = "loose"
    elif interference <= bands.slides:
        push = "slides on"
    elif interference <= bands.warm:
        push = "warm"
    stretched = max(on_mm, hose.id_mm)
    return HoseFit(
        interference=interference,
        push=push,
        over_mm=sqrt(hose.od_mm**2 - hose.id_mm**2 + stretched**2),
    )


def clamp_holds(clamp: Clamp, over_mm: float, left: float) -> bool:
    """The hose lies within the clamp's range with a share `left` of that range still to squeeze. A pinch
    clamp must slide over it open and be tight when closed."""
    return clamp.closed_mm + left * (clamp.open_mm - clamp.closed_mm) <= over_mm <= clamp.open_mm


def clamps_for(
    over_mm: Sequence[float], kinds: Sequence[ClampKindId], clamps: Iterable[Clamp], left: float
) -> tuple[Clamp, ...]:
    """Clamps of these kinds that take a hose of every diameter in `over_mm`, the kinds in their order,
    the narrowest range first."""
    fits = [c for c in clamps if c.kind in kinds and all(clamp_holds(c, over, left) for over in over_mm)]
    return tuple(sorted(fits, key=lambda c: (kinds.index(c.kind), c.open_mm - c.closed_mm, c.open_mm)))


def overlap_needed_mm(clamp_width_mm: float, count: int, gap_mm: float) -> float:
    """Hose that must lie on the tube for `count` clamps, a gap beside each and at both ends.

    Source: common practice.

    >>> overlap_needed_mm(9, 2, 3)
    27
    """
    return count * clamp_width_mm + (count + 1) * gap_mm

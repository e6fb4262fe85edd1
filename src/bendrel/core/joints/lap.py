"""How far a hose lies on what it goes on: the one figure that cut, gap, drawing, sheet and steps take."""

from __future__ import annotations

from bendrel.core.findings import Source
from bendrel.core.parts.hose import Clamp, Hose
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.push_fit import overlap_needed_mm
from bendrel.core.record import record


@record
class Lap:
    """One end of a hose on its tube or spigot, in mm. `mm` is how far it lies on it, `clamps_mm` what its
    clamps need of that (0 without)."""

    mm: float
    clamps_mm: float
    source: Source

    @property
    def holds_clamps(self) -> bool:
        """There is room for the clamps."""
        return self.clamps_mm <= self.mm + 1e-9


def lap_on(
    kit: Kit,
    hose: Hose | None,
    on_mm: float,
    *,
    clamps: int,
    clamp: Clamp | None,
    typed_mm: float | None = None,
) -> Lap:
    """How far `hose` lies on a tube or spigot of `on_mm` with so many clamps: as measured (`typed_mm`: a
    spigot has its own length), else the greatest of what its diameter asks for, what its maker does, and what
    the clamps take.

    Source: the greater of a least length and so many diameters (common practice, `splices.toml`).
    """
    row = kit.splicing.overlaps[clamps]
    need = 0.0
    if clamp is not None and clamps > 0:
        need = overlap_needed_mm(clamp.width_mm, clamps, kit.limits["clamp_gap_mm"].value)
    if typed_mm is not None:
        return Lap(mm=typed_mm, clamps_mm=need, source=Source(kind="shop's own", text="as measured"))
    made = hose.overlap_mm if hose is not None and hose.overlap_mm is not None else 0.0
    return Lap(mm=max(row.on(on_mm), made, need), clamps_mm=need, source=row.source)

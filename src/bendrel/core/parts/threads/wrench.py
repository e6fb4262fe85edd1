"""Which wrench goes on which hex, in either system."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal

from annotated_types import Gt

from bendrel.core.findings import Source
from bendrel.core.record import record

WrenchFitWord = Literal["exact", "usable", "slips", "too small"]


@record
class Wrench:
    """An open-end, ring or flare-nut wrench by the size stamped on it; `mm` across flats."""

    name: str
    mm: Annotated[float, Gt(0)]
    source: Source


@record
class WrenchBand:
    """How much a wrench may differ from the hex, as shares of the hex: `exact` either way, and from
    `least` (tight on a hex at the small end of its tolerance) to `most` still usable."""

    exact: float
    least: float
    most: float


@record
class WrenchFit:
    """One wrench on one hex."""

    wrench: str
    fit: WrenchFitWord
    play_mm: float


def wrench_fit(hex_mm: float, wrench: Wrench, band: WrenchBand) -> WrenchFit:
    """How `wrench` goes on a hex of `hex_mm` across flats. Source: common practice, the band."""
    share = (wrench.mm - hex_mm) / hex_mm
    word: WrenchFitWord = "slips"
    if abs(share) <= band.exact:
        word = "exact"
    elif share < band.least:
        word = "too small"
    elif share <= band.most:
        word = "usable"
    return WrenchFit(wrench=wrench.name, fit=word, play_mm=wrench.mm - hex_mm)


def wrenches_for(hex_mm: float, wrenches: Iterable[Wrench], band: WrenchBand) -> tuple[WrenchFit, ...]:
    """The wrenches that can be used on a hex, the best first."""
    fits = [wrench_fit(hex_mm, wrench, band) for wrench in wrenches]
    return tuple(sorted((f for f in fits if f.fit in ("exact", "usable")), key=lambda f: abs(f.play_mm)))

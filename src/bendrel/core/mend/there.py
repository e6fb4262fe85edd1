"""Which tools can be used at the cuts, on the machine, with the room that is there."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.parts.fitting import Fitting, Flarer
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.splicing import Cutter, Splice
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length

Fits = Literal["fits", "does not fit", "measure first"]


@record
class ToolThere:
    """One tool at the cuts: whether it fits there, and with which figures."""

    what: str
    fits: Fits
    why: str
    source: Source


def tools_there(
    kit: Kit, way: Splice, fitting: str, size: str, stays_mm: float | None, free_mm: float | None, unit: Unit
) -> tuple[ToolThere, ...]:
    """What cuts, flares and tightens a way of joining at the cuts. `stays_mm` is the straight that stays
    beside the tighter cut, `free_mm` what is free all round the tube; None while nobody has measured it."""
    return tuple(_all(kit, way, fitting, size, stays_mm, free_mm, unit))


def _all(
    kit: Kit, way: Splice, fitting: str, size: str, stays_mm: float | None, free_mm: float | None, unit: Unit
) -> Iterator[ToolThere]:
    cutter = cutter_there(kit, free_mm)

    def said(mm: float) -> str:
        return format_length(mm, unit)

    if cutter is None:
        last = min(kit.splicing.cutters, key=lambda row: row.swing)
        yield ToolThere(
            what="nothing of the list cuts there",
            fits="does not fit",
            why=f"{said(free_mm or 0.0)} are free, the smallest needs {said(last.swing)}: "
            f"take the line off first",
            source=last.source,
        )
    else:
        yield ToolThere(
            what=cutter.name,
            fits="measure first" if free_mm is None else "fits",
            why=f"needs {said(cutter.swing)} all round; {cutter.after}",
            source=cutter.source,
        )
    known = kit.fittings.get(fitting)
    if known is not None and known.flared:
        nuts = kit.nuts_for(fitting, size)
        tool = flarer_there(kit, known, stays_mm, nuts[0].length_mm if nuts else 0.0)
        if tool is None:
            yield ToolThere(
                what="no flaring tool of the list",
                fits="does not fit",
                why="none for the machine holds so short a straight behind the pushed-back nut",
                source=way.source,
            )
        else:
            yield ToolThere(
                what=tool.name,
                fits="measure first" if stays_mm is None else "fits",
                why=f"holds {said(tool.grip_mm)} of straight behind the flare, its nut pushed back",
                source=tool.source,
            )
    if way.swing > 0:
        what = "driver on each clamp" if way.id == "hose" else "wrench on each nut, a second on the body"
        yield ToolThere(
            what=what,
            fits="measure first" if free_mm is None else "fits" if free_mm >= way.swing else "does not fit",
            why=f"needs {said(way.swing)} to swing"
            + ("" if free_mm is None or free_mm >= way.swing else f", {said(free_mm)} are free"),
            source=way.source,
        )


def cutter_there(kit: Kit, free_mm: float | None) -> Cutter | None:
    """The best cutter for the room round the tube; the best of all while that is not known."""
    rows = kit.splicing.cutters
    return next((row for row in rows if free_mm is None or row.swing <= free_mm), None)


def no_swing(way: Splice, free_mm: float | None, unit: Unit) -> str:
    """Why a wrench or driver cannot be swung in the room that was measured; blank where it can, and while
    nobody has measured."""
    if free_mm is None or free_mm >= way.swing:
        return ""
    return (
        f"Only {format_length(free_mm, unit)} are free round the tube, {format_length(way.swing, unit)} are "
        "needed to swing: a crowfoot or a ring driver, or cut where there is room."
    )


def flarer_there(kit: Kit, fitting: Fitting, straight_mm: float | None, nut_mm: float) -> Flarer | None:
    """The flaring tool for the machine that forms this end on the straight that is there behind a pushed-back
    nut, the shortest hold first; None for an end that is not flared, and where none has room."""
    if not fitting.flared:
        return None
    fits = [
        tool
        for tool in kit.flarers.values()
        if tool.use == "on the machine"
        and fitting.kind in tool.forms
        and (straight_mm is None or tool.grip_mm + nut_mm <= straight_mm)
    ]
    return min(fits, key=lambda tool: tool.grip_mm, default=None)

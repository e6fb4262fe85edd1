"""The readings of a line's mirror image: the same legs and angles, every plane the other way round."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.line.document import BendReadings, CornerReadings, CornerRow
from bendrel.core.units.lengths import Length, Plane, is_blank, length_mm
from bendrel.core.units.notation import UnitError, format_clock, normalised_turn, parse_plane


def mirrored(readings: BendReadings | CornerReadings) -> BendReadings | CornerReadings:
    """The readings that another hand would have typed for the mirror image. What cannot be read
    stays as it was typed."""
    if isinstance(readings, BendReadings):
        rows = tuple(replace(row, plane=mirrored_plane(row.plane)) for row in readings.rows)
        return replace(readings, rows=rows)
    return replace(readings, rows=tuple(_corner(row) for row in readings.rows))


def mirrored_plane(plane: Plane) -> Plane:
    """A plane as it lies in the mirror image; one that cannot be read stays as it was typed."""
    exact = None if plane.exact_deg is None else normalised_turn(-plane.exact_deg)
    try:
        kind, value = parse_plane(plane.text, plane.by)
    except UnitError:
        return replace(plane, exact_deg=exact)
    if kind == "clock":
        return Plane(text=format_clock(-value), exact_deg=exact)
    # the sign stays, so that a bare figure never becomes a clock time
    turned = _turned(plane.text)
    return Plane(text=turned if turned.startswith("-") else f"+{turned}", by=plane.by, exact_deg=exact)


def _turned(text: str) -> str:
    """The same figure with the other sign."""
    clean = text.strip()
    return clean[1:].strip() if clean.startswith(("-", "−")) else f"-{clean.lstrip('+')}"


def _corner(row: CornerRow) -> CornerRow:
    """Mirrored in the datum's x-y plane: z changes its sign."""
    if is_blank(row.z):
        return row
    try:
        exact = -length_mm(row.z, "any")
    except UnitError:
        return row
    kept = row.z.exact_mm is not None
    return replace(
        row, z=Length(text=_turned(row.z.text), unit=row.z.unit, exact_mm=exact + 0.0 if kept else None)
    )

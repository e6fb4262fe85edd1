"""Files read into a line: what was understood is shown before anything is kept."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.corners import Corners, bends_from_corners
from bendrel.core.geometry.tool_radius import ToolRadius
from bendrel.core.line.document import MOST_ROWS, Line
from bendrel.core.line.references import without_bends
from bendrel.core.line.rewrite import Entry
from bendrel.core.line.run import Run
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import MM_PER_INCH, Unit, UnitError, format_length, parse_length
from bendrel.exchange.documents.documents import check_savable, read_line
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.dxf import corners_of, read_dxf
from bendrel.exchange.shapes.tables import POINTS_HEADER, blank_radii, read_bends, read_points
from bendrel.services.errors import Refused
from bendrel.services.line.lines import with_readings
from bendrel.services.shelf.tubes import tube_of


@record
class Understood:
    """What a file was taken for. `unit` is what its figures were in, None for a line document;
    `notes` say what was filled in, merged or joined."""

    document: Line
    understood: str
    unit: Unit | None
    notes: tuple[str, ...]


def import_text(
    text: str, into: Line, radius: str, unit: Unit | None, kit: Kit, name: str = ""
) -> Understood:
    """Read a CSV, a DXF or a line document into a line that keeps the rest of `into`.

    `unit` overrides what the figures are in. A missing radius is `radius`, or the bender's own.
    Raises FileError, Refused.
    """
    start = text.lstrip("\ufeff \r\n\t")
    if start.startswith("{"):
        read = read_line(text)
        return Understood(
            document=replace(read, name=into.name),
            understood=f"line document “{read.name}”",
            unit=None,
            notes=(),
        )
    tube = tube_of(into, name)
    fill = _radius(tube, radius, kit)
    if _looks_like_dxf(start):
        return _from_dxf(text, tube, fill, unit, kit)
    return _from_csv(text, tube, fill, unit, kit)


def _looks_like_dxf(start: str) -> bool:
    lines = [line.strip() for line in start[:400].splitlines()[:2]]
    return len(lines) == 2 and lines[0] in ("0", "999")


def _radius(into: Run, radius: str, kit: Kit) -> float | ToolRadius | None:
    if radius.strip():
        try:
            return parse_length(radius, into.line.unit)
        except UnitError as error:
            raise Refused(f"Radius: {error}") from error
    bender = kit.tool(into.span.bender, into.span.tube)
    return bender.radius if bender else None


def _in_file(radius: float | ToolRadius | None, factor: float) -> float | ToolRadius | None:
    """The radius in the file's own figures, of which one is `factor` mm."""
    if isinstance(radius, ToolRadius):
        return ToolRadius(mm=radius.mm / factor, unwinds_mm_deg=radius.unwinds_mm_deg / factor)
    return None if radius is None else radius / factor


def _said(radius: float | ToolRadius, unit: Unit) -> str:
    if not isinstance(radius, ToolRadius):
        return format_length(radius, unit)
    size = format_length(radius.mm, unit)
    return f"what the tool leaves, near {size}," if radius.unwinds_mm_deg else size


def _from_csv(
    text: str, into: Run, fill: float | ToolRadius | None, unit: Unit | None, kit: Kit
) -> Understood:
    data = text.encode()
    points = text.lstrip("\ufeff\r\n").split(",", 1)[0].strip().strip('"') == POINTS_HEADER[0]
    factor = MM_PER_INCH if unit == "in" else 1.0
    notes: list[str] = []
    if not points:
        shape = _scaled(read_bends(data), factor)
        return _done(into, shape, "bends", "bend CSV", unit or "mm", notes, kit)
    corners = read_points(data, _in_file(fill, factor))
    blanks = blank_radii(data)
    if blanks and fill is not None:
        filled = _said(fill, into.line.unit)
        notes.append(f"{_count(blanks, 'radius', 'radii')} missing; {filled} filled in")
    corners = Corners(
        points=tuple((x * factor, y * factor, z * factor) for x, y, z in corners.points),
        radii_mm=tuple(r * factor for r in corners.radii_mm),
    )
    return _from_corners(corners, into, "points CSV", unit or "mm", notes, kit)


def _from_dxf(
    text: str, into: Run, fill: float | ToolRadius | None, unit: Unit | None, kit: Kit
) -> Understood:
    drawing = read_dxf(text, unit)
    taken: Unit = "in" if abs(drawing.unit_mm - MM_PER_INCH) < 1e-9 else "mm"
    notes = []
    if drawing.unit_from == "guessed":
        notes.append("the drawing does not say its unit; guessed from its size, switch it if that is wrong")
    elif drawing.unit_from == "said" and drawing.unit_mm not in (1.0, MM_PER_INCH):
        notes.append(f"one unit of the drawing is {drawing.unit_mm:g} mm")
    what = f"DXF drawing, {_count(drawing.entities, 'entity', 'entities')}"
    if drawing.shape is not None:
        return _done(into, drawing.shape, "bends", what, taken, notes, kit)
    if len(drawing.points) > 2:
        if fill is None:
            raise FileError("The drawing has corners without arcs; give one radius for all of them.")
        notes.append(f"radii missing; {_said(fill, into.line.unit)} put into every corner")
    return _from_corners(corners_of(drawing, fill or 1.0), into, what, taken, notes, kit)


def _from_corners(
    corners: Corners, into: Run, what: str, unit: Unit, notes: list[str], kit: Kit
) -> Understood:
    shape = bends_from_corners(corners)
    merged = len(corners.radii_mm) - len(shape.bends)
    if merged:
        notes.append(f"{_count(merged, 'corner', 'corners')} merged: flat, or part of one bend")
    return _done(into, shape, "corners", what, unit, notes, kit)


def _done(
    into: Run, shape: BendList, kind: Entry, what: str, unit: Unit, notes: list[str], kit: Kit
) -> Understood:
    names = {"in": "inches", "mm": "millimetres"}
    said = f"{what}, {_count(len(shape.bends), 'bend', 'bends')}, in {names[unit]}"
    kept = without_bends(into.line, into.span)
    along = format_length(shape.developed_mm, into.line.unit)
    if len(shape.bends) > MOST_ROWS:
        raise FileError(
            f"The file has {len(shape.bends):,} bends; a tube here has {MOST_ROWS} at most. Split it in two."
        )
    document = with_readings(kept, tube_of(kept, into.span.id).span, shape, kind, kit)
    check_savable(document)
    return Understood(
        document=document,
        understood=f"{said}, {along} along the tube",
        unit=unit,
        notes=tuple(notes),
    )


def _scaled(shape: BendList, factor: float) -> BendList:
    if factor == 1.0:
        return shape
    bends = tuple(
        Bend(
            straight_mm=bend.straight_mm * factor,
            rotation_deg=bend.rotation_deg,
            angle_deg=bend.angle_deg,
            radius_mm=bend.radius_mm * factor,
        )
        for bend in shape.bends
    )
    return BendList(bends=bends, last_straight_mm=shape.last_straight_mm * factor)


def _count(number: int, one: str, more: str) -> str:
    return f"{number} {one if number == 1 else more}"

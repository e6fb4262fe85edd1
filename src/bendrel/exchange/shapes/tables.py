"""Points CSV and bend CSV, in and out. Read as hostile: every cell is checked, nothing guessed."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Sequence

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.corners import Corners, bends_from_corners, turns_deg
from bendrel.core.geometry.tool_radius import UsualRadius, usual_at
from bendrel.core.units.notation import OVER_DEG, normalised_turn
from bendrel.exchange.errors import FileError

POINTS_HEADER = ("x_mm", "y_mm", "z_mm", "radius_mm")
BENDS_HEADER = ("straight_mm", "rotation_deg", "angle_deg", "radius_mm")
MOST_ROWS = 5000
MOST_BYTES = 2_000_000
_NUMBER = re.compile(r"[+-]?(?:[0-9]+\.?[0-9]*|\.[0-9]+)(?:[eE][+-]?[0-9]{1,3})?")
_LARGEST = 100_000.0  # 100 m


def read_points(data: bytes, radius_mm: UsualRadius = None) -> Corners:
    """Corner points from CSV bytes.

    Header `x_mm,y_mm,z_mm,radius_mm`; the radius is blank at the ends; a blank inner radius is
    filled by `radius_mm` and refused without it. Raises FileError.
    """
    rows = rows_of(data, POINTS_HEADER)
    if len(rows) < 2:
        raise FileError("The points file needs at least two rows: end A and end B.")
    points: list[tuple[float, float, float]] = []
    radii: list[float | None] = []
    for k, (line, cells) in enumerate(rows):
        x, y, z = (number(cells[i], line, name) for i, name in enumerate(POINTS_HEADER[:3]))
        points.append((x, y, z))
        inner = 0 < k < len(rows) - 1
        if not inner:
            if cells[3]:
                raise FileError(f"Row {line}: an end has no bend; leave radius_mm blank there.")
        elif cells[3]:
            radii.append(_positive(cells[3], line, "radius_mm"))
        elif radius_mm is not None:
            radii.append(None)
        else:
            raise FileError(f"Row {line}: radius_mm is blank; fill it in, or give one radius for all blanks.")
    filled = tuple(
        radius if radius is not None else usual_at(radius_mm, turn) or 0.0
        for radius, turn in zip(radii, turns_deg(points), strict=True)
    )
    return Corners(points=tuple(points), radii_mm=filled)


def blank_radii(data: bytes) -> int:
    """How many inner corners of a points CSV have no radius of their own. Raises FileError."""
    return sum(not cells[3] for _, cells in rows_of(data, POINTS_HEADER)[1:-1])


def read_bends(data: bytes) -> BendList:
    """A bend list from CSV bytes.

    Header `straight_mm,rotation_deg,angle_deg,radius_mm`; the last row holds the last straight
    alone. First rotation 0 or blank. Raises FileError.
    """
    rows = rows_of(data, BENDS_HEADER)
    if not rows:
        raise FileError("The bend file needs a last row with the last straight alone.")
    last_line, last = rows[-1]
    if any(last[1:]):
        raise FileError(f"Row {last_line}: the last row must hold the last straight alone; add such a row.")
    bends = []
    for k, (line, cells) in enumerate(rows[:-1]):
        rotation = number(cells[1] or "0", line, "rotation_deg") if k == 0 or cells[1] else None
        if rotation is None:
            raise FileError(f"Row {line}: rotation_deg is blank; only the first bend may be.")
        if k == 0 and rotation != 0:
            raise FileError(f"Row {line}: the first rotation must be 0 or blank.")
        if abs(rotation) > 180 + OVER_DEG:
            raise FileError(f"Row {line}: rotation_deg must be from -180 to 180.")
        angle = number(cells[2], line, "angle_deg")
        if not 0 < angle <= 360:
            raise FileError(f"Row {line}: angle_deg must be over 0 and up to 360.")
        bends.append(
            Bend(
                straight_mm=_not_negative(cells[0], line, "straight_mm"),
                rotation_deg=rotation if -180 < rotation <= 180 else normalised_turn(rotation),
                angle_deg=angle,
                radius_mm=_positive(cells[3], line, "radius_mm"),
            )
        )
    straight = _not_negative(last[0], last_line, "straight_mm")
    if not bends and straight == 0:
        raise FileError(f"Row {last_line}: a straight tube must be longer than 0.")
    return BendList(bends=tuple(bends), last_straight_mm=straight)


def read_shape(data: bytes, radius_mm: float | None = None) -> BendList:
    """A shape from either kind of CSV, told apart by its header. Raises FileError."""
    header = _header(_text(data))
    if not set(header) & {POINTS_HEADER[0], BENDS_HEADER[0]}:
        raise FileError(
            f"Row 1: the header must be {','.join(POINTS_HEADER)} for points or "
            f"{','.join(BENDS_HEADER)} for bends."
        )
    if POINTS_HEADER[0] in header:
        return bends_from_corners(read_points(data, radius_mm))
    return read_bends(data)


def write_points(corners: Corners) -> str:
    """Points CSV with unrounded numbers."""
    radii = ("", *(repr(r) for r in corners.radii_mm), "")
    rows = [
        (repr(x), repr(y), repr(z), radius) for (x, y, z), radius in zip(corners.points, radii, strict=True)
    ]
    return _written(POINTS_HEADER, rows)


def write_bends(shape: BendList) -> str:
    """Bend CSV with unrounded numbers."""
    rows = [
        (repr(b.straight_mm), repr(b.rotation_deg), repr(b.angle_deg), repr(b.radius_mm)) for b in shape.bends
    ]
    return _written(BENDS_HEADER, [*rows, (repr(shape.last_straight_mm), "", "", "")])


def _written(header: tuple[str, ...], rows: Sequence[tuple[str, ...]]) -> str:
    out = io.StringIO()
    csv.writer(out, lineterminator="\n").writerows([header, *rows])
    return out.getvalue()


def _text(data: bytes, most_bytes: int = MOST_BYTES, most_rows: int = MOST_ROWS) -> str:
    if len(data) > most_bytes:
        mb = most_bytes // 1_000_000
        raise FileError(f"The file is over {mb} MB; a CSV of up to {most_rows:,} rows is accepted.")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise FileError("The file is not UTF-8 text; save it as CSV in UTF-8.") from error


def _header(text: str) -> tuple[str, ...]:
    line = text.lstrip("\r\n").split("\n", 1)[0]
    return tuple(cell.strip().strip('"') for cell in line.split(","))


def header_of(data: bytes, most_bytes: int = MOST_BYTES) -> tuple[str, ...]:
    """The cells of the first row. Raises FileError for what is no text."""
    return _header(_text(data, most_bytes))


def rows_of(
    data: bytes, header: tuple[str, ...], *, most_rows: int = MOST_ROWS, most_bytes: int = MOST_BYTES
) -> list[tuple[int, list[str]]]:
    """(row number in the file, cells) of every row that is not empty, header checked. Raises FileError."""
    text = _text(data, most_bytes, most_rows)
    if "\0" in text:
        raise FileError("The file holds binary data; a CSV text file is accepted.")
    if not text.strip():
        raise FileError(f"The file is empty; it must start with the header {','.join(header)}.")
    found = _header(text)
    if found != header:
        missing = [name for name in header if name not in found]
        what = f"column {missing[0]} is missing" if missing else "the columns are not as expected"
        raise FileError(f"Row 1: {what}; the header must be {','.join(header)}.")
    rows: list[tuple[int, list[str]]] = []
    reader = csv.reader(io.StringIO(text), strict=True)
    try:
        for cells in reader:
            if not any(cell.strip() for cell in cells) and len(cells) <= 1:
                continue
            rows.append((reader.line_num, [cell.strip() for cell in cells]))
            if len(rows) > most_rows + 1:
                raise FileError(f"The file has over {most_rows:,} rows; split it.")
    except csv.Error as error:
        raise FileError(f"Row {reader.line_num}: the quotes in this row are broken.") from error
    for line, cells in rows[1:]:
        if len(cells) != len(header):
            has = f"{len(cells)} {'cell' if len(cells) == 1 else 'cells'}"
            raise FileError(
                f"Row {line}: {has} instead of {len(header)}; use commas between cells and a decimal point."
            )
    return rows[1:]


def number(cell: str, line: int, name: str) -> float:
    """A finite decimal number. Raises FileError."""
    if not cell:
        raise FileError(f"Row {line}: {name} is blank; a number is needed.")
    if not _NUMBER.fullmatch(cell) or len(cell) > 40:
        raise FileError(f"Row {line}: {name} “{cell[:20]}” is not a number.")
    value = float(cell)
    if not math.isfinite(value) or abs(value) > _LARGEST:
        raise FileError(f"Row {line}: {name} {cell[:20]} is too large.")
    return value


def _positive(cell: str, line: int, name: str) -> float:
    value = number(cell, line, name)
    if value <= 0:
        raise FileError(f"Row {line}: {name} must be more than 0.")
    return value


def _not_negative(cell: str, line: int, name: str) -> float:
    value = number(cell, line, name)
    if value < 0:
        raise FileError(f"Row {line}: {name} must be 0 or more.")
    return value

"""From readings as typed to a bend list. Every conversion happens here, once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import TypeVar

from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.geometry.corners import Corners, traced_bends, turns_deg
from bendrel.core.geometry.tool_radius import UsualRadius, usual_at, usual_of_arc
from bendrel.core.geometry.vectors import Vector
from bendrel.core.line.document import BendReadings, BendRow, CornerReadings
from bendrel.core.line.paths import LAST, row_path
from bendrel.core.measure.legs import ReadBend, ReadBends, ReadingError, shape_of
from bendrel.core.measure.slots import Slot
from bendrel.core.record import record
from bendrel.core.units.lengths import Angle, Length, Plane, length_mm
from bendrel.core.units.lengths_error import said_in
from bendrel.core.units.notation import Sign, Unit, UnitError, parse_angle, parse_plane
from bendrel.core.units.quantities import parse_degrees, parse_way

T = TypeVar("T")


@record
class Problem:
    """A reading that cannot be used: its field as a JSON pointer into the readings, and why."""

    path: str
    message: str


@record
class Resolved:
    """The shape that readings mean and the numbers behind it, or what is wrong with them. `ids` has for every
    bend the row that it comes from.

    `lengths_mm` holds what every length field became, by JSON pointer into the readings.
    """

    shape: BendList | None
    ids: tuple[str, ...]
    read: ReadBends | Corners | None
    lengths_mm: dict[str, float]
    problems: tuple[Problem, ...]


class Reader:
    """Reads fields one by one and collects every problem, in `unit`, instead of stopping at the first."""

    def __init__(self, unit: Unit = "mm") -> None:
        self.unit = unit
        self.problems: list[Problem] = []
        self.lengths: dict[str, float] = {}

    def length(self, path: str, reading: Length, sign: Sign = "positive") -> float | None:
        """A length in mm, noted under its path."""
        value = self._read(path, lambda: length_mm(reading, sign))
        if value is not None:
            self.lengths[path] = value
        return value

    def angle(self, path: str, reading: Angle) -> float | None:
        """A bend angle in degrees."""
        if reading.exact_deg is not None:
            return reading.exact_deg
        return self._read(path, lambda: parse_angle(reading.text))

    def plane(self, path: str, reading: Plane) -> tuple[float | None, float | None]:
        """(clock, rotation from the bend before), one of them; both None when it cannot be read."""
        if reading.exact_deg is not None:
            return None, reading.exact_deg
        read = self._read(path, lambda: parse_plane(reading.text, reading.by))
        if read is None:
            return None, None
        kind, value = read
        return (value, None) if kind == "clock" else (None, value)

    def way(self, path: str, text: str) -> Vector | None:
        """A unit way from the datum on the machine."""
        return self._read(path, lambda: parse_way(text))

    def degrees(self, path: str, text: str) -> float | None:
        """Degrees either way."""
        return self._read(path, lambda: parse_degrees(text))

    def _read(self, path: str, read: Callable[[], T]) -> T | None:
        try:
            return read()
        except (UnitError, ShapeError) as error:
            self.problems.append(Problem(path=path, message=said_in(error, self.unit)))
            return None


def _unit_of(readings: BendReadings | CornerReadings) -> Unit:
    """The unit that they are typed in: that of the last one."""
    if isinstance(readings, BendReadings):
        return readings.last.unit
    return readings.rows[-1].x.unit if readings.rows else "mm"


def resolve(readings: BendReadings | CornerReadings, *, od_mm: float, radius_mm: UsualRadius) -> Resolved:
    """The shape that `readings` mean for a tube of `od_mm` and a bender of `radius_mm`.

    Straights may come out negative: that is a finding of the plan, not a misreading. Nothing is
    raised; what cannot be read comes back as problems and then there is no shape.
    """
    reader = Reader(_unit_of(readings))
    if isinstance(readings, CornerReadings):
        return _made(reader, readings, _read_corners(reader, readings, radius_mm))
    return _made(reader, readings, _read_bends(reader, readings, od_mm, radius_mm))


def taken_as(
    resolved: Resolved, readings: BendReadings | CornerReadings, read: ReadBends | Corners
) -> Resolved:
    """`resolved` with its shape made of `read`, which stands for what was read; its figures stay as typed."""
    if read == resolved.read:
        return resolved
    made = _made(Reader(_unit_of(readings)), readings, read)
    return replace(resolved, shape=made.shape, ids=made.ids, problems=made.problems)


def _shape(read: ReadBends | Corners) -> tuple[BendList, tuple[int, ...]]:
    if isinstance(read, Corners):
        return traced_bends(read, allow_overlap=True)
    return shape_of(read), tuple(range(len(read.bends)))


def _made(
    reader: Reader, readings: BendReadings | CornerReadings, read: ReadBends | Corners | None
) -> Resolved:
    """The shape of what was read, or all problems."""
    shape: BendList | None = None
    rows: tuple[int, ...] = ()
    if read is not None and not reader.problems:
        try:
            shape, rows = _shape(read)
        except ReadingError as error:
            at = LAST if error.row is None else row_path(readings.rows[error.row].id, error.field)
            reader.problems.append(Problem(path=at, message=error.said(reader.unit)))
        except ShapeError as error:
            reader.problems.append(Problem(path="/rows", message=error.said(reader.unit)))
    return Resolved(
        shape=shape,
        ids=tuple(readings.rows[k].id for k in rows),
        read=None if shape is None else read,
        lengths_mm=reader.lengths,
        problems=tuple(reader.problems),
    )


def _read_bends(
    reader: Reader, readings: BendReadings, od_mm: float, radius_mm: UsualRadius
) -> ReadBends | None:
    rows = [read_bend(reader, row, k, radius_mm) for k, row in enumerate(readings.rows)]
    last = reader.length(LAST, readings.last)
    bends = tuple(row for row in rows if row is not None)
    if last is None or len(bends) < len(rows):
        return None
    return ReadBends(
        bends=bends,
        last_mm=last,
        last_by=readings.last_by,
        last_read_from=readings.last_read_from,
        od_mm=od_mm,
    )


def read_bend(reader: Reader, row: BendRow, k: int, radius_mm: UsualRadius) -> ReadBend | None:
    """Row `k` as numbers; None where something of it cannot be read, which `reader` then says."""
    place = reader.length(row_path(row.id, "length"), row.length, _leg_sign(row, k))
    to: float | None = None
    angle: float | None = None
    from_wire = row.by == "wire" and row.angle.exact_deg is None and not row.angle.text.strip()
    if from_wire and row.read_to != "centre":
        to = reader.length(row_path(row.id, "to"), row.to)
    else:
        angle = reader.angle(row_path(row.id, "angle"), row.angle)
    clock, rotation = reader.plane(row_path(row.id, "plane"), row.plane) if k else (None, 0.0)
    usual = (
        usual_of_arc(radius_mm, (to or 0.0) - (place or 0.0)) if angle is None else usual_at(radius_mm, angle)
    )
    radius = _radius(reader, row_path(row.id, "radius"), row.radius, usual)
    if (
        place is None
        or (to is None and angle is None)
        or (clock is None and rotation is None)
        or radius is None
    ):
        return None
    return ReadBend(
        by=row.by,
        at_mm=place,
        to_mm=to,
        read_from=row.read_from,
        read_to=row.read_to,
        angle_deg=angle,
        clock_deg=clock,
        rotation_deg=rotation,
        radius_mm=radius,
    )


def slot_path(readings: BendReadings | CornerReadings, slot: Slot) -> str:
    """Where one reading stands, within the readings."""
    return LAST if slot.field == "last" else row_path(readings.rows[slot.row].id, slot.field)


def _read_corners(reader: Reader, readings: CornerReadings, radius_mm: UsualRadius) -> Corners | None:
    points: list[tuple[float, float, float]] = []
    for row in readings.rows:
        x = reader.length(row_path(row.id, "x"), row.x, "any")
        y = reader.length(row_path(row.id, "y"), row.y, "any")
        z = reader.length(row_path(row.id, "z"), row.z, "any")
        if x is not None and y is not None and z is not None:
            points.append((x, y, z))
    known = len(points) == len(readings.rows)
    turns = turns_deg(points) if known else (0.0,) * len(readings.rows[1:-1])
    radii = [
        _radius(reader, row_path(row.id, "radius"), row.radius, usual_at(radius_mm, turn)) or 1.0
        for row, turn in zip(readings.rows[1:-1], turns, strict=True)
    ]
    return None if reader.problems else Corners(points=tuple(points), radii_mm=tuple(radii))


def _radius(reader: Reader, path: str, reading: Length | None, radius_mm: float | None) -> float | None:
    if reading is not None and (reading.text.strip() or reading.exact_mm is not None):
        return reader.length(path, reading)
    if radius_mm is None:
        reader.problems.append(
            Problem(path=path, message="This bender has no radius of its own; give the bend's radius.")
        )
    return radius_mm


def _leg_sign(row: BendRow, k: int) -> Sign:
    """Only a length from the rim, or from a bend's start to a bend's start, can be 0."""
    from_start = k == 0 or row.read_from == "start" or row.by != "leg"
    return "not_negative" if from_start and (row.read_to == "start" or row.by != "leg") else "positive"

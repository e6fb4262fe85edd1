"""What was read further, as figures, and how exactly the shop reads."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import partial
from typing import TypeVar

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector, cross
from bendrel.core.line.checks import BendOnSheet, DrawnBend, DrawnEnd, way_from_a
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.landed import ByHand, LandingField, read_beside, read_landing
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem
from bendrel.core.line.rewrite import bend_ids
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.landing import Port, rows_of
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Across, Corner, Given, od_of
from bendrel.core.measure.sheet import BendOff, OnDrawing, sheet_of, sides_of
from bendrel.core.measure.spots import TapePlace
from bendrel.core.parts.kit import Kit
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError, parse_length, parse_plane, parse_tilt
from bendrel.core.units.quantities import parse_way

T = TypeVar("T")


def reading_errors(kit: Kit) -> ReadingErrors:
    """The shop's reading errors from the catalogue."""
    limits = kit.limits
    return ReadingErrors(
        length_mm=limits["reading_mm"].value,
        angle_deg=limits["reading_deg"].value,
        gross_mm=limits["gross_mm"].value,
        gross_deg=limits["gross_deg"].value,
        place_mm=limits["place_mm"].value,
        radius_share=limits["old_radius_share"].value,
        laid_mm=limits["laid_mm"].value,
        laid_deg=limits["laid_deg"].value,
        least_slip_mm=limits["least_slip_mm"].value,
        least_slip_deg=limits["least_slip_deg"].value,
        eye_share=limits["offer_eye_share"].value,
        steep_deg=limits["jig_steep_deg"].value,
    )


def given_checks(
    span: RigidSpan, read: ReadBends | Corners | None, kit: Kit
) -> tuple[Given, tuple[Problem, ...]]:
    """The checks as numbers, and those that cannot be read; `read` is None while the readings cannot be."""
    found = _Reader(span)
    checks = span.checks
    wire = found.one("wire", is_blank(checks.wire), lambda: length_mm(checks.wire))
    tape = found.one("tape", is_blank(checks.tape), lambda: length_mm(checks.tape))
    way_a: Vector | None = None
    way_b: Vector | None = None
    if span.readings.kind == "corners":
        way_a = found.one("way_a", not checks.way_a.strip(), lambda: parse_way(checks.way_a))
        way_b = found.one("way_b", not checks.way_b.strip(), lambda: parse_way(checks.way_b))
    elif checks.port_b_angle.text.strip():
        tilt = found.one("port_b_angle", False, lambda: parse_tilt(checks.port_b_angle.text))
        text = checks.port_b_clock.text
        clock = found.one("port_b_clock", tilt in (None, 0.0, 180.0), lambda: _clock(text))
        if tilt is not None and (clock is not None or tilt in (0.0, 180.0)):
            way_b = way_from_a(tilt, clock or 0.0)
    bends = span.readings.kind == "bends"
    given = Given(
        wire_mm=wire,
        tape_mm=tape,
        way_a=way_a,
        way_b=way_b,
        place_b=found.place_b() if bends else None,
        across=found.across(),
        corners=found.corners() if bends else (),
        laid=None
        if read is None
        else found.laid(read, reading_errors(kit), kit.limits["jig_least_mm"].value),
    )
    return given, tuple(found.problems)


class _Reader:
    """Reads checks one by one and collects what cannot be read."""

    def __init__(self, span: RigidSpan) -> None:
        self._span, self._rows = span, bend_ids(span.readings)
        self.problems: list[Problem] = []

    def one(self, path: str, blank: bool, parse: Callable[[], T]) -> T | None:
        if blank:
            return None
        try:
            return parse()
        except UnitError as error:
            self._wrong(path, str(error))
            return None

    def _wrong(self, path: str, message: str) -> None:
        self.problems.append(Problem(path=span_path(self._span.id, "checks", path), message=message))

    def place_b(self) -> Vector | None:
        """Where end B stands from A; all three sides are asked for, or a blank one would stand for none."""
        checks = self._span.checks
        sides = (("ahead", checks.ahead), ("up", checks.up), ("right", checks.right))
        if all(is_blank(side) for _, side in sides):
            return None
        found = []
        for name, side in sides:
            found.append(self._side(name, side))
            if is_blank(side):
                self._wrong(name, f"Say all three: how far end B stands {SIDES[name]}, 0 for none.")
        ahead, up, right = found
        return None if ahead is None or up is None or right is None else (ahead, up, right)

    def _side(self, path: str, side: Length) -> float | None:
        return self.one(path, is_blank(side), partial(length_mm, side, "any"))

    def across(self) -> tuple[Across, ...]:
        found = []
        for item in self._span.checks.across:
            path = f"across/{item.id}"
            start, end = self._spot(f"{path}/start", item.start), self._spot(f"{path}/end", item.end)
            mm = self.one(f"{path}/length", is_blank(item.length), partial(length_mm, item.length))
            if mm is None or start is None or end is None:
                continue
            if start == end:
                self._wrong(
                    f"{path}/end", "The tape goes from a place to itself; say where its other end was."
                )
                continue
            found.append(Across(id=item.id, start=start, end=end, mm=mm, over=item.over))
        return tuple(found)

    def corners(self) -> tuple[Corner, ...]:
        found = []
        for item in self._span.checks.corners:
            path = f"corners/{item.id}"
            bend = self._spot(f"{path}/row", item.row)
            ahead, up, right = (
                self._side(f"{path}/{name}", side)
                for name, side in (("ahead", item.ahead), ("up", item.up), ("right", item.right))
            )
            if isinstance(bend, int) and (ahead, up, right) != (None, None, None):
                found.append(Corner(id=item.id, bend=bend, sides=(ahead, up, right)))
        return tuple(found)

    def _spot(self, path: str, name: str) -> TapePlace | None:
        if name == "A":
            return "A"
        if name == "B":
            return "B"
        if name in self._rows:
            return self._rows.index(name)
        self._wrong(path, "This bend is gone; say which one was read, or take the reading out.")
        return None

    def laid(self, read: ReadBends | Corners, errors: ReadingErrors, least_mm: float) -> OnDrawing | None:
        sheet = self._span.checks.sheet
        if sheet.blank:
            return None

        def wrong(name: LandingField, message: str) -> None:
            self._wrong(f"sheet/{name}", message)

        by_hand = ByHand(mm=errors.laid_sd_mm, deg=errors.laid_sd_deg, eye_share=errors.eye_share)
        landing = read_landing(sheet, by_hand, od_of(read), wrong)
        try:
            drawn = sheet.drawn or drawn_sheet(self._span, read, least_mm)
        except ShapeError:
            return None
        port = Port(point=drawn.point, way=drawn.way, noon=drawn.noon, three=cross(drawn.way, drawn.noon))
        bends = tuple(
            off
            for one in sheet.bends
            for off in self._bend_on(one, drawn, by_hand, steep_deg=errors.steep_deg, od_mm=od_of(read))
        )
        rows = rows_of(landing)
        return OnDrawing(rows=rows, port=port, bends=bends) if rows or bends else None

    def _bend_on(
        self, one: BendOnSheet, drawn: DrawnEnd, by_hand: ByHand, *, steep_deg: float, od_mm: float
    ) -> Iterator[BendOff]:
        path, unit = f"sheet/bends/{one.id}", self._span.checks.sheet.unit
        bend = self._spot(f"{path}/row", one.row)
        if not isinstance(bend, int) or not (one.height.strip() or one.beside.strip()):
            return
        shown = next((bent for bent in drawn.bends if bent.row == one.row), None)
        if shown is None or drawn.up is None:
            self._wrong(
                f"{path}/row",
                "The sheet that the part lay on does not say where this bend stands: clear what was read on "
                "it, and read it on a sheet printed now.",
            )
            return
        sides = sides_of(shown.way, drawn.up, steep_deg)
        if sides is None:
            self._wrong(f"{path}/row", "The tube stands up from the board at this bend: read another one.")
            return
        off = partial(BendOff, id=one.id, bend=bend, point=shown.point, way=shown.way)
        beside = self.one(
            f"{path}/beside", not one.beside.strip(), lambda: read_beside(one.beside, unit, od_mm, by_hand)
        )
        if beside is not None:
            mm, sd = beside
            yield off(side=sides.left, mm=mm if one.left else -mm, sd=sd)
        height = self.one(f"{path}/height", not one.height.strip(), lambda: parse_length(one.height, unit))
        if height is not None:
            level = sides.level
            yield off(side=sides.above, mm=(height - shown.high) * level, sd=by_hand.mm * level)


def drawn_sheet(span: RigidSpan, read: ReadBends | Corners, least_mm: float) -> DrawnEnd:
    """What the jig sheet of these readings shows, its lowest place `least_mm` over the board. Raises
    ShapeError where they are no shape."""
    sheet = sheet_of(read)
    return DrawnEnd(
        point=_to(sheet.port.point, POINT_DIGITS),
        way=_to(sheet.port.way, WAY_DIGITS),
        noon=_to(sheet.port.noon, WAY_DIGITS),
        up=_to(sheet.up, WAY_DIGITS),
        bends=tuple(
            DrawnBend(
                row=row,
                point=_to(bend.point, POINT_DIGITS),
                way=_to(bend.way, WAY_DIGITS),
                high=round(bend.over_mm + least_mm, POINT_DIGITS),
            )
            for row, bend in zip(bend_ids(span.readings), sheet.bends, strict=True)
        ),
    )


POINT_DIGITS, WAY_DIGITS = 3, 6
"""No sheet shows more: micrometres, and as much at the end of a metre."""


def _to(vector: Vector, digits: int) -> Vector:
    x, y, z = vector
    return round(x, digits), round(y, digits), round(z, digits)


SIDES = {"ahead": "ahead of end A", "up": "towards 12 o’clock", "right": "towards 3 o’clock"}


def _clock(text: str) -> float:
    kind, value = parse_plane(text, "clock")
    if kind != "clock":
        raise UnitError(f"“{text[:25]}” is not a clock time; write it as seen from end A, such as 3:00.")
    return value

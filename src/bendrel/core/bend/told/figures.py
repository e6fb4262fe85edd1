"""A bend as it came out, read at the tool."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from math import radians
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen

from bendrel.core.bend.told.laid import Laid
from bendrel.core.findings import EndName
from bendrel.core.measure.legs import setback_mm, usual_reference
from bendrel.core.record import record
from bendrel.core.units.lengths import Millimetres, Text
from bendrel.core.units.notation import (
    PlaneSchool,
    Unit,
    UnitError,
    normalised_turn,
    parse_angle,
    parse_length,
    parse_plane,
)

ReadName = Literal["angle", "plane", "leg", "from_a", "from_b", "rims"]
TapeName = Literal["from_a", "from_b", "rims"]
TAPES: tuple[TapeName, ...] = ("from_a", "from_b", "rims")


@record
class MadeBend:
    """One bend that is made: what it was to be (`start_mm`, `angle_deg`, `clock_deg` along the tube) with
    `held` in the clamp, and what was read afterwards, as typed; blank where nothing was read.

    `plane` is a clock from end A, or degrees from the bend before on the tube (from the one behind while
    that is straight still), `plane_by` what a bare number of it means; `leg` runs from the back of
    the nearest made bend on the held side, or from that end, to the outside of this bend. `from_a` and
    `from_b` are tapes straight across from the middle of the tube's end to the middle of this bend, `rims`
    from end to end, each with the bends bent that are made by then. `beyond_deg` is by how much its clock
    was to lie beyond that of the bend made before it, `dial_deg` what the dial was to show; None where that
    was not kept. `sure` are readings that were read again and stay as they are.
    """

    bend: Annotated[int, Ge(1)]
    held: EndName
    start_mm: Millimetres
    angle_deg: Annotated[float, Ge(0), Le(360)]
    clock_deg: Annotated[float, Ge(-3600), Le(3600)]
    angle: Text = ""
    plane: Text = ""
    plane_by: PlaneSchool = ""
    leg: Text = ""
    from_a: Text = ""
    from_b: Text = ""
    rims: Text = ""
    unit: Unit = "mm"
    beyond_deg: Annotated[float, Ge(-3600), Le(3600)] | None = None
    dial_deg: Annotated[float, Ge(0), Le(400)] | None = None
    sure: Annotated[tuple[ReadName, ...], MaxLen(6)] = ()

    def without(self, names: Collection[ReadName]) -> MadeBend:
        """The same bend with nothing read of these."""
        return replace(
            self,
            angle="" if "angle" in names else self.angle,
            plane="" if "plane" in names else self.plane,
            leg="" if "leg" in names else self.leg,
            from_a="" if "from_a" in names else self.from_a,
            from_b="" if "from_b" in names else self.from_b,
            rims="" if "rims" in names else self.rims,
        )


@record
class Misread:
    """A reading that cannot be read: its place and one sentence."""

    index: int
    name: ReadName
    message: str


@record
class Departure:
    """How far one reading of one bend is from what it was to be; mm or degrees. In it are the errors of
    `hands` settings of the hand and of `reads` readings."""

    bend: int
    name: ReadName
    off: float
    hands: int
    reads: int


FigureKind = Literal["angle", "clock", "rotation", "from_next", "leg", "from_a", "from_b", "rims"]


READ_NAMES: dict[FigureKind, ReadName] = {
    "angle": "angle",
    "clock": "plane",
    "rotation": "plane",
    "from_next": "plane",
    "leg": "leg",
    "from_a": "from_a",
    "from_b": "from_b",
    "rims": "rims",
}
"""What a person calls a figure of each kind."""


@record
class Figure:
    """One reading as a figure: of the bend made at `index`; mm, or degrees near what was told."""

    index: int
    kind: FigureKind
    value: float


@record
class AsBuilt:
    """The part with its made bends as every reading by itself says, the readings as figures, how far they
    are off, what could not be read, and what the leg of each made bend would read where it lies as told."""

    laid: Laid
    figures: tuple[Figure, ...]
    departures: tuple[Departure, ...]
    misread: tuple[Misread, ...]
    legs_mm: tuple[float, ...]


def as_built(
    planned: Laid,
    made: Sequence[MadeBend],
    beyond_mm: Mapping[EndName, float],
    od_mm: float,
    opened: Mapping[int, float] | None = None,
) -> AsBuilt:
    """`planned` with the made bends as they came out.

    A bend that comes out at another angle keeps the end that lay at the tool's zero: its start with end A
    held, its end with end B held. What was not read is as it was told. A reading that cannot be read
    is left out and comes back. `opened` are the bends (from 0) that are left open for now, in degrees:
    their angle is read as it is now, and counts as planned, because it is finished in its place.
    """
    left = opened or {}
    held = {item.bend - 1: item.held for item in made}
    starts, angles = list(planned.starts_mm), list(planned.angles_deg)
    clocks, radii = list(planned.clocks_deg), planned.radii_mm
    for item in made:
        k = item.bend - 1
        starts[k], angles[k], clocks[k] = item.start_mm, item.angle_deg, item.clock_deg
    departures: list[Departure] = []
    planes: set[int] = set()
    legs_read: list[int] = []
    figures: list[Figure] = []
    legs: list[float] = []
    misread: list[Misread] = []
    done: list[int] = []
    for index, item in enumerate(made):
        k = item.bend - 1
        told: dict[Literal["angle", "plane", "leg"], float] = {}
        try:
            if item.angle.strip():
                angle = parse_angle(item.angle)
                told["angle"] = angle - left.get(k, item.angle_deg)
                if k not in left:  # what is finished in its place does not come out as it is now
                    figures.append(Figure(index=index, kind="angle", value=angle))
                angles[k] = item.angle_deg if k in left else angle
        except UnitError as error:
            misread.append(Misread(index=index, name="angle", message=str(error)))
        if item.held == "B":  # the far side of the arc lay at the zero
            starts[k] = item.start_mm + radii[k] * radians(item.angle_deg - angles[k])
        try:
            if item.plane.strip():
                kind, value = _plane(item, k, done)
                off = normalised_turn(value - _seen(kind, k, clocks))
                clocks[k] += -off if kind == "from_next" else off
                told["plane"] = off
                figures.append(Figure(index=index, kind=kind, value=_seen(kind, k, clocks)))
                planes.add(index)
        except UnitError as error:
            misread.append(Misread(index=index, name="plane", message=str(error)))
        now = replace(planned, starts_mm=tuple(starts), angles_deg=tuple(angles))
        there = leg_mm(k, item.held, done, as_open(now, left, held), beyond_mm, od_mm)
        legs.append(there)
        try:
            if item.leg.strip():
                off = parse_length(item.leg, item.unit) - there
                starts[k] += off if item.held == "A" else -off
                told["leg"] = off
                figures.append(Figure(index=index, kind="leg", value=there + off))
                legs_read.append(index)
        except UnitError as error:
            misread.append(Misread(index=index, name="leg", message=str(error)))
        for tape in TAPES:
            text = {"from_a": item.from_a, "from_b": item.from_b, "rims": item.rims}[tape]
            try:
                if text.strip():
                    figures.append(Figure(index=index, kind=tape, value=parse_length(text, item.unit)))
            except UnitError as error:
                misread.append(Misread(index=index, name=tape, message=str(error)))
        # a leg runs on from every leg before it, a plane is turned from the bend made before it
        reads = {"angle": 1, "plane": 1 + (index - 1 in planes), "leg": len(legs_read)}
        departures += [
            Departure(bend=item.bend, name=name, off=off, hands=1, reads=reads[name])
            for name, off in told.items()
        ]
        done.append(k)
    laid = replace(planned, starts_mm=tuple(starts), angles_deg=tuple(angles), clocks_deg=tuple(clocks))
    return AsBuilt(
        laid=laid,
        figures=tuple(figures),
        departures=tuple(departures),
        misread=tuple(misread),
        legs_mm=tuple(legs),
    )


PlaneKind = Literal["clock", "rotation", "from_next"]


def _plane(item: MadeBend, k: int, done: Sequence[int]) -> tuple[PlaneKind, float]:
    """What a plane was read against, and its figure. Degrees count from the bend before on the tube, or,
    while that is straight tube still, from the one behind: read from end B a rotation keeps its sign.
    Raises UnitError."""
    said, turn = parse_plane(item.plane, item.plane_by)
    if said == "clock":
        return "clock", turn
    if k == 0 or k - 1 in done:
        return "rotation", turn
    if k + 1 in done:
        return "from_next", turn
    raise UnitError(
        f"“{item.plane.strip()}” counts from bend {k}, which is not made yet; write where "
        "the bend lies as seen from end A, such as 3:00."
    )


def _seen(kind: PlaneKind, k: int, clocks: Sequence[float]) -> float:
    """What a plane of that kind reads."""
    if kind == "from_next":
        return clocks[k + 1] - clocks[k]
    return clocks[k] - (clocks[k - 1] if kind == "rotation" and k else 0.0)


def as_open(laid: Laid, opened: Mapping[int, float], held: Mapping[int, EndName]) -> Laid:
    """`laid` with the bends of `opened` (degrees, from 0) only as far bent as they are for now; each keeps
    its place on the side of the end that is `held` at it."""
    starts, angles = list(laid.starts_mm), list(laid.angles_deg)
    for k, angle in opened.items():
        if held.get(k) == "B":
            starts[k] += laid.radii_mm[k] * radians(angles[k] - angle)
        angles[k] = angle
    return replace(laid, starts_mm=tuple(starts), angles_deg=tuple(angles))


def leg_mm(
    k: int,
    held: EndName,
    done: Sequence[int],
    laid: Laid,
    beyond_mm: Mapping[EndName, float],
    od_mm: float,
) -> float:
    """What the leg of bend `k` reads: outside to outside from the nearest made bend on the held side, or
    from that end as it is now."""
    starts, angles, radii = laid.starts_mm, laid.angles_deg, laid.radii_mm

    def reach(i: int) -> float:
        return setback_mm(usual_reference(angles[i]), angles[i], radii[i], od_mm)

    def end_of(i: int) -> float:
        return starts[i] + radii[i] * radians(angles[i])

    if held == "A":
        near = [i for i in done if i < k]
        if not near:
            return starts[k] + beyond_mm["A"] + reach(k)
        return starts[k] - end_of(max(near)) + reach(max(near)) + reach(k)
    near = [i for i in done if i > k]
    if not near:
        return laid.length_mm - end_of(k) + beyond_mm["B"] + reach(k)
    return starts[min(near)] - end_of(k) + reach(min(near)) + reach(k)

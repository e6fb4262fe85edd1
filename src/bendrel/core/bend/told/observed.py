"""What every reading of a made bend says of the unknowns, and how far it is to be trusted."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from math import radians
from typing import TYPE_CHECKING, assert_never

from bendrel.core.bend.told.figures import Figure, FigureKind, MadeBend
from bendrel.core.bend.told.laid import Laid
from bendrel.core.bend.told.many import place
from bendrel.core.bend.told.unknowns import Told, Unknowns
from bendrel.core.bend.told.weighed import Reading
from bendrel.core.findings import EndName
from bendrel.core.measure.legs import setback_mm, usual_reference
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]


@record
class Gauge:
    """One standard deviation of a reading: of an angle, of a plane (degrees) and of a tape (mm)."""

    angle_deg: float
    plane_deg: float
    tape_mm: float

    def sd(self, kind: FigureKind) -> float:
        """That of one kind of reading."""
        match kind:
            case "angle":
                return self.angle_deg
            case "clock" | "rotation" | "from_next":
                return self.plane_deg
            case "leg" | "from_a" | "from_b" | "rims":
                return self.tape_mm
            case _:
                assert_never(kind)


def told_bends(made: Sequence[MadeBend]) -> tuple[Told, ...]:
    """The made bends as they were told. Where it was not kept how far a clock was to lie beyond the one
    before, what was told of both says it."""
    found: list[Told] = []
    for item in made:
        before = found[-1].clock_deg if found else item.clock_deg
        beyond = item.clock_deg - before if item.beyond_deg is None else item.beyond_deg
        found.append(
            Told(
                bend=item.bend - 1,
                held=item.held,
                start_mm=item.start_mm,
                angle_deg=item.angle_deg,
                clock_deg=item.clock_deg,
                beyond_deg=beyond,
            )
        )
    return tuple(found)


def observed(
    unknowns: Unknowns,
    figures: Sequence[Figure],
    gauge: Gauge,
    beyond_mm: Mapping[EndName, float],
    od_mm: float,
) -> tuple[Reading, ...]:
    """All figures as readings of the unknowns."""
    return tuple(
        Reading(
            value=figure.value,
            sd=gauge.sd(figure.kind),
            of=reading_of(unknowns, figure.index, figure.kind, beyond_mm, od_mm),
        )
        for figure in figures
    )


def reading_of(
    unknowns: Unknowns, index: int, kind: FigureKind, beyond_mm: Mapping[EndName, float], od_mm: float
) -> Callable[[Array], Array]:
    """What one kind of reading of the bend told at `index` would be, for every column of unknowns; with the
    bends told up to then bent and the others straight."""
    told = unknowns.told
    k = told[index].bend
    match kind:
        case "from_a" | "from_b" | "rims":
            return _tape(unknowns, k, [t.bend for t in told[: index + 1]], kind, beyond_mm)
        case "leg":
            return _leg(unknowns, index, beyond_mm, od_mm)
        case "angle":
            return lambda values: _row(unknowns.parts(values).angles, k)
        case "clock" | "rotation" | "from_next":

            def read(values: Array) -> Array:
                clocks = unknowns.parts(values).clocks
                if kind == "from_next":
                    return _row(clocks, k + 1) - _row(clocks, k)
                return _row(clocks, k) - (_row(clocks, k - 1) if kind == "rotation" and k else 0.0)

            return read
        case _:
            assert_never(kind)


def _row(figures: Array, k: int) -> Array:
    row: Array = figures[k]
    return row


def _tape(
    unknowns: Unknowns, k: int, bent: Sequence[int], kind: FigureKind, beyond_mm: Mapping[EndName, float]
) -> Callable[[Array], Array]:
    import numpy as np

    length = unknowns.planned.length_mm

    end_a = np.array([[-beyond_mm["A"]], [0.0], [0.0]])

    def read(values: Array) -> Array:
        many = unknowns.parts(values)
        end_b = place(many, length + beyond_mm["B"], bent).point
        if kind == "rims":
            across = end_b - end_a
        else:
            middle = place(many, many.starts[k] + many.arcs[k] / 2, bent).point
            across = middle - (end_a if kind == "from_a" else end_b)
        told: Array = np.sqrt((across * across).sum(axis=0))
        return told

    return read


def _leg(
    unknowns: Unknowns, index: int, beyond_mm: Mapping[EndName, float], od_mm: float
) -> Callable[[Array], Array]:
    """As `leg_mm` reads it; how far the outside lies beyond the arc goes by the slope at the angle told."""
    told, laid = unknowns.told, unknowns.planned
    k, held = told[index].bend, told[index].held
    done = [t.bend for t in told[:index]]
    reach = {t.bend: _reach(t, laid, od_mm) for t in told[: index + 1]}

    def read(values: Array) -> Array:
        many = unknowns.parts(values)

        def out(i: int) -> Array:
            at, slope, angle = reach[i]
            return at + slope * (_row(many.angles, i) - angle)

        def end(i: int) -> Array:
            return _row(many.starts, i) + _row(many.arcs, i)

        if held == "A":
            near = [i for i in done if i < k]
            if not near:
                return _row(many.starts, k) + beyond_mm["A"] + out(k)
            return _row(many.starts, k) - end(max(near)) + out(max(near)) + out(k)
        near = [i for i in done if i > k]
        if not near:
            return laid.length_mm - end(k) + beyond_mm["B"] + out(k)
        return _row(many.starts, min(near)) - end(k) + out(min(near)) + out(k)

    return read


def _reach(told: Told, laid: Laid, od_mm: float) -> tuple[float, float, float]:
    angle, arc = told.angle_deg, radians(told.angle_deg) * laid.radii_mm[told.bend]
    by = usual_reference(angle)
    at, more = (setback_mm(by, a, arc / radians(a), od_mm) for a in (angle, angle + 0.01))
    return at, (more - at) / 0.01, angle

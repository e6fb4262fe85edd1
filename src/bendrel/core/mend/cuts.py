"""Where a tube can be cut: on a straight, clear of damage and clips, with room for what joins it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, ShapeError, bend_spans
from bendrel.core.geometry.parts import SLACK_MM
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length


@record
class Room:
    """The straight, in mm, that the side which stays and the new piece must have beside a cut. `end_a` and
    `end_b` are what the old ends take up of their own straights."""

    stays: float
    piece: float
    end_a: float = 0.0
    end_b: float = 0.0


@record
class Stretch:
    """A stretch of the tube in mm from end A."""

    start_mm: float
    stop_mm: float

    @property
    def long_mm(self) -> float:
        """How long it is."""
        return self.stop_mm - self.start_mm

    @property
    def middle_mm(self) -> float:
        """Its middle, in mm from end A."""
        return (self.start_mm + self.stop_mm) / 2


def straights(shape: BendList) -> tuple[Stretch, ...]:
    """Every straight of a tube, from end A on."""
    found, reached = [], 0.0
    for span in bend_spans(shape):
        found.append(Stretch(start_mm=reached, stop_mm=span.start_mm))
        reached = span.end_mm
    return (*found, Stretch(start_mm=reached, stop_mm=shape.developed_mm))


def longest_straight(shape: BendList) -> Stretch:
    """The longest straight of a tube, the one nearest to end A where several are as long."""
    return max(straights(shape), key=lambda one: one.long_mm)


def cut_before(shape: BendList, damage_mm: float, room: Room, clips_mm: Sequence[float] = ()) -> float | None:
    """The place nearest before `damage_mm` (the damage with its margin) where the tube can be cut so that
    the side of end A stays; None where there is none."""
    for stretch in reversed(straights(shape)):
        low = stretch.start_mm + room.stays + (room.end_a if stretch.start_mm == 0 else 0.0)
        # the new piece needs its own straight behind the cut, as far as the next bend
        high = min(damage_mm, stretch.stop_mm - room.piece)
        taken = ((clip - room.piece, clip + room.stays) for clip in clips_mm)
        place = _highest_free(low, high, taken)
        if place is not None:
            return place
    return None


def cut_behind(shape: BendList, damage_mm: float, room: Room, clips_mm: Sequence[float] = ()) -> float | None:
    """As `cut_before`, seen from the other side: the side of end B stays."""
    whole = shape.developed_mm
    for stretch in straights(shape):
        end = room.end_b if stretch.stop_mm == whole else 0.0
        high = stretch.stop_mm - room.stays - end
        low = max(damage_mm, stretch.start_mm + room.piece)
        taken = ((whole - clip - room.piece, whole - clip + room.stays) for clip in clips_mm)
        place = _highest_free(whole - high, whole - low, taken)
        if place is not None:
            return whole - place
    return None


def _highest_free(low: float, high: float, taken: Iterable[tuple[float, float]]) -> float | None:
    """The highest place from `low` to `high` that is in none of the open stretches `taken`."""
    place = high
    for start, stop in sorted(taken, key=lambda pair: -pair[1]):
        if start < place < stop:
            place = start
    return place if place >= low - 1e-9 else None


def lacking(shape: BendList, at_mm: float, stays: EndName, room: Room, unit: Unit = "mm") -> str:
    """What straight a cut lacks when the side of end `stays` stays, in words; blank where there is enough.
    A cut in an arc lacks everything."""
    stretch = next(
        (one for one in straights(shape) if one.start_mm - SLACK_MM <= at_mm <= one.stop_mm + SLACK_MM), None
    )
    if stretch is None:
        return "A tube is cut on a straight."
    before, behind = at_mm - stretch.start_mm, stretch.stop_mm - at_mm
    own, others = (before, behind) if stays == "A" else (behind, before)
    at_end = stretch.start_mm == 0 if stays == "A" else stretch.stop_mm == shape.developed_mm
    taken = (room.end_a if stays == "A" else room.end_b) if at_end else 0.0
    if own - taken < room.stays - SLACK_MM:
        left = max(0.0, own - taken)
        needs = format_length(room.stays, unit)
        return f"Only {format_length(left, unit)} straight stay on the side of {stays}; it needs {needs}."
    if others < room.piece - SLACK_MM:
        has, needs = format_length(others, unit), format_length(room.piece, unit)
        return f"The new piece has {has} straight towards {stays}; it needs {needs}."
    return ""


def stays_beside(shape: BendList, at_mm: float, stays: EndName) -> float | None:
    """The straight in mm that is left beside a cut on the side of the end that stays; None in an arc."""
    for one in straights(shape):
        if one.start_mm - SLACK_MM <= at_mm <= one.stop_mm + SLACK_MM:
            return at_mm - one.start_mm if stays == "A" else one.stop_mm - at_mm
    return None


def why_not(shape: BendList, at_mm: float, clips_mm: Sequence[float], clip_mm: float) -> str:
    """Why a person should not cut there, in words; blank where they can."""
    for number, span in enumerate(bend_spans(shape), start=1):
        if span.start_mm + SLACK_MM < at_mm < span.end_mm - SLACK_MM:
            return f"that is in the arc of bend {number}"
    if any(abs(clip - at_mm) < clip_mm for clip in clips_mm):
        return "a clip sits there"
    return ""


def nearest(
    shape: BendList, at_mm: float, low_mm: float, high_mm: float, clips_mm: Sequence[float], clip_mm: float
) -> tuple[float, str]:
    """The place nearest to `at_mm`, from `low_mm` to `high_mm`, where a person can cut, and why not where
    they wanted to (blank where they can). Raises ShapeError where all of that is arcs and clips."""
    wanted = min(max(at_mm, low_mm), high_mm)
    why = "" if wanted == at_mm else "that is too near to the damage or an end"
    why = why_not(shape, wanted, clips_mm, clip_mm) or why
    edges = [wanted, low_mm, high_mm]
    edges += [edge for span in bend_spans(shape) for edge in (span.start_mm, span.end_mm)]
    edges += [clip + side for clip in clips_mm for side in (-clip_mm, clip_mm)]
    free = [
        edge for edge in edges if low_mm <= edge <= high_mm and not why_not(shape, edge, clips_mm, clip_mm)
    ]
    if not free:
        raise ShapeError("There is no place to cut on that side: all of it is bends, clips and damage.")
    return min(free, key=lambda edge: abs(edge - at_mm)), why

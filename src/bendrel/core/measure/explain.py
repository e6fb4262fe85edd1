"""A misreading in words: which reading, and what kind of slip its change looks like."""

from __future__ import annotations

from math import radians, tan

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.culprits import Suspect
from bendrel.core.measure.further import Further, FurtherKind
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.slots import Slot, value_of
from bendrel.core.measure.spots import TapePlace
from bendrel.core.units.notation import MM_PER_INCH, normalised_turn

FURTHER: dict[FurtherKind, str] = {
    "wire": "the whole wire",
    "tape": "the tape from rim to rim",
    "place B": "where end B stands",
    "sheet": "the old part on its sheet",
    "way A": "the way out of A",
    "way B": "the way of port B",
}


def name_of(read: ReadBends | Corners, what: Slot | Further) -> str:
    """What the person calls this reading."""
    if isinstance(what, Further):
        if what.kind == "across":
            return f"the tape from {spot_name(what.start)} to {spot_name(what.end)}"
        if what.kind == "corner":
            return f"where the corner of {spot_name(what.start)} stands"
        if what.kind == "bend on sheet":
            return f"how {spot_name(what.start)} lies on the sheet"
        return FURTHER[what.kind]
    slot = what
    if isinstance(read, Corners):
        last = len(read.points) - 1
        place = "end A" if slot.row == 0 else "end B" if slot.row == last else f"corner {slot.row}"
        return f"{slot.field} of {place}"
    if slot.field == "last":
        return "last leg, to end B"
    words = {
        "length": "leg to bend",
        "to": "end mark of bend",
        "angle": "angle of bend",
        "plane": "plane of bend",
    }
    return f"{words[slot.field]} {slot.row + 1}"


def spot_name(spot: TapePlace) -> str:
    """What the person calls this place."""
    return f"bend {spot + 1}" if isinstance(spot, int) else f"end {spot}"


def slip_of(read: ReadBends | Corners, suspect: Suspect, near_mm: float, near_deg: float) -> str:
    """The usual slip that would give this change to within `near_mm` or `near_deg`, or nothing.
    Source: common practice."""
    slot, change = suspect.what, suspect.change
    if isinstance(slot, Further):
        return counted_wrong(change, near_mm)
    value = value_of(read, slot)
    if slot.kind == "plane":
        if abs(normalised_turn(2 * value + change)) < near_deg and abs(normalised_turn(value)) > near_deg:
            return "as if the plane was read from the wrong side"
        return "as if the line lay the other way up" if abs(abs(change) - 180) < near_deg else ""
    if slot.kind == "angle":
        return (
            "as if the gauge was read on its other side" if abs(180 - 2 * value - change) < near_deg else ""
        )
    if isinstance(read, ReadBends) and slot.field in ("length", "last"):
        for k in (slot.row - 1, slot.row):
            angle = read.bends[k].angle_deg if 0 <= k < len(read.bends) else None
            if (
                angle
                and angle < 170
                and abs(abs(change) - read.od_mm * tan(radians(angle) / 2)) < near_mm / 2
            ):
                return "as if inside and outside of a bend were taken for each other"
    return counted_wrong(change, near_mm)


def counted_wrong(change: float, near_mm: float) -> str:
    """A length off by one or two inches or centimetres, to within `near_mm`, or nothing. Raises nothing."""
    for step, word in ((MM_PER_INCH, "an inch"), (10.0, "a centimetre")):
        count = round(abs(change) / step)
        if 1 <= count <= 2 and abs(abs(change) - count * step) < near_mm:
            return f"as if {word} was counted wrong"
    return ""


def other_unit(read_mm: float, would_mm: float, near_mm: float) -> str:
    """A length read in one unit and typed as the other, to within 2 % or `near_mm`, or nothing. Raises
    nothing."""
    near = max(near_mm, 0.02 * abs(would_mm))
    if abs(read_mm * MM_PER_INCH - would_mm) < near:
        return "as if inches were typed for millimetres"
    if abs(read_mm / MM_PER_INCH - would_mm) < near:
        return "as if millimetres were typed for inches"
    return ""

"""Rules on getting the line in: openings, and bends that are left open and finished in place."""

from __future__ import annotations

from collections.abc import Iterator
from math import floor

from bendrel.core.bend.tube.part import ids_of, shape_of
from bendrel.core.findings import Change, EndName, Finding, Fix
from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.passing import Passage, passages
from bendrel.core.judge.case import Case
from bendrel.core.line.document import LeftOpen, Opening
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError, parse_angle

HEX_CORNERS = 1.1547


def judge_route(case: Case) -> Iterator[Finding]:
    """Whether the part goes through every opening that was named, and what is left open for it."""
    shape = shape_of(case.part)
    ids = ids_of(case.part)
    opened = {ids.index(item.row) + 1: item for item in case.run.span.left_open if item.row in ids}
    for number, opening in enumerate(case.run.span.openings, start=1):
        try:
            yield from _opening(case, shape, opening, opened)
        except UnitError as error:
            yield case.told(
                "opening",
                case.along(0.0, case.part.developed_mm, opening.id),
                message=str(error),
                number=number,
            )
    yield from _left_open(case, opened)


def _name(opening: Opening) -> str:
    return f"“{opening.what.strip()}”" if opening.what.strip() else "the opening"


def _given(reading: Length) -> float | None:
    return None if is_blank(reading) else length_mm(reading)


def _opening(case: Case, shape: BendList, opening: Opening, opened: dict[int, LeftOpen]) -> Iterator[Finding]:
    across, deep, room = _given(opening.across), _given(opening.deep) or 0.0, _given(opening.room)
    at = length_mm(opening.at, "not_negative")
    yield from _end(case, opening, across)
    for passage in passages(shape, case.part.od_mm, at, opening.enters, across, deep, room):
        left = opened.get(passage.bend)
        if passage.passes or (left is not None and _small_enough(left, passage)):
            continue
        yield _stuck(case, opening, passage, left)


def _small_enough(left: LeftOpen, passage: Passage) -> bool:
    try:
        angle = left.angle.exact_deg or parse_angle(left.angle.text)
    except UnitError:
        return False
    return passage.most_deg is not None and angle <= passage.most_deg + 0.05


def _end(case: Case, opening: Opening, across: float | None) -> Iterator[Finding]:
    end: EndName = opening.enters
    nut = case.nuts[end]
    wide = max(case.part.od_mm, nut.hex_mm * HEX_CORNERS if nut else 0.0)
    if across is None or wide <= across:
        return
    what = f"the nut is {case.say(wide)} over its corners" if nut else f"the tube is {case.say(wide)}"
    yield case.told(
        "end_does_not_pass", case.at_end(end), name=_name(opening), across=case.say(across), what=what
    )


def _stuck(case: Case, opening: Opening, passage: Passage, left: LeftOpen | None) -> Finding:
    reasons = []
    if passage.across_mm is not None and passage.width_mm > passage.across_mm:
        reasons.append(f"needs {case.say(passage.width_mm)} of width and has {case.say(passage.across_mm)}")
    if passage.room_mm is not None and passage.sweep_mm > passage.room_mm:
        reasons.append(
            f"what is through swings out by {case.say(passage.sweep_mm)}; {case.say(passage.room_mm)} is free"
        )
    soft = _closes(case, case.part.bends[passage.bend - 1].radius_mm)
    fix = None
    advice = "Another way in, a joint on one side of it, or another route."
    if soft and passage.most_deg is not None and passage.most_deg >= 1 and left is None:
        angle = floor(passage.most_deg)
        advice = f"Bend it to {angle}° now and finish it in place."
        index = len(case.run.span.left_open)
        row = case.part.bends[passage.bend - 1].id
        entry: dict[str, object] = {
            "row": row,
            "angle": {"text": str(angle), "exact_deg": None},
            "how": "by hand",
        }
        fix = Fix(
            label=f"Leave it at {angle}°",
            changes=(Change(path=case.run.at("left_open", str(index)), value=entry),),
        )
    elif not soft:
        advice = f"{case.material.name} is not finished in place. {advice}"
    return case.told(
        "does_not_pass",
        case.at_bend(passage.bend),
        advice=advice,
        fix=fix,
        name=_name(opening),
        reasons=", and ".join(reasons),
    )


def _closes(case: Case, radius_mm: float) -> bool:
    """The bend can be closed in place: soft tube, or thin tube over a long gentle bend."""
    gentle = case.material.closes_from_radius_per_od
    return case.material.tweaks_in_place or 0 < gentle * case.tube.od_mm <= radius_mm + case.hand_mm


def _left_open(case: Case, opened: dict[int, LeftOpen]) -> Iterator[Finding]:
    for number, left in opened.items():
        where = case.at_bend(number)
        source = case.kit.advice["left_open"].source
        bend = case.part.bends[number - 1]
        try:
            angle = left.angle.exact_deg or parse_angle(left.angle.text)
        except UnitError as error:
            yield case.told("left_open_unread", where, message=str(error), source=source, number=number)
            continue
        if angle >= bend.angle_deg:
            yield case.told(
                "left_open_whole", where, source=source, number=number, angle=angle, angle_deg=bend.angle_deg
            )
        elif not _closes(case, bend.radius_mm) and left.how != "out again, at the tool":
            yield case.told("left_open_stiff", where, source=source, number=number)

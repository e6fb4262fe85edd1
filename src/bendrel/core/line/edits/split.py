"""A tube of the chain split in two, and two joined again. What is said of its bends goes with them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.parts import cut_across, put_together
from bendrel.core.ids import NotAChain
from bendrel.core.line.document import (
    BendReadings,
    Joint,
    Line,
    PartReading,
    RigidSpan,
    TubeEnd,
)
from bendrel.core.line.edits.chain import fresh_id, insert_beside, joined_to, place_of, remove, rigid_at
from bendrel.core.line.rewrite import bend_readings, computed_length
from bendrel.core.line.run import with_span
from bendrel.core.units.lengths import Length, Plane, length_mm
from bendrel.core.units.notation import UnitError, format_angle

BLANK_END = TubeEnd()


def split(
    line: Line,
    span_id: str,
    shape: BendList,
    ids: tuple[str, ...],
    at_mm: float,
    joint: Joint | None = None,
    new_id: str = "",
) -> Line:
    """`line` with a tube of `shape` split `at_mm` from its end A, into itself and a new tube behind it.
    `ids` are the rows of its bends, which they keep; the two new ends are blank, everything else of the
    tube is in both.

    Raises NotAChain for a span that is no tube, ShapeError for a place that is not on a straight.
    """
    span = rigid_at(line, span_id)
    parts = cut_across(shape, at_mm)
    name = new_id or fresh_id(line, "s")
    own, others = ids[: parts.first_bend], ids[parts.first_bend :]
    first = _part(line, span, parts.before, own, span.id, blank="B")
    second = _part(line, span, parts.behind, others, name, blank="A")
    roll = Plane(text=f"{format_angle(parts.roll_deg)}", exact_deg=parts.roll_deg)
    made = insert_beside(with_span(line, first), span.id, "B", second)
    made = joined_to(made, place_of(made, span.id), replace(joint or Joint(), roll=roll))
    return _moved(made, span.id, name, at_mm, frozenset(others))


def join(line: Line, span_id: str, shapes: tuple[BendList, BendList], between_mm: float) -> Line:
    """`line` with a tube and the one behind it made one again; `shapes` are theirs, `between_mm` what lay
    between their ends. Raises NotAChain where there are no two tubes."""
    at = place_of(line, span_id)
    first = rigid_at(line, span_id)
    if at + 1 >= len(line.spans):
        raise NotAChain("There is nothing behind this tube that it could be joined with.")
    second = rigid_at(line, line.spans[at + 1].id)
    roll = line.joints[at].roll.exact_deg or 0.0
    whole = put_together(shapes, (between_mm,), (roll,))
    ids = (*_rows(first), *_rows(second))
    if len(set(ids)) != len(ids):
        taken = set(_rows(first))
        renamed = {name: name if name not in taken else f"{name}x" for name in _rows(second)}
        ids = (*_rows(first), *(renamed[name] for name in _rows(second)))
    one = _part(line, first, whole, ids, first.id, blank=None)
    one = replace(
        one,
        end_b=second.end_b,
        left_open=(*first.left_open, *second.left_open),
        state="to make" if "to make" in (first.state, second.state) else "stays",
    )
    start = shapes[0].developed_mm + between_mm
    kept = tuple(
        replace(item, at=replace(item.at, span=first.id)) if item.at.span == second.id else item
        for item in line.set_aside
        if item.at.span != second.id or item.at.kind == "bend"
    )
    condition = line.condition
    moved = replace(
        condition,
        damage=tuple(_along(item, second.id, first.id, start, line) for item in condition.damage),
        fixtures=tuple(_along(item, second.id, first.id, start, line) for item in condition.fixtures),
    )
    made = remove(with_span(line, one), second.id)
    return replace(made, set_aside=kept, condition=moved)


def _rows(span: RigidSpan) -> tuple[str, ...]:
    ids = tuple(row.id for row in span.readings.rows)
    return ids if isinstance(span.readings, BendReadings) else ids[1:-1]


def _part(
    line: Line, span: RigidSpan, shape: BendList, ids: tuple[str, ...], name: str, *, blank: EndName | None
) -> RigidSpan:
    """`span` with the readings of a part of it, computed and kept exact."""
    readings = bend_readings(shape, line.unit, None)
    readings = replace(
        readings, rows=tuple(replace(row, id=key) for row, key in zip(readings.rows, ids, strict=True))
    )
    if isinstance(span.readings, BendReadings) and span.readings.copied:
        readings = replace(readings, last_by="string", alongside=True)
    return replace(
        span,
        id=name,
        readings=readings,
        end_a=BLANK_END if blank == "A" else span.end_a,
        end_b=BLANK_END if blank == "B" else span.end_b,
        checks=type(span.checks)(),
        bought=tuple[PartReading, ...](),
        order=(),
        openings=(),
        left_open=tuple(item for item in span.left_open if item.row in ids),
    )


def _moved(line: Line, old: str, new: str, at_mm: float, rows: frozenset[str]) -> Line:
    """What was said of bends and places that are in the new tube now names it."""
    aside = []
    for item in line.set_aside:
        spot = item.at
        if spot.span == old and spot.row in rows:
            spot = replace(spot, span=new)
        elif spot.span == old and spot.end == "B":
            continue  # another end stands there now
        aside.append(replace(item, at=spot))
    condition = line.condition

    def lies_behind(reading: Length) -> bool:
        try:
            return length_mm(reading, "not_negative") >= at_mm
        except UnitError:
            return False

    def along(items: tuple[Any, ...]) -> tuple[Any, ...]:
        return tuple(
            _along(item, item.span, new, -at_mm, line)
            if item.span in ("", old) and lies_behind(item.at)
            else replace(item, span=old if item.span == "" else item.span)
            for item in items
        )

    return replace(
        line,
        set_aside=tuple(aside),
        condition=replace(condition, damage=along(condition.damage), fixtures=along(condition.fixtures)),
    )


def _along(item: Any, old: str, new: str, by_mm: float, line: Line) -> Any:
    """A damage or fixture told along another tube."""
    if item.span != old:
        return item
    shifted = {"at": _shifted(item.at, by_mm, line)}
    if hasattr(item, "to"):
        shifted["to"] = _shifted(item.to, by_mm, line)
    return replace(item, span=new, **shifted)


def _shifted(reading: Length, by_mm: float, line: Line) -> Length:
    try:
        mm = length_mm(reading, "not_negative")
    except UnitError:
        return reading
    return computed_length(max(0.0, mm + by_mm), line.unit)

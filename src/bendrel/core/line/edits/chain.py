"""Edits of the chain: spans are put in, taken out, moved and turned round; ids travel with what they name."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace
from typing import assert_never

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.ids import NotAChain
from bendrel.core.line.document import (
    MOST_SPANS,
    ComponentSpan,
    HoseSpan,
    Joint,
    Line,
    RigidSpan,
    Span,
)
from bendrel.core.line.edits.turned import (
    damage_turned,
    fixture_turned,
    reversed_hose,
    reversed_rigid,
    spot_turned,
)
from bendrel.core.line.run import main_run


def fresh_id(line: Line, letter: str, taken: Collection[str] = ()) -> str:
    """An id that no span of `line` has, nor anything that it still speaks of."""
    used = {span.id for span in line.spans} | {item.at.span for item in line.set_aside} | set(taken)
    used |= {item.span for item in line.condition.damage} | {item.span for item in line.condition.fixtures}
    number = 1
    while f"{letter}{number}" in used:
        number += 1
    return f"{letter}{number}"


def place_of(line: Line, span_id: str) -> int:
    """Where a span stands, from port A. Raises NotAChain for one that is not there."""
    for k, span in enumerate(line.spans):
        if span.id == span_id:
            return k
    raise NotAChain(f"The line has no span “{span_id[:20]}” any more.")


def insert(line: Line, at: int, span: Span, before: Joint | None = None, behind: Joint | None = None) -> Line:
    """`line` with `span` put in so that it stands at place `at`. `before` and `behind` are its joints; the
    joint that was there is gone. Raises NotAChain for an id that is there already, and for too many
    spans."""
    if any(one.id == span.id for one in line.spans):
        raise NotAChain(f"The id “{span.id[:20]}” is there twice among the spans; each has its own.")
    if len(line.spans) >= MOST_SPANS:
        raise NotAChain(f"A line has at most {MOST_SPANS} spans; this one would have more.")
    at = max(0, min(at, len(line.spans)))
    spans = (*line.spans[:at], span, *line.spans[at:])
    left = line.joints[: max(0, at - 1)]
    right = line.joints[at:]
    new = (*([before or Joint()] if at > 0 else []), *([behind or Joint()] if at < len(line.spans) else []))
    return replace(line, spans=spans, joints=(*left, *new, *right))


def insert_beside(line: Line, span_id: str, end: EndName, span: Span) -> Line:
    """`line` with `span` put in next to another one, on the side of end A or end B. Raises NotAChain."""
    return insert(line, place_of(line, span_id) + (0 if end == "A" else 1), span)


def remove(line: Line, span_id: str) -> Line:
    """`line` without a span, and without what was said of it. Raises NotAChain for the last one."""
    at = place_of(line, span_id)
    if len(line.spans) == 1:
        raise NotAChain("The last span stays: a line has at least one tube, hose or component.")
    last = len(line.spans) - 1
    joints = line.joints[: max(0, at - 1)]
    if 0 < at < last:
        joints = (*joints, Joint())
    joints = (*joints, *line.joints[at + 1 :])
    return replace(
        line,
        spans=(*line.spans[:at], *line.spans[at + 1 :]),
        joints=joints,
        set_aside=tuple(item for item in line.set_aside if item.at.span != span_id),
        condition=replace(
            line.condition,
            damage=tuple(item for item in line.condition.damage if item.span != span_id),
            fixtures=tuple(item for item in line.condition.fixtures if item.span != span_id),
        ),
    )


def move(line: Line, span_id: str, to: int) -> Line:
    """`line` with a span at place `to` (0 is next to port A); joints that it leaves are closed blank. What
    was said of it goes with it. Raises NotAChain."""
    at = place_of(line, span_id)
    to = max(0, min(to, len(line.spans) - 1))
    if at == to:
        return line
    span = line.spans[at]
    without = remove(line, span_id)
    moved = insert(without, to, span)
    return replace(moved, set_aside=line.set_aside, condition=line.condition)


def swapped(line: Line, span_id: str, span: Span) -> Line:
    """`line` with another span in the place of one, and without what was said of that; the joints on either
    side stay. Raises NotAChain."""
    at = place_of(line, span_id)
    if len(line.spans) == 1:
        made = insert(line, 1, span)
        return remove(made, span_id)
    joints = line.joints
    made = insert(remove(line, span_id), at, span)
    return replace(made, joints=joints)


def turned_round(line: Line, span_id: str, shape: BendList | None = None) -> Line:
    """`line` with one span the other way round. What is read of a tube of `shape` is told from its other end,
    so that it is the same tube; what was noted or set aside of the span goes along, and what names no tube
    is told of the main one. Raises NotAChain where something cannot be told from the other end as it is
    typed."""
    at = place_of(line, span_id)
    span = line.spans[at]
    made: Span
    match span:
        case HoseSpan():
            made = reversed_hose(span)
        case ComponentSpan():
            other = {"A": "B", "B": "A"}
            made = replace(
                span,
                points=other.get(span.points, span.points),  # type: ignore[arg-type]
                source_port=other.get(span.source_port, span.source_port),  # type: ignore[arg-type]
                turned=not span.turned if span.row else span.turned,
                side_a=span.side_b,
                side_b=span.side_a,
                on_a=span.on_b,
                on_b=span.on_a,
            )
        case RigidSpan():
            made = reversed_rigid(span, shape, line.unit)
        case _:
            assert_never(span)
    main = main_run(line)
    own = {span_id, "" if main is not None and main.span.id == span_id else span_id}
    condition = line.condition
    return replace(
        line,
        spans=(*line.spans[:at], made, *line.spans[at + 1 :]),
        set_aside=tuple(
            replace(item, at=spot_turned(item.at, line)) if item.at.span == span_id else item
            for item in line.set_aside
        ),
        condition=replace(
            condition,
            damage=tuple(
                damage_turned(one, shape, line.unit) if one.span in own else one for one in condition.damage
            ),
            fixtures=tuple(
                fixture_turned(one, shape, line.unit) if one.span in own else one
                for one in condition.fixtures
            ),
        ),
    )


def joined_to(line: Line, at: int, joint: Joint) -> Line:
    """`line` with the joint behind the span at place `at` as it is now. Raises NotAChain."""
    if not 0 <= at < len(line.joints):
        raise NotAChain(f"There is no joint {at + 1}; the line has {len(line.joints)}.")
    return replace(line, joints=(*line.joints[:at], joint, *line.joints[at + 1 :]))


def rigid_at(line: Line, span_id: str) -> RigidSpan:
    """A span that is a tube. Raises NotAChain."""
    span = line.spans[place_of(line, span_id)]
    if not isinstance(span, RigidSpan):
        raise NotAChain("Only a tube can be split or joined; this is a " + span.kind + ".")
    return span

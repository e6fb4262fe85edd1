"""A line made after another: a copy of it, or its mirror image, without what was done or found on that."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import assert_never

from bendrel.core.findings import EndName
from bendrel.core.line.checks import Checks
from bendrel.core.line.condition import Condition
from bendrel.core.line.document import (
    ComponentSpan,
    HoseSpan,
    Joint,
    Line,
    Port,
    RigidSpan,
    Span,
)
from bendrel.core.line.edits.chain import fresh_id, insert, place_of
from bendrel.core.line.edits.mirror import mirrored, mirrored_plane
from bendrel.core.line.proving import Proving
from bendrel.core.line.removal import Removal
from bendrel.core.units.lengths import Plane


def twin_of(source: Line, name: str, *, mirror: bool) -> Line:
    """A line called `name` with the pieces, joints, ports and clips of `source`, or their mirror image.

    What was read, chosen and cut comes along, old tube that stays too; the log, the proof, what was found and
    set aside and which nut was proved do not. The way of a hose was measured on its own side: it does not
    come into a mirror image.
    """
    return replace(
        source,
        name=name,
        port_a=_port(source.port_a),
        port_b=_port(source.port_b),
        spans=tuple(fresh_copy(span, mirror=mirror) for span in source.spans),
        joints=tuple(_joint(joint, mirror=mirror) for joint in source.joints),
        condition=Condition(
            school=source.condition.school,
            fixtures=tuple(
                replace(item, state="to fit", photo="", shared="") for item in source.condition.fixtures
            ),
        ),
        removal=Removal(),
        open_items=(),
        finished=False,
        proving=Proving(),
        notes="",
        set_aside=(),
    )


def _port(port: Port) -> Port:
    return replace(port, proved=False, opened="", role_how="", tag="", on=None)


def copied_in(line: Line, span_id: str, end: EndName, spans: Sequence[Span], joints: Sequence[Joint]) -> Line:
    """`line` with copies of `spans`, joined to each other as by `joints`, next to one of its own at its end A
    or end B; they have ids of their own. Raises NotAChain for too many spans."""
    at = place_of(line, span_id) + (0 if end == "A" else 1)
    for k, span in enumerate(spans):
        letter = {"rigid": "s", "hose": "h", "component": "c"}[span.kind]
        before = _joint(joints[k - 1], mirror=False) if 0 < k <= len(joints) else None
        line = insert(line, at + k, replace(fresh_copy(span), id=fresh_id(line, letter)), before=before)
    return line


def _joint(joint: Joint, *, mirror: bool) -> Joint:
    roll = mirrored_plane(joint.roll) if mirror else joint.roll
    return replace(joint, done="", opened="", roll=roll)


def fresh_copy(span: Span, *, mirror: bool = False) -> Span:
    """A piece as it is made once more: what was checked, bought or done of that one is not of this one."""
    if isinstance(span, RigidSpan):
        readings = mirrored(span.readings) if mirror else span.readings
        return replace(span, readings=readings, checks=Checks(), bought=())
    if isinstance(span, HoseSpan):
        made = replace(span, done=(), pattern=None, bought=None)
        if not mirror:
            return made
        shape = span.shape
        if shape is not None:
            shape = replace(
                shape, rows=tuple(replace(row, plane=mirrored_plane(row.plane)) for row in shape.rows)
            )
        clock = mirrored_plane(Plane(text=span.clock)).text if span.clock.strip() else ""
        return replace(made, shape=shape, way=None, clock=clock)
    if isinstance(span, ComponentSpan):
        return span
    assert_never(span)

"""The part as the tool carries it out on the shop's bench, and what is in its way in words."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.bend.tool.body import surroundings
from bendrel.core.bend.tool.order import Bendable, Blocked
from bendrel.core.bend.tube.opened import open_bends
from bendrel.core.bend.tube.part import Part, ids_of, shape_of
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.run import Run
from bendrel.core.parts.kit import Kit
from bendrel.core.units.notation import Unit, format_length


def bendable(
    run: Run,
    kit: Kit,
    part: Part,
    shape: BendList,
    beyond_mm: Mapping[EndName, float] | None = None,
    *,
    turned: bool | None = None,
    before: int = 0,
) -> Bendable:
    """The part at its tool on the shop's bench; `turned` where it is not as the document says. A
    `shape` that is only a piece of the part has so many bends `before` it."""
    span = run.span
    round_ = span.turned if turned is None else turned
    bender = kit.benders[span.bender]
    kind = kit.tool_kinds[bender.kind]
    extra = dict(part.beyond_mm if beyond_mm is None else beyond_mm)
    clear = kit.limits["swing_clear_mm"].value
    around = lambda radius: surroundings(bender, kind, kit.bench, radius, turned=round_)  # noqa: E731
    opened = _open_at_tool(span, part, before, len(shape.bends))
    return Bendable(shape, bender, around, extra, clear, part.od_mm, opened)


def _open_at_tool(span: RigidSpan, part: Part, before: int, count: int) -> dict[int, float]:
    """The bends of a piece (from 0) that never are more than so far bent at the tool; one that comes back
    to it is swung whole."""
    ids = ids_of(part)
    back = {
        ids.index(item.row) + 1
        for item in span.left_open
        if item.row in ids and item.how == "out again, at the tool"
    }
    return {
        number - 1 - before: angle
        for number, angle in open_bends(span, ids_of(part), shape_of(part)).items()
        if number not in back and 0 < number - before <= count
    }


def told(item: Blocked, unit: Unit) -> str:
    """One blocked bend in words."""
    contact, name = item.contact, f"bend {item.bend + 1} with end {item.held} held"
    along = format_length(round(contact.along_mm), unit, 8)
    if contact.thing.startswith("no straight"):
        return f"{name}: {contact.thing}, only {along}"
    thing = contact.thing if contact.thing == "the tube itself" else f"the {contact.thing}"
    if contact.side == "clamped" and contact.at_deg > 0:
        return (
            f"{name}: at {contact.at_deg:.0f}° {thing} comes against the clamped side, {along} from the tool"
        )
    if contact.side == "clamped":
        return f"{name}: the clamped side lies against {thing}, {along} from the tool"
    return f"{name}: at {contact.at_deg:.0f}° the tube hits {thing}, {along} from the tool"

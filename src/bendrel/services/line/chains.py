"""Edits of the chain as the screen asks for them: the core does them, nothing is stored."""

from __future__ import annotations

from typing import Annotated, Literal, assert_never

from annotated_types import MaxLen, MinLen

from bendrel.core.findings import EndName, Reduce
from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.ids import NotAChain
from bendrel.core.joints.put_in import put_for, put_in, rejoined
from bendrel.core.joints.reduced import reduced
from bendrel.core.line.document import COMPONENT_KINDS, MOST_SPANS, Joint, Line, RigidSpan, Span
from bendrel.core.line.edits.chain import (
    move,
    place_of,
    remove,
    rigid_at,
    turned_round,
)
from bendrel.core.line.edits.split import join, split
from bendrel.core.line.edits.twin import copied_in
from bendrel.core.line.resolve import Resolved, resolve
from bendrel.core.line.run import main_run
from bendrel.core.mend.cuts import longest_straight
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.retube import ended, retubed
from bendrel.core.plan.starting import starting_line
from bendrel.core.record import record
from bendrel.core.units.lengths import is_blank, length_mm
from bendrel.core.units.notation import parse_length
from bendrel.services.errors import Refused
from bendrel.services.line.lines import shape_or_refused

Kind = Literal[
    "insert", "remove", "move", "turn", "split", "join", "swap", "reduce", "union", "tube", "end", "copy"
]


@record
class Copied:
    """Pieces of a chain that were copied, with the joints between them."""

    spans: Annotated[tuple[Span, ...], MinLen(1), MaxLen(MOST_SPANS)]
    joints: Annotated[tuple[Joint, ...], MaxLen(MOST_SPANS)] = ()


@record
class ChainEdit:
    """One edit of the chain. `span` is what it is about; `side` is where something is put in beside it, or
    where it is moved to by one place; `at` is where it is split, from its end A as typed. `put` is the kind
    (tube, hose or a component's) that is put in, or that a swap puts in its place, as its neighbours take it.
    `union` is another joint behind it, `material` and `size` (blank: as now) another tube in its place,
    `fitting` another end at `side`, `reduce` a reducer as a finding offers it, `copied` what is put in as it
    was copied."""

    kind: Kind
    span: Annotated[str, MaxLen(20)]
    side: EndName = "B"
    put: Annotated[str, MaxLen(20)] = ""
    union: Annotated[str, MaxLen(40)] = ""
    material: Annotated[str, MaxLen(60)] = ""
    size: Annotated[str, MaxLen(40)] = ""
    fitting: Annotated[str, MaxLen(40)] = ""
    at: Annotated[str, MaxLen(40)] = ""
    reduce: Reduce | None = None
    copied: Copied | None = None


@record
class Edited:
    """The line after an edit, and the span that is to be looked at next."""

    document: Line
    span: str


def edit_chain(line: Line, edit: ChainEdit, kit: Kit) -> Edited:
    """`line` after one edit. Raises Refused, NotAChain and UnitError."""
    try:
        return _edited(line, edit, kit)
    except ShapeError as error:
        raise Refused(error.said(line.unit)) from error


def _edited(line: Line, edit: ChainEdit, kit: Kit) -> Edited:
    at, kept = place_of(line, edit.span), edit.span
    match edit.kind:
        case "insert" | "swap":
            return _put(line, edit, kit)
        case "copy":
            if edit.copied is None:
                raise Refused("Nothing was copied yet: choose a piece and copy it first.")
            after = copied_in(line, edit.span, edit.side, edit.copied.spans, edit.copied.joints)
            there = {span.id for span in line.spans}
            kept = next(span.id for span in after.spans if span.id not in there)
        case "tube":
            after = retubed(line, kit, edit.span, edit.material, edit.size)
        case "end":
            after = ended(line, kit, edit.span, edit.side, edit.fitting)
        case "union":
            after = rejoined(line, kit, edit.span, edit.union)
        case "reduce":
            after, kept = _reduced(line, edit, kit)
        case "remove":
            after = remove(line, edit.span)
            kept = after.spans[min(at, len(after.spans) - 1)].id
        case "move":
            after = move(line, edit.span, at + (-1 if edit.side == "A" else 1))
        case "turn":
            turned = line.span(edit.span)
            shape = _shape_if_read(turned, kit) if isinstance(turned, RigidSpan) else None
            after = turned_round(line, edit.span, shape)
        case "split":
            tube = rigid_at(line, edit.span)
            read = _read(tube, kit)
            shape = shape_or_refused(read)
            mm = parse_length(edit.at, line.unit) if edit.at.strip() else longest_straight(shape).middle_mm
            after = split(line, tube.id, shape, read.ids, mm)
        case "join":
            after = _joined(line, edit, kit, at)
        case _:
            assert_never(edit.kind)
    return Edited(document=after, span=kept)


def _put(line: Line, edit: ChainEdit, kit: Kit) -> Edited:
    """Something new beside a piece, or in its place."""
    if edit.put not in ("tube", "hose", *COMPONENT_KINDS):
        what = f"There is no part “{edit.put}”" if edit.put else "Nothing is put in"
        raise Refused(f"{what}; choose a tube, a hose or a component that is listed.")
    usual = main_run(starting_line(kit, line.name, line.service, line.unit))
    like = usual.span if usual is not None else None
    if edit.kind == "insert":
        made, name = put_in(line, kit, edit.span, edit.side, edit.put, like)
    else:
        made, name = put_for(line, kit, edit.span, edit.put, like)
    return Edited(document=made, span=name)


def _reduced(line: Line, edit: ChainEdit, kit: Kit) -> tuple[Line, str]:
    """The line with a reducer, and which piece that is."""
    if edit.reduce is None:
        raise Refused("Say between which two diameters the reducer is.")
    made = reduced(line, kit, edit.span, edit.reduce.a_mm, edit.reduce.b_mm)
    before = {span.id for span in line.spans}
    return made, next(span.id for span in made.spans if span.id not in before)


def _joined(line: Line, edit: ChainEdit, kit: Kit, at: int) -> Line:
    """The line with a tube and the one behind it as one."""
    tube = rigid_at(line, edit.span)
    if at + 1 >= len(line.spans):
        raise NotAChain("There is nothing behind this tube that it could be joined with.")
    other = rigid_at(line, line.spans[at + 1].id)
    apart = line.joints[at].apart
    between = 0.0 if is_blank(apart) else length_mm(apart, "not_negative")
    shapes = (shape_or_refused(_read(tube, kit)), shape_or_refused(_read(other, kit)))
    return join(line, tube.id, shapes, between)


def _shape_if_read(span: RigidSpan, kit: Kit) -> BendList | None:
    tube, bender = kit.tubes.get(span.tube), kit.tool(span.bender, span.tube)
    if tube is None or bender is None:
        return None
    return resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius).shape


def _read(span: RigidSpan, kit: Kit) -> Resolved:
    tube, bender = kit.tubes.get(span.tube), kit.tool(span.bender, span.tube)
    if tube is None or bender is None:
        raise Refused("Choose a tube and a bender first.")
    return resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius)

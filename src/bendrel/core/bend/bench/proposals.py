"""What is proposed where the order in use fails: another order, another tool, or a joint."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise

from bendrel.core.bend.bench.bendable import bendable
from bendrel.core.bend.tool.moves import Setting, parse_order, written_order
from bendrel.core.bend.tool.order import Bendable, OrderFound, find_order
from bendrel.core.bend.tube.part import Part, ids_of, shape_of
from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.findings import Change, EndName, Fix
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.run import Run, with_span
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import format_length

JOINT = "flared-union"


@record
class Proposal:
    """An order that can be made, as the line document holds it, and why it is proposed."""

    order: str
    held: EndName
    trim_first: bool
    turned: bool
    text: str


@record
class JointProposal:
    """Where the part would have to be joined so that both pieces can be made: in the middle of straight
    `straight` (1 is at end A), `at_mm` from end A. `allowed` says what this service thinks of it."""

    straight: int
    at_mm: float
    allowed: bool
    text: str


@record
class OtherTool:
    """Another bender of the shop that can make the part in one piece."""

    bender: str
    text: str


def propose(
    run: Run, kit: Kit, part: Part, shape: BendList, tried: Bendable
) -> tuple[Proposal | None, OrderFound]:
    """Another order as the piece is; else one with the tail cut off first, or with a tool on the bench
    turned round, or both."""
    span = run.span
    most = int(kit.limits["most_swings"].value)
    found = find_order(tried, span.held, most)
    if found.order is not None:
        return _proposal(span, found.order, trim=False, turned=span.turned), found
    shorter = _trimmed(run, part)
    ways = _other_ways(span, kit, shorter is not None)
    for trim, turned in ways:
        beyond = shorter if trim else None
        bent = bendable(run, kit, part, shape, beyond, turned=turned)
        again = find_order(bent, span.held, most // len(ways))
        if again.order is not None:
            return _proposal(span, again.order, trim=trim, turned=turned), again
    return None, found


def _other_ways(span: RigidSpan, kit: Kit, can_trim: bool) -> list[tuple[bool, bool]]:
    """The tail cut first or not, the tool turned or not: all that the order in use is not, the least
    trouble first. A tool in the hands has no side from which it is fed."""
    ways = [(True, span.turned)] if can_trim else []
    if kit.tool_kinds[kit.benders[span.bender].kind].mount != "in the hands":
        ways.append((False, not span.turned))
        ways += [(True, not span.turned)] if can_trim else []
    return ways


def _proposal(span: RigidSpan, order: Sequence[Setting], *, trim: bool, turned: bool) -> Proposal:
    changes = sum(a.held != b.held for a, b in pairwise(order))
    started = order[0].held
    words = []
    if turned != span.turned:
        words.append("turn the tool round and feed from its other side")
    if trim:
        words.append("cut the tail off first")
    if started != span.held:
        words.append(f"start from end {started}")
    if changes:
        words.append(f"change the tube over {'once' if changes == 1 else f'{changes} times'}")
    numbers = ", ".join(str(setting.bend + 1) for setting in order)
    text = f"{' and '.join(words) or 'another order'}: {numbers}"
    return Proposal(
        order=written_order(order),
        held=started,
        trim_first=trim,
        turned=turned,
        text=text[0].upper() + text[1:],
    )


def _trimmed(run: Run, part: Part) -> dict[EndName, float] | None:
    """What is beyond the rims once the spare and the rest of the stock are cut off."""
    span = run.span
    far: EndName = "B" if span.held == "A" else "A"
    end = part.end_b if far == "B" else part.end_a
    after = end.allowance_mm + end.leave_long_mm if end.order != "before" else 0.0
    if span.trim_first or part.beyond_mm[far] <= after + 1e-6:
        return None
    return {**part.beyond_mm, far: after}


def another_tool(run: Run, kit: Kit, part: Part) -> OtherTool | None:
    """The first other bender for this tube whose own shape of the part it can make, one bend after the
    other or in another order."""
    span = run.span
    plastic = kit.materials[kit.tubes[span.tube].material].family == "plastic"
    for bender in kit.benders_for(kit.tubes[span.tube].size, plastic=plastic):
        most = max((bend.angle_deg for bend in part.bends), default=0.0)
        if bender.id == span.bender or bender.radius_mm is None or bender.greatest_angle_deg < most:
            continue
        if kit.tool_kinds[bender.kind].by_feel:
            continue
        other = replace(span, bender=bender.id, order=())
        again = Run(line=with_span(run.line, other), span=other, index=run.index)
        plan = plan_rigid(again, kit)
        if plan.part is None or min(shape_of(plan.part).straights_mm) < 0:
            continue
        tried = bendable(again, kit, plan.part, shape_of(plan.part))
        if find_order(tried, span.held, int(kit.limits["most_swings"].value) // 4).order is not None:
            radius = format_length(bender.radius_mm, run.line.unit)
            text = f"The {bender.name} can make it in one piece, with radius {radius}."
            return OtherTool(bender=bender.id, text=text)
    return None


def joint_for(run: Run, kit: Kit, part: Part, shape: BendList) -> JointProposal | None:
    """The longest straight on which a joint leaves two pieces that can be made."""
    straights = shape.straights_mm
    room = kit.limits["joint_straight_mm"].value
    most = int(kit.limits["most_swings"].value) // 4
    places = sorted(range(1, len(straights) - 1), key=lambda k: -straights[k])
    for k in places:
        if straights[k] < room:
            break
        half = straights[k] / 2
        first = BendList(bends=shape.bends[:k], last_straight_mm=half)
        rest = (replace(shape.bends[k], straight_mm=half, rotation_deg=0.0), *shape.bends[k + 1 :])
        second = BendList(bends=rest, last_straight_mm=shape.last_straight_mm)
        pieces = (
            bendable(run, kit, part, first, {"A": part.beyond_mm["A"], "B": 0.0}),
            bendable(run, kit, part, second, {"A": 0.0, "B": part.beyond_mm["B"]}, before=k),
        )
        if all(find_order(piece, "A", most).order is not None for piece in pieces):
            verdict = kit.verdict("joint", JOINT, run.line.service)
            allowed = verdict is None or verdict.verdict != "refused"
            name = kit.joints[JOINT].name
            place = f"between bend {k} and bend {k + 1}"
            text = f"With a {name} {place} both pieces can be made."
            if verdict is not None and verdict.verdict in ("refused", "caution"):
                text += f" {verdict.reason}"
            return JointProposal(
                straight=k + 1, at_mm=part.bends[k - 1].end_mm + half, allowed=allowed, text=text
            )
    return None


def other_fix(run: Run, other: OtherTool) -> Fix:
    """The changes that take another tool."""
    changes = (
        Change(path=run.at("bender"), value=other.bender),
        Change(path=run.at("order"), value=[]),
    )
    return Fix(label="Use that tool", changes=changes)


def turns_of(part: Part, order: str) -> list[object]:
    """An order as the document keeps it: by the rows of the bends."""
    ids = ids_of(part)
    return [{"row": ids[one.bend], "held": one.held} for one in parse_order(order, len(ids))]


def order_fix(run: Run, part: Part, proposal: Proposal) -> Fix:
    """The changes that take an order over."""
    changes = [
        Change(path=run.at("order"), value=turns_of(part, proposal.order)),
        Change(path=run.at("held"), value=proposal.held),
    ]
    if proposal.trim_first and not run.span.trim_first:
        changes.append(Change(path=run.at("trim_first"), value=True))
    if proposal.turned != run.span.turned:
        changes.append(Change(path=run.at("turned"), value=proposal.turned))
    return Fix(label="Take this order", changes=tuple(changes))

"""The part at the tool: can the bends be made in this order, in which other one, and if not, what then?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace

from bendrel.core.bending.body import surroundings
from bendrel.core.bending.moves import written_order
from bendrel.core.bending.order import Bendable, Blocked, OrderFound, find_order, follow
from bendrel.core.findings import Change, EndName, Finding, Fix, Where
from bendrel.core.line.document import Line
from bendrel.core.plan.assemble import plan_line
from bendrel.core.plan.case import SPAN
from bendrel.core.plan.kit import Kit
from bendrel.core.plan.model import Part, shape_of
from bendrel.core.plan.moves import order_of
from bendrel.core.record import record
from bendrel.core.shape.bends import BendList

JOINT = "flared-union"


@record
class Proposal:
    """An order that can be made, as the line document holds it, and why it is proposed."""

    order: str
    held: EndName
    trim_first: bool
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


@record
class AtBench:
    """What the tool makes of the order in use. `blocked` is None where every bend can be made, else the
    number of the first move (1 is the first) that cannot. `witness` says of each bend that is left in
    the furthest state that was reached what is in its way."""

    tool: str
    words: str
    mount: str
    order: str
    blocked: int | None
    reason: str
    proposal: Proposal | None
    witness: tuple[str, ...]
    whole: bool
    other_tool: OtherTool | None
    joint: JointProposal | None
    findings: tuple[Finding, ...]


def at_bench(line: Line, kit: Kit, part: Part) -> AtBench:
    """Carry the order in use out at the tool, and look for a better one where it fails."""
    span = line.spans[0]
    bender, kind = kit.benders[span.bender], kit.tool_kinds[kit.benders[span.bender].kind]
    shape = shape_of(part)
    tried = bendable(line, kit, part, shape)
    order = order_of(line.spans[0], len(shape.bends))[0]
    stuck = follow(tried, order)
    proposal, found = None, None
    other, joint = None, None
    if stuck is not None:
        proposal, found = _propose(line, kit, part, shape, tried)
        if proposal is None:
            other = _another(line, kit, part)
            joint = _join(line, kit, part, shape)
    reason = "" if stuck is None else told(stuck)
    return AtBench(
        tool=bender.name,
        words=kind.words,
        mount=kind.mount,
        order=written_order(order),
        blocked=None if stuck is None else 1 + [s.bend for s in order].index(stuck.bend),
        reason=reason,
        proposal=proposal,
        witness=tuple(told(item) for item in found.blocked) if found and not proposal else (),
        whole=found.whole if found else True,
        other_tool=other,
        joint=joint,
        findings=tuple(_findings(line, kit, part, stuck, proposal, found, other, joint)),
    )


def order_findings(line: Line, kit: Kit, part: Part) -> tuple[Finding, ...]:
    """Only whether the order in use can be made, without looking for another: for the board, the sheet
    and the command line."""
    tried = bendable(line, kit, part, shape_of(part))
    stuck = follow(tried, order_of(line.spans[0], len(part.bends))[0])
    if stuck is None:
        return ()
    finding = replace(_blocked(line, kit, part, stuck), advice="Plan proposes another order, tool or joint.")
    reasons = {(taken.code, taken.where): taken.reason for taken in line.set_aside}
    return (replace(finding, set_aside=reasons.get((finding.code, str(finding.where)), "")),)


def bendable(
    line: Line, kit: Kit, part: Part, shape: BendList, beyond_mm: Mapping[EndName, float] | None = None
) -> Bendable:
    """The part at the line's tool on the shop's bench."""
    bender = kit.benders[line.spans[0].bender]
    kind = kit.tool_kinds[bender.kind]
    extra = dict(part.beyond_mm if beyond_mm is None else beyond_mm)
    clear = kit.limits["swing_clear_mm"].value
    around = lambda radius: surroundings(bender, kind, kit.bench, radius)  # noqa: E731
    return Bendable(shape, bender, around, extra, clear, part.od_mm)


def told(item: Blocked) -> str:
    """One blocked bend in words."""
    contact, name = item.contact, f"bend {item.bend + 1} with end {item.held} held"
    if contact.thing.startswith("no straight"):
        return f"{name}: {contact.thing}, only {contact.along_mm:.0f} mm"
    thing = contact.thing if contact.thing == "the tube itself" else f"the {contact.thing}"
    if contact.side == "clamped" and contact.at_deg > 0:
        where = f"the clamped side, {contact.along_mm:.0f} mm from the tool"
        return f"{name}: at {contact.at_deg:.0f}° {thing} comes against {where}"
    if contact.side == "clamped":
        return f"{name}: the clamped side lies against {thing}, {contact.along_mm:.0f} mm from the tool"
    return f"{name}: at {contact.at_deg:.0f}° the tube hits {thing}, {contact.along_mm:.0f} mm from the tool"


def _propose(
    line: Line, kit: Kit, part: Part, shape: BendList, tried: Bendable
) -> tuple[Proposal | None, OrderFound]:
    """Another order as the piece is; else one with the tail cut off first."""
    span = line.spans[0]
    most = int(kit.limits["most_swings"].value)
    found = find_order(tried, span.held, most)
    trim = False
    if found.order is None:
        shorter = _trimmed(line, part)
        if shorter is not None:
            again = find_order(bendable(line, kit, part, shape, shorter), span.held, most)
            if again.order is not None:
                found, trim = again, True
    if found.order is None:
        return None, found
    changes = sum(a.held != b.held for a, b in zip(found.order, found.order[1:], strict=False))
    started = found.order[0].held
    words = []
    if trim:
        words.append("cut the tail off first")
    if started != span.held:
        words.append(f"start from end {started}")
    if changes:
        words.append(f"change the tube over {'once' if changes == 1 else f'{changes} times'}")
    numbers = ", ".join(str(setting.bend + 1) for setting in found.order)
    text = f"{' and '.join(words) or 'another order'}: {numbers}"
    proposal = Proposal(
        order=written_order(found.order), held=started, trim_first=trim, text=text[0].upper() + text[1:]
    )
    return proposal, found


def _trimmed(line: Line, part: Part) -> dict[EndName, float] | None:
    """What is beyond the rims once the spare and the rest of the stock are cut off."""
    span = line.spans[0]
    far: EndName = "B" if span.held == "A" else "A"
    end = part.end_b if far == "B" else part.end_a
    after = end.allowance_mm + end.leave_long_mm if end.order != "before" else 0.0
    if span.trim_first or part.beyond_mm[far] <= after + 1e-6:
        return None
    return {**part.beyond_mm, far: after}


def _another(line: Line, kit: Kit, part: Part) -> OtherTool | None:
    """The first other bender for this tube whose own shape of the part it can make, one bend after the
    other or in another order."""
    span = line.spans[0]
    plastic = kit.materials[kit.tubes[span.tube].material].family == "plastic"
    for bender in kit.benders_for(kit.tubes[span.tube].size, plastic=plastic):
        most = max((bend.angle_deg for bend in part.bends), default=0.0)
        if bender.id == span.bender or bender.radius_mm is None or bender.greatest_angle_deg < most:
            continue
        if kit.tool_kinds[bender.kind].by_feel:
            continue
        again = replace(line, spans=(replace(span, bender=bender.id, order=""),))
        plan = plan_line(again, kit)
        if plan.part is None or min(shape_of(plan.part).straights_mm) < 0:
            continue
        tried = bendable(again, kit, plan.part, shape_of(plan.part))
        if find_order(tried, span.held, int(kit.limits["most_swings"].value) // 4).order is not None:
            text = f"The {bender.name} can make it in one piece, with radius {bender.radius_mm:g} mm."
            return OtherTool(bender=bender.id, text=text)
    return None


def _join(line: Line, kit: Kit, part: Part, shape: BendList) -> JointProposal | None:
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
            bendable(line, kit, part, first, {"A": part.beyond_mm["A"], "B": 0.0}),
            bendable(line, kit, part, second, {"A": 0.0, "B": part.beyond_mm["B"]}),
        )
        if all(find_order(piece, "A", most).order is not None for piece in pieces):
            verdict = kit.verdict("joint", JOINT, line.service)
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


def _findings(
    line: Line,
    kit: Kit,
    part: Part,
    stuck: Blocked | None,
    proposal: Proposal | None,
    found: OrderFound | None,
    other: OtherTool | None,
    joint: JointProposal | None,
) -> Iterator[Finding]:
    if stuck is None:
        return
    finding = _blocked(line, kit, part, stuck)
    if proposal is not None:
        yield replace(finding, advice=f"{proposal.text}.", fix=order_fix(line, proposal))
        return
    tried = "in any order" if found is None or found.whole else "in any order that was tried"
    yield replace(
        finding,
        code="no_order",
        title=f"It cannot be bent in one piece {tried}",
        message=f"{finding.message} Plan shows what is in the way of each bend that is left.",
        advice=other.text if other else joint.text if joint else NO_WAY,
        fix=other_fix(other) if other else None,
    )


OWN_BODY = ("fixed handle", "lever", "tool body")


def _blocked(line: Line, kit: Kit, part: Part, stuck: Blocked) -> Finding:
    """What is in the way. A body that nobody has measured is only what is usual: a caution then."""
    bend, reason = part.bends[stuck.bend], told(stuck)
    guessed = stuck.contact.thing in OWN_BODY and kit.benders[line.spans[0].bender].behind_mm is None
    usual = " The tool's body is what is usual for its kind; measure yours under Tools." if guessed else ""
    return Finding(
        severity="caution" if guessed else "stop",
        code="order_blocked",
        where=Where(kind="bend", number=bend.number, from_mm=bend.start_mm, to_mm=bend.end_mm),
        title=f"Bend {bend.number} cannot be made in this order",
        message=f"{reason[0].upper()}{reason[1:]}.{usual}",
        source=kit.advice["swing"].source,
    )


NO_WAY = "Use another tool, or another route with more straight."


def other_fix(other: OtherTool) -> Fix:
    """The changes that take another tool."""
    changes = (
        Change(path=f"{SPAN}/bender", value=other.bender),
        Change(path=f"{SPAN}/order", value=""),
    )
    return Fix(label="Use that tool", changes=changes)


def order_fix(line: Line, proposal: Proposal) -> Fix:
    """The changes that take an order over."""
    changes = [
        Change(path=f"{SPAN}/order", value=proposal.order),
        Change(path=f"{SPAN}/held", value=proposal.held),
    ]
    if proposal.trim_first and not line.spans[0].trim_first:
        changes.append(Change(path=f"{SPAN}/trim_first", value=True))
    return Fix(label="Take this order", changes=tuple(changes))

"""The part at the tool: can the bends be made in this order, in which other one, and if not, what then?"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from bendrel.core.bend.bench.bendable import bendable, told
from bendrel.core.bend.bench.proposals import (
    JointProposal,
    OtherTool,
    Proposal,
    another_tool,
    joint_for,
    order_fix,
    other_fix,
    propose,
)
from bendrel.core.bend.tool.moves import written_order
from bendrel.core.bend.tool.order import Blocked, OrderFound, follow
from bendrel.core.bend.tube.marking import order_of
from bendrel.core.bend.tube.part import Part, ids_of, place_of_bend, shape_of
from bendrel.core.findings import Finding
from bendrel.core.line.run import Run
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


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


def at_bench(run: Run, kit: Kit, part: Part) -> AtBench:
    """Carry the order in use out at the tool, and look for a better one where it fails."""
    span, line = run.span, run.line
    bender, kind = kit.benders[span.bender], kit.tool_kinds[kit.benders[span.bender].kind]
    shape = shape_of(part)
    tried = bendable(run, kit, part, shape)
    order = order_of(span, ids_of(part))[0]
    stuck = follow(tried, order)
    proposal, found = None, None
    other, joint = None, None
    if stuck is not None:
        proposal, found = propose(run, kit, part, shape, tried)
        if proposal is None:
            other = another_tool(run, kit, part)
            joint = joint_for(run, kit, part, shape)
    reason = "" if stuck is None else told(stuck, line.unit)
    return AtBench(
        tool=bender.name,
        words=kind.words,
        mount=kind.mount,
        order=written_order(order),
        blocked=None if stuck is None else 1 + [s.bend for s in order].index(stuck.bend),
        reason=reason,
        proposal=proposal,
        witness=tuple(told(item, line.unit) for item in found.blocked) if found and not proposal else (),
        whole=found.whole if found else True,
        other_tool=other,
        joint=joint,
        findings=tuple(_findings(run, kit, part, stuck, proposal, found=found, other=other, joint=joint)),
    )


def order_findings(run: Run, kit: Kit, part: Part) -> tuple[Finding, ...]:
    """Only whether the order in use can be made, without looking for another: for the board, the sheet
    and the command line."""
    tried = bendable(run, kit, part, shape_of(part))
    stuck = follow(tried, order_of(run.span, ids_of(part))[0])
    if stuck is None:
        return ()
    finding = replace(_blocked(run, kit, part, stuck), advice="Plan proposes another order, tool or joint.")
    return (finding,)


def _findings(
    run: Run,
    kit: Kit,
    part: Part,
    stuck: Blocked | None,
    proposal: Proposal | None,
    *,
    found: OrderFound | None,
    other: OtherTool | None,
    joint: JointProposal | None,
) -> Iterator[Finding]:
    if stuck is None:
        return
    finding = _blocked(run, kit, part, stuck)
    if proposal is not None:
        yield replace(finding, advice=f"{proposal.text}.", fix=order_fix(run, part, proposal))
        return
    tried = "in any order" if found is None or found.whole else "in any order that was tried"
    yield replace(
        finding,
        code="no_order",
        title=f"It cannot be bent in one piece {tried}",
        message=f"{finding.message} Plan shows what is in the way of each bend that is left.",
        advice=other.text if other else joint.text if joint else NO_WAY,
        fix=other_fix(run, other) if other else None,
    )


OWN_BODY = ("fixed handle", "lever", "tool body")


def _blocked(run: Run, kit: Kit, part: Part, stuck: Blocked) -> Finding:
    """What is in the way. A body that nobody has measured is only what is usual: a caution then."""
    bend, reason = part.bends[stuck.bend], told(stuck, run.line.unit)
    guessed = stuck.contact.thing in OWN_BODY and kit.benders[run.span.bender].behind_mm is None
    usual = " The tool's body is what is usual for its kind; measure yours under Tools." if guessed else ""
    return Finding(
        severity="caution" if guessed else "stop",
        code="order_blocked",
        where=place_of_bend(part, bend.number),
        title=f"Bend {bend.number} cannot be made in this order",
        message=f"{reason[0].upper()}{reason[1:]}.{usual}",
        source=kit.advice["swing"].source,
    )


NO_WAY = "Use another tool, or another route with more straight."

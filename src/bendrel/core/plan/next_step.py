"""What happens next to a line, for the bench board. Source: the trade's own order of work."""

from __future__ import annotations

from bendrel.core.line.document import Line
from bendrel.core.plan.model import Plan
from bendrel.core.record import record


@record
class NextStep:
    """The words, and the place in the order of work: what is further along has the lower rank and
    is finished first."""

    text: str
    rank: int


def next_step(line: Line, plan: Plan) -> NextStep:
    """The first thing that keeps `line` from being done."""
    if plan.removed.done:
        return NextStep(text="Done", rank=9)
    if line.finished and plan.removed.open_items:
        first = min(plan.removed.open_items, key=lambda item: item.due or "9999")
        return NextStep(text=f"Close: {first.what.strip() or first.kind}", rank=0)
    if line.finished:
        return NextStep(text=f"Refit: {plan.removed.left_over[0]}", rank=0)
    pending = [finding for finding in plan.findings if not finding.set_aside]
    if plan.chosen is None:
        if plan.looked.recommendation is not None and line.condition.decision is None:
            return NextStep(text="Decide: replace or splice", rank=5)
        return NextStep(text="Finish the readings", rank=4)
    if any(finding.severity == "stop" for finding in pending):
        return NextStep(text="Settle the stops", rank=3)
    proving = line.proving
    if proving.signed is not None:
        return NextStep(text="Signed off, but not done any more: look again", rank=0)
    if any(finding.code == "joint_wet" for finding in pending):
        return NextStep(text="A joint is wet", rank=0)
    if proving.fills or proving.holds or proving.joints:
        return NextStep(text="Prove it and sign it off", rank=0)
    if proving.done:
        return NextStep(text="Fit it", rank=0)
    if any(finding.code == "prove_nut" for finding in pending):
        return NextStep(text="Prove the nuts in the ports", rank=2)
    return NextStep(text="Print the sheet and make it", rank=1)

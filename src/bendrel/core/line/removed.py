"""Removal and refitting of one line, and whether it is done: pure functions of the document."""

from __future__ import annotations

from bendrel.core.findings import EndName
from bendrel.core.line.apart import removal_steps
from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.opened import port_opened
from bendrel.core.line.removal import (
    OldFluid,
    OpenItem,
    PartToGet,
    RefitStep,
    left_over,
    parts_to_get,
    refit_steps,
)
from bendrel.core.line.run import runs
from bendrel.core.line.signed import signed_stands
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.removal import RemovalAdvice, advise
from bendrel.core.parts.single_use import SingleUse
from bendrel.core.record import record


@record
class Removed:
    """Advice for taking it off, the way back, what to buy, and what keeps the line from being done;
    `fluid` is what becomes of the fluid that was drained."""

    advice: RemovalAdvice | None
    refit: tuple[RefitStep, ...]
    left_over: tuple[str, ...]
    parts: tuple[PartToGet, ...]
    single_use: SingleUse
    open_items: tuple[OpenItem, ...]
    done: bool
    fluid: OldFluid


def judge_removal(line: Line, kit: Kit) -> Removed:
    """Everything about taking `line` off and putting it back."""
    rule = kit.removal.get(line.service)
    advice = None
    if rule is not None:
        ends: tuple[EndName, EndName] = ("A", "B")
        ports = tuple(
            (end, line.port(end).label, _thread(line, kit, end), _hose_over(line, end))
            for end in ends
            if port_opened(line, end)
        )
        share = kit.pan_share.value
        said = tuple(caution.text for caution in kit.cautions_at(line.service, "remove"))
        advice = advise(
            rule,
            steps=removal_steps(line, kit),
            volume=line.removal.volume,
            pan_share=share,
            ports=ports,
            cautions=said,
        )
    waiting = tuple(item for item in line.open_items if not item.closed)
    fixtures = tuple(
        PartToGet(what=fixture.kind, count=1, because=f"{fixture.state} on the old line")
        for fixture in line.condition.fixtures
        if fixture.state in ("broken", "missing")
    )
    over = left_over(line.removal)
    return Removed(
        advice=advice,
        refit=refit_steps(line.removal),
        left_over=over,
        parts=(*parts_to_get(line.removal), *fixtures),
        single_use=kit.single_use,
        open_items=waiting,
        # lines that were closed before there was a sign-off stay done
        done=(line.finished or signed_stands(line) is True) and not waiting and not over,
        fluid=line.removal.fluid,
    )


def _hose_over(line: Line, end: EndName) -> bool:
    """A hose is pushed over what it goes to there."""
    span = line.spans[0 if end == "A" else -1]
    return isinstance(span, HoseSpan) and span.joined == "clamps"


def _thread(line: Line, kit: Kit, end: EndName) -> str:
    thread = line.port(end).thread
    if thread.strip():
        return thread
    run = next((run for run in runs(line) if run.end(end).at_port), None)
    name = run.span.end(end).nut if run else None
    nut = kit.nuts.get(name) if name else None
    return nut.thread if nut else ""

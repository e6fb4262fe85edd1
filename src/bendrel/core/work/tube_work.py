"""The steps of one piece, from what its ends and its plan ask for."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import pairwise

from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.opened import open_bends
from bendrel.core.bend.tube.part import ids_of
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.line.document import BendReadings, HoseSpan
from bendrel.core.parts.fitting import FittingKind
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import WORK_STAGES
from bendrel.core.work.old_tube import cut_and_plugged, made_ready, marked, old_ends
from bendrel.core.work.steps import EndWork, OldWork, Step, Stock, build_steps, with_cautions

_TAKES: Mapping[FittingKind, str] = {
    "double": "flare",
    "single": "flare",
    "bulb": "flare",
    "hose": "bead",
    "quick": "bead",
    "compression": "way into the body",
    "bite": "way into the body",
    "nipple": "nipple",
}
"""What the tube of an end's allowance is for."""


_FORMED = {
    "bead": "bead it with the beading tool; even all round, no crack.",
    "barb": "put the barb on, as it is made for this tube.",
    "plain": "a few shallow grooves round it where the hose lies, none along it.",
}


def _formed(parts: EndParts) -> str:
    """How an end is finished on which a hose goes; nothing of the others, nor of a bare end without a
    hose."""
    beyond = parts.choice.beyond
    hosed = bool(beyond) and isinstance(beyond[0], HoseSpan) and beyond[0].joined == "clamps"
    if parts.fitting.id == "plain" and not hosed:
        return ""
    return _FORMED.get(parts.fitting.id, "")


def steps_for(rigid: Rigid, kit: Kit) -> tuple[Step, ...]:
    """The order of work of a planned tube, from proving its nuts to blowing it through."""
    run, part, shape, moves = rigid.run, rigid.part, rigid.shape, rigid.part.moves
    line, span, ids = run.line, run.span, ids_of(part)
    a, b = rigid.ends
    held, far = (a, b) if span.held == "A" else (b, a)
    opened = open_bends(span, ids, shape)
    work = [
        EndWork(
            end=parts.end,
            name=parts.fitting.name,
            flared=parts.fitting.flared,
            nut_thread=parts.nut.thread if parts.nut else None,
            loose_nut=parts.fitting.loose_nut,
            brazed=parts.fitting.brazed,
            formed=_formed(parts),
            allowance_mm=parts.allowance_mm,
            takes=_TAKES.get(parts.fitting.kind, "end"),
            order=parts.order,
            leave_long_mm=parts.leave_long_mm,
            ready=parts.ready,
            at_port=parts.choice.at_port,
        )
        for parts in (held, far)
    ]
    olds = old_ends(run, kit, {parts.end: parts.leave_long_mm for parts in (held, far)})
    return build_steps(
        cut_mm=part.cut_mm,
        spare_mm=part.spare_mm,
        bends=len(moves),
        changes=sum(one.held != two.held for one, two in pairwise(moves)),
        finishes=tuple(
            f"bend {bend} to {shape.bends[bend - 1].angle_deg:g}° {item.how}"
            for item in span.left_open
            if item.row in ids and (bend := ids.index(item.row) + 1) in opened
        ),
        stock=Stock(
            form=span.stock_form,
            straighten_mm=kit.limits["straighten_mm"].value,
            trim_first=span.trim_first and part.spare_mm > 0,
            turned=span.turned and kit.tool_kinds[kit.benders[span.bender].kind].mount != "in the hands",
        ),
        held=work[0],
        far=work[1],
        unit=line.unit,
        ways=span.ways,
        copied=isinstance(span.readings, BendReadings) and span.readings.copied,
        old=OldWork(
            first=tuple(cut_and_plugged(olds)),
            fitting=tuple(marked(olds, line.unit)),
            ready=tuple(made_ready(olds, line.unit)),
        ),
    )


def cautioned(steps: tuple[Step, ...], kit: Kit, service: str) -> tuple[Step, ...]:
    """`steps` with what must be said in a service at the first step of each stage."""
    said = {stage: tuple(c.text for c in kit.cautions_at(service, stage)) for stage in WORK_STAGES}
    return with_cautions(steps, said)

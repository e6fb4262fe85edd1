"""All the rules of the plan, in the order they are asked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from bendrel.core.findings import Finding
from bendrel.core.geometry.clips import Clips
from bendrel.core.judge.case import Whole
from bendrel.core.judge.duty.judge_pressure import judge_pressure
from bendrel.core.judge.duty.judge_service import judge_service
from bendrel.core.judge.duty.judge_typed import judge_typed
from bendrel.core.judge.piece.judge_ends import judge_ends
from bendrel.core.judge.piece.judge_measure import judge_measure
from bendrel.core.judge.piece.judge_pairs import judge_pairs
from bendrel.core.judge.piece.judge_route import judge_route
from bendrel.core.judge.piece.judge_section import judge_section
from bendrel.core.judge.piece.judge_shape import judge_shape
from bendrel.core.judge.whole.judge_bought_hose import judge_bought_hose
from bendrel.core.judge.whole.judge_finish import judge_finish
from bendrel.core.judge.whole.judge_flow import judge_flow
from bendrel.core.judge.whole.judge_hose import judge_hose
from bendrel.core.judge.whole.judge_joints import judge_joints
from bendrel.core.judge.whole.judge_look import judge_look
from bendrel.core.judge.whole.judge_mates import judge_mates
from bendrel.core.judge.whole.judge_parts import judge_parts
from bendrel.core.judge.whole.judge_pattern import judge_pattern
from bendrel.core.judge.whole.judge_proving import judge_proving
from bendrel.core.judge.whole.judge_way import judge_way
from bendrel.core.line.measured import Measured
from bendrel.core.line.removed import Removed
from bendrel.core.mend.looked import Looked


def judge(
    whole: Whole,
    looked: Looked,
    measured: Mapping[str, Measured],
    removed: Removed,
    clips: Mapping[str, Clips],
) -> list[Finding]:
    """Every finding on one planned line, in no particular order; `measured` and `clips` by tube."""
    found: list[Finding] = []
    for case in whole.cases:
        found += judge_measure(case, measured[case.part.span])
        if case.rigid.new:
            found += judge_shape(case)
            found += judge_section(case)
            found += judge_route(case)
        found += judge_ends(case)
        found += judge_pairs(case)
    found += judge_service(whole)
    found += judge_typed(whole)
    found += judge_pressure(whole)
    found += judge_flow(whole)
    found += judge_hose(whole)
    found += judge_way(whole)
    found += judge_pattern(whole)
    found += judge_bought_hose(whole)
    found += judge_parts(whole)
    found += judge_joints(whole)
    found += judge_mates(whole)
    found += judge_look(whole, looked, clips)
    found += judge_finish(whole, removed)
    found += judge_proving(whole)
    # a title may begin with the name of a thing
    return [replace(one, title=one.title[0].upper() + one.title[1:]) for one in found]

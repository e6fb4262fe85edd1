"""All the rules of the plan, in the order they are asked."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.chain.chosen import Chosen
from bendrel.core.findings import Finding
from bendrel.core.line.looked import Looked
from bendrel.core.line.measured import Measured
from bendrel.core.line.removed import Removed
from bendrel.core.route.clips import Clips
from bendrel.core.rules.case import Case
from bendrel.core.rules.piece.judge_ends import judge_ends
from bendrel.core.rules.piece.judge_measure import judge_measure
from bendrel.core.rules.piece.judge_pairs import judge_pairs
from bendrel.core.rules.piece.judge_route import judge_route
from bendrel.core.rules.piece.judge_section import judge_section
from bendrel.core.rules.piece.judge_shape import judge_shape
from bendrel.core.rules.whole.judge_finish import judge_finish
from bendrel.core.rules.whole.judge_flow import judge_flow
from bendrel.core.rules.whole.judge_hose import judge_hose
from bendrel.core.rules.whole.judge_look import judge_look
from bendrel.core.rules.whole.judge_parts import judge_parts
from bendrel.core.rules.whole.judge_pressure import judge_pressure
from bendrel.core.rules.whole.judge_service import judge_service


def judge(
    case: Case, looked: Looked, measured: Measured, removed: Removed, chosen: Chosen, clips: Clips
) -> list[Finding]:
    """Every finding on one planned part, in no particular order."""
    found = [
        *judge_measure(case, measured),
        *judge_shape(case),
        *judge_section(case),
        *judge_route(case),
        *judge_ends(case),
        *judge_service(case),
        *judge_pairs(case),
        *judge_pressure(case, chosen),
        *judge_flow(case, chosen),
        *judge_hose(case, chosen),
        *judge_parts(case, chosen),
        *judge_look(case, looked, clips),
        *judge_finish(case, removed),
    ]
    # a title may begin with the name of a thing
    return [replace(one, title=one.title[0].upper() + one.title[1:]) for one in found]

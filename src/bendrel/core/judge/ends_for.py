"""Ends that go on one end of the line: in the service, the port's seat, the tube, and with what lies beyond.

Every fix that proposes an end asks here, so that none raises what another mends.
"""

from __future__ import annotations

from bendrel.core.findings import EndName, Fix
from bendrel.core.judge.case import Case, choose
from bendrel.core.parts.fits import goes_on_tube, joint_holds, nut_for_port
from bendrel.core.parts.fitting import Fitting
from bendrel.core.parts.picking import ends_for
from bendrel.core.parts.verdict import VerdictWord


def ends_that_go(
    case: Case, end: EndName, *, words: tuple[VerdictWord, ...] = ("right", "acceptable", "caution")
) -> tuple[Fitting, ...]:
    """End types for one end, the best verdict first: they suit the service (`words`), the seat, the tube,
    its pressure, the port's thread where it is known, and a hose that lies beyond."""
    at, next_to = case.run.end(end), case.first_hose(end)
    hose = next_to is not None and next_to.joined == "clamps"
    found = ends_for(
        case.kit,
        case.service.id,
        case.tube,
        words=words,
        seat=at.meets.seat,
        thread=at.meets.thread,
        insert=at.tube.insert,
        working_kpa=case.working_kpa,
    )
    return tuple(fitting for fitting in found if fitting.takes_hose == hose)


def fits_on(case: Case, end: EndName, fitting: Fitting) -> bool:
    """The end can be made on this end of the tube, and holds what the line works at."""
    insert = case.run.end(end).tube.insert
    if not goes_on_tube(case.kit, fitting, case.tube, insert=insert):
        return False
    return case.working_kpa is None or joint_holds(case.kit, fitting, case.tube.size, case.working_kpa)


def end_fix(case: Case, end: EndName, fitting: Fitting, label: str = "") -> Fix:
    """The changes that put `fitting` on one end, with the nut that the port takes."""
    at = case.run.end(end)
    nut = nut_for_port(case.kit, fitting, case.tube.size, at.meets.thread) if fitting.screwed else None
    values: list[tuple[str, str | float | bool | None]] = [
        (at.tube_at("fitting"), fitting.id),
        (at.tube_at("nut"), nut.id if nut else None),
    ]
    if at.meets.proved:
        values.append((at.port_at("proved"), False))
    return choose(label or f"Change it to {fitting.name}", *values)

"""Use case of one hose of a line: how it lies over its travel, which lengths do, where it is held."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from bendrel.core.geometry.obstacles import Way
from bendrel.core.geometry.vectors import Vector
from bendrel.core.hose.assembly import Assembly, assembly_of
from bendrel.core.hose.laid import LaidHose, lay_hose, near_to, shape_or_none, told_over, windows_of
from bendrel.core.hose.read import BesideHose, beside_hose
from bendrel.core.hose.shape.laid import HoseError
from bendrel.core.hose.shape.moving import AtPosition
from bendrel.core.hose.shape.windows import Windows
from bendrel.core.hose.supports import Support, supports_of
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.line.carried import carried
from bendrel.core.line.document import Line
from bendrel.core.line.resolve import Problem, Reader
from bendrel.core.line.run import runs
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.wetting import wetting
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.record import record
from bendrel.core.units.lengths_error import said_in
from bendrel.exchange.paper.sheet_hose import build_hose_sheet
from bendrel.services.errors import NotFound

_POINTS = 40
"""Points of a hose that a picture is drawn from."""


@record
class HoseStudy:
    """One hose looked at closely. `laid` is None while its ends are not known; `fitted` are points of the
    hose as it is fitted, `positions` the hose over its travel while its length is known, `windows` the
    lengths that keep its radius, `beside` what stands there as measured."""

    laid: LaidHose | None
    fitted: tuple[Vector, ...]
    positions: tuple[AtPosition, ...]
    windows: Windows | None
    beside: tuple[BesideHose, ...]
    supports: tuple[Support, ...]
    assembly: Assembly
    problems: tuple[Problem, ...]


def study_hose(line: Line, kit: Kit, span: str, others: Sequence[Line] = ()) -> HoseStudy:
    """Look at one hose of `line`, beside the hoses of `others` that are measured from the same datum.
    Raises NotFound."""
    reader = Reader(line.unit)
    hoses = {hose.stands.span: hose for hose in place_pieces(line, kit, reader.problems).hoses}
    hose = hoses.get(span)
    if hose is None:
        raise NotFound(f"There is no hose “{span[:20]}” in this line.")
    laid = lay_hose(kit, hose, reader)
    way = hose.piece.way
    duty = carried(line, kit, [])
    wets = wetting(duty.fluid if duty else None).smear
    assembly = assembly_of(kit, hose, laid, line.unit, wets=wets)
    if laid is None or way is None:
        return HoseStudy(
            laid=None,
            fitted=(),
            positions=(),
            windows=None,
            beside=(),
            supports=(),
            assembly=assembly,
            problems=tuple(reader.problems),
        )
    neighbours = hoses_beside(line, kit, span, others)
    beside = (*beside_hose(kit, hose, way, Reader()), *neighbours)
    windows: Windows | None = None
    try:
        share = kit.limits["hose_longest_share"].value
        windows = windows_of(laid.ends, laid.moves, laid.needs_mm, share)
    except HoseError as error:
        reader.problems.append(Problem(path=f"/spans/{span}/way", message=said_in(error, line.unit)))
    told: tuple[AtPosition, ...] = ()
    fitted: tuple[Vector, ...] = ()
    if laid.length_mm is not None:
        told = told_over(laid.ends, laid.moves, laid.length_mm)
        shape = shape_or_none(laid.ends, laid.length_mm)
        fitted = _thinned(shape.points) if shape else ()
        nearest = (*laid.nearest, *(near_to(kit, hose, told, one) for one in neighbours))
        laid = replace(laid, nearest=nearest)
    return HoseStudy(
        laid=laid,
        fitted=fitted,
        positions=tuple(replace(at, points=_thinned(at.points)) for at in told),
        windows=windows,
        beside=beside,
        supports=supports_of(kit, hose, laid, told, beside),
        assembly=assembly,
        problems=tuple(reader.problems),
    )


def hoses_beside(line: Line, kit: Kit, span: str, others: Sequence[Line]) -> tuple[BesideHose, ...]:
    """The other hoses of the job as they are fitted, where their ends and lengths are known."""
    found: list[BesideHose] = []
    for number, one in enumerate((line, *others)):
        for hose in place_pieces(one, kit, []).hoses:
            if hose.piece.way is None or (number == 0 and hose.piece.id == span):
                continue
            laid = lay_hose(kit, hose, Reader())
            shape = (
                None if laid is None or laid.length_mm is None else shape_or_none(laid.ends, laid.length_mm)
            )
            if shape is not None:
                found.append(
                    BesideHose(
                        item=f"hose {number} {hose.piece.id}",
                        what=one.name if number else "another hose of this line",
                        kind="line",
                        shape=Way(points=_thinned(shape.points), radius_mm=hose.hose.od_mm / 2),
                    )
                )
    return tuple(found)


def print_hose_sheet(line: Line, kit: Kit, span: str, *, job: str, today: date) -> bytes:
    """PDF of the page for one hose. Raises NotFound."""
    study = study_hose(line, kit, span)
    row = kit.hoses[next(one.hose for one in line.spans if one.kind == "hose" and one.id == span)]
    cautions = [caution.text for caution in kit.cautions_at(line.service) if caution.stages != ("remove",)]
    return build_hose_sheet(
        line.name,
        study.assembly,
        study.supports,
        plan_line(line, kit).findings,
        line.unit,
        job=job,
        hose=f"{kit.hose_classes[row.hose_class].name} {row.size}",
        cautions=" ".join(cautions),
        today=today,
        work=() if any(run.span.state == "to make" for run in runs(line)) else order_of_work(line, kit),
    )


def _thinned(points: tuple[Vector, ...]) -> tuple[Vector, ...]:
    step = max(1, len(points) // _POINTS)
    return (*points[:-1:step], points[-1])

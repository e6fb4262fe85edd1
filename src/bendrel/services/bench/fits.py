"""A part at its ports, from a line and a file of what was read."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.bench.believed import believed, reach_of
from bendrel.core.bend.bench.exact import forecast_of
from bendrel.core.bend.fitting.fit import Fit, fit, unknowns_of
from bendrel.core.bend.told.figures import Figure
from bendrel.core.bend.told.observed import observed
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.line.document import Line, RigidSpan
from bendrel.core.line.run import main_run, with_span
from bendrel.core.parts.kit import Kit
from bendrel.core.units.notation import normalised_turn
from bendrel.exchange.errors import FileError
from bendrel.exchange.readings.fitting import FitFile, read_fit
from bendrel.services.bench.benches import planned_of
from bendrel.services.errors import Refused
from bendrel.services.line.offline import is_document, line_of_file


def fit_file(data: bytes, read: bytes, radius_mm: float | None) -> dict[str, Any]:
    """What `bendrel fit` answers of a line document, or of a points or bend CSV that was cut 25 mm long.
    Raises FileError and Refused."""
    line = line_of_file(data, radius_mm)
    run = main_run(line)
    if run is None:
        raise FileError("The line has no tube of its own; there is nothing to fit.")
    if not is_document(data):
        line = with_span(line, replace(run.span, spare=RigidSpan.spare))
    found = fit_of(line, load_kit(), read, run.span.id)
    at = found.stands
    return {
        "fits": found.fits,
        "miss_mm": at.miss_mm,
        "miss_deg": at.miss_deg,
        "doubt_mm": at.doubt_mm,
        "doubt_deg": at.doubt_deg,
        "roll_deg": at.roll_deg,
        "trim_mm": at.trim_mm,
        "again": found.again,
        "tweaks": [
            {
                "kind": tweak.act.kind,
                "at": tweak.act.at,
                "deg": tweak.act.deg,
                "end_moves_mm": tweak.end_moves_mm,
                "towards_clock_deg": tweak.towards_clock_deg,
                "leaves_mm": tweak.leaves_mm,
                "leaves_deg": tweak.leaves_deg,
            }
            for tweak in found.tweaks
        ],
    }


def fit_of(line: Line, kit: Kit, data: bytes, span: str = "") -> Fit:
    """How the part of one tube of a line fits by what was read. Raises Refused and FileError."""
    rigid = planned_of(line, kit, span)
    part, planned = rigid.part, shape_of(rigid.part)
    if not planned.bends:
        raise Refused("This tube has no bends; there is nothing to tweak.")
    read = read_fit(data, len(planned.bends))
    trust = believed(rigid.run, kit, rigid.choices, part)
    reach = reach_of(kit, part, "B")  # the file tells of end B whichever end is held
    told = forecast_of(rigid.run, kit, rigid.choices, part).told
    figures = _figures(read, [t.bend for t in told], [t.clock_deg for t in told])
    first = any(f.index == 0 and f.kind == "clock" for f in figures)
    unknowns = unknowns_of(planned, told, read.rounds, trust.trust, trust.may, reach, first_turns=first)
    readings = observed(unknowns, figures, trust.gauge, part.beyond_mm, part.od_mm)
    found, _ = fit(
        planned, unknowns, readings, read.rounds, reach, trust.trust, may=trust.may, od_mm=part.od_mm
    )
    return found


def _figures(read: FitFile, bends: list[int], clocks: list[float]) -> list[Figure]:
    """What was read, by the order in which the bends are made; a clock is taken the way round that is
    nearest to what was told."""
    figures = []
    for item in read.made:
        index = bends.index(item.bend - 1)
        if item.angle_deg is not None:
            figures.append(Figure(index=index, kind="angle", value=item.angle_deg))
        if item.plane_deg is not None:
            near = clocks[index] + normalised_turn(item.plane_deg - clocks[index])
            figures.append(Figure(index=index, kind="clock", value=near))
    return figures

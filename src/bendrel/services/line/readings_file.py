"""The readings of a file adjusted together, without a database: what `bendrel measure` answers."""

from __future__ import annotations

from typing import Any

from bendrel.catalogue.loader import load_kit
from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.line.measured import given_checks, measure, reading_errors, trust_of
from bendrel.core.line.paths import readings_path
from bendrel.core.line.resolve import resolve, slot_path, taken_as
from bendrel.core.line.run import main_run
from bendrel.core.measure.adjust import adjust
from bendrel.core.measure.culprits import MOST_NAMED, ranked
from bendrel.core.measure.explain import name_of, slip_of
from bendrel.core.measure.observed import Given
from bendrel.core.measure.slots import value_of
from bendrel.core.measure.worth import next_readings
from bendrel.core.parts.kit import Kit
from bendrel.exchange.errors import FileError
from bendrel.services.line.measuring import zone_of
from bendrel.services.line.offline import line_of_file

TRIAL_FIT = "trial fit"


def measure_file(data: bytes, radius_mm: float | None) -> dict[str, Any]:
    """How the readings of a line document, or of a bend CSV, are taken, how well end B is known, which of
    them may be slips, and what to read next. Raises FileError."""
    kit, line = load_kit(), line_of_file(data, radius_mm)
    run = main_run(line)
    if run is None:
        raise FileError("The line has no tube of its own; there is nothing to measure.")
    span = run.span
    tube, bender = kit.tubes[span.tube], kit.benders[span.bender]
    resolved = resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius_mm)
    if resolved.read is None:
        problem = resolved.problems[0]
        raise FileError(f"{readings_path(span.id, problem.path)}: {problem.message}")
    read, errors = resolved.read, reading_errors(kit)
    (given, unread), trust = given_checks(span), trust_of(span, read)
    if unread:
        raise FileError(f"{unread[0].path}: {unread[0].message}")
    weighed = measure(span, kit, read)
    shape = taken_as(resolved, span.readings, weighed.read or read).shape
    if shape is None:
        raise FileError("The readings are no shape.")
    wrong = weighed.measured.disagree
    try:
        fit = adjust(read, Given() if wrong else given, errors, trust)
        slips = ranked(read, given, errors)[:MOST_NAMED] if wrong else ()
        told = next_readings(read, Given() if wrong else given, errors, trust, zone_of(line, kit, span))
    except ShapeError as error:
        raise FileError(str(error)) from error
    return {
        "taken": _shape(shape),
        "read": [
            {
                "path": readings_path(span.id, slot_path(span.readings, one.slot)),
                "read": value_of(read, one.slot),
                "taken": value_of(read, one.slot) + one.change,
                "doubt": one.doubt,
            }
            for one in fit.taken
        ],
        "end_b": {"doubt_mm": fit.doubt.end_b_mm, "doubt_deg": fit.doubt.way_b_deg},
        "slips": [
            {
                "path": readings_path(span.id, slot_path(span.readings, suspect.slot)),
                "read": value_of(read, suspect.slot),
                "likely": value_of(read, suspect.slot) + suspect.change,
                "why": slip_of(read, suspect, kit.limits["slip_mm"].value, kit.limits["slip_deg"].value)
                or f"{name_of(read, suspect.slot)} alone would reconcile all",
            }
            for _, suspect in slips
        ],
        "next": [
            {"what": one.kind, "brings_mm": one.end_b_mm, "brings_deg": one.way_b_deg} for one in told.worth
        ]
        or ([] if told.enough else [_trial_fit(kit)]),
    }


def _trial_fit(kit: Kit) -> dict[str, Any]:
    """Where nothing that can be read brings end B nearer, the part itself is offered to its ports."""
    limits = kit.limits
    return {
        "what": TRIAL_FIT,
        "brings_mm": limits["offer_mm"].value,
        "brings_deg": limits["offer_deg"].value,
    }


def _shape(shape: BendList) -> dict[str, Any]:
    return {
        "bends": [
            {
                "straight_mm": bend.straight_mm,
                "rotation_deg": bend.rotation_deg,
                "angle_deg": bend.angle_deg,
                "radius_mm": bend.radius_mm,
            }
            for bend in shape.bends
        ],
        "last_straight_mm": shape.last_straight_mm,
    }

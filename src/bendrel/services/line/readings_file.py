"""The readings of a file adjusted together, without a database: what `bendrel measure` answers."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from bendrel.catalogue.loader import load_kit
from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.line.advised import Advised, advised, pointer_to, to_take, with_reading
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.given import given_checks, reading_errors
from bendrel.core.line.measured import measure, trust_of
from bendrel.core.line.paths import readings_path
from bendrel.core.line.resolve import resolve, taken_as
from bendrel.core.line.run import main_run
from bendrel.core.measure.adjust import adjust
from bendrel.core.measure.culprits import Suspect
from bendrel.core.measure.explain import name_of, slip_of
from bendrel.core.measure.further import Further, figure, one_by_one
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.slots import Slot, value_of
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
    resolved = resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius)
    if resolved.read is None:
        problem = resolved.problems[0]
        raise FileError(f"{readings_path(span.id, problem.path)}: {problem.message}")
    read, errors = resolved.read, reading_errors(kit)
    (given, unread), trust = given_checks(span, read, kit), trust_of(span, read)
    if unread:
        raise FileError(f"{unread[0].path}: {unread[0].message}")
    weighed = measure(span, kit, read)
    shape = taken_as(resolved, span.readings, weighed.read or read).shape
    if shape is None:
        raise FileError("The readings are no shape.")
    zone = zone_of(line, kit, span)
    try:
        fit = adjust(read, Given() if weighed.measured.disagree else given, errors, trust)
        found = advised(span, kit, read, zone)
        was = {which: figure(alone) for which, alone in one_by_one(given)}
        following = tuple(_next(span, kit, read, found))
    except ShapeError as error:
        raise FileError(str(error)) from error
    known = fit.doubt.end_b_mm <= zone[0] and fit.doubt.way_b_deg <= zone[1]
    return {
        "taken": _shape(shape),
        "read": [
            {
                "path": pointer_to(span, one.slot),
                "read": value_of(read, one.slot),
                "taken": value_of(read, one.slot) + one.change,
                "doubt": one.doubt,
            }
            for one in fit.taken
        ],
        "end_b": {"doubt_mm": fit.doubt.end_b_mm, "doubt_deg": fit.doubt.way_b_deg},
        "slips": [_slip(span, kit, read, suspect, was) for suspect in found.suspects],
        "next": list(following) or ([] if known else [_trial_fit(kit)]),
    }


def _slip(
    span: RigidSpan,
    kit: Kit,
    read: ReadBends | Corners,
    suspect: Suspect,
    further: Mapping[Further, float | None],
) -> dict[str, Any]:
    """`further` is what was read further; of a reading with several figures there is no one value."""
    what = suspect.what
    said = slip_of(read, suspect, kit.limits["slip_mm"].value, kit.limits["slip_deg"].value)
    was = value_of(read, what) if isinstance(what, Slot) else further[what]
    return {
        "path": pointer_to(span, what),
        "read": was,
        "likely": None if was is None else was + suspect.change,
        "why": said or f"{name_of(read, what)} alone would reconcile all",
    }


def _next(span: RigidSpan, kit: Kit, read: ReadBends | Corners, found: Advised) -> Iterator[dict[str, Any]]:
    """What brings end B nearer, or decides what is wrong; then what notices a slip."""
    for one in found.next.worth if found.next else ():
        yield _told(span, read, one.reading, one.meets_mm, one.meets_deg)
    if found.ask is not None:
        doubt = with_reading(span, kit, read, found.ask.reading)
        yield _told(span, read, found.ask.reading, doubt.meets_mm, doubt.meets_deg)


def _told(
    span: RigidSpan, read: ReadBends | Corners, reading: Further, mm: float, deg: float
) -> dict[str, Any]:
    take = to_take(span, reading)
    return {
        "what": name_of(read, reading),
        "kind": take.kind,
        "from": take.start,
        "to": take.end,
        "brings_mm": mm,
        "brings_deg": deg,
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

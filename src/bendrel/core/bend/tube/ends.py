"""Each end of the part: what it uses up, the room it has, and when it can be flared."""

from __future__ import annotations

from bendrel.core.findings import EndName
from bendrel.core.geometry.vectors import Vector
from bendrel.core.line.document import TestFlare
from bendrel.core.line.run import Run, RunEnd
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.fitting import (
    EndSize,
    Fitting,
    FittingKind,
    Nut,
    Torque,
    double_flare_use,
    single_flare_use,
)
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.room import EndRoom, FlareOrder, end_room
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record


@record
class PlannedEnd:
    """One end: what it adds to the cut, the room it has, when it can be flared, and the catalogue's torque
    by id, blank where none is published."""

    end: EndName
    fitting: str
    fitting_name: str
    kind: FittingKind
    nut: str | None
    nut_thread: str | None
    nut_length_mm: float
    torque: str
    flare_length_mm: float
    allowance_mm: float
    leave_long_mm: float
    straight_mm: float
    ready: bool
    order: FlareOrder | None
    possible_orders: tuple[FlareOrder, ...]
    flared: bool
    comes_finished: bool
    point: Vector
    outward: Vector


@record
class EndParts:
    """The catalogue rows and figures of one end; `own_piece` says that its allowance was measured on the
    person's own test piece."""

    end: EndName
    choice: RunEnd
    fitting: Fitting
    size: EndSize | None
    nut: Nut | None
    torque: Torque | None
    allowance_mm: float
    own_piece: bool
    room: EndRoom
    order: FlareOrder | None
    leave_long_mm: float
    ready: bool


def end_parts(
    run: Run,
    kit: Kit,
    chosen: Choices,
    end: EndName,
    straight_mm: float,
    measured_use: float | None,
    leave_long_mm: float,
) -> EndParts:
    """Look up one end and work out its figures. `straight_mm` is the straight at that end;
    `measured_use` is the person's own test piece and `leave_long_mm` what is trimmed off later."""
    choice = run.end(end)
    tube = choice.tube
    fitting = kit.fittings[tube.fitting]
    size = kit.end_size(fitting.id, chosen.tube.size)
    nut = kit.nuts.get(tube.nut) if tube.nut else None
    flarer = kit.flarers.get(tube.flarer)
    ready = tube.ready and fitting.comes_finished
    held = run.span.held == end
    grip = chosen.bender.least_before_first_mm if held else chosen.bender.least_after_last_mm
    room = end_room(
        straight_mm,
        flare_mm=size.length_mm if size else 0.0,
        nut_mm=nut.length_mm if nut else 0.0,
        bender_grip_mm=grip,
        flaring_grip_mm=flarer.grip_mm if flarer else fitting.grip_mm,
        slack_mm=kit.limits["hand_mm"].value,
    )
    own = measured_use if trial_counts(kit, tube.trial, fitting, chosen.tube.size) else None
    used = own if own is not None else _use(fitting, size, chosen.tube)
    return EndParts(
        end=end,
        choice=choice,
        fitting=fitting,
        size=size,
        nut=nut,
        torque=kit.torque_for(fitting.id, nut.thread, chosen.tube.material) if nut else None,
        allowance_mm=0.0 if ready else used,
        own_piece=own is not None,
        room=room,
        order=_order(room, held, ready, long=leave_long_mm > 0) if fitting.flared else None,
        ready=ready,
        leave_long_mm=leave_long_mm,
    )


def trial_counts(kit: Kit, trial: TestFlare | None, fitting: Fitting, size: str) -> bool:
    """The person's own flared test piece was made with this end type and tube size. One that does not
    say what it was made with counts for a flare only."""
    if trial is None or not trial.fitting:
        return fitting.flared
    return trial.fitting == fitting.id and kit.goes_on(trial.size, size)


def planned_end(parts: EndParts, point: Vector, outward: Vector) -> PlannedEnd:
    """What the plan says of an end that lies at `point` (mm) and opens towards `outward`."""
    return PlannedEnd(
        end=parts.end,
        fitting=parts.fitting.id,
        fitting_name=parts.fitting.name,
        kind=parts.fitting.kind,
        nut=parts.nut.id if parts.nut else None,
        nut_thread=parts.nut.thread if parts.nut else None,
        nut_length_mm=parts.nut.length_mm if parts.nut else 0.0,
        torque=parts.torque.id if parts.torque else "",
        flare_length_mm=parts.size.length_mm if parts.size else 0.0,
        allowance_mm=parts.allowance_mm,
        leave_long_mm=parts.leave_long_mm,
        straight_mm=parts.room.straight_mm,
        ready=parts.ready,
        order=parts.order,
        possible_orders=parts.room.orders if parts.fitting.flared else (),
        flared=parts.fitting.flared,
        comes_finished=parts.fitting.comes_finished,
        point=point,
        outward=outward,
    )


def _order(room: EndRoom, held: bool, ready: bool, *, long: bool) -> FlareOrder | None:
    """The held end is flared first where it can be, the far end last so that it can be trimmed; an
    end left long can only be flared after it has been trimmed. A stick's own flare is there before."""
    if ready:
        return "before" if "before" in room.orders else None
    if long:
        return "after" if "after" in room.orders else None
    wanted: tuple[FlareOrder, FlareOrder] = ("before", "after") if held else ("after", "before")
    return next((order for order in wanted if order in room.orders), None)


def _use(fitting: Fitting, size: EndSize | None, tube: Tube) -> float:
    if size is None:
        return 0.0
    if size.flare_diameter_mm is not None and fitting.half_angle_deg is not None:
        use = double_flare_use if fitting.kind == "double" else single_flare_use
        return use(tube.od_mm, size.flare_diameter_mm, fitting.half_angle_deg)
    return size.used_mm or 0.0


def flare_use(kit: Kit, fitting: str, tube: Tube) -> float:
    """The tube that one end of this type uses up, in mm; 0 for one that is not known."""
    row = kit.fittings.get(fitting)
    return _use(row, kit.end_size(fitting, tube.size), tube) if row is not None else 0.0

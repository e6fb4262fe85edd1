"""How each joint stands, by what was noted of it: what is next, how long it has to wait, its history."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Literal

from bendrel.core.joints.closing import LineJoint, joint_at
from bendrel.core.line.document import Line
from bendrel.core.line.proving import MENDED, JointWork
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import JointState, Rung
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.fit import thread_fit
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import is_torque, parse_torque
from bendrel.core.work.closing import after_relief

_MOST_CAUSES = 3


@record
class JointStanding:
    """Where one joint stands. `since` is when that began (local, ISO; blank where not said), `until` when a
    drying one is to be looked at; `held` that a hold test was made since it was mended; `first_look` says
    that it was found dry before that, which proves nothing yet. `rung` is what a wet one is answered with,
    with its words; `tried` what was done already; `off` says that it was made looser or tighter than it is
    to be, `problem` that a torque cannot be read. `binds` says that the nut stopped short, and why that may
    be."""

    joint: str
    state: JointState
    since: str
    until: str
    held: bool
    first_look: bool
    rung: Rung | None
    rung_text: str
    tried: tuple[Rung, ...]
    off: Literal["", "too loose", "too tight"]
    problem: str
    binds: str
    causes: tuple[str, ...]


def work_at(line: Line, joint: LineJoint) -> JointWork | None:
    """What was noted of a joint; None where nothing was, or it met something else then."""
    return joint_at(line, joint.span, joint.end, joint.meets)


def standing_of(line: Line, kit: Kit, joint: LineJoint) -> JointStanding:
    """How a joint stands."""
    work = work_at(line, joint)
    state, since, until = _state(line, kit, joint, work)
    first_look = state == "drying" and work is not None and work.events[-1].what == "dry"
    tried = tuple(event.what for event in work.events if event.what in MENDED) if work else ()
    ladder = kit.proving.ladders[joint.closes]
    rung = None
    if state == "wet":
        rung = next((one for one in ladder.rungs if one not in tried), ladder.rungs[-1])
    binds, causes = _binds(kit, joint, work)
    off, problem = _made(line, kit, joint, work)
    return JointStanding(
        joint=joint.id,
        state=state,
        since=since,
        until=until,
        held=_held_since(line, _undone_at(work)) if work else False,
        first_look=first_look,
        rung=rung,
        rung_text=after_relief(kit, line, ladder.text.get(rung, "")) if rung else "",
        tried=tried,
        off=off,
        problem=problem,
        binds=binds,
        causes=causes,
    )


def _state(line: Line, kit: Kit, joint: LineJoint, work: JointWork | None) -> tuple[JointState, str, str]:
    last = work.events[-1] if work and work.events else None
    if work is None or last is None:
        tight = line.proving.ticked(f"tight-{joint.id}") is not None
        return ("tight" if tight else "open"), "", ""
    if last.what in MENDED:
        return "mended", last.at, ""
    if last.what == "wet":
        return "wet", last.at, ""
    if _dry(line, kit, work)[1]:
        return "dry", last.at, ""
    if not kit.proving.watch(line.service).each:
        return "mended", _undone_at(work), ""  # nothing but a test says that it holds
    dried = next((event.at for event in reversed(work.events) if event.what == "dried"), "")
    return "drying", dried, _later(dried, kit.proving.watch(line.service).wait_s)


def rounds_dry(line: Line, kit: Kit, joint: LineJoint) -> int:
    """How often a joint was found dry after its wait; 0 where what was seen last is anything else."""
    work = work_at(line, joint)
    rounds, dry = _dry(line, kit, work) if work else (0, False)
    return rounds if dry else 0


def _dry(line: Line, kit: Kit, work: JointWork) -> tuple[int, bool]:
    """How often a joint was proved dry, and whether it is: the wait was over, as far as times were said, and
    each round has a drying of its own. A drip from next door says nothing against it. Where joints are looked
    at by the hold test alone, one was made since it was last wet or mended."""
    rounds, dry, until = 0, False, ""
    watch = kit.proving.watch(line.service)
    waits = watch.wait_s
    if not watch.each and not _held_since(line, _undone_at(work)):
        return 0, False
    for event in work.events:
        if event.what == "next door" or (event.what == "dry" and (not waits or _past(event.at, until))):
            rounds, dry, until = rounds + 1, True, ""
        elif event.what != "dry":
            dry = False
            until = _later(event.at, waits) if event.what == "dried" else ""
    return rounds, dry


def _undone_at(work: JointWork) -> str:
    """When a joint was last found wet, or mended; blank where it never was."""
    return next((event.at for event in reversed(work.events) if event.what in ("wet", *MENDED)), "")


def _held_since(line: Line, at: str) -> bool:
    """Whether a hold test was made after a local time; no where either is not known."""
    return any(_past(hold.at, at) for hold in line.proving.holds)


def _later(at: str, seconds: float) -> str:
    """That many seconds after a local time; blank where the time is not known."""
    try:
        return (datetime.fromisoformat(at) + timedelta(seconds=seconds)).isoformat(timespec="seconds")
    except ValueError:
        return ""


def _past(at: str, until: str) -> bool:
    """Whether a local time is `until` or later; no where either is not known."""
    try:
        return datetime.fromisoformat(at) >= datetime.fromisoformat(until)
    except ValueError:
        return False


def _made(
    line: Line, kit: Kit, joint: LineJoint, work: JointWork | None
) -> tuple[Literal["", "too loose", "too tight"], str]:
    """Whether what was noted of its tightness is off, as far as a wrench can tell, and what cannot be read.
    A figure may be that of the joint or that set on the wrench; in words it is not judged."""
    if work is None:
        return "", ""
    try:
        if work.aim.strip():
            parse_torque(work.aim, line.unit)
        if not is_torque(work.tight):
            return "", ""
        least, most = parse_torque(work.tight, line.unit)
    except UnitError as error:
        return "", str(error)
    if joint.torque is None:
        return "", ""
    low, high = joint.torque.least_nm, joint.torque.most_nm
    if joint.set_nm is not None:
        low, high = min(low, joint.set_nm[0]), max(high, joint.set_nm[1])
    spread = kit.limits["torque_spread"].value
    if most > high * (1 + spread):
        return "too tight", ""
    return ("too loose", "") if least < low * (1 - spread) else ("", "")


def _binds(kit: Kit, joint: LineJoint, work: JointWork | None) -> tuple[str, tuple[str, ...]]:
    """A nut that stopped short by hand, and its likely causes from the thread tables."""
    if (
        work is None
        or joint.turns is None
        or not work.turns.strip()
        or not kit.proving.closings[joint.closes].screwed
    ):
        return "", ()
    try:
        turns = float(work.turns)
    except ValueError:
        return "", ()
    if turns >= joint.turns - kit.proving.thread.short:
        return "", ()
    told = f"It stopped after {turns:g} turns; about {joint.turns:.0f} are expected. No wrench on it: back"
    return f"{told} it out.", tuple(_causes(kit, joint, turns))


def _causes(kit: Kit, joint: LineJoint, turns: float) -> list[str]:
    causes = []
    try:
        nut = kit.thread(joint.thread)
    except ThreadError:
        return ["cross-threaded, or dirt or paint in the thread"]
    ports = [joint.port_thread] if joint.port_thread.strip() else list(kit.threads)
    for name in ports:
        try:
            port = kit.thread(name)
            fit = thread_fit(nut, port, kit.least_engagement)
        except ThreadError:
            continue
        bound = fit.turns_before_binding
        if fit.verdict == "binds" and bound is not None and abs(bound - turns) <= kit.proving.thread.near:
            causes.append(
                f"the port is {port.designation}: {nut.designation} binds in it after about {bound:.0f} turns"
            )
    causes = causes[:_MOST_CAUSES]
    causes.append(
        "cross-threaded: back it out, start it again by hand, turned backwards first until it drops in"
    )
    causes.append("dirt, paint or a damaged first thread: clean both, chase it with a nut of its kind")
    return causes

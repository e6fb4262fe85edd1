"""Rules on the ends: room for nut, flare and tools, the nut itself, and its thread in the port."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.bend.tube.ends import trial_counts
from bendrel.core.findings import EndName, Finding, Fix
from bendrel.core.joints.closing import hand_step, joint_id
from bendrel.core.joints.mate import fit_words
from bendrel.core.judge.case import Case, choose, set_value
from bendrel.core.line.run import ENDS
from bendrel.core.parts.fits import nut_for_port, nut_in_port
from bendrel.core.parts.fitting import Nut
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.fit import MixedThreads, ThreadFit
from bendrel.core.units.lengths import is_blank


def judge_ends(case: Case) -> Iterator[Finding]:
    """Findings on both ends and on the spare."""
    for end in ENDS:
        if not case.rigid.new:
            yield from _nut(case, end)
            continue
        if case.fittings[end].flared:
            yield from _room(case, end)
        else:
            yield from _grip(case, end)
        yield from _nut(case, end)
        yield from _trial(case, end)
    yield from _spare(case)


def _nearest_bend(case: Case, end: EndName) -> int:
    return 1 if end == "A" else len(case.part.bends)


def _room(case: Case, end: EndName) -> Iterator[Finding]:
    room, bends = case.rooms[end], case.part.bends
    if not bends or room.straight_mm < 0 or len(room.orders) == 2:
        return
    bend = _nearest_bend(case, end)
    held = case.part.held_end == end
    usual = "before" if held else "after"
    have = case.say(max(0.0, room.straight_mm))
    source = case.kit.advice["end_room"].source
    if not room.orders:
        least = min(room.before_mm, room.after_mm)
        have, _ = case.say_apart(max(0.0, room.straight_mm), least)
        yield case.told(
            "end_room",
            case.at_end(end),
            source=source,
            bend=bend,
            have=have,
            before=case.say(room.before_mm),
            after=case.say(room.after_mm),
            straight=case.say(least - room.straight_mm),
        )
    elif room.orders[0] != usual:
        order, needs = room.orders[0], room.after_mm if usual == "after" else room.before_mm
        tool = "the flaring tool" if usual == "after" else "the bender"
        have, needed = case.say_apart(room.straight_mm, needs)
        yield case.told(
            "flare_order",
            case.at_end(end),
            source=source,
            order=order,
            bend=bend,
            have=have,
            tool=tool,
            needed=needed,
            more="Flared first, this end cannot be trimmed: cut to the figure without spare."
            if order == "before"
            else "The marks are taken from the cut end.",
        )


def _grip(case: Case, end: EndName) -> Iterator[Finding]:
    """An unflared end only needs what the bender holds; the far end still has its spare."""
    if not case.part.bends:
        return
    held = case.part.held_end == end
    need = case.bender.least_before_first_mm if held else case.bender.least_after_last_mm
    long = (case.part.end_a if end == "A" else case.part.end_b).leave_long_mm
    have = case.rooms[end].straight_mm + long + (0.0 if held else case.part.spare_mm)
    if 0 <= have < need - case.hand_mm:
        bend = _nearest_bend(case, end)
        told, needed = case.say_apart(have, need)
        yield case.told(
            "bender_grip", case.at_end(end), source=case.bender.source, bend=bend, told=told, needed=needed
        )


def _nut(case: Case, end: EndName) -> Iterator[Finding]:
    fitting, nut = case.fittings[end], case.nuts[end]
    if not fitting.screwed or not case.run.end(end).opened:
        return
    thread = case.run.end(end).meets.thread.strip()
    fix = _other_nut(case, end)
    if nut is None:
        yield case.told(
            "no_nut",
            case.at_end(end),
            advice="Choose the nut."
            if case.kit.nuts_for(fitting.id, case.tube.size)
            else "None is listed: measure the one off the old line and add it to the shop’s own entries.",
            fix=fix,
        )
        return
    if nut.fitting != fitting.id or not case.kit.goes_on(nut.size, case.tube.size):
        made_for = case.kit.fittings[nut.fitting].name
        yield case.told(
            "nut_mismatch",
            case.at_end(end),
            fix=fix,
            thread=nut.thread,
            size=nut.size,
            made_for=made_for,
            fitting=fitting.name,
            more=f" with the port’s {thread}." if thread else ".",
        )
    if case.run.end(end).at_port and not case.run.end(end).beyond:
        yield from _port(case, end, nut)


def _other_nut(case: Case, end: EndName) -> Fix | None:
    """The nut of this end that the port takes; None where no such nut is made."""
    fitting, at = case.fittings[end], case.run.end(end)
    nut = nut_for_port(case.kit, fitting, case.tube.size, at.meets.thread)
    if nut is None or nut.id == at.tube.nut:
        return None
    return choose(f"Use the {nut.thread} nut", (at.tube_at("nut"), nut.id))


def _port(case: Case, end: EndName, nut: Nut) -> Iterator[Finding]:
    at = case.run.end(end)
    fit: ThreadFit | None = None
    if at.port.thread.strip():
        try:
            fit = nut_in_port(case.kit, case.fittings[end], nut, at.port.thread)
        except MixedThreads as error:
            yield case.told("threads_mixed", case.at_end(end), message=str(error), fix=_other_nut(case, end))
            return
        except ThreadError as error:
            yield case.told("port_thread_unread", case.at_end(end), message=str(error))
    if fit is not None and fit.verdict != "fits":
        yield case.told(
            "nut_port",
            case.at_end(end),
            message=fit_words(fit, over=case.fittings[end].thread == "female"),
            fix=_other_nut(case, end),
            verdict=_VERDICTS[fit.verdict],
        )
    elif not at.port.proved and not case.run.line.proving.ticked(hand_step(joint_id(at.span, end))):
        yield case.told(
            "prove_nut", case.at_end(end), fix=set_value("It runs home by hand", at.port_at("proved"), True)
        )


_VERDICTS = {
    "binds": "this nut will jam",
    "loose": "this nut will not hold",
    "will_not_start": "this nut will not start",
}


def _trial(case: Case, end: EndName) -> Iterator[Finding]:
    """A flared test piece that was made with another end type or size does not count."""
    trial = case.run.end(end).tube.trial
    if trial is None or is_blank(trial.used):
        return
    if trial_counts(case.kit, trial, case.fittings[end], case.tube.size):
        return
    made = case.kit.fittings.get(trial.fitting)
    what = f"{made.name}, {trial.size}" if made else "another end"
    yield case.told("trial_stale", case.at_end(end), what=what, name=case.fittings[end].name)


def _spare(case: Case) -> Iterator[Finding]:
    if not case.rigid.new or case.part.spare_mm > 0 or not any(f.flared for f in case.fittings.values()):
        return
    text = '1"' if case.line.unit == "in" else "25 mm"
    yield case.told(
        "no_spare",
        case.at_end("B" if case.part.held_end == "A" else "A"),
        fix=Fix(
            label=f"Add {text}",
            changes=(
                set_value("", case.run.at("spare", "exact_mm"), None).changes[0],
                set_value("", case.run.at("spare", "text"), text).changes[0],
            ),
        ),
    )

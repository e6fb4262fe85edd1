"""Rules on the ends: room for nut, flare and tools, the nut itself, and its thread in the port."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.bend.tube.ends import trial_counts
from bendrel.core.findings import EndName, Finding, Fix
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
        yield Finding(
            severity="stop",
            code="end_room",
            where=case.at_end(end),
            title=f"Bend {bend} traps the nut at end {end}",
            message=(
                f"{have} of straight at {end}. Flared before bending it needs "
                f"{case.say(room.before_mm)} (flare, nut, bender), after bending "
                f"{case.say(room.after_mm)} (flare, nut, flaring tool)."
            ),
            source=source,
            advice=f"Move bend {bend} {case.say(least - room.straight_mm)} away from end {end}.",
        )
    elif room.orders[0] != usual:
        order, needs = room.orders[0], room.after_mm if usual == "after" else room.before_mm
        tool = "the flaring tool" if usual == "after" else "the bender"
        have, needed = case.say_apart(room.straight_mm, needs)
        yield Finding(
            severity="caution",
            code="flare_order",
            where=case.at_end(end),
            title=f"Flare end {end} {order} bend {bend}",
            message=(
                f"{have} of straight at {end}; flare, nut and {tool} need {needed}, "
                f"so the usual order leaves no room. "
                + (
                    "Flared first, this end cannot be trimmed: cut to the figure without spare."
                    if order == "before"
                    else "The marks are taken from the cut end."
                )
            ),
            source=source,
            advice="The marks of this plan already follow that order.",
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
        yield Finding(
            severity="stop",
            code="bender_grip",
            where=case.at_end(end),
            title=f"Bend {bend} is too close to end {end}",
            message=f"{told} of tube beyond the bend; {case.bender.name} needs {needed}.",
            source=case.bender.source,
            advice="Leave more spare at that end and trim it after bending.",
        )


def _nut(case: Case, end: EndName) -> Iterator[Finding]:
    fitting, nut = case.fittings[end], case.nuts[end]
    if not fitting.screwed or not case.run.end(end).opened:
        return
    thread = case.run.end(end).meets.thread.strip()
    fix = _other_nut(case, end)
    if nut is None:
        yield Finding(
            severity="caution",
            code="no_nut",
            where=case.at_end(end),
            title=f"End {end} has no nut yet",
            message="Without its length the room at this end cannot be checked.",
            source=case.kit.advice["end_room"].source,
            advice="Choose the nut."
            if case.kit.nuts_for(fitting.id, case.tube.size)
            else "None is listed: measure the one off the old line and add it to the shop’s own entries.",
            fix=fix,
        )
        return
    if nut.fitting != fitting.id or not case.kit.goes_on(nut.size, case.tube.size):
        made_for = case.kit.fittings[nut.fitting].name
        yield Finding(
            severity="stop",
            code="nut_mismatch",
            where=case.at_end(end),
            title=f"End {end}: this nut is for another end",
            message=(
                f"The {nut.thread} nut is made for {nut.size} tube with {made_for}; "
                f"this end is {case.tube.size} with {fitting.name}. The pair looks right and leaks."
            ),
            source=case.kit.advice["seat_pairs"].source,
            advice="Choose a nut made for this end" + (f" with the port’s {thread}." if thread else "."),
            fix=fix,
            safety=case.service.safety_critical,
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
    rule = case.kit.advice["prove_nut"]
    fit: ThreadFit | None = None
    if at.port.thread.strip():
        try:
            fit = nut_in_port(case.kit, case.fittings[end], nut, at.port.thread)
        except MixedThreads as error:
            yield Finding(
                severity="stop",
                code="threads_mixed",
                where=case.at_end(end),
                title=f"End {end}: two threads that never mate",
                message=str(error),
                source=case.kit.advice["thread_fit"].source,
                advice="Use an adapter, or an end with the port’s own thread.",
                fix=_other_nut(case, end),
                safety=True,
            )
            return
        except ThreadError as error:
            yield Finding(
                severity="caution",
                code="port_thread_unread",
                where=case.at_end(end),
                title=f"End {end}: the port’s thread cannot be read",
                message=str(error),
                source=rule.source,
                advice="Correct the port’s thread, or leave it blank until it is measured.",
            )
    if fit is not None and fit.verdict != "fits":
        yield Finding(
            severity="stop",
            code="nut_port",
            where=case.at_end(end),
            title=f"End {end}: {_VERDICTS[fit.verdict]}",
            message=fit_words(fit, over=case.fittings[end].thread == "female"),
            source=case.kit.advice["thread_fit"].source,
            advice="Use a nut with the port’s own thread.",
            fix=_other_nut(case, end),
            safety=True,
        )
    elif not at.port.proved:
        yield Finding(
            severity="note",
            code="prove_nut",
            where=case.at_end(end),
            title=f"End {end}: prove the nut in the port",
            message=rule.text,
            source=rule.source,
            fix=set_value("It runs home by hand", at.port_at("proved"), True),
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
    rule = case.kit.advice["trial_piece"]
    made = case.kit.fittings.get(trial.fitting)
    what = f"{made.name}, {trial.size}" if made else "another end"
    yield Finding(
        severity="note",
        code="trial_stale",
        where=case.at_end(end),
        title=f"End {end}: the test piece is not counted",
        message=f"It was {what}; this is {case.fittings[end].name}, {case.tube.size}. {rule.text}",
        source=rule.source,
        advice="Flare one with this end, or clear the figure.",
    )


def _spare(case: Case) -> Iterator[Finding]:
    if not case.rigid.new or case.part.spare_mm > 0 or not any(f.flared for f in case.fittings.values()):
        return
    rule = case.kit.advice["spare"]
    text = '1"' if case.line.unit == "in" else "25 mm"
    yield Finding(
        severity="note",
        code="no_spare",
        where=case.at_end("B" if case.part.held_end == "A" else "A"),
        title="No spare for a failed flare",
        message=rule.text,
        source=rule.source,
        fix=Fix(
            label=f"Add {text}",
            changes=(
                set_value("", case.run.at("spare", "exact_mm"), None).changes[0],
                set_value("", case.run.at("spare", "text"), text).changes[0],
            ),
        ),
    )

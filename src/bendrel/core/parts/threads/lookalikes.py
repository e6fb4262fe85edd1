"""Threads that are taken for one another, and the one test that tells them apart."""

from __future__ import annotations

from collections.abc import Iterable

from bendrel.core.parts.threads.designation import Thread, ThreadError
from bendrel.core.parts.threads.fit import ThreadFit, thread_fit
from bendrel.core.parts.threads.tolerance import male_limits
from bendrel.core.record import record
from bendrel.core.units.notation import MM_PER_INCH


@record
class Likeness:
    """How near two threads must be to be taken for one another without trying them: difference of
    the crest diameters in mm or as a share, and of the pitches as a share. `tell_mm` is the least difference
    that a caliper in the shop tells, `tell_pitch` the same for a pitch gauge, as a share."""

    diameter_mm: float
    diameter_share: float
    pitch_share: float
    tell_mm: float
    tell_pitch: float


@record
class LookAlike:
    """Another thread that this one is taken for. `male_in` is the first turned into the other,
    `other_in` the other turned into the first; None where they can not be compared."""

    designation: str
    why: str
    test: str
    male_in: ThreadFit | None
    other_in: ThreadFit | None


def look_alikes(
    thread: Thread, others: Iterable[Thread], likeness: Likeness, least_engagement: float
) -> tuple[LookAlike, ...]:
    """Every one of `others` that starts in `thread` or the other way round and then binds, or that
    measures nearly the same; the nearest first."""
    found = []
    for other in others:
        if other.designation == thread.designation:
            continue
        fits = _fits(thread, other, least_engagement)
        why = _why(thread, other, fits, likeness)
        if why:
            found.append(
                LookAlike(
                    designation=other.designation,
                    why=why,
                    test=telling_test(thread, other, likeness),
                    male_in=fits[0],
                    other_in=fits[1],
                )
            )
    by_name = {other.designation: other for other in others}
    return tuple(sorted(found, key=lambda like: _distance(thread, by_name[like.designation])))


def telling_test(one: Thread, other: Thread, likeness: Likeness) -> str:
    """The one test that separates two threads, with its figures."""
    if one.taper != other.taper:
        tapered, parallel = (one, other) if one.taper else (other, one)
        return (
            f"Lay a straight-edge along the crests: {tapered.designation} tapers 1 in 16, "
            f"{parallel.designation} touches along its whole length."
        )
    if abs(one.pitch_mm - other.pitch_mm) / one.pitch_mm >= likeness.tell_pitch:
        apart = abs(one.pitch_mm - other.pitch_mm) * 10
        return (
            f"Pitch gauge: {say_pitch(one)} for {one.designation}, {say_pitch(other)} for "
            f"{other.designation}. Over ten threads they are {apart:.1f} mm apart."
        )
    crests = male_limits(one).major.middle, male_limits(other).major.middle
    if abs(crests[0] - crests[1]) >= likeness.tell_mm:
        return (
            f"Caliper over the crests of the male: {crests[0]:.2f} mm for {one.designation}, "
            f"{crests[1]:.2f} mm for {other.designation}."
        )
    if one.flank_deg != other.flank_deg:
        return (
            f"Hold a {one.flank_deg}° and a {other.flank_deg}° profile gauge to the light: one shows a "
            "gap at crest or root."
        )
    return "Try a known plug or nut of each by hand, all the way; measuring does not tell them apart."


def say_turns(turns: float) -> str:
    """When a thread binds, in words."""
    return "at once" if turns < 0.1 else f"after about {turns:.1f} turns"


def say_pitch(thread: Thread) -> str:
    """The pitch as the trade says it: 24 per inch, or 1 mm."""
    if thread.series == "metric":
        return f"{thread.pitch_mm:g} mm"
    return f"{MM_PER_INCH / thread.pitch_mm:g} per inch"


def _fits(one: Thread, other: Thread, least: float) -> tuple[ThreadFit | None, ThreadFit | None]:
    try:
        return thread_fit(one, other, least), thread_fit(other, one, least)
    except ThreadError:
        return None, None


def _why(
    one: Thread, other: Thread, fits: tuple[ThreadFit | None, ThreadFit | None], likeness: Likeness
) -> str:
    said = [
        f"{fit.male} starts in {fit.female} and binds {say_turns(fit.turns_before_binding or 0.0)}"
        for fit in fits
        if fit is not None and fit.verdict == "binds"
    ]
    if said:
        return "; ".join(said)
    crests = abs(male_limits(one).major.middle - male_limits(other).major.middle)
    pitches = abs(one.pitch_mm - other.pitch_mm) / one.pitch_mm
    near = max(likeness.diameter_mm, likeness.diameter_share * one.diameter_mm)
    if crests <= near and pitches <= likeness.pitch_share:
        return f"crests {crests:.2f} mm apart, pitches {pitches:.1%} apart"
    return ""


def _distance(one: Thread, other: Thread) -> float:
    """Nearness for sorting: diameters in mm and pitches in tenths of a thread alike."""
    return abs(one.diameter_mm - other.diameter_mm) + 10 * abs(one.pitch_mm - other.pitch_mm)

"""One thread turned into another: does it start, when does it bind, does it hold."""

from __future__ import annotations

from math import radians, tan
from typing import Literal

from bendrel.core.parts.threads.designation import Thread, ThreadError
from bendrel.core.parts.threads.tolerance import FemaleLimits, MaleLimits, female_limits, male_limits
from bendrel.core.record import record

Verdict = Literal["fits", "binds", "loose", "will_not_start"]

SAME_PITCH_MM = 1e-9


@record
class ThreadFit:
    """A male thread in a female one, both at mid-tolerance.

    `clearance_mm` is δ = D2(female) − d2(male). `turns_before_binding` is None when the pitches
    are equal or the thread does not start. `engagement` is 1 for the proper pair, 0 when the
    male drops through or does not start.
    """

    male: str
    female: str
    starts: bool
    clearance_mm: float
    turns_before_binding: float | None
    engagement: float
    verdict: Verdict


class MixedThreads(ThreadError):
    """Two threads of different form: other flanks, or a tapered one with a parallel one. They never mate."""


def thread_fit(male: Thread, female: Thread, least_engagement: float) -> ThreadFit:
    """Compare two threads of one form: both with the same flanks, both parallel or both tapered.

    `least_engagement` is the share of a proper thread's depth in mesh below which threads of one
    pitch do not hold.

    It does not start when the largest female pitch diameter is under the smallest male one.
    Otherwise, with different pitches, it binds after max(δ, 0)·tan 30° / |p_m − p_f| turns (lead
    chamfers, about one turn more, not counted). Source: derived from the 60° profile with ISO
    965-1 and ASME B1.1 limits; 27.5° for 55° flanks. Raises MixedThreads for mixed forms.
    """
    _refuse_mixed(male, female)
    m, f = male_limits(male), female_limits(female)
    clearance = f.pitch.middle - m.pitch.middle
    starts = f.pitch.most - m.pitch.least >= 0
    step = abs(male.pitch_mm - female.pitch_mm)
    turns: float | None = None
    if starts and step > SAME_PITCH_MM:
        turns = max(clearance, 0.0) * tan(radians(male.flank_deg / 2)) / step
    overlap = _overlap(m, f)
    engagement = min(1.0, max(0.0, overlap / _overlap(male_limits(female), f))) if starts else 0.0
    return ThreadFit(
        male=male.designation,
        female=female.designation,
        starts=starts,
        clearance_mm=clearance,
        turns_before_binding=turns,
        engagement=engagement,
        verdict=_verdict(starts, turns, engagement, least_engagement),
    )


def _refuse_mixed(male: Thread, female: Thread) -> None:
    pair = f"{male.designation} in {female.designation}"
    if male.flank_deg != female.flank_deg:
        raise MixedThreads(
            f"{pair}: {male.flank_deg}° flanks never mate with {female.flank_deg}° ones, even where "
            "diameter and pitch nearly agree: it tightens on the edges and leaks or strips."
        )
    if male.taper != female.taper:
        tapered = male if male.taper else female
        raise MixedThreads(
            f"{pair}: {tapered.designation} is tapered and seals on its thread; in a parallel one it "
            "holds by a turn or two and splits the port when tightened. Use an adapter."
        )


def _overlap(male: MaleLimits, female: FemaleLimits) -> float:
    """Male major over female minor diameter, both at mid-tolerance: the depth in mesh, twice."""
    return male.major.middle - female.minor.middle


def _verdict(starts: bool, turns: float | None, engagement: float, least: float) -> Verdict:
    if not starts:
        return "will_not_start"
    if engagement <= 0:
        return "loose"
    if turns is not None:
        return "binds"
    return "fits" if engagement >= least else "loose"

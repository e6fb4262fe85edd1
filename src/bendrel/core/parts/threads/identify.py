"""Which thread is it? Candidates for a caliper reading and a pitch reading, likeliest first."""

from __future__ import annotations

from collections.abc import Iterable
from math import exp, log, sqrt
from typing import Literal

from bendrel.core.parts.threads.designation import Thread
from bendrel.core.parts.threads.tolerance import Band, female_limits, male_limits
from bendrel.core.record import record

Gender = Literal["male", "female"]
TaperSeen = Literal["tapered", "parallel", "not sure"]

TAPER = 16.0
"""Diameter over length of tapered pipe threads: ASME B1.20.1, ISO 7-1."""
LIKELY_ENOUGH = 0.001
"""Candidates under this share of the whole likelihood are left out."""


@record
class ThreadReading:
    """What was measured: the crest diameter of a male thread or the bore of a female one, and the
    pitch, in mm, each with the most that it may be off."""

    gender: Gender
    diameter_mm: float
    diameter_error_mm: float
    pitch_mm: float | None
    pitch_error_mm: float
    taper: TaperSeen = "not sure"


@record
class Candidate:
    """One thread that the reading may be. `share` is its part of the whole likelihood; `within` says
    that both readings agree with it within their errors; the other two are what it would have
    measured."""

    designation: str
    share: float
    within: bool
    diameter_mm: float
    pitch_mm: float


def expected_diameter(thread: Thread, gender: Gender) -> Band:
    """What a caliper finds on a sound thread: crests of a male, bore of a female, in mm. On a tapered male
    one it may sit anywhere from the gauge plane down to the small end, a sixteenth of the way less."""
    if gender == "female":
        return female_limits(thread).minor
    major = male_limits(thread).major
    if not thread.taper:
        return major
    return Band(least=major.least - thread.gauge_length_mm / TAPER, most=major.most)


def identify(reading: ThreadReading, threads: Iterable[Thread], most: int = 6) -> tuple[Candidate, ...]:
    """The threads that `reading` may be, likeliest first.

    Each error is taken as two standard deviations, the thread's own tolerance as evenly spread
    (its width over √12), and both readings as independent. Source: derived (Gaussian likelihood).
    """
    weighed = [(thread, _misses(reading, thread)) for thread in threads if _may_be(reading, thread)]
    if not weighed:
        return ()
    logs = [(thread, misses, _log_likelihood(misses)) for thread, misses in weighed]
    best = max(weight for _, _, weight in logs)
    whole = sum(exp(weight - best) for _, _, weight in logs)
    ranked = sorted(logs, key=lambda row: (-row[2], row[0].diameter_mm, row[0].designation))
    return tuple(
        Candidate(
            designation=thread.designation,
            share=exp(weight - best) / whole,
            within=all(miss <= 2 * sigma for miss, sigma in misses),
            diameter_mm=expected_diameter(thread, reading.gender).middle,
            pitch_mm=thread.pitch_mm,
        )
        for thread, misses, weight in ranked[:most]
        if exp(weight - best) / whole >= LIKELY_ENOUGH
    )


def _may_be(reading: ThreadReading, thread: Thread) -> bool:
    if reading.taper == "not sure":
        return True
    return thread.taper == (reading.taper == "tapered")


def _misses(reading: ThreadReading, thread: Thread) -> list[tuple[float, float]]:
    """(how far off, standard deviation) of each reading, in mm."""
    band = expected_diameter(thread, reading.gender)
    sigma = sqrt((reading.diameter_error_mm / 2) ** 2 + ((band.most - band.least) ** 2) / 12)
    misses = [(abs(reading.diameter_mm - band.middle), sigma)]
    if reading.pitch_mm is not None:
        misses.append((abs(reading.pitch_mm - thread.pitch_mm), reading.pitch_error_mm / 2))
    return misses


def _log_likelihood(misses: list[tuple[float, float]]) -> float:
    return sum(-((miss / sigma) ** 2) / 2 - log(sigma) for miss, sigma in misses)

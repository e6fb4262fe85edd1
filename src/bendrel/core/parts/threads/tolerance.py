"""Limits of size: ISO 965-1 (6g/6H) and ASME B1.1 (2A/2B) from their formulas, pipe threads from
their table."""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise
from math import floor, log10, sqrt

from bendrel.core.parts.threads.designation import Thread
from bendrel.core.record import record
from bendrel.core.units.notation import MM_PER_INCH

# Heights of the basic profile as a share of the pitch: ISO 68-1, ASME B1.1
PITCH_DIAMETER_DROP = 0.649519
MINOR_DIAMETER_DROP = 1.082532

# The same for pipe threads, 55° (ISO 228-1) and 60° (ASME B1.20.1): a thread is twice as deep as the
# drop from crest to pitch line
PIPE_DROPS = {55: 0.640327, 60: 0.8}

# ISO 965-1: nominal diameters are grouped, and a group's tolerance is that of the geometric mean
_ISO_GROUPS = (0.99, 1.4, 2.8, 5.6, 11.2, 22.4, 45.0, 90.0, 180.0, 355.0)


# ISO 3, R40: ISO 965-1 rounds its tolerances to these preferred numbers
_R40 = (
    100, 106, 112, 118, 125, 132, 140, 150, 160, 170, 180, 190, 200, 212, 224, 236, 250, 265, 280, 300,
    315, 335, 355, 375, 400, 425, 450, 475, 500, 530, 560, 600, 630, 670, 710, 750, 800, 850, 900, 950,
)  # fmt: skip
_FEMALE_STEPS = 5
"""ISO 965-1: the female pitch diameter's tolerance is 1.32 times the male one's, five steps of R40."""


@lru_cache(maxsize=1024)  # a shop has few pitches, and asks at every key
def _r40(value: float, steps: int = 0) -> float:
    """The nearest preferred number, and so many steps above it."""
    decade = 10.0 ** floor(log10(value) - 2)
    near = min(range(-1, len(_R40) + 1), key=lambda k: (abs(_preferred(k) * decade - value), -k))
    return _preferred(near + steps) * decade


def _preferred(at: int) -> float:
    turns, index = divmod(at, len(_R40))
    return _R40[index] * 10.0**turns


@record
class Band:
    """Smallest and largest size allowed, in mm."""

    least: float
    most: float

    @property
    def middle(self) -> float:
        """Mid-tolerance size."""
        return (self.least + self.most) / 2


@record
class MaleLimits:
    """Limits of an external thread, in mm."""

    major: Band
    pitch: Band


@record
class FemaleLimits:
    """Limits of an internal thread, in mm."""

    pitch: Band
    minor: Band


def basic_pitch_diameter(thread: Thread) -> float:
    """d2 = d − 0.649519·p in mm; d − 0.640327·p (55°) or d − 0.8·p (NPT) for pipe threads.

    Source: ISO 724, ASME B1.1; ISO 228-1, ASME B1.20.1.

    >>> from bendrel.core.parts.threads.designation import parse_thread
    >>> round(basic_pitch_diameter(parse_thread("M10x1", {})), 3)
    9.35
    """
    drop = PITCH_DIAMETER_DROP if thread.series in ("metric", "inch") else PIPE_DROPS[thread.flank_deg]
    return thread.diameter_mm - drop * thread.pitch_mm


def basic_minor_diameter(thread: Thread) -> float:
    """D1 = d − 1.082532·p in mm; twice the pipe thread's drop. Source: as `basic_pitch_diameter`.

    >>> from bendrel.core.parts.threads.designation import parse_thread
    >>> round(basic_minor_diameter(parse_thread("M10x1", {})), 3)
    8.917
    """
    drop = MINOR_DIAMETER_DROP if thread.series in ("metric", "inch") else 2 * PIPE_DROPS[thread.flank_deg]
    return thread.diameter_mm - drop * thread.pitch_mm


def male_limits(thread: Thread) -> MaleLimits:
    """External thread at 6g (metric), 2A (inch) or as the pipe thread's table says (ISO 228-1 class A:
    the major diameter's tolerance is twice the pitch diameter's)."""
    allowance: float
    if thread.series == "whitworth":
        allowance, pitch = 0.0, _bs_84(thread)
        major = pitch + _bs_84_crest(thread)
    elif thread.series == "pipe":
        allowance, pitch = 0.0, thread.pitch_tolerance_mm
        major = 2 * pitch
    elif thread.series == "metric":
        p = thread.pitch_mm
        allowance = (15 + 11 * p) / 1000
        major = _r40(180 * p ** (2 / 3) - 3.15 / sqrt(p)) / 1000
        pitch = _iso_pitch_tolerance(thread)
    else:
        allowance, major, pitch = 0.3 * _asme_2a(thread), _asme_major(thread), _asme_2a(thread)
    top = thread.diameter_mm - allowance
    middle = basic_pitch_diameter(thread) - allowance
    return MaleLimits(major=Band(least=top - major, most=top), pitch=Band(least=middle - pitch, most=middle))


def female_limits(thread: Thread) -> FemaleLimits:
    """Internal thread at 6H (metric), 2B (inch) or as the pipe thread's table says."""
    p = thread.pitch_mm
    if thread.series == "whitworth":
        pitch, minor = _bs_84(thread), 0.2 * p + 0.102  # 0.004 in and a fifth of the pitch
    elif thread.series == "pipe":
        pitch, minor = thread.pitch_tolerance_mm, thread.minor_tolerance_mm
    elif thread.series == "metric":
        pitch = _iso_pitch_tolerance(thread, _FEMALE_STEPS)
        minor = _r40(230 * p**0.7 if p >= 1 else 433 * p - 190 * p**1.22) / 1000
    else:
        pitch = 1.3 * _asme_2a(thread)
        minor = _asme_minor(thread)
    low, bore = basic_pitch_diameter(thread), basic_minor_diameter(thread)
    return FemaleLimits(pitch=Band(least=low, most=low + pitch), minor=Band(least=bore, most=bore + minor))


def _iso_pitch_tolerance(thread: Thread, steps: int = 0) -> float:
    """Td2 grade 6 in mm: 90·p^0.4·d^0.1 µm, d the geometric mean of the diameter group, rounded to R40 and
    so many `steps` above."""
    low, high = next((a, b) for a, b in pairwise(_ISO_GROUPS) if thread.diameter_mm <= b)
    return _r40(90 * thread.pitch_mm**0.4 * sqrt(low * high) ** 0.1, steps) / 1000


def _bs_84(thread: Thread) -> float:
    """Effective diameter tolerance of Whitworth threads, medium fit, in mm, engagement one diameter:
    0.002·D^(1/3) + 0.003·√D + 0.005·√p with inches. Source: BS 84."""
    d, p = thread.diameter_mm / MM_PER_INCH, thread.pitch_mm / MM_PER_INCH
    return float(0.002 * d ** (1 / 3) + 0.003 * sqrt(d) + 0.005 * sqrt(p)) * MM_PER_INCH


def _bs_84_crest(thread: Thread) -> float:
    """What the crests may vary more than the flanks: 0.01·√p with inches. Source: BS 84."""
    return float(0.01 * sqrt(thread.pitch_mm / MM_PER_INCH)) * MM_PER_INCH


def _asme_2a(thread: Thread) -> float:
    """Pitch diameter tolerance of class 2A in mm, length of engagement one diameter:
    0.0015·D^(1/3) + 0.0015·√D + 0.015·p^(2/3) with inches."""
    d, p = thread.diameter_mm / MM_PER_INCH, thread.pitch_mm / MM_PER_INCH
    return float(0.0015 * d ** (1 / 3) + 0.0015 * sqrt(d) + 0.015 * p ** (2 / 3)) * MM_PER_INCH


def _asme_major(thread: Thread) -> float:
    """Major diameter tolerance of class 2A in mm: 0.060·p^(2/3) with inches."""
    return float(0.060 * (thread.pitch_mm / MM_PER_INCH) ** (2 / 3)) * MM_PER_INCH


def _asme_minor(thread: Thread) -> float:
    """Minor diameter tolerance of class 2B in mm, within the standard's own bounds."""
    d, p = thread.diameter_mm / MM_PER_INCH, thread.pitch_mm / MM_PER_INCH
    usual = 0.25 * p - 0.40 * p**2
    if d < 0.25:
        usual = min(0.394 * p, max(usual, 0.05 * p ** (2 / 3) + 0.03 * p / d - 0.002))
    return float(usual) * MM_PER_INCH

"""Reading a thread's designation, such as `3/8-24` or `M10x1`."""

from __future__ import annotations

import re
from typing import Literal

from bendrel.core.record import record
from bendrel.core.units import MM_PER_INCH

Series = Literal["metric", "inch"]


class ThreadError(ValueError):
    """A thread that cannot be read or compared. The text is meant for the person."""


@record
class Thread:
    """A parallel 60° thread: nominal diameter and pitch in mm."""

    designation: str
    series: Series
    diameter_mm: float
    pitch_mm: float


_METRIC = re.compile(r"m\s*([0-9]{1,3}(?:\.[0-9]+)?)\s*[x×*]\s*([0-9](?:\.[0-9]+)?)")
_INCH = re.compile(
    r"(?:([0-9])(?:\s+|-))?([0-9]{1,2})/([0-9]{1,2})\s*-\s*([0-9]{1,2})|([0-9])\s*-\s*([0-9]{1,2})"
)
_NUMBERED = re.compile(r"(?:#|no\.?\s*)([0-9]{1,2})\s*-\s*([0-9]{1,2})")
_SUFFIX = re.compile(r"\s*(?:unc|unf|unef|uns|un)?\s*-?\s*(?:[123][ab]|[4-8][gh])?\s*\"?$")
_TAPERED = re.compile(r"npt|nptf|bspt|^\s*rc?\s*[0-9]|^\s*kegel")
_WHITWORTH = re.compile(r"bspp|bsp\b|bsw|bsf|^\s*g\s*[0-9]|whitworth")

EXAMPLES = "3/8-24, 7/16-20 UNF or M10x1"


def parse_thread(text: str) -> Thread:
    """Read a standard 60° parallel thread.

    Raises ThreadError for anything else; tapered and 55° threads are refused with the reason,
    since a parallel 60° comparison would be wrong for them.
    """
    shown = "".join(c if c.isprintable() else " " for c in text[:25]).strip()
    clean = text[:60].strip().lower().replace("–", "-").replace("″", '"')
    if _TAPERED.search(clean):
        raise ThreadError(
            f"“{shown}” is a tapered pipe thread; it seals on its taper and is not compared with "
            f"parallel threads. Give a 60° parallel thread such as {EXAMPLES}."
        )
    if _WHITWORTH.search(clean):
        raise ThreadError(
            f"“{shown}” has 55° flanks; it never mates with a 60° thread even where the "
            f"diameters agree. Give a 60° parallel thread such as {EXAMPLES}."
        )
    body = _SUFFIX.sub("", clean)
    metric = _METRIC.fullmatch(body)
    if metric:
        return _checked(shown, f"M{metric[1]}x{metric[2]}", float(metric[1]), float(metric[2]))
    if re.fullmatch(r"m\s*[0-9.]+", body):
        raise ThreadError(f"“{shown}” has no pitch; give it too, such as M10x1 or M10x1.25.")
    numbered = _NUMBERED.fullmatch(body)
    if numbered:
        # ASME B1.1: a numbered size is 0.060 in + 0.013 in for each number
        inches, tpi = 0.060 + 0.013 * int(numbered[1]), int(numbered[2])
        return _checked_inch(shown, f"#{numbered[1]}-{tpi}", inches, tpi)
    inch = _INCH.fullmatch(body)
    if not inch:
        raise ThreadError(f"“{shown}” is not a thread that can be read; write it like {EXAMPLES}.")
    if inch[5]:
        return _checked_inch(shown, f"{inch[5]}-{inch[6]}", float(inch[5]), int(inch[6]))
    whole, top, bottom, tpi = int(inch[1] or 0), int(inch[2]), int(inch[3]), int(inch[4])
    if not 0 < top < bottom:
        raise ThreadError(f"“{shown}” has an improper fraction; write it like {EXAMPLES}.")
    lead = f"{whole} " if whole else ""
    return _checked_inch(shown, f"{lead}{top}/{bottom}-{tpi}", whole + top / bottom, tpi)


def _checked_inch(shown: str, name: str, inches: float, tpi: int) -> Thread:
    if tpi < 1:
        raise ThreadError(f"“{shown}” has no threads per inch; write it like {EXAMPLES}.")
    return _checked(shown, name, inches * MM_PER_INCH, MM_PER_INCH / tpi, "inch")


def _checked(shown: str, name: str, diameter: float, pitch: float, series: Series = "metric") -> Thread:
    if not 1.0 <= diameter <= 300.0 or not 0.2 <= pitch <= 8.0 or pitch * 2 > diameter:
        raise ThreadError(
            f"“{shown}” is no real thread; diameters of 1 to 300 mm with a pitch of 0.2 to 8 mm "
            "that is under half the diameter are accepted."
        )
    return Thread(designation=name, series=series, diameter_mm=diameter, pitch_mm=pitch)

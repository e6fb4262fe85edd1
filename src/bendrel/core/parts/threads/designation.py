"""Reading a thread's designation, such as `3/8-24`, `M10x1` or `G1/8`."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le

from bendrel.core.errors import BendrelError
from bendrel.core.findings import Source
from bendrel.core.record import record
from bendrel.core.units.notation import MM_PER_INCH

Series = Literal["metric", "inch", "pipe", "whitworth"]


class ThreadError(BendrelError, ValueError):
    """A thread that cannot be read or compared. The text is meant for the person."""


@record
class Thread:
    """A thread: major diameter and pitch in mm; a tapered one's diameter is that at its gauge plane.

    `flank_deg` is the angle between the flanks, `gauge_length_mm` how far a tapered thread's gauge plane
    lies from its small end. The tolerances are given for pipe threads only;
    those of metric and inch threads follow from their standards' formulas.
    """

    designation: str
    series: Series
    diameter_mm: float
    pitch_mm: float
    flank_deg: int = 60
    taper: bool = False
    gauge_length_mm: float = 0.0
    pitch_tolerance_mm: float = 0.0
    minor_tolerance_mm: float = 0.0


@record
class PipeThread:
    """One row of the table of pipe threads. `gauge_length_mm` is the length of a tapered thread from
    its small end to the gauge plane, where `diameter_mm` is taken."""

    designation: str
    flank_deg: Annotated[int, Ge(55), Le(60)]
    taper: bool
    tpi: Annotated[float, Gt(0)]
    diameter_mm: Annotated[float, Gt(0)]
    pitch_tolerance_mm: Annotated[float, Ge(0)]
    minor_tolerance_mm: Annotated[float, Ge(0)]
    gauge_length_mm: float | None
    source: Source

    @property
    def thread(self) -> Thread:
        """The row as a thread."""
        return Thread(
            designation=self.designation,
            series="pipe",
            diameter_mm=self.diameter_mm,
            pitch_mm=MM_PER_INCH / self.tpi,
            flank_deg=self.flank_deg,
            taper=self.taper,
            gauge_length_mm=self.gauge_length_mm or 0.0,
            pitch_tolerance_mm=self.pitch_tolerance_mm,
            minor_tolerance_mm=self.minor_tolerance_mm,
        )


@record
class KnownThread:
    """A thread that fluid lines use, and what for. `dash` is the size of the 37° nut that has it, in
    sixteenths of an inch of tube."""

    designation: str
    used_for: str
    dash: int | None
    source: Source


_METRIC = re.compile(r"m\s*([0-9]{1,3}(?:\.[0-9]+)?)\s*[x×*]\s*([0-9](?:\.[0-9]+)?)")
_INCH = re.compile(
    r"(?:([0-9])(?:\s+|-))?([0-9]{1,2})/([0-9]{1,2})\s*-\s*([0-9]{1,2})|([0-9])\s*-\s*([0-9]{1,2})"
)
_NUMBERED = re.compile(r"(?:#|no\.?\s*)([0-9]{1,2})\s*-\s*([0-9]{1,2})")
_SUFFIX = re.compile(r"\s*(?:unc|unf|unef|uns|un)?\s*-?\s*(?:[123][ab]|[4-8][gh])?\s*\"?$")
_PIPE_SIZE = r"((?:1/16|1/8|1/4|3/8|1/2|5/8|3/4|1[ -]1/4|1))"
_PIPES = (
    (re.compile(rf"(?:g|bspp)\s*{_PIPE_SIZE}|{_PIPE_SIZE}\s*\"?\s*(?:bspp|bsp)"), "G{}"),
    (re.compile(rf"(?:rc?|bspt)\s*{_PIPE_SIZE}|{_PIPE_SIZE}\s*\"?\s*bspt"), "R{}"),
    (re.compile(rf"nptf?\s*{_PIPE_SIZE}|{_PIPE_SIZE}(?:\s*-\s*[0-9.]+)?\s*\"?\s*nptf?"), "NPT{}"),
)


@record
class WhitworthSize:
    """One size of the Whitworth threads that are no pipe threads, in inches; threads per inch of the fine
    and the coarse series, None where there is none."""

    size: str
    bsf: float | None
    bsw: float | None
    source: Source


_WHITWORTH = re.compile(
    r"([0-9]{1,2}/[0-9]{1,2}|1)(?:\s*\"?\s*[-x]?\s*([0-9]{1,2}))?\s*\"?\s*(bsf|bsw|whitworth)"
)
_WHITWORTH_WORDS = re.compile(r"bsw|bsf|whitworth")
_DASH = re.compile(r"(?:an|jic|dash)?\s*-?\s*([0-9]{1,2})\s*(?:dash|an|jic)?")
_DASH_WORDS = re.compile(r"an|jic|dash|^-")
_PIPE_WORDS = re.compile(r"npt|bsp|^\s*(?:g|rc?|rp)\s*[0-9]")

EXAMPLES = "3/8-24, 7/16-20 UNF or M10x1"
PIPE_EXAMPLES = "1/8 NPT, G1/8 (BSPP) or R1/8 (BSPT)"


def parse_thread(
    text: str,
    pipes: Mapping[str, PipeThread],
    whitworth: Mapping[str, WhitworthSize] | None = None,
    dashes: Mapping[int, str] | None = None,
) -> Thread:
    """Read a metric or inch thread, a pipe thread or a Whitworth thread that its table holds, or the dash
    size of a 37° nut (`-6`, `AN6`, `6 dash`).

    Size and turns of a tapered pipe thread without its letters (`1/8-27`) are that pipe thread: no other
    has them. Raises ThreadError for anything else.
    """
    shown = "".join(c if c.isprintable() else " " for c in text[:25]).strip()
    clean = text[:60].strip().lower().replace("–", "-").replace("″", '"')
    for pattern, name in _PIPES:
        found = pattern.fullmatch(clean)
        if found:
            size = next(group for group in found.groups() if group).replace("-", " ")
            return _pipe(name.format(size), shown, pipes)
    if _WHITWORTH_WORDS.search(clean):
        return _whitworth(clean, shown, whitworth or {})
    dash = _DASH.fullmatch(clean)
    if dash and _DASH_WORDS.search(clean):
        sized = (dashes or {}).get(int(dash[1]))
        if sized is None:
            raise ThreadError(f"“{shown}” is no dash size of the table; write it like -6 or AN6.")
        return parse_thread(sized, pipes)
    if _PIPE_WORDS.search(clean):
        raise ThreadError(f"“{shown}” is not a pipe thread in the table; write it like {PIPE_EXAMPLES}.")
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
    if not whole and f"{top}/{bottom}-{tpi} NPT" in pipes:
        return pipes[f"{top}/{bottom}-{tpi} NPT"].thread
    lead = f"{whole} " if whole else ""
    return _checked_inch(shown, f"{lead}{top}/{bottom}-{tpi}", whole + top / bottom, tpi)


def _pipe(name: str, shown: str, pipes: Mapping[str, PipeThread]) -> Thread:
    size = name.removeprefix("NPT")
    for row in pipes.values():
        if row.designation == name or (name.startswith("NPT") and row.designation.startswith(f"{size}-")):
            return row.thread
    raise ThreadError(f"“{shown}” is not in the table of pipe threads; write it like {PIPE_EXAMPLES}.")


def _whitworth(clean: str, shown: str, sizes: Mapping[str, WhitworthSize]) -> Thread:
    found = _WHITWORTH.fullmatch(clean)
    row = sizes.get(found[1]) if found else None
    turns = (row.bsf if found[3] == "bsf" else row.bsw) if found and row else None
    if found is None or turns is None or (found[2] and float(found[2]) != turns):
        raise ThreadError(f"“{shown}” is no Whitworth thread of the table; write it like 3/8 BSF or 1/4 BSW.")
    top, _, bottom = found[1].partition("/")
    series = "BSF" if found[3] == "bsf" else "BSW"
    return Thread(
        designation=f"{found[1]}-{turns:g} {series}",
        series="whitworth",
        diameter_mm=float(top) / float(bottom or 1) * MM_PER_INCH,
        pitch_mm=MM_PER_INCH / turns,
        flank_deg=55,
    )


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

"""What a measuring instrument sends: one JSON object a line. Read as hostile, like any file."""

from __future__ import annotations

import json
import math
from typing import Any, Literal

from bendrel.core.record import record
from bendrel.exchange.errors import FileError

InstrumentKind = Literal["caliper", "gauge", "probe"]
KINDS: tuple[InstrumentKind, ...] = ("caliper", "gauge", "probe")

MOST_TEXT = 400
LONGEST_MM = 2000.0
UNITS = {"mm": 1.0, "in": 25.4}


@record
class InstrumentReading:
    """One good reading: a length or a point in mm, or an angle in degrees, and the text that a
    person would have typed for each figure."""

    instrument: InstrumentKind
    figures: tuple[float, ...]
    texts: tuple[str, ...]


def read_message(kind: InstrumentKind, text: str) -> InstrumentReading:
    """A reading from a line such as `{"value": 25.4, "unit": "mm"}` (caliper), `{"value": 43.5,
    "unit": "deg"}` (gauge) or `{"x": 1, "y": 2, "z": 3, "unit": "mm"}` (probe). Raises FileError."""
    if len(text) > MOST_TEXT:
        raise FileError(f"The {kind} sent {len(text):,} characters; a reading is shorter.")
    try:
        value: Any = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FileError(f"The {kind} sent something that is no reading.") from error
    if not isinstance(value, dict):
        raise FileError(f"The {kind} sent something that is no reading.")
    unit = value.get("unit")
    if kind == "gauge":
        if unit != "deg":
            raise FileError("The gauge sent an angle without “deg”.")
        angle = _figure(kind, value.get("value"), 0.0, 360.0)
        return InstrumentReading(instrument=kind, figures=(angle,), texts=(f"{angle:g}",))
    if unit not in UNITS:
        raise FileError(f"The {kind} sent a length without “mm” or “in”.")
    names = ("value",) if kind == "caliper" else ("x", "y", "z")
    low = 0.0 if kind == "caliper" else -LONGEST_MM
    most = LONGEST_MM / UNITS[unit]
    figures = tuple(_figure(kind, value.get(name), low / UNITS[unit], most) for name in names)
    return InstrumentReading(
        instrument=kind,
        figures=tuple(figure * UNITS[unit] for figure in figures),
        texts=tuple(f"{figure:g} {unit}" for figure in figures),
    )


def _figure(kind: InstrumentKind, value: Any, low: float, high: float) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise FileError(f"The {kind} sent a figure that is no number.")
    if not low <= value <= high:
        raise FileError(f"The {kind} sent {value:g}, which it cannot measure.")
    return float(value)

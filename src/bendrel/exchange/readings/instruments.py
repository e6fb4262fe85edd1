"""What a measuring instrument sends: one JSON object a line. Read as hostile, like any file."""

from __future__ import annotations

import json
import math
from typing import Any, Literal

from bendrel.core.record import record
from bendrel.core.units.quantities import KPA, LEAST_C, MOST_C, MOST_KPA
from bendrel.exchange.errors import FileError

FieldKind = Literal["caliper", "gauge", "probe"]
"""Instruments whose single reading goes into a field; the pressure gauge streams into a run."""
FIELD_KINDS: tuple[FieldKind, ...] = ("caliper", "gauge", "probe")
InstrumentKind = FieldKind | Literal["pressure"]
KINDS: tuple[InstrumentKind, ...] = (*FIELD_KINDS, "pressure")

MOST_TEXT = 400
LONGEST_MM = 2000.0
LOWEST_KPA = 110.0
_NAMES: dict[InstrumentKind, str] = {
    "caliper": "caliper", "gauge": "gauge", "probe": "probe", "pressure": "pressure gauge",
}  # fmt: skip
UNITS = {"mm": 1.0, "in": 25.4}


@record
class InstrumentReading:
    """One good reading: a length or a point in mm, an angle in degrees, or a pressure in kPa with the
    temperature in °C where it was sent, and the text that a person would have typed for each figure.
    `absolute` says that a pressure counts from nothing, not from the air."""

    instrument: InstrumentKind
    figures: tuple[float, ...]
    texts: tuple[str, ...]
    absolute: bool = False


def read_message(kind: InstrumentKind, text: str) -> InstrumentReading:
    """A reading from a line such as `{"value": 25.4, "unit": "mm"}` (caliper), `{"value": 43.5,
    "unit": "deg"}` (gauge), `{"x": 1, "y": 2, "z": 3, "unit": "mm"}` (probe) or `{"value": 4.1,
    "unit": "bar", "from": "air", "temperature": 21.5}` (pressure). Raises FileError."""
    if len(text) > MOST_TEXT:
        raise FileError(f"The {_NAMES[kind]} sent {len(text):,} characters; a reading is shorter.")
    try:
        value: Any = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FileError(f"The {_NAMES[kind]} sent something that is no reading.") from error
    if not isinstance(value, dict):
        raise FileError(f"The {_NAMES[kind]} sent something that is no reading.")
    unit = value.get("unit")
    if kind == "gauge":
        if unit != "deg":
            raise FileError("The gauge sent an angle without “deg”.")
        angle = _figure(kind, value.get("value"), 0.0, 360.0)
        return InstrumentReading(instrument=kind, figures=(angle,), texts=(f"{angle:g}",))
    if kind == "pressure":
        return _pressure(value)
    if not isinstance(unit, str) or unit not in UNITS:
        raise FileError(f"The {_NAMES[kind]} sent a length without “mm” or “in”.")
    names = ("value",) if kind == "caliper" else ("x", "y", "z")
    low = 0.0 if kind == "caliper" else -LONGEST_MM
    most = LONGEST_MM / UNITS[unit]
    figures = tuple(_figure(kind, value.get(name), low / UNITS[unit], most) for name in names)
    return InstrumentReading(
        instrument=kind,
        figures=tuple(figure * UNITS[unit] for figure in figures),
        texts=tuple(f"{figure:g} {unit}" for figure in figures),
    )


def _pressure(value: dict[str, Any]) -> InstrumentReading:
    """A pressure from the air (below it negative) or from nothing (absolute)."""
    unit, counts = value.get("unit"), value.get("from", "air")
    if not isinstance(unit, str) or unit.lower() not in KPA:
        raise FileError("The pressure gauge sent a figure without “kPa”, “bar”, “psi” or “MPa”.")
    if counts not in ("air", "nothing"):
        raise FileError("The pressure gauge said neither “air” nor “nothing” as what it counts from.")
    per = KPA[unit.lower()]
    least = 0.0 if counts == "nothing" else -LOWEST_KPA
    figure = _figure("pressure", value.get("value"), least / per, MOST_KPA / per)
    figures, texts = [figure * per], [f"{figure:g} {unit}"]
    if value.get("temperature") is not None:
        warm = _figure("pressure", value["temperature"], LEAST_C, MOST_C)
        figures.append(warm)
        texts.append(f"{warm:g} °C")
    return InstrumentReading(
        instrument="pressure", figures=tuple(figures), texts=tuple(texts), absolute=counts == "nothing"
    )


def _figure(kind: InstrumentKind, value: Any, low: float, high: float) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise FileError(f"The {_NAMES[kind]} sent a figure that is no number.")
    if not low <= value <= high:
        raise FileError(f"The {_NAMES[kind]} sent {value:g}, which it cannot measure.")
    return float(value)

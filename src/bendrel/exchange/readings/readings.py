"""Readings of a gauge as CSV: `time_s,pressure_kpa[,temperature_c]`, absolute pressure. Read as hostile."""

from __future__ import annotations

from collections.abc import Sequence
from math import isnan

from bendrel.core.record import record
from bendrel.core.work.proof.hold import MOST_ROWS
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.tables import header_of, number, rows_of

READINGS_HEADER = ("time_s", "pressure_kpa", "temperature_c")
MOST_BYTES = 12_000_000


@record
class GaugeReadings:
    """Times (s), absolute pressures (kPa) and, where they were measured, temperatures (°C), row by row."""

    times_s: tuple[float, ...]
    pressures_kpa: tuple[float, ...]
    temperatures_c: tuple[float, ...] | None


def read_readings(data: bytes) -> GaugeReadings:
    """Readings from CSV bytes. Raises FileError for anything but numbers in rows; whether they can be
    judged is not asked here."""
    header = READINGS_HEADER if len(header_of(data, MOST_BYTES)) == 3 else READINGS_HEADER[:2]
    rows = rows_of(data, header, most_rows=MOST_ROWS, most_bytes=MOST_BYTES)
    figures = [
        [number(cell, line, name) for cell, name in zip(cells, header, strict=True)] for line, cells in rows
    ]
    for (line, _), row in zip(rows, figures, strict=True):
        if row[1] < 0:
            raise FileError(
                f"Row {line}: pressure_kpa {row[1]:g} is negative; absolute pressure is 0 or more."
            )
    return GaugeReadings(
        times_s=tuple(row[0] for row in figures),
        pressures_kpa=tuple(row[1] for row in figures),
        temperatures_c=tuple(row[2] for row in figures) if len(header) == 3 else None,
    )


RUN_HEADER = ("time_s", "pressure_kpa", "temperature_c")


def write_run(rows: Sequence[Sequence[float]]) -> bytes:
    """A run as it was recorded: rows of seconds, kPa from the air or from nothing, °C (blank: not
    measured)."""
    told = (f"{t!r},{p!r},{'' if isnan(c) else repr(c)}" for t, p, c in rows)
    return ("\n".join((",".join(RUN_HEADER), *told)) + "\n").encode()


def read_run(data: bytes) -> list[tuple[float, float, float]]:
    """The rows of a recorded run. Raises FileError."""
    rows = rows_of(data, RUN_HEADER, most_rows=MOST_ROWS, most_bytes=MOST_BYTES)
    return [
        (
            number(cells[0], line, RUN_HEADER[0]),
            number(cells[1], line, RUN_HEADER[1]),
            number(cells[2], line, RUN_HEADER[2]) if cells[2] else float("nan"),
        )
        for line, cells in rows
    ]


def write_readings(readings: GaugeReadings) -> str:
    """The same as CSV, unrounded."""
    warm = readings.temperatures_c
    lines = [",".join(READINGS_HEADER if warm else READINGS_HEADER[:2])]
    for k, (time, pressure) in enumerate(zip(readings.times_s, readings.pressures_kpa, strict=True)):
        lines.append(f"{time!r},{pressure!r}" + (f",{warm[k]!r}" if warm else ""))
    return "\n".join(lines) + "\n"

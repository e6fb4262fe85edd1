"""A length, an angle or a plane as a person typed it."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Ge, Le, MaxLen

from bendrel.core.record import record
from bendrel.core.units.notation import PlaneSchool, Sign, Unit, UnitError, parse_length

Text = Annotated[str, MaxLen(80)]
PhotoId = Annotated[str, MaxLen(40)]
"""Name of a kept photograph, blank where there is none."""
Millimetres = Annotated[float, Ge(-200_000), Le(200_000)]


@record
class Length:
    """A length as typed, and the unit a bare number was in at the time.

    `exact_mm` is set only where the program computed the value; typing clears it.
    """

    text: Text = ""
    unit: Unit = "mm"
    exact_mm: Millimetres | None = None


@record
class Angle:
    """A bend angle as typed; `exact_deg` as in `Length`."""

    text: Text = ""
    exact_deg: Annotated[float, Ge(0), Le(360)] | None = None


@record
class Plane:
    """The plane of a bend as typed: a clock time from end A, or degrees from the bend before.

    `by` is how the shop read planes at the time, which says what a bare number means. `exact_deg` is a
    rotation that the program computed.
    """

    text: Text = ""
    by: PlaneSchool = ""
    exact_deg: Annotated[float, Ge(-360), Le(360)] | None = None


def length_mm(reading: Length, sign: Sign = "positive") -> float:
    """A length reading in mm: the computed value where there is one, else the typed text.

    Raises UnitError.
    """
    if (exact := reading.exact_mm) is not None:
        if (sign == "positive" and exact <= 0) or (sign == "not_negative" and exact < 0):
            raise UnitError(f"{exact:g} mm is not a length that is possible here; type it again.")
        return exact
    return parse_length(reading.text, reading.unit, sign)


def length_if_read(reading: Length) -> float | None:
    """A length reading in mm; None where it is blank or cannot be read, which its own field tells."""
    if is_blank(reading):
        return None
    try:
        return length_mm(reading)
    except UnitError:
        return None


def is_blank(reading: Length) -> bool:
    """Nothing has been typed or computed."""
    return reading.exact_mm is None and not reading.text.strip()

"""Shop lengths, angles and planes: from what a person types, and back.

Everything returned is millimetres or degrees. Refusals are `UnitError`s whose text is one
sentence for the person: what is wrong and what would be accepted.
"""

from __future__ import annotations

import re
from fractions import Fraction
from functools import lru_cache
from math import floor
from typing import Literal

from bendrel.core.errors import BendrelError

Unit = Literal["in", "mm"]
Sign = Literal["positive", "not_negative", "any"]

MM_PER_INCH = 25.4  # exact by definition: international yard and pound agreement, 1959
_INCH = Fraction(127, 5)  # the same, so that 27 3/4" becomes 704.85 and not its neighbour
LONGEST_MM = 100_000.0  # a longer line is a slip of the finger, not a fluid line
LONGEST_TEXT = 40

_VULGAR = {
    "¼": "1/4", "½": "1/2", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
    "⅓": "1/3", "⅔": "2/3", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5", "⅙": "1/6",
    "⅚": "5/6", "⅐": "1/7", "⅑": "1/9", "⅒": "1/10",
}  # fmt: skip
_SAME = str.maketrans(
    {
        "“": '"', "”": '"', "″": '"', "„": '"', "‘": "'", "’": "'", "′": "'", "⁄": "/",
        "−": "-", "‐": "-", "–": "-", "\u00a0": " ", "\u2009": " ", "\u202f": " ", "º": "°",
    }
)  # fmt: skip

_NUMBER = r"(?:[0-9]+\.?[0-9]*|\.[0-9]+)"
_FRACTION = r"[0-9]+/[0-9]+"
_INCHES = rf"(?:(?P<whole>[0-9]+)(?:\s+|-))?(?P<frac>{_FRACTION})|(?P<dec>{_NUMBER})"
_UNITS = (
    r"(?P<unit>\"|inches|inch|in|millimetres|millimeters|millimetre|millimeter|mm|"
    r"centimetres|centimeters|centimetre|centimeter|cm|metres|meters|metre|meter|m)"
)
_PLAIN = re.compile(rf"(?:{_INCHES})(?:\s*{_UNITS}\.?)?")
_FEET = re.compile(
    rf"(?P<feet>{_NUMBER})\s*(?:'|feet|foot|ft\.?)\s*-?\s*(?:(?:{_INCHES})\s*(?:\"|(?:inches|inch|in)\.?)?)?"
)
_METRIC = {"mm": 1, "millimet": 1, "cm": 10, "centimet": 10, "m": 1000, "met": 1000}

EXAMPLES = '27, 27 3/4, 27-3/4", 1\' 2 3/16", 450mm or 45 cm'


PlaneSchool = Literal["", "clock", "degrees"]
"""How a shop reads planes: by the clock, in degrees, or not said yet."""


class UnitError(BendrelError, ValueError):
    """A length, angle or plane that cannot be read. The text is meant for the person."""


class PlaneUnsaid(UnitError):
    """A bare number that could be a clock time or degrees."""


@lru_cache(maxsize=4096)  # at every key all readings of a line are read again, and one has changed
def parse_length(text: str, unit: Unit = "mm", sign: Sign = "positive") -> float:
    r"""Read a length as people write it and return millimetres.

    `unit` is what a bare number is in; a fraction without a unit is always inches.
    `sign` says whether zero or negative values are possible here (co-ordinates: "any").

    Raises UnitError for decimal or thousands commas, improper or metric fractions, exponents,
    twelve or more inches after feet, unknown units, a wrong sign, and anything over 100 m.

    >>> parse_length("1' 2 3/16\"")  # 14.1875 in
    360.3625
    >>> parse_length("27 3/4", "in")
    704.85
    """
    shown = _shown(text)
    clean = _tidy(text)
    if not clean:
        raise UnitError(f"A length is missing; write it like {EXAMPLES}.")
    if "," in clean:
        raise UnitError(f"“{shown}” has a comma; write a decimal point, and no thousands commas.")
    negative = clean.startswith("-")
    body = clean[1:].strip() if clean[0] in "+-" else clean
    feet = re.search(r"'|f(?:t|oo|ee)", body)
    mm = float(_feet(body, shown) if feet else _plain(body, shown, unit))
    if mm > LONGEST_MM:
        raise UnitError(f"“{shown}” is over 100 m; a length up to 100 m is accepted.")
    if sign == "positive" and (negative or mm == 0):
        raise UnitError(f"“{shown}” is not a length; it must be more than 0.")
    if sign == "not_negative" and negative and mm != 0:
        raise UnitError(f"“{shown}” is below 0; 0 or more is accepted here.")
    return -mm if negative else mm


def parse_tilt(text: str) -> float:
    """Read how far a direction lies off straight on, 0 to 180 degrees. Raises UnitError.

    >>> parse_tilt("0")
    0.0
    """
    return 0.0 if re.fullmatch(r"0+(\.0*)?\s*(°|deg|degrees)?", _tidy(text)) else parse_angle(text, 180.0)


def parse_angle(text: str, most: float = 360.0) -> float:
    """Read a bend angle, such as `90`, `45.5` or `90°`, and return degrees.

    Raises UnitError unless it is over 0 and at most `most` degrees.

    >>> parse_angle("45.5°")
    45.5
    """
    shown = _shown(text)
    found = re.fullmatch(rf"(-?)\s*({_NUMBER})\s*(?:°|deg|degrees)?", _tidy(text))
    if not found:
        raise UnitError(f"“{shown}” is not an angle; write degrees, such as 90 or 45.5.")
    value = float(found[2])
    if found[1] or not 0 < value <= most:
        raise UnitError(f"“{shown}” is not a bend; an angle over 0° and up to {most:g}° is accepted.")
    return value


OVER_DEG = 5.0
"""So far past half a turn a gauge may read: half a turn, read a little over. Source: common practice."""


def parse_plane(text: str, school: PlaneSchool = "") -> tuple[Literal["clock", "rotation"], float]:
    """Read the plane of a bend: a clock time seen from end A, or degrees from the bend before.

    Returns ("clock", degrees clockwise from the first bend's plane, 0 to 360) for `3:00`, `3h` or
    `3 o'clock`, ("rotation", degrees in (-180, 180]) for `90`, `+3`, `3°` or `-45°`. A bare number up to
    12 is what the shop's `school` says; where it has not said, 1 to 12 could be either and is asked.
    Raises PlaneUnsaid then, and UnitError for what cannot be read.

    >>> parse_plane("3:00"), parse_plane("-45°")
    (('clock', 90.0), ('rotation', -45.0))
    """
    shown = _shown(text)
    clean = _tidy(text)
    clock = re.fullmatch(r"([0-9]{1,2}):([0-9]{2})|([0-9]{1,2})\s*(?:h|o'?\s*clock)", clean)
    if clock:
        hour, minute = int(clock[1] or clock[3]), int(clock[2] or 0)
        if not 0 <= hour <= 12 or minute > 59:
            raise UnitError(f"“{shown}” is not on the clock; write 12:00 to 11:59.")
        return "clock", (hour % 12) * 30.0 + minute * 0.5
    degrees = re.fullmatch(rf"([+-]?)\s*({_NUMBER})\s*(°|deg|degrees)?", clean)
    if not degrees:
        raise UnitError(
            f"“{shown}” is not a plane; write a clock time such as 3:00, or degrees such as -45°."
        )
    value = float(degrees[2]) * (-1 if degrees[1] == "-" else 1)
    if not degrees[1] and not degrees[3] and value <= 12 and school != "degrees":
        if school == "clock" and value.is_integer():
            return "clock", value % 12 * 30.0
        if school == "clock" or value > 0:
            raise PlaneUnsaid(_which_plane(shown, value, asked=school == ""))
    if abs(value) > 180 + OVER_DEG:
        raise UnitError(f"“{shown}” is outside the turn; -180° to 180° is accepted.")
    return "rotation", normalised_turn(value)


def _which_plane(shown: str, value: float, *, asked: bool) -> str:
    time = format_clock(value * 30)
    if not asked:
        return f"“{shown}” is neither an hour nor degrees here; write {time} or {value:g}°."
    return (
        f"“{shown}” could be {time} on the clock or {value:g} degrees; write {time} or {value:g}°, "
        "or say once at the head of the column how planes are read."
    )


def normalised_turn(degrees: float) -> float:
    """Bring an angle into (-180, 180] degrees.

    >>> normalised_turn(270)
    -90.0
    """
    turned = degrees % 360.0
    return turned - 360.0 if turned > 180.0 else turned


def format_length(mm: float, unit: Unit = "mm", denominator: int = 32) -> str:
    """Print a length as the shop says it: inches to the nearest 1/`denominator`, or 0.1 mm.

    >>> format_length(360.3625, "in"), format_length(360.3625)
    ('14 3/16"', '360.4 mm')
    """
    if unit == "mm":
        return _tenths(mm) + " mm"
    parts = floor(abs(mm) / MM_PER_INCH * denominator + 0.5)
    sign = "-" if mm < 0 and parts else ""
    whole, rest = divmod(parts, denominator)
    if not rest:
        return f'{sign}{whole}"'
    lead = f"{whole} " if whole else ""
    return f'{sign}{lead}{Fraction(rest, denominator)}"'


def format_small(mm: float, unit: Unit = "mm") -> str:
    """Print what is read with a caliper: thousandths of an inch, or 0.1 mm.

    >>> format_small(7.0, "in"), format_small(7.0)
    ('0.276"', '7 mm')
    """
    return f'{mm / MM_PER_INCH:.3f}"' if unit == "in" else format_length(mm, unit)


def format_fine(mm: float, unit: Unit = "mm") -> str:
    """Print a wall, as tube is sold: thousandths of an inch, or of a millimetre.

    >>> format_fine(0.711, "in"), format_fine(0.711), format_fine(1)
    ('0.028"', '0.711 mm', '1 mm')
    """
    return f'{mm / MM_PER_INCH:.3f}"' if unit == "in" else f"{round(mm, 3):g} mm"


def format_angle(degrees: float) -> str:
    """Print degrees to a tenth, without a needless `.0`.

    >>> format_angle(90.04)
    '90°'
    """
    return _tenths(degrees) + "°"


def _tenths(value: float) -> str:
    """To a tenth, a half away from nought: as on the screen, and as people round."""
    tenths = floor(abs(value) * 10 + 0.5)
    sign = "-" if value < 0 and tenths else ""
    whole, rest = divmod(tenths, 10)
    return f"{sign}{whole}.{rest}" if rest else f"{sign}{whole}"


def format_clock(degrees: float) -> str:
    """Print a clock angle (degrees clockwise from 12) as a time to the nearest minute.

    >>> format_clock(90)
    '3:00'
    """
    minutes = floor(degrees % 360.0 * 2 + 0.5) % 720
    return f"{minutes // 60 or 12}:{minutes % 60:02d}"


def _tidy(text: str) -> str:
    """Lower case, plain quotes, hyphens and spaces; a long text is cut before any matching."""
    clean = text[: LONGEST_TEXT * 2].translate(_SAME).strip().lower()
    if len(clean) > LONGEST_TEXT:
        raise UnitError(f"“{_shown(text)}” is too long; write at most {LONGEST_TEXT} characters.")
    if not clean.isascii():
        for sign, fraction in _VULGAR.items():
            clean = re.sub(rf"\s*{sign}", f" {fraction}", clean)
    return clean.replace("''", '"').strip()


def _shown(text: str) -> str:
    """The person's own text, made short and printable, for use inside a sentence."""
    line = "".join(c if c.isprintable() else " " for c in text[:25]).strip()
    return line + ("…" if len(text) > 25 else "")


def _plain(body: str, shown: str, unit: Unit) -> Fraction:
    found = _PLAIN.fullmatch(body)
    if not found:
        raise UnitError(f"“{shown}” is not a length; write it like {EXAMPLES}.")
    written = found["unit"]
    inches = written in ('"', "in", "inch", "inches")
    if found["frac"]:
        if written and not inches:
            raise UnitError(f"“{shown}” has a fraction in metric; write a decimal, such as 12.5mm.")
        return _inches(found, shown) * _INCH
    value = Fraction(found["dec"])
    if written is None:
        return value * (_INCH if unit == "in" else 1)
    if inches:
        return value * _INCH
    return value * _METRIC[re.sub(r"(met).*", r"\1", written)]


def _feet(body: str, shown: str) -> Fraction:
    found = _FEET.fullmatch(body)
    if not found:
        raise UnitError(f"“{shown}” is not a length; write feet and inches like 1' 2 3/16\".")
    feet = Fraction(found["feet"])
    inches = Fraction(0)
    if found["frac"] or found["dec"]:
        inches = _inches(found, shown) if found["frac"] else Fraction(found["dec"])
        if "." in found["feet"]:
            raise UnitError(f"“{shown}” has decimal feet and inches; write whole feet before inches.")
        if inches >= 12:
            raise UnitError(f"“{shown}” has 12 or more inches after feet; carry them into the feet.")
    return (feet * 12 + inches) * _INCH


def _inches(found: re.Match[str], shown: str) -> Fraction:
    top, bottom = (int(part) for part in found["frac"].split("/"))
    if not 0 < top < bottom:
        raise UnitError(f"“{shown}” has an improper fraction; write it like 1 1/4.")
    return int(found["whole"] or 0) + Fraction(top, bottom)

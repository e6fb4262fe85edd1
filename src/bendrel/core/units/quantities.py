"""Reading and printing pressures, temperatures, flows and volumes as people write them."""

from __future__ import annotations

import re
from typing import Literal

from bendrel.core.units.notation import Unit, UnitError

_NUMBER = r"(-?[0-9]+\.?[0-9]*|-?\.[0-9]+)"
_PRESSURE = re.compile(rf"{_NUMBER}\s*(bar|psi|kpa|mpa)", re.IGNORECASE)
_TEMPERATURE = re.compile(rf"{_NUMBER}\s*°?\s*(c|f)?", re.IGNORECASE)
_FLOW = re.compile(rf"{_NUMBER}\s*(l/min|lpm|l/h|gpm|gph|ml/min)?", re.IGNORECASE)
_VOLUME = re.compile(
    r"([0-9]+\.?[0-9]*|\.[0-9]+)\s*(l|lit(?:re|er)s?|ml|qt|quarts?|gal|gallons?)?", re.IGNORECASE
)

# NIST SP 811: pound-force per square inch; US gallon; foot pound-force
KPA = {"bar": 100.0, "psi": 6.894757, "kpa": 1.0, "mpa": 1000.0}
LPM = {"l/min": 1.0, "lpm": 1.0, "l/h": 1 / 60, "gpm": 3.785412, "gph": 3.785412 / 60, "ml/min": 0.001}
_LITRES = {"l": 1.0, "m": 0.001, "q": 0.946353, "g": 3.785412}  # US quart and gallon
NM_PER_LBF_FT = 1.355818
MOST_NM = 2_000.0
MOST_KPA, MOST_LPM = 200_000.0, 1_000.0
LARGEST_L = 1000.0
LEAST_C, MOST_C = -60.0, 400.0


WAYS: dict[str, tuple[float, float, float]] = {
    "ahead": (1.0, 0.0, 0.0), "back": (-1.0, 0.0, 0.0), "left": (0.0, 1.0, 0.0), "right": (0.0, -1.0, 0.0),
    "up": (0.0, 0.0, 1.0), "down": (0.0, 0.0, -1.0), "x": (1.0, 0.0, 0.0), "y": (0.0, 1.0, 0.0),
    "z": (0.0, 0.0, 1.0), "-x": (-1.0, 0.0, 0.0), "-y": (0.0, -1.0, 0.0), "-z": (0.0, 0.0, -1.0),
}  # fmt: skip
"""Ways from a datum on the machine: x ahead, y to the left, z up."""


_WAY_NUMBER = r"[+-]?(?:[0-9]+\.?[0-9]*|\.[0-9]+)"
_THREE = re.compile(rf"({_WAY_NUMBER})[\s;,]+({_WAY_NUMBER})[\s;,]+({_WAY_NUMBER})")


def parse_way(text: str) -> tuple[float, float, float]:
    """A unit way from `ahead`, `down`, `-y` or three numbers such as `1 0 -0.5`. Raises UnitError."""
    clean = text.strip().lower().replace("−", "-")
    word = clean.removeprefix("+").strip().replace("- ", "-")
    if word in WAYS:
        return WAYS[word]
    three = _THREE.fullmatch(clean)
    x, y, z = (float(part) for part in three.groups()) if three else (0.0, 0.0, 0.0)
    size = (x * x + y * y + z * z) ** 0.5
    if not 1e-6 < size < 1e9:
        raise UnitError(
            f"“{text[:30]}” is not a way; write ahead, back, left, right, up or down, an axis such as -z, or "
            "three numbers such as 1 0 -0.5."
        )
    return (x / size, y / size, z / size)


_BACK = {
    "ahead": "back", "left": "right", "up": "down", "x": "-x", "y": "-y", "z": "-z",
}  # fmt: skip


def opposite_way(text: str) -> str:
    """The same way from its other end, in the words that it was typed in; what cannot be read stays."""
    clean = text.strip().lower().replace("−", "-").removeprefix("+")
    both = _BACK | {back: there for there, back in _BACK.items()}
    if clean in both:
        return both[clean]
    try:
        return " ".join(f"{-x + 0.0:g}" for x in parse_way(text))
    except UnitError:
        return text


def parse_degrees(text: str) -> float:
    """Degrees either way, such as `-12` or `20°`. Raises UnitError.

    >>> parse_degrees("-12")
    -12.0
    """
    clean = text.strip().replace("−", "-").removesuffix("°").strip()
    try:
        value = float(clean)
    except ValueError:
        value = float("nan")
    if not -360.0 <= value <= 360.0:
        raise UnitError(f"“{text[:20]}” is not an angle; write degrees either way, such as -12 or 20.")
    return value


def parse_pressure(text: str) -> float:
    """kPa from `5 bar`, `70 psi`, `600 kPa` or `1 MPa`; the unit must be there. Raises UnitError.

    >>> parse_pressure("5 bar")
    500.0
    """
    found = _PRESSURE.fullmatch(text.strip())
    kpa = float(found[1]) * KPA[found[2].lower()] if found else 0.0
    if not 0 < kpa <= MOST_KPA:
        raise UnitError(f"“{text[:20]}” is not a pressure; write it like 5 bar, 70 psi or 600 kPa.")
    return kpa


def parse_temperature(text: str) -> float:
    """°C from `80`, `−20 °C` or `176 F`, with either minus. Raises UnitError.

    >>> parse_temperature("176 F")
    80.0
    """
    found = _TEMPERATURE.fullmatch(text.strip().replace("−", "-"))
    if found:
        value = float(found[1])
        celsius = (value - 32) / 1.8 if (found[2] or "c").lower() == "f" else value
        if LEAST_C <= celsius <= MOST_C:
            return celsius
    raise UnitError(f"“{text[:20]}” is not a temperature; write it like 80 °C or 176 °F, −60 to 400 °C.")


def parse_flow(text: str) -> float:
    """L/min from `6`, `6 L/min`, `90 L/h` or `1.5 gpm` (US). Raises UnitError.

    >>> parse_flow("90 L/h")
    1.5
    """
    found = _FLOW.fullmatch(text.strip())
    lpm = float(found[1]) * LPM[(found[2] or "l/min").lower()] if found else 0.0
    if not 0 < lpm <= MOST_LPM:
        raise UnitError(f"“{text[:20]}” is not a flow; write it like 6 L/min, 90 L/h or 1.5 gpm.")
    return lpm


def parse_volume(text: str, bare: Literal["l", "ml"] = "l") -> float:
    """Litres from `2`, `1.5 L`, `500 ml`, `2 qt` or `1 gal` (US); `bare` is what a number alone means. Raises
    UnitError.

    >>> parse_volume("500 ml")
    0.5
    """
    litres = _volume(text, bare)
    if not 0 < litres <= LARGEST_L:
        raise UnitError(f"“{text[:20]}” is not a volume; write it like 2 L, 500 ml or 2 qt.")
    return litres


def parse_moved_volume(text: str, bare: Literal["l", "ml"] = "l") -> float:
    """Litres either way and none, such as `-40 ml` or `0`. Raises UnitError.

    >>> parse_moved_volume("-40 ml")
    -0.04
    """
    clean = text.strip().replace("−", "-")
    litres = _volume(clean.lstrip("+-").strip(), bare)
    if not 0 <= litres <= LARGEST_L:
        raise UnitError(f"“{text[:20]}” is not a change of volume; write it like -40 ml, 0.2 L or 0.")
    return -litres if clean.startswith("-") else litres


def _volume(text: str, bare: Literal["l", "ml"]) -> float:
    """Litres, or -1 for what is none."""
    found = _VOLUME.fullmatch(text.strip())
    return float(found[1]) * _LITRES[(found[2] or bare).lower()[0]] if found else -1.0


def format_volume(ml: float) -> str:
    """In ml, from a litre on in L.

    >>> format_volume(1500)
    '1.50 L'
    """
    return f"{ml / 1000:.2f} L" if abs(ml) >= 1000 else f"{ml:.0f} ml"


def format_pressure(kpa: float, unit: Unit) -> str:
    """In the person's system: psi beside inches, bar beside millimetres.

    >>> format_pressure(500, "mm")
    '5.00 bar'
    """
    value, word = (kpa / KPA["psi"], "psi") if unit == "in" else (kpa / KPA["bar"], "bar")
    digits = 0 if value >= 100 else 1 if value >= 10 else 2
    return f"{value:,.{digits}f} {word}" if value < 9999.5 else f"{round(value, -1):,.0f} {word}"


_TORQUE = re.compile(
    r"([0-9]+\.?[0-9]*|\.[0-9]+)(?:\s*(?:-|–|to)\s*([0-9]+\.?[0-9]*|\.[0-9]+))?\s*"
    r"(n[·. ]?m|(?:lbf?|ft|in)[·.\- ]?(?:lbf?|ft|in))?",
    re.IGNORECASE,
)


def is_torque(text: str) -> bool:
    """Whether it is written as a torque, and not in words such as `a quarter turn` or `1/6 past home`.

    >>> is_torque("16 Nm"), is_torque("1/6 turn")
    (True, False)
    """
    return _TORQUE.fullmatch(text.strip()) is not None


def parse_torque(text: str, unit: Unit) -> tuple[float, float]:
    """The least and most N·m of `16`, `13-18 N·m`, `12 lbf·ft` or `140 in-lb`; a bare figure is in the
    person's system: lbf·ft beside inches, N·m beside millimetres. Raises UnitError.

    >>> parse_torque("13-18 Nm", "in")
    (13.0, 18.0)
    """
    found = _TORQUE.fullmatch(text.strip())
    if found:
        said = (found[3] or ("lbf ft" if unit == "in" else "nm")).lower()
        per = 1.0 if said.startswith("n") else NM_PER_LBF_FT / (12 if "in" in said else 1)
        least = float(found[1]) * per
        most = float(found[2]) * per if found[2] else least
        if 0 < least <= most <= MOST_NM:
            return least, most
    raise UnitError(f"“{text[:20]}” is not a torque; write it like 16 N·m or 12 lbf·ft, up to 2000 N·m.")


def format_torque(least_nm: float, most_nm: float, unit: Unit) -> str:
    """A range in the person's system: lbf·ft beside inches, N·m beside millimetres.

    >>> format_torque(14, 20, "mm")
    '14 to 20 N·m'
    """
    per, word = (NM_PER_LBF_FT, "lbf·ft") if unit == "in" else (1.0, "N·m")
    low, high = (f"{value / per:.0f}" for value in (least_nm, most_nm))
    return f"{low} {word}" if low == high else f"{low} to {high} {word}"


COUNTER = re.compile(r"\d[\d ,’'.]*")


def parse_counter(text: str, what: str) -> str:
    """What a machine's counter of `what` shows, as it is written; blank stays blank. Raises UnitError for
    what is no number.

    >>> parse_counter(" 41 200 ", "kilometres")
    '41 200'
    """
    said = text.strip()
    if said and not COUNTER.fullmatch(said):
        raise UnitError(
            f"“{said[:24]}” is no number of {what}; write what the counter shows, or leave it blank."
        )
    return said

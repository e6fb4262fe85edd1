"""What is wrong with a sentence that a person reads, whatever it is about."""

from __future__ import annotations

import re
from collections.abc import Iterator

from bendrel.core.parts.kit import Kit
from bendrel.core.units.notation import Unit

_SPOKEN = r"(?:uni|use|usu|eu|one\b|once\b)"
"""How a word begins that is written with a vowel and spoken with a consonant."""
_COUNTED = (
    r"(?:bend|line|thing|joint|turn|stop|caution|note|minute|hour"
    r"|hose|tube|clamp|clip|step|reading|piece|end)"
)
_WRONG = {
    "article": re.compile(rf"\ba (?!{_SPOKEN})[aeiou]\w|\ban (?:{_SPOKEN}|[bcdfgjklmnpqrstvwxyz]\w)"),
    "number": re.compile(
        rf"(?<![\d.,/x×-])\b(?:1|one) {_COUNTED}s\b|(?:\b[2-9]|\d\d|\btwo) (?!tube){_COUNTED}\b(?! of)"
    ),
    "raw": re.compile(r"/spans/|/joints/|\b[a-z]+_[a-z_]+\b|\{[a-z]+\}|\bNone\b(?! published)|\bnan\b"),
    "twice": re.compile(r"\b([a-z]+) \1\b", re.IGNORECASE),
    "stops": re.compile(r"(?<!\.)\.\.(?!\.)|\?\.|,\.|;\.| [.,;:?](?:\s|$)|  "),
}
_OTHER_UNIT = {"in": re.compile(r"\b\d+(?:\.\d+)? ?mm\b"), "mm": re.compile(r"\d\"")}


def wrong_in(text: str, unit: Unit, names: frozenset[str] = frozenset()) -> Iterator[tuple[str, str]]:
    """(kind, where) of everything wrong in `text`, said of a line in `unit`. `names` are sizes as they are
    called, which stay as they are in either unit."""
    for kind, pattern in _WRONG.items():
        for found in pattern.finditer(text):
            yield kind, text[max(0, found.start() - 25) : found.end() + 25]
    for found in _OTHER_UNIT[unit].finditer(text):
        if found.group() not in names:
            yield "unit", text[max(0, found.start() - 25) : found.end() + 25]


def names_in(kit: Kit) -> frozenset[str]:
    """Figures that things of the catalogue are called by in the trade, in whatever unit a line is told."""
    called = {
        found
        for row in (*kit.clips, *kit.tubes.values(), *kit.hoses.values(), *kit.clamps.values(), *kit.wrenches)
        for name in ("name", "size")
        for found in re.findall(r"\d+(?:\.\d+)?(?: mm)?", str(getattr(row, name, "")))
    }
    return frozenset(one if one.endswith("mm") else f"{one} mm" for one in called)

"""What a validator finds wrong, as one sentence of ours: where, what, and what is accepted."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import ValidationError

_KINDS_OF_SPANS = {"BendReadings", "CornerReadings", "RigidSpan", "HoseSpan", "ComponentSpan"}
_SKIPPED = {*_KINDS_OF_SPANS, "body", "document", "query", "path", "fields"}
_EACH = {
    "spans": "piece",
    "joints": "joint",
    "rows": "row",
    "damage": "damage",
    "items": "thing",
    "lines": "line",
    "makings": "making",
    "bookings": "booking",
    "runs": "run",
    "own": "own entry",
    "trials": "test piece",
    "rounds": "round",
    "made": "bend made",
    "then": "tweak",
    "order": "place in the order",
    "pieces": "piece",
}
"""What one of a list is called."""
_OF_THE_VALIDATOR = re.compile(r"function-|lax-or-strict|tagged-|literal\[|constrained-|[a-z]+\[")
"""Steps that name one of several types, not a field."""
_CALLED = {"od_mm": "outside diameter", "mm_error": "error in mm", "deg_error": "error in degrees"}


def spoken_steps(steps: Sequence[str | int]) -> list[str]:
    """The steps to a field as they can be shown: hostile names are cut and made printable."""
    return [
        "".join(c if c.isprintable() else "?" for c in str(step)[:40])
        for step in steps
        if str(step) not in _SKIPPED and not _OF_THE_VALIDATOR.match(str(step))
    ]


def place_of(steps: Sequence[str | int]) -> str:
    """The way to a field in words: ("spans", 0, "readings", "rows", 3, "angle") is "piece 1, readings, row 4,
    angle"."""
    said: list[str] = []
    before: str | int = ""
    for step in steps:
        if isinstance(step, int):
            noun = _EACH.get(str(before), f"{_word(before)}, entry" if before else "entry")
            if said:
                said.pop()
            said.append(f"{noun} {step + 1}")
        elif word := "".join(spoken_steps([step])):
            said.append(_word(word))
        before = step
    return ", ".join(said)


def _word(step: str | int) -> str:
    text = str(step)
    return _CALLED.get(text, "".join(c if c.isprintable() else "?" for c in text[:40]).replace("_", " "))


def telling(errors: Sequence[Any]) -> Any:
    """The error to speak of: where a value may be one of several kinds, the validator tries them all, and
    only what it says of the kind that was meant is of use."""
    strangers = {tuple(e["loc"][:-1]) for e in errors if e["loc"] and e["loc"][-1] == "kind"}

    def meant(error: Any) -> bool:
        loc = tuple(error["loc"])
        return not any(loc[: len(branch)] == branch for branch in strangers)

    return next(filter(meant, errors), errors[0])


def sentence(errors: Sequence[Any], whole: str) -> str:
    """The telling one of some validation errors as one sentence; `whole` names what holds the fields."""
    found = telling(errors)
    if found["type"] in ("json_invalid", "string_unicode"):
        return f"This is not {whole}: the text is not valid JSON."
    said = said_of(found)
    if found["loc"] and found["loc"][-1] == "kind" and found["type"] == "literal_error":
        said = f"“{str(found['input'])[:20]}” is none of the kinds that there are: {_kinds(errors)}"
    place = place_of(found["loc"])
    bare = said if found["type"] == "value_error" else f"it {said}"
    text = f"{place}: {said}." if place else f"This is not {whole}: {bare}."
    return text[0].upper() + text[1:]


def first_error(error: ValidationError, whole: str = "a line document") -> str:
    """The first validation error as one sentence: where, what, what is accepted."""
    return sentence(error.errors(include_url=False), whole)


_SAID = {
    "missing": "is missing",
    "unexpected_keyword_argument": "is not known here; leave it out",
    "extra_forbidden": "is not known here; leave it out",
    "string_too_long": "may have {max_length} characters at most",
    "too_long": "may have {max_length} entries at most",
    "too_short": "needs {min_length} or more entries",
    "int_from_float": "must be a whole number",
    "int_parsing_size": "is too large",
    "finite_number": "must be a number that ends",
    "greater_than": "must be more than {gt}",
    "greater_than_equal": "must be {ge} or more",
    "less_than": "must be less than {lt}",
    "less_than_equal": "must be {le} or less",
    "literal_error": "must be one of {expected}",
    "enum": "must be one of {expected}",
    "none_required": "must be blank",
    "invalid_key": "has a name that is no text",
    "predicate_failed": "is written with letters, digits, - and _ alone",
    "string_pattern_mismatch": "is not written as it must be",
    "recursion_loop": "holds itself",
}
"""By the validator's own code for what is wrong."""
_MUST_BE = {
    "string": "text",
    "int": "a whole number",
    "float": "a number",
    "bool": "true or false",
    "tuple": "a list",
    "list": "a list",
    "set": "a list",
    "dict": "named values",
    "mapping": "named values",
    "dataclass": "named values",
    "model": "named values",
    "arguments": "named values",
    "date": "a date such as 2026-11-27",
    "datetime": "a moment such as 2026-11-27T08:30:00",
    "time": "a time such as 08:30",
    "timezone": "a moment such as 2026-11-27T08:30:00Z",
    "bytes": "text",
    "decimal": "a number",
}
"""What a value must be, by how the validator's code begins."""


def said_of(error: Mapping[str, Any]) -> str:
    """What is wrong with one value, without its place and without a full stop."""
    kind, context = str(error["type"]), error.get("ctx") or {}
    if kind == "value_error":
        return str(context.get("error", "is not possible")).rstrip(".")
    if kind == "string_too_short":
        least = context.get("min_length", 1)
        return "must not be blank" if least == 1 else f"needs {least} or more characters"
    if kind in _SAID:
        shown = {name: _shown(value) for name, value in context.items()}
        try:
            return _SAID[kind].format(**shown)
        except KeyError:
            return "is not what is accepted here"
    if kind.startswith("missing"):
        return _SAID["missing"]
    begins = kind.split("_")[0]
    return f"must be {_MUST_BE[begins]}" if begins in _MUST_BE else "is not what is accepted here"


def _shown(value: object) -> str:
    """A limit as it is said: 60 for 60.0, and the choices of a list in our own marks."""
    if isinstance(value, float) and value.is_integer():
        return f"{value:.0f}"
    if isinstance(value, str):
        return re.sub(r"'([^']*)'", r"“\1”", value).replace(" or ", ", ")[:300]
    return str(value)


def _kinds(errors: Sequence[Any]) -> str:
    """The kinds that a value could have been, as the validator tried them."""
    tried = [
        str(e["ctx"]["expected"]).strip("'")
        for e in errors
        if e["loc"] and e["loc"][-1] == "kind" and "expected" in (e.get("ctx") or {})
    ]
    return ", ".join(dict.fromkeys(tried))

"""Line documents (`*.bendrel.json`): the whole line, versioned, in and out unchanged."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from pydantic import TypeAdapter, ValidationError
from pydantic_core import from_json

from bendrel.core.line.document import Line
from bendrel.exchange.errors import FileError
from bendrel.exchange.upgrade import up_to_date

MOST_BYTES = 1_000_000
_LINE: TypeAdapter[Line] = TypeAdapter(Line)


def read_line(data: bytes | str) -> Line:
    """A line from JSON. Raises FileError naming the field and what is wrong with it."""
    if len(data) > MOST_BYTES:
        raise FileError("The file is over 1 MB; a line document is smaller than that.")
    try:
        value = from_json(data, allow_inf_nan=False)
    except ValueError as error:
        raise FileError("This is not a line document: the text is not valid JSON.") from error
    try:
        return _LINE.validate_python(up_to_date(value))
    except ValidationError as error:
        raise FileError(first_error(error)) from error
    except (UnicodeDecodeError, RecursionError) as error:
        raise FileError("The file is not a line document in UTF-8 JSON.") from error


def write_line(line: Line) -> str:
    """JSON of a line, readable and ending in a newline."""
    return _LINE.dump_json(line, indent=2).decode() + "\n"


def line_from_value(value: Any) -> Line:
    """A line from values already parsed, such as a stored row. Raises FileError."""
    try:
        return _LINE.validate_python(up_to_date(value))
    except ValidationError as error:
        raise FileError(first_error(error)) from error


def line_to_value(line: Line) -> dict[str, Any]:
    """Plain JSON values of a line."""
    value: dict[str, Any] = _LINE.dump_python(line, mode="json")
    return value


def line_schema() -> dict[str, Any]:
    """The published JSON Schema of a line document."""
    return {"title": "Bendrel line document"} | _LINE.json_schema()


_SKIPPED = {
    "BendReadings", "CornerReadings", "RigidSpan", "HoseSpan", "ComponentSpan", "body", "document",
}  # fmt: skip


def spoken_path(steps: Sequence[str | int]) -> list[str]:
    """The steps to a field as a person can read them: hostile names are cut and made printable."""
    return [
        "".join(c if c.isprintable() else "?" for c in str(step)[:40])
        for step in steps
        if str(step) not in _SKIPPED
    ]


def telling(errors: Sequence[Any]) -> Any:
    """The error to speak of: where a value may be one of several kinds, the validator tries them all, and
    only what it says of the kind that was meant is of use."""
    strangers = {tuple(e["loc"][:-1]) for e in errors if e["loc"] and e["loc"][-1] == "kind"}

    def meant(error: Any) -> bool:
        loc = tuple(error["loc"])
        return not any(loc[: len(branch)] == branch for branch in strangers)

    return next(filter(meant, errors), errors[0])


def first_error(error: ValidationError) -> str:
    """The first validation error as one sentence: where, what, what is accepted."""
    errors = error.errors(include_url=False, include_context=False)
    found = telling(errors)
    if found["type"] in ("json_invalid", "string_unicode"):
        return "This is not a line document: the text is not valid JSON."
    place = " › ".join(spoken_path(found["loc"]))
    said = found["msg"].removeprefix("Value error, ").rstrip(".")
    if found["loc"] and found["loc"][-1] == "kind":
        said = (
            f"“{str(found['input'])[:20]}” is none of the kinds that there are: {', '.join(_kinds(errors))}"
        )
    return f"{place}: {said}." if place else f"This is not a line document: {said}."


def _kinds(errors: Sequence[Any]) -> list[str]:
    """The kinds that a value could have been, as the validator tried them."""
    tried = [
        e["msg"].split("'")[1] for e in errors if e["loc"] and e["loc"][-1] == "kind" and "'" in e["msg"]
    ]
    return list(dict.fromkeys(tried))

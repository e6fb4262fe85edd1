"""Line documents (`*.bendrel.json`): the whole line, versioned, in and out unchanged."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError
from pydantic_core import from_json

from bendrel.core.line.document import Line
from bendrel.exchange.documents.adapters import adapter
from bendrel.exchange.documents.elements import MOST_IN_A_LINE, holds_over
from bendrel.exchange.documents.upgrade import up_to_date
from bendrel.exchange.documents.wrong import first_error
from bendrel.exchange.errors import FileError

MOST_BYTES = 1_000_000
_LINE = adapter(Line)


def read_line(data: bytes | str) -> Line:
    """A line from JSON. Raises FileError naming the field and what is wrong with it."""
    if len(data) > MOST_BYTES:
        raise FileError("The file is over 1 MB; a line document is smaller than that.")
    if holds_over(data.encode(errors="replace") if isinstance(data, str) else data, MOST_IN_A_LINE):
        raise FileError(f"The file holds over {MOST_IN_A_LINE:,} values; a line document has far fewer.")
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


def check_savable(line: Line) -> None:
    """Raises FileError for a line that was computed and is beyond what a document may hold."""
    line_from_value(line_to_value(line))


def line_schema() -> dict[str, Any]:
    """The published JSON Schema of a line document."""
    return {"title": "Bendrel line document"} | _LINE.json_schema()

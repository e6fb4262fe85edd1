"""The lines of the demo shop, as documents in `lines`: days in them count from `FROM`, and `@name` stands for
the id of another of them."""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from datetime import date
from importlib.resources import files
from typing import Any

from bendrel.core.line.document import Line
from bendrel.exchange.documents.documents import line_from_value

FROM = date(2026, 1, 1)
"""The day on which the documents are told."""
_DAY = re.compile(r"(\d{4}-\d\d-\d\d)(T.*)?")


def demo_line(name: str, ids: Mapping[str, str] | None = None) -> Line:
    """One line as it would be today; `ids` are those of the lines that it speaks of, by their names."""
    told = json.loads((files("bendrel.services.demo") / "lines" / f"{name}.bendrel.json").read_text("utf-8"))
    return line_from_value(_today(told, ids or {}))


def _today(value: Any, ids: Mapping[str, str]) -> Any:
    if isinstance(value, dict):
        return {key: _today(item, ids) for key, item in value.items()}
    if isinstance(value, list):
        return [_today(item, ids) for item in value]
    if isinstance(value, str) and value.startswith("@"):
        return ids[value.removeprefix("@")]
    day = _DAY.fullmatch(value) if isinstance(value, str) else None
    if day is None:
        return value
    return f"{date.fromisoformat(day[1]) + (date.today() - FROM)}{day[2] or ''}"

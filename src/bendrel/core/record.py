"""One decorator for every data type of the core."""

from __future__ import annotations

from dataclasses import dataclass, fields
from functools import cached_property
from typing import Any, TypeVar, dataclass_transform

T = TypeVar("T")


@dataclass_transform(frozen_default=True, kw_only_default=True)
def record(cls: type[T]) -> type[T]:
    """Make `cls` a frozen, keyword-only dataclass that refuses unknown fields on the way in.

    The validator outside the core reads `__pydantic_config__` and calls `__get_pydantic_core_schema__`; here
    they are only a plain dict and a function on dicts, so a type is declared once and means the same in
    files, API and store.
    """
    cls.__pydantic_config__ = {"extra": "forbid"}  # type: ignore[attr-defined]
    if any("tuple[" in str(kind) for kind in cls.__annotations__.values()):
        cls.__get_pydantic_core_schema__ = classmethod(_hasty)  # type: ignore[attr-defined]
    if any(isinstance(value, cached_property) for value in vars(cls).values()):
        cls.__getstate__ = _fields_alone  # type: ignore[assignment]
    return dataclass(frozen=True, kw_only=True)(cls)


def _fields_alone(one: Any) -> dict[str, Any]:
    """What is sent to another process: what it keeps beside its fields is worked out again there, and may
    grow in another thread while it is being sent."""
    kept = one.__dict__
    return {field.name: kept[field.name] for field in fields(one)}


def _hasty(_cls: type, source: Any, handler: Any) -> Any:
    """The validator's own schema, but a sequence is given up at its first wrong item: a small file can hold
    a million of them, and one sentence is all that is said."""
    schema = handler(source)
    _give_up_early(schema)
    return schema


def _give_up_early(part: Any) -> None:
    if isinstance(part, list):
        for item in part:
            _give_up_early(item)
    elif isinstance(part, dict):
        if part.get("type") in ("tuple", "list", "set", "frozenset"):
            part["fail_fast"] = True
        for key in ("schema", "fields", "items_schema", "choices", "values_schema", "keys_schema"):
            if key in part:
                _give_up_early(part[key])

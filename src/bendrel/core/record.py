"""One decorator for every data type of the core."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TypeVar, dataclass_transform

T = TypeVar("T")


@dataclass_transform(frozen_default=True, kw_only_default=True)
def record(cls: type[T]) -> type[T]:
    """Make `cls` a frozen, keyword-only dataclass that refuses unknown fields on the way in.

    The validator outside the core reads `__pydantic_config__`; here it is only a plain dict,
    so a type is declared once and means the same in files, API and store.
    """
    cls.__pydantic_config__ = {"extra": "forbid"}  # type: ignore[attr-defined]
    return dataclass(frozen=True, kw_only=True)(cls)

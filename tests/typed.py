"""Whether a record holds what its own types say, all the way down."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from enum import Enum
from functools import cache
from types import NoneType, UnionType
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

import numpy as np


@cache
def _hints(kind: type) -> dict[str, Any]:
    return get_type_hints(kind)


def wrong_in(value: Any, hint: Any, place: str = "it") -> Iterator[str]:
    """The places in `value`, a record or a collection of records, that hold what `hint` does not say."""
    if isinstance(hint, type) and is_dataclass(hint):
        yield from _wrong_in_record(value, hint, place)
        return
    origin, inner = get_origin(hint), get_args(hint)
    if origin in (Union, UnionType):
        told = [list(wrong_in(value, one, place)) for one in inner]
        if all(told):
            yield min(told, key=len)[0]
    elif origin is Literal:
        if value not in inner:
            yield f"{place}: {value!r} for one of {inner}"
    elif origin is not None and isinstance(value, dict):
        for key, one in value.items():
            yield from wrong_in(key, inner[0], f"{place} key")
            yield from wrong_in(one, inner[1], f"{place}[{key!r}]")
    elif origin is tuple and inner[-1:] != (Ellipsis,):
        if not isinstance(value, tuple) or len(value) != len(inner):
            yield f"{place}: {value!r} for {len(inner)} things"
            return
        for k, (one, its) in enumerate(zip(value, inner, strict=True)):
            yield from wrong_in(one, its, f"{place}[{k}]")
    elif origin is not None and isinstance(value, (tuple, list, set, frozenset)):
        for k, one in enumerate(value):
            yield from wrong_in(one, inner[0], f"{place}[{k}]")
    elif isinstance(hint, type) and not _is(value, hint):
        yield f"{place}: {type(value).__name__} for {hint.__name__}"


def _wrong_in_record(value: Any, hint: type, place: str) -> Iterator[str]:
    if not isinstance(value, hint):
        yield f"{place}: {type(value).__name__} for {hint.__name__}"
        return
    for field in fields(value):
        its = _hints(type(value))[field.name]
        yield from wrong_in(getattr(value, field.name), its, f"{place}.{field.name}")


def _is(value: Any, hint: type) -> bool:
    if hint is float:
        return isinstance(value, (float, int, np.floating)) and not isinstance(value, bool)
    if hint is int:
        return isinstance(value, (int, np.integer)) and not isinstance(value, bool)
    if hint in (str, bytes, bool, NoneType) or issubclass(hint, Enum):
        return isinstance(value, hint)
    return value is not None

"""The changes of a fix, made to a line document."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from bendrel.core.findings import Change
from bendrel.core.line.document import Line


def with_changes(line: Line, changes: Iterable[Change]) -> Line:
    """`line` with every change made, in their order: plain values at places that are there.
    What has an id is found by it.

    Raises KeyError for a place that is not there.
    """
    made: Any = line
    for change in changes:
        made = _set(made, _steps(line, change.path), change.value)
    done: Line = made
    return done


def _steps(line: Line, path: str) -> list[str]:
    """The steps of a pointer; a joint has no id, it is named by the span before it."""
    steps = path.strip("/").split("/")
    if steps[0] == "joints" and len(steps) > 1:
        at = next((k for k, span in enumerate(line.spans) if span.id == steps[1]), None)
        steps[1] = steps[1] if at is None else str(at)
    return steps


def _set(value: Any, path: list[str], wanted: object) -> Any:
    if not path:
        return wanted
    step, *rest = path
    if isinstance(value, tuple):
        at = next((k for k, item in enumerate(value) if getattr(item, "id", None) == step), None)
        if at is None:
            at = int(step) if step.isdigit() else -1
        if not 0 <= at < len(value):
            raise KeyError(step)
        return (*value[:at], _set(value[at], rest, wanted), *value[at + 1 :])
    if not hasattr(value, step):
        raise KeyError(step)
    return replace(value, **{step: _set(getattr(value, step), rest, wanted)})

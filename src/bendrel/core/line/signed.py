"""Whether what was signed off is still what is there."""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace
from hashlib import sha256
from typing import Any

from bendrel.core.line.condition import Condition
from bendrel.core.line.document import Line
from bendrel.core.line.proving import Done

_BLANK: dict[tuple[type, str], Any] = {
    (Line, "condition"): Condition(end_a="comes undone", end_b="comes undone"),
    (Condition, "end_a"): "comes undone",
    (Condition, "end_b"): "comes undone",
}
"""What does not count where it was the default once: lines are signed over it."""


def stamp_of(line: Line) -> str:
    """A fingerprint of what is signed: the line as made and closed, without what may still change after it
    (follow-ups, notes, the sign-off itself). What stands at its default does not count, so that a field
    added later changes no fingerprint."""
    proving = replace(line.proving, signed=None, follow_ups=())
    signed = replace(line, notes="", finished=False, open_items=(), set_aside=(), proving=proving)
    return sha256(repr(_told(signed)).encode()).hexdigest()


def _told(value: Any) -> Any:
    if isinstance(value, Done) and value == Done(step=value.step):
        return value.step  # as it was told before a tick had a time and a name
    if is_dataclass(value) and not isinstance(value, type):
        return [
            (field.name, _told(now))
            for field in fields(value)
            if (now := getattr(value, field.name)) != _BLANK.get((type(value), field.name), field.default)
        ]
    return [_told(one) for one in value] if isinstance(value, tuple) else value


def signed_as_before(line: Line, before: Line) -> Line:
    """`line`, which is `before` with other names for the same things, signed off as that was."""
    signed = line.proving.signed
    if signed is None or not signed_stands(before):
        return line
    again = replace(signed, stamp=stamp_of(line))
    return replace(line, proving=replace(line.proving, signed=again))


def signed_stands(line: Line) -> bool | None:
    """Whether the sign-off is of the line as it is now; None without one."""
    signed = line.proving.signed
    return None if signed is None else signed.stamp == stamp_of(line)

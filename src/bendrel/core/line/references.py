"""What in the document speaks of a rigid span's bends, when its readings are replaced as a whole."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.line.document import Line, RigidSpan
from bendrel.core.line.run import with_span


def without_bends(line: Line, span: RigidSpan) -> Line:
    """`line` without what was said of the bends and straights of `span`: its readings were replaced by
    others, and a reason or an instruction must not come to stand at a bend that it was not given for."""
    whole = tuple(item for item in span.bought if item.kind in ("rim to rim", "whole length"))
    cleared = with_span(line, replace(span, order=(), left_open=(), bought=whole))
    return replace(
        cleared,
        set_aside=tuple(
            item
            for item in line.set_aside
            if item.at.span != span.id or item.at.kind not in ("bend", "straight")
        ),
    )

"""What in the document speaks of bends and pieces by their number, when those are replaced as a whole.

Edits of single rows move these references with the rows: `web/src/doc/edits.ts`.
"""

from __future__ import annotations

import re
from dataclasses import replace

from bendrel.core.findings import EndName
from bendrel.core.line.document import Line, SetAside

_BEND = re.compile(r"(bend|straight) [0-9]+")
_PIECE = re.compile(r"piece ([0-9]+) beyond ([AB])")


def without_bends(line: Line) -> Line:
    """`line` without what was said of its bends and straights: its readings were replaced by others, and a
    reason or an instruction must not come to stand at a bend that it was not given for."""
    span = line.spans[0]
    return replace(
        line,
        spans=(replace(span, order="", left_open=()),),
        bought=tuple(item for item in line.bought if item.kind in ("rim to rim", "whole length")),
        set_aside=tuple(item for item in line.set_aside if not _BEND.fullmatch(item.where)),
    )


def with_piece_before(line: Line, end: EndName) -> Line:
    """`line` with what was said of the pieces beyond one end moved one further out: another piece now lies
    between them and the tube."""
    return replace(line, set_aside=tuple(_further(item, end) for item in line.set_aside))


def _further(item: SetAside, end: EndName) -> SetAside:
    found = _PIECE.fullmatch(item.where)
    if found is None or found[2] != end:
        return item
    return replace(item, where=f"piece {int(found[1]) + 1} beyond {end}")

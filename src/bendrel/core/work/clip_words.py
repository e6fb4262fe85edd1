"""A clip, sleeve or grommet in words: what it is, where, what it goes on, and what is behind that."""

from __future__ import annotations

from bendrel.core.line.condition import Fixture
from bendrel.core.line.document import Line
from bendrel.core.line.opened import stays
from bendrel.core.line.run import main_run
from bendrel.core.parts.kit import Kit
from bendrel.core.units.lengths import is_blank, length_mm
from bendrel.core.units.notation import UnitError, format_length


def to_fasten(line: Line) -> tuple[Fixture, ...]:
    """What goes on with the line, in its order: not what still sits whole on old tube or hose that stays."""
    main = main_run(line)
    old = {span.id for span in line.spans if stays(span)}
    return tuple(
        item
        for item in line.condition.fixtures
        if item.state != "there" or (item.span or (main.span.id if main else "")) not in old
    )


def holes_to_drill(line: Line) -> tuple[str, ...]:
    """The size of every hole that what holds the line takes, in words; blank where nobody has said it."""
    return tuple(_hole(line, item) for item in to_fasten(line) if item.fixed_to == "a hole to drill")


def clip_words(line: Line, kit: Kit, item: Fixture) -> str:
    """What it is and where it sits."""
    row = next((one for one in kit.clips if one.id == item.clip), None)
    what = row.name if row is not None else item.kind
    return f"{what[0].upper()}{what[1:]}{_place(line, item)}"


def put_on_words(line: Line, kit: Kit, item: Fixture) -> str:
    """How it goes on, still loose."""
    new = {"broken": " New: the old one is broken.", "missing": " New: it was missing.", "to fit": " New."}
    on = {
        "": "",
        "a hole to drill": f" Lay the line, mark beside it, drill {_drill(line, item)}, deburr, paint.",
        "a hose, by a tie": " By a tie, hose to hose; never tube to steel.",
    }.get(item.fixed_to, f" On {item.fixed_to}.")
    behind = f" Behind it: {item.behind.strip()}; guard it." if item.behind.strip() else ""
    shared = f" It holds {item.shared.strip()} too." if item.shared.strip() else ""
    loose = " Loose." if item.kind != "sleeve" else ""
    return f"{clip_words(line, kit, item)}.{new.get(item.state, '')}{on}{behind}{shared}{loose}"


def tight_words(line: Line, kit: Kit, item: Fixture) -> str:
    """How it is made fast, from one end of the line to the other."""
    return f"{clip_words(line, kit, item)}: snug, the line not pulled."


def _place(line: Line, item: Fixture) -> str:
    if is_blank(item.at):
        return ", where the old one was"
    try:
        return f" at {format_length(length_mm(item.at, 'not_negative'), line.unit)}"
    except UnitError:
        return ", its place cannot be read"


def _drill(line: Line, item: Fixture) -> str:
    return _hole(line, item) or "its hole"


def _hole(line: Line, item: Fixture) -> str:
    if is_blank(item.drill):
        return ""
    try:
        return format_length(length_mm(item.drill), line.unit)
    except UnitError:
        return ""

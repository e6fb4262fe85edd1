"""What the record says of why: what was found, where it came from, what was decided, what came off."""

from __future__ import annotations

from bendrel.core.findings import EndName
from bendrel.core.line.document import Line
from bendrel.core.line.opened import stays
from bendrel.core.line.removal import counted
from bendrel.core.line.run import ENDS
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.model import Plan
from bendrel.core.units.notation import format_length
from bendrel.exchange.paper.flowing import Pages

FATES = {
    "reuse": "goes back",
    "replace": "new",
    "should be here and is not": "was not there, new",
    "out for good": "stays out",
}


def why_rows(pages: Pages, line: Line, plan: Plan, kit: Kit) -> None:
    """What was wrong, its cause, the countermeasure, the decision with its reason, and what was taken on."""
    condition, unit = line.condition, line.unit
    pages.heading("Why")
    pages.row("Worked on for", ", ".join(condition.reasons) or "no reason is noted")
    notes = {one.id: one.note for one in condition.damage}
    for placed in plan.looked.damage:
        to = f" to {format_length(placed.to_mm, unit)}" if placed.to_mm > placed.from_mm else ""
        where = f"at {format_length(placed.from_mm, unit)}{to}"
        told = f"{placed.kind}, {placed.depth}, {where}"
        pages.row("Found", f"{told}: {notes[placed.id]}" if notes.get(placed.id) else told)
    for point in condition.wet:
        if point.place.strip():
            other = f", ruled out: it came from {point.ruled_out}" if point.ruled_out.strip() else ""
            pages.row("Found wet", point.place + other)
    pages.row("It came from", condition.cause)
    if condition.countermeasure.strip():
        pages.row("Not again by", condition.countermeasure)
    decision = condition.decision
    if decision is not None:
        because = (
            f", because {decision.reason.strip()}" if decision.reason.strip() else ", no reason is noted"
        )
        pages.row("Decided", f"{decision.choice}{because}")
    titles: dict[str, str] = {finding.code: finding.title for finding in plan.findings}
    for item in line.set_aside:
        pages.row("Taken on", f"{titles.get(item.code, 'a finding that is no longer there')}: {item.reason}")
    if any(stays(span) for span in line.spans):
        note = f": {condition.rest_note}" if condition.rest_note.strip() else ""
        pages.row("The old that stays", f"{kit.owner.rest[condition.rest]}{note}")


def removed_rows(pages: Pages, line: Line, kit: Kit) -> None:
    """How the old ends came apart, and everything that came off, with what became of it."""
    removal = line.removal
    told = [(end, text) for end in ENDS if (text := _apart(line, kit, end))]
    if not removal.items and not told and not removal.went_out.strip():
        return
    pages.heading("Taken off")
    for end, text in told:
        pages.row(f"End {end}", text)
    if removal.went_out.strip() or removal.volume.strip():
        out = " ".join(text for text in (removal.volume, removal.went_out) if text.strip())
        pages.row("Ran out", f"{out}; {removal.fluid}")
    if removal.items:
        rows = [("what", "where", "becomes", "back on")]
        rows += [
            (
                ": ".join(text for text in (counted(item, ""), item.note) if text),
                item.where,
                FATES[item.fate],
                "" if item.fate == "out for good" else "yes" if item.refitted else "NOT YET",
            )
            for item in removal.items
        ]
        pages.table((82, 50, 30, 20), rows)


def _apart(line: Line, kit: Kit, end: EndName) -> str:
    """What was tried on an old end, how long, and how it ended; blank where nothing was noted."""
    one = next((one for one in line.removal.apart if one.end == end), None)
    if one is None:
        return ""
    ways = {way.id: way.text.split(":")[0].split(",")[0].rstrip(".") for way in kit.apart.ways}
    tried = "; ".join(ways[name] for name in one.tried if name in ways)
    parts = (tried and f"tried: {tried}", one.how_long, one.ended)
    return ". ".join(text for text in parts if text)


def compared_rows(pages: Pages, line: Line) -> None:
    """Figures of the machine before the work and after it."""
    noted = [one for one in line.proving.compared if one.what.strip()]
    if not noted:
        return
    pages.heading("Before and after")
    rows = [("what", "before", "after")]
    rows += [(one.what, one.before or "not read", one.after or "not read") for one in noted]
    pages.table((92, 45, 45), rows)

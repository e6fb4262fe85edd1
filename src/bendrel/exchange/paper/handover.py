"""The note for the owner, in plain words: what was wrong, what was done, what to watch, when to come back."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from bendrel.core.line.document import ComponentSpan, HoseSpan, Line, Span
from bendrel.core.line.opened import stays
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.model import Plan
from bendrel.core.units.notation import format_length
from bendrel.core.words import a_or_an
from bendrel.exchange.paper.flowing import Pages
from bendrel.exchange.paper.paper import SECOND, STOP
from bendrel.exchange.paper.record import LAW, RecordPaper


def build_handover(papers: Sequence[RecordPaper], kit: Kit, today: date, *, name: str) -> bytes:
    """PDF bytes: one note over all `papers`, each line of them under its own name where there are several."""
    pages = Pages(f"Handover: {name}")
    first = papers[0]
    alone = len(papers) == 1
    beside = kit.services[first.line.service].name if alone else ""
    pages.head(name, first.machine or first.job, "For the owner", today, beside)
    for paper in papers:
        if not alone:
            pages.heading(paper.line.name)
        _done(pages, paper, kit, headed=alone)
    _watch(pages, papers, kit)
    _come_back(pages, papers)
    pages.paragraph(LAW, 8.5, SECOND)
    return pages.done()


def _done(pages: Pages, paper: RecordPaper, kit: Kit, *, headed: bool) -> None:
    line, signed = paper.line, paper.line.proving.signed
    if headed:
        pages.heading("What was done")
    for text in done_words(line, paper.plan, kit):
        pages.paragraph(text)
    if signed is not None and paper.signed_stands:
        tested = f" It was tested by {signed.competent}." if signed.competent else ""
        proved = kit.proving.watch(line.service).proved
        pages.paragraph(f"{proved} Signed off by {signed.by} on {signed.at}.{tested}")
    else:
        pages.paragraph("It is NOT signed off: do not use the machine before it is.", 10, STOP)
    for one in line.proving.compared:
        if one.what.strip() and one.after.strip():
            before = f"{one.before} before, " if one.before.strip() else ""
            pages.paragraph(f"{one.what}: {before}{one.after} now.")
    if line.proving.fluid:
        pages.paragraph(f"Filled with {line.proving.fluid}. Top up with the same only.")


def done_words(line: Line, plan: Plan, kit: Kit) -> list[str]:
    """What was wrong, what is new, why it was done that way, and what old part stays."""
    said, words = line.condition, kit.owner
    told = []
    if said.reasons:
        why = f"The line was worked on because {_listed([words.reasons[one] for one in said.reasons])}"
        cause = words.causes[said.cause]
        told.append(f"{why}; {cause}." if cause else f"{why}.")
    new = [span for span in line.spans if not stays(span)]
    if new:
        begun = "New" if line.proving.done or line.finished else "Planned"
        told.append(f"{begun}: {_listed([_named(line, plan, kit, span) for span in new])}.")
    decision = said.decision
    if decision is not None and decision.reason.strip():
        told.append(f"It was done that way because {decision.reason.strip().rstrip('.')}.")
    if said.countermeasure.strip():
        told.append(f"So that it does not come again: {said.countermeasure.strip().rstrip('.')}.")
    old = [span for span in line.spans if stays(span)]
    if old:
        note = f" ({said.rest_note.strip().rstrip('.')})" if said.rest_note.strip() else ""
        names = [_kind(span) for span in old]
        told.append(
            f"The old {_listed(list(dict.fromkeys(names)))} that stays {words.rest[said.rest]}{note}."
        )
    return told


def _kind(span: Span) -> str:
    if isinstance(span, ComponentSpan):
        return span.what
    return "hose" if isinstance(span, HoseSpan) else "tube"


def _named(line: Line, plan: Plan, kit: Kit, span: Span) -> str:
    """One new piece: how long, of what."""
    if isinstance(span, ComponentSpan):
        return a_or_an(span.what)
    if isinstance(span, HoseSpan):
        hose = kit.hoses.get(span.hose)
        of = f"{kit.hose_classes[hose.hose_class].name}, {hose.size}" if hose else "hose"
        stands = {one.stands.span: one.length_mm for one in plan.chosen.pieces.hoses} if plan.chosen else {}
        length = stands.get(span.id)
        return f"{_long(line, length)}{of}"
    piece, row = plan.piece(span.id), kit.tubes.get(span.tube)
    part = piece.part if piece else None
    of = f"{kit.materials[row.material].name} tube, {row.size}" if row else "tube"
    return f"{_long(line, part.developed_mm if part else None)}{of}"


def _long(line: Line, mm: float | None) -> str:
    return f"{format_length(mm, line.unit)} of " if mm is not None else "a "


def _listed(words: Sequence[str]) -> str:
    """Things in a row: commas between, and before the last; semicolons where they have commas themselves."""
    if len(words) < 2:
        return "".join(words)
    mark = ";" if any("," in word for word in words) else ","
    return f"{f'{mark} '.join(words[:-1])}{mark if mark == ';' else ''} and {words[-1]}"


def _watch(pages: Pages, papers: Sequence[RecordPaper], kit: Kit) -> None:
    pages.heading("What to watch")
    told: dict[str, None] = {}
    for paper in papers:
        told |= dict.fromkeys(_watch_words(paper.line, kit))
    for text in told:
        pages.paragraph(f"• {text}")
    for paper in papers:
        for item in paper.line.open_items:
            if not item.closed:
                due = f", by {item.due}" if item.due else ""
                pages.paragraph(f"• Still to be done: {item.what or item.kind}{due}.")


def _watch_words(line: Line, kit: Kit) -> list[str]:
    owner = kit.proving.watch(line.service).owner
    words = [owner] if owner else []
    words += kit.proving.by_service[line.service].watch
    if any(span.kind == "hose" for span in line.spans):
        words.append("Hoses that turn hard, cracked or soft are changed before they burst.")
    return words


def _come_back(pages: Pages, papers: Sequence[RecordPaper]) -> None:
    pages.heading("When to come back")
    several, due = len(papers) > 1, [(paper, one) for paper in papers for one in paper.due]
    for paper, one in due:
        pages.paragraph(f"• {f'{paper.line.name}: ' if several else ''}{one.what}: {one.text}.")
    if not due:
        pages.paragraph("Nothing is due.")

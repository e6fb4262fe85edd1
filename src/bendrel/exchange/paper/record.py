"""The record of a line that was closed and proved: one to three pages that stay with the machine."""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import date

from reportlab.lib.units import mm as MM
from reportlab.lib.utils import ImageReader

from bendrel.core.joints.closing import MANUAL, LineJoint
from bendrel.core.line.document import Line
from bendrel.core.line.proving import Hold
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.model import Plan
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.core.units.quantities import format_pressure, format_torque, format_volume
from bendrel.core.work.clip_words import clip_words, to_fasten
from bendrel.core.work.follow_up import Due
from bendrel.core.work.proof.balance import Balance
from bendrel.core.work.proof.hold import HoldResult, leak_words
from bendrel.core.work.sign_off import InTheWay
from bendrel.core.work.standing import JointStanding, work_at
from bendrel.exchange.paper.flowing import Pages
from bendrel.exchange.paper.paper import INK, LABEL, LEFT, RIGHT, RULE, SECOND, STOP, text_at
from bendrel.exchange.paper.record_why import compared_rows, removed_rows, why_rows
from bendrel.exchange.paper.sheet import draw_tube
from bendrel.exchange.paper.sheet_line import draw_whole, span_in_words
from bendrel.exchange.shapes.sketch import sketch
from bendrel.exchange.shapes.sketch_line import sketch_line

DRAWING, CHART, PHOTO = 62 * MM, 34 * MM, 34 * MM
MOST_PHOTOS = 4
VERDICTS = {"holds": "holds", "leaks": "LEAKS", "too_short": "not long enough", "not_steady": "not steady"}
LAW = (
    "The machine's service manual, local law and licensed practice stand above this record. It says what was "
    "noted, judged by the rules named here; it does not replace a test by someone competent."
)


@record
class HeldPaper:
    """One hold test for the paper: as noted, its result (None: not judged), in what it is short of what was
    asked for, and (seconds, kPa) to draw."""

    hold: Hold
    result: HoldResult | None
    short: tuple[str, ...]
    course: tuple[tuple[float, float], ...]


@record
class RecordPaper:
    """Everything that the record shows."""

    job: str
    machine: str
    line: Line
    plan: Plan
    joints: tuple[LineJoint, ...]
    standing: tuple[JointStanding, ...]
    held: tuple[HeldPaper, ...]
    balance: Balance | None
    due: tuple[Due, ...]
    in_the_way: tuple[InTheWay, ...]
    signed_stands: bool | None
    cautions: tuple[str, ...]
    photos: tuple[bytes, ...]
    step_texts: dict[str, str]
    flares: tuple[str, ...] = ()


def build_record(paper: RecordPaper, kit: Kit, today: date) -> bytes:
    """PDF bytes."""
    line = paper.line
    pages = Pages(f"Record: {line.name}")
    service = kit.services[line.service]
    told = f"{paper.job} · {paper.machine}" if paper.machine else paper.job
    pages.head(line.name, told, "Record", today, service.name)
    _signed(pages, paper)
    why_rows(pages, line, paper.plan, kit)
    _drawing(pages, paper, kit)
    removed_rows(pages, line, kit)
    _joints(pages, paper, kit, line.unit)
    _flares(pages, paper)
    _clips(pages, paper, kit)
    _fills(pages, paper)
    _holds(pages, paper, line.unit)
    _checks(pages, paper)
    compared_rows(pages, line)
    _open(pages, paper)
    _photos(pages, paper)
    pages.heading("Cautions")
    for text in paper.cautions:
        pages.paragraph(text, 8.5, SECOND)
    pages.paragraph(f"{LAW} Rules {paper.plan.rules_version}.", 8.5)
    return pages.done()


def _signed(pages: Pages, paper: RecordPaper) -> None:
    signed = paper.line.proving.signed
    if signed is None:
        count = len(paper.in_the_way)
        told = (
            f"NOT SIGNED OFF: {count} {'thing' if count == 1 else 'things'} in the way."
            if count
            else "NOT SIGNED OFF yet."
        )
        pages.row("Sign-off", told, STOP)
        for one in paper.in_the_way[:6]:
            pages.row("", one.text, STOP)
        return
    if not paper.signed_stands:
        pages.row("Sign-off", f"VOID: changed since {signed.by} signed it on {signed.at}.", STOP)
        return
    pages.row("Signed off", f"{signed.by}, {signed.at}, by rules {signed.rules}")
    for name, text in (
        ("Tested by", signed.competent),
        (
            "At",
            ", ".join(
                t for t in (signed.km and f"{signed.km} km", signed.hours and f"{signed.hours} h") if t
            ),
        ),
        ("Note", signed.note),
    ):
        if text:
            pages.row(name, text)


def _drawing(pages: Pages, paper: RecordPaper, kit: Kit) -> None:
    line, plan = paper.line, paper.plan
    width = RIGHT - LEFT
    pages.room(DRAWING + 4 * MM)
    pages.y -= DRAWING + 2 * MM
    if plan.in_space is not None:
        draw_whole(
            pages.canvas,
            sketch_line(line, plan, plan.in_space, "free", width, DRAWING, 16 * MM),
            LEFT,
            pages.y,
        )
    elif plan.part is not None:
        part = plan.part
        drawn = sketch(part, part.views["free"], width, DRAWING, 16 * MM, plan.clips_mm(part.span))
        draw_tube(pages.canvas, drawn, LEFT, pages.y)
    for k, span in enumerate(line.spans):
        pages.row("Chain" if k == 0 else "", f"{k + 1}. {span_in_words(line, plan, kit, span.id)}")


def _joints(pages: Pages, paper: RecordPaper, kit: Kit, unit: Unit) -> None:
    pages.heading("Joints")
    stands, words = {one.joint: one for one in paper.standing}, kit.proving.watch(paper.line.service).stands
    rows = [("where", "what", "tight", "applied", "by", "under watch")]
    for joint in paper.joints:
        work, tick = work_at(paper.line, joint), paper.line.proving.ticked(f"tight-{joint.id}")
        usual = "as told" if joint.torque else "as told, by feel"
        as_told = usual if tick and not (work and work.tight) else work.tight if work else ""
        who = dict.fromkeys(name for name in (work.by if work else "", tick.by if tick else "") if name)
        published = (
            f"{format_torque(joint.torque.least_nm, joint.torque.most_nm, unit)}, "
            f"{'machine manual' if joint.torque.source == MANUAL else joint.torque.source.kind}"
            if joint.torque
            else ""
        )
        history = " ".join(f"{event.at[11:16]} {event.what}" for event in work.events) if work else ""
        rows.append(
            (
                joint.place,
                joint.name,
                f"{as_told} ({published})" if as_told and published else as_told or published,
                work.applied if work else "",
                f"{', '.join(who)} {tick.at[11:16] if tick else ''}".strip(),
                f"{words[stands[joint.id].state].capitalize()}. {history}".strip(),
            )
        )
    pages.table((38, 34, 34, 24, 16, 36), rows)


def _flares(pages: Pages, paper: RecordPaper) -> None:
    """What was read of the flares as they were made."""
    if paper.flares:
        pages.heading("Flares as made")
        for text in paper.flares:
            pages.paragraph(text, 9.5)


def _clips(pages: Pages, paper: RecordPaper, kit: Kit) -> None:
    fastened = to_fasten(paper.line)
    if not fastened:
        return
    pages.heading("What holds it")

    def ticked(step: str) -> str:
        tick = paper.line.proving.ticked(step)
        return "" if tick is None else f"{tick.by} {tick.at[11:16]}".strip() or "yes"

    rows = [("what", "on", "loose", "tight")]
    for item in fastened:
        on = ", ".join(text for text in (item.fixed_to, item.behind and f"behind it {item.behind}") if text)
        loose, tight = ticked(f"clip-loose-{item.id}"), ticked(f"clip-tight-{item.id}")
        rows.append((clip_words(paper.line, kit, item), on, loose, tight))
    pages.table((76, 56, 25, 25), rows)


def _fills(pages: Pages, paper: RecordPaper) -> None:
    proving = paper.line.proving
    if not proving.fills and not proving.fluid:
        return
    pages.heading("Fill and bleed")
    if proving.fluid:
        pages.row("Fluid", proving.fluid)
    rows = [("step", "where", "in", "out", "level", "air", "s", "reading")]
    rows += [
        (
            paper.step_texts.get(row.step, row.step), row.place, row.into, row.out, row.level, row.air,
            row.seconds, row.value,
        )
        for row in proving.fills
    ]  # fmt: skip
    if len(rows) > 1:
        pages.table((58, 38, 16, 16, 14, 14, 10, 16), rows)
    found = paper.balance
    if found is not None and found.unexplained_ml is not None:
        told = f"{format_volume(found.into_ml)} in, {format_volume(found.out_ml)} out, "
        told += f"{format_volume(found.unexplained_ml)} unexplained"
        pages.row(
            "Balance", f"{told}{': ' + found.reasons[0] if found.reasons else ', within what is usual'}."
        )


def _holds(pages: Pages, paper: RecordPaper, unit: Unit) -> None:
    if not paper.held:
        return
    pages.heading("Hold tests")
    for one in paper.held:
        result = one.result
        if result is None:
            pages.row(one.hold.kind, "noted, not judged")
            continue
        told = f"{VERDICTS[result.verdict]}; {leak_words(result)}"
        by = f", {one.hold.by}" if one.hold.by else ""
        pages.row(f"{one.hold.kind}{by}", f"{told}. {' '.join(result.notes)}")
        if one.short:
            taken = one.hold.instead.strip()
            pages.row("Not as asked for", " ".join(one.short), STOP)
            pages.row("Taken on", taken or "no: it is no proof of this line", INK if taken else STOP)
        read = [
            f"{row.minutes} min {row.pressure}{f' at {row.temperature} °C' if row.temperature else ''}"
            for row in one.hold.rows
        ]
        if read:
            pages.row("", f"The gauge, {one.hold.reads}: {'; '.join(read)}.")
        if len(one.course) > 1:
            _chart(pages, one.course, unit)


def _chart(pages: Pages, course: Sequence[tuple[float, float]], unit: Unit) -> None:
    """The readings as a line, with the first and last pressure and the time."""
    pages.room(CHART + 6 * MM)
    pages.y -= CHART + 4 * MM
    canvas, left, width = pages.canvas, LEFT + 38 * MM, RIGHT - LEFT - 40 * MM
    low, high = min(p for _, p in course), max(p for _, p in course)
    ends, tall = course[-1][0] or 1.0, max(high - low, 1e-6)
    canvas.setStrokeColor(RULE)
    canvas.setLineWidth(0.5)
    canvas.rect(left, pages.y, width, CHART, fill=0)
    path = canvas.beginPath()
    for k, (time, kpa) in enumerate(course):
        x, y = left + width * time / ends, pages.y + 2 * MM + (CHART - 4 * MM) * (kpa - low) / tall
        (path.lineTo if k else path.moveTo)(x, y)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1)
    canvas.drawPath(path)
    canvas.setFont(LABEL, 9)
    canvas.setFillColor(SECOND)
    canvas.drawRightString(left - 2 * MM, pages.y + CHART - 3 * MM, format_pressure(high, unit))
    canvas.drawRightString(left - 2 * MM, pages.y + 1 * MM, format_pressure(low, unit))
    text_at(canvas, left + 2 * MM, pages.y + 1.5 * MM, f"{ends / 60:.1f} min", LABEL, 9, SECOND)


def _checks(pages: Pages, paper: RecordPaper) -> None:
    checks = paper.line.proving.checks
    if not checks:
        return
    pages.heading("Does it work")
    for check in checks:
        told = {"yes": "yes", "no": "NO", "not fitted": "not fitted", "": "not yet"}[check.works]
        more = ", ".join(text for text in (check.value, check.note) if text)
        name = paper.step_texts.get(check.step, check.step)
        pages.paragraph(f"{told}{', ' + more if more else ''}: {name}", 9.5)


def _open(pages: Pages, paper: RecordPaper) -> None:
    waiting = [item for item in paper.line.open_items if not item.closed]
    if not waiting and not paper.due and not paper.line.proving.follow_ups:
        return
    pages.heading("Still to come")
    for item in waiting:
        told = ", ".join(text for text in (item.person, item.due and f"by {item.due}") if text)
        pages.row("Open", f"{item.what or item.kind}{': ' + told if told else ''}")
    for due in paper.due:
        pages.row("Due", f"{due.what}: {due.text}")
    for one in paper.line.proving.follow_ups:
        if one.done:
            pages.row("Done", f"{one.what}, {one.done}{': ' + one.found if one.found else ''}")


def _photos(pages: Pages, paper: RecordPaper) -> None:
    shown = paper.photos[:MOST_PHOTOS]
    if not shown:
        return
    pages.heading("Photographs")
    pages.room(PHOTO)
    pages.y -= PHOTO + 1 * MM
    x = LEFT
    for data in shown:
        image = ImageReader(io.BytesIO(data))
        wide, tall = image.getSize()
        width = min(PHOTO * wide / tall, 52 * MM)
        pages.canvas.drawImage(image, x, pages.y, width, PHOTO, preserveAspectRatio=True, anchor="sw")
        x += width + 3 * MM
        if x > RIGHT - 30 * MM:
            break

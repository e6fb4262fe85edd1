"""What 200 lines as people make them come to, as text that a reviewer can read in a commit.

The lines are version 2 documents in `tests/kept/made.json.xz`, drawn once from `tests/made_lines.py` and
kept; what is told of them stands in `tests/kept/made/`, ten lines a file: findings, tubes with their bends,
marks and cuts, steps of making, fitting and proving, joints, shopping, and of every twentieth line its sheet.
Figures are rounded to what a bench can see; words that stood in a file before are cut short. `python
tools/golden.py --made` compares, `--made --write` writes anew.
"""

from __future__ import annotations

import io
import json
import lzma
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import Any

from pypdf import PdfReader

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.tube.part import Part
from bendrel.core.findings import Place
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Line, RigidSpan
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.work.closing import work_of
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.exchange.paper.sheet import build_sheet
from tests.made_lines import made_line

KEPT = Path(__file__).parent / "kept"
DOCUMENTS, FOLDER = KEPT / "made.json.xz", KEPT / "made"
COUNT, A_FILE, SHEETS = 200, 10, 20
SAID = ("fit ", "prove ", "make ", "stop ", "caution ", "note ", "joint ")
LONG, SHORT = 40, 20


def documents() -> list[dict[str, Any]]:
    """The kept documents."""
    return json.loads(lzma.decompress(DOCUMENTS.read_bytes()))


def draw() -> None:
    """Draw the lines and keep them. Done once: they are read by every later version."""
    kit = load_kit()
    drawn = [line_to_value(made_line(kit, seed)) for seed in range(COUNT)]
    text = json.dumps(drawn, ensure_ascii=False, separators=(",", ":"))
    DOCUMENTS.write_bytes(lzma.compress(text.encode(), preset=9 | lzma.PRESET_EXTREME))


def file_of(k: int) -> Path:
    """The file that line `k` is told in."""
    return FOLDER / f"{k // A_FILE:02}.txt"


def told_file(first: int, kept: list[dict[str, Any]]) -> str:
    """Ten lines, from `first` on, as they are told today."""
    kit, seen = load_kit(), set[str]()
    rows: list[str] = []
    for k in range(first, min(first + A_FILE, len(kept))):
        rows += ["", *(_once(row, seen) for row in told(kit, line_from_value(kept[k]), k))]
    return "\n".join(rows[1:]) + "\n"


def _once(row: str, seen: set[str]) -> str:
    """A row whose words stood in this file before, shortened to what is its own."""
    head, colon, words = row.partition(": ")
    if not row.startswith(SAID) or len(words) < LONG:
        return row
    if words in seen:
        return f"{head}{colon}{words[:SHORT].rstrip()} …"
    seen.add(words)
    return row


def told(kit: Kit, line: Line, k: int) -> Iterator[str]:
    """Everything that is told of one line."""
    plan = plan_line(line, kit)
    yield f"=== {k:03} {line.name}, {line.unit}"
    for problem in plan.problems:
        yield f"! {problem.path}: {problem.message}"
    for finding in plan.findings:
        yield f"{finding.severity} {finding.code} {_at(finding.where)}: {finding.title}. {finding.message}"
    for span in line.spans:
        piece = plan.piece(span.id)
        if isinstance(span, RigidSpan) and piece is not None and piece.part is not None:
            yield from _tube(piece.part, span)
    yield from _chosen(plan)
    joints = joints_of(line, kit)
    for joint in joints:
        torque = f"{joint.torque.least_nm:g} to {joint.torque.most_nm:g} N·m" if joint.torque else "no torque"
        yield f"joint {joint.id}, {joint.place}: {joint.name}; {joint.closes}, {torque}; {joint.applied}"
    for step in order_of_work(line, kit):
        yield f"make: {step.text}"
    for work in work_of(line, kit, joints).steps:
        marks = "".join(mark for mark, on in (("!", work.must), ("*", work.safety)) if on)
        yield f"{work.stage} {work.id}{marks}: {work.text}"
    if k % SHEETS == 0 and plan.part is not None:
        yield from _sheet(kit, line, plan)


def _at(place: Place) -> str:
    number = "" if place.number is None else f" {place.number}"
    end, span = f" {place.end}" if place.end else "", f" of {place.span}" if place.span else ""
    return f"at {place.kind}{number}{end}{span}"


def _tube(part: Part, span: RigidSpan) -> Iterator[str]:
    yield f"tube {span.id} {span.tube} {span.state}: {part.developed_mm:.1f} along, cut {part.cut_mm:.1f}"
    for bend in part.bends:
        yield (
            f"  bend {bend.number}: straight {bend.straight_mm:.1f}, turned {bend.rotation_deg:.1f}, "
            f"{bend.angle_deg:.1f}°, R {bend.radius_mm:.1f}, from {bend.start_mm:.1f}"
        )
    for move in part.moves:
        yield (
            f"  move to bend {move.bend}: mark {move.mark_mm:.1f}, turn {move.turn_deg:.1f}, "
            f"dial {move.dial_deg:.1f}"
        )


def _chosen(plan: Plan) -> Iterator[str]:
    if plan.chosen is None:
        return
    for element in plan.chosen.strength.elements if plan.chosen.strength else ():
        holds = "not known" if element.allowed_kpa is None else f"{element.allowed_kpa / 100:.1f} bar"
        yield f"stands {element.id}: {holds}{', too hot' if element.too_hot else ''}; {element.words}"
    for need in plan.chosen.needs:
        amount = need.amount if isinstance(need.amount, str) else f"{need.amount:g}"
        yield f"buy {amount} {need.unit} {need.ref}: {need.what}"


def _sheet(kit: Kit, line: Line, plan: Plan) -> Iterator[str]:
    pdf = build_sheet(
        line, plan, kit, order_of_work(line, kit), job="kept", machine="", cautions="", tube=plan.main,
        today=date(2026, 11, 26),
    )  # fmt: skip
    for text in PdfReader(io.BytesIO(pdf)).pages[0].extract_text().splitlines():
        yield f"sheet {text}"

"""Files in and out of a line, and the sheet for the bench."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

from bendrel.core.bend.bench.order_report import order_findings
from bendrel.core.bend.tube.part import ViewName
from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.judge.set_aside import worst_first
from bendrel.core.line.document import Line
from bendrel.core.line.opened import stays
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.exchange.documents.documents import write_line
from bendrel.exchange.paper.sheet import build_sheet
from bendrel.exchange.shapes.dxf import write_dxf
from bendrel.exchange.shapes.mesh import write_mesh
from bendrel.exchange.shapes.sketch_line import sketch_line
from bendrel.exchange.shapes.step import write_step
from bendrel.exchange.shapes.svg import draw_line_svg, draw_svg
from bendrel.exchange.shapes.tables import write_bends, write_points
from bendrel.services.errors import Refused
from bendrel.services.hose.hose_ways import print_hose_sheet
from bendrel.services.line.lines import Lines
from bendrel.services.shelf.tubes import tube_of


def print_sheet(
    line: Line, kit: Kit, *, job: str, machine: str, today: date | None = None, span: str = ""
) -> bytes:
    """PDF of the build sheet of a tube, or of the sheet of a hose. Raises Refused while the readings
    cannot be read."""
    hose = next((one for one in line.spans if one.kind == "hose" and one.id == span), None)
    made = [one for one in line.spans if one.kind == "rigid" and not stays(one)]
    if hose is None and not span and not made:
        hose = next((one for one in line.spans if one.kind == "hose"), None)
    if hose is not None:
        told = f"{job} · {machine}" if machine else job
        return print_hose_sheet(line, kit, hose.id, job=told, today=today or date.today())
    plan = plan_line(line, kit)
    run = tube_of(line, span)
    if stays(run.span):
        raise Refused("This tube stays as it is: there is no sheet to make it by.")
    piece = plan.piece(run.span.id)
    if piece is None or piece.part is None:
        raise Refused(f"There is nothing to print yet: {plan.problems[0].message}")
    said = worst_first(line, order_findings(run, kit, piece.part))
    plan = replace(plan, main=run.span.id, findings=(*said, *plan.findings))
    tube = kit.tubes[run.span.tube]
    service = kit.services[line.service]
    return build_sheet(
        line,
        plan,
        kit,
        order_of_work(line, kit, run.span.id),
        job=job,
        machine=machine,
        cautions=" ".join(
            caution.text for caution in kit.cautions_at(line.service) if caution.stages != ("remove",)
        ),
        tube=f"{service.name} · {tube.size} × {tube.wall_mm:g} mm {kit.materials[tube.material].name}",
        today=today or date.today(),
    )


LINE_PAPER = (760.0, 480.0, 70.0)
"""Width, height and margin of the drawing of a whole line, in pixels."""

KINDS = ("document", "points", "bends", "dxf", "step", "stl", "glb", "svg")


def export_line(lines: Lines, line: Line, kit: Kit, kind: str, span: str = "") -> tuple[bytes, str, str]:
    """(bytes, media type, file ending) of a line in one of `KINDS`. Raises Refused, FileError."""
    if kind == "document":
        return write_line(line).encode(), "application/json", ".bendrel.json"
    if kind not in KINDS:
        raise Refused(f"“{kind[:20]}” cannot be exported; {', '.join(KINDS)} can.")
    if kind == "svg":
        return draw_line(line, kit, span).encode(), "image/svg+xml", ".svg"
    shape = lines.shape(line, span)
    if kind == "bends":
        return write_bends(shape).encode(), "text/csv; charset=utf-8", ".bends.csv"
    if kind == "points":
        return write_points(corners_from_bends(shape)).encode(), "text/csv", ".points.csv"
    if min(shape.straights_mm) < 0:
        raise Refused("A straight is missing: this line cannot be drawn as a tube until it is put right.")
    if kind == "dxf":
        return write_dxf(shape).encode(), "image/vnd.dxf", ".dxf"
    tube = kit.tubes[tube_of(line, span).span.tube]
    if kind == "step":
        return write_step(shape, tube.od_mm, tube.bore_mm), "model/step", ".step"
    if kind == "stl":
        return write_mesh(shape, tube.od_mm, tube.bore_mm, "stl"), "model/stl", ".stl"
    return write_mesh(shape, tube.od_mm, tube.bore_mm, "glb"), "model/gltf-binary", ".glb"


def draw_line(line: Line, kit: Kit, span: str, view: ViewName = "free") -> str:
    """The line drawing as SVG, as far as it has been read: the whole line, or the one tube that it is.
    Raises Refused where nothing can be read yet."""
    plan = plan_line(line, kit)
    if plan.in_space is not None:
        return draw_line_svg(sketch_line(line, plan, plan.in_space, view, *LINE_PAPER))
    piece = plan.piece(span)
    part = (piece.part or piece.so_far) if piece else None
    if part is None:
        raise Refused("There is nothing to draw until the first leg can be read.")
    return draw_svg(part, part.views[view], clips_mm=plan.clips_mm(part.span))

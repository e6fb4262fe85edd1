"""Stored lines: open, save, undo, delete, export, print."""

from __future__ import annotations

from fastapi import Response

from bendrel.api.files import as_file
from bendrel.api.rooms import room
from bendrel.api.schemas import AtVersion, LineSave
from bendrel.api.state import IfAt, Services
from bendrel.services.line.files import export_line, print_sheet
from bendrel.services.line.lines import OpenLine

router = room("/api/lines", "lines")


@router.get("/{line_id}")
def open_line(line_id: str, services: Services) -> OpenLine:
    """One line."""
    return services.lines.open(line_id)


@router.put("/{line_id}")
def save_line(line_id: str, body: LineSave, services: Services) -> OpenLine:
    """Keep the document as the next step."""
    return services.lines.save(line_id, body.version, body.document)


@router.post("/{line_id}/undo")
def undo_line(line_id: str, body: AtVersion, services: Services) -> OpenLine:
    """One step back."""
    return services.lines.undo(line_id, body.version)


@router.post("/{line_id}/redo")
def redo_line(line_id: str, body: AtVersion, services: Services) -> OpenLine:
    """One step forward again."""
    return services.lines.redo(line_id, body.version)


@router.get("/{line_id}/as-kept.json", response_class=Response)
def as_kept(line_id: str, services: Services) -> Response:
    """What is kept of a line, as it is: for one that cannot be read."""
    data, name = services.lines.as_kept(line_id)
    return as_file(data, "application/octet-stream", name)


@router.post("/{line_id}/last-good")
def last_good(line_id: str, services: Services) -> OpenLine:
    """Make the newest step that can be read the present one."""
    return services.lines.last_good(line_id)


@router.delete("/{line_id}", status_code=204)
def delete_line(line_id: str, services: Services, version: IfAt = None) -> None:
    """Take a line off its job; it can be restored."""
    services.lines.delete(line_id, version)


@router.post("/{line_id}/restore")
def restore_line(line_id: str, services: Services) -> OpenLine:
    """Bring a deleted line back."""
    return services.lines.restore(line_id)


@router.get("/{line_id}/sheet.pdf", response_class=Response)
def sheet(line_id: str, services: Services, span: str = "") -> Response:
    """The one-page build sheet."""
    opened = services.lines.open(line_id)
    job = services.jobs.one(opened.job_id)
    data = print_sheet(opened.document, services.kit, job=job.name, machine=job.machine, span=span)
    return as_file(data, "application/pdf", f"{opened.document.name}.pdf", inline=True)


@router.get("/{line_id}/export/{kind}", response_class=Response)
def export(line_id: str, kind: str, services: Services, span: str = "") -> Response:
    """The line as a file: `document`, `points`, `bends`, `dxf`, `step`, `stl`, `glb` or `svg`."""
    document = services.lines.open(line_id).document
    data, media, ending = export_line(services.lines, document, services.kit, kind, span)
    return as_file(data, media, f"{document.name}{ending}")

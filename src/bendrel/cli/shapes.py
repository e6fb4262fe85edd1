"""Lengths, threads, shapes, and the plan of one line."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated, cast

import typer

from bendrel.cli.app import AsJson, BadInput, Held, Marks, Radius, app, radius_of, read_file, show

if TYPE_CHECKING:
    from bendrel.core.findings import EndName
    from bendrel.core.parts.bender import MarkStyle


@app.command(
    context_settings={"ignore_unknown_options": True}
)  # so that -5 is read, and refused, as a length
def length(
    text: Annotated[str, typer.Argument(help="A length, such as 1' 2 3/16\".")],
    unit: Annotated[str, typer.Option("--unit", metavar="in|mm", help="Unit of a bare number.")] = "mm",
    as_json: AsJson = False,
) -> None:
    """Read a length as people write it."""
    from bendrel.core.units.notation import format_length, parse_length

    if unit not in ("in", "mm"):
        raise BadInput(f"--unit {unit}: in or mm is accepted.")
    mm = parse_length(text, "in" if unit == "in" else "mm")
    show({"mm": mm}, as_json=as_json, table=[[f"{mm:.3f} mm", format_length(mm, "in")]])


@app.command("thread-fit")
def thread_fit_command(
    male: Annotated[str, typer.Argument(help="The male thread, such as 3/8-24.")],
    female: Annotated[str, typer.Argument(help="The female thread, such as M10x1.")],
    as_json: AsJson = False,
) -> None:
    """Turn one thread into another: does it start, when does it bind."""
    from bendrel.catalogue.loader import load_kit
    from bendrel.core.parts.threads.fit import thread_fit

    kit = load_kit()
    fit = thread_fit(kit.thread(male), kit.thread(female), kit.least_engagement)
    turns = fit.turns_before_binding
    value = {
        "male": fit.male,
        "female": fit.female,
        "starts": fit.starts,
        "turns_before_binding": turns,
        "engagement": fit.engagement,
        "verdict": fit.verdict,
    }
    said = fit.verdict.replace("_", " ")
    after = f" after {turns:.1f} turns" if turns is not None and fit.verdict == "binds" else ""
    holds = f", {fit.engagement:.0%} of the thread holding" if fit.starts else ""
    show(value, as_json=as_json, table=[[f"{fit.male} in {fit.female}: {said}{after}{holds}"]])


@app.command()
def bends(
    file: Annotated[Path, typer.Argument(metavar="POINTS.csv")],
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """Corner points → bend list."""
    from bendrel.core.geometry.bends import bend_spans
    from bendrel.core.geometry.corners import bends_from_corners
    from bendrel.exchange.shapes.tables import read_points

    shape = bends_from_corners(read_points(read_file(file), radius_of(radius)))
    rows = [
        {
            "straight_mm": bend.straight_mm,
            "rotation_deg": bend.rotation_deg,
            "angle_deg": bend.angle_deg,
            "radius_mm": bend.radius_mm,
            "arc_mm": bend.arc_mm,
            "start_mm": span.start_mm,
            "middle_mm": span.middle_mm,
            "end_mm": span.end_mm,
        }
        for bend, span in zip(shape.bends, bend_spans(shape), strict=True)
    ]
    value = {
        "bends": rows,
        "last_straight_mm": shape.last_straight_mm,
        "developed_mm": shape.developed_mm,
    }
    head = ["bend", "straight", "rotation", "angle", "radius", "arc", "start", "middle", "end"]
    table = [head, *([str(k), *(f"{v:.3f}" for v in row.values())] for k, row in enumerate(rows, 1))]
    table.append(["last", f"{shape.last_straight_mm:.3f}"])
    table.append(["along", f"{shape.developed_mm:.3f} mm"])
    show(value, as_json=as_json, table=table)


@app.command()
def points(
    file: Annotated[Path, typer.Argument(metavar="BENDS.csv")],
    as_json: AsJson = False,
) -> None:
    """Bend list → corner points."""
    from bendrel.core.geometry.corners import corners_from_bends
    from bendrel.exchange.shapes.tables import read_bends

    shape = read_bends(read_file(file))
    corners = corners_from_bends(shape)
    value = {
        "points": [list(point) for point in corners.points],
        "radii": list(corners.radii_mm),
        "developed_mm": shape.developed_mm,
    }
    radii = ["", *(f"{r:.3f}" for r in corners.radii_mm), ""]
    table = [["point", "x", "y", "z", "radius"]]
    for k, (point, at) in enumerate(zip(corners.points, radii, strict=True)):
        table.append([str(k), *(f"{v + 0.0:.3f}" for v in point), at])
    table.append(["along", f"{shape.developed_mm:.3f} mm"])
    show(value, as_json=as_json, table=table)


@app.command()
def plan(
    file: Annotated[Path, typer.Argument(metavar="FILE")],
    held: Held = None,
    marks: Marks = None,
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """The whole plan of a line document, or of a points or bend CSV."""
    from bendrel.services.line.offline import plan_file

    if held is not None and held not in ("A", "B"):
        raise BadInput(f"--held {held}: A or B is accepted.")
    if marks is not None and marks not in ("start", "middle", "corner"):
        raise BadInput(f"--marks {marks}: start, middle or corner is accepted.")
    value = plan_file(
        read_file(file),
        held=cast("EndName | None", held),
        marks=cast("MarkStyle | None", marks),
        radius_mm=radius_of(radius),
    )
    moves = value["moves"]
    table = [["bend", "mark", "from", "turn", "angle", "dial"]]
    for move in moves:
        mark = "none" if move["mark_mm"] is None else f"{move['mark_mm']:.1f}"
        start = move["measured_from"].replace("_", " ")
        figures = (f"{move[name]:.1f}°" for name in ("turn_deg", "angle_deg", "dial_deg"))
        table.append([str(move["bend"]), mark, start, *figures])
    show(value, as_json=as_json, table=table)
    if not as_json:
        print(f"end {value['held_end']} held, turns as seen from there, clockwise positive")
        print(f"along the tube {value['developed_mm']:.1f} mm, cut {value['cut_mm']:.1f} mm")
        for found in value["findings"]:
            print(f"{found['severity']}: {found['where']}: {found['message']}")

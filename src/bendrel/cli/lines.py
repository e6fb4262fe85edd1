"""Mending, hoses, circuits, fitting and proving."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Any

import typer

from bendrel.cli.app import AsJson, BadInput, Radius, ServiceId, app, radius_of, read_file, show


@app.command()
def splice(
    file: Annotated[Path, typer.Argument(metavar="FILE")],
    start: Annotated[
        float, typer.Option("--from", metavar="MM", help="Where the damage begins, from end A.")
    ],
    stop: Annotated[float, typer.Option("--to", metavar="MM", help="Where it ends.")],
    service: ServiceId = None,
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """Every way to mend a damaged line, best first: where to cut, how long the new piece is."""
    from bendrel.services.mend.splicing import splice_file

    value = splice_file(
        read_file(file), from_mm=start, to_mm=stop, service=service, radius_mm=radius_of(radius)
    )
    _show_proposals(value, as_json=as_json)


@app.command()
def gap(
    wide: Annotated[float, typer.Option("--gap", metavar="MM", help="From cut face to cut face.")],
    tube: Annotated[float, typer.Option("--tube", metavar="OD", help="Outside diameter of the tube, mm.")],
    other: Annotated[float | None, typer.Option("--tube-b", metavar="OD", help="The other tube's.")] = None,
    method: Annotated[str | None, typer.Option("--method", help="Only this way.")] = None,
    between_bodies: Annotated[
        bool, typer.Option("--between-bodies", help="The gap is from one union's body to the other's.")
    ] = False,
    service: ServiceId = None,
    material: Annotated[
        str | None, typer.Option("--material", metavar="ID", help="What the tube is of; else it is said.")
    ] = None,
    as_json: AsJson = False,
) -> None:
    """The same over a gap, without any shape."""
    from bendrel.services.mend.gaps import gap_answer

    for name, mm in (("--gap", wide), ("--tube", tube), ("--tube-b", other)):
        if mm is not None and not 0 < mm <= 100_000:
            raise BadInput(f"{name} {mm:g}: a length over 0 in mm is accepted.")
    value = gap_answer(wide, tube, other, method, service, between_bodies=between_bodies, material=material)
    _show_proposals(value, as_json=as_json)


@app.command()
def hose(
    start: Annotated[
        str,
        typer.Option("--from", metavar="X,Y,Z,UX,UY,UZ", help="Where the hose begins, and its way there."),
    ],
    stop: Annotated[str, typer.Option("--to", metavar="X,Y,Z,UX,UY,UZ", help="Where it ends, and its way.")],
    radius: Annotated[float, typer.Option("--radius", metavar="MM", help="Least radius of its centreline.")],
    length: Annotated[
        float | None,
        typer.Option("--length", metavar="MM", help="Length to draw; else the shortest good one."),
    ] = None,
    straight: Annotated[
        float, typer.Option("--straight", metavar="MM", help="Stiff straight behind each end.")
    ] = 0.0,
    longest: Annotated[
        float | None, typer.Option("--longest", metavar="MM", help="Greatest length looked at.")
    ] = None,
    as_json: AsJson = False,
) -> None:
    """How a hose lies between two ends, and the lengths that keep its radius."""
    from bendrel.services.hose.hoses import hose_answer

    value = hose_answer(start, stop, radius, length, straight, longest)
    tightest = "straight" if value["radius_mm"] is None else f"{value['radius_mm']:.1f} mm"
    table = [["length", "tightest radius", "stands out"]]
    table.append([f"{value['length_mm']:.1f} mm", tightest, f"{value['reach_mm']:.1f} mm"])
    show(value, as_json=as_json, table=table)
    if not as_json:
        for least, most in value["windows_mm"]:
            print(f"keeps the radius from {least:.1f} to {most:.1f} mm")
        if not value["windows_mm"]:
            print("no length keeps the radius; the gentlest is shown")


@app.command()
def circuit(
    file: Annotated[Path, typer.Argument(metavar="FILE", help="A job file, *.bendrel.zip.")],
    hot: Annotated[bool, typer.Option("--hot", help="Hot, as it is without a word.")] = False,
    cold: Annotated[bool, typer.Option("--cold", help="Cold.")] = False,
    as_json: AsJson = False,
) -> None:
    """Flow and pressure over the circuits of a job file, by line and element."""
    from bendrel.services.job.circuits import circuit_file

    if hot and cold:
        raise BadInput("--hot and --cold: one of the two is accepted.")
    value = circuit_file(read_file(file, most_mb=60), "cold" if cold else "hot")
    show(value, as_json=as_json, table=_circuit_table(value))
    if not as_json:
        for found in value["findings"]:
            print(f"{found['severity']}: {found['line']}: {found['message']}")


def _circuit_table(value: dict[str, Any]) -> list[list[str]]:
    def said(figure: float | None, unit: str) -> str:
        return "" if figure is None else f"{figure:.2f} {unit}"

    table = [["line", "element", "flow", "lost", "before", "behind"]]
    for one in value["circuits"]:
        for row in one["elements"]:
            figures = [
                said(row["flow_lpm"], "L/min"),
                *(said(row[k], "kPa") for k in ("drop_kpa", "from_kpa", "to_kpa")),
            ]
            table.append([row["line"], f"{row['what']} {row['span']}", *figures])
        if one["unknown"]:
            table.append([", ".join(one["lines"]), f"not known: {'; '.join(one['unknown'])}"])
    for one in value["vacuum"]:
        for row in one["actuators"]:
            strokes = "not known" if row["strokes"] is None else f"{row['strokes']} strokes"
            table.append([row["line"], row["name"], strokes])
    return table


@app.command()
def fit(
    line: Annotated[Path, typer.Argument(metavar="LINE", help="A line document, or a points or bend CSV.")],
    file: Annotated[Path, typer.Argument(metavar="FIT.json", help="What was read, and what was done.")],
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """Does the finished part fit its ports, and what to bend or twist to bring it home."""
    from bendrel.services.bench.fits import fit_file

    value = fit_file(read_file(line), read_file(file), radius_of(radius))
    said = "fits" if value["fits"] else "does not fit surely"
    table = [[f"{said}: off by {value['miss_mm']:.1f} mm ± {value['doubt_mm']:.1f} and "
              f"{value['miss_deg']:.1f}° ± {value['doubt_deg']:.1f}"]]  # fmt: skip
    table.append([f"rolled by {value['roll_deg']:+.1f}°, {value['trim_mm']:+.1f} mm cut off at B"])
    for tweak in value["tweaks"]:
        moves = f"end B moves {tweak['end_moves_mm']:.1f} mm towards {tweak['towards_clock_deg']:.0f}°"
        leaves = f"leaves {tweak['leaves_mm']:.1f} mm and {tweak['leaves_deg']:.1f}°"
        table.append([f"{tweak['kind']} {tweak['at']} by {tweak['deg']:+.1f}°: {moves}, {leaves}"])
    if not value["fits"] and not value["tweaks"]:
        more = "read it once more" if value["again"] else "another tweak would not help"
        table.append([more])
    show(value, as_json=as_json, table=table)


@app.command()
def measure(
    file: Annotated[Path, typer.Argument(metavar="FILE", help="A line document, or a bend CSV.")],
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """How the readings are taken together, how well end B is known, and what to read next."""
    from bendrel.services.line.readings_file import measure_file

    value = measure_file(read_file(file), radius_of(radius))
    table = [["reading", "read", "taken", "±"]]
    table += [
        [one["path"], *(f"{one[name]:.2f}" for name in ("read", "taken", "doubt"))] for one in value["read"]
    ]
    end = value["end_b"]
    table.append([f"end B ± {end['doubt_mm']:.1f} mm and ± {end['doubt_deg']:.1f}°"])
    for slip in value["slips"]:
        figures = "" if slip["read"] is None else f"{slip['read']:.1f} may be {slip['likely']:.1f}, "
        table.append([f"{slip['path']}: {figures}{slip['why']}"])
    for one in value["next"]:
        table.append([f"{one['what']} brings ± {one['brings_mm']:.1f} mm and ± {one['brings_deg']:.1f}°"])
    show(value, as_json=as_json, table=table)


@app.command("hold-test")
def hold_test(
    file: Annotated[
        Path, typer.Argument(metavar="READINGS.csv", help="time_s,pressure_kpa[,temperature_c], absolute.")
    ],
    kind: Annotated[str, typer.Option("--kind", metavar="vacuum|gas|liquid", help="What was held.")],
    volume: Annotated[float, typer.Option("--volume-ml", metavar="V", help="What was shut in.")],
    air: Annotated[float, typer.Option("--air-kpa", metavar="P", help="The air outside.")] = 101.325,
    threshold: Annotated[
        float | None, typer.Option("--threshold-kpa", metavar="P", help="What must not be reached.")
    ] = None,
    hold: Annotated[
        float | None, typer.Option("--hold-s", metavar="S", help="For how long; else the run's length.")
    ] = None,
    bulk: Annotated[float, typer.Option("--bulk-kpa", metavar="K", help="The liquid's stiffness.")] = 1.6e6,
    as_json: AsJson = False,
) -> None:
    """Does it hold? Settling told apart from a leak, the leak with its doubt."""
    from bendrel.services.proof.holds import hold_answer

    value = hold_answer(read_file(file, most_mb=12), kind, volume, air, threshold, hold, bulk)
    of = "liquid" if kind == "liquid" else "free air"
    table = [[value["verdict"].replace("_", " ")]]
    if value["leak_doubt"] is not None:
        table.append([f"{value['leak_ml_per_min']:.4g} ± {value['leak_doubt']:.2g} ml/min of {of}"])
    if value["hold_s"] is not None:
        table.append([f"at the threshold after {value['hold_s']:.0f} s"])
    show(value, as_json=as_json, table=[*table, *([note] for note in value["notes"])])


def _show_proposals(value: dict[str, Any], *, as_json: bool) -> None:
    def said(mm: float | None) -> str:
        return "" if mm is None else f"{mm:.1f}"

    names = ("cut_a_mm", "cut_b_mm", "gap_mm", "piece_mm", "overlap_mm", "stop_mm", "spring_apart_mm")
    table = [["method", "verdict", *(name.removesuffix("_mm").replace("_", " ") for name in names)]]
    for offer in value["proposals"]:
        table.append([offer["method"], offer["verdict"], *(said(offer[name]) for name in names)])
    show(value, as_json=as_json, table=table)
    if not as_json:
        for offer in value["proposals"]:
            print(f"{offer['method']}: {' '.join(offer['reasons'])}")

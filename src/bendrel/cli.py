"""The command line: the same core without the screen.

Bad input is one clear line on standard error and exit status 2.
"""

from __future__ import annotations

import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, cast

import typer

if TYPE_CHECKING:
    from bendrel.core.bending.bender import MarkStyle
    from bendrel.core.findings import EndName

app = typer.Typer(
    name="bendrel",
    help="Plan, make and prove fluid lines.",
    add_completion=False,
    no_args_is_help=False,
    rich_markup_mode=None,
    pretty_exceptions_enable=False,
)

AsJson = Annotated[bool, typer.Option("--json", help="JSON on standard output, numbers unrounded.")]
Held = Annotated[str | None, typer.Option("--held", metavar="A|B", help="The end you hold.")]
Marks = Annotated[
    str | None, typer.Option("--marks", metavar="start|middle|corner", help="Where a bend is marked.")
]
Radius = Annotated[str | None, typer.Option("--radius", help="Fills blank radii of a points CSV.")]
ServiceId = Annotated[str | None, typer.Option("--service", metavar="ID", help="What the line carries.")]
DataFolder = Annotated[Path | None, typer.Option("--data", help="Folder of the database.")]
Port = Annotated[int, typer.Option("--port", min=1, max=65535, help="First port to try.")]


class BadInput(Exception):
    """Something the person can put right; the text is the one line they see."""


def main() -> None:
    """Run the command line; every failure of the person's input ends as one line and status 2."""
    try:
        status = app(standalone_mode=False)
    except typer.Exit as error:
        sys.exit(error.exit_code)
    except (typer.Abort, KeyboardInterrupt):
        sys.exit(130)
    except typer.TyperException as error:
        _fail(f"{error.format_message().rstrip('.')}; see bendrel --help.")
    except (BadInput, ValueError) as error:
        _fail(str(error))
    except OSError as error:
        _fail(f"{error.filename or 'That'}: {error.strerror or error}.")
    else:
        sys.exit(status if isinstance(status, int) else 0)


def _fail(message: str) -> None:
    print(" ".join(message.split()), file=sys.stderr)
    sys.exit(2)


def _print(value: Any, *, as_json: bool, table: Sequence[Sequence[str]]) -> None:
    if as_json:
        import json

        print(json.dumps(value, ensure_ascii=False))
        return
    widths = [max(len(row[k]) for row in table if k < len(row)) for k in range(max(map(len, table)))]
    for row in table:
        print("  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=False)).rstrip())


def _read(path: Path, most_mb: int = 5) -> bytes:
    if path.is_dir():
        raise BadInput(f"{path}: this is a folder; give a CSV or a line document.")
    if not path.is_file():
        raise BadInput(f"{path}: there is no such file.")
    if path.stat().st_size > most_mb * 1_000_000:
        raise BadInput(
            f"{path}: over {most_mb} MB; a CSV of up to 5,000 rows or a line document is accepted."
        )
    return path.read_bytes()


@app.command(
    context_settings={"ignore_unknown_options": True}
)  # so that -5 is read, and refused, as a length
def length(
    text: Annotated[str, typer.Argument(help="A length, such as 1' 2 3/16\".")],
    unit: Annotated[str, typer.Option("--unit", metavar="in|mm", help="Unit of a bare number.")] = "mm",
    as_json: AsJson = False,
) -> None:
    """Read a length as people write it."""
    from bendrel.core.units import format_length, parse_length

    if unit not in ("in", "mm"):
        raise BadInput(f"--unit {unit}: in or mm is accepted.")
    mm = parse_length(text, "in" if unit == "in" else "mm")
    _print({"mm": mm}, as_json=as_json, table=[[f"{mm:.3f} mm", format_length(mm, "in")]])


@app.command("thread-fit")
def thread_fit_command(
    male: Annotated[str, typer.Argument(help="The male thread, such as 3/8-24.")],
    female: Annotated[str, typer.Argument(help="The female thread, such as M10x1.")],
    as_json: AsJson = False,
) -> None:
    """Turn one thread into another: does it start, when does it bind."""
    from bendrel.catalogue.loader import load_kit
    from bendrel.core.threads.fit import thread_fit

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
    _print(value, as_json=as_json, table=[[f"{fit.male} in {fit.female}: {said}{after}{holds}"]])


@app.command()
def bends(
    file: Annotated[Path, typer.Argument(metavar="POINTS.csv")],
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """Corner points → bend list."""
    from bendrel.core.shape.bends import bend_spans
    from bendrel.core.shape.corners import bends_from_corners
    from bendrel.exchange.tables import read_points

    shape = bends_from_corners(read_points(_read(file), _radius(radius)))
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
    _print(value, as_json=as_json, table=table)


@app.command()
def points(
    file: Annotated[Path, typer.Argument(metavar="BENDS.csv")],
    as_json: AsJson = False,
) -> None:
    """Bend list → corner points."""
    from bendrel.core.shape.corners import corners_from_bends
    from bendrel.exchange.tables import read_bends

    shape = read_bends(_read(file))
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
    _print(value, as_json=as_json, table=table)


@app.command()
def plan(
    file: Annotated[Path, typer.Argument(metavar="FILE")],
    held: Held = None,
    marks: Marks = None,
    radius: Radius = None,
    as_json: AsJson = False,
) -> None:
    """The whole plan of a line document, or of a points or bend CSV."""
    from bendrel.services.offline import plan_file

    if held is not None and held not in ("A", "B"):
        raise BadInput(f"--held {held}: A or B is accepted.")
    if marks is not None and marks not in ("start", "middle", "corner"):
        raise BadInput(f"--marks {marks}: start, middle or corner is accepted.")
    value = plan_file(
        _read(file),
        held=cast("EndName | None", held),
        marks=cast("MarkStyle | None", marks),
        radius_mm=_radius(radius),
    )
    moves = value["moves"]
    table = [["bend", "mark", "from", "turn", "angle", "dial"]]
    for move in moves:
        mark = "none" if move["mark_mm"] is None else f"{move['mark_mm']:.1f}"
        start = move["measured_from"].replace("_", " ")
        figures = (f"{move[name]:.1f}°" for name in ("turn_deg", "angle_deg", "dial_deg"))
        table.append([str(move["bend"]), mark, start, *figures])
    _print(value, as_json=as_json, table=table)
    if not as_json:
        print(f"end {value['held_end']} held, turns as seen from there, clockwise positive")
        print(f"along the tube {value['developed_mm']:.1f} mm, cut {value['cut_mm']:.1f} mm")
        for found in value["findings"]:
            print(f"{found['severity']}: {found['where']}: {found['message']}")


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
    from bendrel.services.splicing import splice_file

    value = splice_file(_read(file), from_mm=start, to_mm=stop, service=service, radius_mm=_radius(radius))
    _print_proposals(value, as_json=as_json)


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
    as_json: AsJson = False,
) -> None:
    """The same over a gap, without any shape."""
    from bendrel.services.gaps import gap_answer

    for name, mm in (("--gap", wide), ("--tube", tube), ("--tube-b", other)):
        if mm is not None and not 0 < mm <= 100_000:
            raise BadInput(f"{name} {mm:g}: a length over 0 in mm is accepted.")
    value = gap_answer(wide, tube, other, method, service, between_bodies=between_bodies)
    _print_proposals(value, as_json=as_json)


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
    from bendrel.services.hoses import hose_answer

    value = hose_answer(start, stop, radius, length, straight, longest)
    tightest = "straight" if value["radius_mm"] is None else f"{value['radius_mm']:.1f} mm"
    table = [["length", "tightest radius", "stands out"]]
    table.append([f"{value['length_mm']:.1f} mm", tightest, f"{value['reach_mm']:.1f} mm"])
    _print(value, as_json=as_json, table=table)
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
    from bendrel.services.circuits import circuit_file

    if hot and cold:
        raise BadInput("--hot and --cold: one of the two is accepted.")
    value = circuit_file(_read(file, most_mb=60), "cold" if cold else "hot")
    _print(value, as_json=as_json, table=_circuit_table(value))
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
    from bendrel.services.fits import fit_file

    value = fit_file(_read(line), _read(file), _radius(radius))
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
    _print(value, as_json=as_json, table=table)


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
    from bendrel.services.holds import hold_answer

    value = hold_answer(_read(file, most_mb=12), kind, volume, air, threshold, hold, bulk)
    of = "liquid" if kind == "liquid" else "free air"
    table = [[value["verdict"].replace("_", " ")]]
    if value["leak_doubt"] is not None:
        table.append([f"{value['leak_ml_per_min']:.4g} ± {value['leak_doubt']:.2g} ml/min of {of}"])
    if value["hold_s"] is not None:
        table.append([f"at the threshold after {value['hold_s']:.0f} s"])
    _print(value, as_json=as_json, table=[*table, *([note] for note in value["notes"])])


def _print_proposals(value: dict[str, Any], *, as_json: bool) -> None:
    def said(mm: float | None) -> str:
        return "" if mm is None else f"{mm:.1f}"

    names = ("cut_a_mm", "cut_b_mm", "gap_mm", "piece_mm", "overlap_mm", "stop_mm", "spring_apart_mm")
    table = [["method", "verdict", *(name.removesuffix("_mm").replace("_", " ") for name in names)]]
    for offer in value["proposals"]:
        table.append([offer["method"], offer["verdict"], *(said(offer[name]) for name in names)])
    _print(value, as_json=as_json, table=table)
    if not as_json:
        for offer in value["proposals"]:
            print(f"{offer['method']}: {' '.join(offer['reasons'])}")


@app.command()
def backup(data: DataFolder = None, as_json: AsJson = False) -> None:
    """Make a checked backup of the shop's data now, whether Bendrel runs or not."""
    from datetime import date

    from bendrel.store.backup import back_up

    database = _database(data)
    if not database.is_file():
        raise BadInput(f"{database}: there is no data to back up.")
    made = back_up(database, date.today(), always=True)
    value = {"number": made.number, "date": made.day.isoformat(), "path": str(made.path)}
    _print(value, as_json=as_json, table=[[f"backup of {made.day}", str(made.path)]])


@app.command()
def restore(
    day: Annotated[str | None, typer.Argument(metavar="[DATE]", help="The day to go back to.")] = None,
    data: DataFolder = None,
    as_json: AsJson = False,
) -> None:
    """List the backups, or go back to the one of DATE; what is there now is set aside."""
    from datetime import datetime

    from bendrel.store.backup import copies, counts, damage
    from bendrel.store.backup import restore as bring_back

    database = _database(data)
    there = copies(database)
    if day is None:
        rows: list[dict[str, str | int]] = []
        for copy in there:
            wrong = damage(copy.path)
            jobs, lines = (0, 0) if wrong else counts(copy.path)
            rows.append({"date": copy.day.isoformat(), "jobs": jobs, "lines": lines, "damaged": wrong})
        table = [["date", "jobs", "lines", ""]]
        for told in rows:
            wrong = f"damaged: {told['damaged']}" if told["damaged"] else ""
            table.append([str(told["date"]), str(told["jobs"]), str(told["lines"]), wrong])
        if not rows:
            table = [["There are no backups yet."]]
        _print({"backups": rows}, as_json=as_json, table=table)
        return
    wanted = [copy for copy in there if copy.day.isoformat() == day.strip()]
    if not wanted:
        days = ", ".join(dict.fromkeys(copy.day.isoformat() for copy in there)) or "none"
        raise BadInput(f"{day}: there is no backup of that day; there are: {days}.")
    chosen = next((copy for copy in wanted if not damage(copy.path)), wanted[0])
    done = bring_back(database, chosen, datetime.now())
    value = {
        "date": chosen.day.isoformat(),
        "set_aside": None if done.set_aside is None else str(done.set_aside),
        "missing_photos": list(done.missing_photos),
    }
    table = [[f"The data is as it was on {chosen.day}."]]
    if done.set_aside is not None:
        table.append([f"What was there before lies in {done.set_aside}."])
    if done.missing_photos:
        table.append([f"{len(done.missing_photos)} photographs are nowhere to be had."])
    _print(value, as_json=as_json, table=table)


def _database(data: Path | None) -> Path:
    """The shop's database, or the demo's in a folder that holds only that."""
    from bendrel.store.folder import shop_folder

    folder = data or shop_folder()
    demo = folder / "demo.db"
    return demo if demo.exists() and not (folder / "bendrel.db").exists() else folder / "bendrel.db"


@app.command()
def serve(data: DataFolder = None, port: Port = 8470) -> None:
    """Start with the shop's own data."""
    from bendrel.serving import run
    from bendrel.store.folder import shop_folder

    run((data or shop_folder()) / "bendrel.db", port)


@app.command()
def demo(
    data: DataFolder = None,
    port: Port = 8471,
    fresh: Annotated[bool, typer.Option("--fresh", help="Throw earlier demo data away.")] = False,
) -> None:
    """Start with the demo data."""
    from bendrel.serving import run
    from bendrel.store.folder import shop_folder

    run((data or shop_folder() / "demo") / "demo.db", port, demo=True, fresh=fresh)


def _radius(text: str | None) -> float | None:
    from bendrel.core.units import UnitError, parse_length

    if text is None:
        return None
    try:
        return parse_length(text)
    except UnitError as error:
        raise BadInput(f"--radius: {error}") from error

"""What every command shares: how it is called, what it reads, how it answers and refuses."""

from __future__ import annotations

import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Annotated, Any

import typer

from bendrel.core.errors import BendrelError

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


class BadInput(BendrelError):
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
        fail(f"{error.format_message().rstrip('.')}; see bendrel --help.")
    except (BadInput, ValueError) as error:
        fail(str(error))
    except OSError as error:
        fail(f"{error.filename or 'That'}: {error.strerror or error}.")
    else:
        sys.exit(status if isinstance(status, int) else 0)


def fail(message: str) -> None:
    print(" ".join(message.split()), file=sys.stderr)
    sys.exit(2)


def show(value: Any, *, as_json: bool, table: Sequence[Sequence[str]]) -> None:
    if as_json:
        import json

        print(json.dumps(value, ensure_ascii=False))
        return
    widths = [max(len(row[k]) for row in table if k < len(row)) for k in range(max(map(len, table)))]
    for row in table:
        print("  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=False)).rstrip())


def read_file(path: Path, most_mb: int = 5) -> bytes:
    if path.is_dir():
        raise BadInput(f"{path}: this is a folder; give a CSV or a line document.")
    if not path.is_file():
        raise BadInput(f"{path}: there is no such file.")
    if path.stat().st_size > most_mb * 1_000_000:
        raise BadInput(
            f"{path}: over {most_mb} MB; a CSV of up to 5,000 rows or a line document is accepted."
        )
    return path.read_bytes()


def radius_of(text: str | None) -> float | None:
    from bendrel.core.units.notation import UnitError, parse_length

    if text is None:
        return None
    try:
        return parse_length(text)
    except UnitError as error:
        raise BadInput(f"--radius: {error}") from error

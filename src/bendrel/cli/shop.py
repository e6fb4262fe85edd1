"""The shop's data: serving it, its backups."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from bendrel.cli.app import AsJson, BadInput, DataFolder, Port, app, show


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
    show(value, as_json=as_json, table=[[f"backup of {made.day}", str(made.path)]])


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
        show({"backups": rows}, as_json=as_json, table=table)
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
    show(value, as_json=as_json, table=table)


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

"""What others made that Bendrel stands on, and on which terms, as the packages' own metadata say: NOTICES.md.

Python's packages are read by pip-licenses, those of the screens by the build's licence plugin; both pinned.
Run with --check to see whether the file is current.
"""

from __future__ import annotations

import json
import re
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent
TOLD = ROOT / "NOTICES.md"
BUILT = ROOT / "src" / "bendrel" / "interface" / "notices.json"
OPTIONAL = "cadquery-ocp-novtk"
HEAD = """# Notices

Bendrel is under the terms of `LICENSE`. It stands on the work of others, each under its own terms. This page
is made by `make notices` from what the packages say of themselves; the texts of those that are built into the
screens are on the page *Licence and notices* of the application, the others' lie beside each package.
"""


def python_packages(names: set[str]) -> list[tuple[str, ...]]:
    """Name, version and licence of installed packages."""
    command = [sys.executable, "-m", "piplicenses", "--from=mixed", "--format=json"]
    found = json.loads(subprocess.run(command, capture_output=True, text=True, check=True).stdout)
    rows = [(row["Name"], row["Version"], row["License"]) for row in found]
    return sorted((row for row in rows if plain(row[0]) in names), key=lambda row: row[0].lower())


def plain(name: str) -> str:
    """A package's name as all spell it."""
    return re.sub(r"[-_.]+", "-", name).lower()


def required(path: Path) -> set[str]:
    """The packages that a file of requirements names."""
    return {plain(name) for name in re.findall(r"^([A-Za-z0-9._-]+)==", path.read_text(), re.MULTILINE)}


def screens() -> list[tuple[str, ...]]:
    """What the build put into the screens."""
    rows = [(row["name"], row["version"], row["license"]) for row in json.loads(BUILT.read_text())]
    return sorted(rows)


def fonts() -> list[tuple[str, ...]]:
    """The fonts of screens and paper, by their packages."""
    rows = []
    for path in sorted((ROOT / "web" / "node_modules" / "@fontsource").glob("*/package.json")):
        told = json.loads(path.read_text())
        rows.append((told["name"], told["version"], told["license"]))
    return rows


def page() -> str:
    """The whole page."""
    parts = (
        ("In the screens", screens()),
        ("Fonts of screens and paper", fonts()),
        ("Python packages", python_packages(required(ROOT / "requirements.txt"))),
        ("Only where STEP files are wanted", python_packages({OPTIONAL})),
    )
    told = [HEAD]
    for title, rows in parts:
        told.append(f"\n## {title}\n\n| Package | Version | Licence |\n|---|---|---|\n")
        told += [f"| {' | '.join(cell.replace('|', '/') for cell in row)} |\n" for row in rows]
    return "".join(told)


def main() -> int:
    """Write the page, or say that it is old."""
    made = page()
    if "--check" in sys.argv and TOLD.read_text() != made:
        print("NOTICES.md is old: run make notices", file=sys.stderr)
        return 1
    TOLD.write_text(made)
    return 0


if __name__ == "__main__":
    sys.exit(main())

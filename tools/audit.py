"""What can be said of the packages that Bendrel stands on without asking anybody: pinned, hashed, how old.

Known vulnerabilities are not among it: no maintained list of them ships in a package, and nothing is asked
over the network here. Run a checker that is connected from time to time.
"""

from __future__ import annotations

import json
import re
import sys
import tomllib
from datetime import date
from importlib.metadata import PackageNotFoundError, version
from pathlib import Path

ROOT = Path(__file__).parent.parent
BLOCK = re.compile(
    r"^([A-Za-z0-9._-]+)==([^\s\\]+)((?: \\\n +--hash=sha256:[0-9a-f]{64})+)\n +# (\d{4}-\d\d-\d\d)$",
    re.MULTILINE,
)
YOUNG_DAYS, OLD_DAYS = 14, 3 * 365


def plain(name: str) -> str:
    """A package's name as all spell it."""
    return re.sub(r"[-_.]+", "-", name).lower()


def pinned() -> tuple[dict[str, tuple[str, date]], list[str]]:
    """Every Python package with its version and day, and what is wrong with the files."""
    found: dict[str, tuple[str, date]] = {}
    wrong = []
    for path in sorted(ROOT.glob("requirements*.txt")):
        text = path.read_text()
        blocks = BLOCK.findall(text)
        named = re.findall(r"^[A-Za-z0-9][^#\n]*", text, re.MULTILINE)
        if len(blocks) != len(named):
            wrong.append(f"{path.name}: {len(named) - len(blocks)} packages without version, hash or day")
        for name, pin, _, day in blocks:
            other = found.setdefault(plain(name), (pin, date.fromisoformat(day)))
            if other[0] != pin:
                wrong.append(f"{name}: {other[0]} in one file, {pin} in {path.name}")
    return found, wrong


def main() -> int:
    """Print the report; 1 where something is not pinned, not hashed, or not what is installed."""
    packages, wrong = pinned()
    for told in tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["dependencies"]:
        name, _, pin = told.partition("==")
        if packages.get(plain(name), ("", None))[0] != pin:
            wrong.append(f"pyproject.toml: {told} is not what the requirement files say")
    for name, (pin, _) in packages.items():
        try:
            if version(name) != pin:
                wrong.append(f"{name}: {pin} is pinned, {version(name)} is installed")
        except PackageNotFoundError:
            continue  # of another set
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text())["packages"]
    for place, package in lock.items():
        if place and not package.get("link") and not package.get("integrity"):
            wrong.append(f"package-lock.json: {place} has no hash")
        if "resolved" in package:
            wrong.append(f"package-lock.json: {place} names where it came from")
    today = date.today()
    young = sorted(name for name, (_, day) in packages.items() if (today - day).days < YOUNG_DAYS)
    old = sorted(
        f"{name} ({day.year})" for name, (_, day) in packages.items() if (today - day).days > OLD_DAYS
    )
    print(f"{len(packages)} Python packages and {len(lock) - 1} of npm, each pinned and hashed, but for:")
    print("\n".join(f"  {line}" for line in wrong) or "  none")
    print(f"Younger than {YOUNG_DAYS} days: {', '.join(young) or 'none'}")
    print(f"Older than three years: {', '.join(old) or 'none'}")
    print("Known vulnerabilities are not checked: no maintained list of them ships in a package.")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())

"""Write the hashes and the release day of every pinned Python package into the requirement files.

Run it after changing a version: `.venv/bin/python tools/lock.py`. It asks the index that pip asks.
"""

from __future__ import annotations

import json
import re
import sys
from pathlib import Path
from urllib.request import Request, urlopen

from pip._internal.models.index import PyPI

FILES = sorted(Path(__file__).parent.parent.glob("requirements*.txt"))
PIN = re.compile(r"^([A-Za-z0-9._-]+)==([^\s\\;]+)")
JSON = "application/vnd.pypi.simple.v1+json"
WHEEL = re.compile(r"-(?:py2\.py3|py3|cp3\d+|cp311|cp312|cp313|cp314)-[a-z0-9_.]+-[^-]+\.whl$")
OTHERS = re.compile(
    r"-(?:pp|cp27|cp3[6-9]-cp|cp310-cp|cp31[2-4]-cp31[2-4]t)|musllinux|i686|win32|armv|ppc64|s390x|riscv"
)
"""Interpreters and machines that Bendrel is not run on."""


def files_of(name: str, version: str) -> tuple[list[str], str]:
    """The sha256 of every file of one release that may be installed, and the day it came out."""
    address = f"{PyPI.simple_url}/{re.sub(r'[-_.]+', '-', name).lower()}/"
    with urlopen(Request(address, headers={"Accept": JSON}), timeout=60) as answer:
        told = json.load(answer)
    wanted = re.escape(re.sub(r"[-_.]+", "_", name).lower())
    hashes, days = [], []
    for file in told["files"]:
        plain = re.sub(r"[-_.]+", "_", file["filename"]).lower()
        if not re.match(rf"{wanted}_{re.escape(re.sub(r'[-_.]+', '_', version).lower())}(_|$)", plain):
            continue
        whole = f"-{version}" in file["filename"]
        source = file["filename"].endswith((f"-{version}.tar.gz", f"-{version}.zip"))
        wheel = whole and WHEEL.search(file["filename"]) and not OTHERS.search(file["filename"])
        if source or wheel:
            hashes.append(file["hashes"]["sha256"])
            days.append(file["upload-time"][:10])
    if not hashes:
        sys.exit(f"{name}=={version}: the index has no file of it that fits.")
    return sorted(set(hashes)), min(days)


def main() -> None:
    """Rewrite every file; comments that stand on a line of their own stay."""
    for path in FILES:
        out = []
        for line in path.read_text().splitlines():
            pin = PIN.match(line)
            if pin:
                hashes, day = files_of(pin[1], pin[2])
                out.append(
                    " \\\n    ".join([f"{pin[1]}=={pin[2]}", *(f"--hash=sha256:{one}" for one in hashes)])
                )
                out.append(f"    # {day}")
            elif line.startswith("#"):
                out.append(line)
        path.write_text("\n".join(out) + "\n")
        print(f"{path.name}: {sum(1 for line in out if '==' in line)} packages")


if __name__ == "__main__":
    main()

"""The kept answers: compare them with today's, or write them anew.

    python tools/golden.py [--write] [--part plan]

Compares plan, bench report, sheet and shopping list of the 200 kept lines (tests/golden.py) with what the
program says now and prints where they differ; exits 1 where they do. Write them anew only for a difference
that is meant, and list it in the commit.
"""

from __future__ import annotations

import argparse
import sys
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))

from tests.golden import LINES, TOLD, differences, read, told_of, write

PARTS = ("plan", "shopping", "bench", "sheet")
SHOWN = 60


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("--write", action="store_true")
    asked.add_argument("--part", choices=PARTS, action="append")
    options = asked.parse_args()
    parts = tuple(options.part or PARTS)
    lines = read(LINES)
    with ProcessPoolExecutor() as pool:
        now = list(pool.map(partial(told_of, parts=PARTS if options.write else parts), lines, chunksize=5))
    if options.write:
        write(TOLD, now)
        print(f"{len(lines)} lines written down")
        return 0
    found = [
        f"{line['name']} {where}"
        for line, was, told in zip(lines, read(TOLD), now, strict=True)
        for where in differences({part: was.get(part) for part in told}, told)
    ]
    for where in found[:SHOWN]:
        print(where)
    print(f"{len(lines)} lines, {len(found)} differences")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())

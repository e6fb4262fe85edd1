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
from difflib import unified_diff
from functools import partial
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))

from tests.golden import LINES, TOLD, differences, read, told_of, write
from tests.kept_answers import A_FILE, COUNT, documents, file_of, told_file

PARTS = ("plan", "shopping", "bench", "sheet")
SHOWN = 60


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("--write", action="store_true")
    asked.add_argument("--made", action="store_true", help="the 200 lines of version 2, told as text")
    asked.add_argument("--part", choices=PARTS, action="append")
    options = asked.parse_args()
    if options.made:
        return made(write_anew=options.write)
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


def made(*, write_anew: bool) -> int:
    """The lines as people make them: compare today's text with the kept one, or write it anew."""
    kept, firsts = documents(), range(0, COUNT, A_FILE)
    with ProcessPoolExecutor() as pool:
        now = list(pool.map(partial(told_file, kept=kept), firsts))
    changed = 0
    for first, text in zip(firsts, now, strict=True):
        path = file_of(first)
        was = path.read_text(encoding="utf-8") if path.exists() else ""
        found = list(unified_diff(was.splitlines(), text.splitlines(), path.name, "today", n=0))
        changed += bool(found)
        if write_anew:
            path.parent.mkdir(exist_ok=True)
            path.write_text(text, encoding="utf-8")
        else:
            print("\n".join(found[:SHOWN]))
    print(f"{COUNT} lines as people make them, {changed} of {len(now)} files differ")
    return 1 if changed and not write_anew else 0


if __name__ == "__main__":
    sys.exit(main())

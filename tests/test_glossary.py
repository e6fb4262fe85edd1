"""The words of docs/glossary.md are those of the code, and none stands for two things."""

import re
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).parent.parent
ROWS = [
    [cell.strip() for cell in line.strip("|").split("|")]
    for line in (ROOT / "docs" / "glossary.md").read_text(encoding="utf-8").splitlines()
    if line.startswith("|") and "`" in line
]
CODE = "\n".join(
    path.read_text(encoding="utf-8")
    for room in ("core", "services")
    for path in (ROOT / "src" / "bendrel" / room).rglob("*.py")
)


def test_every_name_is_in_the_code():
    named = {name for row in ROWS for cell in (row[1], row[3]) for name in re.findall(r"`([^`/]+)`", cell)}
    parts = {part for name in named for part in name.split(".")}
    assert len(parts) > 100
    assert sorted(part for part in parts if not re.search(rf"\b{part}\b", CODE)) == []


def test_no_term_of_the_trade_stands_twice():
    terms = Counter(row[0] for row in ROWS)
    assert [term for term, count in terms.items() if count > 1] == []

"""What the README says of the tree is there."""

import re
from pathlib import Path

ROOT = Path(__file__).parents[1]
README = (ROOT / "README.md").read_text(encoding="utf-8")


def test_every_room_of_the_core_is_named_and_no_other():
    row = next(line for line in README.splitlines() if line.startswith("| `src/bendrel/core` |"))
    named = set(re.findall(r"`(\w+)`", row.split("one room each")[1]))
    rooms = {path.name for path in (ROOT / "src/bendrel/core").iterdir() if (path / "__init__.py").exists()}
    assert named == rooms


def test_every_picture_and_page_that_it_links_is_there():
    linked = [link for link in re.findall(r"\]\(([^)#]+)\)", README) if not link.startswith("http")]
    assert linked
    assert [link for link in linked if not (ROOT / link).exists()] == []

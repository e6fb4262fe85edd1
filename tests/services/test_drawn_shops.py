"""Files of a whole shop with rows that nobody wrote so, signed as if they were right: each is brought in or
refused whole, and the folder starts again after it (`make soak` draws 200)."""

from __future__ import annotations

import json
import random
import zipfile
from hashlib import sha256
from shutil import copyfile

import pytest

from bendrel.core.errors import BendrelError
from bendrel.services.startup import open_shop
from tests.often import often

FILES = often(12, 200)
STRANGE = (
    None, -1, 0, 10**30, 1.5e308, "", "x" * 9_000, [], {}, "../../etc", "<img src=x>", "2026-13-45 99:99:99",
    "\x00", "é" * 300, True, '{"format": "bendrel-line", "version": 2}', "[[[[", {"a": [{}]}, "NaN",
)  # fmt: skip


def spoilt(rng: random.Random, rows: list[bytes]) -> list[bytes]:
    """Some rows of a table otherwise: a value, a row twice, a row gone, values of two rows exchanged."""
    head, *rest = rows
    for _ in range(rng.randint(1, 3)):
        if not rest:
            return [head]
        k = rng.randrange(len(rest))
        match rng.choice(("value", "value", "value", "twice", "gone", "exchanged")):
            case "twice":
                rest.append(rest[k])
            case "gone":
                del rest[k]
            case kind:
                row, other = json.loads(rest[k]), json.loads(rng.choice(rest))
                at = rng.randrange(len(row))
                row[at] = rng.choice(STRANGE) if kind == "value" else other[at]
                rest[k] = json.dumps(row).encode() + b"\n"
    return [head, *rest]


def drawn(rng: random.Random, path, out):
    """The file with one to three tables spoilt, its counts and sums made to fit."""
    with zipfile.ZipFile(path) as file:
        entries = {name: file.read(name) for name in file.namelist()}
    manifest = json.loads(entries["shop.json"])
    filled = [name for name, data in entries.items() if name.startswith("tables/") and data.count(b"\n") > 1]
    for name in rng.sample(filled, rng.randint(1, 3)):
        rows = spoilt(rng, entries[name].splitlines(keepends=True))
        entries[name] = b"".join(rows)
        manifest["rows"][name.removeprefix("tables/").removesuffix(".jsonl")] = len(rows) - 1
        manifest["sha256"][name] = sha256(entries[name]).hexdigest()
    entries["shop.json"] = json.dumps(manifest).encode()
    with zipfile.ZipFile(out, "w") as file:
        for name, data in entries.items():
            file.writestr(name, data)
    return out


def refusal(call, *given) -> str:
    """The sentence that it is refused with; blank where it is not."""
    try:
        call(*given)
    except BendrelError as error:
        return str(error)
    return ""


@pytest.mark.long("every file is brought in, and the shop opened again")
def test_a_drawn_shop_is_in_or_refused_and_the_folder_starts_after_it(tmp_path, templates):
    (tmp_path / "full").mkdir()
    copyfile(templates["demo"], tmp_path / "full" / "shop.db")
    full = open_shop(tmp_path / "full" / "shop.db", backups=False)
    written = full.whole.write()
    took = []
    for seed in range(FILES):
        rng = random.Random(seed)
        path = tmp_path / str(seed) / "shop.db"
        path.parent.mkdir()
        copyfile(templates["empty"], path)
        shop = open_shop(path, backups=False)
        said = refusal(shop.whole.bring_in, drawn(rng, written, tmp_path / "drawn.zip"))
        took.append(said == "")
        if said:
            assert said.endswith("."), seed
            assert shop.jobs.board() == (), seed
        shop.close()
        again = open_shop(path, backups=False)
        for job in again.jobs.board():
            for line in job.lines:
                said = refusal(again.lines.open, line.id)
                assert said == "" or said.endswith("."), seed
        again.stock.all()
        again.close()
    full.close()
    assert len(set(took)) == 2  # some are in, some are refused

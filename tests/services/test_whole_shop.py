"""The whole shop out and into an empty one: table by table and photograph by photograph the same."""

import io
import json
import sqlite3
import zipfile
from contextlib import closing
from dataclasses import replace
from hashlib import sha256
from pathlib import Path
from shutil import copyfile

import pytest
from PIL import Image
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from bendrel.core.errors import BendrelError
from bendrel.services.startup import open_shop
from bendrel.store.database import NoRoom
from bendrel.store.whole import TABLES, dump


def photograph():
    """A small picture like no other."""
    out = io.BytesIO()
    Image.effect_noise((40, 30), 60).convert("RGB").save(out, "PNG")
    return out.getvalue()


@pytest.fixture
def full(tmp_path, templates):
    """The demo with a photograph, on a folder of its own."""
    path = tmp_path / "full" / "shop.db"
    path.parent.mkdir()
    copyfile(templates["demo"], path)
    shop = open_shop(path, backups=False)
    shop.photos.keep(photograph())
    yield shop
    shop.close()


@pytest.fixture
def empty(tmp_path):
    shop = open_shop(tmp_path / "empty" / "shop.db", backups=False)
    yield shop
    shop.close()


def photographs(shop):
    folder = shop.database.path.parent / "shop-photos"
    return {path.name: path.read_bytes() for path in folder.glob("*.jpg")} if folder.exists() else {}


def changed(path, name, change):
    """The file with one entry changed."""
    with zipfile.ZipFile(path) as file:
        entries = {entry: file.read(entry) for entry in file.namelist()}
    entries[name] = change(entries[name])
    with zipfile.ZipFile(path, "w") as file:
        for entry, data in entries.items():
            file.writestr(entry, data)
    return path


def test_every_row_and_photograph_is_the_same_in_the_other_shop(full, empty):
    told = empty.whole.bring_in(full.whole.write())
    for table in TABLES:
        assert list(dump(empty.database.path, table)) == list(dump(full.database.path, table)), table
    assert photographs(empty) == photographs(full)
    assert (told.photos, told.missing_photos) == (1, len(list(dump(full.database.path, "photos"))) - 2)
    assert told.rows["line_steps"] > told.rows["lines"]  # undo comes along
    assert [job.name for job in empty.jobs.board()] == [job.name for job in full.jobs.board()]
    assert empty.kit.preferences == full.kit.preferences
    assert empty.stock.all() == full.stock.all()
    assert not list(empty.database.path.parent.glob("*.part"))


def test_undo_goes_on_in_the_other_shop(full, empty):
    line = full.jobs.board()[0].lines[0]
    opened = full.lines.open(line.id)
    full.lines.save(line.id, opened.version, replace(opened.document, notes="once more"))
    empty.whole.bring_in(full.whole.write())
    there = empty.lines.open(line.id)
    assert empty.lines.undo(line.id, there.version).document == opened.document


def test_an_unreadable_line_travels_as_it_is(full, empty):
    line = full.jobs.board()[0].lines[0].id
    with closing(sqlite3.connect(full.database.path)) as opened:
        opened.execute("update line_steps set document = '{broken' where line_id = ?", (line,))
        opened.commit()
    empty.whole.bring_in(full.whole.write())
    assert empty.lines.as_kept(line)[0] == b"{broken"


def test_it_is_brought_into_an_empty_shop_only(full):
    before = [list(dump(full.database.path, table)) for table in TABLES]
    with pytest.raises(BendrelError, match="into an empty one"):
        full.whole.bring_in(full.whole.write())
    assert [list(dump(full.database.path, table)) for table in TABLES] == before


def said_otherwise(data):
    manifest = json.loads(data)
    manifest["sha256"]["tables/jobs.jsonl"] = "0" * 64
    return json.dumps(manifest).encode()


@pytest.mark.parametrize(
    ("name", "change", "said"),
    [
        ("shop.json", lambda _: b"{}", "no shop of Bendrel"),
        ("shop.json", lambda data: data.replace(b'"0014"', b'"0099"'), "another version"),
        ("shop.json", said_otherwise, "What was written of jobs"),
        ("tables/jobs.jsonl", lambda data: data.splitlines(keepends=True)[0], "name others"),
        ("tables/jobs.jsonl", lambda data: data + b"[1]\n", "not as long as its columns"),
        ("tables/jobs.jsonl", lambda data: data + b"{}\n", "not as long as its columns"),
        ("tables/jobs.jsonl", lambda data: data.replace(b"machine", b"engine"), "columns of jobs"),
        ("tables/lines.jsonl", lambda _: b"\xff\xfe[", "cannot be kept"),
        ("tables/holdings.jsonl", lambda data: data + b'[[], "x", 1, 2]\n', "no value"),
    ],
)
def test_what_is_not_what_was_written_is_refused_and_nothing_is_kept(full, empty, name, change, said):
    with pytest.raises(BendrelError, match=said):
        empty.whole.bring_in(changed(full.whole.write(), name, change))
    assert empty.jobs.board() == ()
    assert photographs(empty) == {}
    assert not list(empty.database.path.parent.glob("*.part"))


def test_a_photograph_that_is_not_what_its_name_says_is_refused(full, empty):
    path = full.whole.write()
    with zipfile.ZipFile(path) as file:
        photo = next(name for name in file.namelist() if name.startswith("photos/"))
    with pytest.raises(BendrelError, match="not what its name says"):
        empty.whole.bring_in(changed(path, photo, lambda data: data[:-1] + b"x"))


@pytest.mark.parametrize("data", [b"", b"PK\x03\x04", b"no zip"])
def test_what_is_no_shop_is_one_sentence(empty, data):
    path = empty.database.path.with_name("sent.zip")
    path.write_bytes(data)
    with pytest.raises(BendrelError, match="no shop that can be read"):
        empty.whole.bring_in(path)


def test_over_http(client, tmp_path):
    answer = client.get("/api/shop/everything.zip")
    assert ".bendrel-shop.zip" in answer.headers["content-disposition"]
    other = TestClient(create_app(tmp_path / "new" / "shop.db"), base_url="http://127.0.0.1")
    told = other.post("/api/shop/everything", content=answer.content).json()
    assert told["rows"]["jobs"] == len(other.get("/api/jobs").json()) > 0
    again = other.post("/api/shop/everything", content=answer.content)
    assert (again.status_code, "empty one" in again.json()["message"]) == (422, True)


def rewritten(path, table, column, value):
    """The file with one column of a table's first row changed, its sums put right."""
    with zipfile.ZipFile(path) as file:
        lines = file.read(f"tables/{table}.jsonl").splitlines(keepends=True)
        manifest = json.loads(file.read("shop.json"))
    row = json.loads(lines[1])
    row[json.loads(lines[0]).index(column)] = value
    lines[1] = json.dumps(row, ensure_ascii=False, separators=(",", ":")).encode() + b"\n"
    manifest["sha256"][f"tables/{table}.jsonl"] = sha256(b"".join(lines)).hexdigest()
    changed(path, f"tables/{table}.jsonl", lambda _: b"".join(lines))
    return changed(path, "shop.json", lambda _: json.dumps(manifest).encode())


BAD_ROWS = [
    ("own_entries", "fields", "{no json"),
    ("own_entries", "fields", "[1]"),
    ("jobs", "promised", "no date"),
    ("jobs", "created_at", "yesterday"),
    ("strip_downs", "log", '{"items": 7}'),
    ("makings", "state", '{"done": {}}'),
    ("cuttings", "items", '{"bar": 1}'),
]


@pytest.mark.parametrize(("table", "column", "value"), BAD_ROWS)
def test_a_row_that_cannot_be_read_is_refused_before_anything_is_kept(full, empty, table, column, value):
    """With right sums: what is wrong is what the row says. The shop that refused it opens afterwards."""
    path = full.whole.write()
    with zipfile.ZipFile(path) as file:
        if len(file.read(f"tables/{table}.jsonl").splitlines()) < 2:
            pytest.skip(f"the demo has nothing in {table}")
    with pytest.raises(BendrelError, match=f"A row of {table} in the file cannot be read"):
        empty.whole.bring_in(rewritten(path, table, column, value))
    assert empty.jobs.board() == ()
    again = open_shop(empty.database.path, backups=False)
    again.close()


@pytest.mark.skipif(not Path("/dev/full").exists(), reason="this system has no device that is full")
def test_a_full_disk_is_a_sentence_and_leaves_nothing(full, monkeypatch):
    """/dev/full takes nothing, as a full disk does."""
    with pytest.raises(NoRoom, match="takes no copy"):
        full.database.copy_to(Path("/dev/full"))
    real = full.database.copy_to
    monkeypatch.setattr(full.database, "copy_to", lambda _: real(Path("/dev/full")))
    with pytest.raises(NoRoom):
        full.whole.write()
    assert not list(full.database.path.parent.glob("shop-out-*"))

"""A shop that cannot be worked with: one sentence, nothing changed. Leftovers are swept, nothing else."""

import errno
import logging
import os
import sqlite3
import stat
from contextlib import closing
from pathlib import Path
from shutil import copyfile
from time import time

import pytest
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from bendrel.logs import log_beside
from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
from bendrel.store import opening, photos
from bendrel.store.opening import UnusableShop, served_alone, unusable
from bendrel.store.sweep import sweep
from tests.services.test_whole_shop import photograph


def execute(path, statement):
    with closing(sqlite3.connect(path)) as opened:
        opened.execute(statement)
        opened.commit()


def scribbled(path):
    data = bytearray(path.read_bytes())
    for at in range(16_384, len(data), 4_096):
        data[at : at + 900] = os.urandom(900)
    path.write_bytes(data)


DAMAGE = {
    "is damaged": scribbled,
    "no database any more": lambda path: path.write_bytes(os.urandom(9_000)),
    r"0 bytes": lambda path: path.write_bytes(b""),
    "by a newer Bendrel": lambda path: execute(path, "update alembic_version set version_num = '0999'"),
    "of something else": lambda path: (path.unlink(), execute(path, "create table x (a)")),
    "is no file": lambda path: (path.unlink(), path.mkdir()),
}


@pytest.mark.parametrize("said", DAMAGE)
def test_data_that_cannot_be_worked_with_is_one_sentence(tmp_path, templates, said):
    path = tmp_path / "shop.db"
    copyfile(templates["demo"], path)
    DAMAGE[said](path)
    before = path.read_bytes() if path.is_file() else None
    with pytest.raises(UnusableShop, match=said) as refused:
        open_shop(path)
    assert len(str(refused.value).splitlines()) == 1
    assert (path.read_bytes() if path.is_file() else None) == before


def test_a_folder_that_is_a_file(tmp_path):
    (tmp_path / "taken").write_text("x")
    with pytest.raises(UnusableShop, match="is a file; name a folder"):
        open_shop(tmp_path / "taken" / "shop.db")


@pytest.mark.parametrize(
    ("number", "said"),
    [
        (errno.ENOSPC, "is full; make room"),
        (errno.EROFS, "read only"),
        (errno.EACCES, "may not be read and written by you"),
        (errno.EIO, "Input/output error"),
    ],
)
def test_what_the_disk_says_is_said_in_a_sentence(number, said):
    assert said in str(unusable(Path("/data"), OSError(number, os.strerror(number))))


def test_a_disk_without_room_is_no_place_to_start(tmp_path, monkeypatch):
    monkeypatch.setattr(opening, "LEAST_FREE_BYTES", 10**18)
    with pytest.raises(UnusableShop, match="is full"):
        open_shop(tmp_path / "shop.db")


def test_two_servers_on_one_folder_the_second_is_told_where_the_first_is(tmp_path):
    path = tmp_path / "shop.db"
    with (
        served_alone(path, "http://127.0.0.1:8470/"),
        pytest.raises(UnusableShop, match=r"already, at http://127\.0\.0\.1:8470/"),
        served_alone(path, "http://127.0.0.1:8471/"),
    ):
        pass
    with served_alone(path, "http://127.0.0.1:8471/"):
        pass


def test_a_start_that_was_cut_off_leaves_no_half_shop(tmp_path):
    path = tmp_path / "shop.db"
    path.with_name("shop.db.part").write_bytes(b"half of one")
    shop = open_shop(path)
    shop.jobs.create(JobDraft(name="x"))
    shop.close()
    assert not list(tmp_path.glob("*.part"))


def test_the_data_is_for_its_owner_alone(tmp_path):
    path = tmp_path / "data" / "shop.db"
    shop = open_shop(path)
    shop.photos.keep(photograph())
    shop.close()
    open_shop(path).close()  # the second start makes a backup
    for found in [path.parent, *path.parent.rglob("*")]:
        assert stat.S_IMODE(found.stat().st_mode) & 0o077 == 0, found


def test_a_disk_that_fills_up_is_named_and_nothing_is_half_kept(tmp_path, monkeypatch):
    app = create_app(tmp_path / "shop.db")
    client = TestClient(app, base_url="http://127.0.0.1")
    job = client.post("/api/jobs", json={"name": "x"}).json()
    shop = app.state.shop
    with shop.database.engine.connect() as connection:
        pages = connection.exec_driver_sql("pragma page_count").scalar()
    shop.database.engine.dispose()
    real = sqlite3.connect

    def small(*args, **kwargs):
        opened = real(*args, **kwargs)
        opened.execute(f"pragma max_page_count = {pages}")
        return opened

    monkeypatch.setattr(sqlite3.dbapi2, "connect", small)
    answers = [client.post(f"/api/jobs/{job['id']}/lines", json={"name": "y"}) for _ in range(30)]
    full = answers[-1]
    assert full.status_code == 507
    assert "disk is full" in full.json()["message"]
    kept = sum(answer.status_code == 201 for answer in answers)
    assert len(client.get(f"/api/jobs/{job['id']}").json()["lines"]) == kept


def test_a_photograph_that_the_disk_does_not_take_leaves_nothing(tmp_path, monkeypatch):
    client = TestClient(create_app(tmp_path / "shop.db"), base_url="http://127.0.0.1")

    def full(_):
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(photos.os, "fsync", full)
    answer = client.post("/api/photos", content=photograph())
    assert (answer.status_code, "disk is full" in answer.json()["message"]) == (507, True)
    assert list((tmp_path / "shop-photos").iterdir()) == []


def test_a_photograph_is_on_the_disk_before_it_is_acknowledged(shop, monkeypatch):
    done = []
    monkeypatch.setattr(photos.os, "fsync", lambda opened: done.append(os.fstat(opened).st_mode))
    shop.photos.keep(photograph())
    assert [stat.S_ISDIR(mode) for mode in done] == [False, True]  # the file, then its name


def test_the_sweep_takes_what_nobody_acknowledged_and_nothing_else(shop):
    kept = shop.photos.keep(photograph()).id
    folder = shop.database.path.parent / "shop-photos"
    beside = shop.database.path.parent
    (folder / "aa.part").write_bytes(b"x")
    (folder / f"{'b' * 32}.jpg").write_bytes(b"x")
    (beside / "shop-in-1.part").write_bytes(b"x")
    (beside / "notes.txt").write_text("the shop's own")
    assert sweep(shop.database.path) == []  # what is young may be in the making
    gone = {path.name for path in sweep(shop.database.path, time() + 7_200)}
    assert gone == {"aa.part", f"{'b' * 32}.jpg", "shop-in-1.part"}
    assert (folder / f"{kept}.jpg").exists()
    assert (beside / "notes.txt").exists()


def test_a_photograph_that_only_undo_needs_stays(shop):
    """No line speaks of it any more, but a step back would."""
    kept = shop.photos.keep(photograph()).id
    assert sweep(shop.database.path, time() + 7_200) == []
    assert shop.photos.path(kept).exists()


def test_a_database_that_cannot_be_asked_loses_no_photograph(tmp_path):
    folder = tmp_path / "shop-photos"
    folder.mkdir()
    (folder / "c.jpg").write_bytes(b"x")
    (tmp_path / "shop.db").write_bytes(b"no database")
    assert sweep(tmp_path / "shop.db", time() + 7_200) == []


def test_the_sweep_takes_what_a_whole_shop_on_its_way_left(shop):
    folder = shop.database.path.parent
    (folder / "shop-in-1a2b.db").mkdir()
    (folder / "shop-in-1a2b.db" / "photo.jpg").write_bytes(b"x")
    for name in ("shop-out-3c4d.part", "shop-out-3c4d.db.part-shm", "shop-out-3c4d.db.part-wal", ".write-77"):
        (folder / name).write_bytes(b"x")
    assert sweep(shop.database.path) == []
    sweep(shop.database.path, time() + 7_200)
    left = {path.name for path in folder.iterdir()}
    assert not [name for name in left if name.startswith(("shop-in-", "shop-out-", ".write-"))]
    assert shop.database.path.name in left


def test_nothing_lies_beside_the_data_after_a_whole_shop_went_out(shop):
    shop.whole.write().unlink()
    assert not list(shop.database.path.parent.glob("shop-out-*"))


def test_a_line_of_the_log_cannot_be_made_by_a_path(tmp_path):
    ours = logging.getLogger("bendrel")
    before = list(ours.handlers)
    log_beside(tmp_path / "shop.db")
    logging.getLogger("bendrel.refused").info("%s %s %s", 404, "GET", "/api/x\n2026-01-01 INFO all is well")
    for handler in set(ours.handlers) - set(before):
        ours.removeHandler(handler)
        handler.close()
    text = (tmp_path / "bendrel.log").read_text()
    assert text.count("\n") == 1
    assert "/api/x?2026-01-01" in text


FIRST = {
    "an own row that is no JSON": "update own_entries set fields = 'no json' where rowid = 1",
    "a test piece that is a list": "update trials set fields = '[1, 2]' where rowid = 1",
    "a promise that is no date": "update jobs set promised = 'soon' where rowid = 1",
    "a moment that is none": "update lines set updated_at = 'x' where rowid = 1",
    "a state of a part": "update makings set state = '{\"made\": 7}' where rowid = 1",
    "a strip-down": "update strip_downs set log = 'null' where rowid = 1",
    "a price": "update holdings set unit_cents = 'dear' where rowid = 1",
}
SECOND = {
    "a job's unit": "update jobs set unit = 'ell' where rowid = 1",
    "what was read at the tool": "update makings set departures = '[[1]]' where rowid = 1",
    "a version": "update lines set version = 'last' where rowid = 1",
}
THIRD = {"a name that is no text": "update jobs set name = x'ff00fe' where rowid = 1"}
WORKED_OUT = {"a summary": "update line_summaries set summary = '[' where rowid = 1"}


@pytest.fixture
def held_up(application):
    """What the start, the board and every job's page say of a database."""

    def told(path):
        first, application.state.shop = application.state.shop, open_shop(path, backups=False)
        try:
            return asked(TestClient(application, base_url="http://127.0.0.1"))
        finally:
            application.state.shop.close()
            application.state.shop = first

    return told


def asked(client):
    """What was set aside, the board and every job's page being there."""
    jobs = client.get("/api/jobs")
    assert jobs.status_code == 200, jobs.text
    for job in jobs.json():
        for line in job["lines"]:
            assert client.get(f"/api/lines/{line['id']}").status_code < 500
        for page in ("", "/strip-down", "/kit", "/cuts", "/bookings", "/circuits"):
            answer = client.get(f"/api/jobs/{job['id']}{page}")
            assert answer.status_code < 500, (page, answer.text)
    for place in ("stock", "own", "catalogue", "holdings", "preferences", "tools"):
        assert client.get(f"/api/{place}").status_code < 500, place
    aside = client.get("/api/backups/set-aside").json()
    for row in aside:
        assert client.post(f"/api/backups/set-aside/{row['id']}/seen").status_code == 200
    assert client.get("/api/backups/set-aside").json() == []
    assert client.post("/api/backups/set-aside/9999/seen").status_code == 404
    return aside


@pytest.fixture
def full(tmp_path, templates):
    """The demo's database with a row in every table that a row here damages."""
    path = tmp_path / "shop.db"
    copyfile(templates["demo"], path)
    with closing(sqlite3.connect(path)) as opened:
        opened.executescript(
            """
            insert or replace into own_entries values ('o', 'clamps', '{}', 1, '2026-01-01 00:00:00', null);
            insert or replace into trials values ('t', 'b', 'm', '{}', '2026-01-01 00:00:00', null);
            insert or ignore into holdings values ('nut:x', 1, 20, 1);
            insert or ignore into strip_downs
              select id, 1, '{}', '2026-01-01 00:00:00' from jobs limit 1;
            insert into makings (id, line_id, span, document, state, departures, version, outcome,
              at, ended_at)
              select 'm', id, 's1', '{}', '{}', '[]', 1, 'good', '2026-01-01 00:00:00', '2026-01-01 00:00:00'
              from lines limit 1;
            insert or ignore into line_summaries select id, 1, '', '{}' from lines limit 1;
            """
        )
        opened.commit()
    return path


@pytest.mark.parametrize(
    ("damage", "told"),
    [(FIRST, len(FIRST)), (SECOND, len(SECOND)), (THIRD, 1), (WORKED_OUT, 0)],
    ids=["first", "second", "third", "worked out"],
)
def test_each_row_that_cannot_be_read_is_one_bad_thing(full, held_up, damage, told):
    """One row of a table at a time, several tables at once; what is worked out is worked out again."""
    with closing(sqlite3.connect(full)) as opened:
        for statement in damage.values():
            assert opened.execute(statement).rowcount == 1, statement
        opened.commit()
    aside = held_up(full)
    assert len(aside) == told
    for row in aside:
        assert "set aside" in row["said"]
        assert any(word in row["kept"] for word in ("no json", "[1, 2]", "soon", "ell", '"x"', "\\ufffd", "�",
                                                     "made", "[[1]]", "null", "dear", "last"))  # fmt: skip
    assert held_up(full) == []


def test_what_is_set_aside_is_named_by_its_job(full, held_up):
    with closing(sqlite3.connect(full)) as opened:
        opened.execute("update jobs set promised = 'soon' where name = 'Fire tender'")
        opened.commit()
    (row,) = held_up(full)
    assert row["said"] == "“Promised” of the job “Fire tender” could not be read; that alone was set aside."


def test_a_sound_shop_has_nothing_set_aside(full, held_up):
    assert held_up(full) == []

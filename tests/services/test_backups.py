"""Backups are checked, thinned and restored: nothing of a later state is played into an older one."""

import random
import shutil
import sqlite3
from contextlib import closing
from dataclasses import replace
from datetime import date, datetime, timedelta
from io import BytesIO

import pytest
from PIL import Image
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from bendrel.services.job.jobs import JobDraft
from bendrel.services.kept.backups import Backups
from bendrel.services.startup import open_shop
from bendrel.store.backup import (
    LAST_KEPT,
    MONTHS_KEPT,
    WEEKS_KEPT,
    BackupError,
    back_up,
    copies,
    counts,
    damage,
    photos_beside,
    restore,
)
from bendrel.store.opening import UnusableShop
from tests.lines import bent, row
from tests.often import often

DAY = date(2026, 11, 1)
NOW = datetime(2026, 11, 20, 18, 30)


def picture(seed):
    made = BytesIO()
    Image.new("RGB", (40, 30), (seed % 256, seed // 3 % 256, 90)).save(made, "JPEG")
    return made.getvalue()


def fill(path, rng):
    """A shop with a random number of jobs, lines, steps and photographs."""
    shop = open_shop(path, backups=False, new=True)
    for k in range(rng.randint(1, 3)):
        job = shop.jobs.create(JobDraft(name=f"job {k} {rng.random():.6f}"))
        for _ in range(rng.randint(1, 3)):
            line = shop.lines.add(job.id, bent(row(rng.randint(60, 200), 90)))
            for _ in range(rng.randint(0, 3)):
                line = shop.lines.save(line.id, line.version, replace(line.document, notes=f"{rng.random()}"))
    for _ in range(rng.randint(0, 3)):
        shop.photos.keep(picture(rng.randint(0, 10_000)))
    shop.close()


def told(path):
    """Everything that a database says, and its photographs."""
    with closing(sqlite3.connect(path)) as opened:
        rows = list(opened.iterdump())
        names = [name for (name,) in opened.execute("select id from photos order by id")]
    photos = {name: (photos_beside(path) / f"{name}.jpg").read_bytes() for name in names}
    return rows, photos


def emptied(path, _):
    path.write_bytes(b"")


def halved(path, _):
    path.write_bytes(path.read_bytes()[: path.stat().st_size // 2])


def gone(path, _):
    path.unlink()


def garbled(path, rng):
    data = bytearray(path.read_bytes())
    for _ in range(4000):
        data[rng.randrange(100, len(data))] = rng.randrange(256)
    path.write_bytes(bytes(data))


def left_over_log(path, _):
    """A later state whose log was never taken in, as after a crash; in an older file it does damage."""
    opened = sqlite3.connect(path)
    opened.execute("PRAGMA wal_autocheckpoint=0")
    opened.execute("update jobs set name = name || ' later'")
    opened.execute("create table filler as select hex(randomblob(2000)) as x from jobs")
    opened.commit()
    log = path.with_name(path.name + "-wal")
    kept = log.read_bytes()
    assert kept
    shared = path.with_name(path.name + "-shm").read_bytes()
    opened.close()
    log.write_bytes(kept)
    path.with_name(path.name + "-shm").write_bytes(shared)


def photos_lost(path, rng):
    for photo in photos_beside(path).glob("*.jpg"):
        if rng.random() < 0.5:
            photo.unlink()
        else:
            garbage = photo.with_suffix(".new")
            garbage.write_bytes(b"no picture")
            garbage.replace(photo)


DAMAGES = (emptied, halved, gone, garbled, left_over_log, photos_lost)


@pytest.mark.parametrize("seed", range(often(5, 12)))
def test_the_restore_drill(tmp_path, seed):
    """A random state, backed up, damaged in each of six ways, and back as it was."""
    rng = random.Random(seed)
    path = tmp_path / "shop.db"
    fill(path, rng)
    before = told(path)
    copy = back_up(path, DAY)
    for k, harm in enumerate(DAMAGES):
        harm(path, rng)
        done = restore(path, copy, NOW + timedelta(minutes=k))
        assert not path.with_name("shop.db-wal").exists()
        assert told(path) == before, harm.__name__
        assert done.missing_photos == ()
        assert (done.set_aside is None) == (harm is gone)
        shop = open_shop(path)
        assert shop.jobs.board()
        shop.close()
        before = told(path)  # the board's summaries may have been written
        copy = back_up(path, DAY, always=True)


@pytest.mark.parametrize("seed", range(2, 8))
def test_a_damaged_database_is_not_copied_over_good_backups(tmp_path, seed):
    path = tmp_path / "shop.db"
    fill(path, random.Random(1))
    good = back_up(path, DAY)
    garbled(path, random.Random(seed))
    with pytest.raises(BackupError, match=r"damaged|No backup"):
        back_up(path, DAY + timedelta(days=1))
    assert [copy.path for copy in copies(path)] == [good.path]
    assert not list(good.path.parent.glob("*.part"))
    kept = Backups(path, lambda: DAY + timedelta(days=1))
    kept.if_due()
    assert kept.state().newest == DAY
    assert kept.state().problem


def test_a_damaged_backup_is_not_restored(tmp_path):
    path = tmp_path / "shop.db"
    fill(path, random.Random(1))
    copy = back_up(path, DAY)
    before = path.read_bytes()
    halved(copy.path, None)
    with pytest.raises(BackupError, match="is damaged"):
        restore(path, copy, NOW)
    assert path.read_bytes() == before
    assert not (tmp_path / "set-aside").exists()


def test_nothing_is_restored_under_a_running_server(tmp_path):
    path = tmp_path / "shop.db"
    fill(path, random.Random(1))
    copy = back_up(path, DAY)
    with TestClient(create_app(path), base_url="http://127.0.0.1:8470") as client:
        assert client.get("/api/backups").json()["count"] == 2
        with pytest.raises(BackupError, match="stop it first"):
            restore(path, copy, NOW)
    restore(path, copy, NOW)


def test_a_disk_that_takes_nothing_is_not_a_server_that_runs(tmp_path, monkeypatch):
    path = tmp_path / "shop.db"
    open_shop(path, backups=False).close()
    copy = back_up(path, DAY)
    (tmp_path / "lock").mkdir()
    monkeypatch.setattr("bendrel.store.backup._lock", lambda _: tmp_path / "lock")  # cannot be opened
    with pytest.raises(BackupError, match="takes nothing just now"):
        restore(path, copy, NOW)


@pytest.mark.parametrize("content", [b"", b"not a database at all, but sixteen bytes and more"])
def test_an_empty_file_is_no_new_shop(tmp_path, content):
    path = tmp_path / "shop.db"
    fill(path, random.Random(1))
    back_up(path, DAY)
    path.write_bytes(content)
    with pytest.raises(UnusableShop, match="bendrel restore 2026-11-01"):
        open_shop(path)
    path.unlink()
    with pytest.raises(UnusableShop, match="is gone, but its backups are here"):
        open_shop(path)
    open_shop(path, new=True).close()


def test_one_a_day_and_the_old_ones_are_thinned_by_age(tmp_path):
    path = tmp_path / "shop.db"
    fill(path, random.Random(1))
    every = 9
    for k in range(0, 500, every):
        made = back_up(path, DAY + timedelta(days=k))
        assert back_up(path, DAY + timedelta(days=k)) == made
    days = [copy.day for copy in copies(path)]
    assert days[:LAST_KEPT] == [made.day - timedelta(days=every * k) for k in range(LAST_KEPT)]
    assert len(days) <= LAST_KEPT + WEEKS_KEPT + MONTHS_KEPT
    assert days[-1] < made.day - timedelta(days=330)
    assert counts(made.path)[0] >= 1
    assert damage(made.path) == ""


def test_a_clock_that_was_wrong_costs_nothing(tmp_path):
    """Years ahead for a week, then right again: the newest stays the newest, the true ones are kept."""
    path = tmp_path / "shop.db"
    fill(path, random.Random(1))
    for k in range(7):
        back_up(path, DAY + timedelta(days=k))
    for k in range(7):
        back_up(path, date(2031, 1, 1) + timedelta(days=k))
    for k in range(7, 10):
        back_up(path, DAY + timedelta(days=k))
    days = [copy.day for copy in copies(path)]
    assert days[:3] == [DAY + timedelta(days=9 - k) for k in range(3)]
    assert DAY + timedelta(days=6) in days


def test_photographs_are_linked_and_not_copied_again(tmp_path):
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    photo = shop.photos.keep(picture(7))
    shop.close()
    for k in range(3):
        back_up(path, DAY + timedelta(days=k))
    there = photos_beside(path) / f"{photo.id}.jpg"
    assert there.stat().st_nlink == 2
    old = tmp_path / "backups" / "shop-2026-10-01.db"  # as earlier versions named them
    shutil.copyfile(copies(path)[0].path, old)
    assert copies(path)[-1].day == date(2026, 10, 1)

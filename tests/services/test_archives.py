"""A whole job out and in again, and archives that mean harm."""

import io
import json
import zipfile
from dataclasses import replace
from datetime import date

import pytest
from PIL import Image

from bendrel.exchange.documents.archive import read_archive
from bendrel.exchange.errors import FileError
from bendrel.services.demo.demo import fill_demo
from bendrel.services.job.bookings import BookingDraft
from bendrel.services.job.jobs import JobDraft
from bendrel.services.job.photos import photos_of
from bendrel.services.startup import open_shop


def photograph(colour):
    out = io.BytesIO()
    Image.new("RGB", (320, 200), colour).save(out, "PNG")
    return out.getvalue()


@pytest.fixture
def full(shop):
    """A job with a line that has a photograph, and a booking."""
    fill_demo(shop)
    job = shop.jobs.create(
        JobDraft(
            name="Winch",
            machine="anchor winch",
            customer="museum",
            promised=date(2027, 1, 9),
            parked="nut ordered",
            tried="bled twice",
        )
    )
    demo = next(job for job in shop.jobs.board() if job.name == "Fire tender")
    line = shop.lines.open(next(row.id for row in demo.lines if row.name == "Rear axle, left")).document
    damage = replace(line.condition.damage[0], photo=shop.photos.keep(photograph((200, 80, 20))).id)
    line = replace(line, condition=replace(line.condition, damage=(damage,)))
    shop.lines.add(job.id, line)
    shop.bookings.book(job.id, BookingDraft(account="own mistake", what="nut forgotten", minutes=20))
    return job.id


def test_a_job_comes_back_whole_in_the_same_shop_and_in_another(shop, full, tmp_path):
    data, name, missing, unreadable = shop.archives.write(full)
    assert (missing, unreadable) == (0, 0)
    assert name == "Winch"
    other = open_shop(tmp_path / "other" / "shop.db")
    for place in (shop, other):
        look = place.archives.read(data, keep=False)
        assert (look.lines, look.photos, look.missing_photos, look.job_id) == (
            ("Rear axle, left",),
            1,
            0,
            None,
        )
        kept = place.archives.read(data, keep=True)
        job = place.jobs.one(kept.job_id)
        assert (job.name, job.customer, job.promised) == ("Winch", "museum", date(2027, 1, 9))
        assert (job.parked, job.tried) == ("nut ordered", "bled twice")
        document = place.lines.open(job.lines[0].id).document
        (photo,) = photos_of(document)
        with Image.open(place.photos.path(photo)) as picture:
            assert picture.size == (320, 200)
        assert place.bookings.ledger(kept.job_id).totals[1].minutes == 20
        before = shop.lines.open(shop.jobs.one(full).lines[0].id).document
        assert replace(document, condition=before.condition) == before
    other.close()


def zipped(**files):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as file:
        for name, data in files.items():
            file.writestr(name.replace("__", "/").replace("_dot_", "."), data)
    return out.getvalue()


JOB = json.dumps({"format": "bendrel-job", "version": 1, "name": "x"})
BOMB = b"\0" * 60_000_000


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "no job file"),
        (b"PK\x03\x04" + b"x" * 50, "no job file"),
        (zipped(other_dot_txt="x"), "no job.json"),
        (zipped(job_dot_json="{"), "not valid JSON"),
        (zipped(job_dot_json="[]"), "not a line document|job|valid"),
        (zipped(job_dot_json='{"name": 7}'), "Name: must be text"),
        (zipped(job_dot_json='{"name": "x", "extra": 1}'), "Extra: is not known here"),
        (zipped(job_dot_json="[" * 100_000), "not valid JSON"),
        (zipped(job_dot_json=BOMB), "unpacks to over 20 MB"),
        (zipped(job_dot_json=JOB, **{f"photos__{'a' * 32}_dot_jpg": BOMB}), "unpacks to over 15 MB"),
        (zipped(job_dot_json=JOB, **{f"f{k}": "" for k in range(700)}), "over 600 files"),
        (zipped(job_dot_json=JOB)[:-30], "no job file"),
    ],
)
def test_archives_that_are_broken_or_mean_harm(shop, data, said):
    with pytest.raises(FileError, match=said):
        shop.archives.read(data, keep=True)
    assert shop.jobs.board() == ()


def test_names_in_an_archive_lead_nowhere():
    """Only photographs under their own names are read; nothing is unpacked to a path."""
    hostile = {"..__..__evil_dot_sh": "x", "photos__..__x_dot_jpg": "x", "__etc__passwd": "x"}
    job, beside = read_archive(zipped(job_dot_json=JOB, **hostile))
    photos = beside.photos
    assert (job.name, photos) == ("x", {})


def test_a_photograph_that_is_none_keeps_the_whole_job_out(shop, full):
    data = shop.archives.write(full).data
    with zipfile.ZipFile(io.BytesIO(data)) as file:
        job = file.read("job.json")
        photo = next(name for name in file.namelist() if name.startswith("photos/"))
    broken = io.BytesIO()
    with zipfile.ZipFile(broken, "w") as file:
        file.writestr("job.json", job)
        file.writestr(photo, b"<script>alert(1)</script>")
    count = len(shop.jobs.board())
    with pytest.raises(FileError, match="no photograph"):
        shop.archives.read(broken.getvalue(), keep=True)
    assert len(shop.jobs.board()) == count


def test_over_the_network(client):
    job = client.get("/api/jobs").json()[0]
    answer = client.get(f"/api/archives/{job['id']}")
    assert answer.headers["content-type"] == "application/zip"
    look = client.post("/api/archives", content=answer.content).json()
    assert (look["name"], look["job_id"]) == (job["name"], None)
    kept = client.post("/api/archives?keep=true", content=answer.content).json()
    assert len(client.get(f"/api/jobs/{kept['job_id']}").json()["lines"]) == len(job["lines"])
    assert client.get("/api/archives/nowhere").status_code == 404
    assert client.post("/api/archives", content=b"zip").json()["message"].startswith("That is no job file")

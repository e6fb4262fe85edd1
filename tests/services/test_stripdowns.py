"""The strip-down of a job: kept, never overwritten, bought once, and carried along in a file."""

import io
import json
import zipfile

import pytest

from bendrel.core.line.strip_down import SharedItem, StripDown
from bendrel.exchange.errors import FileError
from bendrel.services.errors import NotFound, Refused, Stale
from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
from tests.lines import bent, row


def thing(name, *lines, **changes):
    return SharedItem(id=name, kind="bolt", what=name, lines=lines, **changes)


@pytest.fixture
def job(shop):
    made = shop.jobs.create(JobDraft(name="Tender"))
    lines = [shop.lines.add(made.id, bent(row(100, 90))).id for _ in range(2)]
    return made.id, lines


def test_a_job_starts_with_nothing_off(shop, job):
    opened = shop.strip_downs.of_job(job[0])
    assert (opened.version, opened.log.items, opened.still_off) == (0, (), ())


def test_what_is_noted_is_there_after_a_restart(shop, job):
    shop.strip_downs.keep(job[0], 0, StripDown(items=(thing("cover", job[1][0]),)))
    path = shop.database.path
    shop.close()
    again = open_shop(path)
    opened = again.strip_downs.of_job(job[0])
    assert opened.version == 1
    assert [item.lines for item in opened.log.items] == [(job[1][0],)]
    again.close()


def test_a_stale_write_is_refused_with_what_is_there(shop, job):
    first = shop.strip_downs.keep(job[0], 0, StripDown(items=(thing("cover"),)))
    with pytest.raises(Stale) as refused:
        shop.strip_downs.keep(job[0], 0, StripDown(items=(thing("wheel"),)))
    assert refused.value.version == first.version == 1
    assert refused.value.current["items"][0]["what"] == "cover"
    assert [item.what for item in shop.strip_downs.of_job(job[0]).log.items] == ["cover"]


def test_two_things_of_one_id_are_refused(shop, job):
    with pytest.raises(Refused, match="each needs its own"):
        shop.strip_downs.keep(job[0], 0, StripDown(items=(thing("cover"), thing("cover"))))
    assert shop.strip_downs.of_job(job[0]).version == 0


def test_a_job_that_is_not_there_has_none(shop):
    with pytest.raises(NotFound):
        shop.strip_downs.of_job("nowhere")
    with pytest.raises(NotFound):
        shop.strip_downs.keep("nowhere", 0, StripDown())


def test_the_board_says_how_much_is_still_off(shop, job):
    log = StripDown(
        items=(thing("cover"), thing("wheel", refitted=True), thing("strainer", fate="out for good"))
    )
    shop.strip_downs.keep(job[0], 0, log)
    assert shop.jobs.one(job[0]).still_off == 1
    assert [summary.still_off for summary in shop.jobs.board()] == [1]


def test_what_both_lines_hide_behind_is_bought_once(shop, job):
    log = StripDown(items=(SharedItem(id="g", kind="O-ring", what="tunnel seal", count=2, fate="replace"),))
    shop.strip_downs.keep(job[0], 0, log)
    rows = [row.need for row in shop.kits.of_job(job[0]).rows if "tunnel seal" in row.need.what]
    assert [(need.amount, need.why) for need in rows] == [(2, "strip-down of the job")]


def test_the_strip_down_goes_with_its_job_to_the_lines_that_it_has_there(shop, job, tmp_path):
    shop.strip_downs.keep(job[0], 0, StripDown(items=(thing("cover", job[1][1]), thing("wheel"))))
    data = shop.archives.write(job[0]).data
    other = open_shop(tmp_path / "other" / "bendrel.db")
    brought = other.archives.read(data, keep=True)
    lines = [line.id for line in sorted(other.jobs.one(brought.job_id).lines, key=lambda one: one.name)]
    items = other.strip_downs.of_job(brought.job_id).log.items
    assert [item.what for item in items] == ["cover", "wheel"]
    assert items[0].lines != (job[1][1],)
    assert len(items[0].lines) == 1
    assert items[0].lines[0] in lines
    assert items[1].lines == ()
    other.close()


def test_a_thing_of_a_line_that_is_not_in_the_file_is_refused_whole(shop, job):
    shop.strip_downs.keep(job[0], 0, StripDown(items=(thing("cover", job[1][1]),)))
    data = shop.archives.write(job[0]).data
    with zipfile.ZipFile(io.BytesIO(data)) as file:
        value = json.loads(file.read("job.json"))
    value["strip_down"][0]["lines"] = [7]
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as file:
        file.writestr("job.json", json.dumps(value))
    with pytest.raises(FileError, match="Thing 1 of the strip-down"):
        shop.archives.read(out.getvalue(), keep=True)
    assert len(shop.jobs.board()) == 1

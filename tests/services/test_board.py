"""The board answers at once with what it knows, and works out the rest behind."""

import sqlite3
from contextlib import closing
from threading import Event, current_thread
from time import monotonic, sleep

import pytest

from bendrel.exchange.documents.documents import line_to_value
from bendrel.services.errors import TooMuch, Unreadable
from bendrel.services.job import jobs
from bendrel.services.job.jobs import JobDraft
from bendrel.services.reckoned import reckoner, summarising
from tests.lines import bent, row
from tests.services.test_shelf import TUBE


@pytest.fixture
def lines(shop):
    job = shop.jobs.create(JobDraft(name="Launch", unit="mm"))
    return [shop.lines.add(job.id, bent(row(100, 90), name=f"line {k}")) for k in range(5)]


def until(condition, seconds=30.0):
    """Wait for what another thread does."""
    end = monotonic() + seconds
    while not (found := condition()):
        assert monotonic() < end
        sleep(0.05)
    return found


def reckoned(shop):
    (job,) = shop.jobs.board()
    return all(line.reckoned for line in job.lines) and job


@pytest.mark.usefixtures("lines")
def test_a_line_of_which_nothing_is_known_has_its_name_at_once_and_the_rest_soon(shop):
    shop.jobs.patience_s = 0.0
    (job,) = shop.jobs.board()
    assert {line.name for line in job.lines} == {f"line {k}" for k in range(5)}
    assert not any(line.reckoned for line in job.lines)
    job = until(lambda: reckoned(shop))
    assert job.lines
    assert all(line.bends == 1 and line.cut_mm for line in job.lines)


def test_after_a_change_of_the_catalogue_what_was_said_stands_until_it_is_anew(shop, lines, monkeypatch):
    before = reckoned(shop)
    shop.jobs.patience_s = 0.0
    asked = []
    monkeypatch.setattr(shop.jobs._reckoner, "want", asked.extend)
    shop.shelf.add(TUBE)
    (job,) = shop.jobs.board()
    assert [line.cut_mm for line in job.lines] == [line.cut_mm for line in before.lines]
    assert not any(line.reckoned for line in job.lines)
    assert {line.id for line in asked} == {line.id for line in lines}


def test_the_newest_lines_are_worked_out_first(shop, lines, monkeypatch):
    touched = shop.lines.save(lines[2].id, 1, bent(row(120, 90), name="touched"))
    shop.jobs.patience_s = 0.0
    asked = []
    monkeypatch.setattr(shop.jobs._reckoner, "want", asked.extend)
    shop.jobs.board()
    assert asked[0].id == touched.id


def test_what_is_too_much_for_the_board_is_said_and_holds_no_other_up(shop, lines, monkeypatch):
    real = reckoner.apart

    def choking(bounds, task, unsaid, kit):
        if any(one.id == lines[1].id for one in unsaid):
            raise TooMuch(bounds.said)
        return real(bounds, task, unsaid, kit)

    monkeypatch.setattr(reckoner, "apart", choking)
    shop.jobs.patience_s = 0.0
    job = until(lambda: reckoned(shop))
    said = {line.id: line.next_step for line in job.lines}
    assert said.pop(lines[1].id) == "too much to work out for the board; open it"
    assert [line for line in job.lines if line.id in said]
    assert all(line.bends == 1 for line in job.lines if line.id in said)


def test_a_long_line_is_never_worked_out_while_somebody_waits(shop, monkeypatch):
    job = shop.jobs.create(JobDraft(name="Launch", unit="mm"))
    shop.lines.add(job.id, bent(*(row(60, 20, "6:00" if k % 2 else "12:00") for k in range(60))))
    monkeypatch.setattr(summarising, "plan_line", lambda *_: pytest.fail("somebody waits"))
    assert not shop.jobs.board()[0].lines[0].reckoned
    assert until(lambda: reckoned(shop)).lines[0].bends == 60


def test_the_board_is_written_once_until_something_changes(shop, lines):
    shop.jobs.written_board()  # what it says itself makes it anew once
    settled = shop.jobs.written_board()
    assert shop.jobs.written_board() is settled
    shop.lines.save(lines[0].id, 1, bent(row(100, 45), name="another"))
    assert b"another" in shop.jobs.written_board()


DAMAGE = {
    "no JSON": "{broken",
    "no document": "[1, 2]",
    "of another shape": '{"format": "bendrel-line", "version": 2, "name": "bad", "spans": "none"}',
    "bytes": "x'ff00fe'",
}


@pytest.fixture(params=DAMAGE)
def damaged(request, shop, lines):
    """A line that was saved once more, and whose last step cannot be read."""
    line = shop.lines.save(lines[1].id, 1, bent(row(120, 90), name="second"))
    text = DAMAGE[request.param]
    value = text if text.startswith("x'") else f"'{text}'"
    with closing(sqlite3.connect(shop.database.path)) as opened:
        opened.execute(f"update line_steps set document = {value} where line_id = ? and seq = 2", (line.id,))
        opened.execute("update lines set version = version + 1 where id = ?", (line.id,))
        opened.commit()
    return line.id


def test_one_unreadable_document_hides_no_other_line(shop, damaged):
    (job,) = shop.jobs.board()
    assert len(job.lines) == 5
    (bad,) = [line for line in job.lines if line.unreadable]
    assert (bad.id, bad.next_step, bad.worst) == (damaged, "cannot be read", "stop")
    assert shop.kits.of_job(job.id).rows
    assert len(shop.cuttings.of(job.id).lines) == 4
    shop.circuits.of_job(job.id, shop.kit)
    written = shop.archives.write(job.id)
    assert (written.unreadable, written.missing_photos) == (1, 0)


def test_an_unreadable_line_is_exported_as_it_is_and_its_last_good_step_comes_back(shop, damaged):
    with pytest.raises(Unreadable, match="cannot be read"):
        shop.lines.open(damaged)
    assert shop.lines.as_kept(damaged)[0]
    assert shop.lines.last_good(damaged).document.name == "line 1"
    assert shop.lines.open(damaged).document.name == "line 1"
    assert not any(line.unreadable for line in shop.jobs.board()[0].lines)


def test_the_screen_is_told_that_there_are_ways_out(client):
    line = client.get("/api/jobs").json()[0]["lines"][0]["id"]
    shop = client.app.state.shop
    with closing(sqlite3.connect(shop.database.path)) as opened:
        opened.execute("update line_steps set document = '{' where line_id = ?", (line,))
        opened.commit()
    answer = client.get(f"/api/lines/{line}")
    assert (answer.status_code, answer.json()["unreadable"]) == (422, True)
    assert client.get(f"/api/lines/{line}/as-kept.json").content == b"{"
    assert "restore a backup" in client.post(f"/api/lines/{line}/last-good").json()["message"]
    good = bent(row(100, 90))
    kept = client.put(f"/api/lines/{line}", json={"version": 1, "document": line_to_value(good)})
    assert kept.status_code == 422


def test_who_looks_while_lines_are_worked_out_does_not_wait(shop, lines, monkeypatch):
    """What is said anew of a line is written into the board behind: a look has what was there."""
    assert len(lines) == 5
    before = shop.jobs.written_board()
    whole, writer, go_on = shop.jobs.board, [], Event()

    def slowly():
        writer.append(current_thread().name)
        assert go_on.wait(30)
        return whole()

    monkeypatch.setattr(jobs, "EVERY_S", 0.0)
    monkeypatch.setattr(shop.jobs, "board", slowly)
    shop.jobs._summaries.count += 1  # as when a line has been worked out
    assert shop.jobs.written_board() == before
    until(lambda: writer)
    assert shop.jobs.written_board() == before
    go_on.set()
    assert writer == ["board"]

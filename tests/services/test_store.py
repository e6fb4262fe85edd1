"""What is kept: steps, undo and redo, versions, deleting and taking it back, surviving a kill."""

import os
import signal
import subprocess
import sys
from dataclasses import replace

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext

from bendrel.core.plan.planner import plan_line
from bendrel.services.errors import NotFound, Refused, Stale
from bendrel.services.job.jobs import JobDraft
from bendrel.services.reckoned import summaries, summarising
from bendrel.services.startup import open_shop
from bendrel.store.models import Base
from tests.lines import the_tube


@pytest.fixture
def line(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    return shop.lines.create(job.id, "Rear axle, left")


def renamed(line, name):
    return replace(line.document, name=name)


def test_a_new_line_has_the_usual_choices_in_the_jobs_unit(shop):
    job = shop.jobs.create(JobDraft(name="Launch", unit="mm"))
    line = shop.lines.create(job.id, "Fuel feed")
    assert line.document.unit == "mm"
    assert the_tube(line.document).tube == "copper-nickel_4.75mm_0.7"
    assert (line.can_undo, line.can_redo, line.version) == (False, False, 1)


def test_every_save_is_a_step_that_can_be_undone_and_done_again(shop, line):
    for name in ("one", "two", "three"):
        line = shop.lines.save(line.id, line.version, renamed(line, name))
    names = []
    for _ in range(3):
        line = shop.lines.undo(line.id, line.version)
        names.append(line.document.name)
    assert names == ["two", "one", "Rear axle, left"]
    with pytest.raises(Refused, match="nothing to undo"):
        shop.lines.undo(line.id, line.version)
    line = shop.lines.redo(line.id, line.version)
    assert (line.document.name, line.can_redo) == ("one", True)
    line = shop.lines.save(line.id, line.version, renamed(line, "other"))
    assert not line.can_redo
    with pytest.raises(Refused, match="nothing to redo"):
        shop.lines.redo(line.id, line.version)


def test_saving_the_same_is_no_step(shop, line):
    assert shop.lines.save(line.id, line.version, line.document).version == line.version


def test_the_second_of_two_saves_is_told_and_loses_nothing(shop, line):
    shop.lines.save(line.id, line.version, renamed(line, "first tab"))
    with pytest.raises(Stale) as caught:
        shop.lines.save(line.id, line.version, renamed(line, "second tab"))
    assert caught.value.version == 2
    assert caught.value.current["name"] == "first tab"
    kept = shop.lines.save(line.id, caught.value.version, renamed(line, "second tab"))
    assert shop.lines.undo(line.id, kept.version).document.name == "first tab"


def test_jobs_and_lines_come_back_after_deleting(shop, line):
    shop.lines.delete(line.id)
    with pytest.raises(NotFound):
        shop.lines.open(line.id)
    assert shop.jobs.board()[0].lines == ()
    assert shop.lines.restore(line.id).document.name == "Rear axle, left"
    job = shop.jobs.board()[0]
    shop.jobs.delete(job.id)
    assert shop.jobs.board() == ()
    with pytest.raises(NotFound):
        shop.lines.open(line.id)
    assert len(shop.jobs.restore(job.id).lines) == 1


def test_a_name_of_spaces_is_refused(shop, line):
    with pytest.raises(Refused, match="name is needed"):
        shop.jobs.create(JobDraft(name="   "))
    with pytest.raises(Refused, match="name is needed"):
        shop.lines.save(line.id, line.version, renamed(line, " "))
    assert shop.lines.open(line.id).document.name == "Rear axle, left"


def test_a_job_changed_elsewhere_is_stale(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    shop.jobs.change(job.id, 1, JobDraft(name="Tender"))
    with pytest.raises(Stale):
        shop.jobs.change(job.id, 1, JobDraft(name="Engine"))


@pytest.mark.parametrize("call", ["open", "delete", "restore"])
def test_a_line_that_does_not_exist(shop, call):
    with pytest.raises(NotFound, match="no line"):
        getattr(shop.lines, call)("nowhere")


def test_everything_is_there_after_closing_and_opening(tmp_path):
    shop = open_shop(tmp_path / "shop.db")
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    line = shop.lines.create(job.id, "Rear axle")
    shop.lines.save(line.id, 1, renamed(line, "Rear axle, left"))
    shop.close()
    again = open_shop(tmp_path / "shop.db")
    opened = again.lines.open(line.id)
    assert (opened.document.name, opened.can_undo) == ("Rear axle, left", True)
    again.close()


def test_migrations_make_the_tables_that_the_models_describe(shop):
    with shop.database.engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


KILLED = """
import sys
from pathlib import Path
from dataclasses import replace
from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
shop = open_shop(Path(sys.argv[1]))
line = shop.lines.create(shop.jobs.create(JobDraft(name="job")).id, "line")
for k in range(10_000):
    line = shop.lines.save(line.id, line.version, replace(line.document, name=f"line {k}"))
    print(line.id, k, flush=True)
"""


def test_a_killed_process_loses_nothing_that_was_acknowledged(tmp_path):
    path = tmp_path / "killed.db"
    process = subprocess.Popen([sys.executable, "-c", KILLED, str(path)], stdout=subprocess.PIPE, text=True)
    acknowledged = [process.stdout.readline().split() for _ in range(25)]
    os.kill(process.pid, signal.SIGKILL)
    acknowledged += [line.split() for line in process.stdout.read().splitlines()]
    process.wait()
    line_id, last = [entry for entry in acknowledged if len(entry) == 2][-1]
    shop = open_shop(path)
    kept = int(shop.lines.open(line_id).document.name.split()[1])
    assert kept >= int(last)
    shop.close()


def test_what_the_board_says_is_kept_between_starts_until_a_rule_changes(tmp_path, monkeypatch):
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    line = shop.lines.create(shop.jobs.create(JobDraft(name="job")).id, "line")
    told = shop.jobs.board()
    shop.close()
    planned = []
    monkeypatch.setattr(summarising, "plan_line", lambda *given: planned.append(given) or plan_line(*given))
    again = open_shop(path)
    assert (again.jobs.board(), planned) == (told, [])
    again.lines.save(line.id, line.version, replace(line.document, name="other"))
    assert again.jobs.board()[0].lines[0].name == "other"
    assert len(planned) == 1
    again.close()
    monkeypatch.setattr(summaries, "rules_stamp", lambda: "other rules")
    third = open_shop(path)
    assert third.jobs.board()[0].lines[0].name == "other"
    assert len(planned) == 2
    third.close()

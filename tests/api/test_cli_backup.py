"""Backup and restore from the command line: one line for bad input, a list, and the way back."""

import json
from pathlib import Path

from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
from tests.command import bendrel


def test_backup_list_restore(tmp_path):
    shop = open_shop(tmp_path / "bendrel.db")
    shop.jobs.create(JobDraft(name="Fire tender"))
    shop.close()
    made = json.loads(bendrel("backup", "--data", tmp_path, "--json").stdout)
    listed = json.loads(bendrel("restore", "--data", tmp_path, "--json").stdout)["backups"]
    assert listed == [{"date": made["date"], "jobs": 1, "lines": 0, "damaged": ""}]
    assert made["date"] in bendrel("restore", "--data", tmp_path).stdout
    (tmp_path / "bendrel.db").write_bytes(b"")
    refused = bendrel("serve", "--data", tmp_path)
    assert refused.returncode == 2
    assert refused.stderr.count("\n") == 1
    assert f"bendrel restore {made['date']}" in refused.stderr
    back = json.loads(bendrel("restore", made["date"], "--data", tmp_path, "--json").stdout)
    assert back["date"] == made["date"]
    assert (Path(back["set_aside"]) / "bendrel.db").read_bytes() == b""
    shop = open_shop(tmp_path / "bendrel.db")
    assert [job.name for job in shop.jobs.board()] == ["Fire tender"]
    shop.close()


def test_what_cannot_be_restored_is_one_line(tmp_path):
    assert json.loads(bendrel("restore", "--data", tmp_path, "--json").stdout) == {"backups": []}
    for args in (("restore", "yesterday"), ("restore", "2020-01-01"), ("backup",)):
        told = bendrel(*args, "--data", tmp_path)
        assert (told.returncode, told.stderr.count("\n"), told.stdout) == (2, 1, "")

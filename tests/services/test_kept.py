"""Files of an earlier Bendrel are read: documents, a whole job, makings, undo steps, a database."""

from __future__ import annotations

import json
import lzma
from pathlib import Path

import pytest

from bendrel.core.line.proving import Done
from bendrel.core.line.signed import signed_stands
from bendrel.core.plan.planner import plan_line
from bendrel.exchange.documents.documents import line_to_value, read_line
from bendrel.services.startup import open_shop

KEPT = Path(__file__).parents[1] / "kept"
V1, V2 = KEPT / "v1", KEPT / "v2"
DOCUMENTS = sorted(V1.glob("*.bendrel.json"))


@pytest.fixture
def old_shop(tmp_path):
    """A shop on a copy of the kept database."""
    path = tmp_path / "shop.db"
    path.write_bytes(lzma.decompress((V1 / "shop.db.xz").read_bytes()))
    opened = open_shop(path, backups=False)
    yield opened
    opened.close()


def test_there_are_documents():
    assert len(DOCUMENTS) == 7


@pytest.mark.parametrize("file", DOCUMENTS, ids=lambda file: file.name.split(".")[0])
def test_a_version_1_document_is_read_and_planned(kit, file):
    line = read_line(file.read_bytes())
    plan = plan_line(line, kit)
    assert line.name
    assert plan.part is not None
    assert len(plan.part.bends) >= 2
    stops = [f for f in plan.findings if f.severity == "stop"]
    assert bool(stops) == any(word in line.name for word in WITH_STOPS)


WITH_STOPS = ("cannot be made", "Rear axle, right", "check valve", "to cooler")
"""The demo's line that cannot be made, a nut that binds, a valve the wrong way round, a clamp too small."""


def test_a_version_1_job_comes_in_whole(shop):
    look = shop.archives.read((V1 / "fire-tender.bendrel.zip").read_bytes(), keep=True)
    assert (look.photos, look.missing_photos) == (1, 0)
    assert "Rear axle, left" in look.lines
    job = shop.jobs.one(look.job_id)
    line = next(line for line in job.lines if line.name == "Rear axle, left")
    makings = shop.makings.of_line(line.id)
    assert sorted(making.outcome for making in makings) == ["", "scrap"]
    begun = next(making for making in makings if making.outcome == "")
    assert [made.bend for made in begun.state.made] == [1, 2, 3]
    assert [made.angle for made in begun.state.made] == ["89.5", "", ""]
    assert begun.state.made[1].plane == "3:05"
    assert [entry.what for entry in shop.bookings.ledger(look.job_id).bookings if entry.minutes == 20] == [
        "nut forgotten"
    ]


def test_a_version_1_database_opens_with_everything_in_it(old_shop):
    jobs = {job.name: job for job in old_shop.jobs.board()}
    assert set(jobs) == {"Fire tender", "Harbour launch"}
    left = next(line for line in jobs["Fire tender"].lines if line.name == "Rear axle, left")
    opened = old_shop.lines.open(left.id)
    assert opened.document.notes == "two steps to take back"
    assert len(plan_line(opened.document, old_shop.kit).part.bends) == 6
    making = next(m for m in old_shop.makings.of_line(left.id) if m.outcome == "")
    gone_on = old_shop.makings.keep(making.id, making.version, making.state)
    assert gone_on.version == making.version + 1
    assert any(row.length_mm == pytest.approx(640) for row in old_shop.stock.all())
    held = old_shop.shelf.holdings()["nut:double-45_3-16in_3-8-24"]
    assert (held.have, held.unit_cents) == (4, 95)
    assert len(old_shop.shelf.own()) == 2


def test_the_steps_of_a_version_1_line_are_taken_back_or_said_to_end_there(old_shop):
    """Two saves lie behind the last one; a change of the document's shape may end them, in a sentence."""
    job = next(job for job in old_shop.jobs.board() if job.name == "Fire tender")
    line = old_shop.lines.open(next(row.id for row in job.lines if row.name == "Rear axle, left"))
    first = old_shop.lines.undo(line.id, line.version)
    assert first.document.notes != "two steps to take back"
    second = old_shop.lines.undo(first.id, first.version)
    assert second.document.condition.damage[0].photo == ""
    again = old_shop.lines.redo(second.id, second.version)
    assert again.document.condition.damage[0].photo != ""


def assert_kept(now, told, where):
    """All that was told is there; a field that came later may stand beside it."""
    if isinstance(told, dict):
        for name, value in told.items():
            assert_kept(now[name], value, f"{where}/{name}")
    elif isinstance(told, list):
        assert len(now) == len(told), where
        for one, other in zip(now, told, strict=True):
            assert_kept(one, other, where)
    else:
        assert now == told, where


@pytest.mark.parametrize("file", sorted(V2.glob("*.bendrel.json")), ids=lambda file: file.name.split(".")[0])
def test_a_version_2_document_is_read_with_all_that_is_in_it(kit, file):
    """As it was before joints had faces: spans, joints, logs and the names of everything are what they were,
    and every span is planned."""
    told, line = json.loads(file.read_bytes()), read_line(file.read_bytes())
    assert told["version"] == 2
    assert [span.id for span in line.spans] == [span["id"] for span in told["spans"]]
    assert [joint.kind for joint in line.joints] == [joint["kind"] for joint in told["joints"]]
    assert len(line.proving.joints) == len(told["proving"]["joints"])
    assert len(line.condition.damage) == len(told["condition"]["damage"])
    again = line_to_value(line)
    for key in ("removal", "condition", "set_aside", "open_items"):
        assert_kept(again[key], told[key], key)
    plan = plan_line(line, kit)
    assert plan.chosen is not None
    assert [piece.span for piece in plan.pieces] == [s["id"] for s in told["spans"] if s["kind"] == "rigid"]
    assert all(piece.part is not None for piece in plan.pieces)
    assert not plan.problems


def test_a_version_2_job_comes_in_whole(shop):
    look = shop.archives.read((V2 / "slipway-crane.bendrel.zip").read_bytes(), keep=True)
    job = shop.jobs.one(look.job_id)
    assert sorted(line.name for line in job.lines) == [
        "Cooler return, spliced",
        "Header tank to engine",
        "Steering return, through cooler and filter",
        "Tank drop, with the old end saved",
    ]
    signed = next(line for line in job.lines if line.name == "Header tank to engine")
    kept = shop.lines.open(signed.id).document
    # its ticks were ids alone when it was signed: they are read as ticks without a time, and it still stands
    assert kept.proving.ticked("blow") == Done(step="blow")
    assert signed_stands(kept)


def test_a_version_2_database_opens_and_its_steps_are_taken_back(tmp_path):
    path = tmp_path / "shop.db"
    path.write_bytes(lzma.decompress((V2 / "shop.db.xz").read_bytes()))
    opened = open_shop(path, backups=False)
    try:
        job = next(job for job in opened.jobs.board() if job.name == "Slipway crane")
        line = opened.lines.open(next(row.id for row in job.lines if row.name == "Cooler return, spliced"))
        assert line.document.notes == "two steps to take back"
        first = opened.lines.undo(line.id, line.version)
        assert first.document.notes == "one step to take back"
        assert opened.lines.redo(first.id, first.version).document.notes == "two steps to take back"
    finally:
        opened.close()

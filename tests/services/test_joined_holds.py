"""A circuit is proved once for all its lines."""

from dataclasses import replace
from datetime import date
from shutil import copyfile

import pytest

from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.proving import Hold, HoldRow
from bendrel.core.units.lengths import Length
from bendrel.services.job.jobs import JobDraft
from bendrel.services.proof.joined_holds import TAKEN
from bendrel.services.startup import open_shop

TODAY = date.today()
MAIN, BRANCH = "Vacuum, pump to tee", "Vacuum, tee to primer"


@pytest.fixture
def demo(tmp_path, templates):
    copyfile(templates["demo"], tmp_path / "demo.db")
    opened = open_shop(tmp_path / "demo.db", backups=False)
    yield opened
    opened.close()


@pytest.fixture
def ids(demo):
    return {line.name: line.id for job in demo.jobs.board() for line in job.lines}


def told(demo, line_id):
    document = demo.lines.open(line_id).document
    return demo.closings.of(document, line_id, TODAY).holds


def taken_over(demo, line_id, hold):
    opened = demo.lines.open(line_id)
    proving = replace(opened.document.proving, holds=(*opened.document.proving.holds, replace(hold, id="x")))
    demo.lines.save(opened.id, opened.version, replace(opened.document, proving=proving))
    return next(one for one in told(demo, line_id) if one.id == "x")


def test_what_was_recorded_of_one_line_of_a_circuit_says_the_same_of_the_other(demo, ids):
    (source,) = told(demo, ids[MAIN])
    (joined,) = demo.joined_holds.of(ids[BRANCH], TODAY)
    assert (joined.line, joined.name, joined.hold.run) == (ids[MAIN], MAIN, "")
    assert joined.hold.note == f"{TAKEN} {MAIN}"
    here = taken_over(demo, ids[BRANCH], joined.hold)
    assert here.problem == ""
    assert here.result.verdict == source.result.verdict
    assert here.counts == source.counts
    assert [one.name for one in demo.joined_holds.of(ids[MAIN], TODAY)] == [], "its own comes not back"


@pytest.mark.parametrize("reads", ["below the air", "absolute"])
def test_a_test_read_by_eye_is_taken_with_what_was_shut_in(demo, ids, reads):
    figure = "0.6 bar" if reads == "below the air" else "0.41 bar"
    rows = tuple(HoldRow(minutes=str(at), pressure=figure, temperature="18") for at in range(0, 12, 2))
    opened = demo.lines.open(ids[MAIN])
    eye = Hold(
        id="eye", kind="vacuum", rows=rows, reads=reads, volume="2 l", by="Mara", at="2026-11-20T10:00"
    )
    proving = replace(opened.document.proving, holds=(eye,))
    demo.lines.save(opened.id, opened.version, replace(opened.document, proving=proving))
    (joined,) = demo.joined_holds.of(ids[BRANCH], TODAY)
    assert joined.hold == replace(eye, id="", note=f"{TAKEN} {MAIN}")
    assert taken_over(demo, ids[BRANCH], joined.hold).result.verdict == "holds"


def test_a_line_that_is_joined_to_nothing_has_none(demo, ids):
    assert demo.joined_holds.of(ids["Header tank to engine"], TODAY) == ()


def test_a_line_whose_length_nobody_knows_holds_an_unknown_volume(shop):
    job = shop.jobs.create(JobDraft(name="Winch"))
    hose = HoseSpan(id="h1", hose="cooler_3-8in", clamp="worm_12-20", length=Length(text="a lot"))
    line = Line(name="return", service="cooler", unit="in", spans=(hose,))
    kept = shop.lines.add(job.id, line)
    assert shop.closings.of(line, kept.id, TODAY).volume_ml is None
    known = replace(line, spans=(replace(hose, length=Length(text="20", unit="in")),))
    # 20 in of 3/8 in bore, by hand: pi/4 * 9.5^2 * 508 / 1000
    assert shop.closings.of(known, kept.id, TODAY).volume_ml == pytest.approx(36.0, rel=0.02)

"""A hose looked at with what else is in its job."""

from __future__ import annotations

import dataclasses

import pytest

from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.hose_way import HoseEndAt, HoseWay
from bendrel.core.units.lengths import Length
from bendrel.services.demo.documents import demo_line
from bendrel.services.errors import NotFound
from bendrel.services.hose.hose_ways import study_hose
from bendrel.services.job.jobs import JobDraft


def straight(name, across):
    """A hose of 300 mm straight ahead, `across` mm to the left of the datum."""
    ends = [HoseEndAt(x=Length(text=x), y=Length(text=str(across)), way="ahead") for x in ("0", "300")]
    hose = HoseSpan(id="h1", hose="brake_1-8in", joined="crimped", length=Length(text="300"),
                    way=HoseWay(a=ends[0], b=ends[1]))  # fmt: skip
    return Line(name=name, service="brake", unit="mm", spans=(hose,))


def test_another_hose_of_the_job_is_measured_to(shop):
    """10.5 mm hoses with 14 mm between their middles: 3.5 mm between their outsides, and 8 are wanted."""
    job = shop.jobs.create(JobDraft(name="job", machine=""))
    own = shop.lines.add(job.id, straight("own", 0))
    shop.lines.add(job.id, straight("neighbour", 14))
    gone = shop.lines.add(job.id, straight("deleted", 6))
    shop.lines.delete(gone.id)
    study = study_hose(own.document, shop.kit, "h1", shop.lines.of_same_job(own.id))
    (near,) = study.laid.nearest
    assert (near.what, near.kind) == ("neighbour", "line")
    assert near.distance_mm == pytest.approx(3.5, abs=1e-3)
    assert [one.kind for one in study.supports if "neighbour" in one.text.lower()] == ["away"]


def test_a_job_file_keeps_what_is_joined(shop):
    """The lines of a job that is brought in again speak of each other, not of the old ones."""
    job = shop.jobs.create(JobDraft(name="vacuum", machine=""))
    main = shop.lines.add(job.id, demo_line("vacuum-main"))
    shop.lines.add(job.id, demo_line("vacuum-branch", {"vacuum-main": main.id}))
    data = shop.archives.write(job.id).data
    again = shop.archives.read(data, keep=True)
    circuits = shop.circuits.of_job(again.job_id, shop.kit)
    assert [len(group) for group in circuits.groups] == [2]
    assert not [one for one in circuits.findings if one.code == "not_joined"]
    assert circuits.lines[1].on_a == f"{circuits.lines[0].id}:t1" != f"{main.id}:t1"
    assert len(circuits.vacua[0].actuators) == 2


def test_a_hose_that_is_not_there(shop):
    with pytest.raises(NotFound, match="no hose “h9”"):
        study_hose(dataclasses.replace(straight("own", 0)), shop.kit, "h9")

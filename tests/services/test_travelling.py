"""What of the shop's own, and of what was made, goes with a job into another shop."""

import io
import json
import zipfile
from shutil import copyfile

import pytest

from bendrel.core.bend.bench.state import MakingState, Spell
from bendrel.core.bend.told.figures import MadeBend
from bendrel.exchange.errors import FileError
from bendrel.services.bench.benches import standing
from bendrel.services.job.jobs import JobDraft
from bendrel.services.shelf.shelf import OwnDraft
from bendrel.services.startup import open_shop
from tests.lines import bent, row, the_tube

BENDER = {
    "name": "loft bender",
    "kind": "vise",
    "size": "3/16 in",
    "od_mm": "4.76 mm",
    "radius_mm": "17 mm",
    "greatest_angle_deg": "180",
    "least_before_first_mm": "20 mm",
    "least_between_mm": "12 mm",
    "least_after_last_mm": "15 mm",
}
PIECE = {"cut": "300", "mark": "150", "dial": "90", "leg_a": "152.4", "leg_b": "158.9", "angle": "88.5"}


@pytest.fixture(scope="module")
def half_made(templates, tmp_path_factory):
    """A shop with a job whose line is half made on an own, tried bender: its file, the ids of both."""
    path = tmp_path_factory.mktemp("half made") / "shop.db"
    copyfile(templates["empty"], path)
    shop = open_shop(path, backups=False)
    shop.jobs.patience_s = 60.0
    bender = shop.shelf.add(OwnDraft(shelf="benders", fields=BENDER)).row_id
    shop.shelf.try_tool(bender, "copper-nickel", PIECE, "mm")
    shop.shelf.try_tool("lever_3-16in", "copper-nickel", PIECE, "mm")
    job = shop.jobs.create(JobDraft(name="Winch"))
    line = shop.lines.add(job.id, bent(row(120, 90), row(150, 45, "3:00"), bender=bender, last=150))
    making = shop.makings.begin(line.id)
    told = standing(making.document, shop.kit, ()).remade.next
    bend = MadeBend(
        bend=1, held="A", start_mm=told.start_mm, angle_deg=90, clock_deg=0, angle="88.5", unit="mm"
    )
    spell = Spell(start="2026-01-14T18:00:00Z", stop="2026-01-14T18:30:00Z")
    state = MakingState(done=("bend-1",), made=(bend,), spells=(spell,))
    shop.makings.keep(making.id, making.version, state)
    shop.makings.end(making.id, "scrap")
    shop.jobs.board()  # so that every copy knows what it says
    shop.close()
    return path, job.id, bender


@pytest.fixture
def shop(half_made, tmp_path):
    """A copy of that shop."""
    copyfile(half_made[0], tmp_path / "shop.db")
    opened = open_shop(tmp_path / "shop.db", backups=False)
    opened.jobs.patience_s = 60.0
    yield opened
    opened.close()


@pytest.fixture
def made(half_made):
    """The job and the bender."""
    return half_made[1:]


def brought_in(place, data):
    look = place.archives.read(data, keep=False)
    kept = place.archives.read(data, keep=True)
    assert look.own == kept.own
    return kept, place.jobs.one(kept.job_id).lines[0].id


def test_an_own_bender_goes_with_its_job_and_plans_the_same_elsewhere(shop, made, tmp_path):
    job, bender = made
    cut = shop.jobs.one(job).lines[0].cut_mm
    other = open_shop(tmp_path / "other" / "shop.db")
    kept, line = brought_in(other, shop.archives.write(job)[0])
    assert kept.own == ("loft bender",)
    named = the_tube(other.lines.open(line).document).bender
    assert named != bender
    assert other.kit.benders[named].radius_mm == pytest.approx(17)
    # its test piece came along; that of the shop's lever bender is about another tool over there
    assert set(other.kit.calibrations) == {(named, "copper-nickel")}
    assert other.jobs.one(kept.job_id).lines[0].cut_mm == pytest.approx(cut)
    other.close()


def test_a_making_goes_along_and_does_not_train_the_other_hand(shop, made, tmp_path):
    job, _ = made
    assert shop.kit.spread.readings == 1
    other = open_shop(tmp_path / "other" / "shop.db")
    kept, line = brought_in(other, shop.archives.write(job)[0])
    assert kept.makings == 1
    (making,) = other.makings.of_line(line)
    assert (making.outcome, making.state.made[0].angle) == ("scrap", "88.5")
    assert making.state.spells[0].stop == "2026-01-14T18:30:00Z"
    assert the_tube(making.document).bender == the_tube(other.lines.open(line).document).bender
    assert other.kit.spread.readings == 0
    # and from there on with everything
    again, _ = brought_in(other, other.archives.write(kept.job_id)[0])
    assert again.makings == 1
    other.close()


def test_brought_in_where_it_came_from_nothing_of_the_own_is_doubled(shop, made):
    job, bender = made
    _, line = brought_in(shop, shop.archives.write(job)[0])
    assert the_tube(shop.lines.open(line).document).bender == bender
    assert len(shop.shelf.own()) == 1
    assert len(shop.shelf.trials()) == 2


def changed(data, change):
    with zipfile.ZipFile(io.BytesIO(data)) as file:
        job = json.loads(file.read("job.json"))
    change(job)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as file:
        file.writestr("job.json", json.dumps(job))
    return out.getvalue()


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda job: job["own"][0]["fields"].update(radius_mm="round"), "benders.*Radius of the die"),
        (lambda job: job["own"][0].update(id="../../x"), "Own entry 1, id"),
        (lambda job: job["own"][0].update(shelf="secrets"), "Own entry 1, shelf: must be one of"),
        (lambda job: job["trials"][0]["fields"].update(mark="900"), "test piece.*Mark"),
        (lambda job: job["trials"][0].update(material="mithril"), "mithril"),
        (lambda job: job["makings"][0].update(line=7), "line 8, and the job has 1"),
        (lambda job: job["makings"][0].update(outcome="sold"), "Making 1, outcome: must be one of"),
    ],
)
def test_what_makes_no_sense_keeps_the_whole_job_out(shop, made, change, said):
    data = changed(shop.archives.write(made[0])[0], change)
    before = (len(shop.jobs.board()), len(shop.shelf.own()), len(shop.shelf.trials()))
    with pytest.raises(FileError, match=said):
        shop.archives.read(data, keep=True)
    assert (len(shop.jobs.board()), len(shop.shelf.own()), len(shop.shelf.trials())) == before


def test_a_job_file_of_before_is_still_read(shop, made):
    def older(job):
        for name in ("makings", "own", "trials"):
            del job[name]

    data = changed(shop.archives.write(made[0])[0], older)
    kept = shop.archives.read(data, keep=True)
    assert (kept.makings, kept.own) == (0, ())
    assert shop.jobs.one(kept.job_id).lines[0].cut_mm is not None

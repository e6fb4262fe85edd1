"""Two people at once, and the offline plan."""

from concurrent.futures import ThreadPoolExecutor

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.starting import starting_line
from bendrel.exchange.documents.documents import write_line
from bendrel.exchange.errors import FileError
from bendrel.services.demo.demo import fill_demo
from bendrel.services.errors import Refused, Stale
from bendrel.services.job.jobs import JobDraft
from bendrel.services.line.files import export_line, print_sheet
from bendrel.services.line.importing import import_text
from bendrel.services.line.offline import plan_file
from tests.lines import bent, replace, row, the_tube, with_tube


def test_of_many_saves_of_one_version_exactly_one_wins(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    line = shop.lines.create(job.id, "Rear axle")

    def save(k):
        try:
            return shop.lines.save(line.id, 1, replace(line.document, name=f"by {k}")).document.name
        except Stale as stale:
            return stale.current["name"]

    with ThreadPoolExecutor(8) as pool:
        names = set(pool.map(save, range(16)))
    assert names == {shop.lines.open(line.id).document.name}
    assert shop.lines.open(line.id).version == 2


def test_many_people_on_many_lines(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender"))

    def work(k):
        line = shop.lines.create(job.id, f"line {k}")
        for n in range(5):
            line = shop.lines.save(line.id, line.version, replace(line.document, notes=f"{k} {n}"))
        return line.document.notes

    with ThreadPoolExecutor(8) as pool:
        assert list(pool.map(work, range(12))) == [f"{k} 4" for k in range(12)]
    assert len(shop.jobs.one(job.id).lines) == 12


def test_the_board_follows_every_change(shop):
    job = shop.jobs.create(JobDraft(name="Fire tender", unit="mm"))
    line = shop.lines.create(job.id, "Rear axle")
    assert shop.jobs.board()[0].lines[0].next_step == "Finish the readings"
    good = replace(bent(row(100, 90), row(60, 45, "3:00")), name="Rear axle")
    line = shop.lines.save(line.id, line.version, good)
    told = shop.jobs.board()[0].lines[0]
    assert (told.bends, told.next_step) == (2, "Print the sheet and make it")
    bad = with_tube(good, tube="aluminium-3003_3-16in_0.889")
    line = shop.lines.save(line.id, line.version, bad)
    told = shop.jobs.board()[0].lines[0]
    assert (told.worst, told.next_step) == ("stop", "Settle the stops")
    shop.lines.undo(line.id, line.version)
    assert shop.jobs.board()[0].lines[0].worst is None


def test_demo_data_is_made_once_and_every_line_of_it_can_be_planned(shop, kit):
    fill_demo(shop)
    fill_demo(shop)
    jobs = shop.jobs.board()
    assert sorted(job.name for job in jobs) == ["Fire tender", "Harbour launch", "Slipway crane"]
    made = 0
    for summary in (line for job in jobs for line in job.lines):
        document = shop.lines.open(summary.id).document
        plan = plan_line(document, kit)
        assert plan.chosen is not None
        assert len(plan.pieces) == sum(span.kind == "rigid" for span in document.spans)
        made += len(plan.pieces)
        assert all(piece.part is not None and piece.part.cut_mm > 0 for piece in plan.pieces)
    assert made > 10


def test_switching_an_empty_line_gives_an_empty_table(shop):
    line = starting_line(load_kit(), "x", "brake", "in")
    corners = shop.lines.convert(line, "corners")
    assert len(the_tube(corners).readings.rows) == 2
    assert the_tube(shop.lines.convert(corners, "bends")).readings.rows == ()
    with pytest.raises(Refused, match="no readings"):
        export_line(shop.lines, line, shop.kit, "points")


def test_switching_with_a_bad_reading_says_which(shop):
    with pytest.raises(Refused, match="Put the readings right first: “nine”"):
        shop.lines.convert(bent(row("nine", 90)), "corners")
    with pytest.raises(Refused, match="nothing to print yet"):
        print_sheet(bent(row("nine", 90)), shop.kit, job="x", machine="")


def test_an_imported_document_keeps_the_name_of_the_line_it_goes_into(kit):
    other = replace(bent(row(100, 90)), name="from elsewhere", service="cooler")
    read = import_text(write_line(other), starting_line(load_kit(), "mine", "brake", "in"), "", None, kit)
    assert (read.document.name, read.document.service) == ("mine", "cooler")
    assert "from elsewhere" in read.understood
    with pytest.raises(Refused, match="Radius"):
        import_text("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n1,0,0,\n", read.document, "thick", None, kit)


def test_an_unreadable_document_has_no_offline_plan():
    data = write_line(bent(row("nine", 90))).encode()
    with pytest.raises(FileError, match="/spans/s1/readings/rows/r1/length"):
        plan_file(data, held=None, marks=None, radius_mm=None)


def test_a_hairpin_file_is_planned_without_a_corner_mark():
    data = b"straight_mm,rotation_deg,angle_deg,radius_mm\n80,,175,15\n60,,,\n"
    plan = plan_file(data, held="B", marks="corner", radius_mm=None)
    assert plan["moves"][0]["mark_mm"] is None
    assert plan["moves"][0]["bend"] == 1

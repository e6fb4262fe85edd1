"""Copies, another radius, suspects and imports, as the screens ask for them."""

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.errors import BendrelError
from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.line.checks import Checks
from bendrel.core.line.condition import Condition, Fixture
from bendrel.core.plan.starting import starting_line
from bendrel.core.units.lengths import Length
from bendrel.exchange.shapes.dxf import write_dxf
from bendrel.services.bench.benches import standing
from bendrel.services.job.jobs import JobDraft
from bendrel.services.line.importing import import_text
from bendrel.services.line.measuring import CopyOrder, copy_line, look_at_checks, rebuild
from tests.lines import bent, cornered, end_of, replace, row, the_tube, with_tube

SOURCE = replace(bent(row(100, 90), row(80, 45, "3:00"), last=70), name="Rear left", service="cooler")
ANY_RADIUS = replace(the_tube(SOURCE), bender="given_any")
HERE = replace(starting_line(load_kit(), "Rear right", "brake", "mm"), notes="mine")


def shape(shop, line):
    return shop.lines.shape(line)


def test_the_mirror_image_brings_readings_and_choices_but_no_proof(shop):
    made, said = copy_line(HERE, SOURCE, CopyOrder(how="mirror"), shop.kit)
    assert said == "mirror image of “Rear left”"
    assert (made.name, made.notes, made.service) == ("Rear right", "mine", "cooler")
    assert (end_of(SOURCE, "A").proved, end_of(made, "A").proved) == (True, False)
    assert [bend.rotation_deg for bend in shape(shop, made).bends] == pytest.approx([0, -90])
    assert the_tube(made).readings.rows[1].plane.text == "9:00"


def test_readings_alone_can_be_copied(shop):
    made, _ = copy_line(HERE, SOURCE, CopyOrder(how="same", choices=False), shop.kit)
    assert made.service == "brake"
    assert the_tube(made).readings == the_tube(SOURCE).readings


@pytest.mark.parametrize(("end", "straights"), [("A", (125, 80, 70)), ("B", (100, 80, 95))])
def test_an_end_made_longer_changes_that_leg_alone(shop, end, straights):
    order = CopyOrder(how="same", end=end, longer="25")
    made, said = copy_line(HERE, SOURCE, order, shop.kit)
    assert said.endswith(f"end {end} 25 longer")
    assert shape(shop, made).straights_mm == pytest.approx(straights)
    kept = the_tube(made).readings.rows[1]
    assert kept == the_tube(SOURCE).readings.rows[1]


def test_corner_points_can_be_copied_mirrored_and_made_longer(shop):
    source = cornered((0, 0, 0), (100, 0, 0), (100, 80, 40))
    made, _ = copy_line(HERE, source, CopyOrder(how="mirror"), shop.kit)
    assert [r.z.text for r in the_tube(made).readings.rows] == ["-0", "-0", "-40"]
    longer, _ = copy_line(HERE, source, CopyOrder(how="same", longer="-10 mm"), shop.kit)
    assert shape(shop, longer).developed_mm == pytest.approx(shape(shop, source).developed_mm - 10)


@pytest.mark.parametrize("how", ["mirror", "same", "neighbour"])
def test_what_holds_the_other_line_is_to_be_fitted_here_too(shop, how):
    clip = Fixture(id="f1", at=Length(text="60"), clip="pclip_5", fixed_to="a stud", shared="the return")
    source = replace(SOURCE, condition=Condition(fixtures=(clip,)))
    order = CopyOrder(how=how, spacing="20", clock="3:00")
    made, _ = copy_line(HERE, source, order, shop.kit)
    assert made.condition.fixtures == (replace(clip, span=the_tube(made).id, state="to fit", shared=""),)
    own = replace(HERE, condition=Condition(fixtures=(replace(clip, at=Length(text="10")),)))
    kept, _ = copy_line(own, source, order, shop.kit)
    assert kept.condition == own.condition


def test_a_neighbour_keeps_its_distance(shop):
    """Beside the first bend's inside the nested radius is 15 − 8 mm."""
    order = CopyOrder(how="neighbour", spacing="8", clock="12:00", nested=True)
    made, said = copy_line(HERE, SOURCE, order, shop.kit)
    assert said == "neighbour of “Rear left”, 8 beside it at 12:00"
    assert shape(shop, made).bends[0].radius_mm == pytest.approx(7)


@pytest.mark.parametrize(
    ("order", "said"),
    [
        (CopyOrder(how="neighbour", spacing="wide"), "Neighbour"),
        (CopyOrder(how="neighbour", spacing="8", clock="45"), "clock time"),
        (CopyOrder(how="neighbour", spacing="8", clock="later"), "is not a plane"),
        (CopyOrder(how="neighbour", spacing="20", nested=True), "Bend 1 has a radius"),
        (CopyOrder(how="same", longer="much"), "Longer"),
        (CopyOrder(how="same", longer="-300"), "straight to take off"),
    ],
)
def test_copies_that_cannot_be(shop, order, said):
    with pytest.raises(BendrelError, match=said):
        copy_line(HERE, SOURCE, order, shop.kit)


def test_a_line_that_is_not_read_yet_has_no_neighbour(shop):
    with pytest.raises(BendrelError, match="not finished"):
        copy_line(HERE, bent(row("?", 90)), CopyOrder(how="neighbour", spacing="8"), shop.kit)


def test_another_radius_is_shown_before_it_is_taken(shop):
    made = rebuild(SOURCE, "24", shop.kit)
    assert made.result.meets_ports
    assert {bend.radius_mm for bend in shape(shop, made.document).bends} == {24}
    own = rebuild(SOURCE, "", shop.kit)
    assert own.result.departure_mm == pytest.approx(0, abs=1e-6)


@pytest.mark.parametrize(
    ("line", "radius", "said"),
    [
        (bent(row("?", 90)), "", "not known yet"),
        (SOURCE, "tight", "Radius"),
        (bent(last=100), "", "has no radius"),
        (
            with_tube(SOURCE, bender="given_any"),
            "",
            "Put the readings right",
        ),
    ],
)
def test_no_other_radius(shop, line, radius, said):
    with pytest.raises(BendrelError, match=said):
        rebuild(line, radius, shop.kit)


def test_suspects_are_named_only_when_a_check_disagrees(shop):
    along = shape(shop, SOURCE).developed_mm
    agreeing = replace(SOURCE, checks=Checks(wire=Length(text=f"{along}")))
    assert look_at_checks(agreeing, shop.kit).named == ()
    off = replace(SOURCE, checks=Checks(wire=Length(text=f"{along - 25.4}")))
    named = look_at_checks(off, shop.kit).named
    legs = {f"/spans/s1/readings{path}" for path in ("/rows/r1/length", "/rows/r2/length", "/last")}
    assert {item.path for item in named} <= legs
    assert {item.change for item in named} == {"25.4 mm less"}
    assert named
    assert all("an inch" in item.slip for item in named)
    assert look_at_checks(bent(row("?", 90)), shop.kit).named == ()


POINTS = "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n10,0,0,\n20,0,0,\n20,8,0,\n"


def test_an_import_says_what_it_filled_in_and_merged(kit):
    read = import_text(POINTS, HERE, "2", "in", kit)
    assert read.unit == "in"
    assert read.notes == ("2 radii missing; 2 mm filled in", "1 corner merged: flat, or part of one bend")
    assert "1 bend, in inches" in read.understood
    assert the_tube(read.document).readings.rows[-1].y.exact_mm == pytest.approx(8 * 25.4)


def test_the_benders_radius_fills_what_is_missing(kit):
    read = import_text("x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n90,0,0,\n90,80,0,\n", HERE, "", None, kit)
    assert read.notes == ("1 radius missing; 15 mm filled in",)


def test_a_drawing_tells_its_unit_and_what_it_was_made_of(kit):
    bend = Bend(straight_mm=50, rotation_deg=0, angle_deg=90, radius_mm=15)
    text = write_dxf(BendList(bends=(bend,), last_straight_mm=40))
    read = import_text(text, HERE, "", None, kit)
    assert read.understood.startswith("DXF drawing, 3 entities, 1 bend, in millimetres")
    switched = import_text(text, HERE, "", "in", kit)
    assert switched.unit == "in"
    with pytest.raises(BendrelError, match="DXF drawing that can be read"):
        import_text(text[:800], HERE, "", None, kit)


def test_a_line_copied_alongside_keeps_its_length_and_gives_it_back_as_a_check(shop):
    along = shop.lines.convert(SOURCE, "alongside")
    readings = the_tube(along).readings
    assert readings.copied
    assert shape(shop, along).developed_mm == pytest.approx(shape(shop, SOURCE).developed_mm)
    back = shop.lines.convert(along, "bends")
    assert the_tube(back).readings.rows == ()
    assert not the_tube(back).readings.copied
    assert the_tube(back).checks.wire.exact_mm == pytest.approx(shape(shop, SOURCE).developed_mm)
    taken = replace(along, checks=Checks(wire=Length(text="300 mm")))
    assert the_tube(shop.lines.convert(taken, "wire")).checks.wire.text == "300 mm"


def test_a_line_copied_alongside_is_made_at_the_bench_without_marks(shop):
    job = shop.jobs.create(JobDraft(name="Launch"))
    along = shop.lines.convert(SOURCE, "alongside")
    line = shop.lines.add(job.id, along)
    making = shop.makings.begin(line.id)
    told = standing(making.document, shop.kit, ())
    assert told.remade.next is None
    assert {step.kind for step in told.steps} >= {"cut", "flare"}


def test_what_goes_out_is_what_is_planned_and_an_edit_starts_from_what_was_read(shop):
    """End B stands 1.5 mm further ahead than the readings say: the plan and every file are of the adjusted
    line; told by corner points it has the readings' own corners, and is adjusted no second time."""
    end = shop.lines.plan(SOURCE).part.end_b.point
    ahead, up, right = (Length(text=f"{side:.4f}") for side in (end[0] + 1.5, end[1], end[2]))
    line = with_tube(SOURCE, checks=Checks(ahead=ahead, up=up, right=right))
    planned, out = shop.lines.plan(line).part, shape(shop, line)
    assert planned.end_b.point[0] > end[0] + 0.3
    assert out.developed_mm == pytest.approx(planned.developed_mm)
    assert out.bends[0].angle_deg == pytest.approx(planned.bends[0].angle_deg)
    corners = the_tube(shop.lines.convert(line, "corners")).readings.rows
    as_read = the_tube(shop.lines.convert(SOURCE, "corners")).readings.rows
    assert [row.x.exact_mm for row in corners] == [row.x.exact_mm for row in as_read]

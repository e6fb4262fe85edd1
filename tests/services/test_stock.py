"""What lies in the shop, what is cut from it, and what comes back; lengths by hand."""

from __future__ import annotations

import pytest

from bendrel.services.errors import NotFound, Refused, Stale
from bendrel.services.job.jobs import JobDraft
from bendrel.services.stock.cuttings import CutsDone, piece_of
from bendrel.services.stock.stock import StockDraft
from tests.lines import bent, row

TUBE = "copper-nickel_3-16in_0.711"
KERF = 1.0  # common practice: a hacksaw blade
CUT = 200 + 15 * 3.14159265 / 2 + 2 * 2.05 + 25  # two legs, one arc, two flares and the spare


@pytest.fixture
def job(shop):
    made = shop.jobs.create(JobDraft(name="Launch", unit="mm"))
    for name in ("Drain", "Feed", "Vent"):
        shop.lines.add(made.id, bent(row(100, 90), name=name))
    return made


def put_in(shop, form, length, count=1):
    return shop.stock.add(StockDraft(tube=TUBE, form=form, length=f"{length} mm", count=count))


def names(cuts):
    return {line.line: line for line in cuts.lines}


def take(shop, job, *wanted):
    lines = names(shop.cuttings.of(job.id))
    ids = tuple(lines[name].piece for name in wanted)
    cuts = shop.cuttings.of(job.id, ids)
    return cuts, shop.cuttings.take(job.id, CutsDone(pieces=ids, stamp=cuts.stamp))


def lying(shop):
    return {row.label: (row.form, pytest.approx(row.length_mm), row.count) for row in shop.stock.all()}


def test_one_of_several_sticks_is_used_and_comes_back(shop, job):
    put_in(shop, "stick", 1500, 3)
    before = lying(shop)
    _, done = take(shop, job, "Drain")
    assert {label: row[2] for label, row in lying(shop).items()} == {"S1": 2, "O2": 1}
    assert lying(shop)["O2"][1] == pytest.approx(1500 - CUT - KERF, abs=0.05)
    shop.cuttings.take_back(done)
    assert lying(shop) == before


def test_what_somebody_has_counted_since_the_cuts_stays_as_it_was_counted(shop, job):
    """Three sticks, one cut; then one look that finds a single one. Taking the cut back counts no second."""
    stick = put_in(shop, "stick", 1500, 3)
    _, done = take(shop, job, "Drain")
    there = next(row for row in shop.stock.all() if row.id == stick.id)
    shop.stock.change(stick.id, StockDraft(tube=there.tube, length="1500", count=1), there.version)
    assert shop.cuttings.take_back(done).counted == ("S1",)
    assert lying(shop)["S1"][2] == 1
    assert [(move.kind, move.pieces) for move in shop.stock.moves(stick.id)] == [
        ("counted", -1),
        ("cut", -1),
        ("put in", 3),
    ]


def test_a_note_is_no_count(shop, job):
    stick = put_in(shop, "stick", 1500, 3)
    _, done = take(shop, job, "Drain")
    there = next(row for row in shop.stock.all() if row.id == stick.id)
    draft = StockDraft(tube=there.tube, length="1500", count=there.count, note="rack 2")
    shop.stock.change(stick.id, draft, there.version)
    assert shop.cuttings.take_back(done).counted == ()
    assert lying(shop)["S1"][2] == 3


def test_what_was_taken_out_meanwhile_stays_out(shop, job):
    stick = put_in(shop, "stick", 1500, 3)
    _, done = take(shop, job, "Drain")
    shop.stock.remove(stick.id)
    assert shop.cuttings.take_back(done).counted == ("S1",)
    assert "S1" not in lying(shop)
    shop.stock.remove(stick.id, back=True)
    assert lying(shop)["S1"][2] == 2


def test_a_stale_correction_is_refused_with_what_is_there(shop):
    stick = put_in(shop, "stick", 1500, 3)
    draft = StockDraft(tube=stick.tube, length="1500", count=2)
    shop.stock.change(stick.id, draft, stick.version)
    with pytest.raises(Stale, match="2 × 1500 mm") as refused:
        shop.stock.change(stick.id, StockDraft(tube=stick.tube, length="1500", count=5), stick.version)
    assert (refused.value.current["count"], refused.value.version) == (2, stick.version + 1)
    with pytest.raises(Stale):
        shop.stock.remove(stick.id, stick.version)
    assert lying(shop)["S1"][2] == 2


def test_three_pieces_from_a_coil_leave_a_shorter_coil(shop, job):
    put_in(shop, "coil", 5000)
    cuts, done = take(shop, job, "Drain", "Feed", "Vent")
    assert len(cuts.tubes[0].cuts.cuts[0].pieces) == 3
    assert lying(shop)["C1"][1] == pytest.approx(5000 - 3 * (CUT + 60 + KERF), abs=0.1)  # straightened
    shop.cuttings.take_back(done)
    assert lying(shop)["C1"][1] == pytest.approx(5000)


def test_a_coil_that_is_used_up_is_gone_and_comes_back(shop, job):
    exact = names(shop.cuttings.of(job.id))["Drain"].mm
    put_in(shop, "coil", f"{exact + 60.9:.3f}")  # 60 mm of it for the ends that keep their curve
    _, done = take(shop, job, "Drain")
    assert lying(shop) == {}
    shop.cuttings.take_back(done)
    assert lying(shop)["C1"][1] == pytest.approx(exact + 60.9, abs=0.01)


def test_a_short_remnant_is_scrap_and_gets_no_label(shop, job):
    put_in(shop, "offcut", 340)
    cuts, _ = take(shop, job, "Drain")
    assert not cuts.tubes[0].cuts.cuts[0].kept
    assert lying(shop) == {}


def test_what_was_bought_leaves_its_remnant_and_takes_it_back(shop, job):
    cuts, done = take(shop, job, "Drain")
    assert cuts.tubes[0].cuts.bought_mm == 1500
    (left,) = shop.stock.all()
    assert (left.form, left.note) == ("offcut", "from a new stick")
    shop.cuttings.take_back(done)
    assert shop.stock.all() == ()


def test_a_line_that_is_cut_twice_counts_by_the_last(shop, job):
    put_in(shop, "stick", 1500)
    _, first = take(shop, job, "Drain")
    _, second = take(shop, job, "Drain")
    assert names(shop.cuttings.of(job.id))["Drain"].taken.cutting_id == second
    shop.cuttings.take_back(second)
    assert names(shop.cuttings.of(job.id))["Drain"].taken.cutting_id == first


def test_two_jobs_do_not_cut_the_same_stick(shop, job):
    put_in(shop, "stick", 400)
    other = shop.jobs.create(JobDraft(name="Winch", unit="mm"))
    shop.lines.add(other.id, bent(row(100, 90), name="Brake"))
    seen = shop.cuttings.of(other.id)
    take(shop, job, "Drain")
    ids = tuple(line.piece for line in seen.lines)
    with pytest.raises(Stale, match="look at it again"):
        shop.cuttings.take(other.id, CutsDone(pieces=ids, stamp=seen.stamp))


def test_a_deleted_line_wants_no_tube(shop, job):
    lines = names(shop.cuttings.of(job.id))
    shop.lines.delete(lines["Feed"].line_id)
    assert set(names(shop.cuttings.of(job.id))) == {"Drain", "Vent"}


def test_a_line_without_readings_is_named_and_cannot_be_cut(shop, job):
    bare = shop.lines.create(job.id, "Overflow")
    cuts = shop.cuttings.of(job.id, [piece_of(bare.id, "s1")])
    assert names(cuts)["Overflow"].mm is None
    assert cuts.tubes == ()
    with pytest.raises(Refused, match="Nothing in this list can be cut"):
        shop.cuttings.take(job.id, CutsDone(pieces=(piece_of(bare.id, "s1"),), stamp=cuts.stamp))


def test_the_kit_asks_for_the_tube_that_is_not_cut_yet(shop, job):
    def the_tube():
        return next((r for r in shop.kits.of_job(job.id).rows if r.need.ref == f"tube:{TUBE}"), None)

    put_in(shop, "stick", 400)
    assert the_tube().need.amount == pytest.approx(3 * CUT, abs=0.1)
    assert the_tube().have == 400
    take(shop, job, "Drain")
    assert the_tube().need.amount == pytest.approx(2 * CUT, abs=0.1)
    assert the_tube().have == 0  # what was left of the stick is scrap
    take(shop, job, "Feed", "Vent")
    assert the_tube() is None


def test_cuts_and_jobs_that_are_not_there_are_named(shop):
    with pytest.raises(NotFound, match="not in the book"):
        shop.cuttings.take_back("nothing")
    for of in (shop.cuttings.of, shop.kits.of_job, shop.bookings.ledger, shop.jobs.one):
        with pytest.raises(NotFound, match="There is no job “none”; it may have been deleted"):
            of("none")

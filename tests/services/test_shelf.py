"""The shop's shelf survives a restart, and a change of it makes the board think again."""

import sqlite3

import pytest

from bendrel.core.errors import BendrelError
from bendrel.core.units.lengths import Length
from bendrel.services.errors import NotFound
from bendrel.services.job.jobs import JobDraft
from bendrel.services.job.kits import added_up
from bendrel.services.shelf.shelf import Held, OwnDraft
from bendrel.services.startup import open_shop
from bendrel.services.stock.stock import StockDraft
from bendrel.standins.supplier import SupplierAway
from tests.lines import End, bent, replace, row

TUBE = OwnDraft(
    shelf="tubes", fields={"material": "copper-nickel", "size": "3/16 in", "od_mm": "3/16", "wall_mm": "1 mm"}
)


def test_own_rows_stock_and_ways_are_there_after_a_restart(tmp_path):
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    kept = shop.shelf.add(TUBE)
    shop.shelf.hold(Held(ref=f"tube:{kept.row_id}", unit_cents=640))
    shop.shelf.prefer({"clamps": "spring"})
    shop.close()
    again = open_shop(path)
    assert again.kit.tubes[kept.row_id].od_mm == pytest.approx(4.7625)  # a bare fraction is inches
    assert again.kit.tubes[kept.row_id].source.text == "entered by the shop"
    assert again.shelf.holdings()[f"tube:{kept.row_id}"].unit_cents == 640
    assert again.kit.preferences["clamps"] == "spring"
    assert again.kit.preferences["material"] == "copper-nickel"
    again.close()


def test_what_the_shop_measured_for_its_way_is_kept_and_only_what_can_be(tmp_path):
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    assert shop.kit.own_figures == {}
    ways = shop.shelf.prefer({"stiff-twist": "measured", "stiff-twist-scrap": "7.5°"})
    assert (ways.answers["stiff-twist"], ways.figures) == ("measured", {"stiff-twist-scrap": 7.5})
    for wrong, said in (
        ("25", "type 1° to 10°; “25” is not used"),
        ("10.1", "1° to 10°"),
        ("0", "1° to 10°"),
        ("a bit", "not an angle"),
    ):
        with pytest.raises(BendrelError, match=said):
            shop.shelf.prefer({"stiff-twist": "never", "stiff-twist-scrap": wrong})
    shop.close()
    again = open_shop(path)
    assert again.kit.own_figures == {"stiff-twist-scrap": 7.5}
    assert again.kit.preferences["stiff-twist"] == "measured"  # the refused ones kept nothing of themselves
    again.close()


def test_a_figure_in_the_file_that_cannot_be_is_as_if_nothing_was_measured(tmp_path):
    path = tmp_path / "shop.db"
    open_shop(path).close()
    with sqlite3.connect(path) as file:
        file.execute(
            "INSERT INTO preferences (question, answer, version) VALUES ('stiff-twist-scrap', 'lots', 1)"
        )
    shop = open_shop(path)
    assert shop.kit.own_figures == {}
    shop.close()


def test_the_board_thinks_again_when_a_row_it_stands_on_changes(shop):
    """A line on a tube of the shop's own: thin it is not strong enough, thicker it is."""
    kept = shop.shelf.add(replace(TUBE, fields=TUBE.fields | {"wall_mm": "0.3 mm"}))
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    end = End(fitting="double-45", nut="double-45_3-16in_3-8-24", thread="3/8-24", proved=True)
    shop.lines.add(job.id, bent(row(100, 90), end_a=end, end_b=end, tube=kept.row_id))
    assert shop.jobs.one(job.id).lines[0].worst == "stop"
    shop.shelf.change(kept.id, TUBE)
    assert shop.jobs.one(job.id).lines[0].worst != "stop"
    shop.shelf.remove(kept.id)
    assert shop.jobs.one(job.id).lines[0].cut_mm is None
    shop.shelf.remove(kept.id, back=True)
    assert shop.jobs.one(job.id).lines[0].cut_mm is not None


def test_what_is_not_there_is_said(shop):
    with pytest.raises(NotFound, match="no entry"):
        shop.shelf.change("nothing", TUBE)
    with pytest.raises(NotFound, match="no entry"):
        shop.shelf.remove("nothing")
    kept = shop.shelf.add(TUBE)
    clamp = {"kind": "worm", "closed_mm": "9", "open_mm": "12", "width_mm": "8"}
    with pytest.raises(NotFound, match="no entry"):  # an entry does not change its shelf
        shop.shelf.change(kept.id, OwnDraft(shelf="clamps", fields=clamp))
    with pytest.raises(BendrelError, match="no answer"):
        shop.shelf.prefer({"clamps": "string"})
    assert shop.kit.preferences["clamps"] == "worm"


def test_a_wrong_correction_leaves_the_row_as_it_was(shop):
    kept = shop.shelf.add(TUBE)
    with pytest.raises(BendrelError, match="Wall"):
        shop.shelf.change(kept.id, replace(TUBE, fields=TUBE.fields | {"wall_mm": "3 mm"}))
    assert shop.kit.tubes[kept.row_id].wall_mm == 1.0


def test_a_row_that_no_longer_makes_sense_is_left_out_and_nothing_falls(tmp_path):
    """A material that a later catalogue no longer has must not keep the shop from opening."""
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    kept = shop.shelf.add(TUBE)
    with shop.database.engine.begin() as connection:
        connection.exec_driver_sql(
            "UPDATE own_entries SET fields = replace(fields, 'copper-nickel', 'unobtainium')"
        )
    shop.close()
    again = open_shop(path)
    assert kept.row_id not in again.kit.tubes
    assert [entry.id for entry in again.shelf.own()] == [kept.id]
    again.close()


def test_a_kit_counts_what_is_missing(shop):
    """By hand: 100 + 100 mm of straight, one arc of 15·π/2, flares and spare: 0.25 m of tube; 0.1 m of
    it lies in stock, at 6.40 a metre."""
    line = bent(row(100, 90))
    ref = "tube:copper-nickel_3-16in_0.711"
    shop.shelf.hold(Held(ref=ref, unit_cents=640))
    shop.stock.add(StockDraft(tube=ref.removeprefix("tube:"), form="offcut", length="100 mm"))
    tube = next(r for r in shop.kits.of_line(line).rows if r.need.ref == ref)
    cut = 200 + 15 * 3.14159265 / 2 + 2 * 2.05 + 25
    assert tube.need.amount == pytest.approx(cut, abs=0.02)
    assert tube.short == pytest.approx(cut - 100, abs=0.02)
    assert tube.cents == round(6.40 * cut / 10)


def test_a_line_without_readings_still_says_what_the_old_one_needs(shop):
    job = shop.jobs.create(JobDraft(name="Launch"))
    line = shop.lines.create(job.id, "drain")
    assert shop.kits.of_line(line.document).rows == ()
    assert shop.kits.of_job(job.id).rows == ()


def test_the_simulated_supplier_answers_for_every_row_or_says_it_is_away(shop):
    kit = shop.kit
    for group, rows in (("tube", kit.tubes), ("nut", kit.nuts), ("hose", kit.hoses), ("clamp", kit.clamps)):
        for item in rows:
            assert shop.supplier.quote(kit, f"{group}:{item}") > 0
    for fluid in kit.fluids:
        assert kit.fluids[fluid].gas or shop.supplier.quote(kit, f"fluid:{fluid}") is not None
    assert shop.supplier.quote(kit, "wizard:wand") is None
    shop.supplier.answers = False
    with pytest.raises(SupplierAway):
        shop.supplier.quote(kit, "part:filter")


def test_needs_of_different_names_stay_apart(shop):
    line = bent(row(100, 90))
    needs = shop.kits.of_line(line).rows
    twice = added_up([row.need for row in needs] * 2)
    assert len(twice) == len({(r.need.ref, r.need.what) for r in needs})
    longer = bent(row(200, 90), spare=Length(text="25 mm"))
    both = added_up([r.need for r in (*needs, *shop.kits.of_line(longer).rows)])
    assert both[0].amount == pytest.approx(needs[0].need.amount * 2 + 100)


FILTER = OwnDraft(
    shelf="components",
    fields={
        "what": "filter", "name": "filter head of the pump", "family": "hydraulic-low",
        "a_seat": "cone-37", "a_thread": "9/16-18", "b_mm": "10 mm", "rated_kpa": "12 bar",
    },
)  # fmt: skip


def test_a_component_of_the_shops_own_has_its_sides_and_its_rating(shop):
    kept = shop.shelf.add(FILTER)
    row = shop.kit.components[kept.row_id]
    assert (row.a.kind, row.a.of, row.a.thread) == ("socket", "cone-37", "9/16-18")
    assert (row.b.kind, row.b.on_mm, row.rated_kpa) == ("spigot", 10.0, 1200.0)
    with pytest.raises(BendrelError, match="Side b: say one of"):
        shop.shelf.add(replace(FILTER, fields=FILTER.fields | {"b_end": "npt"}))
    with pytest.raises(BendrelError, match="under a hose is a spigot"):
        shop.shelf.add(replace(FILTER, fields=FILTER.fields | {"b_end": "bead", "b_mm": ""}))

"""A database from an earlier Bendrel opens with everything in it."""

import json
import sqlite3

import pytest
from alembic import command
from alembic.config import Config

from bendrel.exchange.documents.documents import line_to_value
from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
from bendrel.services.stock.stock import StockDraft
from bendrel.store.database import MIGRATIONS, _engine
from tests.lines import bent, row, the_tube

# What a line document held before removal, checks and open items came in
EARLIER = {
    "format": "bendrel-line",
    "version": 1,
    "name": "Rear axle",
    "service": "brake",
    "unit": "mm",
    "end_a": {"label": "hose", "fitting": "double-45", "nut": "double-45_3-16in_3-8-24"},
    "end_b": {"label": "cylinder", "fitting": "double-45", "nut": None, "port_thread": "M10x1"},
    "spans": [
        {
            "kind": "rigid",
            "tube": "copper-nickel_3-16in_0.711",
            "bender": "lever_3-16in",
            "readings": {
                "kind": "bends",
                "rows": [
                    {
                        "length": {"text": "100", "unit": "mm"},
                        "read_from": "outside",
                        "read_to": "outside",
                        "angle": {"text": "90"},
                        "plane": {"text": "12:00"},
                        "radius": None,
                    }
                ],
                "last": {"text": "80", "unit": "mm"},
                "last_read_from": "outside",
            },
            "spare": {"text": "25 mm", "unit": "mm"},
            "held": "A",
            "marks": "start",
        }
    ],
}


def laid_out(path, revision):
    """A database as that migration left it."""
    engine = _engine(path)
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
    engine.dispose()
    return path


@pytest.fixture
def first_layout(tmp_path):
    """A database as the first migration left it, with one job and one line."""
    path = laid_out(tmp_path / "shop.db", "0001")
    with sqlite3.connect(path) as database:
        when = "2026-11-01 08:00:00"
        database.execute(
            "insert into jobs values ('j1', 'Fire tender', 'old tender', 'mm', 1, ?, ?, null)", (when, when)
        )
        database.execute("insert into lines values ('l1', 'j1', 0, 1, 1, ?, ?, null)", (when, when))
        database.execute(
            "insert into line_steps (line_id, seq, at, document) values ('l1', 1, ?, ?)",
            (when, json.dumps(EARLIER)),
        )
    database.close()
    return path


def test_an_earlier_database_is_brought_up_and_nothing_is_lost(first_layout):
    shop = open_shop(first_layout)
    (job,) = shop.jobs.board()
    assert (job.name, job.machine, job.customer, job.promised) == ("Fire tender", "old tender", "", None)
    assert (job.parked, job.tried) == ("", "")
    opened = shop.lines.open(job.lines[0].id)
    readings = the_tube(opened.document).readings
    assert (readings.rows[0].length.text, readings.rows[0].by, readings.last_by) == ("100", "leg", "leg")
    assert opened.document.removal.items == ()
    assert not opened.document.finished
    assert job.lines[0].bends == 1
    shop.close()


def test_an_earlier_line_goes_on_as_any_other(first_layout):
    shop = open_shop(first_layout)
    line = shop.lines.open("l1")
    shop.lines.save("l1", line.version, bent(row(100, 90), name="Rear axle"))
    back = shop.lines.undo("l1", line.version + 1)
    assert back.document == line.document
    shop.close()


def test_bringing_it_up_twice_changes_nothing(first_layout):
    for _ in range(2):
        shop = open_shop(first_layout)
        shop.close()
    with sqlite3.connect(first_layout) as database:
        (kept,) = database.execute("select document from line_steps").fetchone()
    database.close()
    assert json.loads(kept) == EARLIER


def test_tube_that_was_only_a_figure_becomes_a_coil_to_look_at(tmp_path):
    path = laid_out(tmp_path / "shop.db", "0007")
    with sqlite3.connect(path) as database:
        database.executemany(
            "insert into holdings (ref, have, unit_cents) values (?, ?, ?)",
            [
                ("tube:copper-nickel_3-16in_0.711", 5200, 507),
                ("tube:copper-nickel_8mm_1", 900, None),
                ("nut:n", 14, None),
            ],
        )
        database.execute(
            "insert into stock values ('s1', 'copper-nickel_8mm_1', 'stick', 1500, 2, 'S4', '', '', ?, null)",
            ("2026-11-01 08:00:00",),
        )
    database.close()
    shop = open_shop(path)
    stock = {row.label: row for row in shop.stock.all()}
    assert set(stock) == {"S4", "C5"}  # what lay there by the piece was the truth already
    assert (stock["C5"].length_mm, stock["C5"].form) == (5200, "coil")
    held = shop.shelf.holdings()
    brake = held["tube:copper-nickel_3-16in_0.711"]
    assert (brake.have, brake.unit_cents) == (5200, 507)
    assert held["tube:copper-nickel_8mm_1"].have == 3000
    assert held["nut:n"].have == 14
    shop.close()


def test_a_line_document_is_the_same_after_a_round_through_the_store(shop):
    job = shop.jobs.create(JobDraft(name="Launch"))
    line = bent(row(100, 90), row(60, 45, "3:00"))
    stored = shop.lines.add(job.id, line)
    assert line_to_value(shop.lines.open(stored.id).document) == line_to_value(line)


def test_cuts_that_are_older_than_the_ledger_are_given_back(tmp_path):
    """By the cuts' own book: a stick lies there again, a coil is longer, the offcut is gone. What was counted
    since stays as it was counted."""
    path, when = laid_out(tmp_path / "shop.db", "0012"), "2026-11-01 08:00:00"
    tube = "copper-nickel_3-16in_0.711"
    items = [
        {"bar": "s1", "name": "S1 stick", "used_mm": 900.0, "offcut": "o1", "pieces": {"l1/s1": 900.0}},
        {"bar": "c1", "name": "C2 coil", "used_mm": 700.0, "offcut": "", "pieces": {"l1/s2": 700.0}},
    ]
    with sqlite3.connect(path) as database:
        database.execute(
            "insert into jobs (id, name, machine, unit, version, created_at, updated_at) "
            "values ('j1', 'Tender', '', 'mm', 1, ?, ?)",
            (when, when),
        )
        for row_id, form, length, count, label in (
            ("s1", "stick", 1500, 2, "S1"), ("c1", "coil", 4300, 1, "C2"), ("o1", "offcut", 600, 1, "O3"),
        ):  # fmt: skip
            database.execute(
                "insert into stock (id, tube, form, length_mm, count, label, finished, note, at) "
                "values (?, ?, ?, ?, ?, ?, '', '', ?)",
                (row_id, tube, form, length, count, label, when),
            )
        for name in ("k1", "k2"):
            database.execute(
                "insert into cuttings (id, job_id, items, at) values (?, 'j1', ?, ?)",
                (name, json.dumps(items if name == "k1" else [items[0] | {"offcut": ""}]), when),
            )
    database.close()
    shop = open_shop(path)
    assert shop.cuttings.take_back("k1").counted == ()
    lying = {row.label: (row.length_mm, row.count) for row in shop.stock.all()}
    assert lying == {"S1": (1500, 3), "C2": (5000, 1)}
    stick = next(row for row in shop.stock.all() if row.label == "S1")
    shop.stock.change(stick.id, StockDraft(tube=tube, length="1500", count=7), stick.version)
    assert shop.cuttings.take_back("k2").counted == ("S1",)
    assert next(row.count for row in shop.stock.all() if row.label == "S1") == 7
    shop.close()

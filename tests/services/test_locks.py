"""Reads never wait for a write, nothing is computed while the lock is held, and a lock that does not open is
told in a sentence."""

import sqlite3

import pytest
from starlette.testclient import TestClient

import bendrel.services.bench.benches as benches
import bendrel.services.reckoned.summarising as summarising
import bendrel.services.stock.cuttings as cuttings
import bendrel.store.database as database
from bendrel.api.app import create_app
from bendrel.core.bend.bench.state import MakingState
from bendrel.services.errors import Busy
from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
from bendrel.services.stock.cuttings import CutsDone, piece_of
from bendrel.services.stock.stock import StockDraft
from tests.lines import bent, row


@pytest.fixture(autouse=True)
def impatient(monkeypatch):
    monkeypatch.setattr(database, "PATIENCE_S", 0.05)


def locked(path):
    """Another program in the middle of a write."""
    other = sqlite3.connect(path, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    return other


def test_the_board_answers_while_something_else_writes(tmp_path):
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    line = shop.lines.add(job.id, bent(row(100, 90)))
    writer = locked(path)
    assert [told.name for told in shop.jobs.board()[0].lines] == ["test"]
    assert shop.lines.open(line.id).version == 1
    with pytest.raises(Busy, match="in use by something else"):
        shop.lines.save(line.id, 1, bent(row(120, 90)))
    writer.rollback()
    assert shop.lines.save(line.id, 1, bent(row(120, 90))).version == 2
    writer.close()
    shop.close()


def test_a_lock_that_does_not_open_is_a_sentence_and_no_crash(tmp_path):
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    line = shop.lines.add(job.id, bent(row(100, 90)))
    shop.close()
    with TestClient(
        create_app(path), base_url="http://127.0.0.1:8470", raise_server_exceptions=False
    ) as client:
        document = client.get(f"/api/lines/{line.id}").json()["document"]
        writer = locked(path)
        answer = client.put(
            f"/api/lines/{line.id}", json={"version": 1, "document": document | {"notes": "x"}}
        )
        assert answer.status_code == 503
        assert "tried again" in answer.json()["message"]
        assert answer.headers["retry-after"] == "1"
        writer.close()
        again = client.put(
            f"/api/lines/{line.id}", json={"version": 1, "document": document | {"notes": "x"}}
        )
        assert again.status_code == 200


def test_nothing_is_computed_while_the_lock_is_held(monkeypatch, tmp_path):
    """Whatever plans a line finds the database open to another program's write."""
    path = tmp_path / "shop.db"
    shop = open_shop(path)
    job = shop.jobs.create(JobDraft(name="Fire tender"))
    line = shop.lines.add(job.id, bent(row(100, 90)))
    shop.stock.add(StockDraft(tube="copper-nickel_3-16in_0.711", form="stick", length="1.5 m"))
    free = []

    def watched(module, name):
        real = getattr(module, name)

        def looking(*args, **kwargs):
            other = sqlite3.connect(path, timeout=0, isolation_level=None)
            other.execute("BEGIN IMMEDIATE")
            other.execute("ROLLBACK")
            other.close()
            free.append(name)
            return real(*args, **kwargs)

        monkeypatch.setattr(module, name, looking)

    for module, name in ((summarising, "plan_line"), (cuttings, "plan_line"), (benches, "tube_of_plan")):
        watched(module, name)
    shop.jobs.board()
    cuts = shop.cuttings.of(job.id, (piece_of(line.id, "s1"),))
    shop.cuttings.take(job.id, CutsDone(pieces=(piece_of(line.id, "s1"),), stamp=cuts.stamp))
    making = shop.makings.begin(line.id)
    shop.makings.keep(making.id, making.version, MakingState())
    assert len(free) >= 4  # the reckoning of what is kept is done in another process
    shop.close()

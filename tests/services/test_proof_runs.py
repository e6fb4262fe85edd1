"""Runs of the gauge: kept second by second, told when it fails, proving only the line they were made for."""

import json
import os
import signal
import subprocess
import sys
import threading
import time
import tracemalloc
from dataclasses import replace
from datetime import date

import pytest
from starlette.testclient import TestClient

import bendrel.services.proof.recorder as recorder
from bendrel.core.line.proving import Done, FunctionCheck, Hold, HoldRow, JointEvent, JointWork, Proving
from bendrel.core.units.notation import UnitError
from bendrel.exchange.errors import FileError
from bendrel.services.errors import NotFound, Refused
from bendrel.services.job.jobs import JobDraft
from bendrel.services.proof.closings import SignDraft
from bendrel.services.proof.proof_runs import thinned
from bendrel.services.startup import open_shop
from bendrel.standins.vessel import Vessel, VesselOrder
from bendrel.store.database import NO_ROOM, NoRoom
from bendrel.store.models import ProofRunRow
from bendrel.store.proof_runs import readings_of
from tests.lines import bent, row
from tests.often import often

TODAY = date(2026, 11, 27)


@pytest.fixture
def lines(shop):
    job = shop.jobs.create(JobDraft(name="Tender"))
    made = replace(bent(row(100, 90)), service="coolant")
    return [shop.lines.add(job.id, made) for _ in range(2)]


class Clock:
    """Time that the test moves."""

    def __init__(self):
        self.now = 1000.0

    def __call__(self):
        return self.now


def said(value, **more):
    return json.dumps({"value": value, "unit": "kPa", "from": "air", **more})


def until(true, seconds=30):
    """Wait for what another thread brings about."""
    stop = time.monotonic() + seconds
    while not true():
        assert time.monotonic() < stop
        threading.Event().wait(0.02)


def recorded(shop, run_id):
    with shop.database.reading() as session:
        return readings_of(session, run_id)


def test_a_run_is_recorded_with_its_marks(shop, lines, monkeypatch):
    clock = Clock()
    monkeypatch.setattr(recorder, "monotonic", clock)
    shop.instruments.link("pressure", "on")
    run = shop.runs.begin(lines[0].id, absolute=False)
    for k in range(30):
        clock.now = 1000.0 + k
        shop.instruments.hear("pressure", said(100 - k, temperature=20))
    shop.runs.mark(run.id, "valve shut")
    shop.instruments.hear("pressure", "\x00 garbled")
    shop.instruments.link("pressure", "lost")
    ended = shop.runs.end(run.id)
    assert (ended.readings, ended.recording, ended.ended_at is None) == (30, False, False)
    assert [mark.text for mark in ended.marks] == [
        "valve shut", "The pressure gauge sent something that is no reading.", "gauge lost",
    ]  # fmt: skip
    read = shop.runs.readings(run.id, 101.325)
    assert read.times_s == tuple(float(k) for k in range(30))
    assert read.pressures_kpa[0] == pytest.approx(201.325)
    assert read.temperatures_c == (20.0,) * 30
    assert [one.id for one in shop.runs.of_line(lines[0].id)] == [run.id]


class FullDisk:
    """The database's writing while `full`."""

    def __init__(self, shop, monkeypatch):
        self.full, self._real = False, shop.database.writing
        monkeypatch.setattr(shop.database, "writing", self._writing)

    def _writing(self):
        if self.full:
            raise NoRoom(NO_ROOM)
        return self._real()


def test_a_moment_of_full_disk_does_not_end_a_recording(shop, lines, monkeypatch):
    """What is heard while nothing can be written waits, is said to, and is written once there is room."""
    disk = FullDisk(shop, monkeypatch)
    shop.instruments.link("pressure", "on")
    run = shop.runs.begin(lines[0].id, absolute=False)
    disk.full = True
    for k in range(5):
        shop.instruments.hear("pressure", said(100 - k))
    until(lambda: shop.recorder.trouble)
    told = shop.runs.open(run.id)
    assert (told.recording, told.trouble, told.waiting, told.readings) == (True, NO_ROOM, 5, 0)
    with pytest.raises(NoRoom):
        shop.runs.end(run.id)
    assert shop.runs.open(run.id).recording
    disk.full = False
    shop.instruments.hear("pressure", said(95))
    until(lambda: shop.runs.open(run.id).readings == 6)
    assert shop.runs.open(run.id).trouble == ""
    assert shop.runs.end(run.id).readings == 6


def test_an_acknowledged_mark_is_in_the_database(shop, lines, monkeypatch):
    """It is read by somebody else the moment that it is answered; one that cannot be kept is refused."""
    monkeypatch.setattr(recorder, "WRITE_EVERY_S", 3600.0)
    shop.instruments.link("pressure", "on")
    run = shop.runs.begin(lines[0].id, absolute=False)
    shop.runs.mark(run.id, "valve shut")
    with shop.database.reading() as session:
        assert [text for _, text in session.get(ProofRunRow, run.id).marks] == ["valve shut"]
    disk = FullDisk(shop, monkeypatch)
    disk.full = True
    with pytest.raises(NoRoom):
        shop.runs.mark(run.id, "valve open")
    disk.full = False
    assert [mark.text for mark in shop.runs.end(run.id).marks] == ["valve shut"]


def test_one_run_at_a_time_and_of_one_line(shop, lines):
    shop.instruments.link("pressure", "on")
    run = shop.runs.begin(lines[0].id, absolute=False)
    with pytest.raises(Refused, match="another line"):
        shop.runs.begin(lines[1].id, absolute=False)
    assert shop.runs.begin(lines[0].id, absolute=False).id == run.id
    with pytest.raises(Refused, match="a word"):
        shop.runs.mark(run.id, "  ")
    shop.runs.end(run.id)
    with pytest.raises(Refused, match="not being recorded"):
        shop.runs.mark(run.id, "late")
    with pytest.raises(NotFound):
        shop.runs.open("nothing")


@pytest.mark.long("tens of thousands of readings")
def test_hours_at_ten_readings_a_second_keep_memory_flat(shop, lines, monkeypatch):
    """36,000 readings, at length 72,000: none is held once it is written, and the chart stays small."""
    clock = Clock()
    monkeypatch.setattr(recorder, "monotonic", clock)
    shop.instruments.link("pressure", "on")
    run = shop.runs.begin(lines[0].id, absolute=False)
    line = said(100.0, temperature=20)
    tracemalloc.start()
    most = 0
    parts = often(3, 6)
    for part in range(parts):
        for _ in range(12_000):
            clock.now += 0.1
            shop.instruments.hear("pressure", line)
        until = time.monotonic() + 20
        while (held := tracemalloc.get_traced_memory()[0]) > most and time.monotonic() < until:
            if part == 0 and not shop.recorder.waiting:
                most = held + 1_000_000
            time.sleep(0.02)  # the recorder is still writing what it heard
        assert held <= most
    tracemalloc.stop()
    assert shop.runs.end(run.id).readings == parts * 12_000
    chart = shop.runs.chart(run.id, 600)
    assert len(chart.points) == 600
    assert chart.points[-1].at_s == pytest.approx(1200 * parts, abs=10)


def test_the_chart_keeps_what_is_highest_and_lowest():
    import numpy as np

    data = np.array([[k, 100.0, float("nan")] for k in range(1000)])
    data[500, 1] = 3.0
    points = thinned(data, 50)
    assert min(point.least for point in points) == 3.0
    assert points
    assert all(point.warm_c is None for point in points)
    assert thinned(np.empty((0, 3)), 50) == ()


_KILLED = """
import sys, time
from pathlib import Path
from bendrel.services.startup import open_shop
from tests.often import often
shop = open_shop(Path(sys.argv[1]), backups=False)
shop.instruments.link("pressure", "on")
run = shop.runs.begin(sys.argv[2], absolute=False)
print(run.id, flush=True)
while True:
    shop.instruments.hear("pressure", '{"value": %f, "unit": "kPa"}' % 50.0)
    print("%.3f" % time.monotonic(), flush=True)
    time.sleep(0.1)
"""


@pytest.mark.long("a process is started and killed")
def test_a_killed_program_loses_at_most_the_last_second(shop, lines):
    """Every tenth of a second a reading; the process is killed without a word."""
    path, line = shop.database.path, lines[0].id
    shop.close()
    with subprocess.Popen(
        [sys.executable, "-c", _KILLED, str(path), line], stdout=subprocess.PIPE, text=True
    ) as child:
        run_id = child.stdout.readline().strip()
        for _ in range(25):
            child.stdout.readline()
        os.kill(child.pid, signal.SIGKILL)
        sent = 25 + len(child.stdout.read().splitlines())
    again = open_shop(path, backups=False)
    run = again.runs.open(run_id)
    assert sent - 10 <= run.readings <= sent
    assert not run.recording
    assert again.runs.end(run_id).ended_at is not None
    again.close()


def test_a_file_becomes_a_run_whole_or_not_at_all(shop, lines):
    text = b"time_s,pressure_kpa,temperature_c\n0,300,20\n10,299,20\n20,298,20\n30,297,20\n40,296,20\n"
    run = shop.runs.bring_in(lines[0].id, text)
    assert (run.readings, run.source, run.absolute) == (5, "file", True)
    assert shop.runs.written(run.id, 101.325).splitlines()[1] == "0.0,300.0,20.0"
    with pytest.raises(FileError, match="not a number"):
        shop.runs.bring_in(lines[0].id, text + b"50,low,20\n")
    with pytest.raises(NotFound):
        shop.runs.bring_in("nothing", text)
    assert len(shop.runs.of_line(lines[0].id)) == 1


def test_the_simulated_vessel_speaks_the_protocol():
    heard = []

    class Socket:
        def link(self, kind, state):
            heard.append((kind, state))

        def hear(self, kind, text):
            heard.append((kind, text))

    vessel = Vessel(Socket())
    order = VesselOrder(start_kpa=100, leak_kpa_min=6, settles_kpa=0, noise_kpa=0)
    assert json.loads(vessel.line(order, 60))["value"] == pytest.approx(94)
    below = VesselOrder(start_kpa=-60, leak_kpa_min=6, settles_kpa=0, noise_kpa=0)
    assert json.loads(vessel.line(below, 60))["value"] == pytest.approx(-54)
    assert json.loads(vessel.line(below, 6000))["value"] == 0
    vessel.nonsense()
    vessel.lose()
    vessel.off()
    assert heard[1:] == [("pressure", "lost"), ("pressure", "off")]


def rows(*pressures):
    return tuple(HoldRow(minutes=str(2 * k), pressure=f"{p} kPa") for k, p in enumerate(pressures))


def test_what_is_read_by_eye_is_judged(shop, lines):
    steady = Hold(kind="liquid", rows=rows(*[100.0] * 6), volume="2 L", minutes="10")
    leaks = replace(steady, rows=rows(100, 90, 80, 70, 60, 50))
    line = lines[0].document

    def told(hold):
        closing = shop.closings.of(replace(line, proving=Proving(holds=(hold,))), lines[0].id, TODAY)
        return closing.holds[0]

    assert told(steady).result.verdict == "holds"
    assert told(leaks).result.verdict == "leaks"
    assert "at least 5" in told(replace(steady, rows=rows(100, 100))).problem
    assert "is not a pressure" in told(replace(steady, rows=rows(100, "much"))).problem
    assert "no time" in told(replace(steady, rows=(HoldRow(minutes="soon", pressure="1 bar"),) * 5)).problem
    other = shop.runs.bring_in(lines[1].id, b"time_s,pressure_kpa\n0,300\n1,300\n2,300\n3,300\n4,300\n")
    assert "another line" in told(replace(steady, run=other.id, rows=())).problem


def test_gas_at_a_dangerous_pressure_is_refused_with_the_reason(shop, lines):
    gas = Hold(kind="gas", rows=rows(*[800.0] * 6), volume="2 L")
    line = replace(lines[0].document, proving=Proving(holds=(gas,)))
    told = shop.closings.of(line, lines[0].id, TODAY).holds[0]
    assert told.result is None
    assert "shot out" in told.problem
    assert "liquid" in told.problem
    # a compressed-air line works with it: nothing else proves it whole
    air = shop.closings.of(replace(line, service="air"), lines[0].id, TODAY).holds[0]
    assert air.result is not None


def proved(shop, opened, **changes):
    """The line with every step of fitting and proving done."""
    told = shop.closings.of(opened.document, opened.id, TODAY)
    looked = (("dried", "10:00"), ("dry", "10:10"), ("dried", "10:20"), ("dry", "10:30"))
    events = tuple(JointEvent(what=what, at=f"2026-11-26T{at}") for what, at in looked)
    proving = Proving(
        done=tuple(Done(step=step.id, at="2026-11-26T09:00", by="Ada") for step in told.steps),
        joints=tuple(
            JointWork(span=j.span, end=j.end, meets=j.meets, by="Ada", events=events) for j in told.joints
        ),
        checks=tuple(FunctionCheck(step=s.run, works="yes") for s in told.steps if s.kind == "works"),
    )
    return replace(opened.document, proving=replace(proving, **changes))


def test_a_sign_off_only_with_nothing_in_the_way(shop, lines):
    opened = lines[0]
    with pytest.raises(Refused, match="In the way"):
        shop.closings.sign(opened.id, opened.version, SignDraft(by="Ada", day="2026-11-27"))
    saved = shop.lines.save(opened.id, opened.version, proved(shop, opened))
    for draft, why in [
        (SignDraft(by=" ", day="2026-11-27"), "a name"),
        (SignDraft(by="Ada", day="2026-11-20"), "before what was last done"),
        (SignDraft(by="Ada", day="soon"), "no date"),
        (SignDraft(by="Ada", day="2999-01-01"), "still to come"),
    ]:
        with pytest.raises(Refused, match=why):
            shop.closings.sign(opened.id, saved.version, draft)
    words = SignDraft(by="Ada", day="2026-11-27", km="a lot")
    with pytest.raises(UnitError, match="no number of kilometres"):
        shop.closings.sign(opened.id, saved.version, words)
    stops = [one.text for one in shop.closings.of(saved.document, opened.id, TODAY).in_the_way]
    assert stops == []
    signed = shop.closings.sign(opened.id, saved.version, SignDraft(by="Ada", day="2026-11-27"))
    assert signed.document.proving.signed.by == "Ada"
    told = shop.closings.of(signed.document, opened.id, TODAY)
    assert told.signed_stands is True
    assert told.due[0].day == "2026-12-11"
    longer = replace(signed.document, carries=replace(signed.document.carries, pressure="2 bar"))
    assert shop.closings.of(longer, opened.id, TODAY).signed_stands is False


def test_a_brake_wants_somebody_competent(shop, lines):
    opened = replace(lines[0], document=replace(lines[0].document, service="brake"))
    saved = shop.lines.save(opened.id, opened.version, proved(shop, opened))
    with pytest.raises(Refused, match="someone competent"):
        shop.closings.sign(opened.id, saved.version, SignDraft(by="Ada", day="2026-11-27"))
    draft = SignDraft(by="Ada", competent="the inspector", day="2026-11-27")
    assert (
        shop.closings.sign(opened.id, saved.version, draft).document.proving.signed.competent
        == "the inspector"
    )


def test_proof_and_sign_off_travel_with_the_job(shop, lines):
    """Brought in again the line is signed as it was, with its run and every reading."""
    opened = lines[0]
    text = "time_s,pressure_kpa,temperature_c\n" + "".join(f"{10 * k},201.3,20\n" for k in range(40))
    run = shop.runs.bring_in(opened.id, text.encode())
    hold = Hold(kind="liquid", run=run.id, reads="absolute", minutes="5")
    saved = shop.lines.save(opened.id, opened.version, proved(shop, opened, holds=(hold,)))
    assert shop.closings.of(saved.document, opened.id, TODAY).holds[0].result.verdict == "holds"
    shop.closings.sign(opened.id, saved.version, SignDraft(by="Ada", day="2026-11-27"))
    data = shop.archives.write(opened.job_id).data
    brought = shop.archives.read(data, keep=True)
    copies = [shop.lines.open(one.id) for one in shop.jobs.one(brought.job_id).lines]
    there = copy = next(one for one in copies if one.document.proving.signed)
    told = shop.closings.of(copy.document, there.id, TODAY)
    assert told.signed_stands is True
    assert told.holds[0].readings == 40
    own = shop.runs.of_line(there.id)[0]
    assert own.id != run.id
    assert shop.runs.written(own.id, 101.325) == shop.runs.written(run.id, 101.325)


def test_nobody_signs_by_saving(shop, lines):
    opened = lines[0]
    saved = shop.lines.save(opened.id, opened.version, proved(shop, opened))
    signed = shop.closings.sign(opened.id, saved.version, SignDraft(by="Ada", day="2026-11-27"))
    undone = shop.lines.undo(opened.id, signed.version)
    with pytest.raises(Refused, match="stage Prove"):
        shop.lines.save(opened.id, undone.version, signed.document)


def test_over_the_network(application, tmp_path, templates):
    """The calls of the screens: a run begun, fed, marked, read and ended."""
    del tmp_path, templates
    with TestClient(application, base_url="http://127.0.0.1") as client:
        job = client.post("/api/jobs", json={"name": "Tender"}).json()["id"]
        line = client.post(
            f"/api/jobs/{job}/lines", json={"name": "Heater feed", "service": "coolant"}
        ).json()
        client.post("/api/instruments/pressure/line", content=said(1))
        client.post("/api/standins/vessel", json={"start_kpa": 100, "per_second": 20})
        run = client.post(f"/api/lines/{line['id']}/runs", json={}).json()
        until = time.monotonic() + 10
        while client.get(f"/api/runs/{run['id']}").json()["run"]["readings"] < 10:
            assert time.monotonic() < until
            time.sleep(0.05)
        assert client.post(f"/api/runs/{run['id']}/marks", json={"text": "valve shut"}).status_code == 200
        client.post("/api/standins/vessel/stop")
        ended = client.post(f"/api/runs/{run['id']}/end").json()
        assert not ended["recording"]
        assert client.get(f"/api/runs/{run['id']}/readings.csv").text.startswith("time_s,pressure_kpa")
        closing = client.post(
            "/api/closing", params={"line": line["id"], "today": "2026-11-27"}, json=line["document"]
        ).json()
        assert closing["hold"]["kind"] == "liquid"
        assert client.post(
            f"/api/lines/{line['id']}/sign-off",
            json={"version": line["version"], "sign_off": {"by": "Ada", "day": "2026-11-27"}},
        ).status_code == 422  # fmt: skip

"""Instruments: what is a reading, what is nonsense, and who hears of it."""

import asyncio
from concurrent.futures import ThreadPoolExecutor

import pytest

from bendrel.exchange.errors import FileError
from bendrel.exchange.readings.instruments import KINDS, read_message
from bendrel.services.bench.instruments import Instruments
from bendrel.standins.bench import StandIn, StandInOrder


@pytest.mark.parametrize(
    ("kind", "text", "figures", "texts"),
    [
        ("caliper", '{"value": 25.4, "unit": "mm"}', (25.4,), ("25.4 mm",)),
        ("caliper", '{"value": 0.5, "unit": "in"}', (12.7,), ("0.5 in",)),
        ("caliper", '{"value": 2000, "unit": "mm"}', (2000,), ("2000 mm",)),
        ("caliper", '{"value": 78.7, "unit": "in"}', (1998.98,), ("78.7 in",)),
        ("gauge", '{"value": 43.5, "unit": "deg"}', (43.5,), ("43.5",)),
        ("gauge", '{"value": 360, "unit": "deg"}', (360,), ("360",)),
        (
            "pressure",
            '{"value": 4.1, "unit": "bar", "from": "air", "temperature": 21.5}',
            (410, 21.5),
            ("4.1 bar", "21.5 °C"),
        ),
        ("pressure", '{"value": -60, "unit": "kPa"}', (-60,), ("-60 kPa",)),
        ("probe", '{"x": 1, "y": -2.5, "z": 0, "unit": "mm"}', (1, -2.5, 0), ("1 mm", "-2.5 mm", "0 mm")),
    ],
)
def test_readings(kind, text, figures, texts):
    read = read_message(kind, text)
    assert (read.figures, read.texts) == (pytest.approx(figures), texts)


@pytest.mark.parametrize(
    ("kind", "text"),
    [
        ("caliper", ""),
        ("caliper", "25.4"),
        ("caliper", '{"value": "25.4", "unit": "mm"}'),
        ("caliper", '{"value": true, "unit": "mm"}'),
        ("caliper", '{"value": NaN, "unit": "mm"}'),
        ("caliper", '{"value": -3, "unit": "mm"}'),
        ("caliper", '{"value": 1e12, "unit": "mm"}'),
        ("caliper", '{"value": 2001, "unit": "mm"}'),
        ("caliper", '{"value": 78.8, "unit": "in"}'),
        ("caliper", '{"value": 25.4}'),
        ("caliper", '{"value": 90, "unit": "deg"}'),
        ("pressure", '{"value": -1, "unit": "kPa", "from": "nothing"}'),
        ("pressure", '{"value": -200, "unit": "kPa"}'),
        ("pressure", '{"value": 4, "unit": "mm"}'),
        ("pressure", '{"value": 4, "unit": "bar", "from": "the sea"}'),
        ("pressure", '{"value": 4, "unit": "bar", "temperature": "warm"}'),
        ("gauge", '{"value": 400, "unit": "deg"}'),
        ("gauge", '{"value": 90, "unit": "mm"}'),
        ("probe", '{"x": 1, "y": 2, "unit": "mm"}'),
        ("probe", "[" * 300),
        ("probe", "x" * 5000),
    ],
)
def test_nonsense_is_told_in_a_sentence(kind, text):
    with pytest.raises(FileError, match=r"^The .*\.$"):
        read_message(kind, text)


def test_a_bad_reading_keeps_the_last_good_one():
    hub = Instruments()
    hub.link("caliper", "on")
    hub.hear("caliper", '{"value": 12.5, "unit": "mm"}')
    event = hub.hear("caliper", "ERR")
    assert (event.reading, event.last.figures, event.trouble != "") == (None, (12.5,), True)


def awaited(work):
    """The result of a coroutine, in a thread of its own: the browser tests keep a loop in this one."""
    with ThreadPoolExecutor(1) as pool:
        return pool.submit(asyncio.run, work).result()


@pytest.mark.parametrize("state", ["off", "lost"])
def test_nothing_is_heard_from_one_that_is_not_connected(state):
    hub = Instruments()
    hub.link("gauge", state)
    assert hub.hear("gauge", '{"value": 45, "unit": "deg"}').reading is None
    assert [event.last for event in hub.present()] == [None] * len(KINDS)


def test_listeners_hear_how_all_stand_then_everything_that_happens():
    async def listened():
        hub = Instruments()
        stream = hub.listen()
        heard = [await anext(stream) for _ in range(len(KINDS))]
        standin = StandIn("caliper", hub)
        for act in ("on", "send", "nonsense", "lose", "return", "off"):
            standin.do(StandInOrder(act=act, figures=(30.0,)))
            heard.append(await anext(stream))
        await stream.aclose()
        return heard

    heard = awaited(listened())
    assert [event.state for event in heard] == ["off"] * len(KINDS) + ["on", "on", "on", "lost", "on", "off"]
    assert heard[len(KINDS) + 1].reading.figures == (30.0,)
    assert heard[len(KINDS) + 2].trouble
    assert {event.last.figures for event in heard[len(KINDS) + 1 :]} == {(30.0,)}


def test_a_sleeping_listener_loses_old_news_not_new():
    async def listened():
        hub = Instruments()
        stream = hub.listen()
        for _ in range(3):
            await anext(stream)
        hub.link("caliper", "on")
        for value in range(200):
            hub.hear("caliper", f'{{"value": {value}, "unit": "mm"}}')
        events = [await anext(stream) for _ in range(len(KINDS) + 47)]
        await stream.aclose()
        return events

    assert awaited(listened())[-1].reading.figures == (199.0,)


def test_over_the_network(client):
    assert client.post("/api/instruments/caliper/simulated", json={"act": "on"}).status_code == 204
    heard = client.post("/api/instruments/caliper/line", content='{"value": 7, "unit": "mm"}').json()
    assert heard["reading"]["texts"] == ["7 mm"]
    assert client.post("/api/instruments/caliper/line", content=b"\xff\xfe").json()["trouble"]
    assert client.post("/api/instruments/hammer/line", content="x").status_code == 422
    assert [event["state"] for event in client.get("/api/instruments").json()] == [
        "on",
        *["off"] * (len(KINDS) - 1),
    ]

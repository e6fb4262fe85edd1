"""A pressure gauge on a vessel that exists only here: it leaks, settles, drifts, is noisy, and fails."""

from __future__ import annotations

import asyncio
import json
from math import exp
from random import Random

from bendrel.core.record import record
from bendrel.standins.bench import NONSENSE, Socket


@record
class VesselOrder:
    """What the simulated vessel does: it starts `start_kpa` above the air (below: negative), goes towards
    the air by `leak_kpa_min`, settles by `settles_kpa` in the first minutes, and its gauge sends `per_second`
    readings with a noise of `noise_kpa`. `speed` makes its time run faster."""

    start_kpa: float = 400.0
    leak_kpa_min: float = 0.0
    settles_kpa: float = 4.0
    noise_kpa: float = 0.4
    warms_c: float = 0.0
    per_second: float = 10.0
    speed: float = 1.0


SETTLE_S = 40.0
ROOM_C = 18.0
HOUR_S = 3600.0


class Vessel:
    """One simulated vessel with its gauge, in the socket of the pressure gauge. Belongs to one event loop."""

    def __init__(self, socket: Socket, seed: int = 1) -> None:
        self._socket = socket
        self._chance = Random(seed)
        self._task: asyncio.Task[None] | None = None

    def run(self, order: VesselOrder) -> None:
        """Set the pressure and send readings until `stop`."""
        self.stop()
        self._socket.link("pressure", "on")
        self._task = asyncio.get_running_loop().create_task(self._send(order))

    def stop(self) -> None:
        """Send no more."""
        if self._task is not None:
            self._task.cancel()
            self._task = None

    def off(self) -> None:
        """The gauge is switched off."""
        self.stop()
        self._socket.link("pressure", "off")

    def lose(self) -> None:
        """The connection breaks."""
        self.stop()
        self._socket.link("pressure", "lost")

    def nonsense(self) -> None:
        """A garbled line between the readings."""
        self._socket.hear("pressure", self._chance.choice(NONSENSE))

    async def _send(self, order: VesselOrder) -> None:
        loop, sent = asyncio.get_running_loop(), 0
        began = loop.time()
        while True:
            self._socket.hear("pressure", self.line(order, (loop.time() - began) * order.speed))
            sent += 1
            await asyncio.sleep(max(0.0, began + sent / order.per_second - loop.time()))

    def line(self, order: VesselOrder, seconds: float) -> str:
        """What the gauge sends after so many seconds."""
        way = 1.0 if order.start_kpa > 0 else -1.0
        over = max(0.0, abs(order.start_kpa) - order.leak_kpa_min * seconds / 60)
        settles = order.settles_kpa * exp(-seconds / SETTLE_S)
        warm = ROOM_C + order.warms_c * seconds / HOUR_S
        value = way * (over + settles) + self._chance.gauss(0.0, order.noise_kpa)
        told = {"value": round(value, 3), "unit": "kPa", "from": "air", "temperature": round(warm, 2)}
        return json.dumps(told)

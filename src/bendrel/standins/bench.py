"""A caliper, an angle gauge and a point probe that exist only here. They speak the same lines as
real ones would, can be switched off, lose their connection, and send nonsense."""

from __future__ import annotations

import json
from typing import Literal, Protocol

from bendrel.core.record import record
from bendrel.exchange.readings.instruments import InstrumentKind

Act = Literal["on", "off", "lose", "return", "send", "nonsense"]

NONSENSE = ('{"value": "ERR", "unit": "mm"}', "\x00\x07garbled", '{"value": 1e12, "unit": "mm"}')


@record
class StandInOrder:
    """What somebody does with a simulated instrument; `figures` are what it shows when it sends."""

    act: Act
    figures: tuple[float, ...] = ()
    unit: Literal["mm", "in"] = "mm"


class Socket(Protocol):
    """Where an instrument is plugged in."""

    def link(self, kind: InstrumentKind, state: Literal["off", "on", "lost"]) -> None:
        """It was switched on or off, or the connection broke."""

    def hear(self, kind: InstrumentKind, text: str) -> object:
        """It sent a line."""


class StandIn:
    """One simulated instrument in its socket."""

    def __init__(self, kind: InstrumentKind, socket: Socket) -> None:
        self._kind = kind
        self._socket = socket
        self._garbled = 0

    def do(self, order: StandInOrder) -> None:
        """Carry out one order."""
        if order.act in ("on", "return"):
            self._socket.link(self._kind, "on")
        elif order.act == "off":
            self._socket.link(self._kind, "off")
        elif order.act == "lose":
            self._socket.link(self._kind, "lost")
        elif order.act == "nonsense":
            self._garbled += 1
            self._socket.hear(self._kind, NONSENSE[self._garbled % len(NONSENSE)])
        else:
            self._socket.hear(self._kind, self._line(order))

    def _line(self, order: StandInOrder) -> str:
        if self._kind == "probe":
            x, y, z = (*order.figures, 0.0, 0.0, 0.0)[:3]
            return json.dumps({"x": x, "y": y, "z": z, "unit": order.unit})
        value = order.figures[0] if order.figures else 0.0
        return json.dumps({"value": value, "unit": "deg" if self._kind == "gauge" else order.unit})

"""What another part can be joined to."""

from __future__ import annotations

from typing import Literal

from bendrel.core.record import record

FaceKind = Literal["plug", "socket", "spigot", "bore", "unknown"]


@record
class Face:
    """One end of a span, or a port, as another part meets it.

    A `plug` seals as an end of tube does: `of` is its end type; eyes, studs and latches are plugs by
    their end type. A `socket` has the seat `of` (blank while nobody has said
    it). A `spigot` of the form `of` (plain, bead, barb) goes into a hose. A `bore` is a hose's, `of` its
    catalogue row. `thread` is as designated; `mm` the diameter of spigot or bore, or of the tube that a
    socket takes. `name` says it in words. `unknown`: nobody has said what it is.
    """

    kind: FaceKind
    name: str
    of: str = ""
    thread: str = ""
    mm: float | None = None

    @property
    def known(self) -> bool:
        """Enough is said of it to judge what meets it."""
        return self.kind != "unknown" and (self.kind != "socket" or bool(self.of or self.thread))

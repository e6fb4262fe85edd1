"""What to do before a line comes off: cautions, steps, where it drains, and what to plug."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import EndName, Source
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_volume

DrainFirst = Literal["reservoir", "upper end", "low end"]


@record
class HeldBack:
    """How the system's own medium or power is let come `back` and `shut` off again, in a few words each. A
    `tap` is what the medium itself comes through."""

    back: str
    shut: str
    tap: bool = False


@record
class RemovalStep:
    """One step with the id that is kept when it is ticked off. `leaves` is what then stays on the machine
    for the time of the work; it comes off before the system is filled, or at the very end. `source` says
    that it holds back what would come out of an open joint, or drive it."""

    id: str
    text: str
    leaves: str = ""
    until: Literal["fill", "end"] = "fill"
    source: HeldBack | None = None


@record
class RemovalRule:
    """How a line of one service comes off. `volume_l` is the usual volume of the whole system, `lost_l` what
    is spilled and bled away for good when one line of it is opened."""

    service: str
    drain: DrainFirst
    drain_text: str
    volume_l: float
    lost_l: float
    steps: tuple[RemovalStep, ...]
    source: Source


@record
class Plug:
    """An opening to close at one end: the port's plug and the cap for a tube that stays."""

    id: str
    end: EndName
    text: str


@record
class RemovalAdvice:
    """All of it for one line. `pan_l` is the pan to put under it, in litres."""

    drain: DrainFirst
    drain_text: str
    volume_l: float
    lost_l: float
    pan_l: float
    steps: tuple[RemovalStep, ...]
    cautions: tuple[str, ...]
    plugs: tuple[Plug, ...]
    source: Source
    problem: str = ""


def advise(
    rule: RemovalRule,
    *,
    steps: tuple[RemovalStep, ...],
    volume: str,
    pan_share: float,
    ports: tuple[tuple[EndName, str, str, bool], ...],
    cautions: tuple[str, ...],
) -> RemovalAdvice:
    """Advice for one line. `steps` are all before the first joint is opened; `volume` as typed, blank
    for the usual one; the pan holds `pan_share` times the system; `ports` are (end, what it goes to, the
    port's thread or the nut's, whether a hose goes over it); `cautions` are those of the service for taking
    a line off."""
    litres, problem = rule.volume_l, ""
    if volume.strip():
        try:
            litres = parse_volume(volume)
        except UnitError as error:
            problem = str(error)
    plugs = tuple(
        Plug(id=f"plug-{end}", end=end, text=_plug_text(end, label, thread, spigot=spigot))
        for end, label, thread, spigot in ports
    )
    return RemovalAdvice(
        drain=rule.drain,
        drain_text=rule.drain_text,
        volume_l=litres,
        lost_l=min(rule.lost_l, litres),
        pan_l=litres * pan_share,
        steps=steps,
        cautions=cautions,
        plugs=plugs,
        source=rule.source,
        problem=problem,
    )


def _plug_text(end: EndName, label: str, thread: str, *, spigot: bool) -> str:
    place = label.strip() or f"the part at end {end}"
    if spigot:
        return f"{place}: a cap over the spigot, and a plug in the hose that stays"
    size = f"a {thread.strip()} plug" if thread.strip() else "a plug of its size (thread not measured yet)"
    return f"{place}: {size}, and a cap on anything that stays open"

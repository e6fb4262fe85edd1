"""Whether two faces go together, with what is between them, and why not."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.joints.face import Face
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.seat import seat_fit
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.fit import MixedThreads, ThreadFit, thread_fit
from bendrel.core.parts.verdict import Joint
from bendrel.core.record import record

MateCode = Literal[
    "wrong_seat", "joint_threads", "nothing_between", "union_ends", "joint_without_hose", "hose_on_what",
    "end_open", "joint_size",
]  # fmt: skip
_PRACTICE = Source(kind="common practice", text="what is screwed or pushed together")


@record
class Remark:
    """One reason why two faces do not go together."""

    code: MateCode
    title: str
    message: str
    source: Source
    advice: str = ""


def mate(kit: Kit, one: Face, other: Face, body: Joint | None = None) -> tuple[Remark, ...]:
    """Everything that stands against `one` on `other` with the `body` of a union between them (None: nothing
    is between). Nothing at all: they go together.

    Source: the rows of seats, end types, unions and threads that the two are of.
    """
    if body is not None and body.ends:
        return _union(kit, body, one, other)
    if body is not None and "bore" not in (one.kind, other.kind) and "unknown" not in (one.kind, other.kind):
        return (
            Remark(
                code="joint_without_hose",
                title=f"No hose makes this {body.name}",
                message=f"{_begun(one.name)} meets {other.name}, and the joint is told as {body.name}.",
                source=body.source,
                advice="Put the hose in, or choose a union.",
            ),
        )
    first, second = sorted((one, other), key=lambda face: _ORDER[face.kind])
    kinds = (first.kind, second.kind)
    if kinds == ("plug", "socket"):
        return (*_seat(kit, first, second), *_threads(kit, first, second), *_sizes(kit, first, second))
    if kinds in (("plug", "plug"), ("socket", "socket")):
        return (_nothing_between(first, second),)
    if kinds == ("spigot", "spigot"):
        return (_no_hose(first, second),)
    if kinds == ("spigot", "bore") or kinds == ("bore", "bore"):
        return ()  # how the hose goes on is judged with its clamps
    if "bore" in kinds and "unknown" not in kinds:
        bore, met = (first, second) if first.kind == "bore" else (second, first)
        return (_hose_on(bore, met),)
    if "spigot" in kinds and second.kind != "unknown":
        return (_no_hose(*((first, second) if first.kind == "spigot" else (second, first))),)
    return ()


_ORDER = {"plug": 0, "spigot": 1, "socket": 2, "bore": 3, "unknown": 4}


def _begun(words: str) -> str:
    return words[0].upper() + words[1:]


def _union(kit: Kit, body: Joint, one: Face, other: Face) -> tuple[Remark, ...]:
    made = [face for face in (one, other) if face.kind in ("plug", "spigot", "socket")]
    wrong = [face for face in made if face.kind != "plug" or face.of not in body.ends]
    takes = " or ".join(kit.fittings[name].name for name in body.ends)
    if wrong:
        names = " and ".join(dict.fromkeys(face.name for face in wrong))
        return (
            Remark(
                code="union_ends",
                title=f"A {body.name} does not take {names}",
                message=f"It takes {takes} on both sides.",
                source=body.source,
                advice="Change the ends to what the union takes, or take the union that the ends are for.",
            ),
        )
    if len({face.of for face in made}) > 1:
        return (
            Remark(
                code="union_ends",
                title=f"The two ends in this {body.name} are of two kinds",
                message=f"{_begun(one.name)} on one side, {other.name} on the other: one body has one seat.",
                source=body.source,
                advice="Make both ends alike, or take an adapter that has both seats.",
            ),
        )
    return ()


def _seat(kit: Kit, plug: Face, socket: Face) -> tuple[Remark, ...]:
    seat, fitting = kit.seats.get(socket.of), kit.fittings[plug.of]
    if seat is None:
        return ()
    fit = seat_fit(seat, plug.of)
    if fit.fits == "seals":
        return ()
    return (
        Remark(
            code="wrong_seat",
            title=f"{_begun(fitting.name)} does not seal in a {seat.name}",
            message=fit.reason,
            source=seat.source,
            advice="Choose the end that the port was made for, or an adapter.",
        ),
    )


def _threads(kit: Kit, plug: Face, socket: Face) -> tuple[Remark, ...]:
    """The plug's thread in the socket, or over it where its nut is the female one."""
    source = kit.advice["thread_fit"].source
    fitting = kit.fittings[plug.of]
    if not fitting.screwed or not plug.thread or not socket.thread:
        return ()
    try:
        own, met = kit.thread(plug.thread), kit.thread(socket.thread)
        pair = (met, own) if fitting.thread == "female" else (own, met)
        fit = thread_fit(*pair, kit.least_engagement)
    except MixedThreads as error:
        return (_thread(str(error), "Two threads that never mate", source),)
    except ThreadError:
        return ()  # its own field says that it cannot be read
    if fit.verdict == "fits":
        return ()
    words = fit_words(fit, over=fitting.thread == "female")
    return (_thread(words, f"{plug.thread} does not go with {socket.thread}", source),)


def fit_words(fit: ThreadFit, *, over: bool) -> str:
    """What two threads that do not fit do, in words; `over`: the female one is that of a nut."""
    pair = (
        f"A {fit.female} nut over the {fit.male} port"
        if over
        else f"A {fit.male} nut in the {fit.female} port"
    )
    if fit.verdict == "will_not_start":
        return f"{pair} does not start: it is {-fit.clearance_mm:.2f} mm too tight on the flanks."
    if fit.verdict == "loose":
        return f"{pair} holds by {fit.engagement:.0%} of a proper thread and pulls out."
    turns = fit.turns_before_binding or 0.0
    return (
        f"{pair} starts and binds after about {turns:.1f} turns, "
        f"with {fit.engagement:.0%} of the thread holding."
    )


def _thread(message: str, title: str, source: Source) -> Remark:
    return Remark(
        code="joint_threads",
        title=title,
        message=message,
        source=source,
        advice="Use an adapter, or an end with the other’s own thread.",
    )


def _sizes(kit: Kit, plug: Face, socket: Face) -> tuple[Remark, ...]:
    """A latch takes the tube of its own size."""
    if socket.of != "quick-socket" or plug.mm is None or socket.mm is None:
        return ()
    if abs(plug.mm - socket.mm) <= kit.splicing.weigh.same_size_mm:
        return ()
    return (
        Remark(
            code="joint_size",
            title=f"The connector is for {socket.mm:g} mm, the tube is {plug.mm:g} mm",
            message="A latch holds only on the tube and bead that it was made for.",
            source=_PRACTICE,
            advice="Choose the connector of this size.",
        ),
    )


def _nothing_between(one: Face, other: Face) -> Remark:
    what = "ends that both want a seat" if one.kind == "plug" else "ports that both want an end"
    return Remark(
        code="nothing_between",
        title=f"Two {what} meet with nothing between them",
        message=f"{_begun(one.name)} meets {other.name}.",
        source=_PRACTICE,
        advice="Put a union or an adapter between the two.",
    )


def _no_hose(spigot: Face, other: Face) -> Remark:
    return Remark(
        code="end_open",
        title=f"{_begun(spigot.name)} meets {other.name} with no hose between them",
        message="It holds and seals only under a hose.",
        source=_PRACTICE,
        advice="Put a hose between the two, or another end on the tube.",
    )


def _hose_on(bore: Face, met: Face) -> Remark:
    return Remark(
        code="hose_on_what",
        title=f"{_begun(bore.name)} cannot be clamped on {met.name}",
        message="A clamped hose goes on a spigot, a bead or a barb, not on a thread or a flare.",
        source=_PRACTICE,
        advice="Put an adapter with a spigot between the two, or take a hose with ends of its own.",
    )

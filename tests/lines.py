"""Line documents for tests, made of the same types that a person's typing makes.

Most tests speak of one tube, its two ends and what hangs beyond them: `End`, `Hose` and `Component` say
that in a few words, `replace` puts it into a line, `end_of` reads it back."""

from __future__ import annotations

import dataclasses
from typing import Any

from bendrel.catalogue.loader import load_kit
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    ComponentSpan,
    CornerReadings,
    CornerRow,
    HoseSpan,
    InClamp,
    Line,
    Port,
    RigidSpan,
    TestFlare,
    TubeEnd,
)
from bendrel.core.line.run import main_run, with_span
from bendrel.core.parts.calibration import Calibration
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import Angle, Length, Plane


@record
class Hose:
    """A hose beyond an end, told from the tube: `near` is the side towards it."""

    hose: str
    length: Length = Length()
    joined: str = "clamps"
    clamp: str | None = None
    clamps_each: int = 2
    near: Length = Length()
    far: Length = Length()
    far_plain: bool = False
    rubs: bool = False
    sleeved: bool = False


@record
class Component:
    """A component beyond an end."""

    what: str
    points: str = "not marked"
    source_port: str = "not known"
    age: str = "new"
    bore: Length = Length()
    land: Length = Length()
    note: str = ""


_PORT = ("label", "thread", "seat", "body", "proved", "role", "role_how", "tag")
_TUBE = ("fitting", "nut", "trial", "insert", "leave_long", "ready", "flarer")


@record
class End:
    """One end of a line of one tube: the tube's end, the port, and what lies between, from the tube
    outwards."""

    label: str = ""
    fitting: str = "plain"
    nut: str | None = None
    thread: str = ""
    trial: TestFlare | None = None
    insert: bool = False
    leave_long: Length = Length()
    seat: str = ""
    body: str = ""
    proved: bool = False
    ready: bool = False
    flarer: str = ""
    beyond: tuple[Hose | Component, ...] = ()
    role: str = "not known"
    role_how: str = ""
    tag: str = ""


DOUBLE = End(fitting="double-45", nut="double-45_3-16in_3-8-24", thread="3/8-24", proved=True)


def _span(item: Hose | Component, end: str, number: int) -> HoseSpan | ComponentSpan:
    name = f"{end.lower()}{number}"
    if isinstance(item, Component):
        return ComponentSpan(id=name, **vars(item))
    near, far = ("b", "a") if end == "A" else ("a", "b")
    told = {key: value for key, value in vars(item).items() if key not in ("near", "far", "far_plain")}
    told |= {f"on_{near}": item.near, f"on_{far}": item.far, f"plain_{far}": item.far_plain}
    return HoseSpan(id=name, **told)


def _item(span: HoseSpan | ComponentSpan, end: str) -> Hose | Component:
    if isinstance(span, ComponentSpan):
        return Component(**{field.name: getattr(span, field.name) for field in dataclasses.fields(Component)})
    near, far = ("b", "a") if end == "A" else ("a", "b")
    same = {
        field.name: getattr(span, field.name)
        for field in dataclasses.fields(Hose)
        if field.name not in ("near", "far", "far_plain")
    }
    return Hose(
        near=getattr(span, f"on_{near}"),
        far=getattr(span, f"on_{far}"),
        far_plain=getattr(span, f"plain_{far}"),
        **same,
    )


def the_tube(line: Line) -> RigidSpan:
    """The tube of a line that has one."""
    run = main_run(line)
    assert run is not None
    return run.span


def with_tube(line: Line, **changes: Any) -> Line:
    """`line` with its tube changed."""
    return with_span(line, dataclasses.replace(the_tube(line), **changes))


def end_of(line: Line, end: str) -> End:
    """One end of a line of one tube, as `End` tells it."""
    at = main_run(line).end(end)
    return End(
        beyond=tuple(_item(span, end) for span in at.beyond),
        **{key: getattr(at.port, key) for key in _PORT},
        **{key: getattr(at.tube, key) for key in _TUBE},
    )


def _with_end(line: Line, name: str, end: End) -> Line:
    port = Port(**{key: getattr(end, key) for key in _PORT})
    tube_end = TubeEnd(**{key: getattr(end, key) for key in _TUBE})
    own = the_tube(line)
    side = "a" if name == "A" else "b"
    own = dataclasses.replace(own, **{f"end_{side}": tube_end})
    at = next(k for k, span in enumerate(line.spans) if span.id == own.id)
    beyond = tuple(_span(item, name, k) for k, item in enumerate(end.beyond, start=1))
    spans = (
        (*reversed(beyond), own, *line.spans[at + 1 :]) if name == "A" else (*line.spans[:at], own, *beyond)
    )
    return dataclasses.replace(line, **{f"port_{side}": port}, spans=spans, joints=())


_OF_TUBE = ("checks", "bought", "openings")


def replace(thing: Any, **changes: Any) -> Any:
    """As `dataclasses.replace`; of a line of one tube also its ends (`end_a`, `end_b`) and what is kept of
    the tube."""
    if not isinstance(thing, Line):
        return dataclasses.replace(thing, **changes)
    ends = {name: changes.pop(f"end_{name.lower()}") for name in "AB" if f"end_{name.lower()}" in changes}
    own = {key: changes.pop(key) for key in _OF_TUBE if key in changes}
    if own:
        thing = with_tube(thing, **own)
    line = dataclasses.replace(thing, **changes)
    for name, end in ends.items():
        line = _with_end(line, name, end)
    return line


def in_order(text: str) -> tuple[InClamp, ...]:
    """An order of bends, such as "A1 A2 B4 B3", as the document keeps it."""
    return tuple(InClamp(row=f"r{word[1:]}", held=word[0]) for word in text.split())


def row(length, angle, plane="12:00", *, start="start", end="start", radius=None, unit="mm"):
    """One leg and bend; by default read from bend start to bend start, so legs are plain sums."""
    return BendRow(
        length=Length(text=str(length), unit=unit),
        read_from=start,
        read_to=end,
        angle=Angle(text=str(angle)),
        plane=Plane(text=plane),
        radius=None if radius is None else Length(text=str(radius), unit=unit),
    )


def bent(*rows, last=100, last_from="start", **changes) -> Line:
    """A 3/16 in copper-nickel brake line on the lever bender (R 15 mm), no spare."""
    span_changes = {k: changes.pop(k) for k in ("tube", "bender", "held", "marks", "spare") if k in changes}
    span = RigidSpan(
        id="s1",
        tube="copper-nickel_3-16in_0.711",
        bender="lever_3-16in",
        readings=BendReadings(rows=rows, last=Length(text=str(last)), last_read_from=last_from),
        spare=Length(text="25 mm"),
    )
    line = Line(name="test", unit="mm", spans=(dataclasses.replace(span, **span_changes),))
    return replace(line, **({"end_a": DOUBLE, "end_b": DOUBLE} | changes))


def cornered(*points, **changes) -> Line:
    """The same line given by corner points in mm."""
    rows = tuple(
        CornerRow(x=Length(text=str(x)), y=Length(text=str(y)), z=Length(text=str(z))) for x, y, z in points
    )
    return with_tube(bent(**changes), readings=CornerReadings(rows=rows))


def known_kit() -> Kit:
    """The catalogue with the usual lever bender known almost exactly: what is read of a part is then the
    hand's."""
    known = Calibration(
        radius_mm=15.0, zero_offset_mm=0.0, springback=0.0, springback_deg=0.0,
        doubt=(0.02, 0.02, 0.0002, 0.02), pieces=8, odd=(),
        covariance=((1e-4, 0, 0, 0), (0, 1e-4, 0, 0), (0, 0, 1e-8, 0), (0, 0, 0, 1e-4)),
    )  # fmt: skip
    return dataclasses.replace(load_kit(), calibrations={("lever_3-16in", "copper-nickel"): known})

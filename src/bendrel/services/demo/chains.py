"""The demo shop's lines that are more than one tube."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.line.condition import Condition, Damage, Fixture
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    Carries,
    ComponentKind,
    ComponentSpan,
    HoseSpan,
    Joint,
    Line,
    Port,
    RigidSpan,
    TubeEnd,
)
from bendrel.core.parts.kit import Kit
from bendrel.core.units.lengths import Angle, Length, Plane
from bendrel.services.mend.splicing import MendOrder, decide_to_mend

Leg = tuple[str, str, str]


def _readings(last: str, *legs: Leg) -> BendReadings:
    return BendReadings(
        rows=tuple(
            BendRow(length=Length(text=length), angle=Angle(text=angle), plane=Plane(text=plane))
            for length, angle, plane in legs
        ),
        last=Length(text=last),
    )


BEAD = TubeEnd(fitting="bead")


def _tube(span_id: str, size: str, readings: BendReadings, end_b: TubeEnd = BEAD) -> RigidSpan:
    """Seamless steel, beaded under its hoses, bent by the shop's own bender of that size."""
    bender = {"8mm": "lever_8mm", "10mm": "bench_10mm"}[size]
    tube = f"steel-seamless_{size}_1"
    return RigidSpan(id=span_id, tube=tube, bender=bender, readings=readings, end_a=BEAD, end_b=end_b)


def _inline(span_id: str, what: ComponentKind, length: str) -> ComponentSpan:
    """A component between two hoses, on spigots of 10 mm."""
    return ComponentSpan(
        id=span_id,
        what=what,
        points="B",
        length=Length(text=length),
        on_a=Length(text="10"),
        on_b=Length(text="10"),
        rated="10 bar",
    )


def spliced_cooler_line(kit: Kit) -> Line:
    """Cooler to gearbox, rusted under one clip and mended there: two stubs stay, one piece is new."""
    span = _tube("s1", "8mm", _readings("180", ("260", "90", "12:00"), ("420", "45", "3:00")))
    old = Line(
        name="Cooler return, spliced",
        service="cooler",
        unit="mm",
        port_a=Port(label="oil cooler", seat="spigot", role="source"),
        port_b=Port(label="pump gearbox", seat="spigot", role="return"),
        spans=(span,),
        condition=Condition(
            reasons=("rusted through",),
            urgency="off the road",
            twin="sound",
            damage=(
                Damage(id="d1", kind="rust", depth="through", at=Length(text="450"), to=Length(text="490")),
            ),
            fixtures=(Fixture(id="f1", at=Length(text="340"), state="there"),),
            cause="trapped dirt",
            countermeasure="clip moved to where it drains",
            end_a="seized in an expensive part",
        ),
        carries=Carries(flow="5 L/min"),
    )
    order = MendOrder(damage="d1")
    return decide_to_mend(
        old, order, "flared_unions", "sound on both sides, the cooler's end is seized", kit
    ).document


def header_tank_hose() -> Line:
    """A line of hose alone."""
    return Line(
        name="Header tank to engine",
        service="coolant",
        unit="mm",
        port_a=Port(label="header tank", seat="spigot", role="source"),
        port_b=Port(label="engine, lower pipe", seat="spigot", role="return"),
        spans=(
            HoseSpan(
                id="h1",
                hose="coolant_16mm",
                length=Length(text="640"),
                clamp="worm_16-25",
                clamps_each=1,
                on_a=Length(text="16"),
                on_b=Length(text="16"),
            ),
        ),
    )


def return_line() -> Line:
    """The crane's steering return: two tubes, with a cooler and a filter between them."""
    hose = HoseSpan(hose="steering-return_10mm", length=Length(text="180"), clamp="worm_12-20")
    spans = (
        _tube("s1", "10mm", _readings("220", ("180", "90", "12:00"), ("360", "60", "3:00"))),
        replace(hose, id="h1"),
        replace(_inline("c1", "cooler", "300"), holds="0.4 L"),
        replace(hose, id="h2"),
        replace(_inline("c2", "filter", "120"), service="every 500 hours"),
        replace(hose, id="h3"),
        _tube("s2", "10mm", _readings("160", ("240", "90", "12:00"))),
    )
    return Line(
        name="Steering return, through cooler and filter",
        service="steering-return",
        unit="mm",
        port_a=Port(label="steering box", seat="hose", role="source"),
        port_b=Port(label="steering tank", seat="hose", role="return"),
        spans=spans,
        joints=(Joint(),) * (len(spans) - 1),
        carries=Carries(flow="8 L/min"),
    )


def saved_end_line() -> Line:
    """New tube to an old moulded end that can no longer be bought: its stub stays, beaded under a hose."""
    new = _tube("s1", "10mm", _readings("190", ("150", "90", "12:00"), ("280", "90", "6:00")))
    saved = TubeEnd(fitting="bead", ready=True)
    stub = replace(_tube("s2", "10mm", _readings("95"), saved), state="stays")
    hose = HoseSpan(id="h1", hose="steering-return_10mm", length=Length(text="120"), clamp="worm_12-20")
    return Line(
        name="Tank drop, with the old end saved",
        service="steering-return",
        unit="mm",
        port_a=Port(label="steering box", seat="hose", role="source"),
        port_b=Port(label="tank, moulded end", seat="spigot", role="return"),
        spans=(new, hose, stub),
        joints=(Joint(), Joint(why="the moulded end cannot be bought any more")),
    )
